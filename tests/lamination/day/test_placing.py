"""One thread put into a day is put where it costs least: held against trying every minute."""

import itertools
import time
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from lamination.day import Day, Dough, Shift, moves
from lamination.day.abreast import side_by_side
from lamination.day.busy import TAKEN, Busy, spans
from lamination.day.loom import Prices, Pull
from lamination.day.search import Search
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


def place(thread, busy, pulls=None, prices=PRICES):
    """When the tasks of a thread begin where it costs least."""
    search = Search([thread], busy, prices, pulls={thread.dough: pulls or {}})
    search.put(thread.dough)
    return search.placed[thread.dough].starts


def more(line, each):
    """What it costs to take one more of a line, summed from the first minute: said plainly."""
    short = [
        each * (max(taken + 1 - there, 0) - max(taken - there, 0))
        for there, taken in zip(line.there.tolist(), line.taken.tolist(), strict=True)
    ]
    return [0.0, *itertools.accumulate(short)]


@given(st.lists(st.integers(1, 4), min_size=3, max_size=3), st.tuples(gaps, gaps),
       st.integers(10, LONG), taken, taken)  # fmt: skip
def test_no_other_minute_is_cheaper(lengths, rests, ready, by_others, in_fridge):
    busy = busy_for()
    for start, long in by_others:
        busy.hands[0].taken[start : start + long] += 1
    for start, long in in_fridge:
        busy.places[Place.FRIDGE].taken[start : start + long] += 1
    jobs = tuple(
        Job(f"s{k}", f"S{k}", d, Chapter.TURNS, Machine.MIXER if k == 0 else None, True)
        for k, d in enumerate(lengths)
    )
    thread = Thread("1", "x", jobs, tuple(gap(f"s{k}", *r) for k, r in enumerate(rests)), ready)
    hands, fridge = more(busy.hands[0], TAKEN), more(busy.places[Place.FRIDGE], 30)

    def whole(starts):
        end = starts[-1] + lengths[-1]
        cost = 60 * max(end - ready, 0) + 0.2 * max(ready - 5 - end, 0)
        for start, long in zip(starts, lengths, strict=True):
            cost += hands[start + long] - hands[start]
        for k, g in enumerate(thread.gaps):
            ended = starts[k] + lengths[k]
            cost += g.price(starts[k + 1] - ended, PRICES.outside, PRICES.linger)
            cost += fridge[starts[k + 1]] - fridge[ended]
        return cost

    a, b, c = lengths
    least = min(
        whole((i, j, k))
        for i, j, k in itertools.product(range(LONG - a), range(LONG - b), range(LONG - c + 1))
        if i + a <= j and j + b <= k
    )
    search = Search([thread], busy, PRICES)
    before = search.cost
    cost = search.put("1") - before
    assert whole(search.placed["1"].starts) <= least + 1e-6
    assert abs(cost - least) < 1e-6


def test_a_part_in_the_freezer_is_never_cut_short():
    first = gap("s0", 10, 2, before=((Place.FREEZER, 12),))
    assert first.price(11, 12, 0.02) == np.inf
    assert np.isfinite(first.price(12, 12, 0.02))


def test_a_rest_of_three_places_lies_in_each_of_them_in_turn():
    rest = gap(
        "s0", 10, 2, before=((Place.FREEZER, 12), (Place.BENCH, 3)), after=((Place.BENCH, 5),)
    )
    assert list(spans(rest, 100, 160)) == [
        (Place.FREEZER, 100, 112), (Place.BENCH, 112, 115), (rest.place, 115, 155),
        (Place.BENCH, 155, 160),
    ]  # fmt: skip
    # what is shorter than its other stays ends in the last that there is time for
    assert list(spans(rest, 100, 114)) == [(Place.FREEZER, 100, 112), (Place.BENCH, 112, 114)]


def test_a_step_that_was_held_begins_at_its_minute_unless_that_cannot_be():
    jobs = tuple(Job(f"s{k}", f"S{k}", 3, Chapter.TURNS, None, True) for k in range(2))
    thread = Thread("1", "x", jobs, (gap("s0", 5, 2),), 30, held={"s1": 12})
    assert place(thread, busy_for())[1] == 12
    # nobody is there at that minute
    taken_then = busy_for()
    taken_then.hands[0].taken[10:16] += 1
    assert place(thread, taken_then)[1] not in range(10, 16)


def test_what_is_due_soon_stays_where_it_is():
    jobs = (Job("s0", "S0", 3, Chapter.TURNS, None, True),)
    thread = Thread("1", "x", jobs, (), 30)
    assert place(thread, busy_for())[0] >= 20
    calm = {"s0": Pull(4, 400.0, 4.0)}
    assert place(thread, busy_for(), calm)[0] == 4


def test_too_much_ripening_in_all_shortens_the_rests_together():
    jobs = tuple(Job(f"s{k}", f"S{k}", 1, Chapter.TURNS, None, True) for k in range(3))
    free = replace(gap("s0", 10, 0, 0), good_until=None, possible_until=None, ripens=True)
    two = (free, replace(free, step="s1"))
    # rests of ten minutes each are planned, and both may be longer, but not both together
    thread = Thread("1", "x", jobs, two, 33, ripe=(24, 26), held={"s0": 0})
    prices = replace(PRICES, linger=0.001)
    starts = place(thread, busy_for(kitchen=Kitchen()), prices=prices)
    assert thread.ripening(starts) <= 24
    alone = replace(thread, ripe=None)
    assert alone.ripening(place(alone, busy_for(kitchen=Kitchen()), prices=prices)) > 20


def test_what_the_search_says_a_day_costs_is_what_it_costs():
    busy = busy_for(hands=2)
    jobs = tuple(Job(f"s{k}", f"S{k}", 4, Chapter.TURNS, None, True) for k in range(2))
    threads = [Thread(str(n), "x", jobs, (gap("s0", 5, 2),), 30) for n in range(4)]
    search = Search(threads, busy, PRICES)
    search.begin()
    first = search.cost
    assert search.improve(float("inf"), rounds=60) == 60
    assert search.cost <= first
    # taken out and laid again it costs the same; and when all are out nothing is taken
    cost, kept = search.cost, search.as_it_lies()
    for dough in search.placed:
        search.take(dough)
    assert search.cost == 0
    assert not busy.taken.any()
    search.restore(kept)
    assert abs(search.cost - cost) < 1e-9


def crowded_day(doughs=5):
    jobs = tuple(Job(f"s{k}", f"S{k}", 4, Chapter.TURNS, None, True) for k in range(2))
    return [Thread(str(n), "x", jobs, (gap("s0", 5, 4),), 30) for n in range(doughs)]


@given(st.floats(0, 1.2), st.integers(0, 9))
def test_what_would_cost_too_much_is_left_as_it_was(share, seed):
    busy = busy_for(hands=2)
    search = Search(crowded_day(), busy, PRICES, seed=seed)
    search.begin()
    cost, kept, taken = search.cost, search.as_it_lies(), busy.taken.copy()
    out = search._shuffled(["0", "1", "3"])
    most = share * cost
    found = search.put(*out, most=most)
    if found == float("inf"):
        assert all((a == b).all() for a, b in zip(kept, search.as_it_lies(), strict=True))
        assert (busy.taken == taken).all()
        assert search.cost == cost
    else:
        assert found <= most
        assert abs(search.cost - found) < 1e-9


def test_a_part_of_a_thread_goes_elsewhere_and_the_rest_stays():
    jobs = tuple(Job(f"s{k}", f"S{k}", 3, Chapter.TURNS, None, True) for k in range(4))
    thread = Thread("1", "x", jobs, tuple(gap(f"s{k}", 3, 2) for k in range(3)), 30)
    busy = busy_for()
    search = Search([thread], busy, PRICES)
    cost = search.put("1")
    starts = search.placed["1"].starts
    # somebody comes into the way of the second task
    moves.take(search.loom, 0, starts[1], starts[1] + 2, 1)
    assert search.cost > cost + TAKEN
    after = search.put("1", parts={"1": (1, 2)})
    now = search.placed["1"].starts
    assert (now[0], now[3]) == (starts[0], starts[3])
    assert now[1] != starts[1]
    assert after < TAKEN


def test_a_part_of_a_thread_that_gets_too_ripe_behind_it_is_not_put_worse():
    """The last rest is much too long and stays: a shorter one before it would cost more than it spares."""
    jobs = tuple(Job(f"s{k}", f"S{k}", 1, Chapter.TURNS, None, True) for k in range(4))
    fridge = replace(gap("s0", 6, 0, 0), ripens=True)
    gaps = (
        fridge,
        gap("s1", 3, 0, 0),
        replace(fridge, step="s2", possible_until=None, good_until=None),
    )
    thread = Thread("1", "x", jobs, gaps, 33, ripe=(8, 9))
    search = Search([thread], busy_for(kitchen=Kitchen()), replace(PRICES, outside=2))
    search.loom.starts[0] = [0, 7, 11, 31]
    search.restore((*search.as_it_lies()[:2], np.array([1])))
    before = search.cost
    assert search.put("1", parts={"1": (1, 1)}) <= before
    assert search.placed["1"].starts == (0, 7, 11, 31)


def test_searches_side_by_side_go_on_from_the_best_of_them():
    searches = [Search(crowded_day(), busy_for(hands=2), PRICES, seed=n) for n in range(2)]
    for search in searches:
        search.begin()
    begun = searches[0].cost
    side_by_side(searches, lambda search: search.improve(float("inf"), rounds=40))
    assert searches[0].cost == searches[1].cost <= begun
    assert searches[0].placed == searches[1].placed


def test_a_night_goes_into_the_rest_that_is_long_anyway():
    """Both rests could be longer by ten hours; the short one is the one that keeps its minutes."""
    short = replace(gap("s0", 10, 0, 0), good_until=None, possible_until=None)
    long = replace(gap("s1", 100, 0, 0), good_until=None, possible_until=None)
    jobs = tuple(Job(f"s{k}", f"S{k}", 5, Chapter.TURNS, None, True) for k in range(3))
    thread = Thread("1", "x", jobs, (short, long), 700, held={"s0": 0, "s2": 690})
    starts = place(thread, busy_for(minutes=720, kitchen=Kitchen()))
    assert (starts[0], starts[2]) == (0, 690)
    assert starts[1] == 15


def crowd(hands=1, minutes=60):
    """Four threads that all like the same minutes best."""
    jobs = tuple(Job(f"s{k}", f"S{k}", 4, Chapter.TURNS, None, True) for k in range(2))
    threads = [Thread(str(n), "x", jobs, (gap("s0", 9, 6, 20),), 40) for n in range(4)]
    return Search(threads, busy_for(hands, minutes, Kitchen()), PRICES)


def test_who_wants_the_same_minutes_gives_way_until_nobody_is_in_anothers():
    search = crowd()
    for dough in search.threads:
        # all at once at the same minutes
        search.loom.starts[search.number[dough], :2] = 23, 36
        moves.whole(search.loom, search.number[dough], 1)
    assert search.short_min == 24
    search.give_way(1.0, 0.05)
    assert search.short_min == 0
    # afterwards everything costs what it did
    assert (search.loom.asked == search.busy.unit[:, None]).all()
    assert abs(search.cost - search.loom.own.sum()) < 1e-9


def test_a_day_that_is_warmed_and_cools_is_as_good_again():
    search = crowd()
    search.begin()
    best = search.cost
    for i in range(4):
        # the same order, all of them late
        moves.whole(search.loom, i, -1)
        search.loom.starts[i, :2] += 12
        moves.whole(search.loom, i, 1)
    assert search.cost > best + 1
    search.warm(time.monotonic() + 0.3)
    assert search.short_min == 0
    assert (search.loom.asked == search.busy.unit[:, None]).all()
    assert search.cost <= best + 1e-6
    search.explore(time.monotonic() + 0.4)
    assert search.cost <= best + 1e-6


def test_what_two_want_gets_dearer_and_what_nobody_has_is_never_cheap():
    search = crowd()
    of = search.loom
    of.there[0, 50:] = 0
    for i in range(2):
        of.starts[i, :2] = 23, 36
        moves.whole(of, i, 1)
    moves.ask(of, 0.5, 0, 10**6)
    assert of.paid[0] == 8 * 0.5
    assert set(of.asked[0, 50:]) == {TAKEN}
    moves.dearer(of, 1.5, 2.0)
    assert set(of.asked[0, 23:27]) == set(of.asked[0, 36:40]) == {1.5}
    assert set(of.asked[0, :23]) == {0.75}
    assert of.paid[0] == 8 * 1.5
    assert search.cost == of.own[:2].sum() + 8 * 1.5
    for _ in range(60):
        moves.dearer(of, 1.5, 2.0)
    assert (of.asked[0] == TAKEN).all()
    found = np.empty(of.starts.shape)
    moves.trouble(of, found)
    assert found[:2, :2].tolist() == [[4 * TAKEN] * 2] * 2
    assert not found[2:].any()


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
    search.begin_anew(time.monotonic() + 0.5)
    assert search.cost < 0.7 * alone
    assert search.short_min == 0


@given(st.lists(st.integers(1, 4), min_size=3, max_size=3), st.tuples(gaps, gaps),
       st.integers(10, LONG), taken)  # fmt: skip
def test_what_a_search_need_not_look_at_costs_more_wherever_the_others_lie(
    lengths, rests, ready, by_others
):
    """No task begins where it costs at the least more than the whole thread does, nor outside its span."""
    jobs = tuple(Job(f"s{k}", f"S{k}", d, Chapter.TURNS, None, True) for k, d in enumerate(lengths))
    thread = Thread("1", "x", jobs, tuple(gap(f"s{k}", *r) for k, r in enumerate(rests)), ready)
    other = Thread("2", "y", jobs[:1], (), ready)
    search = Search([thread, other], busy_for(), PRICES)
    of = search.loom
    for start, long in by_others:
        moves.take(of, 0, start, start + long, 1)
    cost = search.put("1")
    known = search.placed["1"].starts
    b = next(b for b in range(of.spans.shape[2]) if cost <= 2.0**b or b + 1 == of.spans.shape[2])
    for k, start in enumerate(known):
        assert of.before[0, k, start] <= cost + 1e-6
        assert of.spans[0, k, b, 0] <= start <= of.spans[0, k, b, 1]
    # and without any of that it is put at the same price
    of.before[:] = 0.0
    of.spans[..., 0], of.spans[..., 1] = 0, LONG
    assert abs(search.put("1") - cost) < 1e-6
