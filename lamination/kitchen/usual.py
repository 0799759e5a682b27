"""What is usual for a family of dough, and whether a value leaves it."""

from __future__ import annotations

from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import Family
from lamination.plan.plan import Plan
from lamination.terms.limits import say

FAMILY_NAMES = {
    Family.CROISSANT: "croissant",
    Family.DANISH: "Danish",
    Family.BRIOCHE: "laminated brioche",
    Family.KOUIGN: "kouign-amann",
    Family.PUFF: "puff",
}


def outside(plan: Plan, kitchen: Kitchen, name: str, value: float) -> tuple[str, str, str] | None:
    """(below/above, from, to) when a value leaves its family's usual range."""
    low = kitchen[f"{plan.family}.{name}.low"]
    high = kitchen[f"{plan.family}.{name}.high"]
    if low <= value <= high:
        return None
    return ("below" if value < low else "above"), say(low), say(high)
