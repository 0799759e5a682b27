"""The simulated bench: readings that are those of the play, and courses that time may run along."""

from __future__ import annotations

import pytest

from lamination.lessons import Choice, Decided, Lesson, Moods, bench_of, played
from lamination.lessons.lesson import Interruption, OffBy
from lamination.terms import Place
from lamination.warmth import Bend
from tests.lamination.lessons.given import everything, said


def moments(lesson: Lesson, *did: tuple[str, Decided, float | str]) -> dict[str, object]:
    return {m.stop: m for m in bench_of(played(lesson, said(*did))).moments}


def test_a_rest_as_long_as_a_course_says_ends_as_the_course_says() -> None:
    """Whoever lets time run to a minute and takes it out finds what she read."""
    lesson = everything()
    at_rest = moments(lesson)["turn-2"]
    for place, minute in ((Place.FRIDGE, 25), (Place.FREEZER, 40), (Place.BENCH, 55)):
        course = next(c for c in at_rest.courses if c.place is place)
        i = course.minutes.index(minute)
        out = moments(
            lesson,
            ("turn-2", Decided.REST_PLACE, place.value),
            ("turn-2", Decided.REST_MIN, float(minute)),
        )["turn-3"].before
        assert out.middle_c == pytest.approx(course.middle_c[i], abs=0.11)
        assert out.butter_c == pytest.approx(course.butter_c[i], abs=0.11)
        felt = [s.says for s in course.signs if s.from_min <= minute][-1]
        assert felt == out.says


def test_a_course_goes_as_far_as_its_minutes_may() -> None:
    course = moments(everything())["turn-1"].courses[0]
    assert course.minutes[0] == 0
    assert course.minutes[-1] == 600
    assert list(course.minutes) == sorted(course.minutes)
    assert (
        len(course.minutes) == len(course.middle_c) == len(course.butter_c) == len(course.risen_pct)
    )


def test_what_a_corner_does_is_this_lot_s_and_not_the_label_s() -> None:
    lesson = everything()
    soft = everything(moods=Moods(softer_k=OffBy(6, 6)))
    did = (("turn-2", Decided.REST_MIN, 0.0),)
    label, lot = moments(lesson, *did)["turn-3"].before, moments(soft, *did)["turn-3"].before
    assert label.butter_c == pytest.approx(lot.butter_c, abs=0.05)
    assert (label.bend, lot.bend) == (Bend.BENDS, Bend.SMEARS)
    assert bench_of(played(lesson)).plastic_to_c == bench_of(played(soft)).plastic_to_c
    frozen = moments(
        lesson, ("turn-2", Decided.REST_PLACE, "freezer"), ("turn-2", Decided.REST_MIN, 200.0)
    )
    assert frozen["turn-3"].before.bend is Bend.CRACKS


def test_pieces_rise_along_their_course() -> None:
    proof = moments(everything())["shape"].courses[0]
    assert proof.butter_c == ()
    assert list(proof.risen_pct) == sorted(proof.risen_pct)
    assert proof.risen_pct[0] == 0
    assert proof.risen_pct[-1] > 100
    seen = [s.says.split(";")[0].split(".")[0] for s in proof.signs]
    assert seen[0] == "The pieces stand as they were shaped"
    assert seen[3] == "Doubled"
    doubled = proof.signs[3].from_min
    assert 100 < doubled < 200


def test_somebody_calls_and_the_dough_waits_where_it_was_put() -> None:
    lesson = everything(moods=Moods(calls=(Interruption("turn-2", 40),)))
    left, away = moments(lesson), moments(lesson, ("turn-2", Decided.CALL, "away"))
    assert left["turn-2"].call_min == 40
    assert left["turn-1"].call_min is None
    assert left["turn-2"].starts_min == away["turn-2"].starts_min
    quiet = moments(everything())["turn-2"]
    assert left["turn-2"].starts_min == quiet.starts_min + 40
    assert left["turn-2"].before.butter_c > away["turn-2"].before.butter_c + 3


def test_what_is_asked_at_a_step_is_the_lesson_s_and_what_stands() -> None:
    at = moments(everything(), ("turn-1", Decided.FOLD, "book"))["turn-1"]
    asked = {a.field: a for a in at.asked}
    assert asked[Decided.FOLD].now == "book"
    assert asked[Decided.FOLD].options[0].said
    assert {a.field for a in at.asked_rest} == {Decided.REST_MIN, Decided.REST_PLACE}
    assert asked[Decided.SHORT].unit == "mm"


def test_it_opens_at_the_first_step_that_leaves_something_to_decide() -> None:
    lesson = everything()
    few = Lesson(
        "Few",
        lesson.plan,
        (Choice("turn-3", Decided.REST_MIN, 0, 60), Choice("shape", Decided.REST_MIN, 0, 60)),
    )
    assert bench_of(played(few)).opens == lesson.plan.at("turn-3")
    assert bench_of(played(few)).moments[0].courses == ()


def test_a_dough_is_tempered_after_its_rest() -> None:
    lesson = everything()
    tempers = Lesson("Tempers", lesson.plan, (Choice("turn-2", Decided.TEMPER, 0, 90),))
    cold = played(tempers).plan.steps[lesson.plan.at("turn-2")].rest
    warm = (
        played(tempers, said(("turn-2", Decided.TEMPER, 30.0)))
        .plan.steps[lesson.plan.at("turn-2")]
        .rest
    )
    assert [s.place for s in warm.stays] == [*(s.place for s in cold.stays), Place.BENCH]
    assert warm.minutes == cold.minutes + 30
    again = played(tempers, said(("turn-2", Decided.TEMPER, 0.0))).plan
    assert again.steps[lesson.plan.at("turn-2")].rest.minutes == cold.minutes
