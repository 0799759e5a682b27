"""The dough portioned and flattened, so that it chills right through and is soon at size."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Literal

from lamination.dough.block import slab_for
from lamination.steps.base import Chapter, Form, Handling, Here, Kind, Lies, Made, Setting, Step
from lamination.terms.advice import Note
from lamination.terms.rests import Rest
from lamination.terms.said import g, mm
from lamination.terms.sizes import Size
from lamination.terms.trade import Place


@dataclass(frozen=True)
class Flattening(Step):
    """The dough as it goes into the cold; the rest after it is its chill."""

    do: Literal["flatten"] = field(default="flatten", kw_only=True)


@dataclass(frozen=True, slots=True)
class FlattenFigures:
    """The slab on the tray."""

    slab: Size
    do: Literal["flatten"] = "flatten"


def effect(step: Flattening, lies: Lies, setting: Setting) -> Made:
    """A slab of the proportions it is wanted in for the lock-in, as large as the tray lets."""
    recipe, kitchen = setting.recipe, setting.kitchen
    slab = slab_for(
        setting.wanted_sheet,
        recipe.dough_physics.volume_mm3(recipe.dough.mass_g),
        kitchen["tray.length_mm"],
        kitchen["tray.width_mm"],
    )
    return Made(Lies(Form.DOUGH, slab), FlattenFigures(slab), Handling(to_mm=slab.thickness_mm))


def instruct(here: Here[Flattening]) -> Iterator[str]:
    """How large, how thick, and covered."""
    slab: Size = here.figures.slab
    yield f"Flatten {g(here.recipe.dough.mass_g)} of dough"
    yield (
        f"To {mm(slab.length_mm, slab.width_mm)}, {mm(slab.thickness_mm)} thick, so that it chills "
        "right through and is soon at size."
    )
    yield "Cover it against skinning, with no air under the film."


def mind(here: Here[Flattening]) -> Iterator[Note]:
    """Whether it is chilled at the size it is wanted in."""
    slab: Size = here.figures.slab
    sheet, kitchen = here.setting.wanted_sheet, here.kitchen
    if slab.length_mm < sheet.length_mm - kitchen["fit.slack_mm"]:
        yield here.note(
            "slab", "know", "Smaller than the sheet",
            f"A tray of {mm(kitchen['tray.length_mm'], kitchen['tray.width_mm'])} takes a slab of "
            f"{mm(slab.length_mm, slab.width_mm)}, {mm(slab.thickness_mm)} thick. Cold, it is rolled to "
            f"{mm(sheet.length_mm, sheet.width_mm)}.",
        )  # fmt: skip
    else:
        yield here.note(
            "slab", "good", "Chilled at its size",
            f"{mm(slab.length_mm, slab.width_mm)} lies flat on the tray and needs hardly a roll at the "
            "lock-in.",
        )  # fmt: skip


KIND = Kind(
    of=Flattening,
    do="flatten",
    name="Dough",
    stem="dough",
    rank=30,
    chapter=Chapter.BEFORE,
    takes=frozenset((Form.NOTHING, Form.DOUGH)),
    leaves=Form.DOUGH,
    effect=effect,
    figures=FlattenFigures,
    instruct=instruct,
    mind=mind,
    minutes="minutes.flatten",
    fresh=lambda _, __: Flattening(rest=Rest.at(Place.FRIDGE, 720)),
    caution="Raw flour and raw egg are not to be eaten. Two people lift a heavy dough.",
)
