"""Probes that lie in a dough or a place, and what they said."""

from datetime import UTC, datetime, timedelta

from django.db import connection, models

THIN_EVERY = timedelta(hours=1)
# how old, and then one reading in so many seconds
THINNED = ((timedelta(days=7), 60), (timedelta(days=30), 900))
_THIN = """
DELETE FROM cold_sample WHERE probe_id = %s AND at >= %s AND at < %s AND id NOT IN (
    SELECT min(id) FROM cold_sample WHERE probe_id = %s AND at >= %s AND at < %s
    GROUP BY CAST(strftime('%%s', at) AS INTEGER) / %s
)
"""


class ProbeRecord(models.Model):
    """A probe that may post readings. Only a hash of its token is kept."""

    name = models.CharField(max_length=80)
    token_hash = models.CharField(max_length=64, unique=True)
    created_at = models.DateTimeField(auto_now_add=True)
    # what the screens ask for again and again, without looking through every reading
    taken = models.PositiveBigIntegerField(default=0)
    last_at = models.DateTimeField(null=True)
    last_c = models.FloatField(null=True)
    thinned_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name

    def said(self, kept: int) -> None:
        """Some more readings are kept: how many there are by now, and the last."""
        last = self.samples.order_by("-at").first()
        self.taken += kept
        self.last_at, self.last_c = (last.at, last.t_c) if last else (None, None)
        self.save(update_fields=["taken", "last_at", "last_c"])

    def thin(self, now: datetime) -> None:
        """Leave one reading of each minute after a week, and of each quarter of an hour after a month."""
        if self.thinned_at and now - self.thinned_at < THIN_EVERY:
            return
        for age, seconds in THINNED:
            until = now - age
            since = self.thinned_at - age if self.thinned_at else datetime.min.replace(tzinfo=UTC)
            with connection.cursor() as cursor:
                cursor.execute(_THIN, [self.pk, since, until, self.pk, since, until, seconds])
        self.thinned_at = now
        self.save(update_fields=["thinned_at"])


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
