"""Runs as they are kept: the snapshot of one, worked once, and its events."""

from __future__ import annotations

import json
from collections.abc import Iterator
from contextlib import suppress
from datetime import datetime, timedelta
from functools import lru_cache
from typing import Any
from uuid import UUID

from django.db import DatabaseError
from django.http import Http404

from bakehouse.bench.models import Photo, Run
from bakehouse.documents import completed, dump, read, read_kitchen, read_plan
from lamination.kitchen import Kitchen
from lamination.plan import Plan, WorkedPlan, kitchen_of_then, work
from lamination.run import Event, Standing, pressing, stand
from lamination.terms import Faults

GOOD_FROM = 4.0  # of five: such a bake is one of the good ones


def run_of(run_id: UUID) -> Run:
    """A run that is there. Raises Http404 with a sentence."""
    run = Run.objects.filter(pk=run_id).select_related("started_by").first()
    if run is None:
        raise Http404("There is no such run.")
    return run


def snapshot(run: Run) -> tuple[Plan, WorkedPlan, Kitchen]:
    """A run's plan and kitchen as they were at its start, and the plan as it was worked then.

    A run from before that was kept is worked now, by the rules of its time as far as they are known.
    """
    if run.worked_document is None:
        run.worked_document = dump(worked_anew(run.plan_document, run.kitchen_document))
        with suppress(DatabaseError):
            Run.objects.filter(pk=run.pk).update(worked_document=run.worked_document)
    return _snapshot(
        *map(json.dumps, (run.plan_document, run.kitchen_document, run.worked_document))
    )


def worked_anew(plan_document: Any, kitchen_document: Any) -> WorkedPlan:
    """A run's plan, worked in its kitchen by today's rules, or those of its version where they are known."""
    kitchen = kitchen_of_then(plan_document, read_kitchen(kitchen_document))
    return work(read_plan(plan_document), kitchen)


@lru_cache(maxsize=128)
def _snapshot(
    plan_text: str, kitchen_text: str, worked_text: str
) -> tuple[Plan, WorkedPlan, Kitchen]:
    document = json.loads(plan_text)
    plan, kitchen = read_plan(document), read_kitchen(json.loads(kitchen_text))
    kept = json.loads(worked_text)
    try:
        worked = read(WorkedPlan, kept)
    except Faults:
        # a newer version says more of a plan than was kept
        anew = dump(worked_anew(document, json.loads(kitchen_text)))
        worked = read(WorkedPlan, completed(kept, anew))
    return plan, worked, kitchen


def events_of(run: Run) -> tuple[Event, ...]:
    """Everything that was said, in the order it was received."""
    return tuple(read(Event, e.document) for e in run.events.all())


# a run, its plan worked, and where it stands
Stood = tuple[Run, WorkedPlan, Standing]


def standings_of(day: int) -> Iterator[Stood]:
    """The runs that make the doughs of a day, each worked, and where it stands.

    Of two runs of one dough (one was stopped) the later counts.
    """
    latest = {run.dough: run for run in Run.objects.filter(day=day).order_by("started_at")}
    for run in latest.values():
        worked = snapshot(run)[1]
        yield run, worked, stand(worked, run.started_at, events_of(run))


def begun_doughs(day: int) -> set[str]:
    """The numbers of a day's doughs that were begun at the bench."""
    return set(Run.objects.filter(day=day).exclude(dough="").values_list("dough", flat=True))


def day_of_run(run: UUID) -> int | None:
    """Which day's dough a run makes; None for none's."""
    return Run.objects.filter(pk=run).values_list("day", flat=True).first()


def runs_from(block: UUID) -> list[UUID]:
    """The runs that went on with a block, the first first."""
    return list(Run.objects.filter(block=block).order_by("started_at").values_list("pk", flat=True))


def listed(run: Run, worked: WorkedPlan, events: tuple[Event, ...]) -> Standing:
    """Write what the lists show of the run after these events; gives where it stands."""
    now = stand(worked, run.started_at, events)
    names = {s.key: s.name for s in worked.strip}
    run.said = len(events)
    run.name = worked.name
    run.family = run.plan_document.get("family", "")
    run.phase = now.phase
    first = pressing(now)
    run.stop_name = names.get((first.stop if first else now.stop) or "")
    run.since, run.until = now.since, first.at if first else now.until
    run.tray = first.tray if first else None
    run.turns_done, run.turns = now.turns_done, now.turns
    run.verdict = dump(now.verdict) if now.verdict else None
    run.pieces = worked.cut.pieces if worked.cut else None
    said = [worked.name, *(r.words for r in now.remarks)]
    if now.verdict:
        said.append(now.verdict.words)
        run.score = now.verdict.mean
    run.words = "\n".join(filter(None, said)).lower()
    run.save()
    return now


def weighed_since(since: datetime) -> Iterator[tuple[str, str, float, datetime, str]]:
    """What doughs have taken since a moment: ingredient, its name, g, when, and the dough.

    As it stood on the scales where somebody said so; else as the sheet has it, once its step was done.
    """
    for run in Run.objects.filter(started_at__gte=since - timedelta(days=3)):
        worked = snapshot(run)[1]
        now = stand(worked, run.started_at, events_of(run))
        done = {d.stop: d.at for d in now.deeds}
        scaled = {w.line: w for w in now.weighed}
        for sheet in worked.sheets:
            for line in sheet.lines:
                put = scaled.get(line.key)
                at = put.at if put else done.get(sheet.stop)
                if at is not None and at >= since:
                    grams = put.grams if put else line.grams
                    yield line.ingredient, line.name, grams, at, run.name


def finished_of(name: str) -> list[tuple[UUID, int]]:
    """The judged runs of a product, the latest first, and how much was said of each."""
    runs = Run.objects.filter(name=name, phase="finished", verdict__isnull=False)
    return list(runs.order_by("-started_at").values_list("pk", "said")[:200])


def started_by(run: Run) -> str | None:
    """Who began a run, by name."""
    return run.started_by.get_username() if run.started_by else None


def all_runs() -> list[UUID]:
    """Every run, the first first."""
    return list(Run.objects.order_by("started_at").values_list("pk", flat=True))


def latest_finished(most: int) -> list[tuple[UUID, int]]:
    """The last runs that came to their end, and how much was said of each."""
    runs = Run.objects.filter(phase="finished").order_by("-started_at")
    return list(runs.values_list("pk", "said")[:most])


def products() -> list[str]:
    """The names of all that was ever finished."""
    names = Run.objects.filter(phase="finished").order_by("name").values_list("name", flat=True)
    return list(names.distinct())


def photo_bytes(photo_id: UUID) -> tuple[UUID, bytes]:
    """The run of a picture, and the picture. Raises Http404 with a sentence."""
    found = Photo.objects.filter(pk=photo_id, deleted_at=None).first()
    if found is None:
        raise Http404("There is no such picture.")
    return found.run_id, bytes(found.jpeg)
