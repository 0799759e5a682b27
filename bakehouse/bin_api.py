"""The bin: what was deleted lately, by whom, and the way back."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

from django.apps import apps
from django.core.exceptions import ValidationError
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Body, Router, Status

from bakehouse.models import KEPT_IN_THE_BIN, Binned
from bakehouse.people.roles import head_only

router = Router(tags=["bin"])


@dataclass
class Thrown:
    """Something in the bin, and until when it lies there."""

    what: str
    key: str
    name: str
    deleted_at: datetime
    until: datetime
    by: str | None


@dataclass
class Restore:
    """What is to come back."""

    what: str
    key: str


def _kinds() -> Iterator[type[Binned]]:
    return (m for m in apps.get_models() if issubclass(m, Binned))


@router.get("/bin", auth=head_only, response=list[Thrown])
def in_the_bin(request: HttpRequest) -> list[Thrown]:
    """The latest first."""
    lately = timezone.now() - KEPT_IN_THE_BIN
    found = [
        Thrown(kind.what, str(one.pk), str(one), at, at + KEPT_IN_THE_BIN,
               one.deleted_by.get_username() if one.deleted_by else None)
        for kind in _kinds()
        for one in kind._default_manager.filter(deleted_at__gt=lately).select_related("deleted_by")
        if (at := one.deleted_at) is not None
    ]  # fmt: skip
    return sorted(found, key=lambda t: t.deleted_at, reverse=True)


@router.post("/bin/restore", auth=head_only, response={204: None})
def bring_back(request: HttpRequest, back: Body[Restore]) -> Status[None]:
    kind = next((k for k in _kinds() if k.what == back.what), None)
    try:
        found = (
            kind._default_manager.exclude(deleted_at=None).filter(pk=back.key).first()
            if kind
            else None
        )
    except (ValueError, ValidationError):
        found = None
    if found is None:
        raise Http404("That is not in the bin.")
    found.back()
    return Status(204, None)
