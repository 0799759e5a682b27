"""A day goes on with blocks of the cold store before it mixes anything anew, and says what that saves."""

from datetime import UTC, datetime, timedelta

import pytest

from bakehouse.demo.teasel_lock import KITCHEN, MARKET
from lamination.day import (
    FromStore,
    Order,
    OrderAmendment,
    Ordered,
    Shift,
    Wanted,
    amend_order,
    day_of,
    timetable,
    work_order,
)
from lamination.day.amended import OrderChange
from lamination.plan.work import work
from lamination.terms.limits import Faults

SIX = datetime(2027, 6, 19, 6, tzinfo=UTC)
BLOCK = "block-of-the-store"
STORE = {BLOCK: FromStore("C1", MARKET, "final")}
PLANS = {7: MARKET}
HANDS = (Shift("all", SIX - timedelta(hours=40), SIX + timedelta(hours=2), 2),)


def order(*lines):
    return Order("Saturday", lines, SIX, HANDS)


def line(pieces=78, **more):
    return Ordered(7, (Wanted("Croissant", pieces, 57, 8),), **more)


def test_a_day_with_a_block_has_fewer_minutes_of_work_and_says_how_many():
    gives = work(MARKET, KITCHEN).comes_out_g
    with_block = amend_order(
        order(line()), OrderAmendment(OrderChange.BLOCK, index=0, block=BLOCK), PLANS, KITCHEN,
        "Europe/London", STORE,
    )  # fmt: skip
    assert sum(w.pieces for d in with_block.doughs for w in d.products) == 78
    (anew, kept) = with_block.doughs
    assert (anew.block, kept.block) == (None, BLOCK)
    assert kept.products[0].pieces == int(gives * 0.92 / 57)
    minutes = {}
    for name, asked in (("without", order(line())), ("with", with_block)):
        day, numbered = day_of(asked, PLANS, KITCHEN, "Europe/London", store=STORE)
        found = timetable(day, KITCHEN)
        minutes[name] = sum((t.ends - t.starts) / timedelta(minutes=1) for t in found.tasks)
        assert len(numbered) == 2
    worked = work_order(with_block, PLANS, KITCHEN, STORE)
    saved = worked.batches[1].saves_min
    before = work(MARKET, KITCHEN).strip[: MARKET.at("final")]
    assert saved == pytest.approx(sum(s.bench_min for s in before))
    assert minutes["with"] == pytest.approx(minutes["without"] - saved, abs=len(before))


def test_a_block_begins_at_its_step_and_is_mixed_with_nothing():
    day, numbered = day_of(
        order(line(30, block=BLOCK), line(30)), PLANS, KITCHEN, "Europe/London", store=STORE
    )
    found = timetable(day, KITCHEN)
    mine = next(n for n in numbered if n.block == BLOCK)
    assert mine.name == "Saturday market croissant from C1"
    tasks = [t for t in found.tasks if t.dough == mine.dough]
    assert tasks[0].step == "final"
    assert all(t.together is None for t in tasks)


def test_nothing_is_weighed_for_what_was_mixed_long_ago():
    (batch,) = work_order(order(line(30, block=BLOCK)), PLANS, KITCHEN, STORE).batches
    assert (batch.mixings, batch.sums_to_g, batch.goes_on) == (0, 0, "final")
    later = {s.key for s in work(MARKET, KITCHEN).strip[MARKET.at("final") :]}
    assert {s.sheet.stop for s in batch.sheets} <= later
    assert batch.starts_at == SIX - timedelta(
        minutes=work(MARKET, KITCHEN).total_min
        - work(MARKET, KITCHEN).strip[MARKET.at("final")].starts_min
    )


@pytest.mark.parametrize(
    ("asked", "store", "field"),
    [
        (line(30, block=BLOCK), {}, "doughs[0].block"),
        (line(30, block=BLOCK), {BLOCK: FromStore("C1", MARKET, "final", gone="C1 is gone.")},
         "doughs[0].block"),
        (line(300, block=BLOCK), STORE, "doughs[0].products[0].pieces"),
    ],
)  # fmt: skip
def test_a_block_that_cannot_be_is_said_beside_its_line(asked, store, field):
    with pytest.raises(Faults) as wrong:
        work_order(order(asked), PLANS, KITCHEN, store)
    assert wrong.value.faults[0].field == field


@pytest.mark.parametrize(
    ("asked", "store"),
    [
        (order(line()), {}),
        (order(line(), line(20, block=BLOCK)), STORE),
        (order(Ordered(7, (Wanted("Slab", 3, 4000, 8),))), STORE),
    ],
)
def test_a_block_is_in_an_order_once_and_only_where_it_gives_a_piece(asked, store):
    amendment = OrderAmendment(OrderChange.BLOCK, index=0, block=BLOCK)
    with pytest.raises(Faults) as wrong:
        amend_order(asked, amendment, PLANS, KITCHEN, "Europe/London", store)
    assert wrong.value.faults[0].field == "block"


def test_an_order_that_a_block_makes_alone_is_one_line():
    amendment = OrderAmendment(OrderChange.BLOCK, index=0, block=BLOCK)
    made = amend_order(order(line(20)), amendment, PLANS, KITCHEN, "Europe/London", STORE)
    assert [(d.block, d.products[0].pieces) for d in made.doughs] == [(BLOCK, 20)]


def test_a_block_that_is_past_its_date_by_then_is_said_so():
    old = {BLOCK: FromStore("C1", MARKET, "final", SIX - timedelta(days=2))}
    (batch,) = work_order(order(line(30, block=BLOCK)), PLANS, KITCHEN, old).batches
    assert "C1 is to be used by" in batch.said[1]
    good = {BLOCK: FromStore("C1", MARKET, "final", SIX)}
    assert len(work_order(order(line(30, block=BLOCK)), PLANS, KITCHEN, good).batches[0].said) == 1
