"""The loops over every minute of a day, compiled: a search puts threads back thousands of times.

Nothing imports this module before a day is arranged.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from lamination.terms.compiled import compiled

Costs = npt.NDArray[np.float64]
Counts = npt.NDArray[np.int32]


@compiled("f8[::1](f8[::1], i8[::1], i8[::1], f8[::1], f8[::1])")
def rested(
    then: Costs,
    lows: npt.NDArray[np.int64],
    highs: npt.NDArray[np.int64],
    slopes: Costs,
    at_low: Costs,
) -> Costs:
    """The least price of a rest and all that comes then, by the minute it begins.

    ``then``: the price from the next task on, by the minute it begins. A rest from ``lows`` to ``highs``
    minutes long costs ``at_low`` at its shortest, and ``slopes`` for each minute more: for each slope the
    least of a sliding window, whose candidates wait in a queue in which each is dearer than the last.
    """
    n = len(then)
    best = np.full(n, np.inf)
    value = np.empty(n)
    queue = np.empty(n, np.int64)
    for p in range(len(lows)):
        low, high, slope = lows[p], highs[p], slopes[p]
        if low >= n:
            break
        for t in range(n):
            value[t] = then[t] + slope * t
        if high >= n:  # no end: the least of all that comes
            least = np.inf
            for come in range(n - 1, low - 1, -1):
                least = min(least, value[come])
                price = least + at_low[p] - slope * come
                if price < best[come - low]:
                    best[come - low] = price
            continue
        head, tail = 0, 0
        for e in range(n - 1 - low, -1, -1):
            come = e + low
            while tail > head and value[queue[tail - 1]] >= value[come]:
                tail -= 1
            queue[tail] = come
            tail += 1
            while queue[head] > e + high:
                head += 1
            price = value[queue[head]] + at_low[p] - slope * (e + low)
            if price < best[e]:
                best[e] = price
    return best


@compiled("f8[::1](i4[::1], i4[::1], i8)")
def missing(taken: Counts, there: Counts, many: int) -> Costs:
    """How many would be missing, summed from the first minute, if so many more were taken."""
    sums = np.zeros(len(taken) + 1)
    for t in range(len(taken)):
        short = max(taken[t] + many - there[t], 0) - max(taken[t] - there[t], 0)
        sums[t + 1] = sums[t] + short
    return sums


@compiled("i8(i4[::1], i4[::1])")
def over(taken: Counts, there: Counts) -> int:
    """Minutes for which more are taken than there are, each as often as one is missing."""
    found = 0
    for t in range(len(taken)):
        found += max(taken[t] - there[t], 0)
    return found


@compiled("f8[::1](f8[:, ::1], f8[::1], i8)")
def worked(of_hands: Costs, more: Costs, minutes: int) -> Costs:
    """What a task of so many minutes costs by the minute it begins; infinite where the day ends before.

    ``of_hands``: the price of each who might do it, summed from the first minute: the least counts;
    ``more``: what else costs, summed alike.
    """
    n = more.shape[0] - 1
    cost = np.full(n + 1, np.inf)
    for t in range(n - minutes + 1):
        least = 0.0
        for h in range(of_hands.shape[0]):
            price = of_hands[h, t + minutes] - of_hands[h, t]
            if h == 0 or price < least:
                least = price
        cost[t] = least + more[t + minutes] - more[t]
    return cost
