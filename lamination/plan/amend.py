"""Changes to a plan that need the work of others in it: each takes a plan and gives a plan.

What a screen can set by itself it sets; what must be solved for (grams into percent, a yeast into
another, a block from a frame, a dough from the pieces wanted) is asked for here.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Annotated

from lamination.dough.formula import Formula, Line, Preferment, PrefermentKind
from lamination.dough.recipe import butter_physics, dough_physics
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Ingredient, Kind
from lamination.pieces.cutting import Shape
from lamination.pieces.finish import Oven, converted
from lamination.plan.plan import Plan
from lamination.plan.starts import starting_formula
from lamination.plan.work import work
from lamination.sheet.lockin import Method
from lamination.terms.limits import Checked, Fault, Faults, Length, Range, say
from lamination.terms.rests import Place, Rest


class Change(StrEnum):
    """What is asked for."""

    GIVE_FORMULA = "give_formula"
    LINE_GRAMS = "line_grams"  # index, value g
    LINE_INGREDIENT = "line_ingredient"  # index, ingredient
    ADD_LINE = "add_line"  # ingredient
    ADD_PREFERMENT = "add_preferment"  # preferment
    BLOCK_THICKNESS = "block_thickness"  # value mm; the width stays
    BLOCK_FRAME = "block_frame"
    BLOCK_TRAY = "block_tray"
    BLOCK_AS_DOUGH = "block_as_dough"
    PIECES = "pieces"  # value, so many from one sheet
    PIECE_BASE = "piece_base"  # index of a product, value g: the base that gives it
    PIECE_HEIGHT = "piece_height"  # the same by the height
    PIECE_THICKNESS = "piece_thickness"  # the same by the thickness of the sheet
    OVEN = "oven"  # the bake in the other kind of oven
    FLOUR = "flour"  # value g of flour at hand, all of it for one dough


@dataclass(frozen=True)
class Amendment(Checked):
    """One change. Which other fields are needed depends on ``change``; Faults name those missing."""

    change: Change
    value: Annotated[float, Range(0, 1_000_000)] | None = None
    index: Annotated[int, Range(0, 29)] | None = None
    ingredient: Annotated[str, Length(1, 40, "characters")] | None = None
    preferment: PrefermentKind | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        missing = [n for n in _NEEDS.get(self.change, ()) if getattr(self, n) is None]
        if missing:
            raise Faults(*(Fault(n, f"“{self.change}” needs this.") for n in missing))


_NEEDS: dict[Change, tuple[str, ...]] = {
    Change.LINE_GRAMS: ("index", "value"),
    Change.LINE_INGREDIENT: ("index", "ingredient"),
    Change.ADD_LINE: ("ingredient",),
    Change.ADD_PREFERMENT: ("preferment",),
    Change.BLOCK_THICKNESS: ("value",),
    Change.PIECES: ("value",),
    Change.PIECE_BASE: ("index", "value"),
    Change.PIECE_HEIGHT: ("index", "value"),
    Change.PIECE_THICKNESS: ("index", "value"),
    Change.FLOUR: ("value",),
}
# what a preferment commonly starts from: share of flour, its hydration, share of yeast, rest
_PREFERMENTS = {
    PrefermentKind.POOLISH: (25.0, 100.0, 5.0, Rest(Place.BENCH, 720)),
    PrefermentKind.SPONGE: (30.0, 55.0, 20.0, Rest(Place.FRIDGE, 960)),
}
_USUAL_PCT = {Kind.FLOUR: 0.0, Kind.WATER: 10.0, Kind.MILK: 10.0, Kind.YEAST: 2.0, Kind.SALT: 2.0}
_STEP_G = 10.0


def amend(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """The plan with one change made.

    Raises :class:`Faults`, with the paths of the amendment (``index``, ``value``, ``ingredient``),
    when the change does not apply to this plan, or those of the plan when what would come of it is
    no plan.
    """
    if asked.change is Change.GIVE_FORMULA:
        return replace(plan, formula=plan.formula or starting_formula(plan.family))
    try:
        return _HOW[asked.change](plan, asked, kitchen)
    except Faults as wrong:
        raise Faults(*(_in_plan(f) for f in wrong.faults)) from None


def _in_plan(fault: Fault) -> Fault:
    """A fault of the formula alone, with its path in the plan."""
    return fault.under("formula") if fault.field.startswith(("lines", "preferments")) else fault


def _formula_of(plan: Plan) -> Formula:
    if plan.formula is None:
        raise Faults(Fault("change", "This plan has no formula yet. Give it one first."))
    return plan.formula


def _line(plan: Plan, asked: Amendment) -> tuple[Formula, int]:
    formula = _formula_of(plan)
    i = asked.index or 0
    if i >= len(formula.lines):
        n = len(formula.lines)
        raise Faults(Fault("index", f"The formula has {n} ingredients, counted from 0."))
    return formula, i


def _line_grams(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """Set one ingredient's grams; every other keeps its own, so percentages and dough follow."""
    formula, i = _line(plan, asked)
    fed_share = formula.old_dough.share_pct / 100 if formula.old_dough else 0.0
    per_pct = plan.dough.mass_g * (1 - fed_share) / formula.total_pct
    grams = [line.pct * per_pct for line in formula.lines]
    grams[i] = asked.value or 0.0
    flour = sum(
        g for g, (what, _) in zip(grams, formula.parts, strict=True) if what.kind is Kind.FLOUR
    )
    if flour <= 0:
        raise Faults(Fault("value", "Without flour there is no formula. Leave some."))
    lines = tuple(
        replace(line, pct=round(100 * g / flour, 4))
        for line, g in zip(formula.lines, grams, strict=True)
    )
    dough_g = round(sum(grams) / (1 - fed_share), 1)
    return replace(
        plan,
        formula=replace(formula, lines=lines),
        dough=replace(plan.dough, mass_g=dough_g),
    )


def _found(
    plan: Plan, formula: Formula, asked: Amendment, kitchen: Kitchen
) -> tuple[Formula, Ingredient]:
    """The ingredient asked for; the bakery's own comes into the formula with it."""
    key = asked.ingredient or ""
    if key in formula.shelf:
        return formula, formula.shelf[key]
    for own in kitchen.ingredients:
        if own.key == key:
            return replace(formula, own=(*formula.own, own)), own
    raise Faults(Fault("ingredient", formula.shelf.complaint(key)))


def _line_ingredient(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """Another ingredient on a line; a yeast takes the place of another at the same strength."""
    formula, i = _line(plan, asked)
    formula, new = _found(plan, formula, asked, kitchen)
    old, pct = formula.parts[i]
    if old.as_fresh and new.as_fresh:
        pct = round(pct * old.as_fresh / new.as_fresh, 3)
    lines = list(formula.lines)
    lines[i] = Line(new.key, pct)
    return replace(plan, formula=replace(formula, lines=tuple(lines)))


def _add_line(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    formula, new = _found(plan, _formula_of(plan), asked, kitchen)
    line = Line(new.key, _USUAL_PCT.get(new.kind, 5.0))
    return replace(plan, formula=replace(formula, lines=(*formula.lines, line)))


def _add_preferment(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """A preferment of its usual shares, or as much as the formula's liquid and yeast allow."""
    formula = _formula_of(plan)
    kind = asked.preferment or PrefermentKind.POOLISH
    flour, hydration, yeast, rest = _PREFERMENTS[kind]
    flour_left = 100 - sum(p.flour_pct for p in formula.preferments)
    yeast_left = 100 - sum(p.yeast_pct for p in formula.preferments)
    liquid_left = sum(
        pct for what, pct in formula.parts if what.kind in (Kind.WATER, Kind.MILK)
    ) - sum(p.flour_pct * p.hydration_pct / 100 for p in formula.preferments)
    flour = math.floor(min(flour, flour_left, 100 * liquid_left / hydration))
    if flour < 1:
        raise Faults(
            Fault("preferment", "The formula has no flour or liquid left for another preferment.")
        )
    has_yeast = any(what.kind is Kind.YEAST and pct > 0 for what, pct in formula.parts)
    new = Preferment(kind, flour, hydration, min(yeast, yeast_left) if has_yeast else 0.0, rest)
    return replace(plan, formula=replace(formula, preferments=(*formula.preferments, new)))


def _block(plan: Plan, width_mm: float, length_mm: float, margin_mm: float | None = None) -> Plan:
    chosen = plan.lock_in
    if chosen.method is Method.ENVELOPE:
        width_mm = length_mm = math.sqrt(width_mm * length_mm)
    return replace(
        plan,
        lock_in=replace(
            chosen,
            block_width_mm=round(width_mm, 1),
            block_length_mm=round(length_mm, 1),
            margin_mm=chosen.margin_mm if margin_mm is None else margin_mm,
        ),
    )


def _butter_mm3(plan: Plan, kitchen: Kitchen) -> float:
    return plan.butter.mass_g / butter_physics(plan, kitchen).density_kg_m3 * 1e6


def _block_thickness(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    thickness = asked.value or 0.0
    complaint = Range(1, 200, "mm").complaint(thickness)
    if complaint:
        raise Faults(Fault("value", complaint))
    area = _butter_mm3(plan, kitchen) / thickness
    return _block(plan, plan.lock_in.block_width_mm, area / plan.lock_in.block_width_mm)


def _block_frame(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    return _block(plan, kitchen["frame.width_mm"], kitchen["frame.length_mm"])


def _block_tray(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """The tray's width fixes one side, half its length the other: the dough then lies on the tray."""
    return _block(plan, kitchen["tray.width_mm"], kitchen["tray.length_mm"] / 2)


def _block_as_dough(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """Butter as thick as the dough under it, at this thickness of dough.

    Without margins both lie on sides that grow together, so their ratio is a matter of the butter
    share alone. What can be chosen is a bare margin: it makes the dough sheet larger and thinner.
    Solved by bisection; where butter is the thicker already no margin helps.
    """
    butter = _butter_mm3(plan, kitchen)
    dough = plan.dough.mass_g / dough_physics(plan, kitchen).density_kg_m3 * 1e6
    chosen = plan.lock_in
    if chosen.method is Method.ENVELOPE:
        raise Faults(
            Fault(
                "change", "The envelope has no margin to choose; change the butter share instead."
            )
        )
    panels = 2 if chosen.method is Method.HALF else 1.5
    length, width = chosen.block_length_mm, chosen.block_width_mm
    thickness = butter / (length * width)

    def dough_mm(margin: float) -> float:
        return dough / (panels * (length + 2 * margin) * (width + 2 * margin))

    if dough_mm(0) < thickness:
        grams = plan.butter.mass_g * dough_mm(0) / thickness
        raise Faults(
            Fault(
                "change",
                f"Here the butter is the thicker one already: {say(thickness)} mm over "
                f"{say(dough_mm(0))} mm of dough. {say(grams)} g of butter would be as thick.",
            )
        )
    low, high = 0.0, 200.0
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (middle, high) if dough_mm(middle) > thickness else (low, middle)
    return _block(plan, width, length, round(low, 1))


def scaled(plan: Plan, dough_g: float) -> Plan:
    """The plan for another mass of dough: the same butter share and the same thickness of block.

    Both sides of the block grow with the root of the mass, so every roll stays as it was planned.
    """
    share = plan.butter.mass_g / plan.dough.mass_g
    grow = math.sqrt(dough_g / plan.dough.mass_g)
    plan = _block(plan, plan.lock_in.block_width_mm * grow, plan.lock_in.block_length_mm * grow)
    return replace(
        plan,
        dough=replace(plan.dough, mass_g=dough_g),
        butter=replace(plan.butter, mass_g=round(dough_g * share, 1)),
    )


def _pieces(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """As much dough as so many pieces want from one sheet, rounded up to ten grams."""
    wanted = asked.value or 0.0
    cut = work(plan, kitchen).cut
    if cut is None or not cut.pieces:
        raise Faults(Fault("value", "Say first what the last sheet is cut into."))
    if wanted < 1:
        raise Faults(Fault("value", "At least one piece."))
    grams = plan.dough.mass_g
    for _ in range(4):  # the ends are lost once, whatever the length: two or three rounds settle it
        grams = math.ceil(grams * wanted / cut.pieces / _STEP_G - 1e-9) * _STEP_G
        cut = work(scaled(plan, grams), kitchen).cut
        if cut is None or not cut.pieces or cut.pieces == round(wanted):
            break
    while cut and cut.pieces < wanted:
        grams += _STEP_G * max(1, round(cut.piece_g * (wanted - cut.pieces) / _STEP_G))
        cut = work(scaled(plan, grams), kitchen).cut
    return scaled(plan, grams)


def _piece_g(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """Base, height or thickness that gives a product's piece its weight."""
    cut, made = plan.cut, work(plan, kitchen).cut
    if cut is None or made is None or (asked.index or 0) >= len(cut.products):
        raise Faults(Fault("index", "This plan cuts no such product."))
    n, wanted = asked.index or 0, asked.value or 0.0
    product, now = cut.products[n], made.products[n].piece_g
    if not 0.1 <= wanted <= 20_000:
        raise Faults(Fault("value", "A piece weighs from 0.1 to 20000 g."))
    times = wanted / now
    if asked.change is Change.PIECE_THICKNESS:
        return replace(
            plan, final=replace(plan.final, roll_to_mm=round(plan.final.roll_to_mm * times, 2))
        )
    if asked.change is Change.PIECE_HEIGHT and product.shape.has_height and product.height_mm:
        sized = replace(product, height_mm=round(product.height_mm * times, 1))
    elif product.shape is Shape.RING:
        # the hole stays: π/4·(d² - hole²) grows as the weight
        base = math.sqrt(product.hole_mm**2 + (product.base_mm**2 - product.hole_mm**2) * times)
        sized = replace(product, base_mm=round(base, 1))
    else:
        # what has one size grows with the root of its area
        grows = times if product.shape.has_height else math.sqrt(times)
        sized = replace(product, base_mm=round(product.base_mm * grows, 1))
    products = (*cut.products[:n], sized, *cut.products[n + 1 :])
    return replace(plan, cut=replace(cut, products=products))


def _oven(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """The bake for the other kind of oven."""
    if plan.finish is None:
        raise Faults(Fault("change", "This plan has no bake yet."))
    other = Oven.FAN if plan.finish.bake.oven is Oven.DECK else Oven.DECK
    return replace(
        plan, finish=replace(plan.finish, bake=converted(plan.finish.bake, other, kitchen))
    )


def _flour(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """As much dough as the flour at hand makes."""
    formula = _formula_of(plan)
    fed_share = formula.old_dough.share_pct / 100 if formula.old_dough else 0.0
    grams = (asked.value or 0.0) * formula.total_pct / 100 / (1 - fed_share)
    return scaled(plan, round(grams, 1))


_HOW: dict[Change, Callable[[Plan, Amendment, Kitchen], Plan]] = {
    Change.LINE_GRAMS: _line_grams,
    Change.LINE_INGREDIENT: _line_ingredient,
    Change.ADD_LINE: _add_line,
    Change.ADD_PREFERMENT: _add_preferment,
    Change.BLOCK_THICKNESS: _block_thickness,
    Change.BLOCK_FRAME: _block_frame,
    Change.BLOCK_TRAY: _block_tray,
    Change.BLOCK_AS_DOUGH: _block_as_dough,
    Change.PIECES: _pieces,
    Change.PIECE_BASE: _piece_g,
    Change.PIECE_HEIGHT: _piece_g,
    Change.PIECE_THICKNESS: _piece_g,
    Change.OVEN: _oven,
    Change.FLOUR: _flour,
}
