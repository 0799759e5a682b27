"""Every door of the house: locks, forgotten passwords, demo accounts, the admin, two first heads at once."""

import json
import os
import subprocess
import sys
from pathlib import Path
from threading import Barrier, Thread

import pytest
from django.contrib.auth.models import Group, User
from django.core.cache import cache
from django.core.exceptions import PermissionDenied
from django.db import connection
from django.test import Client

from bakehouse.people.doors import Doors
from bakehouse.people.first import code
from bakehouse.people.models import House
from bakehouse.people.roles import HEAD

ROOT = Path(__file__).resolve().parents[2]


@pytest.fixture(autouse=True)
def no_memory():
    cache.clear()
    yield
    cache.clear()


def sign_in(client, username, password, **more):
    said = {"username": username, "password": password}
    return client.post("/api/session", said, content_type="application/json", **more)


def test_a_new_password_from_the_head_lifts_the_lock(head, hand):
    stranger = Client()
    for _ in range(6):
        sign_in(stranger, "tansy", "wrong")
    assert sign_in(stranger, "tansy", "tansy-at-the-lock").status_code == 429
    head.call("PUT", "/people/tansy", {"password": "reeds-by-the-weir"})
    assert sign_in(stranger, "tansy", "reeds-by-the-weir").status_code == 200


def test_the_machine_gives_a_new_password_and_lets_in_again(tmp_path):
    def manage(*command):
        return subprocess.run(
            [sys.executable, "manage.py", *command], cwd=ROOT, capture_output=True, text=True,
            env=os.environ | {"DATA_DIR": str(tmp_path)}, check=False,
        )  # fmt: skip

    manage("migrate", "-v", "0")
    manage("createsuperuser", "--noinput", "--username", "ferry", "--email", "f@example.org")
    done = manage("new_password", "Ferry")
    assert "The new password of ferry is " in done.stdout
    made = done.stdout.splitlines()[0].rsplit(" ", 1)[1]
    look = (
        "from django.contrib.auth.models import User; "
        f"print(User.objects.get(username='ferry').check_password('{made}'))"
    )
    seen = manage("shell", "-v", "0", "-c", look)
    assert seen.stdout.strip().endswith("True")
    wrong = manage("new_password", "heron")
    assert wrong.returncode == 1
    assert "There is: ferry" in wrong.stderr


def test_one_s_own_old_password_cannot_be_guessed_without_limit(hand):
    guess = {"old": "wrong", "new": "reeds-by-the-weir"}
    answers = [
        hand.put("/api/session/password", guess, content_type="application/json") for _ in range(7)
    ]
    assert [a.status_code for a in answers][:4] == [422] * 4
    assert {a.status_code for a in answers[5:]} == {429}
    assert answers[-1].json()["faults"][0]["field"] == "old"


def test_the_admin_keeps_the_same_rule_of_thirty_as_the_sign_in_page(head, settings):
    from bakehouse.people import doors, lockout

    settings.AXES_ENABLED = False  # only the rule by address
    from django.contrib.auth import authenticate
    from django.test import RequestFactory

    request = RequestFactory().post("/admin/login/", REMOTE_ADDR="10.0.0.77")
    for n in range(lockout._MOST):
        assert authenticate(request, username=f"name-{n}", password="wrong") is None
    assert lockout.too_often(request)
    assert authenticate(request, username="wren", password="wren-at-the-lock") is None
    other = RequestFactory().post("/admin/login/", REMOTE_ADDR="10.0.0.78")
    assert authenticate(other, username="wren", password="wren-at-the-lock") is not None
    assert doors.closed() is False


def test_a_demo_house_served_as_a_real_one_is_closed_at_every_door(head, settings):
    assert head.call("GET", "/session")["me"]
    House.objects.create(demo=True)
    cache.clear()
    # the session from demo time, the sign-in page, and the admin's own way in
    assert head.call("GET", "/session")["me"] is None
    head.call("GET", "/plans", expect=401)
    refused = sign_in(Client(), "wren", "wren-at-the-lock")
    assert "demo house" in refused.json()["faults"][0]["message"]
    with pytest.raises(PermissionDenied):
        Doors().authenticate(None, "wren", "wren-at-the-lock")
    settings.DEMO = True
    assert head.call("GET", "/session")["me"]


def test_a_demo_house_from_before_it_was_marked_is_known_by_its_passwords(db):
    from importlib import import_module

    from django.apps import apps

    mark = import_module("bakehouse.people.migrations.0004_demo_from_before").mark
    real = User.objects.create_user("wren", password="a-password-of-ones-own")
    mark(apps, None)
    assert not House.is_demo()
    real.set_password("towpath-head")
    real.save()
    mark(apps, None)
    assert House.is_demo()


@pytest.mark.django_db(transaction=True)
def test_four_first_heads_at_once_with_one_code_make_one(settings, tmp_path):
    settings.DATA_DIR = tmp_path
    Group.objects.get_or_create(name=HEAD)  # a test that empties the tables may have come first
    told, start, answers = code(), Barrier(4), []

    def come_in(n):
        body = {"code": told, "username": f"head{n}", "password": "reeds-by-the-weir", "rows": {}}
        start.wait()
        answers.append(Client().post("/api/first", body, content_type="application/json"))
        connection.close()

    threads = [Thread(target=come_in, args=[n]) for n in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(a.status_code for a in answers) == [204, 404, 404, 404]
    assert User.objects.count() == 1
    assert json.loads(next(a for a in answers if a.status_code == 404).content)["faults"]
