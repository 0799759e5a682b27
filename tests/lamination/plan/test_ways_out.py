"""Every way out that is offered leads out; and stops follow each other as a baker would have them."""

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.fixes import sound, taken
from lamination.plan.work import work
from lamination.steps.last_sheet import LastSheet
from lamination.steps.mix import Mixing
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Place
from tests.plans import formula, poolish, station, turns


@settings(max_examples=14, deadline=None)
@given(st.floats(3, 9), st.integers(500, 1600), st.integers(300, 900))
def test_a_fix_that_is_taken_makes_the_sheet_fit(roll_to, length, width):
    kitchen = Kitchen({"bench.length_mm": length, "bench.width_mm": width})
    plan = station(turns=turns("letter", roll_to_mm=roll_to), cut=None, last_sheet=LastSheet(3))
    misfits = [
        n for n in sound(plan, kitchen, work(plan, kitchen)) if "for the bench" in plain(n.title)
    ]
    for note in misfits:
        for fix in note.fixes:
            after = work(taken(plan, fix), kitchen).notes
            assert not [
                n for n in after if n.stop == note.stop and "for the bench" in plain(n.title)
            ]


def test_a_sheet_that_fits_offers_nothing():
    assert all(n.fixes == () for n in work(station()).notes if n.tone != "mind")


def test_every_preferment_ripens_for_its_own_time_whatever_the_order():
    tubs = tuple(poolish(10, 50, 5, minutes) for minutes in (200, 900, 500))
    at = {s.key: s for s in work(station(formula=formula(), preferments=tubs)).strip}
    for key, minutes in (("preferment-1", 200), ("preferment-2", 900), ("preferment-3", 500)):
        ready = at[key].starts_min + at[key].bench_min
        assert at["mix"].starts_min - ready == pytest.approx(minutes)


def test_own_minutes_and_rests_move_everything_after_them():
    base = station(formula=formula())
    later = station(formula=formula(), mix=Mixing(rest=Rest.at(Place.FRIDGE, 60), bench_min=40))
    before = {s.key: s.starts_min for s in work(base).strip}
    after = {s.key: s.starts_min for s in work(later).strip}
    moved = 60 + 40 - Kitchen()["minutes.mix"]
    assert after["dough"] - before["dough"] == pytest.approx(moved)
    assert after["cut"] - before["cut"] == pytest.approx(moved)


def test_a_plan_without_a_formula_starts_at_its_dough():
    stops = work(station()).strip
    assert [s.key for s in stops][:2] == ["dough", "lock_in"]
    assert stops[0].starts_min == 0
    assert all(a.starts_min <= b.starts_min for a, b in pairwise(stops))


def test_a_chosen_width_is_rolled_first_and_the_length_follows():
    bare = station(turns=turns("letter"))
    wide = station(turns=(replace(turns("letter")[0], width_mm=350),))
    before, after = work(bare).steps[0].rolled, work(wide).steps[0]
    assert after.rolled.width_mm == pytest.approx(350)
    assert after.rolled.length_mm * 350 == pytest.approx(before.length_mm * before.width_mm)
    assert after.layers.butter == 3
