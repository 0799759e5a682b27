"""Where plans are kept, for this room and the others."""

from __future__ import annotations

from functools import lru_cache

from django.contrib.auth.models import User
from django.http import Http404

from bakehouse.documents import dump, read_plan
from bakehouse.plans.models import PlanRecord
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.plan.worked import WorkedPlan


def record_of(plan_id: int, deleted: bool = False) -> PlanRecord:
    """The record of a plan that is there. Raises Http404 with a sentence."""
    record = PlanRecord.objects.filter(pk=plan_id, deleted_at__isnull=not deleted).first()
    if record is None:
        raise Http404("There is no such plan. It may have been deleted.")
    return record


def plan_in(record: PlanRecord) -> Plan:
    """The plan a record holds, checked by the core on its way out."""
    return read_plan(record.document)


def plan_of(plan_id: int) -> Plan:
    """A saved plan by its number."""
    return plan_in(record_of(plan_id))


def new_record(plan: Plan, user: User) -> PlanRecord:
    """Keep a plan for the first time. Raises Faults when it cannot be worked."""
    work(plan)
    return PlanRecord.objects.create(document=dump(plan), updated_by=user)


@lru_cache(maxsize=512)
def worked_plainly(plan: Plan) -> WorkedPlan:
    """A plan worked without regard to the kitchen: counts and pieces do not depend on it."""
    return work(plan)
