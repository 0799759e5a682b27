"""A dough under way, as warm as it really is: its window now, and what of the rest moves."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from datetime import datetime, timedelta, tzinfo

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.worked import WorkedPlan
from lamination.run.events import EventKind, Probe
from lamination.run.standing import Phase, Standing
from lamination.steps.base import Step
from lamination.terms.said import named, span
from lamination.warmth.bodies import Measured, Today
from lamination.warmth.warmth import WorkedWarmth, work_warmth
from lamination.warmth.windows import RestWindow

_AT_THE_START = timedelta(minutes=10)  # a reading this soon after it went in is of how it went in
_WORTH_SAYING_MIN = 3.0
_MOST_WORK_MIN, _MOST_REST_MIN = 600.0, 7 * 24 * 60.0


@dataclass(frozen=True, slots=True)
class Moved:
    """A rest still to come that should take another time now; minutes."""

    stop: str
    planned_min: float
    advised_min: float
    says: str


@dataclass(frozen=True, slots=True)
class UnderWay:
    """The warmth of a run: the window of the rest it is in, by the clock, and what moved.

    The four moments are those of the window; None where a mark never comes.
    """

    warmth: WorkedWarmth
    window: RestWindow | None
    possible_at: datetime | None
    good_at: datetime | None
    best_at: datetime | None
    good_until: datetime | None
    possible_until: datetime | None
    moved: tuple[Moved, ...]


def as_it_went(plan: Plan, worked: WorkedPlan, now: Standing) -> Plan:
    """The plan with the minutes that work and rests really took, as far as the run has come.

    A rest under way and those to come have the minutes chosen at the bench, or else the plan's.
    """
    bench: dict[str, float] = {}
    rested = {r.stop: r.minutes for r in now.rests}
    clock = now.started_at
    for deed in now.deeds:
        minutes = (deed.at - clock) / timedelta(minutes=1)
        if deed.kind is EventKind.DONE:
            bench[deed.stop] = min(max(minutes, 0.0), _MOST_WORK_MIN)
        else:
            rested[deed.stop] = min(max(minutes, 0.0), _MOST_REST_MIN)
        clock = deed.at
    by_tray = {s.key for s in worked.strip if s.trays}

    def went(step: Step) -> Step:
        if step.id in by_tray:
            return step
        if step.id in bench:
            step = replace(step, bench_min=bench[step.id])
        minutes = rested.get(step.id)
        return step if minutes is None else step.resting(minutes)

    return plan.with_steps(*(went(s) for s in plan.steps))


def today_of(now: Standing, zone: tzinfo) -> Today:
    """What the readings of a run say of the day: the room, the butter, the dough at its steps.

    ``zone``: the bakery's own; the hour it was begun there is where the room's course begins.
    """
    started_at = now.started_at.astimezone(zone)
    ends = {(d.kind, d.stop): d.at for d in now.deeds}
    room = butter = None
    room_at = 0.0
    starts = []
    for reading in now.readings:
        if reading.probe is Probe.ROOM:
            room = reading.value_c
            room_at = max((reading.at - started_at) / timedelta(minutes=1), 0.0)
        elif reading.probe is Probe.BUTTER:
            butter = reading.value_c if reading.stop == "lock_in" else butter
        elif reading.stop:
            went_in = ends.get((EventKind.DONE, reading.stop))
            if went_in is None or reading.at < went_in:
                starts.append(Measured(reading.stop, reading.value_c))
            elif reading.at - went_in <= _AT_THE_START:
                starts.append(Measured(reading.stop, reading.value_c, resting=True))
    hour = started_at.hour + started_at.minute / 60
    return Today(room, None, None, tuple(starts), butter, hour, room_at)


def under_way(
    plan: Plan,
    kitchen: Kitchen,
    worked: WorkedPlan,
    now: Standing,
    zone: tzinfo,
    at: datetime | None = None,
) -> UnderWay:
    """Where a run stands by its temperatures: the window now, and the rests to come that moved.

    ``at``: the moment it is asked; a rest that has lasted as long as would be advised is not moved.
    """
    went = as_it_went(plan, worked, now)
    warmth = work_warmth(went, kitchen, today_of(now, zone), fixes=False)
    windows = {w.stop: w for w in warmth.windows}
    resting = now.phase is Phase.REST and now.stop in windows
    window = windows[now.stop] if resting and now.stop else None

    def by_the_clock(minutes: float | None) -> datetime | None:
        return None if minutes is None or window is None else now.since + timedelta(minutes=minutes)

    return UnderWay(
        warmth,
        window,
        by_the_clock(window.possible_from_min if window else None),
        by_the_clock(window.good_from_min if window else None),
        by_the_clock(window.best_min if window else None),
        by_the_clock(window.good_until_min if window else None),
        by_the_clock(window.possible_until_min if window else None),
        tuple(_moved(worked, now, windows, at or now.since)),
    )


def _advised(w: RestWindow) -> float | None:
    """The minutes a rest should take: as soon as it is good, or as long as it stays so."""
    if w.verdict == "short":
        return None if w.good_from_min is None else float(math.ceil(w.good_from_min))
    return None if w.good_until_min is None else float(math.floor(w.good_until_min))


def _moved(
    worked: WorkedPlan, now: Standing, windows: dict[str, RestWindow], at: datetime
) -> list[Moved]:
    over = {d.stop for d in now.deeds if d.kind is EventKind.OUT}
    found = []
    for stop in worked.strip:
        w = windows.get(stop.key)
        if stop.rest is None or w is None or stop.key in over or w.verdict in ("good", "tight"):
            continue
        advised = _advised(w)
        if advised is None or advised < 2:
            continue
        rested = now.phase is Phase.REST and stop.key == now.stop
        gone_by = rested and at - now.since >= timedelta(minutes=advised)
        if gone_by or abs(advised - w.chosen_min) < _WORTH_SAYING_MIN:
            continue
        text = (
            f"{named(stop.name)}: rest {span(advised)} in place of {span(w.chosen_min)}. {w.says}"
        )
        found.append(Moved(stop.key, w.chosen_min, advised, text))
    return found
