"""Cold by the API: warmth today, the judged lock-in, a place learned, probes with tokens."""

import json
from datetime import UTC, datetime, timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone

from bakehouse.cold.models import ProbeRecord
from tests.api.conftest import started

from .conftest import STATION

LESSON = {"place": "fridge", "thickness_mm": 25, "start_c": 18}


@pytest.fixture(autouse=True)
def a_demo_house(settings):
    """What is simulated stands in the demo only."""
    settings.DEMO = True


def test_the_plan_follows_today_s_room_and_the_kitchen(head):
    cool = head.call("POST", "/warmth", {"plan": STATION, "today": {"room_c": 17}})
    hot = head.call("POST", "/warmth", {"plan": STATION, "today": {"room_c": 29}, "what_if": True})
    assert (cool["room_c"], hot["room_c"]) == (17, 29)
    lasts = [
        next(c for c in w["clocks"] if c["stop"] == "turn-2")["lasts_min"] for w in (cool, hot)
    ]
    assert lasts[0] is None or lasts[0] > lasts[1]
    assert hot["warmer"].startswith("Two degrees warmer")
    head.call("PUT", "/kitchen", {"revision": 0, "yours": {"room.c": 25}, "ingredients": []})
    assert head.call("POST", "/warmth", {"plan": STATION})["room_c"] == 25


def test_impossible_warmth_is_named_at_its_field(head):
    body = {"plan": STATION, "today": {"room_c": -300}}
    assert "from {-60|°C} to {60|°C}" in head.faults("POST", "/warmth", body)["today.room_c"]
    # a file of version 4 whose rest is shorter than its own beginning
    rest = {"place": "fridge", "minutes": 20, "first": {"place": "freezer", "minutes": 30}}
    turn = {"fold": "letter", "roll_to_mm": 8, "rest": rest}
    faults = head.faults("POST", "/warmth", {"plan": STATION | {"turns": [turn]}})
    assert next(m for f, m in faults.items() if f.endswith("rest.stays[1].minutes")).startswith(
        "Must be from"
    )


def test_a_lock_in_is_judged(hand):
    feel = {"dough_c": 4, "butter_c": 19}
    found = hand.call("POST", "/judge", {"plan": STATION, "feel": feel})
    assert found["call"] == "chill"
    assert "in the fridge" in found["says"]
    assert "feel.butter_c" in hand.faults(
        "POST", "/judge", {"plan": STATION, "feel": {"dough_c": 4, "butter_c": 99}}
    )


def test_a_place_is_learned_kept_and_brought_back(head, hand):
    readings = hand.call("POST", "/learn/simulated", LESSON)
    lesson = LESSON | {"readings": readings}
    found = hand.call("POST", "/learn", lesson)
    assert found["fit"]["after_w_m2k"] == pytest.approx(7 * 1.7, rel=0.08)
    hand.call("POST", "/learn/keep", lesson, expect=403)
    head.call("POST", "/learn/keep", lesson)
    kitchen = head.call("GET", "/kitchen")
    row = next(d for d in kitchen["table"] if d["key"] == "fridge.film")
    assert (row["origin"], row["value"]) == ("yours", kitchen["yours"]["fridge.film"])
    head.call("PUT", "/kitchen", {"revision": kitchen["revision"], "yours": {}, "ingredients": []})
    row = next(d for d in head.call("GET", "/kitchen")["table"] if d["key"] == "fridge.film")
    assert row["value"] == 7


def test_what_cannot_teach_says_why(hand):
    assert "too few" in hand.faults("POST", "/learn", LESSON)["readings"]
    bench = hand.faults("POST", "/learn/simulated", LESSON | {"place": "bench"})
    assert "learn a fridge or a freezer" in bench["place"]


def table(hand, content, expect=200):
    file = SimpleUploadedFile("logger.csv", content, "text/csv")
    answer = hand.post("/api/learn/csv", {"file": file})
    assert answer.status_code == expect
    return answer.json()


def test_a_logger_s_table_comes_in_and_a_wrong_one_is_told(hand):
    assert table(hand, b"min;temp\n0;18,0\n5;16,2")[1] == {"minute": 5, "t_c": 16.2}
    assert "Line 2 is not a time" in table(hand, b"0,18\nx,y", 422)["faults"][0]["message"]
    assert "not text" in table(hand, b"\xff\xfe\x00\x01", 422)["faults"][0]["message"]


def probe_says(token, *readings):
    body = json.dumps({"readings": [{"at": at.isoformat(), "t_c": t} for at, t in readings]})
    return Client().post(
        "/api/probes/readings",
        body,
        "application/json",
        headers={"Authorization": f"Bearer {token}"},
    )


def test_a_probe_posts_with_its_token_once_and_again(head, hand):
    made = head.call("POST", "/probes", {"name": "Walk-in, middle shelf"})
    assert made["token"] not in str(ProbeRecord.objects.values())
    start = datetime.now(UTC).replace(microsecond=0) - timedelta(hours=6)
    said = [(start + timedelta(minutes=m), 18 - m / 10) for m in range(0, 30, 5)]
    assert probe_says(made["token"], *said).json() == {"kept": 6}
    assert probe_says(made["token"], *said).json() == {"kept": 0}
    readings = hand.call("GET", f"/probes/{made['id']}/readings")
    assert [r["minute"] for r in readings] == [0, 5, 10, 15, 20, 25]
    view = hand.call("GET", "/probes")[0]
    assert (view["samples"], view["token"]) == (6, None)
    # after a gap of an hour a new rest begins
    later = start + timedelta(hours=3)
    probe_says(made["token"], (later, 20), (later + timedelta(minutes=1), 19))
    assert len(hand.call("GET", f"/probes/{made['id']}/readings")) == 2


def test_a_stranger_s_token_and_a_bench_hand_s_probe_are_refused(head, hand):
    assert probe_says("no-such-token", (datetime.now(UTC), 4)).status_code == 401
    hand.call("POST", "/probes", {"name": "Mine"}, expect=403)
    made = head.call("POST", "/probes", {"name": "Fridge"})
    naive = Client().post(
        "/api/probes/readings",
        json.dumps({"readings": [{"at": "2026-03-07T06:00:00", "t_c": 4}]}),
        "application/json",
        headers={"Authorization": f"Bearer {made['token']}"},
    )
    assert naive.json()["faults"][0]["field"] == "readings[0].at"
    head.call("DELETE", f"/probes/{made['id']}", expect=204)
    assert hand.call("GET", "/probes") == []
    hand.call("GET", f"/probes/{made['id']}/readings", expect=404)


def test_a_run_is_as_warm_as_it_was_measured_and_a_rest_may_be_moved(hand, plan):
    run = started(hand, plan["id"])
    now = timezone.now()
    n = iter(range(100))

    def say(kind, **fields):
        event = {"id": f"event-{next(n):04}", "at": now.isoformat(), "kind": kind} | fields
        return hand.call("POST", f"/runs/{run['id']}/events", {"events": [event]})

    say("reading", probe="room", value_c=30)
    for stop in ("dough", "lock_in", "turn-1"):
        view = say("done", stop=stop)
    warmth = hand.call("GET", f"/runs/{run['id']}/warmth")
    assert warmth["warmth"]["room_c"] == 30
    assert warmth["window"]["stop"] == "turn-1"
    assert warmth["best_at"] > view["standing"]["since"]
    say("rest", stop="turn-1", minutes=52)
    view = hand.call("GET", f"/runs/{run['id']}")
    since = datetime.fromisoformat(view["standing"]["since"])
    assert datetime.fromisoformat(view["standing"]["until"]) == since + timedelta(minutes=52)
    assert hand.call("GET", f"/runs/{run['id']}/warmth")["window"]["chosen_min"] == 52


def test_a_sheet_is_cut_across_and_folds_are_searched(head):
    cut = {"plan": STATION, "stop": "final", "line": {"at_pct": 30}}
    found = head.call("POST", "/section", cut)
    assert found["stacks"][0]["butter"] == 27
    wrong = head.faults("POST", "/section", cut | {"stop": "mix"})
    assert wrong["stop"].startswith("There is no sheet after “mix”")
    ask = {"plan": STATION, "search": {"wish": "leaves", "turns": 3}}
    assert head.call("POST", "/suggest", ask)["searched"] == 64
    assert "search.turns" in head.faults(
        "POST", "/suggest", ask | {"search": {"wish": "leaves", "turns": 9}}
    )


def test_how_warm_it_is_today_is_said_once_for_every_screen(head, hand):
    assert hand.call("GET", "/climate") == {
        "room_c": None,
        "fridge_c": None,
        "by": None,
        "at": None,
    }
    said = hand.call("PUT", "/climate", {"room_c": 27.5})
    assert (said["room_c"], said["fridge_c"], said["by"]) == (27.5, None, "tansy")
    assert head.call("GET", "/climate") == said
    # the bench judges by it as well
    run = started(hand, head.call("POST", "/plans", STATION)["id"])
    warm = hand.call("GET", f"/runs/{run['id']}/warmth")["warmth"]
    assert warm["room_c"] == 27.5
    head.call("PUT", "/climate", {})
    assert head.call("GET", "/climate")["by"] is None
    assert hand.call("GET", f"/runs/{run['id']}/warmth")["warmth"]["room_c"] != 27.5
    assert "room_c" in hand.faults("PUT", "/climate", {"room_c": 60})


def test_the_sheeter_s_own_steps_are_kept_and_stay_when_others_save(head):
    body = {"revision": 0, "yours": {}, "ingredients": [], "dial": [40, 28, 20]}
    assert head.call("PUT", "/kitchen", body)["dial"] == [40, 28, 20]
    later = {"revision": 1, "yours": {"room.c": 22}, "ingredients": []}
    assert head.call("PUT", "/kitchen", later)["dial"] == [40, 28, 20]
    wrong = {"revision": 2, "yours": {}, "ingredients": [], "dial": [40, -3]}
    assert "dial[1]" in head.faults("PUT", "/kitchen", wrong)


def test_two_who_save_the_kitchen_at_once_lose_no_steps_of_the_sheeter(head):
    at = {"revision": 0, "yours": {}, "ingredients": []}
    head.call("PUT", "/kitchen", at | {"dial": [40, 28]})
    # both had the first revision before them
    head.call("PUT", "/kitchen", at | {"revision": 1, "yours": {"room.c": 23}, "dial": [40, 28]})
    late = head.call("PUT", "/kitchen", at | {"revision": 1, "dial": [40, 20]})
    assert (late["dial"], late["yours"]["room.c"]) == ([40, 20], 23)
    other = head.call("PUT", "/kitchen", at | {"revision": 1, "yours": {"fridge.c": 3}})
    assert other["dial"] == [40, 20]
