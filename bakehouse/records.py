"""What every room says of a document's earlier versions."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from bakehouse.models import Revisioned


@dataclass
class VersionLine:
    """An earlier version: which, when, by whom."""

    revision: int
    saved_at: datetime
    saved_by: str | None


def version_lines(record: Revisioned) -> list[VersionLine]:
    """The versions before this one that are kept, the latest first."""
    return [
        VersionLine(v.revision, v.saved_at, v.saved_by.get_username() if v.saved_by else None)
        for v in record.versions().filter(revision__lt=record.revision).select_related("saved_by")
    ]
