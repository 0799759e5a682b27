"""The kitchen over the API: drawn, as a file, and what it would change and has."""

import json

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from bakehouse.kitchen.models import KitchenRecord


def change(head, **part):
    now = head.call("GET", "/kitchen")
    body = {"revision": now["revision"], "yours": now["yours"], "ingredients": now["ingredients"]}
    return head.call("PUT", "/kitchen", body | part)


def sent(tablet, content):
    return tablet.post("/api/kitchen/file", {"file": SimpleUploadedFile("k.json", content)})


def test_a_kitchen_goes_out_as_a_file_and_comes_back_whole(head):
    spot = {"what": "oven", "x_mm": 700, "y_mm": 900, "turned": True}
    kept = change(head, yours={"bench.length_mm": 2100}, spots=[spot])
    out = head.get("/api/kitchen/file")
    assert out["Content-Disposition"].endswith('kitchen.kitchen.json"')
    assert json.loads(out.content)["format"] == "eight-turn/kitchen"
    change(head, yours={}, spots=[])
    back = sent(head, out.content).json()
    assert back["yours"] == {"bench.length_mm": 2100}
    oven = next(t for t in back["room"]["things"] if t["what"] == "oven")
    assert (oven["x_mm"], oven["y_mm"], oven["turned"]) == (700, 900, True)
    assert back["revision"] > kept["revision"]
    # the one before can be taken back
    assert len(head.call("GET", "/kitchen/versions")) >= 2


@pytest.mark.parametrize(
    ("content", "field", "says"),
    [
        (b"\xff\xfe", "", "not text"),
        (b"{", "", "breaks off at line 1"),
        (b"[]", "", "not a kitchen"),
        (b'{"format": "eight-turn/plan"}', "format", "eight-turn/kitchen"),
        (
            b'{"format": "eight-turn/kitchen", "yours": {"bench.length_mm": -1}}',
            "yours.bench.length_mm",
            "Must be from",
        ),
    ],
)
def test_what_is_no_kitchen_is_refused_in_words_and_nothing_is_lost(head, content, field, says):
    before = change(head, yours={"bench.length_mm": 2100})
    answer = sent(head, content)
    assert answer.status_code == 422
    (fault,) = answer.json()["faults"]
    assert fault["field"] == field
    assert says in fault["message"]
    assert head.call("GET", "/kitchen") == before


def test_only_the_head_brings_a_kitchen_in(hand):
    assert sent(hand, b'{"format": "eight-turn/kitchen"}').status_code == 403
    assert hand.get("/api/kitchen/file").status_code == 200


def test_two_who_move_different_things_both_keep_theirs(head):
    def at(what, x):
        return {"what": what, "x_mm": x, "y_mm": 0, "turned": False}

    first = change(head, spots=[at("oven", 100), at("mixer", 200)])
    body = {"revision": first["revision"], "yours": {}, "ingredients": []}
    head.call("PUT", "/kitchen", body | {"spots": [at("oven", 900), at("mixer", 200)]})
    late = head.call("PUT", "/kitchen", body | {"spots": [at("oven", 100), at("mixer", 500)]})
    x = {t["what"]: t["x_mm"] for t in late["room"]["things"]}
    assert (x["oven"], x["mixer"]) == (900, 500)


def test_what_counts_things_is_whole_and_a_house_that_kept_parts_of_them_opens(head):
    parts = {"oven.trays": 2.5, "day.late": 30.5}
    body = {"revision": 0, "yours": parts, "ingredients": []}
    wrong = head.faults("PUT", "/kitchen", body)
    assert wrong == {"yours.oven.trays": "Must be a whole number, from 1 to 100."}
    KitchenRecord.begun({"yours": parts, "ingredients": []}, None, pk=1)
    assert head.call("GET", "/kitchen")["yours"] == {"oven.trays": 2, "day.late": 30.5}


def test_what_a_kitchen_would_change_is_said_by_plan_and_changes_nothing(head, plan):
    before = head.call("GET", "/kitchen")
    (told,) = head.call("POST", "/plans/affected", {"yours": {"bench.length_mm": 500}})
    assert told["id"] == plan["id"]
    assert any("too long" in text for text in told["says"])
    assert head.call("POST", "/plans/affected", {"yours": before["yours"]}) == []
    assert head.call("GET", "/kitchen") == before
    wrong = head.faults("POST", "/plans/affected", {"yours": {"bench.length_mm": 1}})
    assert set(wrong) == {"yours.bench.length_mm"}


def test_what_the_plans_have_is_listed_by_its_range(head, plan):
    seen = {s["of"]: s["value"] for s in head.call("GET", "/plans/seen")}
    assert seen["croissant.butter_layers"] == 27
    assert seen["croissant.last_sheet_mm"] == pytest.approx(4)


def test_every_word_has_its_name(head):
    words = {t["key"]: t["name"] for t in head.call("GET", "/glossary")}
    assert words["fold.letter"] == "letter fold"
    assert words["step.lock_in"] == "Lock-in"
    assert all(words.values())


def test_a_packet_s_label_becomes_a_composition_and_keeps_nothing(head, hand):
    like = next(i for i in head.call("GET", "/kitchen")["library"] if i["key"] == "butter-table")
    body = {"label": {"fat_g": 80, "salt_g": 1.5}, "like": like}
    found = hand.call("POST", "/kitchen/label", body)
    assert found["composition"]["fat_pct"] == 80
    assert found["composition"]["ash_pct"] == 1.5
    assert any("Protein is not on it" in text for text in found["says"])
    wrong = hand.faults("POST", "/kitchen/label", {"label": {"fat_g": 130}, "like": like})
    assert set(wrong) == {"label.fat_g"}
    over = {"label": {"fat_g": 90, "carbohydrate_g": 30}, "like": like}
    assert set(hand.faults("POST", "/kitchen/label", over)) == {"label.fat_g"}
