"""Several trays under way: each at its own stage, and a stop is done when the last tray has done it."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.starts import starting_finish
from lamination.plan.work import work
from lamination.run.events import Event, EventKind
from lamination.run.standing import Phase, admit, stand
from lamination.steps.bake import BakeFigures
from lamination.terms.limits import Faults
from lamination.terms.trade import Family
from tests.plans import station, turns

START = datetime(2026, 3, 7, 5, 0, tzinfo=UTC)
PLAN = station(turns=turns("letter", rest=None), finish=starting_finish(Family.CROISSANT))
WORKED = work(PLAN, Kitchen({"oven.trays": 2}))
TRAYS = [t for p in WORKED.shaped.trays.products for t in p.trays]
BEFORE = ("dough", "lock_in", "turn-1", "final", "cut")
DONE, OUT, IN = EventKind.DONE, EventKind.OUT, EventKind.IN
STEPS = (
    (DONE, "shape"),
    (OUT, "shape"),
    (DONE, "wash"),
    (IN, "bake"),
    (DONE, "bake"),
    (OUT, "bake"),
)


class Desk:
    def __init__(self):
        self.events = ()
        for i, stop in enumerate(BEFORE):
            self.say(i, DONE, stop=stop)

    def say(self, minute, kind, **more):
        at = START + timedelta(minutes=minute)
        event = Event(f"event-{len(self.events):04}", at, kind, **more)
        admit(WORKED, START, self.events, event)
        self.events = (*self.events, event)
        return event

    def tray(self, minute, tray, step):
        kind, stop = STEPS[step]
        return self.say(minute, kind, stop=stop, tray=tray)

    @property
    def now(self):
        return stand(WORKED, START, self.events)

    def at(self, tray):
        return next(t for t in self.now.trays if t.tray == tray)


@pytest.fixture
def desk():
    return Desk()


def test_there_is_more_than_one_tray_and_more_than_one_load():
    assert len(TRAYS) >= 3
    assert {t.load for t in Desk().now.trays} >= {1, 2}


def test_trays_go_on_each_by_itself(desk):
    desk.tray(10, 1, 0)
    desk.tray(20, 2, 0)
    desk.tray(140, 1, 1)
    desk.tray(142, 1, 2)
    desk.tray(144, 1, 3)
    assert (desk.at(1).next.kind, desk.at(1).next.stop) == (DONE, "bake")
    assert desk.at(1).until == START + timedelta(minutes=144 + WORKED.made(BakeFigures)[0].bake_min)
    assert (desk.at(2).next.kind, desk.at(2).next.stop) == (OUT, "shape")
    assert desk.at(2).until == START + timedelta(minutes=20 + 165)
    assert desk.at(3).since is None
    assert desk.now.stop == "shape"


def test_a_stop_is_done_when_its_last_tray_is(desk):
    for n, tray in enumerate(TRAYS):
        assert not [d for d in desk.now.deeds if d.stop == "shape"]
        desk.tray(10 + n, tray, 0)
    (shaped,) = [d for d in desk.now.deeds if d.stop == "shape"]
    assert shaped.at == START + timedelta(minutes=10 + len(TRAYS) - 1)
    assert desk.now.phase is Phase.REST
    assert desk.now.until == START + timedelta(minutes=10 + 165)


def test_a_whole_run_ends_with_the_look(desk):
    for step in range(len(STEPS)):
        for tray in TRAYS:
            desk.tray(10 + 60 * step + tray, tray, step)
    assert desk.now.stop == "look"
    desk.say(600, DONE, stop="look")
    assert desk.now.phase is Phase.FINISHED
    assert len(desk.now.deeds) == len(BEFORE) + 6


def test_undo_takes_back_the_last_tray_and_with_it_the_stop(desk):
    for n, tray in enumerate(TRAYS):
        last = desk.tray(10 + n, tray, 0)
    desk.say(30, EventKind.UNDO, target=last.id)
    assert not [d for d in desk.now.deeds if d.stop == "shape"]
    assert desk.at(TRAYS[-1]).deeds == ()


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"kind": DONE, "stop": "shape"}, "tray"),
        ({"kind": DONE, "stop": "shape", "tray": 99}, "tray"),
        ({"kind": IN, "stop": "bake", "tray": 1}, "stop"),
        ({"kind": DONE, "stop": "look"}, "stop"),
    ],
)
def test_what_cannot_happen_is_refused_at_its_field(desk, more, field):
    with pytest.raises(Faults) as refused:
        desk.say(10, more.pop("kind"), **more)
    assert refused.value.faults[0].field == field


def test_a_tray_cannot_be_shaped_twice_nor_before_the_cut(desk):
    desk.tray(10, 1, 0)
    with pytest.raises(Faults, match="already done"):
        desk.tray(11, 1, 0)
    desk.events = desk.events[:3]
    with pytest.raises(Faults, match="not cut yet"):
        desk.tray(12, 2, 0)


@settings(max_examples=11, deadline=None)
@given(st.lists(st.tuples(st.sampled_from(TRAYS), st.integers(0, 5)), max_size=30))
def test_whatever_is_pressed_a_tray_never_skips_a_step(presses):
    desk = Desk()
    for n, (tray, step) in enumerate(presses):
        before = len(desk.at(tray).deeds)
        try:
            desk.tray(10 + n, tray, step)
        except Faults:
            assert step != before
            continue
        assert step == before
    for t in desk.now.trays:
        assert [(d.kind, d.stop) for d in t.deeds] == list(STEPS[: len(t.deeds)])
        assert [d.at for d in t.deeds] == sorted(d.at for d in t.deeds)


def test_pieces_on_the_scale_are_kept_by_product(desk):
    desk.say(8, EventKind.PIECES, product=0, pieces_g=(60.1, 59.4))
    assert desk.now.pieces[0].grams == (60.1, 59.4)
    with pytest.raises(Faults, match="no such product"):
        desk.say(9, EventKind.PIECES, product=3, pieces_g=(60.0,))


# --- a tray that is lost


def test_a_lost_tray_is_not_waited_for(desk):
    first, *others = TRAYS
    desk.tray(10, first, 0)
    desk.say(12, EventKind.LOST, tray=first)
    assert desk.at(first).next is None
    assert desk.at(first).lost.at == START + timedelta(minutes=12)
    for step in range(len(STEPS)):
        for tray in others:
            desk.tray(20 + 60 * step + tray, tray, step)
    assert desk.now.stop == "look"
    assert desk.now.phase is Phase.WORK


def test_the_last_one_lost_may_be_the_one_that_all_waited_for(desk):
    *others, last = TRAYS
    for tray in others:
        desk.tray(10 + tray, tray, 0)
    assert not [d for d in desk.now.deeds if d.stop == "shape"]
    lost = desk.say(40, EventKind.LOST, tray=last)
    assert [d for d in desk.now.deeds if d.stop == "shape"]
    desk.say(41, EventKind.UNDO, target=lost.id)
    assert not [d for d in desk.now.deeds if d.stop == "shape"]
    assert desk.at(last).next is not None


def test_a_dough_is_lost_with_its_last_tray_and_undo_brings_it_back(desk):
    for n, tray in enumerate(TRAYS):
        lost = desk.say(10 + n, EventKind.LOST, tray=tray)
    assert desk.now.phase is Phase.GIVEN_UP
    desk.say(30, EventKind.UNDO, target=lost.id)
    assert desk.now.phase is Phase.WORK


def test_a_tray_is_lost_once_and_then_nothing_is_done_with_it(desk):
    desk.say(10, EventKind.LOST, tray=1)
    with pytest.raises(Faults, match="Tray 1 is lost"):
        desk.say(11, EventKind.LOST, tray=1)
    with pytest.raises(Faults, match="Tray 1 is lost"):
        desk.tray(12, 1, 0)
    with pytest.raises(Faults, match="no tray 99"):
        desk.say(13, EventKind.LOST, tray=99)


def test_what_is_through_the_oven_and_cool_is_not_lost_any_more(desk):
    for step in range(len(STEPS)):
        desk.tray(10 + 60 * step, 1, step)
    with pytest.raises(Faults, match="through already"):
        desk.say(500, EventKind.LOST, tray=1)


def test_the_time_of_one_tray_is_put_right_between_its_own_and_moves_no_other(desk):
    for tray in TRAYS[:2]:
        desk.tray(20, tray, 0)
    shaped = desk.events[-2]
    desk.tray(80, TRAYS[0], 1)
    desk.say(81, EventKind.MOVE, target=shaped.id, minutes=-12)
    assert desk.at(TRAYS[0]).deeds[0].at == START + timedelta(minutes=8)
    assert desk.at(TRAYS[1]).deeds[0].at == START + timedelta(minutes=20)
    for minutes, says in ((-9, "before"), (75, "after")):
        with pytest.raises(Faults, match=says):
            desk.say(85, EventKind.MOVE, target=shaped.id, minutes=minutes)
    # what was done with the whole dough cannot come after the first of its trays
    cut = desk.events[len(BEFORE) - 1]
    with pytest.raises(Faults, match="after"):
        desk.say(86, EventKind.MOVE, target=cut.id, minutes=6)
    desk.say(87, EventKind.MOVE, target=cut.id, minutes=3)
