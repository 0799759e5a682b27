"""The cold store over the API: put away, changed by two tablets, found, tagged, traced, gone on with."""

import base64
import io
import json
import re
import socket
import subprocess
import sys
import uuid
import zlib
from datetime import datetime, timedelta
from pathlib import Path
from threading import Thread

import pytest
from django.utils import timezone

from bakehouse.store.models import BlockRecord
from tests.api.conftest import STATION, started
from tests.api.test_bench import event

ROOT = Path(__file__).resolve().parents[2]


def put(tablet, expect=200, **more):
    said = {
        "id": str(uuid.uuid4()), "at": timezone.now().isoformat(), "place": "freezer",
        "which": "whole", "shelf": 1,
    } | more  # fmt: skip
    return tablet.call("POST", "/blocks", {"put": said}, expect)


def by_hand(tablet, **more):
    return put(tablet, **{"name": "Old croissant", "grams": 1200, "holds": "dough"} | more)


def change(kind, **more):
    at = timezone.now().isoformat()
    return {"id": str(uuid.uuid4()), "at": at, "kind": kind, **more}


def say(tablet, block, *changes, expect=200):
    return tablet.call("POST", f"/blocks/{block['id']}/changes", {"changes": changes}, expect)


@pytest.fixture
def run(hand, plan):
    """Up to its second turn, which rests."""
    made = started(hand, plan["id"])
    deeds = [("done", "dough"), ("done", "lock_in"), ("done", "turn-1"), ("out", "turn-1"),
             ("done", "turn-2")]  # fmt: skip
    said = [event(kind, 60 - 5 * n, stop=stop) for n, (kind, stop) in enumerate(deeds)]
    return hand.call("POST", f"/runs/{made['id']}/events", {"events": said})


def test_put_away_twice_is_one_block_with_a_mark_of_its_own(hand, run):
    said = {
        "id": str(uuid.uuid4()), "at": timezone.now().isoformat(), "place": "freezer",
        "run": run["id"], "stop": "turn-2", "which": "whole",
    }  # fmt: skip
    first, second = (hand.call("POST", "/blocks", {"put": said}) for _ in range(2))
    assert first["mark"] == second["mark"] == "C1"
    assert first["block"]["turns"] == 2
    assert first["block"]["next_step"] == "Turn 3"
    assert first["goes_on"]
    assert put(hand, run=run["id"], stop="turn-2", grams=900)["mark"] == "C2"
    there = hand.call("GET", "/blocks")
    assert [b["mark"] for b in there["blocks"]] == ["C1", "C2"]
    assert next(p for p in there["places"] if p["place"] == "freezer")["there"] == 2


def test_a_mark_is_not_given_again_before_long(hand):
    first = by_hand(hand)
    say(hand, first, change("thrown", why="sour"))
    assert by_hand(hand)["mark"] == "C2"
    BlockRecord.objects.filter(pk=first["id"]).update(gone_at=timezone.now() - timedelta(days=90))
    assert by_hand(hand)["mark"] == "C1"
    assert hand.call("GET", "/blocks/mark/c1")["standing"]["gone"] is None


def test_of_two_tablets_that_take_it_one_gets_it_and_the_other_is_told_by_whom(head, hand):
    block = by_hand(hand)
    say(hand, block, change("taken"))
    body = {"changes": [change("taken")]}
    faults = head.faults("POST", f"/blocks/{block['id']}/changes", body)
    assert list(faults) == ["changes[0].kind"]
    assert "C1 was taken out" in faults["changes[0].kind"]
    assert "by tansy" in faults["changes[0].kind"]


def test_a_change_is_written_once_and_a_batch_whole_or_not_at_all(hand):
    block = by_hand(hand)
    used = change("used", grams=200)
    say(hand, block, used)
    assert say(hand, block, used)["standing"]["grams"] == 1000
    say(hand, block, change("used", grams=100), change("used", grams=5000), expect=422)
    assert hand.call("GET", f"/blocks/{block['id']}")["standing"]["grams"] == 1000


def test_a_part_is_a_block_with_its_own_mark_and_undone_it_was_never_there(hand, run):
    block = put(hand, run=run["id"], stop="turn-2")
    part = str(uuid.uuid4())
    divided = change("divided", grams=1000, part=part)
    left = say(hand, block, divided)["standing"]["grams"]
    child = hand.call("GET", f"/blocks/{part}")
    assert child["mark"] == "C2"
    assert left + child["standing"]["grams"] == pytest.approx(block["standing"]["grams"])
    say(hand, block, change("undo", target=divided["id"]))
    hand.call("GET", f"/blocks/{part}", expect=404)
    again = change("divided", grams=1000, part=part)
    say(hand, block, again)
    say(hand, child, change("used", grams=10))
    faults = hand.faults(
        "POST", f"/blocks/{block['id']}/changes",
        {"changes": [change("undo", target=again["id"])]},
    )  # fmt: skip
    assert list(faults) == ["changes[0].target"]


@pytest.mark.parametrize(
    ("said", "field"),
    [
        ({"name": "", "grams": 100}, "name"),
        ({"name": "x", "grams": None}, "grams"),
        ({"name": "x", "grams": 100, "place": "bench"}, "place"),
        ({"name": "x", "grams": 100, "shelf": 99}, "shelf"),
        ({"name": "x", "grams": 100, "at": "2099-01-01T00:00Z"}, "at"),
        ({"name": "x", "grams": 100, "best_before": "2000-01-01T00:00Z"}, "best_before"),
        ({"name": "x", "grams": 100, "id": "no-uuid-at-all"}, "id"),
        ({"run": "no-uuid-at-all"}, "run"),
    ],
)
def test_what_is_wrong_is_said_beside_its_field(hand, said, field):
    body = {
        "id": str(uuid.uuid4()), "at": timezone.now().isoformat(), "place": "fridge",
        "which": "whole",
    } | said  # fmt: skip
    faults = hand.faults("POST", "/blocks", {"put": body})
    assert f"put.{field}" in faults
    assert not BlockRecord.objects.exists()


def test_a_code_of_another_house_and_a_mark_that_nobody_has_are_said_so(hand):
    other = hand.call("GET", f"/blocks/{uuid.uuid4()}", expect=404)
    assert "another house" in other["faults"][0]["message"]
    nobody = hand.call("GET", "/blocks/mark/Z9", expect=404)
    assert "Z9" in nobody["faults"][0]["message"]


def test_a_frozen_block_that_is_wanted_stands_among_the_moves_until_it_is_moved(hand, run):
    block = put(hand, run=run["id"], stop="turn-2")
    wanted = timezone.now() + timedelta(hours=30)
    say(hand, block, change("wanted", until=wanted.isoformat(), by="fridge", why="market"))
    (move,) = hand.call("GET", "/blocks")["moves"]
    assert (move["mark"], move["why"], move["late"]) == ("C1", "market", False)
    asked = {"wanted_at": wanted.isoformat()}
    thawing = hand.get(f"/api/blocks/{block['id']}/thaw", asked).json()
    assert thawing["move_at"] == move["at"]
    ready = [datetime.fromisoformat(m) for m in thawing["ready"]]
    assert ready[0] < wanted < ready[1]
    moved = say(hand, block, change("moved", place="fridge", shelf=2))
    assert not moved["standing"]["frozen"]
    assert hand.call("GET", "/blocks")["moves"] == []


def test_a_move_that_is_late_says_when_it_is_ready_if_it_is_moved_now(hand, run):
    block = put(hand, run=run["id"], stop="turn-2")
    soon = timezone.now() + timedelta(minutes=30)
    say(hand, block, change("wanted", until=soon.isoformat(), by="fridge"))
    (move,) = hand.call("GET", "/blocks")["moves"]
    assert move["late"]
    assert datetime.fromisoformat(move["ready_from"]) > soon + timedelta(hours=2)


def test_what_was_entered_by_hand_has_no_thaw_and_no_run_and_says_so(hand):
    block = by_hand(hand)
    assert not block["goes_on"]
    wanted = (timezone.now() + timedelta(hours=30)).isoformat()
    answer = hand.get(f"/api/blocks/{block['id']}/thaw", {"wanted_at": wanted})
    assert answer.status_code == 422
    faults = hand.faults("POST", "/runs", {"id": str(uuid.uuid4()), "block": block["id"]})
    assert "entered by hand" in faults["block"]


def test_a_run_goes_on_from_a_block_at_its_next_step_and_takes_it(hand, run):
    block = put(hand, run=run["id"], stop="turn-2")
    start = {"id": str(uuid.uuid4()), "block": block["id"]}
    goes = hand.call("POST", "/runs", start)
    assert goes["standing"]["stop"] == "turn-3"
    assert goes["standing"]["turns_done"] == 2
    assert hand.call("POST", "/runs", start)["id"] == goes["id"]
    assert hand.call("GET", f"/blocks/{block['id']}")["standing"]["gone"]["run"] == goes["id"]
    again = hand.faults("POST", "/runs", {"id": str(uuid.uuid4()), "block": block["id"]})
    assert "taken out" in again["block"]
    trace = hand.call("GET", f"/blocks/{block['id']}/trace")
    assert trace["origin"]["run"] == run["id"]
    assert [w["run"] for w in trace["went_into"]] == [goes["id"]]


def test_a_run_from_half_a_block_is_of_half_the_dough(hand, run):
    block = put(hand, run=run["id"], stop="turn-2")
    half = block["standing"]["grams"] / 2
    part = str(uuid.uuid4())
    say(hand, block, change("divided", grams=half, part=part))
    goes = hand.call("POST", "/runs", {"id": str(uuid.uuid4()), "block": part})
    worked = hand.call("GET", f"/runs/{goes['id']}/snapshot")["worked"]
    whole = hand.call("GET", f"/runs/{run['id']}/snapshot")["worked"]
    assert worked["comes_out_g"] == pytest.approx(whole["comes_out_g"] / 2, rel=0.02)
    assert goes["standing"]["stop"] == "turn-3"


def test_a_day_that_goes_on_with_a_block_wants_it_thawed_and_its_run_takes_it(
    head, hand, plan, run
):
    block = put(hand, run=run["id"], stop="turn-2")
    (fits,) = hand.call("GET", f"/blocks/fitting/{plan['id']}")
    assert (fits["mark"], fits["id"]) == ("C1", block["id"])
    assert fits["saves_min"] > 10
    later = (timezone.now() + timedelta(days=60)).isoformat()
    assert hand.get(f"/api/blocks/fitting/{plan['id']}", {"at": later}).json() == []
    ready = timezone.now() + timedelta(hours=40)
    shift = {"name": "all", "starts": (ready - timedelta(hours=30)).isoformat(),
             "ends": (ready + timedelta(hours=1)).isoformat(), "count": 1}  # fmt: skip
    order = {
        "name": "Kiosk", "ready_at": ready.isoformat(), "hands": [shift],
        "doughs": [{"plan_id": plan["id"],
                    "products": [{"product": "Croissant", "pieces": 20, "raw_g": 60}]}],
    }  # fmt: skip
    amended = head.call(
        "POST", "/order/amend",
        {"order": order, "amendment": {"change": "block", "index": 0, "block": block["id"]}},
    )  # fmt: skip
    saved = head.call("POST", "/orders", amended)
    found = head.call("POST", f"/orders/{saved['id']}/open")
    first = min(t["starts"] for t in found["timetable"]["tasks"])
    (move,) = hand.call("GET", "/blocks")["moves"]
    assert (move["wanted_at"], move["why"]) == (first, "Kiosk")
    (dough,) = found["doughs"]
    start = {"id": str(uuid.uuid4()), "day": saved["id"], "dough": dough["dough"]}
    goes = hand.call("POST", "/runs", start)
    assert goes["standing"]["stop"] == "turn-3"
    assert hand.call("GET", f"/blocks/{block['id']}")["standing"]["gone"]["run"] == goes["id"]
    # the day goes on as it was, though the block has left its shelf
    again = head.call("POST", f"/orders/{saved['id']}/again")
    assert [d["dough"] for d in again["doughs"]] == [dough["dough"]]
    say(hand, by_hand(hand), change("taken"))


def test_a_block_becomes_the_product_of_another_plan_of_its_family_with_as_many_turns(
    head, hand, plan, run
):
    block = put(hand, run=run["id"], stop="turn-2")
    two = STATION | {"name": "Two turns", "turns": STATION["turns"][:2]}
    other = head.call("POST", "/plans", two)
    danish = head.call("POST", "/plans", two | {"name": "Danish", "family": "danish"})
    (fits,) = hand.call("GET", f"/blocks/fitting/{other['id']}")
    assert (fits["id"], fits["same"], fits["name"]) == (block["id"], False, "Station croissant")
    assert hand.call("GET", f"/blocks/fitting/{danish['id']}") == []
    ready = timezone.now() + timedelta(hours=40)
    order = {
        "name": "Kiosk", "ready_at": ready.isoformat(),
        "hands": [{"name": "all", "starts": (ready - timedelta(hours=30)).isoformat(),
                   "ends": (ready + timedelta(hours=1)).isoformat(), "count": 1}],
        "doughs": [{"plan_id": other["id"], "block": block["id"],
                    "products": [{"product": "Croissant", "pieces": 20, "raw_g": 60}]}],
    }  # fmt: skip
    saved = head.call("POST", "/orders", order)
    found = head.call("POST", f"/orders/{saved['id']}/open")
    start = {"id": str(uuid.uuid4()), "day": saved["id"], "dough": found["doughs"][0]["dough"]}
    goes = hand.call("POST", "/runs", start)
    shown = hand.call("GET", f"/runs/{goes['id']}/snapshot")
    assert shown["plan"]["name"] == "Two turns"
    assert (
        next(s for s in shown["worked"]["strip"] if s["key"] == goes["standing"]["stop"])["do"]
        == "last_sheet"
    )


def test_the_whole_life_of_a_divided_dough_from_its_first_flour_to_what_was_made_of_it(
    head, hand, plan
):
    """Divided at its second turn, half of it frozen, thawed three days later and gone on with."""
    steps = plan["plan"]["steps"]
    n = next(i for i, s in enumerate(steps) if s["id"] == "turn-2")
    divide = {"do": "divide", "id": "divide", "goes_on_pct": 50, "put": "freezer"}
    halved = head.call(
        "POST", "/plans",
        plan["plan"] | {"name": "Halved", "steps": [*steps[: n + 1], divide, *steps[n + 1 :]]},
    )  # fmt: skip
    run = started(hand, halved["id"], hours_ago=96)
    order = hand.call("GET", f"/runs/{run['id']}/snapshot")["order"]
    began = datetime.fromisoformat(run["started_at"])

    def at(minutes):
        return (began + timedelta(minutes=minutes)).isoformat()

    def deeds(of, until, from_min=0.0):
        said = []
        for d in of:
            said.append({"id": str(uuid.uuid4()), "kind": d["kind"], "stop": d["stop"],
                         "at": at(max(d["minute"], from_min))})  # fmt: skip
            if d["stop"] == until:
                break
        return said

    hand.call("POST", f"/runs/{run['id']}/events", {"events": deeds(order, "divide")})
    minutes = next(d["minute"] for d in order if d["stop"] == "divide")
    block = put(hand, run=run["id"], stop="divide", which="other", at=at(minutes + 1), lots="L-208")
    assert block["block"]["part"]
    assert block["what"] == "2 turns"
    # found again three days later, taken into the fridge in time, and then to the bench
    found = hand.call("GET", f"/blocks/mark/{block['mark']}")
    moved = change("moved", place="fridge", shelf=1)
    assert not say(hand, found, moved)["standing"]["frozen"]
    goes = hand.call("POST", "/runs", {"id": str(uuid.uuid4()), "block": block["id"]})
    shown = hand.call("GET", f"/runs/{goes['id']}/snapshot")
    assert shown["worked"]["comes_out_g"] == pytest.approx(
        hand.call("GET", f"/runs/{run['id']}/snapshot")["worked"]["comes_out_g"], rel=0.02
    )
    rest = list(shown["order"])
    here = next(i for i, d in enumerate(rest) if d["stop"] == goes["standing"]["stop"])
    now = timezone.now().isoformat()
    said = [{"id": str(uuid.uuid4()), "kind": d["kind"], "stop": d["stop"], "at": now}
            for d in rest[here:]]  # fmt: skip
    done = hand.call("POST", f"/runs/{goes['id']}/events", {"events": said})
    assert done["standing"]["phase"] == "finished"
    trace = hand.call("GET", f"/blocks/{block['id']}/trace")
    assert (trace["origin"]["run"], trace["block"]["block"]["lots"]) == (run["id"], "L-208")
    assert [w["run"] for w in trace["went_into"]] == [goes["id"]]


def test_what_was_thrown_away_this_week_is_counted_by_its_reason(hand):
    for grams, why in ((300, "sour"), (200, "sour"), (900, "dropped")):
        say(hand, by_hand(hand), change("thrown", grams=grams, why=why))
    wasted = hand.call("GET", "/blocks")["wasted"]
    assert [(w["why"], w["grams"], w["blocks"]) for w in wasted] == [
        ("dropped", 900, 1),
        ("sour", 500, 2),
    ]


def test_a_tag_says_its_mark_its_date_and_its_allergens(hand, run):
    block = put(hand, run=run["id"], stop="turn-2")
    other = by_hand(hand, name="Plaque {cut}", holds="butter")
    pages = hand.get("/api/blocks/tags.pdf", {"of": f"{block['id']},{other['id']}"})
    assert pages.status_code == 200
    text = _text_of(pages.content)
    for said in ("C1", "Next: turn 3", "Use by", "U1", "2 turns", "Allergens", "not known here"):
        assert said in text, text
    alone = hand.get("/api/blocks/tags.pdf", {"of": block["id"], "one_each": "true"})
    assert alone.status_code == 200
    assert hand.get("/api/blocks/tags.pdf", {"of": "what"}).status_code == 422
    code = hand.get(f"/api/blocks/{block['id']}/code.svg")
    assert b"<svg" in code.content


def _text_of(pdf):
    """What is written in a PDF of reportlab's own, whose streams are packed."""
    streams = re.findall(rb"stream\r?\n(.*?)endstream", pdf, re.DOTALL)
    drawn = [zlib.decompress(base64.a85decode(s.strip().removesuffix(b"~>"))) for s in streams]
    return " ".join(m.decode("latin-1") for p in drawn for m in re.findall(rb"\((.*?)\) Tj", p))


def test_the_table_has_a_row_for_each_block(hand):
    by_hand(hand)
    rows = hand.get("/api/blocks.csv").content.decode().splitlines()
    assert rows[0].startswith("mark,name,what,g")
    assert rows[1].startswith("C1,Old croissant,no turn yet,1200,freezer,1")


def test_only_those_who_are_signed_in_see_the_store(client, db):
    for path in ("/api/blocks", "/api/blocks.csv", f"/api/blocks/{uuid.uuid4()}"):
        assert client.get(path).status_code == 401


def manage(document):
    return subprocess.run(
        [sys.executable, "manage.py", "thaw", "-"], cwd=ROOT, check=False, text=True,
        capture_output=True, input=document if isinstance(document, str) else json.dumps(document),
    )  # fmt: skip


def test_the_command_says_when_to_move_a_block():
    asked = {
        "format": "eight-turn/thaw", "version": 1, "plan": STATION, "before_step": None,
        "mass_g": 3050, "from": "freezer", "by": "fridge", "wanted_at": "2026-12-05T05:00:00+00:00",
        "freezer_c": -18, "fridge_c": 4, "room_c": 21,
    }  # fmt: skip
    done = manage(asked)
    assert done.returncode == 0, done.stderr
    said = json.loads(done.stdout)
    assert (said["format"], said["version"]) == ("eight-turn/thawing", 1)
    assert said["ready"][0] < "2026-12-05T05:00:00" < said["ready"][1]
    assert {"at", "middle_c", "face_c"} == set(said["course"][0])
    for wrong, fields in (
        ({"from": "shelf", "mass_g": "much"}, {"from", "mass_g"}),
        ({"freezer_c": 2, "fridge_c": 90}, {"freezer_c", "fridge_c"}),
        ({"plan": STATION | {"butter": {}}}, {"plan.butter.mass_g"}),
    ):
        done = manage(asked | wrong)
        assert done.returncode == 2
        assert {line.split(":")[0] for line in done.stderr.splitlines()} == fields
    assert manage("{").returncode == 2
    assert manage(asked | {"format": "eight-turn/plan"}).stderr.startswith("format:")


# --- the label printer


@pytest.fixture
def demo(settings):
    settings.DEMO = True


def test_the_simulated_printer_shows_what_came_out_runs_out_and_jams(hand, demo):
    block = by_hand(hand)
    said = {"of": [block["id"]]}
    answers = [hand.post("/api/labels/print", said, "application/json") for _ in range(9)]
    assert [a.status_code for a in answers] == [200] * 8 + [422]
    assert "jammed" in answers[-1].json()["faults"][0]["message"]
    assert "jammed" in hand.faults("POST", "/labels/print", said)[""]
    view = hand.call("POST", "/labels/printer/mend")
    assert (view["left"], view["jammed"]) == (3, False)
    for _ in range(3):
        view = hand.call("POST", "/labels/print", said)
    assert view["left"] == 0
    assert "no paper" in hand.faults("POST", "/labels/print", said)[""]
    assert hand.call("POST", "/labels/printer/mend")["left"] == 40
    shown = hand.get(f"/api/labels/printed/{view['out'][0]['id']}.svg").content.decode()
    assert 'width="95mm"' in shown
    assert ">C1<" in shown


def test_a_real_printer_gets_a_page_for_each_tag_in_its_folder_or_over_the_wire(
    hand, tmp_path, settings
):
    one, two = by_hand(hand), by_hand(hand)
    said = {"of": [one["id"], two["id"]]}
    assert "no label printer" in hand.faults("POST", "/labels/print", said)[""]
    settings.LABELS = f"folder:{tmp_path}"
    assert hand.call("POST", "/labels/print", said)["name"] == "the spool folder"
    (job,) = tmp_path.glob("*.pdf")
    assert job.read_bytes().count(b"/Type /Page\n") == 2
    settings.LABELS = f"folder:{tmp_path / 'gone'}"
    assert "cannot be written" in hand.faults("POST", "/labels/print", said)[""]
    with socket.create_server(("127.0.0.1", 0)) as listening:
        port = listening.getsockname()[1]
        settings.LABELS = f"socket:127.0.0.1:{port}"
        got = []

        def take():
            wire, _ = listening.accept()
            with wire:
                while part := wire.recv(65_536):
                    got.append(part)

        taking = Thread(target=take)
        taking.start()
        hand.call("POST", "/labels/print", said)
        taking.join(timeout=20)
    assert b"".join(got).startswith(b"%PDF")
    assert "does not answer" in hand.faults("POST", "/labels/print", said)[""]


# --- stock, and trimmings into the next dough


def ordered(head, plan, hours=60):
    ready = timezone.now() + timedelta(hours=hours)
    order = {
        "name": "Market", "ready_at": ready.isoformat(),
        "doughs": [{"plan_id": plan["id"],
                    "products": [{"product": "Croissant", "pieces": 40, "raw_g": 60}]}],
    }  # fmt: skip
    return head.call("POST", "/orders", order)


@pytest.fixture
def lean(head):
    """A plan with a formula, whose flour can run short."""
    shares = {"flour-strong": 100, "water": 55, "salt": 2, "yeast-fresh": 3}
    formula = {"lines": [{"ingredient": key, "pct": pct} for key, pct in shares.items()]}
    return head.call("POST", "/plans", STATION | {"version": 1, "formula": formula})


def test_what_was_counted_and_runs_short_is_to_be_ordered_in_time(head, hand, lean):
    ordered(head, lean)
    rows = {s["ingredient"]: s for s in hand.call("GET", "/stock")}
    flour = rows["flour-strong"]
    assert flour["needed_g"] > 800
    assert (flour["there_g"], flour["order_by"]) == (None, None)
    rows = hand.call("PUT", "/stock/flour-strong", {"grams": 100})
    assert rows[0]["ingredient"] == "flour-strong"
    assert rows[0]["short_g"] == pytest.approx(flour["needed_g"] - 100)
    assert rows[0]["short_for"] == "Market"
    enough = hand.call("PUT", "/stock/flour-strong", {"grams": 20_000})
    assert all(s["order_by"] is None for s in enough)
    gone = {s["ingredient"]: s for s in hand.call("PUT", "/stock/flour-strong", {"grams": None})}
    assert gone["flour-strong"]["there_g"] is None
    assert "ingredient" in hand.faults("PUT", "/stock/moon-dust", {"grams": 1})
    assert "grams" in hand.faults("PUT", "/stock/salt", {"grams": -1})


def test_what_doughs_weigh_after_the_count_is_taken_off(head, hand, lean):
    hand.call("PUT", "/stock/flour-strong", {"grams": 5_000})
    run = started(hand, lean["id"], hours_ago=0)
    hand.call("POST", f"/runs/{run['id']}/events", {"events": [event("done", stop="mix")]})
    (flour,) = [s for s in hand.call("GET", "/stock") if s["ingredient"] == "flour-strong"]
    assert flour["used_g"] == pytest.approx(1500, abs=2)
    assert flour["there_g"] == pytest.approx(3500, abs=2)


def test_the_table_of_stock_goes_out_and_in_whole_or_not_at_all(head, hand, lean):
    ordered(head, lean)
    rows = hand.get("/api/stock.csv").content.decode().splitlines()
    assert rows[0] == "ingredient,name,there g,needed g,short g,order by"

    def read(text):
        return hand.post("/api/stock.csv", {"file": io.BytesIO(text.encode())})

    answer = read("ingredient;there g\nflour-strong;2500,5\nsalt;\n")
    there = {s["ingredient"]: s["there_g"] for s in answer.json()}
    assert there["flour-strong"] == 2500.5
    wrong = read("ingredient,there g\nflour-strong,1\nmoon-dust,5\nsalt,much\nsalt,-4\n")
    assert wrong.status_code == 422
    assert [f["field"] for f in wrong.json()["faults"]] == ["row 3", "row 4", "row 5"]
    kept = {s["ingredient"]: s["there_g"] for s in hand.call("GET", "/stock")}
    assert kept["flour-strong"] == 2500.5
    assert read("a,b\n1,2\n").status_code == 422
    assert hand.post("/api/stock.csv", {"file": io.BytesIO(b"\xff\xfe\x00")}).status_code == 422


def test_trimmings_of_the_family_are_offered_for_the_next_dough(hand):
    old = by_hand(hand, name="Old", grams=300, holds="trimmings")
    by_hand(hand, name="Puff", grams=300, holds="trimmings", family="puff")
    asked = {"family": "croissant", "needed_g": 200}
    (found,) = hand.get("/api/blocks/trimmings", asked).json()
    assert (found["mark"], found["grams"]) == ("T1", 200)
    say(hand, old, change("used", grams=200, why="into Market croissant"))
    assert hand.get("/api/blocks/trimmings", asked).json()[0]["grams"] == 100
