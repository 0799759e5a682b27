"""Accidents: strangers on the network, a damaged house, a disk that is full, read-only or locked."""

import json
import re
import shutil
import socket
import sqlite3
import subprocess
import sys
import time
import urllib.request

import pytest
from playwright.sync_api import expect

from .house import ROOT, House, until
from .test_served import Visitor, a_run, manage


@pytest.fixture
def own(house, tmp_path):
    """A demo house of this test's own; not served yet."""
    data = tmp_path / "own"
    shutil.copytree(house.environment["DATA_DIR"], data)
    for left in data.glob("*-wal"):
        left.unlink()
    made = House(data)
    yield made
    if made.process and made.process.poll() is None:
        made.stop()


def strangers(house, many, begun):
    held = []
    for _ in range(many):
        line = socket.create_connection(("127.0.0.1", house.port))
        line.sendall(begun)
        held.append(line)
    return held


LARGEST = max((ROOT / ".stamps/static/assets").glob("*.js"), key=lambda f: f.stat().st_size).name
HEAD = b"Host: 127.0.0.1\r\nAccept-Encoding: br\r\n"
UNREAD = f"GET /static/assets/{LARGEST} HTTP/1.1\r\n".encode() + HEAD + b"\r\n"
HALF = b"POST /api/session HTTP/1.1\r\n" + HEAD + b"Content-Length: 5000\r\n\r\n{"


@pytest.mark.parametrize(
    ("many", "begun"),
    [(24, UNREAD * 30), (60, HALF), (300, b""), (100, b"GET /api/session HTTP/1.1\r\nHo")],
    ids=["unread", "half a body", "silent", "half a head"],
)
def test_strangers_who_ask_and_do_not_read_or_finish_keep_nobody_waiting(own, many, begun):
    own.start()
    held = strangers(own, many, begun)
    visitor = Visitor(own)
    run = a_run(visitor)
    visitor.say(run, "in between")
    assert visitor.ask("GET", f"/runs/{run}", timeout=10)["said"] == 1
    assert own.process.poll() is None
    for line in held:
        line.close()


def test_more_than_twenty_megabytes_are_refused_before_they_are_read(own):
    own.start()
    line = socket.create_connection(("127.0.0.1", own.port))
    line.sendall(b"POST /api/session HTTP/1.1\r\n" + HEAD + b"Content-Length: 90000000\r\n\r\n{")
    line.settimeout(20)
    assert line.recv(400).startswith(b"HTTP/1.1 413")


def test_both_processes_end_when_either_does(own):
    own.start()
    assert own.process.poll() is None
    own.process.kill()
    own.process.wait()
    for _ in range(200):
        try:
            socket.create_connection(("127.0.0.1", own.port), timeout=1).close()
        except OSError:
            return
        time.sleep(0.05)
    raise AssertionError("the house is still served by a process that nobody waits for")


def damaged(data, how):
    file = data / "eight-turn.sqlite3"
    for beside in data.glob("eight-turn.sqlite3-*"):
        beside.unlink()
    content = bytearray(file.read_bytes())
    if how == "cut off":
        content = content[: len(content) // 3]
    elif how == "overwritten":
        content[8_192:200_000] = b"\xa5" * (200_000 - 8_192)
    elif how == "no database":
        content = bytearray(b"not a database at all " * 4_000)
    else:
        content[:100] = bytes(100)
    file.write_bytes(bytes(content))
    return bytes(content)


@pytest.mark.parametrize(
    "how",
    [
        "cut off",
        pytest.param("overwritten", marks=pytest.mark.nightly),
        pytest.param("no database", marks=pytest.mark.nightly),
        "no head",
    ],
)
def test_a_copy_is_put_back_in_the_place_of_a_damaged_house(own, tmp_path, how):
    data = tmp_path / "own"
    copy = tmp_path / "copy.sqlite3"
    manage(data, "backup", str(copy))
    content = damaged(data, how)
    said = manage(data, "restore", str(copy))
    # the damaged files are set aside as they were
    (aside,) = data.glob("damaged-*.sqlite3")
    assert aside.read_bytes() == content
    assert aside.name in said
    own.start()
    assert Visitor(own).ask("GET", "/plans")


def test_a_damaged_house_says_so_at_start_and_not_in_a_traceback(own, tmp_path):
    damaged(tmp_path / "own", "no database")
    done = subprocess.run(
        [sys.executable, "-m", "bakehouse.serve", "--migrate"], cwd=ROOT, env=own.environment,
        capture_output=True, text=True, check=False, timeout=60,
    )  # fmt: skip
    assert done.returncode == 1
    assert "is damaged, or its disk is" in done.stderr
    assert "Traceback" not in done.stderr


def test_a_locked_house_is_a_sentence_and_the_press_is_kept_and_sent_later(own, person, tmp_path):
    own.start()
    page = person("tansy", path="/bench", new=True)
    page.goto(f"{own.address}/bench")
    page.get_by_role("button", name=re.compile("^tansy")).click()
    page.get_by_role("button", name="Start Café boat puff").click()
    page.wait_for_url(re.compile("/bench/.+"))
    run = page.url.rsplit("/", 1)[1]
    holds = sqlite3.connect(tmp_path / "own/eight-turn.sqlite3", isolation_level=None)
    holds.execute("BEGIN IMMEDIATE")
    page.get_by_role("button", name=re.compile("^Note")).click()
    page.get_by_role("button", name="Springs back").click()
    expect(page.get_by_text(re.compile("is busy writing"))).to_be_visible()
    holds.execute("ROLLBACK")
    holds.close()
    expect(page.get_by_text(re.compile("is busy writing"))).to_have_count(0)
    until(page, run, "now.said", 1)


# A disk of its own, small or turned so that nobody can write to it, which is gone with the process.
DISK = f"""
mount -t tmpfs -o size=48m tmpfs "$DATA_DIR" && cp -r "$FROM"/. "$DATA_DIR" || exit 1
{sys.executable} -m bakehouse.serve & served=$!
until [ -e "$FROM/now" ]; do sleep 0.1; done
"""
FILL = 'head -c 90M /dev/zero > "$DATA_DIR/filler" 2>/dev/null; wait $served'
# as the machine does it when a disk fails: while the house is served, and it is served on
READ_ONLY = f"""
pkill -9 -P $served; kill -9 $served; sleep 0.2
mount -o remount,ro "$DATA_DIR" || exit 1
exec {sys.executable} -m bakehouse.serve
"""


@pytest.mark.parametrize(
    ("then", "sentence"),
    [(FILL, "The disk of the bakehouse is full"), (READ_ONLY, "cannot be written to")],
    ids=["full", "read-only"],
)
def test_a_disk_that_takes_nothing_more_is_said_on_the_screen_and_reading_goes_on(
    own, person, tmp_path, then, sentence
):
    (tmp_path / "disk").mkdir()
    own.environment |= {"FROM": str(tmp_path / "own"), "DATA_DIR": str(tmp_path / "disk")}
    own.process = subprocess.Popen(
        ["unshare", "-Urm", "sh", "-c", DISK + then], cwd=ROOT, env=own.environment
    )
    for _ in range(400):
        try:
            urllib.request.urlopen(f"{own.address}/api/session", timeout=1)
            break
        except OSError:
            time.sleep(0.05)
    page = person("tansy", path="/bench", new=True)
    page.goto(f"{own.address}/bench")
    page.get_by_role("button", name=re.compile("^tansy")).click()
    page.get_by_role("button", name="Start Café boat puff").click()
    page.wait_for_url(re.compile("/bench/.+"))
    expect(page.get_by_role("button", name=re.compile("^Note"))).to_be_visible()

    def health():
        try:
            with urllib.request.urlopen(f"{own.address}/api/health", timeout=5) as answer:
                return json.load(answer)
        except urllib.error.HTTPError as refused:
            return json.load(refused)
        except OSError:
            return {"ok": True}  # between one process and the next

    assert health()["ok"]
    (tmp_path / "own/now").touch()
    for _ in range(400):
        if not health()["ok"]:
            break
        time.sleep(0.05)
    assert sentence in health()["because"]
    # what is larger than the little that may still fit
    for _ in range(30):
        page.get_by_role("button", name=re.compile("^Note")).click()
        page.get_by_role("dialog").get_by_role("textbox").fill("Rolled thin. " * 150)
        page.get_by_role("dialog").get_by_role("button", name="Keep the note").click()
        page.wait_for_timeout(200)
        if page.get_by_text(sentence).count():
            break
    expect(page.get_by_text(sentence).first).to_be_visible()
    expect(page.get_by_text(re.compile("waits? here and will be sent"))).to_be_visible()
    page.goto(f"{own.address}/book")
    expect(page.get_by_role("heading", name="Book", level=1)).to_be_visible()
    expect(page.get_by_text("Saturday market croissant").first).to_be_visible()
