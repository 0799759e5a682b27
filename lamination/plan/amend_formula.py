"""Changes to a plan's formula: its lines, its preferments, whether it has one at all."""

from __future__ import annotations

import math
from dataclasses import replace

from lamination.dough.formula import Formula, Line, PrefermentKind
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Ingredient, Kind
from lamination.plan.amendment import Amendment
from lamination.plan.plan import Plan
from lamination.plan.starts import starting_formula
from lamination.steps.mix import Mixing
from lamination.steps.preferment import Preferment
from lamination.terms.limits import Fault, Faults
from lamination.terms.rests import Rest
from lamination.terms.trade import Place

_USUAL_PCT = {Kind.FLOUR: 0.0, Kind.WATER: 10.0, Kind.MILK: 10.0, Kind.YEAST: 2.0, Kind.SALT: 2.0}


def formula_of(plan: Plan) -> Formula:
    """The formula of a plan that has one. Raises Faults (``change``) of one that has none."""
    if plan.formula is None:
        raise Faults(Fault("change", "This plan has no formula yet. Give it one first."))
    return plan.formula


def _line(plan: Plan, asked: Amendment) -> tuple[Formula, int]:
    formula = formula_of(plan)
    i = asked.index or 0
    if i >= len(formula.lines):
        n = len(formula.lines)
        raise Faults(Fault("index", f"The formula has {n} ingredients, counted from 0."))
    return formula, i


def line_grams(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
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
    return with_dough(replace(plan, formula=replace(formula, lines=lines)), dough_g)


def with_dough(plan: Plan, dough_g: float) -> Plan:
    """So much dough, the block's sides as they are; the butter by its share, or by weight where held."""
    butter = plan.butter
    if not butter.by_weight:
        grams = round(butter.mass_g * dough_g / plan.dough.mass_g, 1)
        butter = replace(butter, mass_g=max(grams, 1.0))
    return replace(plan, dough=replace(plan.dough, mass_g=dough_g), butter=butter)


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


def line_ingredient(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """Another ingredient on a line; a yeast takes the place of another at the same strength."""
    formula, i = _line(plan, asked)
    formula, new = _found(plan, formula, asked, kitchen)
    old, pct = formula.parts[i]
    if old.as_fresh and new.as_fresh:
        pct = round(pct * old.as_fresh / new.as_fresh, 3)
    lines = list(formula.lines)
    lines[i] = Line(new.key, pct)
    return replace(plan, formula=replace(formula, lines=tuple(lines)))


def add_line(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """One more ingredient, at the share that is usual for its kind."""
    formula, new = _found(plan, formula_of(plan), asked, kitchen)
    line = Line(new.key, _USUAL_PCT.get(new.kind, 5.0))
    return replace(plan, formula=replace(formula, lines=(*formula.lines, line)))


def give_formula(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """A formula of the family, and the mixing that goes with it."""
    if plan.formula:
        return plan
    steps = plan.steps if plan.first(Mixing) else (Mixing(), *plan.steps)
    return replace(plan, formula=starting_formula(plan.family), steps=steps)


def drop_formula(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """The plan without its formula, nor the steps that want one."""
    steps = tuple(s for s in plan.steps if not isinstance(s, Mixing | Preferment))
    return replace(plan, formula=None, steps=steps)


def add_preferment(plan: Plan, asked: Amendment, kitchen: Kitchen) -> Plan:
    """A preferment of its usual shares, or as much as the formula's liquid and yeast allow."""
    formula = formula_of(plan)
    kind = asked.preferment or PrefermentKind.POOLISH
    there = [p for _, p in plan.preferments]

    def usual(name: str) -> float:
        return kitchen[f"preferment.{kind}_{name}"]

    hydration = usual("hydration_pct")
    liquid = formula.liquid_pct - sum(p.flour_pct * p.hydration_pct / 100 for p in there)
    left = 100 - sum(p.flour_pct for p in there)
    flour = math.floor(min(usual("flour_pct"), left, 100 * liquid / hydration))
    if flour < 1:
        text = "The formula has no flour or liquid left for another preferment."
        raise Faults(Fault("preferment", text))
    yeast = min(usual("yeast_pct"), 100 - sum(p.yeast_pct for p in there))
    place = Place.FRIDGE if kind is PrefermentKind.SPONGE else Place.BENCH
    new = Preferment(
        kind,
        flour,
        hydration,
        yeast if formula.has_yeast else 0.0,
        rest=Rest.at(place, usual("min")),
    )
    return plan.with_steps(*there, new, *(s for s in plan.steps if not isinstance(s, Preferment)))
