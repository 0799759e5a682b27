"""What follows the last sheet: layouts, templates, weights of pieces, shaping cards, the usual finish."""

from __future__ import annotations

from dataclasses import dataclass

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from ninja import Body, File, Router
from ninja.files import UploadedFile

from bakehouse.documents import LARGEST_FILE, AnyPlan, as_download
from bakehouse.kitchen.shelf import the_kitchen
from bakehouse.people.roles import signed_in
from bakehouse.plans.library import plan_of
from lamination.files import TemplateOf, template_of
from lamination.pieces import (
    CARDS,
    Product,
    ScaleSetting,
    ShapingCard,
    Weighed,
    Weighing,
    check_weighing,
    read_weights_csv,
    simulated_scale,
)
from lamination.plan import USUAL_PRODUCTS, AnyStep, starting_finish, work
from lamination.search import Allotments, AllotSearch, allot
from lamination.terms import Family, Fault, Faults

router = Router(tags=["cut"])


@dataclass
class AskLayouts:
    """A plan as it stands on the screen, and how many of each product are wanted."""

    plan: AnyPlan
    search: AllotSearch


@router.get("/plans/{int:plan_id}/template.{ending}", auth=signed_in)
def download_template(
    request: HttpRequest, plan_id: int, ending: str, of: TemplateOf, product: int = 0
) -> HttpResponse:
    """A stencil of one piece, or the marks of the whole sheet, at true size: SVG or PDF."""
    # what draws a PDF is seldom wanted
    from bakehouse.plans.template_files import as_pdf, as_svg

    plan = plan_of(plan_id)
    drawing = template_of(plan, work(plan, the_kitchen()), of, max(product, 0))
    if ending == "svg":
        return as_download(as_svg(drawing), "image/svg+xml", drawing.title, "svg")
    if ending == "pdf":
        return as_download(as_pdf(drawing), "application/pdf", drawing.title, "pdf")
    raise Http404("A template comes as svg or pdf.")


@router.post("/layouts", auth=signed_in, response=Allotments)
def search_layouts(request: HttpRequest, ask: Body[AskLayouts]) -> Allotments:
    """The best ways to share the last sheet between the plan's products."""
    return allot(ask.plan, ask.search, the_kitchen())


@router.post("/weighing", auth=signed_in, response=Weighed)
def judge_weighing(request: HttpRequest, weighing: Body[Weighing]) -> Weighed:
    return check_weighing(weighing, the_kitchen())


@router.post("/weighing/simulated", auth=signed_in, response=list[float])
def weigh_simulated(request: HttpRequest, setting: Body[ScaleSetting]) -> list[float]:
    """What the demo's simulated scale says of a row of pieces, one after another."""
    if not settings.DEMO:
        raise Http404("A simulated scale stands in the demo only.")
    return list(simulated_scale(setting))


@router.post("/weighing/csv", auth=signed_in, response=list[float])
def read_weights(request: HttpRequest, file: File[UploadedFile]) -> list[float]:
    """Weights from any scale's table."""
    if (file.size or 0) > LARGEST_FILE:
        raise Faults(Fault("", "This file is too large to be a table of weights."))
    try:
        text = file.read().decode("utf-8-sig")
    except UnicodeDecodeError:
        raise Faults(Fault("", "This file is not text, so it is no table.")) from None
    return list(read_weights_csv(text))


@router.get("/cards", auth=signed_in, response=list[ShapingCard])
def shaping_cards(request: HttpRequest) -> list[ShapingCard]:
    """How each shape is made, in short steps."""
    return list(CARDS.values())


@router.get("/products", auth=signed_in, response=list[Product])
def usual_products(request: HttpRequest) -> list[Product]:
    """What each shape is commonly cut to, to start from."""
    return list(USUAL_PRODUCTS.values())


@dataclass
class Finish:
    """The steps that follow the cut."""

    steps: list[AnyStep]


@router.get("/finish/{family}", auth=signed_in, response=Finish)
def usual_finish(request: HttpRequest, family: Family) -> Finish:
    """The steps after the cut that the family commonly has, to start from."""
    return Finish(list(starting_finish(family)))
