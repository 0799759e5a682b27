"""Threads taken out of a day and put back, compiled: what a search does thousands of times."""

from __future__ import annotations

import numpy as np

from lamination.day.by_minute import begins_anew, summed
from lamination.day.loom import LOOM, Floats, Ints, Loom
from lamination.day.loops import (
    HIGHER,
    backwards,
    ended,
    placed,
    placed_at,
    rested,
    ripened,
    too_ripe,
)
from lamination.day.working import worked
from lamination.terms.compiled import compiled, inlined, takes

_COMPANY = 50.0  # how much more than usual it may cost others to be mixed at another time
_FEWER = 4  # stretches of work that one try may save


@compiled(takes(LOOM, "i8", gives="f8"))
def least(of: Loom, i: int) -> float:
    """The most that is proven of what a thread pays: ripeness too has a price, less what is free of it."""
    thread, outside = of.threads[i], of.prices[0].outside
    best = -np.inf
    kept = of.starts[i].copy()
    for price, free in (
        (0.0, 0.0), (1.0, 1.0 * thread.good), (outside, thread.good + (outside - 1) * thread.bears)
    ):  # fmt: skip
        cost = placed_at(of, i, of.free[i], thread.jobs - 1, -1, price, np.inf) - free
        if cost > best:
            best = cost
            kept[:] = of.starts[i]
        if ripened(of, i, of.threads[i].jobs - 1) <= thread.good:
            break
    of.starts[i] = kept
    return best


@inlined
def accompany(of: Loom, leader: int, others: Ints, most: float) -> None:
    """What it costs others, each by itself, when the mixing that is done for them ends at a minute.

    More than the least that any minute costs them; what is not within the limit counts as the limit.
    """
    n = of.there.shape[1]
    for t in range(n + 1):
        of.company[t] = 0.0
    for i in others:
        if of.threads[i].leader != leader:
            continue
        first, last = of.threads[i].trunk, of.threads[i].jobs - 1
        limit = min(of.limit[i] + _COMPANY, most + of.alone[i])
        known = backwards(of, i, first, last, 0, -1, 0.0, limit)
        while known < 0 and limit < min(most + of.alone[i], 1e9):
            limit *= HIGHER
            known = backwards(of, i, first, last, 0, -1, 0.0, limit)
        if known < 0:
            continue
        after = of.scratch[last + 1]
        for t in range(n + 1):
            of.company[t] += min(after[t], limit) if known <= t <= of.bounds[1, first] else limit
    cheapest = np.inf
    for t in range(n + 1):
        cheapest = min(cheapest, of.company[t])
    for t in range(n + 1):
        of.company[t] -= cheapest


@compiled(takes(LOOM, "i8", "i8", "i8"))
def handed(of: Loom, i: int, first: int, last: int) -> None:
    """Which shift does each of these tasks of a thread: who misses the fewest hands for it.

    What has happened, or is under way, is with who is there now and has most hands free.
    """
    n, pause = of.there.shape[1], int(of.prices[0].pause)
    for k in range(first, last + 1):
        job = of.jobs[i, k]
        chosen, least, end = 0, np.inf, of.starts[i, k] + job.minutes
        if not of.threads[i].done and not (k >= of.free[i] and job.held and job.minutes):
            of.shifts[i, k] = 0
            continue
        free = k >= of.free[i] and job.held and job.minutes
        now = min(of.now[0], n - 1)
        for h in range(of.hands[0]):
            if job.able >> h & 1:
                short = float(of.taken[h, now] - of.there[h, now])
                if free:
                    short = of.sums[h, end] - of.sums[h, of.starts[i, k]] if end <= n else np.inf
                    if begins_anew(of.worked[h], pause, of.starts[i, k], min(end, n)):
                        short += of.prices[0].stretch
                if short < least:
                    chosen, least = h, short
        of.shifts[i, k] = chosen


@compiled(takes(LOOM, "i8", "i8", "i8", "i8"))
def take(of: Loom, line: int, start: int, end: int, many: int) -> None:
    """Take so many of a line from one minute to another; a negative number gives back."""
    begin, end = max(start, 0), min(end, of.taken.shape[1])
    there, taken, asked = of.there[line], of.taken[line], of.asked[line]
    for t in range(begin, end):
        short = taken[t] - there[t]
        more = max(short + many, 0) - max(short, 0)
        if more:
            of.over[line] += more
            of.paid[line] += more * asked[t]
        taken[t] += many
    if begin < end:
        of.stale[line, 0] = min(of.stale[line, 0], begin)
        of.stale[line, 1] = max(of.stale[line, 1], end)
        if line < of.hands[0]:
            of.stirred[line, 0] = min(of.stirred[line, 0], begin)
            of.stirred[line, 1] = max(of.stirred[line, 1], end)


@inlined
def goes_in(of: Loom, i: int, k: int, sign: int) -> bool:
    """Put a task with those that go into the oven as it does, or take it out; whether others have that oven.

    The first has it, and whoever is left when the first is taken out. One for which there is no room has
    an oven of its own.
    """
    job = of.jobs[i, k]
    there = of.loads[job.load, of.starts[i, k]]
    if sign > 0:
        of.shares[i, k] = 1 if there[0] == 0 or there[1] + job.trays <= of.room[0] else 0
    if not of.shares[i, k]:
        return False
    others = there[0] if sign > 0 else there[0] - 1
    there[0] += sign
    there[1] += sign * job.trays
    return others > 0


@compiled(takes(LOOM, "i8", "i8", "i8", "i8"))
def put(of: Loom, i: int, first: int, last: int, sign: int) -> None:
    """Put tasks of a thread into the day where they are to lie, or take them out with ``sign`` -1.

    What has happened takes nothing any more, and what is under way takes what it does from now on.
    """
    now = of.now[0]
    for k in range(max(first, of.threads[i].trunk), min(last + 2, of.threads[i].jobs)):
        start, end, job = of.starts[i, k], ended(of, i, k), of.jobs[i, k]
        if k:
            gap = of.gaps[i, k - 1]
            begun = max(ended(of, i, k - 1), now)
            a, b = min(begun + gap.first_min, start), start - gap.last_min
            many = sign * gap.takes
            if start > begun:
                if gap.first_line >= 0:
                    take(of, gap.first_line, begun, a, many)
                if gap.between_line >= 0:
                    take(of, gap.between_line, a, b, many)
                if gap.last_line >= 0:
                    take(of, gap.last_line, max(b, begun), start, many)
        start = max(start, now)
        if end > start and k <= last:
            if job.held:
                take(of, of.shifts[i, k], start, end, sign)
            if job.load >= 0 and goes_in(of, i, k, sign):
                continue
            if job.machine >= 0:
                take(of, job.machine, start, end, sign)


@inlined
def owed(of: Loom, i: int, first: int, last: int) -> float:
    """What tasks of a thread cost by themselves, with the rests around them, wherever the others lie."""
    thread, prices, cost = of.threads[i], of.prices[0], 0.0
    for k in range(first, min(last + 2, thread.jobs)):
        start, job = of.starts[i, k], of.jobs[i, k]
        if k:
            cost += rested(of, i, k - 1, start - ended(of, i, k - 1))
        if k <= last:
            end = start + job.minutes
            cost += of.night[end] - of.night[start] + of.wishes[job.wished, start]
            if not job.held:
                cost += of.nobody[end] - of.nobody[start]
    if last + 1 == thread.jobs:
        end = ended(of, i, last)
        cost += prices.late * max(end - thread.ready, 0)
        cost += prices.early * max(thread.ready - prices.early_from - end, 0.0)
        cost += prices.stale * max(thread.ready - thread.fresh - end, 0)
    return cost


@compiled(takes(LOOM, "i8"))
def lay(of: Loom, i: int) -> None:
    """Say of a thread that it lies where its starts say, and what it costs by itself."""
    last = of.threads[i].jobs - 1
    of.own[i] = owed(of, i, of.free[i], last) + too_ripe(of, i, ripened(of, i, last))
    of.lies[i] = 1


@compiled(takes(LOOM, "i8", "i8"))
def whole(of: Loom, i: int, sign: int) -> None:
    """Put a whole thread where its starts say, or take it out with ``sign`` -1."""
    put(of, i, 0, of.threads[i].jobs - 1, sign)
    of.lies[i] = 0
    if sign > 0:
        lay(of, i)


@compiled(takes(LOOM, "i8"))
def stood(of: Loom, i: int) -> None:
    """Put a thread that lies nowhere where its starts say, with those who miss the fewest hands for it."""
    summed(of)
    handed(of, i, 0, of.threads[i].jobs - 1)
    whole(of, i, 1)


@compiled(takes(LOOM, "f8", "i8", "i8"))
def ask(of: Loom, each: float, begin: int, end: int) -> None:
    """Ask so much for a missing one of anything from one minute to another.

    Nothing is asked more for than it costs, nor less where nobody has any of it.
    """
    lines, n = of.there.shape
    begin, end = max(begin, 0), min(end, n)
    for line in range(lines):
        unit, there, taken, asked = of.unit[line], of.there[line], of.taken[line], of.asked[line]
        little, was, paid = min(each, unit), 0.0, 0.0
        for t in range(begin, end if of.over[line] else begin):
            short = max(taken[t] - there[t], 0)
            was += short * asked[t]
            paid += short * (little if there[t] > 0 else unit)
        for t in range(begin, end):
            asked[t] = little if there[t] > 0 else unit
        # of the whole day it is summed anew, so that nothing is left of many small changes
        of.paid[line] = paid if end - begin == n else of.paid[line] - was + paid
        of.stale[line, 0] = min(of.stale[line, 0], begin)
        of.stale[line, 1] = max(of.stale[line, 1], end)


@compiled(takes(LOOM, "f8", "f8"))
def dearer(of: Loom, times: float, wanted: float) -> None:
    """Ask ``times`` as much for a missing one, and ``wanted`` times that where more are taken than there are.

    Nothing is asked more for than it costs.
    """
    lines, n = of.there.shape
    for line in range(lines):
        unit, there, taken, asked = of.unit[line], of.there[line], of.taken[line], of.asked[line]
        paid = 0.0
        for t in range(n):
            short = max(taken[t] - there[t], 0)
            asked[t] = min(asked[t] * (times * wanted if short else times), unit)
            paid += short * asked[t]
        of.paid[line] = paid
        of.stale[line, 0], of.stale[line, 1] = 0, n


@inlined
def crowded(of: Loom, line: int, start: int, end: int) -> float:
    """What is asked for what is missing of a line from one minute to another."""
    found = 0.0
    for t in range(max(start, 0), min(end, of.there.shape[1])):
        if of.taken[line, t] > of.there[line, t]:
            found += of.asked[line, t]
    return found


@compiled(takes(LOOM, "f8[:,::1]"))
def trouble(of: Loom, found: Floats) -> None:
    """What is asked of every task for what it takes that is not there; who else takes it is asked too."""
    found[:] = 0.0
    for i in range(len(of.threads)):
        for k in range(of.free[i], of.threads[i].jobs):
            job, start = of.jobs[i, k], of.starts[i, k]
            if job.held:
                found[i, k] += crowded(of, of.shifts[i, k], start, start + job.minutes)
            if job.machine >= 0:
                found[i, k] += crowded(of, job.machine, start, start + job.minutes)
            if k and of.gaps[i, k - 1].between_line >= 0:
                gap, ends = of.gaps[i, k - 1], ended(of, i, k - 1)
                until = start - gap.last_min
                found[i, k] += gap.takes * crowded(
                    of, gap.between_line, ends + gap.first_min, until
                )


@compiled(takes(LOOM, gives="f8"))
def given(of: Loom) -> float:
    """What the doughs of the whole day cost as it lies."""
    found = of.paid.sum()
    for i in range(len(of.threads)):
        if of.lies[i]:
            found += of.own[i]
    return found


@compiled(takes(LOOM, gives="f8"))
def cost(of: Loom) -> float:
    """What the whole day costs as it lies, its hands' days included."""
    return given(of) + worked(of)


@compiled(takes(LOOM))
def weigh(of: Loom) -> None:
    """What every thread costs at the least where nothing lies; without what another mixes for it."""
    summed(of)
    for i in range(len(of.threads)):
        thread, of.alone[i] = of.threads[i], 0.0
        if thread.done:
            continue
        if thread.leader < 0:
            of.alone[i] = least(of, i)
            continue
        limit, known = 1.0, -1
        while known < 0 and limit < 1e9:
            limit *= HIGHER
            known = backwards(of, i, thread.trunk, thread.jobs - 1, 0, -1, 0.0, limit)
        if known >= 0:
            of.alone[i] = of.scratch[thread.jobs][known : of.bounds[1, thread.trunk] + 1].min()


@compiled(takes(LOOM, "i8[::1]", "i8[:,::1]", "i8[::1]", "f8", gives="f8"))
def again(of: Loom, order: Ints, parts: Ints, company: Ints, most: float) -> float:
    """Take threads out and put them back one by one where each costs least; what the day costs then.

    ``parts``: of each the first and the last task that may go elsewhere. One that mixes for others, where
    ``company`` is 1, is put where it costs least with them: each of those that come later in the order, as
    if the others of them were not there. Infinite where the day would come to cost more than ``most``:
    then it is as it was.
    """
    lay_there = of.lies[order]
    starts, shifts, own = of.starts[order], of.shifts[order], of.own[order]
    # the hands' days will hardly cost less than a few stretches fewer would
    most_given = most - max(of.days[0] - _FEWER * of.prices[0].stretch, 0.0)
    # what stays of each is paid in any case, and of a whole one what it costs at the least
    fixed, alone = np.zeros(len(order)), np.zeros(len(order))
    for o in range(len(order)):
        i, first, last = order[o], parts[o, 0], parts[o, 1]
        if lay_there[o]:
            put(of, i, first, last, -1)
            of.lies[i] = 0
        if first == of.free[i] and last + 1 == of.threads[i].jobs:
            alone[o] = of.alone[i]
        else:
            fixed[o] = owed(of, i, of.free[i], of.threads[i].jobs - 1) - owed(of, i, first, last)
    back = 0
    for o in range(len(order)):
        i, first, last = order[o], parts[o, 0], parts[o, 1]
        if of.threads[i].leader >= 0 and first == of.free[i]:
            for k in range(of.threads[i].done, first):
                of.starts[i, k] = of.starts[of.threads[i].leader, k]
        budget = most_given - given(of) - fixed[o:].sum() - alone[o + 1 :].sum()
        if budget <= 0:
            break
        summed(of)
        along = of.threads[i].along if company[o] else -1
        if along >= 0:
            accompany(of, i, order[o + 1 :], budget)
        if placed(of, i, first, last, along, budget) == np.inf:
            break
        if not lay_there[o]:
            first = 0  # what is done, or under way, is put there with it once
        handed(of, i, first, last)
        put(of, i, first, last, 1)
        lay(of, i)
        back += 1
    found = cost(of) if back == len(order) else np.inf
    if found <= most:
        return found
    for q in range(back):
        put(of, order[q], parts[q, 0] if lay_there[q] else 0, parts[q, 1], -1)
    for q in range(len(order)):
        i = order[q]
        of.starts[i], of.shifts[i], of.own[i] = starts[q], shifts[q], own[q]
        if lay_there[q]:
            put(of, i, parts[q, 0], parts[q, 1], 1)
        of.lies[i] = lay_there[q]
    return np.inf
