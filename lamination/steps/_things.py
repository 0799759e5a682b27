"""What a step puts on or in a dough: an ingredient of the shelf, or anything by its name."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Any

from lamination.dough.recipe import Recipe
from lamination.dough.shopping import weigh_lines
from lamination.materials.ingredients import Ingredient
from lamination.pieces.products import Product
from lamination.steps.base import Here, Weighs

FILL_AND_TOP = "Fill and top"


def found(what: str, recipe: Recipe) -> Ingredient | None:
    """The ingredient of the shelf that is meant by its key or its name; None where it has none."""
    return recipe.shelf.find(what)


def weighed(here: Here[Any], what: str, grams: float) -> Weighs:
    """So much of it on a sheet of the step's own; what nobody knows anything of is named as such."""
    return weighed_all(here, here.name, [(what, grams)])


def weighed_all(here: Here[Any], name: str, of: Iterable[tuple[str, float]]) -> Weighs:
    """So much of each on a sheet of that name."""
    return Weighs(name, *weigh_lines(here.step.id, of, here.recipe.shelf))


def fill_and_top(
    products: Iterable[tuple[Product, float]],
) -> list[tuple[str, float]]:
    """What goes in and on so many pieces of each product, g; without what nobody said how much of."""
    put = (
        (what, grams * pieces) for product, pieces in products for what, grams in put_on(product)
    )
    return [(what, grams) for what, grams in put if grams]


def put_on(product: Product) -> Iterator[tuple[str, float]]:
    """What goes in and on one piece, by key or name, g: 0 where nobody said how much."""
    if product.filling:
        yield product.filling, product.filling_g
    for topping in product.toppings:
        yield topping.ingredient, topping.grams
