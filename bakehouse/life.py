"""The life of this house: a number that a tablet knows it by, and that is another once a copy was put back.

What a tablet sent after the copy was made is in no house any more; from the number it learns that, and
offers to send it again. It lies beside the database and not in it, so that a copy does not bring it along.
"""

from __future__ import annotations

import json
import os
import uuid
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from pathlib import Path

from django.conf import settings


@dataclass(frozen=True)
class Life:
    """``id``: which life it is. ``copied_at``: when the copy was made from which it began, if it did."""

    id: str
    copied_at: datetime | None


def _file() -> Path:
    return Path(settings.DATA_DIR) / "life.json"


def begin(copied_at: datetime | None = None) -> Life:
    """A new life, from a copy or from nothing."""
    life = Life(uuid.uuid4().hex[:12], copied_at)
    half = _file().with_suffix(".half")
    document = {"id": life.id, "copied_at": copied_at and copied_at.isoformat()}
    with open(os.open(half, os.O_CREAT | os.O_WRONLY | os.O_TRUNC, 0o600), "w") as new:
        new.write(json.dumps(document))
    half.replace(_file())
    return life


def this_life() -> Life:
    """The life this house is in; its first, where none was begun. Without a disk to write to it has none."""
    try:
        return _read(_file().stat().st_mtime_ns)
    except (FileNotFoundError, ValueError, KeyError):
        try:
            return begin()
        except OSError:
            return Life("", None)


@lru_cache(maxsize=1)
def _read(_changed: int) -> Life:
    found = json.loads(_file().read_text())
    at = found["copied_at"]
    return Life(str(found["id"]), datetime.fromisoformat(at) if at else None)
