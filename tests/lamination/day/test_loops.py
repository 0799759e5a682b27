"""The compiled loops, each held against saying the same plainly."""

import itertools
from datetime import UTC, datetime, timedelta

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from lamination.day import Day, Dough, Shift, by_minute, loops, lowest, moves, reach
from lamination.day.busy import Busy
from lamination.day.loom import Prices, strung
from lamination.day.threads import Gap, Job, Thread
from lamination.kitchen import Kitchen
from lamination.plan import starting_plan
from lamination.steps import Chapter
from lamination.terms import Family, Machine, Place

N, STRETCH = 24, 0.5
BEGINS = datetime(2027, 3, 26, 4, tzinfo=UTC)
PLAN = starting_plan("Any", Family.CROISSANT, 2000, Kitchen())
prices = st.lists(st.floats(0, 50) | st.just(np.inf), min_size=N + 1, max_size=N + 1).map(np.array)
counts = st.lists(st.integers(0, 3), min_size=N, max_size=N).map(lambda c: np.array(c, np.int32))
slopes = st.floats(-5, 5).map(lambda s: round(s, 3))
pieces = st.lists(
    st.tuples(st.integers(0, 12), st.integers(1, 60), slopes, st.floats(0, 20)),
    min_size=1, max_size=4,
).map(sorted)  # fmt: skip


def loom(minutes=5, held=True, shifts=2, last=False, long=1, pause=None):
    at = lambda m: BEGINS + timedelta(minutes=m)  # noqa: E731
    day = Day(
        "short", BEGINS, at(N), tuple(Shift(str(i), BEGINS, at(N)) for i in range(shifts)),
        (Dough("1", PLAN, at(N)),),
    )  # fmt: skip
    jobs = tuple(
        Job(f"s{k}", "S", minutes, Chapter.TURNS, Machine.OVEN if not held else None, held)
        for k in range(2)
    )
    part = ((Place.FREEZER, long),)
    elsewhere = {"after" if last else "before": part}
    rest = Gap("s0", Place.FRIDGE, 5, 1, 2, 8, 9, 2, True, **elsewhere)
    thread = Thread("1", "x", jobs, (rest,), N)
    busy = Busy(day, Kitchen({"fridge.holds": 2, "freezer.holds": 1}))
    apart = {} if pause is None else {"stretch": STRETCH, "pause": pause}
    return strung([thread], busy, Prices(60, 12, 0.2, 5, 0.02, **apart)), busy


@given(
    prices,
    pieces,
    st.integers(0, N),
    st.integers(0, N),
    st.integers(0, 9),
    st.integers(0, N),
    st.just(np.inf) | st.floats(5, 60),
)
def test_the_cheapest_rest_of_all_lengths_within_a_limit(then, of, a, b, begin, until, limit):
    on, _ = loom()
    lo, hi = min(a, b), max(a, b)
    on.gaps[0, 0]["pieces"] = len(of)
    for p, (low, more, slope, price) in enumerate(of):
        on.pieces[0, 0, p] = low, low + more, slope, price
    best, until = np.empty(N + 1), min(until, hi)
    first = loops.rests_before(on, 0, 0, 0.0, limit, then, lo, hi, begin, until, best)
    for start in range(begin, until + 1):
        ways = [
            price + slope * (long - low) + then[start + long]
            for low, more, slope, price in of
            for long in range(low, low + more + 1)
            if lo <= start + long <= hi
        ]
        least = min(ways, default=np.inf)
        if start < first:
            assert least > limit or limit == np.inf == least
        elif least <= limit:
            np.testing.assert_allclose(best[start], least, atol=1e-9)
        else:
            assert best[start] > limit or np.isclose(best[start], limit)


def changed(on):
    """What is taken was changed by hand: counted anew."""
    on.over[:] = np.maximum(on.taken - on.there, 0).sum(axis=1)
    on.stirred[:] = 0, N
    moves.ask(on, np.inf, 0, N)
    by_minute.summed(on)


changes = st.lists(
    st.tuples(st.integers(-3, N + 3), st.integers(1, 9), st.sampled_from((-1, 1, 3))), max_size=6
)


parts = st.tuples(st.integers(-3, N), st.integers(0, N + 3))


@given(counts, counts, st.floats(1, 9), parts, changes)
def test_what_would_be_missing_and_what_is(taken, there, each, part, changes):
    on, busy = loom()
    line = busy.lines[Place.FRIDGE]
    on.taken[line], on.there[line] = taken, there
    on.over[line] = np.maximum(taken - there, 0).sum()
    moves.ask(on, np.inf, 0, N)
    moves.ask(on, each, *part)
    by_minute.summed(on)
    for start, long, many in changes:
        # from now on only what has changed is counted
        moves.take(on, line, start, start + long, many)
        by_minute.summed(on)
    taken = on.taken[line].tolist()
    # only a part of the day is cheap, and an hour that nobody has is never so
    unit, (begin, end) = busy.unit[line], part
    cheap = [bool(many) and begin <= t < end for t, many in enumerate(there.tolist())]
    price = [min(each, unit) if so else unit for so in cheap]
    short = [max(a - b, 0) for a, b in zip(taken, there.tolist(), strict=True)]
    assert on.over[line] == sum(short)
    assert np.isclose(moves.cost(on), np.dot(short, price))
    for row, (of, many) in enumerate(on.counts.tolist()):
        if of != line:
            continue
        for t in range(N):
            would = max(taken[t] + many - there[t], 0) - max(taken[t] - there[t], 0)
            assert np.isclose(on.sums[row, t + 1] - on.sums[row, t], would * price[t])


@given(counts, counts, st.integers(1, 6), st.booleans())
def test_a_task_is_done_by_whom_it_costs_least(one, two, minutes, held):
    on, _ = loom(minutes, held)
    on.taken[0], on.taken[1] = one, two
    changed(on)
    after, then = np.arange(N + 1.0), np.empty(N + 1)
    by_minute.works(on, 0, 0, 0, N - minutes, after, then)
    for start in range(N - minutes + 1):
        short = [
            sum(on.unit[0] for t in range(start, start + minutes) if line[t] >= 1)
            for line in (one, two)
        ]
        assert then[start] == (min(short) if held else 0.0) + start + minutes


@given(counts, counts, st.booleans(), st.integers(0, 3), st.integers(0, 4), st.integers(0, N))
def test_lying_costs_what_its_places_miss(fridge, freezer, last, long, lo, hi):
    on, busy = loom(last=last, long=long)
    on.taken[busy.lines[Place.FRIDGE]], on.taken[busy.lines[Place.FREEZER]] = fridge, freezer
    changed(on)
    until, from_ = np.zeros(N + 1), np.zeros(N + 1)
    by_minute.lies_until(on, 0, 0, lo, hi, until)
    by_minute.lies_from(on, 0, 0, lo, hi, from_)

    def short(line, holds, at):
        return max(line[at] + 2 - holds, 0) - max(line[at] - holds, 0)

    for start, end in itertools.combinations(range(lo, hi + 1), 2):
        if end - start < long:
            continue
        first, then = (end - long, start) if last else (start, start + long)
        plainly = sum(short(freezer, 1, first + t) for t in range(long))
        plainly += sum(short(fridge, 2, then + t) for t in range(end - start - long))
        assert np.isclose(until[end] + from_[start], 30.0 * plainly)


@given(counts, counts, st.integers(1, 6), st.integers(0, N), st.integers(1, 20))
def test_what_beginning_anew_costs_is_the_same_of_one_minute_and_of_all(
    one, two, minutes, lo, pause
):
    on, _ = loom(minutes, pause=pause)
    on.taken[0], on.taken[1] = one, two
    changed(on)
    for h, hi in ((0, N - minutes), (1, N - minutes - 1)):
        found = np.full(N + 1, -1.0)
        by_minute.anew(on, h, minutes, lo, hi, found)
        for t in range(N + 1):
            begins = lo <= t <= hi and by_minute.begins_anew(on.worked[h], pause, t, t + minutes)
            assert found[t] == (STRETCH * begins if lo <= t <= hi else -1.0)


@given(
    prices,
    pieces,
    st.integers(0, N),
    st.integers(0, N),
)
def test_the_cheapest_rest_after_a_task_by_when_it_ends(ends, of, a, b):
    on, _ = loom()
    lo, hi = min(a, b), max(a, b)
    on.gaps[0, 0]["pieces"] = len(of)
    for p, (low, more, slope, price) in enumerate(of):
        on.pieces[0, 0, p] = low, low + more, slope, price
    best = np.empty(N + 1)
    reach.rests_after(on, 0, 0, ends, lo, hi, best)
    for end in range(N + 1):
        ways = [
            price + slope * (long - low) + ends[end - long]
            for low, more, slope, price in of
            for long in range(low, low + more + 1)
            if lo <= end - long <= hi
        ]
        np.testing.assert_allclose(best[end], min(ways, default=np.inf), atol=1e-9)


widths = st.tuples(st.integers(-9, 30), st.integers(0, 60))


@given(prices, widths, slopes, st.integers(0, N), st.integers(0, N), st.integers(0, N))
def test_the_lowest_within_a_stretch_is_that_of_all_its_minutes(then, wide, slope, a, b, begin):
    low, high = wide[0], wide[0] + wide[1]
    lo, hi = min(a, b), max(a, b)
    best, past, coming = np.full(N + 1, 9.0), np.empty(N + 1), np.empty(N + 1)
    lowest.lowest(then, lo, hi, slope, low, high, 2.5, begin, N, best, past, coming)
    for e in range(N + 1):
        there = range(max(e + low, lo), min(e + high, hi) + 1) if e >= begin else ()
        least = min((then[t] + 2.5 + slope * (t - e) for t in there), default=np.inf)
        np.testing.assert_allclose(best[e], min(least, 9.0), atol=1e-9)


def test_as_many_hands_are_there_from_when_until_when():
    on, _ = loom(shifts=2)
    assert on.runs[0, 3].tolist() == [0, N]
    half = Shift("0", BEGINS + timedelta(minutes=5), BEGINS + timedelta(minutes=9))
    ends = BEGINS + timedelta(minutes=N)
    busy = Busy(Day("short", BEGINS, ends, (half,), (Dough("1", PLAN, ends),)), Kitchen())
    runs = strung([Thread("1", "x", (), (), N)], busy, Prices(60, 12, 0.2, 5, 0.02)).runs[0]
    assert runs[:5].tolist() == [[0, 5]] * 5
    assert runs[5:9].tolist() == [[5, 9]] * 4
    # a task of no minutes may lie at the very end
    assert runs[9:].tolist() == [[9, N]] * (N + 1 - 9)
