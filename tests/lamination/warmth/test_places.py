"""Where a dough lies: what is under and over it, the room through the day, and how full the cold is."""

from dataclasses import replace

import numpy as np
import pytest

from lamination.day.capacity import crowded
from lamination.day.order import Order, Ordered, Wanted, work_order
from lamination.heat.body import body, grid
from lamination.heat.conduction import Air, Slab, conduct
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.thermal import constant
from lamination.plan.starts import starting_finish
from lamination.plan.work import work
from lamination.steps.flatten import Flattening
from lamination.terms.rests import Rest, Stay
from lamination.terms.trade import Chilled, Family, Place, Surface
from lamination.warmth.bodies import Today, room_through_the_day
from lamination.warmth.follow import follow
from tests.plans import station, turns

COLD = Stay(Place.FRIDGE, 40)


def resting(stay, **kitchen):
    """The window of the rest after the first turn."""
    plan = station(turns=turns("letter", "letter", rest=Rest((stay,))))
    return next(w for w in follow(plan, Kitchen(kitchen)).windows if w.stop == "turn-1")


def test_a_cold_tray_or_marble_cools_faster_than_the_shelf_and_ice_on_top_faster_still():
    cold = {"chilled": Chilled.FRIDGE}
    shelf, tray, marble, iced = (
        resting(replace(COLD, **how)).butter_c
        for how in (
            {},
            {"on": Surface.TRAY, **cold},
            {"on": Surface.MARBLE, **cold},
            {"on": Surface.TRAY, "iced": True, **cold},
        )
    )
    assert marble < shelf
    assert tray < shelf + 0.2
    assert iced < tray - 0.5


def test_a_slab_of_marble_from_the_room_holds_the_cold_off():
    warm = resting(replace(COLD, on=Surface.MARBLE)).butter_c
    assert warm > resting(replace(COLD, on=Surface.MARBLE, chilled=Chilled.FRIDGE)).butter_c + 1


def test_ice_on_top_cools_on_the_bench_too():
    bench = Stay(Place.BENCH, 30)
    assert resting(replace(bench, iced=True)).butter_c < resting(bench).butter_c - 2


def test_two_bodies_share_their_warmth_as_their_masses_say():
    """A slab of dough on a slab of stone, nothing else: they meet where their heat says."""
    dough, stone = constant(0.38, 2700), (0.02, 2.5, 2600.0, 850.0)
    start = body([(False, 20)], (dough, 1080), (dough, 940), 18.0)
    sealed = Air(10.0, 1e-6)
    thickness, k, rho, c = stone
    slab = Slab(thickness, k, thickness * rho * c, (4.0,) * 8, 200.0, sealed)
    end = conduct(start, slab, sealed, 6 * 60).end
    held = (0.02 * 1080 * 2700, thickness * rho * c)
    meets = (held[0] * 18 + held[1] * 4) / sum(held)
    assert end.middle_c == pytest.approx(meets, abs=0.1)


def two_bodies(minutes, dough_c, stone_c, contact, over, under):
    """Dough on stone by explicit differences on a fine even grid: another way to the same physics."""
    # mm, cells, W/(m K), kg/m3, J/(kg K)
    (a_mm, na, ka, ra, ca), (b_mm, nb, kb, rb, cb) = (20, 80, 0.38, 1080, 2700), (
        20, 40, 2.5, 2700, 880,
    )  # fmt: skip
    da, db = a_mm / 1000 / na, b_mm / 1000 / nb
    t = np.concatenate((np.full(nb, stone_c, float), np.full(na, dough_c, float)))
    held = np.concatenate((np.full(nb, db * rb * cb), np.full(na, da * ra * ca)))
    half = np.concatenate((np.full(nb, db / kb / 2), np.full(na, da / ka / 2)))
    between = half[:-1] + half[1:]
    between[nb - 1] += 1 / contact
    low, high = 1 / (1 / under[1] + half[0]), 1 / (1 / over[1] + half[-1])
    step = 0.02
    for _ in range(round(minutes * 60 / step)):
        flow = (t[:-1] - t[1:]) / between
        gain = np.concatenate(([low * (under[0] - t[0])], flow)) - np.concatenate(
            (flow, [high * (t[-1] - over[0])])
        )
        t = t + step * gain / held
    at = (np.arange(na) + 0.5) * da
    return at, t[nb:]


@pytest.mark.parametrize("minutes", [2, 10])
@pytest.mark.parametrize(("dough_c", "stone_c"), [(6, 21), (18, 4)])
def test_dough_on_a_slab_agrees_with_another_way_of_working_it(minutes, dough_c, stone_c):
    over, under = (22.0, 8.0), (20.0, 10.0)
    at, there = two_bodies(minutes, dough_c, stone_c, 60.0, over, under)
    dough = constant(0.38, 2700)
    start = body([(False, 20)], (dough, 1080), (dough, 940), float(dough_c))
    slab = Slab(0.02, 2.5, 0.02 * 2700 * 880, (float(stone_c),), 60.0, Air(*under))
    end = conduct(start, slab, Air(*over), minutes).end
    lines = grid(0.02, len(end.t_c))
    middles = (lines[1:] + lines[:-1]) / 2
    assert end.t_c == pytest.approx(np.interp(middles, at, there), abs=0.05)


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
    plan = station(flatten=Flattening(rest=Rest.at(Place.FRIDGE, 240)))

    def shortest(begins_h):
        found = follow(plan, kitchen, Today(begins_h=begins_h))
        return min(c.lasts_min for c in found.clocks if c.lasts_min is not None)

    assert shortest(9) < shortest(19)


TWO_RESTS = station(turns=turns("letter", "letter", rest=Rest((COLD,))))


def placed(doughs, plan, later_min=0.0):
    """So many doughs of a plan, to be cut so much later than the others."""
    worked = work(plan)
    return doughs, worked.strip, worked.facts.to_cut_min - later_min


def day(*doughs, **kitchen):
    return crowded((placed(n, TWO_RESTS) for n in doughs), Kitchen(kitchen))


def test_packages_in_the_fridge_at_once_are_counted_over_all_batches():
    full = day(4, 3, **{"fridge.holds": 6})
    assert [(c.place, c.packages, c.holds) for c in full] == [(Place.FRIDGE, 7, 6)]
    assert "The fridge holds 6 packages; 1 h 55 before everything is ready, 7 would" in full[0].says
    assert day(3, 3, **{"fridge.holds": 6}) == ()


def test_a_place_that_is_not_counted_never_overflows():
    assert day(400) == ()


def test_what_comes_out_makes_room_for_what_goes_in():
    plan = station(turns=turns("letter", rest=Rest((COLD,))))
    one = Kitchen({"fridge.holds": 2})
    assert crowded((placed(2, plan), placed(2, plan, later_min=45)), one) == ()
    assert crowded((placed(2, plan), placed(2, plan, later_min=5)), one) != ()


def test_an_order_says_when_its_doughs_crowd_the_fridge():
    plan = station(turns=turns("letter", "letter", rest=Rest((COLD,))))
    wanted = Order("Saturday", (Ordered(0, (Wanted("Croissant", 300, 60),)),))
    doughs = work_order(wanted, {0: plan}, Kitchen()).batches[0].doughs
    assert doughs > 4
    (crowd,) = work_order(wanted, {0: plan}, Kitchen({"fridge.holds": 4})).crowds
    assert (crowd.packages, crowd.holds) == (doughs, 4)
    assert work_order(wanted, {0: plan}, Kitchen({"fridge.holds": doughs})).crowds == ()


def test_a_finish_does_not_shift_who_lies_in_the_fridge_at_once():
    bare = station(turns=turns("letter", rest=Rest((COLD,))))
    baked = station(
        turns=turns("letter", rest=Rest((COLD,))), finish=starting_finish(Family.CROISSANT)
    )
    kitchen = Kitchen({"fridge.holds": 1})
    for plan in (bare, baked):
        (crowd,) = crowded((placed(2, plan),), kitchen)
        assert crowd.packages == 2
    # both are cut at one time, so they lie there together
    (crowd,) = crowded((placed(1, bare), placed(1, baked)), kitchen)
    assert crowd.packages == 2
