"""The section along a line shows what really lies there; faults on purpose do what they say."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.plan.across import section_along
from lamination.plan.work import work
from lamination.sheet.cells import place, plain_sheet, roll, turn, uneven
from lamination.sheet.folds import fold_sheet
from lamination.sheet.lockin import lock_in
from lamination.sheet.section import MOST_LEAVES, Across, cut_along
from lamination.sheet.stacks import Material, leaf, pile, scaled, walk
from lamination.sheet.trims import trim
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.turn import Trim
from lamination.terms.limits import Faults
from lamination.terms.said import plain
from lamination.terms.trade import Fold, Method
from tests.plans import station, turns

D, B = Material.DOUGH, Material.BUTTER


def buttered(margin=10.0):
    sheet = plain_sheet(300, 200, leaf(D, 10))
    sheet = place(sheet, leaf(B, 5), margin, margin, 300 - 2 * margin, 200 - 2 * margin)
    return place(sheet, leaf(D, 10), 0, 0, 300, 200)


folds = st.lists(st.sampled_from(list(Fold)), min_size=1, max_size=3)


@settings(max_examples=14, deadline=None)
@given(folds, st.floats(0, 100), st.booleans())
def test_a_section_is_the_stacks_its_line_runs_through(sequence, at, crosswise):
    sheet = buttered()
    for fold in sequence:
        sheet = turn(fold_sheet(roll(sheet, 3), fold))
    found = cut_along(sheet, Across(at, crosswise))
    assert found.columns[0].from_mm == 0
    assert found.columns[-1].to_mm == pytest.approx(found.length_mm, abs=0.01)
    for left, right in zip(found.columns, found.columns[1:], strict=False):
        assert left.to_mm == right.from_mm
        assert left.stack != right.stack
    width = sheet.length_mm if crosswise else sheet.width_mm
    for column in found.columns:
        along, across = (column.from_mm + column.to_mm) / 2, width * at / 100
        x, y = (across, along) if crosswise else (along, across)
        here, drawn = sheet.stack_at(sheet.xs[0] + x, sheet.ys[0] + y), found.stacks[column.stack]
        assert (drawn.butter, drawn.dough) == (here.butter_leaves, here.dough_leaves)
        assert len(drawn.leaves_um) == here.leaves
        assert sum(drawn.leaves_um) == pytest.approx(drawn.height_um, rel=1e-3)


def test_a_window_shows_its_leaves_at_their_own_heights():
    whole = section_along(station(), "final", Across()).stacks[0]
    part = section_along(station(), "final", Across(low_pct=40, high_pct=60)).stacks[0]
    heights = np.cumsum([0, *whole.leaves_um])
    first = int(np.abs(heights - part.from_um).argmin())
    assert heights[first] == pytest.approx(part.from_um, abs=0.1)
    n = len(part.leaves_um)
    assert part.leaves_um[:-1] == pytest.approx(whole.leaves_um[first : first + n - 1], abs=0.1)
    assert 0 < n < len(whole.leaves_um)


def test_too_many_leaves_are_a_tone_until_the_window_is_narrow():
    many = station(turns=turns(*["book"] * 8, roll_to_mm=4), cut=None)
    tone = section_along(many, "final", Across()).stacks[0]
    assert tone.butter + tone.dough > MOST_LEAVES
    assert tone.leaves_um == ()
    assert tone.butter_pct == pytest.approx(100 * 650 / 940 / (650 / 940 + 2400 / 1120), rel=1e-6)
    near = section_along(many, "final", Across(low_pct=50, high_pct=50.2)).stacks[0]
    assert 200 < len(near.leaves_um) < 400


def test_a_stop_without_a_sheet_names_those_that_have_one():
    with pytest.raises(Faults, match="Choose lock_in, turn-1, turn-2, turn-3, final"):
        section_along(station(), "mix", Across())


def test_a_pressed_stack_keeps_its_leaves_in_proportion():
    stack = pile(pile(leaf(D, 4), leaf(B, 2)), leaf(D, 6))
    half = scaled(stack, 0.5)
    assert [n.thickness for n in walk(half)] == [2, 1, 3]
    assert half.extent(D).high == 3
    assert [n.thickness for n in walk(pile(half, stack))] == [2, 1, 7, 2, 6]


@given(st.floats(-0.5, 0.5))
def test_an_uneven_roll_keeps_sides_and_volume_and_leans_as_it_was_told(by):
    sheet = buttered()
    pressed = uneven(sheet, by)
    assert pressed.length_mm == sheet.length_mm
    assert pressed.width_mm == pytest.approx(sheet.width_mm)
    assert pressed.volume_mm3() == pytest.approx(sheet.volume_mm3(), rel=1e-9)
    assert pressed.volume_mm3(lambda s: s.butter_mm) == pytest.approx(
        sheet.volume_mm3(lambda s: s.butter_mm), rel=1e-9
    )
    near, far = pressed.stack_at(150, 1).thickness, pressed.stack_at(150, 199).thickness
    assert (far > near) is (by > 0.001) or abs(by) <= 0.001


def test_an_uneven_last_sheet_gives_pieces_of_different_weights_and_says_so():
    even, leaning = (
        work(station()),
        work(station(last_sheet=LastSheet(4, width_mm=400, uneven_pct=10))),
    )
    assert even.cut.each_g == pytest.approx([even.cut.piece_g] * even.cut.pieces)
    # one strip, cut from the thin side: triangles that point to the edge are heavier
    assert all(g < even.cut.piece_g for g in leaning.cut.each_g)
    assert max(leaning.cut.each_g) > 1.04 * min(leaning.cut.each_g)
    assert leaning.final.thinnest_mm < 4 < leaning.final.thickest_mm
    assert any(plain(n.title) == "Thicker on one side" for n in leaning.notes)
    assert not any(plain(n.title) == "Thicker on one side" for n in even.notes)
    # the leaves are as many as before, thinner on one side
    assert leaning.layers.butter == even.layers.butter
    assert leaning.layers.full_pct == pytest.approx(even.layers.full_pct)


def test_flaps_that_overlap_double_the_dough_along_the_diagonals_and_nowhere_else():
    done = lock_in(Method.ENVELOPE, 2e6, 4e5, 220, 220, overlap_mm=10)
    sheet = done.sheet
    assert done.dough_sheet.length_mm == pytest.approx(220 * math.sqrt(2) + 20)
    assert sheet.volume_mm3() == pytest.approx(2.4e6, rel=1e-9)
    single = sheet.stack_at(110, 20).dough_mm
    assert sheet.stack_at(60, 60).dough_mm > single + 0.9 * done.dough_sheet.thickness_mm
    assert single == pytest.approx(2 * done.dough_sheet.thickness_mm, rel=0.02)
    plain = lock_in(Method.ENVELOPE, 2e6, 4e5, 220, 220).sheet
    assert len(plain.pool) == 1


def test_sides_that_are_tucked_lie_along_the_middle_and_lose_nothing():
    sheet = buttered()
    done = trim(sheet, 0, 12, tucked=True)
    assert (done.dough_mm3, done.butter_mm3) == pytest.approx((0, 0), abs=1e-6)
    assert done.sheet.width_mm == pytest.approx(200 - 24)
    assert done.sheet.stack_at(150, 88).leaves > done.sheet.stack_at(150, 30).leaves
    both = trim(sheet, 15, 12, tucked=True)
    assert both.sheet.volume_mm3() == pytest.approx(sheet.volume_mm3(), rel=1e-9)
    saved = trim(sheet, 15, 12)
    assert saved.sheet.volume_mm3() + saved.dough_mm3 + saved.butter_mm3 == pytest.approx(
        sheet.volume_mm3(), rel=1e-9
    )


def test_moves_are_the_creases_that_the_sheet_is_folded_by():
    chosen = replace(turns("letter")[0], trim=Trim(ends_mm=20), short_mm=6)
    step = work(station(turns=(chosen,), lock_in=LockIn(Method.HALF, 300, 230), cut=None)).steps[0]
    inside = step.rolled.length_mm - 40
    far, near = step.moves
    assert (far.flap, near.flap) == ("high", "low")
    assert far.at_mm == pytest.approx(20 + 2 * inside / 3 + 3)
    assert near.at_mm == pytest.approx(20 + inside / 3 - 3)
    assert step.creases_mm == (near.at_mm, far.at_mm)
    assert step.folded.length_mm == pytest.approx(far.at_mm - near.at_mm)
