"""Plans and formulas that tests start from."""

from dataclasses import fields, replace

from lamination.dough.formula import Formula, Line, PrefermentKind
from lamination.dough.recipe import Butter, Dough
from lamination.pieces.products import Product, Shape
from lamination.pieces.shaping import Card
from lamination.plan.plan import Plan
from lamination.steps.cut import Cut
from lamination.steps.flatten import Flattening
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.mix import Mixing
from lamination.steps.preferment import Preferment
from lamination.steps.turn import Turn
from lamination.terms.rests import Rest
from lamination.terms.trade import Family, Fold, Method, Place

REST = Rest.at(Place.FRIDGE, 30)
LEAN = {
    "flour-strong": 100,
    "water": 52,
    "sugar": 11,
    "butter-table": 6,
    "salt": 2,
    "yeast-fresh": 3,
}
_PLAN = {f.name for f in fields(Plan)} - {"steps"}
_SLOTS = ("preferments", "mix", "flatten", "lock_in", "turns", "last_sheet", "cut", "finish")


def station(**changes) -> Plan:
    """The station kiosk's croissant: 2 400 g of dough, half lock-in, three letters."""
    croissant = Product("Croissant", Shape.TRIANGLE, 90, 280, card=Card.CRESCENT)
    base = Plan(
        "Station croissant",
        Family.CROISSANT,
        Dough(2400, 1120),
        Butter(650, 940),
        (
            Flattening(),
            LockIn(Method.HALF, block_width_mm=300, block_length_mm=230),
            *turns("letter", "letter", "letter"),
            LastSheet(4, width_mm=400),
            Cut((croissant,)),
        ),
    )
    return changed(base, **changes)


def turns(*folds: str, roll_to_mm: float = 8, rest: Rest | None = REST) -> tuple[Turn, ...]:
    return tuple(Turn(Fold(f), roll_to_mm, rest=rest) for f in folds)


def slots(plan: Plan) -> dict:
    """The steps of a plan by the part they play, each as a tuple."""
    found = dict.fromkeys(_SLOTS, ())
    of = {"preferment": "preferments", "turn": "turns", "shape": "finish", "wash": "finish",
          "bake": "finish", "look": "finish"}  # fmt: skip
    for step in plan.steps:
        name = of.get(step.do, step.do)
        found[name] = (*found[name], step)
    return found


def changed(plan: Plan, **changes) -> Plan:
    """The plan with other values, or other steps in some of its parts (None: none)."""
    parts = slots(plan)
    if changes.get("formula") and not parts["mix"]:
        changes.setdefault("mix", Mixing(flour_c=20))
    for name in [n for n in changes if n not in _PLAN]:
        value = changes.pop(name)
        assert name in parts, name
        parts[name] = value if isinstance(value, tuple) else () if value is None else (value,)
    steps = tuple(step for name in _SLOTS for step in parts[name])
    return replace(plan, steps=steps, **changes)


def with_formula(
    plan: Plan, of: Formula | None = None, mix: Mixing | None = None, *preferments
) -> Plan:
    """The plan with a formula, its mixing and its preferments."""
    return changed(
        plan, formula=of or formula(), mix=mix or Mixing(flour_c=20), preferments=tuple(preferments)
    )


def formula(lines=LEAN, **changes) -> Formula:
    return replace(Formula(tuple(Line(k, v) for k, v in lines.items())), **changes)


def poolish(flour=30.0, hydration=100.0, yeast=10.0, minutes=720.0) -> Preferment:
    rest = Rest.at(Place.BENCH, minutes)
    return Preferment(PrefermentKind.POOLISH, flour, hydration, yeast, rest=rest)
