"""Starting points: a whole plan from a family and a mass of dough, for a baker to change.

A new plan is a clean plan: it fits the kitchen's own bench or belt and its shelf, and there is nothing
to mind about it. Where so much dough cannot be rolled in one, it is divided into doughs alike.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from lamination.dough.formula import Formula, Line
from lamination.dough.recipe import Butter, Dough
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.machines import Rolled, rolled_by
from lamination.pieces.baking import Bake, Colour, Oven, Stage, Wash
from lamination.pieces.products import Product, Shape
from lamination.pieces.shaping import Card
from lamination.plan.plan import Plan
from lamination.plan.walk import recipe_of, walk
from lamination.plan.work import work
from lamination.steps.bake import Baking
from lamination.steps.base import Step
from lamination.steps.cut import Cut
from lamination.steps.flatten import Flattening
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.look import Looking
from lamination.steps.mix import MixFigures, Mixing
from lamination.steps.shape import Shaping
from lamination.steps.turn import Turn
from lamination.steps.wash import Washing
from lamination.terms.limits import Fault, Faults
from lamination.terms.rests import Rest
from lamination.terms.trade import Family, Fold, Method, Place, Tool

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
        Product("Plait", Shape.STRIP, 25, 280, card=Card.PLAIT, strands=3),
    )
}
_SQUARE = USUAL_PRODUCTS[Shape.SQUARE]
_CUTS: dict[Family, Product] = {
    Family.CROISSANT: USUAL_PRODUCTS[Shape.TRIANGLE],
    Family.DANISH: replace(_SQUARE, name="Pinwheel", card=Card.PINWHEEL),
    Family.BRIOCHE: replace(USUAL_PRODUCTS[Shape.RECTANGLE], base_mm=90),
    Family.KOUIGN: replace(_SQUARE, name="Kouign", card=Card.FLAT),
    Family.PUFF: replace(_SQUARE, name="Turnover", card=Card.TURNOVER),
}
_LINES: dict[Family, dict[str, float]] = {
    Family.CROISSANT: {"flour-strong": 100, "water": 36, "milk-whole": 18, "sugar": 11, "salt": 2,
                       "yeast-fresh": 3.5, "butter-table": 6},
    Family.DANISH: {"flour-strong": 100, "water": 24, "milk-whole": 20, "egg-whole": 12,
                    "sugar": 12, "salt": 1.8, "yeast-fresh": 5, "butter-table": 8},
    Family.BRIOCHE: {"flour-strong": 100, "egg-whole": 40, "milk-whole": 8, "water": 8, "sugar": 13,
                     "salt": 2, "yeast-fresh": 4, "butter-table": 28},
    Family.KOUIGN: {"flour-strong": 100, "water": 60, "salt": 2.2, "yeast-fresh": 2,
                    "butter-table": 3},
    Family.PUFF: {"flour-medium": 100, "water": 48, "salt": 2, "vinegar": 1, "butter-table": 10},
}  # fmt: skip
_PROOFS: dict[Family, Rest] = {
    Family.CROISSANT: Rest.at(Place.PROOFER, 165),
    Family.DANISH: Rest.at(Place.PROOFER, 90),
    Family.BRIOCHE: Rest.at(Place.PROOFER, 150),
    Family.KOUIGN: Rest.at(Place.BENCH, 45),
    Family.PUFF: Rest.at(Place.FRIDGE, 30),
}
_YEASTED = Bake(Oven.DECK, (Stage(4, 220, steam=True), Stage(14, 190)), core_c=94)
_BAKES: dict[Family, Bake] = {
    Family.CROISSANT: _YEASTED,
    Family.DANISH: _YEASTED,
    Family.BRIOCHE: Bake(Oven.DECK, (Stage(22, 180),), core_c=92),
    Family.KOUIGN: Bake(Oven.DECK, (Stage(30, 185),), core_c=97, colour=Colour.DEEP),
    Family.PUFF: Bake(
        Oven.DECK, (Stage(10, 220, steam=True), Stage(18, 185)), core_c=96, colour=Colour.DEEP
    ),
}
BLOCK_SHAPES = (1.3, 1.0, 1.6, 0.8, 2.0)  # width over length, the likeliest first
_MOST_PARTS = 60
_COOL_DAY_C = 17.0


def starting_formula(family: Family) -> Formula:
    """A formula a family commonly has, without a preferment. Source: trade practice."""
    return Formula(tuple(Line(key, pct) for key, pct in _LINES[family].items()))


def starting_finish(family: Family) -> tuple[Step, ...]:
    """From the cut piece to the look, as a family commonly has it. Source: trade practice."""
    kouign = family is Family.KOUIGN
    bake = Baking(_BAKES[family], moulded=kouign, sugared=kouign, rest=Rest.at(Place.BENCH, 30))
    wash: tuple[Step, ...] = () if kouign else (Washing(Wash.EGG),)
    return (Shaping(rest=_PROOFS[family]), *wash, bake, Looking())


def starting_plan(
    name: str,
    family: Family,
    dough_g: float,
    kitchen: Kitchen,
    with_formula: bool = True,
    rolled: Tool | None = None,
) -> Plan:
    """A plan that works for ``dough_g`` of dough: formula, butter, block, turns, sheet, cut and bake.

    Where the bench or belt does not take it in one, the plan is of one of several doughs alike, and
    its words say how many. Raises Faults for a mass or a name that no plan can have. Source: trade
    practice (see ``kitchen/practice.py``).
    """
    Dough(dough_g)
    start = _Start(name, family, kitchen, with_formula, rolled)
    first: Plan | None = None
    for parts in range(1, _MOST_PARTS + 1):
        for shape in BLOCK_SHAPES:
            plan = start.plan(dough_g / parts, parts, shape)
            if plan is None:
                continue
            first = first or plan
            if not any(n.tone in ("mind", "tight") for n in work(plan, kitchen).notes):
                return plan
    if first is None:
        raise Faults(*_impossible(start))
    return first


def _impossible(start: _Start) -> tuple[Fault, ...]:
    text = "No sheet of this dough fits where it is rolled. Look at the bench in the Kitchen."
    return (Fault("mass_g", text),)


@dataclass(frozen=True)
class _Start:
    """What a plan starts from."""

    name: str
    family: Family
    kitchen: Kitchen
    with_formula: bool
    rolled: Tool | None

    def plan(self, dough_g: float, parts: int, shape: float) -> Plan | None:
        """A plan of one dough of so many; None where its sheets cannot be laid out."""
        kitchen, family = self.kitchen, self.family
        room = rolled_by(self.rolled, kitchen)
        dough = Dough(round(dough_g, 1))
        share = kitchen.of_family(family, "start_butter_pct") / 100
        butter = Butter(max(1.0, round(dough.mass_g * share)), ingredient=kitchen.butter)
        formula = starting_formula(family) if self.with_formula else None
        bare = Plan(
            self.name, family, dough, butter, (LockIn(Method.HALF, 100, 100), LastSheet(0.5)),
            formula=formula, rolled_by=self.rolled,
        )  # fmt: skip
        recipe = recipe_of(bare, kitchen)
        butter_mm3 = recipe.butter_physics.volume_mm3(butter.mass_g)
        whole_mm3 = butter_mm3 + recipe.dough_physics.volume_mm3(dough.mass_g)
        block = self._block(butter_mm3, shape)
        sheets = self._sheets(whole_mm3, block, room)
        if sheets is None:
            return None
        turns, last = sheets
        steps: list[Step] = []
        if formula:
            by_hand = dough.mass_g * parts < kitchen["mixer.least_g"]
            rest = Rest.at(Place.FRIDGE, 60) if family.yeasted else None
            steps.append(
                Mixing(rest=rest, by_hand=by_hand, wanted_c=24.0 if family.yeasted else 20.0)
            )
        steps.append(Flattening(rest=Rest.at(Place.FRIDGE, 720 if family.yeasted else 180)))
        steps += [LockIn(Method.HALF, *block), *turns, last, Cut((_CUTS[family],))]
        steps += starting_finish(family)
        words = f"One of {parts} doughs alike." if parts > 1 else ""
        try:
            return self._reachable(replace(bare, steps=tuple(steps), words=words))
        except Faults:
            return None

    def _reachable(self, plan: Plan) -> Plan:
        """The dough as warm as its water can make it, on a cool day too."""
        mixing = plan.first(Mixing)
        if mixing is None:
            return plan
        cool = self.kitchen.changed({"room.c": min(self.kitchen["room.c"], _COOL_DAY_C)})
        water = next(
            m.figures.water for m in walk(plan, cool).made if isinstance(m.figures, MixFigures)
        )
        if water is None or water.reached or water.ice_g:
            return plan
        return plan.changed(mixing, wanted_c=math.floor(2 * water.dough_c) / 2)

    def _block(self, butter_mm3: float, shape: float) -> tuple[float, float]:
        """Width and length of the block, in whole centimetres where there is room for it."""
        area = butter_mm3 / self.kitchen["start_block_mm"]
        length = nice_side(math.sqrt(area / shape))
        return nice_side(area / length), length

    def _sheets(
        self, whole_mm3: float, block: tuple[float, float], room: Rolled
    ) -> tuple[tuple[Turn, ...], LastSheet] | None:
        kitchen, family = self.kitchen, self.family
        share = kitchen["start_room_share"]
        long, wide = share * room.long_mm, room.wide_mm
        folds = _FOLDS[family]
        # the package lies turned: its width along the roll, its length across
        across = block[1]
        rolls: list[tuple[Fold, float]] = []
        for fold in folds:
            roll = max(kitchen["start_roll_mm"], math.ceil(2 * whole_mm3 / long / across) / 2)
            length = whole_mm3 / roll / across
            if across > wide or (rolls and roll >= rolls[-1][1] * rolls[-1][0].multiplies):
                return None
            rolls.append((fold, roll))
            across = length / fold.multiplies
            if across > wide:
                return None
        quick = room.tool is Tool.SHEETER
        turns = tuple(
            Turn(fold, roll, rest=Rest.at(Place.FRIDGE, 30 if quick and not fold.is_book else 40))
            for fold, roll in rolls
        )
        last_mm = sum(kitchen.of_family(family, f"last_sheet_mm.{e}") for e in ("low", "high")) / 2
        last_mm = math.floor(last_mm * 2) / 2
        package = sorted((across, whole_mm3 / (rolls[-1][1] * rolls[-1][0].multiplies) / across))
        height = _CUTS[family].across_mm
        for strips in range(1, 40):
            width = strips * height
            length = whole_mm3 / last_mm / width
            if width > wide or width < package[0]:
                continue
            if length <= long and length >= _CUTS[family].base_mm * 2:
                return turns, LastSheet(last_mm, width, rest=Rest.at(Place.FRIDGE, 10))
        # so little that a whole row is wider than the sheet is long: as wide as it comes
        if whole_mm3 / last_mm / across <= long and across <= wide and whole_mm3 < 1.2e6:
            return turns, LastSheet(last_mm, rest=Rest.at(Place.FRIDGE, 10))
        return None


def nice_side(side_mm: float) -> float:
    """A side in whole centimetres, as a baker would fold the paper."""
    return min(max(10.0 * round(side_mm / 10), 30.0), 4_000.0)
