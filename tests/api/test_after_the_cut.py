"""Layouts, weights, trays, proof and pictures over the API."""

import io
import uuid
from datetime import timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from PIL import Image

from bakehouse.bench.models import Run
from bakehouse.documents import dump
from bakehouse.pictures import LONGEST_SIDE, small_jpeg
from lamination.pieces.products import Product, Shape
from lamination.plan.starts import starting_finish
from lamination.steps.cut import Cut
from lamination.terms.limits import Faults
from lamination.terms.trade import Family
from tests.api.conftest import started
from tests.plans import formula, station

TRAY_STEPS = [
    ("done", "shape"), ("out", "shape"), ("done", "wash"), ("in", "bake"), ("done", "bake"), ("out", "bake"),
]  # fmt: skip


@pytest.fixture(autouse=True)
def a_demo_house(settings):
    """What is simulated stands in the demo only."""
    settings.DEMO = True


@pytest.fixture
def finished(head):
    plan = station(formula=formula(), finish=starting_finish(Family.CROISSANT))
    return head.call("POST", "/plans", dump(plan))


@pytest.fixture
def run(hand, finished):
    return started(hand, finished["id"])


class Bench:
    """Says things at the bench, each a little later than the one before."""

    def __init__(self, hand, run):
        self.hand, self.path = hand, f"/runs/{run['id']}/events"
        self.at = timezone.now() - timedelta(hours=6)
        self.snapshot = hand.call("GET", f"/runs/{run['id']}/snapshot")

    def event(self, kind, **more):
        self.at += timedelta(minutes=1)
        return {"id": str(uuid.uuid4()), "at": self.at.isoformat(), "kind": kind, **more}

    def say(self, kind, **more):
        """What the tablet then shows: where it stands, and what it never needs to ask for again."""
        now = self.hand.call("POST", self.path, {"events": [self.event(kind, **more)]})
        return self.snapshot | now

    def to_the_cut(self):
        for stop in ("mix", "dough", "lock_in", "turn-1", "turn-2", "turn-3", "final", "cut"):
            view = self.say("done", stop=stop)
            if view["standing"]["phase"] == "rest":
                view = self.say("out", stop=stop)
        return view


@pytest.fixture
def bench(hand, run):
    return Bench(hand, run)


def test_a_run_goes_on_through_its_trays_to_the_look_and_the_verdict(bench):
    view = bench.to_the_cut()
    trays = [t["tray"] for t in view["standing"]["trays"]]
    assert [(s["kind"], s["stop"]) for s in view["tray_steps"]] == TRAY_STEPS
    for kind, stop in TRAY_STEPS:
        for tray in trays:
            view = bench.say(kind, stop=stop, tray=tray)
    assert view["standing"]["stop"] == "look"
    view = bench.say("done", stop="look")
    assert view["standing"]["phase"] == "finished"
    verdict = {"lift": 4, "taste": 5, "fat": 5, "before_g": 60, "after_g": 51.5, "words": "light"}
    view = bench.say("verdict", verdict=verdict)
    assert view["standing"]["verdict"] | verdict == view["standing"]["verdict"]


def test_a_tray_out_of_turn_is_refused_with_the_reason(bench):
    bench.to_the_cut()
    wrong = {"events": [bench.event("in", stop="bake", tray=1)]}
    faults = bench.hand.faults("POST", bench.path, wrong)
    assert faults == {"events[0].stop": "Tray 1 has first to be done (Shape)."}


def test_a_proof_that_was_right_is_taught_by_the_head_only(bench, head, run):
    Run.objects.update(started_at=bench.at)
    bench.to_the_cut()
    path = f"/runs/{run['id']}/proof"
    head.call("GET", path, expect=404)
    bench.say("done", stop="shape", tray=1)
    bench.at += timedelta(minutes=200)
    bench.say("out", stop="shape", tray=1)
    offer = bench.hand.call("GET", path)
    assert offer["proofed_min"] == pytest.approx(201)
    assert not offer["kept"]
    bench.hand.call("POST", path, expect=403)
    assert head.call("POST", path)["kept"]
    rows = {d["key"]: d["value"] for d in head.call("GET", "/kitchen")["table"]}
    assert rows["proof.reference_min"] == offer["after_min"] != offer["before_min"]


def test_layouts_are_searched_for_the_plan_on_the_screen(head):
    two = (Product("Croissant", Shape.TRIANGLE, 90, 280), Product("Square", Shape.SQUARE, 100))
    ask = {"plan": dump(station(cut=Cut(two))), "search": {"wanted": [0, 12], "best": 3}}
    found = head.call("POST", "/layouts", ask)
    assert len(found["best"]) == 3
    assert found["best"][0]["useful_pct"] >= found["best"][1]["useful_pct"]
    wrong = {**ask, "search": {"wanted": [1]}}
    assert "search.wanted" in head.faults("POST", "/layouts", wrong)


def test_the_simulated_scale_and_a_table_give_weights_to_be_judged(hand):
    grams = hand.call(
        "POST", "/weighing/simulated", {"target_g": 60, "drift_pct": -9, "pieces": 20}
    )
    judged = hand.call("POST", "/weighing", {"grams": grams, "target_g": 60, "thickness_mm": 4})
    assert judged["drifts"]
    table = SimpleUploadedFile("w.csv", b"no;g\n1;60,2\n2;59,8\n", "text/csv")
    assert hand.post("/api/weighing/csv", {"file": table}).json() == [60.2, 59.8]
    binary = SimpleUploadedFile("w.csv", b"\xff\xfe\x00\x01", "text/csv")
    assert hand.post("/api/weighing/csv", {"file": binary}).status_code == 422


def test_pieces_weighed_at_the_bench_stay_in_the_record(bench):
    bench.to_the_cut()
    view = bench.say("pieces", product=0, pieces_g=[60.1, 58.9])
    assert view["standing"]["pieces"][0]["grams"] == [60.1, 58.9]


# --- pictures


def picture(kind="JPEG", size=(80, 40), **more):
    out = io.BytesIO()
    Image.new("RGB", size, (200, 140, 60)).save(out, kind, **more)
    return out.getvalue()


def turned_by_a_camera():
    """80 × 40 as it lies in the file, with a note that it was held upright, and where it was taken."""
    exif = Image.Exif()
    exif[0x0112] = 6
    exif[0x010F] = "A camera"
    exif[0x8825] = {1: "N", 2: (52.0, 1.0, 2.0)}
    return picture(exif=exif)


def post(tablet, run, content, **more):
    fields = {"id": str(uuid.uuid4()), "words": "cut across", **more}
    file = SimpleUploadedFile("photo.jpg", content, "image/jpeg")
    return tablet.post(f"/api/runs/{run['id']}/photos", {**fields, "file": file})


def test_a_picture_is_the_right_way_up_and_carries_nothing_but_its_pixels():
    with Image.open(io.BytesIO(turned_by_a_camera())) as before:
        assert before.getexif()
    with Image.open(io.BytesIO(small_jpeg(turned_by_a_camera()))) as after:
        assert after.size == (40, 80)
        assert not after.getexif()
        assert not {"exif", "icc_profile", "comment"} & set(after.info)


def test_a_large_picture_is_made_smaller_in_its_own_shape():
    with Image.open(io.BytesIO(small_jpeg(picture(size=(3_200, 1_000))))) as small:
        assert small.size == (LONGEST_SIDE, 500)


@pytest.mark.parametrize("kind", ["PNG", "WEBP", "JPEG"])
def test_real_pictures_are_taken_whatever_they_are_called(hand, run, kind):
    view = post(hand, run, picture(kind)).json()
    (photo,) = view["photos"]
    assert photo["words"] == "cut across"
    answer = hand.get(f"/api/photos/{photo['id']}.jpg")
    assert answer["Content-Type"] == "image/jpeg"
    assert answer.content.startswith(b"\xff\xd8")


@pytest.mark.parametrize(
    "content",
    [b"", b"<svg xmlns='http://www.w3.org/2000/svg'/>", b"GIF89a" + b"\0" * 40, picture()[:200]],
    ids=["nothing", "a drawing", "another kind", "cut short"],
)
def test_what_is_no_picture_is_refused_whatever_it_is_called(hand, run, content):
    answer = post(hand, run, content)
    assert answer.status_code == 422
    assert answer.json()["faults"][0]["message"]


def test_a_picture_of_too_many_bytes_or_pixels_is_refused():
    with pytest.raises(Faults, match="larger than 15 MB"):
        small_jpeg(b"\xff" * 15_000_001)


def test_a_picture_sent_twice_is_kept_once_and_can_be_taken_away(hand, run):
    one = str(uuid.uuid4())
    post(hand, run, picture(), id=one)
    view = post(hand, run, picture(), id=one).json()
    assert len(view["photos"]) == 1
    gone = hand.call("DELETE", f"/runs/{run['id']}/photos/{one}")
    assert gone["photos"] == []
    assert hand.get(f"/api/photos/{one}.jpg").status_code == 404


def test_pictures_are_for_those_who_are_signed_in(hand, run, client):
    view = post(hand, run, picture()).json()
    assert client.get(f"/api/photos/{view['photos'][0]['id']}.jpg").status_code == 401
