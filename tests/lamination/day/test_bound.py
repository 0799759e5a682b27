"""The bound: never above what a day can cost, at it where nothing is scarce, and raised where it is."""

import itertools
from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.day import Day, Dough, Shift
from lamination.day.bound import Bounding
from lamination.day.busy import Busy
from lamination.day.loom import Prices
from lamination.day.search import Search
from lamination.day.threads import Gap, Job, Thread
from lamination.kitchen import Kitchen
from lamination.plan import starting_plan
from lamination.steps import Chapter
from lamination.terms import Family, Place

BEGINS = datetime(2027, 3, 26, 4, tzinfo=UTC)
LONG = 90
PRICES = Prices(late=60, outside=12, early=0.2, early_from=5, linger=0.02)
PLAN = starting_plan("Any", Family.CROISSANT, 2000, Kitchen())


def busy_for(hands=1):
    at = lambda m: BEGINS + timedelta(minutes=m)  # noqa: E731
    day = Day(
        "short", BEGINS, at(LONG), (Shift("all", BEGINS, at(LONG), hands),),
        (Dough("1", PLAN, at(LONG)),),
    )  # fmt: skip
    return Busy(day, Kitchen())


def thread(name, works, rest, ready, ripe=None):
    jobs = tuple(Job(f"s{k}", f"S{k}", d, Chapter.TURNS, None, True) for k, d in enumerate(works))
    gap = Gap("s0", Place.FRIDGE, rest, rest - 4, rest - 2, rest + 2, rest + 4, 1, True,
              ripens=ripe is not None)  # fmt: skip
    return Thread(name, name, jobs, (gap,), ready, ripe=ripe)


def alone(thread):
    """What a thread costs where nothing else lies."""
    return Search([thread], busy_for(), PRICES).put(thread.dough)


def bound_of(threads, hands, tries, known):
    """The bound at no prices, and after so many tries: the same on every machine."""
    bounding = Bounding(busy_for(hands), PRICES)
    bounding.begin(threads)
    first = bounding.least
    asked = itertools.count()
    bounding.better(known, float("inf"), lambda: next(asked) >= tries)
    return first, bounding.least


def cheapest(threads, hands):
    """The best of all orders of putting them in, each where it costs least: an upper end."""
    best = float("inf")
    for order in itertools.permutations([t.dough for t in threads]):
        search = Search(threads, busy_for(hands), PRICES)
        for dough in order:
            search.put(dough)
        best = min(best, search.cost)
    return best


doughs = st.lists(
    st.tuples(st.integers(3, 12), st.integers(3, 12), st.integers(6, 20), st.integers(30, 80)),
    min_size=1, max_size=4,
)  # fmt: skip


@given(doughs, st.integers(1, 2))
def test_no_day_costs_less_than_the_bound(asked, hands):
    threads = [thread(str(i), (a, b), rest, at) for i, (a, b, rest, at) in enumerate(asked)]
    cost = cheapest(threads, hands)
    first, raised = bound_of(threads, hands, 12, cost)
    assert first <= raised + 1e-9
    assert raised <= cost + 1e-6


def test_a_dough_alone_costs_its_bound():
    late = thread("1", (10, 10), 12, 20)  # too early an hour to be in time
    cost = alone(late)
    assert cost > 60
    assert bound_of([late], 1, 0, cost)[0] == pytest.approx(cost)


def test_more_work_than_there_are_hours_raises_it_above_what_each_costs_alone():
    threads = [thread(str(i), (10, 10), 12, 40) for i in range(4)]
    each = sum(map(alone, threads))
    cost = cheapest(threads, 1)
    first, raised = bound_of(threads, 1, 150, cost)
    assert first == pytest.approx(each)
    assert raised > first + 0.5 * (cost - first)
    assert raised <= cost


def test_ripeness_that_cannot_be_had_is_in_the_bound():
    fresh = thread("1", (5, 5), 30, 50, ripe=(10, 20))
    cost = alone(fresh)
    least, _ = bound_of([fresh], 1, 0, cost)
    assert 0 < least <= cost + 1e-9
    assert least > alone(thread("1", (5, 5), 30, 50))
