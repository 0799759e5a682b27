"""Blocks that were put away, and what happened to them."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class BlockRecord(models.Model):
    """Something put away, as it was then; what the shelves show stands in the row, and is written whenever
    something is said of it (``blocks.listed``).
    """

    id = models.UUIDField(primary_key=True)  # made by the tablet: a second press is the same block
    mark = models.CharField(max_length=8)  # what stands on its tag: a letter and a number
    document = models.JSONField()
    # the plan it goes on by; none for what was entered by hand
    plan_document = models.JSONField(null=True)
    run = models.UUIDField(null=True)
    # the saved plan that its dough was made by
    plan_id = models.PositiveBigIntegerField(null=True)
    of = models.ForeignKey("self", models.SET_NULL, null=True, related_name="parts")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)
    put_at = models.DateTimeField()
    place = models.CharField(max_length=20)
    best_before = models.DateTimeField()
    wanted_at = models.DateTimeField(null=True)
    gone_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["best_before"]
        indexes = [
            models.Index(fields=["gone_at", "best_before"], name="blocks_there"),
            models.Index(fields=["mark"], name="blocks_by_mark"),
            models.Index(fields=["run"], name="blocks_of_a_run"),
        ]

    def __str__(self) -> str:
        return f"{self.mark}, {self.document.get('name')}"


class ChangeRecord(models.Model):
    """Append-only. The id is made by the tablet: sending a change twice writes it once."""

    block = models.ForeignKey(BlockRecord, models.CASCADE, related_name="changes")
    change_id = models.CharField(max_length=64)
    document = models.JSONField()
    received_at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["block", "change_id"], name="a_change_is_written_once")
        ]

    def __str__(self) -> str:
        return f"{self.document.get('kind')} of {self.block_id}"


class SimulatedPrinter(models.Model):
    """The demo's label printer: what is left on its roll, and whether it is jammed."""

    left = models.PositiveSmallIntegerField(default=12)
    printed = models.PositiveIntegerField(default=0)
    jams_every = models.PositiveSmallIntegerField(default=9)
    jammed = models.BooleanField(default=False)

    def __str__(self) -> str:
        return f"{self.left} tags left"

    @classmethod
    def there(cls) -> SimulatedPrinter:
        """The one there is."""
        return cls.objects.get_or_create(pk=1)[0]


class PrintedTag(models.Model):
    """What came out of the simulated printer."""

    mark = models.CharField(max_length=8)
    svg = models.TextField()
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{self.mark}, {self.at:%H:%M}"


class StockCount(models.Model):
    """What somebody counted last of an ingredient."""

    ingredient = models.CharField(max_length=60, primary_key=True)
    grams = models.FloatField()
    at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    class Meta:
        ordering = ["ingredient"]

    def __str__(self) -> str:
        return f"{self.ingredient}, {self.grams:.0f} g"
