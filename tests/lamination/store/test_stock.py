"""Stock against the days ahead; trimmings into the next dough."""

from datetime import UTC, datetime, timedelta

import pytest

from lamination.kitchen.kitchen import Kitchen
from lamination.store import Block, Count, Holds, Need, stand, stock, trimmings_for
from lamination.terms.limits import Faults
from lamination.terms.trade import Family, Place

NOW = datetime(2026, 12, 1, 9, tzinfo=UTC)
KITCHEN = Kitchen()


def need(grams, days, what="flour-strong", order="Saturday"):
    return Need(what, what.title(), grams, NOW + timedelta(days=days), order)


def test_what_runs_short_is_ordered_so_long_before_and_comes_first():
    found = stock(
        [Count("flour-strong", 10_000, NOW), Count("salt", 900, NOW)],
        [need(2_000, 0.1), need(4_000, -1)],
        [need(3_000, 2), need(6_000, 4, order="Market"), need(100, 2, "salt")],
        KITCHEN,
    )
    flour, salt = found
    assert (flour.ingredient, salt.ingredient) == ("flour-strong", "salt")
    # what was weighed before the count is in it already
    assert (flour.there_g, flour.used_g, flour.needed_g, flour.short_g) == (8000, 2000, 9000, 1000)
    assert (flour.short_at, flour.short_for) == (NOW + timedelta(days=4), "Market")
    assert flour.order_by == NOW + timedelta(days=2)
    assert (salt.short_at, salt.order_by, salt.short_g) == (None, None, 0)


def test_what_nobody_counted_is_not_known_to_be_there_nor_short():
    (butter,) = stock([], [], [need(5_000, 1, "butter-table")], KITCHEN)
    assert (butter.there_g, butter.order_by, butter.needed_g) == (None, None, 5000)


def test_a_house_may_order_longer_ahead():
    found = stock([Count("salt", 1, NOW)], [], [need(100, 9, "salt")],
                  KITCHEN.changed({"stock.order_days": 7}))  # fmt: skip
    assert found[0].order_by == NOW + timedelta(days=2)


def test_a_count_needs_its_time_zone_and_no_weight_below_nothing():
    with pytest.raises(Faults):
        Count("salt", 1, NOW.replace(tzinfo=None))
    with pytest.raises(Faults):
        Count("salt", -1, NOW)


def trimmings(n, grams, days, family=Family.CROISSANT, holds=Holds.TRIMMINGS):
    since = NOW - timedelta(days=3)
    block = Block(
        f"block-{n:04}", holds, "Trimmings", grams, Place.FREEZER, since,
        NOW + timedelta(days=days), 24.0, family, butter_g=grams / 5,
    )  # fmt: skip
    return block, stand(block, ())


def test_the_oldest_trimmings_of_the_family_go_in_first_up_to_what_the_dough_takes():
    there = [trimmings(1, 300.0, 5), trimmings(2, 200.0, 1), trimmings(3, 900.0, 0.5, Family.PUFF),
             trimmings(4, 900.0, 0.1, holds=Holds.DOUGH)]  # fmt: skip
    taken = trimmings_for(Family.CROISSANT, 350.0, there)
    assert [(t.block, t.grams) for t in taken] == [("block-0002", 200), ("block-0001", 150)]
    assert [t.butter_g for t in taken] == [40, 30]
    assert trimmings_for(Family.KOUIGN, 350.0, there) == ()
    assert trimmings_for(Family.CROISSANT, 0.0, there) == ()
