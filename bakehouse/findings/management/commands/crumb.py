"""A cut piece measured by its photograph, on the command line."""

import json
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from bakehouse.commands import content_of, refuse
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
            crumb, _ = measured(content_of(picture), width_mm)
        except Faults as wrong:
            refuse(wrong, self.stderr)
        said = dump(crumb)
        head = {name: said.pop(name) for name in ("format", "version")}
        self.stdout.write(json.dumps(head | said, indent=1, ensure_ascii=False))
