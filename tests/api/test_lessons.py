"""Lessons over the API and on the command line: played, made, a class, and nothing real is touched."""

import json
import subprocess
import sys
import uuid
from pathlib import Path

import pytest
from django.apps import apps
from django.utils import timezone

from bakehouse.lessons.files import shipped
from tests.api.conftest import started

ROOT = Path(__file__).resolve().parents[2]
HOT = "3-a-hot-day"
BAD = [
    {"step": "turn-1", "field": "rest.place", "value": "bench"},
    {"step": "turn-1", "field": "rest.minutes", "value": 80},
]
GOOD = [
    {"step": f"turn-{n}", "field": field, "value": value}
    for n, place, minutes in ((1, "freezer", 35), (2, "fridge", 30), (3, "freezer", 35))
    for field, value in (("rest.place", place), ("rest.minutes", minutes))
]


def done(lesson=HOT, decisions=BAD, mark=None):
    at = timezone.now().isoformat()
    return {"id": str(mark or uuid.uuid4()), "lesson": lesson, "decisions": decisions, "at": at}


def test_the_eight_lessons_are_listed_with_what_one_has_made_of_them(hand):
    lines = hand.call("GET", "/lessons")
    assert [line["key"][0] for line in lines] == list("12345678")
    assert all(line["ships"] and line["words"] and line["plays"] == 0 for line in lines)
    hand.call("POST", "/plays", done(), expect=201)
    line = next(line for line in hand.call("GET", "/lessons") if line["key"] == HOT)
    assert (line["plays"], line["passed"]) == (1, False)
    hand.call("POST", "/plays", done(decisions=GOOD), expect=201)
    line = next(line for line in hand.call("GET", "/lessons") if line["key"] == HOT)
    assert (line["plays"], line["passed"]) == (2, True)


def test_a_play_goes_from_the_bench_to_its_outcome_the_best_and_what_each_decision_cost(hand):
    view = hand.call("GET", f"/lessons/{HOT}")
    bench = view["bench"]
    assert bench["moments"][bench["opens"]]["stop"] == "turn-1"
    later = hand.call("POST", f"/lessons/{HOT}/bench", {"decisions": BAD})
    second = next(m for m in later["moments"] if m["stop"] == "turn-2")
    assert second["before"]["bend"] == "smears"

    first = hand.call("POST", f"/lessons/{HOT}/outcome", {"decisions": BAD})
    assert (first["best"], first["done"], first["costs"]) == (None, False, [])
    result = first
    for _ in range(30):
        result = hand.call("POST", f"/lessons/{HOT}/outcome", {"decisions": BAD, "seconds": 5})
        if result["done"]:
            break
    assert result["done"]
    assert result["best"]["outcome"]["worth"] > result["mine"]["outcome"]["worth"] + 20
    assert result["costs"][0]["decision"] == "turn-1 rest.place"
    assert "best play has" in result["costs"][0]["says"]
    assert not all(line["reached"] for line in result["mine"]["goal"])
    assert all(line["reached"] for line in result["best"]["goal"])
    # searched once, and kept
    again = hand.call("POST", f"/lessons/{HOT}/outcome", {"decisions": BAD})
    assert (again["done"], again["costs"]) == (True, result["costs"])


def test_wrong_decisions_are_said_by_their_place(hand):
    wrong = [{"step": "turn-9", "field": "rest.minutes", "value": 10}, *BAD, BAD[0]]
    found = hand.faults("POST", f"/lessons/{HOT}/bench", {"decisions": wrong})
    assert set(found) == {"decisions[0].step", "decisions[3].field"}
    found = hand.faults(
        "POST", f"/lessons/{HOT}/outcome", {"decisions": [{**BAD[1], "value": 900}]}
    )
    assert found == {"decisions[0].value": "Must be from 0 to 90."}
    hand.call("GET", "/lessons/9-no-such", expect=404)
    hand.call("GET", "/lessons/own-77", expect=404)


def test_a_play_is_kept_once_and_worked_here_and_is_nobody_else_s(hand, head):
    mark = uuid.uuid4()
    first = hand.call("POST", "/plays", done(mark=mark), expect=201)
    assert hand.call("POST", "/plays", done(mark=mark), expect=200) == first
    head.faults("POST", "/plays", done(mark=mark))
    hand.faults("POST", "/plays", {**done(), "outcome": {"worth": 100}})


def test_a_class_of_three_lies_side_by_side_without_names_unless_a_head_asks(hand, head):
    from tests.api.conftest import _tablet

    third = _tablet("reed", "bench")
    for who, decisions in ((hand, BAD), (head, GOOD), (third, [])):
        who.call("POST", "/plays", done(decisions=decisions), expect=201)
    rows = hand.call("GET", f"/lessons/{HOT}/class?named=true")
    assert sorted(row["who"] for row in rows) == ["A", "B", "C"]
    assert [row["mine"] for row in rows].count(True) == 1
    named = head.call("GET", f"/lessons/{HOT}/class?named=true")
    assert {row["who"] for row in named} == {"wren", "tansy", "reed"}
    worths = [row["view"]["outcome"]["worth"] for row in named]
    assert worths == sorted(worths, reverse=True)
    assert named[0]["who"] == "wren"
    assert all(row["view"]["drawn"]["leaves"] for row in named)


def test_a_lesson_of_a_plan_its_best_put_into_it_and_its_file_given_on(head, hand, plan):
    hand.call("POST", f"/lessons/from-plan/{plan['id']}", {}, expect=403)
    line = head.call("POST", f"/lessons/from-plan/{plan['id']}", {"seed": 3}, expect=201)
    assert line["source"] == "the plan Station croissant"
    view = hand.call("GET", f"/lessons/{line['key']}")
    assert view["lesson"]["seed"] == 3
    decided = [{"step": "turn-1", "field": "rest.minutes", "value": 55}]
    into = head.call("POST", f"/lessons/{line['key']}/into-plan", {"decisions": decided})
    assert into["revision"] == plan["revision"] + 1
    steps = head.call("GET", f"/plans/{plan['id']}")["plan"]["steps"]
    rest = next(step["rest"] for step in steps if step["id"] == "turn-1")
    assert rest["stays"][0]["minutes"] == 55
    head.faults("POST", f"/lessons/{HOT}/into-plan", {"decisions": []})

    answer = hand.get(f"/api/lessons/{line['key']}/file")
    assert "attachment" in answer["Content-Disposition"]
    given_on = json.loads(answer.content)
    other = head.call("POST", "/lessons", {**given_on, "name": "From the next lock"}, expect=201)
    assert (other["name"], other["source"]) == ("From the next lock", "a file")
    changed = head.call("PUT", f"/lessons/{other['key']}?revision=1", {**given_on, "name": "Ours"})
    assert (changed["name"], changed["revision"]) == ("Ours", 2)
    head.call(
        "PUT", f"/lessons/{other['key']}?revision=1", {**given_on, "name": "Late"}, expect=409
    )
    hand.call("PUT", f"/lessons/{other['key']}?revision=2", given_on, expect=403)
    head.call("DELETE", f"/lessons/{other['key']}", expect=204)
    head.call("GET", f"/lessons/{other['key']}", expect=404)
    head.faults("DELETE", f"/lessons/{HOT}")


def test_a_lesson_file_is_refused_field_by_field(head):
    file = json.loads((ROOT / f"bakehouse/lessons/shipped/{HOT}.json").read_text())
    file["choices"][0]["step"] = "turn-7"
    file["goal"]["openness_pct"] = 400
    found = head.faults("POST", "/lessons", file)
    assert found["goal.openness_pct"].startswith("Must be from")
    file["goal"]["openness_pct"] = 60
    found = head.faults("POST", "/lessons", file)
    assert found == {"choices[0].step": "The plan has no step with this id."}
    head.faults("POST", "/lessons", {"format": "eight-turn/plan"})
    for rows in (None, [], "warm", 7):
        found = head.faults("POST", "/lessons", {**file, "kitchen": {"yours": rows}})
        assert "kitchen.yours" in found


def test_a_lesson_of_a_run_takes_the_day_as_it_was(head, hand, plan):
    run = started(hand, plan["id"])
    at = timezone.now().isoformat()
    reading = {
        "id": "reading-room-1",
        "kind": "reading",
        "at": at,
        "probe": "room",
        "value_c": 27.5,
    }
    hand.call("POST", f"/runs/{run['id']}/events", {"events": [reading]})
    line = head.call("POST", f"/lessons/from-run/{run['id']}", {"name": "That morning"}, expect=201)
    assert line["name"] == "That morning"
    assert line["source"].startswith("the run of Station croissant on")
    view = hand.call("GET", f"/lessons/{line['key']}")
    assert view["lesson"]["kitchen"]["yours"]["room.c"] == 27.5


def test_lessons_write_into_nothing_that_is_real(head, hand, plan):
    """Every table of every other room is as it was after a lesson was made, played, kept and put away."""
    run = started(hand, plan["id"])

    def everything_real():
        own = {"lessons_lessonrecord", "lessons_playrecord", "lessons_bestrecord"}
        meta = {"bakehouse_version", "django_session"}  # versions of a lesson, and who is signed in
        return {
            model._meta.db_table: sorted(map(str, model.objects.values_list()))
            for model in apps.get_models()
            if model._meta.db_table not in own | meta
        }

    before = everything_real()
    line = head.call("POST", f"/lessons/from-run/{run['id']}", {}, expect=201)
    for key in (HOT, line["key"]):
        hand.call("POST", f"/lessons/{key}/bench", {"decisions": []})
        hand.call("POST", f"/lessons/{key}/outcome", {"decisions": [], "seconds": 0.2})
        hand.call("POST", "/plays", done(key, []), expect=201)
    head.call("DELETE", f"/lessons/{line['key']}", expect=204)
    assert everything_real() == before
    assert len(before) > 15


def test_a_method_is_seen_inside(hand):
    seen = hand.call("POST", "/inside", {"method": "two_thirds", "folds": ["book", "letter"]})
    assert [s["butter"] for s in seen] == [2, 8, 24]
    found = hand.faults("POST", "/inside", {"folds": ["letter"] * 9})
    assert list(found) == ["folds"]


# --- the command


def lesson(*args, given=None):
    return subprocess.run(
        [sys.executable, "manage.py", "lesson", *map(str, args)],
        cwd=ROOT, input=given, capture_output=True, text=True, check=False,
    )  # fmt: skip


def test_the_command_prints_an_outcome_with_its_costs(tmp_path):
    play = tmp_path / "play.json"
    play.write_text(
        json.dumps({"format": "eight-turn/decisions", "version": 1,
                    "decisions": [{"step": "cut", "field": "marks", "value": "last"}]})
    )  # fmt: skip
    key = "7-marks-and-the-knife"
    answer = lesson(f"bakehouse/lessons/shipped/{key}.json", "--play", play)
    assert answer.returncode == 0, answer.stderr
    said = json.loads(answer.stdout)
    assert (said["format"], said["version"]) == ("eight-turn/outcome", 1)
    assert {
        "lift",
        "openness_pct",
        "fat_lost_pct",
        "evenness_pct",
        "mass_g",
        "butter_layers",
    } <= set(said)
    cost = next(c for c in said["costs"] if c["decision"] == "cut marks")
    assert cost["evenness_pct"] == pytest.approx(100 - said["evenness_pct"], abs=0.01)
    assert {"lift", "openness_pct", "fat_lost_pct"} <= set(cost)
    assert "{" not in said["harms"][0]["says"]


def test_the_command_prints_schemas_by_which_all_lessons_are_right():
    answer = lesson("--schema")
    schemas = json.loads(answer.stdout)
    assert set(schemas) == {"eight-turn/lesson", "eight-turn/decisions"}
    assert "choices" in schemas["eight-turn/lesson"]["required"]
    assert {"step", "field", "value"} <= set(
        schemas["eight-turn/decisions"]["$defs"]["Decision"]["properties"]
    )


def test_the_command_refuses_with_a_line_for_every_field(tmp_path):
    file = json.loads((ROOT / f"bakehouse/lessons/shipped/{HOT}.json").read_text())
    file["choices"][1]["options"], file["choices"][2]["high"] = ["fridge", "cellar"], -5
    bad = tmp_path / "bad.json"
    bad.write_text(json.dumps(file))
    answer = lesson(bad)
    assert answer.returncode == 2
    assert answer.stdout == ""
    lines = sorted(line.split(":")[0] for line in answer.stderr.splitlines())
    assert lines == ["choices[1].options[1]", "choices[2].high"]
    play = tmp_path / "play.json"
    play.write_text(
        json.dumps({"decisions": [{"step": "turn-1", "field": "rest.minutes", "value": 999}]})
    )
    answer = lesson(f"bakehouse/lessons/shipped/{HOT}.json", "--play", play)
    assert (answer.returncode, answer.stderr.split(":")[0]) == (2, "decisions[0].value")
    assert lesson(tmp_path / "nowhere.json").returncode == 2


def test_every_lesson_that_ships_is_of_this_house():
    assert len(shipped()) == 8
    for one in shipped():
        assert "Teasel Lock" in one.lesson.plan.name
        assert one.lesson.words
        assert one.lesson.hints


def test_a_morning_is_tried_and_writes_nothing(hand):
    [line] = hand.call("GET", "/mornings")
    view = hand.call("GET", f"/mornings/{line['key']}")
    assert len(view["play"]["begins"]) == 4
    at = {b["dough"]: b["at"] for b in view["play"]["begins"]}
    moved = [{"dough": "puff", "at": "2027-03-20T02:00:00+00:00"}]
    play = hand.call("POST", f"/mornings/{line['key']}/play", {"begins": moved})
    there = {b["dough"]: b["at"] for b in play["begins"]}
    assert there["puff"].startswith("2027-03-20T02:00")
    assert there["puff"] != at["puff"]
    result = hand.call("POST", f"/mornings/{line['key']}/outcome", {"begins": moved, "seconds": 3})
    assert result["best"]["timetable"]["cost"] <= result["mine"]["timetable"]["cost"]
    assert len(result["costs"]) == 4
    wrong = [{"dough": "puff", "at": "2031-03-20T02:00:00+00:00"}]
    found = hand.faults("POST", f"/mornings/{line['key']}/play", {"begins": wrong})
    assert list(found) == ["begins[0].at"]
    hand.call("GET", "/mornings/none", expect=404)
    assert hand.call("GET", "/orders") == []
