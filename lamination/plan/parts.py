"""Plans that begin from a part of another."""

from __future__ import annotations

from dataclasses import replace

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.walk import walk
from lamination.steps.base import Form
from lamination.steps.divide import Divide
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import counted

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


def joined(begun: Plan, after: str, other: Plan, kitchen: Kitchen) -> tuple[Plan, str]:
    """A dough that was begun by one plan and goes on as another's product; and the step it goes on with.

    Up to the step ``after`` it is as it was begun; from there on it is as in ``other``, from where that has
    as many turns. Raises Faults (``plan_id``) where it is of another family, where the other never has so
    many turns, or where what comes of it cannot be worked.
    """
    if begun.family is not other.family:
        text = f"That is {other.family.said}, and this is {begun.family.said}."
        raise Faults(Fault("plan_id", text))
    n = begun.at(after)
    turns = walk(begun, kitchen).made[n].lies.turns
    lies = [made.lies for made in walk(other, kitchen).made]
    alike = [
        m for m, there in enumerate(lies) if there.turns == turns and there.form is Form.PACKAGE
    ]
    if n < 0 or not turns or not alike or alike[-1] + 1 >= len(other.steps):
        text = f"{other.name} never lies there with {counted(turns, 'turn')}."
        raise Faults(Fault("plan_id", text))
    taken = {step.id for step in begun.steps[: n + 1]}
    tail = []
    for step in other.steps[alike[-1] + 1 :]:
        name = step.id
        while name in taken:
            name = f"{name}-on"
        taken.add(name)
        tail.append(replace(step, id=name))
    made = replace(begun, name=other.name, words=other.words).with_steps(
        *begun.steps[: n + 1], *tail
    )
    try:
        walk(made, kitchen)
    except Faults as wrong:
        raise Faults(*(Fault("plan_id", f.message) for f in wrong.faults)) from None
    return made, tail[0].id
