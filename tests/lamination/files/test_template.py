"""Templates as drawings, before they are files: sizes, tiles, and what they are of."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.files.template import PAGE_MM, Drawing, TemplateOf, template_of, tiles
from lamination.pieces.products import Product, Shape
from lamination.plan.work import work
from lamination.steps.cut import Cut
from lamination.steps.last_sheet import LastSheet
from lamination.terms.limits import Faults
from tests.plans import station


def of_piece(product, **cut):
    plan = station(cut=Cut((product,), **cut), last_sheet=LastSheet(4, width_mm=520))
    return template_of(plan, work(plan), TemplateOf.PIECE)


def extent(stroke):
    xs, ys = zip(*stroke.points, strict=True)
    return min(xs), max(xs), min(ys), max(ys)


@pytest.mark.parametrize("shape", list(Shape))
def test_every_shape_has_a_stencil_as_large_as_it_says(shape):
    tall, hole = (140 if shape.has_height else None), (40 if shape is Shape.RING else 0)
    product = Product("Piece", shape, 90, tall, hole_mm=hole)
    drawing = of_piece(product)
    assert extent(drawing.strokes[0]) == pytest.approx((0, drawing.width_mm, 0, drawing.height_mm))
    assert all(stroke.cut for stroke in drawing.strokes)
    assert "Piece" in drawing.words[0].text


def test_a_notch_goes_in_from_the_middle_of_the_base():
    notch = of_piece(Product("Horn", Shape.TRIANGLE, 90, 280, notch_mm=15)).strokes[1]
    assert notch.points == ((45, 280), (45, 265))
    assert not notch.closed


def test_a_ring_has_its_hole_in_the_middle_and_oval_where_it_will_shrink():
    left, right, top, foot = extent(
        of_piece(Product("Ring", Shape.RING, 90, hole_mm=50)).strokes[1]
    )
    assert (left, right, top, foot) == pytest.approx((20, 70, 20, 70), abs=0.05)
    oval = of_piece(Product("Ring", Shape.RING, 90, hole_mm=50), shrink_pct=10)
    left, right, top, foot = extent(oval.strokes[1])
    assert right - left == pytest.approx(50 / 0.9, abs=0.05)
    assert foot - top == pytest.approx(50, abs=0.05)


def test_the_whole_sheet_holds_its_edge_its_trim_and_every_piece():
    plan = station(
        cut=Cut((Product("Square", Shape.SQUARE, 100),), trim_mm=12),
        last_sheet=LastSheet(4, width_mm=520),
    )
    worked = work(plan)
    drawing = template_of(plan, worked, TemplateOf.SHEET)
    edge, trim, *pieces = drawing.strokes
    assert not edge.cut
    assert trim.cut
    assert len(pieces) == worked.cut.pieces
    assert extent(edge) == pytest.approx((0, worked.final.length_mm, 0, 520))
    assert extent(trim) == pytest.approx((12, worked.final.length_mm - 12, 12, 508))


def test_a_plan_without_a_cut_has_no_template():
    plan = station(cut=None)
    with pytest.raises(Faults, match="cuts no such product"):
        template_of(plan, work(plan), TemplateOf.SHEET)


@given(st.floats(5, 1_500), st.floats(5, 1_500))
def test_tiles_overlap_leave_no_gap_and_none_is_needless(width, height):
    drawing = Drawing("any", width, height, (), ())
    pages = tiles(drawing)
    across = sorted({t.x_mm for t in pages})
    down = sorted({t.y_mm for t in pages})
    assert len(pages) == len(across) * len(down)
    for starts, whole, page in (
        (across, width, pages[0].width_mm),
        (down, height, pages[0].height_mm),
    ):
        assert starts[0] == 0
        assert starts[-1] + page >= whole
        assert all(b < a + page for a, b in pairwise(starts))
        # without the last page something would be missing
        assert len(starts) == 1 or starts[-2] + page < whole


def test_a_page_leaves_room_for_its_marks_and_its_scale_check():
    (page,) = tiles(Drawing("small", 50, 50, (), ()))
    assert page.width_mm <= PAGE_MM[0] - 20
    assert page.height_mm <= PAGE_MM[1] - 35
