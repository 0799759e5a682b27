"""What a task costs by the minute it begins, beside those that lie there, and lying in a place; compiled.

What is taken is summed from the first minute, so that any stretch of it is a difference. The loops begin at
nothing, on slices of what they read, so that several minutes are worked at once.
"""

from __future__ import annotations

import numpy as np

from lamination.day.loom import LOOM, Floats, Ints, Loom
from lamination.terms.compiled import compiled, inlined, takes


@inlined
def suffices(of: Loom, line: int, many: int, begin: int, end: int) -> bool:
    """Whether there are so many more of a line than are taken, from one minute to another."""
    there, taken, least = of.there[line], of.taken[line], np.int32(many)
    for t in range(begin, end):
        least = min(least, there[t] - taken[t])
    return bool(least >= many)


@compiled(takes(LOOM))
def summed(of: Loom) -> None:
    """Bring every sum up to date, where what is taken has changed since; what comes after is moved along."""
    n = of.there.shape[1]
    for a in range(len(of.counts)):
        line, many = of.counts[a].line, of.counts[a].many
        begin, end = of.stale[line, 0], min(of.stale[line, 1], n)
        if begin >= end:
            continue
        there, taken, asked, sums = of.there[line], of.taken[line], of.asked[line], of.sums[a]
        was, paid = sums[end], sums[begin] if begin else 0.0
        if was == paid and suffices(of, line, many, begin, end):
            continue
        for t in range(begin, end):
            short = taken[t] - there[t]
            paid += (max(short + many, 0) - max(short, 0)) * asked[t]
            sums[t + 1] = paid
        more = paid - was
        if more:
            for t in range(end + 1, n + 1):
                sums[t] += more
    for h in range(of.hands[0]):
        begin, end = of.stirred[h, 0], min(of.stirred[h, 1], n)
        for level in range(of.worked.shape[1] if begin < end else 0):
            taken, worked = of.taken[h], of.worked[h, level, int(of.prices[0].pause) :]
            was = worked[end]
            for t in range(begin, end):
                worked[t + 1] = worked[t] + (1 if taken[t] > level else 0)
            longer = worked[end] - was
            for t in range(end + 1, len(worked) if longer else 0):
                worked[t] += longer
        of.stirred[h, 0], of.stirred[h, 1] = n, 0
    for line in range(len(of.stale)):
        of.stale[line, 0], of.stale[line, 1] = n, 0


@compiled(takes("i8[:,::1]", "i8", "i8", "i8", gives="b1"))
def begins_anew(worked: Ints, pause: int, start: int, end: int) -> bool:
    """Whether a task would have one of a shift's hands begin anew: nobody is free who has just worked.

    Where so many work while it is done, one more must be at work within a pause of it. ``worked``: the
    minutes of the shift in which one, two, three of its hands work, summed; it begins a pause earlier.
    """
    for level in range(worked.shape[0]):
        if worked[level, end + pause] == worked[level, start + pause]:
            found: bool = worked[level, start] == worked[level, end + 2 * pause]
            return found
    return False


@compiled(takes(LOOM, "i8", "i8", "i8", "i8", "f8[::1]"))
def anew(of: Loom, h: int, minutes: int, lo: int, hi: int, found: Floats) -> None:
    """What it costs that a task has a hand of a shift begin anew, by its minute, from ``lo`` to ``hi``.

    The same as :func:`begins_anew`, of all minutes at once.
    """
    stretch, pause = of.prices[0].stretch, int(of.prices[0].pause)
    found = found[lo:]
    for t in range(hi + 1 - lo):
        found[t] = 0.0
    for level in range(of.worked.shape[1] - 1, -1, -1):
        before = of.worked[h, level, lo:]
        start, end, after = before[pause:], before[minutes + pause :], before[minutes + 2 * pause :]
        for t in range(hi + 1 - lo):
            apart = stretch if before[t] == after[t] else 0.0
            found[t] = apart if start[t] == end[t] else found[t]


@compiled(takes(LOOM, "i8", "i8", "i8", "i8", "f8[::1]", "f8[::1]"))
def works(of: Loom, i: int, k: int, lo: int, hi: int, after: Floats, then: Floats) -> None:
    """What a task costs by its minute, from ``lo`` to ``hi``, and all ``after`` it, into ``then``."""
    job = of.jobs[i, k]
    minutes, stretch = job.minutes, of.prices[0].stretch if job.minutes else 0.0
    apart, end, n = of.coming[lo:], lo + minutes, hi + 1 - lo
    then, after, wish = then[lo:], after[end:], of.wishes[job.wished, lo:]
    for t in range(n):
        then[t] = np.inf
    for h in range(of.hands[0] if job.held else 0):
        if job.able >> h & 1:
            begun, done = of.sums[h, lo:], of.sums[h, end:]
            if stretch:
                anew(of, h, minutes, lo, hi, of.coming)
                for t in range(n):
                    then[t] = min(then[t], done[t] - begun[t] + apart[t])
            else:
                for t in range(n):
                    then[t] = min(then[t], done[t] - begun[t])
    if not job.held:
        begun, done = of.nobody[lo:], of.nobody[end:]
        for t in range(n):
            then[t] = done[t] - begun[t]
    begun, done = of.night[lo:], of.night[end:]
    for t in range(n):
        then[t] += done[t] - begun[t] + wish[t] + after[t]
    if job.machine >= 0:
        begun, done = of.sums[job.machine, lo:], of.sums[job.machine, end:]
        if job.load < 0:
            for t in range(n):
                then[t] += done[t] - begun[t]
        else:
            loads = of.loads[job.load, lo:]
            for t in range(n):
                # what finds room in an oven that others have at this minute takes none
                if not loads[t, 0] or loads[t, 1] + job.trays > of.room[0]:
                    then[t] += done[t] - begun[t]


@compiled(takes(LOOM, "i8", "i8", "i8", "i8", "f8[::1]"))
def lies_until(of: Loom, i: int, k: int, lo: int, hi: int, then: Floats) -> None:
    """Add what lying costs in the rest after a task, as far as it depends on when the rest ends."""
    gap = of.gaps[i, k]
    # until the last part can have begun nothing lies anywhere
    first = max(lo, gap.last_min)
    late, n = then[first:], hi + 1 - first
    if gap.between >= 0:
        lying = of.sums[gap.between, first - gap.last_min :]
        for t in range(n):
            late[t] += lying[t]
    if gap.last >= 0:
        lying = of.sums[gap.last]
        for t in range(lo, hi + 1):
            then[t] += lying[t]
        lying = lying[first - gap.last_min :]
        for t in range(n):
            late[t] -= lying[t]


@compiled(takes(LOOM, "i8", "i8", "i8", "i8", "f8[::1]"))
def lies_from(of: Loom, i: int, k: int, lo: int, hi: int, then: Floats) -> None:
    """Add the part that depends on when the rest begins."""
    gap = of.gaps[i, k]
    # beyond the day nothing more lies anywhere
    first, n = gap.first_min, of.there.shape[1]
    then, within, many = then[lo:], min(n - first, hi) + 1 - lo, hi + 1 - lo
    if gap.between >= 0:
        lying = of.sums[gap.between, lo + first :]
        for t in range(within):
            then[t] -= lying[t]
        for t in range(max(within, 0), many):
            then[t] -= of.sums[gap.between, n]
    if gap.first >= 0:
        begun, lying = of.sums[gap.first, lo:], of.sums[gap.first, lo + first :]
        for t in range(within):
            then[t] += lying[t] - begun[t]
        for t in range(max(within, 0), many):
            then[t] += of.sums[gap.first, n] - begun[t]
