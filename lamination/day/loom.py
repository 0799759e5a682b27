"""A day as arrays, for the compiled loops: its lines, and its threads with where each lies.

A *line* is one thing that can be taken: a shift's hands, a kind of machine, a place. A *sum* is what it
costs to take so many of a line, summed from the first minute, so that any stretch of it is a difference.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, NamedTuple

import numpy as np
import numpy.typing as npt

from lamination.day import ovens
from lamination.day.busy import TAKEN, Busy
from lamination.day.day import Prefer
from lamination.day.threads import LINGER, Gap, Thread
from lamination.kitchen import Kitchen
from lamination.terms.trade import Place

Floats = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]
Records = npt.NDArray[np.void]

# What somebody fixed gives way only to what cannot be done at all.
TO_THE_MINUTE = 5_000.0
_NOBODY, _MOST_PIECES, _FOREVER = -1, 8, 10**9
_AT_WORK = 3  # hands of a shift up to which it is told how many are at work
_SPANS = 24  # powers of two, up to which a thread's price is told apart
_FRESH = 10.0  # how much more freshness weighs for who prefers it
_AT_FIRST = 40.0  # of a thread's price: up to where it is looked at first


@dataclass(frozen=True)
class Prices:
    """What a minute of each compromise weighs. ``linger``: a minute away from what was planned; ``stale``:
    one that it was baked longer ago than it stays good.

    ``stretch``: one of a hand's, with no ``pause`` in it that is longer; ``long``: a minute of a hand's
    day beyond ``long_from``.
    """

    late: float
    outside: float
    early: float
    early_from: int
    linger: float
    stale: float = 0.0
    stretch: float = 0.0
    pause: int = 15
    long: float = 0.0
    long_from: int = 480


def prices_of(kitchen: Kitchen, prefer: Prefer) -> Prices:
    """What each compromise weighs by the kitchen's table, for who prefers freshness or sleep, or neither."""
    fresh = _FRESH if prefer is Prefer.FRESH else 1.0
    return Prices(
        kitchen["day.late"],
        max(kitchen["day.outside"], 1.0),
        kitchen["day.early"] * fresh,
        0 if prefer is Prefer.FRESH else round(kitchen["day.early_from_min"]),
        LINGER,
        stale=kitchen["day.stale"],
        stretch=kitchen["day.stretch"],
        pause=round(kitchen["day.pause_min"]),
        long=kitchen["day.long"] / 60,
        long_from=round(kitchen["day.long_from_min"]),
    )


@dataclass(frozen=True)
class Pull:
    """Where a task was before, or is to be: leaving it costs ``flat`` at once, and ``each`` for every minute.

    In all no more than ``most``.
    """

    minute: int
    flat: float
    each: float
    most: float = math.inf

    def price(self, at: Ints) -> Floats:
        """What it costs to begin at minutes."""
        away = np.abs(at - self.minute)
        found: Floats = np.minimum(self.flat * (away > 0) + self.each * away, self.most)
        return found


# able: the shifts that do it, a bit each; machine: its line; wished: its row of wishes; load: its row of
# what goes into the oven at once, with those of its trays, or -1
JOB = np.dtype(
    [(n, "i8") for n in ("minutes", "held", "able", "machine", "wished", "load", "trays")]
)
# the sums and lines of what it lies in: in between, in its first part and in its last; -1: not counted
GAP = np.dtype([
    (n, "i8") for n in (
        "ripens", "pieces", "takes", "first_min", "last_min",
        "between", "first", "last", "between_line", "first_line", "last_line",
    )
])  # fmt: skip
# trunk: how many tasks its leader does for it; along: its own last task that it does for others, or -1;
# good and bears: minutes of ripening; fresh: minutes that it stays so when it is done
THREAD = np.dtype(
    [
        (n, "i8")
        for n in ("jobs", "trunk", "leader", "along", "done", "ready", "good", "bears", "fresh")
    ]
)
# a rest from low to high minutes long costs so much at its shortest, and slope for each minute more
PIECE = np.dtype([("low", "i8"), ("high", "i8"), ("slope", "f8"), ("at_low", "f8")])
PRICE = np.dtype([
    (n, "f8")
    for n in (
        "late", "early", "early_from", "stale", "outside", "stretch", "pause", "long", "long_from",
    )
])  # fmt: skip
SUM = np.dtype([("line", "i8"), ("many", "i8")])


class Loom(NamedTuple):
    """All of a day that the compiled loops read and write; T threads of up to J tasks, N minutes."""

    there: npt.NDArray[np.int32]  # lines × N: how many there are
    taken: npt.NDArray[np.int32]  # lines × N: how many are taken
    unit: Floats  # lines: what a missing one costs a minute
    asked: Floats  # lines × N: what is asked for one at a minute: for a while, a search asks less
    over: Ints  # lines: minutes that more are taken than there are
    paid: Floats  # lines: what those cost, as it is asked
    stale: Ints  # lines × 2: from and until when its sums are not what is taken and asked any more
    stirred: Ints  # shifts × 2: the same of who works
    hands: Ints  # 0: the number of its shifts, which are the first lines
    many: Ints  # shifts: how many hands each is
    runs: (
        Ints  # shifts × N+1 × 2: from and until when as many of its hands are there as at a minute
    )
    days: Floats  # 0: what the days of all hands came to when that was last looked at
    counts: Records  # sums: of which line, and for how many
    sums: Floats  # sums × N+1
    # shifts × 3 × a pause, N+1, a pause: minutes in which one, two, three of its hands work, summed
    worked: Ints
    night: Floats  # N+1: what the hour costs
    nobody: Floats  # N+1: what it costs that nobody is there at all
    prices: Records  # 1
    now: Ints  # 0: the minute it is; 1: no task begins earlier that has not begun
    threads: Records  # T
    jobs: Records  # T × J
    gaps: Records  # T × J: what comes after each task
    pieces: Records  # T × J × 8
    wishes: Floats  # rows × N+1: what it costs to begin at a minute that is not the wished one
    done: Ints  # T × J × 2: when a task that has happened began and ended
    starts: Ints  # T × J
    shifts: Ints  # T × J
    room: Ints  # 0: the trays that an oven holds
    loads: Ints  # loads × N+1 × 2: the doughs and the trays that go in together at a minute
    shares: Ints  # T × J: 1 where a task is one of those, and not alone in an oven of its own
    free: Ints  # T: the first task that was free to be placed
    lies: Ints  # T: 1 where it lies in the day
    own: Floats  # T: what it costs by itself, wherever the others lie
    alone: Floats  # T: what it costs at the least where nothing else lies; 0: not known
    before: Floats  # T × J+1 × N+1: what it costs at the least until a task begins at a minute
    spans: Ints  # T × J × 24 × 2: from and until when a task begins where all costs up to 2^b
    nothing: Floats  # J+1 × N+1: no price
    hint: Floats  # T: what ripening cost where it was too much; below 0 where it is not known
    limit: Floats  # T: up to which price it is looked at first
    company: Floats  # N+1: what it costs those that it mixes for when its mixing ends at a minute
    scratch: Floats  # J+2 × N+1
    bounds: Ints  # 2 × J: from and until when each task of a thread begins within a limit
    coming: Floats  # N+1: the lowest price from a minute to the end of its block; what beginning anew costs


def anywhere(many: int, most: int, n: int) -> Ints:
    """Spans of tasks of which nothing is known."""
    found = np.zeros((many, most, _SPANS, 2), np.int64)
    found[..., 1] = n
    return found


def like() -> Loom:
    """A loom of nothing, with every array as a loom has it."""
    flat: dict[str, tuple[int, Any]] = {
        "there": (2, "i4"), "taken": (2, "i4"), "unit": (1, "f8"), "asked": (2, "f8"),
        "over": (1, "i8"), "paid": (1, "f8"), "stale": (2, "i8"), "stirred": (2, "i8"), "hands": (1, "i8"),
        "many": (1, "i8"), "runs": (3, "i8"), "days": (1, "f8"),
        "counts": (1, SUM), "sums": (2, "f8"), "worked": (3, "i8"), "night": (1, "f8"), "nobody": (1, "f8"),
        "prices": (1, PRICE), "now": (1, "i8"), "threads": (1, THREAD), "jobs": (2, JOB),
        "gaps": (2, GAP), "pieces": (3, PIECE), "wishes": (2, "f8"), "done": (3, "i8"),
        "starts": (2, "i8"), "shifts": (2, "i8"), "room": (1, "i8"), "loads": (3, "i8"),
        "shares": (2, "i8"), "free": (1, "i8"), "lies": (1, "i8"),
        "own": (1, "f8"), "alone": (1, "f8"), "before": (3, "f8"), "spans": (4, "i8"),
        "nothing": (2, "f8"), "hint": (1, "f8"), "limit": (1, "f8"), "company": (1, "f8"),
        "scratch": (2, "f8"), "bounds": (2, "i8"), "coming": (1, "f8"),
    }  # fmt: skip
    return Loom(**{name: np.zeros((1,) * dims, kind) for name, (dims, kind) in flat.items()})


LOOM = like()  # what the compiled loops take one like


def strung(
    threads: Sequence[Thread],
    busy: Busy,
    prices: Prices,
    *,
    not_before: int = 0,
    pulls: Mapping[str, Mapping[str, Pull]] | None = None,
) -> Loom:
    """The threads of a day on its loom; none of them lies anywhere yet."""
    n, lines = busy.minutes, len(busy.there)
    most = max(len(t.jobs) for t in threads)
    many = len(threads)
    counts = [(line, 1) for line in range(lines)]
    counts += sorted({
        (busy.lines[p], g.takes)
        for t in threads for g in t.gaps for p in _places(g) if p in busy.lines and g.takes != 1
    })  # fmt: skip
    room = round(busy.kitchen["oven.trays"])
    loads, riding = ovens.loads(threads, room), ovens.gone_in(threads, room)
    over = np.maximum(busy.taken - busy.there, 0).sum(axis=1, dtype=np.int64)
    of = Loom(
        there=busy.there, taken=busy.taken, unit=busy.unit, asked=np.tile(busy.unit[:, None], (1, n)),
        over=over, paid=over * busy.unit, stale=np.tile((0, n), (lines, 1)),
        stirred=np.tile((0, n), (len(busy.shifts), 1)),
        hands=np.array([len(busy.shifts)]), days=np.zeros(1),
        many=np.array([shift.count for shift in busy.shifts]), runs=_runs(busy.there[: len(busy.shifts)]),
        counts=np.array(counts, SUM), sums=np.zeros((len(counts), n + 1)),
        worked=np.zeros((len(busy.shifts), _AT_WORK, n + 1 + 2 * prices.pause), np.int64),
        night=busy.night, nobody=TAKEN * busy.nobody,
        prices=np.array([tuple(getattr(prices, name) for name in PRICE.names or ())], PRICE),
        now=np.array([busy.now, not_before]),
        threads=np.zeros(many, THREAD), jobs=np.zeros((many, most), JOB),
        gaps=np.zeros((many, most), GAP), pieces=np.zeros((many, most, _MOST_PIECES), PIECE),
        wishes=np.zeros((1 + sum(len(_wished(t, pulls)) for t in threads), n + 1)),
        done=np.zeros((many, most, 2), np.int64), starts=np.zeros((many, most), np.int64),
        shifts=np.zeros((many, most), np.int64), room=np.array([room]),
        loads=np.zeros((max(len(loads), 1), n + 1, 2), np.int64),
        shares=np.zeros((many, most), np.int64), free=np.zeros(many, np.int64),
        lies=np.zeros(many, np.int64), own=np.zeros(many), alone=np.zeros(many),
        before=np.zeros((many, most + 1, n + 1)), nothing=np.zeros((most + 1, n + 1)),
        spans=anywhere(many, most, n), hint=np.full(many, -1.0),
        limit=np.full(many, _AT_FIRST), company=np.zeros(n + 1), scratch=np.zeros((most + 2, n + 1)),
        bounds=np.zeros((2, most), np.int64), coming=np.zeros(n + 1),
    )  # fmt: skip
    numbers = {t.dough: i for i, t in enumerate(threads)}
    row = 1
    for i, thread in enumerate(threads):
        of.threads[i] = (
            len(thread.jobs), thread.trunk if thread.leader else 0,
            numbers[thread.leader] if thread.leader else _NOBODY,
            thread.trunk - 1 if thread.trunk and not thread.leader else _NOBODY,
            len(thread.done), thread.ready, 0, 0, thread.fresh,
        )  # fmt: skip
        for k, job in enumerate(thread.jobs):
            takes = job.machine and (thread.dough, k) not in riding
            machine = busy.lines[job.machine] if job.machine and takes else _NOBODY
            able = sum(1 << shift for shift in busy.able(job))
            load = loads.get(ovens.alike(job), _NOBODY) if k >= len(thread.done) else _NOBODY
            of.jobs[i, k] = job.minutes, job.held, able, machine, 0, load, job.trays
        of.free[i] = max(len(thread.done), thread.trunk if thread.leader else 0)
        of.starts[i, : len(thread.done)] = [begun for begun, _ in thread.done]
        for k, ends in enumerate(thread.done):
            of.done[i, k] = ends
        for k, wish in _wished(thread, pulls).items():
            of.jobs[i, k]["wished"] = row
            of.wishes[row] = sum(pull.price(np.arange(n + 1)) for pull in wish)
            row += 1
        rest(of, i, thread, busy, prices)
    return of


def _runs(there: npt.NDArray[np.int32]) -> Ints:
    """From and until when every line is what it is at each minute; the end belongs to the last stretch."""
    lines, n = there.shape
    found = np.zeros((lines, n + 1, 2), np.int64)
    for line, many in enumerate(there):
        edges = [0, *(np.flatnonzero(np.diff(many)) + 1), n]
        for begin, end in pairwise(edges):
            found[line, begin : end + 1] = begin, end
    return found


def rest(of: Loom, i: int, thread: Thread, busy: Busy, prices: Prices) -> None:
    """Write the rests of a thread, with the marks that they have now."""
    sums = {(line, many): row for row, (line, many) in enumerate(of.counts.tolist())}
    good, bears = thread.ripe or (_FOREVER, _FOREVER)
    of.threads[i]["good"], of.threads[i]["bears"] = good, bears
    for k, gap in enumerate(thread.gaps):
        places = (gap.place, _longest(gap.before), _longest(gap.after))
        lines = [busy.lines.get(p, _NOBODY) if p else _NOBODY for p in places]
        rows = [sums.get((line, gap.takes), _NOBODY) for line in lines]
        pieces = gap.pieces(prices.outside, prices.linger)
        of.gaps[i, k] = (
            gap.ripens, len(pieces), gap.takes, gap.before_min,
            gap.after_min, *rows, *lines,
        )  # fmt: skip
        for p, (low, high, slope) in enumerate(pieces):
            of.pieces[i, k, p] = low, high, slope, gap.price(low, prices.outside, prices.linger)


def _longest(stays: Sequence[tuple[Place, int]]) -> Place | None:
    """Where it lies longest of some stays: the loops count them as one."""
    return max(stays, key=lambda stay: stay[1])[0] if stays else None


def _places(gap: Gap) -> list[Place]:
    return [p for p in (gap.place, _longest(gap.before), _longest(gap.after)) if p]


def _wished(
    thread: Thread, pulls: Mapping[str, Mapping[str, Pull]] | None
) -> dict[int, list[Pull]]:
    """The tasks that are held to a minute, or pulled to one."""
    drawn = (pulls or {}).get(thread.dough, {})
    found: dict[int, list[Pull]] = {}
    for k, job in enumerate(thread.jobs):
        if job.step in thread.held:
            held = Pull(thread.held[job.step], 0.0, TO_THE_MINUTE, 60 * TO_THE_MINUTE)
            found.setdefault(k, []).append(held)
        if job.step in drawn:
            found.setdefault(k, []).append(drawn[job.step])
    return found
