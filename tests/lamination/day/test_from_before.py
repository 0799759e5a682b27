"""A day that was arranged and is changed: what can stay stays, and what is looked for is never worse."""

from dataclasses import replace
from datetime import timedelta

import pytest

from bakehouse.demo.teasel_lock import KITCHEN
from lamination.day import Dough, Happened, Held, Since, arranged, timetable

from .test_timetable import BOATS, at, day


@pytest.fixture(scope="module")
def asked():
    return day(doughs=5, hands=2, ready=9.0)


@pytest.fixture(scope="module")
def found(asked):
    return timetable(asked, KITCHEN, 1.0)


def moved(before, after):
    was = {(t.dough, t.step): t.starts for t in before.tasks}
    return [t for t in after.tasks if was.get((t.dough, t.step), t.starts) != t.starts]


def test_what_is_not_changed_lies_where_it_lay(asked, found):
    same = timetable(asked, KITCHEN, before=found)
    assert moved(found, same) == []
    assert same.cost == found.cost


def test_looking_longer_is_never_worse_than_what_there_was(asked, found):
    # far too short to find as good a one from nothing
    assert timetable(asked, KITCHEN, 0.05, before=found).cost <= found.cost
    alone = timetable(asked, KITCHEN, 0.0)
    assert timetable(asked, KITCHEN, 1.0, before=alone).cost <= alone.cost


def test_a_step_that_is_fixed_elsewhere_moves_little_else(asked, found):
    step = next(t for t in found.tasks if t.dough == "5" and t.step == "lock_in")
    there = step.starts - timedelta(minutes=20)
    held = replace(asked, held=(Held(step.dough, step.step, there),))
    after = timetable(held, KITCHEN, before=found)
    assert (
        next(t.starts for t in after.tasks if (t.dough, t.step) == (step.dough, step.step)) == there
    )
    assert not [g for g in after.gives if g.code in ("hand", "machine", "held")]
    # no more than the dough itself and who had those minutes
    assert len(moved(found, after)) <= 8
    better = timetable(held, KITCHEN, 1.0, before=after, steady=True)
    assert better.cost <= after.cost
    assert len(moved(after, better)) <= 8


def test_a_new_dough_is_put_beside_the_others_and_one_taken_away_makes_none_worse(asked, found):
    more = replace(asked, doughs=(*asked.doughs, Dough("6", BOATS, at(12))))
    after = timetable(more, KITCHEN, before=found)
    assert {t.dough for t in after.tasks} == {str(n) for n in range(1, 7)}
    assert not [g for g in after.gives if g.code in ("hand", "machine", "place")]
    fewer = replace(asked, doughs=asked.doughs[1:])
    left = timetable(fewer, KITCHEN, before=found)
    assert left.cost <= found.cost


def test_a_hand_who_does_not_come_has_the_day_arranged_anew(asked, found):
    alone = replace(asked, hands=tuple(replace(s, count=1) for s in asked.hands))
    after = timetable(alone, KITCHEN, before=found)
    assert not [g for g in after.gives if g.code == "hand"]
    # at once it lies near where it lay; looked for, it is no worse than if nothing had been there
    later = timetable(alone, KITCHEN, 1.0, before=after)
    assert not [g for g in later.gives if g.code == "hand"]
    assert later.cost <= 1.05 * timetable(alone, KITCHEN).cost + 50


def test_a_day_that_has_begun_goes_on_from_what_happened_whatever_it_had(asked):
    first = timetable(asked, KITCHEN)
    task = min(first.tasks, key=lambda t: t.starts)
    late = task.starts + timedelta(hours=5)
    since = Since(late, (Happened(task.dough, task.step, late),), first.tasks)
    after = timetable(asked, KITCHEN, 0.5, since, before=first)
    assert (
        next(t.starts for t in after.tasks if (t.dough, t.step) == (task.dough, task.step)) == late
    )
    assert min(t.starts for t in after.tasks if not t.done) >= late


def test_a_search_that_is_told_to_stop_ends_with_what_it_has(asked, found):
    asked_so_often = []

    def stop():
        asked_so_often.append(True)
        return len(asked_so_often) > 3

    *_, last = arranged(asked, KITCHEN, 3_600.0, before=found, stop=stop)
    assert last.cost <= found.cost
