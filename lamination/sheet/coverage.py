"""Coverage: where in the last sheet the leaves are, and which pieces come from poor places."""

from __future__ import annotations

import numpy as np

from lamination.pieces.cutting import Outline
from lamination.plan.worked import CoverageMap, Region
from lamination.sheet.cells import Lines, Sheet

_GRID = 9  # places looked at along each side of a piece


def coverage_map(sheet: Sheet) -> CoverageMap:
    """The sheet's own grid, with stacks of one count (bent or not) as one region; lines in mm."""
    kinds = sorted({(s.butter_leaves, s.bent) for s in sheet.pool}, key=lambda k: (-k[0], k[1]))
    number = {kind: n for n, kind in enumerate(kinds)}
    of_stack = np.array([number[(s.butter_leaves, s.bent)] for s in sheet.pool])
    cells = of_stack[sheet.cells]
    areas = np.bincount(cells.ravel(), sheet.areas_mm2.ravel(), len(kinds))
    shares = 100 * areas / areas.sum()
    # A line with the same regions on both its sides divides nothing.
    along = np.concatenate(([True], (cells[1:] != cells[:-1]).any(axis=1)))
    across = np.concatenate(([True], (cells[:, 1:] != cells[:, :-1]).any(axis=0)))
    cells = cells[along][:, across]
    return CoverageMap(
        tuple(round(float(x - sheet.xs[0]), 2) for x in sheet.xs[np.append(along, True)]),
        tuple(round(float(y - sheet.ys[0]), 2) for y in sheet.ys[np.append(across, True)]),
        tuple(tuple(row) for row in cells.tolist()),
        tuple(
            Region(butter, bent, float(share))
            for (butter, bent), share in zip(kinds, shares, strict=True)
        ),
    )


def full_shares(sheet: Sheet, outlines: tuple[Outline, ...]) -> tuple[float, ...]:
    """Of every piece, the share of its area that has the full number of butter leaves, %.

    Read at the middles of a fine grid over each piece, so it is right to a few percent. Outlines in
    mm from the sheet's corner.
    """
    full = max(s.butter_leaves for s in sheet.pool)
    has = np.array([s.butter_leaves == full for s in sheet.pool], dtype=float)
    return tuple(round(100 * float(share), 1) for share in _means(sheet, outlines, has))


def masses(
    sheet: Sheet, outlines: tuple[Outline, ...], piece_mm2: float, per_mm3: tuple[float, float]
) -> tuple[float, ...]:
    """The mass of every piece of ``piece_mm2``, g, read on the same grid.

    ``per_mm3``: g in a mm³ of dough and of butter.
    """
    dough, butter = per_mm3
    per_mm2 = sheet.press * np.array(
        [s.dough_mm * dough + s.butter_mm * butter for s in sheet.pool]
    )
    return tuple(round(piece_mm2 * float(mean), 2) for mean in _means(sheet, outlines, per_mm2))


def _means(sheet: Sheet, outlines: tuple[Outline, ...], of_stack: Lines) -> Lines:
    """The mean of a figure of each stack over every piece.

    A triangle is a square with one side drawn together, and a round piece a square wound up, so one
    grid serves every shape; pieces of one kind are looked at together.
    """
    kinds = {len(o) for o in outlines}
    if len(kinds) != 1:
        found = np.zeros(len(outlines))
        for kind in kinds:
            mine = [i for i, o in enumerate(outlines) if len(o) == kind]
            found[mine] = _means(sheet, tuple(outlines[i] for i in mine), of_stack)
        return found
    middles = (np.arange(_GRID) + 0.5) / _GRID
    u, v = (a.ravel() for a in np.meshgrid(middles, middles))
    corners = np.array([[(c.x_mm, c.y_mm) for c in o] for o in outlines])
    if corners.shape[1] == 3:
        # √u spreads the places evenly over the triangle's area
        root = np.sqrt(u)
        weights = np.stack((1 - root, root * (1 - v), root * v))
    elif corners.shape[1] > 4:
        # from the middle to a corner, √u of the way: even over the disc
        turns = corners.shape[1]
        corner = np.floor(v * turns).astype(int)
        weights = np.full((turns, len(u)), 1 / turns) * (1 - np.sqrt(u))
        weights[corner, np.arange(len(u))] += np.sqrt(u)
    else:
        weights = np.stack(((1 - u) * (1 - v), u * (1 - v), u * v, (1 - u) * v))
    places = np.einsum("cn,pcd->pnd", weights, corners)
    i = np.clip(np.searchsorted(sheet.xs, places[..., 0] + sheet.xs[0]) - 1, 0, len(sheet.xs) - 2)
    j = np.clip(np.searchsorted(sheet.ys, places[..., 1] + sheet.ys[0]) - 1, 0, len(sheet.ys) - 2)
    means: Lines = of_stack[sheet.cells[i, j]].mean(axis=1)
    return means
