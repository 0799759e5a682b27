"""Where a dough rests, one place after another, and for how long."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, Any

from lamination.terms.limits import Checked, Fault, Faults, Length, Range, swapped
from lamination.terms.said import c, span
from lamination.terms.trade import Chilled, Place, Surface

_LONGEST_MIN = 7 * 24 * 60
AirC = Annotated[float, Range(-40, 45, "°C")]
Minutes = Annotated[float, Range(0, _LONGEST_MIN, "min")]


@dataclass(frozen=True)
class Stay(Checked):
    """One place of a rest, and for how many minutes.

    ``on``: what it lies on there, ``chilled``: how that was made cold before; ``iced``: ice packs on top.
    ``covered``: none is as usual, covered up to the shaping and open from then on. ``air_c``: how warm it
    is there for this stay, in place of the kitchen's; ``to_c``: it goes evenly to that until its end.
    ``until_c``: it lies until its middle is so warm; the minutes are what is reckoned with.
    """

    place: Place
    minutes: Minutes
    on: Surface = Surface.USUAL
    chilled: Chilled = Chilled.NOT
    iced: bool = False
    covered: bool | None = None
    air_c: AirC | None = None
    to_c: AirC | None = None
    until_c: AirC | None = None
    humidity_pct: Annotated[float, Range(0, 100, "%")] | None = None

    @property
    def there(self) -> str:
        """Its place as it is said: ``in the fridge``, ``on the bench``; and how it is set."""
        said = f"{'on' if self.place is Place.BENCH else 'in'} the {self.place.said}"
        if self.air_c is not None and self.to_c is not None:
            return f"{said}, {c(self.air_c)} to {c(self.to_c)}"
        at = self.air_c if self.air_c is not None else self.to_c
        return said if at is None else f"{said} {'at' if self.to_c is None else 'to'} {c(at)}"

    @property
    def where(self) -> str:
        """The same, and what it lies there until, where that is not a matter of minutes."""
        return (
            self.there
            if self.until_c is None
            else f"{self.there} until its middle is {c(self.until_c)}"
        )

    @property
    def into(self) -> str:
        """What is done to begin it: ``into the fridge``, ``onto the bench``."""
        return ("onto" if self.place is Place.BENCH else "into") + self.where[2:]


@dataclass(frozen=True)
class Rest(Checked):
    """A rest: its stays, one after another.

    Raises Faults where there is none, too many, or all of them together last longer than a week.

    >>> Rest.at(Place.FRIDGE, 40).minutes
    40
    """

    stays: Annotated[tuple[Stay, ...], Length(1, 12, "places")]

    def __post_init__(self) -> None:
        super().__post_init__()
        if len(self.stays) > 1 and self.minutes > _LONGEST_MIN:
            text = f"The whole rest would be {span(self.minutes)}: at most {span(_LONGEST_MIN)}."
            raise Faults(Fault(f"stays[{len(self.stays) - 1}].minutes", text))

    @classmethod
    def at(cls, place: Place, minutes: float, **stay: Any) -> Rest:
        """A rest in one place."""
        return cls((Stay(place, minutes, **stay),))

    @property
    def minutes(self) -> float:
        """How long it is in all."""
        return sum(s.minutes for s in self.stays)

    @property
    def passed(self) -> tuple[Stay, ...]:
        """Where it really lies one after another: the stays without a minute left out."""
        return tuple(s for s in self.stays if s.minutes > 0)

    @property
    def begins(self) -> Place:
        """Where it is put first."""
        return (self.passed or self.stays)[0].place

    @property
    def ends(self) -> Place:
        """Where it is taken out of."""
        return (self.passed or self.stays)[-1].place

    def gives(self, proofs: bool = False) -> int:
        """Which stay is made longer or shorter with the rest: the longest; of a proof the last warm one.

        Source: trade practice: what comes before and after is set for its own sake.
        """
        warm = [n for n, s in enumerate(self.stays) if s.place not in (Place.FRIDGE, Place.FREEZER)]
        if proofs and warm:
            return warm[-1]
        return max(range(len(self.stays)), key=lambda n: (self.stays[n].minutes, -n))

    def lasting(self, minutes: float, proofs: bool = False) -> Rest:
        """The rest with another length: one stay gives; where that is not enough, the others are cut.

        ``proofs``: see :meth:`gives`.
        """
        n = self.gives(proofs)
        others = self.minutes - self.stays[n].minutes
        stays = list(self.stays)
        stays[n] = replace(stays[n], minutes=max(minutes - others, 0.0))
        over = max(others - minutes, 0.0)
        for k in (*range(len(stays) - 1, n, -1), *range(n - 1, -1, -1)):
            cut = min(stays[k].minutes, over)
            if cut:
                stays[k] = replace(stays[k], minutes=stays[k].minutes - cut)
                over -= cut
        return replace(self, stays=tuple(stays))

    def with_stay(self, n: int, stay: Stay) -> Rest:
        """The rest with another stay in place of its ``n``-th."""
        return swapped(self, stays=(*self.stays[:n], stay, *self.stays[n + 1 :]))
