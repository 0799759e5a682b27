"""Looks a timetable over from its own JSON and the day that was asked for, and knows nothing else."""

import itertools
from collections import Counter
from datetime import datetime


def moment(text):
    return round(datetime.fromisoformat(text).timestamp() / 60)


def every_minute(spans):
    taken = Counter()
    for a, b, many in spans:
        for minute in range(a, b):
            taken[minute] += many
    return taken


def faults_in(asked, found):
    """What is wrong with a timetable, in words; empty where nothing is."""
    wrong = []
    rows = {"mixer.count": 1, "sheeter.count": 1, "oven.count": 1} | asked.get("kitchen", {})
    there = every_minute((moment(h["from"]), moment(h["to"]), h["count"]) for h in asked["hands"])
    at_work = every_minute(
        (moment(t["starts"]), moment(t["ends"]), t["hands"]) for t in found["tasks"]
    )
    wrong += [f"minute {m}: {n} hands of {there[m]}" for m, n in at_work.items() if n > there[m]]
    for task in found["tasks"]:
        if task["machine"] == "oven":
            alone = [m for m in range(moment(task["starts"]), moment(task["ends"])) if not there[m]]
            wrong += [f"nobody at the oven in minute {m}" for m in alone]
    one_hand = {}
    for task in found["tasks"]:
        if task["who"]:
            one_hand.setdefault(task["who"], []).append(
                (moment(task["starts"]), moment(task["ends"]))
            )
    pause = rows.get("day.pause_min", 15)
    for who, spans in one_hand.items():
        spans.sort()
        days = [w for w in found["duties"] if w["who"] == who]
        apart = sum(
            b[0] > max(e for _, e in spans[: n + 1]) + pause for n, b in enumerate(spans[1:])
        )
        if sum(len(w["stretches"]) for w in days) not in range(1 + apart, len(days) + apart + 1):
            wrong.append(f"{who} works in {1 + apart} stretches, and is said to in others")
        if sum(w["work_min"] for w in days) != sum(b - a for a, b in spans):
            wrong.append(f"{who} works other minutes than she is said to")
        wrong += [f"{who} twice at {b[0]}" for a, b in itertools.pairwise(spans) if b[0] < a[1]]
    for machine in ("mixer", "sheeter", "oven"):
        used = every_minute(
            (moment(t["starts"]), moment(t["ends"]), 1)
            for t in found["tasks"] if t["machine"] == machine
        )  # fmt: skip
        most = rows[f"{machine}.count"]
        wrong += [f"{machine} {n} times in minute {m}" for m, n in used.items() if n > most]
    own = {(t["dough"], t["step"]): t for t in found["tasks"] if not t["together"]}
    for task in found["tasks"]:
        if task["together"]:
            other = own.get((task["together"], task["step"]), {})
            if any(task[end] != other.get(end) for end in ("starts", "ends")):
                wrong.append(f"dough {task['dough']}: {task['step']} is not done with another's")
    for place, row in (("fridge", "fridge.holds"), ("freezer", "freezer.holds")):
        if rows.get(row):
            lies = every_minute(
                (moment(r["from"]), moment(r["to"]), 1)
                for r in found["rests"]
                if r["place"] == place
            )
            over = [m for m, n in lies.items() if n > rows[row]]
            if over and not any(place in give for give in found["gives"]):
                wrong.append(f"{place} too full in {len(over)} minutes")
    for dough in asked["doughs"]:
        wrong += _thread(dough, found)
    return wrong


def _thread(dough, found):
    tasks = sorted(
        (t for t in found["tasks"] if t["dough"] == dough["id"]),
        key=lambda t: [s["id"] for s in dough["plan"]["steps"]].index(t["step"]),
    )
    if [t["step"] for t in tasks] != [s["id"] for s in dough["plan"]["steps"]]:
        yield f"dough {dough['id']}: not every step once"
        return
    said = [give for give in found["gives"] if give.startswith(f"Dough {dough['id']} ")]
    for a, b in itertools.pairwise(tasks):
        ends, begins = moment(a["ends"]), moment(b["starts"])
        if begins < ends:
            yield f"dough {dough['id']}: {b['step']} before {a['step']} is done"
        rests = sorted(
            (moment(r["from"]), moment(r["to"]), r["verdict"]) for r in found["rests"]
            if r["dough"] == dough["id"] and r["step"] == a["step"]
        )  # fmt: skip
        at = ends
        for start, end, verdict in rests:
            if start != at:
                yield f"dough {dough['id']}: lies nowhere after {a['step']}"
            at = end
            if verdict in ("short", "long") and not said:
                yield f"dough {dough['id']}: {a['step']} is {verdict}, and nobody says so"
        if at != begins:
            yield f"dough {dough['id']}: lies nowhere before {b['step']}"
    ready = next(r for r in found["ready"] if r["dough"] == dough["id"])
    done = moment(tasks[-1]["ends"])
    late = max(done - moment(dough["ready_at"]), 0)
    if moment(ready["at"]) != done or ready["late_min"] != late:
        yield f"dough {dough['id']}: ready at another minute than it says"
    if late and not said:
        yield f"dough {dough['id']} is {late} min late, and nobody says so"
