"""The cell model against a plain raster of the same folds, made here from nothing but arrays.

The raster cuts the sheet into small squares, each with its own list of leaves, and folds by
flipping and stacking arrays. It knows nothing of grid lines, pools or summaries.
"""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.sheet.cells import place, plain_sheet, turn
from lamination.sheet.folds import fold_sheet
from lamination.sheet.stacks import Material, leaf
from lamination.sheet.trims import trim
from lamination.terms.trade import Fold

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

    def crease(self, at, flap):
        """Fold at line ``at``: the near (low) or far (high) side comes over onto the rest."""
        low, high = self.stacks[:at], self.stacks[at:]
        rest, moved = (
            (high, self.over(low)) if flap == "low" else (low[::-1], self.over(high)[::-1])
        )
        out = []
        for n in range(max(len(rest), len(moved))):
            rows = [part[n] for part in (rest, moved) if n < len(part)]
            out.append([fuse(sum(stacks, ())) for stacks in zip(*rows, strict=True)])
        return Raster(out if flap == "low" else out[::-1])

    def fold(self, fold, stacked, seam, short):
        """The fold by creases; None where a crease does not fall between two squares."""
        n = len(self.stacks)
        shares = {
            Fold.HALF: [(n / 2, "high")],
            Fold.LETTER: [(2 * n / 3, "high"), (n / 3, "low")],
            Fold.BOOK: [(3 * n / 4, "high"), (n / 4, "low"), (None, "high")],
            Fold.OFFSET_BOOK: [(n * (1 + seam) / 2, "high"), (n * seam / 2, "low"), (None, "high")],
        }[fold]
        if stacked:
            k, rest = divmod(n, fold.multiplies)
            parts = [self.stacks[i * k : (i + 1) * k] for i in range(fold.multiplies)]
            return None if rest else self.laid(parts)
        done, gone = self, 0
        for at, flap in shares:
            line = (len(done.stacks) / 2 if at is None else at - gone) + (
                short / 2 if flap == "high" else -short / 2
            )
            if abs(line - round(line)) > 1e-9 or not 0 < round(line) < len(done.stacks):
                return None
            done = done.crease(round(line), flap)
            gone += round(line) if flap == "low" else 0
        return done

    def trimmed(self, ends, sides):
        kept = self.stacks[ends : len(self.stacks) - ends]
        return Raster([row[sides : len(row) - sides] for row in kept])

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


turns = st.tuples(
    st.sampled_from(list(Fold)),
    st.booleans(),
    st.sampled_from([1 / 3, 1 / 2, 2 / 3]),
    st.sampled_from([0, 0, 2, 4]),
    st.sampled_from([(0, 0), (0, 0), (1, 0), (2, 1)]),
)


@settings(max_examples=33, deadline=None)
@given(edges, edges, st.lists(turns, min_size=1, max_size=3))
def test_the_cells_agree_with_a_raster_of_the_same_folds_trims_and_faults(along, across, steps):
    raster, sheet = Raster.buttered(*along, *across), modelled(*along, *across)
    for fold, stacked, seam, short, (ends, sides) in steps:
        if len(raster.stacks) < 2 * ends + 12 or len(raster.stacks[0]) < 2 * sides + 6:
            break
        cut = raster.trimmed(ends, sides)
        folded = cut.fold(fold, stacked, seam, short)
        if folded is None:  # the raster's squares do not divide so; the model has no such limit
            break
        raster = folded.turned()
        done = trim(sheet, ends, sides)
        sheet = turn(fold_sheet(done.sheet, fold, stacked, seam, short))
    assert sheet.coverage() == pytest.approx(raster.coverage())
    most = max(stack.count(B) for row in raster.stacks for stack in row)
    assert sheet.fullest().butter_leaves == most
    assert sheet.fullest().dough_leaves in {
        s.count(D) for row in raster.stacks for s in row if s.count(B) == most
    }


def test_the_raster_itself_counts_a_plain_letter_right():
    raster = Raster.buttered(0, SIDE, 0, SIDE).fold(Fold.LETTER, False, 0.5, 0)
    assert raster.stacks[0][0] == (D, B, D, B, D, B, D)
    assert raster.coverage() == {3: 1.0}
