"""A plan through its temperatures: windows, clocks and advice as a baker would expect them."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.fixes import taken
from lamination.plan.starts import starting_plan
from lamination.steps.flatten import Flattening
from lamination.steps.last_sheet import LastSheet
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest, Stay
from lamination.terms.said import plain
from lamination.terms.trade import Family, Place
from lamination.warmth.bodies import Measured, Today
from lamination.warmth.follow import follow
from lamination.warmth.warmth import work_warmth
from lamination.warmth.windows import Cause
from tests.plans import changed, formula, station, turns

FRIDGE = Rest.at(Place.FRIDGE, 40)


def dough(**changes):
    """A croissant dough with a formula, a chill overnight and a rest after every turn."""
    base = station(
        formula=formula(),
        flatten=Flattening(rest=Rest.at(Place.FRIDGE, 720)),
        turns=turns("letter", "letter", "letter", rest=FRIDGE),
        last_sheet=LastSheet(4, width_mm=400, rest=Rest.at(Place.FRIDGE, 12)),
    )
    return changed(base, **changes)


def rested(rest=None, minutes=40, place=Place.FRIDGE):
    rest = rest or Rest.at(place, minutes)
    return dough(turns=turns("letter", "letter", "letter", rest=rest))


def window(plan, stop, room=21.0, **kitchen):
    found = follow(plan, Kitchen(kitchen), Today(room_c=room))
    return next(w for w in found.windows if w.stop == stop)


def clock(plan, stop, room):
    return next(c for c in follow(plan, Kitchen(), Today(room_c=room)).clocks if c.stop == stop)


def test_the_clock_runs_without_gaps_from_the_mixer_to_the_cut():
    found = follow(dough(), Kitchen())
    assert found.stretches[0].from_min == 0
    for before, after in zip(found.stretches, found.stretches[1:], strict=False):
        assert after.from_min == pytest.approx(before.to_min)
    assert found.trace.minutes == tuple(sorted(found.trace.minutes))
    assert len(found.trace.minutes) == len(found.trace.middle_c) == len(found.trace.cells_c)
    assert found.trace.butter_c[0] is None
    assert found.trace.butter_c[-1] is not None


def test_a_warmer_room_shortens_the_work():
    lasts = [clock(dough(), "turn-2", room).lasts_min for room in (20, 25, 30)]
    assert lasts == sorted(lasts, reverse=True)
    assert lasts[0] > lasts[-1]


def test_three_rooms_are_told_apart_and_the_hottest_does_not_work():
    cool, warm, hot = (work_warmth(dough(), Kitchen(), Today(room_c=room)) for room in (18, 27, 38))
    assert cool.works == "yes"
    assert hot.works == "no"
    assert len({cool.summary, warm.summary, hot.summary}) == 3
    assert any(n.tone == "mind" for n in hot.notes)


def test_a_freezer_ends_the_window_by_brittle_or_frozen_butter():
    found = window(rested(place=Place.FREEZER, minutes=90), "turn-1")
    assert found.verdict == "long"
    assert found.by in (Cause.BRITTLE, Cause.FROZEN)
    note = next(n for n in work_warmth(rested(place=Place.FREEZER, minutes=90), Kitchen()).notes
                if n.stop == "turn-1")  # fmt: skip
    assert note.fixes


def test_freezer_first_and_then_the_fridge_cools_sooner_than_the_fridge_alone():
    chained = rested(Rest((Stay(Place.FREEZER, 10), Stay(Place.FRIDGE, 30))))
    assert window(chained, "turn-1").butter_c < window(dough(), "turn-1").butter_c - 0.5
    places = [s.place for s in follow(chained, Kitchen()).stretches if s.stop == "turn-1"]
    assert places[-2:] == [Place.FREEZER, Place.FRIDGE]
    tempered = rested(Rest((Stay(Place.FRIDGE, 25), Stay(Place.BENCH, 15))))
    assert window(tempered, "turn-1").butter_c > window(dough(), "turn-1").butter_c


def test_a_rest_has_a_place_and_lasts_a_week_at_most():
    with pytest.raises(Faults, match="Nothing is entered"):
        Rest(())
    with pytest.raises(Faults, match="whole rest") as wrong:
        Rest((Stay(Place.FREEZER, 9_000), Stay(Place.FRIDGE, 2_000)))
    assert wrong.value.faults[0].field == "stays[1].minutes"
    empty_first = Rest((Stay(Place.FREEZER, 0), Stay(Place.FRIDGE, 20)))
    assert (empty_first.begins, empty_first.minutes) == (Place.FRIDGE, 20)


def test_measured_warmth_takes_the_place_of_the_model_s():
    cold = follow(dough(), Kitchen(), Today(starts=(Measured("turn-2", 3.0),)))
    warm = follow(dough(), Kitchen(), Today(starts=(Measured("turn-2", 15.0),)))
    lasts = [next(c for c in f.clocks if c.stop == "turn-2").lasts_min for f in (cold, warm)]
    assert lasts[0] is None or lasts[0] > lasts[1]
    went_in = follow(dough(), Kitchen(), Today(starts=(Measured("turn-2", 18.0, resting=True),)))
    ours = next(w for w in went_in.windows if w.stop == "turn-2")
    modelled = next(w for w in follow(dough(), Kitchen()).windows if w.stop == "turn-2")
    assert ours.butter_c > modelled.butter_c


def test_too_short_is_said_with_its_reason_and_a_rest_that_is_good():
    short = rested(minutes=4)
    found = window(short, "turn-1")
    assert (found.verdict, found.by) == ("short", Cause.RELAXING)
    note = next(n for n in work_warmth(short, Kitchen()).notes if n.stop == "turn-1")
    assert note.fixes
    assert window(taken(short, note.fixes[0]), "turn-1").verdict in ("good", "tight")


@settings(max_examples=4, deadline=None)
@given(st.integers(16, 30), st.integers(3, 240), st.sampled_from([Place.FRIDGE, Place.FREEZER]))
def test_every_way_out_that_is_offered_clears_what_it_was_offered_for(room, minutes, place):
    plan, today = rested(minutes=minutes, place=place), Today(room_c=room)
    for note in work_warmth(plan, Kitchen(), today).notes:
        for fix in note.fixes:
            after = work_warmth(taken(plan, fix), Kitchen(), today, fixes=False)
            still = [n for n in after.notes if (n.code, n.stop) == (note.code, note.stop)]
            assert not [n for n in still if n.tone == "mind"], fix.label


def test_what_two_degrees_would_change_is_said_when_asked():
    assert work_warmth(dough(), Kitchen()).warmer == ""
    assert work_warmth(dough(), Kitchen(), Today(room_c=24), what_if=True).warmer


def test_a_fridge_warmer_than_the_room_is_noted_not_refused():
    found = work_warmth(dough(), Kitchen(), Today(room_c=10, fridge_c=12))
    assert any("fridge is warmer" in plain(n.title).lower() for n in found.notes)
    with pytest.raises(Faults, match="from"):
        Today(room_c=-300)


@pytest.mark.parametrize("family", list(Family))
def test_what_every_family_starts_from_works_in_a_usual_room(family):
    plan = starting_plan("New", family, 2000, Kitchen())
    found = work_warmth(plan, Kitchen(), Today(room_c=21))
    assert found.works != "no", plain(found.summary)
    assert [n.code for n in found.notes if n.tone == "mind"] == []


def test_a_plan_without_a_formula_has_windows_too():
    found = follow(station(), Kitchen())
    assert [w.stop for w in found.windows] == ["turn-1", "turn-2", "turn-3"]
    assert found.rise_pct is None


def test_a_warm_dough_rises_more():
    def rise(room):
        trace = follow(dough(), Kitchen(), Today(room_c=room)).trace
        return max(r for r in trace.rise_pct if r is not None)

    assert rise(29) > rise(17)


def test_an_own_step_between_the_turns_is_followed_like_any_other():
    from lamination.steps.own import OwnStep

    plan = dough()
    n = next(i for i, s in enumerate(plan.steps) if s.id == "turn-2")
    own = OwnStep("Mark the block", rest=Rest.at(Place.FREEZER, 15), bench_min=3)
    longer = replace(plan, steps=(*plan.steps[:n], own, *plan.steps[n:]))
    found = follow(longer, Kitchen())
    assert [w.stop for w in found.windows if w.stop.startswith("own")]
    before = next(c for c in follow(plan, Kitchen()).clocks if c.stop == "turn-2").lasts_min
    after = next(c for c in found.clocks if c.stop == "turn-2").lasts_min
    assert after is None or after > before
