"""A lesson: a plan, a kitchen with its moods, what may be decided, and what is to be reached."""

from __future__ import annotations

import random
from dataclasses import dataclass, field
from typing import Annotated, Literal

from lamination.kitchen.kitchen import Kitchen
from lamination.lessons.choices import Choice, Decision, StepId, fault_of
from lamination.plan.plan import Plan
from lamination.terms.limits import Checked, Fault, Faults, Length, Range, raise_if

LESSON_FORMAT: Literal["eight-turn/lesson"] = "eight-turn/lesson"
DECISIONS_FORMAT: Literal["eight-turn/decisions"] = "eight-turn/decisions"
VERSION: Literal[1] = 1
Off = Annotated[float, Range(-20, 20, "K")]
Times = Annotated[float, Range(0.3, 3, "times")]


@dataclass(frozen=True)
class OffBy(Checked):
    """How far something may be off, kelvin, from the least to the most."""

    low: Off = 0.0
    high: Off = 0.0

    def __post_init__(self) -> None:
        super().__post_init__()
        raise_if(_upside_down(self.low, self.high))


@dataclass(frozen=True)
class ByTimes(Checked):
    """How many times as long something may take, from the least to the most."""

    low: Times = 1.0
    high: Times = 1.0

    def __post_init__(self) -> None:
        super().__post_init__()
        raise_if(_upside_down(self.low, self.high))


def _upside_down(low: float, high: float) -> tuple[Fault, ...]:
    return (Fault("high", "The most must not be less than the least."),) if low > high else ()


@dataclass(frozen=True)
class Interruption(Checked):
    """Somebody calls when a step is about to begin: for how long, and how likely, %."""

    step: StepId
    minutes: Annotated[float, Range(1, 240, "min")]
    chance_pct: Annotated[float, Range(0, 100, "%")] = 100.0


@dataclass(frozen=True)
class Moods(Checked):
    """How far a kitchen may be from what its table says, each from the least to the most.

    Kelvin for fridge, freezer, room and the softness of the butter's lot (above 0: softer, so that all
    happens at a lower warmth); times for what a flour's relaxing takes, and the minutes of these hands.
    """

    fridge_k: OffBy = OffBy()
    freezer_k: OffBy = OffBy()
    room_k: OffBy = OffBy()
    softer_k: OffBy = OffBy()
    relaxing: ByTimes = ByTimes()
    minutes: ByTimes = ByTimes()
    calls: Annotated[tuple[Interruption, ...], Length(0, 12, "calls")] = ()


@dataclass(frozen=True, slots=True)
class Mood:
    """How a kitchen really is on the day of a seed; ``calls``: minutes by the step that they come at."""

    fridge_k: float
    freezer_k: float
    room_k: float
    softer_k: float
    relaxing: float
    minutes: float
    calls: tuple[tuple[str, float], ...]


@dataclass(frozen=True)
class Goal(Checked):
    """What is to be reached: at least, of butter lost at most, of butter layers just so many;
    ``ready_min``: after its beginning.
    """

    lift: Annotated[float, Range(0.5, 20, "times")] | None = None
    openness_pct: Annotated[float, Range(1, 99, "%")] | None = None
    evenness_pct: Annotated[float, Range(1, 100, "%")] | None = None
    fat_lost_pct: Annotated[float, Range(0, 100, "%")] | None = None
    butter_layers: Annotated[int, Range(1, 10_000, whole=True)] | None = None
    ready_min: Annotated[float, Range(1, 20_160, "min")] | None = None


@dataclass(frozen=True)
class Hint(Checked):
    """A sentence that helps at a step."""

    step: StepId
    says: Annotated[str, Length(1, 400, "characters")]


@dataclass(frozen=True)
class Lesson(Checked):
    """A lesson file. The same seed is the same day; ``words``: what the teacher says before it begins.

    Raises Faults where a choice, a hint or a call has no step in the plan.
    """

    name: Annotated[str, Length(1, 80, "characters")]
    plan: Plan
    choices: Annotated[tuple[Choice, ...], Length(1, 40, "choices")]
    seed: Annotated[int, Range(0, 1_000_000_000, whole=True)] = 1
    kitchen: Kitchen = field(default_factory=Kitchen)
    moods: Moods = field(default_factory=Moods)
    goal: Goal = field(default_factory=Goal)
    hints: Annotated[tuple[Hint, ...], Length(0, 40, "hints")] = ()
    words: Annotated[str, Length(0, 2_000, "characters")] = ""
    format: Literal["eight-turn/lesson"] = LESSON_FORMAT
    version: Literal[1] = VERSION

    def __post_init__(self) -> None:
        super().__post_init__()
        faults = []
        seen = set()
        for n, choice in enumerate(self.choices):
            wrong = fault_of(self.plan, choice)
            if wrong:
                faults.append(wrong.under(f"choices[{n}]"))
            if (choice.step, choice.field) in seen:
                faults.append(Fault(f"choices[{n}].field", "This is given twice at this step."))
            seen.add((choice.step, choice.field))
        named = {"hints": [h.step for h in self.hints]}
        named["moods.calls"] = [c.step for c in self.moods.calls]
        for where, steps in named.items():
            faults += [
                Fault(f"{where}[{n}].step", "The plan has no step with this id.")
                for n, step in enumerate(steps)
                if self.plan.at(step) < 0
            ]
        raise_if(faults)

    def choice(self, step: str, of: str) -> Choice | None:
        """What may be decided at a step of one thing; None where it is not to be decided."""
        return next((c for c in self.choices if c.step == step and c.field == of), None)


@dataclass(frozen=True)
class Decisions(Checked):
    """A play: what was decided, in any order. What is not decided goes by the plan."""

    decisions: Annotated[tuple[Decision, ...], Length(0, 40, "decisions")] = ()
    format: Literal["eight-turn/decisions"] = DECISIONS_FORMAT
    version: Literal[1] = VERSION


def mood_of(lesson: Lesson) -> Mood:
    """How the kitchen really is on the lesson's day: drawn evenly from its moods by the seed.

    Every mood is drawn, in one order, whether it is used or not, so that adding one moves no other.
    The same on every machine: Python's own generator is defined to be.
    """
    chance = random.Random(lesson.seed)
    moods = lesson.moods

    def within(of: OffBy | ByTimes) -> float:
        return round(of.low + (of.high - of.low) * chance.random(), 2)

    off = [within(of) for of in (moods.fridge_k, moods.freezer_k, moods.room_k, moods.softer_k)]
    times = [within(of) for of in (moods.relaxing, moods.minutes)]
    calls = tuple((c.step, c.minutes) for c in moods.calls if 100 * chance.random() < c.chance_pct)
    return Mood(off[0], off[1], off[2], off[3], times[0], times[1], calls)


def off_by_eye(lesson: Lesson, step: str) -> tuple[float, float, float]:
    """What comes of going by eye at a step: off centre, mm, a flap short, mm, one side thicker, %.

    By the seed and the step. Source: trade practice, what a hand without a ruler is off by.
    """
    chance = random.Random(f"{lesson.seed} {step}")
    side = chance.choice((-1.0, 1.0))
    return (
        round(side * (6 + 9 * chance.random()), 1),
        round(6 + 10 * chance.random(), 1),
        round(4 + 5 * chance.random(), 1),
    )


def checked(lesson: Lesson, play: Decisions) -> tuple[Decision, ...]:
    """The decisions of a play. Raises Faults for each that the lesson does not give, or does not allow."""
    faults: list[Fault] = []
    seen = set()
    for n, one in enumerate(play.decisions):
        choice = lesson.choice(*one.key)
        if choice is None:
            text = (
                "The lesson's plan has no step with this id."
                if lesson.plan.at(one.step) < 0
                else f"This lesson leaves nothing to decide here: {one.field.said}."
            )
            at = "step" if lesson.plan.at(one.step) < 0 else "field"
            faults.append(Fault(f"decisions[{n}].{at}", text))
        elif one.key in seen:
            faults.append(Fault(f"decisions[{n}].field", "This is decided twice."))
        else:
            said = choice.complaint(one.value)
            if said:
                faults.append(Fault(f"decisions[{n}].value", said))
        seen.add(one.key)
    if faults:
        raise Faults(*faults)
    return play.decisions
