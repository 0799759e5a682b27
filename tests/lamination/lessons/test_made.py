"""A lesson made from a plan, and from a day that was."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from lamination.kitchen import Kitchen
from lamination.lessons import (
    Decided,
    best_play,
    goal_lines,
    lesson_of_plan,
    lesson_of_run,
    outcome_of,
    played,
    put_into_plan,
    usual_choices,
)
from lamination.plan import Amendment, Plan, amend, starting_plan, work
from lamination.plan.amendment import Change
from lamination.run import Event, EventKind, Probe, stand
from lamination.terms import Family, Place
from lamination.warmth import Today, follow
from tests.lamination.lessons.given import said

KITCHEN = Kitchen()
AT = datetime(2027, 3, 6, 4, 0, tzinfo=UTC)


@pytest.mark.parametrize("family", list(Family))
def test_any_plan_makes_a_lesson_whose_best_play_reaches_its_goal(family: Family) -> None:
    lesson = lesson_of_plan(starting_plan("Teasel Lock", family, 1_500, KITCHEN), KITCHEN)
    asked = {c.field for c in lesson.choices}
    assert {Decided.STANDS, Decided.REST_MIN, Decided.PACE} <= asked
    # with the block straight from the fridge it is not passed by doing nothing
    stood = played(lesson, said(("lock_in", Decided.STANDS, 45.0)))
    assert all(line.reached for line in goal_lines(lesson.goal, outcome_of(stood)))


def test_what_may_be_decided_is_from_the_lock_in_on() -> None:
    plan = starting_plan("Teasel Lock", Family.CROISSANT, 1_500, KITCHEN)
    choices = usual_choices(plan)
    first = plan.at("lock_in")
    assert min(plan.at(c.step) for c in choices) == first
    rests = {c.step for c in choices if c.field is Decided.REST_MIN}
    assert rests == {s.id for s in plan.steps[first:] if s.rests}


def test_decisions_are_put_into_the_plan_and_what_hands_do_is_not() -> None:
    plan = starting_plan("Teasel Lock", Family.CROISSANT, 1_500, KITCHEN)
    changed = put_into_plan(
        plan,
        said(
            ("turn-1", Decided.REST_MIN, 55.0),
            ("turn-1", Decided.REST_PLACE, "freezer"),
            ("turn-2", Decided.PACE, "big"),
            ("final", Decided.ROLL_TO, 5.0),
            ("gone", Decided.REST_MIN, 5.0),
        ),
    )
    rest = changed.steps[changed.at("turn-1")].rest
    assert (rest.minutes, rest.ends) == (55, Place.FREEZER)
    assert changed.last_sheet.roll_to_mm == 5
    assert changed.steps[changed.at("turn-2")] == plan.steps[plan.at("turn-2")]


def test_a_hurried_plan_is_mended_by_the_best_play_put_into_it() -> None:
    """The search that plays lessons is the one that advises a real plan."""
    plan = starting_plan("Teasel Lock", Family.CROISSANT, 1_500, KITCHEN)
    hurried = plan.with_steps(*(s.resting(2) if s.id.startswith("turn") else s for s in plan.steps))
    lesson = lesson_of_plan(hurried, KITCHEN)
    rests = tuple(c for c in lesson.choices if c.field is Decided.REST_MIN)
    lesson = replace(lesson, choices=rests)
    better = put_into_plan(hurried, best_play(lesson).decisions)
    before, after = (outcome_of(played(lesson_of_plan(p, KITCHEN))) for p in (hurried, better))
    assert after.worth > before.worth + 5


def run_in(plan: Plan, fridge_k: float, slower: float) -> list[Event]:
    """A run by slow hands whose dough was probed as it came out of a fridge that much off its row."""
    worked = work(plan, KITCHEN)
    kitchen = KITCHEN.changed({"fridge.c": KITCHEN["fridge.c"] + fridge_k})
    slow = plan.with_steps(
        *(
            replace(step, bench_min=stop.bench_min * slower)
            for step, stop in zip(plan.steps, worked.strip, strict=True)
        )
    )
    found = follow(slow, kitchen, Today())
    at, events = AT, list[Event]()
    begins = {
        stretch.stop: course.body_at(0.0)
        for stretch, (_, course, _, _) in reversed([*zip(found.stretches, found.seen, strict=True)])
        if stretch.working
    }
    for step, stop in zip(slow.steps, worked.strip, strict=True):
        if stop.trays or step.id == "shape":
            break
        if step.id.startswith("turn"):
            middle = round(float(begins[step.id].middle_c), 1)
            reading = {"stop": step.id, "probe": Probe.DOUGH, "value_c": middle}
            events.append(Event(f"reading-{step.id}", at, EventKind.READING, **reading))
        at += timedelta(minutes=stop.bench_min * slower)
        events.append(Event(f"done-of-{step.id}", at, EventKind.DONE, stop=step.id))
        if step.rests:
            at += timedelta(minutes=step.rest.minutes)
            events.append(Event(f"taken-out-{step.id}", at, EventKind.OUT, stop=step.id))
    return events


def test_a_day_that_was_has_its_fridge_and_its_hands() -> None:
    plan = starting_plan("Teasel Lock", Family.CROISSANT, 1_500, KITCHEN)
    worked = work(plan, KITCHEN)
    for fridge_k, slower in ((3.0, 1.3), (0.0, 1.0)):
        now = stand(worked, AT, tuple(run_in(plan, fridge_k, slower)))
        lesson = lesson_of_run(plan, worked, KITCHEN, now, UTC)
        assert lesson.moods.fridge_k.low == pytest.approx(fridge_k, abs=0.5)
        assert lesson.moods.minutes.low == pytest.approx(slower, abs=0.06)
        assert lesson.kitchen["day.begins_h"] == 4


def test_a_run_without_a_reading_has_the_fridge_of_the_table() -> None:
    plan = starting_plan("Teasel Lock", Family.CROISSANT, 1_500, KITCHEN)
    worked = work(plan, KITCHEN)
    lesson = lesson_of_run(plan, worked, KITCHEN, stand(worked, AT, ()), UTC)
    assert (lesson.moods.fridge_k.low, lesson.moods.minutes.low) == (0, 1)


def test_plans_that_are_not_the_textbook_s_are_played_without_blame() -> None:
    """Two products of different weights on one sheet, an envelope, a plan that ends at the cut."""
    plan = starting_plan("Teasel Lock", Family.CROISSANT, 2_000, KITCHEN)
    cut = plan.cut
    assert cut is not None
    small = replace(cut.products[0], name="Small", base_mm=60, height_mm=150)
    two = plan.changed(cut, products=(replace(cut.products[0], rows=1), small))
    only_cut = plan.with_steps(*plan.steps[: plan.at("cut") + 1])
    for made in (two, only_cut):
        lesson = lesson_of_plan(made, KITCHEN)
        came = outcome_of(played(lesson, said(("lock_in", Decided.STANDS, 45.0))))
        assert came.harms == ()
        assert came.evenness_pct == 100
    envelope = amend(plan, Amendment(Change.METHOD, ingredient="envelope"), KITCHEN)
    lesson = lesson_of_plan(envelope, KITCHEN)
    by_eye = said(("lock_in", Decided.STANDS, 45.0), ("lock_in", Decided.CARE, "by eye"))
    assert outcome_of(played(lesson, by_eye)).openness_pct > 70
