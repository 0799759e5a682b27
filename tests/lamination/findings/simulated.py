"""Records with a cause that is known: a dough taken along its plan with noise, one thing going wrong."""

import random
from datetime import UTC, datetime, timedelta
from functools import cache

from lamination.findings import BakeCause, Finding, Record, met_after, priors
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.starts import starting_finish
from lamination.run import Event, EventKind, Probe, planned_deeds, tray_steps
from lamination.steps.lock_in import LockIn
from lamination.terms.trade import Family, Method
from lamination.warmth import follow
from tests.plans import formula, station, turns

B = BakeCause
KITCHEN = Kitchen()
STARTED = datetime(2026, 11, 20, 5, tzinfo=UTC)


# what is wrong with a plan as it stands
OF_PLAN = {
    B.FEW_LEAVES: {"turns": turns("letter", "letter")},
    B.MERGED: {"turns": turns("letter", "letter", "letter", "letter", "letter")},
    B.MARGIN: {
        "lock_in": LockIn(Method.HALF, block_width_mm=240, block_length_mm=180, margin_mm=45)
    },
}


@cache
def plan(fault=None):
    made = station(
        formula=formula(), finish=starting_finish(Family.CROISSANT), **OF_PLAN.get(fault, {})
    )
    window = next(w for w in follow(made, KITCHEN).windows if w.reached_pct is not None)
    steps = tuple(s.resting(window.best_min) if s.id == window.stop else s for s in made.steps)
    return made.with_steps(*steps)


@cache
def marks(fault=None):
    return {w.stop: w for w in follow(plan(fault), KITCHEN).windows}


def record(cause: BakeCause | None, seed: int, readings: bool = True, also=None) -> Record:
    """A record of a bake with this cause; ``readings``: somebody measured; ``also``: a second cause."""
    dice = random.Random(seed)
    causes = {c for c in (cause, also) if c}
    fault = next((c for c in OF_PLAN if c in causes), None)
    bare = Record(plan(fault), STARTED, kitchen=KITCHEN)
    worked = bare.worked
    window = follow(plan(fault), KITCHEN).walk.recipe.window
    events: list[Event] = []

    def say(at, kind, **more):
        events.append(Event(f"event-{len(events):05}", at, kind, **more))

    stops = {s.key: s for s in worked.strip}
    trays = [n for p in worked.shaped.trays.products for n in p.trays]
    by_tray = {s.stop for s in tray_steps(worked)}
    goes_in = {s.stop for s in tray_steps(worked) if s.kind is EventKind.IN}
    hurried = dice.choice(["turn-1", "turn-2"])
    cut_short = dice.choice(["turn-1", "turn-2"])
    at = STARTED
    for deed in planned_deeds(worked.strip):
        stop = stops[deed.stop]
        if deed.kind is EventKind.DONE:
            minutes = stop.bench_min * dice.uniform(0.9, 1.15)
            if B.ROLLED_FAST in causes and deed.stop == hurried:
                minutes = stop.bench_min * 0.3
            if B.OVERMIXED in causes and deed.stop == "mix":
                minutes = stop.bench_min * dice.uniform(1.5, 2)
        else:
            minutes = stop.rest.minutes * dice.uniform(0.97, 1.06)
            if B.REST_SHORT in causes and deed.stop == cut_short:
                minutes = (marks(fault)[deed.stop].possible_from_min or 20) * 0.55
            if deed.stop == "shape" and B.UNDER in causes:
                minutes = (marks(fault)["shape"].possible_from_min or 60) * 0.75
            if deed.stop == "shape" and B.OVER in causes:
                minutes = (marks(fault)["shape"].possible_until_min or 300) * 1.15
        before, at = at, at + timedelta(minutes=minutes)
        if readings and deed.kind is EventKind.DONE:
            middle = before + (at - before) / 2
            if deed.stop == "lock_in":
                butter = dice.uniform(window.plastic_from_c + 0.3, window.plastic_to_c - 0.3)
                if B.BUTTER_SOFT in causes:
                    butter = window.plastic_to_c + dice.uniform(1, 3)
                if B.BUTTER_HARD in causes:
                    butter = window.plastic_from_c - dice.uniform(1, 3)
                say(middle, EventKind.READING, probe=Probe.BUTTER, value_c=round(butter, 1))
            if deed.stop == "cut":
                warm = dice.uniform(1, 3) if B.WARM_CUT in causes else dice.uniform(-8, -3)
                value = round(window.plastic_to_c + warm, 1)
                say(middle, EventKind.READING, probe=Probe.DOUGH, value_c=value)
            for line in (x for s in worked.sheets if s.stop == deed.stop for x in s.lines):
                off = dice.uniform(0.97, 1.03)
                if B.YEAST in causes and "yeast" in line.ingredient:
                    off = dice.choice([0.6, 1.5])
                if B.SALT in causes and line.ingredient == "salt":
                    off = dice.choice([0.5, 1.8])
                say(middle, EventKind.WEIGHED, line=line.key, grams=round(line.grams * off, 1))
        if readings and deed.stop == "shape" and deed.kind is EventKind.OUT:
            warm = dice.uniform(0.5, 2.5) if B.PROOFER_WARM in causes else dice.uniform(-5, -2)
            value = round(window.oils_c + warm, 1)
            say(before + (at - before) / 2, EventKind.READING, probe=Probe.DOUGH, value_c=value)
        if deed.stop not in by_tray:
            say(at, deed.kind, stop=deed.stop)
            if readings and deed.stop == "cut" and deed.kind is EventKind.DONE:
                spread = 5.0 if B.UNEVEN_SHEET in causes else 1.4
                grams = tuple(round(dice.gauss(58, 58 * spread / 100), 1) for _ in range(10))
                say(at, EventKind.PIECES, product=0, pieces_g=grams)
            continue
        for tray in trays:
            if deed.stop in goes_in and deed.kind is EventKind.DONE:
                say(before, EventKind.IN, stop=deed.stop, tray=tray)
        for tray in trays:
            say(at, deed.kind, stop=deed.stop, tray=tray)
    return Record(plan(fault), STARTED, tuple(events), seen(causes, dice), KITCHEN, "tansy")


def seen(causes, dice) -> tuple[Finding, ...]:
    """What a baker sees of it: each finding as often as it is met after its causes."""
    for _ in range(200):
        found = tuple(
            f
            for f in Finding
            if dice.random() < max((met_after(c, f) for c in causes), default=0.09)
        )
        if found:
            return found
    return (Finding.FLAT,)


def any_cause(dice: random.Random) -> BakeCause:
    usual = priors(Family.CROISSANT)
    return dice.choices(list(usual), list(usual.values()))[0]
