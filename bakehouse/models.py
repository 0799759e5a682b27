"""Documents that people save: one shape for plans, orders and the kitchen, with what they were before."""

from __future__ import annotations

from datetime import timedelta
from typing import Any, ClassVar, Self

from django.conf import settings
from django.contrib.auth.models import User
from django.db import models, transaction
from django.http import Http404
from django.utils import timezone

KEPT_IN_THE_BIN = timedelta(days=30)
KEPT_VERSIONS = 30  # of every document, so many earlier ones


class Overtaken(Exception):
    """Somebody else saved meanwhile: the sentence that says so."""


class Version(models.Model):
    """A document as it was saved once: which, when, by whom."""

    of = models.CharField(max_length=40)
    key = models.PositiveBigIntegerField()
    revision = models.PositiveIntegerField()
    document = models.JSONField()
    saved_at = models.DateTimeField(default=timezone.now)
    saved_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    class Meta:
        ordering = ["-revision"]
        constraints = [
            models.UniqueConstraint(
                fields=["of", "key", "revision"], name="a_revision_is_saved_once"
            )
        ]

    def __str__(self) -> str:
        return f"{self.of} {self.key}, revision {self.revision}"


class Binned(models.Model):
    """What is deleted lies in the bin for a while, with who put it there, and can come back."""

    what: ClassVar[str] = "thing"

    deleted_at = models.DateTimeField(null=True, blank=True)
    deleted_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, models.SET_NULL, null=True, blank=True, related_name="+"
    )

    class Meta:
        abstract = True

    def gone(self, by: User | None) -> None:
        """Deleted: put out of sight, and kept."""
        found = type(self)._default_manager
        found.filter(pk=self.pk).update(deleted_at=timezone.now(), deleted_by=by)
        # what lay there long enough goes for good
        found.filter(deleted_at__lt=timezone.now() - KEPT_IN_THE_BIN).delete()

    def back(self) -> None:
        """Brought back."""
        type(self)._default_manager.filter(pk=self.pk).update(deleted_at=None, deleted_by=None)


class Revisioned(Binned):
    """A saved document. ``revision`` grows with each save; what is deleted can come back.

    Saving what is there already is no save: a retry whose answer was lost does no harm.
    """

    what: ClassVar[str] = "document"

    document = models.JSONField()
    revision = models.PositiveIntegerField(default=1)
    created_at = models.DateTimeField(auto_now_add=True)
    updated_at = models.DateTimeField(default=timezone.now)
    updated_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.SET_NULL, null=True)

    class Meta:
        abstract = True

    def __str__(self) -> str:
        return str(self.document.get("name", self.pk))

    @classmethod
    def there(cls, key: int, deleted: bool = False) -> Self:
        """The record of a document that is there. Raises Http404 with a sentence."""
        record: Self | None = cls._default_manager.filter(
            pk=key, deleted_at__isnull=not deleted
        ).first()
        if record is None:
            raise Http404(f"There is no such {cls.what}. It may have been deleted.")
        return record

    @classmethod
    def begun(cls, document: Any, user: User | None, **more: Any) -> Self:
        """A document kept for the first time."""
        with transaction.atomic():
            record: Self = cls._default_manager.create(document=document, updated_by=user, **more)
            record._remember()
        return record

    def saved_over(self, revision: int, document: Any, user: User | None, **more: Any) -> Self:
        """The record with another document, made from ``revision``.

        Raises Overtaken when somebody else saved meanwhile.
        """
        with transaction.atomic():
            record: Self = type(self)._default_manager.select_for_update().get(pk=self.pk)
            if record.document == document:
                return record
            if record.revision != revision:
                raise Overtaken(record.overtaken())
            return record.put(document, user, **more)

    def put(self, document: Any, user: User | None, **more: Any) -> Self:
        """Write another document, as the next revision."""
        self.document = document
        self.revision += 1
        self.updated_by = user
        self.updated_at = timezone.now()
        for name, value in more.items():
            setattr(self, name, value)
        self.save()
        self._remember()
        return self

    def overtaken(self) -> str:
        """The sentence for one whose copy is no longer the latest."""
        by = self.updated_by.get_username() if self.updated_by else "Somebody"
        return (
            f"{by} saved this {self.what} on another screen meanwhile. Reload to see it; yours is kept "
            "here until then."
        )

    def versions(self) -> models.QuerySet[Version]:
        """What was saved of it, the latest first."""
        return Version.objects.filter(of=self._meta.label_lower, key=self.pk)

    def version(self, revision: int) -> Any:
        """The document as it was at a revision; None where that is no longer kept."""
        found = self.versions().filter(revision=revision).first()
        return found.document if found else None

    def _remember(self) -> None:
        Version.objects.update_or_create(
            of=self._meta.label_lower,
            key=self.pk,
            revision=self.revision,
            defaults={"document": self.document, "saved_by": self.updated_by},
        )
        self.versions().filter(revision__lte=self.revision - KEPT_VERSIONS).delete()
