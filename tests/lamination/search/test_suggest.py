"""The search over folds: its counts are the model's, and what it offers really does."""

from dataclasses import replace
from itertools import product

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.starts import starting_plan
from lamination.plan.work import work
from lamination.search.folds import Count, Search, Wish, folded_count, suggest, with_turns
from lamination.steps.divide import Divide
from lamination.steps.lock_in import LockIn
from lamination.steps.more_butter import MoreButter
from lamination.steps.strew import Strew
from lamination.steps.turn import Trim
from lamination.terms.limits import Faults
from lamination.terms.said import plain
from lamination.terms.trade import Family, Fold, Method
from tests.plans import changed, station, turns


def best(plan, wish, kitchen=None):
    """Of all lengths up to six turns, the suggestion that ranks first."""
    every = [s for n in range(1, 7) for s in suggest(plan, Search(wish, n), kitchen).suggestions]
    return min(every, key=lambda s: s.rank)


@settings(max_examples=14, deadline=None)
@given(
    st.sampled_from([Method.HALF, Method.INVERSE, Method.SPREAD]),
    st.lists(st.sampled_from(list(Fold)), min_size=1, max_size=4),
)
def test_the_quick_count_is_the_model_s(method, folds):
    chosen = LockIn(method, 300, 300)
    plan = station(lock_in=chosen, turns=turns(*folds, roll_to_mm=6), cut=None)
    count = {
        Method.HALF: Count(1, 2, False, False),
        Method.INVERSE: Count(2, 1, True, True),
        Method.SPREAD: Count(1, 1, False, True),
    }[method]
    for fold in folds:
        count = folded_count(count, fold)
    layers = work(plan).layers
    assert (count.butter, count.dough) == (layers.butter, layers.dough)


def test_the_search_leaves_out_no_sequence_that_would_do():
    plan, kitchen = station(), Kitchen()
    low, high = (kitchen[f"croissant.butter_layers.{end}"] for end in ("low", "high"))
    would_do = 0
    for folds in product(Fold, repeat=3):
        try:
            worked = work(changed(plan, turns=turns(*folds)), kitchen)
        except Faults:
            continue
        fits = not [
            n for n in worked.notes if n.tone == "mind" and "for the bench" in plain(n.title)
        ]
        would_do += low <= worked.layers.butter <= high and worked.layers.butter_um >= 10 and fits
    found = suggest(plan, Search(Wish.LEAVES, 3), kitchen)
    assert found.searched == 64
    # rolled wider first, a few more lie on the bench than as they come
    assert found.would_do >= would_do > 10


@pytest.mark.parametrize("wish", list(Wish))
@pytest.mark.parametrize("family", [Family.CROISSANT, Family.PUFF])
def test_what_is_suggested_fits_the_bench_and_its_family(wish, family):
    kitchen = Kitchen({"bench.length_mm": 1500})
    plan = starting_plan("Towpath", family, 2200, kitchen)
    offered = best(plan, wish, kitchen)
    worked = work(changed(plan, turns=offered.turns), kitchen)
    assert offered.facts == worked.facts
    assert not [n for n in worked.notes if plain(n.title).endswith("for the bench")]
    titles = {plain(n.title) for n in worked.notes}
    assert not titles & {"Fewer leaves than usual", "More leaves than usual"}
    assert str(worked.layers.butter) in offered.reason


def test_each_wish_gets_what_it_asks_for():
    plan = starting_plan("Towpath", Family.PUFF, 2200, Kitchen())
    by_wish = {wish: best(plan, wish).facts for wish in Wish}
    assert by_wish[Wish.LEAVES].butter_layers == max(f.butter_layers for f in by_wish.values())
    assert by_wish[Wish.RESTS].rests == min(f.rests for f in by_wish.values())
    shortest = min(f.longest_mm for f in by_wish.values())
    assert by_wish[Wish.BENCH].longest_mm == pytest.approx(shortest)
    assert by_wish[Wish.WASTE].waste_g == pytest.approx(min(f.waste_g for f in by_wish.values()))


def test_with_trims_fewer_turns_leave_less_over():
    trimmed = tuple(replace(t, trim=Trim(ends_mm=15)) for t in turns("letter", "letter", "letter"))
    plan = station(turns=trimmed)
    assert best(plan, Wish.WASTE).facts.turns <= 3
    assert all(t.trim == Trim(ends_mm=15) for t in best(plan, Wish.WASTE).turns)


def test_rests_stand_as_seldom_as_the_kitchen_allows():
    one = Kitchen({"turns_back_to_back": 1})
    offered = suggest(station(), Search(Wish.LEAVES, 3), one).suggestions[0]
    assert all(t.rest for t in offered.turns)
    three = Kitchen({"turns_back_to_back": 3})
    offered = suggest(station(), Search(Wish.LEAVES, 3), three).suggestions[0]
    assert [bool(t.rest) for t in offered.turns] == [False, False, True]


def test_where_nothing_would_do_it_says_what_stands_in_the_way():
    found = suggest(station(), Search(Wish.LEAVES, 1))
    assert (found.would_do, found.suggestions) == (0, ())
    assert "fewer butter layers" in found.why_none
    tiny = Kitchen({"bench.length_mm": 500, "bench.width_mm": 300})
    assert "will not fit" in suggest(station(), Search(Wish.LEAVES, 3), tiny).why_none


def test_a_search_of_no_turns_or_of_nine_is_refused():
    for n in (0, 9):
        with pytest.raises(Faults, match="Must be from 1"):
            Search(Wish.LEAVES, n)


@pytest.mark.parametrize("at", [2, 3])
def test_a_dough_with_more_than_folds_to_it_is_searched_as_well(at):
    plan = station(turns=turns("letter", "letter", "letter"))
    between = (MoreButter(30), Strew("sugar", 200), Divide(60))
    plan = replace(plan, steps=(*plan.steps[:at], *between, *plan.steps[at:]))
    found = best(plan, Wish.LEAVES)
    new = with_turns(plan, found.turns)
    assert {n.code for n in work(new).notes} & {"no-fold", "second-go"} == set()
    assert {s.do for s in new.steps} == {s.do for s in plan.steps}
    assert len(new.turns) == len(found.turns)
