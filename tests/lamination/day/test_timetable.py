"""The timetable in the core: what would mend a day, what needs hands now, what is fixed once it happened."""

import importlib
import time
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from itertools import pairwise

import pytest

from bakehouse.demo.teasel_lock import BOATS, KITCHEN, MARKET
from lamination.day import Day, Dough, Happened, Prefer, Shift, Since, When, due, lying, timetable
from lamination.day.day import Held
from lamination.day.gives import Give
from lamination.day.mending import changes, mended
from lamination.terms.said import plain, span
from lamination.warmth import Today, follow

# the module, which its function hides
timetables = importlib.import_module("lamination.day.timetable")
MIDNIGHT = datetime(2027, 6, 19, tzinfo=UTC)


def at(hours):
    return MIDNIGHT + timedelta(hours=hours)


def day(doughs=3, hands=1, ready=8.0, begins=-1.0, **more):
    return Day(
        "Regatta", at(begins), at(14), (Shift("early", at(begins), at(13), hands),),
        tuple(Dough(str(n + 1), BOATS, at(ready)) for n in range(doughs)), "Europe/London", **more,
    )  # fmt: skip


def searched(asked, kitchen):
    """A day arranged by so many tries, whatever the machine."""
    arranging = timetables._Arranging(asked, kitchen, None)
    arranging.search.begin()
    arranging.search.improve(float("inf"), rounds=25)
    return arranging, arranging.told(0.0)


def test_what_is_offered_to_mend_a_day_does():
    short = day(doughs=5, ready=8.5)
    arranging, found = searched(short, KITCHEN)
    assert found.late_min > 0
    worst = arranging.mended(float("inf"))[0]
    assert worst.code in ("late", "rest")
    assert worst.mend.endswith("would mend it.")
    mends = {c.says: c for c in changes(short, KITCHEN, worst)}
    change = mends[worst.mend.removesuffix(" would mend it.")]
    _, after = searched(change.day, change.kitchen)
    assert found.cost - after.cost >= 0.5 * worst.weighs


def test_what_does_not_help_is_not_offered():
    gives = (Give("late", "1", "cut", 600.0, "Dough 1 is 10 min late.", 300),)
    assert mended(day(), KITCHEN, gives, 600.0, lambda *_: 590.0, float("inf")) == gives
    helped = mended(day(), KITCHEN, gives, 600.0, lambda *_: 20.0, float("inf"))
    assert helped[0].mend == "One more hand from 03:30 to 05:30 would mend it."
    # and where there is no time to try it, nothing is said
    assert mended(day(), KITCHEN, gives, 600.0, lambda *_: 20.0, 0.0) == gives


def test_a_rest_that_is_as_good_in_other_minutes_costs_nothing_and_a_tight_one_what_it_is():
    """Three doughs and a hand: rests are not as planned, and what they cost is what is given up."""
    # from six to seven nobody is there, so that two are at work before and after it
    apart = (Shift("a", at(-1), at(6), 2), Shift("b", at(7), at(13), 2))
    for asked in (replace(day(doughs=2), hands=apart), day(doughs=4)):
        arranging, found = searched(asked, KITCHEN)
        assert any(r.minutes != r.planned_min for r in found.rests)
        early = sum(
            0.2 * max((r.wanted - r.at).total_seconds() / 60 - 30, 0.0) for r in found.ready
        )
        given = 60 * found.late_min + 12 * found.outside_min + found.tight_min
        far = 0.0
        for dough, thread in arranging.search.threads.items():
            starts = arranging.search.placed[dough].starts
            for k, gap in enumerate(thread.gaps):
                minutes = starts[k + 1] - thread.ended(starts, k)
                far += gap.far * (gap.away(minutes) - gap.tight(minutes) - gap.outside(minutes))
        assert abs(found.cost - given - early - far) < 0.01
        # it is less than what the search weighs, by little: whole nights are not a minute of a tight rest
        assert 0 < arranging.search.cost - arranging.search.given < len(asked.doughs)
        arranging.prove(0.0)
        assert arranging.told(0.0).bound <= found.cost


def test_all_give_way_anew_twice_and_the_better_is_gone_on_from(monkeypatch):
    arranging, _ = searched(day(), KITCHEN)
    lying, looked, gone_on = arranging.search.as_it_lies(), [], []
    costs = iter([50.0, 40.0, 39.0, 60.0, 45.0, 44.0, 38.0, 37.0])

    def judged(*_):
        return timetables._Judged(next(costs), lying, dict(arranging.marked), False)

    monkeypatch.setattr(timetables, "look", lambda *asked, **_: looked.append(asked[3]))
    monkeypatch.setattr(arranging, "follow", judged)
    monkeypatch.setattr(arranging, "_go_on_from", lambda one: gone_on.append(one.weighed))
    arranging.look(time.monotonic() + 100, 0.0, lambda: len(looked) == 8)
    assert looked == [True, False, False, True, False, False, False, False]
    assert gone_on == [50, 40, 39, 60, 45, 39, 38, 37, 37]
    # where there is no time for another, the first is gone on from
    looked.clear()
    costs = iter([50.0, 40.0, 39.0, 38.0])
    arranging.look(time.monotonic() + 2, 0.0, lambda: len(looked) == 4)
    assert looked == [True, False, False, False]


def test_sleep_is_preferred_where_the_day_allows_it():
    late = {"doughs": 1, "hands": 2, "ready": 13.0, "begins": -6.0}

    def dark(found):
        tasks = [t for t in found.tasks if t.hands]
        return sum(t.starts.hour >= 21 or t.starts.hour < 5 for t in tasks)

    early = replace(day(**late), held=())
    assert dark(timetable(replace(early, prefer=Prefer.SLEEP), KITCHEN)) == 0


def test_what_is_fixed_after_the_mixing_is_mixed_together_all_the_same():
    """A last step at its hour takes no dough out of a mixing; a mixing at its hour does."""
    asked = day(doughs=2, hands=2)
    found = timetable(asked, KITCHEN)
    mixed = [(t.dough, t.step) for t in found.tasks if t.together]
    follower, mixing = mixed[-1]
    own = [t for t in found.tasks if t.dough == follower]

    def fixed(step):
        """What is done together once a step of the follower is held five minutes later."""
        task = next(t for t in own if t.step == step)
        held = Held(follower, step, task.starts + timedelta(minutes=5))
        tasks = timetable(replace(asked, held=(held,)), KITCHEN).tasks
        assert next(t for t in tasks if t.step == step and t.dough == follower).held
        return [(t.dough, t.step) for t in tasks if t.together]

    assert fixed(own[-1].step) == mixed
    assert fixed(mixing) == []


def test_what_has_happened_stays_and_a_step_under_way_takes_its_time():
    asked = day(doughs=1, hands=2, ready=9.0)
    before = timetable(asked, KITCHEN)
    first, second = before.tasks[:2]
    slow = timedelta(minutes=25)
    happened = (
        Happened("1", first.step, first.starts, first.ends + slow),
        Happened("1", second.step, second.starts + slow),
    )
    now = second.starts + slow + timedelta(minutes=3)
    after = timetable(asked, KITCHEN, 0.2, Since(now, happened, before.tasks))
    tasks = {t.step: t for t in after.tasks}
    assert (tasks[first.step].starts, tasks[first.step].ends) == (first.starts, first.ends + slow)
    long = second.ends - second.starts
    assert tasks[second.step].ends == second.starts + slow + long
    assert all(t.starts >= tasks[second.step].ends for t in after.tasks[2:])
    assert {m.step for m in after.moved} <= {t.step for t in before.tasks[1:]}


def test_what_is_due_is_told_by_how_it_presses():
    found = timetable(day(doughs=2, hands=2, ready=9.0), KITCHEN)
    first = found.tasks[0]
    other = next(t for t in found.tasks if t.dough != first.dough and not t.together)
    now = first.starts + timedelta(minutes=20)
    happened = (Happened(first.dough, first.step, first.starts, None),)
    seen = due(found.tasks, happened, now)
    mine = next(d for d in seen if d.step == first.step and first.dough in d.doughs)
    assert mine.begun
    assert mine.when is When.NOW
    order = [list(When).index(d.when) for d in seen]
    assert order == sorted(order)
    assert [d.first for d in seen if d.doughs[0] == other.dough].count(True) <= 1
    assert not due(found.tasks, happened, now, gone=("1", "2"))
    assert mine.says == f"under way, {mine.minutes} min left"
    done = (Happened(first.dough, first.step, first.starts, first.ends),)
    rests = [r for r in found.rests if r.dough == first.dough and r.step == first.step]
    if rests:
        at_rest = lying(found, done, first.ends + timedelta(minutes=1))
        assert [one.dough for one in at_rest] == [first.dough]
        assert at_rest[0].until == rests[-1].ends


@pytest.mark.parametrize(
    ("begun", "ended", "after", "says"),
    [
        (None, None, -90, "in 1 h 30"),
        (None, None, -2, "in 2 min"),
        (None, None, -1, "now"),
        (None, None, 2, "now"),
        (None, None, 12, "12 min late"),
        (0, None, 4, "under way, 6 min left"),
        (5, None, 12, "under way, 3 min left"),
        (0, None, 22, "12 min over"),
        (0, 10, 22, "done"),
    ],
)
def test_how_a_step_stands_is_said_in_the_same_words_everywhere(begun, ended, after, says):
    found = timetable(day(doughs=1, hands=1, ready=9.0), KITCHEN)
    one = found.tasks[0]
    one = replace(one, ends=one.starts + timedelta(minutes=10))

    def minute(m):
        return None if m is None else one.starts + timedelta(minutes=m)

    happened = () if begun is None else (Happened("1", one.step, minute(begun), minute(ended)),)
    (seen,) = due((one,), happened, minute(after))
    assert seen.says == says


def test_what_one_dough_was_judged_by_keeps_others_of_its_plan_within_the_same_edge():
    arranging, _ = searched(day(doughs=3, hands=2, ready=9.0), KITCHEN)
    before, placed = arranging.search.threads["1"], arranging.search.placed
    lasted = [placed["1"].starts[k + 1] - before.ended(placed["1"].starts, k)
              for k in range(len(before.gaps))]  # fmt: skip
    k = max(range(len(lasted)), key=lambda k: lasted[k] if before.gaps[k].rests else -1)

    def learnt(sooner):
        """From how long its longest rest was judged to be too long."""
        gap = replace(before.gaps[k], good_until=lasted[k] - sooner, possible_until=None)
        judged = replace(before, gaps=(*before.gaps[:k], gap, *before.gaps[k + 1 :]))
        arranging._learn("1", judged, lasted)
        return arranging.edges[before.name].get(gap.step)

    assert learnt(timetables._SURPRISE - 1) is None  # no more than was to be expected
    assert learnt(60) == (0, lasted[k] - 60)
    assert learnt(40) == (0, lasted[k] - 60)
    arranging._keep(lambda thread, _: thread)
    step = before.gaps[k].step
    for dough, thread in arranging.search.threads.items():
        at, (gap,) = placed[dough].starts, [g for g in thread.gaps if g.step == step]
        lasts = at[k + 1] - thread.ended(at, k)
        assert (gap.good_until == lasted[k] - 60) == (lasts <= lasted[k] - 60)


def test_two_that_are_there_at_once_are_told_apart_and_one_who_comes_twice_is_one():
    shifts = (
        Shift("Wren", at(-1), at(6)), Shift("Wren", at(5), at(13)), Shift("Wren", at(7), at(9)),
        Shift("Tam, Wren", at(10), at(13), 2), Shift("early", at(0), at(1), 2),
    )  # fmt: skip
    asked = replace(day(doughs=4), hands=shifts)
    assert asked.who == (
        ("Wren",), ("Wren (2)",), ("Wren",), ("Tam", "Wren"), ("early 1", "early 2"),
    )  # fmt: skip
    found = timetable(asked, KITCHEN)
    assert not found.late_min
    assert len({d.who for d in found.duties}) == len(found.duties)
    for duty in found.duties:
        own = [t for t in found.tasks if t.who == duty.who]
        assert duty.work_min == sum((t.ends - t.starts).total_seconds() / 60 for t in own)
        assert all(
            any(s.starts <= t.starts and t.ends <= s.ends for s in duty.stretches) for t in own
        )
        assert all(a.ends <= b.starts for a, b in pairwise(sorted(own, key=lambda t: t.starts)))
    (wren,) = [d for d in found.duties if d.who == "Wren"]
    assert wren.stretches[0].starts < at(6) < wren.stretches[-1].ends


def told_and_judged(found, dough):
    """Of a dough's rests the verdict that is told, and the warmth's at the minutes and hours they have.

    Only where none of its marks is near, for a rest is followed to the nearest five or fifteen minutes.
    """
    lasting = {r.step: r for r in found.rests if r.dough == dough.id}
    steps = [
        replace(s, rest=s.rest.lasting(float(lasting[s.id].minutes)))
        if s.rest and s.id in lasting
        else s
        for s in dough.plan.steps
    ]
    begins = min(t.starts for t in found.tasks if t.dough == dough.id)
    today = Today(begins_h=begins.hour + begins.minute / 60)
    for window in follow(dough.plan.with_steps(*steps), KITCHEN, today, 16 * 60.0).windows:
        told = lasting.get(window.stop)
        marks = (window.good_from_min, window.good_until_min, window.possible_from_min)
        if told and not any(m is not None and abs(told.minutes - m) < 15 for m in marks):
            yield told.verdict, window.verdict


def test_rests_are_told_as_the_warmth_judges_them_at_the_minutes_and_hours_they_have():
    asked = day(doughs=4, hands=2, ready=9.0)
    found = timetable(asked, KITCHEN, 3.0)
    judged = [pair for dough in asked.doughs for pair in told_and_judged(found, dough)]
    assert [pair for pair in judged if pair[0] != pair[1]] == []
    assert len(judged) >= 8


# --- what a good day is


def market(ready, *hands, **more):
    """Croissants for an hour of Saturday, and who is there, from and until which of its hours."""
    shifts = tuple(Shift(f"shift {n}", at(a), at(b), 2) for n, (a, b) in enumerate(hands))
    doughs = tuple(Dough(str(n + 1), MARKET, at(hour)) for n, hour in enumerate(ready))
    return Day("Saturday", at(-44), at(30), shifts, doughs, "UTC", **more)


EVE, FRIDAY, EARLY = (-32, -28), (-18, -8), (2, 10)


def test_croissants_for_six_come_out_of_the_oven_that_morning():
    _, found = searched(market((6, 6), EVE, FRIDAY, EARLY), KITCHEN)
    assert found.late_min == 0
    for ready in found.ready:
        assert ready.wanted - ready.at < timedelta(hours=2)
    assert not [g for g in found.gives if g.code == "stale"]


def test_what_has_to_be_baked_the_day_before_is_told_with_its_weekday():
    _, found = searched(market((6,), EVE, FRIDAY), KITCHEN)
    (stale,) = [g for g in found.gives if g.code == "stale"]
    assert "Fri 1" in stale.says
    assert "is fresh for 5 h" in plain(stale.says)
    keeps = KITCHEN.of_family(MARKET.family, "fresh_h")
    (ready,) = found.ready
    over = (ready.wanted - ready.at) / timedelta(minutes=1) - 60 * keeps
    assert stale.weighs == pytest.approx(8 * over)


@pytest.mark.parametrize("fixed", [4.5, 5.5])
def test_nothing_is_baked_unproofed_because_it_would_be_late(fixed):
    held = (Held("1", "shape", at(fixed)),)
    _, found = searched(market((6,), EVE, FRIDAY, EARLY, held=held), KITCHEN)
    proof = next(r for r in found.rests if r.step == "shape")
    assert proof.verdict in ("good", "tight")
    assert found.late_min > 0


def test_a_rest_that_is_good_but_not_what_the_plan_says_is_told_and_costs():
    _, found = searched(market((6,), EVE, FRIDAY, EARLY), KITCHEN)
    chosen = {r.step: r.planned_min for r in found.rests}
    for give in found.gives:
        if give.code == "far":
            assert f"in place of {plain(span(chosen[give.step]))}" in plain(give.says)
    # a night lies where the plan has one, not with a rolled sheet
    assert next(r for r in found.rests if r.step == "final").minutes <= 45
    assert next(r for r in found.rests if r.step == "dough").minutes >= 240


def test_doughs_of_two_days_are_not_mixed_in_one_go():
    def led(*ready):
        arranging = timetables._Arranging(market(ready, EVE, FRIDAY, EARLY), KITCHEN, None)
        return sum(t.leader is not None for t in arranging.search.threads.values())

    assert (led(6, 6), led(6, 9), led(6, 29.5)) == (1, 1, 0)
    assert led(6, 9, 29, 29.5) == 2
