"""How each person likes to read the screens, and whether the house is a demo."""

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


class House(models.Model):
    """What is true of the whole house, in one row. ``demo``: it has accounts that everybody knows."""

    demo = models.BooleanField(default=False)

    def __str__(self) -> str:
        return "a demo house" if self.demo else "a house"

    @classmethod
    def is_demo(cls) -> bool:
        """Whether this house was filled by the demo."""
        return cls.objects.filter(demo=True).exists()
