"""Plans: list, open, save, copy, delete and bring back; work one; files in and out."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Annotated, Any

from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, File, Router, Status
from ninja.files import UploadedFile
from pydantic.json_schema import GenerateJsonSchema

from bakehouse.documents import (
    LARGEST_FILE,
    AnyPlan,
    adapter,
    as_download,
    dump,
    read,
    read_plan,
    read_plan_file,
    written,
)
from bakehouse.kitchen.shelf import the_kitchen, the_kitchen_at
from bakehouse.people.roles import head_only, signed_in, user_of
from bakehouse.plans.library import line_of, new_record, plan_in, save_over, with_own
from bakehouse.plans.models import PlanRecord
from bakehouse.records import VersionLine, version_lines
from lamination.dough import Line
from lamination.files import Pasted, formula_csv, read_formula_csv, read_pasted, sheets_csv
from lamination.plan import (
    Amendment,
    Plan,
    WorkedPlan,
    amend,
    other_part,
    section_along,
    seen,
    sound,
    starting_plan,
    work,
)
from lamination.search import Found, Search, suggest, with_turns
from lamination.sheet import Across, LineSection
from lamination.steps import Label
from lamination.steps.turn import Turn
from lamination.terms import Checked, Family, Fault, Faults, Fold, Length, Tool
from lamination.warmth import changes

router = Router(tags=["plans"])


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
    rolled_by: Tool | None = None


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
class Take:
    """A plan as it stands on the screen, and the turns it is to have."""

    plan: AnyPlan
    turns: list[Turn]


@dataclass
class WishFor:
    """A plan as it stands on the screen, and what is searched for it."""

    plan: AnyPlan
    search: Search


@dataclass
class OtherRows:
    """Rows of the kitchen as somebody thinks of having them."""

    yours: dict[str, float]


@dataclass
class Seen:
    """A value of a plan, and the range it is held against: ``puff.butter_layers``."""

    plan: str
    of: str
    value: float


@dataclass
class Affected:
    """A plan that would not stay as it is, and what would be another in it."""

    id: int
    name: str
    says: list[str]


def _line(record: PlanRecord) -> PlanLine:
    line = record.line
    return PlanLine(
        id=record.pk,
        **line | {"family": read(Family, line["family"]), "folds": read(list[Fold], line["folds"])},
        updated_at=record.updated_at,
        updated_by=record.updated_by.get_username() if record.updated_by else None,
    )


def _listed(records: list[PlanRecord]) -> list[PlanLine]:
    """The lines of some plans; those of an older kitchen are worked anew, once."""
    kitchen, revision = the_kitchen_at()
    for record in records:
        if record.line_of != revision or not record.line:
            try:
                record.line = line_of(plan_in(record), kitchen)
            except Faults:
                # it cannot be worked in this kitchen any more: the list shows it as it was
                record.line = record.line or _unworked(record)
            record.line_of = revision
            PlanRecord.objects.filter(pk=record.pk).update(line=record.line, line_of=revision)
    return [_line(record) for record in records]


def _unworked(record: PlanRecord) -> dict[str, Any]:
    plan = plan_in(record)
    return {
        "name": plan.name, "family": plan.family.value, "folds": [t.fold.value for t in plan.turns],
        "total_g": plan.dough.mass_g + plan.butter.mass_g, "butter_layers": 0, "total_leaves": 0,
        "pieces": None, "piece_g": None,
    }  # fmt: skip


def _saved(record: PlanRecord) -> SavedPlan:
    return SavedPlan(record.pk, record.revision, record.updated_at, plan_in(record))


@router.post("/work", auth=signed_in, response=WorkedPlan)
def work_plan(request: HttpRequest, plan: Body[AnyPlan]) -> HttpResponse:
    """All that follows; every way out that is offered has been tried, and clears what it is for."""
    kitchen = the_kitchen()
    worked = work(plan, kitchen)
    return written(WorkedPlan, replace(worked, notes=sound(plan, kitchen, worked)))


@router.post("/section", auth=signed_in, response=LineSection)
def cut_across(request: HttpRequest, ask: Body[CutAcross]) -> LineSection:
    return section_along(ask.plan, ask.stop, ask.line, the_kitchen())


@router.post("/suggest", auth=signed_in, response=Found)
def suggest_folds(request: HttpRequest, ask: Body[WishFor]) -> Found:
    return suggest(ask.plan, ask.search, the_kitchen())


@router.post("/turns", auth=signed_in, response=Plan)
def take_turns(request: HttpRequest, take: Body[Take]) -> Plan:
    """The plan with other turns; nothing is saved."""
    return with_turns(take.plan, tuple(take.turns))


@router.post("/amend", auth=signed_in, response=Plan)
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
    return list(read_formula_csv(text, the_kitchen().shelf))


@dataclass(frozen=True)
class PastedText(Checked):
    """A list of ingredients as it was pasted; ``accepted``: its lines that were asked about and are right."""

    text: str
    accepted: Annotated[tuple[int, ...], Length(0, 400, "lines")] = ()


@router.post("/formula/pasted", auth=head_only, response=Pasted)
def read_pasted_formula(request: HttpRequest, pasted: Body[PastedText]) -> Pasted:
    """What a pasted list of ingredients says, line by line, and what of it was not understood."""
    return read_pasted(pasted.text, the_kitchen().shelf, pasted.accepted)


@router.get("/plan.schema.json", auth=None, response=dict[str, Any])
def plan_schema(request: HttpRequest) -> dict[str, Any]:
    """The JSON Schema of a plan file, made from the core's own types."""
    schema = adapter(Plan).json_schema()
    schema["required"] = [*schema["required"], "format", "version"]
    return {"$schema": GenerateJsonSchema.schema_dialect, **schema}


@router.post("/plans/affected", auth=signed_in, response=list[Affected])
def affected(request: HttpRequest, wanted: Body[OtherRows]) -> list[Affected]:
    """What other values of the kitchen would change in which plans, before they are changed."""
    before = the_kitchen()
    after = replace(before, yours=wanted.yours)
    told = [(record, plan_in(record)) for record in PlanRecord.objects.filter(deleted_at=None)]
    return [
        Affected(record.pk, plan.name, list(said))
        for record, plan in told
        if (said := changes(plan, before, after))
    ]


@router.get("/plans/seen", auth=signed_in, response=list[Seen])
def seen_in_plans(request: HttpRequest) -> list[Seen]:
    """What the plans here have, beside the ranges that are usual for their families."""
    kitchen, found = the_kitchen(), []
    for record in PlanRecord.objects.filter(deleted_at=None):
        plan = plan_in(record)
        try:
            values = seen(plan.family, work(plan, kitchen))
        except Faults:
            continue  # what cannot be worked has no values
        found += [Seen(plan.name, of, value) for of, value in values.items()]
    return found


@router.get("/plans", auth=signed_in, response=list[PlanLine])
def list_plans(request: HttpRequest) -> list[PlanLine]:
    records = PlanRecord.objects.filter(deleted_at=None).select_related("updated_by")
    return _listed(list(records))


@router.post("/plans", auth=head_only, response=SavedPlan)
def new_plan(request: HttpRequest, plan: Body[AnyPlan]) -> SavedPlan:
    return _saved(new_record(plan, user_of(request)))


@router.post("/plans/start", auth=head_only, response=SavedPlan)
def start_plan(request: HttpRequest, start: Body[Start]) -> SavedPlan:
    """A new plan from a family and a mass of dough."""
    try:
        plan = starting_plan(
            start.name,
            start.family,
            start.dough_g,
            the_kitchen(),
            start.with_formula,
            start.rolled_by,
        )
    except Faults as wrong:
        # the form asks for the mass of dough under another name than the plan's
        raise Faults(
            *(Fault({"mass_g": "dough_g"}.get(f.field, f.field), f.message) for f in wrong.faults)
        ) from None
    return _saved(new_record(plan, user_of(request)))


@dataclass
class PartOf:
    """A step that divides a plan; its other part is planned."""

    plan: Plan
    stop: str


@router.post("/plans/other-part", auth=head_only, response=SavedPlan)
def plan_other_part(request: HttpRequest, part: Body[PartOf]) -> SavedPlan:
    """A new plan that goes on with what a step of this one puts away."""
    made = other_part(part.plan, part.stop, the_kitchen())
    return _saved(new_record(made, user_of(request)))


@router.post("/plans/file", auth=head_only, response=SavedPlan)
def upload_plan(request: HttpRequest, file: File[UploadedFile]) -> SavedPlan:
    if (file.size or 0) > LARGEST_FILE:
        raise Faults(Fault("", "This file is too large to be a plan: a plan is a few kB."))
    return _saved(new_record(read_plan_file(file.read()), user_of(request)))


@router.get("/plans/{int:plan_id}", auth=signed_in, response=SavedPlan)
def open_plan(request: HttpRequest, plan_id: int) -> SavedPlan:
    return _saved(PlanRecord.there(plan_id))


@router.put("/plans/{int:plan_id}", auth=head_only, response=SavedPlan)
def save_plan(request: HttpRequest, plan_id: int, save: Body[Save]) -> SavedPlan:
    try:
        record = save_over(PlanRecord.there(plan_id), save.revision, save.plan, user_of(request))
    except Faults as wrong:
        raise Faults(*(f.under("plan") for f in wrong.faults)) from None
    return _saved(record)


@router.delete("/plans/{int:plan_id}", auth=head_only, response={204: None})
def delete_plan(request: HttpRequest, plan_id: int) -> Status[None]:
    PlanRecord.there(plan_id).gone(user_of(request))
    return Status(204, None)


@router.post("/plans/{int:plan_id}/restore", auth=head_only, response=SavedPlan)
def restore_plan(request: HttpRequest, plan_id: int) -> SavedPlan:
    record = PlanRecord.there(plan_id, deleted=True)
    record.back()
    return _saved(record)


@router.get("/plans/{int:plan_id}/versions", auth=signed_in, response=list[VersionLine])
def plan_versions(request: HttpRequest, plan_id: int) -> list[VersionLine]:
    return version_lines(PlanRecord.there(plan_id))


@router.get("/plans/{int:plan_id}/versions/{int:revision}", auth=signed_in, response=Plan)
def plan_version(request: HttpRequest, plan_id: int, revision: int) -> Plan:
    """A plan as it was saved once; opened and saved, it is the latest again."""
    document = PlanRecord.there(plan_id).version(revision)
    if document is None:
        raise Http404("That version is no longer kept.")
    return read_plan(document)


@router.post("/plans/{int:plan_id}/copy", auth=head_only, response=SavedPlan)
def copy_plan(request: HttpRequest, plan_id: int) -> SavedPlan:
    plan = plan_in(PlanRecord.there(plan_id))
    return _saved(new_record(replace(plan, name=f"{plan.name[:73]}, copy"), user_of(request)))


@router.get("/plans/{int:plan_id}/file", auth=signed_in)
def download_plan(request: HttpRequest, plan_id: int) -> HttpResponse:
    plan = with_own(plan_in(PlanRecord.there(plan_id)), the_kitchen())
    text = json.dumps(dump(plan), indent=1, ensure_ascii=False)
    return as_download(text, "application/json", plan.name, "plan.json")


@router.get("/plans/{int:plan_id}/formula.csv", auth=signed_in)
def download_formula(request: HttpRequest, plan_id: int) -> HttpResponse:
    plan = plan_in(PlanRecord.there(plan_id))
    made = work(plan, the_kitchen()).formula
    if made is None:
        raise Http404("This plan has no formula.")
    return as_download(formula_csv(made), "text/csv", plan.name, "formula.csv")


def label_of(worked: WorkedPlan, product: int) -> Label:
    """The label of a product by its place in the cut."""
    if not 0 <= product < len(worked.labels):
        raise Http404("This plan makes no such product.")
    return worked.labels[product]


@router.get("/plans/{int:plan_id}/labels.pdf", auth=signed_in)
def download_labels(
    request: HttpRequest,
    plan_id: int,
    product: int = 0,
    copies: int = 18,
    made_at: datetime | None = None,
) -> HttpResponse:
    """Labels of a product of a plan, so many, as sheets to print at true size."""
    from bakehouse.plans.label_files import Finished, labels_pdf

    kitchen = the_kitchen()
    plan = plan_in(PlanRecord.there(plan_id))
    label = label_of(work(plan, kitchen), product)
    at = timezone.localtime(made_at) if made_at else timezone.localtime()
    content = labels_pdf([(Finished(label, kitchen.sign, at), copies)], kitchen)
    return as_download(content, "application/pdf", f"{label.product} labels", "pdf")


@router.get("/plans/{int:plan_id}/label.svg", auth=signed_in)
def download_label(
    request: HttpRequest, plan_id: int, product: int = 0, made_at: datetime | None = None
) -> HttpResponse:
    """One label of a product of a plan, at true size."""
    from bakehouse.plans.label_files import Finished, label_svg

    kitchen = the_kitchen()
    label = label_of(work(plan_in(PlanRecord.there(plan_id)), kitchen), product)
    at = timezone.localtime(made_at) if made_at else timezone.localtime()
    return HttpResponse(
        label_svg(Finished(label, kitchen.sign, at), kitchen), content_type="image/svg+xml"
    )


@router.get("/plans/{int:plan_id}/sheets.csv", auth=signed_in)
def download_sheets(request: HttpRequest, plan_id: int) -> HttpResponse:
    plan = plan_in(PlanRecord.there(plan_id))
    sheets = work(plan, the_kitchen()).sheets
    return as_download(sheets_csv(sheets), "text/csv", plan.name, "sheets.csv")
