"""How each person likes to read the screens."""

from django.conf import settings
from django.db import models


class Preferences(models.Model):
    """Chosen once, kept per person."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, models.CASCADE, primary_key=True)
    units = models.CharField(max_length=10, default="metric")
    folds = models.CharField(max_length=10, default="letter")
    counts = models.CharField(max_length=10, default="butter")

    class Meta:
        verbose_name_plural = "preferences"

    def __str__(self) -> str:
        return f"{self.user}: {self.units}, {self.folds}, {self.counts}"
