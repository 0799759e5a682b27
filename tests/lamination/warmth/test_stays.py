"""A rest is where it lies, one place after another: followed so, judged as a whole, called at each change."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.fixes import taken
from lamination.plan.starts import starting_finish
from lamination.plan.work import work
from lamination.run.called import called
from lamination.run.events import Event, EventKind
from lamination.run.standing import stand
from lamination.steps.shape import Shaping
from lamination.steps.wash import Washing
from lamination.terms.rests import Rest, Stay
from lamination.terms.said import plain
from lamination.terms.trade import Family, Place
from lamination.warmth.follow import follow
from lamination.warmth.warmth import work_warmth
from lamination.warmth.windows import Cause
from tests.lamination.integrated import independent
from tests.plans import formula, station, turns

KITCHEN = Kitchen()
FRIDGE, FREEZER, BENCH, PROOFER = Place.FRIDGE, Place.FREEZER, Place.BENCH, Place.PROOFER


def proofed(*stays, wash=None):
    """A croissant whose shaped pieces rest so, and again after the wash."""
    shape, washing, *after = starting_finish(Family.CROISSANT)
    assert isinstance(washing, Washing)
    finish = (replace(shape, rest=Rest(stays)), replace(washing, rest=wash), *after)
    return station(formula=formula(), finish=finish)


def turned(*stays):
    return station(
        formula=formula(), turns=turns("letter", "letter", roll_to_mm=9, rest=Rest(stays))
    )


def window(plan, stop, **kitchen):
    found = follow(plan, KITCHEN.changed(kitchen) if kitchen else KITCHEN)
    return next(w for w in found.windows if w.stop == stop)


# --- which stay gives


@given(st.lists(st.tuples(st.sampled_from(list(Place)), st.integers(0, 400)), min_size=1, max_size=5),
       st.integers(0, 2_000), st.booleans())  # fmt: skip
def test_another_length_is_reached_by_one_stay_and_by_cutting_only_what_is_too_long(
    stays, minutes, proofs
):
    rest = Rest(tuple(Stay(*s) for s in stays))
    made = rest.lasting(minutes, proofs)
    assert made.minutes == pytest.approx(minutes)
    changed = [n for n, (a, b) in enumerate(zip(rest.stays, made.stays, strict=True)) if a != b]
    others = rest.minutes - rest.stays[rest.gives(proofs)].minutes
    if minutes >= others:
        assert changed in ([], [rest.gives(proofs)])
    assert [s.place for s in made.stays] == [s.place for s in rest.stays]


def test_the_longest_gives_and_of_a_proof_the_last_warm_one():
    night = Rest((Stay(FRIDGE, 720), Stay(PROOFER, 150), Stay(FRIDGE, 15)))
    assert (night.gives(), night.gives(proofs=True)) == (0, 1)
    assert Rest((Stay(FREEZER, 600), Stay(FRIDGE, 30))).gives(proofs=True) == 0


# --- judged as a whole


def test_a_night_in_the_fridge_and_then_the_proofer_is_one_proof():
    chain = window(proofed(Stay(FRIDGE, 720), Stay(PROOFER, 120)), "shape")
    # as long as the same in the proofer alone, less what it rose by in the night
    alone = window(proofed(Stay(PROOFER, 165)), "shape")
    assert alone.best_min * 0.5 < chain.best_min - 720 < alone.best_min * 1.5
    assert chain.verdict in ("good", "tight")
    short = window(proofed(Stay(FRIDGE, 720), Stay(PROOFER, 10)), "shape")
    assert (short.verdict, short.by) == ("short", Cause.PROOF)


def test_pieces_frozen_for_ten_hours_proof_from_frozen():
    frozen = proofed(Stay(FREEZER, 600), Stay(PROOFER, 150))
    found = follow(frozen, KITCHEN)
    at = [m for m, t in zip(found.trace.minutes, found.trace.middle_c, strict=True) if t < -10]
    began = found.began["shape"].minute
    assert at
    assert 570 < max(at) - began < 616
    chilled = window(proofed(Stay(FRIDGE, 600), Stay(PROOFER, 150)), "shape")
    assert window(frozen, "shape").best_min > chilled.best_min + 20


def test_a_chill_after_the_proof_is_a_part_of_it():
    scored = window(proofed(Stay(PROOFER, 150), Stay(FRIDGE, 15)), "shape")
    assert scored.middle_c < window(proofed(Stay(PROOFER, 150)), "shape").middle_c
    # it rises on while it cools: so the proof before it is shorter, and the whole longer
    alone = window(proofed(Stay(PROOFER, 150)), "shape")
    assert alone.best_min < scored.best_min < alone.best_min + 15


def test_two_rests_on_the_way_to_the_oven_are_one_proof_judged_at_the_last():
    washed = proofed(Stay(PROOFER, 100), wash=Rest.at(PROOFER, 50))
    windows = {w.stop for w in follow(washed, KITCHEN).windows}
    assert "wash" in windows
    assert "shape" not in windows
    whole = window(proofed(Stay(PROOFER, 150)), "shape")
    assert window(washed, "wash").reached_pct == pytest.approx(whole.reached_pct, abs=6)
    # and the end of the first is no proof's end
    says = [plain(a.says) for s in work(washed).strip for a in s.alarms if a.after == "done"]
    assert says.count("the proof's time is up, look at the signs") == 1


def test_what_comes_out_of_the_freezer_to_thaw_is_not_frozen():
    frozen = window(turned(Stay(FREEZER, 90)), "turn-1")
    assert frozen.verdict == "long"
    assert frozen.by in (Cause.FROZEN, Cause.BRITTLE)
    thawed = window(turned(Stay(FREEZER, 90), Stay(FRIDGE, 600), Stay(BENCH, 20)), "turn-1")
    assert thawed.by not in (Cause.FROZEN, Cause.BRITTLE)


@pytest.mark.parametrize("n", [1, 2, 3])
def test_every_fix_of_a_rest_of_several_stays_clears_it(n):
    stays = (Stay(FREEZER, 60), Stay(FRIDGE, 20), Stay(FREEZER, 30))[:n]
    plan = turned(*stays)
    for note in work_warmth(plan, KITCHEN).notes:
        for fix in note.fixes if note.code.startswith("rest") else ():
            after = work_warmth(taken(plan, fix), KITCHEN, fixes=False).notes
            assert (note.stop, "mind") not in {(x.stop, x.tone) for x in after if "rest" in x.code}


def test_the_same_stay_in_two_halves_is_the_same_rest():
    whole, halves = turned(Stay(FRIDGE, 40)), turned(Stay(FRIDGE, 20), Stay(FRIDGE, 20))
    a, b = window(whole, "turn-1"), window(halves, "turn-1")
    assert (a.middle_c, a.butter_c) == pytest.approx((b.middle_c, b.butter_c), abs=0.02)
    assert a.verdict == b.verdict
    ours = follow(whole, KITCHEN).trace.middle_c[-1]
    assert ours == pytest.approx(follow(halves, KITCHEN).trace.middle_c[-1], abs=0.02)


# --- how it lies there


def test_the_air_of_a_stay_counts_before_the_shaping_too():
    usual, cool = (
        window(turned(Stay(BENCH, 30)), "turn-1"),
        window(turned(Stay(BENCH, 30, air_c=10)), "turn-1"),
    )
    assert cool.butter_c < usual.butter_c - 1
    cellar = window(turned(Stay(FRIDGE, 60, air_c=12)), "turn-1")
    assert cellar.middle_c > window(turned(Stay(FRIDGE, 60)), "turn-1").middle_c + 2


def test_a_dough_that_lies_open_takes_the_cold_sooner_and_a_covered_piece_the_warmth_later():
    covered = window(turned(Stay(FRIDGE, 25)), "turn-1")
    assert window(turned(Stay(FRIDGE, 25, covered=False)), "turn-1").middle_c < covered.middle_c
    open_ = window(proofed(Stay(FREEZER, 120), Stay(PROOFER, 120)), "shape")
    bagged = window(proofed(Stay(FREEZER, 120), Stay(PROOFER, 120, covered=True)), "shape")
    assert bagged.best_min > open_.best_min


def test_a_cabinet_that_cools_the_night_and_warms_at_four_against_an_independent_integration():
    night = (
        Stay(PROOFER, 480, air_c=4),
        Stay(PROOFER, 120, air_c=4, to_c=27),
        Stay(PROOFER, 90, air_c=27),
    )
    found = follow(proofed(*night), KITCHEN)
    began = found.began["shape"]
    courses = [(480, 4, 4), (120, 4, 27), (90, 27, 27)]
    theirs = independent(began.body, KITCHEN["proofer.film"], courses)
    at, courses_at = began.minute, []
    for stay in night:
        course = next(c for start, c, _, _ in found.seen if start == pytest.approx(at))
        moments = np.linspace(0, stay.minutes, 13)[1:]
        courses_at += list(course.end.middle_of(course.at(moments)))
        at += stay.minutes
    assert np.abs(np.array(courses_at) - theirs).max() < 0.15
    assert theirs[11] == pytest.approx(4, abs=0.5)
    assert theirs[-1] > 20


# --- until it is so warm


def test_a_stay_may_end_by_the_warmth_of_its_middle():
    def turned(*stays):
        # without yeast, which would rise meanwhile
        return station(turns=turns("letter", "letter", roll_to_mm=9, rest=Rest(stays)))

    plan = turned(Stay(FRIDGE, 30, until_c=9), Stay(BENCH, 10))
    found = follow(plan, KITCHEN)
    until = next(u for u in found.until if u.stop == "turn-1")
    # it is there when a rest of so many minutes ends at 9 °C
    exact = turned(Stay(FRIDGE, round(until.there_min), until_c=9), Stay(BENCH, 10))
    again = next(u for u in follow(exact, KITCHEN).until if u.stop == "turn-1")
    assert again.end_c == pytest.approx(9, abs=0.15)
    notes = work_warmth(plan, KITCHEN).notes
    note = next(n for n in notes if n.key == ("turn-1", "until"))
    assert note.tone == "know"
    mended = taken(plan, note.fixes[0])
    assert mended.turns[0].rest.stays[0].minutes == round(until.there_min)
    assert not [n for n in work_warmth(mended, KITCHEN).notes if n.key == note.key]
    assert rings(plan)[0] == (30, "is its middle at 9 °C? Then onto the bench, 10 min")


def test_what_is_never_reached_is_minded_and_what_warms_counts_too():
    never = turned(Stay(FRIDGE, 30, until_c=-3))
    note = next(n for n in work_warmth(never, KITCHEN).notes if n.code == "until")
    assert (note.tone, note.fixes) == ("mind", ())
    frozen = turned(Stay(FREEZER, 240), Stay(BENCH, 5, until_c=2))
    until = next(u for u in follow(frozen, KITCHEN).until if u.stop == "turn-1")
    assert until.there_min > 20
    (_, (_, last), *_) = rings(frozen)
    assert last == "is its middle at 2 °C? Then take it out"


# --- called at each change

START = datetime(2026, 3, 6, 20, 0, tzinfo=UTC)


def rings(plan, *more):
    """What rings of the rest after the first turn, min from when it went in."""
    worked = work(plan)
    keys = [s.key for s in worked.strip]
    done = keys[: keys.index("turn-1") + 1]
    events: list[Event] = []
    for n, key in enumerate(done):
        events.append(Event(f"done-{n:04}", START, EventKind.DONE, key))
        stop = worked.stop(key)
        if stop.rest and key != "turn-1":
            events.append(Event(f"out-{n:05}", START, EventKind.OUT, key))
    now = stand(worked, START, (*events, *more))
    assert now.stop == "turn-1"
    return [
        (round((one.at - START) / timedelta(minutes=1)), plain(one.says))
        for one in called(worked, now)
    ]


def test_each_change_is_called_and_after_the_stay_that_gives_from_the_end():
    plan = turned(Stay(FREEZER, 10), Stay(FRIDGE, 40), Stay(BENCH, 15))
    assert rings(plan) == [
        (10, "into the fridge now, 40 min"),
        (50, "onto the bench now, 15 min"),
        (65, "its time is up, take it out"),
    ]
    longer = Event("rest-0001", START, EventKind.REST, "turn-1", minutes=95)
    assert [at for at, _ in rings(plan, longer)] == [10, 80, 95]


def test_a_cabinet_set_anew_is_called_by_its_setting():
    plan = turned(Stay(PROOFER, 60, air_c=6), Stay(PROOFER, 30, air_c=18))
    assert rings(plan)[0] == (60, "set the proofer to 18 °C, 30 min")
    assert [plain(stay.where) for stay in plan.turns[0].rest.stays] == [
        "in the proofer at 6 °C", "in the proofer at 18 °C",
    ]  # fmt: skip


def test_the_bench_reads_every_setting_of_the_proofer():
    plan = proofed(Stay(PROOFER, 480, air_c=4), Stay(PROOFER, 120, air_c=4, to_c=27))
    does = " ".join(plain(t) for t in work(plan).stop("shape").does)
    assert "Proofer at 4 °C, " in does
    assert "Proofer at 4 °C to 27 °C, " in does
    assert plan.first(Shaping).gives == 1
