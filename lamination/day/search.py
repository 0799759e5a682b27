"""The search: threads taken out of the day a few at a time and put back better.

A timetable is there at once: one thread after another, each where it costs least beside those that are
there. Putting one back is exact, so that what the search has to find is only who gives way to whom. It is
found by asking little for what is not there: some threads are taken out, or parts of some, and put back
where all costs less, while minutes that two want get dearer level by level, until nobody is in another's
way. At every level all minutes are moved at once too, each task staying after whom it comes after. Of a few
days found so the best is gone on from: it is warmed a little and cools again, a part of it is given up in
the same way, or a few threads are put where they like best for little and all minutes moved at once, so that
the others make way.
"""

from __future__ import annotations

import math
import random
import time
from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import TypeVar

import numpy as np

from lamination.day.at_hand import eased, moves, reach, tries, working
from lamination.day.busy import Busy, Placed
from lamination.day.loom import Ints, Prices, Pull, anywhere, strung
from lamination.day.loom import rest as rests_of
from lamination.day.ovens import gone_in
from lamination.day.threads import Thread

_One = TypeVar("_One")

_ORDERS = 24  # in which all are put at first, besides those of hours and of length
# what a missing minute costs at first, how that rises, and how much more where one is missing; how often
_CHEAP, _DEARER, _WANTED, _LEVELS = 0.05, 1.12, 1.3, 45
_SOON, _SOONER = 0.8, 1.5  # of the levels; after those it rises so, for all to be over in time
_LAST = 5  # levels' worth of time for what is found then
# how often all begin anew at most, in how many seconds each; of those: to make it better
_BEGINNINGS, _SHORTEST, _LONGEST, _BETTERED = 5, 0.7, 1.4, 0.25
# the same for a part of the day: what a missing minute costs, how that rises, how often; tries each time,
# and afterwards; from how long a part, min, to so many times that
_PART, _PART_DEARER, _PART_LEVELS, _PART_TRIES, _PART_AFTER = 0.1, 2.0, 12, 8, 10
_PART_MIN, _PART_MUCH = 60.0, 6.0
# how often all of the day is warmed, or a part of it gives way, and else so many tries: beside what is there,
# and in which others make way
_WARMED, _PARTS, _BESIDE, _TRIES = 0.4, 0.3, 40, 60
# a day that is warmed: for how many seconds it cools, from what a missing minute costs then, to so many
# times that, and for how much of that time it is made better
_WARM_S, _WARM, _HOT, _SETTLED = 0.25, 3.0, 10.0, 0.33
# how much dearer the day may become on the mean, of what it costs; in a part; where others make way, at
# first and at last
_WORSE, _PART_WORSE, _WARMER, _COOLER = 0.006, 3.0, 3.0, 0.3
_AT_A_TIME = 8  # tries between two looks at the clock


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
        self.busy, self.prices, self.pulls = busy, prices, pulls or {}
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
        """What is given up: less than what is weighed by what keeps a day that is under way calm."""
        return self.weighed - sum(
            float(pulls[job.step].price(np.array(start)))
            for dough, placed in self.placed.items()
            if (pulls := self.pulls.get(dough))
            for job, start in [*zip(self.threads[dough].jobs, placed.starts, strict=True)][
                placed.free :
            ]
            if job.step in pulls
        )

    @property
    def weighed(self) -> float:
        """What days are chosen by: less than the cost by what only settles ties.

        Those are the days of its hands, and other minutes than planned where both are good.
        """
        outside, linger = self.prices.outside, self.prices.linger
        return float(moves().given(self.loom)) - sum(
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

    @property
    def hands(self) -> dict[tuple[str, int], tuple[int, int]]:
        """The shift of every task that takes a hand, and which of its hands."""
        of, hand = self.loom, np.full(self.loom.starts.shape, -1, np.int64)
        working().shared_out(of, hand)
        return {
            (dough, k): (int(of.shifts[i, k]), int(hand[i, k]))
            for dough, i in self.number.items() for k in np.flatnonzero(hand[i] >= 0).tolist()
        }  # fmt: skip

    def put(
        self, *doughs: str, most: float = math.inf,
        parts: Mapping[str, tuple[int, int]] | None = None,
    ) -> float:  # fmt: skip
        """Put threads where each costs least beside the others; returns what the day costs then.

        ``parts``: the first and the last task of each that may go elsewhere; otherwise all may. Where the
        day would cost more than ``most`` it is as it was: infinite.
        """
        order = self._leaders_first(doughs)
        of, which = self.loom, self._numbers(order)
        limits = np.stack((of.free[which], of.threads["jobs"][which] - 1), axis=1)
        if parts:
            limits = np.array([parts[d] for d in order], np.int64)
        return float(moves().again(of, which, limits, np.zeros(len(order), np.int64), most))

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
        # where nobody else works, every task is apart
        prices, stretch = self.loom.prices, self.loom.prices["stretch"].copy()
        prices["stretch"] = 0.0
        moves().weigh(self.loom)
        for i in self.number.values():
            reach().reached(self.loom, i)
            reach().spanned(self.loom, i)
        prices["stretch"] = stretch
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

    def lie(self, starts: Mapping[str, Sequence[int]]) -> None:
        """All threads at these minutes, with whoever misses the fewest hands."""
        for dough in self._leaders_first(sorted(starts, key=lambda d: starts[d][-1])):
            i = self.number[dough]
            self.loom.starts[i, : len(starts[dough])] = starts[dough]
            moves().stood(self.loom, i)

    def begin(self) -> None:
        """All threads, in the best of a few orders; or as they lie, where that is better."""
        by_ready = sorted(self.threads, key=lambda d: (self.threads[d].ready, d))
        by_length = sorted(self.threads, key=lambda d: -self.threads[d].least_min)
        best, kept = self.cost if self.loom.lies.all() else math.inf, self.as_it_lies()
        others = [self._shuffled(by_ready) for _ in range(_ORDERS)]
        for order in (by_ready, by_ready[::-1], by_length, *others):
            for dough in self.placed:
                self.take(dough)
            cost = self.put(*order, most=best)
            if cost < best - 1e-6:
                best, kept = cost, self.as_it_lies()
        self.restore(kept)

    def begin_anew(self, until: float, stop: Callable[[], bool] = lambda: False) -> None:
        """All give way to each other, a few times from other orders; they lie as they lay best then."""
        best, kept = math.inf, self.as_it_lies()
        left = until - time.monotonic()
        each = left / max(min(int(left / _SHORTEST), _BEGINNINGS), math.ceil(left / _LONGEST), 1)
        while (left := until - time.monotonic()) > 0.5 * each and not stop():
            if best < math.inf:
                self._all_anew()
            ends = time.monotonic() + min(each, left)
            self.give_way((1 - _BETTERED) * min(each, left), _CHEAP, stop)
            self.improve(ends, stop, making_way=True)
            if self.cost < best - 1e-6:
                best, kept = self.cost, self.as_it_lies()
        self.restore(kept)

    def explore(self, until: float, stop: Callable[[], bool] = lambda: False) -> None:
        """Warm the day a little, let a part of it give way, or others make way, and go on from there.

        Until a moment of the monotonic clock; at the end all lies where it lay best.
        """
        best = here = self.cost
        kept = where = self.as_it_lies()
        while time.monotonic() < until and not stop():
            way = self.chance.random()
            if way < _WARMED:
                self.warm(until, stop)
            elif way < _WARMED + _PARTS:
                self.part_gives_way()
            else:
                self.improve(until, stop, _BESIDE)
                self.improve(until, stop, _TRIES, making_way=True)
            if self.cost > here - _PART_WORSE * math.log(1 - self.chance.random()):
                self.restore(where)
                continue
            here, where = self.cost, self.as_it_lies()
            if here < best - 1e-6:
                best, kept = here, where
        self.restore(kept)

    def warm(self, until: float, stop: Callable[[], bool] = lambda: False) -> None:
        """Let all of the day give way a little, from where it lies, and cool again."""
        seconds = min(_WARM_S, until - time.monotonic())
        self.give_way(seconds, _WARM * _HOT ** self.chance.random(), stop)
        ends = min(time.monotonic() + _SETTLED * seconds, until)
        self.improve(ends, stop, making_way=True)

    def part_gives_way(self) -> None:
        """Let what is in some part of the day give way to each other, while nothing else becomes cheap.

        The part is before some dough's hour or around one of its tasks, one more often that costs more
        than it would by itself.
        """
        of, chance = self.loom, self.chance
        more = np.maximum(of.own - of.alone, 0.0) + 1.0
        i = chance.choices(range(len(more)), more.tolist())[0]
        long = _PART_MIN * _PART_MUCH ** chance.random()
        end = int(of.threads[i]["ready"]) + _PART_MIN / 2
        if chance.random() < 0.5:
            last = int(of.threads[i]["jobs"]) - 1
            end = int(of.starts[i, chance.randint(min(int(of.free[i]), last), last)]) + long / 2
        moves().ask(of, _PART, int(end - long), int(end))
        for n in range(_PART_LEVELS):
            if n:
                moves().dearer(of, _PART_DEARER, _WANTED)
            self.improve(math.inf, rounds=_PART_TRIES)
            self.ease()
            if n and not self.short_min:
                break
        self.all_cost()
        self.ease()
        self.improve(math.inf, rounds=_PART_AFTER, making_way=True)

    def all_cost(self) -> None:
        """Ask for what is missing what it costs."""
        moves().ask(self.loom, math.inf, 0, self.busy.minutes)

    def _all_anew(self) -> None:
        """All threads out, and put back in some other order."""
        for dough in self.placed:
            self.take(dough)
        self.put(*self._shuffled(sorted(self.threads)))

    def ease(self) -> None:
        """Move all minutes at once to where the day costs least in the order that it has."""
        eased().ease(self.loom, tries().PIVOTS)

    def give_way(
        self, seconds: float, cheap: float, stop: Callable[[], bool] = lambda: False
    ) -> None:
        """Look for better while what is not there costs so little, and then more, for so many seconds.

        Who has another way takes it while that is cheap, and the dearer minutes settle the rest. At the
        end, or once nothing is missing, a missing minute costs what it does.
        """
        began, each = time.monotonic(), seconds / (_LEVELS + _LAST)
        for n in range(_LEVELS):
            if n:
                moves().dearer(self.loom, _DEARER if n < _SOON * _LEVELS else _SOONER, _WANTED)
            else:
                moves().ask(self.loom, cheap, 0, self.busy.minutes)
            self.improve(began + each * (n + 1), stop)
            self.ease()
            if not self.short_min or stop():
                break
        self.all_cost()
        until = began + seconds
        self.improve(until if self.short_min else min(time.monotonic() + _LAST * each, until), stop)
        self.ease()

    def all_give_way(self, until: float, stop: Callable[[], bool] = lambda: False) -> None:
        """All give way to each other until a moment; as they lie now, where that comes to nothing better."""
        cost, kept = self.cost, self.as_it_lies()
        self.give_way(until - time.monotonic(), _CHEAP, stop)
        if self.cost > cost:
            self.restore(kept)

    @property
    def short_min(self) -> int:
        """Minutes of hands, machines and places that are taken and not there."""
        return int(self.loom.over.sum())

    def as_it_lies(self) -> tuple[Ints, Ints, Ints]:
        """Where all threads lie, to be restored."""
        of = self.loom
        return of.starts.copy(), of.shifts.copy(), of.lies.copy()

    def restore(self, kept: tuple[Ints, Ints, Ints]) -> None:
        """The day as it lay before."""
        tries().restored(self.loom, *kept)

    def improve(
        self, until: float, stop: Callable[[], bool] = lambda: False, rounds: int | None = None,
        *, making_way: bool = False,
    ) -> int:  # fmt: skip
        """Better and better until a moment of the monotonic clock; returns how often it tried.

        ``stop`` is asked before every try. ``rounds``: at most so many tries, for a search that is the
        same on every machine. ``making_way``: others make way for what is put back, where nothing is
        cheaper than it is.
        """
        of, kept, best = self.loom, self.as_it_lies(), self.cost
        dice = np.array([self.chance.getrandbits(63) | 1], np.uint64)
        state, done = np.array([best, best, 0.0, _WORSE * best]), 0
        began = time.monotonic()
        most = math.inf if rounds is None else rounds
        while (now := time.monotonic()) < until and not stop() and done < most:
            times = int(min(_AT_A_TIME, most - done))
            if making_way:
                over = (now - began) / (until - began) if rounds is None else done / rounds
                state[tries().DEARER] = _WARMER * (_COOLER / _WARMER) ** over
            tries().tried(of, dice, state, *kept, times, making_way)
            done += times
        if state[tries().BEST] < state[tries().NOW] - 1e-6:
            self.restore(kept)
        return done

    def _shuffled(self, of: Sequence[_One]) -> list[_One]:
        mixed = list(of)
        self.chance.shuffle(mixed)
        return mixed

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
