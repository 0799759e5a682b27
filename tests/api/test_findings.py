"""What was seen, why, what was different and the next time, over the API and on the command line."""

import json
import subprocess
import sys
import uuid
from datetime import timedelta
from pathlib import Path

import pytest
from django.utils import timezone

from bakehouse.bench.models import Run
from bakehouse.documents import dump
from lamination.findings import BakeCause
from lamination.run import Event
from tests.lamination.findings.simulated import plan as a_plan
from tests.lamination.findings.simulated import record

ROOT = Path(__file__).resolve().parents[2]


@pytest.fixture
def plan(head):
    return head.call("POST", "/plans", dump(a_plan()))


def baked(tablet, plan, of, days_ago=1.0, verdict=None):
    """A dough of a plan, taken to its end as a record has it."""
    started = timezone.now() - timedelta(days=days_ago)
    run = {"id": str(uuid.uuid4()), "plan_id": plan["id"], "started_at": started.isoformat()}
    tablet.call("POST", "/runs", run)
    shift = started - of.started_at
    said = [
        dump(Event(f"{e.id}-{run['id'][:8]}", **{**_fields(e), "at": e.at + shift}))
        for e in of.events
    ]
    for n in range(0, len(said), 90):
        tablet.call("POST", f"/runs/{run['id']}/events", {"events": said[n : n + 90]})
    if verdict:
        entry = {"id": f"verdict-{run['id'][:8]}", "at": timezone.now().isoformat(),
                 "kind": "verdict", "verdict": verdict}  # fmt: skip
        tablet.call("POST", f"/runs/{run['id']}/events", {"events": [entry]})
    return run["id"]


def _fields(event):
    return {k: v for k, v in vars(event).items() if k != "id"}


def test_from_what_was_seen_to_the_cause_the_change_and_a_plan_that_remembers(head, hand, plan):
    run = baked(hand, plan, record(BakeCause.UNDER, 3))
    view = hand.call("PUT", f"/runs/{run}/findings", {"seen": ["burst", "fat", "burst"]})
    assert view["seen"] == ["burst", "fat"]
    first = view["why"]["causes"][0]
    assert first["cause"] == "under"
    assert any("whole proof" in e["says"] for e in first["supports"])
    assert hand.call("GET", f"/runs/{run}/findings")["seen"] == ["burst", "fat"]
    hand.call("POST", f"/runs/{run}/next-time", expect=403)
    was = view["why"]["causes"][0]["p"]
    for _ in range(2):
        view = hand.call("PUT", f"/runs/{run}/cause", {"cause": "under"})
    assert view["cause"] == "under"
    assert view["why"]["causes"][0]["p"] > was
    assert hand.call("PUT", f"/runs/{run}/cause", {"cause": None})["cause"] is None


def test_the_change_is_put_into_the_plan_once_with_why(head, hand, plan):
    run = baked(hand, plan, record(BakeCause.WARM_CUT, 3))
    empty = head.faults("POST", f"/runs/{run}/next-time")
    assert "nothing to put" in empty[""]
    hand.call("PUT", f"/runs/{run}/findings", {"seen": ["opens", "ragged"]})
    put = head.call("POST", f"/runs/{run}/next-time")
    changed = head.call("GET", f"/plans/{put['plan_id']}")
    assert changed["revision"] == put["revision"] == 2
    assert "tail open, ragged leaves" in changed["plan"]["words"]
    cut = next(s for s in changed["plan"]["steps"] if s["do"] == "cut")
    assert "Chill the last sheet" in cut["words"]
    head.call("DELETE", f"/plans/{plan['id']}", expect=204)
    assert head.faults("POST", f"/runs/{run}/next-time", expect=404)


def test_what_is_wrong_is_said_beside_its_field(hand, plan):
    run = baked(hand, plan, record(None, 3))
    assert "seen[0]" in hand.faults("PUT", f"/runs/{run}/findings", {"seen": ["wet"]})
    assert "cause" in hand.faults("PUT", f"/runs/{run}/cause", {"cause": "moon"})
    hand.call("GET", f"/runs/{uuid.uuid4()}/findings", expect=404)
    hand.call("GET", f"/runs/{run}/different?other={uuid.uuid4()}", expect=404)


GOOD = {"lift": 5, "honeycomb": 4}


def test_a_record_is_laid_beside_the_good_ones_or_beside_one_other(hand, plan):
    good = [baked(hand, plan, record(None, n), 6 - n, GOOD) for n in range(5)]
    poor = baked(hand, plan, record(BakeCause.UNEVEN_SHEET, 9), 1, {"lift": 2})
    found = hand.call("GET", f"/runs/{poor}/different")
    assert found["others"] == 5
    assert found["differences"][0]["key"] in ("spread", "score")
    assert len(found["differences"][0]["others"]) == 5
    one = hand.call("GET", f"/runs/{poor}/different?other={good[0]}")
    assert one["others"] == 1


def test_the_book_is_searched_by_words_person_family_and_how_it_came_out(head, hand, plan):
    fine = baked(hand, plan, record(None, 1), 3, GOOD)
    poor = baked(head, plan, record(None, 2), 2, {"lift": 2, "words": "Butter on the Trays"})

    def ids(query):
        return [r["id"] for r in hand.get(f"/api/runs?{query}").json()["runs"]]

    assert ids("words=trays butter") == [poor]
    assert ids("words=STATION") == [poor, fine]
    assert ids("words=nowhere") == []
    assert ids("by=tansy") == [fine]
    assert ids("good=true") == [fine]
    assert ids("good=false&family=croissant") == [poor]
    assert ids("family=puff") == []
    assert Run.objects.get(pk=fine).score == 4.5


def test_trends_and_what_the_book_teaches_are_taken_and_undone_by_a_press(head, hand, plan):
    for n in range(5):
        baked(hand, plan, record(None, n), 6 - n, GOOD)
    found = hand.call("GET", "/book/trends")
    assert (found["products"], found["name"]) == (["Station croissant"], "Station croissant")
    score = next(t for t in found["trends"] if t["key"] == "score")
    assert [p["value"] for p in score["points"]] == [4.5] * 5
    assert [p["at"] for p in score["points"]] == sorted(p["at"] for p in score["points"])
    assert hand.call("GET", "/book/trends?name=nothing")["trends"] == []
    assert isinstance(hand.call("GET", "/book/teaches"), list)
    hand.call("PUT", "/book/teaches", {"key": "minutes.turn", "value": 30}, expect=403)
    rows = head.call("PUT", "/book/teaches", {"key": "minutes.turn", "value": 30})
    turn = next(t for t in rows if t["key"] == "minutes.turn")
    assert turn["now"] == 30
    assert turn["offered"] < 20
    assert "key" in head.faults("PUT", "/book/teaches", {"key": "moon", "value": 1})
    assert head.faults("PUT", "/book/teaches", {"key": "minutes.turn", "value": 9999})


def test_the_whole_book_goes_out_as_records_that_the_command_reads(hand, plan):
    run = baked(hand, plan, record(BakeCause.BUTTER_SOFT, 3))
    hand.call("PUT", f"/runs/{run}/findings", {"seen": ["bready", "fat"]})
    lines = b"".join(hand.get("/api/book.jsonl").streaming_content).decode().splitlines()
    document = json.loads(lines[0])
    assert (document["format"], document["version"]) == ("eight-turn/record", 1)
    done = causes(lines[0])
    assert done.returncode == 0, done.stderr
    said = json.loads(done.stdout)
    assert said["format"] == "eight-turn/causes"
    assert said["causes"][0]["code"] == "butter_soft"
    assert any("it bends up to" in text for text in said["causes"][0]["for"])
    assert said["change"]["says"].startswith("Take the butter out later")
    for wrong, field in (
        ({"seen": ["wet"]}, "seen[0]"),
        ({"format": "eight-turn/plan"}, "format"),
        ({"version": 9}, "version"),
        ({"started_at": "2026-11-20T05:00:00"}, "started_at"),
    ):
        done = causes(json.dumps(document | wrong))
        assert done.returncode == 2
        assert done.stderr.startswith(f"{field}:")
    assert causes("{").returncode == 2


def causes(text):
    return subprocess.run(
        [sys.executable, "manage.py", "causes", "-"], cwd=ROOT, check=False, text=True,
        capture_output=True, input=text,
    )  # fmt: skip
