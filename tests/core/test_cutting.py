"""Pieces on the last sheet."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.cutting import Shape, kerf_along_base_mm, layout
from lamination.lockin import Size


def test_triangles_share_their_slanted_cuts():
    laid = layout(Size(450, 280, 4), Shape.TRIANGLE, 90, 280)
    assert laid.per_strip == 9  # (9 + 1) × 45 mm
    assert layout(Size(449, 280, 4), Shape.TRIANGLE, 90, 280).per_strip == 8


def test_a_blade_eats_more_along_the_base_than_across_the_cut():
    assert kerf_along_base_mm(3, 90, 280) == pytest.approx(3 * math.hypot(1, 45 / 280))
    assert layout(Size(450, 280, 4), Shape.TRIANGLE, 90, 280, kerf_mm=3).per_strip == 8


def test_rectangles_stand_in_rows():
    laid = layout(Size(1000, 305, 4), Shape.RECTANGLE, 80, 100, kerf_mm=2)
    assert (laid.strips, laid.per_strip) == (3, 12)


sizes = st.builds(Size, st.floats(20, 3000), st.floats(20, 1500), st.just(4.0))


@given(sizes, st.sampled_from(list(Shape)), st.floats(15, 200), st.floats(20, 400), st.floats(0, 5))
def test_no_piece_leaves_the_sheet_and_none_overlap_more_than_area_allows(
    sheet, shape, base, height, kerf
):
    laid = layout(sheet, shape, base, height, kerf)
    assert len(laid.outlines) == laid.pieces == laid.strips * laid.per_strip
    assert laid.pieces * laid.piece_mm2 <= sheet.length_mm * sheet.width_mm * (1 + 1e-6)
    for outline in laid.outlines:
        xs, ys = [c.x_mm for c in outline], [c.y_mm for c in outline]
        assert min(xs) >= -1e-6
        assert max(xs) <= sheet.length_mm + 1e-6
        assert min(ys) >= -1e-6
        assert max(ys) <= sheet.width_mm + 1e-6


def test_neighbouring_triangles_keep_the_kerf_between_them():
    laid = layout(Size(900, 280, 4), Shape.TRIANGLE, 90, 280, kerf_mm=3)
    right, next_left = laid.outlines[0][1].x_mm, laid.outlines[1][0].x_mm
    # first triangle's foot runs to `right` on one edge; the next starts half a base and a kerf on
    assert next_left - (right - 90) == pytest.approx(45 + kerf_along_base_mm(3, 90, 280))
