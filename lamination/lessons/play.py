"""A play followed: the plan as it was decided, worked by these hands in the kitchen as it really is."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from typing import Any

from lamination.kitchen.kitchen import Kitchen
from lamination.lessons.choices import (
    BY_HAND,
    Calls,
    Care,
    Decided,
    Decision,
    Direction,
    Marking,
    Pace,
    Value,
    in_order,
    put,
    word,
)
from lamination.lessons.lesson import Lesson, Mood, mood_of, off_by_eye
from lamination.materials.ingredients import Window
from lamination.plan.plan import Plan
from lamination.plan.walk import walk
from lamination.steps.base import Made, Step
from lamination.steps.cut import CutFigures
from lamination.steps.lock_in import LockIn
from lamination.steps.turn import Trim
from lamination.terms.limits import Fault, Faults
from lamination.terms.rests import Rest, Stay
from lamination.terms.trade import Method, Place
from lamination.warmth import Followed, Today, follow, stood_on_the_bench

_EYE_MIN = 0.8  # going by eye takes so much of the minutes
_RELAXING = (
    "relax.letter_min", "relax.book_min", "relax.two_min", "relax.last_min", "relax.lock_in_min",
    "relax.final_min",
)  # fmt: skip


@dataclass(frozen=True, eq=False)
class Played:
    """What a play really was: the plan and the kitchen it came to, followed; and how hands did it.

    ``table``: the plan in the lesson's own kitchen, for what the house believes. ``decided``: every
    value that a choice took, by its step and field.
    """

    lesson: Lesson
    mood: Mood
    plan: Plan
    kitchen: Kitchen
    followed: Followed
    decided: Mapping[tuple[str, Decided], Value]

    def by_hand(self, step: str, of: Decided) -> Value:
        """How hands did something at a step."""
        return self.decided.get((step, of), BY_HAND[of])

    @cached_property
    def window(self) -> Window:
        """Where this lot of butter works: softer lots all the lower."""
        of, softer = self.followed.walk.recipe.window, self.mood.softer_k
        return replace(
            of,
            brittle_c=of.brittle_c - softer,
            plastic_from_c=of.plastic_from_c - softer,
            plastic_to_c=of.plastic_to_c - softer,
            oils_c=of.oils_c - softer,
        )

    @cached_property
    def last(self) -> Made:
        """What came of its last sheet."""
        return self.followed.walk.made[self.plan.at(self.plan.last_sheet.id)]

    @cached_property
    def cut(self) -> CutFigures | None:
        """How it was cut; None where it was not."""
        made = self.followed.walk.made
        return next((m.figures for m in made if isinstance(m.figures, CutFigures)), None)

    @property
    def proof_stop(self) -> str:
        """The step after which its pieces proof; the last one where they do not."""
        n = self.followed.proof_n
        return self.plan.steps[-1 if n is None else n].id

    @property
    def total_min(self) -> float:
        """From the first work to the last, min."""
        return self.followed.walk.clock[-1].ends_min


def played(lesson: Lesson, decisions: tuple[Decision, ...] = ()) -> Played:
    """Follow a play of a lesson; what is not decided goes by the plan.

    The same lesson and decisions come to the same on every machine. Raises Faults, by decision, where
    what was decided cannot be done.
    """
    return _played(lesson, tuple(sorted(decisions, key=lambda d: d.key)))


@lru_cache(maxsize=256)
def _played(lesson: Lesson, decisions: tuple[Decision, ...]) -> Played:
    mood = mood_of(lesson)
    decided: dict[tuple[str, Decided], Value] = {d.key: d.value for d in decisions}
    plan = _decided_plan(lesson, decisions)
    kitchen = _as_it_is(lesson.kitchen, mood)
    plan = _with_hands(plan, kitchen, mood, lesson, decided)
    plan = _with_calls(plan, mood, decided)
    butter_c = _butter_at_lock_in(lesson, plan, kitchen, decided)
    # a kitchen's own marks are not asked for: what a play comes to is read from its temperatures
    found = follow(plan, kitchen, Today(butter_c=butter_c), judges=False)
    return Played(lesson, mood, plan, kitchen, found, decided)


def _as_it_is(kitchen: Kitchen, mood: Mood) -> Kitchen:
    off = {"fridge.c": mood.fridge_k, "freezer.c": mood.freezer_k, "room.c": mood.room_k}
    values = {key: kitchen[key] + by for key, by in off.items() if by}
    if mood.relaxing != 1:
        values |= {key: kitchen[key] * mood.relaxing for key in _RELAXING}
    return kitchen.changed({key: _allowed(kitchen, key, value) for key, value in values.items()})


def _allowed(kitchen: Kitchen, key: str, value: float) -> float:
    row = kitchen.row(key)
    return min(max(value, row.low), row.high)


def _decided_plan(lesson: Lesson, decisions: tuple[Decision, ...]) -> Plan:
    plan = lesson.plan
    steps: list[Step] = list(plan.steps)
    for one in in_order(decisions):
        n = plan.at(one.step)
        try:
            steps[n] = put(steps[n], one.field, one.value, Trim)
        except Faults as wrong:
            raise Faults(*(Fault("decisions", f.message) for f in wrong.faults)) from None
    return plan.with_steps(*steps)


def _with_hands(
    plan: Plan,
    kitchen: Kitchen,
    mood: Mood,
    lesson: Lesson,
    decided: Mapping[tuple[str, Decided], Value],
) -> Plan:
    """The minutes these hands take, and what they are off by without a ruler."""
    clock = walk(plan, kitchen).clock
    steps = []
    for step, timed in zip(plan.steps, clock, strict=True):
        times = mood.minutes
        pace = decided.get((step.id, Decided.PACE), Pace.USUAL)
        if pace != Pace.USUAL:
            times *= kitchen[
                "lesson.small_steps_min" if pace == Pace.SMALL else "lesson.big_steps_min"
            ]
        changes: dict[str, Any] = {}
        if decided.get((step.id, Decided.CARE)) == Care.BY_EYE:
            times *= _EYE_MIN
            off_mm, short_mm, thicker_pct = off_by_eye(lesson, step.id)
            off = {"off_centre_mm": off_mm, "short_mm": short_mm, "uneven_pct": thicker_pct}
            changes |= {k: v for k, v in off.items() if getattr(step, k, None) == 0}
            if isinstance(step, LockIn):
                changes |= _laid_by_eye(step, off_mm)
        if times != 1:
            changes["bench_min"] = timed.bench_min * times
        steps.append(replace(step, **changes) if changes else step)
    return plan.with_steps(*steps)


def _laid_by_eye(step: LockIn, off_mm: float) -> dict[str, float]:
    """A block laid by eye leaves dough bare round it, or it would hang over the edge; where a way of locking
    in leaves no margin, it lies as well as by the ruler.
    """
    if not step.method.has_margin or step.method is Method.ENVELOPE:
        return {"off_centre_mm": step.off_centre_mm}
    return {"margin_mm": step.margin_mm + abs(off_mm)}


def _with_calls(plan: Plan, mood: Mood, decided: Mapping[tuple[str, Decided], Value]) -> Plan:
    """While somebody calls the dough lies on the bench, or goes on lying where it rested."""
    steps: list[Step] = list(plan.steps)
    for at, minutes in mood.calls:
        n = plan.at(at)
        if n < 1:
            continue
        before = steps[n - 1]
        away = decided.get((at, Decided.CALL)) == Calls.AWAY
        stays = before.rest.stays if before.rest else ()
        if not away:
            last = Stay(Place.BENCH, minutes)
        elif stays:
            last = replace(stays[-1], minutes=minutes, until_c=None, to_c=None)
        else:
            last = Stay(Place.FRIDGE, minutes)
        steps[n - 1] = replace(before, rest=Rest((*stays, last)))
    return plan.with_steps(*steps)


def _butter_at_lock_in(
    lesson: Lesson, plan: Plan, kitchen: Kitchen, decided: Mapping[tuple[str, Decided], Value]
) -> float | None:
    """How warm the block goes in, where it is to be decided how long it stands out; else as usual."""
    stands = next((c for c in lesson.choices if c.field is Decided.STANDS), None)
    if stands is None:
        return None
    minutes = float(decided.get((stands.step, stands.field), 0.0))
    return stood_on_the_bench(plan, kitchen, minutes)


def hand_of(play: Played, step: str) -> tuple[Direction, Pace, Marking]:
    """How hands rolled at a step, and how they marked."""
    return (
        word(Direction, play.by_hand(step, Decided.DIRECTION)),
        word(Pace, play.by_hand(step, Decided.PACE)),
        word(Marking, play.by_hand(step, Decided.MARKS)),
    )
