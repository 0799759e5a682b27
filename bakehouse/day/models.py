"""Orders: what is wanted for a day."""

from typing import ClassVar

from django.db import models

from bakehouse.models import Revisioned


class OrderRecord(Revisioned):
    """An order as a document."""

    what: ClassVar[str] = "order"

    class Meta:
        ordering = ["-created_at"]
        indexes = [models.Index(fields=["-created_at"], name="orders_latest_first")]
