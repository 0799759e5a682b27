"""Saved plans."""

from typing import ClassVar

from django.db import models

from bakehouse.models import Revisioned


class PlanRecord(Revisioned):
    """A plan as a document. ``line`` is what the list shows, as it was worked in the kitchen of
    ``line_of``: written with the plan, and again only after the kitchen has changed.
    """

    what: ClassVar[str] = "plan"

    line = models.JSONField(default=dict)
    line_of = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ["-updated_at"]
        indexes = [models.Index(fields=["-updated_at"], name="plans_latest_first")]
