"""A morning to try: begun when it is said, the same each time, against the best that was found."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, timedelta

import pytest

from bakehouse.lessons.files import mornings
from lamination.lessons import Begins, best_morning, morning_costs, morning_play
from lamination.lessons.morning import first_step
from lamination.terms import Faults

MORNING = mornings()["four-doughs"]
DAY = MORNING.day


def begins(**minutes: int) -> tuple[Begins, ...]:
    return tuple(Begins(dough, DAY.begins + timedelta(minutes=m)) for dough, m in minutes.items())


def test_four_doughs_go_on_from_the_fridge_and_each_is_begun_when_it_is_said() -> None:
    assert [d.goes_on for d in DAY.doughs] == ["lock_in"] * 4
    play = morning_play(MORNING, begins(puff=60, danish=150, croissant=240, brioche=330))
    at = {b.dough: DAY.minute(b.at) for b in play.begins}
    assert at == {"puff": 60, "danish": 150, "croissant": 240, "brioche": 330}
    assert [b.dough for b in play.begins] == ["puff", "danish", "croissant", "brioche"]
    assert {b.step for b in play.begins} == {"lock_in"}
    assert first_step(DAY, "puff") == "lock_in"


def test_all_at_one_hour_is_too_much_for_one_bench_and_says_so() -> None:
    play = morning_play(MORNING)
    assert play.timetable.cost > 10_000  # somebody would have to be there who is not
    assert not all(line.reached for line in play.goal)
    assert play.gives


def test_the_best_morning_reaches_the_goal_and_costs_are_by_one_dough_alone() -> None:
    best = best_morning(MORNING, 5.0)
    assert all(line.reached for line in best.goal)
    mine = morning_play(MORNING)
    assert best.timetable.cost < mine.timetable.cost
    costs = morning_costs(MORNING, (), best)
    assert [c.cost for c in costs] == sorted((c.cost for c in costs), reverse=True)
    assert {c.dough for c in costs} == {d.id for d in DAY.doughs}
    dearest = costs[0]
    others = tuple(Begins(b.dough, b.at) for b in mine.begins if b.dough != dearest.dough)
    alone = morning_play(MORNING, (*others, Begins(dearest.dough, dearest.instead)))
    assert dearest.cost == pytest.approx(mine.timetable.cost - alone.timetable.cost, abs=0.1)
    assert dearest.late_min == mine.timetable.late_min - alone.timetable.late_min


def test_the_same_hours_are_the_same_morning() -> None:
    hours = begins(puff=75, danish=95)
    one, two = morning_play(MORNING, hours), morning_play(MORNING, hours)
    assert one.timetable.tasks == two.timetable.tasks
    assert (one.goal, one.gives) == (two.goal, two.gives)


def test_what_cannot_be_is_said_by_its_place() -> None:
    late = DAY.ends + timedelta(hours=1)
    wrong_begins = (
        Begins("cake", DAY.begins),
        Begins("puff", late),
        Begins("danish", DAY.begins.replace(tzinfo=None)),
    )
    with pytest.raises(Faults) as wrong:
        morning_play(MORNING, wrong_begins)
    assert [f.field for f in wrong.value.faults] == [
        "begins[0].dough",
        "begins[1].at",
        "begins[2].at",
    ]


def test_a_morning_says_when_each_dough_begins() -> None:
    with pytest.raises(Faults) as wrong:
        replace(MORNING, day=replace(DAY, held=DAY.held[1:]))
    assert wrong.value.faults[0].field == "day.doughs[0].id"
    assert DAY.begins.astimezone(UTC).year == 2027
