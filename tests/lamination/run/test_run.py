"""A dough under way: order, undo, moved times, two tablets."""

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import pytest

from lamination.plan.work import work
from lamination.run.events import Event, EventKind, Probe, Verdict
from lamination.run.standing import Phase, admit, planned_deeds, stand
from lamination.steps.divide import Divide, DivideFigures
from lamination.steps.flatten import Flattening
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Place
from tests.plans import station, turns

START = datetime(2026, 3, 7, 5, 0, tzinfo=UTC)
WORKED = work(
    station(
        turns=turns("letter", "book"), cut=None, flatten=Flattening(rest=Rest.at(Place.FRIDGE, 60))
    )
)


class Bench:
    """A run that admits each event as the application does."""

    def __init__(self):
        self.events = ()

    def say(self, minute, kind, **more):
        event = Event(
            f"event-{len(self.events):04}", START + timedelta(minutes=minute), kind, **more
        )
        admit(WORKED, START, self.events, event)
        self.events = (*self.events, event)
        return event

    def done(self, minute, stop):
        return self.say(minute, EventKind.DONE, stop=stop)

    def out(self, minute, stop):
        return self.say(minute, EventKind.OUT, stop=stop)

    @property
    def now(self):
        return stand(WORKED, START, self.events)


@pytest.fixture
def bench():
    return Bench()


def test_a_new_run_stands_at_its_first_stop(bench):
    assert (bench.now.phase, bench.now.stop, bench.now.since) == (Phase.WORK, "dough", START)
    assert bench.now.undoable is None


def test_a_run_goes_from_work_to_rest_to_work_and_ends(bench):
    bench.done(12, "dough")
    assert bench.now.phase is Phase.REST
    assert bench.now.until == START + timedelta(minutes=72)
    bench.out(80, "dough")
    bench.done(95, "lock_in")
    assert (bench.now.phase, bench.now.stop) == (Phase.WORK, "turn-1")
    for i, (kind, stop) in enumerate(
        [
            ("done", "turn-1"),
            ("out", "turn-1"),
            ("done", "turn-2"),
            ("out", "turn-2"),
            ("done", "final"),
        ]
    ):
        bench.say(100 + i, EventKind(kind), stop=stop)
    assert (bench.now.phase, bench.now.stop, bench.now.turns_done) == (Phase.FINISHED, None, 2)


def test_planned_stands_beside_actual(bench):
    bench.done(12, "dough")
    bench.out(80, "dough")
    planned = [(d.planned_at - START) / timedelta(minutes=1) for d in bench.now.deeds]
    assert planned == [10, 70]


def refused(field):
    return pytest.raises(Faults, match=rf"^{field}: ")


def test_pressing_twice_is_told_not_done_twice(bench):
    bench.done(12, "dough")
    with refused("stop") as wrong:
        bench.done(13, "dough")
    assert "Dough is already done" in str(wrong.value)


def test_steps_out_of_turn_are_named(bench):
    with refused("stop") as wrong:
        bench.done(1, "turn-2")
    assert "Next is Dough, not Turn 2" in str(wrong.value)
    with refused("stop"):
        bench.done(1, "turn-9")
    with refused("stop"):
        bench.out(1, "dough")


def test_undo_takes_back_the_latest_and_only_that(bench):
    first = bench.done(12, "dough")
    out = bench.out(80, "dough")
    with refused("target"):
        bench.say(81, EventKind.UNDO, target=first.id)
    bench.say(81, EventKind.UNDO, target=out.id)
    assert bench.now.phase is Phase.REST
    with refused("target"):
        bench.say(82, EventKind.UNDO, target=out.id)
    bench.out(90, "dough")
    assert bench.now.since == START + timedelta(minutes=90)


def test_a_time_can_be_put_right_within_its_neighbours(bench):
    done = bench.done(12, "dough")
    bench.say(14, EventKind.MOVE, target=done.id, minutes=-5)
    assert bench.now.since == START + timedelta(minutes=7)
    assert bench.now.until == START + timedelta(minutes=67)
    with refused("minutes"):
        bench.say(14, EventKind.MOVE, target=done.id, minutes=-8)
    out = bench.out(70, "dough")
    with refused("minutes"):
        bench.say(71, EventKind.MOVE, target=done.id, minutes=70)
    with refused("target"):
        bench.say(71, EventKind.MOVE, target="nothing", minutes=1)
    bench.say(72, EventKind.UNDO, target=out.id)
    assert bench.now.until == START + timedelta(minutes=67)


def test_a_tablet_with_a_slow_clock_cannot_turn_time_back(bench):
    bench.done(30, "dough")
    bench.out(28, "dough")
    times = [d.at for d in bench.now.deeds]
    assert times == sorted(times)


def test_readings_and_notes_stay_with_the_stop_they_were_made_at(bench):
    bench.say(3, EventKind.READING, probe=Probe.ROOM, value_c=23)
    bench.done(12, "dough")
    bench.out(80, "dough")
    bench.say(81, EventKind.NOTE, words="Soft at one corner")
    assert [(r.stop, r.value_c) for r in bench.now.readings] == [("dough", 23)]
    assert [(r.stop, r.words) for r in bench.now.remarks] == [("lock_in", "Soft at one corner")]


def test_a_verdict_waits_for_the_end(bench):
    with refused("kind"):
        bench.say(1, EventKind.VERDICT, verdict=Verdict(lift=4))
    bench.say(2, EventKind.GIVE_UP)
    assert bench.now.phase is Phase.GIVEN_UP
    bench.say(3, EventKind.VERDICT, verdict=Verdict(lift=1, words="Butter broke"))
    assert bench.now.verdict.words == "Butter broke"
    with refused("kind"):
        bench.say(4, EventKind.GIVE_UP)
    with refused("stop"):
        bench.done(5, "dough")


@pytest.mark.parametrize(
    ("fields", "named"),
    [
        ({"kind": EventKind.DONE}, {"stop"}),
        ({"kind": EventKind.READING}, {"probe", "value_c"}),
        ({"kind": EventKind.READING, "probe": Probe.DOUGH, "value_c": float("nan")}, {"value_c"}),
        ({"kind": EventKind.READING, "probe": Probe.DOUGH, "value_c": 300}, {"value_c"}),
        ({"kind": EventKind.NOTE, "words": " "}, {"words"}),
        ({"kind": EventKind.GIVE_UP, "at": datetime(2026, 3, 7)}, {"at"}),
    ],
)
def test_an_event_says_what_it_lacks(fields, named):
    with pytest.raises(Faults) as wrong:
        Event(**{"id": "event-0001", "at": START} | fields)
    assert {f.field for f in wrong.value.faults} == named


def test_a_rest_across_the_night_the_clocks_change_lasts_its_minutes():
    """On 29 March 2026 the bakery's clocks jump from one to two."""
    london = ZoneInfo("Europe/London")
    begun = datetime(2026, 3, 28, 23, 30, tzinfo=london)
    done = Event(
        "done-by-the-wall-clock", begun.replace(hour=23, minute=45), EventKind.DONE, "dough"
    )
    admit(WORKED, begun, (), done)
    now = stand(WORKED, begun, (done,))
    assert now.until.astimezone(UTC) == datetime(2026, 3, 29, 0, 45, tzinfo=UTC)
    out = Event(
        "out-an-hour-later", datetime(2026, 3, 29, 2, 5, tzinfo=london), EventKind.OUT, "dough"
    )
    admit(WORKED, begun, (done,), out)
    rested = stand(WORKED, begun, (done, out)).deeds[1].at.astimezone(UTC) - now.since.astimezone(
        UTC
    )
    assert rested == timedelta(minutes=80)


def test_an_interruption_lasts_until_somebody_is_back_or_does_the_next_thing(bench):
    bench.say(3, EventKind.AWAY)
    assert [(a.stop, a.until, a.says) for a in bench.now.away] == [("dough", None, "Interrupted")]
    bench.say(4, EventKind.AWAY)  # another tablet said so as well
    bench.say(15, EventKind.BACK)
    bench.say(16, EventKind.BACK)
    bench.say(20, EventKind.AWAY)
    bench.done(32, "dough")
    first, second = bench.now.away
    assert (first.until, first.says) == (START + timedelta(minutes=15), "Interrupted for 12 min")
    assert (second.until, second.says) == (START + timedelta(minutes=32), "Interrupted for 12 min")
    bench.say(40, EventKind.AWAY)
    bench.say(41, EventKind.UNDO, target=bench.events[-1].id)
    assert len(bench.now.away) == 2


def test_what_is_put_away_is_told_once_it_was_done_and_until_when_it_keeps():
    halved = station(turns=turns("letter", "letter", "letter"))
    halved = halved.with_steps(
        *halved.steps[:4], Divide(id="half", put=Place.FREEZER), *halved.steps[4:]
    )
    worked = work(halved)
    stops = [s.key for s in worked.strip]
    assert not stand(worked, START, ()).put_away
    events = tuple(
        Event(f"event-{n:04}", START + timedelta(minutes=10 * n), EventKind.DONE, stop=d.stop)
        for n, d in enumerate(planned_deeds(worked.strip))
    )[: 2 * stops.index("half") + 1]
    (stored,) = stand(worked, START, events).put_away
    assert (stored.stop, stored.part) == ("half", worked.put_away[0].part)
    assert stored.until - stored.at == timedelta(hours=worked.made(DivideFigures)[0].keeps_h)


def test_a_time_that_cannot_be_is_refused_with_the_time_that_stands_in_the_way(bench):
    bench.done(6, "dough")
    bench.out(12, "dough")
    moved = bench.done(20, "lock_in")
    with pytest.raises(Faults) as wrong:
        bench.say(25, EventKind.MOVE, target=moved.id, minutes=-16)
    said = plain(wrong.value.faults[0].message)
    assert said == "That is before 05:12, when the step it follows was over."
