"""Where the minutes of a step's work come from is said with the step."""

from bakehouse.demo.teasel_lock import BOATS, KITCHEN
from lamination.plan.work import work
from lamination.terms.said import span


def said(plan, kitchen, n):
    works = {w.of: w.text for w in work(plan, kitchen).workings}
    return works[f"strip[{n}].bench_min"]


def test_minutes_are_the_kitchen_s_until_a_step_has_its_own():
    turn = BOATS.turns[0]
    n, quick = BOATS.at(turn.id), KITCHEN.changed({"minutes.turn": 9})
    here = BOATS.changed(turn, bench_min=None)
    assert said(here, quick, n).startswith("9 min: the kitchen")
    assert said(here, quick, n).endswith("(yours).")
    assert said(BOATS.changed(turn, bench_min=11), quick, n) == "11 min: set at this step."


def test_every_step_says_where_the_minutes_it_shows_come_from():
    worked = work(BOATS, KITCHEN)
    works = {w.of: w.text for w in worked.workings}
    for stop in worked.strip:
        assert works[f"strip[{stop.n}].bench_min"].startswith(f"{span(stop.bench_min)}: ")
