"""What follows in an order when its day or the plan of a dough is another."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from lamination.day import Order, OrderAmendment, Ordered, Quiet, Shift, Wanted, amend_order
from lamination.day.amended import OrderChange
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.work import work
from lamination.terms.limits import Faults
from tests.plans import station

ZONE, KITCHEN = "Europe/London", Kitchen()
READY = datetime(2027, 3, 20, 6, tzinfo=UTC)  # a Saturday, a week before the clocks go forward
EARLY = Shift("early", READY - timedelta(hours=4), READY + timedelta(hours=2), 2)
SIESTA = Quiet(READY - timedelta(hours=12), READY - timedelta(hours=6))
ORDER = Order(
    "Market", (Ordered(1, (Wanted("Plain", 96, 60, 5),)),), READY, (EARLY,), quiet=(SIESTA,)
)
PLANS = {1: station(), 2: replace(station(), name="Boat squares")}


def amended(change, order=ORDER, **more):
    return amend_order(order, OrderAmendment(change, **more), PLANS, KITCHEN, ZONE)


def test_on_another_day_who_is_there_comes_along_at_the_hours_of_the_clock():
    week_later = datetime(2027, 3, 27, 6, tzinfo=UTC)
    moved = amended(OrderChange.READY_AT, at=week_later)
    assert moved.ready_at == week_later
    assert [s.starts for s in moved.hands] == [EARLY.starts + timedelta(days=7)]
    assert moved.quiet[0].ends == SIESTA.ends + timedelta(days=7)
    # the day after, the clocks have gone forward: three o'clock is an hour sooner
    after = amended(OrderChange.READY_AT, at=datetime(2027, 3, 28, 5, tzinfo=UTC))
    assert after.hands[0].starts == EARLY.starts + timedelta(days=8, hours=-1)


def test_another_hour_of_the_same_day_moves_nobody():
    later = amended(OrderChange.READY_AT, at=READY + timedelta(minutes=30))
    assert (later.hands, later.quiet) == (ORDER.hands, ORDER.quiet)
    assert amended(OrderChange.READY_AT, at=None).ready_at is None


def test_another_plan_brings_its_own_name_and_weight_for_as_many_pieces():
    two = replace(ORDER.doughs[0], products=(*ORDER.doughs[0].products, Wanted("Small", 24, 45)))
    other = amended(OrderChange.PLAN, replace(ORDER, doughs=(two,)), index=0, plan_id=2)
    (made,) = other.doughs[0].products
    assert (made.product, made.pieces, made.loss_pct) == ("Boat squares", 120, 5)
    assert made.raw_g == pytest.approx(work(PLANS[2], KITCHEN).cut.piece_g, abs=0.5)


@pytest.mark.parametrize(
    ("more", "field"),
    [({"index": 3, "plan_id": 2}, "index"), ({"index": 0, "plan_id": 9}, "plan_id")],
)
def test_what_is_not_there_is_refused_at_its_field(more, field):
    with pytest.raises(Faults) as why:
        amended(OrderChange.PLAN, **more)
    assert [f.field for f in why.value.faults] == [field]


def test_a_change_without_what_it_needs_is_refused():
    with pytest.raises(Faults) as why:
        OrderAmendment(OrderChange.PLAN, index=0)
    assert [f.field for f in why.value.faults] == ["plan_id"]
    with pytest.raises(Faults) as why:
        OrderAmendment(OrderChange.READY_AT, at=datetime(2027, 3, 20))
    assert [f.field for f in why.value.faults] == ["at"]
