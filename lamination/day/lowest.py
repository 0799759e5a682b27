"""The lowest price within a stretch of minutes that is as long everywhere, compiled.

The minutes are cut into blocks as long as the stretch, and the lowest is kept from the beginning of its
block up to each, and from each to the end of its block: any stretch is the end of one block and the
beginning of the next (van Herk 1992, Gil and Werman 1993). Nothing is decided by the prices on the way,
so that it takes half the time of a queue.
"""

from __future__ import annotations

import numpy as np

from lamination.day.loom import Floats
from lamination.terms.compiled import compiled, inlined, takes


@inlined
def in_blocks(
    prices: Floats, lo: int, hi: int, slope: float, wide: int, past: Floats, coming: Floats
) -> None:
    """The lowest of ``prices`` and ``slope`` for each minute, from a block's beginning and to its end.

    The first block begins at ``lo``; each is ``wide`` minutes, and the last ends at ``hi``.
    """
    for begin in range(lo, hi + 1, wide):
        end = min(begin + wide - 1, hi)
        # both ways at once: neither has to wait for what the other has just found
        ahead = back = np.inf
        for n in range(end - begin + 1):
            t, u = begin + n, end - n
            price, other = prices[t] + slope * t, prices[u] + slope * u
            ahead = price if price < ahead else ahead
            back = other if other < back else back
            past[t], coming[u] = ahead, back


@compiled(takes("f8[::1]", "i8", "i8", "f8", "i8", "i8", "f8", "i8", "i8", *["f8[::1]"] * 3))
def lowest(
    prices: Floats,
    lo: int,
    hi: int,
    slope: float,
    low: int,
    high: int,
    base: float,
    begin: int,
    until: int,
    best: Floats,
    past: Floats,
    coming: Floats,
) -> None:
    """Lower ``best`` of each minute from ``begin`` to ``until`` to what some other minute would cost from it.

    Another from ``low`` to ``high`` minutes later, among ``lo`` to ``hi``, costs its own of ``prices``, and
    ``base``, and ``slope`` for each minute that it is later. ``past`` and ``coming`` are to work with.
    """
    wide = high - low + 1
    in_blocks(prices, lo, hi, slope, wide, past, coming)
    first = max(begin, lo - high)
    found, other = best[first:], past[first + high :]
    within = min(until, lo - low, hi - high) + 1 - first
    for e in range(within):
        price = other[e] + base - slope * (first + e)
        found[e] = price if price < found[e] else found[e]
    last, end = lo + (hi - lo) // wide * wide, past[hi]
    for e in range(max(within, 0), min(until, lo - low) + 1 - first):
        price = end + base - slope * (first + e)
        found[e] = price if price < found[e] else found[e]
    first = max(begin, lo - low + 1)
    found, one, other = best[first:], coming[first + low :], past[first + high :]
    within = min(until, hi - high - 1) + 1 - first
    for e in range(within):
        least = one[e] if one[e] < other[e] else other[e]
        price = least + base - slope * (first + e)
        found[e] = price if price < found[e] else found[e]
    first = max(first, hi - high)
    found, one = best[first:], coming[first + low :]
    for e in range(min(until, hi - low) + 1 - first):
        least = end if first + e + low < last and end < one[e] else one[e]
        price = least + base - slope * (first + e)
        found[e] = price if price < found[e] else found[e]
