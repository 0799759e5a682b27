"""All minutes moved at once: to the best there is in the order kept, and never to a dearer day."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import linprog

from lamination.day import eased, moves, net
from lamination.day.loom import Prices
from lamination.day.search import Search
from lamination.day.threads import Gap, Job, Thread
from lamination.kitchen import Kitchen
from lamination.steps import Chapter
from lamination.terms import Machine, Place

from .test_placing import PRICES, busy_for, crowd, gap

KNOTS = 4
LOW, HIGH = -40, 40
ties = st.lists(
    st.tuples(
        st.integers(0, KNOTS), st.integers(0, KNOTS),
        st.lists(st.tuples(st.integers(-20, 20), st.integers(-3, 3)), min_size=1, max_size=4),
    ),
    min_size=1, max_size=9,
)  # fmt: skip
minutes = st.lists(st.integers(-15, 15), min_size=KNOTS, max_size=KNOTS)


def woven(given_ties, begins):
    """A net of ties with rising slopes; every knot besides stays within a stretch of the beginning."""
    most = len(given_ties) + KNOTS
    found = net.woven(most, np.zeros((1, 1), np.int64))
    found.size[1] = KNOTS
    found.minute[: KNOTS + 1] = *begins, 0
    for a, b, bends in given_ties:
        if a == b:
            continue
        stretches = sorted({stretch for stretch, _ in bends})
        slopes = sorted(slope for _, slope in bends)
        e = net.tied(found, a, b, stretches[0])
        found.slopes[e, 0], found.slopes[e, 1] = slopes[0] - 1, slopes[0]
        for stretch, slope in zip(stretches[1:], slopes[1:], strict=False):
            net.bent(found, e, stretch, slope)
    for v in range(KNOTS):
        e = net.tied(found, KNOTS, v, LOW)
        net.bent(found, e, HIGH, net.MUST)
    return found


def lines(of, e):
    """The price of a tie as the highest of straight lines: (slope, price at a stretch of nothing)."""
    bends = of.kinks[e, : of.many[e]].tolist()
    slopes = of.slopes[e, : of.many[e] + 1].tolist()
    found, price = [(slopes[0], -slopes[0] * bends[0])], 0.0
    for n, (bend, slope) in enumerate(zip(bends, slopes[1:], strict=True)):
        found.append((slope, price - slope * bend))
        if n + 1 < len(bends):
            price += slope * (bends[n + 1] - bend)
    return found


def costs(of):
    ties = of.ties[: of.size[0]]
    stretches = of.minute[ties[:, 1]] - of.minute[ties[:, 0]]
    return sum(
        max(s * stretches[e] + c for s, c in lines(of, e)) for e in range(of.size[0])
    )  # fmt: skip


def least(of):
    """The same by a linear program of somebody else's: all minutes, and the price of each tie."""
    many, rows, most = of.size[0], [], []
    for e in range(many):
        for slope, price in lines(of, e):
            row = np.zeros(KNOTS + 1 + many)
            row[of.ties[e, 1]] += slope
            row[of.ties[e, 0]] -= slope
            row[KNOTS + 1 + e] = -1.0
            rows.append(row)
            most.append(-price)
    prices = np.r_[np.zeros(KNOTS + 1), np.ones(many)]
    within = [(None, None)] * KNOTS + [(0, 0)] + [(None, None)] * many
    found = linprog(prices, A_ub=np.array(rows), b_ub=most, bounds=within)
    assert found.status == 0
    return found.fun


@given(ties, minutes)
def test_a_net_settles_where_all_its_ties_cost_least(given_ties, begins):
    of = woven(given_ties, begins)
    before = costs(of)
    assert net.settled(of, 1_000) < 1_000
    assert costs(of) <= before
    assert costs(of) == pytest.approx(least(of), abs=1e-6)
    assert of.minute[KNOTS] == 0


def test_no_more_moves_are_made_than_may_be():
    of = woven([(n, n + 1, [(5, 0), (6, 1)]) for n in range(3)], [0, 0, 0, 0])
    assert net.settled(of, 1) == 1
    assert net.settled(of, 100) >= 1
    assert of.minute[:KNOTS].tolist() == [of.minute[0] + 5 * n for n in range(KNOTS)]
    assert net.settled(of, 100) == 0


def lie(search, **starts):
    for dough, at in starts.items():
        i = search.number[dough.strip("d")]
        search.loom.starts[i, : len(at)] = at
        moves.whole(search.loom, i, 1)


def test_two_that_hold_each_other_back_move_at_once():
    """Neither gains anything alone: the hand goes from one to the other and back without a pause."""
    jobs = tuple(Job(f"s{k}", f"S{k}", 5, Chapter.TURNS, None, True) for k in range(2))
    threads = [
        Thread("1", "x", jobs, (gap("s0", 5, 0, 50),), 30),
        Thread("2", "x", jobs, (gap("s0", 5, 0, 50),), 35),
    ]
    search = Search(threads, busy_for(1, 60, Kitchen()), PRICES)
    lie(search, d1=(2, 12), d2=(7, 17))
    before = search.cost
    for dough in ("1", "2"):
        # by itself there is no better place in this order, only one before or behind the other
        assert search.put(dough, parts={dough: (0, 0)}) == pytest.approx(before)
    eased.ease(search.loom, 100)
    assert search.cost < before
    # each begins as long before the other as it did, and nobody is too early any more
    assert search.placed["1"].starts == (10, 20)
    assert search.placed["2"].starts == (15, 25)


def test_nothing_moves_that_is_fixed_or_done():
    jobs = tuple(Job(f"s{k}", f"S{k}", 5, Chapter.TURNS, None, True) for k in range(3))
    rests = (gap("s0", 5, 0, 60), gap("s1", 5, 0, 60))
    fixed = Thread("1", "x", jobs, rests, 50, held={"s1": 12})
    begun = Thread("2", "x", jobs, rests, 60, done=((0, 5),))
    search = Search([fixed, begun], busy_for(2, 90, Kitchen()), PRICES)
    lie(search, d1=(0, 12, 30), d2=(0, 20, 40))
    before = search.cost
    search.ease()
    assert search.cost < before
    assert search.placed["1"].starts[1] == 12
    assert search.placed["2"].starts[0] == 0


def test_what_goes_into_the_oven_together_stays_together():
    jobs = (
        Job("s0", "S0", 5, Chapter.TURNS, None, True),
        Job("s1", "Bake", 20, Chapter.TURNS, Machine.OVEN, False, ("bake", "soft"), 1),
    )
    threads = [Thread(str(n), "x", jobs, (gap("s0", 10, 2, 80),), 60 + 5 * n) for n in (1, 2)]
    search = Search(threads, busy_for(2, 120, Kitchen({"oven.trays": 2})), PRICES)
    lie(search, d1=(0, 30), d2=(0, 30))
    search.ease()
    one, two = (search.placed[d].starts for d in "12")
    assert one[1] == two[1] > 30
    assert search.together == {("2", 1): "1"}
    assert search.short_min == 0


def beginnings(search):
    """The tasks of all threads by when they begin."""
    return np.argsort(search.loom.starts, axis=None, kind="stable").tolist()


@given(st.integers(0, 30), st.integers(1, 3), st.sampled_from([0.0, 0.3, 5.0]))
def test_a_day_never_gets_dearer_and_costs_what_it_says(seed, hands, asked):
    search = crowd(hands)
    search.chance.seed(seed)
    search.begin()
    if asked:
        moves.ask(search.loom, asked, 0, 10**6)
    search.improve(float("inf"), rounds=6)
    before, order, overlaps = search.cost, beginnings(search), search.short_min
    found = eased.ease(search.loom, 500)
    assert found <= before
    assert found == pytest.approx(search.cost)
    # what is taken is what the threads take that lie there
    taken = np.zeros_like(search.loom.taken)
    for placed in search.placed.values():
        for start in placed.starts:
            taken[0, start : start + 4] += 1
    assert (taken[0] == search.loom.taken[0]).all()
    if hands == 1 and not overlaps:
        assert beginnings(search) == order
    again = eased.ease(search.loom, 500)
    assert again == pytest.approx(found)


def test_a_rest_is_not_lengthened_beyond_what_may_ripen():
    """Both rests could be longer for nothing, but together they ripen the dough."""
    free = Gap("s0", Place.FRIDGE, 60, 10, 20, None, None, 1, True, ripens=True)
    jobs = tuple(Job(f"s{k}", f"S{k}", 5, Chapter.TURNS, None, True) for k in range(3))
    thread = Thread("1", "x", jobs, (free, free), 400, ripe=(150, 160))
    prices = Prices(late=60, outside=12, early=0.2, early_from=5, linger=0.0)
    search = Search([thread], busy_for(1, 500, Kitchen()), prices)
    lie(search, d1=(0, 65, 130))
    for _ in range(5):
        search.ease()
    starts = search.placed["1"].starts
    assert starts[2] == 390
    assert starts[2] - starts[0] - 10 <= 150
    assert search.cost == 0


def test_a_task_stays_in_its_shift():
    jobs = tuple(Job(f"s{k}", f"S{k}", 5, Chapter.TURNS, None, True) for k in range(2))
    thread = Thread("1", "x", jobs, (gap("s0", 10, 5, 60),), 100)
    busy = busy_for(1, 120, Kitchen())
    busy.there[0, 60:] = 0
    search = Search([thread], busy, PRICES)
    lie(search, d1=(10, 30))
    search.ease()
    # it would be nearer to its hour, but nobody is there after the first hour
    assert search.placed["1"].starts == (40, 55)
