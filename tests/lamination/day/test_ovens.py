"""Doughs that are baked alike go into an oven together, as far as their trays have room there."""

import random
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np
import pytest

from bakehouse.demo.teasel_lock import KITCHEN, MARKET
from lamination.day import Day, Dough, Happened, Shift, Since, due, timetable
from lamination.day.bound import Bounding
from lamination.day.busy import Busy
from lamination.day.loom import Prices
from lamination.day.ovens import gone_in
from lamination.day.search import Search
from lamination.day.threads import Gap, Job, Thread
from lamination.kitchen import Kitchen
from lamination.steps import Chapter
from lamination.terms import Machine, Place

BEGINS = datetime(2027, 3, 26, 4, tzinfo=UTC)
PRICES = Prices(late=60, outside=12, early=0.2, early_from=5, linger=0.02)
READY, BAKES = 200, 20


def at(minute):
    return BEGINS + timedelta(minutes=minute)


def busy_for(room=8, now=0):
    hands = (Shift("all", BEGINS, at(400), 4),)
    day = Day("short", BEGINS, at(400), hands, (Dough("1", MARKET, at(400)),))
    return Busy(day, Kitchen({"oven.trays": room}), now)


def thread(name, trays=3, load="soft", done=()):
    jobs = (
        Job("shape", "Shape", 10, Chapter.TURNS, None, True),
        Job("bake", "Bake", BAKES, Chapter.TURNS, Machine.OVEN, False, ("bake", load), trays),
    )
    rest = Gap("shape", Place.BENCH, 60, 20, 40, 80, 120, 1, True)
    return Thread(name, name, jobs, (rest,), READY, done=done)


def ovens_taken(search):
    """How many ovens are on at every minute, from where the tasks lie and who is in with whom."""
    of = search.loom
    taken = np.zeros(of.there.shape[1], int)
    for dough, i in search.number.items():
        if of.lies[i] and (dough, 1) not in search.together:
            taken[of.starts[i, 1] : of.starts[i, 1] + BAKES] += 1
    return taken


@pytest.mark.parametrize(
    ("trays", "room", "ovens"), [(3, 8, 2), (3, 9, 2), (2, 8, 1), (4, 8, 2), (5, 8, 4), (8, 8, 4)]
)
def test_four_doughs_take_as_many_loads_as_their_trays_need(trays, room, ovens):
    search = Search([thread(str(n), trays) for n in range(4)], busy_for(room), PRICES)
    search.put(*"0123")
    loads = {}
    for dough, where in search.placed.items():
        loads.setdefault(where.starts[1], []).append(dough)
    assert len(loads) >= ovens
    assert all(len(doughs) * trays <= room for doughs in loads.values())
    assert len(search.together) == 4 - len(loads)
    assert search.short_min == 0
    if ovens == 1:
        assert search.cost == pytest.approx(0)


@pytest.mark.parametrize("order", ["ab", "ba"])
def test_who_is_fixed_to_another_minute_bakes_at_that(order):
    """The other comes along or waits for the oven; who is fixed does not."""
    fixed = replace(thread("b"), held={"bake": 150})
    search = Search([thread("a"), fixed], busy_for(), PRICES)
    search.put(*order)
    search.improve(float("inf"), rounds=20)
    assert search.placed["b"].starts[1] == 150
    assert ovens_taken(search).max() == 1
    assert search.short_min == 0


def test_who_is_baked_otherwise_goes_in_by_itself():
    search = Search([thread("a"), thread("b", load="hard")], busy_for(), PRICES)
    search.put("a", "b")
    assert search.together == {}
    a, b = sorted(where.starts[1] for where in search.placed.values())
    assert b >= a + BAKES


def test_what_is_taken_of_the_oven_is_what_lies_in_it_however_threads_come_and_go():
    chance = random.Random(4)
    threads = [thread(str(n), chance.choice([2, 3, 5])) for n in range(7)]
    search = Search(threads, busy_for(), PRICES)
    line = search.busy.lines[Machine.OVEN]
    search.put(*(t.dough for t in threads))
    for _ in range(60):
        some = chance.sample(threads, 3)
        if chance.random() < 0.5:
            search.put(*(t.dough for t in some))
        else:
            kept = search.as_it_lies()
            for one in some:
                search.take(one.dough)
            assert search.loom.taken[line].tolist() == ovens_taken(search).tolist()
            search.restore(kept)
        assert search.loom.taken[line].tolist() == ovens_taken(search).tolist()
    for one in threads:
        search.take(one.dough)
    assert not search.loom.taken.any()
    assert not search.loom.loads.any()


def test_the_bound_knows_that_an_oven_may_be_shared():
    threads = [thread(str(n), 2) for n in range(4)]
    bounding = Bounding(busy_for(), PRICES)
    bounding.begin(threads)
    asked = iter(range(200))
    bounding.better(1_000.0, float("inf"), lambda: next(asked, None) is None)
    search = Search(threads, busy_for(), PRICES)
    assert bounding.least <= search.put(*"0123") + 1e-6


def test_what_was_put_in_within_minutes_is_in_one_oven_as_far_as_there_is_room():
    def begun(name, minute, trays=3):
        return thread(name, trays, done=((0, 10), (minute, minute + BAKES)))

    four = [begun("a", 70), begun("b", 72), begun("c", 74), begun("d", 95)]
    assert gone_in(four, 8) == {("b", 1): "a"}
    assert gone_in(four, 9) == {("b", 1): "a", ("c", 1): "a"}
    search = Search(four[:2], busy_for(now=80), PRICES, not_before=80)
    search.put("a", "b")
    assert search.short_min == 0


@pytest.fixture(scope="module")
def morning():
    """Two doughs of one plan, three trays each, that are wanted at one hour; and their timetable."""
    ready = datetime(2027, 3, 27, 7, tzinfo=UTC)
    hands = (Shift("early", ready - timedelta(hours=14), ready + timedelta(hours=3), 2),)
    asked = Day("Two alike", ready - timedelta(hours=14), ready + timedelta(hours=4), hands,
                tuple(Dough(n, MARKET, ready) for n in "12"))  # fmt: skip
    return asked, timetable(asked, KITCHEN, 1.0)


def test_a_timetable_says_with_whose_trays_they_go_in(morning):
    _, found = morning
    one, two = sorted((t for t in found.tasks if t.step == "bake"), key=lambda t: t.together or "")
    assert (one.machine, one.together) == (Machine.OVEN, None)
    assert (two.machine, two.together) == (None, one.dough)
    assert (two.starts, two.ends) == (one.starts, one.ends)
    bakes = next(d for d in due(found.tasks, (), one.starts) if d.step == "bake")
    assert set(bakes.doughs) == {"1", "2"}
    assert bakes.by_tray
    assert not any(d.by_tray for d in due(found.tasks, (), one.starts) if d.step != "bake")


def test_a_day_under_way_goes_on_with_both_in_one_oven(morning):
    asked, before = morning
    one = next(t for t in before.tasks if t.step == "bake" and t.machine)
    now = one.starts + timedelta(minutes=5)
    happened = tuple(
        Happened(t.dough, t.step, t.starts + timedelta(minutes=t.dough == "2" and t.step == "bake"),
                 None if t.step == "bake" else t.ends)
        for t in before.tasks if t.starts <= now
    )  # fmt: skip
    after = timetable(asked, KITCHEN, 0.0, Since(now, happened, before.tasks))
    assert [g.says for g in after.gives if g.code == "machine"] == []
    assert sum(t.machine is Machine.OVEN for t in after.tasks) == 1
