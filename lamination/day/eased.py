"""All of a day moved at once, each after whom it comes after, to where all costs least; compiled.

Putting a thread back leaves the others where they are. Here the order stays, who takes a hand, a machine or
a place after whom, and every minute may change.
"""

from __future__ import annotations

import numpy as np

from lamination.day.loom import LOOM, Floats, Ints, Loom
from lamination.day.loops import ended, ripened
from lamination.day.moves import cost, whole
from lamination.day.net import MUST, Net, bent, settled, tied, weave
from lamination.terms.compiled import compiled, inlined, takes

_FAR = 180  # minutes that a task may go from where it lies, at once
_FOREVER = 10**8
_OUT = 2  # of a thread that is taken out to lie elsewhere


@inlined
def baked_with(of: Loom, knot: Ints, i: int, k: int) -> int:
    """The knot of whoever before a thread goes into one oven with its task, or -1."""
    job, found = of.jobs[i, k], -1
    if job.load < 0 or not of.shares[i, k]:
        return found
    for j in range(i):
        for m in range(of.free[j], of.threads[j].jobs if of.lies[j] else 0):
            together = of.jobs[j, m].load == job.load and of.shares[j, m]
            if together and of.starts[j, m] == of.starts[i, k]:
                found = knot[j, m]
    return found


@inlined
def numbered(of: Loom, net: Net) -> None:
    """Give every task that may move a knot: what is done together has one."""
    knots = 0
    for i in range(len(of.threads)):
        for k in range(of.starts.shape[1]):
            net.knot[i, k] = -1
    for i in range(len(of.threads)):
        for k in range(of.free[i], of.threads[i].jobs if of.lies[i] else 0):
            found = baked_with(of, net.knot, i, k)
            if found < 0:
                found = knots
                knots += 1
            net.knot[i, k] = found
            net.minute[found] = of.starts[i, k]
    for i in range(len(of.threads)):
        leader = of.threads[i].leader
        for k in range(of.threads[i].trunk if leader >= 0 and of.lies[i] else 0):
            net.knot[i, k] = net.knot[leader, k]
    net.size[1] = knots
    net.minute[knots] = 0


@inlined
def priced(of: Loom, net: Net) -> None:
    """Tie every task to the one before it by what its rest costs, and the last to when it is wanted."""
    start, prices = net.size[1], of.prices[0]
    for i in range(len(of.threads)):
        if not of.lies[i]:
            continue
        thread, last, ripening = of.threads[i], of.threads[i].jobs - 1, 0
        for k in range(last):
            ripening += of.gaps[i, k].ripens
        # how ripe is a matter of all its rests: each may grow by its share of what is left
        left = max(thread.good - ripened(of, i, last), 0) // max(ripening, 1)
        for k in range(max(of.free[i] - 1, 0), last):
            a, b, done = net.knot[i, k], net.knot[i, k + 1], ended(of, i, k)
            if b < 0:
                continue
            more = done - of.starts[i, k] if a >= 0 else done
            gap = of.gaps[i, k]
            e = tied(net, a if a >= 0 else start, b, more + of.pieces[i, k, 0].low)
            if e < 0:
                continue
            net.slopes[e, 1] = of.pieces[i, k, 0].slope
            for p in range(1, gap.pieces):
                bent(net, e, more + of.pieces[i, k, p].low, of.pieces[i, k, p].slope)
            if gap.ripens and thread.good < _FOREVER:
                at = of.starts[i, k + 1] - done + left + more
                while net.many[e] > 1 and net.kinks[e, net.many[e] - 1] >= at:
                    net.many[e] -= 1
                bent(net, e, at, MUST)
        if net.knot[i, last] >= 0:
            minutes = of.jobs[i, last].minutes
            e = tied(net, start, net.knot[i, last], -1)
            net.slopes[e, 0] = net.slopes[e, 1] = -prices.early - prices.stale
            bent(net, e, thread.ready - thread.fresh - minutes, -prices.early)
            bent(net, e, thread.ready - int(prices.early_from) - minutes, 0.0)
            bent(net, e, thread.ready - minutes, prices.late)


@inlined
def hourly(night: Floats, nobody: Floats, wish: Floats, minutes: int, t: int) -> float:
    """What a task costs for the hour, for nobody there, and for not beginning at its wished minute."""
    end = t + minutes
    found: float = night[end] - night[t] + nobody[end] - nobody[t] + wish[t]
    return found


@inlined
def kept_in(of: Loom, net: Net) -> None:
    """Tie every task to the day: to its shift, and as far as what the hour costs is straight around it."""
    start, n = net.size[1], of.there.shape[1]
    night, free = of.night, of.nothing[0]
    for i in range(len(of.threads)):
        for k in range(of.free[i], of.threads[i].jobs if of.lies[i] else 0):
            t, job = of.starts[i, k], of.jobs[i, k]
            held, minutes = job.held, job.minutes
            plain = held and job.wished == 0 and night[n] == 0.0
            wish, nobody = of.wishes[job.wished], free if held else of.nobody
            first, last = max(of.now[1], t - _FAR, 1), min(n - minutes, t + _FAR)
            less = more = 0.0
            if not plain and first < t:
                less = hourly(night, nobody, wish, minutes, t - 1)
                less -= hourly(night, nobody, wish, minutes, t)
            if not plain and t < last:
                more = hourly(night, nobody, wish, minutes, t + 1)
                more -= hourly(night, nobody, wish, minutes, t)
            if held:
                run = of.runs[of.shifts[i, k], t]
                first, last = max(first, run[0]), max(min(last, run[1] - minutes), t)
            lo, hi = (min(first, t), last) if plain else (t, t)
            while lo > first:
                further = hourly(night, nobody, wish, minutes, lo - 1)
                if further - hourly(night, nobody, wish, minutes, lo) != less:
                    break
                lo -= 1
            while hi < last:
                further = hourly(night, nobody, wish, minutes, hi + 1)
                if further - hourly(night, nobody, wish, minutes, hi) != more:
                    break
                hi += 1
            e = tied(net, start, net.knot[i, k], lo)
            if e >= 0:
                net.slopes[e, 1] = -less if lo < t else more
                if not plain:
                    bent(net, e, t, max(more, -less))
                bent(net, e, hi, MUST)


@inlined
def stay(
    found: Ints,
    many: int,
    line: int,
    a: int,
    b: int,
    wants: int,
    one: int,
    after: int,
    other: int,
    until: int,
) -> int:
    """Write one more of the stays, if it lasts and takes something; returns how many there are."""
    if line < 0 or b <= a:
        return many
    row = found[many]
    row[0], row[1], row[2], row[3] = line, a, b, wants
    row[4], row[5], row[6], row[7] = one, after, other, until
    return many + 1


@inlined
def stays(of: Loom, net: Net, found: Ints) -> int:
    """Who takes how many of what from when until when, into ``found``; returns how many there are.

    A row: the line, from, until, how many, then from and until again as minutes after a knot's.
    """
    many = 0
    for i in range(len(of.threads)):
        first = of.threads[i].trunk if of.threads[i].leader >= 0 else 0
        for k in range(first, of.threads[i].jobs if of.lies[i] else 0):
            job, begin, here = of.jobs[i, k], of.starts[i, k], net.knot[i, k]
            end = ended(of, i, k)
            if end > of.now[0]:
                hand = of.shifts[i, k] if job.held else -1
                machine = job.machine if baked_with(of, net.knot, i, k) < 0 else -1
                long = end - begin
                many = stay(found, many, hand, begin, end, 1, here, 0, here, long)
                many = stay(found, many, machine, begin, end, 1, here, 0, here, long)
            if k == 0 or begin <= of.now[0]:
                continue
            gap, before, was = of.gaps[i, k - 1], ended(of, i, k - 1), net.knot[i, k - 1]
            worked = before - of.starts[i, k - 1]
            a, b = min(before + gap.first_min, begin), max(begin - gap.last_min, before)
            then, until = worked + gap.first_min, -gap.last_min
            many = stay(found, many, gap.first_line, before, a, gap.takes, was, worked, was, then)
            many = stay(found, many, gap.between_line, a, b, gap.takes, was, then, here, until)
            many = stay(found, many, gap.last_line, b, begin, gap.takes, here, until, here, 0)
    return many


@inlined
def follows(of: Loom, net: Net, taken: Ints, o: int, free: Ints, knot: Ints, off: Ints) -> None:
    """Tie one of the stays to who had before what it takes, by who has what until when on each line."""
    line, begin, here = taken[o, 0], taken[o, 1], taken[o, 4]
    t = min(max(begin, 0), of.there.shape[1] - 1)
    slot = soon = -1
    for s in range(of.there[line, t]):
        if free[line, s] <= begin:
            if slot < 0 or free[line, s] > free[line, slot]:
                slot = s
        elif soon < 0 or free[line, s] < free[line, soon]:
            soon = s
    slot = slot if slot >= 0 else soon
    if slot < 0:
        return
    if free[line, slot] >= 0 and here >= 0:
        # what cannot move has its minute after the day's beginning
        was = knot[line, slot]
        since = off[line, slot] if was >= 0 else free[line, slot]
        e = tied(net, was if was >= 0 else net.size[1], here, since - taken[o, 5])
        if e >= 0:
            net.slopes[e, 0] = -of.asked[line, t]
            pause = int(of.prices[0].pause)
            if line < of.hands[0] and 0 <= begin - free[line, slot] <= pause:
                # who has just worked goes on
                bent(net, e, since - taken[o, 5] + pause, of.prices[0].stretch)
    free[line, slot], knot[line, slot], off[line, slot] = taken[o, 2], taken[o, 6], taken[o, 7]


@inlined
def one_by_one(
    of: Loom, net: Net, taken: Ints, last: Ints, before: Ints, free: Ints, knot: Ints, off: Ints
) -> None:
    """Tie the stays that are taken to who had each before, in the order in which they begin."""
    for t in range(len(last)):
        last[t] = -1
    # those that begin at a minute, one after another: the last of them, and before each who came before
    for o in range(stays(of, net, taken) - 1, -1, -1):
        t = min(max(taken[o, 1], 0), len(last) - 1)
        before[o], last[t] = last[t], o
    for t in range(len(last) - 1):
        o = last[t]
        while o >= 0:
            for _ in range(taken[o, 3]):
                follows(of, net, taken, o, free, knot, off)
            o = before[o]


@inlined
def lined_up(of: Loom, net: Net) -> None:
    """Tie whoever takes a hand, a machine or a place to who had it before.

    Where there is none for it, to who has done with one soonest, at what a missing one is asked for.
    """
    (lines, n), most = of.there.shape, 5 * of.starts.size
    slots = of.there.max()
    free, knot = np.full((lines, slots), -1, np.int64), np.full((lines, slots), -1, np.int64)
    last, before = np.empty(n + 1, np.int64), np.empty(most, np.int64)
    taken, off = np.empty((most, 8), np.int64), np.zeros((lines, slots), np.int64)
    one_by_one(of, net, taken, last, before, free, knot, off)


@inlined
def moved(of: Loom, starts: Ints) -> None:
    """Let the threads that lie begin their tasks at other minutes."""
    for i in range(len(of.threads)):
        other = False
        for k in range(of.threads[i].jobs if of.lies[i] else 0):
            other = other or starts[i, k] != of.starts[i, k]
        if other:
            whole(of, i, -1)
            of.lies[i] = _OUT
    for i in range(len(of.threads)):
        if of.lies[i] == _OUT:
            for k in range(of.threads[i].jobs):
                of.starts[i, k] = starts[i, k]
            whole(of, i, 1)


@compiled(takes(LOOM, "i8", gives="f8"))
def ease(of: Loom, most: int) -> float:
    """Move all of a day at once to where it costs least in the order it has; what it costs then.

    In at most so many moves. Where it would not cost less it lies as it lay.
    """
    net = weave(of.starts.size, np.empty(of.starts.shape, np.int64))
    numbered(of, net)
    priced(of, net)
    kept_in(of, net)
    lined_up(of, net)
    before, kept = cost(of), of.starts.copy()
    settled(net, most)
    starts = kept.copy()
    for i in range(len(of.threads)):
        for k in range(of.threads[i].jobs):
            if net.knot[i, k] >= 0:
                starts[i, k] = net.minute[net.knot[i, k]]
    moved(of, starts)
    found: float = cost(of)
    if found > before:
        # what it takes beyond what there is, and what ripens it, was only near to what it costs
        moved(of, kept)
        found = before
    return found
