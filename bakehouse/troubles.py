"""What can be the matter with the house's disk and database, in sentences."""

from __future__ import annotations

import os
import shutil
import time
from dataclasses import dataclass
from pathlib import Path

from django.conf import settings
from django.db import DatabaseError, IntegrityError, connection

LEAST_ROOM = 20_000_000  # bytes; below this a picture or a copy may not fit any more
_REMEMBERED_S = 30.0

BUSY = (
    "The bakehouse is busy writing and did not get to this. A tablet keeps what was entered at the bench and "
    "sends it again."
)
FULL = (
    "The disk of the bakehouse is full. Make room on it; a tablet keeps what was entered at the bench and "
    "sends it then."
)
READ_ONLY = (
    "The disk of the bakehouse cannot be written to. What is there can be read; a tablet keeps what was "
    "entered at the bench."
)
DAMAGED = (
    "The bakehouse cannot read its database: it is damaged, or its disk is. Put the latest copy back with "
    "manage.py restore; a tablet keeps what was entered at the bench."
)
EMPTY = "There is no house in this database yet. Start it with make serve, which sets it up."
_SIGNS = (
    (("no such table",), EMPTY),
    (("locked", "busy"), BUSY),
    (("full", "quota"), FULL),
    (("readonly", "read-only"), READ_ONLY),
    (
        ("malformed", "not a database", "disk i/o", "unable to open", "corrupt"),
        DAMAGED,
    ),
)


@dataclass
class _Lately:
    sentence: str = ""
    at: float = -_REMEMBERED_S


_lately = _Lately()


def sentence_for(wrong: BaseException | None) -> str | None:
    """What is the matter, where it is the disk or the database; None where it is something else."""
    if not isinstance(wrong, DatabaseError | OSError) or isinstance(wrong, IntegrityError):
        return None
    said = str(wrong).lower()
    found = next((sentence for signs, sentence in _SIGNS if any(s in said for s in signs)), None)
    if found == DAMAGED and _cannot_write():
        found = READ_ONLY
    if found:
        _lately.sentence, _lately.at = found, time.monotonic()
    return found


def standing() -> str | None:
    """What is the matter with the house as it is; None where nothing is."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT count(*) FROM django_migrations")
    except DatabaseError as wrong:
        return sentence_for(wrong) or DAMAGED
    if _cannot_write():
        return READ_ONLY
    if shutil.disk_usage(settings.DATA_DIR).free < LEAST_ROOM:
        return FULL
    return _lately.sentence if time.monotonic() - _lately.at < _REMEMBERED_S else None


def _cannot_write() -> bool:
    folder = Path(settings.DATA_DIR)
    try:
        return bool(os.statvfs(folder).f_flag & os.ST_RDONLY) or not os.access(folder, os.W_OK)
    except OSError:
        return False
