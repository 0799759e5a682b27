"""Lock-in judged by both schools; a place learned from readings; a run as warm as it really is."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from lamination.heat.body import body
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.thermal import constant, thermal_of
from lamination.plan.work import work
from lamination.run.events import Event, EventKind, Probe
from lamination.run.standing import admit, stand
from lamination.run.underway import as_it_went, today_of, under_way
from lamination.steps.flatten import Flattening
from lamination.steps.lock_in import LockIn
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Method, Place
from lamination.warmth.bodies import room_through_the_day
from lamination.warmth.judge import Bend, Call, Feel, judge_lock_in
from lamination.warmth.learn import ProbeReading, fit_film, learned, read_logger_csv, simulated
from tests.lamination.heat.test_heat import DOUGH
from tests.plans import station, turns

START = datetime(2026, 3, 7, 6, 0, tzinfo=UTC)


def judged(dough_c, butter_c, bend=None, plan=None, **kitchen):
    return judge_lock_in(plan or station(), Feel(dough_c, butter_c, bend), Kitchen(kitchen))


def test_cold_dough_and_pliable_butter_go():
    found = judged(4, 13)
    assert found.call is Call.GO
    assert 12 < found.butter_wanted_c < 14


def test_hard_butter_is_tempered_and_soft_butter_chilled_for_so_many_minutes():
    hard, soft = judged(5, 5), judged(5, 19)
    assert (hard.call, hard.place) == (Call.WAIT, Place.BENCH)
    assert (soft.call, soft.place) == (Call.CHILL, Place.FRIDGE)
    assert hard.minutes > 3
    assert f"{round(soft.minutes)} min" in plain(soft.says)
    thick = station(lock_in=LockIn(Method.HALF, block_width_mm=180, block_length_mm=150))
    assert judged(5, 19, plan=thick).minutes > soft.minutes


def test_the_hand_overrules_the_probe():
    assert judged(4, 13, Bend.BENDS).call is Call.GO
    assert judged(4, 13, Bend.CRACKS).call is Call.WAIT
    assert judged(4, 13, Bend.SMEARS).call is Call.CHILL
    assert "cracks" in plain(judged(4, 13, Bend.CRACKS).says)


def test_a_fridge_that_never_gets_there_is_said():
    assert judged(5, 19, **{"fridge.c": 18}).minutes is None


def test_the_other_school_stands_in_the_footnote():
    assert judged(4, 13).footnote != judged(13, 13).footnote


# --- learning a place


def warm_slab():
    return body([(False, 25)], (thermal_of(DOUGH), 1130), (constant(0.2, 2400), 940), 18.0)


@pytest.mark.parametrize(("film", "seed"), [(14, 1), (7, 2), (25, 3)])
def test_the_fit_finds_the_coefficient_that_the_simulation_used(film, seed):
    read = simulated(warm_slab(), 4, film, 300, 90, seed)
    fit = fit_film(warm_slab(), 4, 9, 300, read)
    assert fit.after_w_m2k == pytest.approx(film, rel=0.08)
    assert fit.after_error_k < 0.3 < fit.before_error_k or film == 7
    assert fit.left_out  # the slipped probe
    assert "4 readings were left out" in learned(fit, "fridge")
    assert ("harder" in learned(fit, "fridge")) is (film > 9)


def test_a_simulated_probe_says_the_same_for_the_same_seed_and_drops_out():
    one, two = (simulated(warm_slab(), 4, 14, 300, 60, 5) for _ in range(2))
    assert one == two != simulated(warm_slab(), 4, 14, 300, 60, 6)
    assert len(one) < 61


def test_too_few_readings_or_too_little_happening_cannot_teach():
    few = tuple(ProbeReading(m, 10) for m in (0, 5, 9))
    with pytest.raises(Faults, match="too few"):
        fit_film(warm_slab(), 4, 9, 300, few)
    with pytest.raises(Faults, match="Too little happens"):
        fit_film(warm_slab(), 17.5, 9, 300, tuple(ProbeReading(m, 17) for m in range(0, 60, 5)))


@pytest.mark.parametrize(
    "text",
    [
        "minute,temp\n0,18\n5,16.5\n10,15.2",
        "0;18,0\n5;16,5\n10;15,2",
        "time\tdegrees\n23:58\t18\n24:03\t16.5\n24:08\t15.2",
        "2026-03-07 23:58:00,18\n2026-03-08 00:03:00,16.5\n2026-03-08T00:08:00,15.2",
    ],
)
def test_any_logger_s_table_is_read(text):
    assert read_logger_csv(text) == (
        ProbeReading(0, 18),
        ProbeReading(5, 16.5),
        ProbeReading(10, 15.2),
    )


def test_a_table_that_is_none_names_its_line():
    with pytest.raises(Faults, match="Line 3 is not a time"):
        read_logger_csv("a,b\n0,18\nsoon,cold")
    with pytest.raises(Faults, match="nothing in this table"):
        read_logger_csv("  \n")
    with pytest.raises(Faults, match="headings and no readings"):
        read_logger_csv("time,temperature")


# --- a run under way


def plan():
    return station(turns=turns("letter", "letter", "letter", rest=Rest.at(Place.FRIDGE, 40)))


def event(n, minute, kind, **fields):
    at = START + timedelta(minutes=minute)
    return Event(id=f"event-{n:04}", at=at, kind=kind, **fields)


def run(*events):
    worked = work(plan())
    said = ()
    for e in events:
        admit(worked, START, said, e)
        said = (*said, e)
    return worked, stand(worked, START, said)


def done(n, minute, stop):
    return event(n, minute, EventKind.DONE, stop=stop)


def test_the_plan_is_followed_as_it_went():
    worked, now = run(
        done(1, 12, "dough"),
        done(2, 40, "lock_in"),
        done(3, 55, "turn-1"),
        event(4, 115, EventKind.OUT, stop="turn-1"),
    )
    went = as_it_went(plan(), worked, now)
    assert (went.first(Flattening).bench_min, went.lock_in.bench_min) == (12, 28)
    assert went.turns[0].rest.minutes == 60
    assert went.turns[1] == plan().turns[1]


def test_the_window_stands_by_the_clock_and_readings_move_it():
    start = (done(1, 10, "dough"), done(2, 25, "lock_in"), done(3, 33, "turn-1"))
    worked, now = run(*start)
    cool = under_way(plan(), Kitchen(), worked, now, UTC)
    assert cool.window.stop == "turn-1"
    assert cool.best_at == now.since + timedelta(minutes=cool.window.best_min)
    assert cool.good_at <= cool.best_at
    hot_room = event(4, 34, EventKind.READING, probe=Probe.ROOM, value_c=31)
    warm_dough = event(5, 35, EventKind.READING, probe=Probe.DOUGH, value_c=21)
    worked, now = run(*start, hot_room, warm_dough)
    today = today_of(now, UTC)
    assert today.room_c == 31
    assert today.starts[0].resting
    hot = under_way(plan(), Kitchen(), worked, now, UTC)
    assert hot.best_at >= cool.best_at
    assert hot.window.butter_c > cool.window.butter_c


def test_the_room_s_course_begins_where_it_was_read():
    _, now = run(
        done(1, 10, "dough"), event(2, 40, EventKind.READING, probe=Probe.ROOM, value_c=24)
    )
    today = today_of(now, UTC)
    assert today.begins_h == START.hour + START.minute / 60
    assert today.room_at_min == 40
    kitchen = today.in_kitchen(Kitchen({"room.swing_k": 6}))
    assert room_through_the_day(kitchen, 40, today.room_at_min) == pytest.approx(24)
    later = room_through_the_day(kitchen, 40 + 12 * 60, today.room_at_min)
    assert later != pytest.approx(24, abs=0.5)


def test_a_rest_of_another_length_moves_the_clock_and_only_until_it_is_over():
    start = (done(1, 10, "dough"), done(2, 25, "lock_in"), done(3, 33, "turn-1"))
    longer = event(4, 34, EventKind.REST, stop="turn-1", minutes=55)
    _, now = run(*start, longer)
    assert now.until == START + timedelta(minutes=33 + 55)
    assert {r.stop: r.minutes for r in now.rests}["turn-2"] == 40
    out = event(5, 90, EventKind.OUT, stop="turn-1")
    with pytest.raises(Faults, match="over already"):
        run(*start, out, replace(longer, id="event-0009"))
    with pytest.raises(Faults, match="no rest after"):
        run(event(6, 1, EventKind.REST, stop="cut", minutes=5))


def test_a_late_dough_on_a_hot_day_moves_what_is_to_come_and_says_what():
    hurried = station(turns=turns("letter", "letter", "letter", rest=Rest.at(Place.FRIDGE, 15)))
    worked = work(hurried)

    def moved(room_c, dough_c):
        said = (
            done(1, 10, "dough"),
            done(2, 60, "lock_in"),
            event(3, 61, EventKind.READING, probe=Probe.ROOM, value_c=room_c),
            event(4, 62, EventKind.READING, probe=Probe.DOUGH, value_c=dough_c),
            done(5, 85, "turn-1"),
        )
        now = stand(worked, START, said)
        found = under_way(hurried, Kitchen(), worked, now, UTC)
        assert found.warmth.room_c == room_c
        return {m.stop: m for m in found.moved}

    cool, hot = moved(16, 8), moved(31, 19)
    assert hot["turn-1"].advised_min > 15
    assert "turn-1" not in cool or cool["turn-1"].advised_min < hot["turn-1"].advised_min
    assert "Turn 1" in plain(hot["turn-1"].says)
