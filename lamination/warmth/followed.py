"""What a followed plan comes to: stretches, clocks, the trace of the chart, and where each rest began."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from typing import Literal

import numpy as np

from lamination.heat.body import Body, middle_of
from lamination.heat.conduction import Course
from lamination.heat.yeast import Leaven
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.thermal import Profile
from lamination.plan.walk import Walk
from lamination.terms.trade import Place
from lamination.warmth.scene import Scene
from lamination.warmth.windows import RestWindow

_TRACE = 260  # points of the chart
Works = Literal["yes", "tight", "no"]


@dataclass(frozen=True, slots=True)
class WorkClock:
    """How long the butter stays workable on the bench at a step; None when longer than any work."""

    stop: str
    takes_min: float
    lasts_min: float | None
    works: Works


@dataclass(frozen=True, slots=True)
class Stretch:
    """A stretch of the plan that is spent in one place; minutes from the start."""

    stop: str
    place: Place
    working: bool
    from_min: float
    to_min: float


@dataclass(frozen=True, slots=True)
class Trace:
    """The plan's warmth over time, °C; butter is None before the lock-in.

    ``cells_c``: the whole profile at each moment, bottom to top, for the tinted side view.
    ``rise_pct``: how much of a whole proof the dough has risen by since its last roll; ``ripe_h``: how
    ripe it is, in hours of the fridge. None for a dough without yeast.
    """

    minutes: tuple[float, ...]
    middle_c: tuple[float, ...]
    face_c: tuple[float, ...]
    butter_c: tuple[float | None, ...]
    cells_c: tuple[tuple[float, ...], ...]
    rise_pct: tuple[float | None, ...]
    ripe_h: tuple[float | None, ...]


@dataclass(frozen=True, slots=True)
class Until:
    """A stay that lasts until the middle is so warm: its step and number, how warm it is at its end, °C,
    and when it is there, min from its beginning; None where it is not within hours.
    """

    stop: str
    stay: int
    end_c: float
    there_min: float | None


@dataclass(frozen=True, slots=True)
class Began:
    """How a rest began: what is needed to judge it again with other minutes or another place.

    ``n``: of which step, which is nothing that a rest feels. ``proofed``: what a shaped piece has risen
    by in rests before this one, in the measure of ``rise``.
    """

    n: int = field(compare=False)
    body: Body
    minute: float
    rise: float
    ripe_h: float
    sugar: float
    open_air: bool
    proofed: float = 0.0


@dataclass(frozen=True, eq=False)
class Followed:
    """What the simulation found, before it is put into words.

    ``seen``: of every stretch its beginning, how it warmed, how far it had risen and how ripe it was then.
    """

    walk: Walk
    scene: Scene
    windows: tuple[RestWindow, ...]
    clocks: tuple[WorkClock, ...]
    stretches: tuple[Stretch, ...]
    seen: tuple[tuple[float, Course, float, float], ...]
    began: dict[str, Began]
    rise_pct: float | None
    ripe_h: float | None
    cut_c: float | None
    until: tuple[Until, ...] = ()

    @property
    def kitchen(self) -> Kitchen:
        """The kitchen as warm as it is today."""
        return self.scene.kitchen

    @property
    def proof_n(self) -> int | None:
        """The step whose rest is the proof, by its number: the last in which shaped pieces lie."""
        return max((b.n for b in self.began.values() if b.open_air), default=None)

    def spent(
        self, stop: str | None = None, working: bool | None = None
    ) -> Iterator[tuple[Stretch, Course, float]]:
        """Every stretch with how it warmed and how far it had risen as it began: all, or those of a step, of
        work or of rest.
        """
        for stretch, (_, course, risen, _) in zip(self.stretches, self.seen, strict=True):
            if stop in (None, stretch.stop) and working in (None, stretch.working):
                yield stretch, course, risen

    @property
    def leaven(self) -> Leaven | None:
        """What makes it rise; None without yeast."""
        return self.scene.leaven

    @cached_property
    def trace(self) -> Trace:
        """The chart's points: only who draws it asks for them."""
        return _traced(self.scene, self.seen)


def _right_across(t: Profile) -> Profile:
    """A coil's profiles from its axis out, as they lie from side to side: every second ring, mirrored."""
    n = t.shape[1]
    half = np.linspace(n - 1, 0, n // 2).round().astype(int)
    middle = [0] if n % 2 else []
    return t[:, [*half, *middle, *half[::-1]]]


def _traced(scene: Scene, seen: Sequence[tuple[float, Course, float, float]]) -> Trace:
    """The chart's points, thinned; the ends of every stretch stay, for that is where lines break."""
    total = sum(course.minutes[-1] for _, course, _, _ in seen) or 1.0
    minutes, profiles, butter, rise, ripe = [], [], [], [], []
    for start, course, risen, ripened in seen:
        long = float(course.minutes[-1])
        points = max(6, min(40, round(_TRACE * long / total)))
        at, t, of_butter, doses, hours = _stretch(scene, course, points)
        minutes.append(start + at)
        profiles.append(_right_across(t) if course.end.round else t)
        butter.append(of_butter)
        rise.append(100 * (risen + doses) / scene.whole)
        ripe.append(ripened + hours)
    if not seen:
        return Trace((), (), (), (), (), (), ())
    t = np.concatenate(profiles)
    middles = middle_of(t)
    below, above = t[:, 0], t[:, -1]
    face = np.where(np.abs(below - middles) > np.abs(above - middles), below, above)
    means = np.concatenate(butter).round(2).tolist()
    none, yeasted = (None,) * len(t), scene.leaven is not None
    return Trace(
        _rounded(minutes, 2),
        tuple(middles.round(2).tolist()),
        tuple(face.round(2).tolist()),
        tuple(None if b != b else b for b in means),
        tuple(map(tuple, t[:, :: max(1, t.shape[1] // 9)].round(1).tolist())),
        _rounded(rise, 1) if yeasted else none,
        _rounded(ripe, 1) if yeasted else none,
    )


@lru_cache(maxsize=500)
def _stretch(scene: Scene, course: Course, points: int) -> tuple[Profile, ...]:
    """Of one stretch: its moments, all its warmth, its butter's, and what it rises and ripens by."""
    at = float(course.minutes[-1]) * _spread(points)
    t = course.at(at)
    has = course.end.has_butter
    butter = t @ course.end.butter_shares if has else np.full(points, np.nan)
    return at, t, butter, *course.gathered(scene.rates, at)


@lru_cache(maxsize=64)
def _spread(points: int) -> Profile:
    """Moments of a stretch, as shares of it: most happens at first."""
    found: Profile = np.linspace(0, 1, points) ** 1.6
    return found


def _rounded(parts: list[Profile], digits: int) -> tuple[float, ...]:
    return tuple(np.concatenate(parts).round(digits).tolist())
