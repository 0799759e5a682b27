"""A dough that was begun before anybody touched the tablet."""

from datetime import UTC, datetime, timedelta

import pytest

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.starts import starting_finish, starting_plan
from lamination.plan.work import work
from lamination.run.begun import Begun, begun
from lamination.run.events import Event, EventKind
from lamination.run.standing import Phase, admit, planned_deeds, stand
from lamination.run.underway import as_it_went
from lamination.terms.limits import Faults
from lamination.terms.trade import Family
from tests.plans import station

AT = datetime(2026, 3, 7, 10, 10, tzinfo=UTC)
WORKED = work(station(finish=starting_finish(Family.CROISSANT)))
TRAYS = [n for p in WORKED.shaped.trays.products for n in p.trays]
STOPS = [s.key for s in WORKED.strip]


@pytest.mark.parametrize("stop", STOPS)
def test_it_stands_at_the_step_it_is_said_to_be_at_since_then(stop):
    started, events = begun(WORKED, Begun(stop, AT))
    now = stand(WORKED, started, events)
    assert (now.phase, now.stop) == (Phase.WORK, stop)
    assert now.since <= AT
    assert all(d.assumed and d.at == d.planned_at for d in now.deeds)
    planned = planned_deeds(WORKED.strip)
    assert [(d.kind, d.stop) for d in now.deeds] == [
        (d.kind, d.stop) for d in planned[: len(now.deeds)]
    ]


def test_it_goes_on_from_there_and_a_time_can_be_put_right():
    started, events = begun(WORKED, Begun("turn-2", AT))
    done = Event("pressed-1", AT + timedelta(minutes=9), EventKind.DONE, "turn-2")
    admit(WORKED, started, events, done)
    events = (*events, done)
    moved = Event(
        "pressed-2", AT + timedelta(minutes=10), EventKind.MOVE, target="pressed-1", minutes=-3
    )
    admit(WORKED, started, events, moved)
    now = stand(WORKED, started, (*events, moved))
    assert (now.phase, now.stop) == (Phase.REST, "turn-2")
    assert now.since == AT + timedelta(minutes=6)
    assert not now.deeds[-1].assumed


@pytest.mark.parametrize(("stop", "says"), [("nowhere", "no such step")])
def test_a_step_it_cannot_be_at_is_refused(stop, says):
    with pytest.raises(Faults) as wrong:
        begun(WORKED, Begun(stop, AT))
    assert wrong.value.faults[0].field == "stop"
    assert says in wrong.value.faults[0].message


def test_once_trays_go_their_own_ways_all_of_them_have_come_as_far():
    started, events = begun(WORKED, Begun("bake", AT))
    now = stand(WORKED, started, events)
    assert [t.tray for t in now.trays] == TRAYS
    assert {(t.next.kind, t.next.stop) for t in now.trays} == {(EventKind.IN, "bake")}
    assert all(d.assumed and d.at <= AT for t in now.trays for d in t.deeds)
    into = Event("pressed-1", AT, EventKind.IN, "bake", tray=TRAYS[0])
    admit(WORKED, started, events, into)
    now = stand(WORKED, started, (*events, into))
    assert now.trays[0].until - AT == timedelta(minutes=WORKED.stop("bake").made.bake_min)
    # each was said to have happened when the plan has it, whatever was pressed
    for event, rest in zip(events, range(len(events)), strict=True):
        admit(WORKED, started, events[:rest], event)


def test_a_time_without_its_zone_is_refused():
    with pytest.raises(Faults) as wrong:
        begun(WORKED, Begun("turn-1", AT.replace(tzinfo=None)))
    assert wrong.value.faults[0].field == "at"


def test_with_a_formula_the_morning_is_there_as_well():
    worked = work(starting_plan("Mine", Family.CROISSANT, 2000, Kitchen()))
    started, events = begun(worked, Begun("lock_in", AT))
    assert started == AT - timedelta(minutes=worked.stop("lock_in").starts_min)
    assert [e.stop for e in events] == ["mix", "mix", "dough", "dough"]


def said(kind, at, **more):
    return Event(f"said-{kind}-{at:%H%M%S}", at, kind, **more)


def test_what_was_begun_before_the_press_is_told_and_its_minutes_count():
    first = WORKED.strip[0].key
    early = said(EventKind.BEGUN, AT, minutes=-40)
    admit(WORKED, AT, (), early)
    now = stand(WORKED, AT, (early,))
    assert now.started_at == now.since == AT - timedelta(minutes=40)
    done = said(EventKind.DONE, AT + timedelta(minutes=5), stop=first)
    back = Event("back-0001", done.at, EventKind.MOVE, target=done.id, minutes=-30)
    admit(WORKED, AT, (early, done), back)
    now = stand(WORKED, AT, (early, done, back))
    assert now.deeds[0].at == AT - timedelta(minutes=25)
    went = as_it_went(station(finish=starting_finish(Family.CROISSANT)), WORKED, now)
    assert went.steps[0].bench_min == pytest.approx(15)
    undone = Event("undo-0001", done.at, EventKind.UNDO, target=early.id)
    assert stand(WORKED, AT, (early, undone)).started_at == AT


@pytest.mark.parametrize(("minutes", "says"), [(30, "still to come"), (6, "first step was done")])
def test_it_was_not_begun_after_its_first_step_nor_is_it_to_come(minutes, says):
    done = said(EventKind.DONE, AT + timedelta(minutes=5), stop=WORKED.strip[0].key)
    late = said(EventKind.BEGUN, AT + timedelta(minutes=10), minutes=minutes)
    with pytest.raises(Faults) as wrong:
        admit(WORKED, AT, (done,), late)
    assert [f.field for f in wrong.value.faults] == ["minutes"]
    assert says in wrong.value.faults[0].message
