"""A run under any presses at all: whatever is admitted, the list of events replays the same."""

from datetime import UTC, datetime, timedelta

from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule

from lamination.plan.work import work
from lamination.run.events import Event, EventKind, Probe, Verdict
from lamination.run.standing import Phase, admit, planned_deeds, stand
from lamination.steps.flatten import Flattening
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Place
from tests.plans import station, turns

START = datetime(2026, 3, 28, 22, 0, tzinfo=UTC)
WORKED = work(
    station(turns=turns("letter", "half"), flatten=Flattening(rest=Rest.at(Place.FRIDGE, 600)))
)
ORDER = planned_deeds(WORKED.strip)
KEYS = [s.key for s in WORKED.strip]


class AtTheBench(RuleBasedStateMachine):
    """Presses buttons, sensibly and not, on tablets whose clocks disagree by minutes."""

    @initialize()
    def begin(self):
        self.events = ()
        self.clock = START

    @property
    def now(self):
        return stand(WORKED, START, self.events)

    def say(self, kind, skew=0.0, **more):
        """Offer an event; returns whether it was admitted."""
        event = Event(
            f"event-{len(self.events):05}", self.clock + timedelta(minutes=skew), kind, **more
        )
        try:
            admit(WORKED, START, self.events, event)
        except Faults as wrong:
            assert wrong.faults
            assert all(f.field and plain(f.message).endswith(".") for f in wrong.faults)
            return False
        self.events = (*self.events, event)
        return True

    @rule(minutes=st.floats(0.1, 90))
    def time_goes_by(self, minutes):
        self.clock += timedelta(minutes=minutes)

    @rule(skew=st.floats(-3, 3))
    def the_main_button(self, skew):
        now = self.now
        if now.stop is None:
            return
        kind = EventKind.OUT if now.phase is Phase.REST else EventKind.DONE
        assert self.say(kind, skew, stop=now.stop) == (now.phase is not Phase.GIVEN_UP)

    @rule(kind=st.sampled_from([EventKind.DONE, EventKind.OUT]), key=st.sampled_from(KEYS))
    def any_button(self, kind, key):
        now = self.now
        due = EventKind.OUT if now.phase is Phase.REST else EventKind.DONE
        sensible = (kind, key) == (due, now.stop) and now.phase in (Phase.WORK, Phase.REST)
        assert self.say(kind, stop=key) == sensible

    @rule()
    def undo(self):
        before = self.now
        if before.undoable is None:
            assert not self.say(EventKind.UNDO, target="event-00000")
            return
        taken_back = next(e for e in self.events if e.id == before.undoable)
        assert self.say(EventKind.UNDO, target=before.undoable)
        # The standing is what it would have been had the event never been said.
        without = tuple(e for e in self.events[:-1] if e.id != taken_back.id)
        assert self.now == stand(WORKED, START, without)

    @rule(minutes=st.integers(-120, 120))
    def put_a_time_right(self, minutes):
        deeds = self.now.deeds
        if deeds:
            self.say(EventKind.MOVE, target=deeds[-1].event_id, minutes=minutes)

    @rule(value=st.floats(-20, 40), probe=st.sampled_from(list(Probe)))
    def take_a_temperature(self, value, probe):
        before = len(self.now.readings)
        assert self.say(EventKind.READING, probe=probe, value_c=value)
        assert len(self.now.readings) == before + 1

    @rule(key=st.sampled_from([*KEYS, "nowhere"]), minutes=st.integers(-5, 200))
    def choose_a_rest(self, key, minutes):
        now = self.now
        rests = any(s.key == key and s.rest for s in WORKED.strip)
        over = any(d.kind is EventKind.OUT and d.stop == key for d in now.deeds)
        admitted = self.say(EventKind.REST, stop=key, minutes=minutes)
        assert admitted == (rests and not over and minutes >= 0)
        if admitted:
            assert {r.stop: r.minutes for r in self.now.rests}[key] == minutes

    @rule()
    def give_up(self):
        over = self.now.phase in (Phase.FINISHED, Phase.GIVEN_UP)
        assert self.say(EventKind.GIVE_UP) != over

    @rule()
    def judge(self):
        over = self.now.phase in (Phase.FINISHED, Phase.GIVEN_UP)
        assert self.say(EventKind.VERDICT, verdict=Verdict(lift=3)) == over

    @invariant()
    def deeds_follow_the_plan_and_time_never_runs_back(self):
        now = self.now
        assert [(d.kind, d.stop) for d in now.deeds] == [
            (p.kind, p.stop) for p in ORDER[: len(now.deeds)]
        ]
        times = [START, *(d.at for d in now.deeds)]
        assert times == sorted(times)

    @invariant()
    def a_rest_ends_after_its_minutes(self):
        now = self.now
        if now.phase is Phase.REST:
            chosen = next(r.minutes for r in now.rests if r.stop == now.stop)
            assert now.until - now.since == timedelta(minutes=chosen)
        else:
            assert now.phase is Phase.GIVEN_UP or now.until is None

    @invariant()
    def turns_done_are_the_marks_in_the_dough(self):
        now = self.now
        done = [d for d in now.deeds if d.kind is EventKind.DONE and d.stop.startswith("turn")]
        assert now.turns_done == len(done) <= now.turns == 2


TestAtTheBench = AtTheBench.TestCase
TestAtTheBench.settings = settings(max_examples=22, stateful_step_count=30, deadline=None)
