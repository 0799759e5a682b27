"""Where plans are kept, for this room and the others."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from bakehouse.documents import dump, read_plan
from bakehouse.kitchen.shelf import the_kitchen_at
from bakehouse.plans.models import PlanRecord
from lamination.kitchen import Kitchen
from lamination.plan import Plan, work


def plan_in(record: PlanRecord) -> Plan:
    """The plan a record holds, checked by the core on its way out."""
    return read_plan(record.document)


def plan_of(plan_id: int) -> Plan:
    """A saved plan by its number."""
    return plan_in(PlanRecord.there(plan_id))


def line_of(plan: Plan, kitchen: Kitchen) -> dict[str, Any]:
    """What the list shows of a plan, worked in this kitchen."""
    worked = work(plan, kitchen)
    return {
        "name": plan.name,
        "family": plan.family.value,
        "folds": [t.fold.value for t in plan.turns],
        "total_g": worked.total_g,
        "butter_layers": worked.layers.butter,
        "total_leaves": worked.layers.total,
        "pieces": worked.cut.pieces if worked.cut else None,
        "piece_g": worked.cut.piece_g if worked.cut else None,
    }


def new_record(plan: Plan, user: User | None) -> PlanRecord:
    """Keep a plan for the first time. Raises Faults when it cannot be worked in this kitchen."""
    kitchen, revision = the_kitchen_at()
    return PlanRecord.begun(dump(plan), user, line=line_of(plan, kitchen), line_of=revision)


def save_over(record: PlanRecord, revision: int, plan: Plan, user: User | None) -> PlanRecord:
    """Save a plan over the revision it was made from. Raises Faults when it cannot be worked."""
    kitchen, at = the_kitchen_at()
    line = line_of(plan, kitchen)
    return record.saved_over(revision, dump(plan), user, line=line, line_of=at)


def with_own(plan: Plan, kitchen: Kitchen) -> Plan:
    """The plan as it goes out: with this bakery's own ingredients that its formula names."""
    if plan.formula is None:
        return plan
    there = {what.key for what in plan.formula.own}
    named = {line.ingredient for line in plan.formula.lines} | {plan.butter.ingredient}
    prepared = [kitchen.shelf[p.key] for p in kitchen.preparations]
    own = (*kitchen.ingredients, *prepared)
    more = [i for i in own if i.key in named and i.key not in there]
    return replace(plan, formula=replace(plan.formula, own=(*plan.formula.own, *more)))


def saved_anew(plan_id: int, change: Callable[[Plan], Plan], user: User | None) -> PlanRecord:
    """Change a saved plan as it is now, as its next revision. Raises Faults when it cannot be worked."""
    with transaction.atomic():
        record = PlanRecord.there(plan_id)
        return save_over(record, record.revision, change(plan_in(record)), user)
