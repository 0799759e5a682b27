"""What a timetable says: tasks, rests, when every dough is ready, and what could not be had."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta

from lamination.day.gives import Give
from lamination.terms.trade import Machine, Place
from lamination.warmth.windows import Verdict


@dataclass(frozen=True, slots=True)
class Task:
    """A step's work in the day. ``hands``: how many it takes; ``who`` of them.

    ``together``: the dough whose task of this name does this one as well, so that it takes nothing of its
    own: it is mixed with it, or goes into the oven with it.
    """

    dough: str
    step: str
    name: str
    starts: datetime
    ends: datetime
    hands: int
    who: str | None
    machine: Machine | None
    together: str | None
    done: bool
    held: bool


@dataclass(frozen=True, slots=True)
class Resting:
    """A rest in the day, or a part of one that is spent in one place, and what becomes of it."""

    dough: str
    step: str
    place: Place
    starts: datetime
    ends: datetime
    minutes: int
    planned_min: int
    verdict: Verdict


@dataclass(frozen=True, slots=True)
class ReadyAt:
    """When a dough's last work is done, when that was wanted, and how late it is, min."""

    dough: str
    name: str
    at: datetime
    wanted: datetime
    late_min: int


_AT_ONCE = timedelta(minutes=1)


@dataclass(frozen=True, slots=True)
class Shifted:
    """A task that begins at another minute than before, and why."""

    dough: str
    step: str
    name: str
    was: datetime
    starts: datetime
    says: str


def first_change(moved: Iterable[Shifted], since: datetime) -> datetime | None:
    """When the first of some changes, proposed at ``since``, is due; None where none is still to come.

    From then on it is too late for all of them. What was late already, and is to begin at once, is not
    counted: it is as late whether anybody takes the proposal or not.
    """
    times = (at for one in moved for at in (one.was, one.starts) if at - since > _AT_ONCE)
    return min(times, default=None)


@dataclass(frozen=True, slots=True)
class Hours:
    """How many hands are there, and how many are at work, from one moment on."""

    at: datetime
    there: int
    busy: int


@dataclass(frozen=True, slots=True)
class Spell:
    """Work of one hand with no pause in it that is longer than the kitchen says."""

    starts: datetime
    ends: datetime


@dataclass(frozen=True, slots=True)
class Duty:
    """A hand's work in all shifts of that name: its stretches, and how many minutes without the pauses."""

    who: str
    stretches: tuple[Spell, ...]
    work_min: int


@dataclass(frozen=True, slots=True)
class Timetable:
    """A day arranged. ``gives`` says what could not be had, dearest first, with what would mend it.

    ``cost``: all that is given up, in minutes of a tight rest, by the kitchen's prices; a rest that is as
    good in other minutes than planned costs nothing, and how the days of hands are cut up only settles
    ties. ``bound``: no timetable of these doughs costs less; ``gap_pct``: what is not known between the
    two. ``late_min``, ``outside_min`` and ``tight_min``: the compromises in their own terms.
    """

    name: str
    tasks: tuple[Task, ...]
    rests: tuple[Resting, ...]
    ready: tuple[ReadyAt, ...]
    gives: tuple[Give, ...]
    hours: tuple[Hours, ...]
    moved: tuple[Shifted, ...]
    cost: float
    bound: float
    gap_pct: float
    late_min: int
    outside_min: int
    tight_min: int
    seconds: float
    duties: tuple[Duty, ...] = ()  # those kept by an earlier version have none
