"""The compiled loops, each held against saying the same plainly."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from lamination.day import loops

N = 24
prices = st.lists(st.floats(0, 50) | st.just(np.inf), min_size=N, max_size=N).map(np.array)
counts = st.lists(st.integers(0, 3), min_size=N, max_size=N).map(lambda c: np.array(c, np.int32))
pieces = st.lists(
    st.tuples(st.integers(0, 12), st.integers(1, 60), st.floats(-5, 5), st.floats(0, 20)),
    min_size=1,
    max_size=4,
).map(lambda of: sorted(of))


@given(prices, pieces)
def test_the_cheapest_rest_of_all_lengths(then, of):
    lows = np.array([low for low, *_ in of])
    highs = np.array([low + more for low, more, *_ in of])
    slopes, at_low = (np.array([p[k] for p in of]) for k in (2, 3))
    found = loops.rested(then, lows, highs, slopes, at_low)
    for start in range(N):
        ways = [
            price + slope * (long - low) + then[start + long]
            for low, high, slope, price in zip(lows, highs, slopes, at_low, strict=True)
            for long in range(low, min(high, N - 1 - start) + 1)
        ]
        np.testing.assert_allclose(found[start], min(ways, default=np.inf), atol=1e-9)


@given(counts, counts, st.integers(1, 2))
def test_what_would_be_missing_and_what_is(taken, there, more):
    sums = loops.missing(taken, there, more)
    for t in range(N):
        would = max(taken[t] + more - there[t], 0) - max(taken[t] - there[t], 0)
        assert sums[t + 1] - sums[t] == would
    assert loops.over(taken, there) == sum(max(a - b, 0) for a, b in zip(taken, there, strict=True))


@given(st.lists(counts, min_size=1, max_size=3), counts, st.integers(0, N + 2))
def test_a_task_is_done_by_whom_it_costs_least(hands, more, minutes):
    sums = [np.concatenate(([0.0], np.cumsum(h))) for h in hands]
    other = np.concatenate(([0.0], np.cumsum(more)))
    cost = loops.worked(np.array(sums), other, minutes)
    for start in range(N + 1):
        if start + minutes > N:
            assert np.isinf(cost[start])
            continue
        least = min(h[start : start + minutes].sum() for h in hands)
        assert cost[start] == least + more[start : start + minutes].sum()
