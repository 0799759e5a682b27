"""Records as the book asks them: a run with all that was said of it, as the core reads it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from datetime import datetime
from functools import lru_cache
from uuid import UUID

from bakehouse.bench.runs import (
    GOOD_FROM,
    events_of,
    finished_of,
    latest_finished,
    run_of,
    snapshot,
    started_by,
)
from bakehouse.documents import read
from bakehouse.findings.models import SeenRecord
from lamination.findings import BakeCause, Feature, Finding, Record, features, score
from lamination.terms import Family

MOST_OTHERS = 40


def record_of(run_id: UUID) -> Record:
    """A run as a record. Raises Http404 with a sentence."""
    run = run_of(run_id)
    plan, _, kitchen = snapshot(run)
    return Record(plan, run.started_at, events_of(run), seen_of(run_id), kitchen, started_by(run))


def seen_of(run_id: UUID) -> tuple[Finding, ...]:
    """What was seen of a run's bake."""
    found = SeenRecord.objects.filter(pk=run_id).values_list("seen", flat=True).first()
    return tuple(read(Finding, one) for one in found or ())


def confirmed_in(family: Family) -> dict[BakeCause, int]:
    """How often this house has found each cause in a family."""
    said = SeenRecord.objects.filter(family=family).exclude(cause="")
    counts = Counter(said.values_list("cause", flat=True))
    return {cause: counts[cause.value] for cause in BakeCause if counts[cause.value]}


@lru_cache(maxsize=2_000)
def _features(run_id: UUID, said: int) -> tuple[dict[str, Feature], float | None]:
    record = record_of(run_id)
    return features(record), score(record)


def features_of(run_id: UUID) -> dict[str, Feature]:
    """What of a run can be compared; kept as long as nothing more is said of it."""
    return _features(run_id, run_of(run_id).said)[0]


def good_ones_like(run_id: UUID) -> Iterator[dict[str, Feature]]:
    """The good bakes of the same product, the latest first, without this one."""
    found = 0
    for other, said in finished_of(run_of(run_id).name):
        if other == run_id or found >= MOST_OTHERS:
            continue
        about, judged = _features(other, said)
        if judged is not None and judged >= GOOD_FROM:
            found += 1
            yield about


TRENDS = ("score", "late", "butter", "room", "piece", "spread", "hydration")
MOST_LATELY = 60


def trends_of(name: str) -> dict[str, list[tuple[UUID, datetime, Feature]]]:
    """How a product's records went over time, the first first: each of a few things that are followed."""
    found: dict[str, list[tuple[UUID, datetime, Feature]]] = {key: [] for key in TRENDS}
    for run_id, said in reversed(finished_of(name)):
        about = _features(run_id, said)[0]
        at = run_of(run_id).started_at
        for key in TRENDS:
            if key in about:
                found[key].append((run_id, at, about[key]))
    return {key: points for key, points in found.items() if len(points) > 1}


def lately() -> Iterator[Record]:
    """The last records that came to their end."""
    for run_id, said in latest_finished(MOST_LATELY):
        yield _as_said(run_id, said)


@lru_cache(maxsize=2 * MOST_LATELY)
def _as_said(run_id: UUID, said: int) -> Record:
    """A record as it stands after so much was said of it: it is asked for again and again."""
    return record_of(run_id)
