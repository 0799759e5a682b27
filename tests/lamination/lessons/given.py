"""A lesson that leaves everything to decide, and plays of it."""

from __future__ import annotations

from dataclasses import replace
from functools import cache

from lamination.kitchen import Kitchen
from lamination.lessons import (
    Choice,
    Decided,
    Decision,
    Goal,
    Lesson,
    Moods,
    Outcome,
    outcome_of,
    played,
)
from lamination.lessons.choices import Calls, Care, Direction, Marking, Pace, Value
from lamination.plan import starting_plan
from lamination.terms import Family, Fold

AS_SAID = Moods()
TURNS = ("turn-1", "turn-2", "turn-3")


def words(of: type) -> tuple[str, ...]:
    return tuple(w.value for w in of)


@cache
def everything(family: Family = Family.CROISSANT, moods: Moods = AS_SAID, seed: int = 5) -> Lesson:
    """A usual plan of a family of which all may be decided; its butter is as the kitchen has it."""
    plan = starting_plan("Teasel Lock", family, 2_000, Kitchen())
    if plan.cut:
        plan = plan.changed(plan.cut, kerf_mm=3.0)
    choices = [
        Choice("lock_in", Decided.MARGIN, 0, 60),
        Choice("lock_in", Decided.OFF_CENTRE, -40, 40),
        Choice("lock_in", Decided.CARE, options=words(Care)),
        Choice("final", Decided.ROLL_TO, 1.5, 8),
        Choice("final", Decided.UNEVEN, 0, 20),
        Choice("final", Decided.DIRECTION, options=words(Direction)),
        Choice("cut", Decided.MARKS, options=words(Marking)),
        Choice("shape", Decided.REST_MIN, 0, 900),
        Choice("shape", Decided.REST_AIR, 18, 40),
    ]
    for turn in (t.id for t in plan.turns):
        choices += [
            Choice(turn, Decided.FOLD, options=tuple(f.value for f in Fold)),
            Choice(turn, Decided.REST_MIN, 0, 600),
            Choice(turn, Decided.REST_PLACE, options=("fridge", "freezer", "bench")),
            Choice(turn, Decided.DIRECTION, options=words(Direction)),
            Choice(turn, Decided.PACE, options=words(Pace)),
            Choice(turn, Decided.SHORT, 0, 40),
            Choice(turn, Decided.CALL, options=words(Calls)),
        ]
    kept = [c for c in choices if c.step == "lock_in" or plan.at(c.step) >= 0]
    return Lesson("Everything", plan, tuple(kept[:40]), seed, moods=moods)


def said(*values: tuple[str, Decided, Value]) -> tuple[Decision, ...]:
    return tuple(Decision(*value) for value in values)


def comes_to(lesson: Lesson, *values: tuple[str, Decided, Value]) -> Outcome:
    return outcome_of(played(lesson, said(*values)))


def with_goal(lesson: Lesson, **goal: float) -> Lesson:
    return replace(lesson, goal=Goal(**goal))  # type: ignore[arg-type]
