"""What a followed plan comes to: stretches, clocks, the trace of the chart, and where each rest began."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from lamination.heat.body import Body, middle_of
from lamination.heat.conduction import Course
from lamination.heat.yeast import Leaven, activity, integrated, ripening
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.walk import Walk
from lamination.terms.trade import Place
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


@dataclass(frozen=True, slots=True, eq=False)
class Began:
    """How a rest began: what is needed to judge it again with other minutes or another place."""

    n: int
    body: Body
    minute: float
    rise: float
    ripe_h: float
    sugar: float
    open_air: bool


@dataclass(frozen=True, eq=False)
class Followed:
    """What the simulation found, before it is put into words."""

    walk: Walk
    kitchen: Kitchen
    windows: tuple[RestWindow, ...]
    clocks: tuple[WorkClock, ...]
    stretches: tuple[Stretch, ...]
    trace: Trace
    began: dict[str, Began]
    leaven: Leaven | None
    rise_pct: float | None
    ripe_h: float | None
    cut_c: float | None


def traced(seen: list[tuple[float, Course, float, float]], whole: float | None) -> Trace:
    """The chart's points, thinned; the ends of every stretch stay, for that is where lines break."""
    total = sum(course.minutes[-1] for _, course, _, _ in seen) or 1.0
    minutes: list[float] = []
    middle: list[float] = []
    face: list[float] = []
    butter: list[float | None] = []
    cells: list[tuple[float, ...]] = []
    rise: list[float | None] = []
    ripe: list[float | None] = []
    for start, course, risen, ripened in seen:
        long = float(course.minutes[-1])
        points = max(6, min(40, round(_TRACE * long / total)))
        at = long * np.linspace(0, 1, points) ** 1.6  # most happens at first
        t = course.at(at)
        middles = middle_of(t)
        below, above = t[:, 0], t[:, -1]
        further = np.where(np.abs(below - middles) > np.abs(above - middles), below, above)
        minutes += (start + at).round(2).tolist()
        middle += middles.round(2).tolist()
        face += further.round(2).tolist()
        means = t @ course.end.butter_shares if course.end.has_butter else None
        butter += [None] * points if means is None else means.round(2).tolist()
        if whole is None:
            rise += [None] * points
            ripe += [None] * points
        else:
            shares = course.end.shares
            doses = risen + integrated(at, activity(t) @ shares)
            rise += (100 * doses / whole).round(1).tolist()
            hours = integrated(at, ripening(t, 2.0, -4.5) @ shares) / 60
            ripe += (ripened + hours).round(1).tolist()
        cells += [tuple(row) for row in t[:, :: max(1, t.shape[1] // 9)].round(1).tolist()]
    return Trace(tuple(minutes), tuple(middle), tuple(face), tuple(butter), tuple(cells),
                 tuple(rise), tuple(ripe))  # fmt: skip
