"""What fits where: every sheet against bench, belt, pin and shelf, by how much not, and ways out."""

from __future__ import annotations

import math
from collections.abc import Iterator

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.worked import Fix, Note, Put, WorkedPlan
from lamination.sheet.folds import Fold
from lamination.sheet.lockin import Size
from lamination.sheet.passes import sheeter_of
from lamination.terms.limits import say
from lamination.terms.rests import Place

_LEAST_BLOCK_MM = 10.0  # a plan takes no smaller block
_SLACK_MM = 1.0  # a sheet this much longer than its place still lies on it


def on_fit(plan: Plan, kitchen: Kitchen, worked: WorkedPlan) -> Iterator[Note]:
    """Advice on every sheet that is rolled and every package that rests (core-model §5)."""
    long, wide = rolling_room(kitchen)
    thick = worked.lock_in.package.thickness_mm
    if plan.lock_in.rest:
        yield from _on_shelf("lock_in", plan.lock_in.rest.place, worked.lock_in.package, kitchen)
    for i, (chosen, step) in enumerate(zip(plan.turns, worked.steps, strict=True)):
        key = f"turn-{i + 1}"
        yield _on_room(plan, worked, i, key, step.rolled, thick, (long, wide), kitchen)
        yield from _under_pin(key, step.rolled, kitchen)
        if chosen.rest:
            yield from _on_shelf(key, chosen.rest.place, step.folded, kitchen)
        thick = step.folded.thickness_mm
    last = worked.final.size
    yield _on_room(plan, worked, len(plan.turns), "final", last, thick, (long, wide), kitchen)
    yield from _under_pin("final", last, kitchen)


def lies(sheet: Size, long_mm: float, wide_mm: float) -> bool:
    """Whether a sheet lies on a place of these two sides, either way round."""
    return any(
        a < long_mm + _SLACK_MM and b < wide_mm + _SLACK_MM
        for a, b in ((sheet.length_mm, sheet.width_mm), (sheet.width_mm, sheet.length_mm))
    )


def rolling_room(kitchen: Kitchen) -> tuple[float, float]:
    """Where sheets are rolled: the sheeter's belt, or else the bench."""
    machine = sheeter_of(kitchen)
    if machine:
        return machine.belt_length_mm, machine.belt_width_mm
    return kitchen["bench.length_mm"], kitchen["bench.width_mm"]


def _on_room(
    plan: Plan,
    worked: WorkedPlan,
    turn: int,
    key: str,
    sheet: Size,
    from_mm: float,
    room: tuple[float, float],
    kitchen: Kitchen,
) -> Note:
    long, wide = room
    where = "belt" if sheeter_of(kitchen) else "bench"
    path = "final" if key == "final" else f"turns[{turn}]"
    size = f"{sheet.length_mm:.0f} × {sheet.width_mm:.0f} mm"
    if lies(sheet, long, wide):
        along = sheet.length_mm < long + _SLACK_MM and sheet.width_mm < wide + _SLACK_MM
        spare = long - sheet.length_mm if along else wide - sheet.length_mm
        text = f"{size}, with {max(spare, 0):.0f} mm to spare in length."
        return Note(key, "good", f"Fits the {where}", text)
    fixes = []
    if sheet.width_mm <= wide:
        over = f"{sheet.length_mm - long:.0f} mm too long"
        thicker = math.ceil(sheet.thickness_mm * sheet.length_mm / long * 10) / 10
        wider = math.ceil(sheet.width_mm * sheet.length_mm / long)
        if thicker < from_mm:
            fixes.append(
                Fix(f"Roll to {say(thicker)} mm", (Put(f"{path}.roll_to_mm", float(thicker)),))
            )
        if wider <= wide:
            fixes.append(
                Fix(f"Roll {wider} mm wide first", (Put(f"{path}.width_mm", float(wider)),))
            )
        fixes += _other_fold(plan, worked, turn, sheet, room)
    else:
        over = f"{sheet.width_mm - wide:.0f} mm too wide"
    fixes += _divided(plan, sheet, room)
    ways = ", or ".join(f"{f.label[0].lower()}{f.label[1:]}" for f in fixes)
    return Note(
        key,
        "mind",
        f"{over[0].upper()}{over[1:]} for the {where}",
        f"{size} on a {where} of {long:.0f} × {wide:.0f} mm. To fit, {ways}.",
        f"{path}.roll_to_mm",
        tuple(fixes),
    )


def _other_fold(
    plan: Plan, worked: WorkedPlan, turn: int, sheet: Size, room: tuple[float, float]
) -> list[Fix]:
    """A fold before this one that leaves a wider package, if that makes the sheet fit."""
    if not 0 < turn <= len(plan.turns):
        return []
    before, now = plan.turns[turn - 1], worked.steps[turn - 1].fold
    this = plan.turns[turn] if turn < len(plan.turns) else plan.final
    if this.width_mm or before.short_mm or (turn < len(plan.turns) and plan.turns[turn].trim):
        return []
    for fold in (Fold.LETTER, Fold.HALF):
        wider = now.multiplies / fold.multiplies
        other = Size(sheet.length_mm / wider, sheet.width_mm * wider, sheet.thickness_mm)
        if (
            wider > 1
            and lies(other, *room)
            and fold.multiplies * before.roll_to_mm > this.roll_to_mm
        ):
            label = f"Make turn {turn} a {fold} fold"
            return [Fix(label, (Put(f"turns[{turn - 1}].fold", fold.value),))]
    return []


def _divided(plan: Plan, sheet: Size, room: tuple[float, float]) -> list[Fix]:
    """The dough in so many parts that the sheet fits; the block keeps its thickness."""
    over = min(
        max(a / room[0], b / room[1])
        for a, b in ((sheet.length_mm, sheet.width_mm), (sheet.width_mm, sheet.length_mm))
    )
    parts = math.ceil(over**2 * 1.02)
    side = 1 / math.sqrt(parts)
    mass, butter = plan.dough.mass_g / parts, plan.butter.mass_g / parts
    block = plan.lock_in.block_width_mm * side, plan.lock_in.block_length_mm * side
    if min(block) < _LEAST_BLOCK_MM:
        return []
    widths = {f"turns[{i}].width_mm": t.width_mm for i, t in enumerate(plan.turns)}
    widths["final.width_mm"] = plan.final.width_mm
    puts = (
        Put("dough.mass_g", round(mass, 1)),
        Put("butter.mass_g", round(butter, 1)),
        Put("lock_in.block_width_mm", round(block[0], 1)),
        Put("lock_in.block_length_mm", round(block[1], 1)),
        *(Put(field, float(round(width * side))) for field, width in widths.items() if width),
    )
    return [Fix(f"Divide the dough in {parts}", puts)]


def _under_pin(key: str, sheet: Size, kitchen: Kitchen) -> Iterator[Note]:
    pin = kitchen["pin.length_mm"]
    if sheeter_of(kitchen) or sheet.width_mm <= pin:
        return
    yield Note(
        key,
        "know",
        "Wider than the pin",
        f"{sheet.width_mm:.0f} mm under a pin of {pin:.0f} mm: roll in two lanes and let the strokes "
        "overlap, or the ends of the pin leave marks.",
    )


def _on_shelf(key: str, place: Place, package: Size, kitchen: Kitchen) -> Iterator[Note]:
    long, wide = kitchen["shelf.length_mm"], kitchen["shelf.width_mm"]
    if place is Place.BENCH or lies(package, long, wide):
        return
    over = max(
        max(package.length_mm, package.width_mm) - max(long, wide),
        min(package.length_mm, package.width_mm) - min(long, wide),
    )
    yield Note(
        key,
        "mind",
        f"{over:.0f} mm over the shelf",
        f"{package.length_mm:.0f} × {package.width_mm:.0f} mm on a shelf of {long:.0f} × {wide:.0f} "
        f"mm in the {place}. Fold it once more loosely with film between, or rest it in two parts.",
    )
