"""Lessons of this house, plays of them, and the best play of each day that was searched.

Nothing here refers to a run, the book or the cold store, and nothing there refers to this: a lesson
never becomes work that was done.
"""

from __future__ import annotations

from typing import ClassVar

from django.conf import settings
from django.db import models

from bakehouse.models import Revisioned


class LessonRecord(Revisioned):
    """A lesson of this house. ``source``: what it was made from, in words; ``plan_id``: of which plan."""

    what: ClassVar[str] = "lesson"

    source = models.CharField(max_length=120, blank=True)
    plan_id = models.PositiveBigIntegerField(null=True)

    class Meta:
        ordering = ["-updated_at"]


class PlayRecord(models.Model):
    """A play that somebody finished: what was decided, and what it came to by the rules of then."""

    id = models.UUIDField(primary_key=True)
    lesson = models.CharField(max_length=60, db_index=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.CASCADE)
    decisions = models.JSONField()
    outcome = models.JSONField()
    passed = models.BooleanField()
    at = models.DateTimeField()

    class Meta:
        indexes = [models.Index(fields=["lesson", "by"], name="plays_by_person")]

    def __str__(self) -> str:
        return f"{self.lesson}: {self.outcome.get('worth')}"


class BestRecord(models.Model):
    """The best play found of a lesson, by what the lesson says: searched once, and kept."""

    of = models.CharField(max_length=64, primary_key=True)
    decisions = models.JSONField()
    followed = models.PositiveIntegerField()
    at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"{len(self.decisions)} decisions"
