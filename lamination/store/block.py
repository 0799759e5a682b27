"""Something that was put away in the cold, as it was then."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime
from typing import Annotated

from lamination.dough.keeping import COLD, Holds
from lamination.terms.limits import Checked, Fault, Length, Range, raise_if
from lamination.terms.sizes import Grams
from lamination.terms.trade import Family, Place

MOST_SHELVES = 12
Shelf = Annotated[int, Range(1, MOST_SHELVES)]


@dataclass(frozen=True)
class Block(Checked):
    """Dough, pieces, trimmings or butter that was put away; ``id`` is made by whoever puts it away.

    ``run`` and ``stop``: the dough it comes from, and the step after which it was put away; ``part``: it is
    the other part of what was divided there. ``of``: the block it was cut from. ``fridge_h``: how long it
    keeps in the fridge from when it comes there. ``contains``: its allergens in a sentence, as a label
    says them. ``lots``: of the flour and the butter in it, as somebody said. Raises Faults where the dates
    or the parts do not go together.
    """

    id: Annotated[str, Length(8, 64, "characters")]
    holds: Holds
    name: Annotated[str, Length(1, 80, "characters")]
    grams: Grams
    place: Place
    since: datetime
    best_before: datetime
    fridge_h: Annotated[float, Range(0.5, 20_000, "h")]
    family: Family = Family.CROISSANT
    shelf: Shelf = 1
    butter_g: Annotated[float, Range(0, 200_000, "g")] = 0.0
    turns: Annotated[int, Range(0, 24)] = 0
    pieces: Annotated[int, Range(1, 5_000)] | None = None
    next_step: Annotated[str, Length(0, 80, "characters")] = ""
    contains: Annotated[str, Length(0, 2_000, "characters")] = ""
    lots: Annotated[str, Length(0, 200, "characters")] = ""
    run: str | None = None
    stop: str | None = None
    part: bool = False
    of: str | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        faults = cold(self.place)
        for name in ("since", "best_before"):
            if getattr(self, name).utcoffset() is None:
                faults.append(Fault(name, "The time must say its time zone."))
        if not faults and self.best_before <= self.since:
            faults.append(Fault("best_before", "That is before it was put away."))
        if self.butter_g > self.grams + 0.5:
            faults.append(Fault("butter_g", "There is more butter in it than it weighs."))
        raise_if(faults)

    def divided(self, into: str, grams: float) -> Block:
        """The part of so many ``grams`` that is cut off it, with its share of the butter and the pieces."""
        pieces = round(self.pieces * grams / self.grams) if self.pieces else None
        return replace(
            self, id=into, grams=grams, butter_g=self.butter_g * grams / self.grams,
            pieces=max(pieces, 1) if pieces is not None else None, of=self.id,
        )  # fmt: skip


def cold(place: Place | None) -> list[Fault]:
    """A fault where somebody would put a block that is not cold."""
    if place is None or place in COLD:
        return []
    return [Fault("place", "It is put away in the fridge or the freezer.")]
