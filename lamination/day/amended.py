"""Changes to an order that need the work of others in it: another plan, another day."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime
from enum import StrEnum
from typing import Annotated
from zoneinfo import ZoneInfo

from lamination.day.batch import Wanted
from lamination.day.day import without_zone
from lamination.day.from_store import FromStore
from lamination.day.order import Order, Ordered
from lamination.day.ordered import copied
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.terms.limits import Checked, Fault, Faults, Length, Range, raise_if


class OrderChange(StrEnum):
    """What is asked for."""

    PLAN = "plan"  # index of a dough, plan_id: its products and what they weigh follow
    READY_AT = "ready_at"  # at: on another day shifts and quiet hours follow
    BLOCK = "block"  # index of a dough, block of the cold store: it makes as many of the pieces as it gives


_NEEDS: dict[OrderChange, tuple[str, ...]] = {
    OrderChange.PLAN: ("index", "plan_id"),
    OrderChange.READY_AT: (),
    OrderChange.BLOCK: ("index", "block"),
}


@dataclass(frozen=True)
class OrderAmendment(Checked):
    """One change. Which other fields are needed depends on ``change``."""

    change: OrderChange
    index: Annotated[int, Range(0, 19)] | None = None
    plan_id: int | None = None
    at: datetime | None = None
    block: Annotated[str, Length(8, 64, "characters")] | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        missing = [n for n in _NEEDS[self.change] if getattr(self, n) is None]
        raise_if(Fault(n, "This is needed as well.") for n in missing)
        raise_if(without_zone([("at", self.at)]))


def amend_order(
    order: Order,
    asked: OrderAmendment,
    plans: Mapping[int, Plan],
    kitchen: Kitchen,
    zone: str,
    store: Mapping[str, FromStore] | None = None,
) -> Order:
    """The order with one change made.

    ``plans`` and ``store``: those that may be chosen; ``zone``: where its days begin and end. Raises
    :class:`Faults` with the amendment's paths where there is no such dough, plan or block.
    """
    if asked.change is OrderChange.READY_AT:
        return _on(order, asked.at, zone)
    n = asked.index or 0
    if n >= len(order.doughs):
        raise Faults(Fault("index", f"The order has {len(order.doughs)} doughs, counted from 0."))
    if asked.change is OrderChange.BLOCK:
        return _from_store(
            order, n, asked.block or "", (store or {}).get(asked.block or ""), kitchen
        )
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


def _from_store(order: Order, n: int, block: str, of: FromStore | None, kitchen: Kitchen) -> Order:
    """As many of a line's pieces as a block gives become a line of their own; the rest is mixed as before."""
    if of is None or of.gone:
        text = "This block is not in the cold store, or nobody knows its plan."
        raise Faults(Fault("block", of.gone if of and of.gone else text))
    if any(d.block == block for d in order.doughs):
        raise Faults(Fault("block", f"{of.mark} is in this order already."))
    line, left = order.doughs[n], work(of.plan, kitchen).comes_out_g
    mine, others = [], []
    for wanted in line.products:
        each = wanted.raw_g / (1 - wanted.loss_pct / 100)
        pieces = min(wanted.pieces, int(left / each + 1e-9))
        left -= pieces * each
        if pieces:
            mine.append(replace(wanted, pieces=pieces))
        if wanted.pieces - pieces:
            others.append(replace(wanted, pieces=wanted.pieces - pieces))
    if not mine:
        raise Faults(Fault("block", f"{of.mark} is too small for one of these pieces."))
    first = replace(line, products=tuple(mine), block=block, id="", dough_g=None, flour_g=None)
    rest = (replace(line, products=tuple(others)),) if others and line.flour_g is None else ()
    return replace(order, doughs=(*order.doughs[:n], *rest, first, *order.doughs[n + 1 :]))


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
