"""An order as a day: its doughs numbered, each with its plan, its size and its hour."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from itertools import chain, count
from zoneinfo import ZoneInfo

from lamination.day.day import MOST_DOUGHS, Day, Dough, Held
from lamination.day.from_store import FromStore
from lamination.day.order import Order, work_order
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.terms.limits import Fault, Faults

_BEFORE = timedelta(hours=14)  # a night more than the plans take, where no beginning is said
_AFTER = timedelta(hours=2)


@dataclass(frozen=True, slots=True)
class Numbered:
    """A dough of a day: its number, which of the order's it is, and what it is made of.

    ``line``: the id of what was ordered that it is of; ``dough``: given once, and its own from then on.
    ``block``: the block of the cold store that it is.
    """

    dough: str
    ordered: int
    plan_id: int
    name: str
    dough_g: float
    ready_at: datetime
    products: tuple[str, ...]
    line: str = ""
    block: str | None = None


def _numbers(
    wanted: Sequence[tuple[str, int]],
    known: Iterable[Numbered],
    begun: Iterable[str],
    held: Iterable[str],
) -> Iterator[str]:
    """The number of each dough, by the line it is of and its plan: its own, or one that none has had.

    Where a line has fewer doughs than before, those that are begun stay.
    """
    had: dict[tuple[str, int], list[str]] = {}
    at_bench = set(begun)
    for one in sorted(known, key=lambda n: (n.dough not in at_bench, int(n.dough))):
        had.setdefault((one.line, one.plan_id), []).append(one.dough)
    used = [int(n) for n in (*at_bench, *held, *chain.from_iterable(had.values())) if n.isdecimal()]
    fresh = (str(n) for n in count(max(used, default=0) + 1))
    for of in wanted:
        mine = had.get(of)
        yield mine.pop(0) if mine else next(fresh)


def day_of(
    order: Order,
    plans: Mapping[int, Plan],
    kitchen: Kitchen,
    zone: str,
    known: Iterable[Numbered] = (),
    begun: Iterable[str] = (),
    store: Mapping[str, FromStore] | None = None,
) -> tuple[Day, tuple[Numbered, ...]]:
    """The day that an order asks for, and its doughs by number, those that are wanted first first.

    ``known``: its doughs as they were numbered before, who keep their numbers; ``begun``: the numbers that
    stand at the bench, which nobody else gets; ``store``: blocks of the cold store, by their
    ids. Raises :class:`Faults` with the order's paths: nothing says when, nobody is there, too many doughs.
    """
    worked = work_order(order, plans, kitchen, store)
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
    lines = [(order.doughs[i].id, batch.plan_id) for _, i, batch in wanted]
    # nor gets anybody the steps that were fixed of one that is gone
    numbers = _numbers(lines, known, begun, {h.dough for h in order.held})
    for number, (ready, i, batch) in zip(numbers, wanted, strict=True):
        products = tuple(p.product for p in order.doughs[i].products)
        line = order.doughs[i]
        of = batch.plan_id, batch.name, batch.dough_g, ready, products, line.id, line.block
        numbered.append(Numbered(number, i, *of))
        doughs.append(Dough(number, batch.plan, ready, batch.goes_on))
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
