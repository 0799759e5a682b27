"""What it costs at the least to come to a minute, compiled: a search need not look where that is too dear.

The mirror of a placing, from a thread's first task forwards, where nothing else lies. What others take
only makes it dearer, so it stays true whatever a search does.
"""

from __future__ import annotations

import numpy as np

from lamination.day.by_minute import lies_from, lies_until, works
from lamination.day.loom import LOOM, Floats, Loom
from lamination.day.loops import backwards, ended
from lamination.day.lowest import lowest
from lamination.terms.compiled import compiled, inlined, takes


@compiled(takes(LOOM, "i8", "i8", "f8[::1]", "i8", "i8", "f8[::1]"))
def rests_after(of: Loom, i: int, k: int, ends: Floats, lo: int, hi: int, best: Floats) -> None:
    """The least price up to the end of the rest after a task, by the minute that it ends, into ``best``.

    ``ends``: the price up to the end of the task, for the minutes ``lo`` to ``hi``.
    """
    n = of.there.shape[1]
    for t in range(n + 1):
        best[t] = np.inf
    for p in range(of.gaps[i, k].pieces):
        low, high, slope = of.pieces[i, k, p].low, of.pieces[i, k, p].high, of.pieces[i, k, p].slope
        base = of.pieces[i, k, p].at_low - slope * low
        # the same backwards: what is so much later is looked at from there
        lowest(ends, lo, hi, -slope, -high, -low, base, lo + low, n, best, of.scratch[0], of.coming)


@compiled(takes(LOOM, "i8"))
def reached(of: Loom, i: int) -> None:
    """Write what it costs a thread at the least until each of its tasks begins, by the minute.

    To be asked where nothing lies in the day.
    """
    n, first, last = of.there.shape[1], of.free[i], of.threads[i].jobs - 1
    before, free, ends = of.before[i], np.zeros(n + 1), np.empty(n + 1)
    before[:] = 0.0
    lo, begun = 0, first
    if first and of.threads[i].leader < 0:
        # what has happened ends when it ended
        lo = min(max(ended(of, i, first - 1), 0), n)
        ends[:] = np.inf
        ends[lo] = 0.0
        begun = first - 1
    for k in range(begun, last):
        hi = n
        if k >= first:
            job = of.jobs[i, k]
            minutes = job.minutes
            lo, hi = max(lo, of.now[1]), n - minutes
            if lo > hi:
                before[k + 1 : last + 1] = np.inf
                return
            works(of, i, k, lo, hi, free, before[last + 1])
            ends[:] = np.inf
            for t in range(lo, hi + 1):
                ends[t + minutes] = before[k, t] + before[last + 1, t]
                if job.load >= 0 and job.machine >= 0:
                    # there may be one in which it finds room
                    ends[t + minutes] -= of.sums[job.machine, t + minutes] - of.sums[job.machine, t]
            lo, hi = lo + minutes, n
        lies_from(of, i, k, lo, hi, ends)
        rests_after(of, i, k, ends, lo, hi, before[k + 1])
        lies_until(of, i, k, lo, n, before[k + 1])


@inlined
def widened(of: Loom, i: int, first: int, begin: int, end: int) -> None:
    """Say of a thread's tasks from one on that they begin from one minute to another, at every price."""
    for k in range(first, of.threads[i].jobs):
        for b in range(of.spans.shape[2]):
            of.spans[i, k, b, 0], of.spans[i, k, b, 1] = begin, end


@compiled(takes(LOOM, "i8"))
def spanned(of: Loom, i: int) -> None:
    """Write from when until when a thread's tasks begin where all of it costs no more than a power of two.

    To be asked where nothing lies in the day, after :func:`reached`.
    """
    first, jobs, n = of.free[i], of.threads[i].jobs, of.there.shape[1]
    widened(of, i, 0, 0, n)
    los, his = of.bounds[0], of.bounds[1]
    begin = max(ended(of, i, first - 1), 0) if first and of.threads[i].leader < 0 else 0
    if first == jobs or backwards(of, i, first, jobs - 1, begin, -1, 0.0, 1e12) < 0:
        return
    widened(of, i, first, n, 0)
    for k in range(first, jobs):
        lying = of.scratch[jobs + 1]
        for t in range(n + 1):
            lying[t] = 0.0
        if k:
            # what lying until then costs is in both
            lies_until(of, i, k - 1, los[k], his[k], lying)
        for t in range(los[k], his[k] + 1):
            whole = of.before[i, k, t] + of.scratch[k, t] - lying[t]
            for b in range(of.spans.shape[2] - 1, -1, -1):
                if b < of.spans.shape[2] - 1 and whole > 2.0**b + 1e-6:
                    break
                if whole < np.inf:
                    of.spans[i, k, b, 0] = min(of.spans[i, k, b, 0], t)
                    of.spans[i, k, b, 1] = max(of.spans[i, k, b, 1], t)
