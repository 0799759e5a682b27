"""Why a task moved: what is in its way a minute nearer to where it was, or where it was itself."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from lamination.day.busy import Busy, Placed
from lamination.day.threads import Gap, Job, Thread
from lamination.terms.said import listed

Flags = npt.NDArray[np.bool_]


@dataclass(frozen=True, eq=False)
class Reasons:
    """A day as it lies, asked why its tasks lie where they do.

    ``outside``: the price of a minute that a rest cannot bear; ``together``: of a task that another dough's
    does as well, which dough that is.
    """

    threads: Mapping[str, Thread]
    placed: Mapping[str, Placed]
    busy: Busy
    outside: float
    together: Mapping[tuple[str, int], str]

    def why(self, dough: str, k: int, was: int) -> str:
        """Why a dough's ``k``-th task does not begin at the minute it was to, as words after "because".

        Empty where nothing is in its way: then it is for the sake of others, or as good.
        """
        thread, placed = self.threads[dough], self.placed[dough]
        leader = thread.leader if k < thread.trunk else None
        if whose := self.together.get((dough, k), leader):
            return f"it is done with dough {whose}"
        starts = placed.starts[k]
        for t in (starts + (1 if was > starts else -1), was):
            for reason in self._in_the_way(thread, placed, k, t):
                return reason
        return ""

    def _in_the_way(self, thread: Thread, placed: Placed, k: int, t: int) -> Iterator[str]:
        """What speaks against a minute, all other tasks where they are; its own dough's first."""
        starts, job = placed.starts, thread.jobs[k]
        if t < self.busy.now:
            yield "it has not begun yet"
        if k:
            ended, before = thread.ended(starts, k - 1), thread.jobs[k - 1].name
            if t < ended:
                yield f"{before} is done only then"
            yield from self._worse(
                thread.gaps[k - 1], starts[k] - ended, t - ended, f"after {before}"
            )
        if k < len(thread.gaps):
            ends, after = t + job.minutes, thread.jobs[k + 1].name
            if ends > starts[k + 1]:
                yield f"{after} begins then"
            now = starts[k + 1] - starts[k] - job.minutes
            yield from self._worse(thread.gaps[k], now, starts[k + 1] - ends, f"before {after}")
        elif t > max(starts[k], thread.ready - job.minutes):
            yield "it would else be late"
        yield from self._taken(thread, placed, k, t)
        yield from self._full(thread, placed, k, t)

    def _worse(self, gap: Gap, now: int, then: int, which: str) -> Iterator[str]:
        """Where a rest of ``then`` minutes is worse than the one it has now."""
        if then < 0:
            return
        if gap.price(then, self.outside, 0.0) > gap.price(now, self.outside, 0.0):
            rest = "rest" if gap.rests else "wait"
            yield f"its {rest} {which} would else be too {'short' if then < now else 'long'}"

    def _taken(self, thread: Thread, placed: Placed, k: int, t: int) -> Iterator[str]:
        """Where another has its machine then, or no hand is free."""
        job, begins = thread.jobs[k], placed.starts[k]
        minutes = np.arange(max(t, 0), min(t + job.minutes, self.busy.minutes))
        own = (minutes >= begins) & (minutes < begins + job.minutes)

        def short(line: int, mine: bool) -> Flags:
            left = self.busy.there[line, minutes] - self.busy.taken[line, minutes]
            return np.asarray(left + own * mine < 1)

        if job.machine:
            missing = short(self.busy.lines[job.machine], True)
            others = self._at(minutes[missing], thread.dough, lambda j: j.machine is job.machine)
            if others:
                yield f"the {job.machine.said} is with {others}"
        if job.held:
            able = self.busy.able(job)
            shorts = [short(h, h == placed.shifts[k]) for h in able]
            if not all(missing.any() for missing in shorts):
                return
            missing = np.logical_and.reduce(shorts)
            when = minutes[missing] if missing.any() else minutes
            there = self.busy.there[able][:, when].sum(axis=0)
            if not there.all():
                yield "nobody is there"
            elif others := self._at(when, thread.dough, lambda j: j.held):
                hands = "the hand is" if there.max() == 1 else "all hands are"
                yield f"{hands} at {others}"

    def _full(self, thread: Thread, placed: Placed, k: int, t: int) -> Iterator[str]:
        """Where there is no room for it to lie so much longer, after it or before it."""
        begins = placed.starts[k]
        if t < begins and k < len(thread.gaps):
            gap = thread.gaps[k]
            off = thread.jobs[k].minutes + gap.before_min
        elif t > begins and k:
            gap = thread.gaps[k - 1]
            off = -gap.after_min
        else:
            return
        line = self.busy.lines.get(gap.place)
        if line is not None:
            a, b = max(min(t, begins) + off, 0), max(t, begins) + off
            left = self.busy.there[line, a:b] - self.busy.taken[line, a:b]
            if (left < gap.takes).any():
                yield f"the {gap.place.said} is full"

    def _at(self, minutes: npt.NDArray[np.int64], but: str, takes: Callable[[Job], bool]) -> str:
        """The other doughs with such a task under way in some of these minutes."""
        if not len(minutes):
            return ""
        first, last = int(minutes[0]), int(minutes[-1])
        found = []
        for dough, placed in self.placed.items():
            thread = self.threads[dough]
            at = any(
                takes(job) and placed.starts[k] <= last and thread.ended(placed.starts, k) > first
                for k, job in enumerate(thread.jobs)
                if (dough, k) not in self.together and (k >= thread.trunk or not thread.leader)
            )
            if at and dough != but:
                found.append(f"dough {dough}")
        return listed(found)
