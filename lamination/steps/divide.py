"""Divide: one part of the dough goes on, the other is put away with its turns marked on it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from lamination.dough.keeping import COLD, Holds, keeping
from lamination.dough.recipe import Recipe
from lamination.sheet.parts import divided
from lamination.sheet.rolls import size_of
from lamination.steps._package import lying
from lamination.steps.base import (
    Chapter,
    Form,
    Here,
    Kind,
    Lies,
    Made,
    Often,
    PutAway,
    Setting,
    Step,
)
from lamination.terms.advice import Note, Working
from lamination.terms.limits import Fault, Faults, Range
from lamination.terms.said import counted, g, mm, say, span
from lamination.terms.sizes import Size
from lamination.terms.trade import Place

_HALVINGS = 48  # to a hair of a mm


@dataclass(frozen=True)
class Divide(Step):
    """How much goes on, by share or by mass, and where the rest of it is put.

    ``goes_on_g`` counts before ``goes_on_pct``. ``other``: this plan goes on with the part that another
    plan put away.
    """

    goes_on_pct: Annotated[float, Range(1, 99, "%")] = 50.0
    goes_on_g: Annotated[float, Range(1, 100_000, "g")] | None = None
    put: Place = Place.FRIDGE
    other: bool = False
    do: Literal["divide"] = field(default="divide", kw_only=True)

    def grown(self, grow: float) -> Divide:
        """As large a share of the larger dough."""
        grams = self.goes_on_g
        return self if grams is None else replace(self, goes_on_g=grams * grow**2)


@dataclass(frozen=True, slots=True)
class DivideFigures:
    """Both parts, their masses, g, the share that goes on, and how long the other may be kept, h.

    ``later_g``: butter that the other part has still to get.
    """

    goes_on: Size
    away: Size
    goes_on_g: float
    away_g: float
    away_butter_g: float
    share_pct: float
    turns: int
    later_g: float
    keeps_h: float
    do: Literal["divide"] = "divide"


def effect(step: Divide, lies: Lies, setting: Setting) -> Made:
    """Cut what lies there in two. What is put away is booked with its butter."""
    recipe = setting.recipe
    all_g = lying(lies, recipe)[0] + lies.carried_g
    kept = step.goes_on_pct / 100
    if step.goes_on_g is not None:
        if not 0.01 <= step.goes_on_g / all_g <= 0.99:
            text = (
                f"There are {g(all_g)} here. From {g(0.01 * all_g)} to {g(0.99 * all_g)} can go on."
            )
            raise Faults(Fault("goes_on_g", text))
        kept = _share_of(step.goes_on_g, lies, recipe)
    there, other = _parts(lies, kept)
    on, away = there.under, other.under
    (on_g, _), (away_g, away_butter) = lying(there, recipe), lying(other, recipe)
    on_g, away_g = on_g + there.carried_g, away_g + other.carried_g
    later = recipe.butter.mass_g * lies.later_pct / 100 * lies.part
    later += (lies.ready_mm3 + lies.waiting_mm3) * recipe.per_mm3[1]
    later *= 1 - kept
    # on the bench it keeps as long as it would, had it been put in the fridge at once
    where = step.put if step.put in COLD else Place.FRIDGE
    of = recipe.family, where, setting.kitchen, recipe.window.oils_c
    keeps_h = keeping(Holds.DOUGH, *of).hours
    figures = DivideFigures(
        size_of(on), size_of(away), on_g, away_g, away_butter, 100 * kept, lies.turns,
        later, keeps_h,
    )  # fmt: skip
    keeps = figures.keeps_h if step.put in COLD else None
    put = PutAway(step.put, away_g, away_butter, lies.turns, later, keeps)
    return Made(there, figures, put=None if step.other else put)


def _parts(lies: Lies, kept: float) -> tuple[Lies, Lies]:
    """What lies there in two, a share (0 to 1) of it and the rest: panels each, a coil across its length."""
    across = True if lies.coil else None
    laid = [divided(sheet, kept, across) for sheet in lies.plies]
    whole = divided(lies.laminate, kept, across)

    def part(n: int, share: float) -> Lies:
        plies = tuple(pair[n] for pair in laid)
        size = size_of(plies[0] if plies else whole[n])
        return replace(
            lies,
            size=size if lies.form is Form.SHEET else size.turned,
            sheet=whole[n],
            plies=plies,
            carried=lies.keeping(share),
            part=lies.part * share,
            waiting_mm3=lies.waiting_mm3 * share,
            ready_mm3=lies.ready_mm3 * share,
        )

    return part(0, kept), part(1, 1 - kept)


def _share_of(wanted_g: float, lies: Lies, recipe: Recipe) -> float:
    """The share of its length that weighs so much: where a sheet is bare, a part is lighter than its share.

    Solved by bisection; what a part weighs grows with it.
    """
    low, high = 0.0, 1.0
    for _ in range(_HALVINGS):
        middle = (low + high) / 2
        part = _parts(lies, middle)[0]
        if lying(part, recipe)[0] + part.carried_g < wanted_g:
            low = middle
        else:
            high = middle
    return (low + high) / 2


def instruct(here: Here[Divide]) -> Iterator[str]:
    """Where to cut, what goes on, what is wrapped and marked."""
    step, made = here.step, here.figures
    still = f", {g(made.later_g)} of butter still to come" if made.later_g > 1 else ""
    marks = f"Mark it with {counted(made.turns, 'turn')}{still}, the date and the hour."
    yield f"Cut it in two: {g(made.goes_on_g)} goes on"
    size = made.goes_on
    if here.before.coil:
        yield f"{mm(size.width_mm)} of the coil: straight through, sawn and not pressed."
    else:
        yield f"{mm(size.length_mm, size.width_mm)} of it; across the longer side."
    if step.other:
        yield f"The other part, {g(made.away_g)}, is another plan's."
        return
    if step.put not in COLD:
        yield f"Wrap the other {g(made.away_g)} close. {marks}"
        return
    keeps = span(60 * made.keeps_h) if made.keeps_h < 48 else f"{made.keeps_h / 24:.0f} days"
    yield f"Wrap the other {g(made.away_g)} close and put it in the {step.put.said}. {marks}"
    yield f"It keeps about {keeps} there; your own date comes first."


def mind(here: Here[Divide]) -> Iterator[Note]:
    """A place where a block does not keep."""
    step, made = here.step, here.figures
    if step.put not in COLD and not step.other:
        yield here.note(
            "put-warm", "mind", "It does not keep there",
            f"{g(made.away_g)} of dough and butter on the {step.put.said}: its butter softens and its "
            "yeast goes on.",
            "put",
            [here.fix("Into the fridge", put=Place.FRIDGE)],
        )  # fmt: skip


def workings(here: Here[Divide]) -> Iterator[Working]:
    """How the part that goes on was got."""
    made = here.figures
    yield here.works(
        "goes_on_g",
        f"{say(made.share_pct)} % of what lies there, {g(made.goes_on_g + made.away_g)}: "
        f"{g(made.goes_on_g)}.",
    )


KIND = Kind(
    of=Divide,
    do="divide",
    name="Divide",
    stem="divide",
    rank=52,
    chapter=Chapter.TURNS,
    takes=frozenset((Form.PACKAGE, Form.SHEET)),
    leaves=None,
    effect=effect,
    figures=DivideFigures,
    instruct=instruct,
    mind=mind,
    workings=workings,
    minutes="minutes.divide",
    often=Often.MANY,
    called=lambda _, number, of: f"Divide {number}" if of > 1 else "Divide",
    fresh=lambda _, __: Divide(),
    caution="Knives: cut away from the other hand. Mark what is put away with what is in it.",
)
