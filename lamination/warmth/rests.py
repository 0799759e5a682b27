"""A rest judged: followed beyond what was chosen, and held against what must be true at its end."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from lamination.heat.conduction import still
from lamination.kitchen.kitchen import Kitchen
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
_TEMPERED = 12  # lengths of a rest whose last places are followed


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
    ahead = scene.ahead_min if began.body.has_butter else _LONG_AHEAD_MIN
    chain = _Chain(scene, began, of.rest, max(ahead, of.rest.minutes + AHEAD_MIN / 2))
    state, conditions = _conditions(scene, began, of, chain)
    return window_of(of.stop, of.rest.minutes, state, conditions)


class _Chain:
    """A rest followed through its stays, the one that gives as long as it might become.

    ``lengths``: of the whole rest, min; what comes after the stay that gives is as it was chosen.
    """

    def __init__(self, scene: Scene, began: Began, rest: Rest, until_min: float) -> None:
        self.scene, self.began, self.rest = scene, began, rest
        n = rest.gives(began.open_air)
        before, gives, self.tail = rest.stays[:n], rest.stays[n], rest.stays[n + 1 :]
        self.tail_min = sum(s.minutes for s in self.tail)
        self.fixed_min = sum(s.minutes for s in before) + self.tail_min
        course, at = still(began.body), began.minute
        for stay in before:
            course = course.then(scene.through(course.end, stay, began.open_air, at))
            at += stay.minutes
        beyond = until_min - (at - began.minute) - gives.minutes
        self.course = course.then(scene.through(course.end, gives, began.open_air, at, beyond))
        self.until_min = until_min

    def at(self, lengths: Profile) -> tuple[Profile, Profile]:
        """The profiles at the end of rests so long, and what has run by then: activity, ripeness."""
        if self.tail_min <= 0:
            return self.course.at(lengths), self.course.gathered(self.scene.rates, lengths)
        return self._with_tail(lengths)

    def lengths(self, moments: Profile) -> Profile:
        """Those of ``moments`` that the rest could last, and what was chosen."""
        found = np.union1d(moments, [self.rest.minutes])
        return found[found >= self.fixed_min - 1e-9]

    def _with_tail(self, lengths: Profile) -> tuple[Profile, Profile]:
        """The tail is followed for a few lengths of what comes before it, and read between them."""
        scene, tail_min, course = self.scene, self.tail_min, self.course
        before, chosen = np.maximum(lengths - tail_min, 0.0), self.rest.minutes
        low, high = float(before[0]), float(min(before[-1], max(chosen * 2, 240.0)))
        few = np.union1d(np.geomspace(low + 5, high + 5, _TEMPERED) - 5, [chosen - tail_min])
        sums, ends = course.gathered(scene.rates, few), []
        for i, main in enumerate(few):
            # the room is taken as it is then: the tail comes late in the rest as it was chosen
            stood, at = still(course.body_at(float(main))), self.began.minute + chosen - tail_min
            for stay in self.tail:
                stood = stood.then(scene.through(stood.end, stay, self.began.open_air, at))
                at += stay.minutes
            ends.append(stood.end.t_c)
            sums[:, i] += stood.gathered(scene.rates, np.array([tail_min]))[:, 0]
        at_few = np.minimum(before, few[-1])
        profiles = np.array([np.interp(at_few, few, column) for column in np.array(ends).T]).T
        return profiles, np.stack([np.interp(at_few, few, one) for one in sums])


@lru_cache(maxsize=64)
def _moments(until: float) -> Profile:
    """Lengths that a rest may have, min: ever farther apart, for marks are found between them."""
    parts = [np.arange(0, min(until, _HOUR_MIN), 0.5)]
    parts.append(np.arange(_HOUR_MIN, min(until, 2 * AHEAD_MIN), 1.0))
    if until > 2 * AHEAD_MIN:
        parts.append(np.arange(2 * AHEAD_MIN, until, 10.0))
    return np.concatenate([*parts, [until]])


def _conditions(
    scene: Scene, began: Began, of: Asked, chain: _Chain
) -> tuple[State, list[Condition]]:
    """What must hold at the end of a rest of each length, tempering included."""
    after = of.after
    lengths = chain.lengths(_moments(chain.until_min))
    profiles, sums = chain.at(lengths)
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


def usual_yeast(kitchen: Kitchen, family: Family) -> tuple[float, float]:
    """The yeast within which a family's proof goes by the clock, % of flour: from and to."""
    low, high = (kitchen.of_family(family, f"proof.yeast_pct.{end}") for end in ("low", "high"))
    return low, high


def proof_marks(kitchen: Kitchen, family: Family) -> tuple[float, float, float, float]:
    """A family's four marks of a proof, % of a whole one: possible and good from, good and possible until."""
    low, good, until, high = (
        kitchen.of_family(family, f"proof.{name}_pct")
        for name in ("possible_from", "good_from", "good_until", "possible_until")
    )
    return low, good, until, high


def _proof(scene: Scene, began: Began, of: Asked) -> RestWindow | None:
    if scene.leaven is None:
        return None
    rest, family, kitchen = of.rest, of.family, scene.kitchen
    chain = proof_chain(scene, began, rest)
    grid = chain.lengths(np.union1d(np.arange(0, chain.until_min, 2.0), [chain.until_min]))
    profiles, sums = chain.at(grid)
    doses = began.proofed + sums[0]
    by_clock = 100 * doses / scene.leaven.dose_for(usual_yeast(kitchen, family))
    marks = proof_marks(kitchen, family)
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


def proof_chain(scene: Scene, began: Began, rest: Rest) -> _Chain:
    """A piece through the places of its rest, and on in the one that gives for a day."""
    n = rest.gives(proofs=True)
    before = sum(s.minutes for s in rest.stays[:n])
    lasts = max(rest.stays[n].minutes, _DAY_MIN - before, _DAY_MIN / 2)
    return _Chain(scene, began, rest, before + lasts)


def proof_doses(scene: Scene, began: Began, rest: Rest, minutes: Profile) -> Profile:
    """How much a piece has proofed by some minutes of its rest, in the measure of a whole proof."""
    chain = proof_chain(scene, began, rest)
    found: Profile = began.proofed + chain.course.gathered(scene.rates, minutes)[0]
    return found
