"""What a step puts on or in a dough: an ingredient of the shelf, or anything by its name."""

from __future__ import annotations

from typing import Any

from lamination.dough.recipe import Recipe, contents_of
from lamination.dough.weighing import WeighLine
from lamination.materials.ingredients import Ingredient
from lamination.steps.base import Here, Weighs
from lamination.terms.said import named


def found(what: str, recipe: Recipe) -> Ingredient | None:
    """The ingredient of the shelf that is meant by its key or its name; None where it has none."""
    if what in recipe.shelf:
        return recipe.shelf[what]
    by_name = {i.name.lower(): i for i in recipe.shelf}
    return by_name.get(what.lower())


def weighed(here: Here[Any], what: str, grams: float) -> Weighs:
    """So much of it on a sheet of the step's own; what nobody knows anything of is named as such."""
    thing = found(what, here.recipe)
    key, name = (thing.key, thing.name) if thing else (what, named(what))
    line = WeighLine(f"{here.step.id}/{key}", key, name, round(grams, 1), grams)
    return Weighs(
        here.name, (line,), contents_of([thing] if thing else [], () if thing else (what,))
    )
