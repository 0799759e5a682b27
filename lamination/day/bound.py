"""What a day must cost at the least: every thread by itself, on minutes that have a price.

What is scarce is not shared out but paid for: a minute of a hand, a machine or a shelf has a price, at
most what it costs to go without, and every thread takes what it likes best at those prices. What all of
them pay, less the price of all there is, is never more than any timetable costs, whatever the prices
(a Lagrangian relaxation of the capacities). So prices rise where too many want the same minute and fall
where few do, and the bound rises with them.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace

import numpy as np

from lamination.day.busy import TAKEN, Busy, Line, Placed
from lamination.day.placing import Prices, Pull, placed_at
from lamination.day.threads import Costs, Thread

_GRAIN = 15  # minutes that share a price: fewer prices settle sooner
_STRIDE, _SHRINKS, _PATIENCE = 0.06, 0.7, 5
_FRESH = 0.3  # how much of a direction is what was seen last; the rest is what was seen before


class Priced(Line):
    """A thing whose minutes have prices: shares of what it costs to go without one."""

    def __init__(self, line: Line, unit: float) -> None:
        super().__init__(line.there)
        self.unit = unit
        self.ask(np.zeros(len(line.there)))

    def ask(self, share: Costs) -> None:
        """Set the prices; a minute that nobody has costs what it costs to go without it."""
        self.share = np.where(self.there <= 0, 1.0, np.clip(share, 0.0, 1.0))
        self._paid = np.concatenate(([0.0], np.cumsum(self.share)))
        self._price = None

    def missing(self, many: int) -> Costs:
        """The price of so many, summed from the first minute, in units of going without."""
        paid: Costs = many * self._paid
        return paid

    @property
    def all_of_it(self) -> float:
        """The price of everything that is there."""
        return self.unit * float((self.share * np.maximum(self.there, 0)).sum())

    def wanted(self) -> Costs:
        """How many more are wanted than there are, on average, in every stretch of equal price."""
        over = np.where(self.there > 0, self.taken - self.there, 0).astype(float)
        filled = np.concatenate((over, np.zeros(-len(over) % _GRAIN)))
        return np.asarray(filled.reshape(-1, _GRAIN).mean(axis=1))

    def asked(self) -> Costs:
        """The price of every stretch."""
        return self.unit * self.share[::_GRAIN]


class Bounding:
    """The bound of a day under way: ``least`` is the best that was proven of these threads."""

    def __init__(
        self,
        busy: Busy,
        prices: Prices,
        *,
        not_before: int = 0,
        pulls: Mapping[str, dict[str, Pull]] | None = None,
    ) -> None:
        """``busy``: a day in which nothing lies, which becomes the bound's own."""
        self.busy, self.prices = busy, prices
        self.not_before, self.pulls = not_before, pulls or {}
        crowded = busy.kitchen["day.crowded"]
        busy.hands = [Priced(line, TAKEN) for line in busy.hands]
        busy.machines = {m: Priced(line, TAKEN) for m, line in busy.machines.items()}
        busy.places = {p: Priced(line, crowded) for p, line in busy.places.items()}
        of_all = [*busy.hands, *busy.machines.values(), *busy.places.values()]
        self.lines = [line for line in of_all if isinstance(line, Priced)]
        self.least = 0.0
        self._best = [line.share for line in self.lines]

    def begin(self, threads: Sequence[Thread]) -> None:
        """These threads from now on, at the prices that were found for the ones before."""
        self.threads = [_without_trunk(t) if t.leader else t for t in threads]
        self._ask(self._best)
        self.least = self._tried()

    def better(self, known: float, until: float, stop: Callable[[], bool] = lambda: False) -> int:
        """Raise the bound until a moment of the monotonic clock; returns how often prices were tried.

        ``known``: what the best timetable costs, towards which the prices step.
        """
        stride, idle, tried = _STRIDE, 0, 0
        ways = [line.wanted() for line in self.lines]
        while time.monotonic() < until and not stop() and self.least < known:
            self._ask(self._best)
            # a price at either end of what it may be goes no further
            asked = [line.asked() for line in self.lines]
            steps = [
                np.where((way < 0) & (now <= 0) | (way > 0) & (now >= line.unit), 0.0, way)
                for line, way, now in zip(self.lines, ways, asked, strict=True)
            ]
            square = sum(float((step**2).sum()) for step in steps) * _GRAIN
            if square <= 0:
                break
            far = stride * (known - self.least) / square
            for line, step in zip(self.lines, steps, strict=True):
                by = np.repeat(step, _GRAIN)[: len(line.share)] * far / line.unit
                line.ask(line.share + by)
            tried += 1
            found = self._tried()
            ways = [
                _FRESH * line.wanted() + (1 - _FRESH) * way
                for line, way in zip(self.lines, ways, strict=True)
            ]
            if found > self.least:
                self.least, idle = found, 0
                self._best = [line.share for line in self.lines]
                continue
            idle += 1
            if idle > _PATIENCE:
                stride, idle = stride * _SHRINKS, 0
        return tried

    def _ask(self, shares: Sequence[Costs]) -> None:
        for line, share in zip(self.lines, shares, strict=True):
            line.ask(share)

    def _tried(self) -> float:
        """What is proven at the prices as they are; and what is taken at them."""
        for line in self.lines:
            line.taken[:] = 0
        found = 0.0
        for thread in self.threads:
            least, placed = self._least_of(thread)
            found += least
            self.busy.put(thread, placed)
        return found - sum(line.all_of_it for line in self.lines)

    def _least_of(self, thread: Thread) -> tuple[float, Placed]:
        """What a thread pays at the least: ripeness too has a price, less what is free of it."""
        best: tuple[float, Placed] | None = None
        good, bears = thread.ripe or (0, 0)
        outside = self.prices.outside
        for price, free in ((0.0, 0), (1.0, good), (outside, good + (outside - 1) * bears)):
            placed = placed_at(
                thread, self.busy, self.prices, price,
                not_before=self.not_before, pulls=self.pulls.get(thread.dough),
            )  # fmt: skip
            least = placed.cost - free
            if best is None or least > best[0]:
                best = least, placed
            if not thread.too_ripe(thread.ripening(placed.starts))[0]:
                break
        assert best
        return best


def _without_trunk(thread: Thread) -> Thread:
    """What is left of a thread after what another does for it."""
    n = thread.trunk
    return replace(
        thread, jobs=thread.jobs[n:], gaps=thread.gaps[n:], done=thread.done[n:], trunk=0, leader=None
    )  # fmt: skip
