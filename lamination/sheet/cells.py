"""The sheet, exactly: cells and stacks; roll, crease, trim, turn.

A sheet is a rectangle cut by x-lines and y-lines into cells; each cell holds a *stack* of leaves
from bottom to top (``stacks.py``). A fold makes few distinct stacks however many cells it has, so
cells are numbers into a short pool of stacks. The folds themselves are in ``folds.py``.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from lamination.sheet.stacks import Stack, bent, flip, pile, scaled
from lamination.sheet.stacks import tucked as tuck

Lines = NDArray[np.float64]
Cells = NDArray[np.intp]

_LEADS = 0.1  # a share of the sheet so small does not speak for it
_SAME_LINE = 1e-10  # two grid lines closer than this share of the sheet are one line


@dataclass(frozen=True, eq=False)
class Sheet:
    """A sheet of dough and butter lying on the bench.

    ``xs`` (mm, along the next roll) and ``ys`` (mm, across) are the grid lines, ``cells[i, j]``
    the number in ``pool`` of the stack between lines i and i+1, j and j+1. Every thickness in the
    pool is multiplied by ``press``, so that rolling is O(1).
    """

    xs: Lines
    ys: Lines
    cells: Cells
    pool: tuple[Stack, ...]
    press: float = 1.0

    @property
    def length_mm(self) -> float:
        return float(self.xs[-1] - self.xs[0])

    @property
    def width_mm(self) -> float:
        return float(self.ys[-1] - self.ys[0])

    @cached_property
    def areas_mm2(self) -> Lines:
        """Area of every cell, mm², the shape of ``cells``."""
        return np.outer(self.xs[1:] - self.xs[:-1], self.ys[1:] - self.ys[:-1])

    def volume_mm3(self, of: Callable[[Stack], float] = lambda s: s.thickness) -> float:
        """Volume in mm³; pass ``lambda s: s.butter_mm`` for the butter alone."""
        return float(self._pool_areas @ np.array([of(s) for s in self.pool])) * self.press

    @cached_property
    def thickness_mm(self) -> float:
        """Mean thickness over the area, mm."""
        return self.volume_mm3() / (self.length_mm * self.width_mm)

    def fullest(self) -> Stack:
        """The stack with the most butter leaves that the folds made; of several, the widest.

        Where trimmings were tucked in there are more, but only there: such places do not lead, unless
        they are nearly all the sheet.
        """
        return self._fullest

    @cached_property
    def _fullest(self) -> Stack:
        areas = self._pool_areas
        plain = [n for n, s in enumerate(self.pool) if not s.tucked]
        if sum(areas[n] for n in plain) < _LEADS * areas.sum():
            plain = list(range(len(self.pool)))
            counts = self.coverage()
            most = max(counts, key=lambda c: counts[c])
            plain = [n for n in plain if self.pool[n].butter_leaves == most]
        best = max(plain, key=lambda n: (self.pool[n].butter_leaves, areas[n]))
        return self.pool[best]

    def more_share(self) -> float:
        """Share of the area (0 to 1) that has more butter leaves than :meth:`fullest`: tucked in."""
        full = self.fullest().butter_leaves
        return sum(share for count, share in self.coverage().items() if count > full)

    def coverage(self) -> dict[int, float]:
        """Share of the area (0 to 1) for every count of butter leaves that occurs."""
        shares: dict[int, float] = {}
        for stack, area in zip(self.pool, self._pool_shares(), strict=True):
            shares[stack.butter_leaves] = shares.get(stack.butter_leaves, 0.0) + float(area)
        return shares

    def bent_share(self) -> float:
        """Share of the area (0 to 1) that lies in strips bent by a closed edge."""
        bent = np.array([s.bent for s in self.pool], dtype=float)
        return float((self._pool_shares() * bent).sum())

    @cached_property
    def _pool_areas(self) -> Lines:
        areas = np.bincount(self.cells.ravel(), self.areas_mm2.ravel(), len(self.pool))
        return areas.astype(float)

    def _pool_shares(self) -> Lines:
        shares: Lines = self._pool_areas / self._pool_areas.sum()
        return shares

    def extent_mm(self) -> tuple[float, float]:
        """The thinnest and the thickest place, mm."""
        thick = [s.thickness * self.press for s in self.pool]
        return min(thick), max(thick)

    def stack_at(self, x_mm: float, y_mm: float) -> Stack:
        """The stack at a place, from the sheet's own lines; the nearest one beyond its edges."""
        i = int(np.clip(np.searchsorted(self.xs, x_mm) - 1, 0, len(self.xs) - 2))
        j = int(np.clip(np.searchsorted(self.ys, y_mm) - 1, 0, len(self.ys) - 2))
        return self.pool[int(self.cells[i, j])]


def plain_sheet(length_mm: float, width_mm: float, stack: Stack) -> Sheet:
    """A sheet of one cell, ``length_mm`` × ``width_mm``, everywhere ``stack``."""
    return Sheet(
        np.array([0.0, length_mm]),
        np.array([0.0, width_mm]),
        np.zeros((1, 1), dtype=np.intp),
        (stack,),
    )


def place(
    sheet: Sheet, stack: Stack, x_mm: float, y_mm: float, length_mm: float, width_mm: float
) -> Sheet:
    """Lay a rectangle of ``stack`` (mm before press) on the sheet with its corner at (x, y)."""
    block = replace(
        plain_sheet(length_mm, width_mm, stack),
        xs=np.array([x_mm, x_mm + length_mm]),
        ys=np.array([y_mm, y_mm + width_mm]),
        press=sheet.press,
    )
    return _overlay(sheet, block)


def roll(sheet: Sheet, along: float, across: float = 1.0) -> Sheet:
    """Stretch the sheet ``along`` and ``across`` (factors); thickness falls so volume is kept.

    Raises ValueError unless both factors are finite and positive.
    """
    if not (math.isfinite(along) and math.isfinite(across) and along > 0 and across > 0):
        raise ValueError(f"a roll stretches by positive factors, not {along:g} and {across:g}")
    return Sheet(
        sheet.xs * along, sheet.ys * across, sheet.cells, sheet.pool, sheet.press / (along * across)
    )


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
    ys = _merged(np.concatenate((sheet.ys, old)), sheet.width_mm)
    cells = _sample(sheet.ys, ys, sheet.cells.T).T
    strip = np.clip(np.searchsorted(old, (ys[1:] + ys[:-1]) / 2) - 1, 0, _STRIPS - 1)
    codes, cells = np.unique(cells * _STRIPS + strip, return_inverse=True)
    return replace(
        sheet,
        ys=np.interp(ys, old, new),
        cells=cells.reshape(len(sheet.xs) - 1, len(ys) - 1),
        pool=tuple(scaled(sheet.pool[c // _STRIPS], float(thick[c % _STRIPS])) for c in codes),
    )


def turn(sheet: Sheet) -> Sheet:
    """Turn the sheet by a quarter: what was across now lies along the roll."""
    return Sheet(sheet.ys, sheet.xs, sheet.cells.T, sheet.pool, sheet.press)


def crease(sheet: Sheet, at_mm: float, flap: str) -> Sheet:
    """Fold at x = ``at_mm``: the ``"low"`` or ``"high"`` side is mirrored and laid on the rest.

    Raises ValueError when the crease is not inside the sheet.
    """
    if not sheet.xs[0] < at_mm < sheet.xs[-1]:
        raise ValueError(f"the crease at {at_mm:g} mm is not inside the sheet")
    # Column by column: what lies there already, and which column comes over it; -1 where none does.
    turned = 2 * at_mm - sheet.xs  # every line where it is after the fold
    high = flap == "high"
    edges = (sheet.xs <= at_mm, turned < at_mm) if high else (sheet.xs >= at_mm, turned > at_mm)
    reach = np.concatenate((sheet.xs[edges[0]], turned[edges[1]], [at_mm]))
    xs = _merged(reach, sheet.length_mm)
    rest, over = _column(sheet.xs, xs), _column(sheet.xs, 2 * at_mm - xs)
    # A closed edge bends its leaves in a strip half as wide as the fold is thick.
    thick = np.array([s.thickness for s in sheet.pool])[sheet.cells]
    bare = np.zeros((1, thick.shape[1]))
    thick = np.concatenate((thick, bare))  # the last row stands for no column: -1
    wide = float((thick[rest] + thick[over]).max()) * sheet.press / 2
    bend = at_mm - wide if high else at_mm + wide
    if xs[0] < bend < xs[-1]:
        xs = _merged(np.append(xs, bend), sheet.length_mm)
        rest, over = _column(sheet.xs, xs), _column(sheet.xs, 2 * at_mm - xs)
    middles = (xs[:-1] + xs[1:]) / 2
    strip = middles > bend if high else middles < bend
    cells = np.concatenate((sheet.cells, np.full((1, thick.shape[1]), -1, dtype=np.intp)))
    a, b = cells[rest], cells[over]
    n = len(sheet.pool) + 1
    codes, numbers = np.unique(((a + 1) * n + b + 1) * 2 + strip[:, None], return_inverse=True)
    laid: dict[int, Stack] = {}
    pool = []
    for code in codes.tolist():
        pair, is_bent = divmod(code, 2)
        stack = laid.get(pair)
        if stack is None:
            under, upper = pair // n - 1, pair % n - 1
            above = flip(sheet.pool[upper]) if upper >= 0 else None
            stack = sheet.pool[under] if under >= 0 else above
            assert stack is not None  # every column has what lay there, or what came over
            if under >= 0 and above is not None:
                stack = pile(stack, above)
            laid[pair] = stack
        pool.append(bent(stack) if is_bent else stack)
    return Sheet(xs, sheet.ys, numbers.reshape(a.shape), tuple(pool), sheet.press)


def _column(lines: Lines, at: Lines) -> Cells:
    """The column of ``lines`` in which each middle between neighbours of ``at`` lies; -1 beyond them."""
    index = np.searchsorted(lines, (at[:-1] + at[1:]) / 2) - 1
    index[index > len(lines) - 2] = -1
    index[index < 0] = -1
    found: Cells = index
    return found


def mirrored(sheet: Sheet, at_mm: float) -> Sheet:
    """The sheet mirrored at x = ``at_mm``, its stacks as they were."""
    return replace(sheet, xs=(2 * at_mm - sheet.xs)[::-1], cells=sheet.cells[::-1])


def origin(sheet: Sheet) -> Sheet:
    """The sheet moved so that its corner lies at (0, 0)."""
    xs, ys = sheet.xs - sheet.xs[0], sheet.ys - sheet.ys[0]
    return Sheet(xs, ys, sheet.cells, sheet.pool, sheet.press)


def stack_panels(sheet: Sheet, panels: int) -> Sheet:
    """Cut the sheet in ``panels`` along x and lay the pieces on each other, unmirrored."""
    start, panel = float(sheet.xs[0]), sheet.length_mm / panels
    cut = [between(sheet, start + i * panel, start + (i + 1) * panel) for i in range(panels)]
    laid = cut[0]
    for i, piece in enumerate(cut[1:], 1):
        laid = _overlay(laid, replace(piece, xs=piece.xs - i * panel))
    return laid


def lay_ends_on(sheet: Sheet, end_mm: float, mark: bool = False) -> Sheet:
    """Cut ``end_mm`` off both ends of x and lay them on the rest, end beside end, unmirrored.

    ``mark``: where they lie counts as tucked in. Raises ValueError when they are longer than the rest.
    """
    if 4 * end_mm > sheet.length_mm * (1 + _SAME_LINE):
        raise ValueError("what was cut off is longer than what is left")
    if end_mm <= sheet.length_mm * _SAME_LINE:
        return sheet  # thinner than a line: there is nothing to lay anywhere
    low, high = float(sheet.xs[0]), float(sheet.xs[-1])
    middle = (low + high) / 2
    kept = between(sheet, low + end_mm, high - end_mm)
    near, far = between(sheet, low, low + end_mm), between(sheet, high - end_mm, high)
    if mark:
        near, far = (replace(s, pool=tuple(tuck(x) for x in s.pool)) for s in (near, far))
    kept = _overlay(kept, replace(near, xs=near.xs - low + middle - end_mm))
    return _overlay(kept, replace(far, xs=far.xs - (high - end_mm) + middle))


@dataclass(frozen=True, slots=True)
class Trimmed:
    """A sheet squared off, and what was cut away, mm³ of each material."""

    sheet: Sheet
    dough_mm3: float
    butter_mm3: float


def trim(sheet: Sheet, ends_mm: float, sides_mm: float, tucked: bool = False) -> Trimmed:
    """Cut ``ends_mm`` off both ends of x and ``sides_mm`` off both sides of y.

    ``tucked``: the two strips from the sides are laid side by side along the middle of the sheet,
    then the two from the ends across it, where the fold shuts them in. The corner of what remains
    is the origin. Raises ValueError when nothing would be left.
    """
    if sheet.length_mm <= 2 * ends_mm or sheet.width_mm <= 2 * sides_mm:
        raise ValueError("nothing would be left of the sheet")
    kept = turn(_ends_off(turn(sheet), sides_mm, tucked))
    kept = _ends_off(kept, ends_mm, tucked)
    lost = [
        sheet.volume_mm3(of) - kept.volume_mm3(of)
        for of in (lambda s: s.dough_mm, lambda s: s.butter_mm)
    ]
    return Trimmed(origin(kept), *lost)


def _ends_off(sheet: Sheet, end_mm: float, tucked: bool) -> Sheet:
    if not end_mm:
        return sheet
    if tucked:
        return lay_ends_on(sheet, end_mm, mark=True)
    return between(sheet, float(sheet.xs[0]) + end_mm, float(sheet.xs[-1]) - end_mm)


def between(sheet: Sheet, low: float, high: float) -> Sheet:
    """The part of the sheet from x = ``low`` to ``high``, where it lies."""
    inner = sheet.xs[(sheet.xs > low) & (sheet.xs < high)]
    xs = np.concatenate(([max(low, sheet.xs[0])], inner, [min(high, sheet.xs[-1])]))
    xs = _merged(xs, sheet.length_mm)
    return replace(sheet, xs=xs, cells=_sample(sheet.xs, xs, sheet.cells))


def _merged(lines: Lines, length: float) -> Lines:
    ordered = np.sort(lines)
    keep = np.ones(len(ordered), dtype=bool)
    keep[1:] = ordered[1:] - ordered[:-1] > _SAME_LINE * length
    return ordered[keep]


def _sample(old: Lines, new: Lines, cells: Cells, empty: int | None = None) -> Cells:
    """``cells`` along axis 0, read at the middles of ``new``; ``empty`` where there are none."""
    middles = (new[:-1] + new[1:]) / 2
    index = np.searchsorted(old, middles) - 1
    out = cells[np.minimum(np.maximum(index, 0), len(old) - 2)]
    if empty is not None:
        out[(index < 0) | (index > len(old) - 2)] = empty
    return out


def _overlay(below: Sheet, above: Sheet) -> Sheet:
    """Lay one sheet on another where both already are; they share one press."""
    length = max(below.length_mm, above.length_mm)
    width = max(below.width_mm, above.width_mm)
    xs = _merged(np.concatenate((below.xs, above.xs)), length)
    ys = _merged(np.concatenate((below.ys, above.ys)), width)

    def spread(s: Sheet) -> Cells:
        along = _sample(s.xs, xs, s.cells, empty=-1)
        return _sample(s.ys, ys, along.T, empty=-1).T

    a, b = spread(below), spread(above)
    code = a * (len(above.pool) + 1) + b  # unique for every pair, -1 included
    _, first, cells = np.unique(code, return_index=True, return_inverse=True)
    pool = []
    for at in first:
        i, j = int(a.flat[at]), int(b.flat[at])
        if j < 0:
            if i < 0:
                raise ValueError("the two pieces leave a hole between them")
            pool.append(below.pool[i])
            continue
        top = above.pool[j]
        pool.append(top if i < 0 else pile(below.pool[i], top))
    return Sheet(xs, ys, cells.reshape(a.shape), tuple(pool), below.press)
