"""The loops over every minute of a day, compiled: a search puts threads back thousands of times.

Nothing imports this module before a day is arranged. From a thread's last task backwards: the least price
from a task on, for every minute it might begin, is the price of its own work and of the cheapest rest
after it to where the next might begin. The price of a rest is made of slopes, so the cheapest of all its
lengths is a sliding minimum for each slope. What costs more than a limit is not looked at: a thread is
placed within a low limit first, and only where nothing is that cheap within a higher one.
"""

from __future__ import annotations

import numpy as np

from lamination.day.by_minute import lies_from, lies_until, works
from lamination.day.loom import LOOM, Floats, Loom
from lamination.day.lowest import lowest
from lamination.terms.compiled import compiled, inlined, takes

HIGHER = 3.0  # how much the limit is raised where nothing was found within it
_NEXT, _LEAST = 1.1, 1.0  # the limit of the next time: so many times what it cost, and so much more
RIPENING = (0.1, 0.4, 1.5, 13.0)  # prices of a minute that ripens, tried where it gets too ripe


@inlined
def ended(of: Loom, i: int, k: int) -> int:
    """When a thread's task is done."""
    if k < of.threads[i].done:
        return of.done[i, k, 1]
    return of.starts[i, k] + of.jobs[i, k].minutes


@inlined
def ripened(of: Loom, i: int, until: int) -> int:
    """Minutes that ripen a thread until a task when its tasks begin as they do."""
    found = 0
    for k in range(until):
        if of.gaps[i, k].ripens:
            found += of.starts[i, k + 1] - ended(of, i, k)
    return found


@inlined
def too_ripe(of: Loom, i: int, minutes: int) -> float:
    """What so many minutes of ripening cost."""
    tight = max(minutes - of.threads[i].good, 0)
    return tight + (of.prices[0].outside - 1) * max(minutes - of.threads[i].bears, 0)


@inlined
def rested(of: Loom, i: int, k: int, minutes: int) -> float:
    """What the rest after a task costs when it is so long; infinite where a part would be cut short."""
    for p in range(of.gaps[i, k].pieces):
        piece = of.pieces[i, k, p]
        if piece.low <= minutes <= piece.high:
            return piece.at_low + piece.slope * (minutes - piece.low)
    return np.inf


@inlined
def next_start(
    of: Loom, i: int, k: int, end: int, ripening: float, lo: int, hi: int, then: Floats
) -> int:
    """When the next task begins where all costs least, for a task that ended so; -1 for never."""
    each = ripening if of.gaps[i, k].ripens else 0.0
    least, at = np.inf, -1
    for p in range(of.gaps[i, k].pieces):
        piece = of.pieces[i, k, p]
        low, slope, at_low = piece.low, piece.slope, piece.at_low
        for t in range(max(end + low, lo), min(end + piece.high, hi) + 1):
            price = then[t] + at_low + slope * (t - end - low) + each * (t - end)
            if price < least:
                least, at = price, t
    return at


@compiled(
    takes(LOOM, "i8", "i8", "f8", "f8", "f8[::1]", "i8", "i8", "i8", "i8", "f8[::1]", gives="i8")
)
def rests_before(
    of: Loom,
    i: int,
    k: int,
    ripening: float,
    limit: float,
    then: Floats,
    lo: int,
    hi: int,
    begin: int,
    until: int,
    best: Floats,
) -> int:
    """The least price from the end of a task on, into ``best``; returns the first minute that has one.

    ``then``: the price from the next task on, for the minutes ``lo`` to ``hi`` that it may begin, with
    what lying until then costs. The rest begins from ``begin`` to ``until``, and ``best`` says nothing of
    other minutes.
    """
    for e in range(until + 1 - begin):
        best[begin + e] = np.inf
    first, past, coming = until + 1, of.scratch[of.threads[i].jobs + 1], of.coming
    for p in range(of.gaps[i, k].pieces):
        piece = of.pieces[i, k, p]
        low, high, slope, at_low = piece.low, piece.high, piece.slope, piece.at_low
        if of.gaps[i, k].ripens:
            slope, at_low = slope + ripening, at_low + ripening * low
        if min(at_low, at_low + slope * (high - low)) > limit:
            continue
        # those farther off cost more than anything may
        if slope > 0 and limit < np.inf:
            high = min(high, low + int((limit - at_low) / slope) + 1)
        elif slope < 0 and limit < np.inf:
            nearer = max(high + int((limit - at_low - slope * (high - low)) / slope) - 1, low)
            low, at_low = nearer, at_low + slope * (nearer - low)
        base = at_low - slope * low
        lowest(then, lo, hi, slope, low, high, base, begin, until, best, past, coming)
        first = min(first, max(lo - high, begin))
    return first


@inlined
def backwards(
    of: Loom,
    i: int,
    first: int,
    last: int,
    begin: int,
    along: int,
    ripening: float,
    limit: float,
) -> int:
    """What a thread costs from every minute of its tasks on, the last down to the first, within a limit.

    Into the scratch: for each task by the minute it begins, with what lying until then costs; and in the
    row after those what it costs from the end of the task before the first on, as far as that is known;
    into the bounds from and until when each begins. Returns from which minute, or -1 where nothing is
    within the limit. What comes after the last stays where it is. ``begin``: the first task begins no
    earlier. ``along``: the task at whose end company is due.
    """
    n, thread, prices = of.there.shape[1], of.threads[i], of.prices[0]
    then, after = of.scratch, of.scratch[thread.jobs]
    # what comes before the first is not in the limit, unless nothing does
    before, b = of.nothing, len(of.spans[i, 0]) - 1
    if first == of.free[i]:
        before = of.before[i]
        while b > 0 and 2.0 ** (b - 1) >= limit:
            b -= 1
    lo, hi = 0, n
    for k in range(first, last):
        begin += of.jobs[i, k].minutes
    early_from = thread.ready - int(prices.early_from)
    if last + 1 < thread.jobs:
        lo = hi = of.starts[i, last + 1]
        then[last + 1, lo] = 0.0
        lies_until(of, i, last, lo, hi, then[last + 1])
        ends = begin + of.jobs[i, last].minutes
        lo = rests_before(of, i, last, ripening, limit, then[last + 1], lo, hi, ends, hi, after)
        lies_from(of, i, last, lo, hi, after)
    else:
        if prices.early > 0 and limit < np.inf:
            lo = min(max(early_from - int(limit / prices.early) - 1, 0), n)
        if prices.late > 0 and limit < np.inf:
            hi = min(thread.ready + int(limit / prices.late) + 1, n)
        for t in range(lo, hi + 1):
            late, early = max(t - thread.ready, 0), max(early_from - t, 0)
            old = max(thread.ready - thread.fresh - t, 0)
            after[t] = prices.late * late + prices.early * early + prices.stale * old
    for k in range(last, first - 1, -1):
        if k == along:
            for t in range(lo, hi + 1):
                after[t] += of.company[t]
        minutes = of.jobs[i, k].minutes
        lo, hi = max(lo - minutes, begin, of.now[1], 0), hi - minutes
        lo, hi = max(lo, of.spans[i, k, b, 0]), min(hi, of.spans[i, k, b, 1])
        works(of, i, k, lo, hi, after, then[k])
        price, least = then[k, lo:], before[k, lo:]
        for t in range(hi + 1 - lo):
            price[t] = price[t] if price[t] + least[t] <= limit else np.inf
        while lo <= hi and then[k, hi] == np.inf:
            hi -= 1
        while lo <= hi and then[k, lo] == np.inf:
            lo += 1
        if lo > hi:
            return -1
        of.bounds[0, k], of.bounds[1, k] = lo, hi
        if k == 0:
            break
        lies_until(of, i, k - 1, lo, hi, then[k])
        ends, until = max(begin, 0), hi
        if k > first:
            ends = max(ends, of.spans[i, k - 1, b, 0] + of.jobs[i, k - 1].minutes)
            until = min(until, of.spans[i, k - 1, b, 1] + of.jobs[i, k - 1].minutes)
        lo = rests_before(of, i, k - 1, ripening, limit, then[k], lo, hi, ends, until, after)
        hi = until
        lies_from(of, i, k - 1, lo, hi, after)
        if k > first:
            begin -= of.jobs[i, k - 1].minutes
    return lo


@inlined
def within(
    of: Loom, i: int, first: int, last: int, along: int, ripening: float, limit: float
) -> float:
    """Find where tasks of a thread cost least beside those that lie there, if that is within a limit.

    A minute that ripens costs ``ripening``. Their starts are written into the loom; infinite, where
    nothing is within the limit.
    """
    if first > last:
        return 0.0
    begin = max(ended(of, i, first - 1), 0) if first else 0
    known = backwards(of, i, first, last, begin, along, ripening, limit)
    if known < 0:
        return np.inf
    then, after, cost = of.scratch, of.scratch[of.threads[i].jobs], np.inf
    los, his = of.bounds[0], of.bounds[1]
    if first == 0:
        for t in range(los[0], his[0] + 1):
            if then[0, t] < cost:
                cost, of.starts[i, 0] = then[0, t], t
    else:
        end = max(ended(of, i, first - 1), 0)
        if known <= end <= his[first]:
            cost = after[end] + ripening * ripened(of, i, first - 1)
    if cost > limit:
        return np.inf
    for k in range(max(first, 1), last + 1):
        end = max(ended(of, i, k - 1), 0)
        at = next_start(of, i, k - 1, end, ripening, los[k], his[k], then[k])
        if at < 0:
            return np.inf
        of.starts[i, k] = at
    return cost


@inlined
def placed_at(
    of: Loom, i: int, first: int, last: int, along: int, ripening: float, most: float
) -> float:
    """Find where tasks of a thread cost least when a minute that ripens it costs so much; that price.

    Infinite, where it costs more than ``most``.
    """
    ripe = min(of.threads[i].good, of.there.shape[1])
    limit = min(of.limit[i] + ripening * ripe, most)
    while True:
        cost = within(of, i, first, last, along, ripening, limit)
        if cost < np.inf or limit >= most:
            if ripening == 0.0 and cost < np.inf:
                of.limit[i] = _NEXT * cost + _LEAST
            return cost
        limit = min(limit * HIGHER if limit < 1e9 else np.inf, most)


@inlined
def placed(of: Loom, i: int, first: int, last: int, along: int, most: float) -> float:
    """Find where tasks of a thread cost least, how ripe it gets included; infinite beyond ``most``.

    How ripe is a matter of all its rests: where they come to too much, each of their minutes is given
    a price, and the cheapest of a few such prices is taken.
    """
    cost, end = placed_at(of, i, first, last, along, 0.0, most), of.threads[i].jobs - 1
    if cost == np.inf:
        return cost
    minutes = ripened(of, i, end)
    if minutes <= of.threads[i].good:
        return cost
    best = cost + too_ripe(of, i, minutes)
    kept = of.starts[i].copy()
    hint = of.hint[i]
    for p in range(len(RIPENING)):
        if hint >= 0 and RIPENING[p] != hint:
            continue
        cost = placed_at(of, i, first, last, along, RIPENING[p], np.inf)
        minutes = ripened(of, i, end)
        # what ripens it after these tasks was not given a price
        cost += too_ripe(of, i, minutes) - RIPENING[p] * ripened(of, i, min(last + 1, end))
        if cost < best:
            best = cost
            kept[:] = of.starts[i]
            of.hint[i] = RIPENING[p]
        if minutes <= of.threads[i].good:
            break
    of.starts[i] = kept
    return best
