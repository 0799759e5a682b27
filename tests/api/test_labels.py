"""What the house prepares, kept in its kitchen; and a finished product's labels at true size."""

import base64
import io
import re
import uuid
import zlib

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

PASTE = {
    "key": "nut-paste", "name": "Nut paste", "loss_pct": 5, "minutes": 20, "made": "before", "keeps_h": 36,
    "care": "none", "parts": [{"what": "hazelnut", "grams": 300}, {"what": "sugar", "grams": 200},
                              {"what": "water", "grams": 60}],
}  # fmt: skip


def kept(head, **more):
    now = head.call("GET", "/kitchen")
    return head.call("PUT", "/kitchen", {**now, **more})


@pytest.fixture
def paste(head):
    return kept(head, preparations=[PASTE], sign={
        "name": "Teasel Lock bakehouse", "address": "The lock house, by the canal", "storage": "Keep dry.",
    })  # fmt: skip


def test_a_preparation_is_an_ingredient_with_what_is_in_it(head, paste):
    (made,) = paste["prepared"]
    assert (made["key"], made["kind"], made["allergens"]) == ("nut-paste", "prepared", ["nuts"])
    assert paste["sign"]["name"] == "Teasel Lock bakehouse"
    # whoever saves a row from an older screen leaves it where it is
    now = head.call("GET", "/kitchen")
    old = {"revision": now["revision"], "yours": {"room.c": 21}, "ingredients": []}
    assert head.call("PUT", "/kitchen", old)["preparations"][0]["key"] == "nut-paste"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"loss_pct": 80}, "preparations[0].loss_pct"),
        ({"parts": []}, "preparations[0].parts"),
        ({"key": "sugar"}, "preparations[0].key"),
        ({"parts": [{"what": "nut-paste", "grams": 1}]}, "preparations[0].parts"),
        ({"minutes": -1}, "preparations[0].minutes"),
        ({"made": "tomorrow"}, "preparations[0].made"),
        ({"parts": [{"what": "sugar", "grams": 0}]}, "preparations[0].parts[0].grams"),
    ],
)
def test_a_preparation_that_cannot_be_is_said_at_its_field(head, change, field):
    now = head.call("GET", "/kitchen")
    faults = head.faults("PUT", "/kitchen", {**now, "preparations": [{**PASTE, **change}]})
    assert field in faults


def test_preparations_go_out_as_a_table_and_come_back(head, paste):
    table = head.get("/api/kitchen/preparations.csv").content.decode()
    assert "Nut paste,hazelnut,300,5,20,the day before,36,nothing in particular" in table
    changed = (
        table.replace(",300,", ",350,") + "Lock syrup,sugar,100,0,5,while it proofs,200,hot sugar\n"
    )
    file = SimpleUploadedFile("p.csv", changed.encode(), "text/csv")
    view = head.post("/api/kitchen/preparations/csv", {"file": file}).json()
    assert [p["name"] for p in view["preparations"]] == ["Nut paste", "Lock syrup"]
    assert view["preparations"][0]["parts"][0]["grams"] == 350
    assert view["preparations"][1]["care"] == "hot_sugar"
    bad = SimpleUploadedFile(
        "p.csv", b"preparation,ingredient,grams\nGlaze,sugar,lots\n", "text/csv"
    )
    answer = head.post("/api/kitchen/preparations/csv", {"file": bad})
    assert answer.status_code == 422
    assert {f["field"] for f in answer.json()["faults"]} == {"row 1, grams"}


def points(pdf):
    """Where text stands, in pt from the page's lower left corner."""
    from reportlab.lib.units import mm

    found = re.findall(rb"1 0 0 1 ([\d.]+) ([\d.]+) Tm", pdf)
    return [(float(x) / mm, float(y) / mm) for x, y in found]


def test_labels_lie_where_the_label_sheet_has_them(head, paste, plan):
    answer = head.get(f"/api/plans/{plan['id']}/labels.pdf?product=0&copies=20")
    assert answer["Content-Type"] == "application/pdf"
    assert answer.content.count(b"/Type /Page\n") + answer.content.count(b"/Type /Page ") == 2
    svg = head.get(f"/api/plans/{plan['id']}/label.svg?product=0").content.decode()
    assert 'width="66mm" height="45mm"' in svg
    words = " ".join(re.findall(r">([^<]+)</text>", svg))
    words = re.sub(r"\s+", " ", words)
    assert "Teasel Lock bakehouse" in words
    assert "Keep dry." in words
    assert "ask the baker" in words  # this plan has no formula
    xs = [float(x) for x in re.findall(r'<text x="([\d.]+)"', svg)]
    ys = [float(y) for y in re.findall(r'y="([\d.]+)" font', svg)]
    assert min(xs) >= 0
    assert max(xs) < 66
    assert max(ys) < 45


@pytest.mark.parametrize(
    ("query", "field"), [("copies=0", "copies"), ("copies=100000", "copies"), ("product=9", "")]
)
def test_labels_that_cannot_be_are_refused(head, plan, query, field):
    answer = head.get(f"/api/plans/{plan['id']}/labels.pdf?{query}")
    assert answer.status_code in (404, 422)
    assert answer.json()["faults"][0]["field"] == field


def test_a_label_that_is_too_small_for_what_it_must_say_is_refused(head, paste, plan):
    kept(head, yours={"label.height_mm": 15, "label.width_mm": 20})
    answer = head.get(f"/api/plans/{plan['id']}/label.svg")
    assert answer.status_code == 422
    assert "does not fit a label of 20 × 15 mm" in answer.json()["faults"][0]["message"]
    assert io.BytesIO(answer.content)
    assert points(b"") == []


def texts_of(pdf):
    """What is written on every page, as it is drawn."""
    streams = re.findall(rb"stream\r?\n(.*?)endstream", pdf, re.S)
    drawn = [zlib.decompress(base64.a85decode(s.strip().removesuffix(b"~>"))) for s in streams]
    return [text.decode("latin-1") for text in drawn if b"Tj" in text]


def test_labels_of_an_order_are_one_for_every_piece_and_those_of_a_run_by_the_day_it_was_made(
    head, plan
):
    order = {
        "name": "Two hundred", "ready_at": "2027-03-20T06:00:00+00:00",
        "doughs": [{"plan_id": plan["id"],
                    "products": [{"product": "Morning roll", "pieces": 50, "raw_g": 60}]}],
    }  # fmt: skip
    saved = head.call("POST", "/orders", order)
    answer = head.get(f"/api/orders/{saved['id']}/labels.pdf")
    assert answer["Content-Type"] == "application/pdf"
    pages = texts_of(answer.content)
    table = {row["key"]: row["value"] for row in head.call("GET", "/kitchen")["table"]}
    per_page = int(table["label.across"] * table["label.down"])
    assert [page.count("(Morning)") for page in pages] == [per_page, per_page, 50 - 2 * per_page]
    assert "(2027,)" in pages[0] or "( 2027,)" in pages[0]

    run = str(uuid.uuid4())
    head.call("POST", "/runs", {"id": run, "plan_id": plan["id"]})
    (page,) = texts_of(head.get(f"/api/runs/{run}/labels.pdf?copies=5").content)
    assert page.count("Made)") == 5
    assert head.get(f"/api/runs/{run}/labels.pdf?product=9").status_code == 404


def test_the_house_decides_what_a_label_shows_but_not_its_allergens(head, plan):
    now = head.call("GET", "/kitchen")
    head.call("PUT", "/kitchen", {**now, "sign": {**now["sign"], "shows": ["weight"]}})
    svg = head.get(f"/api/plans/{plan['id']}/label.svg").content.decode()
    assert "Contains" in svg
    assert "Ingredients" not in svg
    assert "Made" not in svg
    wrong = {**now["sign"], "shows": ["price"]}
    now = head.call("GET", "/kitchen")
    assert "sign.shows[0]" in head.faults("PUT", "/kitchen", {**now, "sign": wrong})
