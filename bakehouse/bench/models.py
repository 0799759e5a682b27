"""Runs and what happened in them."""

from django.conf import settings
from django.db import models


class Run(models.Model):
    """One dough at the bench, with the plan and kitchen as they were when it was started."""

    id = models.UUIDField(
        primary_key=True
    )  # made by the tablet, so that a second press is the same
    plan = models.ForeignKey("plans.PlanRecord", models.SET_NULL, null=True)
    plan_document = models.JSONField()
    kitchen_document = models.JSONField()
    started_at = models.DateTimeField()
    started_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    class Meta:
        ordering = ["-started_at"]

    def __str__(self) -> str:
        return f"{self.plan_document.get('name')}, {self.started_at:%Y-%m-%d %H:%M}"


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


class Photo(models.Model):
    """A picture of what came out: made smaller, without anything a camera wrote into it."""

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
        return f"picture of {self.run_id}"
