"""What a baker's own plans have, beside the ranges that are usual for their family."""

from __future__ import annotations

from lamination.plan.worked import WorkedPlan
from lamination.steps.last_sheet import LastSheetFigures
from lamination.steps.lock_in import LockInFigures
from lamination.terms.trade import Family

_BALANCE = ("sugar_pct", "salt_pct", "fat_pct", "yeast_pct")


def seen(family: Family, worked: WorkedPlan) -> dict[str, float]:
    """The values of a worked plan by the range they are held against: ``{"puff.butter_layers": 243}``.

    In the units of the kitchen's rows, without their ``.low`` and ``.high``. Source: the plan, worked.
    """
    found: dict[str, float] = {}
    if worked.layers.butter:
        found["butter_share_pct"] = worked.butter_share.of_dough_pct
        found["butter_layers"] = worked.layers.butter
        found["butter_um"] = worked.layers.butter_um
    for stop in worked.strip:
        if isinstance(stop.made, LastSheetFigures):
            found["last_sheet_mm"] = stop.made.thickness_mm
        if isinstance(stop.made, LockInFigures) and worked.layers.butter:
            found["block_over_dough"] = stop.made.block_over_dough
    if worked.formula:
        found |= {name: getattr(worked.formula.balance, name) for name in _BALANCE}
    return {f"{family}.{name}": value for name, value in found.items()}
