"""What the book teaches: held against kitchens whose true values are known."""

import random
import statistics
from dataclasses import replace
from datetime import timedelta

import pytest

from lamination.findings import taught
from lamination.run import EventKind, Verdict
from tests.lamination.findings.simulated import KITCHEN, record


def slower(of, times, stop_kind="turn"):
    """The record again, every step of a kind taking so many times as long: all that follows comes later."""
    late, events = timedelta(0), []
    stops = {s.key: s for s in of.worked.strip}
    before = of.started_at
    for e in of.events:
        if e.kind is EventKind.DONE and e.tray is None and stops[e.stop].do == stop_kind:
            late += (e.at - before) * (times - 1)
        if e.kind in (EventKind.DONE, EventKind.OUT):
            before = e.at
        events.append(replace(e, at=e.at + late))
    return replace(of, events=tuple(events))


def records(n, times=1.0, seed=0):
    return [slower(record(None, seed + k, readings=False), times) for k in range(n)]


def test_steps_that_take_twice_as_long_are_offered_drawn_towards_what_is_in_use():
    rows = {t.key: t for t in taught(records(10, 2.0), KITCHEN)}
    turn = rows["minutes.turn"]
    assert turn.n == 30
    assert turn.now == KITCHEN["minutes.turn"]
    assert turn.low <= turn.middle <= turn.high
    assert turn.offered == pytest.approx((30 * turn.middle + 5 * turn.now) / 35, abs=0.06)
    assert 1.6 < turn.offered / turn.now < 2.2


def test_a_kitchen_that_is_right_is_taught_nothing_and_few_records_teach_nothing():
    assert "minutes.turn" not in {t.key for t in taught(records(10), KITCHEN)}
    assert taught(records(1, 3.0), KITCHEN) == ()
    assert taught([], KITCHEN) == ()


def test_what_is_taught_once_and_taken_is_not_taught_again():
    rows = taught(records(10, 2.0), KITCHEN)
    turn = next(t for t in rows if t.key == "minutes.turn")
    taken = KITCHEN.changed({turn.key: turn.offered})
    again = {t.key: t for t in taught(records(10, 2.0), taken)}
    assert turn.key not in again or abs(again[turn.key].offered - turn.offered) < 0.2 * turn.offered


def test_the_true_value_lies_within_the_spread_nine_times_in_ten():
    """Of kitchens whose steps truly take some time: whether it lies where eight of ten records do."""
    dice = random.Random(4)
    held = []
    for seed in range(12):
        times = dice.uniform(1.4, 2.6)
        rows = {t.key: t for t in taught(records(6, times, seed * 10), KITCHEN)}
        if turn := rows.get("minutes.turn"):
            true = times * KITCHEN["minutes.turn"] * statistics.fmean((0.9, 1.15))
            held.append(turn.low <= true <= turn.high)
    assert len(held) >= 10
    assert sum(held) / len(held) >= 0.9


def test_what_pieces_lose_in_the_oven_is_learnt_from_those_that_were_weighed():
    def weighed(n):
        of = record(None, n, readings=False)
        last = of.events[-1]
        verdict = replace(last, id="verdict-001", kind=EventKind.VERDICT, stop=None, tray=None,
                          verdict=Verdict(before_g=60.0, after_g=60.0 * 0.8))  # fmt: skip
        return replace(of, events=(*of.events, verdict))

    loss = {t.key: t for t in taught([weighed(n) for n in range(6)], KITCHEN)}["bake.loss_pct"]
    assert loss.middle == pytest.approx(20)
    assert loss.n == 6
