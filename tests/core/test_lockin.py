"""Block, dough sheet and package for the three schools."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.limits import Faults
from lamination.lockin import Method, lock_in

DOUGH, BUTTER = 2400 / 1120 * 1e6, 650 / 940 * 1e6


def test_half_covers_half_the_dough():
    got = lock_in(Method.HALF, DOUGH, BUTTER, 300, 230)
    assert got.block.thickness_mm == pytest.approx(10.0, abs=0.05)
    assert (got.dough_sheet.width_mm, got.dough_sheet.length_mm) == (300, 460)
    assert got.dough_sheet.thickness_mm == pytest.approx(15.5, abs=0.05)
    assert got.package.thickness_mm == pytest.approx(41.1, abs=0.05)
    assert (got.package.width_mm, got.package.length_mm) == (300, 230)


def test_two_thirds_makes_two_butter_layers_on_a_third_of_the_length():
    got = lock_in(Method.TWO_THIRDS, DOUGH, BUTTER, 300, 400)
    assert got.dough_sheet.length_mm == pytest.approx(600)
    assert got.package.length_mm == pytest.approx(200)
    assert got.sheet.fullest().butter_leaves == 2
    assert got.creases_mm == pytest.approx((200, 400))


def test_envelope_square_follows_the_block_and_the_overlap():
    got = lock_in(Method.ENVELOPE, DOUGH, BUTTER, 220, 220, overlap_mm=10)
    assert got.dough_sheet.length_mm == pytest.approx(331.1, abs=0.05)
    assert got.package.length_mm == pytest.approx(220)
    assert got.sheet.volume_mm3() == pytest.approx(DOUGH + BUTTER)


def test_an_envelope_without_overlap_wraps_evenly():
    stack = lock_in(Method.ENVELOPE, DOUGH, BUTTER, 220, 220).sheet.fullest()
    assert stack.bottom.thickness == pytest.approx(stack.top.thickness)


def test_an_envelope_offers_the_square_of_the_same_butter():
    with pytest.raises(Faults) as wrong:
        lock_in(Method.ENVELOPE, DOUGH, BUTTER, 300, 230)
    assert wrong.value.faults[0].field == "block_length_mm"
    assert f"{math.sqrt(300 * 230):.0f} mm" in wrong.value.faults[0].message


@pytest.mark.parametrize(
    ("method", "margin", "overlap", "field"),
    [
        (Method.HALF, 0, 5, "overlap_mm"),
        (Method.ENVELOPE, 5, 0, "margin_mm"),
    ],
)
def test_edges_that_a_school_does_not_have_are_named(method, margin, overlap, field):
    with pytest.raises(Faults) as wrong:
        lock_in(method, DOUGH, BUTTER, 230, 230, margin, overlap)
    assert [f.field for f in wrong.value.faults] == [field]


@given(
    st.sampled_from([Method.HALF, Method.TWO_THIRDS]),
    st.floats(50, 900),
    st.floats(50, 900),
    st.floats(0, 60),
)
def test_what_goes_in_is_in_the_package(method, width, length, margin):
    got = lock_in(method, DOUGH, BUTTER, width, length, margin)
    assert got.block.volume_mm3 == pytest.approx(BUTTER)
    assert got.dough_sheet.volume_mm3 == pytest.approx(DOUGH)
    assert got.package.volume_mm3 == pytest.approx(DOUGH + BUTTER)
