"""A rest judged: followed beyond what was chosen, and held against what must be true at its end."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from lamination.heat.conduction import Course, conduct, still
from lamination.materials.thermal import Profile
from lamination.plan.walk import Walk
from lamination.steps import kind_of
from lamination.steps.base import Form
from lamination.terms.rests import Rest
from lamination.terms.trade import Family
from lamination.warmth.conditions import (
    After,
    after_rest,
    cold_enough,
    of_butter,
    of_yeast,
    relaxed,
    thawed,
)
from lamination.warmth.followed import Began
from lamination.warmth.scene import AHEAD_MIN, Scene
from lamination.warmth.windows import Cause, Condition, RestWindow, State, window_of

_LONG_AHEAD_MIN = 60 * 60.0  # and one in which nothing happens but ripening
_HOUR_MIN, _DAY_MIN = 60.0, 1_440.0
_TEMPERED = 12  # lengths of a rest whose tempering is followed


@dataclass(frozen=True)
class Asked:
    """A rest to be judged: whose it is, what lies there, what comes after it and what it must relax."""

    stop: str
    rest: Rest
    form: Form
    family: Family
    after: After
    relax_min: float


def asked(found: Walk, n: int, rest: Rest) -> Asked:
    """The rest of step ``n`` of a plan, or another in its place."""
    step = found.plan.steps[n]
    relax = kind_of(step).relaxing(found.here(n))
    return Asked(
        step.id, rest, found.made[n].lies.form, found.plan.family, after_rest(found, n), relax
    )


@lru_cache(maxsize=400)
def judged(scene: Scene, began: Began, of: Asked) -> RestWindow | None:
    """A rest judged from how it began, for the minutes and places given; None if nothing can be.

    The same rest that began the same is judged once.
    """
    if began.open_air:
        return _proof(scene, began, of)
    if of.form is Form.PIECES or of.form is Form.NOTHING:
        return None
    lengths, course = _lengths(scene, began, of.rest)
    state, conditions = _conditions(scene, began, of, lengths, course)
    return window_of(of.stop, of.rest.minutes, state, conditions)


def _lengths(scene: Scene, began: Began, rest: Rest) -> tuple[Profile, Course]:
    """The course of a rest up to its tempering, followed beyond what was chosen."""
    ends = (
        (rest.first.minutes if rest.first else 0.0),
        (rest.last.minutes if rest.last else 0.0),
    )
    long = scene.ahead_min if began.body.has_butter else _LONG_AHEAD_MIN
    beyond = max(long, rest.minutes + AHEAD_MIN / 2)
    course, at = still(began.body), began.minute
    if rest.first and rest.first.minutes > 0:
        around = scene.lies_in(rest, rest.first.place, ends[0], False, at)
        course = course.then(conduct(course.end, *around, ends[0]))
    # first as long as it was chosen, which is what the dough goes on from
    main = max(rest.minutes - ends[0] - ends[1], 0.0)
    around = scene.lies_in(rest, rest.place, main, False, at + ends[0])
    for lasts in (main, beyond - ends[0] - main):
        course = course.then(conduct(course.end, *around, lasts))
    lengths = _moments(beyond)
    at = int(np.searchsorted(lengths, rest.minutes))
    if at == len(lengths) or lengths[at] != rest.minutes:
        lengths = np.concatenate((lengths[:at], [rest.minutes], lengths[at:]))
    return lengths[lengths >= ends[0] + ends[1] - 1e-9], course


@lru_cache(maxsize=64)
def _moments(until: float) -> Profile:
    """Lengths that a rest may have, min: ever farther apart, for marks are found between them."""
    parts = [np.arange(0, min(until, _HOUR_MIN), 0.5)]
    parts.append(np.arange(_HOUR_MIN, min(until, 2 * AHEAD_MIN), 1.0))
    if until > 2 * AHEAD_MIN:
        parts.append(np.arange(2 * AHEAD_MIN, until, 10.0))
    return np.concatenate([*parts, [until]])


def _conditions(
    scene: Scene, began: Began, of: Asked, lengths: Profile, course: Course
) -> tuple[State, list[Condition]]:
    """What must hold at the end of a rest of each length, tempering included."""
    rest, after = of.rest, of.after
    last = rest.last.minutes if rest.last else 0.0
    if rest.last and last > 0:
        profiles, sums = _tempered(scene, began, rest, lengths, course, last)
    else:
        profiles = course.at(lengths)
        sums = course.gathered(scene.rates, lengths)
    body = began.body
    butter = profiles @ body.butter_shares if body.has_butter else None
    wanted = (scene.window.plastic_from_c + scene.window.plastic_to_c) / 2
    state = State(
        lengths, body.middle_of(profiles), butter, wanted if body.has_butter else None
    )  # fmt: skip
    conditions = relaxed(of.relax_min, after, lengths, scene.kitchen)
    if butter is not None:
        conditions += of_butter(body, profiles, butter, scene.window, after, scene.kitchen)
    elif after.locks_in:
        conditions += cold_enough(state.middle_c, scene.kitchen)
    if after.worked:
        conditions += thawed(profiles, body, scene.matter.freezes_c)
    if of.form is Form.SHEET and not body.round:
        # a rolled sheet is no place to wait, however cold it lies
        good, possible = scene.kitchen["sheet.good_min"], scene.kitchen["sheet.possible_min"]
        conditions.append(Condition(Cause.DRIES, False, good - lengths, possible - lengths))
    if scene.leaven is not None:
        conditions += of_yeast(began, sums, scene.whole, after, scene.kitchen)
    return state, conditions


def _tempered(
    scene: Scene, began: Began, rest: Rest, lengths: Profile, course: Course, last: float
) -> tuple[Profile, Profile]:
    """The profiles after the last stay, for a few lengths of what comes before it, and between."""
    assert rest.last is not None
    before = np.maximum(lengths - last, 0.0)
    low, high = float(before[0]), float(min(before[-1], max(rest.minutes * 2, 240.0)))
    few = np.unique(
        np.concatenate((np.geomspace(low + 5, high + 5, _TEMPERED) - 5, [rest.minutes - last]))
    )
    ends, active, ripe = [], [], []
    around = scene.around.place(rest, rest.last.place, began.minute + rest.minutes)
    sums = course.gathered(scene.rates, few)
    for i, main in enumerate(few):
        stood = conduct(course.body_at(float(main)), *around, last)
        ends.append(stood.end.t_c)
        both = sums[:, i] + stood.gathered(scene.rates, np.array([last]))[:, 0]
        active.append(both[0])
        ripe.append(both[1])
    table = np.array(ends)
    at = np.minimum(before, few[-1])
    profiles = np.array([np.interp(at, few, column) for column in table.T]).T
    return profiles, np.stack((np.interp(at, few, active), np.interp(at, few, ripe)))


def _proof(scene: Scene, began: Began, of: Asked) -> RestWindow | None:
    if scene.leaven is None:
        return None
    rest, family, kitchen = of.rest, of.family, scene.kitchen
    course = proof_course(scene, began, rest)
    grid = np.unique(
        np.concatenate((np.arange(0, _DAY_MIN, 2.0), [rest.minutes, course.minutes[-1]]))
    )
    profiles = course.at(grid)
    doses = course.gathered(scene.rates, grid)[0]
    usual = tuple(kitchen.of_family(family, f"proof.yeast_pct.{e}") for e in ("low", "high"))
    by_clock = 100 * doses / scene.leaven.dose_for((usual[0], usual[1]))
    marks = [
        kitchen.of_family(family, f"proof.{name}_pct")
        for name in ("possible_from", "good_from", "good_until", "possible_until")
    ]
    share = kitchen.of_family(family, "proof.share_pct")
    rise = 100 * doses / scene.whole
    state = State(grid, began.body.middle_of(profiles), None, None, rise)
    conditions = [
        Condition(Cause.PROOF, True, by_clock - marks[1], by_clock - marks[0]),
        Condition(Cause.OVER, False, marks[2] - by_clock, marks[3] - by_clock),
    ]
    window = window_of(of.stop, rest.minutes, state, conditions)
    done = np.flatnonzero(rise >= share)
    best = float(grid[done[0]]) if len(done) else window.best_min
    if best is not None and window.good_from_min is not None:
        best = max(best, window.good_from_min)
        if window.good_until_min is not None:
            best = min(best, window.good_until_min)
    return replace(window, best_min=best)


def proof_course(scene: Scene, began: Began, rest: Rest) -> Course:
    """A piece through the places of its rest, and on in the last of them for a day."""
    course = still(began.body)
    at = began.minute
    for i, stay in enumerate(rest.stays):
        last = i + 1 == len(rest.stays)
        lasts = max(stay.minutes, _DAY_MIN - (at - began.minute)) if last else stay.minutes
        air = scene.around.open_air(stay.place, at + stay.minutes / 2, rest.air_c)
        course = course.then(conduct(course.end, air, air, lasts))
        at += stay.minutes
    return course
