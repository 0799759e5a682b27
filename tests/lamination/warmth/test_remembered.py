"""What is remembered of a plan's warmth: only what a change cannot have touched."""

from dataclasses import replace

import pytest

from bakehouse.demo.teasel_lock import KITCHEN, MARKET
from lamination.terms.rests import Rest, Stay
from lamination.terms.trade import Place
from lamination.warmth.follow import follow
from lamination.warmth.rests import asked, judged

SWINGING = KITCHEN.changed({"room.swing_k": 8})


def by_stop(found):
    return {w.stop: w for w in found.windows}


def test_a_thinner_last_roll_leaves_the_rests_before_it_as_they_were():
    last = MARKET.last_sheet
    before = by_stop(follow(MARKET, KITCHEN))
    after = by_stop(follow(MARKET.changed(last, roll_to_mm=last.roll_to_mm - 0.2), KITCHEN))
    turns = [t.id for t in MARKET.turns]
    assert {stop: after[stop] for stop in turns} == {stop: before[stop] for stop in turns}
    assert after[last.id] != before[last.id]


def test_a_warmer_fridge_is_another_rest():
    first = MARKET.turns[0].id
    cold = by_stop(follow(MARKET, KITCHEN))[first]
    warm = by_stop(follow(MARKET, KITCHEN.changed({"fridge.c": 7})))[first]
    assert warm.butter_c > cold.butter_c


@pytest.mark.parametrize("n", [0, -1])
def test_a_tempered_rest_is_judged_by_the_room_at_its_hour_whoever_asks(n):
    turn = MARKET.turns[n]
    rest = Rest((Stay(Place.FREEZER, 40), Stay(Place.BENCH, 20)))
    plan = MARKET.changed(turn, rest=rest)
    found = follow(plan, SWINGING)
    judged.cache_clear()
    again = judged(found.scene, found.began[turn.id], asked(found.walk, plan.at(turn.id), rest))
    assert again == by_stop(found)[turn.id]
    # as it would be at the plan's start, in another room
    early = replace(found.began[turn.id], minute=0.0)
    assert judged(found.scene, early, asked(found.walk, plan.at(turn.id), rest)) != again
