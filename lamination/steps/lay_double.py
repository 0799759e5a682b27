"""Lay double: the last sheet folded or laid on itself, so that one cut goes through several."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from lamination.sheet.parts import plies
from lamination.sheet.rolls import size_of
from lamination.steps.base import Chapter, Form, Handling, Here, Kind, Lies, Made, Setting, Step
from lamination.terms.advice import Note
from lamination.terms.limits import Fault, Faults, Range
from lamination.terms.said import mm
from lamination.terms.sizes import Size

_IN = {2: "in two", 3: "in three", 4: "in four"}


@dataclass(frozen=True)
class LayDouble(Step):
    """How many lie on each other, and whether they are cut apart first in place of folded."""

    plies: Annotated[int, Range(2, 4, "")] = 2
    cut: bool = False
    do: Literal["lay_double"] = field(default="lay_double", kw_only=True)


@dataclass(frozen=True, slots=True)
class LayDoubleFigures:
    """What lies under the knife: its size, one ply thick, and how many of it."""

    ply: Size
    plies: int
    do: Literal["lay_double"] = "lay_double"


def effect(step: LayDouble, lies: Lies, setting: Setting) -> Made:
    """The panels lie on each other and stay apart. Raises Faults when it was done already."""
    if lies.plies or lies.coil:
        raise Faults(Fault("do", "It lies double or is rolled up already. Do one of the two."))
    layers = plies(lies.laminate, step.plies, step.cut)
    ply = size_of(layers[0])
    over = tuple(bool(n % 2) and not step.cut for n in range(step.plies))
    there = replace(lies, size=ply, plies=layers)
    return Made(there, LayDoubleFigures(ply, step.plies), Handling(over=over))


def instruct(here: Here[LayDouble]) -> Iterator[str]:
    """How it is laid, and what to mind at the fold."""
    step, made = here.step, here.figures
    how = "Cut the sheet" if step.cut else "Fold the sheet"
    yield f"{how} {_IN[step.plies]}, {mm(made.ply.length_mm, made.ply.width_mm)}"
    yield "Flour between, brushed thin: they are to come apart again."
    if not step.cut:
        yield "Lay the first cut along the folded edge, so that no two pieces hang together."


def mind(here: Here[LayDouble]) -> Iterator[Note]:
    """A folded edge that is not cut away leaves pieces that hang together."""
    cuts = [s for s in here.steps[here.n :] if s.kind_name == "cut"]
    if here.step.cut or not cuts:
        return
    if getattr(cuts[0], "trim_mm", 0.0) or getattr(cuts[0], "kerf_mm", 0.0):
        return
    yield here.note(
        "folded-edge", "know", "Cut along the fold first",
        "At the folded edge two pieces are one. The first mark is the fold itself: cut along it.",
    )  # fmt: skip


KIND = Kind(
    of=LayDouble,
    do="lay_double",
    name="Lay double",
    stem="lay_double",
    rank=62,
    chapter=Chapter.CUT,
    takes=frozenset((Form.SHEET,)),
    leaves=Form.SHEET,
    effect=effect,
    figures=LayDoubleFigures,
    instruct=instruct,
    mind=mind,
    minutes="minutes.lay_double",
    fresh=lambda _, __: LayDouble(),
    caution="Blades and wheels: cut away from the other hand.",
)
