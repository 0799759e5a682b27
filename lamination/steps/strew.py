"""Strew or spread: sugar, salt, crumbs, a filling or soft butter on a package or on the last sheet."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from lamination.materials.house import bulk_g_ml
from lamination.steps._things import found, weighed
from lamination.steps.base import (
    Carried,
    Chapter,
    Form,
    Here,
    Kind,
    Lies,
    Made,
    Often,
    Setting,
    Step,
    Weighs,
)
from lamination.terms.advice import Note
from lamination.terms.limits import Length, Range
from lamination.terms.said import g, named, span
from lamination.terms.trade import Worded

_DRY_PCT = 3.0  # less water than that, and it takes the dough's
_DRAWS = re.compile(r"\b(sugar|salt)\b", re.IGNORECASE)


class Strewn(Worded):
    """Where it is laid."""

    ON = "on", "on top"
    UNDER = "under", "underneath"
    BOTH = "both", "half underneath, half on top"


@dataclass(frozen=True)
class Strew(Step):
    """What goes on it: an ingredient of the shelf or anything by name, how much, on which side.

    ``spread``: it is spread, as a filling or soft butter is, in place of strewn.
    """

    what: Annotated[str, Length(1, 60, "characters")]
    grams: Annotated[float, Range(0.1, 20_000, "g")]
    side: Strewn = Strewn.ON
    spread: bool = False
    do: Literal["strew"] = field(default="strew", kw_only=True)

    def grown(self, grow: float) -> Strew:
        """As much of it on every part of the dough."""
        return replace(self, grams=round(self.grams * grow**2, 1))


@dataclass(frozen=True, slots=True)
class StrewFigures:
    """What it is called, how much, and on each 100 g of dough; whether it draws water."""

    name: str
    grams: float
    of_dough_pct: float
    draws_water: bool
    do: Literal["strew"] = "strew"


def effect(step: Strew, lies: Lies, setting: Setting) -> Made:
    """It goes along with the dough from here on."""
    recipe = setting.recipe
    thing = found(step.what, recipe)
    draws = bool(_DRAWS.search(f"{step.what} {thing.name if thing else ''}"))
    if thing is not None:
        draws = draws and thing.composition.water_pct < _DRY_PCT
    figures = StrewFigures(
        thing.name if thing else step.what,
        step.grams,
        100 * step.grams / recipe.dough.mass_g,
        draws,
    )
    # on a package it goes into the dough with the next roll; on the last sheet it stays on top
    per_ml = (bulk_g_ml(thing) if thing else None) or setting.kitchen["strew.unknown_g_ml"]
    layer_mm3 = 1000 * step.grams / per_ml if lies.form is Form.SHEET else 0.0
    put = Carried(step.what, step.grams, layer_mm3)
    return Made(replace(lies, carried=(*lies.carried, put)), figures)


def instruct(here: Here[Strew]) -> Iterator[str]:
    """How much of what, and on which side."""
    step, made = here.step, here.figures
    does = "Spread" if step.spread else "Strew"
    yield f"{does} {g(step.grams)} of {named(made.name.lower())} {step.side.said}"
    if step.spread:
        yield "Thin and even, short of the edge that is sealed."
    elif here.before.form is Form.PACKAGE:
        folds = any(s.kind_name == "turn" for s in here.steps[here.n :])
        how = "it goes in with the next fold" if folds else "it is rolled in with the last sheet"
        yield f"Evenly, and press it in lightly with the pin: {how}."
    else:
        yield "Evenly, and roll over it once so that it holds."
    if made.draws_water:
        yield "Then be quick: it draws water out of the dough."


def _minutes_to_cut(here: Here[Strew]) -> float:
    """How long it lies in the dough before the pieces are shaped, or as far as the plan goes, min."""
    minutes = 0.0
    for step in here.steps[here.n :]:
        if step.kind_name in ("shape", "bake"):
            break
        minutes += step.rest.minutes if step.rest else 0.0
    return minutes


def mind(here: Here[Strew]) -> Iterator[Note]:
    """What draws water and then lies for long; what nobody knows anything of."""
    made = here.figures
    waits = _minutes_to_cut(here)
    most = here.kitchen["strew.draws_min"]
    if made.draws_water and waits > most:
        yield here.note(
            "draws-water", "know", "It will draw water",
            f"{span(waits)} of rest are still to come before the pieces are shaped; after about "
            f"{span(most)} it runs, and the package slips and sticks. Put it in at the last turn, or rest "
            "it less from here on.",
        )  # fmt: skip


def weighs(here: Here[Strew]) -> Iterator[Weighs]:
    """What is strewn, on a sheet of its own."""
    yield weighed(here, here.step.what, here.step.grams)


KIND = Kind(
    of=Strew,
    do="strew",
    name="Strew or spread",
    stem="strew",
    rank=48,
    chapter=Chapter.TURNS,
    takes=frozenset((Form.PACKAGE, Form.SHEET)),
    leaves=None,
    effect=effect,
    figures=StrewFigures,
    instruct=instruct,
    mind=mind,
    weighs=weighs,
    minutes="minutes.strew",
    often=Often.MANY,
    called=lambda step, _, __: ("Spread " if step.spread else "Strew ") + _short(step.what),
    fresh=lambda _, __: Strew("sugar", 200.0),
    caution="Name what is strewn on every label: nuts, seeds and milk are allergens.",
)


def _short(what: str) -> str:
    """An ingredient's key as it is read: without the dashes."""
    return what.replace("-", " ")
