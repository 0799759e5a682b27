"""The one kitchen of this bakery."""

from django.db import models


class KitchenRecord(models.Model):
    """Row 1 holds what this bakery changed in the table of practice."""

    yours = models.JSONField(default=dict)
    ingredients = models.JSONField(default=list)
    updated_at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"kitchen, {len(self.yours)} changed"
