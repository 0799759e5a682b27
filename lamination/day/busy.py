"""What is taken when: hands, machines and places, minute by minute."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cache, cached_property
from types import ModuleType

import numpy as np
import numpy.typing as npt

from lamination.day.day import Day
from lamination.day.threads import Costs, Gap, Job, Thread
from lamination.kitchen.kitchen import Kitchen
from lamination.terms.trade import Machine, Place

# A minute for which there is no hand, or no machine: dearer than any hour late, for it cannot be done.
TAKEN = 20_000.0
Counts = npt.NDArray[np.int32]


@cache
def loops() -> ModuleType:
    """The compiled loops; their compiler takes half a second to import, so only where they are needed."""
    from lamination.day import loops as compiled

    return compiled


def ready() -> None:
    """Have the compiled loops at hand before somebody waits for them."""
    loops()


@dataclass(frozen=True, slots=True)
class Placed:
    """A thread in the day: when each of its tasks begins, which shift does it, and what that costs.

    ``free``: the first task that was free to be placed; those before it are another's, or done.
    """

    starts: tuple[int, ...]
    shifts: tuple[int, ...]
    cost: float
    free: int = 0


class Line:
    """One thing that can be taken: how many there are at every minute, and how many are taken."""

    def __init__(self, there: Counts) -> None:
        self.there = there
        self.taken: Counts = np.zeros_like(there)
        self.sought: Costs | None = None  # what a minute costs besides, summed: too many wanted it
        self._sums: dict[int, Costs] = {}
        self._price: tuple[float, Costs] | None = None

    def take(self, start: int, end: int, many: int) -> None:
        """Take so many from one minute to another; a negative number gives back."""
        self.taken[max(start, 0) : max(end, 0)] += many
        self._sums.clear()
        self._price = None

    def missing(self, many: int) -> Costs:
        """How many would be missing, summed from the first minute, if so many more were taken."""
        if many not in self._sums:
            self._sums[many] = loops().missing(self.taken, self.there, many)
        return self._sums[many]

    def price(self, each: float) -> Costs:
        """What it costs to take one more, summed from the first minute, at so much for a missing one."""
        if self._price is None or self._price[0] != each:
            price = each * self.missing(1)
            self._price = each, price if self.sought is None else price + self.sought
        return self._price[1]

    def want(self, each: float) -> None:
        """Minutes that more take than there are cost so much more from here on."""
        self._price = None
        over = np.maximum(self.taken - self.there, 0)
        if over.any():
            more = np.concatenate(([0.0], np.cumsum(each * over)))
            self.sought = more if self.sought is None else self.sought + more

    def settle(self) -> None:
        """Nothing is remembered of what was wanted."""
        self.sought = self._price = None

    @property
    def over(self) -> int:
        """Minutes for which more are taken than there are, each as often as one is missing."""
        return int(loops().over(self.taken, self.there))


class Busy:
    """All that a day has, and what of it is taken by the threads that were put there."""

    def __init__(self, day: Day, kitchen: Kitchen, now: int = 0) -> None:
        self.minutes = n = day.minutes
        self.now = now
        self.taken = TAKEN  # what a minute costs that is taken already
        self.kitchen = kitchen
        self.shifts = day.hands
        self.hands = [
            Line(_between(n, day.minute(s.starts), day.minute(s.ends), s.count)) for s in day.hands
        ]
        for quiet in day.quiet:
            for line in self.hands:
                line.there[max(day.minute(quiet.starts), 0) : max(day.minute(quiet.ends), 0)] = 0
        self.machines = {
            m: Line(np.full(n, round(kitchen[f"{m}.count"]), np.int32)) for m in Machine
        }
        rows = {Place.FRIDGE: "fridge.holds", Place.FREEZER: "freezer.holds",
                Place.PROOFER: "proofer.trays"}  # fmt: skip
        self.places = {
            place: Line(np.full(n, holds, np.int32))
            for place, row in rows.items()
            if (holds := round(kitchen[row]))
        }
        self.night = _night(day, kitchen)

    @cached_property
    def _nothing(self) -> Costs:
        return np.zeros(self.minutes + 1)

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

    def work(self, job: Job) -> Costs:
        """What a task costs by the minute it begins; infinite where the day would end before it is done."""
        more = self.night
        if job.machine:
            more = more + self.machines[job.machine].price(self.taken)
        if not job.held:
            more = more + TAKEN * self.nobody
        able = self.able(job) if job.held else []
        hands = [self.hands[i].price(self.taken) for i in able] or [self._nothing]
        cost: Costs = loops().worked(np.array(hands), more, job.minutes)
        return cost

    def shift(self, job: Job, start: int) -> int:
        """The shift that does a task at a minute: the one that misses the fewest hands for it."""
        if not job.held or not job.minutes:
            return 0
        able, end = self.able(job), start + job.minutes
        sums = [self.hands[i].price(self.taken) for i in able]
        short = [of[end] - of[start] if end < len(of) else np.inf for of in sums]
        return able[int(np.argmin(short))]

    def own_price(self, job: Job, start: int) -> float:
        """What a task costs at a minute whatever else is there: the hour, and nobody at the oven."""
        end = start + job.minutes
        cost = float(self.night[end] - self.night[start])
        if not job.held:
            cost += TAKEN * float(self.nobody[end] - self.nobody[start])
        return cost

    def lying(self, place: Place, takes: int) -> Costs | None:
        """What it costs to lie in a place, summed from the first minute; None where it is not counted."""
        line = self.places.get(place)
        if line is None:
            return None
        return self.kitchen["day.crowded"] * line.missing(takes)

    def there_now(self, job: Job) -> int:
        """The shift that is at a task under way: one that is there and has a hand free."""
        at = min(self.now, self.minutes - 1)
        lines = [(self.hands[i].there[at] - self.hands[i].taken[at], -i) for i in self.able(job)]
        return -max(lines)[1]

    def put(self, thread: Thread, placed: Placed, sign: int = 1) -> None:
        """Put a thread into the day, or take it out with ``sign`` -1.

        What has happened takes nothing any more, and what is under way takes what it does from now on.
        """
        for k, job in enumerate(thread.jobs):
            if k < thread.trunk and thread.leader:
                continue
            start, end = placed.starts[k], thread.ended(placed.starts, k)
            if k:
                ended = max(thread.ended(placed.starts, k - 1), self.now)
                for place, a, b in spans(thread.gaps[k - 1], ended, start):
                    if place in self.places:
                        self.places[place].take(a, b, sign * thread.gaps[k - 1].takes)
            start = max(start, self.now)
            if end <= start:
                continue
            if job.held:
                self.hands[placed.shifts[k]].take(start, end, sign)
            if job.machine:
                self.machines[job.machine].take(start, end, sign)

    def want(self, each: float) -> None:
        """Hands and machines cost so much more wherever too many want them now."""
        for line in (*self.hands, *self.machines.values()):
            line.want(each)

    def settle(self) -> None:
        """What is taken is dear again, and nothing is remembered of what was wanted."""
        self.taken = TAKEN
        for line in (*self.hands, *self.machines.values()):
            line.settle()

    @property
    def short_min(self) -> int:
        """Minutes of hands and machines that are taken and not there."""
        return sum(line.over for line in (*self.hands, *self.machines.values()))

    def missing_cost(self) -> float:
        """What is taken that is not there, priced."""
        crowded = sum(line.over for line in self.places.values())
        return TAKEN * self.short_min + self.kitchen["day.crowded"] * crowded


def spans(gap: Gap, start: int, end: int) -> Iterable[tuple[Place, int, int]]:
    """Where a dough lies one after another between two tasks: place, from, until."""
    if end <= start:
        return
    a = start + (gap.first[1] if gap.first else 0)
    b = end - (gap.last[1] if gap.last else 0)
    if gap.first and gap.first[1]:
        yield gap.first[0], start, min(a, end)
    if b > a:
        yield gap.place, a, b
    if gap.last and gap.last[1]:
        yield gap.last[0], max(b, start), end


def coloured(at: Sequence[tuple[int, int]], many: int) -> list[int]:
    """Which of so many hands does each of these (start, end): the one free longest; all by start."""
    free = [(-1, i) for i in range(many)]
    found = [0] * len(at)
    for n in sorted(range(len(at)), key=lambda n: at[n]):
        start, end = at[n]
        ready = [f for f in free if f[0] <= start] or free
        one = min(ready)
        free[free.index(one)] = (end, one[1])
        found[n] = one[1]
    return found


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
