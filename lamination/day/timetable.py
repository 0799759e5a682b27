"""The timetable of a day: every task of every dough with its hand and machine, every rest judged.

An answer is there at once; :func:`arranged` gives better ones as long as it may. Between two goes the
dough of every thread is followed at the hours it has then, so that its rests are judged as they are.
"""

from __future__ import annotations

import math
import os
import time
from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from typing import NamedTuple

from lamination.day.abreast import look, with_each
from lamination.day.at_hand import ready
from lamination.day.bound import Bounding
from lamination.day.busy import Busy, Placed
from lamination.day.day import Day, Dough
from lamination.day.gives import Give
from lamination.day.loom import Ints, Pull, prices_of
from lamination.day.marks import as_placed, windows_of
from lamination.day.mending import mended, worst
from lamination.day.mixed import mixed_together
from lamination.day.search import Search
from lamination.day.since import Since, Went, all_gone_on, happened
from lamination.day.telling import Telling
from lamination.day.threads import (
    Thread,
    careful,
    steady,
    thread_of,
    wary,
    with_marks,
)
from lamination.day.told import Task, Timetable
from lamination.kitchen.kitchen import Kitchen
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import span
from lamination.warmth.bodies import Today

_AFTERWARDS = 12 * 60  # minutes beyond the day in which what cannot be had is still priced
# of the time: the last of it, in which the bound is raised, and longer where there is something to mend
_PROVING, _MENDING = 0.05, 0.09
# of the time, and in seconds: until the doughs are followed again where all give way to each other anew, and
# where they do from where they lie
_ANEW, _ANEW_LEAST, _ANEW_MOST = 0.22, 1.6, 12.0
_NEAR, _NEAR_LEAST, _NEAR_MOST = 0.085, 0.8, 4.0
# how often all give way anew before the best is gone on from, and from where they lie after each
_BEGINNINGS, _SETTLES = 2, 2
_PATIENCE = 5  # times without a better day until all give way to each other anew once more
_CARE = 3  # minutes that rests are kept inside their marks where all give way anew
_PULL = 0.03  # and where not, what it costs a minute that a rest is not as long as it was judged
_SURPRISE = 5.0  # by how much a rest is judged dearer for others like it to keep within its edge
_AT_ONCE = 2  # searches side by side, where there are cores for them
_TRIES = 6
_HARDLY = 10.0  # tight minutes for which not all of a day is moved
_LOOKED_S = 2.0  # what was looked for so long is gone on from, and not begun anew
_NEIGHBOURS = 40  # tries in which others make way for what no longer fits where it lay
# what a task that moves costs at once, and each minute: one that is due soon, and any other
_CALM, _STEADY = (400.0, 4.0), (0.25, 0.05)


def timetable(
    day: Day, kitchen: Kitchen, seconds: float = 0.0, since: Since | None = None,
    before: Timetable | None = None, steady: bool = False,
) -> Timetable:  # fmt: skip
    """The best timetable found in so many seconds; at 0 the first there is.

    Raises :class:`Faults` for a dough that is longer than the day. With ``since`` what has happened
    stays, what is due soon stays where it can, and the rest is arranged again. ``before``: what a day not
    begun yet had; what is found is no worse than that was. ``steady``: only what gains by it moves from
    there, as it does at 0 seconds.
    """
    *_, last = arranged(day, kitchen, seconds, since, before, steady=steady)
    return last


def hardly_more(found: Timetable, before: Timetable | None) -> bool:
    """Whether a changed day gives up hardly more than it did, so that nobody need look longer."""
    return before is not None and found.cost <= before.cost + _HARDLY


def arranged(
    day: Day,
    kitchen: Kitchen,
    seconds: float,
    since: Since | None = None,
    before: Timetable | None = None,
    *,
    steady: bool = False,
    stop: Callable[[], bool] = lambda: False,
) -> Iterator[Timetable]:
    """Timetables: the first at once, the last in time, its rests judged by the minutes they have there."""
    ready()
    began = time.monotonic()
    cores = min(os.cpu_count() or 1, _AT_ONCE) if seconds > 0 else 1
    had, before = before, None if since else before
    if anew := before is not None and before.seconds < min(seconds, _LOOKED_S):
        before = None  # so little was looked for it that a search does better to begin anew
    looked = before.seconds if before else 0.0
    stays = before.tasks if before and (steady or seconds <= 0) else ()
    arranging = _Arranging(day, kitchen, since, cores, stays)
    arranging.begin(before)
    arranging.prove(0.0)
    yield arranging.told(looked + time.monotonic() - began)
    if seconds > 0:
        arranging.look(began + seconds * (1 - _PROVING), (_MENDING - _PROVING) * seconds, stop)
    if seconds > 0:
        # the last of the time goes into what it must cost at the least, and what would mend it
        until = time.monotonic() if stop() else began + seconds
        with ThreadPoolExecutor(1) as pool:
            proving = pool.submit(arranging.prove, until, stop)
            gives = arranging.mended(until)
            proving.result()
        found = arranging.told(round(looked + time.monotonic() - began, 2))
        yield replace(found, gives=gives)
        if anew and had and found.cost > had.cost:
            stayed = timetable(day, kitchen, before=had)
            if stayed.cost < found.cost:
                yield stayed


class _Judged(NamedTuple):
    """A day whose rests were judged as it lies: what it weighs, where all lie, and by which marks.

    ``mends``: there is something in it that more of something might mend.
    """

    weighed: float
    lying: tuple[Ints, Ints, Ints]
    marked: dict[str, Thread]
    mends: bool


class _Arranging:
    """A day under way to its timetable."""

    def __init__(
        self, day: Day, kitchen: Kitchen, since: Since | None, at_once: int = 1,
        stays: Sequence[Task] = (),
    ) -> None:  # fmt: skip
        self.day, self.kitchen, self.since = day, kitchen, since
        gone = set(since.given_up) if since else set()
        if not {d.id for d in day.doughs} - gone:
            raise Faults(Fault("doughs", "Every dough of this day was stopped."))
        threads = [
            self._thread(i, dough) for i, dough in enumerate(day.doughs) if dough.id not in gone
        ]
        self.plans = {d.id: d.plan for d in day.doughs}
        self.threads = mixed_together(threads, self.plans, kitchen)
        self.longer = replace(day, ends=day.at(day.minutes + _AFTERWARDS)) if (
            day.minutes + _AFTERWARDS <= 8 * 24 * 60) else day  # fmt: skip
        now = max(day.minute(since.now), 0) if since else 0
        self.busy = Busy(self.longer, kitchen, now)
        self.prices = prices_of(kitchen, day.prefer)
        pulls = self._pulls(now, stays)
        self.search = Search(self.threads, self.busy, self.prices, not_before=now, pulls=pulls)
        self.as_before: _Judged | None = None  # where all lay before, of a day not begun yet
        # the threads with the marks they were judged by last
        self.marked = {t.dough: t for t in self.threads}
        # of a plan's rests, between what edges they were good where one was found beyond them
        self.edges: dict[str, dict[str, tuple[int, int | None]]] = {}
        self.searches = [self.search, *(
            Search(
                self.threads, Busy(self.longer, kitchen, now), self.prices, not_before=now, pulls=pulls,
                seed=1 + n,
            )
            for n in range(1, at_once)
        )]  # fmt: skip
        self.bounding = Bounding(
            Busy(self.longer, kitchen, now),
            replace(self.prices, linger=0.0, stretch=0.0, long=0.0),
            not_before=now,
        )

    def _thread(self, i: int, dough: Dough) -> Thread:
        day, kitchen = self.day, self.kitchen
        try:
            windows = windows_of(dough.plan, kitchen, Today())
            wanted = day.minute(dough.ready_at)
            thread = thread_of(dough.id, dough.plan, wanted, kitchen, windows, dough.goes_on)
        except Faults as wrong:
            raise Faults(*(f.under(f"doughs[{i}].plan") for f in wrong.faults)) from None
        thread = replace(
            thread, held={h.step: day.minute(h.at) for h in day.held if h.dough == dough.id}
        )
        if self.since:
            return happened(thread, day, self.since)
        if thread.least_min > day.minutes:
            text = (
                f"This dough takes {span(thread.least_min)} at the least, and the whole day is "
                f"{span(day.minutes)}. Begin the day earlier."
            )
            raise Faults(Fault(f"doughs[{i}].ready_at", text))
        return thread

    def _pulls(self, now: int, stays: Sequence[Task]) -> dict[str, dict[str, Pull]]:
        calm = now + round(self.kitchen["day.calm_min"]) if self.since else 0
        found: dict[str, dict[str, Pull]] = {}
        for task in self.since.before if self.since else stays:
            minute = self.day.minute(task.starts)
            pull = Pull(max(minute, now), *(_CALM if minute <= calm else _STEADY))
            found.setdefault(task.dough, {})[task.step] = pull
        return found

    def begin(self, before: Timetable | None) -> None:
        """The first day there is; where it lay before, as far as that can be, or a better one."""
        tasks = self.since.before if self.since else before.tasks if before else ()
        if not tasks:
            self.search.begin()
            return
        lay = all_gone_on(self.threads, tasks, self.day, self.busy.now)
        self.search.lie(lay)
        self.search.put(*(thread.dough for thread in self.threads if thread.dough not in lay))
        if not before:
            self.search.ease()
            self.search.begin()
            return

        def make_way() -> None:
            self.search.improve(math.inf, rounds=_NEIGHBOURS, making_way=True)

        # judged as it lies; others move where more is given up so, and all lie anew where it still is
        self.as_before = self.follow(math.inf)
        for way in (self.search.ease, make_way, self.search.begin):
            if self.search.given <= before.cost + 1e-6:
                break
            way()
            found = self.follow(math.inf)
            if found and (self.as_before is None or found.weighed < self.as_before.weighed - 1e-6):
                self.as_before = found
        if self.as_before:
            self._go_on_from(self.as_before)

    def look(self, until: float, mending: float, stop: Callable[[], bool]) -> None:
        """Look for better until a moment, and follow the doughs at the hours that they have on the way.

        At the end lies what gave up least of all that was judged as it lay. ``mending``: how much earlier
        to end where there is something to mend.
        """
        now = time.monotonic()
        long = min(max(_ANEW * (until - now), _ANEW_LEAST), _ANEW_MOST)
        short = min(max(_NEAR * (until - now), min(_NEAR_LEAST, (until - now) / 3)), _NEAR_MOST)
        took, worse, begun, settled = 0.0, 0, 0, 0
        best = self.as_before
        # one that is under way goes on from where it lay, judged as it would lie then
        going_on = self.since is not None
        if going_on:
            best = self.follow(until, stop)
            self.prove(0.0)
            if best and self.search.given <= self.bounding.least + 1e-6:
                return  # it gives up no more than it must, and nothing moves but what has to wait
        here, anew = best, best is None and not going_on
        self._keep_as_judged(anew)
        while (now := time.monotonic()) < until - took and not stop():
            each = long if anew else short
            # what would be left of the time is too little for another
            ends = now + each if until - took - now > 1.5 * each else until - took
            cost, lying = self.search.cost, self.search.as_it_lies()
            look(self.searches, ends, stop, anew, disturbed=going_on and settled == 0)
            if here is None and self.search.cost > cost:
                self.search.restore(lying)  # there was too little time to begin anew
            now = time.monotonic()
            found = self.follow(math.inf if best else until, stop)
            if found is None:
                break
            took = time.monotonic() - now
            worse += 1
            begun, settled = (begun + 1, 0) if anew else (begun, settled + 1)
            if anew or here is None or found.weighed < here.weighed - 1e-6:
                here, worse = found, 0
            if best is None or here.weighed < best.weighed - 1e-6:
                until += mending * (bool(best and best.mends) - here.mends)
                best = here
            again = begun < _BEGINNINGS and settled >= _SETTLES
            if begun == _BEGINNINGS and settled == _SETTLES:
                here = best
            anew = worse > _PATIENCE or (again and until - now > long + short)
            anew = anew and not going_on
            self._go_on_from(here)
            self._keep_as_judged(anew)
        if best:
            self._go_on_from(best)
        else:
            # no time to follow them all
            self._keep(lambda thread, _: thread)
            look(self.searches, until, stop)

    def _go_on_from(self, judged: _Judged) -> None:
        self.marked = dict(judged.marked)
        for dough, thread in judged.marked.items():
            self.search.again(dough, thread)
        self.search.restore(judged.lying)

    def _keep_as_judged(self, anew: bool) -> None:
        """Look with rests inside the marks they have now, and where not all give way anew, as long as now."""
        if anew:
            self._keep(lambda thread, _: careful(thread, _CARE))
        else:
            self._keep(lambda thread, starts: steady(thread, starts, _PULL))

    def _keep(self, how: Callable[[Thread, Sequence[int]], Thread]) -> None:
        """Look with threads that keep so to the marks and the starts they have now."""
        starts = {dough: placed.starts for dough, placed in self.search.placed.items()}
        kept = {
            dough: wary(how(thread, starts[dough]), self.edges.get(thread.name, {}), starts[dough])
            for dough, thread in self.marked.items()
        }

        def keep(search: Search) -> None:
            for dough, thread in kept.items():
                search.again(dough, thread)
            search.weigh()

        with_each(self.searches, keep)

    def _learn(self, dough: str, judged: Thread, lasted: Sequence[int]) -> None:
        """Remember the edges of rests that were judged worse than they were thought to be."""
        edges = self.edges.setdefault(judged.name, {})
        outside = self.prices.outside
        ahead = max(len(judged.done) - 1, 0)
        thought = self.search.threads[dough].gaps
        for was, gap, minutes in [*zip(thought, judged.gaps, lasted, strict=True)][ahead:]:
            if gap.price(minutes, outside, 0.0) < was.price(minutes, outside, 0.0) + _SURPRISE:
                continue
            low, high = edges.get(gap.step, (0, None))
            if minutes < gap.good_from:
                low = max(low, gap.good_from)
            elif gap.good_until is not None:
                high = min(gap.good_until, high or gap.good_until)
            edges[gap.step] = low, high

    def follow(self, until: float, stop: Callable[[], bool] = lambda: False) -> _Judged | None:
        """Judge the rests of every thread as they lie now; None where there was no time for all."""
        for dough, placed in self.search.placed.items():
            if stop() or time.monotonic() > until:
                return None
            thread = self.search.threads[dough]
            if len(thread.done) == len(thread.jobs):
                continue
            plan, today = self._as_it_goes(dough, thread, placed)
            lasted = [
                placed.starts[k + 1] - thread.ended(placed.starts, k)
                for k in range(len(thread.gaps))
            ]
            self.marked[dough] = with_marks(
                self.marked[dough], windows_of(plan, self.kitchen, today), lasted
            )
            self._learn(dough, self.marked[dough], lasted)
            self.search.again(dough, self.marked[dough])
        return _Judged(
            self.search.weighed,
            self.search.as_it_lies(),
            dict(self.marked),
            bool(worst(self.told(0.0).gives)),
        )

    def _as_it_goes(self, dough: str, thread: Thread, placed: Placed) -> Went:
        """The dough's plan with the rests it has in the day, and how warm it is then."""
        if self.since and dough in self.since.went:
            plan, today = self.since.went[dough]
            return Went(as_placed(plan, thread, placed, max(len(thread.done) - 1, 0)), today)
        at = self.day.at(placed.starts[0])
        hour = at.hour + (0.5 if at.minute >= 30 else 0.0)
        today = Today(begins_h=hour) if self.kitchen["room.swing_k"] else Today()
        return Went(as_placed(self.plans[dough], thread, placed), today)

    def mended(self, until: float) -> tuple[Give, ...]:
        """The compromises with what would mend them, each way tried from where the day lies."""
        found = self.told(0.0)

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
        telling = Telling(self.day, self.kitchen, self.search, self.since)
        return telling.timetable(self.bounding.least, seconds)

    def prove(self, until: float, stop: Callable[[], bool] = lambda: False) -> None:
        """Raise the bound: what the day must cost at the least, its rests judged as they are now."""
        self.bounding.begin([*self.search.threads.values()])
        self.bounding.better(self.search.given, until, stop)
