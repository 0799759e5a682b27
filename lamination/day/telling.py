"""A day as it lies, told as a timetable."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from lamination.day.because import Reasons
from lamination.day.busy import Placed, spans
from lamination.day.day import Day
from lamination.day.gives import Figures, gives_of
from lamination.day.search import Search
from lamination.day.since import Since
from lamination.day.threads import Thread
from lamination.day.told import (
    Duty,
    Hours,
    ReadyAt,
    Resting,
    Shifted,
    Spell,
    Task,
    Timetable,
)
from lamination.kitchen.kitchen import Kitchen
from lamination.terms.said import span


@dataclass(frozen=True)
class Telling:
    """A day that a search has arranged; ``since``: what it was arranged again from."""

    day: Day
    kitchen: Kitchen
    search: Search
    since: Since | None = None

    def timetable(self, least: float, seconds: float) -> Timetable:
        """What lies there, as a timetable; ``least``: what is proven that any must cost."""
        search, day = self.search, self.day
        doughs = [d for d in day.doughs if d.id in search.threads]
        threads, lying = [search.threads[d.id] for d in doughs], search.placed
        placed = [lying[d.id] for d in doughs]
        tasks = self._tasks(threads, placed)
        rests = [r for t, p in zip(threads, placed, strict=True) for r in _rests(day, t, p)]
        late = outside = tight = 0
        ready = []
        for dough, thread, where in zip(doughs, threads, placed, strict=True):
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
        bound = max(min(least, cost), 0.0)
        gap_pct = 100 * (cost - bound) / cost if cost > 1e-9 else 0.0
        figures = Figures(day, self.kitchen, threads, placed, search.busy)
        return Timetable(
            day.name, tuple(tasks), tuple(rests), tuple(ready), gives_of(figures),
            self._hours(), tuple(self._moved(tasks)), round(cost, 2), round(bound, 2),
            round(gap_pct, 2), late, outside, tight, round(seconds, 2),
            self._duties(),
        )  # fmt: skip

    def _tasks(self, threads: Sequence[Thread], placed: Sequence[Placed]) -> list[Task]:
        day = self.day
        hands, ovens, who = self.search.hands, self.search.together, day.who
        tasks = []
        for thread, where in zip(threads, placed, strict=True):
            for k, job in enumerate(thread.jobs):
                along = k < thread.trunk and thread.leader is not None
                start, end = where.starts[k], thread.ended(where.starts, k)
                hand = hands.get((thread.dough, k))
                whose = thread.leader if along else ovens.get((thread.dough, k))
                tasks.append(
                    Task(
                        thread.dough, job.step, job.name, day.at(start), day.at(end),
                        1 if hand else 0, who[hand[0]][hand[1]] if hand else None,
                        None if whose else job.machine, whose,
                        k < len(thread.done), job.step in thread.held,
                    )
                )  # fmt: skip
        return sorted(tasks, key=lambda t: (t.starts, t.dough))

    def _duties(self) -> tuple[Duty, ...]:
        """Everybody's day, in the order of the shifts."""
        day, pause, who = self.day, self.search.prices.pause, self.day.who
        placed, at = self.search.placed, dict[str, list[tuple[int, int]]]()
        for (dough, k), (shift, hand) in sorted(self.search.hands.items(), key=lambda one: one[1]):
            thread, where = self.search.threads[dough], placed[dough]
            at.setdefault(who[shift][hand], []).append(
                (where.starts[k], thread.ended(where.starts, k))
            )
        found = []
        for name, times in at.items():
            stretches: list[Spell] = []
            until = min(times)[0]
            for starts, ends in sorted(times):
                if stretches and starts <= until + pause:
                    starts = day.minute(stretches.pop().starts)
                until = max(until, ends)
                stretches.append(Spell(day.at(starts), day.at(until)))
            work = sum(ends - starts for starts, ends in times)
            found.append(Duty(name, tuple(stretches), work))
        return tuple(found)

    def _hours(self) -> tuple[Hours, ...]:
        there = np.sum([line.there for line in self.search.busy.hands], axis=0)
        taken = np.sum([line.taken for line in self.search.busy.hands], axis=0)
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
        search = self.search
        reasons = Reasons(
            search.threads, search.placed, search.busy, search.prices.outside, search.together
        )
        number = {
            (dough, job.step): k
            for dough, thread in search.threads.items() for k, job in enumerate(thread.jobs)
        }  # fmt: skip
        were = {(t.dough, t.step): t.starts for t in self.since.before}
        for task in tasks:
            was = were.get((task.dough, task.step))
            if task.done or was is None or abs((task.starts - was).total_seconds()) < 60:
                continue
            by = round((task.starts - was).total_seconds() / 60)
            says = f"{span(abs(by))} {'later' if by > 0 else 'earlier'}"
            k = number[task.dough, task.step]
            because = reasons.why(task.dough, k, self.day.minute(was))
            if because:
                says = f"{says}, because {because}"
            yield Shifted(task.dough, task.step, task.name, was, task.starts, says)


def _rests(day: Day, thread: Thread, placed: Placed) -> Iterator[Resting]:
    for k, gap in enumerate(thread.gaps):
        ended, begins = thread.ended(placed.starts, k), placed.starts[k + 1]
        minutes = begins - ended
        for where, a, b in spans(gap, ended, begins):
            yield Resting(
                thread.dough, gap.step, where, day.at(a), day.at(b), minutes, gap.chosen,
                thread.verdict(placed.starts, k),
            )  # fmt: skip
