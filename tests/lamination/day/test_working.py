"""Whose hands do what: as few stretches of work as can be, held against every way to share it out."""

import importlib
import itertools
from dataclasses import replace
from datetime import UTC, datetime, timedelta

from hypothesis import given, settings
from hypothesis import strategies as st

from bakehouse.demo.teasel_lock import BOATS, KITCHEN
from lamination.day import Day, Dough, Shift, by_minute, moves, working
from lamination.day.search import Search
from lamination.day.threads import Job, Thread
from lamination.kitchen import Kitchen
from lamination.steps import Chapter

from .test_placing import PRICES, busy_for, place

# the module, which its function hides
timetables = importlib.import_module("lamination.day.timetable")
PAUSE = 5
APART = replace(PRICES, stretch=1.0, pause=PAUSE)
MORNING = datetime(2027, 6, 19, 4, tzinfo=UTC)


def one(minutes, dough="1", ready=60):
    return Thread(dough, "x", (Job("s", "S", minutes, Chapter.TURNS, None, True),), (), ready)


def lying(tasks, hands, prices=APART):
    """A day of sixty minutes in which these tasks lie: (start, minutes)."""
    threads = [one(minutes, str(n)) for n, (_, minutes) in enumerate(tasks)]
    search = Search(threads, busy_for(hands, 60, Kitchen()), prices)
    for n, (start, _) in enumerate(tasks):
        search.loom.starts[n, 0] = start
        moves.whole(search.loom, n, 1)
    return search


def stretches(spans):
    """Of one hand's work: how often it begins after a pause; None where two are at once."""
    spans = sorted(spans)
    pauses = [b[0] - a[0] - a[1] for a, b in itertools.pairwise(spans)]
    return None if min(pauses, default=0) < 0 else bool(spans) + sum(p > PAUSE for p in pauses)


tasks_of_a_day = st.lists(st.tuples(st.integers(0, 45), st.integers(1, 12)), min_size=1, max_size=7)


@settings(max_examples=150)
@given(tasks_of_a_day, st.integers(1, 3))
def test_no_way_to_share_work_out_has_fewer_stretches(tasks, hands):
    counted = [
        [
            stretches([t for t, whose in zip(tasks, who, strict=True) if whose == c])
            for c in range(hands)
        ]
        for who in itertools.product(range(hands), repeat=len(tasks))
    ]
    fewest = min((sum(all_of) for all_of in counted if None not in all_of), default=None)
    search = lying(tasks, hands)
    if fewest is None:  # more at once than there are hands: every task is somebody's all the same
        assert len(search.hands) == len(tasks)
        return
    assert working.worked(search.loom) == fewest
    shared = {n: search.hands[str(n), 0][1] for n in range(len(tasks))}
    by_hand = [[t for n, t in enumerate(tasks) if shared[n] == c] for c in range(hands)]
    assert sum(stretches(spans) for spans in by_hand) == fewest


def test_a_long_day_costs_what_is_beyond_its_hours():
    prices = replace(PRICES, long=0.5, long_from=20)
    assert working.worked(lying([(0, 5), (30, 5)], 1, prices).loom) == 0.5 * 15
    assert working.worked(lying([(0, 5), (15, 5)], 1, prices).loom) == 0
    # two hands have a day each
    assert working.worked(lying([(0, 5), (1, 5), (30, 5), (31, 5)], 2, prices).loom) == 0.5 * 30


def test_a_task_lies_beside_other_work_where_it_may_as_well():
    def beside(task, stretch):
        busy = busy_for(1, 60, Kitchen())
        busy.hands[0].taken[20:30] = 1
        return place(task, busy, prices=replace(APART, early=0.0, stretch=stretch))[0]

    assert beside(one(4), 0.0) == 0
    assert 20 - PAUSE <= beside(one(4), 1.0) + 4 <= 20
    assert 30 <= beside(replace(one(4), held={"s": 33}), 1.0) <= 30 + PAUSE
    # and no dough is late for that
    assert beside(one(4, ready=10), 1.0) + 4 <= 10


def test_who_has_just_worked_is_not_parted_from_it_when_all_is_moved():
    """Both may be later, the second by much; that is not worth a stretch more."""
    threads = [one(5, "0", ready=20), one(5, "1", ready=60)]
    search = Search(threads, busy_for(1, 60, Kitchen()), replace(APART, early=0.02))
    for n, start in enumerate((0, 7)):
        search.loom.starts[n, 0] = start
        moves.whole(search.loom, n, 1)
    search.ease()
    assert working.worked(search.loom) == 1
    assert search.loom.starts[:, 0].tolist() == [15, 20 + PAUSE]


def test_a_light_day_is_worked_in_few_stretches_and_gives_up_nothing_for_it():
    at = lambda hours: MORNING + timedelta(hours=hours)  # noqa: E731
    day = Day(
        "Light", at(-12), at(8), (Shift("late", at(-12), at(-6), 2), Shift("early", at(0), at(7), 2)),
        tuple(Dough(str(n), BOATS, at(5 + n / 2)) for n in range(3)),
    )  # fmt: skip
    found = {}
    for stretch in (0.0, 0.05):
        arranging = timetables._Arranging(day, KITCHEN.changed({"day.stretch": stretch}), None)
        arranging.search.begin()
        arranging.search.improve(float("inf"), rounds=400)
        arranged = arranging.told(0.0)
        assert arranged.cost < 1e-6
        assert sum(w.work_min for w in arranged.duties) == sum(
            t.hands * (t.ends - t.starts) / timedelta(minutes=1) for t in arranged.tasks
        )
        found[stretch] = sum(len(w.stretches) for w in arranged.duties)
    assert found[0.05] < found[0.0]


def test_who_begins_anew_is_told_for_every_hand_of_a_shift():
    busy = busy_for(2, 60, Kitchen())
    busy.hands[0].taken[10:50] = 1
    busy.hands[0].taken[20:25] = 2
    of = Search([one(4)], busy, APART).loom
    # one works all the while, and the other just before or after
    assert not by_minute.begins_anew(of.worked[0], int(of.prices[0]["pause"]), 14, 18)
    assert not by_minute.begins_anew(of.worked[0], int(of.prices[0]["pause"]), 29, 33)
    assert by_minute.begins_anew(of.worked[0], int(of.prices[0]["pause"]), 30, 34)
    # or nobody does, and one just before
    assert not by_minute.begins_anew(of.worked[0], int(of.prices[0]["pause"]), 52, 56)
    assert by_minute.begins_anew(of.worked[0], int(of.prices[0]["pause"]), 55, 59)
