"""An order as a day: its doughs numbered, each with its plan, its size and its hour."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from lamination.day.day import MOST_DOUGHS, Day, Dough, Held
from lamination.day.order import Order, work_order
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.terms.limits import Fault, Faults

_BEFORE = timedelta(hours=14)  # a night more than the plans take, where no beginning is said
_AFTER = timedelta(hours=2)


@dataclass(frozen=True, slots=True)
class Numbered:
    """A dough of a day: its number, which of the order's it is, and what it is made of."""

    dough: str
    ordered: int
    plan_id: int
    name: str
    dough_g: float
    ready_at: datetime
    products: tuple[str, ...]


def day_of(
    order: Order, plans: Mapping[int, Plan], kitchen: Kitchen, zone: str
) -> tuple[Day, tuple[Numbered, ...]]:
    """The day that an order asks for, and its doughs by number, those that are wanted first first.

    Raises :class:`Faults` with the order's paths: nothing says when, nobody is there, too many doughs.
    """
    worked = work_order(order, plans, kitchen)
    wanted = []
    for i, (ordered, batch) in enumerate(zip(order.doughs, worked.batches, strict=True)):
        ready = ordered.ready_at or order.ready_at
        if ready is None:
            raise Faults(Fault(f"doughs[{i}].ready_at", "Say when it is wanted."))
        wanted += [(ready, i, batch)] * batch.doughs
    if len(wanted) > MOST_DOUGHS:
        text = f"That is {len(wanted)} doughs; a day holds {MOST_DOUGHS}. Make some larger, or two days."
        raise Faults(Fault("doughs", text))
    wanted.sort(key=lambda w: (w[0], w[1]))
    numbered, doughs = [], []
    for n, (ready, i, batch) in enumerate(wanted, 1):
        products = tuple(p.product for p in order.doughs[i].products)
        numbered.append(
            Numbered(str(n), i, batch.plan_id, batch.name, batch.dough_g, ready, products)
        )
        doughs.append(Dough(str(n), batch.plan, ready))
    longest = max(work(d.plan, kitchen).total_min for d in doughs)
    begins = order.begins or wanted[0][0] - timedelta(minutes=longest) - _BEFORE
    first = min((s.starts for s in order.hands), default=begins)
    ends = max([wanted[-1][0] + _AFTER, *(s.ends for s in order.hands)])
    begins = begins if order.begins else max(begins, first - timedelta(hours=1))
    paths = {n.dough: n.ordered for n in numbered}
    try:
        day = Day(
            order.name, begins.replace(second=0, microsecond=0), ends, order.hands, tuple(doughs), zone,
            order.prefer, _still_there(order, doughs), order.quiet,
        )  # fmt: skip
    except Faults as wrong:
        raise Faults(*(in_order(f, paths, doughs) for f in wrong.faults)) from None
    return day, tuple(numbered)


def _still_there(order: Order, doughs: list[Dough]) -> tuple[Held, ...]:
    """The steps that were fixed and are still there: a dough fewer takes its own with it."""
    steps = {d.id: {s.id for s in d.plan.steps} for d in doughs}
    return tuple(h for h in order.held if h.step in steps.get(h.dough, ()))


def copied(order: Order, days: int, zone: str) -> Order:
    """The same order so many days later, every time at the hour that the clock shows there.

    Across a clock change a shift keeps its hours on the wall. Steps that were fixed are not copied: what
    held them was that day's.
    """
    tz = ZoneInfo(zone)

    def later(at: datetime) -> datetime:
        wall = at.astimezone(tz).replace(tzinfo=None) + timedelta(days=days)
        return wall.replace(tzinfo=tz).astimezone(UTC)

    def moved(at: datetime | None) -> datetime | None:
        return later(at) if at else None

    return replace(
        order,
        doughs=tuple(replace(d, ready_at=moved(d.ready_at)) for d in order.doughs),
        ready_at=moved(order.ready_at),
        begins=moved(order.begins),
        hands=tuple(replace(s, starts=later(s.starts), ends=later(s.ends)) for s in order.hands),
        quiet=tuple(replace(q, starts=later(q.starts), ends=later(q.ends)) for q in order.quiet),
        held=(),
    )


def in_order(fault: Fault, ordered: Mapping[str, int], doughs: list[Dough]) -> Fault:
    """A fault of the day at the order's own path."""
    field = fault.field
    if field.startswith("doughs["):
        n, _, rest = field.removeprefix("doughs[").partition("]")
        i = ordered[doughs[int(n)].id]
        return Fault(
            f"doughs[{i}]{rest}" if "plan" not in rest else f"doughs[{i}].plan_id", fault.message
        )
    return Fault({"ends": "begins"}.get(field, field), fault.message)
