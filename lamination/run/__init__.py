"""A run at the bench: what was said, where it stands, what comes next."""

from lamination.run.begun import Begun, begun
from lamination.run.called import Called, called
from lamination.run.events import Event, EventKind, Probe, Verdict
from lamination.run.pressing import Pressing, pressing
from lamination.run.standing import Phase, PlannedDeed, Standing, admit, planned_deeds, stand
from lamination.run.trays import TrayStep, proofed_min, tray_steps
from lamination.run.underway import UnderWay, as_it_went, today_of, under_way
from lamination.run.used import Used, used

__all__ = [
    "Begun", "Called", "Event", "EventKind", "Phase", "PlannedDeed", "Pressing", "Probe", "Standing",
    "TrayStep", "UnderWay", "Used", "Verdict", "admit", "as_it_went", "begun", "called", "planned_deeds",
    "pressing", "proofed_min", "stand", "today_of", "tray_steps", "under_way", "used",
]  # fmt: skip
