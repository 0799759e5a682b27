"""One thread put into a day is put where it costs least: held against trying every minute."""

import itertools
import time
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from lamination.day import Day, Dough, Shift
from lamination.day.busy import TAKEN, Busy, Placed
from lamination.day.placing import Prices, Pull, place, ready_cost
from lamination.day.search import Search, own_cost
from lamination.day.threads import Gap, Job, Thread
from lamination.kitchen import Kitchen
from lamination.plan import starting_plan
from lamination.steps import Chapter
from lamination.terms import Family, Machine, Place

BEGINS = datetime(2027, 3, 26, 4, tzinfo=UTC)
PRICES = Prices(late=60, outside=12, early=0.2, early_from=5, linger=0.02)
PLAN = starting_plan("Any", Family.CROISSANT, 2000, Kitchen())
LONG = 34


def busy_for(hands=1, minutes=LONG, kitchen=None):
    at = lambda m: BEGINS + timedelta(minutes=m)  # noqa: E731
    day = Day(
        "short", BEGINS, at(minutes), (Shift("all", BEGINS, at(minutes), hands),),
        (Dough("1", PLAN, at(minutes)),),
    )  # fmt: skip
    return Busy(day, kitchen or Kitchen({"fridge.holds": 1}))


def gap(step, chosen, slack, bears=4, **more):
    return Gap(
        step, Place.FRIDGE, chosen, max(chosen - slack - bears, 0), max(chosen - slack, 0),
        chosen + slack, chosen + slack + bears, 1, True, **more,
    )  # fmt: skip


gaps = st.tuples(st.integers(0, 8), st.integers(0, 3))
taken = st.lists(st.tuples(st.integers(0, LONG - 4), st.integers(1, 4)), max_size=4)


@given(st.lists(st.integers(1, 4), min_size=3, max_size=3), st.tuples(gaps, gaps),
       st.integers(10, LONG), taken, taken)  # fmt: skip
def test_no_other_minute_is_cheaper(lengths, rests, ready, by_others, in_fridge):
    busy = busy_for()
    for start, long in by_others:
        busy.hands[0].take(start, start + long, 1)
    for start, long in in_fridge:
        busy.places[Place.FRIDGE].take(start, start + long, 1)
    jobs = tuple(
        Job(f"s{k}", f"S{k}", d, Chapter.TURNS, Machine.MIXER if k == 0 else None, True)
        for k, d in enumerate(lengths)
    )
    thread = Thread("1", "x", jobs, tuple(gap(f"s{k}", *r) for k, r in enumerate(rests)), ready)
    found = place(thread, busy, PRICES)

    def whole(starts):
        cost = float(ready_cost(thread, busy.minutes, PRICES)[starts[-1] + lengths[-1]])
        for k, g in enumerate(thread.gaps):
            rest = starts[k + 1] - starts[k] - lengths[k]
            cost += g.price(rest, PRICES.outside, PRICES.linger) if rest >= 0 else np.inf
        before = busy.missing_cost()
        if cost == np.inf:
            return cost
        placed = Placed(starts, (0, 0, 0), 0.0)
        busy.put(thread, placed)
        cost += busy.missing_cost() - before
        busy.put(thread, placed, -1)
        return cost

    a, b, c = lengths
    least = min(
        whole((i, j, k))
        for i, j, k in itertools.product(range(LONG - a), range(LONG - b), range(LONG - c + 1))
        if i + a <= j and j + b <= k
    )
    assert whole(found.starts) <= least + 1e-6
    assert abs(found.cost - whole(found.starts)) < 1e-6


def test_a_part_in_the_freezer_is_never_cut_short():
    first = gap("s0", 10, 2, first=(Place.FREEZER, 12))
    assert first.price(11, 12, 0.02) == np.inf
    assert np.isfinite(first.price(12, 12, 0.02))


def test_a_step_that_was_held_begins_at_its_minute_unless_that_cannot_be():
    jobs = tuple(Job(f"s{k}", f"S{k}", 3, Chapter.TURNS, None, True) for k in range(2))
    thread = Thread("1", "x", jobs, (gap("s0", 5, 2),), 30, held={"s1": 12})
    assert place(thread, busy_for(), PRICES).starts[1] == 12
    # nobody is there at that minute
    taken_then = busy_for()
    taken_then.hands[0].take(10, 16, 1)
    assert place(thread, taken_then, PRICES).starts[1] not in range(10, 16)


def test_what_is_due_soon_stays_where_it_is():
    jobs = (Job("s0", "S0", 3, Chapter.TURNS, None, True),)
    thread = Thread("1", "x", jobs, (), 30)
    assert place(thread, busy_for(), PRICES).starts[0] >= 20
    calm = {"s0": Pull(4, 400.0, 4.0)}
    assert place(thread, busy_for(), PRICES, pulls=calm).starts[0] == 4


def test_too_much_ripening_in_all_shortens_the_rests_together():
    jobs = tuple(Job(f"s{k}", f"S{k}", 1, Chapter.TURNS, None, True) for k in range(3))
    free = replace(gap("s0", 10, 0, 0), good_until=None, possible_until=None, ripens=True)
    two = (free, replace(free, step="s1"))
    # rests of ten minutes each are planned, and both may be longer, but not both together
    thread = Thread("1", "x", jobs, two, 33, ripe=(24, 26), held={"s0": 0})
    prices = replace(PRICES, linger=0.001)
    starts = place(thread, busy_for(kitchen=Kitchen()), prices).starts
    assert thread.ripening(starts) <= 24
    alone = replace(thread, ripe=None)
    assert alone.ripening(place(alone, busy_for(kitchen=Kitchen()), prices).starts) > 20


def test_what_the_search_says_a_day_costs_is_what_it_costs():
    busy = busy_for(hands=2)
    jobs = tuple(Job(f"s{k}", f"S{k}", 4, Chapter.TURNS, None, True) for k in range(2))
    threads = [Thread(str(n), "x", jobs, (gap("s0", 5, 2),), 30) for n in range(4)]
    search = Search(threads, busy, PRICES)
    search.begin()
    first = search.cost
    assert search.improve(float("inf"), rounds=60) == 60
    assert search.cost <= first
    again = sum(own_cost(search, d) for d in search.placed) + busy.missing_cost()
    assert abs(search.cost - again) < 1e-9
    for dough in [*search.placed]:
        search.take(dough)
    assert busy.missing_cost() == 0
    assert not any(line.taken.any() for line in (*busy.hands, *busy.places.values()))


def test_a_night_goes_into_the_rest_that_is_long_anyway():
    """Both rests could be longer by ten hours; the short one is the one that keeps its minutes."""
    short = replace(gap("s0", 10, 0, 0), good_until=None, possible_until=None)
    long = replace(gap("s1", 100, 0, 0), good_until=None, possible_until=None)
    jobs = tuple(Job(f"s{k}", f"S{k}", 5, Chapter.TURNS, None, True) for k in range(3))
    thread = Thread("1", "x", jobs, (short, long), 700, held={"s0": 0, "s2": 690})
    starts = place(thread, busy_for(minutes=720, kitchen=Kitchen()), PRICES).starts
    assert (starts[0], starts[2]) == (0, 690)
    assert starts[1] == 15


def test_who_wants_the_same_minutes_negotiates_until_nobody_is_in_the_way():
    busy = busy_for(hands=1, minutes=60)
    jobs = tuple(Job(f"s{k}", f"S{k}", 4, Chapter.TURNS, None, True) for k in range(2))
    threads = [Thread(str(n), "x", jobs, (gap("s0", 9, 6, 20),), 40) for n in range(4)]
    search = Search(threads, busy, PRICES)
    search.begin()
    search.negotiate(float("inf"))
    assert busy.short_min == 0
    # afterwards everything costs what it did
    assert busy.taken == TAKEN
    assert not any(line.sought is not None for line in busy.hands)
    again = sum(own_cost(search, d) for d in search.placed)
    assert abs(search.cost - again) < 1e-9


def test_one_that_mixes_for_others_gives_way_to_what_suits_them():
    """The first mixes for the second, which may not rest long: the mixing has to wait for it."""
    busy = busy_for(hands=1, minutes=200)
    mix, rest = Job("mix", "Mix", 5, Chapter.BEFORE, None, True), gap("mix", 100, 90, 40)
    short = gap("mix", 10, 5, 5)
    turn = Job("turn", "Turn", 5, Chapter.TURNS, None, True)
    leader = Thread("1", "x", (mix, turn), (rest,), 110, trunk=1)
    follower = Thread("2", "x", (mix, turn), (short,), 150, trunk=1, leader="1")
    search = Search([leader, follower], busy, PRICES)
    search.begin()
    alone = search.cost
    search.explore(time.monotonic() + 0.5)
    assert search.cost < 0.7 * alone
    assert busy.short_min == 0
