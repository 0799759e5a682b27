"""Arrange a day file on the command line."""

import json
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from bakehouse.commands import content_of, refuse
from bakehouse.day.files import read_day_file, timetable_file
from lamination.day import timetable
from lamination.terms import Fault, Faults

LONGEST_S = 3_600.0


class Command(BaseCommand):
    help = "Print the timetable of the day in FILE (- for standard input) as JSON; exit 2 on bad input."
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file")
        parser.add_argument(
            "--seconds",
            type=float,
            default=10.0,
            metavar="N",
            help="how long to search (default: 10)",
        )

    def handle(self, *args: Any, file: str, seconds: float, **options: Any) -> None:
        try:
            if not 0 <= seconds <= LONGEST_S:
                raise Faults(Fault("seconds", f"Must be from 0 to {LONGEST_S:g} s."))
            asked = read_day_file(content_of(file))
            found = timetable_file(timetable(asked.day, asked.kitchen, seconds))
        except Faults as wrong:
            refuse(wrong, self.stderr)
        self.stdout.write(json.dumps(found, indent=1, ensure_ascii=False))
