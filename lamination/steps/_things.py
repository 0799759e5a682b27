"""What a step puts on or in a dough: an ingredient of the shelf, or anything by its name."""

from __future__ import annotations

from lamination.dough.recipe import Recipe
from lamination.materials.ingredients import Ingredient


def found(what: str, recipe: Recipe) -> Ingredient | None:
    """The ingredient of the shelf that is meant by its key or its name; None where it has none."""
    if what in recipe.shelf:
        return recipe.shelf[what]
    by_name = {i.name.lower(): i for i in recipe.shelf}
    return by_name.get(what.lower())
