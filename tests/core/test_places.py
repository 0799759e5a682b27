"""Where a dough lies: what is under and over it, the room through the day, and how full the cold is."""

from dataclasses import replace

import pytest

from lamination.day.capacity import crowded
from lamination.day.order import Order, Ordered, Wanted, work_order
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import Family
from lamination.pieces.finish import starting_finish
from lamination.plan.plan import Dough
from lamination.plan.schedule import schedule
from lamination.terms.rests import Place, Rest, Stay, Surface
from lamination.warmth.cold import Today, follow, room_through_the_day

from .formulas import formula
from .plans import station, turns

COLD = Rest(Place.FRIDGE, 40)


def resting(rest, **kitchen):
    """The window of the rest after the first turn."""
    plan = station(turns=turns("letter", "letter", rest=rest))
    return next(w for w in follow(plan, Kitchen(kitchen)).windows if w.stop == "turn-1")


def test_a_tray_or_marble_cools_faster_than_the_shelf_and_ice_on_top_faster_still():
    shelf, tray, marble, iced = (
        resting(replace(COLD, **how)).butter_c
        for how in ({}, {"on": Surface.TRAY}, {"on": Surface.MARBLE}, {"on": "tray", "iced": True})
    )
    assert marble == tray < shelf - 0.5
    assert iced < tray - 0.5


def test_ice_on_top_cools_on_the_bench_too():
    bench = Rest(Place.BENCH, 30)
    assert resting(replace(bench, iced=True)).butter_c < resting(bench).butter_c - 3


def test_what_lies_under_can_be_put_right_in_the_kitchen():
    poor = resting(replace(COLD, on=Surface.TRAY), **{"under.tray": 7})
    assert poor.butter_c == pytest.approx(resting(COLD).butter_c, abs=0.02)


def test_the_chain_keeps_what_it_lies_on():
    chain = Rest(Place.FRIDGE, 40, first=Stay(Place.FREEZER, 15), on=Surface.TRAY)
    assert resting(chain).butter_c < resting(replace(chain, on=Surface.USUAL)).butter_c


def test_a_room_without_a_swing_stays_as_it_was_read():
    assert room_through_the_day(Kitchen({"room.c": 23}), 600) == 23


def test_the_room_is_as_read_then_and_warmest_at_its_hour():
    kitchen = Kitchen({"room.c": 20, "room.swing_k": 8, "day.begins_h": 3, "room.warmest_h": 15})
    course = [room_through_the_day(kitchen, 60 * h) for h in range(25)]
    assert course[0] == course[24] == pytest.approx(20)
    assert course.index(max(course)) == 12
    assert max(course) == pytest.approx(28)  # at 3 it was at its coolest
    later = [room_through_the_day(kitchen, 60 * h, read_at_min=720) for h in range(25)]
    assert max(later) == pytest.approx(20)
    assert min(later) == pytest.approx(12)


def test_work_begun_later_in_a_room_that_warms_has_less_time():
    kitchen = Kitchen({"room.c": 26, "room.swing_k": 6, "room.warmest_h": 15})
    plan = station(dough=Dough(2400, 1120, rest=Rest(Place.FRIDGE, 240)))

    def shortest(begins_h):
        found = follow(plan, kitchen, Today(begins_h=begins_h))
        return min(c.lasts_min for c in found.clocks if c.lasts_min is not None)

    assert shortest(9) < shortest(19)


def test_the_yeast_is_counted_on_and_on_until_the_lock_in_and_anew_from_there():
    trace = follow(station(formula=formula()), Kitchen()).trace
    assert len(trace.yeast_pct) == len(trace.minutes)
    locked = next(i for i, c in enumerate(trace.butter_c) if c is not None)
    before, after = trace.yeast_pct[:locked], trace.yeast_pct[locked:]
    assert list(before) == sorted(before)
    assert before[0] == 0 < before[-1]
    assert list(after) == sorted(after)
    assert after[0] < before[-1]


def test_a_dough_without_yeast_uses_none_up():
    assert set(follow(station(), Kitchen()).trace.yeast_pct) == {None}


def day(*doughs, **kitchen):
    stops = schedule(station(turns=turns("letter", "letter", rest=COLD)), Kitchen())
    return crowded(((n, stops) for n in doughs), Kitchen(kitchen))


def test_packages_in_the_fridge_at_once_are_counted_over_all_batches():
    full = day(4, 3, **{"fridge.holds": 6})
    assert [(c.place, c.packages, c.holds) for c in full] == [(Place.FRIDGE, 7, 6)]
    assert "7 packages are in the fridge at once" in full[0].says
    assert day(3, 3, **{"fridge.holds": 6}) == ()


def test_a_place_that_is_not_counted_never_overflows():
    assert day(400) == ()


def test_what_comes_out_makes_room_for_what_goes_in():
    stops = schedule(station(turns=turns("letter", rest=COLD)), Kitchen())
    rests = [s for s in stops if s.rest]
    later = [replace(s, starts_min=s.starts_min + 40) if s in rests else s for s in stops]
    found = crowded(((2, stops), (2, later)), Kitchen({"fridge.holds": 2}))
    assert found == ()


def test_an_order_says_when_its_doughs_crowd_the_fridge():
    plan = station(turns=turns("letter", "letter", rest=COLD))
    wanted = Order("Saturday", (Ordered(0, (Wanted("Croissant", 300, 60),)),))
    doughs = work_order(wanted, {0: plan}, Kitchen()).batches[0].doughs
    assert doughs > 4
    (crowd,) = work_order(wanted, {0: plan}, Kitchen({"fridge.holds": 4})).crowds
    assert (crowd.packages, crowd.holds) == (doughs, 4)
    assert work_order(wanted, {0: plan}, Kitchen({"fridge.holds": doughs})).crowds == ()


def test_a_finish_does_not_shift_who_lies_in_the_fridge_at_once():
    plain = station(turns=turns("letter", rest=COLD))
    baked = replace(plain, finish=starting_finish(Family.CROISSANT))
    kitchen = Kitchen({"fridge.holds": 1})
    for plan in (plain, baked):
        (crowd,) = crowded(((2, schedule(plan, kitchen)),), kitchen)
        assert crowd.packages == 2
    # both are ready at one time, so the one that is baked lies there hours before the other
    assert crowded(((1, schedule(plain, kitchen)), (1, schedule(baked, kitchen))), kitchen) == ()
