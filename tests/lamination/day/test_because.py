"""Why a task moved is said only where it is so: another has the machine, a rest would be too short."""

import re
from dataclasses import replace
from datetime import timedelta

import pytest

from bakehouse.demo.teasel_lock import KITCHEN
from lamination.day import Happened, Since, timetable
from lamination.day.because import Reasons
from lamination.day.busy import Busy, Placed
from lamination.day.threads import Gap, Job, Thread
from lamination.steps import Chapter
from lamination.terms.trade import Machine, Place

from .test_timetable import at, day

NOW = 10
REST = Gap("turn", Place.FRIDGE, 30, 20, 25, 60, 90, 1, True)
WAIT = Gap("look", Place.BENCH, 0, 0, 0, 5, 10, 1, False)


def job(step, minutes, machine=None, held=True):
    return Job(step, step.capitalize(), minutes, Chapter.TURNS, machine, held)


def reasons(starts, hands=2, **of_kitchen):
    """Two doughs: turn on the sheeter, a rest, look, a wait, and shape; each where it is said."""
    jobs = (job("turn", 10, Machine.SHEETER), job("look", 5), job("shape", 20))
    threads = {d: Thread(d, "Puff", jobs, (REST, WAIT), 400) for d in starts}
    kitchen = KITCHEN.changed({"sheeter.count": 1, "fridge.holds": 9, **of_kitchen})
    asked = replace(day(hands=hands), doughs=day().doughs)
    busy = Busy(asked, kitchen, NOW)
    for places in starts.values():
        for k, start in enumerate(places):
            busy.taken[0, start : start + jobs[k].minutes] += 1
        busy.taken[busy.lines[Machine.SHEETER], places[0] : places[0] + 10] += 1
        busy.taken[busy.lines[Place.FRIDGE], places[0] + 10 : places[1]] += 1
    placed = {d: Placed(tuple(s), (0, 0, 0)) for d, s in starts.items()}
    return Reasons(threads, placed, busy, 12.0, {})


@pytest.mark.parametrize(("starts", "k", "was", "said"), [
    # dough 2 has the sheeter until 30
    ({"1": (30, 80, 85), "2": (20, 100, 105)}, 0, 20, "the sheeter is with dough 2"),
    # 25 minutes after the turn, and not sooner
    ({"1": (20, 55, 60)}, 1, 40, "its rest after Turn would else be too short"),
    ({"1": (20, 90, 95)}, 1, 120, "its rest after Turn would else be too long"),
    ({"1": (20, 70, 75)}, 2, 60, "Look is done only then"),
    ({"1": (20, 60, 65)}, 1, 70, "Shape begins then"),
    ({"1": (60, 85, 90)}, 0, 80, "its rest before Look would else be too short"),
    ({"1": (NOW, 60, 65)}, 0, 2, "it has not begun yet"),
    ({"1": (300, 376, 381)}, 2, 384, "it would else be late"),
    ({"1": (30, 80, 85)}, 0, 20, ""),
])  # fmt: skip
def test_what_is_in_the_way_is_said(starts, k, was, said):
    assert reasons(starts).why("1", k, was) == said


def test_hands_at_other_doughs_and_nobody_there_are_told_apart():
    # dough 2 shapes from 60 to 80, so that one hand looks at dough 1 afterwards
    starts = {"1": (20, 80, 85), "2": (NOW, 55, 60)}
    assert reasons(starts, hands=1).why("1", 1, 78) == "the hand is at dough 2"
    assert reasons(starts, hands=2).why("1", 1, 78) == ""
    alone = reasons({"1": (20, 80, 85)}, hands=1)
    alone.busy.there[0, 60:80] = 0
    assert alone.why("1", 1, 78) == "nobody is there"


def test_a_shelf_that_is_full_is_said():
    full = reasons({"1": (60, 110, 115)})
    full.busy.there[full.busy.lines[Place.FRIDGE]] = 1
    assert full.why("1", 0, 50) == ""
    full.busy.taken[full.busy.lines[Place.FRIDGE], 60:70] = 1
    assert full.why("1", 0, 50) == "the fridge is full"


def test_what_another_does_as_well_is_said_to_be_done_with_it():
    one = reasons({"1": (30, 80, 85), "2": (30, 100, 105)})
    together = replace(one, together={("1", 0): "2"})
    assert together.why("1", 0, 20) == "it is done with dough 2"


def test_every_reason_of_a_day_that_is_arranged_again_is_so():
    """Of a late dough's day: whoever is said to have the sheeter, or all hands, has them at that minute."""
    asked = day(doughs=6, hands=2, ready=11.0)
    before = timetable(asked, KITCHEN)
    now = at(4)
    slow = next(t for t in before.tasks if t.starts > at(2) and not t.together)
    happened = tuple(
        Happened(t.dough, t.step, t.starts, t.ends)
        for t in before.tasks
        if t.ends <= now and not (t.dough == slow.dough and t.starts >= slow.starts)
    )
    after = timetable(asked, KITCHEN, 0.0, Since(now, happened, before.tasks))
    told = 0
    for moved in after.moved:
        taken = re.search(r"(sheeter is with|all hands are at) (.*)$", moved.says)
        if not taken:
            continue
        told += 1
        doughs = set(re.findall(r"dough (\d+)", taken[2]))
        task = next(t for t in after.tasks if (t.dough, t.step) == (moved.dough, moved.step))
        later = task.starts > moved.was
        a, b = (
            (moved.was, task.starts)
            if later
            else (task.ends, moved.was + (task.ends - task.starts))
        )
        others = {
            t.dough
            for t in after.tasks
            if t.starts < b and t.ends > a - timedelta(minutes=1) and t.dough != moved.dough
            and (t.machine is Machine.SHEETER if "sheeter" in taken[1] else t.hands)
        }  # fmt: skip
        assert doughs <= others
    assert told
