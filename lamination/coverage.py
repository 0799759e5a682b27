"""Coverage: where in the last sheet the leaves are, and which pieces come from poor places."""

from __future__ import annotations

import numpy as np

from lamination.cutting import Outline
from lamination.laminate import Sheet
from lamination.worked import CoverageMap, Region

_GRID = 9  # places looked at along each side of a piece


def coverage_map(sheet: Sheet) -> CoverageMap:
    """The sheet's own grid, with stacks of one count (bent or not) as one region; lines in mm."""
    kinds = sorted({(s.butter_leaves, s.bent) for s in sheet.pool}, key=lambda k: (-k[0], k[1]))
    number = {kind: n for n, kind in enumerate(kinds)}
    of_stack = np.array([number[(s.butter_leaves, s.bent)] for s in sheet.pool])
    cells = of_stack[sheet.cells]
    areas = np.bincount(cells.ravel(), sheet.areas_mm2.ravel(), len(kinds))
    shares = 100 * areas / areas.sum()
    return CoverageMap(
        tuple(round(float(x - sheet.xs[0]), 2) for x in sheet.xs),
        tuple(round(float(y - sheet.ys[0]), 2) for y in sheet.ys),
        tuple(tuple(row) for row in cells.tolist()),
        tuple(
            Region(butter, bent, float(share))
            for (butter, bent), share in zip(kinds, shares, strict=True)
        ),
    )


def full_shares(sheet: Sheet, outlines: tuple[Outline, ...]) -> tuple[float, ...]:
    """Of every piece, the share of its area that has the full number of butter leaves, %.

    Read at the middles of a fine grid over each piece, so it is right to a few percent. A triangle
    is a square with one side drawn together, so one grid serves every shape. Outlines in mm from
    the sheet's corner.
    """
    if not outlines:
        return ()
    full = max(s.butter_leaves for s in sheet.pool)
    has = np.array([s.butter_leaves == full for s in sheet.pool], dtype=float)
    middles = (np.arange(_GRID) + 0.5) / _GRID
    u, v = (a.ravel() for a in np.meshgrid(middles, middles))
    corners = np.array([[(c.x_mm, c.y_mm) for c in o] for o in outlines])
    if corners.shape[1] == 3:
        # √u spreads the places evenly over the triangle's area
        root = np.sqrt(u)
        weights = np.stack((1 - root, root * (1 - v), root * v))
    else:
        weights = np.stack(((1 - u) * (1 - v), u * (1 - v), u * v, (1 - u) * v))
    places = np.einsum("cn,pcd->pnd", weights, corners)
    i = np.clip(np.searchsorted(sheet.xs, places[..., 0] + sheet.xs[0]) - 1, 0, len(sheet.xs) - 2)
    j = np.clip(np.searchsorted(sheet.ys, places[..., 1] + sheet.ys[0]) - 1, 0, len(sheet.ys) - 2)
    found = has[sheet.cells[i, j]].mean(axis=1)
    return tuple(round(100 * float(share), 1) for share in found)
