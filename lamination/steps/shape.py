"""Shaping: cut pieces become what they are and go on trays; the rest after it is the proof."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Any, Literal

from lamination.dough.recipe import Recipe
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.house import bulk_g_ml
from lamination.pieces.cards import CARDS
from lamination.pieces.cutting import blank_in
from lamination.pieces.products import Product
from lamination.pieces.shaping import Card
from lamination.pieces.trays import OnTrays, WorkedTrays, on_tray, work_trays
from lamination.steps._labels import labels_of
from lamination.steps._things import found
from lamination.steps.base import (
    Alarm,
    Chapter,
    Form,
    Handling,
    Here,
    Kind,
    Lies,
    Made,
    Setting,
    Step,
    changes,
)
from lamination.steps.cut import Cut, CutFigures
from lamination.terms.advice import Note, Working
from lamination.terms.limits import Length
from lamination.terms.rests import Rest
from lamination.terms.said import c, counted, g, mm, named, say
from lamination.terms.trade import Place


@dataclass(frozen=True)
class Shaping(Step):
    """Pieces shaped by their cards; the rest after it is the proof, or the chill.

    ``release``: what tins are greased with, an ingredient or anything by its name.
    """

    release: Annotated[str, Length(1, 60, "characters")] | None = None

    do: Literal["shape"] = field(default="shape", kw_only=True)

    @property
    def proofs(self) -> bool:
        """What rests after it are shaped pieces."""
        return True


@dataclass(frozen=True, slots=True)
class Filled:
    """How much of a filled piece is its filling, % by mass, and by volume where its weight is known."""

    mass_pct: float
    volume_pct: float | None


@dataclass(frozen=True, slots=True)
class ShapeFigures:
    """Trays and loads; the humidity of the proofer; how thick the thickest shaped piece counts for.

    ``filled``: of each product; None where it has no filling. ``put_on``: trays that a topping or a
    glaze is put on, each counted once for each of them.
    """

    trays: WorkedTrays
    humidity_pct: float
    piece_mm: float
    filled: tuple[Filled | None, ...]
    put_on: int
    do: Literal["shape"] = "shape"


def effect(step: Shaping, lies: Lies, setting: Setting) -> Made:
    """Put the pieces on trays, as they were cut."""
    cut, made = lies.of_cut
    size = lies.size
    assert size is not None
    t = size.thickness_mm
    if lies.coil:  # a sheet that fills its section, with what is spread on it
        t = math.pi * lies.coil.diameter_mm**2 / (4 * size.length_mm)
    blanks = tuple(blank_in(p, cut.shrink_pct, cut.across) for p in cut.products)
    pieces = tuple(p.pieces for p in made.products)
    trays = work_trays(cut.products, blanks, pieces, t, setting.recipe.family, setting.kitchen)
    thick = max((p.shaped.even_mm for p in trays.products if p.trays), default=0.0)
    filled = tuple(
        _filled(p, of.piece_g, setting.recipe)
        for p, of in zip(cut.products, made.products, strict=True)
    )
    put_on = sum(
        len(p.toppings) * len(on.trays) for p, on in zip(cut.products, trays.products, strict=True)
    )
    figures = ShapeFigures(trays, setting.kitchen["proof.humidity_pct"], thick, filled, put_on)
    loads = max(len(trays.oven_loads), 1)
    there = replace(lies, form=Form.SHAPED, oven_loads=loads)
    return Made(there, figures, Handling(piece_mm=thick or None))


def _filled(product: Product, piece_g: float, recipe: Recipe) -> Filled | None:
    if not product.filling or not product.filling_g:
        return None
    mass = 100 * product.filling_g / (product.filling_g + piece_g)
    thing = found(product.filling, recipe)
    bulk = bulk_g_ml(thing) if thing else None
    if bulk is None:
        return Filled(mass, None)
    filling, dough = product.filling_g / bulk, piece_g / (1000 * _mean_per_mm3(recipe))
    return Filled(mass, 100 * filling / (filling + dough))


def _mean_per_mm3(recipe: Recipe) -> float:
    """Grams in a mm³ of dough and butter together."""
    share = recipe.butter_of_whole
    dough, butter = recipe.per_mm3
    return 1 / ((1 - share) / dough + share / butter)


def _minutes(step: Shaping, figures: ShapeFigures, kitchen: Kitchen) -> float:
    return kitchen["minutes.shape"] + kitchen["minutes.put_on"] * figures.put_on


def instruct(here: Here[Shaping]) -> Iterator[str]:
    """How many on how many trays, and by which card."""
    trays: WorkedTrays = here.figures.trays
    cut: Cut = here.before.of_cut[0]
    yield f"Shape {counted(sum(sum(p.pieces) for p in trays.products), 'piece')} on " + counted(
        trays.count, "tray"
    )
    for product, on in zip(cut.products, trays.products, strict=True):
        filled = f", {g(product.filling_g)} of filling each" if product.filling_g else ""
        yield (
            f"{named(product.name)}: {on.across} × {on.along} on a tray{filled}. "
            f"{_seal(product, here)}"
        )
    yield from _proofs(here)


def _seal(product: Product, here: Here[Shaping]) -> str:
    own = here.kitchen.card(product.own_card)
    return named(own.seal) if own else CARDS[product.card].seal


def _proofs(here: Here[Shaping]) -> Iterator[str]:
    """How the proofer is set, where it is used."""
    usual = here.kitchen.proofer_c(here.kitchen["room.c"])
    for stay in here.step.rest.passed if here.step.rest else ():
        if stay.place is not Place.PROOFER:
            continue
        at = usual if stay.air_c is None else stay.air_c
        to = "" if stay.to_c is None else f" to {c(stay.to_c)}"
        damp = here.figures.humidity_pct if stay.humidity_pct is None else stay.humidity_pct
        yield f"Proofer at {c(at)}{to}, {say(damp)} % humidity."


def mind(here: Here[Shaping]) -> Iterator[Note]:
    """Fillings, trays, the proofer's loads, and what nobody knows anything of."""
    trays: WorkedTrays = here.figures.trays
    _, cut, made = here.all_of(Cut)[0]
    figures: CutFigures = made.figures
    at = next(n for n, s in enumerate(here.steps) if s is cut)
    for n, (product, on) in enumerate(zip(cut.products, trays.products, strict=True)):
        usual = None if product.own_card else CARDS[product.card].filling_pct
        if product.own_card and here.kitchen.card(product.own_card) is None:
            yield here.note(
                f"card-{n}", "know", f"No card for {named(product.name)}",
                "The Kitchen has its card no more. It is shaped as it is cut until you choose another.",
                plan_field=here.path(f"products[{n}].own_card", at),
            )  # fmt: skip
        split = product.card in (Card.SPLIT, Card.SPLIT_KNOT) and not product.own_card
        if split and not any(s.kind_name == "roll_up" for s in here.steps):
            yield here.note(
                f"coil-{n}", "know", f"{named(product.name)} is made of a coil",
                "This card splits a coil: roll the sheet up before it is cut, or choose another card.",
                plan_field=here.path(f"products[{n}].card", at),
            )  # fmt: skip
        piece_g = figures.products[n].piece_g
        share = (
            100 * product.filling_g / (piece_g + product.filling_g) if product.filling_g else 0.0
        )
        if usual and share > usual[1]:
            yield here.note(
                f"filling-{n}", "know", f"A lot of filling in {named(product.name)}",
                f"It is {say(share)} % of the piece; usual is {say(usual[0])} to {say(usual[1])} %. It may "
                "open, or stay raw underneath.",
                plan_field=here.path(f"products[{n}].filling_g", at),
            )  # fmt: skip
        if product.per_tray is not None:
            yield from _closer(here, n, product, on)
        elif on.per_tray == 0:
            yield here.note(
                f"tray-{n}", "mind", f"{named(product.name)} is larger than the tray",
                f"Baked it is {mm(on.risen.length_mm, on.risen.width_mm)}; the tray is "
                f"{mm(trays.tray_length_mm, trays.tray_width_mm)}. Each gets one of its own.",
            )  # fmt: skip
    loads = trays.proofer_loads
    stays = here.step.rest.stays if here.step.rest else ()
    if len(loads) > 1 and any(s.place is Place.PROOFER for s in stays):
        yield here.note(
            "proofer-loads", "know", f"The proofer takes it in {len(loads)}",
            f"{counted(trays.count, 'tray')}, {len(loads[0].trays)} at a time. Shape the second load "
            "later, or keep it in the fridge meanwhile.",
        )  # fmt: skip
    unknown = [what for label in labels_of(here) for what in label.unknown]
    if unknown:
        what = ", ".join(f"“{named(w)}”" for w in dict.fromkeys(unknown))
        yield here.note(
            "unknown", "know", "The label is not complete",
            f"Nothing is known here of {what}, so its allergens are not on the label. Put it on the "
            "shelf in the Kitchen, or give the plan a formula.",
        )  # fmt: skip


def _closer(here: Here[Shaping], n: int, product: Product, on: OnTrays) -> Iterator[Note]:
    """More on a tray than the kitchen's gap leaves room for: they touch, which some mean them to."""
    trays = here.figures.trays
    gap = here.kitchen["bake_tray.gap_mm"]
    along, across = on_tray(on.risen, trays.tray_length_mm, trays.tray_width_mm, gap)
    if on.per_tray > along * across:
        at = next(k for k, s in enumerate(here.steps) if s.kind_name == "cut")
        yield here.note(
            f"closer-{n}", "know", f"{on.per_tray} {named(product.name)} to a tray",
            f"With {mm(gap)} between when they are baked, {along * across} would lie on it. So many touch "
            "and bake together at the sides.",
            plan_field=here.path(f"products[{n}].per_tray", at),
        )  # fmt: skip


def workings(here: Here[Shaping]) -> Iterator[Working]:
    """How large a piece gets, and how many of it a tray takes."""
    trays, gap = here.figures.trays, here.kitchen["bake_tray.gap_mm"]
    _, cut, _ = here.all_of(Cut)[0]
    for n, (product, on) in enumerate(zip(cut.products, trays.products, strict=True)):
        if not on.per_tray:
            continue
        if product.per_tray is not None:
            text = f"{on.per_tray} to a tray, because the plan says so."
            yield here.works(f"trays.products[{n}].per_tray", text)
            continue
        yield here.works(
            f"trays.products[{n}].per_tray",
            f"Shaped {mm(on.shaped.length_mm, on.shaped.width_mm)}, proofed and baked about "
            f"{mm(on.risen.length_mm, on.risen.width_mm)}. With {mm(gap)} between, a tray of "
            f"{mm(trays.tray_length_mm, trays.tray_width_mm)} takes {on.along} × {on.across} of "
            f"{named(product.name)}.",
        )


def alarms(here: Here[Any]) -> Iterator[Alarm]:
    """The end of the proof, or of a rest on the way to it: the signs decide, not the clock."""
    if here.step.rests:
        yield from changes(here.step)
        on_the_way = any(s.proofs and s.rests for s in here.steps[here.n + 1 :])
        proofed = here.recipe.family.yeasted and not on_the_way
        says = "the proof's time is up, look at the signs" if proofed else "its rest is over"
        yield Alarm("done", None, says)


KIND = Kind(
    of=Shaping,
    do="shape",
    name="Shape",
    stem="shape",
    rank=80,
    chapter=Chapter.OVEN,
    takes=frozenset((Form.PIECES,)),
    leaves=Form.SHAPED,
    effect=effect,
    figures=ShapeFigures,
    instruct=instruct,
    mind=mind,
    workings=workings,
    minutes=_minutes,
    alarms=alarms,
    by_tray=True,
    fresh=lambda _, __: Shaping(rest=Rest.at(Place.PROOFER, 150)),
    caution="Keep filled pieces cold, and limit their time in the warm as your local food code says. "
    "Allergens of the filling go on the label.",
)
