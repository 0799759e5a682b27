"""A sheet in parts: cut in two, or in panels that lie on each other without being one."""

from __future__ import annotations

from lamination.sheet.cells import Sheet, between, mirrored, origin, turn


def divided(sheet: Sheet, share: float, across: bool | None = None) -> tuple[Sheet, Sheet]:
    """Cut the sheet across its longer side: the part with ``share`` (0 to 1) of its area, and the rest.

    ``across``: where its width is divided, not its length, whichever is longer. Both lie as the whole
    did, each with its corner at the origin.
    """
    if across is None:
        across = sheet.width_mm > sheet.length_mm
    laid = turn(sheet) if across else sheet
    low, high = laid.xs[0], laid.xs[-1]
    at = low + share * (high - low)
    parts = between(laid, low, at), between(laid, at, high)
    one, two = (origin(turn(p) if across else p) for p in parts)
    return one, two


def plies(sheet: Sheet, many: int, cut: bool) -> tuple[Sheet, ...]:
    """The panels of a sheet laid on each other along x, the lowest first, each as it lies there.

    Folded to and fro, every second panel is mirrored; ``cut`` and laid on each other, none is.
    """
    start, panel = sheet.xs[0], sheet.length_mm / many
    found = []
    for n in range(many):
        low = start + n * panel
        part = between(sheet, low, low + panel)
        found.append(origin(mirrored(part, low) if n % 2 and not cut else part))
    return tuple(found)
