"""Orders: what is wanted for a day."""

from typing import ClassVar

from django.db import models

from bakehouse.models import Revisioned


class OrderRecord(Revisioned):
    """An order as a document, with the timetable that was made of it and how the day stands.

    ``timetable``: what the day goes by; ``proposed``: what it might go by, until somebody takes it.
    """

    what: ClassVar[str] = "order"

    timetable = models.JSONField(null=True)
    doughs = models.JSONField(null=True)  # as they were numbered for it: plans come and go
    proposed = models.JSONField(null=True)
    proposed_at = models.DateTimeField(null=True)
    arranged_revision = models.PositiveIntegerField(null=True)
    arranged_at = models.DateTimeField(null=True)
    opened_at = models.DateTimeField(null=True)  # when the day was started
    handover = models.TextField(blank=True)
    # the standing order it was made from
    made_from = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="made")

    class Meta:
        ordering = ["-created_at"]
        indexes = [models.Index(fields=["-created_at"], name="orders_latest_first")]
