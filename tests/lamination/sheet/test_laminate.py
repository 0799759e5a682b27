"""The sheet: exact folds, fusion, and what no fold or roll may change."""

from functools import reduce

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.sheet.cells import crease, place, plain_sheet, roll, turn
from lamination.sheet.folds import fold_sheet
from lamination.sheet.lockin import lock_in
from lamination.sheet.stacks import Material, flip, leaf, pile, walk
from lamination.terms.trade import Fold, Method

D, B = Material.DOUGH, Material.BUTTER


def layers(*pairs):
    return reduce(pile, (leaf(m, t) for m, t in pairs))


materials = st.sampled_from([D, B])
thicknesses = st.floats(0.01, 50)
stacks = st.lists(st.tuples(materials, thicknesses), min_size=1, max_size=9)
folds = st.sampled_from(list(Fold))


def fused_by_hand(pairs):
    out = []
    for m, t in pairs:
        if out and out[-1][0] is m:
            out[-1] = (m, out[-1][1] + t)
        else:
            out.append((m, t))
    return out


@given(stacks, stacks)
def test_a_pile_counts_and_walks_as_a_plain_list_of_leaves_would(low, high):
    stack = pile(flip(layers(*low)), layers(*high))
    expected = fused_by_hand(low[::-1] + high)
    got = list(walk(stack))
    assert [x.material for x in got] == [m for m, _ in expected]
    assert [x.thickness for x in got] == pytest.approx([t for _, t in expected])
    assert stack.leaves == len(expected)
    for material in (D, B):
        own = [t for m, t in expected if m is material]
        extent = stack.extent(material)
        assert (extent.low, extent.high) == pytest.approx(
            (min(own, default=np.inf), max(own, default=0))
        )


@given(stacks)
def test_turning_over_twice_changes_nothing(pairs):
    stack = layers(*pairs)
    assert list(walk(flip(flip(stack)))) == list(walk(stack))
    over = list(walk(flip(stack)))[::-1]
    assert [x.material for x in over] == [x.material for x in walk(stack)]
    assert [x.thickness for x in over] == pytest.approx([x.thickness for x in walk(stack)])


def test_dough_on_dough_fuses_and_butter_between_keeps_them_apart():
    package = layers((D, 5), (B, 3), (D, 5))
    folded = pile(package, flip(package))
    assert (folded.butter_leaves, folded.dough_leaves) == (2, 3)
    assert [x.thickness for x in walk(folded)] == [5, 3, 10, 3, 5]


def test_a_window_of_a_huge_stack_gives_the_leaves_that_lie_in_it():
    stack = layers((D, 1), (B, 1), (D, 1))
    for _ in range(20):
        stack = pile(stack, flip(stack))
    middle = stack.thickness / 2
    seen = list(walk(stack, middle - 4.5, middle + 4.5))
    assert stack.butter_leaves == 2**20
    assert 5 <= len(seen) <= 9
    assert {x.material for x in seen} == {D, B}


def butter(sheet):
    return sheet.volume_mm3(lambda s: s.butter_mm)


@given(
    st.sampled_from([Method.HALF, Method.TWO_THIRDS]),
    st.floats(0, 40),
    st.lists(st.tuples(folds, st.floats(1.1, 6)), max_size=6),
)
def test_volume_and_butter_share_survive_every_roll_and_fold(method, margin, sequence):
    sheet = lock_in(method, 2.1e6, 0.7e6, 300, 230, margin).sheet
    volume, share = sheet.volume_mm3(), butter(sheet) / sheet.volume_mm3()
    for fold, stretch in sequence:
        sheet = fold_sheet(roll(turn(sheet), stretch), fold)
        assert sheet.volume_mm3() == pytest.approx(volume, rel=1e-9)
        assert butter(sheet) / sheet.volume_mm3() == pytest.approx(share, rel=1e-9)
        assert sum(sheet.coverage().values()) == pytest.approx(1)


DOUGH_OUTSIDE = [Method.HALF, Method.HALF_STACKED, Method.TWO_THIRDS, Method.ENVELOPE, Method.GATE,
                 Method.OPEN_SIDED]  # fmt: skip


@given(st.sampled_from(DOUGH_OUTSIDE), st.lists(folds, max_size=9))
def test_with_dough_outside_there_is_one_dough_leaf_more_than_butter(method, sequence):
    sheet = lock_in(method, 2.1e6, 0.7e6, 250, 250).sheet
    expected = 2 if method is Method.TWO_THIRDS else 1
    for fold in sequence:
        sheet = fold_sheet(roll(turn(sheet), 3), fold)
        expected *= fold.multiplies
    full = sheet.fullest()
    assert full.butter_leaves == expected
    assert full.dough_leaves == expected + 1


def test_bare_margins_leave_an_eighth_of_the_sheet_with_every_layer():
    sheet = lock_in(Method.HALF, 2.1e6, 0.7e6, 200, 200, margin_mm=10).sheet
    for _ in range(3):
        sheet = fold_sheet(turn(sheet), Fold.LETTER)
    coverage = sheet.coverage()
    assert coverage[27] == pytest.approx(0.13, abs=0.005)
    assert coverage[24] == pytest.approx(0.60, abs=0.005)


def test_a_letter_fold_lays_the_far_third_under_the_near_third():
    sheet = plain_sheet(300, 100, leaf(D, 2))
    sheet = place(sheet, leaf(B, 1), 200, 0, 100, 100)  # butter on the far third only
    folded = fold_sheet(sheet, Fold.LETTER)
    assert folded.length_mm == pytest.approx(100)
    # far third comes in butter side down; the near third is plain dough on top of it
    assert [(x.material, x.thickness) for x in walk(folded.fullest())] == [(D, 2), (B, 1), (D, 4)]


def test_a_crease_past_the_middle_leaves_a_step():
    folded = crease(plain_sheet(100, 50, leaf(D, 2)), 70, "high")
    assert folded.length_mm == pytest.approx(70)
    assert folded.thickness_mm == pytest.approx(2 * 100 / 70)


def test_a_quarter_turn_swaps_length_and_width():
    sheet = turn(plain_sheet(300, 100, leaf(D, 2)))
    assert (sheet.length_mm, sheet.width_mm) == (100, 300)


@pytest.mark.parametrize("along", [0, -1, float("nan"), float("inf")])
def test_a_roll_by_no_real_factor_is_refused(along):
    with pytest.raises(ValueError, match="positive factors"):
        roll(plain_sheet(100, 100, leaf(D, 2)), along)


@pytest.mark.parametrize("at", [0, 100, 250])
def test_a_crease_outside_the_sheet_is_refused(at):
    with pytest.raises(ValueError, match="not inside"):
        crease(plain_sheet(100, 100, leaf(D, 2)), at, "high")
