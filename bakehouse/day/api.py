"""Orders: list, open, save, delete and bring back; work one to doughs and weigh-out sheets."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, datetime
from typing import Annotated

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, Router, Status

from bakehouse.day.library import blocks_of, order_in, plans_of, plans_with
from bakehouse.day.models import OrderRecord
from bakehouse.documents import as_download, dump, read
from bakehouse.kitchen.shelf import the_kitchen
from bakehouse.people.roles import head_only, signed_in, user_of
from bakehouse.records import VersionLine, version_lines
from bakehouse.store.blocks import blocks_for
from lamination.day import (
    Different,
    Order,
    OrderAmendment,
    Wanted,
    Weekday,
    WorkedOrder,
    amend_order,
    changes,
    copied,
    date_of,
    first_ready,
    last_like,
    standing_on,
    stands_next,
    work_order,
)
from lamination.files import sheets_csv
from lamination.plan import work
from lamination.terms import Checked, Fault, Faults, Range

router = Router(tags=["day"])

MOST_LOOKED_AT = 40  # orders, the latest first


@dataclass
class OrderLine:
    """An order as the list shows it. ``next_on``: the next day a standing order is to be made for."""

    id: int
    name: str
    ready_at: datetime | None
    every: tuple[Weekday, ...]
    next_on: date | None
    pieces: int
    doughs: int
    updated_at: datetime


@dataclass
class SavedOrder:
    """An order with its number and revision."""

    id: int
    revision: int
    updated_at: datetime
    order: Order


@dataclass
class SaveOrder:
    """An order to save over ``revision``, the one it was made from."""

    revision: int
    order: Order


def _saved(record: OrderRecord) -> SavedOrder:
    return SavedOrder(record.pk, record.revision, record.updated_at, order_in(record))


def _worked(order: Order) -> WorkedOrder:
    return work_order(order, plans_of(order), the_kitchen(), blocks_of(order))


@router.post("/order/work", auth=signed_in, response=WorkedOrder)
def work_an_order(request: HttpRequest, order: Body[Order]) -> WorkedOrder:
    return _worked(order)


@dataclass(frozen=True)
class AmendOrder:
    """An order, and one change to it."""

    order: Order
    amendment: OrderAmendment


@router.post("/order/amend", auth=signed_in, response=Order)
def amend_an_order(request: HttpRequest, asked: Body[AmendOrder]) -> Order:
    """A change that others in the order follow; nothing is kept."""
    chosen = asked.amendment.plan_id
    plans = plans_with(() if chosen is None else (chosen,))
    block = asked.amendment.block
    n = asked.amendment.index or 0
    lines = asked.order.doughs
    store = blocks_for([(block, lines[n].plan_id)] if block and n < len(lines) else ())
    return amend_order(
        asked.order, asked.amendment, plans, the_kitchen(), settings.TIME_ZONE, store
    )


@router.get("/orders", auth=signed_in, response=list[OrderLine])
def list_orders(request: HttpRequest) -> list[OrderLine]:
    lines = []
    for record in OrderRecord.objects.filter(deleted_at=None):
        order = order_in(record)
        pieces = sum(w.pieces for d in order.doughs for w in d.products)
        lines.append(
            OrderLine(
                record.pk, order.name, first_ready(order), order.every, _next_on(record, order),
                pieces, len(order.doughs), record.updated_at,
            )
        )  # fmt: skip
    return lines


@dataclass
class WantedOfPlan:
    """What an order wants of a plan, all its doughs of it together."""

    order_id: int
    name: str
    ready_at: datetime | None
    products: list[Wanted]


@router.get("/plans/{int:plan_id}/wanted", auth=signed_in, response=list[WantedOfPlan])
def wanted_of_plan(request: HttpRequest, plan_id: int) -> list[WantedOfPlan]:
    """The latest orders that want something of a plan."""
    found = []
    for record in OrderRecord.objects.filter(deleted_at=None)[:MOST_LOOKED_AT]:
        order = order_in(record)
        wanted = [w for d in order.doughs if d.plan_id == plan_id for w in d.products if w.pieces]
        if wanted:
            found.append(WantedOfPlan(record.pk, order.name, order.ready_at, wanted))
    return found


def _next_on(record: OrderRecord, order: Order) -> date | None:
    if not order.every:
        return None
    made = (date_of(order_in(r), settings.TIME_ZONE) for r in record.made.filter(deleted_at=None))
    return stands_next(order, timezone.localdate(), [day for day in made if day])


@router.post("/orders", auth=head_only, response=SavedOrder)
def new_order(request: HttpRequest, order: Body[Order]) -> SavedOrder:
    _worked(order)
    return _saved(OrderRecord.begun(dump(order), user_of(request)))


@router.get("/orders/{int:order_id}", auth=signed_in, response=SavedOrder)
def open_order(request: HttpRequest, order_id: int) -> SavedOrder:
    return _saved(OrderRecord.there(order_id))


@router.put("/orders/{int:order_id}", auth=head_only, response=SavedOrder)
def save_order(request: HttpRequest, order_id: int, save: Body[SaveOrder]) -> SavedOrder:
    try:
        _worked(save.order)
    except Faults as wrong:
        raise Faults(*(f.under("order") for f in wrong.faults)) from None
    record = OrderRecord.there(order_id).saved_over(
        save.revision, dump(save.order), user_of(request)
    )
    # what was proposed is of the order as it was
    record.proposed = None
    record.save(update_fields=["proposed"])
    return _saved(record)


@dataclass(frozen=True)
class CopyOrder(Checked):
    """How many days later the same is wanted again."""

    days: Annotated[int, Range(1, 366, "days")] = 7


@router.post("/orders/{int:order_id}/copy", auth=head_only, response=SavedOrder)
def copy_order(request: HttpRequest, order_id: int, asked: Body[CopyOrder]) -> SavedOrder:
    """The same order on another day, at the same hours of the clock."""
    order = copied(order_in(OrderRecord.there(order_id)), asked.days, settings.TIME_ZONE)
    return _saved(OrderRecord.begun(dump(order), user_of(request)))


@router.post("/orders/{int:order_id}/next", auth=head_only, response=SavedOrder)
def make_next(request: HttpRequest, order_id: int) -> SavedOrder:
    """The next order that a standing one stands for."""
    record = OrderRecord.there(order_id)
    order = order_in(record)
    on = _next_on(record, order)
    if on is None:
        raise Faults(Fault("every", "Those of the next eight weeks are all made."
                           if order.every else "Say on which weekdays it stands."))  # fmt: skip
    made = OrderRecord.begun(dump(standing_on(order, on, settings.TIME_ZONE)), user_of(request))
    made.made_from = record
    made.save(update_fields=["made_from"])
    return _saved(made)


@dataclass
class Against:
    """What is different from the last order like it; ``order_id`` None where there is none."""

    order_id: int | None
    name: str
    on: date | None
    changes: tuple[Different, ...]


@router.get("/orders/{int:order_id}/changes", auth=signed_in, response=Against)
def against_the_last(request: HttpRequest, order_id: int) -> Against:
    """What is different from the last order like it, on the same weekday if there is one."""
    order, zone = order_in(OrderRecord.there(order_id)), settings.TIME_ZONE
    others = {
        r.pk: order_in(r) for r in OrderRecord.objects.filter(deleted_at=None).exclude(pk=order_id)
    }
    last = last_like(order, others, zone)
    if last is None:
        return Against(None, "", None, ())
    before = others[last]
    names = {n: plan.name for n, plan in plans_of(order).items()}
    return Against(last, before.name, date_of(before, zone), changes(order, before, names, zone))


@router.delete("/orders/{int:order_id}", auth=head_only, response={204: None})
def delete_order(request: HttpRequest, order_id: int) -> Status[None]:
    OrderRecord.there(order_id).gone(user_of(request))
    return Status(204, None)


@router.post("/orders/{int:order_id}/restore", auth=head_only, response=SavedOrder)
def restore_order(request: HttpRequest, order_id: int) -> SavedOrder:
    record = OrderRecord.there(order_id, deleted=True)
    record.back()
    return _saved(record)


@router.get("/orders/{int:order_id}/versions", auth=signed_in, response=list[VersionLine])
def order_versions(request: HttpRequest, order_id: int) -> list[VersionLine]:
    return version_lines(OrderRecord.there(order_id))


@router.get("/orders/{int:order_id}/versions/{int:revision}", auth=signed_in, response=Order)
def order_version(request: HttpRequest, order_id: int, revision: int) -> Order:
    """An order as it was saved once; opened and saved, it is the latest again."""
    document = OrderRecord.there(order_id).version(revision)
    if document is None:
        raise Http404("That version is no longer kept.")
    return read(Order, document)


@router.get("/orders/{int:order_id}/sheets.csv", auth=signed_in)
def download_order(request: HttpRequest, order_id: int) -> HttpResponse:
    order = order_in(OrderRecord.there(order_id))
    worked = _worked(order)
    sheets = [timed.sheet for batch in worked.batches for timed in batch.sheets]
    return as_download(sheets_csv(sheets), "text/csv", order.name, "sheets.csv")


@router.get("/orders/{int:order_id}/labels.pdf", auth=signed_in)
def download_order_labels(
    request: HttpRequest, order_id: int, made_at: datetime | None = None
) -> HttpResponse:
    """A label for every piece of an order, product after product, as sheets to print at true size."""
    from bakehouse.plans.label_files import Finished, labels_pdf

    kitchen = the_kitchen()
    order = order_in(OrderRecord.there(order_id))
    at = timezone.localtime(made_at or first_ready(order))
    labels = []
    for batch in _worked(order).batches:
        of = work(batch.plan, kitchen).labels
        by_name = {label.product: label for label in of}
        for n, made in enumerate(batch.made):
            # what is ordered by another name is the product in its place
            label = by_name.get(made.product) or (of[min(n, len(of) - 1)] if of else None)
            if label and made.pieces:
                named = replace(label, product=made.product)
                labels.append((Finished(named, kitchen.sign, at), made.pieces))
    content = labels_pdf(labels, kitchen)
    return as_download(content, "application/pdf", f"{order.name} labels", "pdf")
