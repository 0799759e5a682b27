"""Offcuts: something made of what the cut leaves, with fewer leaves or merged ones."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from lamination.steps.base import (
    Chapter,
    Form,
    Here,
    Kind,
    Lies,
    Made,
    Often,
    Saved,
    Setting,
    Step,
)
from lamination.terms.advice import Note, Working
from lamination.terms.limits import Length, Range
from lamination.terms.said import counted, g, named
from lamination.terms.trade import Worded


class Gathered(Worded):
    """What becomes of the strips."""

    LAID = "laid", "laid side by side and pressed"
    ROLLED = "rolled", "gathered and rolled again"
    AS_CUT = "as_cut", "used as they fall"


@dataclass(frozen=True)
class Offcuts(Step):
    """What is made of them, what one weighs, how they are gathered.

    ``pieces``: 0 for as many as there are.
    """

    product: Annotated[str, Length(1, 60, "characters")]
    piece_g: Annotated[float, Range(1, 5_000, "g")]
    gathered: Gathered = Gathered.LAID
    pieces: Annotated[int, Range(0, 10_000, "")] = 0
    do: Literal["offcuts"] = field(default="offcuts", kw_only=True)


@dataclass(frozen=True, slots=True)
class OffcutFigures:
    """Pieces, what they take of the offcuts and the butter in that, g, and what is still left."""

    pieces: int
    wanted: int
    used_g: float
    butter_g: float
    left_g: float
    do: Literal["offcuts"] = "offcuts"


def effect(step: Offcuts, lies: Lies, setting: Setting) -> Made:
    """Take it from what the cut left. What is booked out of the offcuts is no scrap any more."""
    _, cut = lies.of_cut
    left, butter = cut.trimmings_g - lies.offcuts_g, cut.trimmings_butter_g
    can = int(max(left, 0.0) // step.piece_g)
    pieces = min(step.pieces, can) if step.pieces else can
    used = pieces * step.piece_g
    share = butter / cut.trimmings_g if cut.trimmings_g > 0 else 0.0
    figures = OffcutFigures(pieces, step.pieces, used, used * share, left - used)
    there = lies.with_offcuts(used)
    return Made(there, figures, saved=Saved(-used, -used * share) if used else None)


_HOW = {
    Gathered.LAID: "Lay the strips side by side, cut edges touching, and press or roll them once into a "
    "sheet. Do not knead: their leaves stay, though fewer and uneven.",
    Gathered.ROLLED: "Lay them on each other, never in a ball, chill, and roll again. Their leaves merge: "
    "it rises little and evenly, good for what should stay low.",
    Gathered.AS_CUT: "Use them as they fall: their leaves are whole, their shapes are not.",
}


def instruct(here: Here[Offcuts]) -> Iterator[str]:
    """What is made of them, and how."""
    step, made = here.step, here.figures
    yield f"{named(step.product)} from the offcuts: {made.pieces} of {g(step.piece_g)}"
    yield _HOW[step.gathered]
    if made.left_g > 1:
        yield f"{g(made.left_g)} is still left for the next dough."


def mind(here: Here[Offcuts]) -> Iterator[Note]:
    """More wanted than there is."""
    step, made = here.step, here.figures
    if made.pieces < max(made.wanted, 1):
        yield here.note(
            "too-few", "mind", f"Offcuts for {made.pieces} only",
            f"{counted(max(made.wanted, 1), 'piece')} of {g(step.piece_g)} wanted; the cut leaves "
            f"{g(made.left_g + made.used_g)}. Make them lighter, or fewer.",
            "pieces",
            [here.fix("As many as there are", pieces=0)] if made.pieces else (),
        )  # fmt: skip


def workings(here: Here[Offcuts]) -> Iterator[Working]:
    """How the number of pieces was got."""
    step, made = here.step, here.figures
    yield here.works(
        "pieces",
        f"{g(made.left_g + made.used_g)} of offcuts ÷ {g(step.piece_g)}: {made.pieces}. "
        f"{g(made.butter_g)} of butter goes with them.",
    )


KIND = Kind(
    of=Offcuts,
    do="offcuts",
    name="Offcuts",
    stem="offcuts",
    rank=75,
    chapter=Chapter.CUT,
    takes=frozenset((Form.PIECES,)),
    leaves=Form.PIECES,
    effect=effect,
    figures=OffcutFigures,
    instruct=instruct,
    mind=mind,
    workings=workings,
    minutes="minutes.offcuts",
    often=Often.MANY,
    called=lambda step, _, __: step.product,
    fresh=lambda _, __: Offcuts("Thin bases", 40.0),
    caution="Do not keep for another day what has been warm for long. Its allergens are those of the dough.",
)
