"""The search: threads taken out of the day a few at a time and put back better.

A timetable is there at once: one thread after another, each where it costs least beside those that are
there. Putting one back is exact, so that what the search has to find is only who gives way to whom. It is
found by asking little for what is not there: some threads are taken out, or parts of some, and put back
where all costs less, while minutes that two want get dearer level by level, until nobody is in another's
way. At every level all minutes are moved at once too, each task staying after whom it comes after. What
comes of it is made better in the same way.
"""

from __future__ import annotations

import math
import random
import time
from collections.abc import Callable, Iterable, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from functools import cache
from types import ModuleType
from typing import TypeVar

import numpy as np

from lamination.day.busy import Busy, Placed
from lamination.day.loom import Floats, Ints, Prices, Pull, anywhere, strung
from lamination.day.loom import rest as rests_of
from lamination.day.ovens import gone_in
from lamination.day.threads import Thread

_One = TypeVar("_One")

_ORDERS = 24  # in which all are put at first, besides those of hours and of length
_MOST_OUT = 4  # threads taken out at once
_MOST_BETWEEN = 4  # threads of which parts are taken out at once
_FAR = 30.0, 240.0  # how far from its middle the stretch reaches that the parts lie in, min
_WHOLE = 0.4  # how often whole threads are taken out
_WORSE = 0.03  # of the cost: how much worse the search may step to get on
_FOR_ITSELF = 0.15  # how often one that mixes for others is put where it costs least by itself
# what a missing minute costs at first, how that rises, and how much more where one is missing; how often
_CHEAP, _DEARER, _WANTED, _LEVELS = 0.3, 1.12, 1.3, 45
_LAST = 5  # levels' worth of time for what is found then
_EXPLORED = 0.85  # of the time until all have given way to each other
_EASED = 4  # how often that is done on the way to what is left of the time
_PIVOTS = 2_000  # when all minutes are moved at once, at the most
_IDLE = 60  # tries without a better day before it goes on from the best again


@cache
def moves() -> ModuleType:
    """The compiled loops; their compiler takes half a second to import, so only where they are needed."""
    from lamination.day import moves as compiled

    return compiled


@cache
def reach() -> ModuleType:
    """Those that say where a search need not look; likewise."""
    from lamination.day import reach as compiled

    return compiled


@cache
def eased() -> ModuleType:
    """Those that move all minutes at once; likewise."""
    from lamination.day import eased as compiled

    return compiled


def ready() -> None:
    """Have the compiled loops at hand before somebody waits for them."""
    moves(), reach(), eased()


class Search:
    """A day being arranged: what lies where, what it costs, and the best of all seen."""

    def __init__(
        self,
        threads: Sequence[Thread],
        busy: Busy,
        prices: Prices,
        *,
        not_before: int = 0,
        pulls: Mapping[str, Mapping[str, Pull]] | None = None,
        seed: int = 1,
    ) -> None:
        self.threads = {t.dough: t for t in threads}
        self.number = {t.dough: i for i, t in enumerate(threads)}
        self.busy, self.prices = busy, prices
        self.loom = strung(threads, busy, prices, not_before=not_before, pulls=pulls)
        self.weigh()
        self.chance = random.Random(seed)
        self.followers: dict[str, list[str]] = {}
        for thread in threads:
            if thread.leader:
                self.followers.setdefault(thread.leader, []).append(thread.dough)

    @property
    def cost(self) -> float:
        """What the whole day costs as it lies."""
        return float(moves().cost(self.loom))

    @property
    def given(self) -> float:
        """What is given up: the cost, less that of other minutes than planned where both are good."""
        outside, linger = self.prices.outside, self.prices.linger
        return self.cost - sum(
            self.threads[dough].lingers(placed.starts, placed.free, outside, linger)
            for dough, placed in self.placed.items()
        )

    @property
    def placed(self) -> dict[str, Placed]:
        """Where the threads lie that are in the day."""
        of = self.loom
        return {
            d: Placed(
                tuple(of.starts[i, : len(self.threads[d].jobs)].tolist()),
                tuple(of.shifts[i, : len(self.threads[d].jobs)].tolist()), int(of.free[i]),
            )
            for d, i in self.number.items() if of.lies[i]
        }  # fmt: skip

    @property
    def together(self) -> dict[tuple[str, int], str]:
        """The tasks that go into an oven with another dough's, each with whose oven that is."""
        of, found = self.loom, gone_in([*self.threads.values()], int(self.loom.room[0]))
        first: dict[tuple[int, int], str] = {}
        for dough, i in self.number.items():
            goes = (of.jobs[i]["load"] >= 0) & (of.shares[i] > 0) & (of.lies[i] > 0)
            for k in np.flatnonzero(goes).tolist():
                at = int(of.jobs[i, k]["load"]), int(of.starts[i, k])
                whose = first.setdefault(at, dough)
                if whose != dough:
                    found[dough, k] = whose
        return found

    def put(
        self, *doughs: str, most: float = math.inf, for_others: bool = False,
        parts: Mapping[str, tuple[int, int]] | None = None,
    ) -> float:  # fmt: skip
        """Put threads where each costs least beside the others; returns what the day costs then.

        ``parts``: the first and the last task of each that may go elsewhere; otherwise all may.
        ``for_others``: one that mixes for others is put, mostly, where it suits all of them, and else where
        it suits itself. Where the day would cost more than ``most`` it is as it was: infinite.
        """
        order = self._leaders_first(doughs)
        company = [for_others and self.chance.random() >= _FOR_ITSELF for _ in order]
        of, which = self.loom, self._numbers(order)
        limits = np.stack((of.free[which], of.threads["jobs"][which] - 1), axis=1)
        if parts:
            limits = np.array([parts[d] for d in order], np.int64)
        return float(moves().again(of, which, limits, np.array(company, np.int64), most))

    def _numbers(self, doughs: Sequence[str]) -> Ints:
        return np.array([self.number[d] for d in doughs], np.int64)

    def take(self, dough: str) -> None:
        """Take a thread out."""
        moves().whole(self.loom, self.number[dough], -1)

    def weigh(self) -> None:
        """Say of every thread what it costs at the least, in all and until each minute."""
        kept = self.as_it_lies()
        for dough in self.placed:
            self.take(dough)
        moves().weigh(self.loom)
        for i in self.number.values():
            reach().reached(self.loom, i)
            reach().spanned(self.loom, i)
        self.restore(kept)

    def again(self, dough: str, thread: Thread) -> None:
        """The same thread with other marks, where it lies; what it costs at the least is not known then."""
        self.threads[dough] = thread
        i = self.number[dough]
        rests_of(self.loom, i, thread, self.busy, self.prices)
        self.loom.alone[i] = 0.0
        self.loom.before[i] = 0.0
        self.loom.spans[i] = anywhere(1, 1, self.busy.minutes)[0, 0]
        if self.loom.lies[i]:
            moves().lay(self.loom, i)

    def begin(self) -> None:
        """All threads, in the best of a few orders."""
        by_ready = sorted(self.threads, key=lambda d: (self.threads[d].ready, d))
        by_length = sorted(self.threads, key=lambda d: -self.threads[d].least_min)
        best, kept = math.inf, self.as_it_lies()
        others = [self._shuffled(by_ready) for _ in range(_ORDERS)]
        for order in (by_ready, by_ready[::-1], by_length, *others):
            for dough in self.placed:
                self.take(dough)
            cost = self.put(*order, most=best)
            if cost < best - 1e-6:
                best, kept = cost, self.as_it_lies()
        self.restore(kept)

    def explore(
        self, until: float, stop: Callable[[], bool] = lambda: False, times: int = 3
    ) -> None:
        """Let all give way to each other, a few times until a moment of the monotonic clock.

        At first from where they lie, then each time from another order, for who comes where on the whole
        is settled early. At the end they lie where they lay best of all.
        """
        best, kept = self.cost, self.as_it_lies()
        for n in range(times):
            left = until - time.monotonic()
            if left <= 0 or stop():
                break
            if n:
                self._all_anew()
            self.give_way(left / (times - n), stop)
            if self.cost < best - 1e-6:
                best, kept = self.cost, self.as_it_lies()
        self.restore(kept)

    def _all_anew(self) -> None:
        """All threads out, and put back in some other order."""
        for dough in self.placed:
            self.take(dough)
        self.put(*self._shuffled(sorted(self.threads)))

    def ease(self) -> None:
        """Move all minutes at once to where the day costs least in the order that it has."""
        eased().ease(self.loom, _PIVOTS)

    def give_way(self, seconds: float, stop: Callable[[], bool] = lambda: False) -> None:
        """Look for better while what is not there costs little, and then more, for so many seconds.

        Who has another way takes it while that is cheap, and the dearer minutes settle the rest. At the
        end, or once nothing is missing, a missing minute costs what it does.
        """
        began, each = time.monotonic(), seconds / (_LEVELS + _LAST)
        people = len(self.loom.unit) - len(self.busy.places)
        for n in range(_LEVELS):
            moves().ask(self.loom, people, 0.0 if n else _CHEAP, _DEARER, _WANTED)
            self.improve(began + each * (n + 1), stop)
            self.ease()
            if not self.short_min or stop():
                break
        moves().ask(self.loom, people, math.inf, 0.0, 0.0)
        until = began + seconds
        self.improve(until if self.short_min else min(time.monotonic() + _LAST * each, until), stop)
        self.ease()

    @property
    def short_min(self) -> int:
        """Minutes of hands and machines that are taken and not there."""
        return int(self.loom.over[: len(self.loom.over) - len(self.busy.places)].sum())

    def as_it_lies(self) -> tuple[Ints, Ints, Ints]:
        """Where all threads lie, to be restored."""
        of = self.loom
        return of.starts.copy(), of.shifts.copy(), of.lies.copy()

    def restore(self, kept: tuple[Ints, Ints, Ints]) -> None:
        """The day as it lay before."""
        of = self.loom
        for i in np.flatnonzero(of.lies).tolist():
            moves().whole(of, i, -1)
        of.starts[:], of.shifts[:], lies = kept
        for i in np.flatnonzero(lies).tolist():
            moves().whole(of, i, 1)

    def improve(
        self, until: float, stop: Callable[[], bool] = lambda: False, rounds: int | None = None
    ) -> int:
        """Better and better until a moment of the monotonic clock; returns how often it tried.

        ``stop`` is asked before every try. ``rounds``: at most so many tries, for a search that is the
        same on every machine.
        """
        now = best = self.cost
        kept = self.as_it_lies()
        tried = idle = 0
        while time.monotonic() < until and not stop() and (rounds is None or tried < rounds):
            tried += 1
            idle += 1
            if idle > _IDLE:
                # nothing came of it: on from the best again
                self.restore(kept)
                now, idle = best, 0
            most = now + _WORSE * best * self.chance.random() ** 4
            parts = {} if self.chance.random() < _WHOLE else self._between()
            if parts:
                cost = self.put(*self._shuffled([*parts]), parts=parts, most=most)
            else:
                cost = self.put(*self._shuffled(self._chosen()), for_others=True, most=most)
            if cost <= most:
                now = cost
                if now < best - 1e-6:
                    best, kept, idle = now, self.as_it_lies(), 0
        if best < now - 1e-6:
            self.restore(kept)
        return tried

    def _shuffled(self, of: Sequence[_One]) -> list[_One]:
        mixed = list(of)
        self.chance.shuffle(mixed)
        return mixed

    def _drawn(self, of: Sequence[_One], weights: Floats) -> _One:
        return self.chance.choices(of, weights.tolist())[0]

    def _leaders_first(self, order: Iterable[str]) -> list[str]:
        """The same order, but no follower before the one that mixes for it."""
        found: dict[str, None] = {}
        order = [*order]
        for dough in order:
            leader = self.threads[dough].leader
            if leader and (leader in order or not self.loom.lies[self.number[leader]]):
                found[leader] = None
            found[dough] = None
        return [*found]

    def _chosen(self) -> list[str]:
        """Some threads to take out: near each other in time, dear ones more often; with who follows."""
        of, doughs = self.loom, list(self.threads)
        first = self._drawn(doughs, 1.0 + of.own + self._troubled().sum(axis=1))
        middles = self._middles()
        away = np.abs(middles - middles[self.number[first]]).tolist()
        near = sorted(
            (d for d in doughs if d != first),
            key=lambda d: away[self.number[d]] * self.chance.uniform(0.2, 1.8),
        )
        out = [first, *near[: self.chance.randint(0, _MOST_OUT - 1)]]
        for dough in list(out):
            # who mixes for others takes them along
            out += [f for f in self.followers.get(dough, []) if f not in out]
        return out

    def _between(self) -> dict[str, tuple[int, int]]:
        """The tasks of a few threads that begin between two moments: the first and the last of each."""
        of = self.loom
        doughs, jobs = [*self.threads], of.threads["jobs"]
        # what is done for others stays
        least = np.maximum(of.free, of.threads["along"] + 1)
        troubled = self._troubled()
        weights = np.where(least < jobs, 1.0 + of.own + troubled.sum(axis=1), 0.0)
        if not weights.any():
            return {}
        one = self._drawn(range(len(doughs)), weights)
        tasks = range(int(least[one]), int(jobs[one]))
        task = self._drawn(tasks, 1.0 + troubled[one, tasks.start : tasks.stop])
        middle, far = int(of.starts[one, task]), self.chance.uniform(*_FAR)
        found = {}
        for i in self._shuffled([*range(len(doughs))]):
            begin = of.starts[i, least[i] : jobs[i]]
            within = np.flatnonzero(np.abs(begin - middle) <= far)
            if len(within):
                found[doughs[i]] = int(least[i] + within[0]), int(least[i] + within[-1])
            if len(found) == _MOST_BETWEEN:
                break
        return found

    def _troubled(self) -> Floats:
        """What is asked of every task for what it takes that is not there."""
        found = np.zeros(self.loom.starts.shape)
        moves().trouble(self.loom, found)
        return found

    def _middles(self) -> Floats:
        """The middle of what is free of every thread."""
        of, all_of = self.loom, np.arange(len(self.loom.threads))
        last = of.threads["jobs"] - 1
        begun = of.starts[all_of, np.minimum(of.free, last)]
        middles: Floats = (begun + of.starts[all_of, last]) / 2
        return middles


def side_by_side(searches: Sequence[Search], run: Callable[[Search], object]) -> None:
    """Let searches of one day run at once, each on a core; all go on from the best that one found."""
    with ThreadPoolExecutor(len(searches)) as pool:
        for _ in pool.map(run, searches):
            pass
    best = min(searches, key=lambda search: search.cost)
    for search in searches:
        if search is not best:
            search.restore(best.as_it_lies())


def look(
    searches: Sequence[Search], until: float, stop: Callable[[], bool], times: int = 0
) -> None:
    """Look for better from where the first lies, until a moment of the monotonic clock.

    ``times``: how often all give way to each other before what is found is made better.
    """
    explored = time.monotonic() + _EXPLORED * (until - time.monotonic())

    def run(search: Search) -> None:
        search.explore(explored, stop, times)
        while (left := until - time.monotonic()) > 0 and not stop():
            search.improve(min(time.monotonic() + max(left / _EASED, 0.05), until), stop)
            search.ease()

    for search in searches[1:]:
        search.restore(searches[0].as_it_lies())
    side_by_side(searches, run)
