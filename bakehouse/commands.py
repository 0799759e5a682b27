"""What the commands that read a file share: its content, and faults as lines with exit 2."""

from __future__ import annotations

import sys
from collections.abc import Mapping
from pathlib import Path
from typing import NoReturn

from django.core.management.base import OutputWrapper

from lamination.terms import Fault, Faults, plain


def content_of(file: str) -> bytes:
    """What a file holds; ``-`` is the standard input. Raises Faults where it cannot be read."""
    if file == "-":
        return sys.stdin.buffer.read()
    try:
        return Path(file).read_bytes()
    except OSError as wrong:
        raise Faults(Fault("", f"{file} cannot be read: {wrong.strerror}.")) from None


def refuse(wrong: Faults, to: OutputWrapper, names: Mapping[str, str] | None = None) -> NoReturn:
    """A line for every field at fault, by its name in the file, and exit 2."""
    for fault in wrong.faults:
        field = (names or {}).get(fault.field, fault.field)
        to.write(f"{field or 'file'}: {plain(fault.message)}")
    sys.exit(2)
