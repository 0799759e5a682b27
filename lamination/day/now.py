"""What needs hands now: the day as it stands at a moment, most pressing first."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta, tzinfo
from enum import StrEnum

from lamination.day.day import Happened, Shift
from lamination.day.since import Went
from lamination.day.told import Task, Timetable
from lamination.plan import Plan
from lamination.plan.worked import WorkedPlan
from lamination.run.events import EventKind
from lamination.run.standing import Phase, Standing
from lamination.run.underway import as_it_went, today_of
from lamination.terms.said import span
from lamination.terms.trade import Machine, Place

_SOON = timedelta(minutes=90)


class When(StrEnum):
    """Where a task of the day stands."""

    LATE = "late"  # it should have begun
    NOW = "now"  # it is under the hands, or to begin this minute
    NEXT = "next"
    LATER = "later"
    DONE = "done"


@dataclass(frozen=True, slots=True)
class Due:
    """A task as Today shows it: for one dough, or for several that are mixed or baked at once.

    ``begun``: somebody is at it. ``minutes``: until it begins, negative where it should have begun; for
    what is under the hands, until it should be done; ``says``: the same in words. ``by_tray``: its trays
    go their own ways, so that it is said of each of them when it is done.
    """

    doughs: tuple[str, ...]
    step: str
    name: str
    starts: datetime
    ends: datetime
    who: str | None
    when: When
    begun: bool
    minutes: int
    says: str
    first: bool
    by_tray: bool


@dataclass(frozen=True, slots=True)
class Lying:
    """A dough at rest: where, until when the day has it there, and what comes then."""

    dough: str
    place: str
    until: datetime
    following: str
    minutes: int


def went_of(plan: Plan, worked: WorkedPlan, standing: Standing, zone: tzinfo) -> Went:
    """How a dough went so far, as the bench judges it; ``zone``: the bakery's own."""
    return Went(as_it_went(plan, worked, standing), today_of(standing, zone))


def happened_of(dough: str, worked: WorkedPlan, standing: Standing) -> tuple[Happened, ...]:
    """What a run at the bench says of its dough: every step begun, and done where it is."""
    at, found = standing.started_at, []
    done = {d.stop: d.at for d in standing.deeds if d.kind is EventKind.DONE}
    out = {d.stop: d.at for d in standing.deeds if d.kind is EventKind.OUT}
    for stop in worked.strip:
        ends = done.get(stop.key)
        found.append(Happened(dough, stop.key, at, ends))
        if ends is None:
            break
        if stop.rest is not None and stop.rest.minutes > 0:
            if stop.key not in out:
                break
            at = out[stop.key]
        else:
            at = ends
    return tuple(found)


def given_up_of(standings: Mapping[str, Standing]) -> tuple[str, ...]:
    """The doughs that came to nothing."""
    return tuple(d for d, s in standings.items() if s.phase is Phase.GIVEN_UP)


def due(
    tasks: Sequence[Task],
    happened: Iterable[Happened],
    now: datetime,
    gone: Iterable[str] = (),
) -> tuple[Due, ...]:
    """The tasks of a day as they stand, in the order in which they press: late, now, next, later, done."""
    said = {(h.dough, h.step): h for h in happened}
    left_out = set(gone)
    along: dict[tuple[str, str], list[str]] = {}
    for task in tasks:
        if task.together and task.dough not in left_out:
            along.setdefault((task.together, task.step), []).append(task.dough)
    seen: set[str] = set()
    found = []
    for task in sorted(tasks, key=lambda t: (t.starts, t.dough)):
        if task.dough in left_out or task.together:
            continue
        event = said.get((task.dough, task.step))
        first = task.dough not in seen
        seen.add(task.dough)
        begun = event is not None
        if event is not None and event.ends is not None:
            when, minutes = When.DONE, 0
        elif begun:
            ends = event.starts + (task.ends - task.starts) if event else task.ends
            minutes = _minutes(ends - now)
            when = When.LATE if minutes < -2 else When.NOW
        else:
            minutes = _minutes(task.starts - now)
            when = (
                When.LATE if minutes < -2 else When.NOW if minutes <= 1
                else When.NEXT if task.starts - now <= _SOON else When.LATER
            )  # fmt: skip
        doughs = (task.dough, *along.get((task.dough, task.step), ()))
        found.append(
            Due(
                doughs,
                task.step,
                task.name,
                task.starts,
                task.ends,
                task.who,
                when,
                begun,
                minutes,
                _stands(when, begun, minutes),
                first,
                task.machine is Machine.OVEN,
            )
        )
    order = list(When)
    return tuple(sorted(found, key=lambda d: (order.index(d.when), d.starts)))


def lying(timetable: Timetable, happened: Iterable[Happened], now: datetime) -> tuple[Lying, ...]:
    """The doughs that rest now, by when the day takes them out."""
    done = {(h.dough, h.step) for h in happened if h.ends is not None}
    begun = {(h.dough, h.step) for h in happened}
    found = []
    of_dough: dict[str, list[Task]] = {}
    for task in timetable.tasks:
        of_dough.setdefault(task.dough, []).append(task)
    for dough, tasks in of_dough.items():
        rests = [r for r in timetable.rests if r.dough == dough]
        for rest in rests:
            following = [t for t in tasks if t.starts >= rest.ends]
            then = min(following, key=lambda t: t.starts, default=None)
            if then is None or (dough, rest.step) not in done or (dough, then.step) in begun:
                continue
            if rest.ends < then.starts and now > rest.ends:
                continue
            left = _minutes(rest.ends - now)
            on = next((r for r in rests if r.step == rest.step and r.starts >= rest.ends), None)
            what = (
                f"{'onto' if on.place is Place.BENCH else 'into'} the {on.place.said}"
                if on
                else then.name
            )
            found.append(Lying(dough, _where(rest.place), rest.ends, what, left))
            break
    return tuple(sorted(found, key=lambda one: one.until))


def on_now(hands: Iterable[Shift], now: datetime) -> tuple[Shift, ...]:
    """The shifts that are there."""
    return tuple(s for s in hands if s.starts <= now < s.ends)


def handover(
    timetable: Timetable,
    happened: Sequence[Happened],
    hands: Sequence[Shift],
    now: datetime,
    clock: Callable[[datetime], str],
    gone: Sequence[str] = (),
) -> str:
    """What the next shift is told, written by itself: what is done, what lies where, what comes first.

    ``clock``: a moment as the bakery's clock shows it.
    """
    tasks = due(timetable.tasks, happened, now, gone)
    done = [t for t in tasks if t.when is When.DONE]
    lines = [f"{len(done)} of {len(tasks)} steps are done."]
    for one in lying(timetable, happened, now):
        over = f"{span(-one.minutes)} over" if one.minutes < 0 else f"until {clock(one.until)}"
        lines.append(f"Dough {one.dough}: {one.place}, {over}; then {one.following.lower()}.")
    for task in [t for t in tasks if t.when in (When.LATE, When.NOW, When.NEXT)][:8]:
        many = "dough" if len(task.doughs) == 1 else "doughs"
        who = f", {task.who}" if task.who else ""
        # when it begins is said already
        stands = f", {task.says}" if task.begun or task.when is When.LATE else ""
        lines.append(
            f"{clock(task.starts)} {task.name.lower()}: {many} {', '.join(task.doughs)}{who}{stands}."
        )
    lines += [f"Dough {dough} was stopped." for dough in gone]
    lines += [give.says for give in timetable.gives if give.code in ("late", "hand", "machine")][:6]
    coming = sorted((s for s in hands if s.starts > now), key=lambda s: s.starts)
    if coming:
        lines.append(f"Next on: {coming[0].name}, {clock(coming[0].starts)}.")
    return "\n".join(lines)


def _stands(when: When, begun: bool, minutes: int) -> str:
    if when is When.DONE:
        return "done"
    if begun:
        return f"{span(-minutes)} over" if minutes < 0 else f"under way, {span(minutes)} left"
    if when is When.LATE:
        return f"{span(-minutes)} late"
    return "now" if minutes <= 1 else f"in {span(minutes)}"


def _where(place: Place) -> str:
    return f"{'on' if place is Place.BENCH else 'in'} the {place.said}"


def _minutes(left: timedelta) -> int:
    return round(left.total_seconds() / 60)
