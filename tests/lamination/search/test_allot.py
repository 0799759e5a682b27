"""The search for a layout: exact on small cases, never worse than one product alone, and quick."""

from dataclasses import replace
from itertools import product as every
from math import floor

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.cutting import blank_of, per_row
from lamination.pieces.products import Product, Shape
from lamination.plan.work import work
from lamination.search.layouts import AllotSearch, allot
from lamination.steps.cut import Cut
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lay_double import LayDouble
from lamination.steps.roll_up import RollUp
from lamination.terms.limits import Faults
from tests.plans import changed, station

KITCHEN = Kitchen()


def plan(*products, width=520.0, **cut):
    return station(cut=Cut(products, **cut), last_sheet=LastSheet(4, width))


def square(side, name="Square"):
    return Product(name, Shape.SQUARE, side)


def slab(base, height, name="Slab"):
    return Product(name, Shape.RECTANGLE, base, height)


def triangle(base, height):
    return Product("Triangle", Shape.TRIANGLE, base, height)


def useful(asked, *wanted):
    return allot(asked, AllotSearch(wanted), KITCHEN).best[0].useful_pct


def brute_force(asked, wanted):
    """Every count of rows there can be, both directions and ways round; area that is wanted, %."""
    final, cut = work(asked, KITCHEN).final, asked.cut
    best = 0.0
    for across in (False, True):
        sides = (final.length_mm - 2 * cut.trim_mm, final.width_mm - 2 * cut.trim_mm)
        length, width = sides[::-1] if across else sides
        ways = []
        for n, p in enumerate(cut.products):
            ways.append((n, blank_of(p, cut.shrink_pct, across)))
            if p.shape is Shape.RECTANGLE:
                turned = replace(p, base_mm=p.height_mm, height_mm=p.base_mm)
                ways.append((n, blank_of(turned, cut.shrink_pct, across)))
        most = [floor((width + cut.kerf_mm) / (b.across_mm + cut.kerf_mm)) for _, b in ways]
        for counts in every(*(range(m + 1) for m in most)):
            takes = sum(
                c * (b.across_mm + cut.kerf_mm) for c, (_, b) in zip(counts, ways, strict=True)
            )
            if takes > width + cut.kerf_mm + 1e-6:
                continue
            area, left = 0.0, [n or 10**9 for n in wanted]
            for c, (n, b) in zip(counts, ways, strict=True):
                pieces = min(c * per_row(b, length, cut.kerf_mm), left[n])
                left[n] -= pieces
                area += pieces * b.mm2
            best = max(best, 100 * area / (final.length_mm * final.width_mm))
    return best


@settings(max_examples=7, deadline=None)
@given(
    st.floats(70, 200), st.floats(60, 200), st.floats(90, 220), st.floats(0, 4),
    st.tuples(st.integers(0, 40), st.integers(0, 40)),
)  # fmt: skip
def test_it_finds_what_trying_everything_finds(side, base, height, kerf, wanted):
    asked = plan(square(side), slab(base, height), kerf_mm=kerf, trim_mm=5, width=430)
    assert useful(asked, *wanted) == pytest.approx(brute_force(asked, wanted), rel=1e-9)


@given(st.floats(60, 250), st.floats(60, 250), st.floats(100, 300))
def test_it_is_never_worse_than_the_best_product_alone(side, base, height):
    asked = plan(square(side), triangle(base, height))
    alone = []
    for product in asked.cut.products:
        for across in (False, True):
            cut = replace(asked.cut, products=(product,), across=across)
            alone.append(work(changed(asked, cut=cut), KITCHEN).cut.used_pct)
    assert useful(asked, 0, 0) >= max(alone) - 1e-6


def test_what_it_offers_is_a_cut_that_gives_what_it_says():
    asked = plan(square(110), slab(80, 140), triangle(90, 260), kerf_mm=2, trim_mm=8)
    for laid in allot(asked, AllotSearch((20, 20, 9)), KITCHEN).best:
        made = work(changed(asked, cut=laid.cut), KITCHEN).cut
        assert made.pieces == sum(laid.pieces)
        assert made.trimmings_g == pytest.approx(laid.trimmings_g)
        assert made.used_pct == pytest.approx(laid.used_pct)


def test_the_best_come_first_and_no_two_are_the_same():
    best = allot(plan(square(110), slab(80, 140)), AllotSearch((0, 0), best=6), KITCHEN).best
    shares = [b.useful_pct for b in best]
    assert shares == sorted(shares, reverse=True)
    assert len({repr(b.cut) for b in best}) == len(best) > 1


def test_pieces_beyond_what_is_wanted_are_not_sought():
    few = allot(plan(square(100), slab(90, 130)), AllotSearch((5, 0)), KITCHEN).best[0]
    rows = sum(p.rows for p in few.cut.products if p.shape is Shape.SQUARE)
    assert rows <= 1


def test_sheet_after_sheet_until_all_is_cut():
    asked = plan(square(110), slab(80, 140))
    found = allot(asked, AllotSearch((90, 70)), KITCHEN)
    assert not found.short
    for n, wanted in enumerate((90, 70)):
        assert sum(s.pieces[n] for s in found.sheets) >= wanted
        assert sum(s.pieces[n] for s in found.sheets[:-1]) < wanted or n == 1


def test_an_order_that_fits_no_sheet_is_said_to_be_short():
    found = allot(plan(square(1_000)), AllotSearch((4,)), KITCHEN)
    assert found.short
    assert found.best == found.sheets == ()


def test_four_products_on_two_metres_are_few_rows_to_try():
    asked = plan(
        square(95), slab(80, 140), triangle(90, 260), Product("Disc", Shape.DISC, 85),
        width=600, kerf_mm=2,
    )  # fmt: skip
    found = allot(asked, AllotSearch((40, 40, 20, 60)), KITCHEN)
    # of some hundred thousand ways the bound leaves a small part
    assert found.tried < 60_000


@pytest.mark.parametrize(
    ("wanted", "field"), [((1,), "search.wanted"), ((1, 2, 3), "search.wanted")]
)
def test_one_number_for_each_product(wanted, field):
    with pytest.raises(Faults) as refused:
        allot(plan(square(100), square(80)), AllotSearch(wanted), KITCHEN)
    assert refused.value.faults[0].field == field


def test_a_plan_without_a_cut_has_nothing_to_lay():
    with pytest.raises(Faults, match="no cut"):
        allot(station(cut=None), AllotSearch((1,)), KITCHEN)


def test_the_search_fills_row_ends_where_that_gains_something():
    horn, stick = triangle(85, 280), slab(30, 130, "Stick")
    asked = plan(horn, stick, width=560)
    best = allot(asked, AllotSearch((56, 4)), KITCHEN).best[0]
    assert any(p.beside for p in best.cut.products)
    taken = asked.changed(asked.cut, products=best.cut.products, across=best.cut.across)
    by_name: dict[str, int] = {}
    for p in work(taken, KITCHEN).cut.products:
        by_name[p.name] = by_name.get(p.name, 0) + p.pieces
    assert (by_name["Triangle"], by_name["Stick"]) == best.pieces == (56, 4)


def test_the_search_cuts_the_band_the_other_way_where_that_gains_something():
    """Rows of 200 leave a band of 90: too low for a triangle of 100 along it, wide enough across."""
    asked = plan(slab(100, 200, "Tall"), triangle(40, 100), width=490)
    best = allot(asked, AllotSearch((24, 30)), KITCHEN).best[0]
    assert any(p.crosswise for p in best.cut.products)
    taken = asked.changed(asked.cut, products=best.cut.products, across=best.cut.across)
    made = work(taken, KITCHEN).cut
    assert sum(p.pieces for p in made.products) == sum(best.pieces)
    assert made.used_pct == pytest.approx(best.used_pct)


def put_in(asked, step):
    """The plan with a step before its cut."""
    return replace(asked, steps=(*asked.steps[:-1], step, asked.steps[-1]))


def test_a_sheet_that_lies_double_is_cut_through_all_its_layers():
    flat = plan(square(90), width=480)
    double = put_in(flat, LayDouble(2, cut=True))
    (best, *_) = allot(double, AllotSearch((30,)), KITCHEN).best
    worked = work(double.changed(double.cut, products=best.cut.products, across=best.cut.across))
    assert worked.cut.pieces == best.pieces[0] >= 30
    assert worked.cut.products[0].piece_g == pytest.approx(best.piece_g[0], rel=1e-9)
    assert worked.cut.trimmings_g == pytest.approx(best.trimmings_g, rel=1e-6)
    # half as many rows do for as many pieces
    (single, *_) = allot(flat, AllotSearch((30,)), KITCHEN).best
    assert best.piece_g == pytest.approx(single.piece_g)


def test_the_slices_of_a_coil_are_shared_out_by_how_long_each_is():
    asked = put_in(plan(square(40, "Thick"), square(25, "Thin"), width=415), RollUp())
    # 6 × 40 + 7 × 25 is the whole of it, with no more than ten thin ones
    (best, *_) = allot(asked, AllotSearch((0, 10)), KITCHEN).best
    assert best.pieces == (6, 7)
    worked = work(asked.changed(asked.cut, products=best.cut.products))
    assert [p.pieces for p in worked.cut.products] == [6, 7]
    assert [p.piece_g for p in worked.cut.products] == pytest.approx(best.piece_g)
    assert {p.shape for p in best.cut.products} == {Shape.SQUARE}


def test_what_is_made_of_three_strands_counts_once():
    plait = Product("Plait", Shape.STRIP, 20, 200, strands=3)
    (best, *_) = allot(plan(plait), AllotSearch((4,)), KITCHEN).best
    made = plan(plait)
    worked = work(made.changed(made.cut, products=best.cut.products, across=best.cut.across))
    assert worked.cut.pieces == best.pieces[0] >= 4
    assert worked.cut.products[0].piece_g == pytest.approx(best.piece_g[0])
