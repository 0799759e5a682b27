"""A lesson made from a plan or a real run: its usual choices, and the kitchen as it was."""

from __future__ import annotations

from dataclasses import replace
from datetime import tzinfo

from lamination.kitchen.kitchen import Kitchen
from lamination.lessons.choices import Care, Choice, Decided, Decision, Pace, in_order, put
from lamination.lessons.lesson import ByTimes, Goal, Lesson, Moods, OffBy
from lamination.lessons.outcome import outcome_of
from lamination.lessons.play import played
from lamination.plan.plan import Plan
from lamination.plan.worked import WorkedPlan
from lamination.run import EventKind, Standing, as_it_went, today_of
from lamination.steps.base import Step
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.turn import Trim, Turn
from lamination.terms.trade import Place
from lamination.warmth import Today, follow

_LONGER = 2.5  # a rest may be made so many times as long, or two hours longer
_PLACES = (Place.FRIDGE.value, Place.FREEZER.value, Place.BENCH.value)
_FRIDGE_K = tuple(k / 2 for k in range(-6, 17))  # K off its row that a fridge is tried at
_SLOWEST, _FASTEST = 2.0, 0.6
_SPARE_MIN = 10.0


def usual_choices(plan: Plan) -> tuple[Choice, ...]:
    """What a lesson of any plan leaves to decide: the block, the rolls and every rest from the lock-in on."""
    found: list[Choice] = []
    for step in plan.steps[plan.at(plan.lock_in.id) :]:
        found += _of_step(step)
    return tuple(found[:40])


def _of_step(step: Step) -> list[Choice]:
    found = []
    if isinstance(step, LockIn):
        found.append(Choice(step.id, Decided.STANDS, 0, 120))
        found.append(Choice(step.id, Decided.CARE, options=(Care.MEASURED, Care.BY_EYE)))
    if isinstance(step, Turn | LastSheet) and step.roll_to_mm is not None:
        if isinstance(step, Turn):
            low, high = max(step.roll_to_mm - 3, 2.0), step.roll_to_mm + 5
            found.append(Choice(step.id, Decided.ROLL_TO, low, high))
        found.append(Choice(step.id, Decided.PACE, options=tuple(p.value for p in Pace)))
    if step.rest is None:
        return found
    minutes = step.rest.minutes
    if not step.proofs and step.rest.stays[step.gives].place.value in _PLACES:
        found.append(Choice(step.id, Decided.REST_PLACE, options=_PLACES))
    elif step.proofs and step.rest.stays[step.gives].place is Place.PROOFER:
        found.append(Choice(step.id, Decided.REST_AIR, 18, 38))
    if minutes > 0:
        high = min(max(minutes * _LONGER, minutes + 120), 1_440.0)
        found.append(Choice(step.id, Decided.REST_MIN, 0, high))
    return found


def lesson_of_plan(plan: Plan, kitchen: Kitchen, seed: int = 1) -> Lesson:
    """A lesson of a plan in its own kitchen: everything from the lock-in on is to be decided.

    Its goal is what the plan itself comes to, in the time that it takes.
    """
    lesson = Lesson(plan.name, plan, usual_choices(plan), seed, kitchen)
    # what the plan comes to with its butter as the kitchen has it: in the lesson it comes from the fridge
    as_usual = tuple(c for c in lesson.choices if c.field is not Decided.STANDS)
    came = outcome_of(played(replace(lesson, choices=as_usual)))
    goal = Goal(
        openness_pct=max(round(came.openness_pct - 1.0, 1), 1.0),
        evenness_pct=max(round(came.evenness_pct - 2.0, 1), 1.0),
        fat_lost_pct=round(came.fat_lost_pct + 1.0, 1),
        ready_min=round(came.takes_min + _SPARE_MIN),
    )
    return replace(lesson, goal=goal)


def lesson_of_run(
    plan: Plan, worked: WorkedPlan, kitchen: Kitchen, now: Standing, zone: tzinfo, seed: int = 1
) -> Lesson:
    """A lesson of a day that was: the room as it was told, these hands, and the fridge as it was.

    The fridge is so far off its row as makes the readings of the dough, taken when it came out, fit best;
    as the table has it where nothing was read.
    """
    today = today_of(now, zone)
    hour = {} if today.begins_h is None else {"day.begins_h": today.begins_h}
    room = {} if today.room_c is None else {"room.c": today.room_c}
    there = kitchen.changed(hour | room)
    base = lesson_of_plan(plan, there, seed)
    off, hands = _fridge_as_it_was(plan, worked, there, now, today), _hands(worked, now)
    moods = Moods(fridge_k=OffBy(off, off), minutes=ByTimes(hands, hands))
    return replace(base, moods=moods)


def put_into_plan(plan: Plan, decisions: tuple[Decision, ...]) -> Plan:
    """A plan with what was decided for it put into its steps; how hands work has no place in a plan.

    A step that the plan has no more is left out. Raises Faults where what comes of it is no plan.
    """
    steps = list(plan.steps)
    for one in in_order(decisions):
        n = plan.at(one.step)
        if n >= 0:
            steps[n] = put(steps[n], one.field, one.value, Trim)
    return plan.with_steps(*steps)


def _hands(worked: WorkedPlan, now: Standing) -> float:
    """How long these hands took over what the plan has, on the mean of the work that was pressed done."""
    planned = {s.key: s.bench_min for s in worked.strip if not s.trays}
    took = wanted = 0.0
    clock = now.started_at
    for deed in now.deeds:
        minutes = (deed.at - clock).total_seconds() / 60
        if deed.kind is EventKind.DONE and not deed.assumed and planned.get(deed.stop):
            took, wanted = took + minutes, wanted + planned[deed.stop]
        clock = deed.at
    return round(min(max(took / wanted, _FASTEST), _SLOWEST), 2) if wanted and took else 1.0


def _fridge_as_it_was(
    plan: Plan, worked: WorkedPlan, kitchen: Kitchen, now: Standing, today: Today
) -> float:
    """How far the fridge was off its row, K: what makes the dough's readings fit best."""
    read = {m.stop: m.t_c for m in today.starts if not m.resting}
    if not read:
        return 0.0
    went = as_it_went(plan, worked, now)

    def off_by(k: float) -> float:
        found = follow(
            went, kitchen, replace(today, fridge_c=kitchen["fridge.c"] + k, starts=()), judges=False
        )
        total = 0.0
        seen: set[str] = set()
        for stretch, course, _ in found.spent(working=True):
            if stretch.stop in read and stretch.stop not in seen:
                seen.add(stretch.stop)
                total += (float(course.body_at(0.0).middle_c) - read[stretch.stop]) ** 2
        return total

    return min(_FRIDGE_K, key=lambda k: (off_by(k), abs(k)))
