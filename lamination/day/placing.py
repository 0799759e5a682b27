"""One thread put into a day that others are in already: at the least price, to the minute.

From its last task backwards: the least price from a task on, for every minute it might begin, is the
price of its own work and the cheapest rest after it to where the next might begin. The price of a rest
is made of slopes, so the cheapest of all its lengths is a sliding minimum for each slope.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
import numpy.typing as npt

from lamination.day.busy import Busy, Placed, loops
from lamination.day.threads import Costs, Gap, Thread
from lamination.day.threads import prices as rest_prices

Minutes = npt.NDArray[np.int64]


@dataclass(frozen=True)
class Prices:
    """What a minute of each compromise weighs. ``linger``: a minute away from what was planned."""

    late: float
    outside: float
    early: float
    early_from: int
    linger: float


@dataclass(frozen=True)
class Pull:
    """Where a task was before: leaving it costs ``flat`` at once, and ``each`` for every minute."""

    minute: int
    flat: float
    each: float


def ready_cost(thread: Thread, minutes: int, prices: Prices) -> Costs:
    """What it costs to be done at each minute of the day."""
    t = np.arange(minutes + 1, dtype=float)
    late = np.maximum(t - thread.ready, 0)
    early = np.maximum(thread.ready - prices.early_from - t, 0)
    cost: Costs = prices.late * late + prices.early * early
    return cost


def _later(values: Costs, by: int) -> Costs:
    """What stands so many minutes later; infinite beyond the day."""
    if by == 0:
        return values
    moved = np.full(len(values), np.inf)
    if by < len(values):
        moved[: len(values) - by] = values[by:]
    return moved


def _rested(gap: Gap, then: Costs, busy: Busy, prices: Prices, ripening: float) -> Costs:
    """The least price from the end of a task on, by that minute: its rest and all that comes then."""
    then, before = _lying(gap, then, busy)
    best: Costs = loops().rested(then, *_slopes(gap, prices, ripening))
    return best if before is None else best + before


@lru_cache(maxsize=10_000)
def _slopes(gap: Gap, prices: Prices, ripening: float) -> tuple[Minutes, Minutes, Costs, Costs]:
    """The pieces of a rest's price: from and until how many minutes, the slope, and the price at its foot."""
    pieces = gap.pieces(prices.outside, prices.linger, ripening)
    at_low = [
        gap.price(low, prices.outside, prices.linger) + (ripening * low if gap.ripens else 0.0)
        for low, _, _ in pieces
    ]
    lows, highs, slopes = zip(*pieces, strict=True)
    return np.array(lows), np.array(highs), np.array(slopes), np.array(at_low)


def _lying(gap: Gap, then: Costs, busy: Busy) -> tuple[Costs, Costs | None]:
    """What is paid for lying in places that may be full: by the minute it ends, and that it begins."""
    places = {gap.place, *(part[0] for part in (gap.first, gap.last) if part)}
    if not any(place in busy.places for place in places):
        return then, None
    before = np.zeros(len(then))
    first = gap.first[1] if gap.first else 0
    last = gap.last[1] if gap.last else 0
    middle = busy.lying(gap.place, gap.takes)
    if middle is not None:
        then = then + _earlier(middle, last)
        before = before - _held(middle, first)
    if gap.last and (lying := busy.lying(gap.last[0], gap.takes)) is not None:
        then = then + lying - _earlier(lying, last)
    if gap.first and (lying := busy.lying(gap.first[0], gap.takes)) is not None:
        before = before + _held(lying, first) - lying
    return then, before


def _earlier(values: Costs, by: int) -> Costs:
    return values if by == 0 else np.concatenate((np.full(by, values[0]), values[:-by]))


def _held(values: Costs, by: int) -> Costs:
    """What stands so many minutes later; beyond the day what stands at its end."""
    if by == 0:
        return values
    by = min(by, len(values) - 1)
    return np.concatenate((values[by:], np.full(by, values[-1])))


def place(
    thread: Thread,
    busy: Busy,
    prices: Prices,
    *,
    trunk: tuple[int, ...] = (),
    not_before: int = 0,
    pulls: dict[str, Pull] | None = None,
    hints: dict[str, float] | None = None,
) -> Placed:
    """The cheapest way to put a thread into the day, beside what is there.

    ``trunk``: when the tasks begin that its mixing does for it. ``not_before``: no task begins earlier
    that has not begun. A thread that cannot end within the day costs infinity. How ripe it gets is a
    matter of all its rests: where they come to too much, each of their minutes is given a price, and
    the cheapest of a few such prices is taken. ``hints`` remembers which that was.
    """
    best: Placed | None = None
    known = hints.get(thread.dough) if hints is not None else None
    for ripening in _RIPENING if known is None else (0.0, known):
        found = placed_at(
            thread, busy, prices, ripening, trunk=trunk, not_before=not_before, pulls=pulls
        )
        ripe = thread.ripening(found.starts)
        tight, outside = thread.too_ripe(ripe)
        cost = found.cost - ripening * ripe + ripe_cost(tight, outside, prices)
        found = replace(found, cost=cost)
        if best is None or cost < best.cost:
            best = found
            if hints is not None and ripening:
                hints[thread.dough] = ripening
        if not tight:
            break
    assert best
    return best


_RIPENING = (0.0, 0.1, 0.4, 1.5, 13.0)


def ripe_cost(tight: int, outside: int, prices: Prices) -> float:
    """What minutes of ripening beyond what is good, and beyond what it can bear, cost."""
    return tight + (prices.outside - 1) * outside


def placed_at(
    thread: Thread,
    busy: Busy,
    prices: Prices,
    ripening: float,
    *,
    trunk: tuple[int, ...] = (),
    not_before: int = 0,
    pulls: dict[str, Pull] | None = None,
) -> Placed:
    """The cheapest way to put a thread into the day when a minute that ripens it costs ``ripening``.

    Its cost is with that price, and without what being too ripe costs.
    """
    jobs, n = thread.jobs, busy.minutes
    fixed = [start for start, _ in thread.done]
    fixed += trunk[len(fixed) :]
    first = len(fixed)
    costs: list[Costs] = [np.empty(0)] * len(jobs)
    after = ready_cost(thread, n, prices)
    for k in range(len(jobs) - 1, first - 1, -1):
        own = _wished(busy.work(jobs[k]), thread, k, not_before, pulls)
        costs[k] = own + _later(after, jobs[k].minutes)
        if k > first:
            after = _rested(thread.gaps[k - 1], costs[k], busy, prices, ripening)
    starts = list(fixed)
    shifts = [busy.there_now(job) if thread.done else 0 for job in jobs]
    if first == len(jobs):
        return Placed(tuple(starts), tuple(shifts), 0.0, first)
    if first:
        ended = thread.ended(fixed, first - 1)
        start, cost = _next(thread.gaps[first - 1], ended, costs[first], busy, prices, ripening)
        cost += ripening * _ripened(thread, fixed)
    else:
        start = int(np.argmin(costs[0]))
        cost = float(costs[0][start])
    starts.append(start)
    for k in range(first + 1, len(jobs)):
        ended = starts[-1] + jobs[k - 1].minutes
        starts.append(_next(thread.gaps[k - 1], ended, costs[k], busy, prices, ripening)[0])
    for k in range(first, len(jobs)):
        if jobs[k].held and jobs[k].minutes:
            shifts[k] = busy.shift(jobs[k], starts[k])
    return Placed(tuple(starts), tuple(shifts), cost, first)


def _wished(
    own: Costs, thread: Thread, k: int, not_before: int, pulls: dict[str, Pull] | None
) -> Costs:
    """The price of a task's work with what holds it to a minute."""
    if not_before > 0:
        own = own.copy()
        own[:not_before] = np.inf
    step = thread.jobs[k].step
    if step in thread.held:
        at = thread.held[step]
        own = own + TO_THE_MINUTE * np.minimum(np.abs(np.arange(len(own)) - at), 60.0)
    if pulls and step in pulls:
        pull = pulls[step]
        away = np.abs(np.arange(len(own)) - pull.minute)
        own = own + pull.each * away + pull.flat * (away > 0)
    return own


# What somebody fixed gives way only to what cannot be done at all.
TO_THE_MINUTE = 5_000.0


def _ripened(thread: Thread, fixed: Sequence[int]) -> int:
    """What has ripened it in the rests between tasks that are fixed."""
    known = [*fixed, *([0] * (len(thread.jobs) - len(fixed)))]
    return thread.ripening(known, len(fixed) - 2) if len(fixed) > 1 else 0


def _next(
    gap: Gap, ended: int, then: Costs, busy: Busy, prices: Prices, ripening: float
) -> tuple[int, float]:
    """Where the next task begins when the one before it ended so, and what it all costs from there."""
    ended = max(ended, 0)
    then, before = _lying(gap, then, busy)
    left = len(then) - ended
    cost = rest_prices(gap, len(then), prices.outside, prices.linger)[:left] + then[ended:]
    if ripening and gap.ripens:
        cost = cost + ripening * np.arange(left)
    at = int(np.argmin(cost))
    return ended + at, float(cost[at] + (0.0 if before is None else before[ended]))
