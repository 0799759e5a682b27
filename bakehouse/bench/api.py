"""Runs: start one, say what happened, read where it stands. The book reads the same runs."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import lru_cache
from uuid import UUID

from django.contrib.auth.models import User
from django.db import transaction
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Body, Router

from bakehouse.bench.models import EventRecord, Run
from bakehouse.documents import dump, read, read_plan
from bakehouse.kitchen.shelf import stored_kitchen, the_kitchen
from bakehouse.people.roles import signed_in, user_of
from bakehouse.plans.library import plan_of
from lamination.events import Event, Verdict
from lamination.limits import Fault, Faults
from lamination.plan import Plan
from lamination.practice import Family
from lamination.run import Phase, PlannedDeed, Standing, admit, planned_deeds, stand
from lamination.underway import UnderWay, under_way
from lamination.used import Used, used
from lamination.work import work
from lamination.worked import WorkedPlan

router = Router(tags=["bench"])
CLOCK_MAY_BE_AHEAD = timedelta(minutes=5)


@dataclass
class StartRun:
    """Start a run of a plan; the id is the tablet's own, so pressing twice starts one run."""

    id: UUID
    plan_id: int


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
