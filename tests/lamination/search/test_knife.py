"""Every layout that is offered can be cut: a simulated knife finds no two pieces in each other's way."""

from __future__ import annotations

import math
from itertools import combinations

from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.cutting import lay_out
from lamination.pieces.over import Oval
from lamination.pieces.products import Product, Shape
from lamination.plan.work import work
from lamination.search.layouts import AllotSearch, allot
from lamination.steps.cut import Cut
from lamination.terms.sizes import Size
from tests.plans import station

KITCHEN = Kitchen()
_HAIR = 1e-6


def points(outline):
    """The corners of a piece; a round one as a many-cornered one that lies within it."""
    if isinstance(outline, Oval):
        turns = [2 * math.pi * n / 48 for n in range(48)]
        return [
            (outline.x_mm + outline.half_along_mm * math.cos(a),
             outline.y_mm + outline.half_across_mm * math.sin(a))
            for a in turns
        ]  # fmt: skip
    return [(c.x_mm, c.y_mm) for c in outline]


def apart(a, b):
    """Whether a straight line lies between two pieces: all of them are convex."""
    for one, other in ((a, b), (b, a)):
        for (x0, y0), (x1, y1) in zip(one, (*one[1:], one[0]), strict=True):
            nx, ny = y1 - y0, x0 - x1
            mine = [nx * x + ny * y for x, y in one]
            theirs = [nx * x + ny * y for x, y in other]
            long = math.hypot(nx, ny) or 1.0
            if max(mine) <= min(theirs) + _HAIR * long or max(theirs) <= min(mine) + _HAIR * long:
                return True
    return False


def in_the_way(outlines, size, trim_mm):
    """What a knife would meet: pieces over the edge, and pairs that share some of the sheet."""
    drawn = [points(o) for o in outlines]
    over = [
        p
        for p in drawn
        if min(x for x, _ in p) < trim_mm - _HAIR
        or min(y for _, y in p) < trim_mm - _HAIR
        or max(x for x, _ in p) > size.length_mm - trim_mm + _HAIR
        or max(y for _, y in p) > size.width_mm - trim_mm + _HAIR
    ]
    boxes = [(min(x for x, _ in p), max(x for x, _ in p)) for p in drawn]
    both = [
        (a, b)
        for (a, box), (b, other) in combinations(zip(drawn, boxes, strict=True), 2)
        if box[1] > other[0] + _HAIR and other[1] > box[0] + _HAIR and not apart(a, b)
    ]
    return over, both


round_ = st.builds(lambda d: Product("Disc", Shape.DISC, d), st.floats(45, 120))
straight = st.one_of(
    st.builds(lambda b: Product("Square", Shape.SQUARE, b), st.floats(50, 140)),
    st.builds(
        lambda b, h: Product("Strip", Shape.RECTANGLE, b, h), st.floats(30, 90), st.floats(90, 200)
    ),
    st.builds(
        lambda b, h: Product("Horn", Shape.TRIANGLE, b, h), st.floats(60, 110), st.floats(150, 280)
    ),
)
products = st.lists(st.one_of(round_, straight), min_size=1, max_size=2).map(tuple)


@settings(max_examples=60, deadline=None)
@given(products, st.floats(0, 4), st.sampled_from([0.0, 5.0, 12.0]))
def test_no_offer_of_the_search_has_a_piece_over_the_edge_or_over_another(cut_to, kerf, trim):
    plan = station(cut=Cut(cut_to, kerf_mm=kerf, trim_mm=trim))
    for offer in allot(plan, AllotSearch((0,) * len(cut_to)), KITCHEN).best:
        cut = offer.cut
        size = work(plan, KITCHEN).final.size
        laid = lay_out(size, cut.products, cut.kerf_mm, cut.trim_mm, cut.shrink_pct, cut.across)
        assert in_the_way(laid.outlines, size, trim) == ([], [])


@settings(max_examples=100, deadline=None)
@given(round_, round_, st.floats(0, 6), st.floats(300, 900), st.floats(200, 500))
def test_discs_at_the_ends_of_nested_rows_stand_clear_of_them(one, other, kerf, length, width):
    size = Size(length, width, 4)
    rows = Product("Disc", Shape.DISC, one.base_mm, nested=True, rows=2)
    beside = Product("Small", Shape.DISC, other.base_mm, beside=True)
    laid = lay_out(size, (rows, beside), kerf)
    assert in_the_way(laid.outlines, size, 0) == ([], [])
