"""The search: threads taken out of the day a few at a time and put back better.

A timetable is there at once: one thread after another, each where it costs least beside those that are
there. Putting one back is exact, so that what the search has to find is only who gives way to whom. That
is negotiated: all may lie where they like, and minutes that too many want get dearer until nobody is in
another's way. What comes of it is made better by taking some out and putting them back in another order.
"""

from __future__ import annotations

import math
import random
import time
from collections.abc import Callable, Iterable, Mapping, Sequence

from lamination.day.busy import Busy, Placed
from lamination.day.placing import TO_THE_MINUTE, Prices, Pull, place, ripe_cost
from lamination.day.threads import Thread

_MOST_OUT = 4  # threads taken out at once
_WORSE = 0.03  # of the cost: how much worse the search may step to get on
_FOR_ITSELF = 0.5  # how often one that mixes for others is put where it costs least by itself
# of a negotiation: what a taken minute costs at first, how that rises, what stays, and how often at most
_CHEAP, _DEARER, _WANTED, _ROUNDS = (0.1, 0.5), 1.2, 0.3, 60
_SMOOTHED, _LEAST_S = 0.4, 0.05  # of its time: how long what it found is made better
_IDLE = 60  # tries without a better day before it goes on from the best again


class Search:
    """A day being arranged: what lies where, what it costs, and the best of all seen."""

    def __init__(
        self,
        threads: Sequence[Thread],
        busy: Busy,
        prices: Prices,
        *,
        not_before: int = 0,
        pulls: Mapping[str, dict[str, Pull]] | None = None,
        seed: int = 1,
    ) -> None:
        self.threads = {t.dough: t for t in threads}
        self.busy, self.prices = busy, prices
        self.not_before, self.pulls = not_before, pulls or {}
        self.chance = random.Random(seed)
        self.placed: dict[str, Placed] = {}
        self.hints: dict[str, float] = {}  # what ripening cost where it was too much
        self.own: dict[str, float] = {}  # what each costs by itself
        self.followers: dict[str, list[str]] = {}
        for thread in threads:
            if thread.leader:
                self.followers.setdefault(thread.leader, []).append(thread.dough)

    @property
    def cost(self) -> float:
        """What the whole day costs as it lies."""
        return self.busy.missing_cost() + sum(self.own[d] for d in self.placed)

    def put(self, dough: str, not_before: int = 0) -> None:
        """Put a thread where it costs least beside those that lie there, or a little later than that."""
        thread = self.threads[dough]
        trunk = self.placed[thread.leader].starts[: thread.trunk] if thread.leader else ()
        self.lay(dough, self._cheapest(dough, trunk, not_before))

    def _cheapest(self, dough: str, trunk: tuple[int, ...], not_before: int = 0) -> Placed:
        return place(
            self.threads[dough], self.busy, self.prices, trunk=trunk,
            not_before=max(not_before, self.not_before), pulls=self.pulls.get(dough), hints=self.hints,
        )  # fmt: skip

    def _put_back(self, dough: str) -> None:
        """Put a thread back; one that mixes for others at times nearer to when it suits one of them."""
        waiting = [f for f in self.followers.get(dough, []) if f not in self.placed]
        if not waiting or self.chance.random() < _FOR_ITSELF:
            self.put(dough)
            return
        suits = self._cheapest(self.chance.choice(waiting), ()).starts[0]
        # what suits the one may be too late for the other
        self.put(dough, round(suits * self.chance.choice((1.0, self.chance.random()))))

    def lay(self, dough: str, placed: Placed) -> None:
        """Lay a thread where it was."""
        self.placed[dough] = placed
        self.busy.put(self.threads[dough], placed)
        self.own[dough] = own_cost(self, dough)

    def take(self, dough: str) -> Placed:
        """Take a thread out."""
        placed = self.placed.pop(dough)
        self.busy.put(self.threads[dough], placed, -1)
        return placed

    def begin(self) -> None:
        """All threads, in the best of a few orders."""
        by_ready = sorted(self.threads, key=lambda d: (self.threads[d].ready, d))
        by_length = sorted(self.threads, key=lambda d: -self.threads[d].least_min)
        best: tuple[float, dict[str, Placed]] | None = None
        for order in (by_ready, by_ready[::-1], by_length):
            for dough in [*self.placed]:
                self.take(dough)
            for dough in self._leaders_first(order):
                self.put(dough)
            cost = self.cost
            if best is None or cost < best[0] - 1e-6:
                best = cost, dict(self.placed)
        assert best
        self.restore(best[1])

    def explore(self, until: float, stop: Callable[[], bool] = lambda: False) -> None:
        """Negotiate again and again until a moment of the monotonic clock, and keep the best day of all."""
        best, kept = self.cost, dict(self.placed)
        while time.monotonic() < until and not stop():
            began = time.monotonic()
            self.negotiate(until, stop)
            took = time.monotonic() - began
            self.improve(min(time.monotonic() + max(_SMOOTHED * took, _LEAST_S), until), stop)
            if self.cost < best - 1e-6:
                best, kept = self.cost, dict(self.placed)
            else:
                self.restore(kept)

    def negotiate(self, until: float, stop: Callable[[], bool] = lambda: False) -> None:
        """All threads at their best places, and then what too many want dearer until none do.

        A minute that is taken costs little at first and more each round, and what was wanted too often
        stays dear: who has another way takes it.
        """
        self.busy.taken = math.exp(self.chance.uniform(*map(math.log, _CHEAP)))
        leaders = [d for d in self.threads if not self.threads[d].leader]
        for _ in range(_ROUNDS):
            for dough in self._shuffled(leaders):
                out = [dough, *self.followers.get(dough, [])]
                for one in out:
                    self.take(one)
                for one in self._leaders_first(self._shuffled(out)):
                    self._put_back(one)
            if not self.busy.short_min or time.monotonic() > until or stop():
                break
            self.busy.want(_WANTED * self.busy.taken)
            self.busy.taken *= _DEARER
        self.busy.settle()

    def restore(self, placed: Mapping[str, Placed]) -> None:
        """The day as it lay before."""
        for dough in [*self.placed]:
            self.take(dough)
        for dough, where in placed.items():
            self.lay(dough, where)

    def improve(
        self, until: float, stop: Callable[[], bool] = lambda: False, rounds: int | None = None
    ) -> int:
        """Better and better until a moment of the monotonic clock; returns how often it tried.

        ``stop`` is asked before every try. ``rounds``: at most so many tries, for a search that is the
        same on every machine.
        """
        now = best = self.cost
        kept = dict(self.placed)
        tried = idle = 0
        while time.monotonic() < until and not stop() and (rounds is None or tried < rounds):
            tried += 1
            out = self._chosen()
            before = {d: self.take(d) for d in out}
            order = self._leaders_first(self._shuffled(out))
            for dough in order:
                self._put_back(dough)
            cost = self.cost
            idle += 1
            if idle > _IDLE:
                # nothing came of it: on from the best again
                self.restore(kept)
                now, idle = best, 0
                continue
            if cost <= now + _WORSE * best * self.chance.random() ** 4:
                now = cost
                if now < best - 1e-6:
                    best, kept, idle = now, dict(self.placed), 0
                continue
            for dough in out:
                self.take(dough)
            for dough, placed in before.items():
                self.lay(dough, placed)
        if best < now - 1e-6:
            self.restore(kept)
        return tried

    def _shuffled(self, doughs: list[str]) -> list[str]:
        mixed = list(doughs)
        self.chance.shuffle(mixed)
        return mixed

    def _leaders_first(self, order: Iterable[str]) -> list[str]:
        """The same order, but no follower before the one that mixes for it."""
        found: list[str] = []
        for dough in order:
            leader = self.threads[dough].leader
            for one in (leader, dough) if leader else (dough,):
                if one not in found and one not in self.placed:
                    found.append(one)
        return found

    def _chosen(self) -> list[str]:
        """Some threads to take out: near each other in time, dear ones more often; with who follows."""
        doughs = list(self.placed)
        weights = [1.0 + self.own[d] for d in doughs]
        first = self.chance.choices(doughs, weights)[0]
        middle = _middle(self.placed[first])
        near = sorted(
            (d for d in doughs if d != first),
            key=lambda d: abs(_middle(self.placed[d]) - middle) * self.chance.uniform(0.2, 1.8),
        )
        out = [first, *near[: self.chance.randint(0, _MOST_OUT - 1)]]
        for dough in list(out):
            # who mixes for others takes them along
            out += [f for f in self.followers.get(dough, []) if f not in out]
        return out


def _middle(placed: Placed) -> float:
    return (
        placed.starts[-1] + placed.starts[placed.free if placed.free < len(placed.starts) else 0]
    ) / 2


def own_cost(search: Search, dough: str) -> float:
    """What a thread costs by itself, wherever the others lie."""
    thread, placed = search.threads[dough], search.placed[dough]
    prices, cost = search.prices, 0.0
    pulls = search.pulls.get(dough, {})
    ended: int | None = None
    for k, job in enumerate(thread.jobs):
        start = placed.starts[k]
        happened = k < len(thread.done)
        if not happened and k >= placed.free:
            cost += search.busy.own_price(job, start)
            if job.step in thread.held:
                cost += TO_THE_MINUTE * min(abs(start - thread.held[job.step]), 60)
            if job.step in pulls:
                pull = pulls[job.step]
                away = abs(start - pull.minute)
                cost += pull.each * away + (pull.flat if away else 0.0)
            if k and ended is not None:
                gap = thread.gaps[k - 1]
                cost += gap.price(start - ended, prices.outside, prices.linger)
        ended = thread.done[k][1] if happened else start + job.minutes
    assert ended is not None
    return (
        cost
        + ripe_cost(*thread.too_ripe(thread.ripening(placed.starts)), prices)
        + prices.late * max(ended - thread.ready, 0)
        + prices.early * max(thread.ready - prices.early_from - ended, 0)
    )
