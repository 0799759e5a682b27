"""Whose hands do what, and what their days cost: stretches of work, and how long they are; compiled.

A stretch is work of one hand with no pause in it that is longer than the kitchen says.
"""

from __future__ import annotations

import numpy as np

from lamination.day.loom import LOOM, Ints, Loom
from lamination.day.loops import ended
from lamination.terms.compiled import compiled, inlined, takes

_NEVER = -(10**9)


@inlined
def who_goes_on(until: Ints, many: int, start: int, pause: int) -> int:
    """Which of so many hands takes a task, by when each was done with the one before.

    Of those who have just worked the one free longest, so that another's pause need not end; else the one
    free longest of all who are free, or who is free soonest.
    """
    on = rested = soonest = -1
    for c in range(many):
        if until[c] > start:
            if soonest < 0 or until[c] < until[soonest]:
                soonest = c
        elif until[c] >= start - pause:
            if on < 0 or until[c] < until[on]:
                on = c
        elif rested < 0 or until[c] < until[rested]:
            rested = c
    if on >= 0:
        return on
    return rested if rested >= 0 else soonest


@inlined
def queued(of: Loom, first: Ints, after: Ints) -> None:
    """All tasks that take a hand by the minute they begin: the first at each, and which comes after each."""
    for t in range(len(first)):
        first[t] = -1
    most = of.starts.shape[1]
    for i in range(len(of.threads)):
        trunk = of.threads[i].trunk if of.threads[i].leader >= 0 else 0
        for k in range(trunk, of.threads[i].jobs if of.lies[i] else 0):
            begin = of.starts[i, k]
            if of.jobs[i, k].held and ended(of, i, k) > begin:
                t = min(max(begin, 0), len(first) - 1)
                after[i * most + k], first[t] = first[t], i * most + k


@inlined
def in_turn(of: Loom, hand: Ints, since: Ints, until: Ints, first: Ints, after: Ints) -> float:
    """Give each task to a hand, one after another; since and until when each works is known then."""
    prices, most, found = of.prices[0], of.starts.shape[1], 0.0
    pause = int(prices.pause)
    queued(of, first, after)
    for t in range(len(first)):
        o = first[t]
        while o >= 0:
            i, k = o // most, o % most
            h = of.shifts[i, k]
            c = who_goes_on(until[h], of.many[h], of.starts[i, k], pause)
            if until[h, c] == _NEVER:
                since[h, c] = of.starts[i, k]
            if until[h, c] < of.starts[i, k] - pause:
                found += prices.stretch
            until[h, c] = max(until[h, c], ended(of, i, k))
            hand[i, k] = c
            o = after[o]
    for h in range(until.shape[0]):
        for c in range(until.shape[1]):
            found += prices.long * max(until[h, c] - since[h, c] - prices.long_from, 0.0)
    return found


@compiled(takes(LOOM, "i8[:,::1]", gives="f8"))
def shared_out(of: Loom, hand: Ints) -> float:
    """Say into ``hand`` which of its shift's hands does each task; returns what all their days cost."""
    hand[:] = -1
    since = np.full((of.hands[0], of.many.max()), _NEVER, np.int64)
    first, after = np.empty(of.there.shape[1] + 1, np.int64), np.empty(of.starts.size, np.int64)
    return in_turn(of, hand, since, since.copy(), first, after)


@compiled(takes(LOOM, gives="f8"))
def worked(of: Loom) -> float:
    """What the days of all hands cost as the day lies."""
    if of.prices[0].stretch == 0.0 and of.prices[0].long == 0.0:
        return 0.0
    of.days[0] = shared_out(of, np.empty(of.starts.shape, np.int64))
    found: float = of.days[0]
    return found
