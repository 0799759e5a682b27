"""Orders that come again: the next day one stands for, and what is different from the last like it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo

from lamination.day.day import Shift, Weekday
from lamination.day.order import Order, Ordered
from lamination.day.ordered import copied
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import counted


@dataclass(frozen=True, slots=True)
class Different:
    """What is different from the last order like it: what it is about, and how, in words."""

    about: str
    says: str


def first_ready(order: Order) -> datetime | None:
    """When the first of an order is wanted; None where nothing says so."""
    hours = [d.ready_at for d in order.doughs if d.ready_at] + (
        [order.ready_at] if order.ready_at and any(not d.ready_at for d in order.doughs) else []
    )
    return min(hours, default=None)


def date_of(order: Order, zone: str) -> date | None:
    """The day an order is wanted on, by the clock of its zone."""
    ready = first_ready(order)
    return ready.astimezone(ZoneInfo(zone)).date() if ready else None


def stands_next(order: Order, after: date, taken: Iterable[date] = ()) -> date | None:
    """The first day after ``after`` that a standing order stands for and that is not ``taken``.

    None for an order that does not stand, and where the next eight weeks are taken.
    """
    taken = set(taken)
    days = {list(Weekday).index(d) for d in order.every}
    for n in range(1, 8 * 7 + 1):
        day = after + timedelta(days=n)
        if day.weekday() in days and day not in taken:
            return day
    return None


def standing_on(order: Order, on: date, zone: str) -> Order:
    """The order that a standing one makes for a day, at the same hours of the clock.

    Raises :class:`Faults` where the standing order has no hour to go by.
    """
    own = date_of(order, zone)
    if own is None:
        raise Faults(Fault("ready_at", "Say when it is wanted; the other weeks follow that hour."))
    made = copied(order, (on - own).days, zone)
    return replace(made, name=f"{order.name[:60]}, {on.day} {on:%B}", every=())


def last_like(order: Order, others: Mapping[int, Order], zone: str) -> int | None:
    """Which of the others is the last before it that is most like it: on the same weekday, if any is."""
    own = date_of(order, zone)
    before = []
    for key, other in others.items():
        day = date_of(other, zone)
        shared = len(_products(order).keys() & _products(other).keys())
        if own and day and day < own and shared and not other.every:
            before.append((day.weekday() == own.weekday(), day, shared, key))
    return max(before)[-1] if before else None


def changes(
    order: Order, before: Order, names: Mapping[int, str], zone: str
) -> tuple[Different, ...]:
    """What is different from an order before: pieces, products, the hours on the clock, the hands.

    ``names``: the plans' names by number.
    """
    return (
        *_pieces(order, before),
        *_hours(order, before, names, zone),
        *_hands(order, before, zone),
    )


def _products(order: Order) -> Counter[tuple[int, str]]:
    found: Counter[tuple[int, str]] = Counter()
    for dough in order.doughs:
        for wanted in dough.products:
            found[dough.plan_id, wanted.product] += wanted.pieces
    return found


def _pieces(order: Order, before: Order) -> Iterator[Different]:
    now, then = _products(order), _products(before)
    for plan, product in {**now, **then}:
        pieces, were = now[plan, product], then[plan, product]
        if (plan, product) not in then:
            yield Different(product, f"new, {counted(pieces, 'piece')}")
        elif (plan, product) not in now:
            yield Different(product, f"not this time; {counted(were, 'piece')} before")
        elif pieces != were:
            more = "more" if pieces > were else "fewer"
            yield Different(product, f"{abs(pieces - were)} {more}: {counted(pieces, 'piece')}")


def _hours(order: Order, before: Order, names: Mapping[int, str], zone: str) -> Iterator[Different]:
    tz = ZoneInfo(zone)

    def clock(of: Order, dough: Ordered) -> str | None:
        ready = dough.ready_at or of.ready_at
        return f"{ready.astimezone(tz):%H:%M}" if ready else None

    were = {d.plan_id: clock(before, d) for d in before.doughs}
    for dough in order.doughs:
        now, then = clock(order, dough), were.get(dough.plan_id)
        if now and then and now != then:
            yield Different(names.get(dough.plan_id, "A dough"), f"ready at {now}; {then} before")


def _hands(order: Order, before: Order, zone: str) -> Iterator[Different]:
    tz = ZoneInfo(zone)

    def told(shift: Shift) -> str:
        hours = f"{shift.starts.astimezone(tz):%H:%M} to {shift.ends.astimezone(tz):%H:%M}"
        return f"{hours}, {counted(shift.count, 'hand')}"

    now, then = {s.name: told(s) for s in order.hands}, {s.name: told(s) for s in before.hands}
    for name in {**now, **then}:
        if name not in then:
            yield Different(name, f"there this time, {now[name]}")
        elif name not in now:
            yield Different(name, f"not there this time; {then[name]} before")
        elif now[name] != then[name]:
            yield Different(name, f"{now[name]}; {then[name]} before")
