"""Starting points: a whole plan from a family and a mass of dough, for a baker to change."""

from __future__ import annotations

import math
from dataclasses import replace

from lamination.dough.formula import Formula, Line, Mixing
from lamination.dough.recipe import butter_physics, dough_physics
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import Family
from lamination.pieces.cutting import Product, Shape
from lamination.pieces.finish import starting_finish
from lamination.pieces.shaping import Card
from lamination.plan.plan import (
    Butter,
    Cut,
    Dough,
    Final,
    LockIn,
    Plan,
    Turn,
)
from lamination.sheet.folds import Fold
from lamination.sheet.lockin import Method
from lamination.terms.rests import Place, Rest

_FOLDS: dict[Family, tuple[Fold, ...]] = {
    Family.CROISSANT: (Fold.LETTER,) * 3,
    Family.DANISH: (Fold.LETTER,) * 3,
    Family.BRIOCHE: (Fold.BOOK, Fold.LETTER),
    Family.KOUIGN: (Fold.LETTER, Fold.LETTER),
    Family.PUFF: (Fold.LETTER,) * 6,
}
# What a shape is commonly cut to, mm, and what becomes of it. Source: trade practice.
USUAL_PRODUCTS: dict[Shape, Product] = {
    p.shape: p
    for p in (
        Product("Croissant", Shape.TRIANGLE, 90, 280, card=Card.CRESCENT),
        Product("Pocket", Shape.SQUARE, 100, card=Card.POCKET),
        Product("Roll", Shape.RECTANGLE, 80, 140, card=Card.ROLL),
        Product("Disc", Shape.DISC, 90),
        Product("Ring", Shape.RING, 90, hole_mm=55, card=Card.CASE),
        Product("Plait", Shape.STRIP, 25, 280, card=Card.PLAIT),
    )
}
_SQUARE = USUAL_PRODUCTS[Shape.SQUARE]
_CUTS: dict[Family, Product] = {
    Family.CROISSANT: USUAL_PRODUCTS[Shape.TRIANGLE],
    Family.DANISH: replace(_SQUARE, name="Pinwheel", card=Card.PINWHEEL),
    Family.BRIOCHE: replace(USUAL_PRODUCTS[Shape.RECTANGLE], base_mm=90),
    Family.KOUIGN: replace(_SQUARE, name="Kouign"),
    Family.PUFF: replace(_SQUARE, name="Turnover", card=Card.TURNOVER),
}
_OVERNIGHT = Rest(Place.FRIDGE, 60)
_LINES: dict[Family, dict[str, float]] = {
    Family.CROISSANT: {"flour-strong": 100, "water": 36, "milk-whole": 18, "sugar": 11, "salt": 2,
                       "yeast-fresh": 3.5, "butter-table": 6},
    Family.DANISH: {"flour-strong": 100, "water": 24, "milk-whole": 20, "egg-whole": 12,
                    "sugar": 12, "salt": 1.8, "yeast-fresh": 4.5, "butter-table": 8},
    Family.BRIOCHE: {"flour-strong": 100, "egg-whole": 40, "milk-whole": 16, "sugar": 13,
                     "salt": 2, "yeast-fresh": 4, "butter-table": 28},
    Family.KOUIGN: {"flour-strong": 100, "water": 60, "salt": 2.2, "yeast-fresh": 2,
                    "butter-table": 3},
    Family.PUFF: {"flour-medium": 100, "water": 48, "salt": 2, "vinegar": 1, "butter-table": 10},
}  # fmt: skip
_BLOCK_SHAPE = 1.3  # width over length: the first roll then starts from the longer side


def starting_formula(family: Family) -> Formula:
    """A formula a family commonly has, without a preferment. Source: trade practice."""
    lines = tuple(Line(key, pct) for key, pct in _LINES[family].items())
    return Formula(lines, mixing=Mixing(rest=_OVERNIGHT if family is not Family.PUFF else None))


def starting_plan(
    name: str, family: Family, dough_g: float, kitchen: Kitchen, with_formula: bool = True
) -> Plan:
    """A plan that works for ``dough_g`` of dough: formula, butter, block, turns, sheet and cut.

    Butter share and block thickness are the kitchen's starting values; every roll is the thinnest
    of 8 mm and what lies on the bench, in half millimetres. Raises Faults for a mass or a name
    that no plan can have. Source: trade practice (see ``practice.py``).
    """
    dough = Dough(dough_g, rest=Rest(Place.FRIDGE, 720))
    butter = Butter(round(dough_g * kitchen[f"{family}.start_butter_pct"] / 100))
    plan = Plan(
        name,
        family,
        dough,
        butter,
        LockIn(Method.HALF, 100, 100),
        (),
        Final(1),
        formula=starting_formula(family) if with_formula else None,
    )
    butter_mm3 = butter.mass_g / butter_physics(plan, kitchen).density_kg_m3 * 1e6
    area = butter_mm3 / kitchen["start_block_mm"]
    longest = 0.96 * kitchen["bench.length_mm"]  # a hand's breadth free at the end
    folds = _FOLDS[family]
    # Every second roll makes the block's length grow as many times as the fold before had panels.
    most = longest / max(f.multiplies for f in folds)
    length = min(_nice(math.sqrt(area / _BLOCK_SHAPE)), 10 * math.floor(most / 10))
    width = min(_nice(area / length), kitchen["bench.width_mm"])
    cut = _CUTS[family]
    whole_mm3 = dough_g / dough_physics(plan, kitchen).density_kg_m3 * 1e6 + butter_mm3
    last_mm = (kitchen[f"{family}.last_sheet_mm.low"] + kitchen[f"{family}.last_sheet_mm.high"]) / 2
    last_mm = math.floor(last_mm * 2) / 2
    strips = max(1, math.ceil(whole_mm3 / last_mm / longest / cut.across_mm))
    roll = max(8.0, math.ceil(2 * whole_mm3 / longest / length) / 2)
    return replace(
        plan,
        lock_in=LockIn(Method.HALF, block_width_mm=width, block_length_mm=length),
        turns=tuple(Turn(f, roll, Rest(Place.FRIDGE, 40)) for f in folds),
        final=Final(last_mm, width_mm=strips * cut.across_mm, rest=Rest(Place.FRIDGE, 10)),
        cut=Cut((cut,)),
        finish=starting_finish(family),
    )


def _nice(side_mm: float) -> float:
    """A side in whole centimetres, as a baker would fold the paper."""
    return min(max(10.0 * round(side_mm / 10), 30.0), 4_000.0)
