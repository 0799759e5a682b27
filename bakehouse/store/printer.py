"""The label printer of the house: given a page of a label's own size for each tag, as PDF.

``EIGHT_TURN_LABELS`` says which: ``folder:/path`` (each job a file, for a spooler that looks there) or
``socket:host:port`` (the bytes of the PDF, as network printers take them). The demo has a simulated one.
"""

from __future__ import annotations

import socket
from dataclasses import dataclass
from pathlib import Path
from typing import Protocol

from django.conf import settings
from django.utils import timezone

from bakehouse.store.models import PrintedTag, SimulatedPrinter
from lamination.terms import Fault, Faults

ROLL = 40  # tags on a new roll of the simulated one
_WAIT_S = 6.0


@dataclass(frozen=True)
class Job:
    """Tags to be printed: their pages, and of each its mark and how it looks at true size."""

    pdf: bytes
    tags: tuple[tuple[str, str], ...]  # mark, SVG


class Printer(Protocol):
    """Whatever prints tags."""

    name: str

    def send(self, job: Job) -> None:
        """Print. Raises Faults with a sentence where it cannot."""


class Folder:
    """A folder that a spooler looks into: each job is one file there."""

    def __init__(self, path: str) -> None:
        self.name, self._path = "the spool folder", Path(path)

    def send(self, job: Job) -> None:
        at = f"{timezone.now():%Y%m%d-%H%M%S-%f}"
        try:
            written = self._path / f".{at}"
            written.write_bytes(job.pdf)
            written.rename(self._path / f"tags-{at}.pdf")  # a spooler never sees half of one
        except OSError as wrong:
            text = f"The label printer's folder cannot be written to: {wrong.strerror}."
            raise Faults(Fault("", text)) from None


class Socket:
    """A printer in the network that takes a PDF as it is."""

    def __init__(self, host: str, port: int) -> None:
        self.name, self._at = f"the printer at {host}", (host, port)

    def send(self, job: Job) -> None:
        try:
            with socket.create_connection(self._at, timeout=_WAIT_S) as wire:
                wire.sendall(job.pdf)
        except OSError:
            text = (
                "The label printer does not answer. Look whether it is switched on, or print on A4."
            )
            raise Faults(Fault("", text)) from None


class Simulated:
    """The demo's: shows what came out, runs out of paper, and jams now and then."""

    name = "the simulated label printer"

    def send(self, job: Job) -> None:
        state = SimulatedPrinter.there()
        if state.jammed:
            raise Faults(Fault("", "The label printer is jammed. Open it, and take the tag out."))
        for mark, svg in job.tags:
            if state.left == 0:
                raise Faults(Fault("", "The label printer has no paper. Put in a new roll."))
            state.left -= 1
            state.printed += 1
            state.jammed = state.printed % state.jams_every == 0
            state.save()
            PrintedTag.objects.create(mark=mark, svg=svg)
            if state.jammed:
                raise Faults(
                    Fault("", "The label printer is jammed. Open it, and take the tag out.")
                )


def the_printer() -> Printer | None:
    """The house's label printer, if it has one."""
    kind, _, rest = settings.LABELS.partition(":")
    if kind == "folder" and rest:
        return Folder(rest)
    if kind == "socket":
        host, _, port = rest.rpartition(":")
        if host and port.isdecimal():
            return Socket(host, int(port))
    return Simulated() if settings.DEMO else None
