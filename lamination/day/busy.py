"""What is taken when: hands, machines and places, minute by minute."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from lamination.day.day import Day
from lamination.day.threads import Costs, Gap, Job
from lamination.kitchen.kitchen import Kitchen
from lamination.terms.trade import Machine, Place

# A minute for which there is no hand, or no machine: dearer than any hour late, for it cannot be done.
TAKEN = 20_000.0
Counts = npt.NDArray[np.int32]


@dataclass(frozen=True, slots=True)
class Placed:
    """A thread in the day: when each of its tasks begins, and which shift does it.

    ``free``: the first task that was free to be placed; those before it are another's, or done.
    """

    starts: tuple[int, ...]
    shifts: tuple[int, ...]
    free: int = 0


@dataclass(frozen=True, slots=True)
class Line:
    """One thing that can be taken: how many there are at every minute, and how many are taken."""

    there: Counts
    taken: Counts


class Busy:
    """All that a day has, and what of it is taken: a row of minutes for every line.

    The first lines are the shifts' hands, then come the machines, and the places that are counted.
    """

    def __init__(self, day: Day, kitchen: Kitchen, now: int = 0) -> None:
        self.minutes = n = day.minutes
        self.now = now
        self.kitchen = kitchen
        self.shifts = day.hands
        hands = [_between(n, day.minute(s.starts), day.minute(s.ends), s.count) for s in day.hands]
        for quiet in day.quiet:
            for line in hands:
                line[max(day.minute(quiet.starts), 0) : max(day.minute(quiet.ends), 0)] = 0
        rows = {Place.FRIDGE: "fridge.holds", Place.FREEZER: "freezer.holds",
                Place.PROOFER: "proofer.trays"}  # fmt: skip
        there: dict[Machine | Place, int] = {m: round(kitchen[f"{m}.count"]) for m in Machine}
        there |= {place: holds for place, row in rows.items() if (holds := round(kitchen[row]))}
        self.lines = {what: len(hands) + k for k, what in enumerate(there)}
        self.there: Counts = np.array([*hands, *(np.full(n, m) for m in there.values())], np.int32)
        self.taken: Counts = np.zeros_like(self.there)
        self.unit = np.array(
            [TAKEN] * len(hands)
            + [TAKEN if isinstance(what, Machine) else kitchen["day.crowded"] for what in there]
        )
        self.hands = [self._line(k) for k in range(len(hands))]
        self.machines = {m: self._line(k) for m, k in self.lines.items() if isinstance(m, Machine)}
        self.places = {p: self._line(k) for p, k in self.lines.items() if isinstance(p, Place)}
        self.night = _night(day, kitchen)

    def _line(self, k: int) -> Line:
        return Line(self.there[k], self.taken[k])

    @cached_property
    def nobody(self) -> Costs:
        """Minutes in which nobody is there at all, summed from the first."""
        there = np.sum([line.there for line in self.hands], axis=0)
        return np.concatenate(([0.0], np.cumsum(there <= 0)))

    def able(self, job: Job) -> list[int]:
        """The shifts that do a task."""
        return [
            i for i, s in enumerate(self.shifts) if not s.only or job.chapter in s.only
        ] or list(range(len(self.shifts)))


def spans(gap: Gap, start: int, end: int) -> Iterable[tuple[Place, int, int]]:
    """Where a dough lies one after another between two tasks: place, from, until."""
    if end <= start:
        return
    gives = max(end - start - gap.least, 0)
    at = start
    for place, minutes in (*gap.before, (gap.place, gives), *gap.after):
        until = min(at + minutes, end)
        if until > at:
            yield place, at, until
        at = until


def _between(n: int, start: int, end: int, many: int) -> Counts:
    there = np.zeros(n, np.int32)
    there[max(start, 0) : max(end, 0)] = many
    return there


def _night(day: Day, kitchen: Kitchen) -> Costs:
    """What work costs for the hour it is done at, summed: nothing, unless sleep is preferred."""
    n = day.minutes
    if day.prefer != "sleep":
        return np.zeros(n + 1)
    begins, ends = kitchen["day.night_from_h"], kitchen["day.night_until_h"]
    price = np.zeros(n)
    for start in range(0, n, 15):
        at = day.at(start)
        hour = at.hour + at.minute / 60
        dark = begins <= hour or hour < ends if begins > ends else begins <= hour < ends
        price[start : start + 15] = kitchen["day.night"] if dark else 0.0
    return np.concatenate(([0.0], np.cumsum(price)))
