"""Orders through the API; and plans of the older version, which still open."""

import pytest

from bakehouse.plans.models import PlanRecord

from .conftest import STATION

WANTED = {"product": "Croissant", "pieces": 60, "raw_g": 58, "loss_pct": 9}


@pytest.fixture
def order(head, plan):
    body = {"name": "Saturday", "doughs": [{"plan_id": plan["id"], "products": [WANTED]}],
            "ready_at": "2026-11-28T04:30:00Z"}  # fmt: skip
    return head.call("POST", "/orders", body)


def test_an_order_is_kept_worked_changed_and_brought_back(head, hand, order):
    number = order["id"]
    worked = hand.call("POST", "/order/work", order["order"])
    (batch,) = worked["batches"]
    assert batch["made"][0]["pieces"] == 60
    assert batch["doughs"] * (batch["dough_g"] + batch["butter_g"]) >= 60 * 58 / 0.91
    assert batch["sheets"][-1]["at"].startswith("2026-11-28T")

    more = {**order["order"], "doughs": [{**order["order"]["doughs"][0], "products": [
        {**WANTED, "pieces": 100}]}]}  # fmt: skip
    hand.call("PUT", f"/orders/{number}", {"revision": 1, "order": more}, expect=403)
    saved = head.call("PUT", f"/orders/{number}", {"revision": 1, "order": more})
    assert saved["revision"] == 2
    # the same again is the same; something else over an old revision is not
    head.call("PUT", f"/orders/{number}", {"revision": 1, "order": more})
    other = {**more, "name": "Sunday"}
    head.call("PUT", f"/orders/{number}", {"revision": 1, "order": other}, expect=409)
    assert [(o["pieces"], o["doughs"]) for o in hand.call("GET", "/orders")] == [(100, 1)]

    (before,) = head.call("GET", f"/orders/{number}/versions")
    assert (before["revision"], before["saved_by"]) == (1, "wren")
    first = head.call("GET", f"/orders/{number}/versions/1")
    assert first["doughs"][0]["products"][0]["pieces"] == 60
    head.call("GET", f"/orders/{number}/versions/9", expect=404)

    head.call("DELETE", f"/orders/{number}", expect=204)
    assert hand.call("GET", "/orders") == []
    head.call("POST", f"/orders/{number}/restore")
    table = hand.get(f"/api/orders/{number}/sheets.csv")
    assert table["Content-Disposition"] == 'attachment; filename="saturday.sheets.csv"'
    assert table.content.decode().splitlines()[1].startswith("Butter block,")


def test_a_wrong_order_is_named_where_it_is_wrong(head, order):
    wrong = {**order["order"], "doughs": [{"plan_id": 999, "products": [WANTED]}]}
    assert "doughs[0].plan_id" in head.faults("POST", "/order/work", wrong)
    assert "order.doughs[0].plan_id" in head.faults(
        "PUT", f"/orders/{order['id']}", {"revision": 1, "order": wrong}
    )
    few = {**order["order"], "doughs": [{"plan_id": 1, "products": [{**WANTED, "raw_g": 0}]}]}
    assert "doughs[0].products[0].raw_g" in head.faults("POST", "/order/work", few)


def test_a_formula_is_given_changed_sent_out_and_read_back(head, hand, plan):
    made = head.call(
        "POST", "/amend", {"plan": plan["plan"], "amendment": {"change": "give_formula"}}
    )
    assert made["formula"]["lines"][0]["ingredient"] == "flour-strong"
    head.call("PUT", f"/plans/{plan['id']}", {"revision": 1, "plan": made})
    table = hand.get(f"/api/plans/{plan['id']}/formula.csv")
    from django.core.files.uploadedfile import SimpleUploadedFile

    upload = {"file": SimpleUploadedFile("f.csv", table.content)}
    answer = head.post("/api/formula/csv", upload)
    assert [line["ingredient"] for line in answer.json()] == [
        line["ingredient"] for line in made["formula"]["lines"]
    ]
    bad = {"file": SimpleUploadedFile("f.csv", b"ingredient,amount,unit\nsalt,1,pinch\n")}
    fault = head.post("/api/formula/csv", bad).json()["faults"][0]
    assert (fault["field"], "“pinch” is not a unit" in fault["message"]) == ("row 1, unit", True)
    assert head.post(
        "/api/formula/csv", {"file": SimpleUploadedFile("f.csv", b"\xff\xfe\x00")}
    ).status_code == 422  # fmt: skip
    sheets = hand.get(f"/api/plans/{plan['id']}/sheets.csv").content.decode()
    assert "Mixing day" in sheets


def test_a_wrong_change_says_what_is_missing(head, plan):
    body = {"plan": plan["plan"], "amendment": {"change": "line_grams", "index": 0}}
    assert "amendment.value" in head.faults("POST", "/amend", body)
    body = {"plan": plan["plan"], "amendment": {"change": "add_line", "ingredient": "salt"}}
    assert "no formula yet" in head.faults("POST", "/amend", body)["change"]


def test_a_plan_of_version_one_is_read_and_gives_the_same_sheets(head, db):
    old = {**STATION, "version": 1, "dough": {"mass_g": 2400}, "butter": {"mass_g": 650}}
    for path in ("/plans", "/work"):
        answer = head.call("POST", path, old)
    assert answer["dough"]["density_kg_m3"] == 1120
    assert answer["butter"]["physics"]["density_kg_m3"] == 940
    lock_in = next(s["made"] for s in answer["strip"] if s["do"] == "lock_in")
    assert lock_in["package"]["thickness_mm"] == pytest.approx(41.1, abs=0.05)
    record = PlanRecord.objects.get()
    record.document = old
    record.save()
    assert head.call("GET", f"/plans/{record.pk}")["plan"]["version"] == 4
    run = head.call("POST", "/runs", {"id": "7f1c2f3e-0000-4000-8000-00000000000a",
                                      "plan_id": record.pk})  # fmt: skip
    assert run["used"] is None


def test_what_is_weighed_at_the_bench_comes_into_the_record(head, plan):
    made = head.call(
        "POST", "/amend", {"plan": plan["plan"], "amendment": {"change": "give_formula"}}
    )
    head.call("PUT", f"/plans/{plan['id']}", {"revision": 1, "plan": made})
    path = "/runs/7f1c2f3e-0000-4000-8000-00000000000b"
    run = head.call("POST", "/runs", {"id": path[6:], "plan_id": plan["id"]})
    at = run["now"]
    said = [{"id": "weighed-water", "at": at, "kind": "weighed", "line": "mix/water", "grams": 500}]
    view = head.call("POST", f"{path}/events", {"events": said})
    assert view["standing"]["weighed"][0]["grams"] == 500
    assert next(p for p in view["used"]["parts"] if p["name"] == "Water")["used_g"] == 500
    wrong = [{**said[0], "id": "weighed-gold", "line": "mix/gold"}]
    assert "events[0].line" in head.faults("POST", f"{path}/events", {"events": wrong})


def test_the_bakery_s_own_ingredient_is_kept_and_a_wrong_one_named(head, hand):
    view = hand.call("GET", "/kitchen")
    like = view["library"][0]
    mine = {**like, "key": "flour-mine", "name": "Mine"}
    kept = head.call(
        "PUT", "/kitchen", {"revision": view["revision"], "yours": {}, "ingredients": [mine]}
    )
    assert kept["ingredients"][0]["name"] == "Mine"
    twice = head.faults("PUT", "/kitchen", {"revision": 0, "yours": {}, "ingredients": [like]})
    assert "ingredients[0].key" in twice
    thin = {**mine, "composition": {**mine["composition"], "carbohydrate_pct": 10}}
    assert "ingredients[0].composition.carbohydrate_pct" in head.faults(
        "PUT", "/kitchen", {"revision": 0, "yours": {}, "ingredients": [thin]}
    )
