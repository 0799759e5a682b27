"""Brushed with wash before the oven; and the signs that a proof is done, seen first."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from lamination.pieces.baking import SIGNS, WASH_OF, WASH_SAYS, Wash
from lamination.steps._things import found, weighed_all
from lamination.steps.base import (
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
from lamination.steps.shape import alarms
from lamination.terms.limits import Length, Range
from lamination.terms.said import named


@dataclass(frozen=True)
class Washing(Step):
    """What is brushed on, and how often; ``made_of``: an ingredient or a preparation of the house in place
    of the usual ones.
    """

    @property
    def parts(self) -> tuple[tuple[str, float], ...]:
        """What it is made of, and the share of each."""
        return ((self.made_of, 1.0),) if self.made_of else WASH_OF[self.wash]

    wash: Wash = Wash.EGG
    coats: Annotated[int, Range(1, 3)] = 1
    made_of: Annotated[str, Length(1, 60, "characters")] | None = None
    do: Literal["wash"] = field(default="wash", kw_only=True)

    @property
    def proofs(self) -> bool:
        """What rests after it are shaped pieces."""
        return True


@dataclass(frozen=True, slots=True)
class WashFigures:
    """The wash by its name, what it does, the signs of a proof that is done, and how much it takes, g."""

    name: str
    says: str
    signs: tuple[str, ...]
    takes_g: float = 0.0
    pieces: int = 0
    do: Literal["wash"] = "wash"


def effect(step: Washing, lies: Lies, setting: Setting) -> Made:
    """Nothing moves; what is said is the wash's own."""
    pieces = lies.of_cut[1].pieces if lies.of_cut else 0
    takes = pieces * step.coats * setting.kitchen["wash.coat_g"]
    if step.made_of:
        thing = found(step.made_of, setting.recipe)
        name = thing.name if thing else step.made_of
        return Made(lies, WashFigures(name, "", SIGNS, takes, pieces))
    return Made(lies, WashFigures(step.wash.said, WASH_SAYS[step.wash], SIGNS, takes, pieces))


def instruct(here: Here[Washing]) -> Iterator[str]:
    """With what, how often, and where not."""
    step = here.step
    yield f"Brush with {named(here.figures.name.lower())}"
    yield (
        f"{'Once' if step.coats == 1 else f'{step.coats} times, dry between'}; top surfaces only, a soft "
        "brush. On the cut leaves it glues them shut; drips burn."
    )
    if here.figures.says:
        yield here.figures.says


def weighs(here: Here[Washing]) -> Iterator[Weighs]:
    """What is brushed on, for all pieces."""
    if here.figures.takes_g:
        takes = here.figures.takes_g
        yield weighed_all(here, here.name, [(w, takes * share) for w, share in here.step.parts])


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
    weighs=weighs,
    minutes="minutes.wash",
    alarms=alarms,
    by_tray=True,
    often=Often.FEW,
    called=lambda _, number, of: f"Wash {number}" if of > 1 else "Wash",
    fresh=lambda _, __: Washing(),
    caution="A clean brush. Keep egg and milk cold, and throw away what is left as your food code says.",
)
