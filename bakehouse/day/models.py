"""Orders: what is wanted for a day."""

from django.conf import settings
from django.db import models


class OrderRecord(models.Model):
    """An order as a document. ``revision`` grows with each save."""

    document = models.JSONField()
    revision = models.PositiveIntegerField(default=1)
    created_at = models.DateTimeField(auto_now_add=True)
    updated_at = models.DateTimeField(auto_now=True)
    updated_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)
    deleted_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-created_at"]

    def __str__(self) -> str:
        return str(self.document.get("name", self.pk))
