"""The plans of Teasel Lock are plans a baker would be glad to have: they fit, and say so."""

import pytest

from bakehouse.demo.teasel_lock import BOATS, DANISH, KITCHEN, MARKET, PLANS, RUNS, STATION
from lamination.plan.work import work
from lamination.run.standing import planned_deeds
from lamination.run.trays import tray_steps
from lamination.terms.said import plain


@pytest.mark.parametrize("plan", PLANS, ids=lambda p: p.name)
def test_nothing_at_the_heart_of_a_demo_plan_wants_minding(plan):
    minded = [n for n in work(plan, KITCHEN).notes if n.tone == "mind"]
    assert minded == []


@pytest.mark.parametrize("plan", PLANS, ids=lambda p: p.name)
def test_every_rolled_sheet_fits_where_it_is_rolled(plan):
    rolled = plain("Fits the belt"), plain("Fits the bench")
    fits = [n for n in work(plan, KITCHEN).notes if plain(n.title) in rolled]
    assert len(fits) == len(plan.turns) + 1


def test_scales_and_families_differ():
    assert len({p.family for p in PLANS}) >= 3
    assert MARKET.dough.mass_g < 2_500 < 7_000 < STATION.dough.mass_g
    assert work(BOATS).layers.butter == 3**5
    assert work(DANISH).lock_in.layers.butter == 2


@pytest.mark.parametrize("went", RUNS, ids=lambda w: w.plan.name)
def test_runs_are_as_long_as_they_claim(went):
    worked = work(went.plan, KITCHEN)
    on_trays = {step.stop for step in tray_steps(worked)}
    deeds = [d for d in planned_deeds(worked.strip) if d.stop not in on_trays]
    finished = went.verdict is not None
    assert (len(went.late_min) == len(deeds)) == finished
    assert all(at <= len(went.late_min) for at, _, _ in went.readings)
    assert all(0 < value < 30 for _, _, value in went.readings)
