"""When a block is to be moved: against an integration of another kind, and in every case that cannot be."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np
import pytest

from lamination.kitchen.kitchen import Kitchen
from lamination.plan import walk
from lamination.steps import lying
from lamination.store import Thaw, thaw
from lamination.terms.limits import Faults
from lamination.terms.trade import Place
from lamination.warmth import body_before
from tests.lamination.integrated import independent
from tests.plans import formula, station

FIVE = datetime(2026, 12, 5, 5, tzinfo=UTC)
KITCHEN = Kitchen()


def asked(**more):
    of = {
        "plan": station(formula=formula()), "mass_g": 3050.0, "wanted_at": FIVE, "by": Place.FRIDGE,
        "freezer_c": -18.0, "fridge_c": 4.0, "room_c": 21.0,
    }  # fmt: skip
    return Thaw(**(of | more))


def at(found, moment):
    """The middle at a moment, between the points of its course."""
    minutes = [(w.at - found.move_at) / timedelta(minutes=1) for w in found.course]
    middles = [w.middle_c for w in found.course]
    return float(np.interp((moment - found.move_at) / timedelta(minutes=1), minutes, middles))


def test_at_five_its_middle_is_halfway_through_its_range():
    found = thaw(asked(), KITCHEN)
    assert at(found, FIVE) == pytest.approx(1.5, abs=0.03)
    starts, ends = found.ready
    assert starts < FIVE < ends
    assert at(found, starts) == pytest.approx(0, abs=0.05)
    assert at(found, ends) == pytest.approx(3, abs=0.05)
    assert found.course[0].middle_c == pytest.approx(-18)


def test_its_way_is_that_of_an_independent_integration():
    found = thaw(asked(), KITCHEN)
    plan = asked().plan
    cold = KITCHEN.changed({"freezer.c": -18.0, "room.swing_k": 0.0})
    body = body_before(plan, cold, "final")
    frozen = body.at_warmth(np.full_like(body.t_c, -18.0))
    film = 1 / (1 / KITCHEN["fridge.film"] + 1 / KITCHEN["wrap.film"])
    lasts = (found.ready[1] - found.move_at) / timedelta(minutes=1)
    theirs = independent(frozen, film, [(lasts, 4, 4)])
    ours = [at(found, found.move_at + timedelta(minutes=lasts * k / 12)) for k in range(1, 13)]
    assert np.abs(np.array(ours) - theirs).max() < 0.25


@pytest.mark.parametrize(
    ("warmer", "later"),
    [({"fridge_c": 6.0}, True), ({"freezer_c": -25.0}, False), ({"by": Place.BENCH}, True)],
)
def test_where_it_is_warmer_it_is_moved_later_and_out_of_a_colder_freezer_sooner(warmer, later):
    usual, other = thaw(asked(), KITCHEN).move_at, thaw(asked(**warmer), KITCHEN).move_at
    assert (other > usual) is later


def test_on_the_bench_its_face_goes_ahead_of_its_middle():
    found = thaw(asked(by=Place.BENCH), KITCHEN)
    assert found.course[-1].face_c > found.course[-1].middle_c + 1


def test_in_a_fridge_of_two_degrees_it_is_never_too_warm_and_waits_for_half_of_that():
    found = thaw(asked(fridge_c=2.0), KITCHEN)
    assert found.ready[1] is None
    assert at(found, FIVE) == pytest.approx(1, abs=0.03)


def test_a_thicker_package_takes_longer_and_a_part_of_it_is_as_thick_and_shorter():
    before_turn = thaw(asked(before_step="turn-1"), KITCHEN)
    before_last = thaw(asked(), KITCHEN)
    thick = [f.size_mm[2] for f in (before_turn, before_last)]
    order = [f.move_at for f in (before_turn, before_last)]
    assert thick[0] != thick[1]
    assert (thick[0] > thick[1]) is (order[0] < order[1])
    half = thaw(asked(mass_g=1525.0), KITCHEN)
    assert half.size_mm[1:] == before_last.size_mm[1:]
    assert half.size_mm[0] == pytest.approx(before_last.size_mm[0] / 2, abs=0.1)
    assert half.move_at == before_last.move_at
    plan = asked().plan
    made = walk(plan, KITCHEN).made[plan.at("final") - 1]
    assert before_last.size_mm[0] == pytest.approx(made.lies.size.length_mm, abs=0.1)
    assert lying(made.lies, walk(plan, KITCHEN).recipe)[0] == pytest.approx(3050, abs=0.1)


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ({"freezer_c": 1.0}, "freezer_c"),
        ({"fridge_c": -1.0}, "fridge_c"),
        ({"by": Place.PROOFER}, "by"),
        ({"before_step": "nowhere"}, "before_step"),
        ({"before_step": asked().plan.steps[0].id}, "before_step"),
        ({"wanted_at": FIVE.replace(tzinfo=None)}, "wanted_at"),
        ({"mass_g": 0.0}, "mass_g"),
    ],
)
def test_what_cannot_be_is_said_beside_its_field(wrong, field):
    with pytest.raises(Faults) as found:
        thaw(asked(**wrong), KITCHEN)
    assert found.value.faults[0].field == field


def test_the_range_is_a_row_of_the_kitchen():
    colder = KITCHEN.changed({"keep.thawed_from_c": -1.0, "keep.thawed_to_c": 1.0})
    found = thaw(asked(), colder)
    assert found.ready_c == (-1, 1)
    assert at(found, FIVE) == pytest.approx(0, abs=0.05)
    assert found.move_at > thaw(replace(asked()), KITCHEN).move_at
