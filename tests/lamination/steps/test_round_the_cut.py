"""What comes round the cut: offcuts, a roller before the butter, a second bake, cuts into a square."""

import math
from dataclasses import replace

import pytest

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.shaping import Card
from lamination.plan.fixes import taken
from lamination.plan.starts import starting_finish
from lamination.plan.work import work
from lamination.steps.again import BakeAgain
from lamination.steps.crank import Crank, gaps_of
from lamination.steps.cut import Cut
from lamination.steps.fry import Frying
from lamination.steps.look import Looking
from lamination.steps.offcuts import Gathered, Offcuts
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Family, Place
from tests.plans import changed, formula, station

from .test_made_up import KITCHEN, SQUARE, books, codes, made, with_after

# --- offcuts


@pytest.mark.parametrize("gathered", list(Gathered))
def test_what_is_made_of_offcuts_is_no_scrap_any_more(gathered):
    bare, plan = station(), with_after(station(), "cut", Offcuts("Bun", 30, gathered))
    before, after = work(bare, KITCHEN), work(plan, KITCHEN)
    figures = made(plan, "offcuts")
    assert figures.pieces == int(before.cut.trimmings_g // 30)
    assert figures.used_g + figures.left_g == pytest.approx(before.cut.trimmings_g)
    assert before.facts.waste_g - after.facts.waste_g == pytest.approx(figures.used_g)
    assert [label.product for label in after.labels] == ["Croissant", "Bun"]
    came, went = books(plan)
    assert went + figures.used_g == pytest.approx(came, rel=1e-9)


def test_two_things_of_offcuts_share_what_there_is():
    plan = with_after(station(), "cut", Offcuts("Base", 40, pieces=2), Offcuts("Bun", 10))
    first, second = [s.made for s in work(plan, KITCHEN).strip if s.do == "offcuts"]
    assert first.pieces == 2
    assert second.used_g + second.left_g == pytest.approx(first.left_g)


def test_more_than_the_cut_leaves_is_minded_and_as_many_as_there_are_clears_it():
    plan = with_after(station(), "cut", Offcuts("Base", 40, pieces=500))
    note = next(n for n in work(plan, KITCHEN).notes if n.code == "too-few")
    assert "too-few" not in codes(taken(plan, note.fixes[0]))


# --- thinned by a hand-cranked roller


def test_a_roller_thins_by_its_own_settings():
    plan = with_after(station(), "dough", Crank(5))
    figures = made(plan, "crank")
    assert figures.gaps_mm == gaps_of(KITCHEN)[:5]
    assert figures.strip.thickness_mm == figures.gaps_mm[-1] == 1.6
    volume = figures.strips * figures.strip.volume_mm3
    assert volume == pytest.approx(2400 / 1120 * 1e6)
    assert figures.strip.length_mm <= KITCHEN["crank.longest_mm"]
    assert work(plan, KITCHEN).layers == work(station(), KITCHEN).layers


def test_a_setting_the_roller_has_not_is_refused_at_its_field():
    small = Kitchen({f"crank.{n}_mm": 0 for n in range(5, 10)})
    with pytest.raises(Faults) as wrong:
        work(with_after(station(), "dough", Crank(6)), small)
    assert wrong.value.faults[0].field == "steps[1].to_setting"
    assert "4 settings" in wrong.value.faults[0].message


# --- baked again


def baked_again(*again):
    plan = station(finish=starting_finish(Family.CROISSANT))
    return with_after(plan, "look", *again)


def test_some_of_the_pieces_are_filled_and_baked_again():
    plan = baked_again(BakeAgain("almond", 30, of_pct=50))
    worked = work(plan, KITCHEN)
    figures = made(plan, "again")
    assert figures.pieces == round(worked.cut.pieces / 2)
    assert figures.takes_g == 30 * figures.pieces
    assert {n.ingredient: n.grams for n in worked.shopping}["almond"] == figures.takes_g
    assert "nuts" in worked.labels[0].allergens
    assert worked.total_min > work(baked_again(), KITCHEN).total_min


@pytest.mark.parametrize(("hours", "told"), [(14, False), (60, True)])
def test_pieces_of_the_day_before_are_no_matter_and_older_ones_are_told(hours, told):
    plan = baked_again(BakeAgain("almond", 30))
    rested = plan.changed(plan.first(Looking), rest=Rest.at(Place.BENCH, 60 * hours))
    assert ("again-old" in codes(rested)) is told


# --- cuts into a square


@pytest.mark.parametrize(("card", "many"), [(Card.PINWHEEL, 4), (Card.WHIRL, 8), (Card.FRAME, 4)])
def test_cuts_into_a_square_leave_its_middle_whole(card, many):
    plan = station(cut=Cut((replace(SQUARE, card=card),)))
    slits = work(plan, KITCHEN).cut.products[0].slits
    assert len(slits) == many
    for s in slits:
        assert all(0 <= v <= 80 for v in (s.from_x_mm, s.from_y_mm, s.to_x_mm, s.to_y_mm))
        ends = ((s.from_x_mm, s.from_y_mm), (s.to_x_mm, s.to_y_mm))
        assert all(max(abs(x - 40), abs(y - 40)) >= 13 for x, y in ends)


def test_so_many_to_a_tray_because_the_baker_says_so():
    plan = with_trays()
    usual = work(plan, Kitchen()).shaped.trays.products[0]
    for many in (usual.per_tray - 3, usual.per_tray + 6):
        product = replace(plan.cut.products[0], per_tray=many)
        worked = work(plan.changed(plan.cut, products=(product,)), Kitchen())
        on = worked.shaped.trays.products[0]
        assert on.per_tray == many
        assert on.pieces[:-1] == (many,) * (len(on.pieces) - 1)
        assert sum(on.pieces) == sum(usual.pieces)
        assert on.along * on.across >= many
        closer = [n for n in worked.notes if n.code == "closer-0"]
        assert bool(closer) is (many > usual.per_tray)
        assert all(n.tone == "know" for n in closer)


def test_a_wash_before_the_proof_and_another_before_the_oven():
    plan = with_trays()
    shape, wash, *after = starting_finish(Family.CROISSANT)
    moved = replace(shape, rest=None)
    twice = changed(plan, finish=(
        moved, replace(wash, rest=Rest.at(Place.PROOFER, 150)), replace(wash, id=""), *after,
    ))  # fmt: skip
    worked = work(twice, Kitchen())
    names = [s.name for s in worked.strip if s.do == "wash"]
    assert names == ["Wash 1", "Wash 2"]
    egg = [line for sheet in worked.sheets if sheet.stop.startswith("wash") for line in sheet.lines]
    assert len(egg) == 2 * len({line.ingredient for line in egg})


# --- fried


def fried(**how):
    shape, *_ = starting_finish(Family.CROISSANT)
    return station(formula=formula(), finish=(shape, Frying(**how), Looking()))


def test_pieces_are_fried_so_many_at_a_time_and_the_fat_is_on_the_label():
    worked = work(fried(fat="butter-clarified-x", at_once=4, side_s=120.0), Kitchen())
    stop = next(s for s in worked.strip if s.do == "fry")
    pieces = worked.cut.pieces
    assert (stop.made.pieces, stop.made.goes) == (pieces, math.ceil(pieces / 4))
    assert stop.bench_min == pytest.approx(stop.made.goes * (4 + 1.5))
    (label,) = worked.labels
    assert "butter-clarified-x" in label.unknown
    assert not label.complete
    assert any(n.code == "fry-unknown" for n in worked.notes)
    assert "Hot fat" in stop.caution
    # what it takes up, and what it loses in all
    piece = worked.cut.products[0].piece_g
    assert stop.made.takes_g == pytest.approx(pieces * piece * 0.09)
    assert label.baked_g == pytest.approx(piece * 0.96, abs=0.06)


def test_what_is_looked_for_in_a_fried_piece_is_not_an_oven_s():
    looks = [" ".join(plain(t) for t in work(p).stop("look").does) for p in (fried(), with_trays())]
    assert ["oven" in text for text in looks] == [False, True]
    assert "greasy" in looks[0]


def test_a_fat_of_the_shelf_is_named_with_its_allergens_and_its_heat_is_minded():
    (label,) = work(fried(fat="butter-table"), Kitchen()).labels
    assert label.unknown == ()
    assert "milk" in label.allergens
    for fat_c, code in ((150, "fry-cool"), (200, "fry-hot")):
        plan = fried(fat="butter-table", fat_c=fat_c)
        note = next(n for n in work(plan, Kitchen()).notes if n.code == code)
        mended = work(taken(plan, note.fixes[0]), Kitchen()).notes
        assert code not in {n.code for n in mended}


def with_trays():
    return station(formula=formula(), finish=starting_finish(Family.CROISSANT))
