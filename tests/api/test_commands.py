"""The command line: work, backup, the demo; and the page that everything hangs on."""

import io
import json
import os
import sqlite3
import subprocess
import sys

import pytest
from django.conf import settings
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.test import Client

from .conftest import STATION


def run_work(tmp_path, content):
    file = tmp_path / "plan.json"
    file.write_text(content if isinstance(content, str) else json.dumps(content))
    out, err = io.StringIO(), io.StringIO()
    try:
        call_command("work", str(file), stdout=out, stderr=err, no_color=True)
        code = 0
    except SystemExit as stop:
        code = stop.code
    return code, out.getvalue(), err.getvalue()


def test_work_prints_the_worked_plan(tmp_path):
    code, out, _ = run_work(tmp_path, STATION)
    worked = json.loads(out)
    assert code == 0
    assert worked["lock_in"]["package"]["thickness_mm"] == pytest.approx(41.1, abs=0.05)
    assert worked["layers"] | {"butter_um": 36, "dough_um": 108} == worked["layers"] | {
        "butter_um": round(worked["layers"]["butter_um"]),
        "dough_um": round(worked["layers"]["dough_um"]),
    }


def test_work_reads_standard_input(monkeypatch, capsys):
    source = io.TextIOWrapper(io.BytesIO(json.dumps(STATION).encode()))
    monkeypatch.setattr(sys, "stdin", source)
    call_command("work", "-")
    assert json.loads(capsys.readouterr().out)["final"]["length_mm"] == pytest.approx(1771, abs=1)


def test_work_says_one_line_per_fault_and_exits_2(tmp_path):
    bad = STATION | {"dough": {"mass_g": -1}, "family": "bread"}
    code, out, err = run_work(tmp_path, bad)
    assert (code, out) == (2, "")
    lines = err.strip().splitlines()
    assert [line.split(":")[0] for line in lines] == ["family", "dough.mass_g"]


@pytest.mark.parametrize("content", ["{", "[]", '{"format": "eight-turn/plan", "version": 9}'])
def test_work_refuses_what_is_no_plan(tmp_path, content):
    code, _, err = run_work(tmp_path, content)
    assert code == 2
    assert len(err.strip().splitlines()) == 1


def test_work_names_a_file_that_is_not_there(capsys):
    with pytest.raises(SystemExit):
        call_command("work", "/nowhere/plan.json")
    assert "cannot be read" in capsys.readouterr().err


@pytest.mark.django_db(transaction=True)
def test_a_backup_is_a_whole_database_and_never_overwrites(tmp_path):
    User.objects.create_user("bryony")
    file = tmp_path / "copy.sqlite3"
    call_command("backup", str(file), stdout=io.StringIO())
    copied = sqlite3.connect(file)
    assert copied.execute("select username from auth_user").fetchall() == [("bryony",)]
    with pytest.raises(CommandError, match="never overwrites"):
        call_command("backup", str(file))


def test_the_demo_keeps_out_of_a_house_in_real_use(head):
    User.objects.create_user("bryony")
    with pytest.raises(CommandError, match="house in real use"):
        call_command("demo", stdout=io.StringIO())
    assert head.call("GET", "/plans") == []


def test_the_demo_fills_every_room_once_and_keeps_what_is_changed(db, settings):
    settings.DEMO = True
    call_command("demo", stdout=io.StringIO())
    client = Client()
    client.post(
        "/api/session",
        {"username": "wren", "password": "towpath-head"},
        content_type="application/json",
    )
    plans, runs = client.get("/api/plans").json(), client.get("/api/runs").json()["runs"]
    assert len({p["family"] for p in plans}) >= 3
    assert sorted(r["phase"] for r in runs).count("finished") >= 2
    assert {r["phase"] for r in runs} & {"work", "rest"}
    client.delete(f"/api/plans/{plans[0]['id']}")
    call_command("demo", stdout=io.StringIO())
    assert len(client.get("/api/plans").json()) == len(plans) - 1


def test_the_page_carries_a_nonce_of_its_own_each_time(db, tmp_path, settings, monkeypatch):
    (tmp_path / "index.html").write_text('<script nonce="NONCE_OF_THIS_ANSWER"></script>')
    settings.WEB_BUILD = tmp_path
    monkeypatch.setattr("bakehouse.shell._page", lambda: (tmp_path / "index.html").read_text())
    first, second = Client().get("/plans/3"), Client().get("/plans/3")
    nonce = first.content.decode().split('"')[1]
    assert f"'nonce-{nonce}'" in first["Content-Security-Policy"]
    assert first.content != second.content


PAGE = """
import io, sys
from django.core.wsgi import get_wsgi_application
served = get_wsgi_application()
def ask(path):
    said = []
    b"".join(served({"REQUEST_METHOD": "GET", "PATH_INFO": path, "SERVER_NAME": "localhost",
                     "SERVER_PORT": "80", "wsgi.input": io.BytesIO(), "wsgi.url_scheme": "http"},
                    lambda status, headers: said.append(int(status[:3]))))
    return said[0]
def there():
    return sorted({"ninja", "pydantic", "numpy", "lamination"} & set(sys.modules))
print(ask("/plans/1"), there(), ask("/api/nobody"), there())
"""


def test_a_page_is_answered_before_what_the_api_needs_is_imported(tmp_path):
    env = os.environ | {"DJANGO_SETTINGS_MODULE": "bakehouse.settings", "DATA_DIR": str(tmp_path)}
    said = subprocess.run([sys.executable, "-c", PAGE], capture_output=True, text=True, env=env,
                          cwd=settings.BASE_DIR, check=True)  # fmt: skip
    status, _, rest = said.stdout.partition(" ")
    # 503 where the front end is not built, as in a quick loop
    assert status in ("200", "503")
    assert rest.strip() == "[] 404 ['lamination', 'ninja', 'numpy', 'pydantic']"
