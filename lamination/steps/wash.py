"""Brushed with wash before the oven; and the signs that a proof is done, seen first."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from lamination.pieces.baking import SIGNS, WASH_SAYS, Wash
from lamination.steps.base import Chapter, Form, Here, Kind, Lies, Made, Setting, Step
from lamination.terms.limits import Range


@dataclass(frozen=True)
class Washing(Step):
    """What is brushed on, and how often."""

    wash: Wash = Wash.EGG
    coats: Annotated[int, Range(1, 3)] = 1
    do: Literal["wash"] = field(default="wash", kw_only=True)


@dataclass(frozen=True, slots=True)
class WashFigures:
    """The wash by its name, what it does, and the signs of a proof that is done."""

    name: str
    says: str
    signs: tuple[str, ...]
    do: Literal["wash"] = "wash"


def effect(step: Washing, lies: Lies, setting: Setting) -> Made:
    """Nothing moves; what is said is the wash's own."""
    return Made(lies, WashFigures(step.wash.said, WASH_SAYS[step.wash], SIGNS))


def instruct(here: Here[Washing]) -> Iterator[str]:
    """With what, how often, and where not."""
    step = here.step
    yield f"Brush with {step.wash.said.lower()}"
    yield (
        f"{'Once' if step.coats == 1 else f'{step.coats} times, dry between'}; top surfaces only, a soft "
        "brush. On the cut leaves it glues them shut; drips burn."
    )
    yield here.figures.says


KIND = Kind(
    of=Washing,
    do="wash",
    name="Wash",
    stem="wash",
    rank=90,
    chapter=Chapter.OVEN,
    takes=frozenset((Form.SHAPED,)),
    leaves=None,
    effect=effect,
    figures=WashFigures,
    instruct=instruct,
    minutes="minutes.wash",
    by_tray=True,
    fresh=lambda _, __: Washing(),
    caution="Raw egg: a clean brush, kept cold, thrown away at the end as your food code says.",
)
