"""Kinds of step: each found by itself, each in its place, and the baker's own among them."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import DEFAULTS
from lamination.plan.amend import amend
from lamination.plan.amendment import Amendment, Change
from lamination.plan.fixes import sound, taken
from lamination.plan.starts import starting_plan
from lamination.plan.work import work
from lamination.run.standing import planned_deeds
from lamination.steps import KINDS
from lamination.steps.own import OwnStep
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Family, Place, Tool
from lamination.warmth.bodies import Today
from lamination.warmth.warmth import work_warmth
from tests.plans import formula, station

KITCHEN = Kitchen()


def with_own(after="turn-1", **how):
    plan = station()
    n = next(i for i, s in enumerate(plan.steps) if s.id == after) + 1
    own = OwnStep("Stamp the lock's mark", words="Lower left corner.", **how)
    return replace(plan, steps=(*plan.steps[:n], own, *plan.steps[n:]))


def test_every_kind_says_what_it_is():
    for do, kind in KINDS.items():
        assert kind.do == do
        assert kind.name
        assert kind.caution.endswith(".") or not kind.caution
        assert f"minutes.{do}" in DEFAULTS or callable(kind.minutes)


def test_an_own_step_is_planned_said_and_run():
    worked = work(with_own(rest=Rest.at(Place.FRIDGE, 12), bench_min=3))
    stop = next(s for s in worked.strip if s.do == "own")
    assert (stop.name, stop.bench_min, stop.rest.minutes) == ("Stamp the lock's mark", 3, 12)
    assert plain(stop.does[0]) == "Stamp the lock's mark"
    assert stop.words == "Lower left corner."
    deeds = [(d.kind, d.stop) for d in planned_deeds(worked.strip)]
    assert deeds.count(("done", stop.key)) == deeds.count(("out", stop.key)) == 1


@pytest.mark.parametrize("after", ["dough", "lock_in", "turn-1", "turn-3"])
def test_an_own_step_changes_no_sheet_wherever_it_stands(after):
    bare, own = work(station()), work(with_own(after))
    assert own.layers == bare.layers
    assert own.final.size == bare.final.size
    assert own.total_min > bare.total_min


@pytest.mark.parametrize(
    ("order", "says"),
    [
        (("cut", "flatten"), "cut"),
        (("flatten", "turn", "lock_in"), "without butter"),
        (("lock_in", "flatten"), "needs"),
    ],
)
def test_steps_out_of_place_are_refused_in_a_sentence(order, says):
    plan = station()
    found = {s.do: s for s in plan.steps}
    rest = [s for s in plan.steps if s.do not in order]
    with pytest.raises(Faults) as wrong:
        replace(plan, steps=(*(found[do] for do in order), *rest))
    assert all(f.field.startswith("steps") for f in wrong.value.faults)
    assert all(plain(f.message).endswith(".") for f in wrong.value.faults)
    assert says in " ".join(f.message.lower() for f in wrong.value.faults)


@pytest.mark.parametrize("do", sorted(KINDS))
def test_a_step_of_any_kind_is_added_or_says_why_not(do):
    plan = station(formula=formula())
    for at in range(len(plan.steps) + 1):
        asked = Amendment(Change.ADD_STEP, index=at, ingredient=do)
        try:
            more = amend(plan, asked, KITCHEN)
        except Faults as wrong:
            assert all(plain(f.message).endswith(".") for f in wrong.faults)
        else:
            assert len(more.steps) == len(plan.steps) + 1
            assert len({s.id for s in more.steps}) == len(more.steps)


def test_ids_stay_when_a_step_is_moved_or_removed():
    plan = station()
    ids = [s.id for s in plan.steps]
    assert ids[:3] == ["dough", "lock_in", "turn-1"]
    fewer = replace(plan, steps=tuple(s for s in plan.steps if s.id != "turn-1"))
    assert [s.id for s in fewer.steps] == [i for i in ids if i != "turn-1"]
    again = replace(
        fewer, steps=(*fewer.steps[:2], replace(plan.turns[0], id=""), *fewer.steps[2:])
    )
    assert len({s.id for s in again.steps}) == len(again.steps)


@settings(max_examples=22, deadline=None)
@given(
    st.sampled_from(list(Family)),
    st.integers(500, 20_000),
    st.booleans(),
    st.sampled_from(list(Tool)),
)
def test_whatever_one_starts_from_is_scolded_for_nothing(family, grams, with_formula, tool):
    kitchen = Kitchen({"sheeter.belt_width_mm": 600} if tool is Tool.SHEETER else {})
    plan = starting_plan("New", family, grams, kitchen, with_formula, tool)
    notes = work(plan, kitchen).notes
    assert [plain(n.title) for n in notes if n.tone == "mind"] == []


@settings(max_examples=8)
@given(
    st.sampled_from(list(Family)),
    st.integers(500, 20_000),
    st.booleans(),
    st.sampled_from(list(Tool)),
    st.floats(18, 23),
)
def test_whatever_one_starts_from_is_good_in_a_usual_room(family, grams, with_formula, tool, room):
    kitchen = Kitchen({"sheeter.belt_width_mm": 600} if tool is Tool.SHEETER else {})
    plan = starting_plan("New", family, grams, kitchen, with_formula, tool)
    found = work_warmth(plan, kitchen, Today(room_c=room), fixes=False)
    assert {w.stop: w.verdict for w in found.windows if w.verdict != "good"} == {}
    assert [plain(n.title) for n in found.notes if n.tone == "mind"] == []
    assert found.works == "yes"


@settings(max_examples=11, deadline=None)
@given(
    st.sampled_from(list(Family)),
    st.integers(800, 12_000),
    st.integers(700, 2400),
    st.integers(400, 900),
    st.floats(0.6, 1.8),
)
def test_every_way_out_of_a_plan_clears_what_it_is_for(family, grams, long, wide, more_butter):
    kitchen = Kitchen({"bench.length_mm": long, "bench.width_mm": wide})
    plan = starting_plan("New", family, grams, KITCHEN)
    plan = replace(plan, butter=replace(plan.butter, mass_g=plan.butter.mass_g * more_butter))
    for note in sound(plan, kitchen, work(plan, kitchen)):
        for fix in note.fixes:
            after = work(taken(plan, fix), kitchen).notes
            left = [n for n in after if (n.code, n.stop) == (note.code, note.stop)]
            assert not [n for n in left if n.tone == note.tone == "mind"], fix.label
