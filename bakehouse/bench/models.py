"""Runs and what happened in them."""

from __future__ import annotations

from typing import ClassVar

from django.conf import settings
from django.db import models

from bakehouse.models import Binned


class Run(models.Model):
    """One dough at the bench, with the plan and kitchen as they were when it was started.

    What the lists show stands in the row, written whenever something is said (``runs.listed``); ``said``
    grows with it, so that a screen knows whether anything is new.
    """

    id = models.UUIDField(
        primary_key=True
    )  # made by the tablet, so that a second press is the same
    plan = models.ForeignKey("plans.PlanRecord", models.SET_NULL, null=True)
    plan_document = models.JSONField()
    kitchen_document = models.JSONField()
    # the plan as it was worked then: trays and sheets stay what they were, whatever rules come later
    worked_document = models.JSONField(null=True)
    started_at = models.DateTimeField()
    started_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)
    said = models.PositiveIntegerField(default=0)
    name = models.CharField(max_length=80, blank=True)
    family = models.CharField(max_length=20, blank=True)
    phase = models.CharField(max_length=20, blank=True)
    stop_name = models.CharField(max_length=80, null=True)  # noqa: DJ001 - none is at no step
    since = models.DateTimeField(null=True)
    until = models.DateTimeField(null=True)
    tray = models.PositiveSmallIntegerField(null=True)  # that which is ready first
    turns_done = models.PositiveSmallIntegerField(default=0)
    turns = models.PositiveSmallIntegerField(default=0)
    verdict = models.JSONField(null=True)
    pieces = models.PositiveIntegerField(null=True)
    number = models.PositiveSmallIntegerField(default=1)  # among those of its plan that day

    # what somebody may look for: its name, remarks, how it came out in words; and the mean of its marks
    words = models.TextField(blank=True)
    score = models.FloatField(null=True)

    # which dough of which day it is, where it belongs to one
    day = models.PositiveBigIntegerField(null=True)
    dough = models.CharField(max_length=60, blank=True)
    doughs = models.PositiveSmallIntegerField(null=True)
    # the block of the cold store that it goes on with
    block = models.UUIDField(null=True)

    class Meta:
        ordering = ["-started_at"]
        indexes = [
            models.Index(fields=["day"], name="runs_of_a_day"),
            models.Index(fields=["-started_at"], name="runs_latest_first"),
            models.Index(fields=["phase", "-started_at"], name="runs_by_phase"),
        ]

    def __str__(self) -> str:
        return f"{self.name}, {self.started_at:%Y-%m-%d %H:%M}"


class EventRecord(models.Model):
    """Append-only. The id is made by the tablet: sending an event twice writes it once."""

    run = models.ForeignKey(Run, models.CASCADE, related_name="events")
    event_id = models.CharField(max_length=64)
    document = models.JSONField()
    received_at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["run", "event_id"], name="an_event_is_written_once")
        ]

    def __str__(self) -> str:
        return f"{self.document.get('kind')} in {self.run_id}"


class Photo(Binned):
    """A picture of what came out: made smaller, without anything a camera wrote into it."""

    what: ClassVar[str] = "picture"

    id = models.UUIDField(primary_key=True)
    run = models.ForeignKey(Run, models.CASCADE, related_name="photos")
    # kept with the rest, so that one backup holds all
    jpeg = models.BinaryField()
    words = models.CharField(max_length=200, blank=True)
    taken_at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    class Meta:
        ordering = ["taken_at"]

    def __str__(self) -> str:
        return self.words or f"of {self.run.name}"
