"""Day files in, timetables out: looked over by a checker that knows only the two."""

import io
import json
from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

import pytest
from django.core.management import call_command

from bakehouse.demo.teasel_lock import PLANS
from bakehouse.documents import dump
from lamination.kitchen import Kitchen
from lamination.plan import starting_plan
from lamination.terms import Family

from .checker import faults_in

LONDON = ZoneInfo("Europe/London")
OURS = [dump(plan) for plan in PLANS]
NEW = [
    dump(starting_plan(f"New {family.said}", family, 2200, Kitchen()))
    for family in (Family.CROISSANT, Family.PUFF)
]


def day(doughs, hands=2, on="2027-06-18", plans=None, wanted=(6, 7, 8, 9, 9, 10, 11, 12), **more):
    """Doughs wanted on a morning, hands the day before and from three, and a night without any."""
    plans = plans or [*OURS, *NEW]
    before = datetime.fromisoformat(f"{on}T06:00").replace(tzinfo=LONDON)
    morning = (before + timedelta(days=1)).replace(hour=0)

    def at(of, hour):
        return of.replace(hour=hour).isoformat()

    return {
        "format": "eight-turn/day", "version": 1, "name": "Market", "zone": "Europe/London",
        "begins": before.isoformat(), "ends": at(morning, 15),
        "hands": [
            {"name": "day", "count": hands, "from": at(before, 6), "to": at(before, 17)},
            {"name": "early", "count": hands, "from": at(morning, 3), "to": at(morning, 13)},
        ],
        "kitchen": {},
        "doughs": [
            {"id": str(n + 1), "plan": plans[n % len(plans)],
             "ready_at": at(morning, wanted[n % len(wanted)])}
            for n in range(doughs)
        ],
        **more,
    }  # fmt: skip


def arranged(asked, tmp_path, seconds=0.4):
    file = tmp_path / "day.json"
    file.write_text(json.dumps(asked) if isinstance(asked, dict) else asked)
    out, err = io.StringIO(), io.StringIO()
    try:
        call_command("timetable", str(file), seconds=seconds, stdout=out, stderr=err)
    except SystemExit as ended:
        assert ended.code == 2
        return err.getvalue()
    return json.loads(out.getvalue())


@pytest.mark.parametrize(("doughs", "hands", "on", "rows"), [
    (4, 2, "2027-06-18", {}),
    (8, 2, "2027-03-27", {"fridge.holds": 7}),
    (15, 3, "2027-10-30", {"oven.count": 2}),
    (25, 3, "2027-06-18", {"fridge.holds": 30, "freezer.holds": 6}),
])  # fmt: skip
def test_nothing_is_used_twice_and_what_could_not_be_had_is_said(doughs, hands, on, rows, tmp_path):
    asked = day(doughs, hands, on, kitchen=rows)
    found = arranged(asked, tmp_path)
    assert (found["format"], found["version"]) == ("eight-turn/timetable", 1)
    assert faults_in(asked, found) == []
    assert 0 <= found["bound"] <= found["cost"]


def test_the_checker_sees_what_is_wrong(tmp_path):
    asked = day(4)
    found = arranged(asked, tmp_path, 0)
    assert faults_in(asked, found) == []
    fewer = asked | {"hands": [h | {"count": 1} for h in asked["hands"][1:]]}
    assert faults_in(fewer, found)
    late = json.loads(json.dumps(found))
    late["tasks"][0]["starts"] = late["tasks"][0]["ends"]
    late["ready"][0]["late_min"] += 5
    assert faults_in(asked, late)


def test_more_time_is_never_worse_and_a_day_with_room_costs_next_to_nothing(tmp_path):
    asked = day(9, 2)
    first, later = arranged(asked, tmp_path, 0), arranged(asked, tmp_path, 2)
    assert later["late_min"] <= first["late_min"]
    easy = arranged(day(2, 3, plans=NEW, wanted=(11, 13)), tmp_path, 0.5)
    assert easy["gives"] == []
    assert easy["late_min"] == easy["outside_min"] == easy["tight_min"] == 0


def test_doughs_of_one_plan_are_mixed_together_and_take_the_mixer_once(tmp_path):
    asked = day(3, 2, plans=[NEW[0]])
    found = arranged(asked, tmp_path)
    mixing = [t for t in found["tasks"] if t["step"] == "mix"]
    assert len(mixing) == 3
    assert len({(t["starts"], t["ends"]) for t in mixing}) == 1
    assert sorted(t["hands"] for t in mixing) == [0, 0, 1]
    assert {t["together"] for t in mixing} == {None, next(t["dough"] for t in mixing if t["hands"])}


def test_too_few_hands_are_said_by_their_price_and_nothing_is_done_by_nobody(tmp_path):
    asked = day(14, 1, plans=OURS)
    # all of it is more than the day before holds: the rest is for the day after
    asked["ends"] = "2027-06-20T20:00:00+01:00"
    asked["hands"][1] |= {"from": "2027-06-19T06:00", "to": "2027-06-19T20:00"}
    asked["hands"].append({"name": "day after", "count": 1, "from": "2027-06-20T06:00",
                           "to": "2027-06-20T18:00"})  # fmt: skip
    found = arranged(asked, tmp_path, 1)
    assert faults_in(asked, found) == []
    assert found["late_min"] > 0
    assert sum("late" in give for give in found["gives"]) == sum(
        r["late_min"] > 0 for r in found["ready"]
    )


def test_a_held_step_and_a_quiet_hour_are_kept(tmp_path):
    asked = day(2)
    first = arranged(asked, tmp_path, 0)
    at = next(t for t in first["tasks"] if (t["dough"], t["step"]) == ("1", "lock_in"))["starts"]
    held = (datetime.fromisoformat(at) - timedelta(minutes=40)).isoformat()
    quiet = {"from": "2027-06-19T04:00", "to": "2027-06-19T05:00"}
    asked |= {"held": [{"dough": "1", "step": "lock_in", "at": held}], "quiet": [quiet]}
    found = arranged(asked, tmp_path, 0.3)
    task = next(t for t in found["tasks"] if (t["dough"], t["step"]) == ("1", "lock_in"))
    assert datetime.fromisoformat(task["starts"]) == datetime.fromisoformat(held)
    assert task["held"]
    hour = ("2027-06-19T04", "2027-06-19T05:00:00+01:00")
    assert not [t for t in found["tasks"] if t["hands"] and hour[0] <= t["starts"] < hour[1]]


def wrong(asked, tmp_path):
    said = arranged(asked, tmp_path, 0)
    assert isinstance(said, str), "it was taken"
    return said


@pytest.mark.parametrize(("change", "path", "says"), [
    ({"hands": []}, "hands: ", "Nobody is there"),
    ({"begins": "2027-06-19T14:00"}, "doughs[0].ready_at: ", "before the day begins"),
    ({"begins": "2027-06-19T05:30"}, "doughs[0].ready_at: ", "This dough takes"),
    ({"ends": "2027-06-18T05:00"}, "ends: ", "before it begins"),
    ({"zone": "Teasel/Lock"}, "zone: ", "no time zone"),
    ({"begins": "2027-03-28T01:30"}, "begins: ", "The clocks skip 01:30"),
    ({"begins": "2027-10-31T01:30"}, "begins: ", "comes twice"),
    ({"begins": "soon"}, "begins: ", ""),
    ({"kitchen": {"oven.count": -3}}, "kitchen.oven.count: ", "Must be a whole number, from 1 to 10."),
    ({"kitchen": {"no.such": 1}}, "kitchen.no.such: ", ""),
    ({"version": 7}, "version: ", "version 1"),
    ({"colour": "red"}, "colour: ", "no field of this name"),
    ({"held": [{"dough": "9", "step": "mix", "at": "2027-06-18T08:00"}]}, "held[0].dough: ", ""),
])  # fmt: skip
def test_wrong_input_gets_a_sentence_at_its_field(change, path, says, tmp_path):
    asked = day(2) | change
    if "held" in change:
        asked["held"][0]["at"] += ":00+01:00"
    said = wrong(asked, tmp_path)
    assert path in said
    assert says in said


def test_wrong_shifts_doughs_and_files_are_told_by_their_place(tmp_path):
    asked = day(2)
    asked["hands"][1]["to"] = asked["hands"][1]["from"]
    assert "hands[1].to: This shift ends before it begins." in wrong(asked, tmp_path)
    asked = day(2)
    asked["doughs"][1]["plan"] = json.loads(json.dumps(NEW[0]))
    asked["doughs"][1]["plan"]["dough"]["mass_g"] = -4
    assert "doughs[1].plan.dough.mass_g: " in wrong(asked, tmp_path)
    many = day(2)
    many["doughs"] = [many["doughs"][0] | {"id": str(n)} for n in range(41)]
    assert "doughs: 41 doughs are too many" in wrong(many, tmp_path)
    twice = day(2)
    twice["doughs"][1]["id"] = twice["doughs"][0]["id"]
    assert "doughs[1].id: " in wrong(twice, tmp_path)
    assert "JSON" in wrong("{", tmp_path)
    assert "format" in wrong("{}", tmp_path)
