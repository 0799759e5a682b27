"""Bake again: pieces baked before are filled, topped and baked once more, the same day or the next."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from lamination.kitchen.kitchen import Kitchen
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
from lamination.terms.rests import Rest
from lamination.terms.said import c, g, named, span
from lamination.terms.trade import Machine, Place


@dataclass(frozen=True)
class BakeAgain(Step):
    """What goes in or on each, how heavy, and the second bake.

    ``of_pct``: of all pieces, how many are made so.
    """

    what: Annotated[str, Length(1, 60, "characters")]
    grams: Annotated[float, Range(0.1, 1_000, "g")]
    minutes: Annotated[float, Range(0.5, 240, "min")] = 12.0
    oven_c: Annotated[float, Range(60, 350, "°C")] = 170.0
    of_pct: Annotated[float, Range(1, 100, "%")] = 100.0
    do: Literal["again"] = field(default="again", kw_only=True)


@dataclass(frozen=True, slots=True)
class AgainFigures:
    """How many pieces, what they take in all, g, and what it is called."""

    pieces: int
    takes_g: float
    name: str
    do: Literal["again"] = "again"


def effect(step: BakeAgain, lies: Lies, setting: Setting) -> Made:
    """What is put on goes onto the labels."""
    _, cut = lies.of_cut
    pieces = round(cut.pieces * step.of_pct / 100)
    thing = found(step.what, setting.recipe)
    takes = pieces * step.grams
    there = replace(lies, carried=(*lies.carried, Carried(step.what, takes)))
    return Made(there, AgainFigures(pieces, takes, thing.name if thing else step.what))


def instruct(here: Here[BakeAgain]) -> Iterator[str]:
    """How many, what on each, and the bake."""
    step, made = here.step, here.figures
    yield f"Fill and top {made.pieces}: {g(step.grams)} of {named(made.name.lower())} each"
    yield f"Bake {span(step.minutes)} at {c(step.oven_c)}, until the filling is set and the edges are crisp."


def mind(here: Here[BakeAgain]) -> Iterator[Note]:
    """Pieces that lay overnight in the warm with something in them that spoils."""
    before = here.steps[here.n - 1].rest
    if before is not None and before.minutes > here.kitchen["again.keeps_h"] * 60:
        yield here.note(
            "again-old", "know", "Baked a while ago",
            f"{span(before.minutes)} since the first bake. Plain pieces keep that long, dry and covered; "
            "filled ones do not. Follow your local food code.",
        )  # fmt: skip


def weighs(here: Here[BakeAgain]) -> Iterator[Weighs]:
    """What goes in and on all of them."""
    yield weighed(here, here.step.what, here.figures.takes_g)


def _minutes(step: BakeAgain, figures: AgainFigures, kitchen: Kitchen) -> float:
    return step.minutes + kitchen["minutes.again"]


KIND = Kind(
    of=BakeAgain,
    do="again",
    name="Bake again",
    stem="again",
    rank=110,
    chapter=Chapter.OVEN,
    takes=frozenset((Form.BAKED,)),
    leaves=Form.BAKED,
    effect=effect,
    figures=AgainFigures,
    instruct=instruct,
    mind=mind,
    weighs=weighs,
    minutes=_minutes,
    machine=Machine.OVEN,
    often=Often.MANY,
    called=lambda _, number, of: f"Bake again {number}" if of > 1 else "Bake again",
    fresh=lambda _, __: BakeAgain("almond", 30.0, rest=Rest.at(Place.BENCH, 20)),
    caution="Hot trays: open the door from the side, dry cloths. Name the allergens of what was put on.",
)
