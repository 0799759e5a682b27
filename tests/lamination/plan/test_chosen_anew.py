"""What follows when one thing of a plan is chosen anew: mass, way to lock in, shape."""

from __future__ import annotations

from dataclasses import replace

import pytest

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.products import Product, Shape
from lamination.pieces.shaping import Card
from lamination.plan.amend import amend
from lamination.plan.amend_formula import with_dough
from lamination.plan.amendment import Amendment, Change
from lamination.plan.starts import starting_plan
from lamination.plan.work import work
from lamination.terms.limits import Faults
from lamination.terms.trade import Family, Method
from tests.plans import station

KITCHEN = Kitchen()


def minded(plan):
    return {n.key for n in work(plan, KITCHEN).notes if n.tone in ("mind", "tight")}


def lock_in_of(plan):
    return next(s.made for s in work(plan, KITCHEN).strip if s.do == "lock_in")


def asked(plan, change, value=None, **more):
    return amend(plan, Amendment(change, value, **more), KITCHEN)


def test_more_dough_takes_its_share_of_butter_with_it_and_leaves_the_block_its_sides():
    plan = station()
    more = with_dough(plan, 3000)
    assert more.butter.mass_g == pytest.approx(
        3000 * plan.butter.mass_g / plan.dough.mass_g, abs=0.06
    )
    assert more.lock_in == plan.lock_in


def test_butter_held_by_weight_stays_and_its_new_share_is_said():
    plan = station()
    plan = replace(plan, butter=replace(plan.butter, by_weight=True))
    more = with_dough(plan, 3000)
    assert more.butter.mass_g == plan.butter.mass_g
    share = work(more, KITCHEN).butter_share.of_dough_pct
    assert share == pytest.approx(100 * plan.butter.mass_g / 3000)


def test_more_of_one_ingredient_makes_more_dough_and_the_butter_keeps_its_share():
    plan = starting_plan("Grams", Family.CROISSANT, 2400, KITCHEN)
    more = asked(plan, Change.LINE_GRAMS, 2000, index=0)
    before = plan.butter.mass_g / plan.dough.mass_g
    assert more.dough.mass_g > plan.dough.mass_g
    assert more.butter.mass_g / more.dough.mass_g == pytest.approx(before, rel=1e-3)


@pytest.mark.parametrize("times", [0.9, 1.1])
def test_a_little_more_or_less_flour_keeps_the_sides_of_the_block(times):
    plan = starting_plan("Flour", Family.CROISSANT, 2400, KITCHEN)
    flour = work(plan, KITCHEN).formula.flour_g
    other = asked(plan, Change.FLOUR, times * flour)
    assert other.lock_in == plan.lock_in
    assert work(other, KITCHEN).formula.flour_g <= times * flour + 1e-6


def test_four_times_the_flour_wants_a_larger_block():
    plan = starting_plan("Flour", Family.CROISSANT, 1200, KITCHEN)
    other = asked(plan, Change.FLOUR, 4 * work(plan, KITCHEN).formula.flour_g)
    assert other.lock_in.block_length_mm == pytest.approx(
        2 * plan.lock_in.block_length_mm, rel=0.01
    )


LAID = [m for m in Method if m.has_block and m is not Method.DIAMOND]


@pytest.mark.parametrize("grams", [1200, 2400, 5000])
@pytest.mark.parametrize("method", LAID)
def test_another_way_to_lock_in_has_the_block_that_suits_it(method, grams):
    plan = starting_plan("Method", Family.CROISSANT, grams, KITCHEN)
    other = asked(plan, Change.METHOD, ingredient=method.value)
    assert minded(other) <= minded(plan)
    assert lock_in_of(other).package.thickness_mm < 60


def test_a_block_that_still_fits_keeps_the_sides_of_its_frame():
    plan = starting_plan("Frame", Family.CROISSANT, 2400, KITCHEN)
    other = asked(plan, Change.METHOD, ingredient="gate")
    assert other.lock_in == replace(plan.lock_in, method=Method.GATE)


def test_strips_that_become_a_twist_are_one_strand_each_and_a_plait_has_three():
    plan = starting_plan("Strips", Family.CROISSANT, 2400, KITCHEN)
    plait = Product("Plait", Shape.STRIP, 25, 280, card=Card.PLAIT, strands=3)
    plan = plan.changed(plan.cut, products=(plait,))
    plaits = work(plan, KITCHEN).cut.products[0]
    twisted = asked(plan, Change.CARD, index=0, ingredient="twist")
    made = work(twisted, KITCHEN).cut.products[0]
    assert made.pieces == plaits.cut
    assert made.pieces > 2 * plaits.pieces
    assert asked(twisted, Change.CARD, index=0, ingredient="plait").cut.products[0].strands == 3


@pytest.mark.parametrize(
    ("index", "name", "field"), [(0, "no such", "ingredient"), (9, "twist", "index")]
)
def test_a_shape_that_there_is_not_is_refused_at_its_field(index, name, field):
    with pytest.raises(Faults) as why:
        asked(station(), Change.CARD, index=index, ingredient=name)
    assert [f.field for f in why.value.faults] == [field]
