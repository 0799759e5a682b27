"""The crumb by picture, against drawn honeycombs of known openness, number and size."""

import io
import json
import subprocess
import sys
import uuid
from pathlib import Path

import pytest
from PIL import Image

from bakehouse.findings.crumb import measured
from lamination.terms import Faults
from tests.api.conftest import started
from tests.lamination.honeycomb import RX, RY, honeycomb

ROOT = Path(__file__).resolve().parents[2]
WIDTH = 120.0
MM = WIDTH / (2 * RX)


@pytest.mark.parametrize(
    "drawn",
    [
        {"cells": 30, "size": 22}, {"cells": 110, "size": 8.5, "noise": 9}, {"blur": 1.3, "tilt": 15},
        {"shadow": 0.45}, {"tilt": -14, "noise": 7, "shadow": 0.3, "blur": 1},
        {"cells": 12, "size": 10, "seed": 3}, {"flat": 0.6, "cells": 50, "size": 9.5},
    ],
)  # fmt: skip
def test_openness_count_and_size_are_those_that_were_drawn(drawn):
    picture, openness, cells, median_px = honeycomb(**drawn)
    crumb, _ = measured(picture, WIDTH)
    assert crumb.sure, crumb.because
    assert crumb.openness_pct == pytest.approx(openness, abs=3)
    assert crumb.cells == pytest.approx(cells, rel=0.1)
    assert crumb.median_cell_mm2 == pytest.approx(median_px * MM**2, rel=0.12)
    assert crumb.height_over_width == pytest.approx(RY * drawn.get("flat", 1) / RX, abs=0.02)


def test_the_same_picture_gives_the_same_numbers_and_is_drawn_over():
    picture, *_ = honeycomb()
    (one, drawn), (two, again) = measured(picture, WIDTH), measured(picture, WIDTH)
    assert one == two
    assert drawn == again
    assert Image.open(io.BytesIO(drawn)).size == Image.open(io.BytesIO(picture)).size
    # twice as wide, cells are four times as large and as many
    wide, _ = measured(picture, 2 * WIDTH)
    assert wide.median_cell_mm2 == pytest.approx(4 * one.median_cell_mm2, rel=0.02)
    assert len(one.sectors) == 8


@pytest.mark.parametrize(
    ("drawn", "why"),
    [({"blur": 7}, "not sharp"), ({"noise": 60}, "too grainy")],
)
def test_a_picture_that_is_not_good_enough_says_why(drawn, why):
    crumb, _ = measured(honeycomb(**drawn)[0], WIDTH)
    assert not crumb.sure
    assert any(why in text for text in crumb.because)


def test_a_piece_that_is_cut_off_or_far_away_is_not_relied_on():
    picture = Image.open(io.BytesIO(honeycomb()[0]))

    def of(image):
        out = io.BytesIO()
        image.save(out, "PNG")
        return measured(out.getvalue(), WIDTH)[0]

    assert any("cut off" in text for text in of(picture.crop((150, 0, 660, 460))).because)
    far = Image.new("RGB", (660, 460), (74, 86, 92))
    far.paste(picture.resize((200, 139)), (220, 150))
    assert any("too small" in text for text in of(far).because)


@pytest.mark.parametrize("content", [b"", b"no picture", b"\x89PNG\r\n\x1a\nbroken"])
def test_what_is_no_picture_is_refused(content):
    with pytest.raises(Faults) as wrong:
        measured(content, WIDTH)
    assert "no picture" in wrong.value.faults[0].message


def test_a_plain_ground_without_a_piece_and_a_width_that_nobody_bakes_are_refused():
    out = io.BytesIO()
    Image.new("RGB", (400, 300), (90, 90, 90)).save(out, "PNG")
    with pytest.raises(Faults) as wrong:
        measured(out.getvalue(), WIDTH)
    assert "No piece" in wrong.value.faults[0].message
    with pytest.raises(Faults) as wrong:
        measured(honeycomb()[0], 3)
    assert wrong.value.faults[0].field == "width_mm"


def command(*said):
    return subprocess.run(
        [sys.executable, "manage.py", "crumb", *map(str, said)], cwd=ROOT, check=False, text=True,
        capture_output=True,
    )  # fmt: skip


def test_the_command_prints_what_it_found_and_exits_with_2_for_no_picture(tmp_path):
    picture, openness, *_ = honeycomb()
    (tmp_path / "cut.jpg").write_bytes(picture)
    done = command(tmp_path / "cut.jpg", "--width-mm", WIDTH)
    assert done.returncode == 0, done.stderr
    said = json.loads(done.stdout)
    assert (said["format"], said["version"]) == ("eight-turn/crumb", 1)
    assert said["openness_pct"] == pytest.approx(openness, abs=3)
    (tmp_path / "note.txt").write_text("not a picture")
    assert command(tmp_path / "note.txt", "--width-mm", WIDTH).returncode == 2
    assert command(tmp_path / "gone.jpg", "--width-mm", WIDTH).returncode == 2
    assert command(tmp_path / "cut.jpg", "--width-mm", 1).stderr.startswith("width_mm:")


def test_a_photograph_of_a_record_is_measured_and_kept_with_it(hand, plan):
    run = started(hand, plan["id"])
    photo = str(uuid.uuid4())
    file = io.BytesIO(honeycomb()[0])
    file.name = "cut.jpg"
    sent = hand.post(f"/api/runs/{run['id']}/photos", {"id": photo, "file": file, "words": "cut"})
    assert sent.status_code == 200
    assert hand.call("GET", f"/runs/{run['id']}/crumb") == []
    hand.call("GET", f"/photos/{photo}/crumb.jpg", expect=404)
    found = hand.call("POST", f"/photos/{photo}/crumb", {"width_mm": 110})
    assert found["crumb"]["cells"] == pytest.approx(60, rel=0.1)
    assert hand.call("GET", f"/runs/{run['id']}/crumb") == [found]
    assert hand.get(f"/api/photos/{photo}/crumb.jpg")["Content-Type"] == "image/jpeg"
    assert "width_mm" in hand.faults("POST", f"/photos/{photo}/crumb", {"width_mm": 2})
    hand.call("POST", f"/photos/{uuid.uuid4()}/crumb", {"width_mm": 110}, expect=404)
