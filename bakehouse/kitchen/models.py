"""The one kitchen of this bakery."""

from typing import ClassVar

from django.conf import settings
from django.db import models

from bakehouse.models import Revisioned


class KitchenRecord(Revisioned):
    """Row 1 holds what this bakery changed in the table of practice, and its own ingredients."""

    what: ClassVar[str] = "kitchen"

    def __str__(self) -> str:
        return f"kitchen, {len(self.document.get('yours', {}))} changed"


class DayClimate(models.Model):
    """How warm it is on one day, °C, as somebody said who was there: every screen judges by it."""

    day = models.DateField(primary_key=True)
    room_c = models.FloatField(null=True)
    fridge_c = models.FloatField(null=True)
    said_at = models.DateTimeField(auto_now=True)
    said_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    def __str__(self) -> str:
        return f"{self.day}: {self.room_c} °C"


class CardPicture(models.Model):
    """A picture of a step of a shaping card, under the sum of its bytes.

    It is never changed, and kept as long as the house: an earlier kitchen may still show it.
    """

    key = models.CharField(max_length=40, primary_key=True)
    jpeg = models.BinaryField()

    def __str__(self) -> str:
        return self.key
