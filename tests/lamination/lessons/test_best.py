"""The best play of a day, and what each decision of another cost."""

from __future__ import annotations

import pytest

from bakehouse.lessons.files import shipped
from lamination.lessons import (
    Decided,
    Lesson,
    Outcome,
    best_play,
    costs_of,
    goal_lines,
    outcome_of,
    played,
    random_play,
)
from lamination.lessons.best import decisions_of, values_of
from tests.lamination.lessons.given import said

LESSONS = {one.key: one.lesson for one in shipped()}


def test_no_play_of_a_thousand_by_chance_is_better() -> None:
    lesson = LESSONS["3-a-hot-day"]
    best = best_play(lesson).outcome.worth
    by_chance = [outcome_of(played(lesson, random_play(lesson, n))).worth for n in range(1_000)]
    assert max(by_chance) <= best + 1e-9
    assert min(by_chance) < best - 20  # there was something to be lost


@pytest.mark.parametrize("key", sorted(LESSONS))
def test_every_lesson_that_ships_can_be_passed_and_is_not_passed_unplayed_or_badly(
    key: str,
) -> None:
    lesson = LESSONS[key]
    best = best_play(lesson)
    assert all(line.reached for line in goal_lines(lesson.goal, best.outcome))
    plays = [outcome_of(played(lesson, random_play(lesson, n))) for n in range(15)]
    assert any(not all(line.reached for line in goal_lines(lesson.goal, p)) for p in plays)
    assert best.outcome.worth >= max(p.worth for p in plays)


def test_it_is_never_worse_than_what_it_began_with() -> None:
    lesson = LESSONS["4-two-turns-back-to-back"]
    for seed in range(3):
        begun = random_play(lesson, seed)
        assert best_play(lesson, begun).outcome.worth >= outcome_of(played(lesson, begun)).worth


def test_a_search_says_how_far_it_is_and_stops_when_it_is_told() -> None:
    lesson, shares = LESSONS["3-a-hot-day"], list[float]()

    def until_the_fifth(share: float, best: Outcome) -> bool:
        shares.append(share)
        return len(shares) < 5

    stopped = best_play(lesson, progress=until_the_fifth)
    assert stopped.stopped
    assert len(shares) == 5
    assert shares == sorted(shares)
    whole = best_play(lesson, progress=lambda share, best: shares.append(share) or True)
    assert not whole.stopped
    assert shares[-1] == 1
    assert whole.outcome.worth >= stopped.outcome.worth


def test_a_cost_is_the_outcome_with_that_decision_alone_changed() -> None:
    lesson = LESSONS["3-a-hot-day"]
    hers = said(
        ("turn-1", Decided.REST_PLACE, "bench"),
        ("turn-1", Decided.REST_MIN, 60.0),
        ("turn-3", Decided.PACE, "big"),
    )
    best = best_play(lesson, hers)
    came = outcome_of(played(lesson, hers))
    costs = costs_of(lesson, hers, best)
    assert len(costs) == len(lesson.choices)
    assert [c.worth for c in costs] == sorted((c.worth for c in costs), reverse=True)
    dearest = costs[0]
    assert (dearest.step, dearest.field) == ("turn-1", Decided.REST_PLACE)
    values = list(values_of(lesson, hers))
    n = next(
        i for i, c in enumerate(lesson.choices) if (c.step, c.field) == ("turn-1", "rest.place")
    )
    values[n] = dearest.instead
    alone = outcome_of(played(lesson, decisions_of(lesson, tuple(values))))
    assert dearest.lift == pytest.approx(alone.lift - came.lift, abs=2e-3)
    assert dearest.openness_pct == pytest.approx(alone.openness_pct - came.openness_pct, abs=0.02)
    assert dearest.fat_lost_pct == pytest.approx(came.fat_lost_pct - alone.fat_lost_pct, abs=0.02)
    for cost in costs:
        if cost.value == cost.instead:
            assert (cost.worth, cost.lift, cost.fat_lost_pct) == (0, 0, 0)
            assert cost.says.endswith("as in the best play.")


def test_a_best_play_costs_nothing() -> None:
    lesson: Lesson = LESSONS["7-marks-and-the-knife"]
    best = best_play(lesson)
    assert all(cost.worth == 0 for cost in costs_of(lesson, best.decisions, best))
