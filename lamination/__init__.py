"""The core of Eight Turn: what a laminated dough is and does, in numbers.

Pure functions over frozen dataclasses. No interface code, no input or output, no clock.
Units stand in the names: ``_g``, ``_mm``, ``_um``, ``_c``, ``_min``, ``_pct``, ``_kg_m3``.

>>> from lamination import Family, Kitchen, starting_plan, work
>>> work(starting_plan("Lock croissant", Family.CROISSANT, 1200, Kitchen())).layers.butter
27
"""

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.amend import amend
from lamination.plan.plan import Plan
from lamination.plan.starts import starting_plan
from lamination.plan.versions import migrated
from lamination.plan.work import work
from lamination.plan.worked import WorkedPlan
from lamination.run.standing import admit, stand
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import plain
from lamination.terms.trade import Family
from lamination.warmth.bodies import Today
from lamination.warmth.warmth import work_warmth

__all__ = [
    "Family", "Fault", "Faults", "Kitchen", "Plan", "Today", "WorkedPlan", "admit", "amend", "migrated",
    "plain", "stand", "starting_plan", "work", "work_warmth",
]  # fmt: skip
