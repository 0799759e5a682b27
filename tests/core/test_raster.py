"""The cell model against a plain raster of the same folds, made here from nothing but arrays.

The raster cuts the sheet into small squares, each with its own list of leaves, and folds by
flipping and stacking arrays. It knows nothing of grid lines, pools or summaries.
"""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.laminate import Fold, Material, fold_sheet, leaf, place, plain_sheet, turn

D, B = "dough", "butter"
SIDE = 48  # squares along each side: divides by 2, 3 and 4, twice


def fuse(leaves):
    out = []
    for one in leaves:
        if not out or out[-1] != one:
            out.append(one)
    return tuple(out)


class Raster:
    """A grid of stacks, ``stacks[x][y]`` a tuple of materials from bottom to top."""

    def __init__(self, stacks):
        self.stacks = stacks

    @classmethod
    def buttered(cls, x0, x1, y0, y1):
        """A dough sheet with butter on part of it and dough over everything."""
        return cls(
            [
                [(D, B, D) if x0 <= x < x1 and y0 <= y < y1 else (D,) for y in range(SIDE)]
                for x in range(SIDE)
            ]
        )

    def turned(self):
        return Raster([list(row) for row in zip(*self.stacks, strict=True)])

    def half(self):
        n = len(self.stacks) // 2
        return self.laid([self.stacks[:n], self.over(self.stacks[n:])])

    def letter(self):
        n = len(self.stacks) // 3
        near, middle, far = self.stacks[:n], self.stacks[n : 2 * n], self.stacks[2 * n :]
        return self.laid([middle, self.over(far), self.over(near)])

    def book(self):
        n = len(self.stacks) // 4
        a, b, c, d = (self.stacks[i * n : (i + 1) * n] for i in range(4))
        left = self.laid([b, self.over(a)]).stacks
        right = self.laid([c, self.over(d)]).stacks
        return self.laid([left, self.over(right)])

    @staticmethod
    def over(part):
        """A part turned over: mirrored along x, each stack upside down."""
        return [[stack[::-1] for stack in row] for row in part[::-1]]

    @staticmethod
    def laid(parts):
        return Raster(
            [
                [fuse(sum(stacks, ())) for stacks in zip(*rows, strict=True)]
                for rows in zip(*parts, strict=True)
            ]
        )

    def coverage(self):
        counts = np.array([[s.count(B) for s in row] for row in self.stacks])
        values, times = np.unique(counts, return_counts=True)
        return dict(zip(values.tolist(), (times / counts.size).tolist(), strict=True))


def modelled(x0, x1, y0, y1):
    sheet = plain_sheet(SIDE, SIDE, leaf(Material.DOUGH, 1))
    sheet = place(sheet, leaf(Material.BUTTER, 1), x0, y0, x1 - x0, y1 - y0)
    return place(sheet, leaf(Material.DOUGH, 1), 0, 0, SIDE, SIDE)


edges = (
    st.tuples(st.integers(0, SIDE), st.integers(0, SIDE))
    .map(sorted)
    .filter(lambda pair: pair[0] < pair[1])
)


@given(edges, edges, st.lists(st.sampled_from(list(Fold)), min_size=1, max_size=3))
def test_the_cells_agree_with_a_raster_of_the_same_folds(along, across, folds):
    raster, sheet = Raster.buttered(*along, *across), modelled(*along, *across)
    for fold in folds:
        if len(raster.stacks) % fold.multiplies:
            return  # the raster's squares do not divide so; the model has no such limit
        raster = getattr(raster, fold.value)().turned()
        sheet = turn(fold_sheet(sheet, fold))
    assert sheet.coverage() == pytest.approx(raster.coverage())
    most = max(stack.count(B) for row in raster.stacks for stack in row)
    assert sheet.fullest().butter_leaves == most
    assert sheet.fullest().dough_leaves in {
        s.count(D) for row in raster.stacks for s in row if s.count(B) == most
    }


def test_the_raster_itself_counts_a_plain_letter_right():
    raster = Raster.buttered(0, SIDE, 0, SIDE).letter()
    assert raster.stacks[0][0] == (D, B, D, B, D, B, D)
    assert raster.coverage() == {3: 1.0}
