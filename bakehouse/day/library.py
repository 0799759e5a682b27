"""Days where others need them: an order as a day, and one dough of it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from contextlib import suppress
from dataclasses import replace
from datetime import datetime

from django.conf import settings
from django.http import Http404

from bakehouse.bench.runs import begun_doughs
from bakehouse.day.models import OrderRecord
from bakehouse.documents import read
from bakehouse.kitchen.shelf import the_kitchen
from bakehouse.plans.library import plan_of
from bakehouse.store.blocks import blocks_for
from lamination.day import Day, Dough, FromStore, Numbered, Order, day_of, work_order
from lamination.dough.weighing import OLD_DOUGH
from lamination.plan import Plan
from lamination.store import Need
from lamination.terms import Faults


def order_in(record: OrderRecord) -> Order:
    """The order a record holds, checked by the core on its way out."""
    return read(Order, record.document)


def plans_of(order: Order) -> dict[int, Plan]:
    """The plans an order names, those that are there."""
    return plans_with(ordered.plan_id for ordered in order.doughs)


def plans_with(numbers: Iterable[int]) -> dict[int, Plan]:
    """The plans of some numbers, those that are there."""
    plans: dict[int, Plan] = {}
    for number in numbers:
        with suppress(Http404):  # the core says where a plan is missing
            plans[number] = plan_of(number)
    return plans


def as_day(order: Order, record: OrderRecord | None = None) -> tuple[Day, tuple[Numbered, ...]]:
    """An order as the day it asks for; ``record``: whose doughs have their numbers already.

    Raises Faults with the order's paths.
    """
    known = [read(Numbered, one) for one in record.doughs or ()] if record else []
    begun = begun_doughs(record.pk) if record else ()
    known = [n if n.line else replace(n, line=_line_of(order, n)) for n in known]
    return day_of(
        order, plans_of(order), the_kitchen(), settings.TIME_ZONE, known, begun,
        blocks_of(order, record.pk if record else None),
    )  # fmt: skip


def blocks_of(order: Order, day: int | None = None) -> dict[str, FromStore]:
    """The blocks of the cold store that an order makes use of."""
    return blocks_for(((d.block, d.plan_id) for d in order.doughs if d.block), day)


def _line_of(order: Order, known: Numbered) -> str:
    """The line of a dough that was numbered before lines had names: where it stood, if that is its plan."""
    at = known.ordered
    there = at < len(order.doughs) and order.doughs[at].plan_id == known.plan_id
    return order.doughs[at].id if there else ""


def dough_of(order_id: int, dough: str) -> tuple[Dough, int, str | None]:
    """One dough of a day, as large as it is wanted, how many doughs there are, and the block of the cold
    store that it is.
    """
    record = OrderRecord.there(order_id)
    day, numbered = as_day(order_in(record), record)
    for one in day.doughs:
        if one.id == dough:
            block = next(n.block for n in numbered if n.dough == dough)
            return one, len(numbered), block
    raise Http404("That day has no such dough. Its order may have been changed.")


def needs_ahead(now: datetime) -> Iterator[Need]:
    """What the days to come weigh, of doughs that are not begun: what of, how much, when and for which."""
    kitchen = the_kitchen()
    for record in OrderRecord.objects.filter(deleted_at=None):
        order = order_in(record)
        if order.every:
            continue  # it stands for its weekdays, and is none of them itself
        try:
            worked = work_order(order, plans_of(order), kitchen, blocks_of(order, record.pk))
        except Faults:
            continue  # whoever opens it is told what is the matter
        begun = begun_doughs(record.pk)
        lines = [read(Numbered, one).line for one in record.doughs or () if one["dough"] in begun]
        for ordered, batch in zip(order.doughs, worked.batches, strict=True):
            ready = ordered.ready_at or order.ready_at
            left = 1 - min(lines.count(ordered.id) / batch.doughs, 1.0)
            for timed in batch.sheets:
                at = timed.at or ready
                if at is None or at < now or left <= 0:
                    continue
                for line in timed.sheet.lines:
                    grams = line.grams * timed.times * left
                    if line.ingredient != OLD_DOUGH:
                        yield Need(line.ingredient, line.name, grams, at, order.name)
