"""What a step puts on or in a dough: an ingredient of the shelf, or anything by its name."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from lamination.dough.recipe import Recipe, contents_of
from lamination.dough.shopping import Needed
from lamination.dough.weighing import WeighLine
from lamination.materials.ingredients import Ingredient
from lamination.pieces.products import Product
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


def put_on(product: Product, pieces: float, recipe: Recipe) -> Iterator[Needed]:
    """What so many pieces of a product take of their filling and toppings."""
    put = [(t.ingredient, t.grams) for t in product.toppings]
    if product.filling and product.filling_g:
        put.append((product.filling, product.filling_g))
    for what, grams in put:
        thing = found(what, recipe)
        key, name = (thing.key, thing.name) if thing else (what, named(what))
        yield Needed(key, name, grams * pieces)
