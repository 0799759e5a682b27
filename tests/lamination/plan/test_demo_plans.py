"""The plans of Teasel Lock are plans a baker would be glad to have: they fit, and say so."""

from datetime import UTC, datetime, timedelta

import pytest

from bakehouse.demo.made_up import MADE_UP
from bakehouse.demo.teasel_lock import BOATS, DANISH, KITCHEN, MARKET, PLANS, RUNS, STATION
from lamination.plan.work import work
from lamination.run.events import Event
from lamination.run.standing import Phase, admit, planned_deeds, stand
from lamination.run.trays import tray_steps
from lamination.terms.said import plain
from lamination.warmth.warmth import work_warmth

EVERY = (*PLANS, *MADE_UP)


@pytest.mark.parametrize("plan", EVERY, ids=lambda p: p.name)
def test_nothing_at_the_heart_of_a_demo_plan_wants_minding(plan):
    minded = [n for n in work(plan, KITCHEN).notes if n.tone == "mind"]
    assert minded == []


@pytest.mark.parametrize("plan", EVERY, ids=lambda p: p.name)
def test_no_rest_and_no_work_of_a_demo_plan_wants_minding(plan):
    found = work_warmth(plan, KITCHEN, fixes=False)
    assert [n.code for n in found.notes if n.tone == "mind"] == []
    assert found.works == "yes"


@pytest.mark.parametrize("plan", EVERY, ids=lambda p: p.name)
def test_a_demo_plan_is_run_at_the_bench_to_its_end(plan):
    worked = work(plan, KITCHEN)
    start = datetime(2026, 3, 7, 4, 0, tzinfo=UTC)
    by_tray = {s.stop for s in tray_steps(worked)}
    events, minute = (), 0.0

    def say(kind, stop, tray=None):
        nonlocal events
        at = start + timedelta(minutes=minute)
        event = Event(f"event-{len(events):05}", at, kind, stop, tray=tray)
        admit(worked, start, events, event)
        events = (*events, event)

    for deed in planned_deeds(worked.strip):
        minute = max(minute + 1, deed.minute)
        if deed.stop not in by_tray:
            say(deed.kind, deed.stop)
        while deed.stop in by_tray:
            trays = stand(worked, start, events).trays
            ready = next((t for t in trays if t.next), None)
            if ready is None:
                break
            say(ready.next.kind, ready.next.stop, ready.tray)
    now = stand(worked, start, events)
    assert now.phase is Phase.FINISHED
    assert now.turns_done == now.turns == len(plan.turns)


@pytest.mark.parametrize("plan", EVERY, ids=lambda p: p.name)
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
