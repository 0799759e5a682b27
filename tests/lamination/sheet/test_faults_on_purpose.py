"""Whatever goes wrong on purpose, the dough is all there, and the comparison tells what it costs."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.walk import walk
from lamination.plan.work import work
from lamination.sheet.folds import moves
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.turn import Trim, Turn
from lamination.terms.limits import Faults
from lamination.terms.trade import Fold, Method
from tests.plans import REST, station


@st.composite
def wronged(draw):
    turns = tuple(
        Turn(
            draw(st.sampled_from(list(Fold))),
            8,
            rest=REST,
            trim=draw(
                st.none() | st.builds(Trim, st.integers(0, 12), st.integers(0, 12), st.booleans())
            ),
            stacked=draw(st.booleans()),
            short_mm=draw(st.sampled_from([0, 4, 15])),
            uneven_pct=draw(st.sampled_from([0, 0, -20, 12])),
        )
        for _ in range(draw(st.integers(1, 3)))
    )
    return station(
        lock_in=LockIn(
            Method.HALF,
            230,
            230,
            margin_mm=draw(st.sampled_from([0, 6])),
            off_centre_mm=draw(st.sampled_from([0, 5])),
        ),
        turns=turns,
        last_sheet=LastSheet(4, uneven_pct=draw(st.sampled_from([0, 8]))),
        cut=None,
    )


def mass(plan):
    return plan.dough.mass_g + plan.butter.mass_g


@settings(max_examples=16, deadline=None)
@given(wronged())
def test_mass_is_what_went_in_less_what_was_saved(plan):
    worked = work(plan)
    saved = sum(step.trimmed_g for step in worked.steps)
    assert worked.final.mass_g + saved == pytest.approx(mass(plan), rel=1e-9)
    for turn, step in zip(plan.turns, worked.steps, strict=True):
        if turn.trim is None or turn.trim.tucked:
            assert step.trimmed_g == pytest.approx(0, abs=1e-6)


@settings(max_examples=16, deadline=None)
@given(wronged())
def test_butter_is_kept_apart_from_dough_to_the_last_digit(plan):
    worked = work(plan)
    trimmed = sum(scrap.butter_g for scrap in worked.scrap if scrap.stop != "cut")
    sheet = walk(plan, Kitchen()).made[-1].lies.sheet
    per_mm3 = worked.butter.physics.density_kg_m3 / 1e6
    left = sheet.volume_mm3(lambda s: s.butter_mm) * per_mm3
    assert left + trimmed == pytest.approx(plan.butter.mass_g, rel=1e-9)


@settings(max_examples=16, deadline=None)
@given(wronged())
def test_coverage_sums_to_the_whole_sheet_and_the_map_agrees(plan):
    worked = work(plan)
    regions = worked.final.map.regions
    assert sum(r.share_pct for r in regions) == pytest.approx(100)
    # what was tucked in lies there as more leaves than all, and is said so
    full = worked.layers.butter
    assert max(r.butter for r in regions) == worked.layers.most >= full
    assert sum(r.share_pct for r in regions if r.butter >= full) == pytest.approx(
        worked.layers.full_pct
    )
    assert len(worked.final.map.cells) == len(worked.final.map.xs_mm) - 1
    assert all(len(row) == len(worked.final.map.ys_mm) - 1 for row in worked.final.map.cells)


@settings(max_examples=11, deadline=None)
@given(wronged())
def test_facts_are_those_of_the_worked_plan(plan):
    worked = work(plan, Kitchen())
    facts = worked.facts
    assert facts.turns == len(plan.turns)
    assert facts.rests == len(plan.turns)
    assert facts.butter_layers <= facts.leaves
    assert facts.longest_mm >= worked.final.length_mm
    assert facts.total_min == worked.total_min >= facts.bench_min
    assert facts.waste_g == pytest.approx(sum(step.trimmed_g for step in worked.steps), abs=1e-6)
    assert facts.pieces is None


@given(st.sampled_from(list(Fold)), st.floats(100, 3000), st.floats(0.1, 0.9), st.floats(0, 20))
def test_every_crease_lies_on_the_sheet_and_short_flaps_are_creased_nearer_their_ends(
    fold, length, seam, short
):
    made, plain = moves(fold, length, seam, short), moves(fold, length, seam)
    assert len(made) == {Fold.HALF: 1, Fold.LETTER: 2}.get(fold, 3)
    for move, exact in zip(made, plain, strict=True):
        assert 0 < exact.at_mm < length
        nearer = length - exact.at_mm if move.flap == "high" else exact.at_mm
        assert move.at_mm - exact.at_mm == pytest.approx(
            short / 2 * (1 if move.flap == "high" else -1)
        )
        assert nearer > 0


def test_unevenness_out_of_reach_is_refused_at_its_field():
    with pytest.raises(Faults, match="uneven_pct"):
        LastSheet(4, uneven_pct=80)
    with pytest.raises(Faults, match="from -50 % to 50 %"):
        replace(station().turns[0], uneven_pct=-51)
