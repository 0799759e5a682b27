"""A plan through its temperatures: windows, clocks and advice as a baker would expect them."""

import re
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.dough.formula import Development, Mixing
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Dough, Final
from lamination.terms.limits import Faults
from lamination.terms.rests import Place, Rest, Stay
from lamination.warmth.cold import Measured, Today, follow
from lamination.warmth.proof import proof_of
from lamination.warmth.rest import Cause, relaxing_min
from lamination.warmth.warmth import work_warmth

from .formulas import formula
from .plans import station, turns

FRIDGE = Rest(Place.FRIDGE, 40)


def dough(**changes):
    """A croissant dough with a formula, a chill overnight and a rest after every turn."""
    base = station(
        formula=formula(),
        dough=Dough(2400, rest=Rest(Place.FRIDGE, 720)),
        turns=turns("letter", "letter", "letter", rest=FRIDGE),
        final=Final(4, width_mm=400, rest=Rest(Place.FRIDGE, 12)),
    )
    return replace(base, **changes)


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


def test_a_warmer_room_shortens_the_work_and_lengthens_the_cooling():
    lasts = [clock(dough(), "turn-2", room).lasts_min for room in (17, 22, 29)]
    assert lasts[0] > lasts[1] > lasts[2]
    # chilled thin and warm from the bench, the slab of a hot day takes longer
    cool = [window(dough(), "dough", room).soonest_min for room in (17, 22, 29)]
    assert cool[0] < cool[1] < cool[2]
    latest = [window(dough(), "turn-2", room).latest_min for room in (17, 22)]
    assert latest[0] < latest[1]


def test_three_rooms_three_different_sentences():
    says = {room: work_warmth(dough(), Kitchen(), Today(room_c=room)) for room in (17, 22, 29)}
    assert "shorter or milder" in says[17].summary
    assert says[22].can
    assert "quick hands" in says[29].summary or not says[29].can
    hot = work_warmth(dough(), Kitchen(), Today(room_c=38))
    assert not hot.can
    assert "does not work as it stands" in hot.summary
    assert len({w.summary for w in says.values()}) == 3


def test_a_freezer_turns_the_butter_brittle_before_the_dough_has_relaxed():
    frozen = dough(turns=turns("letter", "letter", "letter", rest=Rest(Place.FREEZER, 30)))
    found = window(frozen, "turn-1")
    assert found.latest_by is Cause.BRITTLE
    assert found.latest_min < found.soonest_min
    note = next(n for n in work_warmth(frozen, Kitchen()).notes if n.stop == "turn-1")
    assert any(fix.label == "Fridge in place of freezer" for fix in note.fixes)


def test_freezer_first_and_then_the_fridge_cools_sooner_than_the_fridge_alone():
    both = Rest(Place.FRIDGE, 40, first=Stay(Place.FREEZER, 10))
    chained = dough(turns=turns("letter", "letter", "letter", rest=both))
    assert window(chained, "turn-1").butter_c < window(dough(), "turn-1").butter_c - 0.5
    places = [s.place for s in follow(chained, Kitchen()).stretches if s.stop == "turn-1"]
    assert places == [Place.BENCH, Place.BENCH, Place.FREEZER, Place.FRIDGE]
    tempered = Rest(Place.FRIDGE, 40, last=Stay(Place.BENCH, 15))
    warmer = dough(turns=turns("letter", "letter", "letter", rest=tempered))
    assert window(warmer, "turn-1").butter_c > window(dough(), "turn-1").butter_c


def test_the_parts_of_a_rest_are_never_longer_than_the_rest():
    with pytest.raises(Faults, match="The whole rest is 20 min"):
        Rest(Place.FRIDGE, 20, first=Stay(Place.FREEZER, 15), last=Stay(Place.BENCH, 10))
    assert Rest(Place.FRIDGE, 20, first=Stay(Place.FREEZER, 20)).stays == (Stay(Place.FREEZER, 20),)


def test_relaxing_follows_fold_order_flour_and_mixing():
    kitchen = Kitchen()
    plain = station(turns=turns("letter", "book", "letter", rest=FRIDGE))
    assert relaxing_min(plain, "turn-1", kitchen) == 20
    assert relaxing_min(plain, "turn-2", kitchen) == 30
    assert relaxing_min(plain, "turn-3", kitchen) == 30  # 20, and 10 before the last roll
    one, two, three = plain.turns
    together = replace(plain, turns=(replace(one, rest=None), two, three))
    assert relaxing_min(together, "turn-2", kitchen) == 35
    full = replace(plain, formula=formula(mixing=Mixing(development=Development.FULL)))
    short = replace(plain, formula=formula(mixing=Mixing(development=Development.SHORT)))
    assert relaxing_min(full, "turn-1", kitchen) > relaxing_min(short, "turn-1", kitchen)


def test_a_dough_kept_too_warm_wakes_and_says_so():
    warm = dough(turns=turns("letter", "letter", "letter", rest=Rest(Place.BENCH, 90)))
    found = window(warm, "turn-3", room=26)
    assert (found.verdict, found.latest_by) == ("late", Cause.WAKING)
    assert "yeast" in found.says
    puff = replace(warm, formula=None)
    assert window(puff, "turn-3", room=26).latest_by is not Cause.WAKING


def test_measured_warmth_takes_the_place_of_the_model_s():
    cold = follow(dough(), Kitchen(), Today(starts=(Measured("turn-2", 3.0),)))
    warm = follow(dough(), Kitchen(), Today(starts=(Measured("turn-2", 15.0),)))
    lasts = [next(c for c in f.clocks if c.stop == "turn-2").lasts_min for f in (cold, warm)]
    assert lasts[0] is None or lasts[0] > lasts[1]
    went_in = follow(dough(), Kitchen(), Today(starts=(Measured("turn-2", 18.0, resting=True),)))
    ours = next(w for w in went_in.windows if w.stop == "turn-2")
    plain = next(w for w in follow(dough(), Kitchen()).windows if w.stop == "turn-2")
    assert ours.butter_c > plain.butter_c


def test_early_late_and_good_are_said_with_their_reason():
    short = dough(turns=turns("letter", "letter", "letter", rest=Rest(Place.FRIDGE, 5)))
    early = window(short, "turn-1")
    assert early.verdict == "early"
    assert early.says.startswith(f"Wait {round(early.soonest_min - 5)} more minutes")
    late = window(dough(turns=turns(*["letter"] * 3, rest=Rest(Place.FRIDGE, 240))), "turn-1")
    assert (late.verdict, late.latest_by) == ("late", Cause.BRITTLE)
    assert late.temper_min > 0


def taken(plan, fix):
    for put in fix.puts:
        head, _, name = put.field.rpartition(".")
        if head.startswith("turns"):
            i = int(head[6:-1])
            changed = replace(plan.turns[i], **{name: put.value})
            plan = replace(plan, turns=(*plan.turns[:i], changed, *plan.turns[i + 1 :]))
        else:
            plan = replace(plan, **{head: replace(getattr(plan, head), **{name: put.value})})
    return plan


@settings(max_examples=8)
@given(st.integers(16, 27), st.integers(4, 200))
def test_a_rest_that_is_offered_is_in_its_window(room, minutes):
    plan = dough(turns=turns("letter", "letter", "letter", rest=Rest(Place.FRIDGE, minutes)))
    today = Today(room_c=room)
    for note in work_warmth(plan, Kitchen(), today).notes:
        for fix in note.fixes:
            after = taken(plan, fix)
            if fix.label.startswith("Rest ") and not fix.label.startswith("Rest before"):
                found = follow(after, Kitchen(), today).windows
                assert next(w for w in found if w.stop == note.stop).verdict == "good"


def test_a_short_work_clock_offers_ways_that_lengthen_it():
    plan = dough(turns=turns("letter", "letter", "letter", rest=Rest(Place.FRIDGE, 20)))
    today = Today(room_c=30)
    worked = work_warmth(plan, Kitchen(), today)
    note = next(n for n in worked.notes if n.title.endswith("too soft") and n.fixes)
    before = next(c for c in worked.clocks if c.stop == note.stop).lasts_min
    for fix in note.fixes:
        after = work_warmth(taken(plan, fix), Kitchen(), today)
        lasts = next(c for c in after.clocks if c.stop == note.stop).lasts_min
        assert lasts is None or lasts > before


def test_what_two_degrees_would_change_is_said_when_asked():
    assert work_warmth(dough(), Kitchen()).warmer == ""
    assert "min less at" in work_warmth(dough(), Kitchen(), Today(room_c=24), what_if=True).warmer


def test_a_fridge_warmer_than_the_room_is_noted_not_refused():
    found = work_warmth(dough(), Kitchen(), Today(room_c=10, fridge_c=12))
    assert any(n.title == "The fridge is warmer than the room" for n in found.notes)
    with pytest.raises(Faults, match="from -60 to 60 °C"):
        Today(room_c=-300)


def test_a_proof_counts_the_warming_up_and_minds_the_butter():
    proof = proof_of(dough(), Kitchen())
    assert 100 < proof.chilled_min < proof.frozen_min
    cooler = proof_of(dough(), Kitchen({"proofer.c": 22}))
    assert cooler.chilled_min > proof.chilled_min
    hot = proof_of(dough(), Kitchen({"proofer.c": 34}))
    assert hot.limit_c == 28
    assert "too warm for this butter" in hot.says
    assert proof_of(replace(dough(), formula=None), Kitchen()) is None
    for used in range(0, 60, 7):
        said = proof_of(dough(), Kitchen(), used).says
        assert all(int(m) < 60 for m in re.findall(r" h (\d\d)", said)), said


def test_the_proof_is_said_at_the_cut_and_shorter_where_the_yeast_has_worked():
    found = work_warmth(dough(), Kitchen(), Today(room_c=27))
    note = next(n for n in found.notes if n.stop == "cut")
    assert note.title == "Then the proof"
    assert f"{round(found.yeast_used_pct)} % of a proof is used up by now" in note.text
    assert found.proof.chilled_min < proof_of(dough(), Kitchen()).chilled_min
    hot = work_warmth(dough(), Kitchen({"proofer.c": 34}))
    assert next(n for n in hot.notes if n.stop == "cut").tone == "mind"


def test_a_plan_without_a_formula_has_windows_too():
    found = follow(station(), Kitchen())
    assert [w.stop for w in found.windows] == ["turn-1", "turn-2", "turn-3"]
    assert found.yeast_used_pct is None
