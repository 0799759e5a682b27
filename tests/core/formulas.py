"""Formulas the core tests start from."""

from dataclasses import replace

from lamination.dough.formula import Formula, Line, Mixing, Preferment, PrefermentKind
from lamination.terms.rests import Place, Rest

LEAN = {
    "flour-strong": 100,
    "water": 52,
    "sugar": 11,
    "butter-table": 6,
    "salt": 2,
    "yeast-fresh": 3,
}


def formula(lines=LEAN, **changes) -> Formula:
    base = Formula(tuple(Line(k, v) for k, v in lines.items()), mixing=Mixing())
    return replace(base, **changes)


def poolish(flour=30.0, hydration=100.0, yeast=10.0, minutes=720.0) -> Preferment:
    rest = Rest(Place.BENCH, minutes)
    return Preferment(PrefermentKind.POOLISH, flour, hydration, yeast, rest)
