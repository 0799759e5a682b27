"""A dough as a thread through the day: its tasks, and the rests between them with their marks."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from itertools import pairwise

import numpy as np
import numpy.typing as npt

from lamination.day.capacity import lies_on
from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.baking import Bake
from lamination.plan.plan import Plan
from lamination.plan.walk import walk
from lamination.plan.work import work
from lamination.steps import kind_of
from lamination.steps.bake import Baking
from lamination.steps.base import Chapter, Form
from lamination.terms.trade import Machine, Place, Tool
from lamination.warmth.windows import Cause, RestWindow, Verdict

Costs = npt.NDArray[np.float64]
# What a minute away from the planned rest weighs where both are good: so little that a whole night in
# another rest is still less than a minute of a tight one. It settles only what is as good either way.
LINGER = 0.0002
_STIFF_MIN = 150.0
# times what other rests cost beyond their marks: a dough is late rather than unproofed
_NEVER = 50.0
_FAR_MIN = 60  # less than this from the plan is far from no plan
# causes whose marks nothing buys: a proof, thawing, a dough that is cold for its butter
_HARD = (Cause.PROOF, Cause.OVER, Cause.FROZEN, Cause.COLD)
_FOREVER = 10**6


@dataclass(frozen=True, slots=True)
class Job:
    """A step's work, in whole minutes; ``held``: it takes a hand all the while.

    What is in the oven is only watched: somebody must be there, and may do other things. ``load``: what
    it is baked by, where it goes in at once, on so many ``trays``: two of the same may go in together.
    """

    step: str
    name: str
    minutes: int
    chapter: Chapter
    machine: Machine | None
    held: bool
    load: tuple[str, Bake] | None = None
    trays: int = 0


@dataclass(frozen=True)
class Gap:
    """What lies between two tasks: minutes in a place, whole, with the marks of its rest.

    ``first`` and ``last``: parts at its beginning and its end that are spent elsewhere. ``takes``: how
    many places of a shelf the dough lies on. ``rests``: the plan has a rest here. ``ripens``: its
    minutes count towards the ripeness that the dough may have in all. ``pull``: what a minute away from
    what was chosen costs besides the usual. ``far``: what each minute costs below ``far_from`` and above
    ``far_until``, where it is still good. ``hard``: whether what it can bear at least, and at most, is
    never given up.
    """

    step: str
    place: Place
    chosen: int
    possible_from: int
    good_from: int
    good_until: int | None
    possible_until: int | None
    takes: int
    rests: bool
    before: tuple[tuple[Place, int], ...] = ()
    after: tuple[tuple[Place, int], ...] = ()
    ripens: bool = False
    pull: float = 0.0
    far: float = 0.0
    far_from: int = 0
    far_until: int = _FOREVER
    hard: tuple[bool, bool] = (False, False)

    @property
    def least(self) -> int:
        """Its other stays, which are never cut short."""
        return self.before_min + self.after_min

    @property
    def before_min(self) -> int:
        """How long it lies elsewhere before the stay that gives."""
        return sum(minutes for _, minutes in self.before)

    @property
    def after_min(self) -> int:
        """How long it lies elsewhere after it."""
        return sum(minutes for _, minutes in self.after)

    def bends(self, linger: float) -> float:
        """The price of a minute away from the plan where both are good: what is short bends less.

        A night belongs into a rest that is long anyway.
        """
        return linger * (1 + _STIFF_MIN / (self.chosen + 30)) + self.pull

    def verdict(self, minutes: int) -> Verdict:
        """What becomes of so many minutes."""
        until, bears = self.good_until, self.possible_until
        if self.good_from <= minutes and (until is None or minutes <= until):
            return "good"
        if self.possible_from <= minutes and (bears is None or minutes <= bears):
            return "tight"
        return "short" if minutes < self.good_from else "long"

    def outside(self, minutes: int) -> int:
        """Minutes beyond what it can bear."""
        over = 0 if self.possible_until is None else minutes - self.possible_until
        return max(self.possible_from - minutes, over, 0)

    def tight(self, minutes: int) -> int:
        """Minutes between what is good and what it can bear."""
        over = 0 if self.good_until is None else minutes - self.good_until
        return max(self.good_from - minutes, over, 0) - self.outside(minutes)

    def pieces(
        self, outside: float, linger: float, ripening: float = 0.0
    ) -> list[tuple[int, int, float]]:
        """Its price as slopes: (from, until, price of a minute more).

        Prices fall up to the chosen minutes and rise from there, so that they are convex. ``ripening``:
        what every minute costs besides where it counts towards the ripeness.
        """
        more = ripening if self.ripens else 0.0
        kinks = self._kinks(outside, linger)
        edges = sorted({self.least, _FOREVER, *(at for at, _, _ in kinks if self.least < at)})
        return [
            (low, high, more + sum(above if low >= at else -below for at, below, above in kinks))
            for low, high in pairwise(edges)
        ]

    def price(self, minutes: int, outside: float, linger: float) -> float:
        """What so many minutes cost; infinite where a part elsewhere would be cut short."""
        if minutes < self.least:
            return math.inf
        return sum(
            above * max(minutes - at, 0) + below * max(at - minutes, 0)
            for at, below, above in self._kinks(outside, linger)
        )

    def _kinks(self, outside: float, linger: float) -> list[tuple[int, float, float]]:
        """What its price is the sum of: at a mark, what each minute less costs, and each minute more."""
        good_until, bears, chosen = self._marks
        near_from, near_until = self._near
        bends, far = self.bends(linger), self.far
        below, above = (outside * _NEVER if hard else outside for hard in self.hard)
        tight = 1.0 - bends - far
        return [
            (self.possible_from, below - 1, 0.0), (self.good_from, tight, 0.0), (near_from, far, 0.0),
            (chosen, bends, bends),
            (near_until, 0.0, far), (good_until, 0.0, tight), (bears, 0.0, above - 1),
        ]  # fmt: skip

    def away(self, minutes: int) -> int:
        """Minutes farther from the plan than is near."""
        near_from, near_until = self._near
        return max(near_from - minutes, minutes - near_until, 0)

    @property
    def _near(self) -> tuple[int, int]:
        """From and until when it is near the plan, within what is good."""
        good_until, _, _ = self._marks

        def good(minutes: int) -> int:
            return min(max(minutes, self.good_from), good_until)

        return good(self.far_from), good(self.far_until)

    @property
    def _marks(self) -> tuple[int, int, int]:
        """Until when it is good, what it can bear, and the minutes that cost nothing."""
        good_until = _FOREVER if self.good_until is None else self.good_until
        bears = _FOREVER if self.possible_until is None else self.possible_until
        return good_until, bears, min(max(self.chosen, self.good_from), good_until)


@dataclass(frozen=True)
class Thread:
    """A dough: its tasks in order, one gap fewer, and the minute it is wanted ready.

    ``trunk``: how many tasks at its beginning are done for all doughs of its mixing at once; ``leader``
    is the one that does them. ``done``: tasks at the beginning that have happened, with their minutes.
    ``ripe``: minutes in the fridge that are good, and that it can bear, in all its rests together.
    ``fresh``: how long it stays so when its last work is done, where that is baked.
    """

    dough: str
    name: str
    jobs: tuple[Job, ...]
    gaps: tuple[Gap, ...]
    ready: int
    trunk: int = 0
    leader: str | None = None
    done: tuple[tuple[int, int], ...] = ()
    held: Mapping[str, int] = field(default_factory=dict)
    ripe: tuple[int, int] | None = None
    fresh: int = _FOREVER

    def too_ripe(self, minutes: int) -> tuple[int, int]:
        """Of so many minutes that ripen it: how many are more than good, and more than it can bear."""
        if self.ripe is None:
            return 0, 0
        return max(minutes - self.ripe[0], 0), max(minutes - self.ripe[1], 0)

    def ripening(self, starts: Sequence[int], k: int | None = None) -> int:
        """Minutes that ripen it when its tasks begin so; those up to the ``k``-th gap."""
        found = 0
        for i, gap in enumerate(self.gaps[: None if k is None else k + 1]):
            if gap.ripens:
                found += starts[i + 1] - self.ended(starts, i)
        return found

    def ended(self, starts: Sequence[int], k: int) -> int:
        """When its ``k``-th task is done."""
        return self.done[k][1] if k < len(self.done) else starts[k] + self.jobs[k].minutes

    def verdict(self, starts: Sequence[int], k: int) -> Verdict:
        """What becomes of its ``k``-th rest, with all before it."""
        gap = self.gaps[k]
        verdict = gap.verdict(starts[k + 1] - self.ended(starts, k))
        if gap.ripens and verdict in ("good", "tight"):
            tight, outside = self.too_ripe(self.ripening(starts, k))
            return "long" if outside else "tight" if tight else verdict
        return verdict

    def lingers(self, starts: Sequence[int], free: int, outside: float, linger: float) -> float:
        """What it costs that its rests are not as long as planned, apart from what is given up by that.

        ``free``: its first task that was free to be placed; ``outside`` and ``linger``: prices of a minute.
        """
        found = 0.0
        for k in range(max(free - 1, 0), len(self.gaps)):
            gap, minutes = self.gaps[k], starts[k + 1] - self.ended(starts, k)
            found += gap.price(minutes, outside, linger) - gap.price(minutes, outside, 0.0)
        return found

    @cached_property
    def least_min(self) -> int:
        """The fewest minutes it can take, every rest just bearable."""
        rests = sum(max(g.possible_from, g.least) for g in self.gaps)
        return sum(j.minutes for j in self.jobs) + rests


def thread_of(
    dough: str,
    plan: Plan,
    ready: int,
    kitchen: Kitchen,
    windows: Mapping[str, RestWindow],
    goes_on: str | None = None,
) -> Thread:
    """A plan as a thread, with the marks of its rests where the warmth has judged them.

    A rest that nobody judges may differ from the plan by ``day.unjudged_pct``, and by twice that where
    it must; between two steps without a rest a dough may wait ``day.waits_min``. ``goes_on``: what was done
    before that step is over, and was put away since.
    """
    worked, found = work(plan, kitchen), walk(plan, kitchen)
    by_sheeter = (
        found.setting.rolled.machine is not None and found.setting.rolled.tool is Tool.SHEETER
    )
    jobs, gaps = [], []
    for stop, step in zip(worked.strip, plan.steps, strict=True):
        machine = kind_of(step).machine_of(step)
        if machine is Machine.SHEETER and not by_sheeter:
            machine = None
        minutes = math.ceil(stop.bench_min - 1e-9)
        job = Job(stop.key, stop.name, minutes, stop.chapter, machine, machine is not Machine.OVEN)
        if isinstance(step, Baking) and worked.shaped:
            trays = worked.shaped.trays
            if len(trays.oven_loads) == 1:
                job = replace(job, load=(step.id, step.bake), trays=trays.count)
        jobs.append(job)
        rest, window = stop.rest, windows.get(stop.key)
        takes = lies_on(stop, worked.strip)
        if rest is None or (rest.minutes <= 0 and window is None):
            waits = round(kitchen["day.waits_min"])
            gaps.append(
                Gap(stop.key, Place.BENCH, 0, 0, 0, waits, 2 * waits, takes, rest is not None)
            )
            continue
        n = step.gives
        lies = [(s.place, round(s.minutes)) for s in rest.stays]
        gap = _unjudged(stop.key, lies[n][0], round(rest.minutes), takes, kitchen)
        times, chosen = kitchen["day.far_times"], gap.chosen
        gaps.append(
            replace(
                gap, before=tuple(lies[:n]), after=tuple(lies[n + 1 :]), far=kitchen["day.far"],
                # a proof that goes by its signs is none in no time either
                hard=(step.proofs and plan.family.yeasted, False),
                far_from=min(math.floor(chosen / times), chosen - _FAR_MIN),
                far_until=max(math.ceil(chosen * times), chosen + _FAR_MIN),
            )
        )  # fmt: skip
    baked = any(kind_of(step).leaves is Form.BAKED for step in plan.steps)
    fresh = round(60 * kitchen.of_family(plan.family, "fresh_h")) if baked else _FOREVER
    over = plan.at(goes_on) if goes_on is not None else 0
    thread = Thread(dough, plan.name, tuple(jobs[over:]), tuple(gaps[over:-1]), ready, fresh=fresh)
    return with_marks(thread, windows, [gap.chosen for gap in thread.gaps])


def with_marks(thread: Thread, windows: Mapping[str, RestWindow], minutes: Sequence[int]) -> Thread:
    """A thread with the marks that the warmth gave its rests when they had so many minutes.

    How ripe a dough gets is a matter of all its rests together: where that is what ends a rest, the
    minutes that are left are those of the whole thread.
    """
    gaps, good, bears, before = [], _FOREVER, _FOREVER, 0
    for gap, lasted in zip(thread.gaps, minutes, strict=True):
        window = windows.get(gap.step)
        if window and gap.rests:
            gap = judged(gap, window)
            if window.until_by is Cause.RIPE:
                if gap.place is Place.FRIDGE:
                    good = min(good, before + (gap.good_until or 0))
                    bears = min(bears, before + (gap.possible_until or _FOREVER))
                gap = replace(gap, good_until=None, possible_until=None)
        gap = replace(gap, ripens=gap.place is Place.FRIDGE and window is not None)
        before += lasted if gap.ripens else 0
        gaps.append(gap)
    ripe = (good, max(bears, good)) if good < _FOREVER else None
    return replace(thread, gaps=tuple(gaps), ripe=ripe)


def careful(thread: Thread, minutes: int) -> Thread:
    """A thread whose rests stay so many minutes inside the marks that the warmth gave them.

    They were judged after other rests than they will have: where those move a little, so do the marks.
    """
    gaps = []
    for gap in thread.gaps:
        until, bears = gap.good_until, gap.possible_until
        if gap.rests and (until is None or until - gap.good_from >= 4 * minutes):
            gap = replace(
                gap,
                possible_from=gap.possible_from + minutes,
                good_from=gap.good_from + minutes,
                good_until=None if until is None else until - minutes,
                possible_until=None if bears is None else bears - minutes,
            )
        gaps.append(gap)
    return replace(thread, gaps=tuple(gaps))


def steady(thread: Thread, starts: Sequence[int], pull: float) -> Thread:
    """A thread whose rests stay as long as they are now where a minute more or less gains under ``pull``.

    Its marks are those of these very rests, and less true the farther others are from them.
    """
    gaps = [
        replace(gap, chosen=starts[k + 1] - thread.ended(starts, k), pull=pull)
        if gap.rests
        else gap
        for k, gap in enumerate(thread.gaps)
    ]
    return replace(thread, gaps=tuple(gaps))


def wary(
    thread: Thread, edges: Mapping[str, tuple[int, int | None]], starts: Sequence[int]
) -> Thread:
    """A thread that also keeps within edges at which others like it were found beyond their marks.

    ``edges``: of a step's rest, from and until when it was good there. What lies beyond them now stays as
    it was judged.
    """
    gaps = []
    for k, gap in enumerate(thread.gaps):
        minutes = starts[k + 1] - thread.ended(starts, k)
        low, high = edges.get(gap.step, (0, None))
        until = _FOREVER if gap.good_until is None else gap.good_until
        if gap.good_from < low <= min(minutes, until):
            gap = replace(gap, possible_from=gap.possible_from + low - gap.good_from, good_from=low)
        if high is not None and max(minutes, gap.good_from) <= high < until:
            gap = replace(gap, good_until=high)
        gaps.append(gap)
    return replace(thread, gaps=tuple(gaps))


def _unjudged(step: str, place: Place, chosen: int, takes: int, kitchen: Kitchen) -> Gap:
    share = kitchen["day.unjudged_pct"] / 100
    less, more = max(1 - share, 0.0), 1 + share
    worse = max(1 - 2 * share, 0.0)
    waits = round(kitchen["day.waits_min"])
    return Gap(
        step, place, chosen,
        math.ceil(chosen * worse), math.ceil(chosen * less),
        math.floor(chosen * more) + waits, math.floor(chosen * (1 + 2 * share)) + 2 * waits,
        takes, True,
    )  # fmt: skip


def judged(gap: Gap, window: RestWindow) -> Gap:
    """A gap with the marks of a judged rest, inwards to whole minutes."""

    def from_(mark: float | None, otherwise: int) -> int:
        return otherwise if mark is None else math.ceil(mark - 0.01)

    def until(mark: float | None) -> int | None:
        return None if mark is None else math.floor(mark + 0.01)

    if window.good_from_min is None:
        # it is never good: as near to what was planned as it can bear
        bears = until(window.possible_until_min)
        possible = min(from_(window.possible_from_min, gap.chosen), gap.chosen)
        good = max(gap.chosen, possible)
        return replace(
            gap, possible_from=possible, good_from=good, good_until=good,
            possible_until=good if bears is None or window.possible_from_min is None
            else max(bears, good),
        )  # fmt: skip
    good_from = from_(window.good_from_min, gap.chosen)
    good_until = until(window.good_until_min)
    bears = until(window.possible_until_min)
    hard = window.from_by in _HARD, window.until_by in _HARD
    if good_until is not None:
        good_until = max(good_until, good_from)
        bears = None if bears is None else max(bears, good_until)
    return replace(
        gap,
        possible_from=min(from_(window.possible_from_min, good_from), good_from),
        good_from=good_from,
        good_until=good_until,
        possible_until=bears if good_until is not None else None,
        hard=hard,
    )
