"""What is called out at the bench: the alarms of everything that goes on by itself, each at its moment."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta

from lamination.plan.worked import WorkedPlan
from lamination.run.events import EventKind
from lamination.run.standing import Phase, Standing


@dataclass(frozen=True, slots=True)
class Called:
    """One alarm of the dough, or of a tray of it: after which stop, when, and what it says."""

    tray: int | None
    stop: str
    at: datetime
    says: str


def called(worked: WorkedPlan, now: Standing) -> tuple[Called, ...]:
    """Every alarm of what is going on, past and to come, by tray and time; nothing once it is over.

    What comes after the next press is not among them: it has not begun.
    """
    return tuple(sorted(_called(worked, now), key=lambda one: (one.tray or 0, one.at)))


def _called(worked: WorkedPlan, now: Standing) -> Iterator[Called]:
    if now.phase in (Phase.FINISHED, Phase.GIVEN_UP):
        return
    if any(t.deeds for t in now.trays):
        for tray in now.trays:
            if tray.lost is None and tray.next is not None and tray.deeds:
                last = tray.deeds[-1]
                yield from _after(worked, tray.tray, last.stop, last.kind, last.at, tray.until)
    elif now.phase is Phase.REST and now.stop:
        yield from _after(worked, None, now.stop, EventKind.DONE, now.since, now.until)


def _after(
    worked: WorkedPlan,
    tray: int | None,
    key: str,
    kind: EventKind,
    at: datetime,
    until: datetime | None,
) -> Iterator[Called]:
    stop = worked.stop(key)
    for alarm in stop.alarms if stop else ():
        if alarm.after != kind.value:
            continue
        minutes = 0.0 if alarm.minutes is None else alarm.minutes
        counted = until if alarm.minutes is None or minutes < 0 else at
        if counted is not None:
            yield Called(tray, key, counted + timedelta(minutes=minutes), alarm.says)
