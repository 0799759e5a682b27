"""The compiled loops, imported when a day is arranged: their compiler takes half a second to import."""

from __future__ import annotations

from functools import cache
from types import ModuleType


@cache
def moves() -> ModuleType:
    """Those that take threads out and put them back."""
    from lamination.day import moves as compiled

    return compiled


@cache
def reach() -> ModuleType:
    """Those that say where a search need not look."""
    from lamination.day import reach as compiled

    return compiled


@cache
def eased() -> ModuleType:
    """Those that move all minutes at once."""
    from lamination.day import eased as compiled

    return compiled


@cache
def working() -> ModuleType:
    """Those that say whose hands do what."""
    from lamination.day import working as compiled

    return compiled


@cache
def tries() -> ModuleType:
    """Those that look for better."""
    from lamination.day import tries as compiled

    return compiled


def ready() -> None:
    """Have them all at hand before somebody waits for them."""
    moves(), reach(), eased(), working(), tries()
