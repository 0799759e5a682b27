"""The house as it is served: by strangers who send half a request, killed, copied and put back."""

import http.client
import json
import os
import shutil
import socket
import sqlite3
import subprocess
import sys
import time
import urllib.request
import uuid
from datetime import UTC, datetime

import pytest

from .house import ROOT, House


class Visitor:
    """Somebody signed in at a served house, without a browser."""

    def __init__(self, house, name="tansy", password="towpath-bench"):
        self.house = house
        self.cookies = {}
        self.ask("GET", "/session")
        self.ask("POST", "/session", {"username": name, "password": password})

    def ask(self, method, path, body=None, timeout=20):
        request = urllib.request.Request(
            f"{self.house.address}/api{path}",
            data=None if body is None else json.dumps(body).encode(),
            method=method,
            headers={
                "Content-Type": "application/json",
                "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()),
                "X-CSRFToken": self.cookies.get("csrftoken", ""),
            },
        )
        with urllib.request.urlopen(request, timeout=timeout) as answer:
            for header in answer.headers.get_all("Set-Cookie") or []:
                key, _, value = header.split(";")[0].partition("=")
                self.cookies[key] = value
            return json.loads(answer.read() or "null")

    def say(self, run, words):
        event = {"id": str(uuid.uuid4()), "at": datetime.now(UTC).isoformat(),
                 "kind": "note", "words": words}  # fmt: skip
        self.ask("POST", f"/runs/{run}/events", {"events": [event]})
        return event["id"]


@pytest.fixture
def own(house, tmp_path):
    """A demo house of this test's own, served."""
    data = tmp_path / "own"
    shutil.copytree(house.environment["DATA_DIR"], data)
    for left in data.glob("*-wal"):
        left.unlink()
    made = House(data)
    made.start()
    yield made
    if made.process.poll() is None:
        made.stop()


def a_run(visitor):
    plan = visitor.ask("GET", "/plans")[0]["id"]
    return visitor.ask("POST", "/runs", {"id": str(uuid.uuid4()), "plan_id": plan})["id"]


def manage(data, *command, code=0):
    done = subprocess.run(
        [sys.executable, "manage.py", *command], cwd=ROOT, capture_output=True, text=True,
        env=os.environ | {"DATA_DIR": str(data), "EIGHT_TURN_DEMO": "1"}, check=False,
    )  # fmt: skip
    assert done.returncode == code, done.stderr
    return done.stdout + done.stderr


def test_half_a_request_from_sixteen_strangers_keeps_nobody_waiting(own):
    halves = (
        b"GET /api/session HTTP/1.1\r\nHost: ",
        b"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\n"
        b"Content-Length: 5000\r\n\r\n{",
    )
    strangers = []
    for n in range(16):
        stranger = socket.create_connection(("127.0.0.1", own.port))
        stranger.sendall(halves[n % 2])
        strangers.append(stranger)
    visitor = Visitor(own)
    assert visitor.ask("GET", "/session", timeout=5)["me"]["username"] == "tansy"
    for stranger in strangers:
        stranger.close()


def test_one_process_makes_a_demo_house_and_refuses_a_real_one(tmp_path):
    made = House(tmp_path / "demo")
    made.environment.pop("EIGHT_TURN_DEMO")
    for _ in range(2):  # the second time it is there already
        made.start("--demo")
        with urllib.request.urlopen(f"{made.address}/api/session") as session:
            assert [a["username"] for a in json.load(session)["demo_accounts"]]
        made.stop()
    real = tmp_path / "real"
    manage(real, "migrate", "-v", "0")
    manage(real, "createsuperuser", "--noinput", "--username", "ferry", "--email", "f@example.org")
    serve = [sys.executable, "-m", "bakehouse.serve", "--demo"]
    refused = subprocess.run(
        serve, cwd=ROOT, env=made.environment | {"DATA_DIR": str(real)}, capture_output=True,
        text=True, check=False, timeout=60,
    )  # fmt: skip
    assert refused.returncode == 1
    assert "a house in real use" in refused.stderr


def test_every_acknowledged_write_has_reached_the_disk(own, tmp_path):
    """Counted from outside; another connection is open, so that no sync comes from the last to leave."""
    trace = tmp_path / "syncs"
    own.stop()
    own.start(under=("strace", "-D", "-f", "-qq", "-e", "trace=fsync,fdatasync", "-o", str(trace)))
    visitor, other = Visitor(own), Visitor(own)
    run = a_run(visitor)
    reader = sqlite3.connect(f"{own.environment['DATA_DIR']}/eight-turn.sqlite3")
    reader.execute("SELECT count(*) FROM django_session").fetchone()

    def syncs():
        return trace.read_text().count("sync(")

    before = syncs()
    for n in range(12):
        visitor.say(run, f"note {n}")
        other.ask("GET", f"/runs/{run}")
        assert syncs() - before > n
    reader.close()


def test_what_was_acknowledged_is_there_after_a_kill(own):
    visitor = Visitor(own)
    run = a_run(visitor)
    said = [visitor.say(run, f"note {n}") for n in range(5)]
    own.process.kill()
    own.process.wait()
    own.start()
    remarks = Visitor(own).ask("GET", f"/runs/{run}")["standing"]["remarks"]
    assert [r["event_id"] for r in remarks] == said


def test_a_copy_made_while_people_work_is_put_back_into_an_empty_house(own, tmp_path):
    visitor = Visitor(own)
    run = a_run(visitor)
    visitor.say(run, "before the copy")
    data = own.environment["DATA_DIR"]
    copies = tmp_path / "copies"
    assert "There is no folder" in manage(data, "backup", str(copies / "a.sqlite3"), code=1)
    copies.mkdir()
    manage(data, "backup", "--into", str(copies), "--keep", "2")
    (copy,) = copies.iterdir()
    assert copy.stat().st_mode & 0o077 == 0
    visitor.say(run, "after the copy")

    empty = tmp_path / "empty"
    empty.mkdir()
    assert "There is no house" in manage(empty, "backup", str(copies / "b.sqlite3"), code=1)
    said = manage(empty, "restore", str(copy))
    assert "secret key" in said
    there = sqlite3.connect(empty / "eight-turn.sqlite3")
    words = [json.loads(d)["words"] for (d,) in there.execute(
        "SELECT document FROM bench_eventrecord WHERE run_id = ?", (run.replace("-", ""),))]  # fmt: skip
    assert words == ["before the copy"]

    # into a house that is served: it is the other house from then on, and what was there is kept
    assert "is kept as" in manage(data, "restore", str(copy))
    remarks = Visitor(own).ask("GET", f"/runs/{run}")["standing"]["remarks"]
    assert [r["words"] for r in remarks] == ["before the copy"]
    assert list((tmp_path / "own").glob("before-restore-*"))


def test_what_is_no_copy_changes_nothing(own, tmp_path):
    data = own.environment["DATA_DIR"]
    bad = tmp_path / "bad.sqlite3"
    for content, why in ((b"", "no bakehouse"), (b"no database at all" * 99, "no database")):
        bad.write_bytes(content)
        assert why in manage(data, "restore", str(bad), code=1)
    newer = sqlite3.connect(bad := tmp_path / "newer.sqlite3")
    sqlite3.connect(f"{data}/eight-turn.sqlite3").backup(newer)
    newer.execute(
        "INSERT INTO django_migrations (app, name, applied) VALUES ('bench', '0999_x', '2030-01-01')"
    )
    newer.commit()
    assert "newer Eight Turn" in manage(data, "restore", str(bad), code=1)
    assert Visitor(own).ask("GET", "/plans")


def test_only_the_latest_copies_are_kept(own, tmp_path):
    for day in range(1, 5):
        (tmp_path / f"eight-turn-2026010{day}-020000.sqlite3").touch()
    said = manage(own.environment["DATA_DIR"], "backup", "--into", str(tmp_path), "--keep", "3")
    assert "2 older copies taken away" in said
    kept = sorted(p.name for p in tmp_path.glob("eight-turn-*"))
    assert kept[:2] == ["eight-turn-20260103-020000.sqlite3", "eight-turn-20260104-020000.sqlite3"]
    assert len(kept) == 3


def test_a_demo_house_lets_nobody_in_when_it_is_served_as_a_real_one(own):
    own.stop()
    own.environment["EIGHT_TURN_DEMO"] = "0"
    own.start()
    with pytest.raises(urllib.error.HTTPError) as refused:
        Visitor(own)
    assert refused.value.code == 422
    assert "demo house" in refused.value.read().decode()


def test_the_application_copies_itself_where_nothing_else_does(own, tmp_path):
    own.stop()
    folder = tmp_path / "copies"
    folder.mkdir()
    own.environment["EIGHT_TURN_BACKUPS"] = str(folder)
    own.start()
    for _ in range(400):
        if copies := sorted(folder.glob("eight-turn-*.sqlite3")):
            break
        time.sleep(0.05)
    assert len(copies) == 1
    assert copies[0].stat().st_mode & 0o077 == 0
    with sqlite3.connect(copies[0]) as copy:
        assert copy.execute("SELECT count(*) FROM plans_planrecord").fetchone()[0] > 0
    # started again on the same day it has one already
    own.stop()
    own.start()
    time.sleep(0.3)
    assert sorted(folder.glob("eight-turn-*.sqlite3")) == copies


def test_behind_a_proxy_the_one_who_asks_counts_and_not_the_proxy(own):
    own.stop()
    own.environment |= {"EIGHT_TURN_PROXY": "127.0.0.1", "EIGHT_TURN_HTTPS": "1",
                        "EIGHT_TURN_HOSTS": "bakery.example"}  # fmt: skip
    own.start(look=False)

    def ask(method, path, address, scheme="https", body=None, cookies=()):
        line = http.client.HTTPConnection("127.0.0.1", own.port, timeout=20)
        kept = dict(cookies)
        line.request(method, path, json.dumps(body) if body else None, {
            "Host": "bakery.example", "X-Forwarded-For": address, "X-Forwarded-Proto": scheme,
            "Content-Type": "application/json", "Referer": "https://bakery.example/",
            "Cookie": "; ".join(f"{k}={v}" for k, v in kept.items()),
            "X-CSRFToken": kept.get("csrftoken", ""),
        })  # fmt: skip
        answer = line.getresponse()
        answer.read()
        for header in answer.headers.get_all("Set-Cookie") or []:
            key, _, value = header.split(";")[0].partition("=")
            kept[key] = value
        return answer, kept

    plain, _ = ask("GET", "/plans", "10.0.0.5", "http")
    assert plain.status == 301
    assert plain.headers["Location"].startswith("https://bakery.example/")
    there, _ = ask("GET", "/plans", "10.0.0.5")
    assert "max-age=" in there.headers["Strict-Transport-Security"]

    def sign_in(address, password):
        _, cookies = ask("GET", "/api/session", address)
        said = {"username": "wren", "password": password}
        return ask("POST", "/api/session", address, body=said, cookies=cookies.items())[0]

    stranger, head = "203.0.113.9", "10.0.0.6"
    for _ in range(5):
        sign_in(stranger, "guess")
    # the stranger is locked out, and whoever sits in the house is not
    assert sign_in(stranger, "towpath-head").status == 429
    came_in = sign_in(head, "towpath-head")
    assert came_in.status < 300
    assert "Secure" in came_in.headers["Set-Cookie"]
