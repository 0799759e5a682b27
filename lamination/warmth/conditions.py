"""What must hold at the end of a rest: relaxed, cooled, neither brittle nor frozen, not risen, not sour.

Each is worked for every length the rest might have, as a margin in its own measure: positive where it
holds. What a rest must come to depends on what is done with the dough after it.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lamination.heat.body import Body
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Window
from lamination.materials.thermal import Profile
from lamination.plan.walk import Walk
from lamination.warmth.followed import Began
from lamination.warmth.windows import Cause, Condition


@dataclass(frozen=True, slots=True)
class After:
    """What is done with a dough after a rest.

    ``rolled``: it is rolled again; ``worked``: rolled or locked in; ``locks_in``: the butter comes with
    the very next step; ``last_roll``: it rests for the last time before its last roll.
    """

    rolled: bool
    worked: bool
    locks_in: bool
    last_roll: bool


def after_rest(found: Walk, n: int) -> After:
    """What follows the rest of step ``n``."""
    coming = [made.handling for made in found.made[n + 1 :]]
    rolls = [h for h in coming if h.rolls]
    return After(
        rolled=bool(rolls),
        worked=any(h.rolls or h.shut_in for h in coming),
        locks_in=bool(coming) and bool(coming[0].shut_in),
        last_roll=len(rolls) == 1 and found.made[n].handling.rolls,
    )


def relaxed(relax_min: float, after: After, lengths: Profile, kitchen: Kitchen) -> list[Condition]:
    """The dough has relaxed: minutes by its step, more before the last roll."""
    if relax_min <= 0:
        return []
    more = kitchen["relax.last_min"] if after.last_roll else 0.0
    possible = relax_min * kitchen["relax.possible_share"]
    return [Condition(Cause.RELAXING, True, lengths - relax_min - more, lengths - possible)]


def cold_enough(middle_c: Profile, kitchen: Kitchen) -> list[Condition]:
    """A dough is cold enough for its butter."""
    cold, tight = kitchen["dough.cold_c"], kitchen["dough.cold_tight_k"]
    return [Condition(Cause.COLD, True, cold - middle_c, cold + tight - middle_c)]


def thawed(profiles: Profile, body: Body, freezes_c: float) -> list[Condition]:
    """No part of it is frozen: tight while only its faces are."""
    coldest, mean = profiles.min(axis=1), profiles @ body.shares
    return [Condition(Cause.FROZEN, False, coldest - freezes_c, mean - freezes_c)]


def of_butter(
    body: Body, profiles: Profile, butter_c: Profile, window: Window, after: After, kitchen: Kitchen
) -> list[Condition]:
    """The butter in a dough has cooled to where it bends, and none of it is brittle if it is rolled."""
    spread = profiles.max(axis=1) - profiles.min(axis=1)
    warmest = profiles[:, body.buttery].max(axis=1)
    to_c, close, soft = window.plastic_to_c, kitchen["spread_k"], kitchen["soft_tight_k"]
    good = np.minimum(to_c - butter_c, np.maximum(close - spread, to_c - warmest))
    possible = np.minimum(
        to_c + soft - butter_c, np.maximum(1.5 * close - spread, to_c + soft - warmest)
    )
    found = [Condition(Cause.COOLING, True, good, possible)]
    if after.rolled:
        coldest = profiles[:, body.buttery].min(axis=1)
        low = window.brittle_c - window.bears_k
        good_c, possible_c = low - kitchen["brittle.good_k"], low - kitchen["brittle.possible_k"]
        found.append(Condition(Cause.BRITTLE, False, coldest - good_c, coldest - possible_c))
    return found


def of_yeast(
    began: Began, sums: Profile, whole: float, after: After, kitchen: Kitchen
) -> list[Condition]:
    """A dough has neither ripened too long nor risen between its turns.

    ``sums``: activity, min, and ripeness, h, [clock, length]; ``whole``: the activity of a whole
    proof. Once the butter is in, what ripened before was judged where it happened.
    """
    active_min, ripe_h = sums
    with_butter = began.body.has_butter
    hours = ripe_h if with_butter else began.ripe_h + ripe_h
    sugar = 100 * (active_min if with_butter else began.sugar + active_min) / whole

    def ripe(mark: str) -> Profile:
        by_hours = kitchen[f"ripe.{mark}_h"] - hours
        found: Profile = np.minimum(by_hours, (kitchen[f"ripe.sugar_{mark}_pct"] - sugar) / 10)
        return found

    conditions = [Condition(Cause.RIPE, False, ripe("good"), ripe("possible"))]
    if with_butter and after.rolled:
        rise = 100 * (began.rise + active_min) / whole
        good, possible = kitchen["yeast.between_turns_pct"], kitchen["yeast.between_possible_pct"]
        conditions.append(
            Condition(Cause.RISING, False, (good - rise) / 10, (possible - rise) / 10)
        )
    return conditions
