"""A plain turn: dough rolled and folded before the butter. It strengthens, and makes no leaves."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Literal

from lamination.dough.block import slab_for
from lamination.sheet.cells import Sheet, plain_sheet
from lamination.sheet.folds import fold_sheet, moves
from lamination.sheet.passes import Rolling, rolling
from lamination.sheet.rolls import rolled_to, size_of
from lamination.sheet.stacks import Material, leaf
from lamination.steps._fits import on_room, said_of_rolling
from lamination.steps._package import on_shelf
from lamination.steps._rolled import RolledStep
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
)
from lamination.steps.turn import after_fold, folding
from lamination.terms.advice import Note
from lamination.terms.rests import Rest
from lamination.terms.said import mm
from lamination.terms.sizes import Side, Size, Thickness
from lamination.terms.trade import Fold, Machine, Place

_USUAL_MM = 12.0


@dataclass(frozen=True)
class PlainTurn(RolledStep):
    """What the dough is rolled to, and how it is folded."""

    fold: Fold
    roll_to_mm: Thickness | None = None
    width_mm: Side | None = None
    length_mm: Side | None = None
    do: Literal["plain_turn"] = field(default="plain_turn", kw_only=True)


@dataclass(frozen=True, slots=True)
class PlainTurnFigures:
    """The sheet rolled, where it is creased, and what it folds to; ``turned``: as it lay for the roll."""

    fold: Fold
    rolled: Size
    folded: Size
    creases_mm: tuple[float, ...]
    turned: bool
    rolling: Rolling
    narrowest_mm: float
    do: Literal["plain_turn"] = "plain_turn"


def _lying(lies: Lies, setting: Setting) -> Sheet:
    """The dough as it lies: at its size, or else as it would be flattened for its tray."""
    recipe, kitchen = setting.recipe, setting.kitchen
    size = lies.size or slab_for(
        setting.wanted_sheet,
        recipe.dough_physics.volume_mm3(recipe.dough.mass_g),
        kitchen["tray.length_mm"],
        kitchen["tray.width_mm"],
    )
    return plain_sheet(size.length_mm, size.width_mm, leaf(Material.DOUGH, size.thickness_mm))


def effect(step: PlainTurn, lies: Lies, setting: Setting) -> Made:
    """Roll, fold, turn: where dough lies on dough, the two join leaf. Raises Faults by the step's fields."""
    rolled = rolled_to(_lying(lies, setting), step.rolls_to)
    folded = size_of(fold_sheet(rolled.sheet, step.fold))
    figures = PlainTurnFigures(
        fold=step.fold,
        rolled=size_of(rolled.sheet),
        folded=folded,
        creases_mm=tuple(sorted(m.at_mm for m in moves(step.fold, rolled.sheet.length_mm))),
        turned=rolled.turned,
        rolling=rolling(size_of(rolled.starts), size_of(rolled.sheet), setting.rolled.machine),
        narrowest_mm=rolled.narrowest_mm,
    )
    handled = Handling(to_mm=figures.rolled.thickness_mm, over=step.fold.lies, rolls=True)
    return Made(Lies(Form.DOUGH, folded.turned), figures, handled)


def instruct(here: Here[PlainTurn]) -> Iterator[str]:
    """What to roll to, and how it is folded."""
    step, made = here.step, here.figures
    yield f"Roll to {mm(made.rolled.thickness_mm)}, without butter"
    yield f"{mm(made.rolled.length_mm, made.rolled.width_mm)}.{said_of_rolling(made.rolling)}"
    yield f"Brush off the flour. {folding(step.fold)}"
    yield "Turn it a quarter. No leaves come of it: where dough lies on dough, the two join."


def mind(here: Here[PlainTurn]) -> Iterator[Note]:
    """Whether it lies there, rolled and folded."""
    made = here.figures
    yield from on_room(here, made.rolled, made.narrowest_mm, made.turned)
    yield from on_shelf(here, made.folded)


KIND = Kind(
    of=PlainTurn,
    do="plain_turn",
    name="Plain turn",
    stem="plain_turn",
    rank=35,
    chapter=Chapter.BEFORE,
    takes=frozenset((Form.DOUGH,)),
    leaves=Form.DOUGH,
    effect=effect,
    figures=PlainTurnFigures,
    instruct=instruct,
    mind=mind,
    minutes="minutes.plain_turn",
    machine=Machine.SHEETER,
    relaxing=after_fold,
    often=Often.MANY,
    called=lambda _, number, of: f"Plain turn {number}" if of > 1 else "Plain turn",
    fresh=lambda _, __: PlainTurn(Fold.LETTER, _USUAL_MM, rest=Rest.at(Place.FRIDGE, 30)),
    caution="At a sheeter: guards down, no loose sleeves, follow the maker's manual.",
)
