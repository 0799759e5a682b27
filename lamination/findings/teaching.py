"""What the book teaches the kitchen: rows that the last records would have otherwise, offered only."""

from __future__ import annotations

import statistics
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import timedelta

from lamination.findings.record import Record
from lamination.kitchen.kitchen import Kitchen
from lamination.run.events import EventKind
from lamination.steps import kind_of

FEW = 4  # fewer records teach nothing
_TABLE_COUNTS = 5  # what the kitchen's own value counts for beside so many records
_NOTICED = 0.08  # a row that would move by less is right as it is
_MOST_TIMES = 4.0  # a step that took so many times its minutes was interrupted


@dataclass(frozen=True, slots=True)
class Taught:
    """A row of the kitchen and what the records say of it: the middle of ``n``, from and until where eight of
    ten lie, and the value that is offered, shrunk towards the one in use.
    """

    key: str
    label: str
    unit: str
    now: float
    middle: float
    low: float
    high: float
    n: int
    offered: float


def taught(records: Iterable[Record], kitchen: Kitchen) -> tuple[Taught, ...]:
    """The rows that the records would have otherwise, those that differ most first.

    Offered is (n · middle + 5 · now) / (n + 5). Source: shrinkage towards what is in use.
    """
    seen: dict[str, list[float]] = {}
    for record in records:
        for key, value in _said(record):
            seen.setdefault(key, []).append(value)
    found = []
    for key, values in seen.items():
        if len(values) < FEW:
            continue
        row, now, middle = kitchen.row(key), kitchen[key], statistics.median(values)
        offered = (len(values) * middle + _TABLE_COUNTS * now) / (len(values) + _TABLE_COUNTS)
        offered = min(max(round(offered, 1), row.low), row.high)
        if abs(offered - now) <= _NOTICED * max(abs(now), 1.0):
            continue
        ranked = sorted(values)
        tenth = len(ranked) // 10
        found.append(
            Taught(
                key, row.label, row.unit, now, round(middle, 2), ranked[tenth],
                ranked[-1 - tenth], len(values), offered,
            )
        )  # fmt: skip
    return tuple(sorted(found, key=lambda t: -abs(t.offered - t.now) / max(abs(t.now), 1.0)))


def _said(record: Record) -> Iterator[tuple[str, float]]:
    """What a record says of rows: the key of each, and a value."""
    clock = record.standing.started_at
    by_tray = {s.key for s in record.worked.strip if s.trays}
    steps = {s.id: s for s in record.plan.steps}
    for deed in record.standing.deeds:
        minutes = (deed.at - clock) / timedelta(minutes=1)
        clock = deed.at
        step = steps.get(deed.stop)
        if deed.kind is not EventKind.DONE or deed.assumed or step is None:
            continue
        row = kind_of(step).minutes
        # a step with minutes of its own says nothing of the kitchen's
        if isinstance(row, str) and step.bench_min is None and deed.stop not in by_tray:
            usual = record.kitchen[row]
            if 0 < minutes <= _MOST_TIMES * max(usual, 1.0):
                yield row, minutes
    verdict = record.standing.verdict
    if verdict and verdict.before_g and verdict.after_g and verdict.after_g < verdict.before_g:
        yield "bake.loss_pct", 100 * (1 - verdict.after_g / verdict.before_g)
