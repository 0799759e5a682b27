"""What fits where: a rolled sheet against bench or belt and pin, by how much not, and ways out."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from lamination.kitchen.machines import Rolled
from lamination.sheet.passes import Rolling
from lamination.steps.base import Here
from lamination.terms.advice import Fix, Note, Put
from lamination.terms.said import fold_name, g, mm
from lamination.terms.sizes import Size, under
from lamination.terms.trade import Fold, Tool

_LEAST_BLOCK_MM = 10.0  # a plan takes no smaller block
_MOST_SIDE_MM = 5_000.0


def thickness_fix(here: Here[Any], to_mm: float) -> Fix:
    """Roll to a thickness; a size that was chosen in its place gives way."""
    away = {"length_mm": None} if here.step.length_mm else {}
    return here.fix(f"Roll to {mm(to_mm)}", roll_to_mm=float(to_mm), **away)


def on_room(here: Here[Any], sheet: Size, narrowest_mm: float, turned: bool) -> Iterator[Note]:
    """Advice on a sheet that is rolled: where it lies, how wide it can be, what it is rolled by."""
    step = here.step
    # chosen, or what follows from a thickness and a length that were
    by_sides = step.length_mm and step.roll_to_mm
    width_mm = step.width_mm or (sheet.width_mm if by_sides else None)
    field = "width_mm" if step.width_mm else "length_mm" if by_sides else "width_mm"
    room = here.setting.rolled
    if room.absent:
        yield here.note(
            "no-sheeter", "know", "No sheeter in this kitchen",
            "The plan is rolled by sheeter, and the Kitchen has none: enter its belt, or roll by hand.",
            fixes=[Fix("Roll by hand", (Put("rolled_by", Tool.HAND.value),))],
            plan_field="rolled_by",
        )  # fmt: skip
    if width_mm and under(width_mm, narrowest_mm):
        wide = math.ceil(narrowest_mm)
        yield here.note(
            "narrower", "mind", "Narrower than the package",
            f"A pin makes a sheet wider, never narrower, and the package is {mm(narrowest_mm)} across "
            f"its shorter side. {mm(width_mm)} cannot be rolled from it.",
            field, [
                *([here.fix(f"{mm(wide)} wide", width_mm=float(wide))] if step.width_mm else []),
                here.fix("As wide as it comes", **{field: None}),
            ],
        )  # fmt: skip
    elif not turned:
        yield here.note(
            "laid-other-way", "know", "Lay it the other way",
            f"For a sheet {mm(sheet.width_mm)} wide the package is not turned before this roll: a pin "
            "makes a sheet wider, never narrower.",
            field,
        )  # fmt: skip
    yield _lies(here, sheet, room)
    pin = here.kitchen["pin.length_mm"]
    if room.tool is Tool.HAND and sheet.width_mm > pin:
        yield here.note(
            "pin", "know", "Wider than the pin",
            f"{mm(sheet.width_mm)} under a pin of {mm(pin)}: roll in two lanes and let the strokes "
            "overlap, or the ends of the pin leave marks.",
        )  # fmt: skip


def _lies(here: Here[Any], sheet: Size, room: Rolled) -> Note:
    long, wide = room.long_mm, room.wide_mm
    size = mm(sheet.length_mm, sheet.width_mm)
    if room.holds(sheet):
        along = sheet.length_mm < long + room.slack_mm and sheet.width_mm < wide + room.slack_mm
        spare = long - sheet.length_mm if along else wide - sheet.length_mm
        text = f"{size}, with {mm(max(spare, 0))} to spare in length."
        return here.note("room", "good", f"Fits the {room.where}", text)
    fixes: list[Fix] = []
    if sheet.width_mm <= wide:
        over = f"{mm(sheet.length_mm - long)} too long"
        fixes += _thicker(here, sheet, room)
        broader = math.ceil(sheet.width_mm * sheet.length_mm / long)
        if broader <= wide:
            away = (
                {"length_mm": None, "roll_to_mm": sheet.thickness_mm} if here.step.length_mm else {}
            )
            label = f"Roll {mm(broader)} wide first"
            fixes.append(here.fix(label, width_mm=float(broader), **away))
        fixes += _other_fold(here, sheet, room)
    else:
        over = f"{mm(sheet.width_mm - wide)} too wide"
    fixes += _divided(here, sheet, room)
    return here.note(
        "room", "mind", f"{over} for the {room.where}",
        f"{size} on a {room.where} of {mm(long, wide)}.", "roll_to_mm", fixes,
    )  # fmt: skip


def _thicker(here: Here[Any], sheet: Size, room: Rolled) -> list[Fix]:
    thicker = math.ceil(sheet.thickness_mm * sheet.length_mm / room.long_mm * 10) / 10
    before = here.before.size
    if before is None or thicker >= before.thickness_mm:
        return []
    return [thickness_fix(here, thicker)]


def _other_fold(here: Here[Any], sheet: Size, room: Rolled) -> list[Fix]:
    """A fold before this one that leaves a wider package, if that makes the sheet fit."""
    n = here.n - 1
    before = here.steps[n] if n >= 0 else None
    fold = getattr(before, "fold", None)
    if before is None or fold is None or getattr(here.step, "width_mm", None):
        return []
    for other in (Fold.LETTER, Fold.HALF):
        wider = fold.multiplies / other.multiplies
        lies = Size(sheet.length_mm / wider, sheet.width_mm * wider, sheet.thickness_mm)
        thick = other.multiplies * here.made[n].figures.rolled.thickness_mm
        if wider > 1 and room.holds(lies) and thick > sheet.thickness_mm:
            label = f"A {fold_name(other)} before it"
            return [Fix(label, (Put(here.path("fold", n), other.value),))]
    return []


def _divided(here: Here[Any], sheet: Size, room: Rolled) -> list[Fix]:
    """The dough in so many parts that the sheet fits; the block keeps its thickness."""
    over = min(
        max(s.length_mm / room.long_mm, s.width_mm / room.wide_mm) for s in (sheet, sheet.turned)
    )
    parts = math.ceil(over**2 * 1.02)
    side = 1 / math.sqrt(parts)
    recipe = here.recipe
    puts = [
        Put("dough.mass_g", round(recipe.dough.mass_g / parts, 1)),
        Put("butter.mass_g", round(recipe.butter.mass_g / parts, 1)),
    ]
    for n, step in enumerate(here.steps):
        for name in ("block_width_mm", "block_length_mm", "width_mm", "length_mm"):
            now = getattr(step, name, None)
            if now:
                puts.append(Put(here.path(name, n), float(round(now * side))))
                if now * side < _LEAST_BLOCK_MM:
                    return []
    return [Fix(f"Divide the dough in {parts}, {g(recipe.dough.mass_g / parts)} each", tuple(puts))]


def said_of_rolling(how: Rolling) -> str:
    """The dial of a sheeter, pass by pass; nothing by hand."""
    if not how.gaps_mm:
        return ""
    first = f" Flatten it to {mm(how.flatten_to_mm)} first." if how.flatten_to_mm else ""
    return f"{first} Dial: {', '.join(f'{gap:g}' for gap in how.gaps_mm)}."
