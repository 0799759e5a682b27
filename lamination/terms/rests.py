"""Where a dough rests, and for how long."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

from lamination.terms.limits import Checked, Fault, Faults, Range
from lamination.terms.said import span
from lamination.terms.trade import Chilled, Place, Surface

ProofAir = Annotated[float, Range(5, 45, "°C")]
Minutes = Annotated[float, Range(0, 7 * 24 * 60, "min")]


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
    ``on``: what it lies on all the while, ``chilled``: how that was made cold before; ``iced``: ice
    packs on top of the dough. ``air_c``, ``humidity_pct``: as the proofer is set for this one, in place
    of the kitchen's.
    """

    place: Place
    minutes: Minutes
    first: Stay | None = None
    last: Stay | None = None
    on: Surface = Surface.USUAL
    iced: bool = False
    chilled: Chilled = Chilled.NOT
    air_c: ProofAir | None = None
    humidity_pct: Annotated[float, Range(0, 100, "%")] | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        for name in ("first", "last"):
            stay = getattr(self, name)
            if stay and sum(s.minutes for s in (self.first, self.last) if s) > self.minutes:
                text = f"The whole rest is {span(self.minutes)}; this would be longer."
                raise Faults(Fault(f"{name}.minutes", text))

    @property
    def stays(self) -> tuple[Stay, ...]:
        """Where it lies one after another, the parts without a minute left out."""
        ends = sum(s.minutes for s in (self.first, self.last) if s)
        chain = (self.first, Stay(self.place, self.minutes - ends), self.last)
        return tuple(s for s in chain if s and s.minutes > 0)

    def lasting(self, minutes: float) -> Rest:
        """The rest with another length; its parts elsewhere are cut to what there is."""
        first = self.first and replace(self.first, minutes=min(self.first.minutes, minutes))
        left = minutes - (first.minutes if first else 0.0)
        last = self.last and replace(self.last, minutes=min(self.last.minutes, left))
        return replace(self, minutes=minutes, first=first, last=last)
