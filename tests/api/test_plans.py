"""Plans over the API: work, save, undo, files, and every kind of wrong input."""

import copy

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from .conftest import STATION


def changed(path, value):
    body = copy.deepcopy(STATION)
    *way, last = path
    here = body
    for part in way:
        here = here[part]
    here[last] = value
    return body


def test_a_plan_is_worked(head):
    worked = head.call("POST", "/work", STATION)
    assert worked["layers"]["butter"] == 27
    made = {s["key"]: s["made"] for s in worked["strip"]}
    assert made["turn-1"]["rolled"]["length_mm"] == pytest.approx(1540, abs=0.5)
    assert made["cut"]["pieces"] == 38
    assert [s["name"] for s in worked["strip"]][:3] == ["Dough", "Lock-in", "Turn 1"]


@pytest.mark.parametrize(
    ("path", "value", "field"),
    [
        (["dough", "mass_g"], 0, "dough.mass_g"),
        (["dough", "mass_g"], -3, "dough.mass_g"),
        (["dough", "mass_g"], None, "dough.mass_g"),
        (["dough", "mass_g"], "plenty", "dough.mass_g"),
        (["butter", "mass_g"], 1e9, "butter.mass_g"),
        (["butter", "mass_g"], float("nan"), "butter.mass_g"),
        (["butter", "mass_g"], float("inf"), "butter.mass_g"),
        (["turns"], [STATION["turns"][0]] * 13, "steps[14].do"),
        (["turns", 1], {"fold": "letter", "roll_to_mm": 60}, "steps[3].roll_to_mm"),
        (["turns", 0], {"fold": "twist", "roll_to_mm": 8}, "steps[2].fold"),
        (
            ["turns", 2],
            {
                "fold": "book",
                "roll_to_mm": 8,
                "rest": {"place": "fridge", "minutes": -1},
            },
            "steps[4].rest.stays[0].minutes",
        ),
        (["lock_in", "method"], "envelope", "steps[1].block_length_mm"),
        (["final", "roll_to_mm"], 40, "steps[5].roll_to_mm"),
        (["name"], "", "name"),
        (["version"], 9, "version"),
        (["dough", "mas_g"], 3, "dough.mas_g"),
    ],
)
def test_wrong_input_is_named_at_its_field(head, path, value, field):
    faults = head.faults("POST", "/work", changed(path, value))
    assert list(faults) == [field]
    assert faults[field].endswith(".")
    # and nothing of the kind can be saved
    assert list(head.faults("POST", "/plans", changed(path, value))) == [field]
    assert head.call("GET", "/plans") == []


def test_many_faults_come_back_together(head):
    body = changed(["dough", "mass_g"], 0) | {"butter": {"mass_g": "x"}, "name": 3}
    assert set(head.faults("POST", "/work", body)) == {"dough.mass_g", "butter.mass_g", "name"}


def test_a_body_that_is_not_json_is_said(head):
    answer = head.post("/api/work", "{half", content_type="application/json")
    assert answer.status_code == 400
    assert answer.json()["faults"][0]["message"] == "The request is not JSON."


def test_a_saved_plan_comes_back_as_it_was(head, plan):
    again = head.call("GET", f"/plans/{plan['id']}")
    assert again["plan"] == plan["plan"]
    assert again["revision"] == 1


def test_saving_raises_the_revision_and_an_old_one_is_refused(head, plan):
    body = {"revision": 1, "plan": changed(["dough", "mass_g"], 2600)}
    assert head.call("PUT", f"/plans/{plan['id']}", body)["revision"] == 2
    late = {"revision": 1, "plan": changed(["dough", "mass_g"], 1000)}
    assert "another screen" in head.faults("PUT", f"/plans/{plan['id']}", late, 409)[""]
    assert head.call("GET", f"/plans/{plan['id']}")["plan"]["dough"]["mass_g"] == 2600


def test_a_plan_that_cannot_be_worked_is_not_saved(head, plan):
    body = {"revision": 1, "plan": changed(["final", "roll_to_mm"], 40)}
    assert list(head.faults("PUT", f"/plans/{plan['id']}", body)) == ["plan.steps[5].roll_to_mm"]
    assert head.call("GET", f"/plans/{plan['id']}")["revision"] == 1


def test_a_deleted_plan_can_come_back(head, plan):
    head.call("DELETE", f"/plans/{plan['id']}", expect=204)
    assert head.call("GET", "/plans") == []
    head.faults("GET", f"/plans/{plan['id']}", expect=404)
    head.call("POST", f"/plans/{plan['id']}/restore")
    (line,) = head.call("GET", "/plans")
    assert (line["name"], line["butter_layers"], line["pieces"]) == ("Station croissant", 27, 38)
    head.faults("POST", f"/plans/{plan['id']}/restore", expect=404)


def test_a_copy_is_a_plan_of_its_own(head, plan):
    copied = head.call("POST", f"/plans/{plan['id']}/copy")
    assert copied["plan"]["name"] == "Station croissant, copy"
    assert copied["id"] != plan["id"]


def test_a_file_goes_out_and_comes_in_the_same(head, plan):
    out = head.get(f"/api/plans/{plan['id']}/file")
    assert 'filename="station-croissant.plan.json"' in out["Content-Disposition"]
    back = head.post("/api/plans/file", {"file": SimpleUploadedFile("p.json", out.content)})
    assert back.json()["plan"] == plan["plan"]


@pytest.mark.parametrize(
    ("content", "field", "says"),
    [
        (b"not a plan", "", "not JSON"),
        (b"", "", "not JSON"),
        (b"\xff\xfe\x00\x01", "", "not text"),
        (b"[" * 100_000, "", "not JSON"),
        (b"[1, 2]", "", "not a plan"),
        (b"{}", "format", "eight-turn/plan"),
        (
            b'{"format": "eight-turn/plan", "version": 7, "wholly": "new"}',
            "version",
            "up to version 5",
        ),
        (b'{"format": "eight-turn/plan", "version": "one"}', "version", "whole number"),
        (b" " * 1_000_001, "", "too large"),
    ],
)
def test_a_file_that_is_no_plan_says_why(head, content, field, says):
    answer = head.post("/api/plans/file", {"file": SimpleUploadedFile("p.json", content)})
    assert answer.status_code == 422
    (fault,) = answer.json()["faults"]
    assert fault["field"] == field
    assert says in fault["message"]


def test_the_schema_of_the_file_is_public_and_states_the_limits(db):
    schema = Client().get("/api/plan.schema.json").json()
    assert schema["$defs"]["Dough"]["properties"]["mass_g"]["maximum"] == 200_000
    assert {"format", "version", "dough"} <= set(schema["required"])


def test_an_id_that_is_not_there_is_a_sentence(head):
    for method, path in (
        ("GET", "/plans/999"),
        ("DELETE", "/plans/999"),
        ("POST", "/plans/999/copy"),
        ("GET", "/plans/999/file"),
        ("GET", "/runs/7f1c2f3e-0000-4000-8000-000000000000"),
    ):
        assert "There is no such" in head.faults(method, path, expect=404)[""]


def test_the_kitchen_keeps_what_is_changed_and_says_it_is_yours(head):
    head.call(
        "PUT", "/kitchen", {"revision": 0, "yours": {"bench.length_mm": 1200}, "ingredients": []}
    )
    table = {d["key"]: d for d in head.call("GET", "/kitchen")["table"]}
    assert table["bench.length_mm"]["origin"] == "yours"
    worked = head.call("POST", "/work", STATION)
    assert any("too long" in n["title"] for n in worked["notes"])
    wrong = {"revision": 1, "yours": {"bench.length_mm": -4, "bench.colour": 3}, "ingredients": []}
    assert set(head.faults("PUT", "/kitchen", wrong)) == {
        "yours.bench.length_mm",
        "yours.bench.colour",
    }


def test_a_new_plan_starts_from_a_family_and_a_mass(head):
    start = {"name": "My first", "family": "puff", "dough_g": 1500}
    saved = head.call("POST", "/plans/start", start)
    plan = saved["plan"]
    assert 0.5 < plan["butter"]["mass_g"] / plan["dough"]["mass_g"] < 1
    assert [s["do"] for s in plan["steps"]].count("turn") >= 5
    assert list(head.faults("POST", "/plans/start", start | {"dough_g": 0})) == ["dough_g"]
    assert list(head.faults("POST", "/plans/start", start | {"name": ""})) == ["name"]


def test_what_is_put_away_is_planned_as_a_plan_of_its_own(head, plan):
    steps = plan["plan"]["steps"]
    n = next(i for i, s in enumerate(steps) if s["do"] == "turn") + 1
    divided = plan["plan"] | {
        "steps": [*steps[:n], {"do": "divide", "id": "divide-1", "goes_on_pct": 30}, *steps[n:]]
    }
    made = head.call("POST", "/plans/other-part", {"plan": divided, "stop": "divide-1"})
    step = next(s for s in made["plan"]["steps"] if s["do"] == "divide")
    assert (step["goes_on_pct"], step["other"]) == (pytest.approx(70), True)
    assert made["plan"]["name"].endswith("other part")
    faults = head.faults("POST", "/plans/other-part", {"plan": divided, "stop": "turn-1"})
    assert "Nothing is divided" in faults["stop"]
