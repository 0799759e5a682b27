"""A dough under way, as warm as it really is: its window now, and what of the rest moves."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.worked import WorkedPlan
from lamination.run.events import EventKind, Probe
from lamination.run.run import Phase, Standing
from lamination.terms.limits import say
from lamination.terms.rests import Rest
from lamination.warmth.cold import Measured, Today
from lamination.warmth.rest import RestWindow
from lamination.warmth.warmth import WorkedWarmth, work_warmth

_AT_THE_START = timedelta(minutes=10)  # a reading this soon after it went in is of how it went in
_WORTH_SAYING_MIN = 3.0


@dataclass(frozen=True, slots=True)
class Moved:
    """A rest still to come that should take another time now; minutes."""

    stop: str
    planned_min: float
    advised_min: float
    says: str


@dataclass(frozen=True, slots=True)
class UnderWay:
    """The warmth of a run: the window of the rest it is in, by the clock, and what moved."""

    warmth: WorkedWarmth
    window: RestWindow | None
    soonest_at: datetime | None
    best_at: datetime | None
    latest_at: datetime | None
    moved: tuple[Moved, ...]


def as_it_went(plan: Plan, worked: WorkedPlan, now: Standing, started_at: datetime) -> Plan:
    """The plan with the minutes that work and rests really took, as far as the run has come.

    A rest under way and those to come have the minutes chosen at the bench, or else the plan's.
    """
    bench: dict[str, float] = {}
    rested = {r.stop: r.minutes for r in now.rests}
    clock = started_at
    for deed in now.deeds:
        minutes = (deed.at - clock) / timedelta(minutes=1)
        if deed.kind is EventKind.DONE:
            bench[deed.stop] = min(max(minutes, 0.0), 600.0)
        else:
            rested[deed.stop] = min(max(minutes, 0.0), 7 * 24 * 60.0)
        clock = deed.at

    def took(stop: str, rest: Rest | None) -> dict[str, object]:
        found: dict[str, object] = {}
        if stop in bench:
            found["bench_min"] = bench[stop]
        if rest is not None and stop in rested and rested[stop] != rest.minutes:
            found["rest"] = _lasting(rest, rested[stop])
        return found

    mixing = plan.formula.mixing if plan.formula else None
    turns = tuple(
        replace(t, **took(f"turn-{i}", t.rest))  # type: ignore[arg-type]
        for i, t in enumerate(plan.turns, 1)
    )
    return replace(
        plan,
        dough=replace(plan.dough, **took("dough", plan.dough.rest)),  # type: ignore[arg-type]
        lock_in=replace(plan.lock_in, **took("lock_in", plan.lock_in.rest)),  # type: ignore[arg-type]
        turns=turns,
        final=replace(plan.final, **took("final", plan.final.rest)),  # type: ignore[arg-type]
        formula=replace(plan.formula, mixing=replace(mixing, **took("mix", mixing.rest)))  # type: ignore[arg-type]
        if plan.formula and mixing
        else None,
    )


def _lasting(rest: Rest, minutes: float) -> Rest:
    """The rest with another length; its parts elsewhere are cut to what there is."""
    first = replace(rest.first, minutes=min(rest.first.minutes, minutes)) if rest.first else None
    left = minutes - (first.minutes if first else 0.0)
    last = replace(rest.last, minutes=min(rest.last.minutes, left)) if rest.last else None
    return replace(rest, minutes=minutes, first=first, last=last)


def today_of(now: Standing, started_at: datetime) -> Today:
    """What the readings of a run say of the day: the room, the butter, the dough at its stops.

    ``started_at`` in the bakery's own time zone: its hour is where the room's course begins.
    """
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
    started_at: datetime,
    at: datetime | None = None,
) -> UnderWay:
    """Where a run stands by its temperatures: the window now, and the rests to come that moved.

    ``at``: the moment it is asked; a rest that has lasted as long as would be advised is not moved.
    """
    went = as_it_went(plan, worked, now, started_at)
    warmth = work_warmth(went, kitchen, today_of(now, started_at))
    windows = {w.stop: w for w in warmth.windows}
    resting = now.phase is Phase.REST and now.stop in windows
    window = windows[now.stop] if resting and now.stop else None

    def by_the_clock(minutes: float | None) -> datetime | None:
        return None if minutes is None or window is None else now.since + timedelta(minutes=minutes)

    return UnderWay(
        warmth,
        window,
        by_the_clock(window.soonest_min if window else None),
        by_the_clock(window.best_min if window else None),
        by_the_clock(window.latest_min if window and not _void(window) else None),
        tuple(_moved(worked, now, windows, at or now.since)),
    )


def _void(window: RestWindow) -> bool:
    """Whether the latest comes before the soonest, so that no time is right."""
    soonest, latest = window.soonest_min, window.latest_min
    return soonest is not None and latest is not None and latest < soonest


def _moved(
    worked: WorkedPlan, now: Standing, windows: dict[str, RestWindow], at: datetime
) -> list[Moved]:
    over = {d.stop for d in now.deeds if d.kind is EventKind.OUT}
    found = []
    for stop in worked.strip:
        window = windows.get(stop.key)
        if stop.rest is None or window is None or stop.key in over or window.verdict == "good":
            continue
        # too soon: as soon as it may; too late: at its best
        wanted = window.soonest_min if window.verdict == "early" else window.best_min
        if wanted is None:
            continue
        advised = float(max(1, math.ceil(wanted)))
        rested = now.phase is Phase.REST and stop.key == now.stop
        gone_by = rested and at - now.since >= timedelta(minutes=advised)
        if gone_by or abs(advised - window.chosen_min) < _WORTH_SAYING_MIN:
            continue
        text = (
            f"{stop.name}: rest {say(advised)} min in place of {say(round(window.chosen_min))}. "
            f"{window.says}"
        )
        if _void(window):
            text += " The butter is brittle before: move it somewhere milder, or temper it after."
        found.append(Moved(stop.key, window.chosen_min, advised, text))
    return found
