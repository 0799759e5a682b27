"""What a request may be at most: looked at before anything is made of it."""

from __future__ import annotations

from typing import Any

from lamination.terms import Fault, Faults, join_path

LONGEST_LIST = 2_000
MOST_FAULTS = 40


def surely_bounded(body: bytes) -> bool:
    """Whether a body says by its bytes that it is :func:`bounded`: no list is longer than its commas, and
    a sign that is none is written by an escape, or in bytes that are not plain.
    """
    plain = body.isascii() and b"\0" not in body and b"\\u" not in body
    return plain and body.count(b",") < LONGEST_LIST


def bounded(data: Any, path: str = "") -> None:
    """Raise :class:`Faults` for a list of thousands, and for text that is none."""
    if isinstance(data, str):
        # half of a pair: no file and no database takes it
        if not data.isascii() and any("\ud800" <= c <= "\udfff" for c in data):
            raise Faults(Fault(path, "This text has a sign that is none. Type it again."))
    elif isinstance(data, dict):
        for key, value in data.items():
            bounded(key, path)
            if isinstance(value, str | dict | list):
                bounded(value, join_path(path, key))
    elif isinstance(data, list):
        if len(data) > LONGEST_LIST:
            raise Faults(Fault(path, f"{len(data)} of these are too many: at most {LONGEST_LIST}."))
        for i, value in enumerate(data):
            if isinstance(value, str | dict | list):
                bounded(value, f"{path}[{i}]")
