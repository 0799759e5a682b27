"""Labels: what goes into a product and on it, its allergens, and what nobody here knows anything of.

One rule for every place where something can stand (:func:`goes_in`): the formula and what of it lies in a
preferment, old dough, the butter and the flour in it, what is strewn or spread, a filling, a topping, a mark,
a glaze, the wash, what is put on before a second bake, and what tins are greased with.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from lamination.dough.recipe import Contents, Recipe, contents_of
from lamination.materials.ingredients import Ingredient, Kind
from lamination.materials.preparations import MOST_DEEP, Preparation
from lamination.pieces.products import Product
from lamination.steps._things import found, put_on
from lamination.steps.base import Here, Step
from lamination.steps.cut import Cut
from lamination.steps.offcuts import Offcuts
from lamination.terms.said import named

GREASE = "what the tins are greased with"
THE_DOUGH = "the dough"
# added water that is less of the finished product than this need not be declared; local law decides
_WATER_FROM_PCT = 5.0


@dataclass(frozen=True, slots=True)
class Declared:
    """An ingredient as a label declares it; ``of``: what it is made of itself, by falling weight.

    ``share_pct``: of all that goes in; None where nobody said how much. ``allergens``: those it brings.
    """

    name: str
    share_pct: float | None
    allergens: tuple[str, ...]
    of: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Label:
    """A product's label: what is in it, its allergens, and what nobody here knows anything of.

    ``complete`` is false where anything is unknown: such a label must not look finished. ``ask`` says
    what to ask, ``says`` all of it in a sentence. ``declared``: the ingredients by falling weight, as baked
    goods are declared: water as what the oven leaves of it. ``baked_g``: what one weighs, ``keeps_h``: how
    long it stays good, by the house's own rows; None where nothing is cut. Local labelling law decides what a
    label must say.
    """

    product: str
    contains: tuple[str, ...]
    allergens: tuple[str, ...]
    unknown: tuple[str, ...]
    complete: bool
    ask: str
    says: str = ""
    declared: tuple[Declared, ...] = ()
    baked_g: float | None = None
    keeps_h: float | None = None


def goes_in(
    here: Here[Any], cut_n: int, product: Product, made: Any
) -> Iterator[tuple[str, float]]:
    """Everything that goes into one piece of a product and on it: by key or name, g.

    0 g where nobody said how much. ``cut_n``: the step that cuts it; ``made``: what comes of it there.
    """
    recipe = here.recipe
    carried = here.made[cut_n].lies.carried
    whole = recipe.dough.mass_g + recipe.butter_g + sum(c.grams for c in carried)
    share = made.piece_g / whole if whole else 0.0
    yield from ((what, grams * share) for what, grams in _in_dough(recipe))
    yield from ((c.what, c.grams * share) for c in carried)
    yield from put_on(product)
    for n, step in enumerate(here.steps[cut_n + 1 :], cut_n + 1):
        yield from _put_on_later(step, here.made[n].figures, product)


def _put_on_later(step: Step, figures: Any, product: Product) -> Iterator[tuple[str, float]]:
    """What a step after the cut puts on each piece."""
    parts = getattr(step, "parts", ())  # a wash
    for what, of in parts:
        pieces = getattr(figures, "pieces", 0) or 1
        yield what, of * figures.takes_g / max(pieces, 1)
    if step.kind_name == "again":
        yield getattr(step, "what"), getattr(step, "grams")  # noqa: B009
    if step.kind_name == "shape" and product.card.in_tin:
        yield getattr(step, "release", None) or GREASE, 0.0


def _in_dough(recipe: Recipe) -> Iterator[tuple[str, float]]:
    """What dough and butter of a plan hold, g; a dough without a formula is not known."""
    formula = recipe.formula
    if formula is None:
        yield THE_DOUGH, recipe.dough.mass_g
    else:
        # old dough is a dough of the same formula; the butter in trimmings is counted as dough here
        per_pct = recipe.dough.mass_g / formula.total_pct
        yield from ((what.key, pct * per_pct) for what, pct in formula.parts if pct)
    if not recipe.butterless:
        yield recipe.butter_kind.key, recipe.butter.pure_g
        if recipe.butter.flour_pct:
            yield recipe.butter_flour.key, recipe.butter.flour_g
        yield from recipe.butter.held


def _declared(
    recipe: Recipe, put: list[tuple[str, float]], loss_pct: float
) -> tuple[tuple[Declared, ...], Contents]:
    grams: dict[str, float] = {}
    for what, mass_g in put:
        thing = found(what, recipe)
        key = thing.key if thing else what
        grams[key] = grams.get(key, 0.0) + mass_g
    things = {key: recipe.shelf[key] for key in grams if key in recipe.shelf}
    unknown = [key for key in grams if key not in things]
    whole = sum(grams.values())
    lost = whole * loss_pct / 100
    for key, thing in things.items():
        if thing.kind is Kind.WATER:
            grams[key] = max(grams[key] - lost, 0.0)
    left = max(whole - lost, 1e-9)
    told = sorted(grams.items(), key=lambda of: -of[1])
    lines = tuple(
        _line(things.get(key), key, mass_g, whole, recipe)
        for key, mass_g in told
        if not (_is_water(things.get(key)) and 100 * mass_g / left < _WATER_FROM_PCT)
    )
    return lines, contents_of(things.values(), unknown)


def _is_water(thing: Ingredient | None) -> bool:
    return thing is not None and thing.kind is Kind.WATER


def _line(
    thing: Ingredient | None, key: str, grams: float, whole_g: float, recipe: Recipe
) -> Declared:
    share = round(100 * grams / whole_g, 2) if grams and whole_g else None
    if thing is None:
        return Declared(named(key), share, ())
    allergens = tuple(a.said for a in thing.allergens)
    return Declared(named(thing.name), share, allergens, _inside(thing, recipe, 0))


def _inside(thing: Ingredient, recipe: Recipe, deep: int) -> tuple[str, ...]:
    """What a preparation is made of, by falling weight."""
    made: Preparation | None = next(
        (p for p in recipe.kitchen.preparations if p.key == thing.key), None
    )
    if made is None or deep >= MOST_DEEP:
        return ()
    inside = []
    for part in sorted(made.parts, key=lambda p: -p.grams):
        of = found(part.what, recipe)
        name = named(of.name if of else part.what)
        within = _inside(of, recipe, deep + 1) if of else ()
        inside.append(f"{name} ({', '.join(within)})" if within else name)
    return tuple(inside)


def label_of(
    name: str,
    recipe: Recipe,
    put: list[tuple[str, float]],
    baked_g: float | None = None,
    keeps_h: float | None = None,
    loss_pct: float | None = None,
) -> Label:
    """The label of a product, from all that goes into it and on it.

    ``loss_pct``: what it loses as it is baked or fried; None as in the oven.
    """
    loss = recipe.kitchen["bake.loss_pct"] if loss_pct is None else loss_pct
    declared, contents = _declared(recipe, put, loss)
    asks = [
        f"{what.removeprefix('the ').capitalize()}: allergens not known, ask the baker."
        for what in contents.unknown
    ]
    return Label(
        name,
        contents.names,
        tuple(a.said for a in contents.allergens),
        contents.unknown,
        not contents.unknown,
        named(" ".join(asks)),
        contents.declared(),
        declared,
        baked_g,
        keeps_h,
    )


def labels_of(here: Here[Any]) -> tuple[Label, ...]:
    """The labels of everything a plan makes."""
    labels = []
    # in the oven or in the fat, whichever the plan has
    lost = (getattr(made.figures, "loss_pct", None) for made in here.made)
    loss = next((pct for pct in lost if pct is not None), here.kitchen["bake.loss_pct"])
    recipe = here.recipe
    for n, step, made in here.all_of(Cut):
        for product, of in zip(step.products, made.figures.products, strict=True):
            put = list(goes_in(here, n, product, of))
            raw = of.piece_g + sum(grams for _, grams in put_on(product))
            baked = round(raw * (1 - loss / 100), 1)
            labels.append(label_of(product.name, recipe, put, baked, _keeps_h(here, put), loss))
    for n, step, _ in here.all_of(Offcuts):
        carried = [(c.what, c.grams) for c in here.made[n].lies.carried]
        labels.append(label_of(step.product, recipe, [*_in_dough(recipe), *carried]))
    return tuple(labels)


def contents_at(here: Here[Any]) -> Contents:
    """What is in what lies there after a step: everything that has gone into it or on it."""
    recipe, made = here.recipe, here.made[here.n]
    put = [*_in_dough(recipe), *((c.what, c.grams) for c in made.lies.carried)]
    cut = next(((n, s, m) for n, s, m in here.all_of(Cut) if n <= here.n), None)
    if cut:
        for product, of in zip(cut[1].products, cut[2].figures.products, strict=True):
            until = replace(here, steps=here.steps[: here.n + 1], made=here.made[: here.n + 1])
            put += goes_in(until, cut[0], product, of)
    return _declared(recipe, put, 0.0)[1]


def _keeps_h(here: Here[Any], put: list[tuple[str, float]]) -> float:
    """How long it stays good, h: by the house's row, and never longer than a preparation in it."""
    kind = "yeasted" if here.recipe.family.yeasted else "puff"
    keeps = [here.kitchen[f"keep.baked_{kind}_h"]]
    used = {thing.key for what, _ in put if (thing := found(what, here.recipe))}
    keeps += [p.keeps_h for p in here.kitchen.preparations if p.key in used]
    return min(keeps)
