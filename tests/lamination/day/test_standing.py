"""Orders that come again: the next day, the hours on the clock, and what is different this time."""

from dataclasses import replace
from datetime import UTC, date, datetime

import pytest

from lamination.day import (
    Different,
    Order,
    Ordered,
    Shift,
    Wanted,
    Weekday,
    changes,
    date_of,
    last_like,
    standing_on,
    stands_next,
)
from lamination.terms import Faults

ZONE = "Europe/London"
READY = datetime(2027, 3, 20, 6, tzinfo=UTC)  # a Saturday, a week before the clocks go forward
HANDS = (
    Shift("early", datetime(2027, 3, 20, 2, tzinfo=UTC), datetime(2027, 3, 20, 8, tzinfo=UTC), 2),
)
MARKET = Order(
    "Market", (Ordered(1, (Wanted("Plain", 96, 60), Wanted("Chocolate", 48, 75))),), READY,
    hands=HANDS, every=(Weekday.SATURDAY,),
)  # fmt: skip
FRIDAY = date(2027, 3, 26)


def test_the_next_day_is_of_its_weekdays_and_not_made_already():
    both = replace(MARKET, every=(Weekday.SATURDAY, Weekday.TUESDAY))
    saturday, tuesday = date(2027, 3, 27), date(2027, 3, 30)
    assert stands_next(both, FRIDAY) == saturday
    assert stands_next(both, FRIDAY, [saturday]) == tuesday
    assert stands_next(both, saturday) == tuesday
    assert stands_next(replace(MARKET, every=()), FRIDAY) is None


def test_nothing_is_left_to_make_when_eight_weeks_are_made():
    made = []
    while (day := stands_next(MARKET, FRIDAY, made)) is not None:
        made.append(day)
    assert len(made) == 8
    assert {d.weekday() for d in made} == {5}


def test_what_it_makes_keeps_its_hours_on_the_clock_and_stands_for_nothing_itself():
    made = standing_on(MARKET, date(2027, 4, 3), ZONE)
    assert made.every == ()
    assert made.name == "Market, 3 April"
    # summer time: an hour earlier by the world's clock, the same on the wall
    assert made.ready_at == datetime(2027, 4, 3, 5, tzinfo=UTC)
    assert made.hands[0].starts == datetime(2027, 4, 3, 1, tzinfo=UTC)
    with pytest.raises(Faults, match="Say when it is wanted"):
        standing_on(replace(MARKET, ready_at=None), date(2027, 4, 3), ZONE)


def test_a_dough_with_an_hour_of_its_own_says_the_day_where_the_order_does_not():
    own = replace(MARKET, ready_at=None, doughs=(replace(MARKET.doughs[0], ready_at=READY),))
    assert date_of(own, ZONE) == date(2027, 3, 20)


def test_the_last_like_it_is_of_the_same_weekday_and_shares_a_product():
    this = standing_on(MARKET, date(2027, 4, 3), ZONE)
    others = {
        1: standing_on(MARKET, date(2027, 3, 20), ZONE),
        2: standing_on(MARKET, date(2027, 3, 27), ZONE),
        3: standing_on(MARKET, date(2027, 3, 30), ZONE),  # later, and a Tuesday
        4: standing_on(MARKET, date(2027, 4, 10), ZONE),  # not before it
        5: MARKET,  # stands, and was never baked itself
        6: replace(standing_on(MARKET, date(2027, 3, 27), ZONE),
                   doughs=(Ordered(9, (Wanted("Puff", 10, 50),)),)),
    }  # fmt: skip
    assert last_like(this, others, ZONE) == 2
    assert last_like(this, {3: others[3], 6: others[6]}, ZONE) == 3
    assert last_like(this, {4: others[4], 5: MARKET}, ZONE) is None


def test_what_is_different_is_said_by_product_hour_and_hand():
    before = standing_on(MARKET, date(2027, 3, 20), ZONE)
    later = standing_on(MARKET, date(2027, 4, 3), ZONE)
    assert changes(later, before, {1: "Croissant dough"}, ZONE) == ()
    doughs = (Ordered(1, (Wanted("Plain", 108, 60), Wanted("Almond", 1, 90))),)
    this = replace(
        later, doughs=doughs, ready_at=datetime(2027, 4, 3, 5, 30, tzinfo=UTC),
        hands=(replace(later.hands[0], count=1), replace(later.hands[0], name="Wren", count=1)),
    )  # fmt: skip
    assert changes(this, before, {1: "Croissant dough"}, ZONE) == (
        Different("Plain", "12 more: 108 pieces"),
        Different("Almond", "new, 1 piece"),
        Different("Chocolate", "not this time; 48 pieces before"),
        Different("Croissant dough", "ready at 06:30; 06:00 before"),
        Different("early", "02:00 to 08:00, 1 hand; 02:00 to 08:00, 2 hands before"),
        Different("Wren", "there this time, 02:00 to 08:00, 1 hand"),
    )


@pytest.mark.parametrize(
    ("name", "count", "who"),
    [
        ("early", 1, ("early",)),
        ("early", 2, ("early 1", "early 2")),
        ("Wren, Tam", 2, ("Wren", "Tam")),
        ("Wren and Tam", 2, ("Wren", "Tam")),
        ("Wren, Tam", 3, ("Wren, Tam 1", "Wren, Tam 2", "Wren, Tam 3")),
        ("Wren, Wren", 2, ("Wren, Wren 1", "Wren, Wren 2")),
    ],
)
def test_as_many_names_as_hands_are_their_names(name, count, who):
    assert replace(HANDS[0], name=name, count=count).who == who
