"""Rest windows: soonest, best and latest, what sets each, and how long work on the bench may take."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from lamination.dough.formula import Development
from lamination.heat.conduction import Course
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Kind, Strength, Window
from lamination.materials.thermal import Profile
from lamination.plan.plan import Plan
from lamination.sheet.folds import Fold
from lamination.terms.limits import say


class Cause(StrEnum):
    """What sets the soonest or the latest of a rest."""

    RELAXING = "relaxing"
    COOLING = "cooling"
    BRITTLE = "brittle butter"
    WAKING = "waking yeast"
    PROOF = "the proof"
    OVER = "over-proofing"


@dataclass(frozen=True, slots=True)
class RestWindow:
    """When a rest may end, min from its start; None where that never comes.

    ``soonest_by`` and ``latest_by`` say what sets them. ``chosen_min`` is the plan's, and
    ``verdict`` what becomes of it. ``middle_c`` and ``butter_c`` are at the chosen time (butter is
    None before the lock-in). ``temper_min``: on the bench afterwards, until no butter is brittle.
    """

    stop: str
    soonest_min: float | None
    best_min: float | None
    latest_min: float | None
    soonest_by: Cause
    latest_by: Cause | None
    chosen_min: float
    verdict: str
    middle_c: float
    butter_c: float | None
    temper_min: float | None
    says: str


def relaxing_min(plan: Plan, stop: str, kitchen: Kitchen) -> float:
    """How long gluten wants after a stop, min: by fold, place in the sequence, flour and mixing.

    Source: trade practice, core-model §7.
    """
    if stop in ("mix", "dough", "cut") or stop.startswith("preferment"):
        return 0.0
    times = kitchen["relax.lock_in_min"]
    if stop == "final":
        times = kitchen["relax.final_min"]
    elif stop.startswith("turn-"):
        i = int(stop[5:]) - 1
        turn = plan.turns[i]
        book = turn.fold in (Fold.BOOK, Fold.OFFSET_BOOK)
        times = kitchen["relax.book_min" if book else "relax.letter_min"]
        before = plan.turns[i - 1].rest if i else None
        if i and not (before and before.minutes > 0):
            times = max(times, kitchen["relax.two_min"])
        if i + 1 == len(plan.turns):
            times += kitchen["relax.last_min"]
    return times * _by_flour(plan, kitchen) * _by_mixing(plan, kitchen)


def _by_flour(plan: Plan, kitchen: Kitchen) -> float:
    if plan.formula is None:
        return 1.0
    flours = [(what, pct) for what, pct in plan.formula.parts if what.kind is Kind.FLOUR]
    factor = {Strength.WEAK: kitchen["relax.weak"], Strength.STRONG: kitchen["relax.strong"]}
    whole = sum(pct for _, pct in flours) or 1.0
    return sum(pct * (factor.get(what.strength, 1.0) if what.strength else 1.0)
               for what, pct in flours) / whole  # fmt: skip


def _by_mixing(plan: Plan, kitchen: Kitchen) -> float:
    if plan.formula is None:
        return 1.0
    developed = plan.formula.mixing.development
    return {
        Development.SHORT: kitchen["relax.short"],
        Development.FULL: kitchen["relax.full"],
    }.get(developed, 1.0)


def crossing(minutes: Profile, values: Profile, level: float, falling: bool) -> float | None:
    """When ``values`` first reach ``level`` from above (or from below), read between two steps."""
    beyond = values <= level if falling else values >= level
    at = np.flatnonzero(beyond)
    if not len(at):
        return None
    i = int(at[0])
    if i == 0:
        return float(minutes[0])
    share = (values[i - 1] - level) / (values[i - 1] - values[i])
    return float(minutes[i - 1] + share * (minutes[i] - minutes[i - 1]))


@dataclass(frozen=True, slots=True)
class Lying:
    """What a rest is judged by: its course (longer than chosen), and the marks it must meet."""

    stop: str
    course: Course
    chosen_min: float
    relaxing_min: float
    butter: Window | None
    rolled_next: bool
    spread_k: float
    cold_c: float
    asleep_until_min: float | None


def window_of(lying: Lying) -> RestWindow:
    """The window of one rest, from its simulated course.

    Soonest is the longer of relaxing and cooling: mean butter back at or under the top of its
    plastic range, and middle and face no further apart than ``spread_k``; before the lock-in, the
    middle at or under ``cold_c``. Latest is before any butter turns brittle, or the yeast has had
    its share. Best is when the butter is in the middle of its range, between the two. Source:
    core-model §7.
    """
    course, window = lying.course, lying.butter
    minutes = course.minutes
    held = course.end.butter_kg_m2
    middle = (
        course.t_c[:, (course.t_c.shape[1] - 1) // 2] + course.t_c[:, -(-course.t_c.shape[1] // 2)]
    ) / 2
    spread = course.t_c.max(axis=1) - course.t_c.min(axis=1)
    brittle: float | None = None
    if window and held.sum() > 0:
        mean = course.t_c @ held / held.sum()
        some = held > 0.5 * held.max()
        coldest = course.t_c[:, some].min(axis=1)
        cooled = _later(
            crossing(minutes, mean, window.plastic_to_c, falling=True),
            crossing(minutes, spread, lying.spread_k, falling=True),
        )
        if lying.rolled_next:
            brittle = crossing(minutes, coldest, window.brittle_c, falling=True)
        best = crossing(minutes, mean, (window.plastic_from_c + window.plastic_to_c) / 2, True)
    else:
        mean = None
        cooled = crossing(minutes, middle, lying.cold_c, falling=True)
        best = cooled
    soonest = _later(cooled, lying.relaxing_min)
    soonest_by = (
        Cause.RELAXING if cooled is not None and lying.relaxing_min >= cooled else Cause.COOLING
    )
    ends = [
        (at, cause)
        for at, cause in ((brittle, Cause.BRITTLE), (lying.asleep_until_min, Cause.WAKING))
        if at is not None
    ]
    latest, latest_by = min(ends, key=lambda e: e[0]) if ends else (None, None)
    if soonest is not None:
        best = max(best if best is not None else soonest, soonest)
        if latest is not None:
            best = min(best, max(latest, soonest))
    else:
        best = None
    chosen = lying.chosen_min
    at = float(np.interp(chosen, minutes, middle))
    butter = float(np.interp(chosen, minutes, mean)) if mean is not None else None
    past = latest is not None and chosen > latest + 0.5
    verdict = "late" if past else "good"
    if soonest is None or chosen < soonest - 0.5:
        # yeast that is awake is past help; a dough that is only brittle has still to relax
        verdict = "late" if past and latest_by is Cause.WAKING else "early"
    return RestWindow(
        lying.stop, soonest, best, latest, soonest_by, latest_by, chosen, verdict, at, butter, None,
        _says(verdict, soonest, latest_by, chosen, at, butter, soonest_by),
    )  # fmt: skip


def _later(a: float | None, b: float | None) -> float | None:
    return None if a is None or b is None else max(a, b)


def _says(
    verdict: str,
    soonest: float | None,
    latest_by: Cause | None,
    chosen: float,
    middle: float,
    butter: float | None,
    soonest_by: Cause,
) -> str:
    if verdict == "early":
        why = (
            f"the middle is still {say(middle)} °C"
            if soonest_by is Cause.COOLING
            else "the dough has not relaxed and will spring back"
        )
        if soonest is None:
            return f"It never gets cold enough here: {why}."
        more = max(1, round(soonest - chosen))
        return f"Wait {more} more {'minute' if more == 1 else 'minutes'}: {why}."
    if verdict == "late":
        if latest_by is Cause.WAKING:
            return (
                "The yeast is waking: the dough blows up and tears as it is rolled. Keep it colder."
            )
        return "The outer butter is brittle and snaps. Let it stand on the bench before you roll."
    if butter is None:
        return f"It comes out at {say(middle)} °C."
    return f"The butter comes out at {say(butter)} °C."
