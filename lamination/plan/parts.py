"""Plans that begin from a part of another."""

from __future__ import annotations

from dataclasses import replace

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.walk import walk
from lamination.steps.divide import Divide
from lamination.terms.limits import Fault, Faults

_MOST_NAME = 80


def other_part(plan: Plan, step_id: str, kitchen: Kitchen) -> Plan:
    """The plan of what ``step_id`` puts away: the same up to there, then it goes on with that part.

    What comes after is as in the plan, to be changed. Raises Faults (``stop``) where nothing is divided.
    """
    n = plan.at(step_id)
    step = plan.steps[n] if n >= 0 else None
    if not isinstance(step, Divide):
        raise Faults(Fault("stop", "Nothing is divided at this step."))
    shares = walk(plan, kitchen).made[n].figures
    mine = replace(step, goes_on_pct=100 - shares.share_pct, goes_on_g=None, other=not step.other)
    name = f"{plan.name}, other part"[:_MOST_NAME]
    return replace(plan, name=name).with_steps(*(mine if s is step else s for s in plan.steps))
