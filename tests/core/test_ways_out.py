"""Every way out that is offered leads out; and stops follow each other as a baker would have them."""

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.dough.formula import Mixing
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Final
from lamination.plan.schedule import schedule
from lamination.plan.work import work
from lamination.sheet.folds import Fold
from lamination.terms.rests import Place, Rest

from .formulas import formula, poolish
from .plans import station, turns


def taken(plan, fix):
    """The plan with a way out taken, as the screen takes it."""
    for put in fix.puts:
        head, _, name = put.field.rpartition(".")
        if head.startswith("turns"):
            i = int(head.removeprefix("turns[").removesuffix("]"))
            value = Fold(put.value) if name == "fold" else put.value
            changed = replace(plan.turns[i], **{name: value})
            plan = replace(plan, turns=(*plan.turns[:i], changed, *plan.turns[i + 1 :]))
        else:
            part = replace(getattr(plan, head), **{name: put.value})
            plan = replace(plan, **{head: part})
    return plan


@settings(max_examples=40, deadline=None)
@given(st.floats(3, 9), st.integers(500, 1600), st.integers(300, 900))
def test_a_fix_that_is_taken_makes_the_sheet_fit(roll_to, length, width):
    kitchen = Kitchen({"bench.length_mm": length, "bench.width_mm": width})
    plan = station(turns=turns("letter", roll_to_mm=roll_to), cut=None, final=Final(3))
    misfits = [n for n in work(plan, kitchen).notes if "for the bench" in n.title]
    for note in misfits:
        for fix in note.fixes:
            after = work(taken(plan, fix), kitchen).notes
            assert not [n for n in after if n.stop == note.stop and "for the bench" in n.title]
    # a sheet that is too wide cannot be rolled narrower: then only dividing helps, and is said
    for note in misfits:
        assert any("Divide the dough" in fix.label for fix in note.fixes)


def test_a_sheet_that_fits_offers_nothing():
    assert all(n.fixes == () for n in work(station()).notes if n.tone != "mind")


def test_the_longest_preferment_comes_first_whatever_the_order_in_the_formula():
    tubs = tuple(poolish(10, 50, 5, minutes) for minutes in (200, 900, 500))
    keys = [s.key for s in schedule(station(formula=formula(preferments=tubs)), Kitchen())]
    assert keys[:4] == ["preferment-2", "preferment-3", "preferment-1", "mix"]


def test_own_minutes_and_rests_move_everything_after_them():
    base = station(formula=formula())
    later = station(formula=formula(mixing=Mixing(rest=Rest(Place.FRIDGE, 60), bench_min=40)))
    before = {s.key: s.starts_min for s in schedule(base, Kitchen())}
    after = {s.key: s.starts_min for s in schedule(later, Kitchen())}
    moved = 60 + 40 - Kitchen()["minutes.mix"]
    assert after["dough"] - before["dough"] == pytest.approx(moved)
    assert after["cut"] - before["cut"] == pytest.approx(moved)


def test_a_plan_without_a_formula_starts_at_its_dough():
    stops = schedule(station(), Kitchen())
    assert [s.key for s in stops][:2] == ["dough", "lock_in"]
    assert stops[0].starts_min == 0
    assert all(a.starts_min <= b.starts_min for a, b in pairwise(stops))


def test_a_chosen_width_is_rolled_first_and_the_length_follows():
    plain = station(turns=turns("letter"))
    wide = station(turns=(replace(turns("letter")[0], width_mm=350),))
    before, after = work(plain).steps[0].rolled, work(wide).steps[0]
    assert after.rolled.width_mm == pytest.approx(350)
    assert after.rolled.length_mm * 350 == pytest.approx(before.length_mm * before.width_mm)
    assert after.layers.butter == 3
