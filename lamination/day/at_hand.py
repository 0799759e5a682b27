"""The compiled loops, imported when a day is arranged: their compiler takes half a second to import."""

from __future__ import annotations

from functools import cache, partial
from importlib import import_module
from types import ModuleType


@cache
def _at_hand(name: str) -> ModuleType:
    return import_module(f"lamination.day.{name}")


moves = partial(_at_hand, "moves")  # take threads out and put them back
reach = partial(_at_hand, "reach")  # say where a search need not look
eased = partial(_at_hand, "eased")  # move all minutes at once
working = partial(_at_hand, "working")  # say whose hands do what
tries = partial(_at_hand, "tries")  # look for better


def ready() -> None:
    """Have them all at hand before somebody waits for them."""
    moves(), reach(), eased(), working(), tries()
