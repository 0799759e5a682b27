"""A cut piece measured by its photograph, on the command line."""

import json
import sys
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand

from bakehouse.documents import dump
from bakehouse.findings.crumb import measured
from lamination.terms import Faults


class Command(BaseCommand):
    help = "Measure the crumb of the cut piece in PICTURE; exit 2 for what is no picture."
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("picture")
        parser.add_argument(
            "--width-mm", type=float, required=True, metavar="W", help="how wide the piece is"
        )

    def handle(self, *args: Any, picture: str, width_mm: float, **options: Any) -> None:
        try:
            content = Path(picture).read_bytes()
        except OSError as wrong:
            self.stderr.write(f"file: {picture} cannot be read: {wrong.strerror}.")
            sys.exit(2)
        try:
            crumb, _ = measured(content, width_mm)
        except Faults as wrong:
            for fault in wrong.faults:
                self.stderr.write(f"{fault.field or 'file'}: {fault.message}")
            sys.exit(2)
        said = dump(crumb)
        head = {name: said.pop(name) for name in ("format", "version")}
        self.stdout.write(json.dumps(head | said, indent=1, ensure_ascii=False))
