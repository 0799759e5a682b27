"""The core's compiled loops: compiled once, beside the house and not in it, and then at hand.

Compiling takes one or two minutes. A house that has just been built does not wait for that: it serves its
pages meanwhile, and says of a timetable that it is getting ready.
"""

from __future__ import annotations

import os
import subprocess
import sys
import threading
from pathlib import Path

_LOW = 19
_AT_HAND = threading.Event()
_COMPILING = threading.Event()
SOON = (
    "Timetables are getting ready: the first start takes some two minutes. Try again in a moment."
)


def compile_all() -> None:
    """Compile and keep all loops, in this process."""
    from lamination import day, heat
    from lamination.terms import compiled

    heat.ready()
    day.ready()
    compiled.keep_all()


def have_ready() -> None:
    """Compile what was not compiled yet, in a process that everything else goes before; have all at hand."""
    from lamination.terms import compiled

    if not compiled.all_kept():
        _COMPILING.set()
        subprocess.run(
            [sys.executable, "-m", "bakehouse.loops"],
            cwd=Path(__file__).resolve().parent.parent,
            check=False,
        )
    compile_all()
    _AT_HAND.set()


def wait_for_none() -> None:
    """Raise a 503 while the loops that arrange a day are being compiled: nobody waits minutes for it."""
    # what compiles them in a process of its own knows no settings
    from ninja.errors import HttpError

    if _COMPILING.is_set() and not _AT_HAND.is_set():
        raise HttpError(503, SOON)


if __name__ == "__main__":
    os.nice(_LOW)
    compile_all()
