"""Plans the core tests start from."""

from dataclasses import replace

from lamination.kitchen.practice import Family
from lamination.pieces.cutting import Product, Shape
from lamination.pieces.shaping import Card
from lamination.plan.plan import Butter, Cut, Dough, Final, LockIn, Plan, Turn
from lamination.sheet.folds import Fold
from lamination.sheet.lockin import Method
from lamination.terms.rests import Place, Rest

REST = Rest(Place.FRIDGE, 30)


def station(**changes) -> Plan:
    """The station kiosk's croissant: 2 400 g of dough, half lock-in, three letters."""
    base = Plan(
        name="Station croissant",
        family=Family.CROISSANT,
        dough=Dough(2400, 1120),
        butter=Butter(650, 940),
        lock_in=LockIn(Method.HALF, block_width_mm=300, block_length_mm=230),
        turns=turns("letter", "letter", "letter"),
        final=Final(4, width_mm=400),
        cut=Cut((Product("Croissant", Shape.TRIANGLE, 90, 280, card=Card.CRESCENT),)),
    )
    return replace(base, **changes)


def turns(*folds: str, roll_to_mm: float = 8, rest: Rest | None = REST) -> tuple[Turn, ...]:
    return tuple(Turn(Fold(f), roll_to_mm, rest) for f in folds)
