"""A morning to try: several doughs on one bench, each begun when the baker says, before it is real.

The hour at which each dough's first work begins is decided; all that follows is placed by the house as on
any day, by the same prices. What comes of it is a timetable, against the best that was found.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from datetime import datetime
from typing import Annotated, Literal

from lamination.day import Day, Held, Timetable, timetable
from lamination.kitchen.kitchen import Kitchen
from lamination.lessons.outcome import GoalLine
from lamination.terms.limits import Checked, Fault, Faults, Length, Range
from lamination.terms.said import counted, moment, span

MORNING_FORMAT: Literal["eight-turn/morning"] = "eight-turn/morning"
Most = Annotated[float, Range(0, 10_000, "min")]


@dataclass(frozen=True)
class MorningGoal(Checked):
    """What is to be reached, minutes at most: late in all, rests outside what they bear, rests only tight."""

    late_min: Most | None = None
    outside_min: Most | None = None
    tight_min: Most | None = None


@dataclass(frozen=True)
class Morning(Checked):
    """A morning file. ``day.held`` has the first step of every dough: where it begins if nobody says else.

    Raises Faults where a dough's first step is not among them.
    """

    name: Annotated[str, Length(1, 80, "characters")]
    day: Day
    kitchen: Kitchen = field(default_factory=Kitchen)
    goal: MorningGoal = field(default_factory=MorningGoal)
    words: Annotated[str, Length(0, 2_000, "characters")] = ""
    hint: Annotated[str, Length(0, 400, "characters")] = ""
    format: Literal["eight-turn/morning"] = MORNING_FORMAT
    version: Literal[1] = 1

    def __post_init__(self) -> None:
        super().__post_init__()
        held = {(h.dough, h.step) for h in self.day.held}
        missing = [
            Fault(f"day.doughs[{n}].id", "Say in day.held when this dough's first step begins.")
            for n, dough in enumerate(self.day.doughs)
            if (dough.id, first_step(self.day, dough.id)) not in held
        ]
        if missing:
            raise Faults(*missing)


@dataclass(frozen=True)
class Begins(Checked):
    """When a dough's first work begins."""

    dough: Annotated[str, Length(1, 60, "characters")]
    at: datetime


@dataclass(frozen=True, slots=True)
class BegunWhen:
    """A dough of a morning: its plan's name, its first work, when that begins and when it is wanted."""

    dough: str
    name: str
    step: str
    at: datetime
    wanted: datetime


@dataclass(frozen=True, slots=True)
class MorningPlay:
    """What a morning comes to, begun so. ``gives``: what could not be had, in sentences."""

    begins: tuple[BegunWhen, ...]
    timetable: Timetable
    goal: tuple[GoalLine, ...]
    gives: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class MorningCost:
    """What one dough's hour cost: what the morning would give up less, had that alone been the best's.

    ``cost`` by the day's prices, the others in minutes; each is below 0 where it alone would be worse.
    """

    dough: str
    at: datetime
    instead: datetime
    cost: float
    late_min: int
    outside_min: int
    tight_min: int
    says: str


def first_step(day: Day, dough: str) -> str:
    """The id of the step that a dough of a day begins with."""
    of = next(d for d in day.doughs if d.id == dough)
    return of.plan.steps[of.plan.at(of.goes_on) if of.goes_on else 0].id


def begun_so(morning: Morning, begins: tuple[Begins, ...]) -> Day:
    """The day with its doughs begun when it was said; the others as the lesson has them.

    Raises Faults for a dough that is not of this day, or a time outside it.
    """
    day, said = morning.day, {b.dough: b.at for b in begins}
    known = {d.id for d in day.doughs}
    faults = []
    for n, one in enumerate(begins):
        if one.dough not in known:
            faults.append(Fault(f"begins[{n}].dough", "There is no such dough on this morning."))
        elif one.at.utcoffset() is None:
            faults.append(Fault(f"begins[{n}].at", "The time must say its time zone."))
        elif not day.begins <= one.at <= day.ends:
            text = f"The morning is from {moment(day.begins)} to {moment(day.ends)}."
            faults.append(Fault(f"begins[{n}].at", text))
    if faults:
        raise Faults(*faults)
    firsts = {(d.id, first_step(day, d.id)) for d in day.doughs}
    held = tuple(
        Held(h.dough, h.step, said.get(h.dough, h.at)) if (h.dough, h.step) in firsts else h
        for h in day.held
    )
    return replace(day, held=held)


def morning_play(morning: Morning, begins: tuple[Begins, ...] = ()) -> MorningPlay:
    """A morning begun as it was said. The first timetable there is: the same each time.

    Raises Faults as :func:`begun_so` does.
    """
    day = begun_so(morning, begins)
    return _told(morning, day, timetable(day, morning.kitchen))


def best_morning(morning: Morning, seconds: float) -> MorningPlay:
    """The best beginnings found in so many seconds, by the search that arranges real days; and what they
    come to when they are played as anybody's would be.
    """
    firsts = {(d.id, first_step(morning.day, d.id)) for d in morning.day.doughs}
    free = replace(
        morning.day, held=tuple(h for h in morning.day.held if (h.dough, h.step) not in firsts)
    )
    found = timetable(free, morning.kitchen, seconds)
    begins = tuple(
        Begins(t.dough, t.starts)
        for t in found.tasks
        if (t.dough, t.step) in firsts
    )  # fmt: skip
    played, as_found = morning_play(morning, begins), _told(morning, free, found)
    return as_found if as_found.timetable.cost < played.timetable.cost else played


def morning_costs(
    morning: Morning, begins: tuple[Begins, ...], best: MorningPlay
) -> tuple[MorningCost, ...]:
    """What each dough's hour cost, by changing it alone to the best's; the dearest first."""
    came = morning_play(morning, begins)
    instead = {b.dough: b.at for b in best.begins}
    found = []
    for one in came.begins:
        at = instead.get(one.dough, one.at)
        others = tuple(Begins(b.dough, b.at) for b in came.begins if b.dough != one.dough)
        alone = came if at == one.at else morning_play(morning, (*others, Begins(one.dough, at)))
        found.append(_cost(one, at, came.timetable, alone.timetable))
    return tuple(sorted(found, key=lambda c: -c.cost))


def _cost(one: BegunWhen, at: datetime, came: Timetable, alone: Timetable) -> MorningCost:
    late, outside = came.late_min - alone.late_min, came.outside_min - alone.outside_min
    tight, cost = came.tight_min - alone.tight_min, round(came.cost - alone.cost, 1)
    begun = f"{one.name}: begun at {moment(one.at)}"
    then = f"{begun}; the best morning has {moment(at)}."
    lost = [
        f"{span(minutes)} {what}"
        for minutes, what in (
            (late, "late"),
            (outside, "of rests outside what they bear"),
            (tight, "of rests only tight"),
        )
        if minutes > 0
    ]
    if cost >= _NOT_THERE:
        lost.append("work for which a hand or a machine was not there")
    if at == one.at:
        says = f"{begun}, as in the best morning."
    elif cost <= 0 or not lost:
        says = f"{then} By itself it cost nothing."
    else:
        says = f"{then} By itself it cost {', '.join(lost)}."
    return MorningCost(one.dough, one.at, at, cost, late, outside, tight, says)


_NOT_THERE = 10_000.0  # a cost so high is of minutes for which nobody, or no machine, is there


def _told(morning: Morning, day: Day, found: Timetable) -> MorningPlay:
    names = {d.id: d.plan.name for d in day.doughs}
    wanted = {d.id: d.ready_at for d in day.doughs}
    firsts = {(d.id, first_step(day, d.id)) for d in day.doughs}
    begins = tuple(
        BegunWhen(t.dough, names[t.dough], t.step, t.starts, wanted[t.dough])
        for t in found.tasks
        if (t.dough, t.step) in firsts
    )
    goal = morning.goal
    lines = tuple(
        GoalLine(of, most, float(came), came <= most)
        for of, most, came in (
            ("late_min", goal.late_min, found.late_min),
            ("outside_min", goal.outside_min, found.outside_min),
            ("tight_min", goal.tight_min, found.tight_min),
        )
        if most is not None
    )
    gives = tuple(g.says for g in found.gives) or _late(found)
    return MorningPlay(tuple(sorted(begins, key=lambda b: b.at)), found, lines, gives)


def _late(found: Timetable) -> tuple[str, ...]:
    late = [r for r in found.ready if r.late_min > 0]
    return (f"{counted(len(late), 'dough')} late.",) if late else ()
