"""A house that an earlier version kept is brought up to date with everything in it."""

import gzip
import json
import os
import sqlite3
import subprocess
import sys
import uuid
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[2]
GOLDEN = ROOT / "tests" / "golden"
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


# the oldest and the latest at every change, those between them at night
_BETWEEN = [pytest.param(v, marks=pytest.mark.nightly) for v in ("v2", "v3")]


@pytest.fixture(params=["v1", *_BETWEEN, "v4"])
def house(tmp_path, request):
    """A house as a version kept it, with doughs under way."""
    packed = (GOLDEN / f"house-{request.param}.sqlite3.gz").read_bytes()
    (tmp_path / "eight-turn.sqlite3").write_bytes(gzip.decompress(packed))
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
    assert set(seen["versions"]) == {5}
    assert len(seen["worked"]) == len(seen["phases"]) > 0


def test_a_dough_on_fifteen_trays_of_six_is_still_on_them(tmp_path):
    """The rule that says how far flat pieces spread is another since; the trays stand where they stood."""
    packed = (GOLDEN / "house-v3.sqlite3.gz").read_bytes()
    file = tmp_path / "eight-turn.sqlite3"
    file.write_bytes(gzip.decompress(packed))
    run, at = uuid.uuid4(), "2026-11-23T09:00:00+00:00"
    with sqlite3.connect(file) as db:
        (plan,) = db.execute(
            "SELECT document FROM plans_planrecord WHERE document LIKE '%Lock garden Danish%'"
        ).fetchone()
        (kitchen,) = db.execute("SELECT kitchen_document FROM bench_run").fetchone()
        db.execute(
            "INSERT INTO bench_run (id, plan_document, kitchen_document, started_at) VALUES (?, ?, ?, ?)",
            (run.hex, plan, kitchen, at),
        )
    db.close()
    manage(tmp_path, "migrate", "-v", "0")
    look = LOOK_AT_TRAYS.replace("RUN", str(run))
    trays = json.loads(manage(tmp_path, "shell", "-v", "0", stdin=look).strip().splitlines()[-1])
    assert trays == [{"per_tray": 6, "trays": 15}]
    # and they stay, whatever the kitchen's rows say by then
    with sqlite3.connect(file) as db:
        (kept,) = db.execute(
            "SELECT worked_document FROM bench_run WHERE id = ?", (run.hex,)
        ).fetchone()
        assert kept
        db.execute(
            "UPDATE bench_run SET kitchen_document = ? WHERE id = ?",
            (json.dumps({"yours": {"bake_tray.length_mm": 400}}), run.hex),
        )
    db.close()
    again = json.loads(manage(tmp_path, "shell", "-v", "0", stdin=look).strip().splitlines()[-1])
    assert again == trays


LOOK_AT_TRAYS = """
import json
from bakehouse.bench.models import Run
from bakehouse.bench.runs import snapshot
worked = snapshot(Run.objects.get(pk="RUN"))[1]
print(json.dumps([{"per_tray": p.per_tray, "trays": len(p.trays)} for p in worked.shaped.trays.products]))
"""
