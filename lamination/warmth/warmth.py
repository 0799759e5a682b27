"""A plan's warmth in words: the day in a sentence, advice at its stops, the proof, and what if."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Window
from lamination.plan.plan import Plan
from lamination.plan.worked import Fix, Note, Put
from lamination.terms.limits import say
from lamination.terms.rests import Place, Rest, Stay
from lamination.warmth.cold import Followed, Stretch, Today, Trace, WorkClock, follow
from lamination.warmth.proof import Proof, proof_of, proof_window
from lamination.warmth.rest import Cause, RestWindow

_HOPELESS = 0.65  # of the time a turn takes; less than this and no quick hands help


@dataclass(frozen=True, slots=True)
class WorkedWarmth:
    """All that follows from a plan's temperatures today.

    ``can``: whether it works at all in this room. ``summary``: what to do differently, in a
    sentence. ``warmer``: what two degrees more would change.
    """

    room_c: float
    fridge_c: float
    freezer_c: float
    windows: tuple[RestWindow, ...]
    clocks: tuple[WorkClock, ...]
    stretches: tuple[Stretch, ...]
    trace: Trace
    butter: Window | None
    yeast_used_pct: float | None
    proof: Proof | None
    can: bool
    summary: str
    warmer: str
    notes: tuple[Note, ...]


def work_warmth(
    plan: Plan, kitchen: Kitchen, today: Today | None = None, what_if: bool = False
) -> WorkedWarmth:
    """Follow a plan through its temperatures and put into words what matters.

    ``what_if`` also works it two degrees warmer. Raises Faults as :func:`~lamination.plan.laid.lay` does.
    """
    today = today or Today()
    found = follow(plan, kitchen, today)
    room = found.kitchen["room.c"]
    can, summary = _summary(plan, found, room)
    used = found.yeast_used_pct or 0.0
    proof = proof_of(plan, found.kitchen, used)
    in_proof = proof_window(plan, found.kitchen, used, found.trace.middle_c[-1])
    return WorkedWarmth(
        room,
        found.kitchen["fridge.c"],
        found.kitchen["freezer.c"],
        (*found.windows, in_proof) if in_proof else found.windows,
        found.clocks,
        found.stretches,
        found.trace,
        found.butter,
        found.yeast_used_pct,
        proof,
        can,
        summary,
        _warmer(plan, kitchen, today, found) if what_if else "",
        (*_notes(plan, found), *_on_proof(plan, found, proof, in_proof)),
    )


def _name(stop: str) -> str:
    names = {
        "lock_in": "the lock-in",
        "final": "the last sheet",
        "dough": "the dough",
        "mix": "mixing",
    }
    return names.get(stop) or f"turn {stop[5:]}"


def _tightest(clocks: tuple[WorkClock, ...]) -> WorkClock | None:
    timed = [c for c in clocks if c.lasts_min is not None and c.takes_min > 0]
    return min(timed, key=lambda c: (c.lasts_min or 0) / c.takes_min, default=None)


def _summary(plan: Plan, found: Followed, room: float) -> tuple[bool, str]:
    here = f"At {say(room)} °C"
    tight = _tightest(found.clocks)
    off = [w for w in found.windows if w.verdict != "good"]
    if tight and tight.lasts_min is not None and tight.lasts_min < _HOPELESS * tight.takes_min:
        return False, (
            f"{here} this does not work as it stands: at {_name(tight.stop)} the butter softens in "
            f"{say(round(tight.lasts_min))} min and the work takes {say(tight.takes_min)}. Chill the "
            "bench and the pin, rest before every turn, or start at a cooler hour."
        )
    short = [c for c in found.clocks if c.short]
    if short:
        where = ", ".join(_name(c.stop) for c in short)
        return True, (
            f"{here} quick hands are wanted at {where}: rest before it, in the freezer first, or roll "
            "less thin in one go."
        )
    if off:
        said = [
            f"{_name(w.stop)} wants a {'longer' if w.verdict == 'early' else 'shorter or milder'} rest"
            for w in off[:2]
        ]
        more = f", and {len(off) - 2} more another" if len(off) > 2 else ""
        return True, f"{here} {' and '.join(said)} after it{more}: see the windows."
    if tight and tight.lasts_min is not None:
        return True, (
            f"{here} it works as planned: the shortest work clock is {say(round(tight.lasts_min))} min, "
            f"at {_name(tight.stop)}, for {say(tight.takes_min)} min of work."
        )
    return True, f"{here} it works as planned, and the butter never gets too warm on the bench."


_REST_FIELD = {"mix": "formula.mixing.rest", "dough": "dough.rest", "lock_in": "lock_in.rest",
               "final": "final.rest"}  # fmt: skip


def _rest_at(plan: Plan, stop: str) -> tuple[str, Rest | None]:
    """Where a stop's rest stands in the plan, and the rest."""
    if stop.startswith("turn-"):
        i = int(stop[5:]) - 1
        return f"turns[{i}].rest", plan.turns[i].rest
    rest = {
        "mix": plan.formula.mixing.rest if plan.formula else None,
        "dough": plan.dough.rest,
        "lock_in": plan.lock_in.rest,
        "final": plan.final.rest,
    }[stop]
    return _REST_FIELD[stop], rest


def _notes(plan: Plan, found: Followed) -> Iterator[Note]:
    for window in found.windows:
        if window.verdict != "good":
            yield _on_window(plan, window)
    for n, clock in enumerate(found.clocks):
        if clock.short:
            before = found.clocks[n - 1].stop if n else "lock_in"
            yield _on_clock(plan, found, clock, before)
    if found.kitchen["fridge.c"] > found.kitchen["room.c"]:
        yield Note(
            "dough", "know", "The fridge is warmer than the room",
            f"It is {say(found.kitchen['fridge.c'])} °C in the fridge and "
            f"{say(found.kitchen['room.c'])} °C in the room. If that is so, rest on the bench.",
        )  # fmt: skip


def _on_proof(
    plan: Plan, found: Followed, proof: Proof | None, in_proof: RestWindow | None
) -> Iterator[Note]:
    if proof is None or plan.cut is None:
        return
    if in_proof and in_proof.verdict != "good" and plan.finish and plan.finish.rest:
        fixes: tuple[Fix, ...] = ()
        rest = plan.finish.rest
        if in_proof.best_min is not None and not (rest.first or rest.last):
            minutes = float(5 * round(in_proof.best_min / 5))
            put = Put("finish.rest", replace(rest, minutes=minutes))
            fixes = (Fix(f"Proof {say(minutes)} min", (put,)),)
        title = {"early": "Under-proofed", "late": "Over-proofed"}[in_proof.verdict]
        yield Note("shape", "mind", title, in_proof.says, "finish.rest.minutes", fixes)
    hot = proof.proofer_c > proof.limit_c
    used = found.yeast_used_pct or 0.0
    before = f" {say(round(used))} % of a proof is used up by now." if used >= 1 else ""
    title = "The proofer is too warm" if hot else "Then the proof"
    stop = "shape" if plan.finish else "cut"
    yield Note(stop, "mind" if hot else "know", title, proof.says + before)


def _on_window(plan: Plan, window: RestWindow) -> Note:
    field, rest = _rest_at(plan, window.stop)
    fixes: list[Fix] = []
    text = window.says
    best = window.best_min
    reachable = window.latest_min is None or (best is not None and best <= window.latest_min + 0.5)
    if rest and best is not None and reachable:
        minutes = float(max(1, round(best)))
        chosen = replace(rest, minutes=minutes) if not (rest.first or rest.last) else rest
        if chosen is not rest:
            fixes.append(Fix(f"Rest {say(minutes)} min", (Put(field, chosen),)))
    if rest and not reachable and window.soonest_min is not None:
        # It relaxes more slowly than it chills: a milder place, or back to temper on the bench.
        if rest.place is Place.FREEZER:
            milder = Rest(
                Place.FRIDGE, float(round(window.soonest_min)), on=rest.on, iced=rest.iced
            )
            fixes.append(Fix("Fridge in place of freezer", (Put(field, milder),)))
        text += " It is brittle before it has relaxed."
    if window.temper_min and rest and window.latest_by is Cause.BRITTLE:
        temper = float(max(1, round(window.temper_min)))
        minutes = rest.minutes + temper
        whole = replace(rest, minutes=minutes, last=Stay(Place.BENCH, temper))
        fixes.append(Fix(f"Temper {say(temper)} min on the bench after it", (Put(field, whole),)))
    title = {"early": "Too soon to roll", "late": "Left too long"}[window.verdict]
    return Note(window.stop, "mind", title, text, f"{field}.minutes", tuple(fixes))


def _on_clock(plan: Plan, found: Followed, clock: WorkClock, before: str) -> Note:
    field, rest = _rest_at(plan, before)
    fixes = []
    if rest is None:
        one = Rest(Place.FRIDGE, 25.0)
        fixes.append(Fix(f"Rest before it, after {_name(before)}", (Put(field, one),)))
    elif rest.place is Place.FRIDGE and rest.first is None and rest.minutes >= 15:
        cold = replace(rest, first=Stay(Place.FREEZER, 10.0))
        fixes.append(Fix("The first 10 min of the rest in the freezer", (Put(field, cold),)))
    if plan.butter.ingredient == "butter-table":
        fixes.append(Fix("Laminating butter", (Put("butter.ingredient", "butter-sheet"),)))
    lasts = max(round(clock.lasts_min or 0), 0)
    return Note(
        clock.stop,
        "mind",
        f"{lasts} min until the butter is too soft",
        f"The work takes {say(clock.takes_min)} min in a room of {say(found.kitchen['room.c'])} °C. Keep "
        "it colder before, work in two halves with the fridge between, or chill the bench.",
        None,
        tuple(fixes),
    )


def _warmer(plan: Plan, kitchen: Kitchen, today: Today, found: Followed) -> str:
    hotter = follow(plan, kitchen, replace(today, room_c=found.kitchen["room.c"] + 2))
    said = []
    now, then = _tightest(found.clocks), None
    if now:
        then = next(c for c in hotter.clocks if c.stop == now.stop)
    if now and then and now.lasts_min and then.lasts_min is not None:
        less = round(now.lasts_min - then.lasts_min)
        said.append(f"{less} min less at {_name(now.stop)}")
    for a, b in zip(found.windows, hotter.windows, strict=True):
        if a.soonest_min is not None and b.soonest_min is not None:
            more = round(b.soonest_min - a.soonest_min)
            if more >= 2:
                said.append(f"{more} min more rest after {_name(a.stop)}")
    return f"Two degrees warmer: {', '.join(said) or 'nothing that one would notice'}."
