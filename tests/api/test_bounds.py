"""What comes in is bounded: lists, text, times, tables and pictures; what goes out is stamped."""

import io
import json
import subprocess
import sys
import time
import uuid
from datetime import UTC, datetime, timedelta
from threading import Thread

import pytest
from django.core.management import call_command
from django.db import connection
from django.test import Client
from django.utils import timezone
from PIL import Image

from bakehouse.pictures import LONGEST_SIDE, small_jpeg
from lamination.files.tables import read_formula_csv
from lamination.materials.ingredients import PLAIN_SHELF
from lamination.pieces.checkweigh import read_weights_csv
from lamination.terms import Faults, written_table
from lamination.warmth.learn import read_logger_csv

from .conftest import STATION, started


def test_a_heap_of_wrong_turns_is_answered_with_one_sentence(head):
    plan = json.dumps(STATION | {"turns": [0] * 700_000})
    answer = head.generic("POST", "/api/work", plan, "application/json")
    (fault,) = answer.json()["faults"]
    assert (answer.status_code, fault["field"]) == (422, "turns")
    assert "700000 of these are too many" in fault["message"]


def test_of_very_many_faults_the_first_are_said(head):
    plan = STATION | {"turns": [{"fold": "none"}] * 300}
    assert len(head.call("POST", "/work", plan, expect=422)["faults"]) == 40


@pytest.mark.parametrize("field", ["name", "words"])
def test_half_a_sign_is_a_sentence_at_its_field(head, field):
    assert "sign that is none" in head.faults("POST", "/work", STATION | {field: "a\ud800b"})[field]
    # and a whole one outside of the first plane is a sign like any other
    assert head.call("POST", "/work", STATION | {"name": "\U0001f950"})


@pytest.mark.parametrize("written", ["escaped", "utf-8", "utf-16-le", "utf-32-be"])
def test_half_a_sign_is_seen_however_it_is_written(head, written):
    plan = json.dumps(STATION | {"name": "a\ud800b"}, ensure_ascii=written == "escaped")
    body = plan.encode("ascii" if written == "escaped" else written, "surrogatepass")
    answer = head.generic("POST", "/api/work", body, "application/json")
    assert answer.status_code == 422
    assert "sign that is none" in answer.json()["faults"][0]["message"]


@pytest.mark.parametrize("year", [1, 1500, 9999])
def test_an_order_in_a_year_that_nobody_bakes_in_is_refused_at_its_field(head, plan, year):
    order = {
        "name": "Long ago", "ready_at": f"{year:04}-01-01T06:00:00+00:00",
        "doughs": [{"plan_id": plan["id"], "products": [{"product": "C", "pieces": 9, "raw_g": 60}]}],
    }  # fmt: skip
    for path in ("/orders", "/order/work"):
        assert f"The year {year} is no year" in head.faults("POST", path, order)["ready_at"]


def said_at(hand, run, at):
    event = {"id": str(uuid.uuid4()), "at": at.isoformat(), "kind": "note", "words": "x"}
    return hand.faults("POST", f"/runs/{run['id']}/events", {"events": [event]})


def test_nothing_happens_before_a_run_or_in_the_year_one(hand, plan):
    run = started(hand, plan["id"], hours_ago=2)
    before = said_at(hand, run, timezone.now() - timedelta(hours=3))
    assert "before this run was started" in before["events[0].at"]
    assert "events[0].at" in said_at(hand, run, datetime(1, 1, 1, tzinfo=UTC))


def test_a_run_whose_start_waited_on_the_tablet_began_when_it_was_pressed(hand, plan):
    run = started(hand, plan["id"], hours_ago=1.5)
    began = datetime.fromisoformat(run["started_at"])
    assert abs(timezone.now() - began - timedelta(hours=1.5)) < timedelta(minutes=1)
    for at, says in ((timezone.now() + timedelta(hours=1), "still to come"),
                     (timezone.now() - timedelta(days=9), "more than a week")):  # fmt: skip
        body = {"id": str(uuid.uuid4()), "plan_id": plan["id"], "started_at": at.isoformat()}
        assert says in hand.faults("POST", "/runs", body)["started_at"]


READERS = [
    lambda text: read_formula_csv(text, PLAIN_SHELF),
    read_weights_csv,
    read_logger_csv,
]


@pytest.mark.parametrize("read", READERS)
def test_a_cell_of_a_hundred_thousand_characters_is_a_sentence(read):
    for cell in ("x" * 140_000, '"' + "x" * 140_000):
        with pytest.raises(Faults):
            read(f"ingredient,amount,unit\n{cell},1,%\n")


@pytest.mark.parametrize("end", ["\n", "\r\n", "\r"])
def test_tables_of_all_ages_are_read(end):
    table = end.join(["ingredient,amount,unit", "flour-strong,100,%", "water,56,%", ""])
    assert [(line.ingredient, line.pct) for line in read_formula_csv(table, PLAIN_SHELF)] == [
        ("flour-strong", 100), ("water", 56),
    ]  # fmt: skip
    assert read_weights_csv(end.join(["61.5", "60"])) == (61.5, 60)
    assert len(read_logger_csv(end.join(["min,C", "0,21", "5,19.5"]))) == 2


def test_what_a_spreadsheet_would_take_for_a_formula_goes_out_as_text():
    rows = [("=HYPERLINK()", "@x", "+cmd", "-2.5", -2.5, "flour")]
    assert written_table(rows) == "'=HYPERLINK(),'@x,'+cmd,-2.5,-2.5,flour\n"


def picture(kind, size, mode="RGB"):
    held = io.BytesIO()
    Image.new(mode, size, 120).save(held, kind)
    return held.getvalue()


def test_a_picture_says_the_real_reason_why_it_is_refused():
    with pytest.raises(Faults, match=r"30 megapixels; a PNG may have 24\. Send it as a JPEG"):
        small_jpeg(picture("PNG", (6000, 5000), "L"))
    with pytest.raises(Faults, match="no JPEG, PNG or WebP"):
        small_jpeg(b"GIF89a" + bytes(100))
    whole = picture("JPEG", (900, 600))
    with pytest.raises(Faults, match="damaged"):
        small_jpeg(whole[: len(whole) // 2])


@pytest.mark.parametrize(
    ("kind", "mode"), [("JPEG", "L"), ("PNG", "P"), ("PNG", "RGBA"), ("WEBP", "RGB")]
)
def test_a_picture_of_every_kind_is_made_small(kind, mode):
    made = Image.open(io.BytesIO(small_jpeg(picture(kind, (3000, 1500), mode))))
    assert (made.format, made.mode, made.size) == ("JPEG", "RGB", (LONGEST_SIDE, LONGEST_SIDE // 2))


EIGHT = """
import io, resource, sys, threading
from PIL import Image
from bakehouse.pictures import small_jpeg
content = open(sys.argv[1], "rb").read()
before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
threads = [threading.Thread(target=small_jpeg, args=(content,)) for _ in range(8)]
[t.start() for t in threads]
[t.join() for t in threads]
print((resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) // 1024)
"""


def test_eight_pictures_of_79_megapixels_at_once_stay_small(tmp_path):
    large = tmp_path / "large.jpeg"
    large.write_bytes(picture("JPEG", (8900, 8900)))
    done = subprocess.run([sys.executable, "-c", EIGHT, str(large)], capture_output=True, text=True,
                          check=True)  # fmt: skip
    assert int(done.stdout) < 400  # MB


def test_every_answer_is_stamped_with_the_house_s_time_and_a_name(db):
    client = Client()
    answer = client.get("/api/health", headers={"X-Request-Id": "from-the-proxy-1"})
    assert answer.json() == {"ok": True}
    assert answer["X-Request-Id"] == "from-the-proxy-1"
    assert abs(int(answer["X-House-Time"]) / 1000 - time.time()) < 5
    # a name that is none is not written into anybody's log
    odd = client.get("/api/health", headers={"X-Request-Id": "a b\tc"})["X-Request-Id"]
    assert odd.isalnum()


def test_what_was_acknowledged_is_on_the_disk_on_every_connection(db):
    seen = []

    def look():
        with connection.cursor() as cursor:
            seen.append(cursor.execute("PRAGMA synchronous").fetchone()[0])
        connection.close()

    look()
    for _ in range(3):
        other = Thread(target=look)
        other.start()
        other.join()
    assert seen == [2] * 4  # FULL


def test_the_api_s_document_is_for_those_who_are_in(hand):
    assert Client().get("/api/openapi.json").status_code == 401
    assert hand.get("/api/openapi.json").json()["info"]["title"] == "Eight Turn"


def test_a_look_at_a_run_that_has_not_moved_is_answered_with_nothing(hand, plan):
    run = started(hand, plan["id"])
    path = f"/api/runs/{run['id']}"
    first = hand.get(path, headers={"Accept-Encoding": "gzip"})
    assert first["Content-Encoding"] == "gzip"
    assert "no-cache" in first["Cache-Control"]
    known = {"If-None-Match": first["ETag"], "Accept-Encoding": "gzip"}
    again = hand.get(path, headers=known)
    assert (again.status_code, again.content) == (304, b"")
    event = {
        "id": str(uuid.uuid4()),
        "at": timezone.now().isoformat(),
        "kind": "note",
        "words": "x",
    }
    hand.call("POST", f"/runs/{run['id']}/events", {"events": [event]})
    assert hand.get(path, headers=known).status_code == 200


def test_what_every_tablet_fetches_is_packed_when_it_is_built(tmp_path, settings):
    settings.STATIC_ROOT = tmp_path
    call_command("collectstatic", interactive=False, verbosity=0)
    (script,) = tmp_path.glob("assets/index-*.js")
    for ending in ("br", "gz"):
        packed = script.with_name(f"{script.name}.{ending}")
        assert packed.stat().st_size < 0.4 * script.stat().st_size
    assert not list(tmp_path.glob("admin/**/*.br"))
