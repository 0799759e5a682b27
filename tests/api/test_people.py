"""Signing in, roles, lock-out, and what a stranger may see."""

from datetime import timedelta

import pytest
from django.apps import apps
from django.test import Client
from django.utils import timezone

from bakehouse.api import api
from bakehouse.people.first import code

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
    ("GET", "/api/health"), ("GET", "/api/first"), ("POST", "/api/first"),
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
        .replace("{tag}", "1")
        .replace("{key}", "1-first-letter")
        .replace("{morning}", "four-doughs")
        .replace("{block_id}", "7f1c2f3e-0000-4000-8000-000000000002")
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


def person(head, username):
    return next(p for p in head.call("GET", "/people") if p["username"] == username)


def test_the_head_lets_somebody_in_and_puts_them_out_at_once(head, hand):
    new = {"username": "alder", "password": "reeds-by-the-weir", "role": "bench"}
    hand.call("POST", "/people", new, expect=403)
    made = head.call("POST", "/people", new)
    assert made | {"number": 0} == {"number": 0, "username": "alder", "role": "bench", "here": True}
    alder = Tablet()
    assert sign_in(alder, "alder", "reeds-by-the-weir").json()["me"]["role"] == "bench"
    head.call("PUT", "/people/alder", {"role": "head"})
    assert alder.call("GET", "/session")["me"]["role"] == "head"
    head.call("PUT", "/people/alder", {"here": False})
    # the tablet that is signed in is out as well, and nobody comes in
    assert alder.call("GET", "/session")["me"] is None
    assert sign_in(alder, "alder", "reeds-by-the-weir").status_code == 422
    head.call("PUT", "/people/alder", {"here": True})
    assert sign_in(alder, "alder", "reeds-by-the-weir").status_code == 200
    head.call("PUT", "/people/nobody", {"here": True}, expect=404)


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"username": "Tansy", "password": "reeds-by-the-weir"}, "username"),
        ({"username": "a b/c", "password": "reeds-by-the-weir"}, "username"),
        ({"username": "", "password": "reeds-by-the-weir"}, "username"),
        ({"username": "alder", "password": "12345678"}, "password"),
        ({"username": "alder", "password": "reeds-by-the-weir", "role": "owner"}, "role"),
    ],
)
def test_who_cannot_be_let_in_is_said_at_the_field(head, hand, body, field):
    assert field in head.faults("POST", "/people", body)
    assert len(head.call("GET", "/people")) == 2


def test_somebody_stays_head_baker(head, hand):
    for change in ({"role": "bench"}, {"here": False}):
        assert "must stay head" in head.faults("PUT", "/people/wren", change)["role"]
    head.call("PUT", "/people/tansy", {"role": "head"})
    head.call("PUT", "/people/wren", {"role": "bench"})
    assert person(hand, "wren")["role"] == "bench"


def test_everybody_changes_their_own_password_and_is_out_elsewhere(hand):
    other = Tablet()
    sign_in(other, "tansy", "tansy-at-the-lock")
    change = {"old": "wrong", "new": "reeds-by-the-weir"}
    assert "not your password" in hand.faults("PUT", "/session/password", change)["old"]
    change["old"] = "tansy-at-the-lock"
    assert "new" in hand.faults("PUT", "/session/password", change | {"new": "short"})
    hand.call("PUT", "/session/password", change, expect=204)
    assert hand.call("GET", "/session")["me"]["username"] == "tansy"
    assert other.call("GET", "/session")["me"] is None
    assert sign_in(other, "tansy", "reeds-by-the-weir").status_code == 200


@pytest.fixture
def new_house(db, settings, tmp_path):
    settings.DATA_DIR = tmp_path
    return Tablet()


def test_the_first_head_comes_in_with_the_code_of_the_terminal(new_house, tmp_path):
    assert new_house.call("GET", "/session")["nobody_yet"]
    asked = {row["key"] for row in new_house.call("GET", "/first")}
    assert {"bench.length_mm", "sheeter.belt_width_mm", "fridge.c", "butter.usual"} <= asked
    told = code()
    body = {
        "code": "AAAA-AAAA", "username": "bryony", "password": "reeds-by-the-weir",
        "rows": {"fridge.c": 3, "bench.length_mm": 2400},
    }  # fmt: skip
    assert "not the code" in new_house.faults("POST", "/first", body)["code"]
    body["code"] = told.lower().replace("-", " ")
    bad = body | {"rows": {"fridge.c": 900}}
    assert "rows.fridge.c" in {
        f.replace("rows.yours.", "rows.") for f in new_house.faults("POST", "/first", bad)
    }
    new_house.call("POST", "/first", body, expect=204)
    session = new_house.call("GET", "/session")
    assert session["me"]["role"] == "head"
    assert not session["nobody_yet"]
    assert new_house.call("GET", "/kitchen")["yours"] == {"fridge.c": 3, "bench.length_mm": 2400}
    # once
    new_house.call("POST", "/first", body, expect=404)
    assert not (tmp_path / "first-code").exists()


def test_a_house_with_somebody_in_it_asks_for_no_first_head(head):
    assert not Tablet().call("GET", "/session")["nobody_yet"]
    Tablet().call("GET", "/first", expect=404)


def test_one_address_that_tries_many_names_is_slowed(head):
    client = Client()
    for n in range(30):
        assert sign_in(client, f"name-{n}", "wrong").status_code == 422
    answer = sign_in(client, "wren", "wren-at-the-lock")
    assert answer.status_code == 429
    assert "from here" in answer.json()["faults"][0]["message"]
    # somebody else comes in all the same
    elsewhere = Client(REMOTE_ADDR="192.0.2.7")
    assert sign_in(elsewhere, "wren", "wren-at-the-lock").status_code == 200


def test_what_was_deleted_is_in_the_bin_with_who_did_it_and_comes_back(head, hand, plan):
    hand.call("GET", "/bin", expect=403)
    assert head.call("GET", "/bin") == []
    head.call("DELETE", f"/plans/{plan['id']}", expect=204)
    (thrown,) = head.call("GET", "/bin")
    assert (thrown["what"], thrown["name"], thrown["by"]) == ("plan", "Station croissant", "wren")
    back = {"what": thrown["what"], "key": thrown["key"]}
    head.call("POST", "/bin/restore", back, expect=204)
    assert head.call("GET", f"/plans/{plan['id']}")["plan"]["name"] == "Station croissant"
    head.call("POST", "/bin/restore", back, expect=404)
    for odd in ({"what": "plan", "key": "x"}, {"what": "nothing", "key": "1"},
                {"what": "picture", "key": "x"}):  # fmt: skip
        head.call("POST", "/bin/restore", odd, expect=404)


def test_what_lay_in_the_bin_for_a_month_is_gone(head, plan):
    first = head.call("POST", "/plans", STATION | {"name": "Older"})
    head.call("DELETE", f"/plans/{first['id']}", expect=204)
    long_ago = timezone.now() - timedelta(days=31)
    apps.get_model("plans", "PlanRecord").objects.filter(pk=first["id"]).update(deleted_at=long_ago)
    assert head.call("GET", "/bin") == []
    head.call("DELETE", f"/plans/{plan['id']}", expect=204)
    assert [t["name"] for t in head.call("GET", "/bin")] == ["Station croissant"]
    head.call("POST", "/bin/restore", {"what": "plan", "key": str(first["id"])}, expect=404)
