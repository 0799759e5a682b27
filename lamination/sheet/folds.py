"""The folds: programmes of creases, or of cuts, and what each multiplies by."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from lamination.sheet.cells import Sheet, crease, origin
from lamination.sheet.trims import stack_panels
from lamination.terms.trade import Fold

Flap = Literal["low", "high"]
OFFSET_SEAM = 2 / 3  # where the ends of an offset book meet, unless the baker says otherwise


@dataclass(frozen=True, slots=True)
class Move:
    """One crease: where along the sheet as it was rolled, mm, and which side comes over."""

    at_mm: float
    flap: Flap


def moves(
    fold: Fold, length_mm: float, seam: float = OFFSET_SEAM, short_mm: float = 0.0
) -> tuple[Move, ...]:
    """The creases of a fold, in the order they are made, on a sheet of ``length_mm``.

    half: the far half comes over. letter: the far third, then the near third on top. book: both
    ends to the middle, then shut like a book; offset book: the ends meet at ``seam`` (a share of the
    length) instead, so that the seam stays off the spine. ``short_mm``: every flap falls short of
    its place by so much. Source: trade practice.
    """
    # A flap that falls short was creased nearer its end, by half of what is missing.
    slip = short_mm / 2
    if fold is Fold.HALF:
        return (Move(length_mm / 2 + slip, "high"),)
    if fold is Fold.LETTER:
        return (Move(2 * length_mm / 3 + slip, "high"), Move(length_mm / 3 - slip, "low"))
    meet = seam if fold is Fold.OFFSET_BOOK else 1 / 2
    return (
        Move((1 + meet) / 2 * length_mm + slip, "high"),
        Move(meet / 2 * length_mm - slip, "low"),
        Move((meet / 2 + 1 / 4) * length_mm + slip, "high"),
    )


def fold_sheet(
    sheet: Sheet,
    fold: Fold,
    stacked: bool = False,
    seam: float = OFFSET_SEAM,
    short_mm: float = 0.0,
) -> Sheet:
    """Fold the sheet along x by its :func:`moves`; its corner comes back to the origin, not turned.

    ``stacked``: the sheet is cut at the creases and the pieces are laid on each other unmirrored,
    so that no edge is closed.
    """
    if stacked:
        return origin(stack_panels(sheet, fold.multiplies))
    start = sheet.xs[0]
    for move in moves(fold, sheet.length_mm, seam, short_mm):
        sheet = crease(sheet, start + move.at_mm, move.flap)
    return origin(sheet)
