"""Stock: what was counted, what the days ahead need, what to order by when; a table in and out."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, File, Router
from ninja.files import UploadedFile

from bakehouse.bench.runs import weighed_since
from bakehouse.day.library import needs_ahead
from bakehouse.documents import as_download
from bakehouse.kitchen.shelf import the_kitchen
from bakehouse.people.roles import signed_in, user_of
from bakehouse.store.blocks import those_there
from bakehouse.store.models import StockCount
from lamination.store import Count, Need, Stocked, stock, trimmings_for
from lamination.terms import Checked, Fault, Faults, Range, written_table
from lamination.terms.tables import read_table
from lamination.terms.trade import Family

router = Router(tags=["store"])
LARGEST_TABLE = 500_000  # bytes
_HEAD = ("ingredient", "name", "there g", "needed g", "short g", "order by")


@dataclass(frozen=True)
class Counted(Checked):
    """What somebody counted of an ingredient, g; None where it is not counted any more."""

    grams: Annotated[float, Range(0, 5_000_000, "g")] | None = None


@dataclass
class FromTrimmings:
    """So much of a block of trimmings that goes into a dough, g, and the butter of it."""

    block: str
    mark: str
    grams: float
    butter_g: float


def _stock() -> tuple[Stocked, ...]:
    counts = [Count(c.ingredient, c.grams, c.at) for c in StockCount.objects.all()]
    weighed: list[Need] = []
    if counts:
        weighed = [Need(*one) for one in weighed_since(min(c.at for c in counts))]
    kitchen = the_kitchen()
    names = {c.ingredient: kitchen.shelf[c.ingredient].name for c in counts
             if c.ingredient in kitchen.shelf}  # fmt: skip
    return stock(counts, weighed, needs_ahead(timezone.now()), kitchen, names)


@router.get("/stock", auth=signed_in, response=list[Stocked])
def list_stock(request: HttpRequest) -> list[Stocked]:
    """Every ingredient that was counted, or that the days ahead need."""
    return list(_stock())


@router.put("/stock/{ingredient}", auth=signed_in, response=list[Stocked])
def count(request: HttpRequest, ingredient: str, counted: Body[Counted]) -> list[Stocked]:
    """Keep what was counted now."""
    if ingredient not in the_kitchen().shelf and not any(
        s.ingredient == ingredient for s in _stock()
    ):
        raise Faults(Fault("ingredient", "The kitchen has no such ingredient."))
    if counted.grams is None:
        StockCount.objects.filter(pk=ingredient).delete()
    else:
        StockCount.objects.update_or_create(
            pk=ingredient,
            defaults={"grams": counted.grams, "at": timezone.now(), "by": user_of(request)},
        )
    return list(_stock())


@router.get("/stock.csv", auth=signed_in)
def stock_csv(request: HttpRequest) -> HttpResponse:
    """The same as a table; what is changed in its third column can be read back."""
    rows = [
        (s.ingredient, s.name, "" if s.there_g is None else f"{s.there_g:.0f}", f"{s.needed_g:.0f}",
         f"{s.short_g:.0f}", f"{timezone.localtime(s.order_by):%Y-%m-%d}" if s.order_by else "")
        for s in _stock()
    ]  # fmt: skip
    return as_download(written_table((_HEAD, *rows), "\r\n"), "text/csv", "stock", "csv")


@router.post("/stock.csv", auth=signed_in, response=list[Stocked])
def read_stock(request: HttpRequest, file: File[UploadedFile]) -> list[Stocked]:
    """Counts from such a table: the first column says of what, one is headed "there g". All or none."""
    if (file.size or 0) > LARGEST_TABLE:
        raise Faults(Fault("", "This file is too large to be a table of stock."))
    try:
        text = file.read().decode("utf-8-sig")
    except UnicodeDecodeError:
        raise Faults(Fault("", "This file is not text, so it is no table.")) from None
    counts = list(_read(text))
    with transaction.atomic():
        for key, grams in counts:
            StockCount.objects.update_or_create(
                pk=key, defaults={"grams": grams, "at": timezone.now(), "by": user_of(request)}
            )
    return list(_stock())


def _read(text: str) -> list[tuple[str, float]]:
    rows = [row for row in read_table(text, ";" if ";" in text.split("\n")[0] else ",") if any(row)]
    head = [cell.strip().lower() for cell in rows[0]] if rows else []
    if "ingredient" not in head or "there g" not in head:
        raise Faults(Fault("", 'The first row must name the columns "ingredient" and "there g".'))
    of, there = head.index("ingredient"), head.index("there g")
    known, found, faults = the_kitchen().shelf, [], []
    for n, row in enumerate(rows[1:], 2):
        cells = [*row, *[""] * len(head)]
        if not cells[there].strip():
            continue
        thing = known.find(cells[of].strip())
        try:
            grams = float(cells[there].replace(",", "."))
        except ValueError:
            faults.append(Fault(f"row {n}", f"“{cells[there][:20]}” is not a number of grams."))
            continue
        if thing is None:
            faults.append(Fault(f"row {n}", f"The kitchen has no “{cells[of][:40]}”."))
        elif message := Range(0, 5_000_000, "g").complaint(grams):
            faults.append(Fault(f"row {n}", message))
        else:
            found.append((thing.key, grams))
    if faults:
        raise Faults(*faults)
    return found


@router.get("/blocks/trimmings", auth=signed_in, response=list[FromTrimmings])
def trimmings(request: HttpRequest, family: Family, needed_g: float) -> list[FromTrimmings]:
    """What of the trimmings that lie there goes into a dough that takes so much, the oldest first."""
    there = {b.id: (r, b, n) for r, b, n in those_there()}
    takes = trimmings_for(family, needed_g, ((b, n) for _, b, n in there.values()))
    return [FromTrimmings(t.block, there[t.block][0].mark, t.grams, t.butter_g) for t in takes]
