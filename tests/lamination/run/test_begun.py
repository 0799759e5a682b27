"""A dough that was begun before anybody touched the tablet."""

from datetime import UTC, datetime, timedelta

import pytest

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.starts import starting_finish, starting_plan
from lamination.plan.work import work
from lamination.run.begun import Begun, begun
from lamination.run.events import Event, EventKind
from lamination.run.standing import Phase, admit, planned_deeds, stand
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
