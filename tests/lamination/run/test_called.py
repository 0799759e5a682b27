"""What rings when, for a whole dough with its trays: every span that goes on by itself has its end called."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.baking import Bake, Oven, Stage, Wash
from lamination.plan.work import work
from lamination.run.called import called
from lamination.run.events import Event, EventKind
from lamination.run.standing import admit, stand
from lamination.steps.bake import Baking
from lamination.steps.look import Looking
from lamination.steps.shape import Shaping
from lamination.steps.wash import Washing
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Place
from tests.plans import station, turns

START = datetime(2026, 3, 7, 4, 0, tzinfo=UTC)
BAKE = Bake(Oven.DECK, (Stage(4, 230, steam=True, steam_s=20), Stage(6, 210), Stage(8, 180)))
PLAN = station(
    turns=turns("letter", rest=Rest.at(Place.FRIDGE, 30)),
    finish=(
        Shaping(rest=Rest.at(Place.PROOFER, 150)),
        Washing(Wash.EGG),
        Baking(BAKE, moulded=True, unmould_min=6, rest=Rest.at(Place.BENCH, 25)),
        Looking(),
    ),
)
PLAN = PLAN.changed(PLAN.cut, rest=Rest.at(Place.FRIDGE, 20))
WORKED = work(PLAN, Kitchen())
TRAYS = [n for p in WORKED.shaped.trays.products for n in p.trays]


def rings(plan=PLAN, kitchen=None):
    """Everything that rings from the first press to the last, each step done at once when it may be."""
    worked = work(plan, kitchen or Kitchen())
    events: tuple[Event, ...] = ()
    at, heard = START, []
    for _ in range(200):
        now = stand(worked, START, events)
        for one in called(worked, now):
            told = (round((one.at - START) / timedelta(minutes=1), 2), one.tray, plain(one.says))
            if told not in heard:
                heard.append(told)
        if now.stop is None:
            return heard
        moving = [t for t in now.trays if t.next and not t.lost]
        byt = bool(moving) and worked.stop(now.stop).trays
        step = min(moving, key=lambda t: (t.until or at, t.tray)) if byt else None
        kind = (
            step.next.kind if step else (EventKind.OUT if now.phase == "rest" else EventKind.DONE)
        )
        at = max(at, (step.until if step else now.until) or at)
        stop = step.next.stop if step else now.stop
        tray = step.tray if step else None
        new = Event(f"press-{len(events):04}", at, kind, stop, tray=tray)
        admit(worked, START, events, new)
        events = (*events, new)
    raise AssertionError("it never ended")


def test_a_whole_dough_rings_so():
    first = TRAYS[0]
    of_first = [(at, says) for at, tray, says in rings() if tray in (None, first)]
    assert of_first == [
        (30.0, "its time is up, take it out"),  # the turn
        (50.0, "its time is up, take it out"),  # the pieces' rest
        (152.75, "heat the oven to 230 °C"),  # 209 K at 4 K a minute, and five minutes to wash
        (200.0, "the proof's time is up, look at the signs"),
        (200.33, "steam off"),
        (204.0, "set the oven to 210 °C"),
        (209.0, "turn the trays"),
        (210.0, "set the oven to 180 °C"),
        (218.0, "look at the colour, take it out"),
        (224.0, "out of the tin"),
        (243.0, "cooled"),
    ]


def test_every_span_of_the_bench_has_its_end_called():
    for stop in WORKED.strip:
        ends = [a for a in stop.alarms if a.after == "done" and a.minutes is None]
        assert len(ends) == (stop.rest is not None and stop.rest.minutes > 0), stop.key
        assert any(a.after == "in" and a.minutes is None for a in stop.alarms) == stop.oven


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"stages": (Stage(10, 200), Stage(8, 200)), "turn_tray": False}, []),
        (
            {"stages": (Stage(10, 220, steam=True), Stage(8, 220)), "turn_tray": False},
            ["let the steam out"],
        ),
        ({"stages": (Stage(9, 220), Stage(9, 190))}, ["set the oven to 190 °C, turn the trays"]),
    ],
)
def test_in_the_oven_only_what_changes_is_called(changes, says):
    baking = next(s for s in PLAN.steps if s.do == "bake")
    plan = PLAN.changed(baking, bake=replace(BAKE, **changes))
    stop = work(plan, Kitchen()).stop(baking.id)
    inside = [plain(a.says) for a in stop.alarms if a.after == "in" and a.minutes is not None]
    assert inside == says


def test_a_rest_made_longer_at_the_bench_rings_when_that_is_over():
    events = ()
    for minute, kind, stop in (
        (0, "done", "dough"),
        (5, "done", "lock_in"),
        (10, "done", "turn-1"),
    ):
        events += (
            Event(f"press-{minute:04}", START + timedelta(minutes=minute), EventKind(kind), stop),
        )
    longer = Event("rest-0001", START + timedelta(minutes=12), EventKind.REST, "turn-1", minutes=45)
    (ring,) = called(WORKED, stand(WORKED, START, (*events, longer)))
    assert ring.at == START + timedelta(minutes=55)


def test_an_oven_is_heated_in_the_rest_that_is_on_then_and_later_when_that_is_longer():
    (heat,) = [a for a in WORKED.stop("shape").alarms if "heat the oven" in a.says]
    fan = PLAN.changed(
        PLAN.steps[PLAN.at("bake")], bake=replace(BAKE, oven=Oven.FAN, preheat_c=250)
    )
    (sooner,) = [a for a in work(fan).stop("shape").alarms if "heat the oven" in a.says]
    wash_min = WORKED.stop("wash").bench_min
    room = Kitchen()["room.c"]
    assert heat.minutes == pytest.approx(-((230 - room) / 4 - wash_min))
    assert sooner.minutes == pytest.approx(-((250 - room) / 10 - wash_min))
    # a proof shorter than that: at once
    short = PLAN.changed(PLAN.steps[PLAN.at("shape")], rest=Rest.at(Place.PROOFER, 20))
    at = [a for s in work(short).strip for a in s.alarms if "heat the oven" in a.says]
    assert len(at) == 1
    assert "heats up in about 50 min" in " ".join(plain(t) for t in WORKED.stop("bake").does)
