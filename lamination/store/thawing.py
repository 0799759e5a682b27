"""When a block is to be taken out so that its middle is ready at the hour wanted, and its way there."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import lru_cache
from typing import Annotated, Literal

import numpy as np

from lamination.heat import conduct
from lamination.kitchen.kitchen import Kitchen
from lamination.plan import Plan, walk
from lamination.plan.walk import Walk
from lamination.steps import lying
from lamination.steps.last_sheet import LastSheet
from lamination.terms.limits import Checked, Fault, Faults, Range, raise_if
from lamination.terms.rests import Stay
from lamination.terms.sizes import Grams
from lamination.terms.trade import Place
from lamination.warmth import Around, body_before

THAW_FORMAT: Literal["eight-turn/thaw"] = "eight-turn/thaw"
THAWING_FORMAT: Literal["eight-turn/thawing"] = "eight-turn/thawing"
_LONGEST_H = 14 * 24.0
_EVERY_MIN = 0.5
_POINTS = 49


@dataclass(frozen=True)
class Thaw(Checked):
    """A frozen block as it lies before a step of its plan (the last sheet where none is said), how much of
    it there is, g, where it thaws, and when it is wanted. ``room_c``: of the bench.
    """

    plan: Plan
    mass_g: Grams
    wanted_at: datetime
    by: Place
    freezer_c: Annotated[float, Range(-60, -0.1, "°C")]
    fridge_c: Annotated[float, Range(-5, 20, "°C")]
    room_c: Annotated[float, Range(0, 50, "°C")]
    before_step: str | None = None
    lies_in: Literal["freezer"] = "freezer"
    format: Literal["eight-turn/thaw"] = THAW_FORMAT
    version: Literal[1] = 1

    def __post_init__(self) -> None:
        super().__post_init__()
        faults = []
        if self.wanted_at.utcoffset() is None:
            faults.append(Fault("wanted_at", "The time must say its time zone."))
        if self.by not in (Place.FRIDGE, Place.BENCH):
            faults.append(Fault("by", "It thaws in the fridge or on the bench."))
        if self.before_step is not None and self.plan.at(self.before_step) < 0:
            faults.append(Fault("before_step", "This plan has no such step."))
        raise_if(faults)

    @property
    def step(self) -> str:
        """The step before which it lies."""
        if self.before_step is not None:
            return self.before_step
        return next(s.id for s in self.plan.steps if isinstance(s, LastSheet))


@dataclass(frozen=True, slots=True)
class ThawWarm:
    """How warm a block is at a moment: its middle, and its face, °C."""

    at: datetime
    middle_c: float
    face_c: float


@dataclass(frozen=True, slots=True)
class Thawing:
    """When to move it, its size, mm, its way there, and from when until when it is ready.

    ``ready``: its middle is warm enough, and not too warm yet; the second None where it never gets so warm
    there. ``ready_c``: how warm its middle is then, from and to.
    """

    move_at: datetime
    size_mm: tuple[float, float, float]
    course: tuple[ThawWarm, ...]
    ready: tuple[datetime, datetime | None]
    ready_c: tuple[float, float]
    format: Literal["eight-turn/thawing"] = THAWING_FORMAT
    version: Literal[1] = 1


@lru_cache(maxsize=128)
def thaw(of: Thaw, kitchen: Kitchen) -> Thawing:
    """When to move a block so that its middle is halfway through its range at the hour wanted.

    Heat is followed through its thickness from both faces, wrapped, in still air or on the bench top; it
    starts as cold as the freezer all through. Where the place is hardly warmer than the range, it is to be
    half as warm as that. The same question is answered once. Raises Faults where nothing lies there, or
    where it never gets warm enough.
    Source: conduction (see :mod:`lamination.heat.conduction`); the range is a row of the kitchen.
    """
    today = kitchen.changed(
        {"freezer.c": of.freezer_c, "fridge.c": of.fridge_c, "room.c": of.room_c,
         "room.swing_k": 0.0}
    )  # fmt: skip
    body = body_before(of.plan, today, of.step)
    found = walk(of.plan, today)
    n = of.plan.at(of.step)
    if body is None or n == 0:
        raise Faults(Fault("before_step", "Nothing lies there yet before this step."))
    frozen = body.at_warmth(np.full_like(body.t_c, of.freezer_c))
    air = of.room_c if of.by is Place.BENCH else of.fridge_c
    low, high = today["keep.thawed_from_c"], today["keep.thawed_to_c"]
    if air <= low + 0.2:
        field = "room_c" if of.by is Place.BENCH else "fridge_c"
        text = f"At {air:g} °C its middle never gets to {low:g} °C. It thaws where it is warmer."
        raise Faults(Fault(field, text))
    stay = Stay(of.by, 60.0)
    below, above = Around(today).lies(stay, 0.0, air)
    hours = 24.0
    while True:
        course = conduct(frozen, below, above, hours * 60)
        if frozen.middle_of(course.t_c[-1]) > min(high, (low + air) / 2) or hours >= _LONGEST_H:
            break
        hours *= 2
    minutes = np.arange(0.0, hours * 60 + _EVERY_MIN, _EVERY_MIN)
    profiles = course.at(minutes)
    middle = frozen.middle_of(profiles)
    faces = (
        profiles[:, -1] if of.by is Place.FRIDGE else np.maximum(profiles[:, 0], profiles[:, -1])
    )

    def reaches(warm: float) -> float | None:
        there = np.flatnonzero(middle >= warm)
        return float(minutes[there[0]]) if len(there) else None

    aim = reaches(min((low + high) / 2, (low + air) / 2))
    starts, ends = reaches(low), reaches(high)
    if aim is None or starts is None:
        text = f"In {_LONGEST_H / 24:.0f} days it is not thawed. Cut it thinner."
        raise Faults(Fault("mass_g", text))
    move_at = of.wanted_at - timedelta(minutes=aim)
    shown = ends if ends is not None else min(2 * aim, minutes[-1])
    points = np.linspace(0.0, float(shown), _POINTS)
    course_at = tuple(
        ThawWarm(
            move_at + timedelta(minutes=float(m)),
            round(float(np.interp(m, minutes, middle)), 3),
            round(float(np.interp(m, minutes, faces)), 3),
        )
        for m in points
    )
    ready = (
        move_at + timedelta(minutes=starts),
        move_at + timedelta(minutes=ends) if ends is not None else None,
    )
    size_mm = _size(found, n - 1, of.mass_g, 1000 * frozen.thickness_m)
    return Thawing(move_at, size_mm, course_at, ready, (low, high))


def _size(found: Walk, n: int, mass_g: float, thick_mm: float) -> tuple[float, float, float]:
    """A part of what lies there after a step, cut off across its length; longer where there is more."""
    lies = found.made[n].lies
    if lies.size is None or lies.sheet is None:
        side = (found.recipe.dough_physics.volume_mm3(mass_g) / thick_mm) ** 0.5
        return round(side, 1), round(side, 1), round(thick_mm, 2)
    whole = lying(lies, found.recipe)[0] + lies.carried_g
    size = lies.size
    return (
        round(size.length_mm * mass_g / whole, 1), round(size.width_mm, 1),
        round(size.thickness_mm, 2),
    )  # fmt: skip
