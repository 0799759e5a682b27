"""What a search tries: by chance that is the same on every machine, and never anything that is lost."""

import time

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.day import moves, tries
from lamination.day.search import Search
from lamination.day.threads import Job, Thread
from lamination.kitchen import Kitchen
from lamination.steps import Chapter

from .test_placing import PRICES, busy_for, gap


def dice(seed=5):
    return np.array([seed], np.uint64)


def crowded(followers=0):
    """Five threads that all want the same minutes, some of them mixed with the first."""
    jobs = tuple(Job(f"s{k}", f"S{k}", 4, Chapter.TURNS, None, True) for k in range(3))
    gaps = gap("s0", 9, 6, 20), gap("s1", 9, 6, 20)
    threads = [
        Thread(
            str(n), "x", jobs, gaps, 60,
            trunk=1 if n <= followers else 0, leader="0" if 0 < n <= followers else None,
        )
        for n in range(5)
    ]  # fmt: skip
    search = Search(threads, busy_for(1, 90, Kitchen()), PRICES)
    search.begin()
    return search


def test_the_same_dice_fall_the_same_and_evenly():
    one, two = dice(), dice()
    thrown = [tries.thrown(one) for _ in range(4_000)]
    assert thrown == [tries.thrown(two) for _ in range(4_000)]
    assert 0 <= min(thrown) < 0.01
    assert 0.99 < max(thrown) < 1
    assert np.histogram(thrown, 8, (0, 1))[0].min() > 400


def test_what_weighs_more_is_drawn_more_often_and_what_weighs_nothing_never():
    one, weights = dice(), np.array([1.0, 0.0, 3.0])
    drawn = np.bincount([tries.drawn(one, weights) for _ in range(4_000)], minlength=3)
    assert drawn[1] == 0
    assert drawn[2] / drawn[0] == pytest.approx(3, rel=0.15)


@given(st.permutations(range(5)), st.integers(1, 5))
def test_nobody_comes_before_the_one_that_mixes_for_it(order, many):
    of = crowded(followers=2).loom
    found = tries.leaders_first(of, np.array(order), many).tolist()
    assert sorted(found) == sorted(order[:many])
    if 0 in found:
        assert all(found.index(0) < found.index(n) for n in (1, 2) if n in found)
    assert [n for n in found if n > 2] == [n for n in order[:many] if n > 2]


@given(st.integers(1, 10**6))
def test_who_is_taken_out_takes_along_who_is_mixed_with_it(seed):
    of = crowded(followers=2).loom
    found = tries.some(of, dice(seed), np.zeros(of.starts.shape), True).tolist()
    assert len(set(found)) == len(found) >= 1
    assert 0 not in found or {1, 2} <= set(found)


@given(st.integers(1, 10**6))
def test_of_parts_what_is_done_for_others_stays(seed):
    search = crowded(followers=2)
    of, parts = search.loom, np.zeros((5, 2), np.int64)
    found = tries.between(of, dice(seed), np.zeros(of.starts.shape), parts, 3)
    assert 1 <= len(found) <= 3
    for i in found.tolist():
        first, last = parts[i]
        assert max(of.free[i], of.threads[i]["along"] + 1) <= first <= last < 3


@given(st.integers(1, 10**6))
def test_where_others_make_way_what_is_done_for_others_stays_too(seed):
    search = crowded(followers=2)
    of, parts = search.loom, np.zeros((5, 2), np.int64)
    found = tries.among(of, dice(seed), np.zeros(of.starts.shape), parts)
    assert len(set(found.tolist())) == len(found) >= 1
    for i in found.tolist():
        first, last = parts[i]
        assert max(of.free[i], of.threads[i]["along"] + 1) <= first <= last < 3


@given(st.integers(1, 10**6), st.integers(1, 12), st.booleans())
def test_the_best_is_kept_and_costs_what_is_said(seed, times, making_way):
    search = crowded()
    kept, before = search.as_it_lies(), search.cost
    state = np.array([before, before, 0.0, 0.05 * before])
    tries.tried(search.loom, dice(seed), state, *kept, times, making_way)
    # nothing is cheaper afterwards than it is
    assert (search.loom.asked == search.busy.unit[:, None]).all()
    assert search.cost == pytest.approx(state[tries.NOW])
    search.restore(kept)
    assert search.cost == pytest.approx(state[tries.BEST])
    assert state[tries.BEST] <= before + 1e-9
    taken = np.zeros_like(search.loom.taken)
    for placed in search.placed.values():
        for start in placed.starts:
            taken[0, start : start + 4] += 1
    assert (search.loom.taken == taken).all()


def test_after_many_tries_for_nothing_it_goes_on_from_the_best():
    search = crowded()
    search.begin_anew(time.monotonic() + 0.2)
    search.explore(time.monotonic() + 0.2)
    kept, best = search.as_it_lies(), search.cost
    # somewhere worse, from where it has tried for long
    search.take("0")
    search.loom.starts[0, :3] = 0, 13, 26
    moves.whole(search.loom, 0, 1)
    assert search.cost > best + 1
    state = np.array([search.cost, best, 10_000.0, 0.0])
    tries.tried(search.loom, dice(), state, *kept, 1, False)
    assert state[tries.NOW] <= best + 1e-9


@pytest.mark.parametrize("seed", range(6))
def test_a_part_that_gave_way_leaves_nothing_cheap_and_nothing_missing(seed):
    search = crowded(followers=1)
    search.chance.seed(seed)
    search.part_gives_way()
    assert (search.loom.asked == search.busy.unit[:, None]).all()
    assert search.short_min == 0
    assert search.cost == pytest.approx(search.loom.own.sum(), abs=0.01)


def test_others_make_way_at_once_where_putting_back_beside_them_takes_many_tries():
    """Two hands' worth of doughs under way to one hour, each held up by the one before."""

    def left(making_way):
        jobs = tuple(Job(f"s{k}", f"S{k}", 6, Chapter.TURNS, None, True) for k in range(4))
        gaps = tuple(gap(f"s{k}", 14, 6, 14) for k in range(3))
        threads = [Thread(str(n), "x", jobs, gaps, 150 + 4 * n) for n in range(6)]
        search = Search(threads, busy_for(1, 240, Kitchen()), PRICES)
        for n, dough in enumerate(search.threads):
            search.put(dough)
            assert search.short_min == 0, n
        began = search.cost
        search.improve(float("inf"), rounds=40, making_way=making_way)
        return search.cost / began

    assert left(True) < left(False)


def test_others_make_way_around_what_is_put_back_and_nowhere_else():
    of = crowded().loom
    parts = np.zeros((5, 2), np.int64)
    parts[1], parts[3] = (1, 2), (0, 1)
    begin, end = tries.around(of, np.array([1, 3]), parts)
    assert begin + tries._AROUND == min(of.starts[1, 1], of.starts[3, 0])
    assert end - tries._AROUND == max(of.starts[1, 2], of.starts[3, 1])
    moves.ask(of, 0.5, 20, 40)
    cheap = of.asked[0] < of.unit[0]
    assert cheap[20:40].all()
    assert cheap.sum() == 20
    moves.ask(of, np.inf, 20, 40)
    assert (of.asked[0] == of.unit[0]).all()


@pytest.mark.parametrize("seed", range(4))
def test_all_give_way_from_where_they_lie_or_lie_there_still(seed):
    search = crowded(followers=1)
    search.chance.seed(seed)
    # one after another in the order of their numbers, each as late as the one before lets it
    search.lie({str(n): [20 * n, 20 * n + 8, 20 * n + 16] for n in range(4)} | {"4": [70, 78, 86]})
    before, kept = search.cost, search.as_it_lies()
    search.all_give_way(time.monotonic() + 0.1)
    assert search.cost <= before
    assert (search.loom.asked == search.busy.unit[:, None]).all()
    search.restore(kept)
    # where there is no time nothing is worse
    search.all_give_way(time.monotonic())
    assert search.cost <= before


def test_threads_lie_at_minutes_and_are_moved_all_at_once_from_there():
    search = crowded()
    apart = {str(n): [16 * n, 16 * n + 5, 16 * n + 10] for n in range(5)}
    for dough in search.threads:
        search.take(dough)
    search.lie(apart)
    search.ease()
    assert search.loom.lies.all()
    assert search.short_min == 0
    # nobody overtakes anybody, and who would be late is so by less
    firsts = [search.placed[str(n)].starts[0] for n in range(5)]
    assert firsts == sorted(firsts)
    assert max(p.starts[-1] for p in search.placed.values()) < apart["4"][-1]
    assert search.cost == pytest.approx(search.loom.own.sum() + search.loom.days[0], abs=0.01)


def test_a_try_that_moved_nothing_is_told_from_one_that_did():
    of = crowded().loom
    lay = of.starts.copy()
    of.starts[2, 1] += 1
    assert tries.elsewhere(of, np.array([0, 2]), lay)
    assert not tries.elsewhere(of, np.array([0, 1]), lay)
