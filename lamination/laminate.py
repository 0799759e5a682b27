"""The sheet, exactly: cells and stacks; roll, fold, turn.

A sheet is a rectangle cut by x-lines and y-lines into cells; each cell holds a *stack* of leaves
from bottom to top. Where a fold lays a leaf on another of the same material, the two fuse.

A six-letter puff has 1 459 leaves and twelve book folds would have tens of millions, so a stack
never lists its leaves: it is built from two smaller stacks (or one, turned over) and keeps a
summary that combines in O(1). The leaves are walked only where they are drawn. A fold makes few
distinct stacks however many cells it has, so cells are numbers into a short pool of stacks.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

Lines = NDArray[np.float64]
Cells = NDArray[np.intp]

_SAME_LINE = 1e-10  # two grid lines closer than this share of the sheet are one line


class Material(StrEnum):
    """What a leaf is made of."""

    DOUGH = "dough"
    BUTTER = "butter"


class Fold(StrEnum):
    """The folds, by the names of the trade."""

    HALF = "half"
    LETTER = "letter"
    BOOK = "book"
    OFFSET_BOOK = "offset_book"

    @property
    def multiplies(self) -> int:
        """By how much the fold multiplies the leaves if nothing fused."""
        return {Fold.HALF: 2, Fold.LETTER: 3, Fold.BOOK: 4, Fold.OFFSET_BOOK: 4}[self]


@dataclass(frozen=True, slots=True)
class Leaf:
    """One layer of one material, ``thickness`` in mm (before the sheet's ``press``)."""

    material: Material
    thickness: float


@dataclass(frozen=True, slots=True)
class Extent:
    """The thinnest and the thickest of some leaves, mm; ``(inf, 0)`` when there are none."""

    low: float = math.inf
    high: float = 0.0

    def also(self, *thicknesses: float) -> Extent:
        """The extent with more leaves counted in."""
        return Extent(min(self.low, *thicknesses), max(self.high, *thicknesses))

    def joined(self, other: Extent) -> Extent:
        """The extent of both."""
        if other.high <= self.high and other.low >= self.low:
            return self
        return Extent(min(self.low, other.low), max(self.high, other.high))


_NONE = Extent()


@dataclass(frozen=True, slots=True, eq=False)
class Stack:
    """Leaves from ``bottom`` to ``top``: a summary, and how to walk them.

    ``inner_butter`` and ``inner_dough`` are extents of the leaves strictly inside: the two end
    leaves stay out of them, because the next fold may still fuse an end with its neighbour.
    ``bent``: it lies in a strip where a closed edge bent its leaves.
    """

    butter_leaves: int
    dough_leaves: int
    butter_mm: float
    dough_mm: float
    bottom: Leaf
    top: Leaf
    inner_butter: Extent = _NONE
    inner_dough: Extent = _NONE
    bent: bool = False
    # Written out, a few folds would fill a library.
    parts: tuple[Stack, Stack] | None = field(default=None, repr=False)
    flipped: Stack | None = field(default=None, repr=False)

    @property
    def leaves(self) -> int:
        return self.butter_leaves + self.dough_leaves

    @property
    def thickness(self) -> float:
        return self.butter_mm + self.dough_mm

    def extent(self, material: Material) -> Extent:
        """Thinnest and thickest leaf of ``material``, both ends included, mm before press."""
        inner = self.inner_butter if material is Material.BUTTER else self.inner_dough
        ends = [e.thickness for e in (self.bottom, self.top) if e.material is material]
        return inner.also(*ends) if ends else inner


def leaf(material: Material, thickness: float) -> Stack:
    """A stack of one leaf of ``thickness`` mm."""
    one = Leaf(material, thickness)
    butter = material is Material.BUTTER
    return Stack(
        int(butter),
        int(not butter),
        thickness if butter else 0.0,
        0.0 if butter else thickness,
        one,
        one,
    )


def flip(stack: Stack) -> Stack:
    """The stack turned over."""
    if stack.leaves == 1:
        return stack
    if stack.flipped is not None:
        return stack.flipped
    return _like(stack, stack.top, stack.bottom, stack.bent, None, stack)


def _bent(stack: Stack) -> Stack:
    """The stack marked as bent."""
    if stack.bent:
        return stack
    return _like(stack, stack.bottom, stack.top, True, stack.parts, stack.flipped)


def _like(
    stack: Stack,
    bottom: Leaf,
    top: Leaf,
    bent: bool,
    parts: tuple[Stack, Stack] | None,
    flipped: Stack | None,
) -> Stack:
    # Said out in full: a fold makes hundreds of these, and dataclasses.replace takes its time.
    return Stack(
        stack.butter_leaves,
        stack.dough_leaves,
        stack.butter_mm,
        stack.dough_mm,
        bottom,
        top,
        stack.inner_butter,
        stack.inner_dough,
        bent,
        parts,
        flipped,
    )


def pile(below: Stack, above: Stack) -> Stack:
    """``above`` laid on ``below``; where equal materials meet they fuse into one leaf. O(1)."""
    fuses = below.top.material is above.bottom.material
    meeting = [below.top, above.bottom]
    if fuses:
        meeting = [Leaf(below.top.material, below.top.thickness + above.bottom.thickness)]
    bottom, top = below.bottom, above.top
    if below.leaves == 1:
        bottom = meeting.pop(0)
        if not meeting and above.leaves == 1:
            top = bottom
    if meeting and above.leaves == 1:
        top = meeting.pop()
    inside: dict[Material, Extent] = {
        Material.BUTTER: below.inner_butter.joined(above.inner_butter),
        Material.DOUGH: below.inner_dough.joined(above.inner_dough),
    }
    for met in meeting:
        inside[met.material] = inside[met.material].also(met.thickness)
    fused_butter = int(fuses and below.top.material is Material.BUTTER)
    return Stack(
        below.butter_leaves + above.butter_leaves - fused_butter,
        below.dough_leaves + above.dough_leaves - (int(fuses) - fused_butter),
        below.butter_mm + above.butter_mm,
        below.dough_mm + above.dough_mm,
        bottom,
        top,
        inside[Material.BUTTER],
        inside[Material.DOUGH],
        below.bent or above.bent,
        (below, above),
    )


def walk(stack: Stack, low: float = -math.inf, high: float = math.inf) -> Iterator[Leaf]:
    """The leaves that reach into heights ``low`` to ``high`` (mm before press), bottom to top.

    Skips whole sub-stacks outside the window, so a narrow window of a huge stack is cheap.
    Neighbours of one material come out fused.
    """
    pending: Leaf | None = None
    todo: list[tuple[Stack, bool, float]] = [(stack, False, 0.0)]
    while todo:
        node, over, at = todo.pop()
        if at >= high or at + node.thickness <= low:
            # A leaf cut off by the window's edge must not fuse with one beyond it.
            if pending is not None:
                yield pending
                pending = None
            continue
        if node.flipped is not None:
            todo.append((node.flipped, not over, at))
        elif node.parts is not None:
            first, second = reversed(node.parts) if over else node.parts
            todo.append((second, over, at + first.thickness))
            todo.append((first, over, at))
        elif pending is not None and pending.material is node.bottom.material:
            pending = Leaf(pending.material, pending.thickness + node.bottom.thickness)
        else:
            if pending is not None:
                yield pending
            pending = node.bottom
    if pending is not None:
        yield pending


@dataclass(frozen=True, slots=True, eq=False)
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

    @property
    def areas_mm2(self) -> Lines:
        """Area of every cell, mm², the shape of ``cells``."""
        return np.outer(np.diff(self.xs), np.diff(self.ys))

    def over_cells(self, of: Callable[[Stack], float]) -> Lines:
        """``of(stack)`` for every cell: an array of the shape of ``cells``."""
        return np.array([of(s) for s in self.pool], dtype=float)[self.cells]

    def volume_mm3(self, of: Callable[[Stack], float] = lambda s: s.thickness) -> float:
        """Volume in mm³; pass ``lambda s: s.butter_mm`` for the butter alone."""
        return float((self.areas_mm2 * self.over_cells(of)).sum()) * self.press

    @property
    def thickness_mm(self) -> float:
        """Mean thickness over the area, mm."""
        return self.volume_mm3() / (self.length_mm * self.width_mm)

    def fullest(self) -> Stack:
        """The stack with the most butter leaves; of several, the one that covers most area."""
        areas = np.bincount(self.cells.ravel(), self.areas_mm2.ravel(), len(self.pool))
        return max(enumerate(self.pool), key=lambda p: (p[1].butter_leaves, areas[p[0]]))[1]

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

    def _pool_shares(self) -> Lines:
        areas = np.bincount(self.cells.ravel(), self.areas_mm2.ravel(), len(self.pool))
        shares: Lines = areas / areas.sum()
        return shares

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
    return replace(
        sheet, xs=sheet.xs * along, ys=sheet.ys * across, press=sheet.press / (along * across)
    )


def turn(sheet: Sheet) -> Sheet:
    """Turn the sheet by a quarter: what was across now lies along the roll."""
    return replace(sheet, xs=sheet.ys, ys=sheet.xs, cells=sheet.cells.T)


def crease(sheet: Sheet, at_mm: float, flap: str) -> Sheet:
    """Fold at x = ``at_mm``: the ``"low"`` or ``"high"`` side is mirrored and laid on the rest.

    Raises ValueError when the crease is not inside the sheet.
    """
    if not sheet.xs[0] < at_mm < sheet.xs[-1]:
        raise ValueError(f"the crease at {at_mm:g} mm is not inside the sheet")
    low, high = _between(sheet, -math.inf, at_mm), _between(sheet, at_mm, math.inf)
    rest, moved = (high, low) if flap == "low" else (low, high)
    mirrored = replace(
        moved,
        xs=(2 * at_mm - moved.xs)[::-1],
        cells=moved.cells[::-1],
        pool=tuple(flip(s) for s in moved.pool),
    )
    folded = _overlay(rest, mirrored)
    # A closed edge bends its leaves in a strip half as wide as the fold is thick.
    wide = max(s.thickness for s in folded.pool) * folded.press / 2
    edge = (at_mm, at_mm + wide) if flap == "low" else (at_mm - wide, at_mm)
    return _bend(folded, *edge)


def _bend(sheet: Sheet, low: float, high: float) -> Sheet:
    """Mark the strip from x = ``low`` to ``high`` as bent."""
    inside = [x for x in (low, high) if sheet.xs[0] < x < sheet.xs[-1]]
    xs = _merged(np.concatenate((sheet.xs, inside)), sheet.length_mm)
    cells = _sample(sheet.xs, xs, sheet.cells)
    middles = (xs[:-1] + xs[1:]) / 2
    strip = (middles > low) & (middles < high)
    n = len(sheet.pool)
    used, cells = np.unique(cells + n * strip[:, None], return_inverse=True)
    shape = (len(xs) - 1, len(sheet.ys) - 1)
    return replace(
        sheet,
        xs=xs,
        cells=cells.reshape(shape),
        pool=tuple(sheet.pool[k] if k < n else _bent(sheet.pool[k - n]) for k in used),
    )


OFFSET_SEAM = 2 / 3  # where the ends of an offset book meet, unless the baker says otherwise


def fold_panels(fold: Fold, seam: float = OFFSET_SEAM) -> tuple[float, ...]:
    """Where the creases of a fold lie, as shares of the rolled length, in order along it.

    ``seam``: where the ends of an offset book meet, as a share of the length. Both ends are folded
    to it and the book is shut at its own middle, so the seam stays off the spine.
    """
    if fold is Fold.OFFSET_BOOK:
        return tuple(sorted((seam / 2, seam / 2 + 1 / 4, (1 + seam) / 2)))
    n = fold.multiplies
    return tuple(i / n for i in range(1, n))


def fold_sheet(
    sheet: Sheet,
    fold: Fold,
    stacked: bool = False,
    seam: float = OFFSET_SEAM,
    short_mm: float = 0.0,
) -> Sheet:
    """Fold the sheet along x; it comes back with its corner at the origin, not yet turned.

    half: the far half comes over. letter: the far third, then the near third on top. book: both
    ends to the middle, then shut like a book; offset book: the ends meet at ``seam`` instead.
    ``stacked``: the sheet is cut at the creases and the pieces are laid on each other unmirrored,
    so that no edge is closed. ``short_mm``: every flap falls short of its place by so much.
    """
    start, length = float(sheet.xs[0]), sheet.length_mm
    if stacked:
        return origin(stack_panels(sheet, fold.multiplies))
    # A flap that falls short was creased nearer its end, by half of what is missing.
    slip = short_mm / 2

    def at(share: float) -> float:
        return start + share * length

    if fold is Fold.HALF:
        done = crease(sheet, at(1 / 2) + slip, "high")
    elif fold is Fold.LETTER:
        done = crease(crease(sheet, at(2 / 3) + slip, "high"), at(1 / 3) - slip, "low")
    else:
        meet = seam if fold is Fold.OFFSET_BOOK else 1 / 2
        far = crease(sheet, at((1 + meet) / 2) + slip, "high")
        ends_in = crease(far, at(meet / 2) - slip, "low")
        done = crease(ends_in, float(ends_in.xs[0]) + ends_in.length_mm / 2 + slip, "high")
    return origin(done)


def origin(sheet: Sheet) -> Sheet:
    """The sheet moved so that its corner lies at (0, 0)."""
    return replace(sheet, xs=sheet.xs - sheet.xs[0], ys=sheet.ys - sheet.ys[0])


def stack_panels(sheet: Sheet, panels: int) -> Sheet:
    """Cut the sheet in ``panels`` along x and lay the pieces on each other, unmirrored."""
    start, panel = float(sheet.xs[0]), sheet.length_mm / panels
    cut = [_between(sheet, start + i * panel, start + (i + 1) * panel) for i in range(panels)]
    laid = cut[0]
    for i, piece in enumerate(cut[1:], 1):
        laid = _overlay(laid, replace(piece, xs=piece.xs - i * panel))
    return laid


def lay_ends_on(sheet: Sheet, end_mm: float) -> Sheet:
    """Cut ``end_mm`` off both ends of x and lay them on the rest, end beside end, unmirrored."""
    low, high = float(sheet.xs[0]), float(sheet.xs[-1])
    middle = (low + high) / 2
    kept = _between(sheet, low + end_mm, high - end_mm)
    near, far = _between(sheet, low, low + end_mm), _between(sheet, high - end_mm, high)
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

    ``tucked``: the two strips from the ends are laid side by side on the middle of the sheet, where
    the fold shuts them in; strips from the sides are always taken away. The corner of what remains
    is the origin. Raises ValueError when nothing would be left.
    """
    if sheet.length_mm <= 2 * ends_mm or sheet.width_mm <= 2 * sides_mm:
        raise ValueError("nothing would be left of the sheet")
    across = turn(_between(turn(sheet), sheet.ys[0] + sides_mm, sheet.ys[-1] - sides_mm))
    kept = (
        lay_ends_on(across, ends_mm)
        if tucked and ends_mm
        else _between(across, float(sheet.xs[0]) + ends_mm, float(sheet.xs[-1]) - ends_mm)
    )
    lost = [
        sheet.volume_mm3(of) - kept.volume_mm3(of)
        for of in (lambda s: s.dough_mm, lambda s: s.butter_mm)
    ]
    return Trimmed(origin(kept), *lost)


def _between(sheet: Sheet, low: float, high: float) -> Sheet:
    inner = sheet.xs[(sheet.xs > low) & (sheet.xs < high)]
    xs = np.concatenate(([max(low, sheet.xs[0])], inner, [min(high, sheet.xs[-1])]))
    xs = _merged(xs, sheet.length_mm)
    return replace(sheet, xs=xs, cells=_sample(sheet.xs, xs, sheet.cells))


def _merged(lines: Lines, length: float) -> Lines:
    ordered = np.sort(lines)
    keep = np.concatenate(([True], np.diff(ordered) > _SAME_LINE * length))
    return ordered[keep]


def _sample(old: Lines, new: Lines, cells: Cells, empty: int | None = None) -> Cells:
    """``cells`` along axis 0, read at the middles of ``new``; ``empty`` where there are none."""
    middles = (new[:-1] + new[1:]) / 2
    index = np.searchsorted(old, middles) - 1
    inside = (index >= 0) & (index < len(old) - 1)
    out = cells[np.clip(index, 0, len(old) - 2)]
    if empty is not None:
        out[~inside] = empty
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
        i, j = a.flat[at], b.flat[at]
        if i < 0 and j < 0:
            raise ValueError("the two pieces leave a hole between them")
        pool.append(
            above.pool[j]
            if i < 0
            else below.pool[i]
            if j < 0
            else pile(below.pool[i], above.pool[j])
        )
    return Sheet(xs, ys, cells.reshape(a.shape), tuple(pool), below.press)
