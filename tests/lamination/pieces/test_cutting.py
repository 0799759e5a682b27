"""Rows, marks and kerfs: pieces cut from the marks are equal, whatever the blade eats."""

import math
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.pieces.cutting import blank_of, kerf_along_base_mm, lay_out, per_row
from lamination.pieces.marking import chained, cut_from
from lamination.pieces.products import Product, Shape
from lamination.terms.limits import Faults
from lamination.terms.sizes import Size

SIZES = st.floats(40, 300)
KERFS = st.floats(0, 6)
STRAIGHT = st.sampled_from([Shape.TRIANGLE, Shape.RECTANGLE, Shape.SQUARE, Shape.STRIP])


def triangle(base=90.0, height=280.0, **more):
    return Product("Croissant", Shape.TRIANGLE, base, height, **more)


def disc(across=80.0, **more):
    return Product("Disc", Shape.DISC, across, **more)


def sheet(length, width):
    return Size(length, width, 4)


def area(outline):
    pairs = zip(outline, (*outline[1:], outline[0]), strict=True)
    return abs(sum(a.x_mm * b.y_mm - b.x_mm * a.y_mm for a, b in pairs)) / 2


def test_n_triangles_use_half_a_base_more_than_their_own():
    assert len(lay_out(sheet(450, 280), [triangle()]).outlines) == 9
    assert len(lay_out(sheet(449, 280), [triangle()]).outlines) == 8


def test_the_kerf_of_a_slanted_cut_takes_more_along_the_base():
    assert kerf_along_base_mm(3, 90, 280) == pytest.approx(3 * math.hypot(1, 45 / 280))
    assert len(lay_out(sheet(450, 280), [triangle()], kerf_mm=3).outlines) == 8


@given(STRAIGHT, SIZES, SIZES, KERFS, st.floats(0, 20))
def test_pieces_cut_from_the_marks_are_equal_and_at_size(shape, base, height, kerf, trim):
    product = Product("Piece", shape, base, height)
    laid = lay_out(sheet(1_500, 700), [product], kerf, trim)
    for row in laid.rows:
        for mm2 in cut_from(row.marks, kerf):
            assert mm2 == pytest.approx(laid.piece_mm2[0], rel=1e-9)


@given(STRAIGHT, SIZES, SIZES, KERFS, st.floats(0, 20), st.booleans())
def test_no_piece_and_no_mark_lies_beyond_the_trimmed_sheet(
    shape, base, height, kerf, trim, across
):
    laid = lay_out(
        sheet(1_500, 700), [Product("Piece", shape, base, height)], kerf, trim, 0, across
    )
    assert laid.used_mm2 <= (1_500 - 2 * trim) * (700 - 2 * trim) + 1e-6
    for outline in laid.outlines:
        assert area(outline) == pytest.approx(laid.piece_mm2[0])
        for c in outline:
            assert trim - 1e-6 <= c.x_mm <= 1_500 - trim + 1e-6
            assert trim - 1e-6 <= c.y_mm <= 700 - trim + 1e-6
    far = 1_500 if not across else 700
    for row in laid.rows:
        for marks in row.marks:
            assert all(trim - 1e-6 <= at <= far - trim + 1e-6 for at in marks.along_mm)


def test_the_outlines_drawn_are_the_pieces_that_the_marks_cut():
    laid = lay_out(sheet(900, 280), [triangle()], kerf_mm=3)
    (row,) = laid.rows
    near, far = row.marks
    slanted = kerf_along_base_mm(3, 90, 280) / 2
    for i, outline in enumerate(row.outlines):
        on_near = [c.x_mm for c in outline if c.y_mm == row.from_mm]
        assert min(on_near) == pytest.approx(near.along_mm[i] + slanted)
        assert max(on_near) == pytest.approx(near.along_mm[i + 1] - slanted)
    assert all(a != b for a, b in zip(near.along_mm, far.along_mm, strict=True))


def test_marking_each_cut_from_the_last_drifts_by_a_kerf_a_cut_and_the_pieces_are_light():
    laid = lay_out(sheet(1_000, 100), [Product("Slice", Shape.RECTANGLE, 80, 100)], kerf_mm=2)
    marks = laid.rows[0].marks
    wrong = chained(marks, 2)
    n = len(marks[0].along_mm) - 1
    assert marks[0].along_mm[-1] - wrong[0].along_mm[-1] == pytest.approx(2 * n)
    assert cut_from(wrong, 2) == pytest.approx([78 * 100] * n)


def test_without_a_kerf_nothing_drifts():
    marks = lay_out(sheet(900, 280), [triangle()]).rows[0].marks
    assert chained(marks, 0) == marks


def test_triangles_marked_from_the_last_cut_are_lighter_too():
    marks = lay_out(sheet(900, 280), [triangle()], kerf_mm=3).rows[0].marks
    wrong = cut_from(chained(marks, 3), 3)
    assert all(mm2 < 90 * 280 / 2 * 0.99 for mm2 in wrong)


def test_products_share_a_sheet_row_by_row_from_the_datum():
    products = [
        Product("Turnover", Shape.SQUARE, 120, rows=2),
        Product("Slice", Shape.RECTANGLE, 80, 100, rows=1),
        disc(60),
    ]
    laid = lay_out(sheet(800, 520), products, kerf_mm=2)
    assert [r.product for r in laid.rows] == [0, 0, 1, 2, 2, 2]
    for before, after in zip(laid.rows, laid.rows[1:], strict=False):
        if after.product != 2 or before.product != 2:
            assert after.from_mm == pytest.approx(before.to_mm + 2)
    assert sum(laid.pieces_of(n) for n in range(3)) == len(laid.outlines)


def test_discs_nest_where_that_gives_more():
    wide = lay_out(sheet(1_000, 1_000), [disc(80)])
    assert len(wide.outlines) > 12 * 12
    low = lay_out(sheet(1_000, 165), [disc(80)])
    assert len(low.outlines) == 2 * 12


@given(st.floats(20, 200), KERFS, st.floats(200, 1_200), st.floats(100, 700))
def test_discs_never_touch(across, kerf, length, width):
    laid = lay_out(sheet(length, width), [disc(across)], kerf)
    middles = [(oval.x_mm, oval.y_mm) for oval in laid.outlines]
    for i, a in enumerate(middles[:40]):
        for b in middles[i + 1 : 40]:
            assert math.dist(a, b) >= across - 1e-6


def test_a_ring_is_a_disc_less_its_hole():
    ring = Product("Ring", Shape.RING, 90, hole_mm=50)
    assert blank_of(ring).mm2 == pytest.approx(math.pi / 4 * (90**2 - 50**2))
    both = lay_out(sheet(600, 400), [ring]), lay_out(sheet(600, 400), [disc(90)])
    assert len(both[0].outlines) == len(both[1].outlines)


def test_shrinkage_is_allowed_for_along_the_roll_only():
    product = triangle()
    along, across = blank_of(product, 10), blank_of(product, 10, across=True)
    assert (along.along_mm, along.across_mm) == (pytest.approx(100), 280)
    assert (across.along_mm, across.across_mm) == (90, pytest.approx(280 / 0.9))
    assert along.mm2 == pytest.approx(across.mm2)


def test_rows_across_the_sheet_are_rows_along_a_turned_one():
    across = lay_out(sheet(1_200, 400), [triangle(90, 200)], 2, across=True)
    turned = lay_out(sheet(400, 1_200), [triangle(90, 200)], 2)
    assert len(across.outlines) == len(turned.outlines)
    assert across.outlines[0][0].x_mm == turned.outlines[0][0].y_mm


def test_nothing_fits_on_a_sheet_that_is_too_small():
    assert lay_out(sheet(100, 100), [triangle()]).rows == ()
    assert per_row(blank_of(triangle()), 50, 0) == 0


@pytest.mark.parametrize(
    ("product", "field"),
    [
        ({"shape": Shape.TRIANGLE, "base_mm": 90}, "height_mm"),
        ({"shape": Shape.RING, "base_mm": 90}, "hole_mm"),
        ({"shape": Shape.RING, "base_mm": 90, "hole_mm": 90}, "hole_mm"),
        ({"shape": Shape.TRIANGLE, "base_mm": 60, "height_mm": 60, "notch_mm": 30}, "notch_mm"),
    ],
)
def test_a_product_that_cannot_be_is_refused_at_its_field(product, field):
    with pytest.raises(Faults) as refused:
        Product("Piece", **product)
    assert [f.field for f in refused.value.faults] == [field]


# --- two products in one row


def test_what_a_row_leaves_of_its_length_is_filled_by_another_product():
    """Rows of 21 triangles on a base of 90 end at 990 of 1030 mm: one stick of 40 fits at each end."""
    horn = Product("Horn", Shape.TRIANGLE, 90, 280, rows=2)
    stick = Product("Stick", Shape.RECTANGLE, 40, 280, beside=True)
    laid = lay_out(Size(1030, 600, 4), (horn, stick))
    assert (laid.pieces_of(0), laid.pieces_of(1)) == (2 * 21, 2 * 1)
    rows = [r for r in laid.rows if r.product == 1]
    assert {r.from_mm for r in rows} == {0, 280}
    assert all(c.x_mm >= 990 - 1e-9 for r in rows for o in r.outlines for c in o)


@given(
    st.floats(40, 160), st.floats(60, 300), st.floats(20, 120), st.floats(20, 300), st.floats(0, 4)
)
@settings(max_examples=16)
def test_nothing_beside_lies_over_anything_or_over_the_edge(base, height, side, tall, kerf):
    first = Product("First", Shape.TRIANGLE, base, height)
    second = Product("Second", Shape.RECTANGLE, side, tall, beside=True)
    laid = lay_out(Size(900, 620, 4), (first, second), kerf)
    alone = lay_out(Size(900, 620, 4), (first,), kerf)
    assert laid.pieces_of(0) == alone.pieces_of(0)
    for row in (r for r in laid.rows if r.product == 1):
        partner = next(r for r in alone.rows if r.from_mm <= row.from_mm < r.to_mm)
        end = max(c.x_mm for o in partner.outlines for c in o)
        for outline in row.outlines:
            assert min(c.x_mm for c in outline) >= end + kerf - 1e-9
            assert max(c.x_mm for c in outline) <= 900 + 1e-9
            assert max(c.y_mm for c in outline) <= partner.to_mm + 1e-9
    over = sorted((r.from_mm, r.to_mm) for r in laid.rows if r.product == 1)
    assert all(b[0] >= a[1] + kerf - 1e-9 for a, b in pairwise(over))


def test_low_pieces_lie_on_each_other_at_the_end_of_a_high_row():
    """280 mm high: three squares of 90 with 2 mm cut between them, in each of two rows."""
    high = Product("High", Shape.RECTANGLE, 200, 280, rows=2)
    low = Product("Low", Shape.SQUARE, 90, beside=True)
    laid = lay_out(Size(1200, 600, 4), (high, low), 2.0)
    rows = [r for r in laid.rows if r.product == 1]
    assert [round(r.from_mm) for r in rows] == [0, 92, 184, 282, 374, 466]
    assert laid.pieces_of(1) == 6 * len(rows[0].outlines) > 0


# --- rows both ways on one sheet


def test_a_band_that_is_left_is_cut_the_other_way():
    """Two rows of 200 on a width of 530 leave a band of 130: three squares of 40 across, 25 rows of it."""
    first = Product("Tall", Shape.RECTANGLE, 100, 200, rows=2)
    small = Product("Small", Shape.SQUARE, 40, crosswise=True)
    laid = lay_out(Size(1000, 530, 4), (first, small))
    rows = [r for r in laid.rows if r.product == 1]
    assert len(rows) == 25
    assert all(r.crosswise and len(r.outlines) == 3 for r in rows)
    assert {(r.from_mm, r.to_mm) for r in rows} == {(40 * n, 40 * (n + 1)) for n in range(25)}
    marks = rows[0].marks[0]
    assert marks.across_mm == 0
    assert marks.along_mm == pytest.approx((400, 440, 480, 520))


@given(
    st.floats(30, 200), st.floats(30, 300), st.floats(20, 150), st.floats(0, 4), st.floats(0, 20)
)
@settings(max_examples=16)
def test_rows_the_other_way_lie_in_their_band(base, height, side, kerf, trim):
    first = Product("First", Shape.RECTANGLE, base, height, rows=1)
    second = Product("Second", Shape.TRIANGLE, side, side * 1.5, crosswise=True)
    laid = lay_out(Size(900, 620, 4), (first, second), kerf, trim)
    below = max((r.to_mm for r in laid.rows if r.product == 0), default=trim)
    pieces = [o for r in laid.rows if r.product == 1 for o in r.outlines]
    for outline in pieces:
        assert min(c.y_mm for c in outline) >= below - 1e-9
        assert max(c.y_mm for c in outline) <= 620 - trim + 1e-9
        assert min(c.x_mm for c in outline) >= trim - 1e-9
        assert max(c.x_mm for c in outline) <= 900 - trim + 1e-9
    mm2 = side * side * 1.5 / 2
    assert all(area(o) == pytest.approx(mm2) for o in pieces)
    assert laid.piece_mm2[1] == pytest.approx(mm2)
