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
    if minutes is not None and minutes != rest.minutes:
        ends = sum(s.minutes for s in (rest.first, rest.last) if s)
        if minutes >= ends:
            yield _put_rest(
                plan, note.stop, replace(rest, minutes=minutes), f"{word} {span(minutes)}"
            )
    if proof:
        return
    began = found.began[note.stop]
    for other, label in _other_rests(rest):
        window = judged(found.scene, began, asked(found.walk, began.n, other))
        if window and window.verdict == "good":
            yield _put_rest(plan, note.stop, other, label)
        elif window:
            fitting = _round_inside(window, None)
            ends = sum(s.minutes for s in (other.first, other.last) if s)
            if fitting is not None and fitting >= ends:
                yield _put_rest(
                    plan, note.stop, replace(other, minutes=fitting), f"{label}, {span(fitting)}"
                )


def _other_rests(rest: Rest) -> Iterator[tuple[Rest, str]]:
    if rest.place is Place.FREEZER or (rest.first and rest.first.place is Place.FREEZER):
        for minutes in _TEMPERS:
            last = Stay(Place.BENCH, minutes)
            yield (
                replace(rest, minutes=rest.minutes + minutes, last=last),
                f"Add {span(minutes)} on the bench at the end",
            )
        yield Rest(Place.FRIDGE, rest.minutes, on=rest.on), "Rest in the fridge, not the freezer"
    elif rest.place is Place.BENCH:
        yield (
            Rest(Place.FRIDGE, max(rest.minutes, 20.0), on=rest.on),
            "Rest in the fridge, not on the bench",
        )
    else:
        cold = Stay(Place.FREEZER, 10.0)
        if rest.minutes >= 20:
            yield replace(rest, first=cold), "Start with 10 min in the freezer"
        for minutes in _TEMPERS[:3]:
            last = Stay(Place.BENCH, minutes)
            yield (
                replace(rest, minutes=rest.minutes + minutes, last=last),
                f"Add {span(minutes)} on the bench at the end",
            )


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
            one = Rest(Place.FRIDGE, 30.0)
            yield _put_rest(
                plan, before.id, one, f"Rest 30 min in the fridge after {low(names[before.id])}"
            )
        elif before.rest.place is Place.FRIDGE and before.rest.first is None:
            if before.rest.minutes >= 20:
                cold = replace(before.rest, first=Stay(Place.FREEZER, 10.0))
                yield _put_rest(
                    plan, before.id, cold, "The first 10 min of the rest before in the freezer"
                )
            longer = replace(before.rest, minutes=before.rest.minutes + 15)
            yield _put_rest(plan, before.id, longer, "Rest 15 min longer in the fridge before it")
    sheet = next(i for i in LIBRARY if i.key == "butter-sheet")
    if found.walk.recipe.window.plastic_to_c < sheet.window.plastic_to_c:  # type: ignore[union-attr]
        yield Fix("Laminating butter", (Put("butter.ingredient", sheet.key),))


def _proof_fixes(plan: Plan, found: Followed) -> Iterator[Fix]:
    shaping = next((s for s in plan.steps if s.kind_name == "shape"), None)
    if shaping is None or shaping.rest is None:
        return
    rest, room = shaping.rest, found.kitchen["room.c"]
    if rest.place is Place.PROOFER:
        cooler = replace(rest, air_c=float(math.floor(limit_of(found))))
        began = found.began[shaping.id]
        window = judged(found.scene, began, asked(found.walk, began.n, cooler))
        if window and window.best_min:
            minutes = 5.0 * round(window.best_min / 5)
            yield _put_rest(
                plan, shaping.id, replace(cooler, minutes=minutes),
                f"{span(minutes)} at {c(cooler.air_c or 0.0)}",
            )  # fmt: skip
    if rest.place is Place.PROOFER and room < found.kitchen.proofer_c(room):
        w = next((x for x in found.windows if x.stop == shaping.id), None)
        aim = (w.best_min or shaping.rest.minutes) if w else shaping.rest.minutes
        for times in (1.5, 1.8, 2.2):
            minutes = 15.0 * round(aim * times / 15)
            yield _put_rest(
                plan, shaping.id, Rest(Place.BENCH, minutes), f"Proof {span(minutes)} in the room"
            )
