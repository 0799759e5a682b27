"""A plan: a list of steps, walked, worked, changed, begun, and read from older files."""

from lamination.plan.across import section_along
from lamination.plan.amend import amend, scaled
from lamination.plan.amendment import Amendment
from lamination.plan.fixes import sound
from lamination.plan.parts import joined, other_part
from lamination.plan.plan import FORMAT, VERSION, AnyStep, Plan
from lamination.plan.seen import seen
from lamination.plan.starts import (
    USUAL_PRODUCTS,
    starting_finish,
    starting_formula,
    starting_plan,
)
from lamination.plan.versions import kitchen_of_then, migrated
from lamination.plan.walk import Walk, walk
from lamination.plan.work import PLAIN, work
from lamination.plan.worked import WorkedPlan

__all__ = [
    "FORMAT", "PLAIN", "USUAL_PRODUCTS", "VERSION", "Amendment", "AnyStep", "Plan", "Walk", "WorkedPlan",
    "amend", "joined", "kitchen_of_then", "migrated", "other_part", "scaled", "section_along", "seen",
    "sound", "starting_finish", "starting_formula", "starting_plan", "walk", "work",
]  # fmt: skip
