"""Ways out of what is minded in a plan's warmth, in the order a baker would try them."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace

from lamination.materials.ingredients import LIBRARY
from lamination.plan.plan import Plan
from lamination.terms.advice import Fix, Note, Put
from lamination.terms.rests import Rest, Stay
from lamination.terms.said import c, named, span
from lamination.terms.trade import Place
from lamination.warmth.followed import Followed
from lamination.warmth.proof import limit_of
from lamination.warmth.rests import asked, judged
from lamination.warmth.windows import RestWindow

_TEMPERS = (10.0, 15.0, 20.0, 25.0, 35.0)


def low(name: str) -> str:
    """A step's name inside a sentence."""
    return named(name[0].lower() + name[1:])


def ways(plan: Plan, found: Followed, note: Note, names: dict[str, str]) -> Iterator[Fix]:
    """What may be tried about a note of a plan's warmth. Each is still to be tried before it is offered."""
    if note.code.startswith("rest"):
        yield from _rest_fixes(plan, found, note)
    elif note.code.startswith("clock"):
        yield from _clock_fixes(plan, found, note, names)
    elif note.code == "until":
        yield from _until_fixes(plan, found, note)
    elif note.code == "proof-hot":
        yield from _proof_fixes(plan, found)


def _put_rest(plan: Plan, stop: str, rest: Rest, label: str) -> Fix:
    return Fix(label, (Put(f"steps[{plan.at(stop)}].rest", rest),))


def _round_inside(w: RestWindow, base: float | None) -> float | None:
    """Minutes a baker would say, inside the good marks, nearest to what is best."""
    if w.good_from_min is None:
        return None
    low, high = w.good_from_min, w.good_until_min
    aim = min(max(base if base is not None else low, low), high if high is not None else 1e9)
    for step in (15.0, 5.0, 1.0):
        for value in (step * round(aim / step), step * -(-low // step)):
            if value >= max(low, 2.0) and (high is None or value <= high):
                return float(value)
    return None


def _rest_fixes(plan: Plan, found: Followed, note: Note) -> Iterator[Fix]:
    step = plan.steps[plan.at(note.stop)]
    rest, w = step.rest, next(x for x in found.windows if x.stop == note.stop)
    if rest is None:
        return
    proof = found.began[note.stop].open_air
    word = "Proof" if proof else "Rest"
    minutes = _round_inside(w, w.best_min if proof else None)
    if w.verdict == "long" and w.good_until_min is not None and not proof:
        minutes = _round_inside(w, w.good_until_min)
    if minutes is not None and minutes != rest.minutes and minutes >= _fixed_min(rest, proof):
        longer = rest.lasting(minutes, proof)
        yield _put_rest(plan, note.stop, longer, f"{word} {span(minutes)}")
    if proof:
        return
    began = found.began[note.stop]
    for other, label in _other_rests(rest):
        window = judged(found.scene, began, asked(found.walk, began.n, other))
        if window and window.verdict == "good":
            yield _put_rest(plan, note.stop, other, label)
        elif window:
            fitting = _round_inside(window, None)
            if fitting is not None and fitting >= _fixed_min(other):
                whole = other.lasting(fitting)
                yield _put_rest(plan, note.stop, whole, f"{label}, {span(fitting)}")


def _fixed_min(rest: Rest, proofs: bool = False) -> float:
    """How long all its stays are but the one that gives."""
    return rest.minutes - rest.stays[rest.gives(proofs)].minutes


def _other_rests(rest: Rest) -> Iterator[tuple[Rest, str]]:
    gives = rest.stays[rest.gives()]
    places = {s.place for s in rest.passed}
    if Place.FREEZER in places:
        for minutes in _TEMPERS:
            yield _tempered(rest, minutes)
        fridge = Rest.at(Place.FRIDGE, rest.minutes, on=gives.on)
        yield fridge, "Rest in the fridge, not the freezer"
    elif places == {Place.BENCH}:
        fridge = Rest.at(Place.FRIDGE, max(rest.minutes, 20.0), on=gives.on)
        yield fridge, "Rest in the fridge, not on the bench"
    else:
        if gives.minutes >= 20:
            yield _cold_first(rest), "Start with 10 min in the freezer"
        for minutes in _TEMPERS[:3]:
            yield _tempered(rest, minutes)


def _cold_first(rest: Rest) -> Rest:
    """The same rest, its first ten minutes in the freezer."""
    stays = rest.lasting(rest.minutes - 10.0).stays
    return Rest((Stay(Place.FREEZER, 10.0), *stays))


def _tempered(rest: Rest, minutes: float) -> tuple[Rest, str]:
    """The same rest with some minutes on the bench at its end, in place of those it had there."""
    label = f"Add {span(minutes)} on the bench at the end"
    *before, last = rest.stays
    if last.place is Place.BENCH and before:
        return Rest((*before, replace(last, minutes=last.minutes + minutes))), label
    return Rest((*rest.stays, Stay(Place.BENCH, minutes))), label


def _clock_fixes(plan: Plan, found: Followed, note: Note, names: dict[str, str]) -> Iterator[Fix]:
    n = plan.at(note.stop)
    step = plan.steps[n]
    if step.chilled == "not":
        from_fridge = (
            Put(f"steps[{n}].on", "marble"), Put(f"steps[{n}].chilled", "fridge"),
        )  # fmt: skip
        yield Fix("Roll on a marble cold from the fridge", from_fridge)
    if n:
        before = plan.steps[n - 1]
        if before.rest is None or not before.rests:
            one = Rest.at(Place.FRIDGE, 30.0)
            yield _put_rest(
                plan, before.id, one, f"Rest 30 min in the fridge after {low(names[before.id])}"
            )
        elif before.rest.begins is Place.FRIDGE:
            if before.rest.passed[0].minutes >= 20:
                cold = _cold_first(before.rest)
                yield _put_rest(
                    plan, before.id, cold, "The first 10 min of the rest before in the freezer"
                )
            longer = before.rest.lasting(before.rest.minutes + 15)
            yield _put_rest(plan, before.id, longer, "Rest 15 min longer in the fridge before it")
    sheet = next(i for i in LIBRARY if i.key == "butter-sheet")
    if found.walk.recipe.window.plastic_to_c < sheet.window.plastic_to_c:  # type: ignore[union-attr]
        yield Fix("Laminating butter", (Put("butter.ingredient", sheet.key),))


def _until_fixes(plan: Plan, found: Followed, note: Note) -> Iterator[Fix]:
    rest = plan.steps[plan.at(note.stop)].rest
    for until in found.until:
        if until.stop != note.stop or until.there_min is None or rest is None:
            continue
        minutes = float(max(round(until.there_min), 1))
        stay = replace(rest.stays[until.stay], minutes=minutes)
        other = rest.with_stay(until.stay, stay)
        yield _put_rest(plan, note.stop, other, f"Reckon with {span(minutes)}")


def _proof_fixes(plan: Plan, found: Followed) -> Iterator[Fix]:
    if found.proof_n is None:
        return
    step, room = plan.steps[found.proof_n], found.kitchen["room.c"]
    rest = step.rest
    if rest is None:
        return
    n = rest.gives(proofs=True)
    stay = rest.stays[n]
    if stay.place is not Place.PROOFER:
        return
    limit = float(math.floor(limit_of(found)))
    cooler = rest.with_stay(n, replace(stay, air_c=limit, to_c=None))
    began = found.began[step.id]
    window = judged(found.scene, began, asked(found.walk, began.n, cooler))
    if window and window.best_min:
        minutes = 5.0 * round(window.best_min / 5)
        whole = cooler.lasting(minutes, proofs=True)
        yield _put_rest(plan, step.id, whole, f"{span(minutes)} at {c(limit)}")
    if room < found.kitchen.proofer_c(room):
        w = next((x for x in found.windows if x.stop == step.id), None)
        aim = (w.best_min or rest.minutes) if w else rest.minutes
        for times in (1.5, 1.8, 2.2):
            minutes = 15.0 * round(aim * times / 15)
            there = rest.with_stay(n, Stay(Place.BENCH, stay.minutes)).lasting(minutes, True)
            yield _put_rest(plan, step.id, there, f"Proof {span(minutes)} in the room")
