"""Runs: start one, say what happened, read where it stands. The book reads the same runs."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Annotated
from uuid import UUID

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import QuerySet
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, File, Form, Router
from ninja.files import UploadedFile

from bakehouse.bench.models import EventRecord, Photo, Run
from bakehouse.bench.runs import GOOD_FROM, events_of, listed, run_of, snapshot
from bakehouse.day.library import dough_of
from bakehouse.documents import as_download, dump, read
from bakehouse.kitchen.shelf import as_today, the_kitchen
from bakehouse.people.roles import of_the_house, signed_in, user_of
from bakehouse.pictures import LARGEST_FILE, small_jpeg
from bakehouse.plans.library import plan_of
from bakehouse.store.blocks import block_record, goes_on_by, take_for_run
from lamination.plan import Plan, WorkedPlan, work
from lamination.run import (
    Begun,
    Event,
    Phase,
    PlannedDeed,
    Standing,
    TrayStep,
    UnderWay,
    Used,
    Verdict,
    admit,
    begun,
    planned_deeds,
    stand,
    tray_steps,
    under_way,
    used,
)
from lamination.terms import Checked, Family, Fault, Faults, Length

router = Router(tags=["bench"])
CLOCK_MAY_BE_AHEAD = timedelta(minutes=5)
BEFORE_THE_START = timedelta(minutes=5)  # two clocks are never quite the same
MOST_PHOTOS = 24
MOST_AT_ONCE = 100
MOST_ENTRIES = 5_000
RUNS_A_PAGE = 30
LONGEST_AGO = timedelta(days=7)


@dataclass
class StartRun:
    """Start a run of a plan; the id is the tablet's own, so pressing twice starts one run.

    ``begun``: at which step it is already, and since when. ``day`` and ``dough``: which dough of which
    day it is; then its plan is as large as that day wants it. ``started_at``: when it was pressed, where
    it waited on the tablet since. ``block``: it goes on with one of the cold store, by that one's plan.
    """

    id: UUID
    plan_id: int | None = None
    begun: Begun | None = None
    started_at: datetime | None = None
    day: int | None = None
    dough: str | None = None
    block: UUID | None = None


@dataclass
class PhotoView:
    """A picture of a run, and what was said to it."""

    id: UUID
    words: str
    taken_at: datetime
    by: str | None


@dataclass
class RunSnapshot:
    """What never changes of a run: its plan as it was at the start, worked, and what it consists of."""

    id: UUID
    plan_id: int | None
    plan: Plan
    worked: WorkedPlan
    started_by: str | None
    number: int
    dough: str | None
    doughs: int | None
    order: list[PlannedDeed]
    tray_steps: list[TrayStep]


@dataclass
class RunNow:
    """Where a run stands: what a screen asks for again and again. ``by``: who said each event."""

    id: UUID
    started_at: datetime
    said: int
    standing: Standing
    used: Used | None
    photos: list[PhotoView]
    by: dict[str, str]


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
    tray: int | None
    turns_done: int
    turns: int
    verdict: Verdict | None
    pieces: int | None
    number: int
    dough: str | None
    doughs: int | None


@dataclass
class RunPage:
    """Some runs, and from where the next ones go on; None where there are no more."""

    runs: list[RunLine]
    older_than: datetime | None


@dataclass(frozen=True)
class Said(Checked):
    """What a tablet has to say, oldest first; ``by``: who of the house said it, where that is not who is
    signed in there. A tablet that has more says it in several goes.
    """

    events: Annotated[tuple[Event, ...], Length(0, MOST_AT_ONCE, "entries")]
    by: str | None = None


def _name(user: User | None) -> str | None:
    return user.get_username() if user else None


def _photos(run: Run) -> QuerySet[Photo]:
    """The pictures of a run, without their bytes."""
    return run.photos.filter(deleted_at=None).defer("jpeg").select_related("by")


def _now(run: Run, standing: Standing | None = None) -> RunNow:
    plan, worked, _ = snapshot(run)
    standing = standing or stand(worked, run.started_at, events_of(run))
    return RunNow(
        run.pk,
        standing.started_at,
        run.said,
        standing,
        used(plan, worked, standing),
        [PhotoView(p.pk, p.words, p.taken_at, _name(p.by)) for p in _photos(run)],
        {e.event_id: e.by.get_username() for e in run.events.select_related("by") if e.by},
    )


def _line(run: Run) -> RunLine:
    return RunLine(
        id=run.pk,
        name=run.name,
        family=Family(run.family) if run.family else Family.CROISSANT,  # type: ignore[call-arg]
        started_at=run.started_at,
        started_by=_name(run.started_by),
        phase=Phase(run.phase),
        stop_name=run.stop_name,
        since=run.since or run.started_at,
        until=run.until,
        tray=run.tray,
        turns_done=run.turns_done,
        turns=run.turns,
        verdict=read(Verdict, run.verdict) if run.verdict else None,
        pieces=run.pieces,
        number=run.number,
        dough=run.dough or None,
        doughs=run.doughs,
    )


@router.get("/runs", auth=signed_in, response=RunPage)
def list_runs(
    request: HttpRequest,
    under_way: bool | None = None,
    older_than: datetime | None = None,
    most: int = RUNS_A_PAGE,
    words: str = "",
    family: Family | None = None,
    by: str = "",
    good: bool | None = None,
) -> RunPage:
    """Runs, the latest first, a page at a time: all, or only those (not) under way.

    ``words``: all of them in its name, its remarks or its verdict; ``by``: who began it; ``good``: how it
    came out, where somebody judged it.
    """
    runs = Run.objects.select_related("started_by").defer("plan_document", "kitchen_document")
    if under_way is not None:
        working = [Phase.WORK, Phase.REST]
        runs = runs.filter(phase__in=working) if under_way else runs.exclude(phase__in=working)
    for word in words.lower().split()[:8]:
        runs = runs.filter(words__contains=word[:60])
    if family is not None:
        runs = runs.filter(family=family.value)
    if by:
        runs = runs.filter(started_by__username=by)
    if good is not None:
        runs = runs.filter(score__gte=GOOD_FROM) if good else runs.filter(score__lt=GOOD_FROM)
    if older_than is not None:
        runs = runs.filter(started_at__lt=older_than)
    most = min(max(most, 1), 200)
    found = list(runs[: most + 1])
    more = found[most - 1].started_at if len(found) > most else None
    return RunPage([_line(r) for r in found[:most]], more)


@router.post("/runs", auth=signed_in, response=RunNow)
def start_run(request: HttpRequest, start: Body[StartRun]) -> RunNow:
    with transaction.atomic():
        run = Run.objects.filter(pk=start.id).first()
        if run is None:
            kitchen, doughs = the_kitchen(), None
            at_stop: str | None = None
            block, started_at = start.block, _pressed(start.started_at)
            if start.day is not None:
                dough, doughs, of_day = dough_of(start.day, start.dough or "")
                plan, at_stop = dough.plan, dough.goes_on
                block = UUID(of_day) if of_day else None
                there = Run.objects.filter(day=start.day, dough=start.dough).exclude(
                    phase=Phase.GIVEN_UP
                )
                if (one := there.first()) is not None:
                    # another tablet was quicker: it is the same dough
                    return _now(one)
            elif block is not None:
                plan, at_stop = goes_on_by(block_record(block))
            else:
                if start.plan_id is None:
                    raise Faults(Fault("plan_id", "This is missing."))
                plan = plan_of(start.plan_id)
            if block is not None:
                take_for_run(block, start.id, started_at, user_of(request))
            worked = work(plan, kitchen)
            events: tuple[Event, ...] = ()
            if at_stop is not None:
                started_at, events = begun(worked, Begun(at_stop, started_at))
            elif start.begun:
                started_at, events = _begun(worked, start.begun)
            run = Run.objects.create(
                pk=start.id,
                plan_id=start.plan_id,
                plan_document=dump(plan),
                kitchen_document=dump(kitchen),
                worked_document=dump(worked),
                started_at=started_at,
                started_by=user_of(request),
                number=1 + _of_that_day(start.plan_id, started_at),
                day=start.day,
                dough=start.dough or "",
                doughs=doughs,
                block=block,
            )
            for event in events:
                EventRecord.objects.create(
                    run=run, event_id=event.id, document=dump(event), by=user_of(request)
                )
            listed(run, worked, events)
    return _now(run)


def _pressed(at: datetime | None) -> datetime:
    """When a run was started: as the tablet says, within reason. Raises Faults at ``started_at``."""
    now: datetime = timezone.now()
    if at is None:
        return now
    if at.utcoffset() is None:
        raise Faults(Fault("started_at", "The time must say its time zone."))
    if at > now + CLOCK_MAY_BE_AHEAD:
        raise Faults(Fault("started_at", "That time is still to come."))
    if at < now - LONGEST_AGO:
        raise Faults(Fault("started_at", "That is more than a week ago."))
    return min(at, now)


def _begun(worked: WorkedPlan, said: Begun) -> tuple[datetime, tuple[Event, ...]]:
    """What was done before the tablet was touched. Raises Faults below ``begun``."""
    try:
        if said.at > timezone.now() + CLOCK_MAY_BE_AHEAD:
            raise Faults(Fault("at", "That time is still to come."))
        if said.at < timezone.now() - LONGEST_AGO:
            raise Faults(
                Fault("at", "That is more than a week ago. Write it into the record instead.")
            )
        return begun(worked, said)
    except Faults as wrong:
        raise Faults(*(f.under("begun") for f in wrong.faults)) from None


def _of_that_day(plan_id: int | None, at: datetime) -> int:
    """How many runs of a plan were started on that day, in the bakery's own time."""
    day = timezone.localtime(at).replace(hour=0, minute=0, second=0, microsecond=0)
    day_after = day + timedelta(days=1)
    return Run.objects.filter(
        plan_id=plan_id, started_at__gte=day, started_at__lt=day_after
    ).count()


@router.get("/runs/{uuid:run_id}", auth=signed_in, response=RunNow)
def open_run(request: HttpRequest, run_id: UUID) -> RunNow:
    return _now(run_of(run_id))


@router.get("/runs/{uuid:run_id}/snapshot", auth=signed_in, response=RunSnapshot)
def run_snapshot(request: HttpRequest, run_id: UUID) -> RunSnapshot:
    """What never changes of a run. A tablet keeps it; its browser does not, for somebody else to find."""
    run = run_of(run_id)
    plan, worked, _ = snapshot(run)
    return RunSnapshot(
        run.pk,
        run.plan_id,
        plan,
        worked,
        _name(run.started_by),
        run.number,
        run.dough or None,
        run.doughs,
        list(planned_deeds(worked.strip)),
        list(tray_steps(worked)),
    )


@router.get("/runs/{uuid:run_id}/warmth", auth=signed_in, response=UnderWay)
def warmth_of_run(request: HttpRequest, run_id: UUID) -> UnderWay:
    """The run by its temperatures: in the kitchen it was started in, as warm as it was measured, or else as
    somebody said of today.
    """
    run = run_of(run_id)
    plan, worked, kitchen = snapshot(run)
    kitchen = as_today(kitchen)
    now = stand(worked, run.started_at, events_of(run))
    zone = timezone.get_current_timezone()
    return under_way(plan, kitchen, worked, now, zone, timezone.now())


@router.post("/runs/{uuid:run_id}/events", auth=signed_in, response=RunNow)
def say(request: HttpRequest, run_id: UUID, said: Body[Said]) -> RunNow:
    """Write events, all or none; one that is there already is passed over."""
    by = of_the_house(said.by) or user_of(request)
    # what takes long is done before others have to wait
    worked = snapshot(run_of(run_id))[1]
    with transaction.atomic():
        run = run_of(run_id)
        events = events_of(run)
        known = {e.id for e in events}
        if len(known | {e.id for e in said.events}) > MOST_ENTRIES:
            text = f"A dough holds {MOST_ENTRIES} entries, and this one is full."
            raise Faults(Fault("events", text))
        new: list[EventRecord] = []
        for i, event in enumerate(said.events):
            if event.id in known:
                continue
            try:
                _check_clock(run, event)
                admit(worked, run.started_at, events, event)
            except Faults as wrong:
                raise Faults(*(f.under(f"events[{i}]") for f in wrong.faults)) from None
            new.append(EventRecord(run=run, event_id=event.id, document=dump(event), by=by))
            events, known = (*events, event), known | {event.id}
        EventRecord.objects.bulk_create(new)
        standing = listed(run, worked, events)
    return _now(run, standing)


def _check_clock(run: Run, event: Event) -> None:
    ahead = event.at - timezone.now()
    if event.at < run.started_at - BEFORE_THE_START:
        began = timezone.localtime(run.started_at)
        raise Faults(Fault("at", f"That was before this run was started, at {began:%H:%M}."))
    if ahead > CLOCK_MAY_BE_AHEAD:
        minutes = ahead / timedelta(minutes=1)
        raise Faults(
            Fault("at", f"This screen's clock is {minutes:.0f} minutes ahead. Set it right.")
        )


@router.post("/runs/{uuid:run_id}/photos", auth=signed_in, response=RunNow)
def add_photo(
    request: HttpRequest,
    run_id: UUID,
    id: Form[UUID],
    file: File[UploadedFile],
    words: Form[str] = "",
) -> RunNow:
    """Keep a picture, made smaller and without its metadata; the id is the tablet's own."""
    run = run_of(run_id)
    if (file.size or 0) > LARGEST_FILE:
        raise Faults(Fault("file", "This picture is larger than 15 MB. Make it smaller first."))
    sent_before = Photo.objects.filter(pk=id, run=run).exists()
    if not sent_before and run.photos.filter(deleted_at=None).count() >= MOST_PHOTOS:
        raise Faults(Fault("file", f"A record holds {MOST_PHOTOS} pictures. Take one away first."))
    if len(words) > 200:
        raise Faults(Fault("words", "At most 200 characters."))
    jpeg = small_jpeg(file.read())
    Photo.objects.get_or_create(
        pk=id, defaults={"run": run, "jpeg": jpeg, "words": words, "by": user_of(request)}
    )
    return _now(run)


@router.get("/photos/{uuid:photo_id}.jpg", auth=signed_in)
def photo(request: HttpRequest, photo_id: UUID) -> HttpResponse:
    found = Photo.objects.filter(pk=photo_id, deleted_at=None).first()
    if found is None:
        raise Http404("There is no such picture.")
    return HttpResponse(bytes(found.jpeg), content_type="image/jpeg")


@router.delete("/runs/{uuid:run_id}/photos/{uuid:photo_id}", auth=signed_in, response=RunNow)
def drop_photo(request: HttpRequest, run_id: UUID, photo_id: UUID) -> RunNow:
    """Into the bin, from which a head baker brings it back."""
    run = run_of(run_id)
    found = run.photos.filter(pk=photo_id).first()
    if found is not None:
        found.gone(user_of(request))
    return _now(run)


@router.get("/runs/{uuid:run_id}/labels.pdf", auth=signed_in)
def download_run_labels(
    request: HttpRequest, run_id: UUID, product: int = 0, copies: int = 18
) -> HttpResponse:
    """Labels of a product of a run, by the plan and the kitchen it was made in, with the day it was made."""
    from bakehouse.plans.api import label_of
    from bakehouse.plans.label_files import Finished, labels_pdf

    run = run_of(run_id)
    _, worked, kitchen = snapshot(run)
    at = timezone.localtime(stand(worked, run.started_at, events_of(run)).since)
    label = label_of(worked, product)
    content = labels_pdf([(Finished(label, the_kitchen().sign, at), copies)], kitchen)
    return as_download(content, "application/pdf", f"{label.product} labels", "pdf")
