"""Runs as they are kept: the snapshot of one, worked once, and its events."""

from __future__ import annotations

import json
from collections.abc import Iterator
from functools import lru_cache
from uuid import UUID

from django.http import Http404

from bakehouse.bench.models import Run
from bakehouse.documents import dump, read, read_kitchen, read_plan
from lamination.kitchen import Kitchen
from lamination.plan import Plan, WorkedPlan, work
from lamination.run import Event, Standing, pressing, stand


def run_of(run_id: UUID) -> Run:
    """A run that is there. Raises Http404 with a sentence."""
    run = Run.objects.filter(pk=run_id).select_related("started_by").first()
    if run is None:
        raise Http404("There is no such run.")
    return run


def snapshot(run: Run) -> tuple[Plan, WorkedPlan, Kitchen]:
    """A run's plan and kitchen as they were at its start, and the plan worked in it."""
    return _snapshot(json.dumps(run.plan_document), json.dumps(run.kitchen_document))


@lru_cache(maxsize=128)
def _snapshot(plan_text: str, kitchen_text: str) -> tuple[Plan, WorkedPlan, Kitchen]:
    plan, kitchen = read_plan(json.loads(plan_text)), read_kitchen(json.loads(kitchen_text))
    return plan, work(plan, kitchen), kitchen


def events_of(run: Run) -> tuple[Event, ...]:
    """Everything that was said, in the order it was received."""
    return tuple(read(Event, e.document) for e in run.events.all())


# a run, its plan worked, and where it stands
Stood = tuple[Run, WorkedPlan, Standing]


def standings_of(day: int) -> Iterator[Stood]:
    """The runs that make the doughs of a day, each worked, and where it stands.

    Of two runs of one dough (one was given up) the later counts.
    """
    latest = {run.dough: run for run in Run.objects.filter(day=day).order_by("started_at")}
    for run in latest.values():
        worked = snapshot(run)[1]
        yield run, worked, stand(worked, run.started_at, events_of(run))


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
    run.save()
    return now
