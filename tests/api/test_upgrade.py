"""A house that version 3 kept is brought up to date with everything in it."""

import gzip
import json
import os
import sqlite3
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[2]
GOLDEN = ROOT / "tests" / "golden" / "house-v3.sqlite3.gz"
LOOK = """
import json
from django.contrib.auth.models import User
from django.test import Client
c = Client(HTTP_HOST="localhost")
c.force_login(User.objects.get(username="wren"))
get = lambda path: c.get("/api" + path).json()
plans = get("/plans")
runs = get("/runs")["runs"]
print(json.dumps({
    "plans": [p["name"] for p in plans],
    "versions": [get(f"/plans/{p['id']}")["plan"]["version"] for p in plans],
    "phases": [r["phase"] for r in runs],
    "worked": [get(f"/runs/{r['id']}/snapshot")["worked"]["name"] for r in runs],
    "orders": len(get("/orders")),
}))
"""


@pytest.fixture
def house(tmp_path):
    (tmp_path / "eight-turn.sqlite3").write_bytes(gzip.decompress(GOLDEN.read_bytes()))
    return tmp_path


def manage(house, *command, stdin=None):
    return subprocess.run(
        [sys.executable, "manage.py", *command],
        cwd=ROOT,
        env=os.environ | {"DATA_DIR": str(house), "EIGHT_TURN_DEMO": "1"},
        input=stdin,
        capture_output=True,
        text=True,
        check=True,
    ).stdout


def counts(house):
    with sqlite3.connect(house / "eight-turn.sqlite3") as db:
        tables = {row[0] for row in db.execute("select name from sqlite_master where type='table'")}
        kept = [t for t in ("plans_planrecord", "bench_run", "bench_event") if t in tables]
        return {t: db.execute(f"select count(*) from {t}").fetchone()[0] for t in kept}


def test_everything_is_still_there_and_can_be_opened(house):
    before = counts(house)
    manage(house, "migrate", "-v", "0")
    assert counts(house) == before
    seen = json.loads(manage(house, "shell", "-v", "0", stdin=LOOK).strip().splitlines()[-1])
    assert len(seen["plans"]) >= 3
    assert set(seen["versions"]) == {4}
    assert len(seen["worked"]) == len(seen["phases"]) > 0
