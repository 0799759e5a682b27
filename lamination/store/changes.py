"""What happens to a block after it was put away: append-only, each with an id made by the tablet."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Annotated

from lamination.store.block import Shelf, cold
from lamination.terms.limits import Checked, Fault, Length, Range, raise_if
from lamination.terms.sizes import Warmth
from lamination.terms.trade import Place

Part = Annotated[float, Range(0.1, 200_000, "g")]


class ChangeKind(StrEnum):
    """What can be said of a block."""

    MOVED = "moved"  # to another place or shelf
    DIVIDED = "divided"  # so much of it is a block of its own now
    TAKEN = "taken"  # all of it goes on: to the bench, into the oven
    USED = "used"  # so much of it went into something
    THROWN = "thrown"  # all of it, or so much
    WEIGHED = "weighed"  # it really weighs so much
    DATED = "dated"  # it is good until then
    WANTED = "wanted"  # it is to be ready then, thawed in the fridge or on the bench; no time: not any more
    PROBED = "probed"  # its middle is so warm
    UNDO = "undo"


_NEEDS: dict[ChangeKind, tuple[str, ...]] = {
    ChangeKind.MOVED: ("place", "shelf"),
    ChangeKind.DIVIDED: ("part", "grams"),
    ChangeKind.TAKEN: (),
    ChangeKind.USED: ("grams",),
    ChangeKind.THROWN: ("why",),
    ChangeKind.WEIGHED: ("grams",),
    ChangeKind.DATED: ("until",),
    ChangeKind.WANTED: (),
    ChangeKind.PROBED: ("value_c",),
    ChangeKind.UNDO: ("target",),
}


@dataclass(frozen=True)
class BlockChange(Checked):
    """Something said of a block. ``id`` is made by the tablet; sending it twice is harmless.

    ``part``: the id of the block that was cut off. ``until``: a best before, or when it is wanted;
    ``by``: thawed in the fridge or on the bench. ``run``: the dough it went into. Which other fields are
    needed depends on ``kind``; raises :class:`Faults` naming those that are missing.
    """

    id: Annotated[str, Length(8, 64, "characters")]
    at: datetime
    kind: ChangeKind
    place: Place | None = None
    shelf: Shelf | None = None
    grams: Part | None = None
    part: Annotated[str, Length(8, 64, "characters")] | None = None
    why: Annotated[str, Length(1, 200, "characters")] | None = None
    until: datetime | None = None
    by: Place | None = None
    value_c: Warmth | None = None
    target: str | None = None
    run: str | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        faults = [
            Fault(n, "This is needed as well.")
            for n in _NEEDS[self.kind]
            if getattr(self, n) is None
        ]
        for name in ("at", "until"):
            at = getattr(self, name)
            if at is not None and at.utcoffset() is None:
                faults.append(Fault(name, "The time must say its time zone."))
        faults += cold(self.place)
        if self.by is Place.FREEZER or self.by is Place.PROOFER:
            faults.append(Fault("by", "It thaws in the fridge or on the bench."))
        raise_if(faults)
