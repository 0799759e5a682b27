"""The timetable of a day: every task of every dough with its hand and machine, every rest judged.

An answer is there at once; :func:`arranged` gives better ones as long as it may. Between two goes the
dough of every thread is followed at the hours it has then, so that its rests are judged as they are.
"""

from __future__ import annotations

import os
import time
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from itertools import takewhile

import numpy as np

from lamination.day.bound import Bounding
from lamination.day.busy import Busy, Placed, coloured, spans
from lamination.day.day import Day, Dough, Happened, Prefer
from lamination.day.gives import Figures, Give, gives_of
from lamination.day.loom import Prices, Pull
from lamination.day.mending import mended, worst
from lamination.day.mixed import mixed_together
from lamination.day.search import Search, look
from lamination.day.threads import LINGER, Thread, thread_of, with_marks
from lamination.day.told import Hours, ReadyAt, Resting, Shifted, Task, Timetable
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.steps import kind_of
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import span
from lamination.warmth.bodies import Today
from lamination.warmth.follow import follow

_AFTERWARDS = 12 * 60  # minutes beyond the day in which what cannot be had is still priced
_AHEAD = 16 * 60.0  # how long a rest might become, a night included
_PROVING = 0.05  # of the time: to raise the bound
# of the time: until the doughs are followed again; and how often all give way to each other before
_ROUNDS = (0.6, 2), (0.8, 1), (0.9, 1), (1.0, 0)
_AT_ONCE = 2  # searches side by side, where there are cores for them
_MENDING = 0.12  # of the time: to try what would mend the worst of it
_TRIES = 6
_FRESH = 10.0  # how much more freshness weighs for who prefers it
_NEAR, _FAR = 5, 15  # minutes to which a rest is followed, up to two hours and beyond
_CALM_FLAT, _CALM_EACH, _STEADY = 400.0, 4.0, 0.05


@dataclass(frozen=True)
class Since:
    """What a day is arranged again from: the moment, what has happened, and the timetable before."""

    now: datetime
    happened: tuple[Happened, ...]
    before: tuple[Task, ...]
    given_up: tuple[str, ...] = ()


def timetable(
    day: Day, kitchen: Kitchen, seconds: float = 0.0, since: Since | None = None
) -> Timetable:
    """The best timetable found in so many seconds; at 0 the first there is.

    Raises :class:`Faults` for a dough that is longer than the day. With ``since`` what has happened
    stays, what is due soon stays where it can, and the rest is arranged again.
    """
    *_, last = arranged(day, kitchen, seconds, since)
    return last


def arranged(
    day: Day,
    kitchen: Kitchen,
    seconds: float,
    since: Since | None = None,
    stop: Callable[[], bool] = lambda: False,
) -> Iterator[Timetable]:
    """Timetables: the first at once, the last in time, its rests judged by the minutes they have there."""
    began = time.monotonic()
    plans = {d.id: d.plan for d in day.doughs}
    cores = min(os.cpu_count() or 1, _AT_ONCE) if seconds > 0 else 1
    arranging = _Arranging(day, kitchen, since, cores)
    arranging.search.begin()
    arranging.prove(0.0)
    yield arranging.told(time.monotonic() - began)
    searching = seconds * (1 - _MENDING - _PROVING)
    rounds = _ROUNDS if since is None else ((1.0, 0),)
    for share, times in rounds if seconds > 0 else ():
        look(arranging.searches, began + share * searching, stop, times)
        if stop() or share == 1.0:
            break
        if not arranging.follow(plans, began + searching, stop):
            look(arranging.searches, began + searching, stop)
            break
    if seconds > 0:
        # a little of the time goes into what it must cost at the least, and what would mend it
        mending = _MENDING * seconds
        if not worst(arranging.told(0.0).gives):
            mending = 0.0
            look(arranging.searches, began + seconds * (1 - _PROVING), stop)
        arranging.prove(began + seconds - mending, stop)
        found = arranging.told(time.monotonic() - began)
        gives = arranging.mended(found, time.monotonic() + mending)
        yield replace(found, gives=gives, seconds=round(time.monotonic() - began, 2))


class _Arranging:
    """A day under way to its timetable."""

    def __init__(self, day: Day, kitchen: Kitchen, since: Since | None, at_once: int = 1) -> None:
        self.day, self.kitchen, self.since = day, kitchen, since
        gone = set(since.given_up) if since else set()
        self.doughs = [d for d in day.doughs if d.id not in gone]
        if not self.doughs:
            raise Faults(Fault("doughs", "Every dough of this day was given up."))
        threads = [
            self._thread(i, dough) for i, dough in enumerate(day.doughs) if dough.id not in gone
        ]
        self.threads = mixed_together(threads, {d.id: d.plan for d in day.doughs}, kitchen)
        self.longer = replace(day, ends=day.at(day.minutes + _AFTERWARDS)) if (
            day.minutes + _AFTERWARDS <= 8 * 24 * 60) else day  # fmt: skip
        now = max(day.minute(since.now), 0) if since else 0
        self.busy = Busy(self.longer, kitchen, now)
        self.prices = _prices(kitchen, day.prefer)
        pulls = self._pulls(now)
        self.search = Search(self.threads, self.busy, self.prices, not_before=now, pulls=pulls)
        self.searches = [self.search, *(
            Search(
                self.threads, Busy(self.longer, kitchen, now), self.prices, not_before=now, pulls=pulls,
                seed=1 + n,
            )
            for n in range(1, at_once)
        )]  # fmt: skip
        self.bounding = Bounding(
            Busy(self.longer, kitchen, now),
            replace(self.prices, linger=0.0),
            not_before=now,
            pulls=pulls,
        )

    def _thread(self, i: int, dough: Dough) -> Thread:
        day, kitchen = self.day, self.kitchen
        try:
            windows = {w.stop: w for w in follow(dough.plan, kitchen, ahead_min=_AHEAD).windows}
            thread = thread_of(dough.id, dough.plan, day.minute(dough.ready_at), kitchen, windows)
        except Faults as wrong:
            raise Faults(*(f.under(f"doughs[{i}].plan") for f in wrong.faults)) from None
        thread = replace(
            thread, held={h.step: day.minute(h.at) for h in day.held if h.dough == dough.id}
        )
        if self.since:
            return _happened(thread, day, self.since)
        if thread.least_min > day.minutes:
            text = (
                f"This dough takes {span(thread.least_min)} at the least, and the whole day is "
                f"{span(day.minutes)}. Begin the day earlier."
            )
            raise Faults(Fault(f"doughs[{i}].ready_at", text))
        return thread

    def _pulls(self, now: int) -> dict[str, dict[str, Pull]]:
        if self.since is None:
            return {}
        calm = now + round(self.kitchen["day.calm_min"])
        found: dict[str, dict[str, Pull]] = {}
        for task in self.since.before:
            minute = self.day.minute(task.starts)
            due = minute <= calm
            pull = (
                Pull(max(minute, now), _CALM_FLAT, _CALM_EACH) if due else Pull(minute, 0, _STEADY)
            )
            found.setdefault(task.dough, {})[task.step] = pull
        return found

    def follow(self, plans: Mapping[str, Plan], until: float, stop: Callable[[], bool]) -> bool:
        """Judge the rests of every thread as they lie now; False where there was no time for all."""
        complete = True
        for dough, placed in self.search.placed.items():
            if stop() or time.monotonic() > until:
                complete = False
                break
            thread = self.search.threads[dough]
            if thread.done:
                continue
            at = self.day.at(placed.starts[0])
            hour = at.hour + (0.5 if at.minute >= 30 else 0.0)
            plan = _as_placed(plans[dough], thread, placed)
            today = Today(begins_h=hour) if self.kitchen["room.swing_k"] else Today()
            windows = {w.stop: w for w in follow(plan, self.kitchen, today, _AHEAD).windows}
            lasted = [
                placed.starts[k + 1] - thread.ended(placed.starts, k)
                for k in range(len(thread.gaps))
            ]
            for search in self.searches:
                search.again(dough, with_marks(thread, windows, lasted))
        for search in self.searches:
            search.weigh()
        return complete

    def mended(self, found: Timetable, until: float) -> tuple[Give, ...]:
        """The compromises with what would mend them, each way tried from where the day lies."""

        def again(day: Day, kitchen: Kitchen) -> float:
            other = _Arranging(day, kitchen, self.since)
            for dough, thread in self.search.threads.items():
                if dough in other.search.threads:
                    asked = other.search.threads[dough]
                    alike = replace(
                        thread, ready=asked.ready, trunk=asked.trunk, leader=asked.leader
                    )
                    other.search.again(dough, alike)
            other.search.weigh()
            other.search.restore(self.search.as_it_lies())
            other.search.improve(until, rounds=_TRIES)
            return other.search.given

        return mended(self.day, self.kitchen, found.gives, found.cost, again, until)

    def told(self, seconds: float) -> Timetable:
        """What lies there, as a timetable."""
        search, day = self.search, self.day
        threads = [search.threads[d.id] for d in self.doughs]
        lying = search.placed
        placed = [lying[d.id] for d in self.doughs]
        tasks = self._tasks(threads, placed)
        rests = [r for t, p in zip(threads, placed, strict=True) for r in _rests(day, t, p)]
        late = outside = tight = 0
        ready = []
        for dough, thread, where in zip(self.doughs, threads, placed, strict=True):
            end = thread.ended(where.starts, len(thread.jobs) - 1)
            over = max(end - thread.ready, 0)
            late += over
            ready.append(
                ReadyAt(dough.id, thread.name, day.at(end), dough.ready_at.astimezone(day.tz), over)
            )
            for k, gap in enumerate(thread.gaps):
                if k + 1 >= where.free:
                    minutes = where.starts[k + 1] - thread.ended(where.starts, k)
                    outside += gap.outside(minutes)
                    tight += gap.tight(minutes)
            ripe = thread.too_ripe(thread.ripening(where.starts))
            tight, outside = tight + ripe[0] - ripe[1], outside + ripe[1]
        cost = max(search.given, 0.0)
        bound = max(min(self.bounding.least, cost), 0.0)
        gap_pct = 100 * (cost - bound) / cost if cost > 1e-9 else 0.0
        figures = Figures(day, self.kitchen, threads, placed, self.busy)
        return Timetable(
            day.name, tuple(tasks), tuple(rests), tuple(ready), gives_of(figures),
            self._hours(), tuple(self._moved(tasks)), round(cost, 2), round(bound, 2),
            round(gap_pct, 2), late, outside, tight, round(seconds, 2),
        )  # fmt: skip

    def prove(self, until: float, stop: Callable[[], bool] = lambda: False) -> None:
        """Raise the bound: what the day must cost at the least, its rests judged as they are now."""
        self.bounding.begin([*self.search.threads.values()])
        self.bounding.better(self.search.given, until, stop)

    def _tasks(self, threads: Sequence[Thread], placed: Sequence[Placed]) -> list[Task]:
        day = self.day
        who, ovens = self._who(threads, placed), self.search.together
        tasks = []
        for thread, where in zip(threads, placed, strict=True):
            for k, job in enumerate(thread.jobs):
                along = k < thread.trunk and thread.leader is not None
                start, end = where.starts[k], thread.ended(where.starts, k)
                held = job.held and end > start and not along
                whose = thread.leader if along else ovens.get((thread.dough, k))
                tasks.append(
                    Task(
                        thread.dough, job.step, job.name, day.at(start), day.at(end),
                        1 if held else 0, who.get((thread.dough, k)) if held else None,
                        None if whose else job.machine, whose,
                        k < len(thread.done), job.step in thread.held,
                    )
                )  # fmt: skip
        return sorted(tasks, key=lambda t: (t.starts, t.dough))

    def _who(
        self, threads: Sequence[Thread], placed: Sequence[Placed]
    ) -> dict[tuple[str, int], str]:
        """Every held task's own hand, by the shift that does it."""
        by_shift: dict[int, list[tuple[str, int, int, int]]] = {}
        for thread, where in zip(threads, placed, strict=True):
            for k, job in enumerate(thread.jobs):
                if job.held and not (k < thread.trunk and thread.leader):
                    at = where.starts[k], thread.ended(where.starts, k)
                    by_shift.setdefault(where.shifts[k], []).append((thread.dough, k, *at))
        found = {}
        for i, all_of in by_shift.items():
            shift = self.day.hands[i]
            hands = coloured([(a, b) for _, _, a, b in all_of], shift.count)
            for (dough, k, _, _), hand in zip(all_of, hands, strict=True):
                found[dough, k] = shift.who[hand]
        return found

    def _hours(self) -> tuple[Hours, ...]:
        there = np.sum([line.there for line in self.busy.hands], axis=0)
        taken = np.sum([line.taken for line in self.busy.hands], axis=0)
        found: list[Hours] = []
        last = (-1, -1)
        for minute, pair in enumerate(zip(there.tolist(), taken.tolist(), strict=True)):
            if pair != last and minute < self.day.minutes:
                found.append(Hours(self.day.at(minute), *pair))
                last = pair
        return tuple(found)

    def _moved(self, tasks: Sequence[Task]) -> Iterator[Shifted]:
        if self.since is None:
            return
        were = {(t.dough, t.step): t.starts for t in self.since.before}
        for task in tasks:
            was = were.get((task.dough, task.step))
            if task.done or was is None or abs((task.starts - was).total_seconds()) < 60:
                continue
            by = round((task.starts - was).total_seconds() / 60)
            says = f"{span(abs(by))} {'later' if by > 0 else 'earlier'}"
            yield Shifted(task.dough, task.step, task.name, was, task.starts, says)


def _prices(kitchen: Kitchen, prefer: Prefer) -> Prices:
    fresh = _FRESH if prefer is Prefer.FRESH else 1.0
    return Prices(
        kitchen["day.late"],
        max(kitchen["day.outside"], 1.0),
        kitchen["day.early"] * fresh,
        0 if prefer is Prefer.FRESH else round(kitchen["day.early_from_min"]),
        LINGER,
    )


def _rests(day: Day, thread: Thread, placed: Placed) -> Iterator[Resting]:
    for k, gap in enumerate(thread.gaps):
        ended, begins = thread.ended(placed.starts, k), placed.starts[k + 1]
        minutes = begins - ended
        for where, a, b in spans(gap, ended, begins):
            yield Resting(
                thread.dough, gap.step, where, day.at(a), day.at(b), minutes, gap.chosen,
                thread.verdict(placed.starts, k),
            )  # fmt: skip


def _happened(thread: Thread, day: Day, since: Since) -> Thread:
    """The thread with what was said of it; a step under way takes as long as it does, and no less."""
    there = {d.id for d in day.doughs} - set(since.given_up)
    leaders = {
        t.step: t.together for t in since.before if t.dough == thread.dough and t.together in there
    }
    # what is mixed with another's is so from its beginning; an oven is shared later
    along = list(takewhile(lambda step: step in leaders, (job.step for job in thread.jobs)))
    said = {h.step: h for h in since.happened if h.step in along and leaders[h.step] == h.dough}
    said |= {h.step: h for h in since.happened if h.dough == thread.dough}
    done: list[tuple[int, int]] = []
    for job in thread.jobs:
        event = said.get(job.step)
        if event is None:
            break
        starts = day.minute(event.starts)
        ends = starts + job.minutes
        if event.ends is not None:
            ends = max(day.minute(event.ends), starts)
        else:
            ends = max(ends, day.minute(since.now))
        if done:
            starts = max(starts, done[-1][1])
        done.append((starts, max(ends, starts)))
    # what another did for it, or is doing, is the other's
    leader = leaders[along[0]] if along else None
    return replace(thread, done=tuple(done), trunk=len(along), leader=leader)


def _as_placed(plan: Plan, thread: Thread, placed: Placed) -> Plan:
    """The plan with the rests it has in the day, to a few minutes."""
    minutes = {}
    for k, gap in enumerate(thread.gaps):
        if gap.rests:
            found = placed.starts[k + 1] - thread.ended(placed.starts, k)
            to = _NEAR if found <= 120 else _FAR
            near = to * round(found / to)
            # what is as planned stays as it is planned
            minutes[gap.step] = gap.chosen if abs(found - gap.chosen) < to else max(near, gap.least)
    steps = []
    for n, step in enumerate(plan.steps):
        rest = step.rest
        apart = kind_of(step).apart and n + 1 < len(plan.steps) and kind_of(plan.steps[n + 1]).apart
        if rest is not None and step.id in minutes and not apart:
            step = replace(step, rest=rest.lasting(float(minutes[step.id])))
        steps.append(step)
    return plan.with_steps(*steps)
