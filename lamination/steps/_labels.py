"""Labels: what is in a product, its allergens, and what nobody here knows anything of."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from lamination.dough.recipe import Contents, Recipe, contents_of
from lamination.pieces.baking import WASH_OF, Wash
from lamination.pieces.cutting import Product
from lamination.steps.base import Here
from lamination.steps.cut import Cut
from lamination.terms.said import named


@dataclass(frozen=True, slots=True)
class Label:
    """A product's label: what is in it, its allergens, and what nobody here knows anything of.

    ``complete`` is false where anything is unknown: such a label must not look finished. ``ask`` says
    what to ask. Local labelling law decides what a label must say.
    """

    product: str
    contains: tuple[str, ...]
    allergens: tuple[str, ...]
    unknown: tuple[str, ...]
    complete: bool
    ask: str


def label_of(
    product: Product, recipe: Recipe, washes: tuple[Wash, ...], carried: tuple[str, ...] = ()
) -> Label:
    """The label of a product: dough, butter, what was strewn in, filling, toppings and wash together."""
    shelf = recipe.shelf
    by_name = {i.name.lower(): i for i in shelf}
    wanted = [*carried, *([product.filling] if product.filling else [])]
    wanted += [t.ingredient for t in product.toppings]
    wanted += [key for wash in washes for key in WASH_OF[wash]]
    known, unknown = [], list(recipe.contents.unknown)
    for what in wanted:
        found = shelf[what] if what in shelf else by_name.get(what.lower())
        if found:
            known.append(found)
        else:
            unknown.append(what)
    own: Contents = recipe.contents
    more = contents_of(known)
    allergens = tuple(dict.fromkeys((*own.allergens, *more.allergens)))
    asks = [f"{what.removeprefix('the ').capitalize()}: ask the baker." for what in unknown]
    return Label(
        product.name,
        tuple(dict.fromkeys((*own.names, *more.names))),
        tuple(a.said for a in allergens),
        tuple(unknown),
        not unknown,
        named(" ".join(asks)),
    )


def labels_of(here: Here[Any]) -> tuple[Label, ...]:
    """The labels of everything a plan cuts, with every wash of the plan on them."""
    found = (getattr(s, "wash", None) for s in here.steps)
    washes = tuple(wash for wash in found if isinstance(wash, Wash))
    carried = tuple(dict.fromkeys(c.what for m in here.made for c in m.lies.carried))
    return tuple(
        label_of(p, here.recipe, washes, carried)
        for _, step, _ in here.all_of(Cut)
        for p in step.products
    )
