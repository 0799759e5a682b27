"""What is said when the disk or the database is not as it should be, and what a copy put back changes."""

import json
import sqlite3
import uuid
from datetime import UTC, datetime, timedelta
from threading import Barrier, Thread

import pytest
from django.core.cache import cache
from django.db import OperationalError, connection
from django.test import Client

from bakehouse import copies, life, troubles
from bakehouse.cold.models import ProbeRecord, Sample
from bakehouse.documents import completed
from bakehouse.kitchen.shelf import keep_rows, the_kitchen

from .conftest import STATION


@pytest.fixture
def run(hand, plan):
    return hand.call("POST", "/runs", {"id": str(uuid.uuid4()), "plan_id": plan["id"]})


@pytest.mark.parametrize(
    ("said", "sentence"),
    [
        ("database is locked", troubles.BUSY),
        ("database or disk is full", troubles.FULL),
        ("attempt to write a readonly database", troubles.READ_ONLY),
        ("database disk image is malformed", troubles.DAMAGED),
        ("file is not a database", troubles.DAMAGED),
        ("unable to open database file", troubles.DAMAGED),
    ],
)
def test_each_trouble_of_the_disk_has_its_sentence_and_is_tried_again(
    hand, plan, monkeypatch, said, sentence
):
    def broken(*_, **__):
        raise OperationalError(said)

    monkeypatch.setattr("bakehouse.plans.api.PlanRecord.objects.filter", broken)
    monkeypatch.setattr("bakehouse.bench.api.Run.objects.filter", broken)
    body = {"id": str(uuid.uuid4()), "plan_id": plan["id"]}
    answer = hand.post("/api/runs", body, content_type="application/json")
    assert answer.status_code == 503
    assert answer.json()["faults"] == [{"field": "", "message": sentence}]
    assert answer["Retry-After"]
    health = Client().get("/api/health")
    assert (health.status_code, health.json()) == (503, {"ok": False, "because": sentence})
    monkeypatch.setattr(troubles._lately, "at", -1e9)
    assert Client().get("/api/health").json() == {"ok": True}


def test_what_is_no_trouble_of_the_disk_stays_a_fault_of_ours():
    assert troubles.sentence_for(ValueError("database is locked")) is None
    assert troubles.sentence_for(None) is None


def test_more_than_a_hundred_entries_at_once_are_refused_and_none_is_kept(hand, run):
    now = datetime.now(UTC).isoformat()
    events = [
        {"id": str(uuid.uuid4()), "at": now, "kind": "note", "words": "n"} for _ in range(101)
    ]
    assert "events" in hand.faults("POST", f"/runs/{run['id']}/events", {"events": events})
    hand.call("POST", f"/runs/{run['id']}/events", {"events": events[:100]})
    assert hand.call("GET", f"/runs/{run['id']}")["said"] == 100


def test_the_same_picture_sent_again_when_the_record_is_full_is_not_refused(hand, run, monkeypatch):
    from io import BytesIO

    from django.core.files.uploadedfile import SimpleUploadedFile
    from PIL import Image

    monkeypatch.setattr("bakehouse.bench.api.MOST_PHOTOS", 1)
    held = BytesIO()
    Image.new("RGB", (8, 8)).save(held, "JPEG")

    def send(name):
        file = SimpleUploadedFile("p.jpg", held.getvalue(), "image/jpeg")
        return hand.post(f"/api/runs/{run['id']}/photos", {"id": name, "file": file}).status_code

    first, second = str(uuid.uuid4()), str(uuid.uuid4())
    assert [send(first), send(first), send(second)] == [200, 200, 422]


@pytest.mark.django_db(transaction=True)
def test_kitchens_saved_at_the_same_moment_all_keep_what_they_changed():
    rows = ["fridge.c", "freezer.c", "room.c", "bench.length_mm", "bench.width_mm", "oven.trays"]
    values = [2.5, -19.0, 22.0, 1900.0, 800.0, 3.0]
    start, failed = Barrier(len(rows)), []

    def change(row, value):
        start.wait()
        try:
            keep_rows({row: value}, None)
        except Exception as wrong:
            failed.append(wrong)
        finally:
            connection.close()

    threads = [Thread(target=change, args=pair) for pair in zip(rows, values, strict=True)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert failed == []
    assert dict(the_kitchen().yours) == dict(zip(rows, values, strict=True))


def test_readings_are_thinned_by_their_age_and_asked_for_by_span(hand, db):
    now = datetime.now(UTC).replace(second=0, microsecond=0)
    probe = ProbeRecord.objects.create(name="Walk-in", token_hash="x")
    ages = {"fresh": timedelta(hours=1), "week": timedelta(days=9), "month": timedelta(days=40)}
    for age in ages.values():
        Sample.objects.bulk_create(
            Sample(probe=probe, at=now - age + timedelta(seconds=20 * n), t_c=4 + n / 100)
            for n in range(180)
        )
    probe.said(540)
    probe.thin(now)
    left = {
        name: probe.samples.filter(at__gte=now - age, at__lt=now - age + timedelta(hours=1)).count()
        for name, age in ages.items()
    }
    assert left["fresh"] == 180
    assert left["week"] == 60
    assert 4 <= left["month"] <= 5
    view = hand.call("GET", "/probes")[0]
    assert view["samples"] == 540
    assert view["last_c"] == pytest.approx(4 + 179 / 100)
    assert len(hand.call("GET", f"/probes/{probe.pk}/readings?hours=1")) <= 181


def test_a_year_of_readings_is_listed_without_being_looked_through(
    hand, django_assert_max_num_queries
):
    probe = ProbeRecord.objects.create(name="Walk-in", token_hash="x")
    Sample.objects.bulk_create(
        Sample(probe=probe, at=datetime(2026, 1, 1, tzinfo=UTC) + timedelta(minutes=n), t_c=4.0)
        for n in range(2_000)
    )
    probe.said(2_000)
    with django_assert_max_num_queries(5) as asked:
        hand.call("GET", "/probes")
    assert not any("cold_sample" in q["sql"] for q in asked.captured_queries)


def test_a_house_that_was_put_back_to_a_copy_is_in_another_life(hand, settings, tmp_path):
    settings.DATA_DIR = tmp_path
    first = hand.get("/api/session")["X-House-Life"]
    assert hand.get("/api/session")["X-House-Life"] == first
    at = datetime(2026, 11, 28, 1, 30, tzinfo=UTC)
    life.begin(at)
    assert hand.get("/api/session")["X-House-Life"] != first
    told = hand.call("GET", "/house")["life"]
    assert datetime.fromisoformat(told["copied_at"]) == at


def test_an_answer_says_which_question_it_is_the_answer_to(hand):
    answer = hand.get("/api/session", headers={"X-Asked": "0f8fad5b-d9cb-469f"})
    assert answer["X-Asked"] == "0f8fad5b-d9cb-469f"
    assert "X-Asked" not in hand.get("/api/session", headers={"X-Asked": "a b<script>"})


def test_what_was_kept_is_completed_with_what_a_newer_version_says_besides():
    kept = {"trays": [{"n": 1, "each": 6}, {"n": 2, "each": 6}, {"n": 3, "each": 3}], "gone": 1}
    anew = {"trays": [{"n": 1, "each": 12, "new": True}], "more": [1]}
    assert completed(kept, anew) == {
        "trays": [
            {"n": 1, "each": 6, "new": True},
            {"n": 2, "each": 6, "new": True},
            {"n": 3, "each": 3, "new": True},
        ],
        "more": [1],
    }


@pytest.mark.parametrize("sign", ["#", "?", "%20", "ä b"])
def test_a_copy_may_lie_under_any_path(tmp_path, sign):
    folder = tmp_path / f"copies {sign}"
    folder.mkdir()
    file = folder / "a.sqlite3"
    with sqlite3.connect(file) as made:
        made.execute("CREATE TABLE django_migrations (id INTEGER)")
        made.execute("INSERT INTO django_migrations VALUES (1)")
        made.execute("CREATE TABLE plans_planrecord (id INTEGER)")
    made.close()
    assert copies.checked(file)["django_migrations"] == 1


def test_constants_are_written_once_and_known_by_their_tag(hand):
    for path in ("/api/trade", "/api/glossary", "/api/kitchen"):
        first = hand.get(path, headers={"Accept-Encoding": "gzip"})
        assert first["Content-Encoding"] == "gzip"
        plain = hand.get(path)
        assert json.loads(plain.content)
        again = hand.get(path, headers={"If-None-Match": first["ETag"]})
        assert (again.status_code, again.content) == (304, b"")


def test_a_kitchen_that_was_changed_is_written_anew(head):
    before = head.call("GET", "/kitchen")
    head.call("PUT", "/kitchen", {**before, "yours": {"room.c": 23.5}})
    assert head.call("GET", "/kitchen")["yours"] == {"room.c": 23.5}
    assert STATION["name"]
    cache.clear()
