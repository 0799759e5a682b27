"""What can be said at the bench: events, append-only, each with an id made by the tablet."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Annotated

from lamination.terms.limits import Checked, Fault, Length, Range, raise_if


class EventKind(StrEnum):
    """What can be said at the bench."""

    DONE = "done"  # a stop's work is finished
    OUT = "out"  # a rest is over
    MOVE = "move"  # a deed happened earlier or later than it was pressed
    UNDO = "undo"
    READING = "reading"
    NOTE = "note"
    GIVE_UP = "give_up"
    VERDICT = "verdict"
    REST = "rest"  # a rest is to take another time than the plan's
    WEIGHED = "weighed"  # a line of a weigh-out sheet, with what was really used
    IN = "in"  # a tray goes into the oven
    LOST = "lost"  # a tray that comes to nothing: burnt, dropped
    PIECES = "pieces"  # pieces put on the scale, one after another along the sheet
    AWAY = "away"  # called away in the middle of it
    BACK = "back"  # at it again
    BEGUN = "begun"  # the first step was begun earlier (negative minutes) or later than was said


class Probe(StrEnum):
    """What a temperature was taken of."""

    ROOM = "room"
    DOUGH = "dough"
    BUTTER = "butter"


Score = Annotated[int, Range(1, 5)]
PieceGrams = Annotated[float, Range(0, 20_000, "g")]


@dataclass(frozen=True)
class Verdict(Checked):
    """How it came out: 1 (poor) to 5 (as it should be); None where it was not judged.

    ``fat``: none left on the tray is best. ``before_g``, ``after_g``: a piece into the oven, and cooled.
    """

    lift: Score | None = None
    honeycomb: Score | None = None
    leaves: Score | None = None
    colour: Score | None = None
    words: Annotated[str, Length(0, 2_000, "characters")] = ""
    shape: Score | None = None
    dryness: Score | None = None
    fat: Score | None = None
    taste: Score | None = None
    before_g: Annotated[float, Range(0.1, 20_000, "g")] | None = None
    after_g: Annotated[float, Range(0.1, 20_000, "g")] | None = None

    @property
    def mean(self) -> float | None:
        """The mean of all marks that were given; None where none was."""
        marks = (
            self.lift, self.honeycomb, self.leaves, self.colour, self.shape, self.dryness, self.fat,
            self.taste,
        )  # fmt: skip
        given = [mark for mark in marks if mark is not None]
        return sum(given) / len(given) if given else None


_NEEDS: dict[EventKind, tuple[str, ...]] = {
    EventKind.DONE: ("stop",),
    EventKind.OUT: ("stop",),
    EventKind.MOVE: ("target", "minutes"),
    EventKind.UNDO: ("target",),
    EventKind.READING: ("probe", "value_c"),
    EventKind.NOTE: ("words",),
    EventKind.VERDICT: ("verdict",),
    EventKind.GIVE_UP: (),
    EventKind.WEIGHED: ("line", "grams"),
    EventKind.REST: ("stop", "minutes"),
    EventKind.IN: ("stop", "tray"),
    EventKind.LOST: ("tray",),
    EventKind.PIECES: ("product", "pieces_g"),
    EventKind.AWAY: (),
    EventKind.BACK: (),
    EventKind.BEGUN: ("minutes",),
}


@dataclass(frozen=True)
class Event(Checked):
    """Something said at the bench. ``id`` is made by the tablet; sending it twice is harmless.

    ``at`` carries a time zone. ``assumed``: nobody pressed it; it is
    taken to have gone as planned. Which other fields are needed depends on ``kind``; raises
    :class:`Faults` naming those that are missing.
    """

    id: Annotated[str, Length(8, 64, "characters")]
    at: datetime
    kind: EventKind
    stop: str | None = None
    target: str | None = None
    minutes: Annotated[float, Range(-1_440, 1_440, "min")] | None = None
    probe: Probe | None = None
    value_c: Annotated[float, Range(-40, 60, "°C")] | None = None
    words: Annotated[str, Length(1, 2_000, "characters")] | None = None
    verdict: Verdict | None = None
    line: Annotated[str, Length(1, 80, "characters")] | None = None
    grams: Annotated[float, Range(0, 500_000, "g")] | None = None
    tray: Annotated[int, Range(1, 500)] | None = None
    product: Annotated[int, Range(0, 7)] | None = None
    pieces_g: Annotated[tuple[PieceGrams, ...], Length(1, 500, "pieces")] | None = None
    assumed: bool | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        missing = [n for n in _NEEDS[self.kind] if getattr(self, n) is None]
        faults = [Fault(n, "This is needed as well.") for n in missing]
        if self.at.utcoffset() is None:
            faults.append(Fault("at", "The time must say its time zone."))
        raise_if(faults)
