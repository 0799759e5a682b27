"""Changes to a plan that need the work of others in it: each takes a plan and gives a plan.

What a screen can set by itself it sets; what must be solved for (grams into percent, a yeast into
another, a block from a frame, a dough from the pieces wanted) is asked for here.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import replace

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.baking import converted
from lamination.pieces.products import Shape
from lamination.pieces.shaping import Card
from lamination.plan.amend_formula import (
    add_line,
    add_preferment,
    drop_formula,
    formula_of,
    give_formula,
    line_grams,
    line_ingredient,
)
from lamination.plan.amendment import Amendment, Change
from lamination.plan.plan import Plan
from lamination.plan.starts import BLOCK_SHAPES, nice_side
from lamination.plan.walk import recipe_of
from lamination.plan.work import work
from lamination.sheet.lockin import block_over_package, sheet_over_block
from lamination.steps import KINDS
from lamination.steps.bake import Baking
from lamination.steps.lock_in import locked
from lamination.steps.roll_up import RollUp
from lamination.terms.limits import Fault, Faults, Range
from lamination.terms.said import g, mm
from lamination.terms.sizes import Size
from lamination.terms.trade import Method

_STEP_G = 10.0
_PACKAGE_AREAS = (1.0, 0.7, 1.4, 2.0, 2.8)  # tried, of the package as it was; the likeliest first


def amend(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """The plan with one change made.

    Raises :class:`Faults`, with the paths of the amendment (``index``, ``value``, ``ingredient``),
    when the change does not apply to this plan, or those of the plan when what would come of it is
    no plan.
    """
    try:
        return _HOW[asked.change](plan, asked, kitchen)
    except Faults as wrong:
        raise Faults(*(_in_plan(f) for f in wrong.faults)) from None


def _in_plan(fault: Fault) -> Fault:
    """A fault of the formula alone, with its path in the plan."""
    return fault.under("formula") if fault.field.startswith("lines") else fault


def _add_step(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """A step of a kind, put where it is asked for; what makes no sense says why."""
    kind = KINDS.get(asked.ingredient or "")
    if kind is None or kind.fresh is None:
        raise Faults(Fault("ingredient", "There is no such kind of step."))
    at = min(asked.index or 0, len(plan.steps))
    new = kind.fresh(plan.steps, at)
    return plan.with_steps(*plan.steps[:at], new, *plan.steps[at:])


def _butter(plan: Plan, grams: float) -> Plan:
    return replace(plan, butter=replace(plan.butter, mass_g=round(max(grams, 1.0), 1)))


def _butter_share(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """The block that makes its butter a share of the dough, of the whole or of the flour.

    With p of pure butter in the block and q of flour in it: p·m / (D + q·m), p·m / (D + m), or
    p·m / (F + q·m) is the share s, so m follows.
    """
    share = (asked.value or 0.0) / 100
    pure = plan.butter.pure_g / plan.butter.mass_g
    flour, dough = 1 - pure, plan.dough.mass_g
    if asked.change is Change.BUTTER_OF_WHOLE:
        below, of = pure - share, dough
    else:
        below, of = pure - share * flour, dough
        if asked.change is Change.BUTTER_OF_FLOUR:
            found = recipe_of(plan, kitchen).flour_g
            if not found:
                raise Faults(Fault("value", "Without a formula nobody knows the flour."))
            of = found
    if below <= 0:
        raise Faults(Fault("value", "No block can give that share of butter. Enter less."))
    return _butter(plan, share * of / below)


def _method(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """Another way to lock in, with the block that suits it.

    An envelope wants a square, and only some have a margin. The block keeps its sides where nothing
    more is to be minded than before; else it has those that leave the package as it was, or the first
    usual shape that is clean.
    """
    try:
        method = {m.value: m for m in Method}[asked.ingredient or ""]
    except KeyError:
        raise Faults(Fault("ingredient", "There is no such way to lock in.")) from None
    now, before = plan.lock_in, plan
    values = {"method": method, "overlap_mm": 0.0}
    if not method.has_margin:
        values |= {"margin_mm": 0.0, "off_centre_mm": 0.0}
    if method.is_square:
        side = float(round(math.sqrt(now.block_width_mm * now.block_length_mm)))
        values |= {"block_width_mm": side, "block_length_mm": side}
        if method is Method.ENVELOPE:
            values["overlap_mm"] = now.overlap_mm
    plan = plan.changed(now, **values)
    if method.butter_outside and not plan.butter.flour_pct:
        flour = kitchen["inverse_flour_pct"]
        whole = plan.butter.mass_g * (1 + flour / 100)
        butter = replace(plan.butter, flour_pct=flour, mass_g=round(whole, 1))
        plan = replace(plan, butter=butter)
    return _suited(before, plan, kitchen)


def _minded(plan: Plan, kitchen: Kitchen) -> set[tuple[str, str]]:
    """What is to be minded about a plan, by place and code."""
    return {n.key for n in work(plan, kitchen).notes if n.tone in ("mind", "tight")}


def _suited(before: Plan, plan: Plan, kitchen: Kitchen) -> Plan:
    """A plan locked in another way, its block as that way wants it: the first of some that is clean."""
    try:
        allowed = _minded(before, kitchen)
        package = locked(before.lock_in, recipe_of(before, kitchen)).package
    except Faults:
        return plan
    best: tuple[int, Plan] | None = None
    chosen = plan.lock_in
    sides = [(chosen.block_width_mm, chosen.block_length_mm)]
    sides += _likely_sides(chosen.method, chosen.share_pct / 100, package)
    for width, length in sides:
        tried = _block(plan, width, length)
        try:
            more = len(_minded(tried, kitchen) - allowed)
        except Faults:
            continue
        if best is None or more < best[0]:
            best = more, tried
        if not more:
            break
    return best[1] if best else plan


def _likely_sides(method: Method, share: float, package: Size) -> Iterator[tuple[float, float]]:
    """Width and length of blocks, in whole cm: whose package is as it was, or of another usual shape."""
    over = block_over_package(method, share)
    yield nice_side(package.width_mm), nice_side(package.length_mm * over)
    for times in _PACKAGE_AREAS:
        for shape in BLOCK_SHAPES:
            length = math.sqrt(package.length_mm * package.width_mm * times / shape)
            yield nice_side(length * shape), nice_side(length * over)


def _block(plan: Plan, width_mm: float, length_mm: float, margin_mm: float | None = None) -> Plan:
    chosen = plan.lock_in
    if chosen.method.is_square:
        width_mm = length_mm = math.sqrt(width_mm * length_mm)
    return plan.changed(
        chosen,
        block_width_mm=round(width_mm, 1),
        block_length_mm=round(length_mm, 1),
        margin_mm=chosen.margin_mm if margin_mm is None else margin_mm,
    )


def _butter_mm3(plan: Plan, kitchen: Kitchen) -> float:
    recipe = recipe_of(plan, kitchen)
    return recipe.butter_physics.volume_mm3(recipe.block_g)


def _block_thickness(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    thickness = asked.value or 0.0
    complaint = Range(1, 200, "mm").complaint(thickness)
    if complaint:
        raise Faults(Fault("value", complaint))
    area = _butter_mm3(plan, kitchen) / thickness
    return _block(plan, plan.lock_in.block_width_mm, area / plan.lock_in.block_width_mm)


def _block_frame(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """The frame's sides; where its height is known it says how much butter it takes as well."""
    width, length, high = (kitchen[f"frame.{side}_mm"] for side in ("width", "length", "height"))
    if high:
        recipe = recipe_of(plan, kitchen)
        block_g = width * length * high * recipe.per_mm3[1]
        plan = _butter(plan, block_g / (1 - recipe.later_pct / 100))
    return _block(plan, width, length)


def _block_tray(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """The tray's width fixes one side, half its length the other: the dough then lies on the tray."""
    return _block(plan, kitchen["tray.width_mm"], kitchen["tray.length_mm"] / 2)


def _block_as_dough(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """Butter as thick as the dough under it, at this thickness of dough.

    Without margins both lie on sides that grow together, so their ratio is a matter of the butter
    share alone. What can be chosen is a bare margin: it makes the dough sheet larger and thinner.
    Solved by bisection; where butter is the thicker already no margin helps.
    """
    chosen = plan.lock_in
    panels = sheet_over_block(chosen.method)
    if panels is None:
        text = "This way of locking in has no margin to choose; change the butter share instead."
        raise Faults(Fault("change", text))
    butter = _butter_mm3(plan, kitchen)
    dough = recipe_of(plan, kitchen).dough_physics.volume_mm3(plan.dough.mass_g)
    length, width = chosen.block_length_mm, chosen.block_width_mm
    thickness = butter / (length * width)

    def dough_mm(margin: float) -> float:
        return dough / (panels * (length + 2 * margin) * (width + 2 * margin))

    if dough_mm(0) < thickness:
        grams = plan.butter.mass_g * dough_mm(0) / thickness
        text = (
            f"Here the butter is the thicker one already: {mm(thickness)} over {mm(dough_mm(0))} of "
            f"dough. {g(grams)} of butter would be as thick."
        )
        raise Faults(Fault("change", text))
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
    steps = tuple(s.grown(grow) for s in plan.steps)
    return replace(
        plan,
        steps=steps,
        dough=replace(plan.dough, mass_g=dough_g),
        butter=replace(plan.butter, mass_g=round(dough_g * share, 1)),
    )


def _pieces(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """The least dough that gives so many pieces from one sheet, to ten grams.

    Pieces come row by row, so more dough does not always give more: the least is searched for.
    """
    wanted = round(asked.value or 0.0)
    if wanted < 1:
        raise Faults(Fault("value", "At least one piece."))

    def gives(steps: int) -> int:
        cut = work(scaled(plan, steps * _STEP_G), kitchen).cut
        return cut.pieces if cut else 0

    now = round(plan.dough.mass_g / _STEP_G)
    if not gives(max(now, 1)):
        raise Faults(Fault("value", "Say first what the last sheet is cut into."))
    high = max(1, math.ceil(now * wanted / gives(max(now, 1))))
    while gives(high) < wanted:
        high = math.ceil(high * 1.05) + 1
    low = max(high // 2, 1)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if gives(middle) < wanted else (low, middle)
    return scaled(plan, (low if gives(low) >= wanted else high) * _STEP_G)


def _piece_g(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """Base, height or thickness that gives a product's piece its weight."""
    cut, made = plan.cut, work(plan, kitchen).cut
    if cut is None or made is None or (asked.index or 0) >= len(cut.products):
        raise Faults(Fault("index", "This plan cuts no such product."))
    n, wanted = asked.index or 0, asked.value or 0.0
    product, now = cut.products[n], made.products[n].piece_g
    if not 0.1 <= wanted <= 20_000:
        raise Faults(Fault("value", f"Must be from {g(0.1)} to {g(20_000)}."))
    times = wanted / now
    if asked.change is Change.PIECE_THICKNESS:
        last = plan.last_sheet
        thick = work(plan, kitchen).final.thickness_mm * times
        return plan.changed(last, roll_to_mm=round(thick, 2), length_mm=None)
    if asked.change is Change.PIECE_HEIGHT and product.shape.has_height and product.height_mm:
        sized = replace(product, height_mm=round(product.height_mm * times, 1))
    elif product.shape is Shape.RING:
        # the hole stays: π/4·(d² - hole²) grows as the weight
        base = math.sqrt(product.hole_mm**2 + (product.base_mm**2 - product.hole_mm**2) * times)
        sized = replace(product, base_mm=round(base, 1))
    else:
        # what has one size grows with the root of its area
        sliced = plan.first(RollUp) is not None
        grows = times if product.shape.has_height or sliced else math.sqrt(times)
        sized = replace(product, base_mm=round(product.base_mm * grows, 1))
    products = (*cut.products[:n], sized, *cut.products[n + 1 :])
    return plan.changed(cut, products=products)


def _oven(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """The bake for the other kind of oven."""
    baking = plan.first(Baking)
    if baking is None:
        raise Faults(Fault("change", "This plan has no bake yet."))
    return plan.changed(baking, bake=converted(baking.bake, baking.bake.oven.other, kitchen))


def _flour(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """As much dough as the flour at hand makes, and no more than there is.

    The block keeps its sides where nothing more is to be minded than before.
    """
    formula = formula_of(plan)
    fed_share = formula.old_dough.share_pct / 100 if formula.old_dough else 0.0
    in_block = plan.butter.flour_g / plan.dough.mass_g
    per_dough = 100 / formula.total_pct * (1 - fed_share) + in_block
    dough_g = math.floor(10 * (asked.value or 0.0) / per_dough) / 10
    larger = scaled(plan, dough_g)
    same_sides = replace(plan, dough=larger.dough, butter=larger.butter)
    try:
        fits = _minded(same_sides, kitchen) <= _minded(plan, kitchen)
    except Faults:
        fits = False
    return same_sides if fits else larger


def _card(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """A product shaped in another way, of as many strands as that way has."""
    cut, n = plan.cut, asked.index or 0
    if cut is None or n >= len(cut.products):
        raise Faults(Fault("index", "This plan cuts no such product."))
    name = asked.ingredient or ""
    own = next((c.key for c in kitchen.cards if c.key == name), None)
    card = next((c for c in Card if c.value == name), None)
    if card is None and own is None:
        raise Faults(Fault("ingredient", "There is no such way of shaping."))
    product = replace(
        cut.products[n],
        card=card or cut.products[n].card,
        own_card=None if card else own,
        strands=card.strands if card else 1,
    )
    products = (*cut.products[:n], product, *cut.products[n + 1 :])
    return plan.changed(cut, products=products)


_HOW: dict[Change, Callable[[Plan, Amendment, Kitchen], Plan]] = {
    Change.GIVE_FORMULA: give_formula,
    Change.DROP_FORMULA: drop_formula,
    Change.ADD_STEP: _add_step,
    Change.BUTTER_SHARE: _butter_share,
    Change.BUTTER_OF_WHOLE: _butter_share,
    Change.BUTTER_OF_FLOUR: _butter_share,
    Change.METHOD: _method,
    Change.LINE_GRAMS: line_grams,
    Change.LINE_INGREDIENT: line_ingredient,
    Change.ADD_LINE: add_line,
    Change.ADD_PREFERMENT: add_preferment,
    Change.BLOCK_THICKNESS: _block_thickness,
    Change.BLOCK_FRAME: _block_frame,
    Change.BLOCK_TRAY: _block_tray,
    Change.BLOCK_AS_DOUGH: _block_as_dough,
    Change.CARD: _card,
    Change.PIECES: _pieces,
    Change.PIECE_BASE: _piece_g,
    Change.PIECE_HEIGHT: _piece_g,
    Change.PIECE_THICKNESS: _piece_g,
    Change.OVEN: _oven,
    Change.FLOUR: _flour,
}
