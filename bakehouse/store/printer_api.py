"""Tags on the house's label printer; and the demo's simulated one, which shows what came out."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated
from uuid import UUID

from django.conf import settings
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from ninja import Body, Router

from bakehouse.kitchen.shelf import the_kitchen
from bakehouse.people.roles import signed_in
from bakehouse.store.blocks import tag_of
from bakehouse.store.models import PrintedTag, SimulatedPrinter
from bakehouse.store.printer import ROLL, Job, the_printer
from bakehouse.store.tag_files import MOST_TAGS, tag_svg, tags_pdf
from lamination.terms import Checked, Fault, Faults, Length

router = Router(tags=["store"])
_SHOWN = 6


@dataclass
class CameOut:
    """A tag that came out of the simulated printer; ``id``: of the picture of it, at true size."""

    id: int
    mark: str
    at: datetime


@dataclass
class PrinterView:
    """The house's label printer; of the simulated one what is left on its roll and what came out last."""

    name: str | None
    simulated: bool
    left: int
    jammed: bool
    out: list[CameOut]


@dataclass(frozen=True)
class PrintTags(Checked):
    """The blocks whose tags are to be printed."""

    of: Annotated[tuple[UUID, ...], Length(1, MOST_TAGS, "tags")]


def _view() -> PrinterView:
    found = the_printer()
    if found is None or not settings.DEMO:
        return PrinterView(found.name if found else None, False, 0, False, [])
    state = SimulatedPrinter.there()
    out = [CameOut(p.pk, p.mark, p.at) for p in PrintedTag.objects.defer("svg")[:_SHOWN]]
    return PrinterView(found.name, True, state.left, state.jammed, out)


@router.get("/labels/printer", auth=signed_in, response=PrinterView)
def printer(request: HttpRequest) -> PrinterView:
    return _view()


@router.post("/labels/print", auth=signed_in, response=PrinterView)
def print_tags(request: HttpRequest, said: Body[PrintTags]) -> PrinterView:
    """Print tags at once, one to a label."""
    found, kitchen = the_printer(), the_kitchen()
    if found is None:
        raise Faults(Fault("", "This house has no label printer. Print the tags on A4."))
    tags = [tag_of(block) for block in said.of]
    pages = tags_pdf(tags, kitchen, one_each=True)
    found.send(Job(pages, tuple((t.mark, tag_svg(t, kitchen)) for t in tags)))
    return _view()


@router.get("/labels/printed/{int:tag}.svg", auth=signed_in)
def printed(request: HttpRequest, tag: int) -> HttpResponse:
    """A tag that came out of the simulated printer, at true size."""
    found = PrintedTag.objects.filter(pk=tag).first()
    if found is None:
        raise Http404("No such tag came out.")
    return HttpResponse(found.svg, content_type="image/svg+xml")


@router.post("/labels/printer/mend", auth=signed_in, response=PrinterView)
def mend(request: HttpRequest) -> PrinterView:
    """The simulated printer opened: what was jammed is taken out, and a roll that is empty changed."""
    if not settings.DEMO:
        raise Http404("A simulated printer stands in the demo only.")
    with transaction.atomic():
        state = SimulatedPrinter.there()
        state.jammed = False
        state.left = state.left or ROLL
        state.save()
    return _view()
