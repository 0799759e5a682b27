"""Minutes tied to each other, moved to where all ties cost least; compiled.

What a tie costs bends at some stretches and is straight between, and gets no cheaper the farther it is from
its best: so the best minutes are held by a tree of ties that are at a bend. Where a branch of it would cost
less a little earlier or later, it is moved until it does no more, and the tie that holds it there is taken
into the tree in place of the one it hung by. That is the simplex method for a network, on its dual.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from lamination.day.loom import Floats, Ints
from lamination.terms.compiled import compiled, takes

MUST = 1e6  # what a minute costs that cannot be had
KINKS = 9
_LEAST = 1e-7


class Net(NamedTuple):
    """What holds tasks to each other: E ties between knots, each of a task or of the day's beginning.

    A tie's *stretch* is how many minutes its second knot is after its first.
    """

    ties: Ints  # E × 2: its two knots; the last knot is the day's beginning
    kinks: Ints  # E × 9: stretches at which its price bends, rising
    slopes: Floats  # E × 10: the price of a minute more before the first bend, and after each
    many: Ints  # E: how many bends
    size: Ints  # 0: ties; 1: knots without the day's beginning
    minute: Ints  # knots: the minute of each
    knot: Ints  # T × J: the knot of each task, or -1 where it cannot move


def unwoven() -> Net:
    """A net of nothing, with every array as a net has it."""
    flat, deep, real = np.zeros(1, np.int64), np.zeros((1, 1), np.int64), np.zeros((1, 1))
    return Net(deep, deep, real, flat, flat, flat, deep)


NET = unwoven()


@compiled(takes(NET, "i8", "i8", "i8", gives="i8"))
def tied(net: Net, a: int, b: int, low: int) -> int:
    """Tie two knots: the second at the least so many minutes after the first. Returns the tie."""
    e: int = net.size[0]
    if a == b or e == len(net.ties):
        return -1
    net.ties[e, 0], net.ties[e, 1] = a, b
    net.many[e], net.kinks[e, 0] = 1, low
    net.slopes[e, 0], net.slopes[e, 1] = -MUST, 0.0
    net.size[0] = e + 1
    return e


@compiled(takes(NET, "i8", "i8", "f8"))
def bent(net: Net, e: int, at: int, slope: float) -> None:
    """Let the price of a tie bend once more, after its last bend."""
    k = net.many[e]
    if k < net.kinks.shape[1] and at > net.kinks[e, k - 1]:
        net.kinks[e, k], net.slopes[e, k + 1] = at, slope
        net.many[e] = k + 1
    elif at <= net.kinks[e, k - 1]:
        net.slopes[e, k] = slope


@compiled(takes(NET, "f8[::1]", "i8", gives="f8"))
def straight(net: Net, held: Floats, e: int) -> float:
    """The price of a minute more of a tie where it is straight; at a bend, nearest to what it holds."""
    x = net.minute[net.ties[e, 1]] - net.minute[net.ties[e, 0]]
    p = 0
    while p < net.many[e] and net.kinks[e, p] < x:
        p += 1
    found: float = net.slopes[e, p]
    if p < net.many[e] and net.kinks[e, p] == x:
        found = min(max(held[e], found), net.slopes[e, p + 1])
    return found


@compiled(takes(NET, "i8", gives="i8"))
def bend(net: Net, e: int) -> int:
    """The bend at which a tie is, or -1."""
    x = net.minute[net.ties[e, 1]] - net.minute[net.ties[e, 0]]
    for p in range(net.many[e]):
        if net.kinks[e, p] == x:
            return p
    return -1


@compiled(takes(NET, "i8[::1]", "i8[::1]"))
def met(net: Net, head: Ints, near: Ints) -> None:
    """List the ties of every knot: those of the v-th are from ``head[v]`` to ``head[v + 1]``."""
    head[:] = 0
    ties = net.size[0]
    for e in range(ties):
        head[net.ties[e, 0] + 1] += 1
        head[net.ties[e, 1] + 1] += 1
    for v in range(len(head) - 1):
        head[v + 1] += head[v]
    at = head.copy()
    for e in range(ties):
        for side in range(2):
            v = net.ties[e, side]
            near[at[v]] = e
            at[v] += 1


@compiled(takes("i8[::1]", "i8", gives="i8"))
def rooted(group: Ints, v: int) -> int:
    """The group of a knot."""
    while group[v] != v:
        group[v] = group[group[v]]
        v = group[v]
    return v


@compiled(takes(NET, "f8[::1]", "i8[::1]"))
def grown(net: Net, held: Floats, tree: Ints) -> None:
    """Say what every tie holds, and grow a tree of those that are at a bend."""
    group = np.arange(net.size[1] + 1)
    held[:] = 0.0
    tree[:] = 0
    for e in range(net.size[0]):
        held[e] = straight(net, held, e)
        if bend(net, e) >= 0:
            a, b = rooted(group, net.ties[e, 0]), rooted(group, net.ties[e, 1])
            if a != b:
                group[a] = b
                tree[e] = 1


@compiled(takes(NET, "i8[::1]", "i8[::1]", "i8[::1]", "i8[::1]", "i8[::1]"))
def walked(net: Net, head: Ints, near: Ints, tree: Ints, parent: Ints, order: Ints) -> None:
    """The tree from the day's beginning on: the tie by which each knot hangs, and the knots in that order.

    What hangs nowhere has no tie, -1, and all of it comes after the rest.
    """
    parent[:] = -2
    count = 0
    for root in range(len(parent) - 1, -1, -1):
        if parent[root] != -2:
            continue
        parent[root], order[count], done = -1, root, count
        count += 1
        while done < count:
            v = order[done]
            done += 1
            for q in range(head[v], head[v + 1]):
                e = near[q]
                w = net.ties[e, 0] + net.ties[e, 1] - v
                if tree[e] and parent[w] == -2:
                    parent[w], order[count] = e, w
                    count += 1


@compiled(takes(NET, "f8[::1]", "i8[::1]", "i8[::1]", "i8[::1]", "f8[::1]", gives="i8"))
def loosest(net: Net, held: Floats, tree: Ints, parent: Ints, order: Ints, gain: Floats) -> int:
    """The branch that would gain most by a minute: its first knot, or -1.

    What each tie of the tree must hold against what pulls at its branch is written into ``held``, and
    into ``gain`` what is gained, below 0 where it is by an earlier minute.
    """
    pull = np.zeros(len(parent))
    for e in range(net.size[0]):
        if not tree[e]:
            pull[net.ties[e, 1]] += held[e]
            pull[net.ties[e, 0]] -= held[e]
    worst, cut, way = _LEAST, -1, 0
    for c in range(len(parent) - 1, 0, -1):
        v = order[c]
        e = parent[v]
        if e < 0:
            if abs(pull[v]) > worst:
                worst, cut, way = abs(pull[v]), v, -1 if pull[v] > 0 else 1
            continue
        later = net.ties[e, 1] == v
        held[e] = -pull[v] if later else pull[v]
        pull[net.ties[e, 0] + net.ties[e, 1] - v] += pull[v]
        p = bend(net, e)
        above, below = held[e] - net.slopes[e, p + 1], net.slopes[e, p] - held[e]
        if above > worst:
            worst, cut, way = above, v, 1 if later else -1
        elif below > worst:
            worst, cut, way = below, v, -1 if later else 1
    gain[0] = way * worst
    return cut


@compiled(takes(NET, "f8[::1]", "i8[::1]", "i8", "f8", gives="i8"))
def shifted(net: Net, held: Floats, within: Ints, way: int, gain: float) -> int:
    """Move a branch until a minute more gains nothing; returns the tie that holds it then, or -1."""
    ties, minute = net.size[0], net.minute
    crossing, towards = np.empty(ties, np.int64), np.empty(ties, np.int64)
    bends = np.empty(ties, np.int64)
    crosses = 0
    for e in range(ties):
        a, b = within[net.ties[e, 0]], within[net.ties[e, 1]]
        if a == b:
            continue
        to = way if b else -way
        x = minute[net.ties[e, 1]] - minute[net.ties[e, 0]]
        # the next bend on its way; one at which it is, only as far as it holds less than it can
        p = 0 if to > 0 else net.many[e] - 1
        while 0 <= p < net.many[e] and to * (net.kinks[e, p] - x) < 0:
            p += to
        if 0 <= p < net.many[e] and net.kinks[e, p] == x:
            end = net.slopes[e, p + 1] if to > 0 else net.slopes[e, p]
            if to * (end - held[e]) <= _LEAST:
                p += to
        crossing[crosses], towards[crosses], bends[crosses] = e, to, p
        crosses += 1
    moved, entering = 0, -1
    while entering < 0:
        nearest, which = 1 << 40, -1
        for c in range(crosses):
            e, p = crossing[c], bends[c]
            if 0 <= p < net.many[e]:
                away = abs(net.kinks[e, p] - minute[net.ties[e, 1]] + minute[net.ties[e, 0]])
                if away < nearest:
                    nearest, which = away, c
        if which < 0:
            return -1
        e, p, to = crossing[which], bends[which], towards[which]
        end = net.slopes[e, p + 1] if to > 0 else net.slopes[e, p]
        was = net.slopes[e, p] if to > 0 else net.slopes[e, p + 1]
        gain -= abs(end - (was if nearest else held[e]))
        moved = nearest
        if gain <= _LEAST:
            entering = e
        else:
            held[e] = end
            bends[which] += to
    for v in range(len(within)):
        if within[v]:
            minute[v] += way * moved
    for c in range(crosses):
        held[crossing[c]] = straight(net, held, crossing[c])
    return entering


@compiled(takes(NET, "i8", gives="i8"))
def settled(net: Net, most: int) -> int:
    """Move the knots of a net to where all costs least, in at most so many moves; returns how many."""
    ties, many = net.size[0], net.size[1] + 1
    head, near = np.empty(many + 1, np.int64), np.empty(2 * ties, np.int64)
    held, tree, gain = np.empty(ties), np.empty(ties, np.int64), np.empty(1)
    parent, order, within = (
        np.empty(many, np.int64), np.empty(many, np.int64), np.empty(many, np.int64)
    )  # fmt: skip
    met(net, head, near)
    grown(net, held, tree)
    for n in range(most):
        walked(net, head, near, tree, parent, order)
        cut = loosest(net, held, tree, parent, order, gain)
        if cut < 0:
            return n
        way = 1 if gain[0] > 0 else -1
        within[:] = 0
        within[cut] = 1
        for v in order:
            e = parent[v]
            if e >= 0 and v != cut and within[net.ties[e, 0] + net.ties[e, 1] - v]:
                within[v] = 1
        e = parent[cut]
        if e >= 0:
            p = bend(net, e)
            rises = (net.ties[e, 1] == cut) == (way > 0)
            tree[e] = 0
            held[e] = net.slopes[e, p + 1] if rises else net.slopes[e, p]
        e = shifted(net, held, within, way, abs(gain[0]))
        if e < 0:
            return n
        tree[e] = 1
    return most
