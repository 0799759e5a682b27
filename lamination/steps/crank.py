"""Thin down: dough without butter through a hand-cranked roller, from its widest setting to a chosen one."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from lamination.kitchen.kitchen import Kitchen
from lamination.steps.base import (
    Chapter,
    Form,
    Handling,
    Here,
    Kind,
    Lies,
    Made,
    Often,
    Setting,
    Step,
)
from lamination.terms.advice import Note
from lamination.terms.limits import Fault, Faults, Range
from lamination.terms.rests import Rest
from lamination.terms.said import counted, g, mm
from lamination.terms.sizes import Size
from lamination.terms.trade import Place

SETTINGS = 9


@dataclass(frozen=True)
class Crank(Step):
    """The last setting it goes through; it begins at the widest."""

    to_setting: Annotated[int, Range(1, SETTINGS, "")] = 3
    do: Literal["crank"] = field(default="crank", kw_only=True)


@dataclass(frozen=True, slots=True)
class CrankFigures:
    """The strip it comes to, in how many pieces it goes through, and the gaps one after another, mm."""

    strip: Size
    strips: int
    gaps_mm: tuple[float, ...]
    do: Literal["crank"] = "crank"


def gaps_of(kitchen: Kitchen) -> tuple[float, ...]:
    """The roller's gaps by setting, mm, as many as it has: a setting of 0 is none."""
    gaps = (kitchen[f"crank.{n}_mm"] for n in range(1, SETTINGS + 1))
    return tuple(gap for gap in gaps if gap > 0)


def effect(step: Crank, lies: Lies, setting: Setting) -> Made:
    """Strips as wide as the roller and as thin as its setting. Raises Faults for one it has not."""
    recipe, kitchen = setting.recipe, setting.kitchen
    gaps = gaps_of(kitchen)
    if step.to_setting > len(gaps):
        text = f"The roller in the Kitchen has {counted(len(gaps), 'setting')}. Choose one of them."
        raise Faults(Fault("to_setting", text))
    thick, wide = gaps[step.to_setting - 1], kitchen["crank.width_mm"]
    long = recipe.dough_physics.volume_mm3(recipe.dough.mass_g) / (thick * wide)
    strips = max(1, -int(-long // kitchen["crank.longest_mm"]))
    strip = Size(long / strips, wide, thick)
    figures = CrankFigures(strip, strips, gaps[: step.to_setting])
    return Made(
        Lies(Form.DOUGH, Size(long, wide, thick)), figures, Handling(to_mm=thick, rolls=True)
    )


def instruct(here: Here[Crank]) -> Iterator[str]:
    """In how many pieces, through which settings."""
    step, made = here.step, here.figures
    yield f"Through the roller to setting {step.to_setting}, {mm(made.strip.thickness_mm)}"
    each = here.recipe.dough.mass_g / made.strips
    yield (
        f"{counted(made.strips, 'piece')} of {g(each)}, each through settings 1 to {step.to_setting}, "
        f"flour brushed off: {mm(made.strip.length_mm, made.strip.width_mm)}."
    )
    yield "Lay them on each other as they come, and fold: where dough lies on dough, the two join."


def mind(here: Here[Crank]) -> Iterator[Note]:
    """Many strips for a small roller."""
    made = here.figures
    most = here.kitchen["crank.most_strips"]
    if made.strips > most:
        yield here.note(
            "strips", "know", f"{made.strips} strips",
            f"A roller {mm(made.strip.width_mm)} wide takes this dough in {made.strips}. A wider setting, "
            "or the pin, is sooner done.",
            "to_setting",
        )  # fmt: skip


KIND = Kind(
    of=Crank,
    do="crank",
    name="Thin down",
    stem="crank",
    rank=34,
    chapter=Chapter.BEFORE,
    takes=frozenset((Form.DOUGH,)),
    leaves=Form.DOUGH,
    effect=effect,
    figures=CrankFigures,
    instruct=instruct,
    mind=mind,
    minutes="minutes.crank",
    often=Often.MANY,
    called=lambda _, number, of: f"Thin down {number}" if of > 1 else "Thin down",
    fresh=lambda _, __: Crank(rest=Rest.at(Place.FRIDGE, 30)),
    caution="Fingers and sleeves clear of the rollers; the clamp tight.",
)
