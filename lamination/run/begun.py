"""A dough that was begun before anybody said so: what was done till then, as the plan has it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from lamination.plan.worked import WorkedPlan
from lamination.run.events import Event
from lamination.run.standing import planned_deeds
from lamination.run.trays import tray_steps
from lamination.terms.limits import Fault, Faults


@dataclass(frozen=True)
class Begun:
    """At which stop a dough is already, and since when."""

    stop: str
    at: datetime


def begun(worked: WorkedPlan, said: Begun) -> tuple[datetime, tuple[Event, ...]]:
    """When such a run started, and what was done up to its stop, each at the minute the plan has it.

    Every time can be put right afterwards. Raises Faults (``stop``) for a stop the plan has not, or one
    after which trays go their own ways.
    """
    stop = worked.stop(said.stop)
    if stop is None:
        raise Faults(Fault("stop", "This plan has no such step. Choose another."))
    if said.at.utcoffset() is None:
        raise Faults(Fault("at", "The time must say its time zone."))
    by_tray = {s.stop for s in tray_steps(worked)}
    first = next((s.starts_min for s in worked.strip if s.key in by_tray), None)
    if first is not None and stop.starts_min > first:
        raise Faults(
            Fault("stop", "From the trays on each goes its own way: begin with an earlier step.")
        )
    started = said.at - timedelta(minutes=stop.starts_min)
    events = []
    for n, deed in enumerate(planned_deeds(worked.strip)):
        if deed.stop == said.stop:
            break
        at = min(started + timedelta(minutes=deed.minute), said.at)
        events.append(Event(f"as-planned-{n:03}", at, deed.kind, deed.stop, assumed=True))
    return started, tuple(events)
