"""The same folds on a plain raster of 576 × 576 stacks, for `make bench`.

Each square holds two numbers: its butter leaves, and whether dough lies at its two ends. That is
enough to count, and is as quick as a raster can be.
"""

import numpy as np

from lamination.sheet.folds import moves
from lamination.terms.trade import Fold

SIDE = 576  # thirds, quarters and twelfths of it are whole squares


def buttered(margin_share: float) -> tuple[np.ndarray, np.ndarray]:
    """Butter leaves and dough leaves per square: a block with a bare margin, dough above and below."""
    at = (np.arange(SIDE) + 0.5) / SIDE
    inside = (at > margin_share) & (at < 1 - margin_share)
    butter = np.outer(inside, inside).astype(np.int64)
    return butter, butter + 1


def crease(butter: np.ndarray, dough: np.ndarray, at: int, flap: str):
    """Fold at line ``at`` along the first axis; dough meets dough and becomes one leaf."""
    parts = []
    for grid, fused in ((butter, 0), (dough, 1)):
        low, high = grid[:at], grid[at:]
        rest, moved = (high, low[::-1]) if flap == "low" else (low[::-1], high)
        n = min(len(rest), len(moved))
        laid = (rest if len(rest) > len(moved) else moved).copy()
        laid[:n] = rest[:n] + moved[:n] - fused
        parts.append(laid if flap == "low" else laid[::-1])
    return parts[0], parts[1]


def folded(sequence: list[Fold], margin_share: float) -> tuple[np.ndarray, np.ndarray]:
    """The grids after a sequence of folds, turned after each; stretched back to it by nearest."""
    butter, dough = buttered(margin_share)
    for fold in sequence:
        gone = 0
        for move in moves(fold, len(butter)):
            line = round(move.at_mm) - gone
            butter, dough = crease(butter, dough, line, move.flap)
            gone += line if move.flap == "low" else 0
        # roll it out again: each square from the place it came from
        rows = (np.arange(SIDE) * len(butter)) // SIDE
        butter, dough = butter[rows].T.copy(), dough[rows].T.copy()
    return butter, dough
