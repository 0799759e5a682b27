"""What happens round the folds: divided, strewn, buttered again, laid double, rolled up; and it adds up."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, reject, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.products import Product, Shape
from lamination.pieces.shaping import Card
from lamination.plan.amend import scaled
from lamination.plan.starts import starting_finish
from lamination.plan.walk import walk
from lamination.plan.work import work
from lamination.steps.cut import Cut
from lamination.steps.divide import Divide
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lay_double import LayDouble
from lamination.steps.lock_in import LockIn
from lamination.steps.more_butter import ButterState, MoreButter
from lamination.steps.roll_up import RollUp, coil_of
from lamination.steps.strew import Strew, Strewn
from lamination.steps.turn import Trim
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Family, Method, Place
from tests.plans import station, turns

KITCHEN = Kitchen()
SQUARE = Product("Square", Shape.SQUARE, 80)


def with_after(plan, after, *steps):
    """The plan with steps put in after another."""
    n = plan.at(after) + 1
    return replace(plan, steps=(*plan.steps[:n], *steps, *plan.steps[n:]))


def made(plan, do):
    return next(s.made for s in work(plan, KITCHEN).strip if s.do == do)


def said(plan, do):
    stop = next(s for s in work(plan, KITCHEN).strip if s.do == do)
    return " ".join(plain(text) for text in stop.does)


def codes(plan):
    return {n.code for n in work(plan, KITCHEN).notes}


def books(plan):
    """All that comes in and all that goes out, g: of everything, and of its butter."""
    found = walk(plan, KITCHEN)
    cut = next(m for m in found.made if getattr(m.figures, "do", "") == "cut").figures
    worked = work(plan, KITCHEN)
    saved = [m.saved for m in found.made if m.saved]
    put = [m.put for m in found.made if m.put]
    pieces = sum(p.pieces * p.piece_g for p in cut.products)
    out = pieces + sum(s.grams for s in saved) + sum(p.grams + p.later_g for p in put)
    waiting = found.made[-1].lies
    held = (waiting.waiting_mm3 + waiting.ready_mm3) * found.recipe.per_mm3[1]
    return worked.total_g, out + held


# --- divided


@pytest.mark.parametrize("after", ["lock_in", "turn-1", "turn-3", "final"])
@pytest.mark.parametrize("share", [20, 50, 75])
def test_a_block_is_divided_by_share_and_nothing_is_lost(after, share):
    plan = with_after(station(), after, Divide(share))
    figures = made(plan, "divide")
    assert figures.share_pct == pytest.approx(share)
    assert figures.goes_on_g / (figures.goes_on_g + figures.away_g) == pytest.approx(share / 100)
    came, went = books(plan)
    assert went == pytest.approx(came, rel=1e-9)
    kept = work(plan, KITCHEN).put_away[0]
    assert kept.stop == "divide-1"
    assert kept.part.grams == pytest.approx(figures.away_g)
    assert kept.part.butter_g == pytest.approx(650 * (1 - share / 100), rel=0.02)


def test_a_part_by_mass_is_as_heavy_as_was_asked():
    figures = made(with_after(station(), "turn-2", Divide(goes_on_g=1000)), "divide")
    assert figures.goes_on_g == pytest.approx(1000)
    assert figures.turns == 2


def test_half_of_a_block_gives_half_of_the_last_sheet():
    whole, half = station(), with_after(station(), "turn-3", Divide(50))
    sizes = [work(p, KITCHEN).final.size for p in (whole, half)]
    assert sizes[1].volume_mm3 == pytest.approx(sizes[0].volume_mm3 / 2)
    leaves = [work(p, KITCHEN).layers for p in (whole, half)]
    assert leaves[1].butter == leaves[0].butter == 27
    assert leaves[1].butter_um == pytest.approx(leaves[0].butter_um)


@pytest.mark.parametrize(
    ("butter", "place", "hours"),
    [
        ("butter-table", Place.FRIDGE, 24),
        ("butter-table", Place.FREEZER, 7 * 24),
        ("butter-sheet", Place.FREEZER, 14 * 24),
    ],
)
def test_how_long_it_keeps_is_by_place_and_butter(butter, place, hours):
    plan = with_after(station(), "turn-1", Divide(put=place))
    plan = replace(plan, butter=replace(plan.butter, ingredient=butter))
    assert made(plan, "divide").keeps_h == hours


def test_a_block_on_the_bench_is_minded_and_the_fridge_is_quiet():
    plan = with_after(station(), "turn-1", Divide(put=Place.BENCH))
    assert "put-warm" in codes(plan)
    note = next(n for n in work(plan, KITCHEN).notes if n.code == "put-warm")
    assert note.fixes[0].puts[0].value == Place.FRIDGE
    assert "put-warm" not in codes(with_after(station(), "turn-1", Divide()))


def test_more_by_mass_than_there_is_is_refused_at_its_field():
    with pytest.raises(Faults) as wrong:
        work(with_after(station(), "turn-1", Divide(goes_on_g=9000)), KITCHEN)
    assert wrong.value.faults[0].field == "steps[3].goes_on_g"


def test_nothing_is_said_to_keep_in_the_warm():
    assert "keeps" not in said(with_after(station(), "turn-1", Divide(put=Place.BENCH)), "divide")
    assert "keeps about 24 h" in said(with_after(station(), "turn-1", Divide()), "divide")


# --- strewn


@pytest.mark.parametrize(("what", "draws"), [("cinnamon sugar", True), ("unsalted butter", False)])
def test_what_draws_water_is_sugar_and_salt_and_no_word_that_holds_them(what, draws):
    assert made(with_after(station(), "turn-1", Strew(what, 100)), "strew").draws_water is draws


def test_sugar_goes_along_to_the_pieces_the_label_and_the_scales():
    plan = with_after(station(), "turn-2", Strew("sugar", 300, Strewn.BOTH))
    bare, sweet = work(station(), KITCHEN), work(plan, KITCHEN)
    assert sweet.total_g == bare.total_g + 300
    assert sweet.final.mass_g == pytest.approx(bare.final.mass_g + 300)
    assert sweet.cut.piece_g / bare.cut.piece_g == pytest.approx(
        sweet.final.mass_g / bare.final.mass_g
    )
    assert [line.grams for s in sweet.sheets if s.name == "Strew sugar" for line in s.lines] == [
        300
    ]
    assert any("sugar" in name.lower() for name in sweet.labels[0].contains)
    assert "half underneath, half on top" in said(plan, "strew")


def test_what_nobody_knows_makes_the_label_incomplete():
    plan = with_after(station(), "final", Strew("hazelnut praline of the mill", 200, spread=True))
    label = work(plan, KITCHEN).labels[0]
    assert "hazelnut praline of the mill" in label.unknown
    assert not label.complete


@pytest.mark.parametrize(("minutes", "told"), [(20, False), (240, True)])
def test_sugar_that_lies_long_in_the_dough_is_told_and_a_short_rest_is_not(minutes, told):
    rest = Rest.at(Place.FRIDGE, minutes)
    plan = station(turns=turns("letter", "letter", rest=None))
    plan = with_after(plan, "turn-1", Strew("sugar", 300, rest=rest))
    assert ("draws-water" in codes(plan)) is told
    crumbs = with_after(station(), "turn-1", Strew("almond crumbs", 300, rest=rest))
    assert "draws-water" not in codes(crumbs)


def test_a_larger_dough_takes_more_of_it():
    plan = with_after(station(), "turn-2", Strew("sugar", 300))
    assert next(s for s in scaled(plan, 4800).steps if s.do == "strew").grams == 600


# --- more butter


def test_butter_in_three_goes_is_called_for_where_it_goes_in():
    plan = with_after(station(), "lock_in", MoreButter(30, ButterState.GRATED))
    plan = with_after(plan, "turn-2", MoreButter(20, ButterState.FLAKED))
    worked = work(plan, KITCHEN)
    assert worked.lock_in.now_g == pytest.approx(325)
    assert [f.grams for f in (s.made for s in worked.strip if s.do == "more_butter")] == [195, 130]
    butters = [
        line.grams for s in worked.sheets for line in s.lines if line.ingredient == "butter-table"
    ]
    assert sum(butters) == pytest.approx(650)
    assert "Lay the butter, 195 g" in said(plan, "turn")
    came, went = books(plan)
    assert went == pytest.approx(came, rel=1e-9)
    assert worked.layers.butter > work(station(), KITCHEN).layers.butter


def test_more_than_all_of_the_butter_is_refused_at_its_field():
    plan = with_after(station(), "lock_in", MoreButter(60))
    plan = with_after(plan, "turn-1", MoreButter(60))
    with pytest.raises(Faults) as wrong:
        work(plan, KITCHEN)
    assert wrong.value.faults[0].field == "steps[2].share_pct"


def test_butter_that_no_fold_takes_in_is_minded():
    assert "no-fold" in codes(with_after(station(), "turn-3", MoreButter(20)))
    assert "no-fold" not in codes(with_after(station(), "turn-2", MoreButter(20)))


# --- laid double


@pytest.mark.parametrize("cut", [True, False])
@pytest.mark.parametrize("many", [2, 3])
def test_a_sheet_laid_double_gives_as_many_pieces_from_each_layer(many, cut):
    plan = station(cut=Cut((SQUARE,), kerf_mm=1, trim_mm=4), last_sheet=LastSheet(4, 400))
    worked = work(with_after(plan, "final", LayDouble(many, cut)), KITCHEN)
    assert worked.cut.layers == many
    assert worked.cut.pieces == many * len(worked.cut.outlines)
    assert len(worked.cut.each_g) == len(worked.cut.full_pct) == worked.cut.pieces
    came, went = books(with_after(plan, "final", LayDouble(many, cut)))
    assert went == pytest.approx(came, rel=1e-9)


@pytest.mark.parametrize("cut", [True, False])
def test_each_piece_weighs_what_lies_under_it_in_its_own_layer(cut):
    """The cuts simulated on both layers, each at its place on the sheet as it was rolled."""
    plan = station(
        lock_in=LockIn(Method.HALF, 300, 230, margin_mm=25),
        cut=Cut((SQUARE,), trim_mm=3),
        last_sheet=LastSheet(4, 400, uneven_pct=12),
    )
    doubled = with_after(plan, "final", LayDouble(2, cut))
    cut_made = made(doubled, "cut")
    found = walk(doubled, KITCHEN)
    flat = next(m.lies.sheet for m in found.made if getattr(m.figures, "do", "") == "last_sheet")
    dough, butter = found.recipe.per_mm3
    half = flat.length_mm / 2
    many = len(cut_made.outlines)
    for n in (0, 3, many - 1):
        corners = np.array([(c.x_mm, c.y_mm) for c in cut_made.outlines[n]])
        (x0, y0), (x1, y1) = corners.min(axis=0), corners.max(axis=0)
        for layer in (0, 1):
            on_sheet = (
                (lambda x: x)
                if layer == 0
                else ((lambda x: half + x) if cut else lambda x: 2 * half - x)
            )
            grid = [
                flat.stack_at(float(flat.xs[0]) + on_sheet(x), float(flat.ys[0]) + y)
                for x in np.linspace(x0 + 0.05, x1 - 0.05, 90)
                for y in np.linspace(y0 + 0.05, y1 - 0.05, 90)
            ]
            per_mm2 = (
                np.mean([s.dough_mm * dough + s.butter_mm * butter for s in grid]) * flat.press
            )
            area = (x1 - x0) * (y1 - y0)
            assert cut_made.each_g[layer * many + n] == pytest.approx(per_mm2 * area, rel=0.01)


def test_a_sheet_is_not_both_laid_double_and_rolled_up():
    plan = with_after(station(), "final", LayDouble(2), RollUp())
    with pytest.raises(Faults) as wrong:
        work(plan, KITCHEN)
    assert wrong.value.faults[0].field.endswith("].do")


# --- rolled up


@given(st.floats(100, 2000), st.floats(2, 12), st.floats(0, 60))
def test_a_coil_keeps_its_section(long, thick, core):
    coil = coil_of(long, thick, core)
    section = math.pi / 4 * (coil.diameter_mm**2 - core**2)
    assert section == pytest.approx(long * thick, rel=1e-9)
    # wound turn by turn, each as long as its own middle circle: the same length comes out
    wound = math.pi * coil.rounds * (coil.diameter_mm + core) / 2
    assert wound == pytest.approx(long, rel=1e-9)


def test_slices_of_a_coil_share_the_sheet():
    plan = station(cut=Cut((Product("Whirl", Shape.SQUARE, 40),)), last_sheet=LastSheet(4, 400))
    rolled = with_after(plan, "final", RollUp())
    worked = work(rolled, KITCHEN)
    assert worked.cut.pieces == 10
    assert worked.cut.piece_g == pytest.approx(worked.final.mass_g / 10)
    across = made(with_after(plan, "final", RollUp(across=True)), "roll_up")
    assert across.length_mm == pytest.approx(worked.final.length_mm)
    assert "Slice it in 10 pieces" in said(rolled, "cut")
    came, went = books(rolled)
    assert went == pytest.approx(came, rel=1e-9)


def coil(*after_last, card=Card.SPLIT, base=200.0):
    plan = station(
        cut=Cut((Product("Twist", Shape.STRIP, base, 200, card=card),)),
        last_sheet=LastSheet(4, 400),
        finish=starting_finish(Family.CROISSANT),
    )
    return with_after(plan, "final", *after_last)


def test_what_is_spread_makes_the_coil_thicker_by_its_own_volume():
    plain = made(coil(RollUp()), "roll_up")
    spread = coil(Strew("apricot jam", 460, spread=True), RollUp())
    rolled = made(spread, "roll_up")
    sheet = work(spread, KITCHEN).final
    # 460 g at 1.15 g in a ml is 400 ml, over the sheet
    layer = 400_000 / (sheet.length_mm * sheet.width_mm)
    assert rolled.spread_mm == pytest.approx(layer)
    section = math.pi / 4 * (rolled.diameter_mm**2 - plain.diameter_mm**2)
    assert section * rolled.length_mm == pytest.approx(400_000, rel=1e-9)
    assert rolled.rounds < plain.rounds
    # an ingredient of the shelf lies as it is measured; what is rolled in adds no layer
    sugar = made(coil(Strew("sugar", 85), RollUp()), "roll_up")
    assert sugar.spread_mm * sheet.length_mm * sheet.width_mm == pytest.approx(100_000)
    inside = with_after(coil(RollUp()), "turn-1", Strew("sugar", 85))
    assert made(inside, "roll_up").spread_mm == 0


def test_a_coil_is_split_and_plaited_or_knotted_its_section_halved():
    for card in (Card.SPLIT, Card.SPLIT_KNOT):
        plan = coil(RollUp(), card=card)
        worked = work(plan, KITCHEN)
        assert worked.cut.products[0].card is card
        assert worked.cut.pieces == 2
        through = made(plan, "roll_up").diameter_mm
        shaped = worked.shaped.trays.products[0].shaped
        half = through / math.sqrt(2)
        thick = half if card is Card.SPLIT else 2 * half
        assert shaped.thickness_mm == pytest.approx(thick)
        assert 2 * math.pi / 4 * half**2 == pytest.approx(math.pi / 4 * through**2)
        assert not [n for n in worked.notes if n.code.startswith("coil")]
        flat = work(coil(card=card), KITCHEN)
        assert [n.code for n in flat.notes if n.code.startswith("coil")] == ["coil-0"]


def test_a_strip_folded_to_and_fro_fills_its_tin_from_below():
    plan = coil(card=Card.FAN, base=500.0)
    worked = work(plan, KITCHEN)
    strip = worked.cut.products[0]
    (on,) = worked.shaped.trays.products
    tin = KITCHEN["tin.length_mm"], KITCHEN["tin.width_mm"]
    assert (on.shaped.length_mm, on.shaped.width_mm) == tin
    volume = strip.along_mm * strip.across_mm * worked.final.thickness_mm
    assert on.shaped.thickness_mm == pytest.approx(volume / (tin[0] * tin[1]))


# --- all of it together


@st.composite
def strips(draw):
    """Steps of every kind that changes what lies there, wherever each may stand."""
    folds = draw(st.lists(st.sampled_from(["half", "letter", "book"]), min_size=1, max_size=4))
    trim = draw(st.sampled_from([None, Trim(5, 5), Trim(8, 0, True)]))
    steps = [replace(t, trim=trim, roll_to_mm=None, length_mm=900.0) for t in turns(*folds)]
    plan = station(
        lock_in=LockIn(
            draw(st.sampled_from([Method.HALF, Method.GATE, Method.TWO_THIRDS])), 300, 230
        ),
        turns=tuple(steps),
        last_sheet=LastSheet(3, 380),
        cut=Cut((SQUARE, replace(SQUARE, name="Small", base_mm=45, rows=1)), kerf_mm=1),
    )
    places = ["lock_in", *(f"turn-{n + 1}" for n in range(len(folds)))]
    kinds = {
        "divide": lambda: Divide(draw(st.floats(15, 90))),
        "strew": lambda: Strew("sugar", draw(st.floats(1, 900))),
        "more": lambda: MoreButter(draw(st.floats(5, 30))),
    }
    for kind in draw(st.lists(st.sampled_from(sorted(kinds)), max_size=5)):
        at = draw(st.sampled_from(places if kind == "more" else [*places, "final"]))
        if kind == "more" and sum(s.do == "more_butter" for s in plan.steps) == 3:
            continue
        plan = with_after(plan, at, kinds[kind]())
    last = draw(st.sampled_from([None, LayDouble(2), LayDouble(3, True), RollUp(), RollUp(True)]))
    return with_after(plan, "final", last) if last else plan


@given(strips())
@settings(max_examples=16, deadline=None)
def test_mass_is_kept_through_any_strip_of_steps(plan):
    try:
        came, went = books(plan)
    except Faults:
        reject()
    assert went == pytest.approx(came, rel=1e-9)
    made_up = walk(plan, KITCHEN)
    cut = next(m for m in made_up.made if getattr(m.figures, "do", "") == "cut").figures
    assert sum(cut.each_g) <= came * (1 + 1e-9)
