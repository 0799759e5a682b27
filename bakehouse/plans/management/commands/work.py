"""Work a plan file on the command line."""

import json
import sys
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand

from bakehouse.documents import dump, read_plan_file
from lamination.plan.work import work
from lamination.terms.limits import Fault, Faults


class Command(BaseCommand):
    help = "Print the worked plan of FILE (- for standard input) as JSON; exit 2 on bad input."
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file")

    def handle(self, *args: Any, file: str, **options: Any) -> None:
        try:
            worked = work(read_plan_file(_content(file)))
        except Faults as wrong:
            for fault in wrong.faults:
                self.stderr.write(f"{fault.field or 'file'}: {fault.message}")
            sys.exit(2)
        self.stdout.write(json.dumps(dump(worked), indent=1, ensure_ascii=False))


def _content(file: str) -> bytes:
    if file == "-":
        return sys.stdin.buffer.read()
    try:
        return Path(file).read_bytes()
    except OSError as wrong:
        raise Faults(Fault("", f"{file} cannot be read: {wrong.strerror}.")) from None
