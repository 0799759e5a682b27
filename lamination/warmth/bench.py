"""Work at a step: how warm a dough gets under the hands, and how long its butter bears them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamination.heat.body import Body, pressed, refolded, warmed
from lamination.heat.conduction import Course, conduct
from lamination.plan.walk import Walk
from lamination.steps.base import Handling
from lamination.terms.trade import Chilled, Surface, Tool
from lamination.warmth.followed import WorkClock, Works
from lamination.warmth.scene import Scene

_CLOCK_MIN = 90.0  # longer than this nobody works at one turn


@dataclass(frozen=True)
class Job:
    """A step's work as its warmth asks for it: how it is handled, on what, by which tool, when, min."""

    stop: str
    handling: Handling
    on: Surface
    chilled: Chilled
    tool: Tool
    at_min: float
    takes_min: float


def job(found: Walk, n: int) -> Job:
    """The work at step ``n`` of a plan."""
    step, timed = found.plan.steps[n], found.clock[n]
    return Job(
        step.id, found.made[n].handling, step.on, step.chilled, found.setting.rolled.tool,
        timed.starts_min, timed.bench_min,
    )  # fmt: skip


@dataclass(frozen=True, eq=False)
class Worked:
    """What work comes to: its courses one after the other, the clock if it was rolled, and the end."""

    courses: tuple[Course, ...]
    clock: WorkClock | None
    end: Body


@lru_cache(maxsize=400)
def worked(scene: Scene, of: Job, before: Body) -> Worked:
    """A dough through a step's work: half of it as it lay there, half at what it is rolled to.

    The heat of rolling is put in between. The same work on the same body is worked once.
    """
    handling, half = of.handling, of.takes_min / 2
    courses: list[Course] = []

    def lie(now: Body, at_min: float) -> Body:
        if half <= 0:
            return now
        around = scene.around.bench(at_min + half / 2, of.on, of.chilled)
        courses.append(conduct(now, *around, half))
        return courses[-1].end

    first = lie(before, of.at_min)
    thin = pressed(first, handling.to_mm / 1000) if handling.to_mm else first
    clock = None
    if handling.rolls:
        by = "sheeter" if of.tool is Tool.SHEETER else "hand"
        thin = warmed(thin, scene.kitchen[f"roll.by_{by}_k"])
        clock = _clock(scene, of, before, thin)
    second = lie(thin, of.at_min + half)
    end = refolded(second, handling.over) if handling.over else second
    return Worked(tuple(courses), clock, end)


def _clock(scene: Scene, of: Job, before: Body, sheet: Body) -> WorkClock:
    """Minutes of work until the mean butter leaves its range: half of it as the package."""
    takes, window = of.takes_min, scene.window
    lasts: float | None = None
    late_c = -np.inf
    if before.has_butter:
        # the course that the work itself takes, and on from there
        around = scene.around.bench(of.at_min + 3 * takes / 4, of.on, of.chilled)
        begun = conduct(sheet, *around, takes / 2)
        course = begun.then(conduct(begun.end, *around, _CLOCK_MIN - takes / 2))
        minutes = np.arange(0, _CLOCK_MIN + 0.25, 0.5)
        soft = np.flatnonzero(course.at(minutes) @ sheet.butter_shares >= window.plastic_to_c)
        if len(soft):
            warm = before.butter_c >= window.plastic_to_c
            lasts = 0.0 if warm else float(minutes[soft[0]]) + takes / 2
        late_c = float(course.at(np.array([takes / 2]))[0] @ sheet.butter_shares)
    # past its range at the end, yet far from oily: quick hands manage it
    soft_c, tight = window.plastic_to_c, scene.kitchen["clock.tight_pct"] / 100
    bears_c = soft_c + tight * (window.oils_c - soft_c)
    works: Works = "yes"
    if lasts is not None and lasts < takes:
        if late_c <= soft_c + scene.kitchen["clock.slack_k"]:
            lasts = takes
        else:
            works = "tight" if late_c <= bears_c else "no"
    return WorkClock(of.stop, takes, lasts, works)
