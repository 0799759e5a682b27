"""A plan's sheet cut across, as it lies after a step."""

from __future__ import annotations

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.walk import walk
from lamination.sheet.cells import turn
from lamination.sheet.section import Across, LineSection, cut_along
from lamination.steps.base import Form
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import listed


def section_along(
    plan: Plan, stop: str, line: Across, kitchen: Kitchen | None = None
) -> LineSection:
    """The section of a plan's sheet as it lies after a step.

    Raises :class:`~lamination.terms.limits.Faults` for a step that leaves no sheet (path ``stop``) and
    for whatever :func:`~lamination.plan.walk.walk` refuses.
    """
    found = walk(plan, kitchen or Kitchen())
    lying = {
        step.id: made.lies
        for step, made in zip(plan.steps, found.made, strict=True)
        if made.lies.sheet is not None
    }
    if stop not in lying:
        known = listed(list(lying), "or")
        raise Faults(Fault("stop", f"There is no sheet after “{stop}”. Choose {known}."))
    lies = lying[stop]
    # a package lies turned for its next roll; one looks at it as it was folded
    return cut_along(turn(lies.laminate) if lies.form is Form.PACKAGE else lies.laminate, line)
