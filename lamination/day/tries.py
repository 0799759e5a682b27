"""What a search tries: a few threads out, or parts of some, and back where all costs less; compiled."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from lamination.day.eased import ease
from lamination.day.loom import LOOM, Floats, Ints, Loom
from lamination.day.moves import again, ask, trouble, whole
from lamination.terms.compiled import compiled, inlined, takes

Dice = npt.NDArray[np.uint64]

_MOST_OUT = 2  # threads taken out at once, besides those that others are mixed with
_MOST_BETWEEN = 4  # threads of which parts are taken out at once
_NEAREST, _FARTHEST = (
    30.0,
    240.0,
)  # how far from its middle the stretch reaches that the parts lie in, min
_WHOLE = 0.4  # how often whole threads are taken out
_FOR_ITSELF = 0.15  # how often one that mixes for others is put where it costs least by itself
_IDLE = 60  # tries without a better day before it goes on from the best again
# where others make way: how often whole threads are taken out, of how many parts are about half as often as
# of more or of fewer, and what a minute costs that another has, from so little to so many times that
_WHOLE_IN, _HALF_IN = 0.2, 3.5
_LITTLE, _MUCH = 0.2, 60.0
_AROUND = 240  # minutes around what is put back in which that is so
_TOO_MANY = 20  # minutes that are not there then, beyond which moving others hardly ever mends it
PIVOTS = 2_000  # when all minutes are moved at once, at the most
# in the state of a search: what the day costs now, what the best does, tries since that, how much dearer
# it may become on the mean
NOW, BEST, IDLE, DEARER = 0, 1, 2, 3


@compiled(takes("u8[::1]", gives="f8"))
def thrown(dice: Dice) -> float:
    """A number from 0 to 1, and dice for the next (xorshift64*, Vigna 2016)."""
    x = dice[0]
    x ^= x >> np.uint64(12)
    x ^= x << np.uint64(25)
    x ^= x >> np.uint64(27)
    dice[0] = x
    found: float = ((x * np.uint64(0x2545F4914F6CDD1D)) >> np.uint64(11)) * 2.0**-53
    return found


@compiled(takes("u8[::1]", "f8[::1]", gives="i8"))
def drawn(dice: Dice, weights: Floats) -> int:
    """One of several by their weights."""
    left = thrown(dice) * weights.sum()
    for i in range(len(weights)):
        left -= weights[i]
        if left < 0 and weights[i] > 0:
            return i
    return int(weights.argmax())


@inlined
def shuffled(dice: Dice, of: Ints) -> None:
    """Some other order."""
    for i in range(len(of) - 1, 0, -1):
        j = int(thrown(dice) * (i + 1))
        of[i], of[j] = of[j], of[i]


@compiled(takes(LOOM, "i8[::1]", "i8", gives="i8[::1]"))
def leaders_first(of: Loom, order: Ints, many: int) -> Ints:
    """The first so many of an order, but nobody before the one that mixes for it."""
    found, n = np.empty(2 * many, np.int64), 0
    there = np.zeros(len(of.threads), np.int64)
    there[order[:many]] = 1
    for o in range(many):
        leader = of.threads[order[o]].leader
        if leader >= 0 and there[leader] == 1:
            found[n], there[leader] = leader, 2
            n += 1
        if there[order[o]] == 1:
            found[n], there[order[o]] = order[o], 2
            n += 1
    return found[:n]


@inlined
def middle(of: Loom, i: int) -> float:
    """The middle of what is free of a thread."""
    last = of.threads[i].jobs - 1
    found: float = (of.starts[i, min(of.free[i], last)] + of.starts[i, last]) / 2
    return found


@compiled(takes(LOOM, "u8[::1]", "f8[:,::1]", "b1", gives="i8[::1]"))
def some(of: Loom, dice: Dice, troubled: Floats, followed: bool) -> Ints:
    """Threads to take out: near each other in time, dear ones more often; with who follows them."""
    many = len(of.threads)
    weights = 1.0 + of.own
    for i in range(many):
        weights[i] += troubled[i].sum()
    first = drawn(dice, weights)
    away, out, n = np.empty(many), np.empty(many, np.int64), 1
    out[0] = first
    for i in range(many):
        away[i] = abs(middle(of, i) - middle(of, first)) * (0.2 + 1.6 * thrown(dice))
    away[first] = np.inf
    for _ in range(min(int(thrown(dice) * _MOST_OUT), many - 1)):
        near = int(away.argmin())
        away[near] = np.inf
        out[n] = near
        n += 1
    for o in range(n):
        # who mixes for others takes them along
        for i in range(many):
            if followed and of.threads[i].leader == out[o] and away[i] < np.inf:
                away[i] = np.inf
                out[n] = i
                n += 1
    order = out[:n]
    shuffled(dice, order)
    return leaders_first(of, order, n)


@compiled(takes(LOOM, "u8[::1]", "f8[:,::1]", "i8[:,::1]", "i8", gives="i8[::1]"))
def between(of: Loom, dice: Dice, troubled: Floats, parts: Ints, most: int) -> Ints:
    """A few threads with tasks that begin between two moments; ``parts``: the first and last of each.

    A row of ``parts`` for each thread of the day. None, where nothing of any thread is free.
    """
    many = len(of.threads)
    # what is done for others stays
    least, weights = np.empty(many, np.int64), np.zeros(many)
    for i in range(many):
        least[i] = max(of.free[i], of.threads[i].along + 1)
        if least[i] < of.threads[i].jobs:
            weights[i] = 1.0 + of.own[i] + troubled[i].sum()
    if weights.sum() == 0.0:
        return np.empty(0, np.int64)
    one = drawn(dice, weights)
    task = least[one] + drawn(dice, 1.0 + troubled[one, least[one] : of.threads[one].jobs])
    at, far = of.starts[one, task], _NEAREST + (_FARTHEST - _NEAREST) * thrown(dice)
    others, order, n = np.arange(many), np.empty(many, np.int64), 0
    shuffled(dice, others)
    for o in range(many):
        if others[o] == one:
            others[0], others[o] = one, others[0]
    for o in range(many):
        i = int(others[o])
        parts[i, 0], parts[i, 1] = -1, -2
        for k in range(least[i], of.threads[i].jobs):
            if abs(of.starts[i, k] - at) <= far:
                parts[i, 0] = k if parts[i, 0] < 0 else parts[i, 0]
                parts[i, 1] = k
        if parts[i, 0] >= 0 and n < most:
            order[n] = i
            n += 1
    return leaders_first(of, order, n)


@compiled(takes(LOOM, "i8[:,::1]", "i8[:,::1]", "i8[::1]"))
def restored(of: Loom, starts: Ints, shifts: Ints, lies: Ints) -> None:
    """Let the day lie as it lay before."""
    for i in range(len(of.threads)):
        other = not lies[i]
        for k in range(of.starts.shape[1]):
            other = other or of.starts[i, k] != starts[i, k] or of.shifts[i, k] != shifts[i, k]
        if of.lies[i] and other:
            whole(of, i, -1)
    for i in range(len(of.threads)):
        if of.lies[i]:
            continue
        for k in range(of.starts.shape[1]):
            of.starts[i, k], of.shifts[i, k] = starts[i, k], shifts[i, k]
        if lies[i]:
            whole(of, i, 1)


@compiled(takes(LOOM, "i8[::1]", "i8[:,::1]", gives="b1"))
def elsewhere(of: Loom, which: Ints, starts: Ints) -> bool:
    """Whether some task of threads begins at another minute than it did."""
    for i in which:
        for k in range(of.threads[i].jobs):
            if of.starts[i, k] != starts[i, k]:
                return True
    return False


@inlined
def beside(of: Loom, dice: Dice, troubled: Floats, parts: Ints, company: Ints) -> Ints:
    """Threads to put back beside the others, with ``parts`` and ``company`` for :func:`again`."""
    order = np.empty(0, np.int64)
    if thrown(dice) >= _WHOLE:
        order = between(of, dice, troubled, parts, _MOST_BETWEEN)
        company[:] = 0
    if len(order) == 0:
        order = some(of, dice, troubled, True)
        for i in order:
            parts[i, 0], parts[i, 1] = of.free[i], of.threads[i].jobs - 1
            company[i] = 1 if thrown(dice) >= _FOR_ITSELF else 0
    return order


@compiled(takes(LOOM, "u8[::1]", "f8[:,::1]", "i8[:,::1]", gives="i8[::1]"))
def among(of: Loom, dice: Dice, troubled: Floats, parts: Ints) -> Ints:
    """Threads to put back where others are to make way: ``parts`` of each; what is done for others stays."""
    order = np.empty(0, np.int64)
    if thrown(dice) >= _WHOLE_IN:
        most = 1 + int((thrown(dice) + thrown(dice)) * _HALF_IN)
        order = between(of, dice, troubled, parts, most)
    if len(order) == 0:
        order = some(of, dice, troubled, False)
        for i in order:
            parts[i, 0] = max(of.free[i], of.threads[i].along + 1)
            parts[i, 1] = of.threads[i].jobs - 1
    return order


@compiled(takes(LOOM, "i8[::1]", "i8[:,::1]", gives=(0, 0)))
def around(of: Loom, order: Ints, parts: Ints) -> tuple[int, int]:
    """From and until when others may have to make way for parts of threads."""
    begin, end = of.there.shape[1], 0
    for i in order:
        begin = min(begin, of.starts[i, parts[i, 0]])
        end = max(end, of.starts[i, parts[i, 1]])
    return begin - _AROUND, end + _AROUND


@compiled(takes(LOOM, "u8[::1]", "f8[::1]", "i8[:,::1]", "i8[:,::1]", "i8[::1]", "i8", "b1"))
def tried(
    of: Loom,
    dice: Dice,
    state: Floats,
    starts: Ints,
    shifts: Ints,
    lies: Ints,
    times: int,
    making_way: bool,
) -> None:
    """Try for better so many times; ``starts``, ``shifts`` and ``lies``: the best day there was.

    ``making_way``: what is put back takes for little what others have, and then all minutes are moved at
    once, so that they make way. That is for a day in which everything costs what it does.
    """
    many = len(of.threads)
    troubled, parts = np.zeros(of.starts.shape), np.empty((many, 2), np.int64)
    company = np.zeros(many, np.int64)
    for _ in range(times):
        state[IDLE] += 1
        if state[IDLE] > _IDLE:
            # nothing came of it: on from the best again
            restored(of, starts, shifts, lies)
            state[NOW], state[IDLE] = state[BEST], 0
        most = state[NOW] - state[DEARER] * np.log(1.0 - thrown(dice))
        trouble(of, troubled)
        if making_way:
            lay = of.starts.copy(), of.shifts.copy(), of.lies.copy()
            order = among(of, dice, troubled, parts)
            begin, end = around(of, order, parts)
            missing = of.over.sum()
            ask(of, _LITTLE * _MUCH ** thrown(dice), begin, end)
            again(of, order, parts[order], company[order], np.inf)
            missing = of.over.sum() - missing
            ask(of, np.inf, begin, end)
            found = np.inf
            if missing <= _TOO_MANY and elsewhere(of, order, lay[0]):
                found = ease(of, PIVOTS)
            if found > most:
                restored(of, lay[0], lay[1], lay[2])
        else:
            order = beside(of, dice, troubled, parts, company)
            found = again(of, order, parts[order], company[order], most)
        if found > most:
            continue
        state[NOW] = found
        if found < state[BEST] - 1e-6:
            state[BEST], state[IDLE] = found, 0
            starts[:], shifts[:], lies[:] = of.starts, of.shifts, of.lies
