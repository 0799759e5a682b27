"""Plans: list, open, save, copy, delete and bring back; work one; files in and out."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, File, Router, Status
from ninja.errors import HttpError
from ninja.files import UploadedFile
from pydantic.json_schema import GenerateJsonSchema

from bakehouse.documents import AnyPlan, Problem, adapter, as_download, dump, read_plan_file
from bakehouse.kitchen.shelf import the_kitchen
from bakehouse.people.roles import head_only, signed_in, user_of
from bakehouse.plans.library import new_record, plan_in, record_of, worked_plainly
from bakehouse.plans.models import PlanRecord
from lamination.dough.formula import Line
from lamination.files.interchange import formula_csv, read_formula_csv, sheets_csv
from lamination.kitchen.practice import Family
from lamination.materials.ingredients import Shelf
from lamination.plan.amend import Amendment, amend
from lamination.plan.plan import Plan
from lamination.plan.starts import starting_plan
from lamination.plan.work import work
from lamination.plan.worked import WorkedPlan
from lamination.search.suggest import Found, Search, suggest
from lamination.sheet.folds import Fold
from lamination.sheet.section import Across, LineSection, section_along
from lamination.terms.limits import Fault, Faults

router = Router(tags=["plans"])
LARGEST_FILE = 1_000_000  # bytes; a plan is a few kB


@dataclass
class PlanLine:
    """A plan as the list shows it."""

    id: int
    name: str
    family: Family
    folds: list[Fold]
    total_g: float
    butter_layers: int
    total_leaves: int
    pieces: int | None
    piece_g: float | None
    updated_at: datetime
    updated_by: str | None


@dataclass
class SavedPlan:
    """A plan with its number and revision."""

    id: int
    revision: int
    updated_at: datetime
    plan: Plan


@dataclass
class Start:
    """What a new plan starts from."""

    name: str
    family: Family
    dough_g: float
    with_formula: bool = True


@dataclass
class Save:
    """A plan to save over ``revision``, the one it was made from."""

    revision: int
    plan: AnyPlan


@dataclass
class Ask:
    """A change to a plan as it stands on the screen."""

    plan: AnyPlan
    amendment: Amendment


@dataclass
class CutAcross:
    """A plan as it stands on the screen, and where its sheet is cut across after ``stop``."""

    plan: AnyPlan
    stop: str
    line: Across


@dataclass
class WishFor:
    """A plan as it stands on the screen, and what is searched for it."""

    plan: AnyPlan
    search: Search


def _line(record: PlanRecord) -> PlanLine:
    plan = plan_in(record)
    worked = worked_plainly(plan)
    return PlanLine(
        id=record.pk,
        name=plan.name,
        family=plan.family,
        folds=[t.fold for t in plan.turns],
        total_g=worked.total_g,
        butter_layers=worked.layers.butter,
        total_leaves=worked.layers.total,
        pieces=worked.cut.pieces if worked.cut else None,
        piece_g=worked.cut.piece_g if worked.cut else None,
        updated_at=record.updated_at,
        updated_by=record.updated_by.get_username() if record.updated_by else None,
    )


def _saved(record: PlanRecord) -> SavedPlan:
    return SavedPlan(record.pk, record.revision, record.updated_at, plan_in(record))


@router.post("/work", auth=signed_in, response={200: WorkedPlan, 422: Problem})
def work_plan(request: HttpRequest, plan: Body[AnyPlan]) -> WorkedPlan:
    return work(plan, the_kitchen())


@router.post("/section", auth=signed_in, response={200: LineSection, 422: Problem})
def cut_across(request: HttpRequest, ask: Body[CutAcross]) -> LineSection:
    return section_along(ask.plan, ask.stop, ask.line, the_kitchen())


@router.post("/suggest", auth=signed_in, response={200: Found, 422: Problem})
def suggest_folds(request: HttpRequest, ask: Body[WishFor]) -> Found:
    return suggest(ask.plan, ask.search, the_kitchen())


@router.post("/amend", auth=signed_in, response={200: Plan, 422: Problem})
def amend_plan(request: HttpRequest, ask: Body[Ask]) -> Plan:
    """The plan with one change made that others follow from; nothing is saved."""
    return amend(ask.plan, ask.amendment, the_kitchen())


@router.post("/formula/csv", auth=head_only, response=list[Line])
def read_formula(request: HttpRequest, file: File[UploadedFile]) -> list[Line]:
    """The lines of a formula from a table of ingredients."""
    if (file.size or 0) > LARGEST_FILE:
        raise Faults(Fault("", "This file is too large to be a formula."))
    try:
        text = file.read().decode("utf-8-sig")
    except UnicodeDecodeError:
        raise Faults(Fault("", "This file is not text, so it is no table.")) from None
    return list(read_formula_csv(text, Shelf(the_kitchen().ingredients)))


@router.get("/plan.schema.json", auth=None, response=dict[str, Any])
def plan_schema(request: HttpRequest) -> dict[str, Any]:
    """The JSON Schema of a plan file, made from the core's own types."""
    schema = adapter(Plan).json_schema()
    schema["required"] = [*schema["required"], "format", "version"]
    return {"$schema": GenerateJsonSchema.schema_dialect, **schema}


@router.get("/plans", auth=signed_in, response=list[PlanLine])
def list_plans(request: HttpRequest) -> list[PlanLine]:
    records = PlanRecord.objects.filter(deleted_at=None).select_related("updated_by")
    return [_line(r) for r in records]


@router.post("/plans", auth=head_only, response=SavedPlan)
def new_plan(request: HttpRequest, plan: Body[AnyPlan]) -> SavedPlan:
    return _saved(new_record(plan, user_of(request)))


@router.post("/plans/start", auth=head_only, response=SavedPlan)
def start_plan(request: HttpRequest, start: Body[Start]) -> SavedPlan:
    """A new plan from a family and a mass of dough."""
    try:
        plan = starting_plan(
            start.name, start.family, start.dough_g, the_kitchen(), start.with_formula
        )
    except Faults as wrong:
        # the form asks for the mass of dough under another name than the plan's
        raise Faults(
            *(Fault({"mass_g": "dough_g"}.get(f.field, f.field), f.message) for f in wrong.faults)
        ) from None
    return _saved(new_record(plan, user_of(request)))


@router.post("/plans/file", auth=head_only, response=SavedPlan)
def upload_plan(request: HttpRequest, file: File[UploadedFile]) -> SavedPlan:
    if (file.size or 0) > LARGEST_FILE:
        raise Faults(Fault("", "This file is too large to be a plan: a plan is a few kB."))
    return _saved(new_record(read_plan_file(file.read()), user_of(request)))


@router.get("/plans/{int:plan_id}", auth=signed_in, response=SavedPlan)
def open_plan(request: HttpRequest, plan_id: int) -> SavedPlan:
    return _saved(record_of(plan_id))


@router.put("/plans/{int:plan_id}", auth=head_only, response=SavedPlan)
def save_plan(request: HttpRequest, plan_id: int, save: Body[Save]) -> SavedPlan:
    try:
        work(save.plan)
    except Faults as wrong:
        raise Faults(*(f.under("plan") for f in wrong.faults)) from None
    with transaction.atomic():
        record = record_of(plan_id)
        if record.revision != save.revision:
            by = record.updated_by.get_username() if record.updated_by else "Somebody"
            raise HttpError(
                409,
                f"{by} saved this plan on another screen meanwhile. Reload to see "
                "it; yours is kept here until then.",
            )
        record.document = dump(save.plan)
        record.revision += 1
        record.updated_by = user_of(request)
        record.save()
    return _saved(record)


@router.delete("/plans/{int:plan_id}", auth=head_only, response={204: None})
def delete_plan(request: HttpRequest, plan_id: int) -> Status[None]:
    record = record_of(plan_id)
    PlanRecord.objects.filter(pk=record.pk).update(deleted_at=timezone.now())
    return Status(204, None)


@router.post("/plans/{int:plan_id}/restore", auth=head_only, response=SavedPlan)
def restore_plan(request: HttpRequest, plan_id: int) -> SavedPlan:
    record = record_of(plan_id, deleted=True)
    PlanRecord.objects.filter(pk=record.pk).update(deleted_at=None)
    return _saved(record)


@router.post("/plans/{int:plan_id}/copy", auth=head_only, response=SavedPlan)
def copy_plan(request: HttpRequest, plan_id: int) -> SavedPlan:
    plan = plan_in(record_of(plan_id))
    return _saved(new_record(replace(plan, name=f"{plan.name[:73]}, copy"), user_of(request)))


@router.get("/plans/{int:plan_id}/file", auth=signed_in)
def download_plan(request: HttpRequest, plan_id: int) -> HttpResponse:
    plan = plan_in(record_of(plan_id))
    text = json.dumps(dump(plan), indent=1, ensure_ascii=False)
    return as_download(text, "application/json", plan.name, "plan.json")


@router.get("/plans/{int:plan_id}/formula.csv", auth=signed_in)
def download_formula(request: HttpRequest, plan_id: int) -> HttpResponse:
    plan = plan_in(record_of(plan_id))
    made = work(plan, the_kitchen()).formula
    if made is None:
        raise Http404("This plan has no formula.")
    return as_download(formula_csv(made), "text/csv", plan.name, "formula.csv")


@router.get("/plans/{int:plan_id}/sheets.csv", auth=signed_in)
def download_sheets(request: HttpRequest, plan_id: int) -> HttpResponse:
    plan = plan_in(record_of(plan_id))
    sheets = work(plan, the_kitchen()).sheets
    return as_download(sheets_csv(sheets), "text/csv", plan.name, "sheets.csv")
