"""A dough that was begun before anybody said so: what was done till then, as the plan has it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta

from lamination.plan.worked import WorkedPlan
from lamination.run.events import Event, EventKind
from lamination.run.standing import PlannedDeed, planned_deeds
from lamination.run.trays import tray_steps
from lamination.terms.limits import Fault, Faults


@dataclass(frozen=True)
class Begun:
    """At which stop a dough is already, and since when."""

    stop: str
    at: datetime


def begun(worked: WorkedPlan, said: Begun) -> tuple[datetime, tuple[Event, ...]]:
    """When such a run started, and what was done up to its stop, each at the minute the plan has it.

    Where trays go their own ways, all of them are taken to have come as far. Every time can be put right
    afterwards. Raises Faults: ``stop``, which the plan has not; ``at``, without its zone.
    """
    stop = worked.stop(said.stop)
    if stop is None:
        raise Faults(Fault("stop", "This plan has no such step. Choose another."))
    if said.at.utcoffset() is None:
        raise Faults(Fault("at", "The time must say its time zone."))
    started = said.at - timedelta(minutes=stop.starts_min)
    deeds = _done_before(worked, said.stop)
    return started, tuple(
        Event(
            f"as-planned-{n:03}",
            min(started + timedelta(minutes=deed.minute), said.at),
            deed.kind,
            deed.stop,
            tray=tray,
            assumed=True,
        )
        for n, (deed, tray) in enumerate(deeds)
    )


def _done_before(worked: WorkedPlan, stop: str) -> Iterator[tuple[PlannedDeed, int | None]]:
    """Every deed before a stop, and the tray it is done with where each goes its own way."""
    on_trays = worked.shaped.trays.products if worked.shaped else ()
    trays = [n for product in on_trays for n in product.trays]
    by_tray = {s.stop for s in tray_steps(worked)}
    goes_in = {s.stop for s in tray_steps(worked) if s.kind is EventKind.IN}
    starts = {s.key: s.starts_min for s in worked.strip}
    for deed in planned_deeds(worked.strip):
        if deed.stop == stop:
            return
        if deed.stop not in by_tray:
            yield deed, None
            continue
        if deed.stop in goes_in and deed.kind is EventKind.DONE:
            for tray in trays:
                yield PlannedDeed(EventKind.IN, deed.stop, starts[deed.stop]), tray
        for tray in trays:
            yield deed, tray
