"""More butter: a part of the butter that goes in at the next fold, cold and grated or in flakes."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from lamination.steps._package import butter_weighed
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
from lamination.terms.advice import Note, Working
from lamination.terms.limits import Range
from lamination.terms.said import g, say
from lamination.terms.trade import Worded


class ButterState(Worded):
    """How the butter of another go is."""

    FLAKED = "flaked", "in flakes"
    GRATED = "grated", "grated cold"
    BLOCK = "block", "as a thin block"
    SOFT = "soft", "soft"
    WHIPPED = "whipped", "whipped"


@dataclass(frozen=True)
class MoreButter(Step):
    """Which share of all the butter waits for the next fold, and how it is laid on."""

    share_pct: Annotated[float, Range(1, 95, "%")] = 50.0
    state: ButterState = ButterState.GRATED
    do: Literal["more_butter"] = field(default="more_butter", kw_only=True)

    @property
    def holds_back_pct(self) -> float:
        """It is kept back from the lock-in."""
        return self.share_pct


@dataclass(frozen=True, slots=True)
class MoreButterFigures:
    """What goes in here, and what went in before, g."""

    grams: float
    before_g: float
    do: Literal["more_butter"] = "more_butter"


def effect(step: MoreButter, lies: Lies, setting: Setting) -> Made:
    """It lies ready for the next fold."""
    recipe = setting.recipe
    # of a dough that was divided only the part that goes on gets its share
    grams = recipe.butter_g * step.share_pct / 100 * lies.part
    in_it = lies.laminate.volume_mm3(lambda s: s.butter_mm) * recipe.per_mm3[1]
    volume = recipe.butter_physics.volume_mm3(grams)
    later = max(lies.later_pct - step.share_pct, 0.0)
    there = replace(lies, ready_mm3=lies.ready_mm3 + volume, later_pct=later)
    return Made(there, MoreButterFigures(grams, in_it))


def instruct(here: Here[MoreButter]) -> Iterator[str]:
    """How much, how it is made, when it goes in."""
    step, made = here.step, here.figures
    yield f"{g(made.grams)} of butter, {step.state.said}, for the next fold"
    yield "Roll the package, lay the butter all over the sheet, and fold it in."
    if step.state in (ButterState.SOFT, ButterState.WHIPPED):
        yield "Soft butter on a cold sheet: spread it thin, and let it set before it is rolled again."
    else:
        yield "Cold as it lies there: press it flat, so that it makes a layer and not lumps."


def mind(here: Here[MoreButter]) -> Iterator[Note]:
    """Butter that never gets in, for no fold comes after it."""
    if not any(s.kind_name == "turn" for s in here.steps[here.n :]):
        yield here.note(
            "no-fold", "mind", "No fold comes after it",
            "This butter goes in with a fold, but no fold follows. Add a turn after this step, or remove "
            "the step and lock in all the butter.",
        )  # fmt: skip


def workings(here: Here[MoreButter]) -> Iterator[Working]:
    """How its mass was got."""
    made, all_g = here.figures, here.recipe.butter_g
    yield here.works("grams", f"{say(here.step.share_pct)} % of {g(all_g)}: {g(made.grams)}.")


def weighs(here: Here[MoreButter]) -> Iterator[Weighs]:
    """The butter of this go."""
    share = here.figures.grams / here.recipe.butter.mass_g
    yield replace(butter_weighed(here.recipe, here.step.id, share), name=here.name)


KIND = Kind(
    of=MoreButter,
    do="more_butter",
    name="More butter",
    stem="more_butter",
    rank=45,
    chapter=Chapter.TURNS,
    takes=frozenset((Form.PACKAGE,)),
    leaves=Form.PACKAGE,
    effect=effect,
    figures=MoreButterFigures,
    instruct=instruct,
    mind=mind,
    workings=workings,
    weighs=weighs,
    minutes="minutes.more_butter",
    often=Often.MANY,
    called=lambda _, number, of: f"More butter {number}" if of > 1 else "More butter",
    fresh=lambda _, __: MoreButter(),
    caution="Allergens stand on the weigh-out sheet: name them on every label.",
)
