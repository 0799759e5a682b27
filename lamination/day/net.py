"""Minutes tied to each other, moved to where all ties cost least; compiled.

What a tie costs bends at some stretches and is straight between, and gets no cheaper the farther it is from
its best: so the best minutes are held by a tree of ties that are at a bend. Where a branch of it would cost
less a little earlier or later, it is moved until it does no more, and the tie that holds it there is taken
into the tree in place of the one it hung by; all such branches one after another, before the tree is walked
again. That is the simplex method for a network, on its dual.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from lamination.day.loom import Floats, Ints
from lamination.terms.compiled import compiled, inlined, takes

MUST = 1e6  # what a minute costs that cannot be had
KINKS = 9
_LEAST = 1e-7
_SHARP = (1e3, 1.0, 0.0)  # how sharp the bends are that come into the tree first, and after those


class Net(NamedTuple):
    """What holds tasks to each other: E ties between V knots, each of a task or of the day's beginning.

    A tie's *stretch* is how many minutes its second knot is after its first.
    """

    ties: Ints  # E × 2: its two knots; the last knot is the day's beginning
    kinks: Ints  # E × 9: stretches at which its price bends, rising
    slopes: Floats  # E × 10: the price of a minute more before the first bend, and after each
    many: Ints  # E: how many bends
    size: Ints  # 0: ties; 1: knots without the day's beginning
    minute: Ints  # V: the minute of each
    knot: Ints  # T × J: the knot of each task, or -1 where it cannot move
    # while it is settled
    held: Floats  # E: the price of a minute more that each tie holds
    tree: Ints  # E: 1 for those of the tree
    head: Ints  # V+1: from where in ``near`` the ties of each knot are
    near: Ints  # 2 E: the ties of one knot after another
    parent: Ints  # V: the tie by which each hangs in the tree, or -1
    order: Ints  # V: those nearer to the day's beginning in the tree first
    pull: Floats  # V: what pulls each to be earlier
    cuts: Ints  # V: the first knots of branches
    within: Ints  # V: 1 for those of the branch that is moved
    branch: Ints  # V: those
    crossing: Ints  # E × 3: the ties that leave it, which way each goes by its move, its next bend


def woven(tasks: int, knot: Ints) -> Net:
    """A net with room for so many tasks, of which nothing is known; ``knot``: what each has."""
    ties, knots = 12 * tasks, tasks + 1
    return Net(
        np.empty((ties, 2), np.int64), np.empty((ties, KINKS), np.int64), np.empty((ties, KINKS + 1)),
        np.empty(ties, np.int64), np.zeros(2, np.int64), np.empty(knots, np.int64), knot,
        np.empty(ties), np.empty(ties, np.int64), np.empty(knots + 1, np.int64),
        np.empty(2 * ties, np.int64), np.empty(knots, np.int64), np.empty(knots, np.int64),
        np.empty(knots), np.empty(knots, np.int64), np.zeros(knots, np.int64),
        np.empty(knots, np.int64), np.empty((ties, 3), np.int64),
    )  # fmt: skip


NET = woven(1, np.zeros((1, 1), np.int64))
weave = compiled(takes("i8", "i8[:,::1]", gives=NET))(woven)


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


@inlined
def straight(net: Net, e: int) -> float:
    """The price of a minute more of a tie where it is straight; at a bend, nearest to what it holds."""
    x = net.minute[net.ties[e, 1]] - net.minute[net.ties[e, 0]]
    p = 0
    while p < net.many[e] and net.kinks[e, p] < x:
        p += 1
    found: float = net.slopes[e, p]
    if p < net.many[e] and net.kinks[e, p] == x:
        found = min(max(net.held[e], found), net.slopes[e, p + 1])
    return found


@inlined
def bend(net: Net, e: int) -> int:
    """The bend at which a tie is, or -1."""
    x = net.minute[net.ties[e, 1]] - net.minute[net.ties[e, 0]]
    for p in range(net.many[e]):
        if net.kinks[e, p] == x:
            return p
    return -1


@inlined
def met(net: Net) -> None:
    """List the ties of every knot."""
    head, knots, ties = net.head, net.size[1] + 1, net.size[0]
    for v in range(knots + 1):
        head[v] = 0
    for e in range(ties):
        for side in range(2):
            head[net.ties[e, side]] += 1
    for v in range(knots):
        head[v + 1] += head[v]
    for e in range(ties):
        for side in range(2):
            v = net.ties[e, side]
            head[v] -= 1
            net.near[head[v]] = e


@inlined
def rooted(group: Ints, v: int) -> int:
    """The group of a knot."""
    while group[v] != v:
        group[v] = group[group[v]]
        v = group[v]
    return v


@inlined
def grown(net: Net) -> None:
    """Say what every tie holds, and grow a tree of those that are at a bend, the sharpest bends first.

    What may hold much will hardly have to leave the tree again.
    """
    group, ties = net.order, net.size[0]
    for v in range(net.size[1] + 1):
        group[v] = v
    for e in range(ties):
        net.held[e], net.tree[e] = 0.0, 0
        net.held[e] = straight(net, e)
    above = np.inf
    for least in _SHARP:
        for e in range(ties):
            p = bend(net, e)
            if p < 0 or not least <= net.slopes[e, p + 1] - net.slopes[e, p] < above:
                continue
            a, b = rooted(group, net.ties[e, 0]), rooted(group, net.ties[e, 1])
            if a != b:
                group[a] = b
                net.tree[e] = 1
        above = least


@inlined
def walked(net: Net) -> None:
    """The tree from the day's beginning on: the tie by which each knot hangs, and the knots in that order.

    What hangs nowhere has no tie, -1, and all of it comes after the rest.
    """
    parent, order, count = net.parent, net.order, 0
    for v in range(net.size[1] + 1):
        parent[v] = -2
    for root in range(net.size[1], -1, -1):
        if parent[root] != -2:
            continue
        parent[root], order[count], done = -1, root, count
        count += 1
        while done < count:
            v = order[done]
            done += 1
            for q in range(net.head[v], net.head[v + 1]):
                e = net.near[q]
                w = net.ties[e, 0] + net.ties[e, 1] - v
                if net.tree[e] and parent[w] == -2:
                    parent[w], order[count] = e, w
                    count += 1


@inlined
def gained(net: Net, e: int, v: int, pull: float) -> float:
    """What a branch gains by a minute, below 0 where it is by an earlier one.

    It hangs at its knot by a tie, or by none, -1; what else holds it pulls it so much to be earlier.
    """
    if e < 0:
        return -pull if abs(pull) > _LEAST else 0.0
    later, p = net.ties[e, 1] == v, bend(net, e)
    holds = -pull if later else pull
    above, below = holds - net.slopes[e, p + 1], net.slopes[e, p] - holds
    if max(above, below) <= _LEAST:
        return 0.0
    gain: float = above if above > below else -below
    return gain if later else -gain


@inlined
def loose(net: Net) -> int:
    """The branches that would gain by a minute earlier or later: the first knot of each; returns how many.

    None comes after one that it is a branch of.
    """
    many, knots, pull = 0, net.size[1] + 1, net.pull
    for v in range(knots):
        pull[v] = 0.0
    for e in range(net.size[0]):
        if not net.tree[e]:
            pull[net.ties[e, 1]] += net.held[e]
            pull[net.ties[e, 0]] -= net.held[e]
    for c in range(knots - 1, 0, -1):
        v = net.order[c]
        e = net.parent[v]
        if e >= 0:
            pull[net.ties[e, 0] + net.ties[e, 1] - v] += pull[v]
        if gained(net, e, v, pull[v]) != 0.0:
            net.cuts[many] = v
            many += 1
    return many


@inlined
def branched(net: Net, v: int, without: int) -> int:
    """Mark and list the knots that hang together with one but for a tie; returns how many."""
    net.branch[0], net.within[v], many, done = v, 1, 1, 0
    while done < many:
        w = net.branch[done]
        done += 1
        for q in range(net.head[w], net.head[w + 1]):
            e = net.near[q]
            u = net.ties[e, 0] + net.ties[e, 1] - w
            if net.tree[e] and e != without and not net.within[u]:
                net.within[u], net.branch[many] = 1, u
                many += 1
    return many


@inlined
def crossed(net: Net, knots: int) -> int:
    """List the ties between a branch of so many knots and others; returns how many."""
    many = 0
    for c in range(knots):
        v = net.branch[c]
        for q in range(net.head[v], net.head[v + 1]):
            e = net.near[q]
            if net.within[net.ties[e, 0]] != net.within[net.ties[e, 1]]:
                net.crossing[many, 0] = e
                many += 1
    return many


@inlined
def shifted(net: Net, knots: int, crosses: int, way: int, gain: float) -> int:
    """Move a branch until a minute more gains nothing; returns the tie that holds it then, or -1."""
    minute, kinks, slopes, held = net.minute, net.kinks, net.slopes, net.held
    for c in range(crosses):
        e = net.crossing[c, 0]
        to = way if net.within[net.ties[e, 1]] else -way
        x = minute[net.ties[e, 1]] - minute[net.ties[e, 0]]
        # the next bend on its way; one at which it is, only as far as it holds less than it can
        p = 0 if to > 0 else net.many[e] - 1
        while 0 <= p < net.many[e] and to * (kinks[e, p] - x) < 0:
            p += to
        if 0 <= p < net.many[e] and kinks[e, p] == x:
            end = slopes[e, p + 1] if to > 0 else slopes[e, p]
            if to * (end - held[e]) <= _LEAST:
                p += to
        net.crossing[c, 1], net.crossing[c, 2] = to, p
    moved, entering = 0, -1
    while entering < 0:
        nearest, which = 1 << 40, -1
        for c in range(crosses):
            e, p = net.crossing[c, 0], net.crossing[c, 2]
            if 0 <= p < net.many[e]:
                away = abs(kinks[e, p] - minute[net.ties[e, 1]] + minute[net.ties[e, 0]])
                if away < nearest:
                    nearest, which = away, c
        if which < 0:
            break
        e, to, p = net.crossing[which, 0], net.crossing[which, 1], net.crossing[which, 2]
        end = slopes[e, p + 1] if to > 0 else slopes[e, p]
        was = slopes[e, p] if to > 0 else slopes[e, p + 1]
        gain -= abs(end - (was if nearest else held[e]))
        moved = nearest
        if gain <= _LEAST:
            entering = e
        else:
            held[e] = end
            net.crossing[which, 2] += to
    for c in range(knots if entering >= 0 else 0):
        minute[net.branch[c]] += way * moved
    for c in range(crosses):
        held[net.crossing[c, 0]] = straight(net, net.crossing[c, 0])
    return entering


@inlined
def moved_on(net: Net, cut: int) -> bool:
    """Move the branch of a knot to where it costs least, as it hangs now; whether that gained anything."""
    hung, entering = net.parent[cut], -1
    knots = branched(net, cut, hung)
    crosses, pull = crossed(net, knots), 0.0
    for c in range(crosses):
        e = net.crossing[c, 0]
        if e != hung:
            pull += net.held[e] if net.within[net.ties[e, 1]] else -net.held[e]
    gain = gained(net, hung, cut, pull)
    if gain != 0.0:
        way = 1 if gain > 0 else -1
        if hung >= 0:
            p = bend(net, hung)
            rises = (net.ties[hung, 1] == cut) == (way > 0)
            net.tree[hung] = 0
            net.held[hung] = net.slopes[hung, p + 1] if rises else net.slopes[hung, p]
        entering = shifted(net, knots, crosses, way, abs(gain))
        if entering >= 0:
            net.tree[entering] = 1
        elif hung >= 0:
            net.tree[hung] = 1
    for c in range(knots):
        net.within[net.branch[c]] = 0
    return entering >= 0


@compiled(takes(NET, "i8", gives="i8"))
def settled(net: Net, most: int) -> int:
    """Move the knots of a net to where all costs least, in at most so many moves; returns how many."""
    met(net)
    grown(net)
    done, before = 0, -1
    while before < done < most:
        before = done
        walked(net)
        for c in range(loose(net)):
            if done < most:
                done += moved_on(net, net.cuts[c])
    return done
