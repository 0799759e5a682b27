"""Runs over the API: started once, written once, snapshot kept, faults named."""

import uuid
from datetime import timedelta

import pytest
from django.utils import timezone

from bakehouse.bench.models import Run
from bakehouse.kitchen.models import KitchenRecord
from tests.api.conftest import started


def event(kind, minutes_ago=0.0, **more):
    at = timezone.now() - timedelta(minutes=minutes_ago)
    return {"id": str(uuid.uuid4()), "at": at.isoformat(), "kind": kind, **more}


@pytest.fixture
def run(hand, plan):
    return started(hand, plan["id"])


def test_pressing_start_twice_starts_one_run(hand, plan):
    start = {"id": str(uuid.uuid4()), "plan_id": plan["id"]}
    first, second = hand.call("POST", "/runs", start), hand.call("POST", "/runs", start)
    assert first["id"] == second["id"]
    assert first["standing"]["since"] == second["standing"]["since"]
    assert len(hand.call("GET", "/runs")["runs"]) == 1


def test_a_run_keeps_the_plan_it_was_started_from(head, hand, plan, run):
    before = hand.call("GET", f"/runs/{run['id']}/snapshot")
    later = plan["plan"] | {"name": "Renamed", "dough": {"mass_g": 3000}}
    head.call("PUT", f"/plans/{plan['id']}", {"revision": 1, "plan": later})
    head.call("PUT", "/kitchen", {"revision": 0, "yours": {"minutes.turn": 99}, "ingredients": []})
    head.call("DELETE", f"/plans/{plan['id']}", expect=204)
    kept = hand.call("GET", f"/runs/{run['id']}/snapshot")
    assert kept["plan"]["name"] == "Station croissant"
    assert kept == before | {"plan_id": None} or kept == before


def test_sending_an_event_twice_writes_it_once(hand, run):
    said = {"events": [event("done", stop="dough")]}
    hand.call("POST", f"/runs/{run['id']}/events", said)
    standing = hand.call("POST", f"/runs/{run['id']}/events", said)["standing"]
    assert (standing["stop"], len(standing["deeds"])) == ("lock_in", 1)


def test_a_batch_is_written_whole_or_not_at_all(hand, run):
    said = {"events": [event("done", stop="dough"), event("done", stop="final")]}
    faults = hand.faults("POST", f"/runs/{run['id']}/events", said)
    assert "Next is Lock-in, not Last sheet." in faults["events[1].stop"]
    assert hand.call("GET", f"/runs/{run['id']}")["standing"]["stop"] == "dough"


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ({"kind": "reading", "probe": "dough", "value_c": 900}, "events[0].value_c"),
        ({"kind": "reading", "probe": "moon", "value_c": 4}, "events[0].probe"),
        ({"kind": "reading"}, "events[0].probe"),
        ({"kind": "sing"}, "events[0].kind"),
        ({"kind": "done", "stop": "turn-7"}, "events[0].stop"),
        ({"kind": "undo", "target": "nothing-like-it"}, "events[0].target"),
    ],
)
def test_a_wrong_event_names_its_field(hand, run, wrong, field):
    said = {"events": [event(**wrong)]}
    assert field in hand.faults("POST", f"/runs/{run['id']}/events", said)


def test_a_clock_far_ahead_is_told(hand, run):
    said = {"events": [event("note", minutes_ago=-90, words="from the future")]}
    assert (
        "90 minutes ahead" in hand.faults("POST", f"/runs/{run['id']}/events", said)["events[0].at"]
    )


def test_a_whole_run_and_its_verdict_can_be_read_in_the_book(hand, run):
    where = f"/runs/{run['id']}"
    said = [event("reading", probe="butter", value_c=13.5)]
    for stop in hand.call("GET", f"{where}/snapshot")["worked"]["strip"]:
        said.append(event("done", stop=stop["key"]))
        if stop["rest"]:
            said.append(event("out", stop=stop["key"]))
    hand.call("POST", f"{where}/events", {"events": said})
    hand.call(
        "POST",
        f"{where}/events",
        {
            "events": [
                event("verdict", verdict={"lift": 4, "honeycomb": 5, "words": "Good open crumb"})
            ]
        },
    )
    (line,) = hand.call("GET", "/runs")["runs"]
    assert (line["phase"], line["turns_done"], line["verdict"]["honeycomb"]) == ("finished", 3, 5)
    standing = hand.call("GET", where)["standing"]
    assert standing["readings"][0]["value_c"] == 13.5
    assert [d["stop"] for d in standing["deeds"]][:2] == ["dough", "lock_in"]


def test_a_default_that_the_table_has_no_more_breaks_neither_kitchen_nor_history(hand, run):
    gone = {"yours": {"bench.height_mm": 900, "bench.length_mm": 1200}}
    # from before what was worked was kept
    Run.objects.filter(pk=run["id"]).update(kitchen_document=gone, worked_document=None)
    KitchenRecord.objects.create(pk=1, document=gone)
    notes = hand.call("GET", f"/runs/{run['id']}/snapshot")["worked"]["notes"]
    assert any("{340|mm} too long" in n["title"] for n in notes)
    assert hand.call("GET", "/kitchen")["yours"] == {"bench.length_mm": 1200}


def begin(hand, plan, stop, hours_ago):
    at = timezone.now() - timedelta(hours=hours_ago)
    begun = {"stop": stop, "at": at.isoformat()}
    return {"id": str(uuid.uuid4()), "plan_id": plan["id"], "begun": begun}


def test_a_dough_begun_before_the_tablet_was_touched_stands_where_it_is(hand, plan):
    run = hand.call("POST", "/runs", begin(hand, plan, "turn-2", 0.5))
    standing = run["standing"]
    assert (standing["phase"], standing["stop"]) == ("work", "turn-2")
    assert {d["assumed"] for d in standing["deeds"]} == {True}
    view = hand.call("GET", f"/runs/{run['id']}")
    assert view["started_at"] < timezone.now().isoformat()
    done = {"events": [event("done", stop="turn-2")]}
    after = hand.call("POST", f"/runs/{run['id']}/events", done)["standing"]
    assert after["deeds"][-1]["assumed"] is False


@pytest.mark.parametrize(
    ("stop", "hours", "field", "says"),
    [
        ("nowhere", 1, "begun.stop", "no such step"),
        ("turn-1", -2, "begun.at", "still to come"),
        ("turn-1", 24 * 9, "begun.at", "more than a week"),
    ],
)
def test_where_it_cannot_be_is_answered_at_its_field(hand, plan, stop, hours, field, says):
    faults = hand.faults("POST", "/runs", begin(hand, plan, stop, hours))
    assert says in faults[field]
    assert hand.call("GET", "/runs")["runs"] == []


def test_doughs_of_one_plan_on_one_day_bear_numbers(hand, plan):
    for _ in range(3):
        hand.call("POST", "/runs", {"id": str(uuid.uuid4()), "plan_id": plan["id"]})
    old = begin(hand, plan, "turn-1", 50)
    hand.call("POST", "/runs", old)
    lines = hand.call("GET", "/runs")["runs"]
    assert sorted(line["number"] for line in lines) == [1, 1, 2, 3]
    assert next(line for line in lines if line["id"] == old["id"])["number"] == 1


def test_what_is_said_carries_who_said_it_on_a_tablet_that_several_use(head, hand, run):
    mine, hers, nobody_s = (
        event("note", words="a"),
        event("note", words="b"),
        event("note", words="c"),
    )
    path = f"/runs/{run['id']}/events"
    hand.call("POST", path, {"events": [mine]})
    hand.call("POST", path, {"events": [hers], "by": "wren"})
    by = hand.call("POST", path, {"events": [nobody_s], "by": "somebody else"})["by"]
    assert by == {mine["id"]: "tansy", hers["id"]: "wren", nobody_s["id"]: "tansy"}
