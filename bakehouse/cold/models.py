"""Probes that lie in a dough or a place, and what they said."""

from django.db import models


class ProbeRecord(models.Model):
    """A probe that may post readings. Only a hash of its token is kept."""

    name = models.CharField(max_length=80)
    token_hash = models.CharField(max_length=64, unique=True)
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class Sample(models.Model):
    """One reading, °C. The same probe says one thing at one time."""

    probe = models.ForeignKey(ProbeRecord, models.CASCADE, related_name="samples")
    at = models.DateTimeField()
    t_c = models.FloatField()

    class Meta:
        ordering = ["at"]
        constraints = [
            models.UniqueConstraint(fields=["probe", "at"], name="one_reading_at_a_time")
        ]

    def __str__(self) -> str:
        return f"{self.at:%H:%M} {self.t_c:.1f} °C"
