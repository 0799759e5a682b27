"""Roll up: the last sheet becomes a coil, and the cut slices it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from lamination.sheet.cells import turn
from lamination.sheet.rolls import size_of
from lamination.steps.base import (
    Chapter,
    Coil,
    Form,
    Handling,
    Here,
    Kind,
    Lies,
    Made,
    Setting,
    Step,
)
from lamination.terms.advice import Working
from lamination.terms.limits import Fault, Faults, Range
from lamination.terms.said import mm, say


@dataclass(frozen=True)
class RollUp(Step):
    """From which side it is rolled up; ``core_mm``: across what it is rolled round, 0 for nothing.

    ``across``: rolled up across the sheet, so that the coil is as long as the sheet is.
    """

    across: bool = False
    core_mm: Annotated[float, Range(0, 200, "mm")] = 0.0
    do: Literal["roll_up"] = field(default="roll_up", kw_only=True)


@dataclass(frozen=True, slots=True)
class RollUpFigures:
    """The coil: how long, how thick through, mm, and how often it goes round; what is spread, mm thick."""

    length_mm: float
    diameter_mm: float
    rounds: float
    spread_mm: float
    do: Literal["roll_up"] = "roll_up"


def coil_of(long_mm: float, thick_mm: float, core_mm: float = 0.0) -> Coil:
    """A sheet so long and so thick rolled up round a core.

    Its section is kept: π/4·(D² - d²) = L·t, and each round adds twice its thickness: n = (D - d)/2t.
    Source: geometry. ``thick_mm`` counts what is spread on it.
    """
    across = math.sqrt(core_mm**2 + 4 * long_mm * thick_mm / math.pi)
    return Coil(across, (across - core_mm) / (2 * thick_mm))


def effect(step: RollUp, lies: Lies, setting: Setting) -> Made:
    """The sheet as a coil. Raises Faults where it lies double, or is rolled up already."""
    if lies.plies or lies.coil:
        raise Faults(Fault("do", "It lies double or is rolled up already. Do one of the two."))
    laid = turn(lies.laminate) if step.across else lies.laminate
    size = size_of(laid)
    spread_mm = sum(c.layer_mm3 for c in lies.carried) / (size.length_mm * size.width_mm)
    coil = coil_of(size.length_mm, size.thickness_mm + spread_mm, step.core_mm)
    there = replace(lies, size=size, sheet=laid, coil=coil)
    figures = RollUpFigures(size.width_mm, coil.diameter_mm, coil.rounds, spread_mm)
    return Made(there, figures, Handling(coil_mm=coil.diameter_mm))


def instruct(here: Here[RollUp]) -> Iterator[str]:
    """How to roll it up, and what comes of it."""
    made = here.figures
    yield f"Roll it up, {mm(made.diameter_mm)} through"
    yield f"{mm(made.length_mm)} long, {say(made.rounds)} times round. Tight at the start, even to the end."
    yield "Seam underneath. Chill it before it is sliced, so that the leaves are not pressed."


def workings(here: Here[RollUp]) -> Iterator[Working]:
    """How the coil was got."""
    made, size = here.figures, here.made[here.n].lies.size
    assert size is not None
    spread = f" with {mm(made.spread_mm)} of what is spread on it" if made.spread_mm else ""
    yield here.works(
        "diameter_mm",
        f"{mm(size.length_mm)} of sheet, {mm(size.thickness_mm)} thick{spread}, rolled up keeps its "
        f"section: {mm(made.diameter_mm)} through.",
    )


KIND = Kind(
    of=RollUp,
    do="roll_up",
    name="Roll up",
    stem="roll_up",
    rank=64,
    chapter=Chapter.CUT,
    takes=frozenset((Form.SHEET,)),
    leaves=Form.SHEET,
    effect=effect,
    figures=RollUpFigures,
    instruct=instruct,
    workings=workings,
    minutes="minutes.roll_up",
    fresh=lambda _, __: RollUp(),
    caution="Blades and wheels: cut away from the other hand.",
)
