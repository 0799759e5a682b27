"""A record as the book asks it: a dough's plan and kitchen as they were, what was said, what was seen."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, tzinfo
from functools import cached_property
from typing import Annotated, Literal

from lamination.findings.table import Finding
from lamination.kitchen.kitchen import Kitchen
from lamination.plan import PLAIN, Plan, WorkedPlan, work
from lamination.run import Event, Standing, proofed_min, stand
from lamination.run.underway import as_it_went, today_of
from lamination.terms.limits import Checked, Fault, Length, raise_if
from lamination.warmth import Today

RECORD_FORMAT: Literal["eight-turn/record"] = "eight-turn/record"


@dataclass(frozen=True)
class Record(Checked):
    """A dough as it was made: its plan and kitchen as they were then, when it was begun and by whom, what was
    said at the bench, and what was seen of the bake. Raises Faults for a time without its zone.
    """

    plan: Plan
    started_at: datetime
    events: Annotated[tuple[Event, ...], Length(0, 5_000, "entries")] = ()
    seen: Annotated[tuple[Finding, ...], Length(0, 16, "findings")] = ()
    kitchen: Kitchen = PLAIN
    by: str | None = None
    format: Literal["eight-turn/record"] = RECORD_FORMAT
    version: Literal[1] = 1

    def __post_init__(self) -> None:
        super().__post_init__()
        no_zone = self.started_at.utcoffset() is None
        text = "The time must say its time zone."
        raise_if([Fault("started_at", text)] if no_zone else [])

    @cached_property
    def worked(self) -> WorkedPlan:
        """Its plan, worked."""
        return work(self.plan, self.kitchen)

    @cached_property
    def standing(self) -> Standing:
        """Where it stands after all that was said."""
        return stand(self.worked, self.started_at, self.events)

    def as_it_went(self) -> Plan:
        """The plan with the minutes that everything really took; of its trays the mean of all."""
        went = as_it_went(self.plan, self.worked, self.standing)
        minutes = proofed_min(self.worked, self.standing.trays)
        if minutes is None:
            return went
        steps = (s.resting(minutes) if s.kind_name == "shape" else s for s in went.steps)
        return went.with_steps(*steps)

    def today(self, zone: tzinfo = UTC) -> Today:
        """What its readings say of the day."""
        return today_of(self.standing, zone)
