"""What lies over a piece of the sheet: exact means of any figure over the area a piece takes."""

from __future__ import annotations

import math
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from lamination.sheet.cells import Sheet, alike

Lines = NDArray[np.float64]

# Between two breaks the height of a piece runs straight, so few places are enough; round ones more.
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(4)
_ROUND_STEPS = 24  # breaks of a round piece along the sheet, closer at its ends


# Not frozen, though nothing changes it: there are hundreds, and a frozen one takes three times as long.
@dataclass(slots=True, unsafe_hash=True)
class Corner:
    """A corner of a piece: ``x_mm`` along the sheet, ``y_mm`` across, from one datum."""

    x_mm: float
    y_mm: float


@dataclass(frozen=True, slots=True)
class Oval:
    """A round piece: its middle and half its sizes, mm; ``hole`` as a share of it."""

    x_mm: float
    y_mm: float
    half_along_mm: float
    half_across_mm: float
    hole: float = 0.0


Outline = tuple[Corner, ...] | Oval


@dataclass(frozen=True, slots=True)
class _Grid:
    """Figures of every cell, [figure, column, row], with their sums from the near edge to every line."""

    xs: Lines
    ys: Lines
    cells: Lines
    below: Lines

    def between(self, x: Lines, near: Lines, far: Lines) -> Lines:
        """Every figure summed from ``near`` to ``far`` in the columns that ``x`` lies in."""
        i = np.clip(np.searchsorted(self.xs, x, "right") - 1, 0, len(self.xs) - 2)

        def up_to(y: Lines) -> Lines:
            y = np.clip(y, self.ys[0], self.ys[-1])
            j = np.clip(np.searchsorted(self.ys, y, "right") - 1, 0, len(self.ys) - 2)
            found: Lines = self.below[:, i, j] + (y - self.ys[j]) * self.cells[:, i, j]
            return found

        return up_to(far) - up_to(near)


def means_over(
    sheet: Sheet, pieces: Sequence[Outline], *of_stack: Sequence[float]
) -> tuple[tuple[float, ...], ...]:
    """The means of figures over every piece, a tuple of them for each figure.

    ``of_stack``: a figure of every stack of the sheet's pool. Exact for straight sides; for round
    pieces to a few thousandths of a percent. Source: geometry; Gauss and Legendre for the arcs.
    """
    figures = list(zip(*of_stack, strict=True))
    kinds = {figure: n for n, figure in enumerate(dict.fromkeys(figures))}
    of_cells = [kinds[f] for f in figures for _ in (False, True)]  # bent or not
    x_lines, y_lines, cells = alike(sheet, of_cells)
    # Most pieces lie in a place that is all alike.
    within = [_cell(p, x_lines, y_lines) for p in pieces]
    found = np.array(
        [list(kinds)[cells[at[0]][at[1]]] if at else (math.nan,) * len(of_stack) for at in within]
    ).T.reshape(len(of_stack), len(pieces))
    others = [(n, p) for n, p in enumerate(pieces) if not within[n]]
    if others:
        _spread(found, others, _grid(x_lines, y_lines, np.array(list(kinds)).T[:, np.array(cells)]))
    return tuple(tuple(row) for row in found.tolist())


def _cell(piece: Outline, xs: Sequence[float], ys: Sequence[float]) -> tuple[int, int] | None:
    """The cell of a grid that a piece lies in with all of itself; None where it lies in several."""
    if isinstance(piece, Oval):
        x, y, along, across = piece.x_mm, piece.y_mm, piece.half_along_mm, piece.half_across_mm
        low, high, near, far = x - along, x + along, y - across, y + across
    else:
        x_of, y_of = [c.x_mm for c in piece], [c.y_mm for c in piece]
        low, high, near, far = min(x_of), max(x_of), min(y_of), max(y_of)
    i, j = bisect_right(xs, low) - 1, bisect_right(ys, near) - 1
    inside = 0 <= i < len(xs) - 1 and 0 <= j < len(ys) - 1
    return (i, j) if inside and high <= xs[i + 1] and far <= ys[j + 1] else None


def _grid(xs: Sequence[float], ys: Sequence[float], cells: Lines) -> _Grid:
    lines = np.array(ys)
    sums = np.cumsum(cells * (lines[1:] - lines[:-1]), axis=2)
    below = np.concatenate((np.zeros((*sums.shape[:2], 1)), sums), axis=2)
    return _Grid(np.array(xs), lines, cells, below)


def _spread(found: Lines, pieces: Sequence[tuple[int, Outline]], grid: _Grid) -> None:
    """Writes into ``found`` the means over pieces, each with its number, that lie in several cells."""
    straight = [(n, p) for n, p in pieces if not isinstance(p, Oval)]
    for sides in {len(p) for _, p in straight}:
        these = [(n, p) for n, p in straight if len(p) == sides]
        whole, area = _straight(grid, np.array([[(c.x_mm, c.y_mm) for c in p] for _, p in these]))
        found[:, [n for n, _ in these]] = whole / area
    ovals = [(n, p) for n, p in pieces if isinstance(p, Oval)]
    if ovals:
        whole, area = _round(grid, [p for _, p in ovals], np.ones(len(ovals)))
        holes = np.array([p.hole for _, p in ovals])
        if holes.any():
            inner, hole = _round(grid, [p for _, p in ovals], holes)
            whole, area = whole - inner, area - hole
        found[:, [n for n, _ in ovals]] = whole / area


def _inside(lines: Lines, low: Lines, high: Lines) -> Lines:
    """The lines between ``low`` and ``high`` of every piece, [piece, line]; ``low`` where there is none."""
    first, last = np.searchsorted(lines, low, "right"), np.searchsorted(lines, high, "left")
    n = first[:, None] + np.arange(max(int((last - first).max(initial=0)), 0))
    found: Lines = np.where(n < last[:, None], lines[np.minimum(n, len(lines) - 1)], low[:, None])
    return found


def _straight(grid: _Grid, corners: Lines) -> tuple[Lines, Lines]:
    """Sums over convex pieces, [figure, piece], and their areas. Between two breaks all runs straight."""
    xs, ys = corners[:, :, 0], corners[:, :, 1]
    low, high = xs.min(axis=1), xs.max(axis=1)
    sides = [
        (xs[:, e], ys[:, e], np.roll(xs, -1, 1)[:, e], np.roll(ys, -1, 1)[:, e])
        for e in range(xs.shape[1])
    ]
    breaks = [xs, _inside(grid.xs, low, high)]
    for x0, y0, x1, y1 in sides:
        crossed = _inside(grid.ys, np.minimum(y0, y1), np.maximum(y0, y1))
        share = (crossed - y0[:, None]) / np.where(y1 == y0, 1, y1 - y0)[:, None]
        breaks.append(x0[:, None] + share * (x1 - x0)[:, None])
    at = np.sort(np.clip(np.concatenate(breaks, axis=1), low[:, None], high[:, None]), axis=1)
    x, dx = (at[:, 1:] + at[:, :-1]) / 2, at[:, 1:] - at[:, :-1]
    near, far = np.full_like(x, math.inf), np.full_like(x, -math.inf)
    for x0, y0, x1, y1 in (tuple(c[:, None] for c in side) for side in sides):
        on = (x >= np.minimum(x0, x1)) & (x <= np.maximum(x0, x1)) & (x0 != x1)
        y = y0 + (x - x0) / np.where(x1 == x0, 1, x1 - x0) * (y1 - y0)
        near, far = np.where(on, np.minimum(near, y), near), np.where(on, np.maximum(far, y), far)
    return (grid.between(x, near, far) * dx).sum(axis=-1), ((far - near) * dx).sum(axis=-1)


def _round(grid: _Grid, pieces: Sequence[Oval], share: Lines) -> tuple[Lines, Lines]:
    """Sums over ovals of a share of their size, [figure, piece], and their areas by the same places."""
    x0, y0 = np.array([[p.x_mm, p.y_mm] for p in pieces]).T
    along, across = np.array([[p.half_along_mm, p.half_across_mm] for p in pieces]).T * share
    safe = np.maximum(across, 1e-9)
    turns = np.linspace(0, math.pi, _ROUND_STEPS + 1)
    crossed = (_inside(grid.ys, y0 - across, y0 + across) - y0[:, None]) / safe[:, None]
    off = along[:, None] * np.sqrt(np.maximum(1 - crossed**2, 0))
    breaks = (
        x0[:, None] - along[:, None] * np.cos(turns),
        _inside(grid.xs, x0 - along, x0 + along),
        x0[:, None] - off,
        x0[:, None] + off,
    )
    at = np.sort(np.concatenate(breaks, axis=1), axis=1)
    long, middle = (at[:, 1:] - at[:, :-1]) / 2, (at[:, 1:] + at[:, :-1]) / 2
    x = (middle[:, :, None] + long[:, :, None] * _NODES).reshape(len(pieces), -1)
    dx = (long[:, :, None] * _WEIGHTS).reshape(len(pieces), -1)
    out = (x - x0[:, None]) / np.maximum(along, 1e-9)[:, None]
    half = across[:, None] * np.sqrt(np.maximum(1 - out**2, 0))
    middle_y = y0[:, None]
    summed = grid.between(x, middle_y - half, middle_y + half)
    return (summed * dx).sum(axis=-1), (2 * half * dx).sum(axis=-1)
