"""Labels: what is in a product, its allergens, and what nobody here knows anything of."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from lamination.dough.recipe import Contents, Recipe, contents_of
from lamination.pieces.baking import WASH_OF, Wash
from lamination.steps.base import Here
from lamination.steps.cut import Cut
from lamination.steps.offcuts import Offcuts
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
    name: str, recipe: Recipe, with_it: tuple[str, ...], washes: tuple[Wash, ...] = ()
) -> Label:
    """The label of a product: dough and butter, what goes with it by key or name, and its wash."""
    shelf = recipe.shelf
    by_name = {i.name.lower(): i for i in shelf}
    wanted = [*with_it]
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
        name,
        tuple(dict.fromkeys((*own.names, *more.names))),
        tuple(a.said for a in allergens),
        tuple(unknown),
        not unknown,
        named(" ".join(asks)),
    )


def labels_of(here: Here[Any]) -> tuple[Label, ...]:
    """The labels of everything a plan makes, with what was strewn in and every wash of the plan on them."""
    found = (getattr(s, "wash", None) for s in here.steps)
    washes = tuple(wash for wash in found if isinstance(wash, Wash))
    carried = tuple(dict.fromkeys(c.what for m in here.made for c in m.lies.carried))
    labels = []
    for _, step, _ in here.all_of(Cut):
        for p in step.products:
            filled = (p.filling,) if p.filling else ()
            on = tuple(t.ingredient for t in p.toppings)
            labels.append(label_of(p.name, here.recipe, (*carried, *filled, *on), washes))
    for _, step, _ in here.all_of(Offcuts):
        labels.append(label_of(step.product, here.recipe, carried))
    return tuple(labels)
