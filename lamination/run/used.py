"""What was really weighed, beside what was to be: the record's true percentages."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.dough.weighing import OLD_DOUGH
from lamination.materials.ingredients import Kind
from lamination.plan.plan import Plan
from lamination.plan.worked import WorkedPlan
from lamination.run.standing import Standing
from lamination.steps import Chapter


@dataclass(frozen=True, slots=True)
class UsedPart:
    """An ingredient of the dough, g and % of all flour: planned, and as it was used."""

    name: str
    planned_g: float
    used_g: float
    planned_pct: float
    used_pct: float


@dataclass(frozen=True, slots=True)
class Used:
    """A dough as it was really made. ``unweighed``: lines nobody ticked, taken as planned."""

    parts: tuple[UsedPart, ...]
    true_hydration_pct: float
    planned_hydration_pct: float
    dough_g: float
    unweighed: int


def used(plan: Plan, worked: WorkedPlan, standing: Standing) -> Used | None:
    """The true percentages of a run, from what was ticked at the scales; None where nothing was.

    A line that was not ticked counts as planned. Old dough and the butter block are not in the
    percentages: both are weighed beside the formula.
    """
    formula = plan.formula
    real = {s.line: s.grams for s in standing.weighed}
    dough = {s.key for s in worked.strip if s.chapter is Chapter.BEFORE}
    keys = {what.key for what, _ in formula.parts} if formula else set()
    lines = [
        line
        for s in worked.sheets
        if s.stop in dough
        for line in s.lines
        if line.ingredient in keys or line.ingredient == OLD_DOUGH
    ]
    if formula is None or not any(line.key in real for line in lines):
        return None
    planned: dict[str, float] = {}
    taken: dict[str, float] = {}
    for line in lines:
        planned[line.ingredient] = planned.get(line.ingredient, 0) + line.grams
        taken[line.ingredient] = taken.get(line.ingredient, 0) + real.get(line.key, line.grams)
    flours = [what.key for what, _ in formula.parts if what.kind is Kind.FLOUR]
    planned_flour = sum(planned.get(key, 0) for key in flours)
    used_flour = sum(taken.get(key, 0) for key in flours)
    if used_flour <= 0:
        return None
    parts, water, planned_water = [], 0.0, 0.0
    for what, _ in formula.parts:
        before, after = planned.get(what.key, 0.0), taken.get(what.key, 0.0)
        parts.append(
            UsedPart(
                what.name,
                before,
                after,
                100 * before / planned_flour,
                100 * after / used_flour,
            )
        )
        if what.kind is not Kind.FLOUR:
            water += after * what.composition.water_pct / used_flour
            planned_water += before * what.composition.water_pct / planned_flour
    return Used(
        tuple(parts),
        water,
        planned_water,
        sum(taken.values()),
        sum(line.key not in real for line in lines),
    )
