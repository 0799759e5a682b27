"""A dough seen inside: what each fold of a method makes of its leaves, and from where they run together."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

from lamination.kitchen.kitchen import Kitchen
from lamination.lessons.leaves import apart
from lamination.plan.amend import amend
from lamination.plan.amendment import Amendment, Change
from lamination.plan.plan import Plan
from lamination.plan.starts import starting_plan
from lamination.plan.walk import walk
from lamination.sheet.coverage import Section
from lamination.steps.last_sheet import LastSheet, LastSheetFigures
from lamination.steps.turn import Turn, TurnFigures
from lamination.terms.limits import Checked, Fault, Faults, Length, Range
from lamination.terms.rests import Rest
from lamination.terms.said import say, um
from lamination.terms.sizes import Size
from lamination.terms.trade import Family, Fold, Method, Place

MOST_TURNS = 8


@dataclass(frozen=True)
class LeafMethod(Checked):
    """A way to make leaves: how the butter goes in, and the folds; the rest is a usual dough's.

    ``turns``: how many are looked at; where there are fewer folds, the last is made again.
    """

    method: Method = Method.HALF
    folds: Annotated[tuple[Fold, ...], Length(1, MOST_TURNS, "turns")] = (Fold.LETTER,) * 3
    family: Family = Family.CROISSANT
    dough_g: Annotated[float, Range(300, 20_000, "g")] = 2_000.0
    last_sheet_mm: Annotated[float, Range(1.5, 12, "mm")] = 4.0
    stacked: bool = False
    turns: Annotated[int, Range(1, MOST_TURNS, whole=True)] | None = None

    @property
    def made(self) -> tuple[Fold, ...]:
        """The folds that are looked at, in order."""
        many = self.turns or len(self.folds)
        return (self.folds + self.folds[-1:] * many)[:many]


@dataclass(frozen=True, slots=True)
class LeavesAfter:
    """The leaves after so many turns. ``um`` are those of a last sheet rolled right then.

    ``naive``: the product that never fuses dough on dough. ``together_pct``: leaves of that sheet that run
    together; ``moves``: the creases of the fold, mm from its end, on the sheet ``rolled`` for it;
    ``section``: the last sheet's leaves, bottom to top, µm.
    """

    turns: int
    fold: Fold | None
    name: str
    butter: int
    dough: int
    total: int
    naive: int
    butter_um: float
    dough_um: float
    together_pct: float
    turn: TurnFigures | None
    package: Size
    section: Section
    says: str


def seen_inside(of: LeafMethod, kitchen: Kitchen | None = None) -> tuple[LeavesAfter, ...]:
    """The leaves of a method after the lock-in and after each of its folds. Raises Faults (``folds``) where
    a sheet cannot be rolled.

    Exact folding; of leaves that run together, see :func:`~lamination.lessons.leaves.apart`.
    """
    kitchen = kitchen or Kitchen()
    plan = _plan(of, kitchen)
    return tuple(_after(plan, of, turns, kitchen) for turns in range(len(of.made) + 1))


def _plan(of: LeafMethod, kitchen: Kitchen) -> Plan:
    plan = starting_plan("-", of.family, of.dough_g, kitchen, with_formula=False)
    if plan.lock_in.method is not of.method:
        plan = amend(plan, Amendment(Change.METHOD, ingredient=of.method.value), kitchen)
    return replace(plan, formula=None)


def _after(plan: Plan, of: LeafMethod, turns: int, kitchen: Kitchen) -> LeavesAfter:
    thick = max(2 * of.last_sheet_mm, 6.0)
    rest = Rest.at(Place.FRIDGE, 30)
    folded = [
        Turn(fold, thick, id=f"fold-{n + 1}", rest=rest, stacked=of.stacked)
        for n, fold in enumerate(of.made[:turns])
    ]
    before = plan.steps[: plan.at(plan.lock_in.id) + 1]
    steps = (*before, *folded, LastSheet(of.last_sheet_mm, id=plan.last_sheet.id))
    try:
        found = walk(plan.with_steps(*steps), kitchen)
    except Faults as wrong:
        raise Faults(*(Fault("folds", f.message) for f in wrong.faults)) from None
    made = found.made
    last = next(m.figures for m in made if isinstance(m.figures, LastSheetFigures))
    fold = next((m.figures for m in reversed(made) if isinstance(m.figures, TurnFigures)), None)
    layers = last.layers
    together = 100 * (1 - apart(layers.dough_um, layers.butter_um, of.family.yeasted, kitchen))
    package = fold.folded if fold else made[len(before) - 1].lies.size
    assert package is not None
    return LeavesAfter(
        turns,
        fold.fold if fold else None,
        fold.fold.said if fold else "Locked in",
        layers.butter,
        layers.dough,
        layers.total,
        layers.naive,
        layers.butter_um,
        layers.dough_um,
        together,
        fold,
        package,
        last.section,
        _said(layers.dough_um, layers.butter_um, together, of.family),
    )


def _said(dough_um: float, butter_um: float, together: float, family: Family) -> str:
    leaf = f"Dough leaves of {um(dough_um)}, butter leaves of {um(butter_um)}"
    if together < 10:
        return f"{leaf}: they stay apart."
    so = "like brioche" if family.yeasted else "and the puff rises less"
    return f"{leaf}: about {say(round(together))} % run together, {so}."
