"""What is cut in two, laid double and rolled up: mass, butter and area balance, whatever the strip."""

from __future__ import annotations

from dataclasses import replace
from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.files.template import TemplateOf, template_of
from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.products import Product, Shape
from lamination.pieces.shaping import Card
from lamination.plan.walk import walk
from lamination.plan.work import work
from lamination.steps._package import lying
from lamination.steps.cut import Cut, CutFigures
from lamination.steps.divide import Divide, DivideFigures
from lamination.steps.lay_double import LayDouble
from lamination.steps.roll_up import RollUp, RollUpFigures
from lamination.steps.strew import Strew
from lamination.terms.trade import Method
from tests.plans import station

KITCHEN = Kitchen()
SQUARE = Product("Square", Shape.SQUARE, 60)


def with_before_cut(plan, *steps):
    at = plan.steps.index(plan.cut)
    return plan.with_steps(*plan.steps[:at], *steps, *plan.steps[at:])


def figures(plan, of):
    return [m.figures for m in walk(plan, KITCHEN).made if isinstance(m.figures, of)]


def test_half_of_a_doubled_sheet_is_half_of_each_panel():
    plan = station(cut=Cut((SQUARE,)))
    whole = work(with_before_cut(plan, LayDouble(2)), KITCHEN).cut
    halved = work(with_before_cut(plan, LayDouble(2), Divide(50)), KITCHEN).cut
    assert halved.layers == 2
    assert halved.sheet_g == pytest.approx(whole.sheet_g / 2)
    assert halved.pieces <= whole.pieces / 2 + 2
    assert halved.used_pct <= 100


def test_half_of_a_coil_is_as_thick_and_half_as_long():
    slices = Product("Slice", Shape.STRIP, 50, 100, card=Card.SLICE)
    plan = with_before_cut(station(cut=Cut((slices,))), RollUp())
    whole, half = work(plan, KITCHEN), work(with_before_cut(plan, Divide(50)), KITCHEN)
    assert half.cut.pieces == whole.cut.pieces // 2
    assert half.cut.piece_g == pytest.approx(whole.cut.piece_g)
    (made,) = figures(with_before_cut(plan, Divide(50)), DivideFigures)
    (coil,) = figures(plan, RollUpFigures)
    assert made.goes_on.width_mm == pytest.approx(coil.length_mm / 2)
    does = " ".join(t for s in half.strip if s.do == "divide" for t in s.does)
    assert "of the coil" in does


@pytest.mark.parametrize("margin", [0, 10, 25])
@pytest.mark.parametrize("grams", [400, 1500, 2500])
def test_so_many_grams_go_on_to_the_gram_of_a_sheet_with_margins_too(margin, grams):
    plan = station()
    plan = plan.changed(plan.lock_in, margin_mm=float(margin))
    at = plan.steps.index(plan.lock_in) + 1
    divide = Divide(goes_on_g=float(grams))
    (made,) = figures(plan.with_steps(*plan.steps[:at], divide, *plan.steps[at:]), DivideFigures)
    assert made.goes_on_g == pytest.approx(grams, abs=1e-6)
    assert made.goes_on_g + made.away_g == pytest.approx(plan.dough.mass_g + plan.butter.mass_g)


def test_strands_that_make_no_whole_plait_are_left_over_and_said():
    plaits = Product("Plait", Shape.STRIP, 25, 280, card=Card.PLAIT, strands=3)
    for base in (24, 25, 26, 27):
        plan = station(cut=Cut((replace(plaits, base_mm=float(base)),)))
        worked = work(plan, KITCHEN)
        cut, (of,) = worked.cut, worked.cut.products
        assert cut.loose == of.cut - 3 * of.pieces
        assert of.pieces * of.piece_g + cut.trimmings_g == pytest.approx(cut.sheet_g, rel=1e-9)
        assert any(n.code == "loose" for n in worked.notes) == (cut.loose > 0)


before_the_cut = st.lists(
    st.one_of(
        st.builds(Divide, st.floats(20, 80)),
        st.builds(Strew, st.just("sugar"), st.floats(20, 200)),
    ),
    max_size=2,
)
made_up = st.one_of(
    st.just(()),
    st.builds(lambda n, cut: (LayDouble(n, cut),), st.integers(2, 4), st.booleans()),
    st.builds(lambda across, core: (RollUp(across, core),), st.booleans(), st.floats(0, 40)),
)
last_parts = st.lists(st.builds(Divide, st.floats(20, 80)), max_size=2)


@settings(max_examples=200)
@given(
    st.sampled_from([Method.HALF, Method.TWO_THIRDS, Method.GATE]),
    st.sampled_from([0.0, 8.0]),
    before_the_cut,
    made_up,
    last_parts,
)
def test_mass_and_butter_balance_on_any_strip(method, margin, early, laid, late):
    plan = station(cut=Cut((SQUARE,)))
    plan = plan.changed(plan.lock_in, method=method, margin_mm=margin)
    if laid and isinstance(laid[0], RollUp):
        plan = plan.changed(plan.cut, products=(replace(SQUARE, card=Card.SLICE),))
    turn = next(s for s in plan.steps if s.do == "turn")
    at = plan.steps.index(turn) + 1
    plan = plan.with_steps(*plan.steps[:at], *early, *plan.steps[at:])
    plan = with_before_cut(plan, *laid, *late)
    found = walk(plan, KITCHEN)
    divides = [m for m in found.made if isinstance(m.figures, DivideFigures)]
    (cut,) = [m for m in found.made if isinstance(m.figures, CutFigures)]
    strewn = sum(s.grams for s in early if isinstance(s, Strew))
    away_g = sum(m.figures.away_g for m in divides)
    whole = plan.dough.mass_g + plan.butter.mass_g + strewn
    assert cut.figures.sheet_g + away_g == pytest.approx(whole, rel=1e-9)
    butter = sum(m.figures.away_butter_g for m in divides)
    here = found.made[plan.steps.index(plan.cut) - 1].lies
    assert lying(here, found.recipe)[1] + butter == pytest.approx(plan.butter.mass_g, rel=1e-9)
    made = cut.figures
    used = sum(p.pieces * p.piece_g for p in made.products)
    assert used + made.trimmings_g == pytest.approx(made.sheet_g, rel=1e-9)
    assert made.used_pct <= 100 + 1e-9
    panels = here.plies or (here.laminate,)
    if not here.coil:
        area = sum(s.length_mm * s.width_mm for s in panels)
        assert area * made.used_pct / 100 == pytest.approx(60 * 60 * made.pieces, rel=1e-6)


def test_a_template_is_of_what_lies_under_the_knife():
    plan = with_before_cut(station(cut=Cut((SQUARE,))), LayDouble(2))
    sheet = template_of(plan, work(plan, KITCHEN), TemplateOf.SHEET)
    final = work(plan, KITCHEN).final
    assert sheet.width_mm == pytest.approx(final.length_mm / 2)
    assert "2 at a time" in sheet.title
    assert all(x <= sheet.width_mm + 1e-6 for s in sheet.strokes for x, _ in s.points)

    slices = Product("Slice", Shape.STRIP, 50, 100, card=Card.SLICE)
    plan = with_before_cut(station(cut=Cut((slices,))), RollUp())
    worked = work(plan, KITCHEN)
    (coil,) = figures(plan, RollUpFigures)
    drawn = template_of(plan, worked, TemplateOf.SHEET)
    assert (drawn.width_mm, drawn.height_mm) == (coil.length_mm, coil.diameter_mm)
    assert sum(s.cut for s in drawn.strokes) == worked.cut.pieces
    one = template_of(plan, worked, TemplateOf.PIECE)
    assert (one.width_mm, one.height_mm) == pytest.approx((50, coil.diameter_mm))


def overlap(a, b):
    """How far the boxes of two slices of a drawing reach into each other, mm."""
    (ax0, ax1), (bx0, bx1) = ((min(x), max(x)) for x in ([p[0] for p in s.points] for s in (a, b)))
    return min(ax1, bx1) - max(ax0, bx0)


def test_slices_drawn_on_a_coil_do_not_overlap():
    slices = Product("Slice", Shape.STRIP, 40, 100, card=Card.SLICE)
    plan = with_before_cut(station(cut=Cut((slices,))), RollUp())
    drawn = [s for s in template_of(plan, work(plan, KITCHEN), TemplateOf.SHEET).strokes if s.cut]
    assert len(drawn) > 2
    assert all(overlap(a, b) <= 1e-6 for a, b in combinations(drawn, 2))
