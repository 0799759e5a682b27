"""Trays, loads, the bake, the labels: what follows the cut."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.kitchen.cards import CardLine, OwnCard, Part
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Allergen
from lamination.pieces.baking import Oven, converted
from lamination.pieces.cards import CARDS
from lamination.pieces.cutting import blank_of
from lamination.pieces.products import Addition, Product, Shape, Topping
from lamination.pieces.shaping import Card
from lamination.pieces.trays import load_trays, on_tray, risen_size, shaped_size
from lamination.plan.starts import starting_finish
from lamination.plan.work import work
from lamination.steps.bake import BakeFigures
from lamination.steps.cut import Cut
from lamination.terms.limits import Faults
from lamination.terms.said import plain, span
from lamination.terms.sizes import Size
from lamination.terms.trade import Family
from tests.plans import formula, station

FINISH = starting_finish(Family.CROISSANT)
NO_WASH = tuple(step for step in FINISH if step.do != "wash")


def bake_of(family=Family.CROISSANT):
    return next(step for step in starting_finish(family) if step.do == "bake").bake


def baked(worked):
    return worked.made(BakeFigures)[0]


def finished(**changes):
    return station(**{"finish": FINISH, "formula": formula(), **changes})


def test_a_rolled_piece_is_as_thick_as_the_circle_its_section_fills():
    product = Product("Roll", Shape.RECTANGLE, 90, 140, card=Card.ROLL)
    size = shaped_size(product, blank_of(product), 4, Kitchen())
    assert math.pi / 4 * size.width_mm**2 == pytest.approx(140 * 4)
    assert size.length_mm == 90


def test_what_lies_flat_keeps_its_size_and_what_is_folded_over_halves():
    square = Product("Square", Shape.SQUARE, 100)
    over = replace(square, card=Card.TURNOVER)
    assert shaped_size(square, blank_of(square), 3, Kitchen()) == Size(100, 100, 3)
    assert shaped_size(over, blank_of(over), 3, Kitchen()) == Size(100, 50, 6)


def test_yeasted_pieces_spread_and_puff_rises_instead():
    kitchen, piece = Kitchen(), Size(100, 50, 10)
    soft, puff = (risen_size(piece, Card.ROLL, f, kitchen) for f in (Family.DANISH, Family.PUFF))
    assert soft.width_mm > puff.width_mm
    assert puff.thickness_mm > soft.thickness_mm > 10


@given(st.floats(20, 300), st.floats(20, 300), st.floats(0, 60))
def test_pieces_and_gaps_fit_the_tray_whichever_way_round(a, b, gap):
    along, across = on_tray(Size(a, b, 20), 600, 400, gap)
    turned = on_tray(Size(b, a, 20), 600, 400, gap)
    assert along * across == turned[0] * turned[1]
    assert along * across * (a + gap) * (b + gap) <= 600 * 400 + 1e-6


@given(st.integers(0, 60), st.integers(1, 12))
def test_every_tray_is_in_one_load_and_none_is_too_full(trays, holds):
    loads = load_trays(tuple(range(1, trays + 1)), holds)
    assert [t for load in loads for t in load.trays] == list(range(1, trays + 1))
    assert all(1 <= len(load.trays) <= holds for load in loads)


def test_all_pieces_are_on_trays_of_their_own_kind():
    cut = Cut((Product("Big", Shape.TRIANGLE, 90, 190, rows=1), Product("Small", Shape.SQUARE, 60)))
    worked = work(finished(cut=cut))
    big, small = worked.shaped.trays.products
    assert sum(big.pieces) == worked.cut.products[0].pieces
    assert sum(small.pieces) == worked.cut.products[1].pieces
    assert small.trays[0] == big.trays[-1] + 1
    assert all(n <= small.per_tray for n in small.pieces)


def test_the_strip_goes_on_from_the_cut_to_the_look():
    worked = work(finished())
    after = [s.do for s in worked.strip][-5:]
    assert after == ["cut", "shape", "wash", "bake", "look"]
    bake = worked.strip[-2]
    assert bake.bench_min == baked(worked).loads * baked(worked).bake_min
    assert worked.total_min > work(station()).total_min + 165 + 30


def test_a_plan_without_a_wash_has_no_stop_for_it():
    plan = finished(finish=NO_WASH)
    assert "wash" not in [s.key for s in work(plan).strip]


def test_what_is_never_cut_is_not_shaped_either():
    with pytest.raises(Faults, match="cut"):
        finished(cut=None)


def test_one_more_load_is_said_with_what_to_do_about_it():
    few = work(finished(), Kitchen({"oven.trays": 1}))
    note = next(n for n in few.notes if n.stop == "bake")
    more = (baked(few).loads - 1) * baked(few).bake_min
    assert f"{more:g} min after the first" in plain(note.text)
    assert not [n for n in work(finished(), Kitchen({"oven.trays": 40})).notes if n.stop == "bake"]


def test_a_proofer_that_is_too_small_is_said_at_the_shaping():
    notes = work(finished(), Kitchen({"proofer.trays": 1})).notes
    assert any(
        n.stop == "shape" and plain(n.title).startswith("The proofer takes it in") for n in notes
    )


def test_a_piece_larger_than_the_tray_is_said_and_gets_one_of_its_own():
    cut = Cut((Product("Slab", Shape.RECTANGLE, 700, 300),))
    worked = work(finished(cut=cut))
    assert any(plain(n.title) == "Slab is larger than the tray" for n in worked.notes)
    assert set(worked.shaped.trays.products[0].pieces) == {1}


def test_a_fan_oven_is_set_lower_and_is_a_little_quicker_and_back_again():
    deck = bake_of()
    fan = converted(deck, Oven.FAN, Kitchen())
    assert [s.oven_c for s in fan.stages] == [s.oven_c - 20 for s in deck.stages]
    assert fan.minutes == pytest.approx(0.9 * deck.minutes, abs=0.5)
    assert fan.stages[0].steam
    back = converted(fan, Oven.DECK, Kitchen())
    assert [s.oven_c for s in back.stages] == [s.oven_c for s in deck.stages]
    assert converted(fan, Oven.FAN, Kitchen()) is fan


def test_hot_sugar_has_its_caution_where_it_is_unmoulded():
    kouign = finished(finish=starting_finish(Family.KOUIGN), family=Family.KOUIGN)
    bake = next(s for s in work(kouign).strip if s.key == "bake")
    assert any("burns deeply" in line for line in bake.does)
    bare = next(s for s in work(finished()).strip if s.key == "bake")
    assert not any("sugar" in line for line in bare.does)


def label(plan):
    return work(plan).labels[0]


def test_the_label_names_allergens_of_dough_butter_wash_and_filling_together():
    assert label(finished(finish=NO_WASH)).allergens == (Allergen.GLUTEN, Allergen.MILK)
    assert Allergen.EGG in label(finished()).allergens
    nutty = Product("Almond", Shape.SQUARE, 90, filling="almond", filling_g=20)
    filled = label(finished(cut=Cut((nutty,))))
    assert (Allergen.NUTS in filled.allergens) != (filled.unknown == ("almond",))


def test_a_filling_nobody_knows_is_said_so_on_the_label_and_in_the_advice():
    odd = Product("Odd", Shape.SQUARE, 90, filling="grandmother's jam", filling_g=20)
    worked = work(finished(cut=Cut((odd,))))
    assert worked.labels[0].unknown == ("grandmother's jam",)
    assert not worked.labels[0].complete


def test_without_a_formula_the_dough_is_said_to_be_unknown():
    assert label(finished(formula=None)).unknown == ("the dough",)


@pytest.mark.parametrize("family", list(Family))
def test_every_family_has_a_finish_to_start_from(family):
    assert starting_finish(family)[0].do == "shape"
    assert 10 <= bake_of(family).minutes <= 60


def test_every_shape_has_a_card_in_short_steps():
    assert set(CARDS) == set(Card)
    for card in CARDS.values():
        assert 3 <= len(card.steps) <= 5
        assert all(len(plain(s.text)) <= 90 for s in card.steps)
        assert card.faults


def test_more_filling_than_the_shape_bears_is_said_at_the_shaping():
    def said(grams):
        cut = Cut(
            (
                Product(
                    "Pocket", Shape.SQUARE, 100, card=Card.POCKET, filling="almond", filling_g=grams
                ),
            )
        )
        return [
            n
            for n in work(finished(cut=cut)).notes
            if plain(n.title) == "A lot of filling in Pocket"
        ]

    assert said(90)[0].field == "steps[7].products[0].filling_g"
    assert said(10) == []


@pytest.mark.parametrize("card", list(Card))
def test_a_shaped_piece_is_no_larger_than_the_dough_that_is_in_it_allows(card):
    """No card makes a piece whose box, filled to two thirds, holds less than half of its dough."""
    strip = card in (Card.TWIST, Card.KNOT, Card.PLAIT)
    shape = Shape.STRIP if strip else Shape.SQUARE
    product = Product("P", shape, 25 if strip else 90, 220 if strip else None, card=card)
    blank = blank_of(product)
    size = shaped_size(product, blank, 5, Kitchen())
    assert size.length_mm * size.width_mm * size.thickness_mm > 0.5 * blank.mm2 * 5
    assert 5 <= size.thickness_mm <= 95
    assert max(size.length_mm, size.width_mm) <= 260


def test_two_corners_in_make_a_piece_as_long_as_the_diagonal():
    half = Product("Half", Shape.SQUARE, 100, card=Card.HALF_POCKET)
    size = shaped_size(half, blank_of(half), 4, Kitchen())
    assert (size.length_mm, size.width_mm) == pytest.approx((141.42, 70.71), abs=0.01)


def test_what_lies_in_a_tin_gets_no_wider_than_the_tin():
    kitchen = Kitchen({"tin.cup_mm": 68})
    crown = Product("Crown", Shape.SQUARE, 90, card=Card.CROWN)
    shaped = shaped_size(crown, blank_of(crown), 5, kitchen)
    risen = risen_size(shaped, Card.CROWN, Family.CROISSANT, kitchen)
    assert (risen.length_mm, risen.width_mm) == (68, 68)
    assert risen.thickness_mm > shaped.thickness_mm


OWN = OwnCard("boat", "Boat", ("Fold it.", "Press the ends."), length_mm=120, width_mm=40)


def test_a_card_of_the_house_says_how_large_a_piece_is_and_where_it_is_sealed():
    kitchen = Kitchen(cards=(replace(OWN, seal="Wash under the bow only."),))
    square = Product("Boat", Shape.SQUARE, 90, own_card="boat")
    assert shaped_size(square, blank_of(square), 5, kitchen) == Size(120, 40, 5)
    plan = station(cut=Cut((square,)), finish=FINISH)
    does = " ".join(plain(t) for t in work(plan, kitchen).stop("shape").does)
    assert "Wash under the bow only." in does
    assert not [n for n in work(plan, kitchen).notes if n.code.startswith("card-")]


def test_a_card_the_kitchen_has_no_more_is_said_and_the_piece_keeps_its_size():
    square = Product("Boat", Shape.SQUARE, 90, own_card="boat")
    plan = station(cut=Cut((square,)), finish=FINISH)
    worked = work(plan, Kitchen())
    assert [n.tone for n in worked.notes if n.code == "card-0"] == ["know"]
    assert worked.shaped.trays.products[0].shaped.length_mm == 90


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        (lambda: OwnCard("a", "A", ()), "steps"),
        (lambda: OwnCard("a", "A", ("x",), (CardLine(1, Part.FOLD, 0, 0, 1, 1),)), "lines[0].step"),
        (lambda: OwnCard("a", "", ("x",)), "name"),
        (lambda: Kitchen(cards=(OWN, OWN)), "cards[1].key"),
        (lambda: CardLine(0, Part.CUT, 0, 0, 101, 0), "to_x"),
    ],
)
def test_a_card_that_is_none_is_refused_at_its_field(wrong, field):
    with pytest.raises(Faults) as faults:
        wrong()
    assert [f.field for f in faults.value.faults] == [field]


def test_the_filling_s_share_is_told_by_mass_and_by_volume():
    """Almonds at 0.42 g a ml take more of a piece than they weigh."""
    product = Product("Pocket", Shape.SQUARE, 110, card=Card.POCKET, filling="almond", filling_g=30)
    worked = work(station(cut=Cut((product,)), finish=FINISH))
    told, piece_g = worked.shaped.filled[0], worked.cut.piece_g
    assert told.mass_pct == pytest.approx(100 * 30 / (30 + piece_g))
    ml = 30 / 0.42, piece_g / (3050 / (2400 / 1.12 + 650 / 0.94))
    assert told.volume_pct == pytest.approx(100 * ml[0] / sum(ml), rel=1e-6)
    jam = replace(product, filling="the mill's own jam")
    assert work(station(cut=Cut((jam,)), finish=FINISH)).shaped.filled[0].volume_pct is None


def test_what_is_put_on_costs_its_time():
    plain_one = Product("Square", Shape.SQUARE, 90)
    topped = replace(plain_one, toppings=(Topping("almond", 2, Addition.TOPPING),) * 2)
    bare, more = (
        work(station(cut=Cut((p,)), finish=FINISH)).stop("shape") for p in (plain_one, topped)
    )
    trays = len(more.made.trays.products[0].trays)
    assert more.bench_min - bare.bench_min == 2 * trays * Kitchen()["minutes.put_on"]


def test_how_many_a_tray_takes_says_how_it_was_got_and_so_does_the_whole_time():
    worked = work(finished())
    said = {w.of: plain(w.text) for w in worked.workings}
    (on,) = worked.shaped.trays.products
    text = said["shape.trays.products[0].per_tray"]
    assert f"{on.along} × {on.across} of" in text
    assert "With 20 mm between, a tray of 600 × 400 mm" in text
    hands = sum(s.bench_min for s in worked.strip)
    assert said["total_min"].startswith(f"{span(hands)} of work in {len(worked.strip)} steps")
    assert said["total_min"].endswith(f"{span(worked.total_min)}, until the last work is done.")
