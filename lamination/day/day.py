"""A day as it is asked for: the doughs that are wanted, the hands that are there, and what is fixed."""

from __future__ import annotations

import re
from collections.abc import Container, Iterable, Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import chain, count
from typing import Annotated
from zoneinfo import ZoneInfo, available_timezones

from lamination.plan.plan import Plan
from lamination.steps import Chapter
from lamination.terms.limits import Checked, Fault, Length, Range, raise_if
from lamination.terms.trade import Worded

MOST_DOUGHS = 40
LONGEST = timedelta(days=8)
_Id = Annotated[str, Length(1, 60, "characters")]


def without_zone(times: Iterable[tuple[str, datetime | None]]) -> Iterator[Fault]:
    """A fault for every time, by its path, that does not say its time zone."""
    for path, at in times:
        if at is not None and at.utcoffset() is None:
            yield Fault(path, "The time must say its time zone.")


class Prefer(Worded):
    """What a day leans to where there is a choice."""

    NEITHER = "neither", "as planned"
    FRESH = "fresh", "the freshest doughs"
    SLEEP = "sleep", "nights free"


class Weekday(Worded):
    """The days of a week."""

    MONDAY = "monday", "Monday"
    TUESDAY = "tuesday", "Tuesday"
    WEDNESDAY = "wednesday", "Wednesday"
    THURSDAY = "thursday", "Thursday"
    FRIDAY = "friday", "Friday"
    SATURDAY = "saturday", "Saturday"
    SUNDAY = "sunday", "Sunday"


@dataclass(frozen=True)
class Shift(Checked):
    """Hands that are there together, and what they do: every chapter, or ``only`` some.

    Where a name for each of them is written, as "Wren, Tam" or "Wren and Tam", these are the hands.
    """

    name: _Id
    starts: datetime
    ends: datetime
    count: Annotated[int, Range(1, 30)] = 1
    only: tuple[Chapter, ...] = ()

    @property
    def who(self) -> tuple[str, ...]:
        """What each of its hands is called."""
        names = tuple(n for name in re.split(r",| and ", self.name) if (n := name.strip()))
        if len(set(names)) == self.count:
            return names
        if self.count == 1:
            return (self.name,)
        return tuple(f"{self.name} {i + 1}" for i in range(self.count))


@dataclass(frozen=True)
class Dough(Checked):
    """A dough of the day: its plan, and when its last work is to be done. ``goes_on``: it is a block of the
    cold store, and begins at this step.
    """

    id: _Id
    plan: Plan
    ready_at: datetime
    goes_on: str | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.goes_on is not None and self.plan.at(self.goes_on) < 0:
            raise_if([Fault("goes_on", "This plan has no such step.")])


@dataclass(frozen=True)
class Held(Checked):
    """A step that is to begin at a minute, because somebody said so."""

    dough: _Id
    step: _Id
    at: datetime


@dataclass(frozen=True)
class Quiet(Checked):
    """Hours in which nobody works at the bench."""

    starts: datetime
    ends: datetime


@dataclass(frozen=True)
class Happened(Checked):
    """What was said at the bench: a step was begun, and done where ``ends`` is there."""

    dough: _Id
    step: _Id
    starts: datetime
    ends: datetime | None = None


@dataclass(frozen=True)
class Day(Checked):
    """A day, from its first preferment to its last tray.

    ``zone``: where it is, for the hours of the night. Raises Faults for times that cannot be: without
    a zone, a shift that ends before it begins, a dough wanted before the day begins.
    """

    name: Annotated[str, Length(1, 80, "characters")]
    begins: datetime
    ends: datetime
    hands: Annotated[tuple[Shift, ...], Length(0, 60, "shifts")]
    doughs: Annotated[tuple[Dough, ...], Length(1, MOST_DOUGHS, "doughs")]
    zone: str = "UTC"
    prefer: Prefer = Prefer.NEITHER
    held: Annotated[tuple[Held, ...], Length(0, 400, "fixed steps")] = ()
    quiet: Annotated[tuple[Quiet, ...], Length(0, 40, "quiet hours")] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        raise_if(self._without_zone())
        raise_if(self._wrong())

    def minute(self, at: datetime) -> int:
        """A moment as whole minutes of absolute time since the day begins."""
        return round((at - self.begins).total_seconds() / 60)

    def at(self, minute: float) -> datetime:
        """The moment so many minutes after the day begins, in the day's zone."""
        return (self.begins + timedelta(minutes=minute)).astimezone(self.tz)

    @property
    def tz(self) -> ZoneInfo:
        """The zone it is in."""
        return ZoneInfo(self.zone)

    @property
    def minutes(self) -> int:
        """How long the day is."""
        return self.minute(self.ends)

    @property
    def who(self) -> tuple[tuple[str, ...], ...]:
        """What every hand of each shift is called: two that are there at once have no name in common."""
        found: list[tuple[str, ...]] = []
        for shift in self.hands:
            there = {
                name
                for other, names in zip(self.hands, found, strict=False)
                if other.starts < shift.ends and other.ends > shift.starts
                for name in names
            }
            found.append(tuple(_another(name, there) for name in shift.who))
        return tuple(found)

    def _times(self) -> Iterator[tuple[str, datetime]]:
        yield "begins", self.begins
        yield "ends", self.ends
        for i, shift in enumerate(self.hands):
            yield f"hands[{i}].starts", shift.starts
            yield f"hands[{i}].ends", shift.ends
        for i, dough in enumerate(self.doughs):
            yield f"doughs[{i}].ready_at", dough.ready_at
        for i, held in enumerate(self.held):
            yield f"held[{i}].at", held.at
        for i, quiet in enumerate(self.quiet):
            yield f"quiet[{i}].starts", quiet.starts
            yield f"quiet[{i}].ends", quiet.ends

    def _without_zone(self) -> Iterator[Fault]:
        if self.zone not in available_timezones():
            yield Fault("zone", "There is no time zone of this name, such as Europe/London.")
        yield from without_zone(self._times())

    def _wrong(self) -> Iterator[Fault]:
        if self.ends <= self.begins:
            yield Fault("ends", "The day ends before it begins.")
        elif self.ends - self.begins > LONGEST:
            yield Fault("ends", f"That is longer than {LONGEST.days} days. Make two days of it.")
        if not self.hands:
            yield Fault("hands", "Nobody is there. Say who comes, and from when to when.")
        for i, shift in enumerate(self.hands):
            if shift.ends <= shift.starts:
                yield Fault(f"hands[{i}].ends", "This shift ends before it begins.")
        if self.hands and all(
            s.ends <= self.begins or s.starts >= self.ends for s in self.hands if s.ends > s.starts
        ):
            yield Fault("hands", "Nobody is there while the day lasts. Move a shift, or the day.")
        for i, quiet in enumerate(self.quiet):
            if quiet.ends <= quiet.starts:
                yield Fault(f"quiet[{i}].ends", "This ends before it begins.")
        ids: set[str] = set()
        for i, dough in enumerate(self.doughs):
            if dough.id in ids:
                yield Fault(f"doughs[{i}].id", "Another dough of the day has this name.")
            ids.add(dough.id)
            if dough.ready_at <= self.begins:
                yield Fault(f"doughs[{i}].ready_at", "This is before the day begins.")
            elif dough.ready_at > self.ends:
                yield Fault(f"doughs[{i}].ready_at", "This is after the day ends.")
        of = {d.id: {s.id for s in d.plan.steps} for d in self.doughs}
        for i, held in enumerate(self.held):
            if held.dough not in of:
                yield Fault(f"held[{i}].dough", "There is no such dough on this day.")
            elif held.step not in of[held.dough]:
                yield Fault(f"held[{i}].step", "There is no such step in this dough's plan.")


def _another(name: str, there: Container[str]) -> str:
    numbered = (f"{name} ({n})" for n in count(2))
    return next(one for one in chain([name], numbered) if one not in there)
