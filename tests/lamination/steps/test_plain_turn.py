"""Plain turns: dough rolled and folded without butter, counted as what they are."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from bakehouse.documents import dump, read_plan
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.amend import amend, scaled
from lamination.plan.amendment import Amendment, Change
from lamination.plan.starts import starting_plan
from lamination.plan.work import work
from lamination.run.standing import planned_deeds
from lamination.steps.lock_in import LockIn
from lamination.steps.plain_turn import PlainTurn
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Family, Fold, Method, Place
from lamination.warmth.bodies import Today
from lamination.warmth.follow import follow
from lamination.warmth.warmth import work_warmth
from lamination.warmth.windows import Cause
from tests.plans import station, turns

KITCHEN = Kitchen()


def with_turns(*turns, plan=None):
    """The plan with plain turns before its lock-in."""
    plan = plan or station()
    at = plan.at(plan.lock_in.id)
    return plan.with_steps(*plan.steps[:at], *turns, *plan.steps[at:])


@settings(max_examples=14)
@given(st.sampled_from(list(Fold)), st.floats(5, 12), st.sampled_from(list(Fold)))
def test_no_dough_is_lost_and_no_leaf_is_made(first, thick, second):
    plan = with_turns(PlainTurn(first, thick), PlainTurn(second, thick))
    worked = work(plan)
    for made in (worked.stop("plain_turn-1").made, worked.stop("plain_turn-2").made):
        assert made.rolled.volume_mm3 == pytest.approx(worked.slab.volume_mm3, rel=1e-9)
        assert made.folded.volume_mm3 == pytest.approx(worked.slab.volume_mm3, rel=1e-9)
        assert made.folded.thickness_mm == pytest.approx(thick * made.fold.multiplies)
    assert worked.stop("plain_turn-2").butter_layers == 0
    assert worked.layers == work(station()).layers
    assert worked.lock_in.dough_sheet == work(station()).lock_in.dough_sheet


def test_it_is_rolled_to_a_size_as_every_sheet_is():
    made = work(with_turns(PlainTurn(Fold.HALF, length_mm=700, width_mm=420))).stop("plain_turn-1")
    rolled = made.made.rolled
    assert (rolled.length_mm, rolled.width_mm) == pytest.approx((700, 420))


def test_by_its_size_it_stays_as_thick_for_another_mass():
    plan = with_turns(PlainTurn(Fold.HALF, length_mm=700, width_mm=420))
    twice = work(scaled(plan, 2 * plan.dough.mass_g)).stop("plain_turn-1").made
    before = work(plan).stop("plain_turn-1").made
    assert twice.rolled.thickness_mm == pytest.approx(before.rolled.thickness_mm, rel=1e-6)


def test_the_bench_reads_what_to_do_and_that_no_leaves_come_of_it():
    does = [
        plain(t) for t in work(with_turns(PlainTurn(Fold.LETTER, 10))).stop("plain_turn-1").does
    ]
    assert does[0] == "Roll to 10 mm, without butter"
    assert "far third in" in does[2]
    assert "No leaves" in does[3]


def test_it_stands_before_the_butter_only():
    plan = station()
    after = plan.at(plan.lock_in.id) + 1
    with pytest.raises(Faults, match="needs dough without butter"):
        plan.with_steps(*plan.steps[:after], PlainTurn(Fold.HALF, 10), *plan.steps[after:])


def test_one_is_added_where_it_is_asked_for_and_goes_out_and_in_as_a_file():
    plan = starting_plan("Plain", Family.CROISSANT, 2000, KITCHEN)
    at = plan.at(plan.lock_in.id)
    asked = Amendment(Change.ADD_STEP, ingredient="plain_turn", index=at)
    made = amend(plan, asked, KITCHEN)
    assert made.steps[at].do == "plain_turn"
    assert read_plan(dump(made)) == made
    assert [n.title for n in work(made, KITCHEN).notes if n.tone == "mind"] == []


def test_it_is_done_at_the_bench_and_its_rest_taken_out_like_any_other():
    plan = with_turns(PlainTurn(Fold.LETTER, 10, rest=Rest.at(Place.FRIDGE, 30)))
    order = [(d.kind.value, d.stop) for d in planned_deeds(work(plan).strip)]
    at = order.index(("done", "plain_turn-1"))
    assert order[at + 1] == ("out", "plain_turn-1")
    assert order[at + 2] == ("done", "lock_in")


@pytest.mark.parametrize(("minutes", "verdict"), [(5, "short"), (45, "good")])
def test_the_dough_relaxes_after_it_before_the_butter_goes_in(minutes, verdict):
    plan = starting_plan("Plain", Family.CROISSANT, 2000, KITCHEN)
    plan = with_turns(PlainTurn(Fold.LETTER, 12, rest=Rest.at(Place.FRIDGE, minutes)), plan=plan)
    found = follow(plan, KITCHEN, Today(room_c=20))
    window = next(w for w in found.windows if w.stop == "plain_turn-1")
    assert window.verdict == verdict
    assert window.butter_c is None
    if verdict == "short":
        assert window.by in (Cause.RELAXING, Cause.COLD)


def test_it_is_followed_as_a_roll_that_warms_and_presses_out():
    plan = starting_plan("Plain", Family.CROISSANT, 2000, KITCHEN)
    found = work_warmth(
        with_turns(PlainTurn(Fold.LETTER, 12), plan=plan), KITCHEN, Today(room_c=20), fixes=False
    )
    without = work_warmth(plan, KITCHEN, Today(room_c=20), fixes=False)
    assert found.works in ("yes", "tight")

    def at_lock_in(warmth):
        at = next(i for i, b in enumerate(warmth.trace.butter_c) if b is not None)
        return warmth.trace.middle_c[at - 1]

    assert at_lock_in(found) > at_lock_in(without)


def test_a_spread_sheet_is_folded_as_it_lies():
    spread = LockIn(Method.SPREAD, 300, 300)
    rolled = station(lock_in=spread, turns=turns("letter", "letter"))
    first = replace(rolled.turns[0], as_it_lies=True, roll_to_mm=None)
    plan = rolled.changed(rolled.turns[0], as_it_lies=True, roll_to_mm=None)
    worked, sheet = work(plan), work(plan).lock_in.dough_sheet
    stop = worked.stop(first.id)
    # as long and as wide as it was, three times as thick; butter that meets butter is one
    assert sorted((stop.made.rolled.length_mm, stop.made.rolled.width_mm)) == pytest.approx(
        sorted((sheet.length_mm, sheet.width_mm))
    )
    package = stop.made.folded
    assert package.thickness_mm == pytest.approx(3 * stop.made.rolled.thickness_mm)
    assert (stop.made.butter_layers, stop.made.rolling.gaps_mm) == (2, ())
    assert plain(stop.does[0]) == "Fold it as it lies"
    assert not any("Roll to" in plain(t) for t in stop.does)
    assert worked.total_g == work(rolled).total_g
    # nothing rolls it, so nothing warms it or presses out what it rose by
    clocks = {c.stop for c in work_warmth(plan, Kitchen(), fixes=False).clocks}
    assert first.id not in clocks
    assert plan.turns[1].id in clocks
    with pytest.raises(Faults, match="how thick"):
        replace(first, as_it_lies=False)
