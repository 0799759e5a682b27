"""What must hold for any plan that can be worked, by formulas that know nothing of the sheet."""

from dataclasses import asdict, replace
from math import prod

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from lamination.plan.work import work
from lamination.steps.flatten import Flattening
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.turn import Trim, Turn
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.trade import Fold, Method, Place
from tests.plans import station

TIMES = {Fold.HALF: 2, Fold.LETTER: 3, Fold.BOOK: 4, Fold.OFFSET_BOOK: 4}
# butter leaves, dough leaves, the material below and on top
FIRST = {
    Method.HALF: (1, 2, "D", "D"),
    Method.HALF_STACKED: (1, 2, "D", "D"),
    Method.TWO_THIRDS: (2, 3, "D", "D"),
    Method.ENVELOPE: (1, 2, "D", "D"),
    Method.GATE: (1, 2, "D", "D"),
    Method.OPEN_SIDED: (1, 2, "D", "D"),
    Method.INVERSE: (2, 1, "B", "B"),
    Method.SPREAD: (1, 1, "D", "B"),
}


def after(fold, stacked, leaves):
    """Leaves after a fold, in closed form: what is laid on its like fuses, join by join.

    ``b`` is the face below and ``t`` the one on top; a folded panel shows its faces the other way.
    """
    butter, dough, b, t = leaves
    n = TIMES[fold]
    if stacked:
        joins, ends = [(t, b)] * (n - 1), (b, t)
    elif fold is Fold.HALF:
        joins, ends = [(t, t)], (b, b)
    elif fold is Fold.LETTER:
        joins, ends = [(t, t), (b, t)], (b, b)
    else:
        joins, ends = [(t, t), (t, t), (b, b)], (b, b)
    return (
        n * butter - joins.count(("B", "B")),
        n * dough - joins.count(("D", "D")),
        *ends,
    )


settings.register_profile("brief", max_examples=14, deadline=None)
BRIEF = settings.get_profile("brief")
rests = st.none() | st.builds(Rest.at, st.sampled_from(list(Place)), st.floats(0, 900))
some_turns = st.lists(
    st.builds(
        Turn,
        st.sampled_from(list(Fold)),
        st.floats(5, 9),
        rest=rests,
        bench_min=st.none() | st.floats(0, 60),
        stacked=st.booleans(),
    ),
    max_size=5,
).map(tuple)
methods = st.sampled_from(list(FIRST))


def worked_or_skip(plan):
    try:
        return work(plan)
    except Faults:
        assume(False)


@BRIEF
@given(methods, some_turns)
def test_counts_follow_from_folds_alone(method, turns):
    worked = worked_or_skip(station(lock_in=LockIn(method, 260, 260), turns=turns))
    leaves = FIRST[method]
    first = worked.lock_in.layers
    assert (first.butter, first.dough) == leaves[:2]
    for step, turn in zip(worked.steps, turns, strict=True):
        leaves = after(turn.fold, turn.stacked, leaves)
        assert (step.butter_layers, step.dough_layers) == leaves[:2]
    assert (worked.layers.butter, worked.layers.dough) == leaves[:2]
    assert worked.layers.naive == sum(FIRST[method][:2]) * prod(TIMES[t.fold] for t in turns)


@BRIEF
@given(methods, some_turns, st.floats(0, 20), st.floats(0, 12), st.booleans())
def test_nothing_is_lost_but_what_is_trimmed(method, turns, ends, sides, tucked):
    cut = Trim(ends, sides, tucked)
    turns = tuple(replace(t, trim=cut) for t in turns[:4])
    worked = worked_or_skip(station(lock_in=LockIn(method, 260, 260), turns=turns))
    saved = sum(step.trimmed_g for step in worked.steps)
    assert worked.final.mass_g + saved == pytest.approx(2400 + 650, rel=1e-9)
    if tucked and not sides:
        assert saved == pytest.approx(0, abs=1e-6)
    shares = [r.share_pct for r in worked.final.map.regions]
    assert sum(shares) == pytest.approx(100)
    full = worked.layers.butter
    assert worked.final.map.regions[0].butter == worked.layers.most >= full
    assert worked.layers.full_pct == pytest.approx(
        sum(r.share_pct for r in worked.final.map.regions if r.butter >= full)
    )
    assert worked.layers.bent_pct == pytest.approx(
        sum(r.share_pct for r in worked.final.map.regions if r.bent)
    )


@BRIEF
@given(methods, some_turns, st.floats(2, 4.5))
def test_leaves_add_up_to_the_sheet(method, turns, last_mm):
    worked = worked_or_skip(
        station(lock_in=LockIn(method, 260, 260), turns=turns, last_sheet=LastSheet(last_mm))
    )
    layers = worked.layers
    whole_um = layers.butter * layers.butter_um + layers.dough * layers.dough_um
    assert whole_um == pytest.approx(1000 * worked.final.thickness_mm, rel=1e-6)
    assert layers.thinnest_dough_um <= layers.dough_um * (1 + 1e-9)
    assert layers.thinnest_butter_um <= layers.butter_um * (1 + 1e-9)


@BRIEF
@given(some_turns)
def test_each_section_is_the_stack_it_draws(turns):
    worked = worked_or_skip(station(turns=turns))
    for step in worked.steps:
        if step.section.whole:
            assert len(step.section.thickness_um) == step.layers.total
            assert sum(step.section.thickness_um) == pytest.approx(
                1000 * step.folded.thickness_mm, rel=1e-3
            )
        else:
            assert step.layers.total > 120


@BRIEF
@given(some_turns, rests, rests)
def test_the_clock_is_the_sum_of_work_and_rests(turns, chill, shrink):
    plan = station(
        flatten=Flattening(rest=chill),
        turns=turns,
        last_sheet=LastSheet(4, width_mm=400, rest=shrink),
    )
    worked = worked_or_skip(plan)
    clock = 0.0
    for stop in worked.strip:
        assert stop.starts_min == pytest.approx(clock)
        clock += stop.bench_min + (stop.rest.minutes if stop.rest else 0)
    last = worked.strip[-1]
    assert worked.total_min == pytest.approx(last.starts_min + last.bench_min)


@BRIEF
@given(some_turns, st.floats(1.1, 4))
def test_twice_the_dough_on_the_same_sides_is_twice_as_thick_and_changes_no_count(turns, times):
    plan = station(turns=turns)
    more = replace(
        plan,
        dough=replace(plan.dough, mass_g=plan.dough.mass_g * times),
        butter=replace(plan.butter, mass_g=plan.butter.mass_g * times),
    )
    small, large = worked_or_skip(plan), worked_or_skip(more)
    assert large.lock_in.package.thickness_mm == pytest.approx(
        times * small.lock_in.package.thickness_mm
    )
    assert large.layers.butter == small.layers.butter
    assert large.layers.butter_um == pytest.approx(small.layers.butter_um)
    assert large.final.length_mm == pytest.approx(times * small.final.length_mm)


def test_a_plan_worked_twice_is_the_same_and_was_not_changed():
    plan = station()
    before = asdict(plan)
    assert work(plan) == work(plan)
    assert asdict(plan) == before
