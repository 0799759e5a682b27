"""Runs: start one, say what happened, read where it stands. The book reads the same runs."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from functools import lru_cache
from uuid import UUID

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import QuerySet
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, File, Form, Router
from ninja.files import UploadedFile

from bakehouse.bench.models import EventRecord, Photo, Run
from bakehouse.bench.pictures import LARGEST_FILE, small_jpeg
from bakehouse.documents import Problem, dump, read, read_plan
from bakehouse.kitchen.shelf import keep_kitchen, stored_kitchen, the_kitchen
from bakehouse.people.roles import head_only, signed_in, user_of
from bakehouse.plans.library import plan_of
from lamination.kitchen.practice import DEFAULTS, Family
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.plan.worked import WorkedPlan
from lamination.run.events import Event, Verdict
from lamination.run.run import Phase, PlannedDeed, Standing, admit, planned_deeds, stand
from lamination.run.traywork import TrayStep, proofed_min, tray_steps
from lamination.run.underway import UnderWay, under_way
from lamination.run.used import Used, used
from lamination.terms.limits import Fault, Faults
from lamination.warmth.proof import learned_reference
from lamination.warmth.warmth import work_warmth

router = Router(tags=["bench"])
CLOCK_MAY_BE_AHEAD = timedelta(minutes=5)
MOST_PHOTOS = 24


@dataclass
class StartRun:
    """Start a run of a plan; the id is the tablet's own, so pressing twice starts one run."""

    id: UUID
    plan_id: int


@dataclass
class PhotoView:
    """A picture of a run, and what was said to it."""

    id: UUID
    words: str
    taken_at: datetime
    by: str | None


@dataclass
class RunView:
    """A run with its plan as it was at the start, and where it stands."""

    id: UUID
    plan_id: int | None
    plan: Plan
    worked: WorkedPlan
    started_at: datetime
    started_by: str | None
    standing: Standing
    used: Used | None
    order: list[PlannedDeed]
    tray_steps: list[TrayStep]
    photos: list[PhotoView]
    now: datetime


@dataclass
class RunLine:
    """A run as the lists show it."""

    id: UUID
    name: str
    family: Family
    started_at: datetime
    started_by: str | None
    phase: Phase
    stop_name: str | None
    since: datetime
    until: datetime | None
    turns_done: int
    turns: int
    verdict: Verdict | None
    pieces: int | None


@dataclass
class Said:
    """What a tablet has to say, oldest first."""

    events: list[Event]


def _run(run_id: UUID) -> Run:
    run = Run.objects.filter(pk=run_id).select_related("started_by").first()
    if run is None:
        raise Http404("There is no such run.")
    return run


def _worked(run: Run) -> tuple[Plan, WorkedPlan]:
    return _snapshot(json.dumps(run.plan_document), json.dumps(run.kitchen_document))


@lru_cache(maxsize=256)
def _snapshot(plan_text: str, kitchen_text: str) -> tuple[Plan, WorkedPlan]:
    """A snapshot never changes, and the lists ask for all of them every few seconds."""
    plan = read_plan(json.loads(plan_text))
    return plan, work(plan, stored_kitchen(json.loads(kitchen_text)))


def _events(run: Run) -> tuple[Event, ...]:
    return tuple(read(Event, e.document) for e in run.events.all())


def _name(user: User | None) -> str | None:
    return user.get_username() if user else None


def _photos(run: Run) -> QuerySet[Photo]:
    """The pictures of a run, without their bytes."""
    return run.photos.defer("jpeg").select_related("by")


def _view(run: Run) -> RunView:
    plan, worked = _worked(run)
    standing = stand(worked, run.started_at, _events(run))
    return RunView(
        run.pk,
        run.plan_id,
        plan,
        worked,
        run.started_at,
        _name(run.started_by),
        standing,
        used(plan, worked, standing),
        list(planned_deeds(worked.strip)),
        list(tray_steps(worked)),
        [PhotoView(p.pk, p.words, p.taken_at, _name(p.by)) for p in _photos(run)],
        timezone.now(),
    )


def _line(run: Run) -> RunLine:
    plan, worked = _worked(run)
    standing = stand(worked, run.started_at, _events(run))
    names = {s.key: s.name for s in worked.strip}
    return RunLine(
        id=run.pk,
        name=plan.name,
        family=plan.family,
        started_at=run.started_at,
        started_by=_name(run.started_by),
        phase=standing.phase,
        stop_name=names.get(standing.stop or ""),
        since=standing.since,
        until=standing.until,
        turns_done=standing.turns_done,
        turns=standing.turns,
        verdict=standing.verdict,
        pieces=worked.cut.pieces if worked.cut else None,
    )


@router.get("/runs", auth=signed_in, response=list[RunLine])
def list_runs(request: HttpRequest) -> list[RunLine]:
    runs = Run.objects.select_related("started_by").prefetch_related("events")
    return [_line(r) for r in runs]


@router.post("/runs", auth=signed_in, response=RunView)
def start_run(request: HttpRequest, start: Body[StartRun]) -> RunView:
    plan = plan_of(start.plan_id)
    run, _ = Run.objects.get_or_create(
        pk=start.id,
        defaults={
            "plan_id": start.plan_id,
            "plan_document": dump(plan),
            "kitchen_document": dump(the_kitchen()),
            "started_at": timezone.now(),
            "started_by": user_of(request),
        },
    )
    return _view(run)


@router.get("/runs/{uuid:run_id}", auth=signed_in, response=RunView)
def open_run(request: HttpRequest, run_id: UUID) -> RunView:
    return _view(_run(run_id))


@router.get("/runs/{uuid:run_id}/warmth", auth=signed_in, response=UnderWay)
def warmth_of_run(request: HttpRequest, run_id: UUID) -> UnderWay:
    """The run by its temperatures: in the kitchen it was started in, as warm as it was measured."""
    run = _run(run_id)
    plan, worked = _worked(run)
    kitchen = stored_kitchen(run.kitchen_document)
    now = stand(worked, run.started_at, _events(run))
    began = timezone.localtime(run.started_at)
    return under_way(plan, kitchen, worked, now, began, timezone.now())


@router.post("/runs/{uuid:run_id}/events", auth=signed_in, response=RunView)
def say(request: HttpRequest, run_id: UUID, said: Body[Said]) -> RunView:
    """Write events, all or none; one that is there already is passed over."""
    with transaction.atomic():
        run = _run(run_id)
        _, worked = _worked(run)
        events = _events(run)
        known = {e.id for e in events}
        for i, event in enumerate(said.events):
            if event.id in known:
                continue
            try:
                _check_clock(event)
                admit(worked, run.started_at, events, event)
            except Faults as wrong:
                raise Faults(*(f.under(f"events[{i}]") for f in wrong.faults)) from None
            EventRecord.objects.create(
                run=run, event_id=event.id, document=dump(event), by=user_of(request)
            )
            events, known = (*events, event), known | {event.id}
    return _view(run)


def _check_clock(event: Event) -> None:
    ahead = event.at - timezone.now()
    if ahead > CLOCK_MAY_BE_AHEAD:
        minutes = ahead / timedelta(minutes=1)
        raise Faults(
            Fault("at", f"This screen's clock is {minutes:.0f} minutes ahead. Set it right.")
        )


@router.post("/runs/{uuid:run_id}/photos", auth=signed_in, response={200: RunView, 422: Problem})
def add_photo(
    request: HttpRequest,
    run_id: UUID,
    id: Form[UUID],
    file: File[UploadedFile],
    words: Form[str] = "",
) -> RunView:
    """Keep a picture, made smaller and without its metadata; the id is the tablet's own."""
    run = _run(run_id)
    if (file.size or 0) > LARGEST_FILE:
        raise Faults(Fault("file", "This picture is larger than 15 MB. Make it smaller first."))
    if run.photos.count() >= MOST_PHOTOS:
        raise Faults(Fault("file", f"A record holds {MOST_PHOTOS} pictures. Take one away first."))
    if len(words) > 200:
        raise Faults(Fault("words", "At most 200 characters."))
    jpeg = small_jpeg(file.read())
    Photo.objects.get_or_create(
        pk=id, defaults={"run": run, "jpeg": jpeg, "words": words, "by": user_of(request)}
    )
    return _view(run)


@router.get("/photos/{uuid:photo_id}.jpg", auth=signed_in)
def photo(request: HttpRequest, photo_id: UUID) -> HttpResponse:
    found = Photo.objects.filter(pk=photo_id).first()
    if found is None:
        raise Http404("There is no such picture.")
    answer = HttpResponse(bytes(found.jpeg), content_type="image/jpeg")
    answer["Cache-Control"] = "private, max-age=86400"
    return answer


@router.delete("/runs/{uuid:run_id}/photos/{uuid:photo_id}", auth=signed_in, response=RunView)
def drop_photo(request: HttpRequest, run_id: UUID, photo_id: UUID) -> RunView:
    run = _run(run_id)
    run.photos.filter(pk=photo_id).delete()
    return _view(run)


@dataclass
class ProofTaught:
    """What a proof that was right teaches: the kitchen's reference before and after, min."""

    proofed_min: float
    before_min: float
    after_min: float
    kept: bool


@router.get("/runs/{uuid:run_id}/proof", auth=signed_in, response=ProofTaught)
def proof_of_run(request: HttpRequest, run_id: UUID) -> ProofTaught:
    """What this run's proof would teach, if it was just right; nothing is kept."""
    return _taught(run_id)


@router.post("/runs/{uuid:run_id}/proof", auth=head_only, response=ProofTaught)
def learn_proof(request: HttpRequest, run_id: UUID) -> ProofTaught:
    """The proof was just right: the kitchen takes its reference from it."""
    found = _taught(run_id)
    kitchen = the_kitchen()
    yours = {**kitchen.yours, "proof.reference_min": found.after_min}
    keep_kitchen(type(kitchen)(yours, kitchen.ingredients))
    return replace(found, kept=True)


def _taught(run_id: UUID) -> ProofTaught:
    run = _run(run_id)
    plan, worked = _worked(run)
    now = stand(worked, run.started_at, _events(run))
    kitchen = stored_kitchen(run.kitchen_document)
    minutes = proofed_min(now.trays)
    if minutes is None:
        raise Http404("No tray of this dough has been through its proof yet.")
    warmth = work_warmth(plan, kitchen)
    try:
        after = learned_reference(
            plan, kitchen, minutes, warmth.trace.middle_c[-1], warmth.yeast_used_pct or 0.0
        )
    except ValueError:
        raise Http404("This plan has no proof to learn from.") from None
    row = DEFAULTS["proof.reference_min"]
    after = round(min(max(after, row.low), row.high), 1)
    return ProofTaught(minutes, the_kitchen()["proof.reference_min"], after, False)
