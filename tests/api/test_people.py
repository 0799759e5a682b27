"""Signing in, roles, lock-out, and what a stranger may see."""

import pytest
from django.test import Client

from bakehouse.api import api

from .conftest import STATION, Tablet


def sign_in(client, username, password):
    return client.post(
        "/api/session",
        {"username": username, "password": password},
        content_type="application/json",
    )


def test_right_name_and_password_open_the_house(head):
    client = Client()
    assert client.get("/api/session").json()["me"] is None
    me = sign_in(client, "wren", "wren-at-the-lock").json()["me"]
    assert (me["username"], me["role"]) == ("wren", "head")
    client.delete("/api/session")
    assert client.get("/api/session").json()["me"] is None


def test_five_wrong_passwords_lock_the_account_even_for_the_right_one(head):
    client = Client()
    for _ in range(4):
        answer = sign_in(client, "wren", "wrong")
        assert answer.status_code == 422
        assert answer.json()["faults"][0]["field"] == "password"
    assert sign_in(client, "wren", "wrong").status_code == 429
    answer = sign_in(client, "wren", "wren-at-the-lock")
    assert answer.status_code == 429
    assert "locked" in answer.json()["faults"][0]["message"]


def test_signing_in_needs_the_csrf_token(head):
    client = Client(enforce_csrf_checks=True)
    assert sign_in(client, "wren", "wren-at-the-lock").status_code == 403
    client.get("/api/session")
    token = client.cookies["csrftoken"].value
    answer = client.post(
        "/api/session",
        {"username": "wren", "password": "wren-at-the-lock"},
        content_type="application/json",
        headers={"X-CSRFToken": token},
    )
    assert answer.status_code == 200


def operations():
    for path, methods in api.get_openapi_schema()["paths"].items():
        for method in methods:
            yield method.upper(), path


PUBLIC = {
    ("GET", "/api/session"), ("POST", "/api/session"),
    ("GET", "/api/plan.schema.json"), ("GET", "/api/day.schema.json"),
    ("GET", "/api/health"),
}  # fmt: skip


@pytest.mark.django_db
@pytest.mark.parametrize(("method", "path"), sorted(set(operations()) - PUBLIC))
def test_a_stranger_gets_nothing(method, path):
    path = (
        path.replace("{plan_id}", "1")
        .replace("{order_id}", "1")
        .replace("{revision}", "1")
        .replace("{probe_id}", "1")
        .replace("{run_id}", "7f1c2f3e-0000-4000-8000-000000000000")
        .replace("{photo_id}", "7f1c2f3e-0000-4000-8000-000000000001")
    )
    answer = Client().generic(method, path, "{}", "application/json")
    assert answer.status_code == 401
    assert answer.json()["faults"][0]["message"] == "Please sign in."


def test_a_bench_hand_reads_and_runs_but_does_not_change_plans(hand, plan):
    number = plan["id"]
    assert hand.call("GET", f"/plans/{number}")["plan"]["name"] == "Station croissant"
    hand.call("POST", "/work", STATION)
    for method, path, body in (
        ("POST", "/plans", STATION),
        ("PUT", f"/plans/{number}", {"revision": 1, "plan": STATION}),
        ("DELETE", f"/plans/{number}", None),
        ("POST", f"/plans/{number}/copy", None),
        ("PUT", "/kitchen", {"yours": {}}),
    ):
        assert "head baker" in hand.faults(method, path, body, 403)[""]


def test_likes_are_kept_per_person(head, hand):
    head.call("PUT", "/session/likes", {"units": "imperial", "folds": "single", "counts": "leaves"})
    assert head.call("GET", "/session")["me"]["likes"]["units"] == "imperial"
    assert hand.call("GET", "/session")["me"]["likes"]["units"] == "metric"
    assert "units" in head.faults("PUT", "/session/likes", {"units": "cubits"})


def test_demo_accounts_are_offered_only_while_the_demo_runs(db, settings):
    assert Tablet().call("GET", "/session")["demo_accounts"] == []
    settings.DEMO = True
    assert [a["role"] for a in Tablet().call("GET", "/session")["demo_accounts"]] == [
        "head",
        "bench",
    ]
