"""Lessons and decisions: what is refused, and the same day on every machine."""

from __future__ import annotations

import subprocess
import sys
from dataclasses import replace

import pytest

from lamination.lessons import (
    Choice,
    Decided,
    Decisions,
    Moods,
    checked,
    mood_of,
    outcome_of,
    played,
)
from lamination.lessons.choices import BY_HAND, value_in
from lamination.lessons.lesson import ByTimes, Hint, Interruption, OffBy, off_by_eye
from lamination.terms import Faults
from tests.lamination.lessons.given import everything, said

CALLS = (Interruption("turn-2", 25, 50), Interruption("final", 10))
MOODS = Moods(
    fridge_k=OffBy(0, 4), freezer_k=OffBy(-3, 3), room_k=OffBy(-2, 6), softer_k=OffBy(-1, 2),
    relaxing=ByTimes(0.8, 1.4), minutes=ByTimes(0.9, 1.8), calls=CALLS,
)  # fmt: skip


def faults_of(wrong: Faults) -> dict[str, str]:
    return {f.field: f.message for f in wrong.faults}


def test_a_seed_is_a_day_and_another_is_another() -> None:
    days = [mood_of(everything(moods=MOODS, seed=seed)) for seed in range(40)]
    assert days[3] == mood_of(everything(moods=MOODS, seed=3))
    assert len({d.fridge_k for d in days}) > 30
    for d in days:
        assert 0 <= d.fridge_k <= 4
        assert -3 <= d.freezer_k <= 3
        assert 0.9 <= d.minutes <= 1.8
        assert ("final", 10) in d.calls  # it always comes
    half = sum(any(step == "turn-2" for step, _ in d.calls) for d in days)
    assert 8 < half < 32


def test_a_mood_that_is_added_moves_no_other() -> None:
    few = replace(MOODS, room_k=OffBy())
    a, b = mood_of(everything(moods=MOODS, seed=7)), mood_of(everything(moods=few, seed=7))
    assert (a.fridge_k, a.softer_k, a.relaxing, a.calls) == (
        b.fridge_k,
        b.softer_k,
        b.relaxing,
        b.calls,
    )
    assert b.room_k == 0


def test_the_same_seed_and_decisions_come_to_the_same_in_another_process() -> None:
    """Nothing hangs on the order of a set, or on what was followed before."""
    code = (
        "from tests.lamination.lessons.given import *\n"
        "from tests.lamination.lessons.test_lesson import MOODS\n"
        "play = said(('turn-1', Decided.REST_MIN, 33.0), ('turn-2', Decided.REST_PLACE, 'freezer'))\n"
        "print(outcome_of(played(everything(moods=MOODS, seed=9), play)))"
    )
    said_there = [
        subprocess.run(
            [sys.executable, "-c", code], capture_output=True, text=True, check=True,
            env={"PYTHONHASHSEED": seed, "PATH": "/usr/bin:/bin"},
        ).stdout.strip()
        for seed in ("1", "2")
    ]  # fmt: skip
    play = said(("turn-1", Decided.REST_MIN, 33.0), ("turn-2", Decided.REST_PLACE, "freezer"))
    here = str(outcome_of(played(everything(moods=MOODS, seed=9), play)))
    assert said_there == [here, here]


def test_the_order_of_decisions_is_nothing_to_an_outcome() -> None:
    place = ("turn-2", Decided.REST_PLACE, "freezer")
    minutes = ("turn-2", Decided.REST_MIN, 25.0)
    lesson = everything()
    assert outcome_of(played(lesson, said(place, minutes))) == outcome_of(
        played(lesson, said(minutes, place))
    )


def test_what_is_not_decided_goes_by_the_plan() -> None:
    lesson = everything()
    as_planned = [
        (c.step, c.field, value_in(lesson.plan, c))
        for c in lesson.choices
        if value_in(lesson.plan, c) is not None
    ]
    assert len(as_planned) > 25
    assert outcome_of(played(lesson, said(*as_planned))) == outcome_of(played(lesson))
    assert BY_HAND[Decided.DIRECTION] == "open"


def test_a_lesson_is_refused_with_a_sentence_for_every_field() -> None:
    lesson = everything()
    choices = (
        Choice("nowhere", Decided.REST_MIN, 0, 60),
        Choice("cut", Decided.FOLD, options=("book", "letter")),
        Choice("final", Decided.ROLL_TO, 3, 400),
        Choice("turn-1", Decided.REST_MIN, 0, 60),
        Choice("turn-1", Decided.REST_MIN, 0, 90),
    )
    with pytest.raises(Faults) as wrong:
        replace(
            lesson,
            choices=choices,
            hints=(Hint("gone", "Look."),),
            moods=Moods(calls=(Interruption("gone", 5),)),
        )
    assert faults_of(wrong.value) == {
        "choices[0].step": "The plan has no step with this id.",
        "choices[1].field": "There is no such thing to decide at this step: fold.",
        "choices[2].high": faults_of(wrong.value)["choices[2].high"],
        "choices[4].field": "This is given twice at this step.",
        "hints[0].step": "The plan has no step with this id.",
        "moods.calls[0].step": "The plan has no step with this id.",
    }
    assert faults_of(wrong.value)["choices[2].high"].startswith("Must be from")


@pytest.mark.parametrize(
    ("given", "field"),
    [
        ({"field": Decided.REST_MIN}, "low"),
        ({"field": Decided.REST_MIN, "low": 30, "high": 10}, "high"),
        ({"field": Decided.FOLD, "options": ("letter", "swan")}, "options[1]"),
        ({"field": Decided.FOLD, "options": ("letter",)}, "options"),
    ],
)
def test_a_choice_is_refused_where_it_is_none(given: dict[str, object], field: str) -> None:
    with pytest.raises(Faults) as wrong:
        Choice("turn-1", **given)  # type: ignore[arg-type]
    assert field in faults_of(wrong.value)


def test_decisions_are_refused_one_by_one() -> None:
    lesson = everything()
    play = Decisions(
        said(
            ("turn-1", Decided.REST_MIN, 9_000.0),
            ("turn-1", Decided.FOLD, "swan"),
            ("nowhere", Decided.REST_MIN, 10.0),
            ("cut", Decided.REST_MIN, 10.0),
            ("final", Decided.ROLL_TO, "thin"),
            ("turn-2", Decided.REST_MIN, 10.0),
            ("turn-2", Decided.REST_MIN, 20.0),
        )
    )
    with pytest.raises(Faults) as wrong:
        checked(lesson, play)
    assert set(faults_of(wrong.value)) == {
        "decisions[0].value", "decisions[1].value", "decisions[2].step", "decisions[3].field",
        "decisions[4].value", "decisions[6].field",
    }  # fmt: skip


def test_what_cannot_be_done_is_said_of_the_decisions() -> None:
    with pytest.raises(Faults) as wrong:
        played(everything(), said(("lock_in", Decided.OFF_CENTRE, -40.0)))
    assert "hang over the edge" in str(wrong.value)


def test_an_eye_is_off_by_as_much_the_next_time_and_not_by_nothing() -> None:
    lesson = everything()
    off = [off_by_eye(lesson, f"turn-{n}") for n in range(1, 4)]
    assert off == [off_by_eye(lesson, f"turn-{n}") for n in range(1, 4)]
    assert len(set(off)) == 3
    assert all(abs(a) >= 6 and b >= 6 and c >= 4 for a, b, c in off)
