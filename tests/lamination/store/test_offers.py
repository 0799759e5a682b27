"""What of a dough can be put away at each step, and the block that comes of it."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from lamination.kitchen.kitchen import Kitchen
from lamination.plan import work
from lamination.plan.starts import starting_finish
from lamination.steps.divide import Divide
from lamination.store import Holds, PuttingAway, Which, offers, put_away
from lamination.terms.limits import Faults
from lamination.terms.trade import Family, Place
from tests.plans import formula, station

AT = datetime(2026, 11, 28, 6, tzinfo=UTC)
KITCHEN = Kitchen()


def divided(pct=40.0, put=Place.FREEZER):
    plan = station(formula=formula(), finish=starting_finish(Family.CROISSANT))
    at = plan.at("turn-2") + 1
    steps = (*plan.steps[:at], Divide(pct, put=put, id="divide"), *plan.steps[at:])
    return plan.with_steps(*steps)


def test_each_step_offers_what_lies_there_with_all_of_its_mass():
    plan = divided()
    there = offers(plan, KITCHEN)
    worked = work(plan, KITCHEN)
    by = {(o.stop, o.which): o for o in there}
    whole = by["turn-2", Which.WHOLE]
    assert whole.grams == pytest.approx(worked.total_g, abs=0.1)
    assert (whole.turns, whole.next_step) == (2, "Divide")
    on, away = by["divide", Which.WHOLE], by["divide", Which.OTHER]
    assert on.grams + away.grams == pytest.approx(whole.grams, abs=0.2)
    assert on.butter_g + away.butter_g == pytest.approx(whole.butter_g, abs=0.2)
    assert (away.put, away.next_step) == (Place.FREEZER, "Turn 3")
    cut, trims = by["cut", Which.WHOLE], by["cut", Which.TRIMMINGS]
    assert cut.grams + trims.grams == pytest.approx(worked.comes_out_g, abs=0.5)
    assert cut.pieces == worked.cut.pieces
    assert (cut.holds, by["bake", Which.WHOLE].holds) == (Holds.RAW, Holds.BAKED)


def test_the_wash_stands_among_the_allergens_only_once_it_is_on():
    by = {(o.stop, o.which): o.contains for o in offers(divided(), KITCHEN)}
    assert "egg" not in by["shape", Which.WHOLE]
    assert "egg" in by["wash", Which.WHOLE]
    unknown = {o.stop: o.contains for o in offers(station(), KITCHEN)}
    assert "Not known here: the dough" in unknown["turn-1"]


def put(**more):
    said = {"id": "block-0001", "at": AT, "place": Place.FREEZER, "run": "a-run"}
    return PuttingAway(**(said | more))


def test_a_block_of_a_dough_is_what_its_step_has_left():
    plan = divided()
    of = ("Station croissant", plan, offers(plan, KITCHEN))
    block = put_away(put(stop="divide", which=Which.OTHER, lots="L-208"), KITCHEN, of)
    assert (block.turns, block.next_step, block.part, block.lots) == (2, "Turn 3", True, "L-208")
    assert block.best_before == AT + timedelta(days=7)
    half = put_away(put(stop="turn-2", grams=1000.0), KITCHEN, of)
    assert half.butter_g == pytest.approx(1000 * 650 / 3050, abs=0.2)
    firm = replace(put(stop="turn-2"), place=Place.FRIDGE)
    assert put_away(firm, KITCHEN, of).best_before == AT + timedelta(hours=24)


def test_more_than_there_is_and_a_step_that_leaves_nothing_are_refused():
    plan = divided()
    of = ("Station croissant", plan, offers(plan, KITCHEN))
    for said, field in ((put(stop="turn-2", grams=4000.0), "grams"), (put(stop="gone"), "stop")):
        with pytest.raises(Faults) as wrong:
            put_away(said, KITCHEN, of)
        assert wrong.value.faults[0].field == field


def test_what_is_entered_by_hand_says_that_its_allergens_are_not_known():
    said = put(run=None, name="Old trimmings", grams=400.0, holds=Holds.TRIMMINGS)
    block = put_away(said, KITCHEN)
    assert "not known" in block.contains
    assert block.best_before == AT + timedelta(days=14)
    with pytest.raises(Faults) as wrong:
        put(run=None)
    assert {f.field for f in wrong.value.faults} == {"name", "grams"}
