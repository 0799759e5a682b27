"""What lies over a piece of the sheet: exact means of any figure over the area a piece takes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from lamination.sheet.cells import Lines, Sheet

# Between two breaks the height of a piece runs straight, so few places are enough; round ones more.
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(4)
_ROUND_STEPS = 24  # breaks of a round piece along the sheet, closer at its ends


@dataclass(frozen=True, slots=True)
class Straight:
    """A convex piece with straight sides: its corners, mm from the sheet's corner."""

    corners: tuple[tuple[float, float], ...]


@dataclass(frozen=True, slots=True)
class Round:
    """A round piece, or an oval one: its middle and half its sizes, mm; ``hole`` as a share of it."""

    x_mm: float
    y_mm: float
    half_along_mm: float
    half_across_mm: float
    hole: float = 0.0


Area = Straight | Round


@dataclass(frozen=True, slots=True)
class _Grid:
    """A figure of every cell with its sum from the near edge up to every line across."""

    xs: Lines
    ys: Lines
    cells: Lines
    below: Lines

    def up_to(self, x: Lines, y: Lines) -> Lines:
        """The figure summed from the near edge to ``y`` in the column that ``x`` lies in."""
        i = np.clip(np.searchsorted(self.xs, x, "right") - 1, 0, len(self.xs) - 2)
        y = np.clip(y, self.ys[0], self.ys[-1])
        j = np.clip(np.searchsorted(self.ys, y, "right") - 1, 0, len(self.ys) - 2)
        found: Lines = self.below[i, j] + (y - self.ys[j]) * self.cells[i, j]
        return found


def means_over(sheet: Sheet, pieces: Sequence[Area], of_stack: Lines) -> tuple[float, ...]:
    """The mean of a figure over every piece.

    ``of_stack``: the figure of every stack of the sheet's pool. Exact for straight sides but for where
    a slanted side crosses a line of the grid; for round pieces to a few hundredths of a percent.
    """
    cells = of_stack[sheet.cells]
    xs, ys = sheet.xs - sheet.xs[0], sheet.ys - sheet.ys[0]
    below = np.concatenate(
        (np.zeros((len(xs) - 1, 1)), np.cumsum(cells * (ys[1:] - ys[:-1]), axis=1)), axis=1
    )
    grid = _Grid(xs, ys, cells, below)
    return tuple(_mean(grid, piece) for piece in pieces)


def _mean(grid: _Grid, piece: Area) -> float:
    if isinstance(piece, Straight):
        return _straight(grid, piece)
    whole, area = _round(grid, piece, 1.0)
    if piece.hole:
        inner, hole = _round(grid, piece, piece.hole)
        whole, area = whole - inner, area - hole
    return whole / area


def _strips(breaks: Lines) -> tuple[Lines, Lines]:
    """Places between breaks and the length each stands for."""
    half = (breaks[1:] - breaks[:-1]) / 2
    middle = (breaks[1:] + breaks[:-1]) / 2
    places = (middle[:, None] + half[:, None] * _NODES).ravel()
    return places, (half[:, None] * _WEIGHTS).ravel()


def _lines_inside(grid: _Grid, low: float, high: float) -> Lines:
    found: Lines = grid.xs[(grid.xs > low) & (grid.xs < high)]
    return found


def _straight(grid: _Grid, piece: Straight) -> float:
    corners = np.array(piece.corners)
    low, high = float(corners[:, 0].min()), float(corners[:, 0].max())
    breaks = np.unique(np.concatenate((corners[:, 0], _lines_inside(grid, low, high))))
    x, dx = _strips(breaks)
    near, far = np.full_like(x, math.inf), np.full_like(x, -math.inf)
    for (x0, y0), (x1, y1) in zip(corners, np.roll(corners, -1, axis=0), strict=True):
        if x0 == x1:
            continue
        on = (x >= min(x0, x1)) & (x <= max(x0, x1))
        y = y0 + (x - x0) / (x1 - x0) * (y1 - y0)
        near, far = np.where(on, np.minimum(near, y), near), np.where(on, np.maximum(far, y), far)
    whole = float(((grid.up_to(x, far) - grid.up_to(x, near)) * dx).sum())
    return whole / float(((far - near) * dx).sum())


def _round(grid: _Grid, piece: Round, share: float) -> tuple[float, float]:
    """The sum over an oval, and its area, both by the same places."""
    along, across = piece.half_along_mm * share, piece.half_across_mm * share
    turns = np.linspace(0, math.pi, _ROUND_STEPS + 1)
    own = piece.x_mm - along * np.cos(turns)
    inside = _lines_inside(grid, piece.x_mm - along, piece.x_mm + along)
    x, dx = _strips(np.unique(np.concatenate((own, inside))))
    half = across * np.sqrt(np.maximum(1 - ((x - piece.x_mm) / along) ** 2, 0))
    summed = grid.up_to(x, piece.y_mm + half) - grid.up_to(x, piece.y_mm - half)
    return float((summed * dx).sum()), float((2 * half * dx).sum())
