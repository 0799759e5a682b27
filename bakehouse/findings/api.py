"""The book that answers: what was seen, why it may be so, what was different, and the next time."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated
from uuid import UUID

from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse, StreamingHttpResponse
from django.utils import timezone
from ninja import Body, Router

from bakehouse.bench.runs import all_runs, photo_bytes, products, run_of, snapshot
from bakehouse.documents import dump, read
from bakehouse.findings.book import (
    confirmed_in,
    features_of,
    good_ones_like,
    lately,
    record_of,
    trends_of,
)
from bakehouse.findings.crumb import Crumb, measured
from bakehouse.findings.models import CrumbRecord, SeenRecord
from bakehouse.kitchen.shelf import keep_rows, the_kitchen
from bakehouse.people.roles import head_only, signed_in, user_of
from bakehouse.plans.library import saved_anew
from lamination.findings import (
    BakeCause,
    Difference,
    Finding,
    Taught,
    WhySo,
    different,
    put_into,
    taught,
    why,
)
from lamination.terms import Checked, Fault, Faults, Length, Range, plain

router = Router(tags=["findings"])


@dataclass
class FindingsView:
    """What was seen of a run's bake, why it may be so, and what the baker found it was."""

    seen: list[Finding]
    cause: BakeCause | None
    why: WhySo


@dataclass
class DifferentFrom:
    """A record against another, or the good ones of its product: so many of them."""

    others: int
    differences: list[Difference]


@dataclass(frozen=True)
class SeenOfBake(Checked):
    """What somebody saw of a bake."""

    seen: Annotated[tuple[Finding, ...], Length(0, 16, "findings")]


@dataclass(frozen=True)
class ItWas(Checked):
    """The cause that the baker found; None where that is taken back."""

    cause: BakeCause | None = None


@dataclass
class PutIntoPlan:
    """The plan that was changed, and its revision."""

    plan_id: int
    revision: int
    says: str


def _view(run_id: UUID) -> FindingsView:
    record = record_of(run_id)
    kept = SeenRecord.objects.filter(pk=run_id).first()
    confirmed = confirmed_in(record.plan.family)
    found = why(record, timezone.get_current_timezone(), confirmed)
    cause = BakeCause(kept.cause) if kept and kept.cause else None  # type: ignore[call-arg]
    return FindingsView(list(record.seen), cause, found)


def _kept(run_id: UUID, request: HttpRequest) -> SeenRecord:
    run = run_of(run_id)
    return SeenRecord.objects.get_or_create(
        pk=run_id, defaults={"family": run.family, "by": user_of(request)}
    )[0]


@router.get("/runs/{uuid:run_id}/findings", auth=signed_in, response=FindingsView)
def findings(request: HttpRequest, run_id: UUID) -> FindingsView:
    return _view(run_id)


@router.put("/runs/{uuid:run_id}/findings", auth=signed_in, response=FindingsView)
def say_what_was_seen(request: HttpRequest, run_id: UUID, said: Body[SeenOfBake]) -> FindingsView:
    with transaction.atomic():
        kept = _kept(run_id, request)
        kept.seen = [f.value for f in dict.fromkeys(said.seen)]
        kept.by = user_of(request)
        kept.save()
    return _view(run_id)


@router.put("/runs/{uuid:run_id}/cause", auth=signed_in, response=FindingsView)
def say_what_it_was(request: HttpRequest, run_id: UUID, said: Body[ItWas]) -> FindingsView:
    """What the baker found teaches how often a cause is met in this house."""
    with transaction.atomic():
        kept = _kept(run_id, request)
        kept.cause = said.cause.value if said.cause else ""
        kept.by = user_of(request)
        kept.save()
    return _view(run_id)


@router.get("/runs/{uuid:run_id}/different", auth=signed_in, response=DifferentFrom)
def what_was_different(
    request: HttpRequest, run_id: UUID, other: UUID | None = None
) -> DifferentFrom:
    """Against another record, or the good ones of its product, the unusual first."""
    others = [features_of(other)] if other else list(good_ones_like(run_id))
    return DifferentFrom(len(others), list(different(features_of(run_id), others)))


@router.post("/runs/{uuid:run_id}/next-time", auth=head_only, response=PutIntoPlan)
def next_time(request: HttpRequest, run_id: UUID) -> PutIntoPlan:
    """Put the one change into the plan as it is now: a new revision that remembers why."""
    run = run_of(run_id)
    found = _view(run_id).why.next_time
    if found is None or found.fix is None:
        raise Faults(Fault("", "There is nothing to put into the plan."))
    if run.plan_id is None:
        raise Faults(Fault("", "The plan of this dough was thrown away."))
    seen = ", ".join(f.said for f in record_of(run_id).seen)
    because = (
        f"{timezone.localdate():%d %b %Y}: {plain(found.says)} Because of the bake of "
        f"{timezone.localtime(run.started_at):%d %b}: {seen}."
    )
    fix, then = found.fix, snapshot(run)[0]
    record = saved_anew(
        run.plan_id, lambda now: put_into(now, then, fix, because), user_of(request)
    )
    return PutIntoPlan(record.pk, record.revision, found.says)


@router.get("/book.jsonl", auth=signed_in)
def download_book(request: HttpRequest) -> StreamingHttpResponse:
    """Every record of the book, one to a line: plan, kitchen, what was said and seen."""

    def lines() -> list[str]:
        return [json.dumps(dump(record_of(run))) + "\n" for run in all_runs()]

    answer = StreamingHttpResponse(iter(lines()), content_type="application/jsonl; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="book.jsonl"'
    return answer


@dataclass
class Point:
    """A value of a record, and when it was begun."""

    run: UUID
    at: datetime
    value: float


@dataclass
class Trend:
    """Something of a product's records over time."""

    key: str
    name: str
    unit: str
    points: list[Point]


@dataclass
class Trends:
    """The products of the book, and how the records of one of them went."""

    products: list[str]
    name: str
    trends: list[Trend]


@router.get("/book/trends", auth=signed_in, response=Trends)
def trends(request: HttpRequest, name: str = "") -> Trends:
    """How a product went over time; of the first there is where none is named."""
    there = products()
    name = name or next(iter(there), "")
    found = [
        Trend(
            key, points[0][2].name, points[0][2].unit,
            [Point(run, at, f.value) for run, at, f in points],
        )
        for key, points in trends_of(name).items()
    ]  # fmt: skip
    return Trends(there, name, found)


@router.get("/book/teaches", auth=signed_in, response=list[Taught])
def teaches(request: HttpRequest) -> list[Taught]:
    """The rows of the kitchen that the last records would have otherwise; nothing changes by itself."""
    return list(taught(lately(), the_kitchen()))


@dataclass(frozen=True)
class TakeRow(Checked):
    """A row of the kitchen and the value it is to have."""

    key: Annotated[str, Length(1, 80, "characters")]
    value: float


@router.put("/book/teaches", auth=head_only, response=list[Taught])
def take(request: HttpRequest, said: Body[TakeRow]) -> list[Taught]:
    """Take what the book teaches, or put a row back as it was."""
    if said.key not in {row.key for row in the_kitchen().table()}:
        raise Faults(Fault("key", "The kitchen has no such row."))
    keep_rows({said.key: said.value}, user_of(request))
    return list(taught(lately(), the_kitchen()))


@dataclass
class CrumbOfPhoto:
    """What a photograph of a run says of its crumb, and how wide the piece in it is, mm."""

    photo: UUID
    width_mm: float
    crumb: Crumb


@dataclass(frozen=True)
class MeasureCrumb(Checked):
    """How wide the piece in a photograph is."""

    width_mm: Annotated[float, Range(10, 400, "mm")]


@router.get("/runs/{uuid:run_id}/crumb", auth=signed_in, response=list[CrumbOfPhoto])
def crumb_of_run(request: HttpRequest, run_id: UUID) -> list[CrumbOfPhoto]:
    """What was measured of a run's photographs."""
    return [
        CrumbOfPhoto(c.photo, c.width_mm, read(Crumb, c.document))
        for c in CrumbRecord.objects.filter(run=run_id).defer("jpeg")
    ]


@router.post("/photos/{uuid:photo_id}/crumb", auth=signed_in, response=CrumbOfPhoto)
def measure_crumb(request: HttpRequest, photo_id: UUID, said: Body[MeasureCrumb]) -> CrumbOfPhoto:
    """Measure the cut piece in a photograph; measured again with another width it is that."""
    run_id, jpeg = photo_bytes(photo_id)
    crumb, drawn = measured(jpeg, said.width_mm)
    CrumbRecord.objects.update_or_create(
        pk=photo_id,
        defaults={"run": run_id, "width_mm": said.width_mm, "document": dump(crumb), "jpeg": drawn},
    )
    return CrumbOfPhoto(photo_id, said.width_mm, crumb)


@router.get("/photos/{uuid:photo_id}/crumb.jpg", auth=signed_in)
def drawn_crumb(request: HttpRequest, photo_id: UUID) -> HttpResponse:
    """The photograph with its cells drawn over it."""
    found = CrumbRecord.objects.filter(pk=photo_id).first()
    if found is None:
        raise Http404("This picture was not measured.")
    return HttpResponse(bytes(found.jpeg), content_type="image/jpeg")
