"""Where a dough rests, and for how long."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from lamination.terms.limits import Checked, Fault, Faults, Range, say

Minutes = Annotated[float, Range(0, 7 * 24 * 60, "min")]


class Place(StrEnum):
    """Where a dough rests."""

    BENCH = "bench"
    FRIDGE = "fridge"
    FREEZER = "freezer"
    PROOFER = "proofer"


class Surface(StrEnum):
    """What a dough lies on in a rest; ``usual``: the shelf, or the bench top as the kitchen has it."""

    USUAL = "usual"
    TRAY = "tray"
    MARBLE = "marble"
    WOOD = "wood"


@dataclass(frozen=True)
class Stay(Checked):
    """A part of a rest that is spent elsewhere."""

    place: Place
    minutes: Minutes


@dataclass(frozen=True)
class Rest(Checked):
    """A rest: where, and for how many minutes in all.

    It may begin elsewhere (``first``, such as the freezer) and end elsewhere (``last``, such as the
    bench, to come back to temper): both are part of ``minutes``. Raises Faults when they are longer.
    ``on``: what it lies on all the while; ``iced``: ice packs on top of it.
    """

    place: Place
    minutes: Minutes
    first: Stay | None = None
    last: Stay | None = None
    on: Surface = Surface.USUAL
    iced: bool = False

    def __post_init__(self) -> None:
        super().__post_init__()
        for name in ("first", "last"):
            stay = getattr(self, name)
            if stay and sum(s.minutes for s in (self.first, self.last) if s) > self.minutes:
                text = f"The whole rest is {say(self.minutes)} min; this would be longer."
                raise Faults(Fault(f"{name}.minutes", text))

    @property
    def stays(self) -> tuple[Stay, ...]:
        """Where it lies one after another, the parts without a minute left out."""
        ends = sum(s.minutes for s in (self.first, self.last) if s)
        chain = (self.first, Stay(self.place, self.minutes - ends), self.last)
        return tuple(s for s in chain if s and s.minutes > 0)
