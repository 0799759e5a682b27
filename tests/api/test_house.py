"""The house as it is served: headers, cookies, the admin, Django's own deployment check."""

import importlib
import os
import subprocess
import sys
from pathlib import Path

import pytest
from django.contrib.auth.models import Group, User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test import Client
from django.urls import clear_url_caches

from bakehouse import uploads, urls
from bakehouse.people.roles import role_of

ROOT = Path(__file__).resolve().parents[2]


def manage(*arguments, **environment):
    return subprocess.run(
        [sys.executable, "manage.py", *arguments],
        cwd=ROOT,
        env=os.environ | environment,
        capture_output=True,
        text=True,
        check=False,
    )


def test_django_s_deployment_check_has_nothing_to_say_behind_https(tmp_path):
    done = manage("check", "--deploy", "--fail-level", "WARNING", DATA_DIR=str(tmp_path),
                  EIGHT_TURN_HTTPS="1", EIGHT_TURN_HOSTS="bakery.example")  # fmt: skip
    assert done.returncode == 0, done.stderr


def test_a_new_installation_makes_a_key_only_its_owner_can_read(tmp_path):
    assert manage("check", DATA_DIR=str(tmp_path / "new")).returncode == 0
    database = tmp_path / "new" / "eight-turn.sqlite3"
    assert database.stat().st_mode & 0o077 == 0
    key = tmp_path / "new" / "secret_key"
    assert len(key.read_text()) >= 50
    assert key.stat().st_mode & 0o077 == 0
    before = key.read_text()
    manage("check", DATA_DIR=str(tmp_path / "new"))
    assert key.read_text() == before


def test_the_policy_allows_our_own_origin_and_nothing_inline(db):
    policy = Client().get("/api/session")["Content-Security-Policy"]
    rules = dict(rule.strip().split(" ", 1) for rule in policy.split(";"))
    assert rules["default-src"] == "'self'"
    assert "unsafe" not in policy
    assert "http" not in policy
    assert rules["frame-ancestors"] == "'none'"


def test_every_answer_refuses_frames_and_guessing(db):
    answer = Client().get("/api/session")
    assert answer["X-Frame-Options"] == "DENY"
    assert answer["X-Content-Type-Options"] == "nosniff"


def test_the_session_cookie_is_out_of_reach_of_scripts(head):
    client = Client()
    client.get("/api/session")
    client.post("/api/session", {"username": "wren", "password": "wren-at-the-lock"},
                content_type="application/json")  # fmt: skip
    assert client.cookies["sessionid"]["httponly"]
    assert client.cookies["sessionid"]["samesite"] == "Lax"


def test_the_database_is_set_up_for_people_working_at_once(db):
    with connection.cursor() as cursor:
        assert cursor.execute("PRAGMA foreign_keys").fetchone()[0] == 1
        assert cursor.execute("PRAGMA journal_mode").fetchone()[0] in ("wal", "memory")
        assert cursor.execute("PRAGMA busy_timeout").fetchone()[0] >= 5000


@pytest.fixture
def admin(settings):
    """The admin, where it is asked for."""
    settings.ADMIN = True
    importlib.reload(urls)
    clear_url_caches()
    yield
    settings.ADMIN = False
    importlib.reload(urls)
    clear_url_caches()


def test_the_admin_is_off_unless_it_is_asked_for(db):
    assert Client().get("/admin/login/").status_code == 404


def test_accounts_are_kept_in_the_admin_by_those_who_may(db, admin):
    boss = User.objects.create_superuser("lockkeeper", password="keeps-the-lock-gates")
    client = Client()
    client.force_login(boss)
    page = client.get("/admin/auth/user/add/")
    assert page.status_code == 200
    assert b"password" in page.content
    assert Client().get("/admin/auth/user/").status_code == 302


@pytest.mark.parametrize(
    ("groups", "superuser", "role"),
    [
        ([], False, "bench"),
        (["bench"], False, "bench"),
        (["head"], False, "head"),
        (["head", "bench"], False, "head"),
        ([], True, "head"),
    ],
)
def test_roles_come_from_groups_and_nobody_has_more_than_given(db, groups, superuser, role):
    user = User.objects.create_user("somebody", is_superuser=superuser)
    user.groups.set(Group.objects.filter(name__in=groups))
    assert role_of(user) == role


def test_what_is_no_address_answers_in_the_same_shape(db):
    answer = Client().get("/api/attic")
    assert answer.status_code == 404
    assert answer.json()["faults"][0]["message"] == "There is nothing at this address."


def test_files_from_one_address_are_taken_more_slowly_after_a_while_and_others_go_on(
    hand, monkeypatch
):
    monkeypatch.setattr(uploads, "MOST", 3)

    def send(address):
        file = SimpleUploadedFile("probe.csv", b"minute,c\n0,4\n1,5\n")
        return hand.post("/api/learn/csv", {"file": file}, REMOTE_ADDR=address).status_code

    assert [send("10.0.0.5") for _ in range(5)] == [200, 200, 200, 429, 429]
    assert send("10.0.0.6") == 200
    # what is no file is no matter
    assert hand.get("/api/session", REMOTE_ADDR="10.0.0.5").status_code == 200
