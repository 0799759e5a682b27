"""What was seen of a bake, and what the baker found it was."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class SeenRecord(models.Model):
    """What somebody saw of a dough's bake, and the cause that they found it was."""

    run = models.UUIDField(primary_key=True)
    seen = models.JSONField(default=list)
    family = models.CharField(max_length=20, blank=True)
    cause = models.CharField(max_length=30, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)
    at = models.DateTimeField(auto_now=True)

    class Meta:
        indexes = [models.Index(fields=["family", "cause"], name="causes_by_family")]

    def __str__(self) -> str:
        return ", ".join(self.seen) or "nothing seen"


class CrumbRecord(models.Model):
    """What a photograph of a cut piece says, and the picture with that drawn over it."""

    photo = models.UUIDField(primary_key=True)
    run = models.UUIDField(db_index=True)
    width_mm = models.FloatField()
    document = models.JSONField()
    jpeg = models.BinaryField()
    at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"{self.document.get('openness_pct')} % open"
