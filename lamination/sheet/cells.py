"""The sheet, exactly: cells and stacks; roll, crease, trim, turn.

A sheet is a rectangle cut by x-lines and y-lines into cells; each cell holds a *stack* of leaves
from bottom to top (``stacks.py``). A fold makes few distinct stacks however many cells it has, so
cells are numbers into a short pool of stacks. The folds themselves are in ``folds.py``, what
is cut off and laid on again in ``trims.py``.
"""

from __future__ import annotations

import math
from bisect import bisect_left, bisect_right
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import pairwise

import numpy as np

from lamination.sheet.stacks import Key, Stack, flip, pile, scaled

# Plain tuples: a sheet seldom has more than fifty cells, and numpy takes longer to begin than they do.
Lines = tuple[float, ...]
Cells = tuple[tuple[int, ...], ...]

_LEADS = 0.1  # a share of the sheet so small does not speak for it
SAME_LINE = 1e-10  # two grid lines closer than this share of the sheet are one line


# Nothing changes a sheet once it is made; it is not marked as frozen for the reason that stacks are not.
@dataclass(eq=False)
class Sheet:
    """A sheet of dough and butter lying on the bench.

    ``xs`` (mm, along the next roll) and ``ys`` (mm, across) are the grid lines. ``cells[i][j]`` says what
    lies between lines i and i+1, j and j+1: twice the number of its stack in ``pool``, and one more in
    a strip where a closed edge bent its leaves. Every thickness in the pool is multiplied by
    ``press``, so that rolling is O(1). ``was``: the sheet this one was before it was rolled, turned or
    moved, with the same shares of everything.
    """

    xs: Lines
    ys: Lines
    cells: Cells
    pool: tuple[Stack, ...]
    press: float = 1.0
    was: Sheet | None = field(default=None, repr=False)

    @property
    def length_mm(self) -> float:
        return self.xs[-1] - self.xs[0]

    @property
    def width_mm(self) -> float:
        return self.ys[-1] - self.ys[0]

    @cached_property
    def areas_mm2(self) -> tuple[tuple[float, ...], ...]:
        """Area of every cell, mm², as ``cells`` are."""
        wide = [high - low for low, high in pairwise(self.ys)]
        return tuple(tuple((b - a) * w for w in wide) for a, b in pairwise(self.xs))

    def volume_mm3(self, of: Callable[[Stack], float] = lambda s: s.thickness) -> float:
        """Volume in mm³; pass ``lambda s: s.butter_mm`` for the butter alone."""
        each = zip(self.shares, self.pool, strict=True)
        mean = sum([share * of(stack) for share, stack in each])
        return mean * self.length_mm * self.width_mm * self.press

    @cached_property
    def thickness_mm(self) -> float:
        """Mean thickness over the area, mm."""
        if self.was:
            return self.was.thickness_mm * self.press / self.was.press
        return self.volume_mm3() / (self.length_mm * self.width_mm)

    def fullest(self) -> Stack:
        """The stack with the most butter leaves that the folds made; of several, the widest.

        Where trimmings were tucked in there are more, but only there: such places do not lead, unless
        they are nearly all the sheet.
        """
        return self._fullest

    @cached_property
    def _fullest(self) -> Stack:
        if self.was:
            return self.was.fullest()
        areas = self.shares
        plain = [n for n, s in enumerate(self.pool) if not s.tucked]
        if sum(areas[n] for n in plain) < _LEADS:
            plain = list(range(len(self.pool)))
            counts = self.coverage()
            most = max(counts, key=lambda c: counts[c])
            plain = [n for n in plain if self.pool[n].butter_leaves == most]
        best = max(plain, key=lambda n: (self.pool[n].butter_leaves, areas[n]))
        return self.pool[best]

    def coverage(self) -> dict[int, float]:
        """Share of the area (0 to 1) for every count of butter leaves that occurs."""
        shares: dict[int, float] = {}
        for stack, area in zip(self.pool, self.shares, strict=True):
            shares[stack.butter_leaves] = shares.get(stack.butter_leaves, 0.0) + area
        return shares

    def bent_share(self) -> float:
        """Share of the area (0 to 1) that lies in strips bent by a closed edge."""
        return sum(self.shares_of_cells[1::2])

    @cached_property
    def shares(self) -> list[float]:
        """The share of the area (0 to 1) that lies in each stack of the pool."""
        each = self.shares_of_cells
        return [flat + is_bent for flat, is_bent in zip(each[::2], each[1::2], strict=True)]

    @cached_property
    def shares_of_cells(self) -> list[float]:
        """The share of the area (0 to 1) for everything that a cell may say."""
        if self.was:
            return self.was.shares_of_cells
        shares = [0.0] * (2 * len(self.pool))
        whole = self.length_mm * self.width_mm
        for column, of_column in zip(self.cells, self.areas_mm2, strict=True):
            for cell, area in zip(column, of_column, strict=True):
                shares[cell] += area / whole
        return shares

    def extent_mm(self) -> tuple[float, float]:
        """The thinnest and the thickest place, mm."""
        thick = [s.thickness * self.press for s in self.pool]
        return min(thick), max(thick)

    def stack_at(self, x_mm: float, y_mm: float) -> Stack:
        """The stack at a place, from the sheet's own lines; the nearest one beyond its edges."""
        return self.pool[self._cell_at(x_mm, y_mm) >> 1]

    def bent_at(self, x_mm: float, y_mm: float) -> bool:
        """Whether a place lies in a strip bent by a closed edge."""
        return self._cell_at(x_mm, y_mm) & 1 > 0

    def _cell_at(self, x_mm: float, y_mm: float) -> int:
        i = min(max(bisect_left(self.xs, x_mm) - 1, 0), len(self.xs) - 2)
        j = min(max(bisect_left(self.ys, y_mm) - 1, 0), len(self.ys) - 2)
        return self.cells[i][j]


def alike(sheet: Sheet, kinds: Sequence[int]) -> tuple[Lines, Lines, Cells]:
    """The grid where all that a cell may say counts as its kind: lines, mm from the sheet's corner, and
    the kind in every cell. A line with the same on both its sides divides nothing and is left out.
    """
    cells = [[kinds[cell] for cell in column] for column in sheet.cells]
    along = [0, *(i for i in range(1, len(cells)) if cells[i] != cells[i - 1])]
    rows = list(zip(*cells, strict=True))
    across = [0, *(j for j in range(1, len(rows)) if rows[j] != rows[j - 1])]
    xs = tuple(sheet.xs[i] - sheet.xs[0] for i in (*along, -1))
    ys = tuple(sheet.ys[j] - sheet.ys[0] for j in (*across, -1))
    return xs, ys, tuple(tuple([cells[i][j] for j in across]) for i in along)


def plain_sheet(length_mm: float, width_mm: float, stack: Stack) -> Sheet:
    """A sheet of one cell, ``length_mm`` × ``width_mm``, everywhere ``stack``."""
    return Sheet((0.0, length_mm), (0.0, width_mm), ((0,),), (stack,))


def place(
    sheet: Sheet, stack: Stack, x_mm: float, y_mm: float, length_mm: float, width_mm: float
) -> Sheet:
    """Lay a rectangle of ``stack`` (mm before press) on the sheet with its corner at (x, y)."""
    xs, ys = (x_mm, x_mm + length_mm), (y_mm, y_mm + width_mm)
    block = Sheet(xs, ys, ((0,),), (stack,), sheet.press)
    return overlay(sheet, block)


def roll(sheet: Sheet, along: float, across: float = 1.0) -> Sheet:
    """Stretch the sheet ``along`` and ``across`` (factors); thickness falls so volume is kept.

    Raises ValueError unless both factors are finite and positive.
    """
    if not (math.isfinite(along) and math.isfinite(across) and along > 0 and across > 0):
        raise ValueError(f"a roll stretches by positive factors, not {along:g} and {across:g}")
    xs, ys = tuple([x * along for x in sheet.xs]), tuple([y * across for y in sheet.ys])
    press = sheet.press / (along * across)
    return Sheet(xs, ys, sheet.cells, sheet.pool, press, sheet.was or sheet)


_STRIPS = 8  # an uneven roll is drawn in so many strips


def uneven(sheet: Sheet, by: float) -> Sheet:
    """Press the sheet ``by`` (a share) thicker at its far side than in the mean, and thinner near.

    What leaves the thin side spreads across, so length, width and volume are kept: a strip that is
    f times as thick is 1/f times as wide. Taken in strips of even thickness. Raises ValueError
    unless ``by`` lies between -1 and 1.
    """
    if not -1 < by < 1:
        raise ValueError(f"a side cannot be {by:g} thicker than the mean")
    thick = 1 + by * (2 * (np.arange(_STRIPS) + 0.5) / _STRIPS - 1)
    thick *= (1 / thick).mean()
    old = sheet.ys[0] + sheet.width_mm * np.arange(_STRIPS + 1) / _STRIPS
    new = sheet.ys[0] + sheet.width_mm * np.concatenate(([0.0], np.cumsum(1 / thick))) / _STRIPS
    ys = _merged((*sheet.ys, *old.tolist()), sheet.width_mm)
    middles = _middles(ys)
    rows = list(zip(_columns(sheet.ys, middles), _columns(old.tolist(), middles), strict=True))
    codes = [[column[row] // 2 * _STRIPS + strip for row, strip in rows] for column in sheet.cells]
    number, order = _numbered(codes)
    cells = tuple(
        tuple(
            [2 * number[code] + column[row] % 2 for code, (row, _) in zip(line, rows, strict=True)]
        )
        for line, column in zip(codes, sheet.cells, strict=True)
    )
    return Sheet(
        sheet.xs,
        tuple(np.interp(ys, old, new).tolist()),
        cells,
        tuple(scaled(sheet.pool[c // _STRIPS], float(thick[c % _STRIPS])) for c in order),
        sheet.press,
    )


def turn(sheet: Sheet) -> Sheet:
    """Turn the sheet by a quarter: what was across now lies along the roll."""
    cells = tuple(zip(*sheet.cells, strict=True))
    return Sheet(sheet.ys, sheet.xs, cells, sheet.pool, sheet.press, sheet.was or sheet)


def crease(sheet: Sheet, at_mm: float, flap: str) -> Sheet:
    """Fold at x = ``at_mm``: the ``"low"`` or ``"high"`` side is mirrored and laid on the rest.

    Raises ValueError when the crease is not inside the sheet.
    """
    if not sheet.xs[0] < at_mm < sheet.xs[-1]:
        raise ValueError(f"the crease at {at_mm:g} mm is not inside the sheet")
    high = flap == "high"
    # the lines that stay, and those of the flap where they come to lie
    n = bisect_right(sheet.xs, at_mm) if high else bisect_left(sheet.xs, at_mm)
    stay, come = (sheet.xs[:n], sheet.xs[n:]) if high else (sheet.xs[n:], sheet.xs[:n])
    xs = _merged((*stay, *[2 * at_mm - x for x in come], at_mm), sheet.length_mm)
    # Column by column: what lies there already, and which column comes over it; -1 where none does.
    middles = _middles(xs)
    over = _columns(sheet.xs, [2 * at_mm - x for x in middles])
    under = _columns(sheet.xs, middles)
    # Cell by cell: what lies there already, and what comes over it.
    none = (_NOTHING,) * len(sheet.cells[0])
    columns = [*sheet.cells, none]
    laid = [
        list(zip(columns[i], columns[j], strict=True)) for i, j in zip(under, over, strict=True)
    ]
    lies, pool = _piled(sheet.pool, sheet.pool, set().union(*laid), turned=True)
    found = [tuple([lies[both] for both in column]) for column in laid]
    # A closed edge bends its leaves in a strip half as wide as the fold is thick.
    wide = max([s.butter_mm + s.dough_mm for s in pool]) * sheet.press / 2
    bend = at_mm - wide if high else at_mm + wide
    least = SAME_LINE * sheet.length_mm
    k = bisect_left(xs, bend)
    if k and bend - xs[k - 1] <= least:
        k -= 1
    elif 0 < k < len(xs) and xs[k] - bend > least:
        xs = (*xs[:k], bend, *xs[k:])
        found.insert(k, found[k - 1])
    for i in range(k, len(found)) if high else range(min(k, len(found))):
        found[i] = tuple([cell | 1 for cell in found[i]])
    # a line along x with the same on both its sides divides nothing
    kept = [0, *[i for i in range(1, len(found)) if found[i] != found[i - 1]]]
    lines = (*[xs[i] for i in kept], xs[-1])
    return Sheet(lines, sheet.ys, tuple([found[i] for i in kept]), tuple(pool), sheet.press)


_NOTHING = -2  # what a cell says where nothing lies


def _piled(
    below: Sequence[Stack], above: Sequence[Stack], pairs: Iterable[tuple[int, int]], turned: bool
) -> tuple[dict[tuple[int, int], int], list[Stack]]:
    """What a cell says where one lay on another, by what the two said; and the pool that it speaks of.

    What is the same leaf by leaf is one stack, however it came to lie there.
    """
    pool: list[Stack] = []
    known: dict[tuple[Key, bool], int] = {}
    made: dict[tuple[int, int], int] = {}
    lies: dict[tuple[int, int], int] = {}
    for both in pairs:
        low, high = both
        under, over = of = low >> 1, high >> 1
        n = made.get(of)
        if n is None:
            if under >= 0 <= over:
                stack = pile(below[under], above[over], turned)
            elif under >= 0:
                stack = below[under]
            elif over >= 0:
                stack = flip(above[over]) if turned else above[over]
            else:
                raise ValueError("the two pieces leave a hole between them")
            n = made[of] = known.setdefault((stack.key, stack.tucked), len(pool))
            if n == len(pool):
                pool.append(stack)
        lies[both] = 2 * n + ((low | high) & 1)
    return lies, pool


def _middles(lines: Sequence[float]) -> list[float]:
    return [(a + b) / 2 for a, b in pairwise(lines)]


def _columns(lines: Sequence[float], places: Sequence[float]) -> list[int]:
    """The column of ``lines`` in which each of some places lies; -1 beyond them."""
    beyond = len(lines) - 1
    found = [bisect_left(lines, place) - 1 for place in places]
    return [n if n < beyond else -1 for n in found]


def _numbered(codes: Sequence[Sequence[int]]) -> tuple[dict[int, int], list[int]]:
    """The number of each code, in order, and what each number stands for."""
    order = sorted(set().union(*codes))
    return {code: n for n, code in enumerate(order)}, order


def mirrored(sheet: Sheet, at_mm: float) -> Sheet:
    """The sheet mirrored at x = ``at_mm``, its stacks as they were."""
    xs = tuple(2 * at_mm - x for x in reversed(sheet.xs))
    return Sheet(xs, sheet.ys, sheet.cells[::-1], sheet.pool, sheet.press, sheet.was or sheet)


def moved(sheet: Sheet, by_mm: float) -> Sheet:
    """The sheet moved along x, mm."""
    xs = tuple([x + by_mm for x in sheet.xs])
    return Sheet(xs, sheet.ys, sheet.cells, sheet.pool, sheet.press, sheet.was or sheet)


def origin(sheet: Sheet) -> Sheet:
    """The sheet moved so that its corner lies at (0, 0)."""
    x0, y0 = sheet.xs[0], sheet.ys[0]
    xs, ys = tuple([x - x0 for x in sheet.xs]), tuple([y - y0 for y in sheet.ys])
    return Sheet(xs, ys, sheet.cells, sheet.pool, sheet.press, sheet.was or sheet)


def between(sheet: Sheet, low: float, high: float) -> Sheet:
    """The part of the sheet from x = ``low`` to ``high``, where it lies."""
    inner = (x for x in sheet.xs if low < x < high)
    xs = _merged((max(low, sheet.xs[0]), *inner, min(high, sheet.xs[-1])), sheet.length_mm)
    cells = tuple(sheet.cells[i] for i in _columns(sheet.xs, _middles(xs)))
    return Sheet(xs, sheet.ys, cells, sheet.pool, sheet.press)


def _merged(lines: Iterable[float], length: float) -> Lines:
    ordered = sorted(lines)
    least = SAME_LINE * length
    return (ordered[0], *[b for a, b in pairwise(ordered) if b - a > least])


def overlay(below: Sheet, above: Sheet) -> Sheet:
    """Lay one sheet on another where both already are; they share one press."""
    xs = _merged((*below.xs, *above.xs), max(below.length_mm, above.length_mm))
    ys = _merged((*below.ys, *above.ys), max(below.width_mm, above.width_mm))

    along, across = _middles(xs), _middles(ys)
    rows = list(zip(_columns(below.ys, across), _columns(above.ys, across), strict=True))
    of_below, of_above = (
        [*[[*column, _NOTHING] for column in s.cells], [_NOTHING] * len(s.ys)]
        for s in (below, above)
    )
    laid = [
        [(of_below[i][m], of_above[j][n]) for m, n in rows]
        for i, j in zip(_columns(below.xs, along), _columns(above.xs, along), strict=True)
    ]
    lies, pool = _piled(below.pool, above.pool, set().union(*laid), turned=False)
    cells = tuple([tuple([lies[both] for both in column]) for column in laid])
    return Sheet(xs, ys, cells, tuple(pool), below.press)
