"""The map of the leaves says what the sheet holds, place by place, and what it costs the pieces."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.pieces.over import Corner, means_over
from lamination.sheet.cells import Sheet, place, plain_sheet, roll, turn
from lamination.sheet.coverage import coverage_map
from lamination.sheet.folds import fold_sheet
from lamination.sheet.lockin import lock_in
from lamination.sheet.stacks import Material, leaf, walk
from lamination.sheet.trims import lay_ends_on, stack_panels, trim
from lamination.terms.trade import Fold, Method

DOUGH, BUTTER = leaf(Material.DOUGH, 2), leaf(Material.BUTTER, 1)


def margined(margin=12.0, folds=(Fold.LETTER, Fold.BOOK)):
    sheet = lock_in(Method.HALF, 2.1e6, 0.7e6, 240, 200, margin).sheet
    for fold in folds:
        sheet = fold_sheet(roll(turn(sheet), 3), fold)
    return sheet


def striped():
    """A sheet 100 × 40 whose first 30 mm have butter."""
    return place(plain_sheet(100, 40, DOUGH), BUTTER, 0, 0, 30, 40)


@settings(max_examples=16, deadline=None)
@given(st.floats(0.01, 0.99), st.floats(0.01, 0.99), st.floats(0, 25))
def test_the_map_says_of_any_place_what_lies_there(x, y, margin):
    sheet = margined(margin)
    drawn = coverage_map(sheet)
    at_x, at_y = x * sheet.length_mm, y * sheet.width_mm
    i = int(np.searchsorted(drawn.xs_mm, at_x)) - 1
    j = int(np.searchsorted(drawn.ys_mm, at_y)) - 1
    near = min(
        abs(at_x - drawn.xs_mm[i]), abs(at_x - drawn.xs_mm[i + 1]),
        abs(at_y - drawn.ys_mm[j]), abs(at_y - drawn.ys_mm[j + 1]),
    )  # fmt: skip
    if near < 0.02:  # on a line, where either side is right
        return
    region = drawn.regions[drawn.cells[i][j]]
    stack = sheet.stack_at(at_x, at_y)
    assert (region.butter, region.bent) == (stack.butter_leaves, sheet.bent_at(at_x, at_y))
    drawn_leaves = [n.material for n in walk(stack)]
    assert drawn_leaves.count(Material.BUTTER) == stack.butter_leaves


def test_regions_come_fullest_first_and_share_the_sheet_out():
    drawn = coverage_map(margined())
    counts = [r.butter for r in drawn.regions]
    assert counts == sorted(counts, reverse=True)
    assert sum(r.share_pct for r in drawn.regions) == pytest.approx(100)
    assert len({(r.butter, r.bent) for r in drawn.regions}) == len(drawn.regions)
    assert len(drawn.cells) == len(drawn.xs_mm) - 1
    assert {len(column) for column in drawn.cells} == {len(drawn.ys_mm) - 1}


def rectangle(x, y, length, width):
    return (
        Corner(x, y),
        Corner(x + length, y),
        Corner(x + length, y + width),
        Corner(x, y + width),
    )


def full_shares(sheet, pieces):
    """How much of each piece has every leaf, %."""
    full = sheet.fullest().butter_leaves
    has = np.array([float(s.butter_leaves >= full) for s in sheet.pool])
    return tuple(100 * m for m in means_over(sheet, pieces, has)[0])


@pytest.mark.parametrize(
    ("piece", "share"),
    [
        (rectangle(0, 0, 30, 40), 100),
        (rectangle(40, 0, 50, 40), 0),
        (rectangle(15, 0, 30, 40), 50),
        (rectangle(0, 10, 90, 10), 33.3),
        ((Corner(0, 0), Corner(30, 0), Corner(15, 40)), 100),
        ((Corner(0, 0), Corner(60, 0), Corner(30, 40)), 50),
        ((Corner(31, 40), Corner(99, 40), Corner(60, 0)), 0),
    ],
)
def test_a_piece_knows_how_much_of_it_has_every_leaf(piece, share):
    (found,) = full_shares(striped(), (piece,))
    assert found == pytest.approx(share, abs=0.1)


def test_no_pieces_have_no_shares():
    assert full_shares(striped(), ()) == ()


def test_a_trim_takes_what_lies_there_and_no_more():
    done = trim(striped(), 10, 5)
    assert (done.sheet.length_mm, done.sheet.width_mm) == (80, 30)
    # of the butter 20 × 30 mm stay of 30 × 40
    assert done.butter_mm3 == pytest.approx(30 * 40 - 20 * 30)
    assert done.dough_mm3 == pytest.approx(2 * (100 * 40 - 80 * 30))
    assert done.sheet.xs[0] == 0
    with pytest.raises(ValueError, match="nothing would be left"):
        trim(striped(), 50, 0)


def test_tucked_ends_lie_in_the_middle_and_nothing_is_lost():
    before = striped()
    done = trim(before, 10, 0, tucked=True)
    assert done.sheet.volume_mm3() == pytest.approx(before.volume_mm3())
    assert (done.dough_mm3, done.butter_mm3) == (pytest.approx(0), pytest.approx(0))
    # the near end had butter on it and now lies just before the middle, the far end had none
    assert done.sheet.stack_at(35, 20).butter_leaves == 1
    assert done.sheet.stack_at(45, 20).butter_leaves == 0
    assert done.sheet.stack_at(35, 20).thickness > done.sheet.stack_at(60, 20).thickness


def test_stacked_panels_keep_their_faces_up():
    stacked = stack_panels(place(plain_sheet(90, 40, DOUGH), BUTTER, 0, 0, 90, 40), 3)
    leaves = [n.material for n in walk(stacked.fullest())]
    assert leaves == [Material.DOUGH, Material.BUTTER] * 3
    assert stacked.length_mm == pytest.approx(30)


def test_ends_laid_on_meet_in_the_middle():
    laid = lay_ends_on(plain_sheet(80, 40, DOUGH), 20)
    assert laid.length_mm == pytest.approx(40)
    assert {s.thickness for s in laid.pool} == {4}


def test_bends_lie_along_the_closed_edges_half_as_wide_as_the_fold_is_thick():
    sheet = fold_sheet(plain_sheet(300, 100, DOUGH), Fold.HALF)
    # 4 mm thick when folded: 2 mm of bend at the closed, far end
    assert sheet.bent_share() == pytest.approx(2 / 150)
    assert sheet.bent_at(149.5, 50)
    assert not sheet.bent_at(147, 50)
    rolled = roll(sheet, 3)
    assert rolled.bent_share() == pytest.approx(sheet.bent_share())
    book = fold_sheet(plain_sheet(400, 100, DOUGH), Fold.BOOK)
    assert book.bent_share() > sheet.bent_share()


@settings(max_examples=11, deadline=None)
@given(st.floats(0, 20), st.lists(st.sampled_from(list(Fold)), min_size=1, max_size=4))
def test_area_butter_and_volume_are_kept_to_the_last_digit(margin, folds):
    plain = lock_in(Method.HALF, 2.1e6, 0.7e6, 240, 200, margin).sheet
    folded = margined(margin, folds)
    for of in (lambda s: s.thickness, lambda s: s.butter_mm, lambda s: s.dough_mm):
        assert folded.volume_mm3(of) == pytest.approx(plain.volume_mm3(of), rel=1e-9)
    assert sum(map(sum, folded.areas_mm2)) == pytest.approx(
        folded.length_mm * folded.width_mm, rel=1e-9
    )
    assert sum(folded.coverage().values()) == pytest.approx(1, rel=1e-9)


@pytest.mark.parametrize("after", [lambda s: roll(s, 2, 0.7), turn, lambda s: roll(turn(s), 3)])
def test_shares_stay_with_a_sheet_that_is_rolled_and_turned(after):
    was = margined(6, [Fold.LETTER, Fold.BOOK])
    now = after(was)
    anew = Sheet(now.xs, now.ys, now.cells, now.pool, now.press)
    assert now.shares == pytest.approx(anew.shares, rel=1e-9)
    assert now.thickness_mm == pytest.approx(anew.thickness_mm, rel=1e-9)
    assert now.fullest() is anew.fullest()


def test_a_trim_has_shares_of_its_own():
    was = margined(6, [Fold.LETTER])
    kept = trim(roll(was, 2), 20, 20).sheet
    anew = Sheet(kept.xs, kept.ys, kept.cells, kept.pool, kept.press)
    assert kept.shares == pytest.approx(anew.shares, rel=1e-9)
    assert kept.shares != pytest.approx(was.shares, rel=1e-3)
