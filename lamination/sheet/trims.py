"""What is cut off a sheet and, mostly, laid on it again."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.sheet.cells import SAME_LINE, Sheet, between, moved, origin, overlay, turn
from lamination.sheet.stacks import tucked as tuck


def stack_panels(sheet: Sheet, panels: int) -> Sheet:
    """Cut the sheet in ``panels`` along x and lay the pieces on each other, unmirrored."""
    start, panel = sheet.xs[0], sheet.length_mm / panels
    cut = [between(sheet, start + i * panel, start + (i + 1) * panel) for i in range(panels)]
    laid = cut[0]
    for i, piece in enumerate(cut[1:], 1):
        laid = overlay(laid, moved(piece, -i * panel))
    return laid


def lay_ends_on(sheet: Sheet, end_mm: float, mark: bool = False) -> Sheet:
    """Cut ``end_mm`` off both ends of x and lay them on the rest, end beside end, unmirrored.

    ``mark``: where they lie counts as tucked in. Raises ValueError when they are longer than the rest.
    """
    if 4 * end_mm > sheet.length_mm * (1 + SAME_LINE):
        raise ValueError("what was cut off is longer than what is left")
    if end_mm <= sheet.length_mm * SAME_LINE:
        return sheet  # thinner than a line: there is nothing to lay anywhere
    low, high = sheet.xs[0], sheet.xs[-1]
    middle = (low + high) / 2
    kept = between(sheet, low + end_mm, high - end_mm)
    near, far = between(sheet, low, low + end_mm), between(sheet, high - end_mm, high)
    if mark:
        near, far = (
            Sheet(s.xs, s.ys, s.cells, tuple(tuck(x) for x in s.pool), s.press) for s in (near, far)
        )
    kept = overlay(kept, moved(near, middle - end_mm - low))
    return overlay(kept, moved(far, middle - (high - end_mm)))


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
    return between(sheet, sheet.xs[0] + end_mm, sheet.xs[-1] - end_mm)
