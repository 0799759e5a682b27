"""What a day must cost at the least: every thread by itself, on minutes that have a price.

What is scarce is not shared out but paid for: a minute of a hand, a machine or a shelf has a price, at
most what it costs to go without, and every thread takes what it likes best at those prices. What all of
them pay, less the price of all there is, is never more than any timetable costs, whatever the prices
(a Lagrangian relaxation of the capacities). So prices rise where too many want the same minute and fall
where few do, and the bound rises with them.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from dataclasses import replace

import numpy as np

from lamination.day.at_hand import moves
from lamination.day.busy import Busy
from lamination.day.loom import Prices, strung
from lamination.day.threads import Costs, Thread

_GRAIN = 15  # minutes that share a price: fewer prices settle sooner
_STRIDE, _SHRINKS, _PATIENCE = 0.06, 0.7, 5
_FRESH = 0.3  # how much of a direction is what was seen last; the rest is what was seen before


class Bounding:
    """The bound of a day under way: ``least`` is the best that was proven of these threads."""

    def __init__(self, busy: Busy, prices: Prices, *, not_before: int = 0) -> None:
        """``busy``: a day in which nothing lies, which becomes the bound's own."""
        self.busy, self.prices = busy, prices
        self.not_before = not_before
        # lines by minutes: shares of what it costs to go without
        self.nobody = busy.there <= 0
        self.least, self._best = 0.0, np.where(self.nobody, 1.0, 0.0)

    def begin(self, threads: Sequence[Thread]) -> None:
        """These threads from now on, at the prices that were found for the ones before."""
        self.loom = strung(
            [_without_trunk(t) if t.leader else t for t in threads], self.busy, self.prices,
            not_before=self.not_before,
        )  # fmt: skip
        # who may go into the oven with another may find it there for nothing
        jobs = self.loom.jobs
        jobs["machine"][jobs["load"] >= 0] = -1
        jobs["load"] = -1
        self._ask(self._best)
        self.least = self._tried()

    def better(self, known: float, until: float, stop: Callable[[], bool] = lambda: False) -> int:
        """Raise the bound until a moment of the monotonic clock; returns how often prices were tried.

        ``known``: what the best timetable costs, towards which the prices step.
        """
        stride, idle, tried = _STRIDE, 0, 0
        unit = self.busy.unit[:, None]
        way = self._wanted()
        while time.monotonic() < until and not stop() and self.least < known:
            # a price at either end of what it may be goes no further
            asked = unit * self._best[:, ::_GRAIN]
            step = np.where((way < 0) & (asked <= 0) | (way > 0) & (asked >= unit), 0.0, way)
            square = float((step**2).sum()) * _GRAIN
            if square <= 0:
                break
            far = stride * (known - self.least) / square
            by = np.repeat(step, _GRAIN, axis=1)[:, : self.busy.minutes] * far / unit
            self._ask(self._best + by)
            tried += 1
            found = self._tried()
            way = _FRESH * self._wanted() + (1 - _FRESH) * way
            if found > self.least:
                self.least, idle, self._best = found, 0, self.share
                continue
            idle += 1
            if idle > _PATIENCE:
                stride, idle = stride * _SHRINKS, 0
        return tried

    def _ask(self, share: Costs) -> None:
        """Set the prices; a minute that nobody has costs what it costs to go without it."""
        of = self.loom
        self.share = np.where(self.nobody, 1.0, np.clip(share, 0.0, 1.0))
        paid = np.cumsum(self.busy.unit[:, None] * self.share, axis=1)
        of.sums[:, 1:] = of.counts["many"][:, None] * paid[of.counts["line"]]
        # they are as they were asked, whatever is taken
        of.stale[:] = self.busy.minutes, 0

    def _wanted(self) -> Costs:
        """How many more are wanted than there are, on average, in every stretch of equal price."""
        over = np.where(self.nobody, 0, self.busy.taken - self.busy.there).astype(float)
        filled = np.pad(over, ((0, 0), (0, -over.shape[1] % _GRAIN)))
        return np.asarray(filled.reshape(len(over), -1, _GRAIN).mean(axis=2))

    def _tried(self) -> float:
        """What is proven at the prices as they are; and what is taken at them."""
        self.busy.taken[:] = 0
        of, run = self.loom, moves()
        found = 0.0
        for i in range(len(of.threads)):
            found += run.least(of, i)
            last = int(of.threads[i]["jobs"]) - 1
            run.handed(of, i, 0, last)
            run.put(of, i, 0, last, 1)
        there = np.maximum(self.busy.there, 0)
        return found - float((self.busy.unit[:, None] * self.share * there).sum())


def _without_trunk(thread: Thread) -> Thread:
    """What is left of a thread after what another does for it."""
    n = thread.trunk
    return replace(
        thread, jobs=thread.jobs[n:], gaps=thread.gaps[n:], done=thread.done[n:], trunk=0, leader=None
    )  # fmt: skip
