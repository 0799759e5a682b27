"""A day that has begun: what happened takes nothing any more, and nothing false is said of it."""

import importlib
import math
from dataclasses import replace
from datetime import timedelta
from itertools import pairwise

from bakehouse.demo.teasel_lock import KITCHEN
from lamination.day import (
    Happened,
    Since,
    given_up_of,
    handover,
    happened_of,
    on_now,
    timetable,
    went_of,
)
from lamination.day.since import gone_on
from lamination.day.threads import Gap, Job, Thread
from lamination.plan import work
from lamination.run import Event, EventKind, Probe, stand, under_way
from lamination.steps import Chapter
from lamination.terms import Place

from .test_timetable import BOATS, MIDNIGHT, at, day, told_and_judged

timetables = importlib.import_module("lamination.day.timetable")


def gone_by(found, now):
    """Everything that should have happened by a moment, exactly as it was arranged."""
    return tuple(
        Happened(t.dough, t.step, t.starts, t.ends if t.ends <= now else None)
        for t in found.tasks
        if t.starts <= now and not (t.together and t.ends > now)
    )


def clash(tasks, hands):
    """Minutes at which more is taken than is there."""
    spans = [(t.starts, t.ends, t.hands) for t in tasks if t.hands]
    return [
        moment for moment, _, _ in spans if sum(n for a, b, n in spans if a <= moment < b) > hands
    ]


def test_a_day_that_goes_as_arranged_is_arranged_again_as_it_was():
    asked = day(doughs=3, hands=2, ready=10.0)
    before = timetable(asked, KITCHEN)
    assert any(t.together for t in before.tasks)
    for hours in (1.2, 3.0, 5.5):
        now = at(hours)
        after = timetable(asked, KITCHEN, 0.0, Since(now, gone_by(before, now), before.tasks))
        # a hand of the past is no hand that is missing now
        assert [g.says for g in after.gives if g.code in ("hand", "machine")] == []
        assert not clash(after.tasks, 2)
        assert after.late_min == before.late_min == 0
        together = [(t.dough, t.step, t.together) for t in after.tasks if t.together]
        assert together == [(t.dough, t.step, t.together) for t in before.tasks if t.together]


def test_a_mixing_under_way_takes_the_mixer_once_however_many_doughs_say_so():
    asked = day(doughs=3, hands=2, ready=10.0)
    before = timetable(asked, KITCHEN)
    mixing = [t for t in before.tasks if t.step == "mix"]
    first = next(t for t in mixing if t.together)
    same = [t for t in mixing if t.starts == first.starts]
    assert len(same) > 1
    happened = tuple(Happened(t.dough, "mix", t.starts) for t in same)
    now = first.starts + timedelta(minutes=5)
    after = timetable(asked, KITCHEN, 0.0, Since(now, happened, before.tasks))
    assert [g.says for g in after.gives if g.code in ("hand", "machine")] == []
    assert sum(t.hands for t in after.tasks if t.step == "mix" and t.starts == first.starts) == 1


def test_who_mixed_for_others_may_be_given_up_and_they_go_on():
    asked = day(doughs=3, hands=2, ready=10.0)
    before = timetable(asked, KITCHEN)
    follower = next(t for t in before.tasks if t.together)
    leader = follower.together
    mixed = next(t for t in before.tasks if t.dough == leader and t.step == "mix")
    happened = (
        Happened(follower.dough, "mix", mixed.starts, mixed.ends),
        Happened(leader, "mix", mixed.starts, mixed.ends),
    )
    now = mixed.ends + timedelta(minutes=5)
    after = timetable(asked, KITCHEN, 0.0, Since(now, happened, before.tasks, (leader,)))
    assert leader not in {t.dough for t in after.tasks}
    own = [t for t in after.tasks if t.dough == follower.dough]
    assert own[0].done
    assert all(t.starts >= now for t in own[1:])


def test_a_dough_that_is_all_done_stands_as_it_was():
    asked = day(doughs=1, hands=2, ready=9.0)
    before = timetable(asked, KITCHEN)
    happened = tuple(Happened("1", t.step, t.starts, t.ends) for t in before.tasks)
    after = timetable(asked, KITCHEN, 0.0, Since(at(12), happened, before.tasks))
    assert [(t.starts, t.ends, t.done) for t in after.tasks] == [
        (t.starts, t.ends, True) for t in before.tasks
    ]
    assert after.moved == ()
    assert after.cost == 0


def pressed(*deeds):
    return tuple(
        Event(f"event-{n:04}", moment, kind, stop=stop)
        for n, (moment, kind, stop) in enumerate(deeds)
    )


def test_what_is_said_at_the_bench_is_what_happened():
    worked = work(BOATS, KITCHEN)
    first, second = worked.strip[0], worked.strip[1]
    done = MIDNIGHT + timedelta(minutes=30)
    none = happened_of("7", worked, stand(worked, MIDNIGHT, ()))
    assert none == (Happened("7", first.key, MIDNIGHT),)
    events = pressed((done, EventKind.DONE, first.key))
    found = happened_of("7", worked, stand(worked, MIDNIGHT, events))
    assert found[0] == Happened("7", first.key, MIDNIGHT, done)
    resting = first.rest is not None and first.rest.minutes > 0
    assert [h.step for h in found[1:]] == ([] if resting else [second.key])
    flat = done + timedelta(minutes=12)
    events = pressed((done, EventKind.DONE, first.key), (flat, EventKind.DONE, second.key))
    if not resting:
        found = happened_of("7", worked, stand(worked, MIDNIGHT, events))
        assert found[1] == Happened("7", second.key, done, flat)
        # it lies in its rest: the step after it has not begun
        assert len(found) == 2
    stopped = (*events, Event("event-9999", flat, EventKind.GIVE_UP))
    standings = {"7": stand(worked, MIDNIGHT, stopped), "8": stand(worked, MIDNIGHT, ())}
    assert given_up_of(standings) == ("7",)


def test_the_handover_says_what_is_done_where_it_lies_and_who_comes():
    asked = day(doughs=2, hands=2, ready=10.0)
    found = timetable(asked, KITCHEN)
    now = found.tasks[0].ends + timedelta(minutes=1)
    happened = gone_by(found, now)

    def told(moment, gone=()):
        return handover(found, happened, asked.hands, moment, lambda t: f"{t:%H:%M}", gone)

    said = told(now)
    assert (
        said.splitlines()[0] == f"1 of {sum(not t.together for t in found.tasks)} steps are done."
    )
    assert "Next on" not in said
    assert told(at(-3)).splitlines()[-1] == "Next on: early, 23:00."
    assert "Dough 2 was stopped." in told(now, ("2",))
    late = told(now + timedelta(hours=4))
    assert " late." in late
    first = found.tasks[0]
    under_way = (Happened(first.dough, first.step, first.starts),)
    for minutes, says in ((-5, "under way, 5 min left."), (9, "9 min over.")):
        moment = first.ends + timedelta(minutes=minutes)
        lines = handover(found, under_way, asked.hands, moment, lambda t: f"{t:%H:%M}").splitlines()
        assert lines[1].endswith(says)
    assert on_now(asked.hands, now) == asked.hands
    assert on_now(asked.hands, at(13)) == ()


def test_what_goes_as_arranged_stays_where_it_is_however_long_is_looked():
    """Its rests are judged by the minutes and hours they have, not by those that were planned."""
    asked = day(doughs=4, hands=2, ready=9.0)
    before = timetable(asked, KITCHEN, 2.0)
    now = at(3)
    after = timetable(asked, KITCHEN, 1.0, Since(now, gone_by(before, now), before.tasks))
    verdicts = {(r.dough, r.step, r.place): r.verdict for r in before.rests}
    ahead = [r for r in after.rests if r.ends > now]
    assert ahead
    assert [r for r in ahead if r.verdict != verdicts[r.dough, r.step, r.place]] == []
    assert after.moved == ()
    assert after.cost <= before.cost


def test_what_is_arranged_again_is_told_as_its_rests_are_judged_then():
    asked = day(doughs=3, hands=2, ready=10.0)
    before = timetable(asked, KITCHEN)
    slow = next(t for t in before.tasks if t.starts > at(1) and not t.together)
    late = slow.ends + timedelta(minutes=35)
    happened = tuple(
        replace(h, ends=late) if (h.dough, h.step) == (slow.dough, slow.step) else h
        for h in gone_by(before, late)
        if h.dough != slow.dough or h.starts <= slow.starts
    )
    after = timetable(asked, KITCHEN, 1.0, Since(late, happened, before.tasks))
    (dough,) = [d for d in asked.doughs if d.id == slow.dough]
    judged = [*told_and_judged(after, dough)]
    assert [pair for pair in judged if pair[0] != pair[1]] == []
    assert len(judged) >= 3
    # what keeps a day calm is no compromise of it
    early = sum(0.2 * max((r.wanted - r.at).total_seconds() / 60 - 30, 0.0) for r in after.ready)
    given = 60 * after.late_min + 12 * after.outside_min + after.tight_min
    assert abs(after.cost - given - early) < 0.01
    assert any(m.dough == slow.dough and "because" in m.says for m in after.moved)


def test_what_is_not_late_stays_and_what_is_waits_for_its_own_and_no_more():
    jobs = tuple(Job(s, s, 10, Chapter.TURNS, None, True) for s in "abcd")
    rest = Gap("a", Place.FRIDGE, 30, 20, 25, 60, 90, 1, True)
    gaps = (rest, replace(rest, step="b", before=((Place.FREEZER, 28),)), replace(rest, step="c"))
    thread = Thread("1", "x", jobs, gaps, 400)
    before = {"a": 0, "b": 40, "c": 70, "d": 120}
    assert gone_on(thread, before, 0) == [
        0,
        40,
        78,
        120,
    ]  # the part in the freezer is not cut short
    # a is done half an hour late: its rest is as long as is good, and from there on it goes on
    late = replace(thread, done=((0, 40),))
    assert gone_on(late, before, 45) == [0, 65, 103, 138]
    # what was to begin before now begins now, and what another does begins with the other's
    assert gone_on(thread, before, 50) == [50, 85, 123, 158]
    assert gone_on(thread, before, 0, trunk=[7, 48])[:2] == [7, 48]


def test_the_day_judges_a_rest_as_the_bench_does_by_what_was_measured_and_how_long_it_took():
    asked = day(doughs=1, hands=2, ready=11.0)
    before = timetable(asked, KITCHEN)
    worked = work(BOATS, KITCHEN)
    tasks = [*before.tasks][: [t.step for t in before.tasks].index("turn-2") + 2]
    started, deeds = tasks[0].starts, []
    for task, then in pairwise(tasks):
        deeds.append((task.ends, EventKind.DONE, task.step))
        if then.starts > task.ends and then is not tasks[-1]:
            deeds.append((then.starts, EventKind.OUT, task.step))
    slow = deeds[-1][0] + timedelta(minutes=25)
    deeds[-1] = (slow, *deeds[-1][1:])
    warm = Event(
        "event-9000", slow - timedelta(minutes=1), EventKind.READING, stop="turn-2",
        probe=Probe.DOUGH, value_c=21.0,
    )  # fmt: skip
    standing = stand(worked, started, (*pressed(*deeds[:-1]), warm, *pressed(deeds[-1])))
    assert (standing.phase, standing.stop) == ("rest", "turn-2")
    bench = under_way(BOATS, KITCHEN, worked, standing, started.tzinfo).window
    went = {"1": went_of(BOATS, worked, standing, started.tzinfo)}

    def judged(went):
        happened = happened_of("1", worked, standing)
        since = Since(slow, happened, before.tasks, went=went)
        arranging = timetables._Arranging(asked, KITCHEN, since)
        arranging.begin(None)
        arranging.follow(float("inf"))
        gaps = arranging.search.threads["1"].gaps
        return next(gap for gap in gaps if gap.step == "turn-2")

    assert judged(went).good_from == math.ceil(bench.good_from_min)
    assert judged(went).good_from > judged({}).good_from
