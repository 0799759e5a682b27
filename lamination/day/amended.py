"""Changes to an order that need the work of others in it: another plan, another day."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime
from enum import StrEnum
from typing import Annotated
from zoneinfo import ZoneInfo

from lamination.day.day import without_zone
from lamination.day.order import Order, Ordered, Wanted
from lamination.day.ordered import copied
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.terms.limits import Checked, Fault, Faults, Range, raise_if


class OrderChange(StrEnum):
    """What is asked for."""

    PLAN = "plan"  # index of a dough, plan_id: its products and what they weigh follow
    READY_AT = "ready_at"  # at: on another day shifts and quiet hours follow


@dataclass(frozen=True)
class OrderAmendment(Checked):
    """One change. Which other fields are needed depends on ``change``."""

    change: OrderChange
    index: Annotated[int, Range(0, 19)] | None = None
    plan_id: int | None = None
    at: datetime | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        needed = ("index", "plan_id") if self.change is OrderChange.PLAN else ()
        raise_if(Fault(n, "This is needed as well.") for n in needed if getattr(self, n) is None)
        raise_if(without_zone([("at", self.at)]))


def amend_order(
    order: Order, asked: OrderAmendment, plans: Mapping[int, Plan], kitchen: Kitchen, zone: str
) -> Order:
    """The order with one change made.

    ``plans``: those that may be chosen; ``zone``: where its days begin and end. Raises :class:`Faults` with
    the amendment's paths where there is no such dough or plan.
    """
    if asked.change is OrderChange.READY_AT:
        return _on(order, asked.at, zone)
    n = asked.index or 0
    if n >= len(order.doughs):
        raise Faults(Fault("index", f"The order has {len(order.doughs)} doughs, counted from 0."))
    plan = plans.get(asked.plan_id or 0)
    if plan is None:
        raise Faults(Fault("plan_id", "There is no such plan. Choose another."))
    other = replace(
        order.doughs[n],
        plan_id=asked.plan_id or 0,
        products=_products(order.doughs[n], plan, kitchen),
        dough_g=None,
        flour_g=order.doughs[n].flour_g if plan.formula else None,
    )
    return replace(order, doughs=(*order.doughs[:n], other, *order.doughs[n + 1 :]))


def _on(order: Order, ready_at: datetime | None, zone: str) -> Order:
    """Ready at another moment. On another day who is there comes along, at the hours of the clock."""
    if ready_at and order.ready_at:
        tz = ZoneInfo(zone)
        days = (ready_at.astimezone(tz).date() - order.ready_at.astimezone(tz).date()).days
        if days:
            order = replace(copied(order, days, zone), every=order.every)
    return replace(order, ready_at=ready_at)


def _products(dough: Ordered, plan: Plan, kitchen: Kitchen) -> tuple[Wanted, ...]:
    """As many pieces as were wanted, of what another plan cuts, at what it weighs there."""
    wanted = dough.products
    cut = work(plan, kitchen).cut
    names = [p.name for p in plan.cut.products] if plan.cut else []
    made = [(names[n] or plan.name, p.piece_g) for n, p in enumerate(cut.products)] if cut else []
    if len(made) < 2:
        made = [(plan.name, cut.piece_g if cut else wanted[0].raw_g)]
    kept = min(len(made), len(wanted))
    pieces = [w.pieces for w in wanted[: kept - 1]] + [sum(w.pieces for w in wanted[kept - 1 :])]
    return tuple(
        Wanted(name[:60], many, float(max(1, round(grams))), was.loss_pct)
        for (name, grams), many, was in zip(made, pieces, wanted, strict=False)
    )
