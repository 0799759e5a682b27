"""A morning that does not go as planned, through the API: arranged again, without that, and by a fixed list.

Steps take longer by chance (seeded), the oven fails for half an hour, a hand comes an hour late. Every
press is an event; the day is arranged again when something is ten minutes off. Run by hand:
``python benchmarks/morning.py [seeds]``.
"""

import os
import sys
import tempfile
import uuid
from datetime import datetime, timedelta
from enum import Enum
from pathlib import Path
from random import Random
from zoneinfo import ZoneInfo

os.environ |= {"DJANGO_SETTINGS_MODULE": "bakehouse.settings", "DATA_DIR": tempfile.mkdtemp()}
sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

import django

django.setup()

from django.contrib.auth.models import Group, User
from django.core.management import call_command
from django.test import Client
from django.utils import timezone

from bakehouse.demo.teasel_lock import BOATS, DANISH
from bakehouse.documents import dump
from lamination.kitchen import Kitchen
from lamination.plan import starting_plan
from lamination.terms import Family

ZONE = ZoneInfo("Europe/London")
MIDNIGHT = datetime.now(ZONE).replace(hour=0, minute=0, second=0, microsecond=0) + timedelta(days=3)
real_now = timezone.now
CROISSANT = starting_plan("Croissant", Family.CROISSANT, 2400, Kitchen())


class How(Enum):
    """By the list as it was written, each step when its minute has come, or arranged again."""

    LIST = "by a fixed list"
    ARRANGED = "as it was arranged"
    AGAIN = "arranged again"


class House:
    """The API as a tablet sees it, with a clock that is set by hand."""

    def __init__(self):
        user, new = User.objects.get_or_create(username="wren")
        if new:
            user.groups.add(Group.objects.get(name="head"))
        self.client = Client(HTTP_HOST="localhost")
        self.client.force_login(user)
        self.now = MIDNIGHT
        timezone.now = lambda: self.now

    def call(self, method, path, body=None):
        answer = self.client.generic(
            method, f"/api{path}", __import__("json").dumps(body or {}), "application/json"
        )
        if answer.status_code >= 400:
            raise RuntimeError((path, answer.status_code, answer.content[:300]))
        return answer.json() if answer.content else None


def at(hours):
    return (MIDNIGHT + timedelta(hours=hours)).isoformat()


def order(plans):
    def dough(plan, pieces, hour):
        wanted = [{"product": "Piece", "pieces": pieces, "raw_g": 55}]
        return {"plan_id": plans[plan], "products": wanted, "ready_at": at(hour)}

    return {
        "name": "Morning",
        "doughs": [dough(0, 90, 8), dough(1, 50, 9), dough(2, 70, 10), dough(0, 45, 11)],
        "hands": [
            {"name": "day", "starts": at(-14), "ends": at(-7), "count": 2},
            {"name": "early", "starts": at(2), "ends": at(12), "count": 2},
        ],
    }


def morning(seed, how):
    """Late minutes, and doughs ready within five minutes of their hour, of how many."""
    house, chance = House(), Random(seed)
    house.now = MIDNIGHT - timedelta(hours=15)
    plans = [house.call("POST", "/plans", dump(p))["id"] for p in (CROISSANT, BOATS, DANISH)]
    day = house.call("POST", "/orders", order(plans))["id"]
    found = house.call("POST", f"/orders/{day}/timetable", {"seconds": 4})
    house.call("POST", f"/orders/{day}/open")
    plan_of = {d["dough"]: d["plan_id"] for d in found["doughs"]}
    steps = {}
    for task in sorted(found["timetable"]["tasks"], key=lambda t: t["starts"]):
        steps.setdefault(task["dough"], []).append(task["step"])
    rows = rows_of(found)
    least = {}
    slow = {k: 1 + 0.4 * chance.random() for k in sorted(rows)}
    state = {d: {"n": 0, "until": None, "free": None, "run": None} for d in steps}
    replans = 0
    while any(s["n"] < len(steps[d]) for d, s in state.items()):
        house.now += timedelta(minutes=1)
        if house.now > MIDNIGHT + timedelta(hours=30):
            break
        hour = (house.now - MIDNIGHT) / timedelta(hours=1)
        hands = 2 if -14 <= hour < -7 or 2 <= hour < 12 else 0
        if 2 <= hour < 3:
            hands = 1  # one comes an hour late
        for dough, s in state.items():
            if s["until"] and house.now >= s["until"]:
                step = steps[dough][s["n"]]
                say(house, s, "done", step)
                s |= {"n": s["n"] + 1, "until": None, "free": house.now, "out": False}
        busy = sum(1 for d, s in state.items() if s["until"] and rows[d, steps[d][s["n"]]][2])
        taken = {rows[d, steps[d][s["n"]]][3] for d, s in state.items() if s["until"]}
        waiting = sorted(
            (rows[d, steps[d][s["n"]]][0], d)
            for d, s in state.items() if not s["until"] and s["n"] < len(steps[d])
        )  # fmt: skip
        for start, dough in waiting:
            s, step = state[dough], steps[dough][state[dough]["n"]]
            _, long, held, machine, rest = rows[dough, step]
            ready = s["free"] is None or house.now >= s["free"] + timedelta(minutes=0.6 * rest)
            down = machine == "oven" and 5 <= hour < 5.5
            waits = start > house.now or not ready or down or (machine and machine in taken)
            if waits or (held and busy >= hands):
                if how is How.LIST:
                    break  # nothing is begun before what stands above it
                continue
            if s["run"] is None:
                body = {
                    "id": str(uuid.uuid4()),
                    "plan_id": plan_of[dough],
                    "day": day,
                    "dough": dough,
                }
                s["run"] = house.call("POST", "/runs", body)["id"]
                s["worked"] = house.call("GET", f"/runs/{s['run']}/snapshot")
            elif not s.get("out"):
                say(house, s, "out", steps[dough][s["n"] - 1])
                s["out"] = True
            s["until"] = house.now + timedelta(minutes=round(long * slow[dough, step]))
            busy += held
            taken.add(machine)
        late = [d for start, d in waiting if house.now - start > timedelta(minutes=10)]
        if how is How.AGAIN and late and house.now.minute % 10 == 0 and hands:
            proposed = house.call("POST", f"/orders/{day}/again")["proposed"]
            house.call("POST", f"/orders/{day}/take")
            rows |= rows_of({"timetable": proposed})
            replans += 1
    ready = {d: s["free"] for d, s in state.items()}
    wanted = {d["dough"]: datetime.fromisoformat(d["ready_at"]) for d in found["doughs"]}
    late = {d: max((ready[d] - wanted[d]) / timedelta(minutes=1), 0) for d in wanted}
    least[seed] = late
    return round(sum(late.values())), sum(m <= 5 for m in late.values()), len(late), replans


def rows_of(found):
    """By dough and step: when it begins, how long, whether it takes a hand, machine, rest before it."""
    rows, before = {}, {}
    for task in sorted(found["timetable"]["tasks"], key=lambda t: t["starts"]):
        start, end = (datetime.fromisoformat(task[k]) for k in ("starts", "ends"))
        last = before.get(task["dough"])
        rest = (start - last) / timedelta(minutes=1) if last else 0
        rows[task["dough"], task["step"]] = (
            start, (end - start) / timedelta(minutes=1), task["hands"], task["machine"], rest,
        )  # fmt: skip
        before[task["dough"]] = end
    return rows


def say(house, s, kind, step):
    """Press it; a step that goes tray by tray is said of every tray."""
    stop = next(x for x in s["worked"]["worked"]["strip"] if x["key"] == step)
    rests = sum(stay["minutes"] for stay in (stop["rest"] or {"stays": []})["stays"])
    if kind == "out" and not rests:
        return

    def event(**more):
        return {"id": str(uuid.uuid4()), "at": house.now.isoformat(), "stop": step, **more}

    events = [event(kind=kind)]
    if stop["trays"]:
        shaped = next(x["made"] for x in s["worked"]["worked"]["strip"] if x["do"] == "shape")
        trays = [n for p in shaped["trays"]["products"] for n in p["trays"]]
        kinds = ["in", kind] if stop["oven"] and kind == "done" else [kind]
        events = [event(kind=k, tray=n) for n in trays for k in kinds]
    house.call("POST", f"/runs/{s['run']}/events", {"events": events})


if __name__ == "__main__":
    call_command("migrate", verbosity=0)
    for seed in range(int(sys.argv[1]) if len(sys.argv) > 1 else 3):
        for how in How:
            late, served, doughs, replans = morning(seed, how)
            print(
                f"seed {seed}, {how.value} ({replans} times again): {late} min late in all, "
                f"{served} of {doughs} in time",
                flush=True,
            )
