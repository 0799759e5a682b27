"""A day through the API: arranged, kept, started, moved as it goes, and what Today says of it."""

import uuid
from datetime import datetime, timedelta
from threading import Event
from zoneinfo import ZoneInfo

import icalendar
import pytest
from django.utils import timezone

from bakehouse.day import timetable_api
from bakehouse.demo.teasel_lock import BOATS, DANISH
from bakehouse.documents import dump

# soon enough for the tablets to be signed in still
MORNING = datetime.now(ZoneInfo("Europe/London")).replace(
    hour=0, minute=0, second=0, microsecond=0
) + timedelta(days=3)


def at(hours):
    return (MORNING + timedelta(hours=hours)).isoformat()


def seen(text):
    return datetime.fromisoformat(text)


@pytest.fixture
def clock(monkeypatch):
    """The house's clock, set by hand."""

    class Clock:
        now = MORNING

        def set(self, hours):
            self.now = MORNING + timedelta(hours=hours)

    made = Clock()
    monkeypatch.setattr(timezone, "now", lambda: made.now)
    return made


@pytest.fixture
def day(head, clock):
    """Two doughs of puff and one of Danish, for a morning, with hands from the day before."""
    clock.set(-30)
    plans = [head.call("POST", "/plans", dump(plan))["id"] for plan in (BOATS, DANISH)]
    order = {
        "name": "Regatta", "ready_at": at(8),
        "doughs": [
            {"plan_id": plans[0], "products": [{"product": "Square", "pieces": 80, "raw_g": 40}]},
            {"plan_id": plans[1], "ready_at": at(9),
             "products": [{"product": "Pinwheel", "pieces": 40, "raw_g": 48}]},
        ],
        "hands": [
            {"name": "day", "starts": at(-16), "ends": at(-6), "count": 1},
            {"name": "early", "starts": at(2), "ends": at(11), "count": 2},
        ],
    }  # fmt: skip
    saved = head.call("POST", "/orders", order)
    return saved


def arranged(head, day, seconds=0):
    return head.call("POST", f"/orders/{day['id']}/timetable", {"seconds": seconds})


def tasks_of(found, dough):
    return [t for t in found["timetable"]["tasks"] if t["dough"] == dough]


def test_an_order_becomes_numbered_doughs_with_a_timetable_that_is_kept(head, hand, day):
    path = f"/orders/{day['id']}/timetable"
    assert head.call("GET", path) is None
    found = arranged(head, day)
    assert [d["dough"] for d in found["doughs"]] == ["1", "2", "3"]
    assert [d["name"] for d in found["doughs"]] == ["Café boat puff"] * 2 + ["Lock garden Danish"]
    assert {r["late_min"] for r in found["timetable"]["ready"]} == {0}
    kept = hand.call("GET", path)
    assert kept == found
    assert not kept["stale"]
    hand.call("POST", path, {"seconds": 0}, expect=403)
    order = day["order"] | {"name": "Regatta, larger"}
    head.call("PUT", f"/orders/{day['id']}", {"revision": day["revision"], "order": order})
    assert hand.call("GET", path)["stale"]


def test_doughs_of_one_order_do_not_all_begin_at_one_minute(head, day):
    found = arranged(head, day)
    turns = [t["starts"] for t in found["timetable"]["tasks"] if t["step"] == "turn-1"]
    # two hands may do two at once, and there are no more
    assert len(turns) == 3
    assert len(set(turns)) > 1
    mixing = [t for t in found["timetable"]["tasks"] if t["step"] == "mix"]
    assert sum(t["together"] is not None for t in mixing) == 1


def test_what_is_wrong_with_a_day_is_said_at_its_field(head, day):
    order = day["order"]

    def faults(**change):
        return head.faults("POST", "/order/timetable", {"order": order | change, "seconds": 0})

    assert "Nobody is there" in faults(hands=[])["order.hands"]
    backwards = [{"name": "x", "starts": at(5), "ends": at(4), "count": 1}]
    assert "ends before it begins" in faults(hands=backwards)["order.hands[0].ends"]
    nowhen = [d | {"ready_at": None} for d in order["doughs"]]
    assert "when it is wanted" in faults(ready_at=None, doughs=nowhen)["order.doughs[0].ready_at"]
    many = [order["doughs"][0] | {"dough_g": 1000, "products": [
        {"product": "Square", "pieces": 2000, "raw_g": 40, "loss_pct": 8}]}]  # fmt: skip
    assert "a day holds 40" in faults(doughs=many)["order.doughs"]
    late = faults(begins=at(7.5))
    assert "This dough takes" in late["order.doughs[0].ready_at"]
    assert "order.seconds" in head.faults(
        "POST", "/order/timetable", {"order": order, "seconds": 99}
    ) or "seconds" in head.faults("POST", "/order/timetable", {"order": order, "seconds": 99})
    gone = head.call("POST", "/order/timetable", {"order": order, "seconds": 0})
    assert gone["arranged_at"] is None


def begin(hand, day, dough, found, **more):
    plan = next(d["plan_id"] for d in found["doughs"] if d["dough"] == dough)
    body = {"id": str(uuid.uuid4()), "plan_id": plan, "day": day["id"], "dough": dough, **more}
    return hand.call("POST", "/runs", body)


def press(hand, run, clock, kind, stop):
    said = {"id": str(uuid.uuid4()), "at": clock.now.isoformat(), "kind": kind, "stop": stop}
    return hand.call("POST", f"/runs/{run['id']}/events", {"events": [said]})


def test_a_started_day_is_today_and_its_runs_know_their_number(head, hand, day, clock):
    assert hand.call("GET", "/today") is None
    found = arranged(head, day)
    hand.call("POST", f"/orders/{day['id']}/open", expect=403)
    first = min(seen(t["starts"]) for t in found["timetable"]["tasks"])
    clock.now = first - timedelta(minutes=5)
    head.call("POST", f"/orders/{day['id']}/open")
    today = hand.call("GET", "/today")
    assert today["due"][0]["first"]
    assert {d["when"] for d in today["due"]} <= {"now", "next", "later"}
    run = begin(hand, day, "1", found)
    # a second tablet that presses as well gets the same dough
    assert begin(head, day, "1", found)["id"] == run["id"]
    line = hand.call("GET", "/runs?under_way=true")["runs"][0]
    assert (line["dough"], line["doughs"]) == ("1", 3)
    snapshot = hand.call("GET", f"/runs/{run['id']}/snapshot")
    assert snapshot["dough"] == "1"
    # the dough is as large as the order wants it, not as its plan has it
    assert snapshot["plan"]["dough"]["mass_g"] == found["doughs"][0]["dough_g"]
    today = hand.call("GET", "/today")
    assert today["runs"] == [{"dough": "1", "run": run["id"], "over": False}]
    now = next(d for d in today["due"] if d["doughs"][0] == "1" and d["step"] == "mix")
    assert (now["when"], now["begun"]) == ("now", True)


def test_a_late_dough_moves_what_has_to_move_and_nothing_that_is_due_soon(head, hand, day, clock):
    found = arranged(head, day)
    head.call("POST", f"/orders/{day['id']}/open")
    steps = tasks_of(found, "3")
    clock.now = seen(steps[0]["starts"])
    run = begin(hand, day, "3", found)
    clock.now = seen(steps[0]["ends"])
    press(hand, run, clock, "done", steps[0]["step"])
    # it should have been taken out 50 minutes ago
    clock.now = seen(steps[1]["starts"]) + timedelta(minutes=50)
    today = hand.call("GET", "/today")
    late = next(d for d in today["due"] if d["doughs"] == ["3"] and d["when"] == "late")
    assert (late["step"], late["minutes"]) == (steps[1]["step"], -50)
    again = hand.call("POST", f"/orders/{day['id']}/again")
    proposed = again["proposed"]
    done = {t["step"]: t for t in proposed["tasks"] if t["dough"] == "3" and t["done"]}
    assert seen(done[steps[0]["step"]]["ends"]) == seen(steps[0]["ends"])
    for task in proposed["tasks"]:
        if not task["done"]:
            assert seen(task["starts"]) >= clock.now.replace(second=0) - timedelta(minutes=1)
    assert any(m["dough"] == "3" for m in proposed["moved"])
    soon = clock.now + timedelta(minutes=10)
    was = {(t["dough"], t["step"]): seen(t["starts"]) for t in found["timetable"]["tasks"]}
    moved = {(m["dough"], m["step"]) for m in proposed["moved"]}
    calm = {key for key, start in was.items() if clock.now < start <= soon and key[0] != "3"}
    assert not calm & moved
    # nothing is changed until somebody takes it
    assert hand.call("GET", f"/orders/{day['id']}/timetable")["timetable"] == found["timetable"]
    taken = hand.call("POST", f"/orders/{day['id']}/take")
    assert taken["timetable"]["tasks"] == proposed["tasks"]
    assert taken["proposed"] is None
    hand.call("POST", f"/orders/{day['id']}/take", expect=404)


def test_what_is_changed_in_an_order_that_has_begun_is_proposed_with_its_new_doughs(
    head, hand, day, clock
):
    found = arranged(head, day)
    head.call("POST", f"/orders/{day['id']}/open")
    again = f"/orders/{day['id']}/again"
    assert hand.call("POST", again)["proposed"]
    order = head.call("GET", f"/orders/{day['id']}")
    more = {**order["order"]["doughs"][1], "ready_at": at(10)}
    order["order"]["doughs"].append(more)
    save = {"revision": order["revision"], "order": order["order"]}
    head.call("PUT", f"/orders/{day['id']}", save)
    # what was proposed before is of another order
    kept = hand.call("GET", f"/orders/{day['id']}/timetable")
    assert (kept["proposed"], kept["stale"]) == (None, True)
    hand.call("POST", f"/orders/{day['id']}/take", expect=404)
    proposed = hand.call("POST", again)
    assert proposed["timetable"] == found["timetable"]
    taken = hand.call("POST", f"/orders/{day['id']}/take")
    for one in (proposed, taken):
        assert [d["dough"] for d in one["doughs"]] == ["1", "2", "3", "4"]
    assert {t["dough"] for t in taken["timetable"]["tasks"]} == {"1", "2", "3", "4"}
    assert not taken["stale"]


def test_a_dough_given_up_is_taken_out_and_what_it_was_for_is_short(head, hand, day, clock):
    found = arranged(head, day)
    head.call("POST", f"/orders/{day['id']}/open")
    clock.now = seen(tasks_of(found, "3")[0]["starts"])
    run = begin(hand, day, "3", found)
    said = {"id": str(uuid.uuid4()), "at": clock.now.isoformat(), "kind": "give_up"}
    hand.call("POST", f"/runs/{run['id']}/events", {"events": [said]})
    today = hand.call("GET", "/today")
    assert today["short"] == ["Pinwheel: dough 3 was stopped."]
    assert not [d for d in today["due"] if "3" in d["doughs"]]
    again = hand.call("POST", f"/orders/{day['id']}/again")
    assert {t["dough"] for t in again["proposed"]["tasks"]} == {"1", "2"}
    left = hand.call("POST", f"/orders/{day['id']}/leave")
    assert left["proposed"] is None
    # another dough of it may be begun
    assert begin(hand, day, "3", found)["id"] != run["id"]


def test_the_handover_writes_itself_until_somebody_does(head, hand, day, clock):
    arranged(head, day)
    head.call("POST", f"/orders/{day['id']}/open")
    clock.set(-16)
    told = hand.call("GET", "/today")
    assert "steps are done" in told["handover"]
    assert "Next on: early" in told["handover"]
    assert not told["handover_is_own"]
    hand.call("PUT", f"/orders/{day['id']}/handover", {"text": "Mind the proofer."}, expect=204)
    assert hand.call("GET", "/today")["handover"] == "Mind the proofer."
    hand.call("PUT", f"/orders/{day['id']}/handover", {"text": ""}, expect=204)
    assert hand.call("GET", "/today")["handover"] == told["handover"]
    head.call("POST", f"/orders/{day['id']}/close", expect=204)
    assert hand.call("GET", "/today") is None


def test_calendar_and_rows_say_the_same_times(head, hand, day):
    found = arranged(head, day)["timetable"]
    own = [t for t in found["tasks"] if not t["together"]]
    file = hand.get(f"/api/orders/{day['id']}/day.ics")
    assert b"BEGIN:VTIMEZONE" in file.content
    assert b"DTSTART;TZID=Europe/London:" in file.content
    assert file["Content-Type"].startswith("text/calendar")
    events = icalendar.Calendar.from_ical(file.content).walk("VEVENT")
    assert sorted(e.decoded("dtstart") for e in events) == sorted(seen(t["starts"]) for t in own)
    who = next(t["who"] for t in own if t["who"])
    one = hand.get(f"/api/orders/{day['id']}/day.ics?who={who}")
    theirs = icalendar.Calendar.from_ical(one.content).walk("VEVENT")
    assert len(theirs) == sum(t["who"] == who for t in own)
    assert hand.get(f"/api/orders/{day['id']}/day.ics?who=nobody").status_code == 404
    rows = hand.get(f"/api/orders/{day['id']}/day.csv").content.decode().splitlines()
    assert len(rows) == 1 + len(found["tasks"])
    assert rows[0].startswith("starts,ends,who,step,dough")


def test_the_schema_of_a_day_file_is_published(client, db):
    schema = client.get("/api/day.schema.json").json()
    assert schema["properties"]["format"] == {"const": "eight-turn/day"}
    assert {"from", "to"} <= set(schema["$defs"]["Shift"]["properties"])
    assert "ends" not in schema["required"]


def test_a_day_is_copied_to_the_same_hours_of_the_clock_across_a_change(head, hand, day):
    hand.call("POST", f"/orders/{day['id']}/copy", {"days": 7}, expect=403)
    copy = head.call("POST", f"/orders/{day['id']}/copy", {"days": 200})
    assert copy["id"] != day["id"]

    def wall(text):
        return datetime.fromisoformat(text).astimezone(MORNING.tzinfo).replace(tzinfo=None)

    for was, now in zip(day["order"]["hands"], copy["order"]["hands"], strict=True):
        assert wall(now["starts"]) - wall(was["starts"]) == timedelta(days=200)
        assert wall(now["ends"]) - wall(was["ends"]) == timedelta(days=200)
    ready = copy["order"]["doughs"][1]["ready_at"]
    assert wall(ready) - wall(day["order"]["doughs"][1]["ready_at"]) == timedelta(days=200)
    assert "days" in head.faults("POST", f"/orders/{day['id']}/copy", {"days": 0})


def test_a_standing_order_makes_the_next_of_its_weekday_once(head, hand, day):
    path = f"/orders/{day['id']}"
    assert "every" in head.faults("POST", f"{path}/next")
    weekday = f"{MORNING:%A}".lower()
    head.call("PUT", path, {"revision": 1, "order": {**day["order"], "every": [weekday]}})
    hand.call("POST", f"{path}/next", expect=403)

    def line():
        return next(o for o in head.call("GET", "/orders") if o["id"] == day["id"])

    assert line()["every"] == [weekday]
    assert line()["next_on"] == f"{MORNING:%Y-%m-%d}"
    first = head.call("POST", f"{path}/next")
    assert first["order"]["every"] == []
    assert seen(first["order"]["ready_at"]) == seen(day["order"]["ready_at"])
    # made once; deleted, it is to be made again
    assert line()["next_on"] == f"{MORNING + timedelta(days=7):%Y-%m-%d}"
    head.call("DELETE", f"/orders/{first['id']}", expect=204)
    assert line()["next_on"] == f"{MORNING:%Y-%m-%d}"


def test_an_order_says_what_is_different_from_the_last_like_it(head, hand, day):
    assert hand.call("GET", f"/orders/{day['id']}/changes")["order_id"] is None
    copy = head.call("POST", f"/orders/{day['id']}/copy", {"days": 7})
    path = f"/orders/{copy['id']}"
    same = hand.call("GET", f"{path}/changes")
    assert same["order_id"] == day["id"]
    assert same["changes"] == []
    copy["order"]["doughs"][0]["products"][0]["pieces"] = 92
    head.call("PUT", path, {"revision": copy["revision"], "order": copy["order"]})
    assert hand.call("GET", f"{path}/changes")["changes"] == [
        {"about": "Square", "says": "12 more: 92 pieces"}
    ]


def test_who_looks_for_a_better_day_never_gets_a_worse_and_may_stop(head, hand, day):
    path = f"/orders/{day['id']}"
    found = head.call("POST", f"{path}/timetable", {"seconds": 0.5})["timetable"]
    again = head.call("POST", f"{path}/timetable", {"seconds": 0})["timetable"]
    assert again["cost"] <= found["cost"]
    assert [t["starts"] for t in again["tasks"]] == [t["starts"] for t in found["tasks"]]
    # nothing was changed, so that nobody need look longer; a first one may be bettered
    assert head.call("POST", f"{path}/timetable", {"seconds": 0, "steady": True})["settled"]
    first = head.call("POST", f"{path}/copy", {"days": 7})
    assert not head.call("POST", f"/orders/{first['id']}/timetable", {"seconds": 0})["settled"]
    stop = timetable_api._looking[day["id"]] = Event()
    hand.call("DELETE", f"{path}/look", expect=403)
    assert not stop.is_set()
    head.call("DELETE", f"{path}/look", expect=204)
    assert stop.is_set()
    head.call("DELETE", "/orders/9999/look", expect=404)


def test_what_nobody_asked_for_is_proposed_only_where_something_moves(head, day, clock):
    arranged(head, day)
    head.call("POST", f"/orders/{day['id']}/open")
    quiet = head.call("POST", f"/orders/{day['id']}/again?only_if_it_moves=true")
    assert quiet["proposed"] is None
    # long after the first steps should have begun
    clock.set(-4)
    moved = head.call("POST", f"/orders/{day['id']}/again?only_if_it_moves=true")["proposed"]
    assert moved["moved"]
    # left, it is not proposed again by the next tablet; but by whoever asks, or a while later
    asked = f"/orders/{day['id']}/again"
    head.call("POST", f"/orders/{day['id']}/leave")
    assert head.call("POST", f"{asked}?only_if_it_moves=true")["proposed"] is None
    assert head.call("POST", asked)["proposed"]["moved"]
    head.call("POST", f"/orders/{day['id']}/leave")
    clock.set(-3.9)
    assert head.call("POST", f"{asked}?only_if_it_moves=true")["proposed"]["moved"]


def test_what_is_weighed_is_weighed_for_a_day_that_is_late_by_its_own_hour(head, day):
    worked = head.call("POST", "/order/work", day["order"])
    puff, danish = worked["batches"]
    assert seen(danish["starts_at"]) > seen(puff["starts_at"]) - timedelta(days=1)
    own = {**day["order"], "doughs": [d | {"ready_at": at(12)} for d in day["order"]["doughs"]]}
    later = head.call("POST", "/order/work", own)["batches"][0]
    assert seen(later["starts_at"]) - seen(puff["starts_at"]) == timedelta(hours=4)


def test_what_orders_want_of_a_plan_is_told_all_its_doughs_together(head, day):
    order = day["order"]
    puff, danish = (d["plan_id"] for d in order["doughs"])
    (wanted,) = head.call("GET", f"/plans/{puff}/wanted")
    assert (wanted["order_id"], wanted["name"]) == (day["id"], "Regatta")
    assert [(w["product"], w["pieces"]) for w in wanted["products"]] == [("Square", 80)]
    assert head.call("GET", f"/plans/{danish}/wanted")[0]["products"][0]["pieces"] == 40
    head.call("DELETE", f"/orders/{day['id']}", expect=204)
    assert head.call("GET", f"/plans/{puff}/wanted") == []


def test_a_proposal_that_nobody_answers_is_withdrawn_when_its_first_change_is_due(
    head, hand, day, clock
):
    found = arranged(head, day)
    head.call("POST", f"/orders/{day['id']}/open")
    steps = tasks_of(found, "3")
    clock.now = seen(steps[0]["starts"])
    run = begin(hand, day, "3", found)
    clock.now = seen(steps[0]["ends"])
    press(hand, run, clock, "done", steps[0]["step"])
    clock.now = seen(steps[1]["starts"]) + timedelta(minutes=50)
    for _ in range(10):
        asked_at = clock.now
        proposed = hand.call("POST", f"/orders/{day['id']}/again")["proposed"]
        changes = [
            seen(at)
            for m in proposed["moved"]
            for at in (m["was"], m["starts"])
            if seen(at) - asked_at > timedelta(minutes=1)
        ]
        if not changes:
            break
        # a minute before it can still be taken; when it is due it is on no screen any more
        clock.now = min(changes) - timedelta(minutes=1)
        assert hand.call("GET", "/today")["proposed"]
        clock.now = min(changes)
        assert hand.call("GET", "/today")["proposed"] is None
        assert hand.call("GET", f"/orders/{day['id']}/timetable")["proposed"] is None
        hand.call("POST", f"/orders/{day['id']}/take", expect=404)


def test_a_step_moved_and_moved_back_brings_back_the_very_same_day(head, day):
    path = f"/orders/{day['id']}"
    before = head.call("POST", f"{path}/timetable", {"seconds": 0})["timetable"]
    task = next(t for t in before["tasks"] if t["step"] == "lock_in")
    later = datetime.fromisoformat(task["starts"]) + timedelta(minutes=25)
    held = {"dough": task["dough"], "step": task["step"], "at": later.isoformat()}
    order = day["order"] | {"held": [held]}
    saved = head.call("PUT", path, {"revision": day["revision"], "order": order})
    moved = head.call("POST", f"{path}/timetable", {"seconds": 0, "steady": True})["timetable"]
    assert moved["tasks"] != before["tasks"]
    head.call("PUT", path, {"revision": saved["revision"], "order": day["order"]})
    again = head.call("POST", f"{path}/timetable", {"seconds": 0, "steady": True})
    assert again["timetable"] == before
    assert again["settled"]


def test_a_dough_added_to_a_begun_day_takes_nobody_s_run(head, day, clock):
    path = f"/orders/{day['id']}"
    arranged(head, day)
    head.call("POST", f"{path}/open")
    doughs = head.call("GET", f"{path}/timetable")["doughs"]
    first, second = doughs[0], doughs[-1]
    runs = {}
    for one in (first, second):
        run = str(uuid.uuid4())
        start = {"id": run, "plan_id": one["plan_id"], "day": day["id"], "dough": one["dough"]}
        head.call("POST", "/runs", start)
        runs[one["dough"]] = (run, one["name"])
    # another is wanted earlier than all of them
    extra = day["order"]["doughs"][-1] | {"ready_at": at(3), "id": "earlier"}
    order = day["order"] | {"doughs": [extra, *day["order"]["doughs"]]}
    head.call("PUT", path, {"revision": day["revision"], "order": order})
    head.call("POST", f"{path}/again")
    head.call("POST", f"{path}/take")
    today = head.call("GET", "/today")
    names = {d["dough"]: d["name"] for d in today["doughs"]}
    assert {r["dough"]: names[r["dough"]] for r in today["runs"]} == {
        dough: name for dough, (_, name) in runs.items()
    }
    assert {r["dough"]: r["run"] for r in today["runs"]} == {d: run for d, (run, _) in runs.items()}
    # and what is to be mixed still is what nobody has begun
    begun = {d for t in today["due"] if t["begun"] for d in t["doughs"]}
    assert set(runs) <= begun
