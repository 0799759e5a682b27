"""Fried in place of baked: pieces in hot fat, so long on each side, a few at a time."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from lamination.kitchen.kitchen import Kitchen
from lamination.steps._things import found
from lamination.steps.base import (
    Alarm,
    Chapter,
    Form,
    Here,
    Kind,
    Lies,
    Made,
    Setting,
    Step,
    changes,
)
from lamination.terms.advice import Note
from lamination.terms.limits import Length, Range
from lamination.terms.rests import Rest
from lamination.terms.said import c, counted, g, named, say
from lamination.terms.sizes import over, under
from lamination.terms.trade import Place


@dataclass(frozen=True)
class Frying(Step):
    """What they are fried in, how hot, how long on each side, and how many at once.

    ``fat``: an ingredient or anything by its name. The rest after it is the cooling, on a rack.
    """

    fat: Annotated[str, Length(1, 60, "characters")] = "Frying fat"
    fat_c: Annotated[float, Range(100, 210, "°C")] = 175.0
    side_s: Annotated[float, Range(10, 1_200, "s")] = 90.0
    at_once: Annotated[int, Range(1, 200, whole=True)] = 6
    do: Literal["fry"] = field(default="fry", kw_only=True)

    @property
    def parts(self) -> tuple[tuple[str, float], ...]:
        """What goes onto each piece of it."""
        return ((self.fat, 1.0),)


@dataclass(frozen=True, slots=True)
class FryFigures:
    """How many pieces, in how many goes; the fat they take up, g, and what it is called; what they lose."""

    pieces: int
    goes: int
    takes_g: float
    name: str
    loss_pct: float
    do: Literal["fry"] = "fry"


def effect(step: Frying, lies: Lies, setting: Setting) -> Made:
    """The pieces fried; what they take up of the fat goes onto the labels."""
    _, figures = lies.of_cut
    pieces = sum(p.pieces for p in figures.products)
    mass_g = sum(p.pieces * p.piece_g for p in figures.products)
    kitchen, thing = setting.kitchen, found(step.fat, setting.recipe)
    made = FryFigures(
        pieces, math.ceil(pieces / step.at_once), mass_g * kitchen["fry.takes_up_pct"] / 100,
        thing.name if thing else step.fat, kitchen["fry.loss_pct"],
    )  # fmt: skip
    return Made(replace(lies, form=Form.BAKED), made)


def _minutes(step: Frying, figures: FryFigures, kitchen: Kitchen) -> float:
    return figures.goes * (2 * step.side_s / 60 + kitchen["fry.change_min"])


def instruct(here: Here[Frying]) -> Iterator[str]:
    """How many, how hot, how long, and how one sees it."""
    step, made = here.step, here.figures
    yield f"Fry {counted(made.pieces, 'piece')}, {step.at_once} at a time"
    yield f"{named(made.name)} at {c(step.fat_c)}, {say(step.side_s)} s on each side, turned once."
    yield "Let the fat come back to its heat between two goes; drain them on a rack."
    yield "Done: golden on both sides, a pale band round the middle, light for its size."


def mind(here: Here[Frying]) -> Iterator[Note]:
    """Fat that burns, fat that soaks in, and what a coil of butter does in it."""
    step, kitchen = here.step, here.kitchen
    low, high = kitchen["fry.low_c"], kitchen["fry.high_c"]
    if over(step.fat_c, high):
        yield here.note(
            "fry-hot", "mind", "Very hot fat",
            f"From {c(high)} on most fats begin to break down, and the crust is dark before the middle is "
            "done. Follow the maker's limit and your local rules.",
            "fat_c", [here.fix(f"Fry at {c(high)}", fat_c=high)],
        )  # fmt: skip
    elif under(step.fat_c, low):
        yield here.note(
            "fry-cool", "mind", "Cool fat soaks in",
            f"Below {c(low)} the crust forms late: the pieces take up fat and the leaves' butter runs out.",
            "fat_c", [here.fix(f"Fry at {c(low)}", fat_c=low)],
        )  # fmt: skip
    if found(step.fat, here.recipe) is None:
        yield here.note(
            "fry-unknown", "know", f"Nothing is known of “{named(step.fat)}”",
            f"Each piece takes up about {g(here.figures.takes_g / max(here.figures.pieces, 1))} of it. Put "
            "it on the shelf in the Kitchen, so that the label can name it.",
            "fat",
        )  # fmt: skip


def alarms(here: Here[Frying]) -> Iterator[Alarm]:
    """The end of the cooling."""
    if here.step.rests:
        yield from changes(here.step)
        yield Alarm("done", None, "cooled")


KIND = Kind(
    of=Frying,
    do="fry",
    name="Fry",
    stem="fry",
    rank=101,
    chapter=Chapter.OVEN,
    takes=frozenset((Form.SHAPED, Form.PIECES)),
    leaves=Form.BAKED,
    effect=effect,
    figures=FryFigures,
    instruct=instruct,
    mind=mind,
    minutes=_minutes,
    alarms=alarms,
    fresh=lambda _, __: Frying(rest=Rest.at(Place.BENCH, 20)),
    caution="Hot fat burns and catches fire: never leave it, never fill it more than half, no water near "
    "it, a lid at hand, dry pieces laid in away from you. Follow the fryer's manual and your fire code.",
)
