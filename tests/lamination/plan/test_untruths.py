"""What was once said wrong to a baker, each held to the truth."""

import math
import re
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.dough.formula import OldDough
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.composition import Composition
from lamination.materials.ingredients import LIBRARY, Ingredient, Kind
from lamination.pieces.products import Addition, Product, Shape, Topping
from lamination.pieces.shaping import Card
from lamination.plan.amend import amend, scaled
from lamination.plan.amendment import Amendment, Change
from lamination.plan.starts import starting_finish, starting_plan
from lamination.plan.work import work
from lamination.search.layouts import AllotSearch, allot
from lamination.steps.cut import Cut
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.mix import Mixing
from lamination.steps.shape import Shaping
from lamination.steps.turn import Trim
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Family, Fold, Method, Place
from lamination.warmth.warmth import work_warmth
from tests.plans import LEAN, changed, formula, poolish, station, turns, with_formula

KITCHEN = Kitchen()


def minded(plan, kitchen=KITCHEN):
    return {n.code: plain(n.text) for n in work(plan, kitchen).notes if n.tone == "mind"}


def lock_in_of(plan):
    return next(s.made for s in work(plan, KITCHEN).strip if s.do == "lock_in")


def said(plan, do):
    stop = next(s for s in work(plan, KITCHEN).strip if s.do == do)
    return " ".join(plain(text) for text in stop.does)


# --- labels


def topped(*toppings):
    plan = with_formula(station(finish=starting_finish(Family.CROISSANT)))
    product = replace(plan.cut.products[0], toppings=toppings)
    return plan.changed(plan.cut, products=(product,))


def test_what_lies_on_a_piece_stands_on_its_label():
    (bare,) = work(topped()).labels
    (seeded,) = work(topped(Topping("almond", 3.0))).labels
    assert "nuts" in seeded.allergens
    assert "nuts" not in bare.allergens
    marked = topped(Topping("almond", 0.2, Addition.MARK))
    assert work(marked).labels[0].allergens == seeded.allergens


def test_a_topping_nobody_knows_anything_of_makes_a_label_incomplete():
    (label,) = work(topped(Topping("lock sugar", 3.0))).labels
    assert not label.complete
    assert "lock sugar" in label.unknown


# --- counts


@pytest.mark.parametrize(("method", "butter"), [(Method.HALF, 27), (Method.TWO_THIRDS, 54)])
def test_ends_tucked_in_do_not_double_the_count_that_leads(method, butter):
    tucked = tuple(
        replace(t, trim=Trim(ends_mm=10, tucked=True)) for t in turns("letter", "letter", "letter")
    )
    plan = station(turns=tucked)
    plan = plan.changed(plan.lock_in, method=method)
    worked = work(plan)
    assert worked.layers.butter <= butter
    assert worked.layers.most > worked.layers.butter
    assert "coverage" not in minded(plan) or "0.2" not in minded(plan)["coverage"]


def test_two_goes_lock_in_half_now_and_the_other_half_is_called_for_at_its_turn():
    plan = station()
    plan = plan.changed(plan.lock_in, method=Method.TWO_GO)
    made = lock_in_of(plan)
    assert made.now_g == plan.butter.mass_g / 2
    assert said(plan, "lock_in").startswith("Lock in 325 g of butter, the first half")
    by_volume = made.now_g / work(plan).butter.physics.density_kg_m3 * 1e6
    block = plan.lock_in.block_width_mm * plan.lock_in.block_length_mm
    assert made.block.thickness_mm == pytest.approx(by_volume / block, rel=1e-6)
    called = [s.key for s in work(plan).strip for text in s.does if "other half" in plain(text)]
    assert called == ["lock_in", "turn-2"]


def test_flour_worked_into_an_inverse_block_is_no_butter():
    plan = starting_plan("Inverse", Family.PUFF, 1500, KITCHEN)
    plan = amend(plan, Amendment(Change.METHOD, ingredient="inverse"), KITCHEN)
    flour = plan.butter.flour_g
    share = work(plan, KITCHEN).butter_share.of_flour_pct
    lines = [x for sheet in work(plan, KITCHEN).sheets for x in sheet.lines]
    weighed = sum(x.grams for x in lines if x.ingredient.startswith("flour"))
    assert flour > 0
    assert share == pytest.approx(100 * plan.butter.pure_g / weighed, rel=0.02)


# --- the block


@pytest.mark.parametrize("method", list(Method))
def test_as_thick_as_the_dough_is_so_or_says_why_not(method):
    plan = starting_plan("Thick", Family.CROISSANT, 2000, KITCHEN)
    plan = amend(plan, Amendment(Change.METHOD, ingredient=method.value), KITCHEN)
    try:
        plan = amend(plan, Amendment(Change.BLOCK_AS_DOUGH), KITCHEN)
    except Faults as why:
        (fault,) = why.faults
        assert fault.field == "change"
        assert not method.has_margin or "thicker" in fault.message
        return
    assert lock_in_of(plan).block_over_dough == pytest.approx(1, abs=0.01)


@pytest.mark.parametrize("method", [Method.LUMPS, Method.SPREAD])
def test_what_has_no_block_is_not_spoken_of_as_one(method):
    plan = starting_plan("Quick", Family.PUFF, 1200, KITCHEN)
    lock = LockIn(method, block_width_mm=300, block_length_mm=300)
    plan = changed(plan, lock_in=lock, turns=turns(*["letter"] * 4))
    words = said(plan, "lock_in") + " ".join(minded(plan).values())
    for wrong in ("plaque", "bend without cracking", "island", "thin block", "Block "):
        assert wrong not in words, wrong


def test_butter_worked_with_flour_is_rolled_from_no_plaque():
    plan = starting_plan("Inverse", Family.PUFF, 1500, KITCHEN)
    plan = amend(plan, Amendment(Change.METHOD, ingredient="inverse"), KITCHEN)
    assert "plaque" not in said(plan, "lock_in")
    assert "worked together until no flour shows" in said(plan, "lock_in")


def test_a_quick_puff_tosses_its_lumps_before_anything_is_flattened():
    plan = starting_plan("Quick", Family.PUFF, 1200, KITCHEN)
    lumps = LockIn(Method.LUMPS, block_width_mm=300, block_length_mm=300)
    plan = changed(plan, lock_in=lumps, turns=turns(*["letter"] * 4))
    strip = work(plan, KITCHEN).strip
    order = [s.do for s in strip]
    assert order.index("mix") < order.index("lock_in")
    assert "lumps" in " ".join(plain(t).lower() for t in strip[order.index("mix")].does)


def test_only_what_is_butter_is_offered_to_lock_in():
    locks = [i for i in LIBRARY if i.locks_in]
    assert locks
    assert all(i.composition.fat_pct >= 75 and i.kind is Kind.FAT for i in locks)
    oil = Ingredient("oil-own", "Oil of the mill", Kind.FAT, Composition(0, 0, 100, 0, 0, 0))
    assert not oil.locks_in


@pytest.mark.parametrize("overlap", [0.0, 15.0, 60.0])
def test_the_ears_of_an_envelope_that_overlaps_are_counted_once(overlap):
    plan = station()
    plan = amend(plan, Amendment(Change.METHOD, ingredient="envelope"), KITCHEN)
    plan = plan.changed(plan.lock_in, overlap_mm=overlap)
    made = lock_in_of(plan)
    dough = made.dough_sheet
    held = made.package.length_mm * made.package.width_mm * made.package.thickness_mm
    in_block = made.block.length_mm * made.block.width_mm * made.block.thickness_mm
    assert held == pytest.approx(
        dough.length_mm * dough.width_mm * dough.thickness_mm + in_block, rel=1e-9
    )


# --- sheets


@pytest.mark.parametrize("grams", range(900, 3300, 97))
@pytest.mark.parametrize("thick", [3.0, 5.0])
def test_a_sheet_at_a_limit_is_inside_it_at_any_mass(grams, thick):
    plan = starting_plan("Limit", Family.CROISSANT, grams, KITCHEN)
    plan = plan.changed(plan.last_sheet, roll_to_mm=thick)
    low, high = (KITCHEN.of_family(Family.CROISSANT, f"last_sheet_mm.{e}") for e in ("low", "high"))
    said_of_it = minded(plan).get("last-sheet-mm", "") + minded(plan).get("last-sheet", "")
    if low <= thick <= high:
        assert "usual" not in said_of_it


def test_a_sheet_narrower_than_its_package_is_said():
    first, second, third = turns("letter", "letter", "letter")
    plan = station(turns=(first, replace(second, width_mm=60), third))
    assert "60 mm cannot be rolled from it" in minded(plan)["narrower"]


def test_more_is_never_tucked_in_than_there_is():
    first, second, third = turns("letter", "letter", "letter")
    plan = station(turns=(first, second, replace(third, trim=Trim(sides_mm=150, tucked=True))))
    with pytest.raises(Faults) as refused:
        work(plan)
    assert refused.value.faults[0].field.endswith("trim.sides_mm")


@pytest.mark.parametrize("family", list(Family))
@pytest.mark.parametrize("grams", [4000, 6000])
def test_a_large_new_plan_fits_its_own_bench(family, grams):
    assert not {"room", "shelf"} & set(minded(starting_plan("Large", family, grams, KITCHEN)))


# --- weights


@pytest.mark.parametrize("grams", [100, 333, 1000, 28_000])
def test_a_preferment_that_takes_all_the_water_can_be_weighed(grams):
    lean = formula({"flour-strong": 100, "water": 50, "yeast-fresh": 2, "salt": 2})
    plan = with_formula(station(), lean, None, poolish(flour=50, hydration=100))
    plan = replace(plan, dough=replace(plan.dough, mass_g=float(grams)))
    lines = [line for s in work(plan).sheets for line in s.lines]
    assert all(line.grams == round(line.grams, 1) for line in lines)
    dough = sum(x.grams for s in work(plan).sheets if s.name != "Butter block" for x in s.lines)
    assert dough == pytest.approx(grams, abs=0.2)
    assert all("cannot" not in plain(text) for text in work(plan).formula.rounding)


@given(st.integers(1, 150))
@settings(max_examples=8)
def test_pieces_wanted_take_the_least_dough_that_gives_them(wanted):
    plan = amend(station(), Amendment(Change.PIECES, value=wanted), KITCHEN)
    assert work(plan).cut.pieces >= wanted
    less = scaled(plan, plan.dough.mass_g - 10)
    assert less.dough.mass_g < 100 or work(less).cut.pieces < wanted


def test_strands_of_a_plait_are_one_piece():
    strip = Product("Plait", Shape.STRIP, 40, 300, card=Card.PLAIT, strands=3)
    three = station(cut=Cut((strip,)), finish=starting_finish(Family.CROISSANT))
    one = station(cut=Cut((replace(strip, strands=1),)), finish=starting_finish(Family.CROISSANT))
    assert work(three).cut.pieces == work(one).cut.pieces // 3
    assert sum(work(three).shaped.trays.products[0].pieces) == work(three).cut.pieces
    assert work(three).cut.piece_g == pytest.approx(3 * work(one).cut.piece_g)


def test_a_square_with_a_hole_is_refused():
    with pytest.raises(Faults) as refused:
        Product("Window", Shape.SQUARE, 100, hole_mm=20)
    assert refused.value.faults[0].field == "hole_mm"


def test_little_dough_is_little_for_a_mixer_and_not_for_hands():
    plan = starting_plan("Little", Family.CROISSANT, 300, KITCHEN)
    mix = plan.first(Mixing)
    by_mixer = plan.changed(mix, by_hand=False)
    by_hand = plan.changed(mix, by_hand=True)

    def spoken(p):
        return [
            n.code for n in work(p, KITCHEN).notes if "mixer" in plain(n.title + n.text).lower()
        ]

    assert spoken(by_mixer)
    assert not spoken(by_hand)


def test_pinwheels_lie_as_close_as_a_baker_lays_them():
    """A square of 100 mm that lies flat spreads a tenth: three by four on a tray of 600 by 400."""
    plan = starting_plan("Pinwheels", Family.DANISH, 3000, KITCHEN)
    on = work(plan, KITCHEN).shaped.trays.products[0]
    assert (on.across, on.along, on.per_tray) == (3, 4, 12)
    assert sum(on.pieces) == work(plan, KITCHEN).cut.pieces


@pytest.mark.parametrize(
    ("laminated", "share", "minds"),
    [
        (False, 25, False),
        (False, 30, False),
        (False, 40, True),
        (True, 10, False),
        (True, 25, True),
    ],
)
def test_old_dough_has_its_own_limit_and_trimmings_theirs(laminated, share, minds):
    of = replace(formula(LEAN), old_dough=OldDough(share, laminated))
    assert ("old-dough" in minded(with_formula(station(), of))) is minds


# --- where it proofs


@pytest.mark.parametrize(
    ("place", "here", "elsewhere"),
    [(Place.BENCH, "in the room", "proofer"), (Place.PROOFER, "in the proofer", "in the room")],
)
def test_what_is_said_of_a_proof_is_of_the_place_it_has(place, here, elsewhere):
    few = Kitchen({"proofer.trays": 2})
    plan = starting_plan("Proof", Family.CROISSANT, 4000, few)
    plan = plan.changed(plan.first(Shaping), rest=Rest.at(place, 165))
    notes = [*work(plan, few).notes, *work_warmth(plan, few).notes]
    said_of_it = [
        plain(f"{n.title} {n.text}").lower()
        for n in notes
        if n.stop == "shape" and n.code in ("proof", "proofer-loads")
    ]
    assert any(here in text for text in said_of_it)
    assert not any(elsewhere in text for text in said_of_it)


# --- layouts


@pytest.mark.parametrize("shape", [Shape.DISC, Shape.RING])
@pytest.mark.parametrize("base", [62.0, 81.0, 97.0])
def test_a_search_for_round_pieces_is_never_worse_than_the_plan_as_it_lies(shape, base):
    hole = 20 if shape is Shape.RING else 0
    product = Product("Round", shape, base, hole_mm=hole)
    plan = station(cut=Cut((product,)), last_sheet=LastSheet(3, 520))
    best = allot(plan, AllotSearch((0,)), KITCHEN).best[0]
    assert best.pieces[0] >= work(plan).cut.pieces


def test_small_pieces_are_searched_without_a_fault_in_a_field_nobody_filled():
    plan = station(cut=Cut((Product("Nib", Shape.SQUARE, 10),)), last_sheet=LastSheet(3, 990))
    best = allot(plan, AllotSearch((0,)), KITCHEN).best[0]
    assert best.pieces[0] >= work(plan).cut.pieces > 1000
    assert sum(p.rows for p in best.cut.products) > 50


# --- times and warmth of the water


def test_from_start_to_cut_ends_at_the_cut():
    worked = work(with_formula(station(finish=starting_finish(Family.CROISSANT))))
    cut = next(s for s in worked.strip if s.do == "cut")
    assert worked.facts.to_cut_min == pytest.approx(cut.starts_min + cut.bench_min)
    assert worked.facts.to_cut_min < worked.facts.total_min


def test_on_a_hot_day_the_water_is_colder_for_flour_is_as_warm_as_its_room():
    plan = with_formula(station(), formula(LEAN), Mixing(flour_c=None))
    waters = [
        next(s.made for s in work(plan, Kitchen({"room.c": room})).strip if s.do == "mix").water
        for room in (17, 22, 29)
    ]
    cool, usual, hot = (w.needed_c for w in waters)
    assert cool > usual + 3 > hot + 6


@given(st.floats(0.5, 5_000))
@settings(max_examples=33)
def test_a_mass_is_rounded_once(grams):
    """What is said is what stands in the field: neither rounds the other's rounding."""
    from lamination.terms.said import g

    read = plain(g(grams))
    number, unit = re.fullmatch(r"([\d.\s]+?)\s?(kg|g)", read).groups()
    figure = float(re.sub(r"\s", "", number)) * (1000 if unit == "kg" else 1)
    assert math.isclose(figure, grams, abs_tol=0.51 if grams >= 100 else 0.051)


def test_folds_of_every_kind_keep_their_count():
    for fold in Fold:
        plan = station(turns=turns(fold.value, fold.value))
        assert work(plan).layers.butter == fold.multiplies**2
