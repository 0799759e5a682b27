"""When a frozen block is to be moved, on the command line."""

import json
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from bakehouse.commands import content_of, refuse
from bakehouse.documents import dump, json_of, read, said_plainly
from lamination.kitchen import Kitchen
from lamination.plan import migrated
from lamination.store import THAW_FORMAT, Thaw, thaw
from lamination.terms import Fault, Faults


class Command(BaseCommand):
    help = "Say when the block in FILE (- for standard input) is to be moved; exit 2 on bad input."
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file")

    def handle(self, *args: Any, file: str, **options: Any) -> None:
        try:
            answer = dump(thaw(_asked(content_of(file)), Kitchen()))
        except Faults as wrong:
            refuse(wrong, self.stderr, {"lies_in": "from"})
        head = {name: answer.pop(name) for name in ("format", "version")}
        self.stdout.write(json.dumps(said_plainly({**head, **answer}), indent=1))


def _asked(content: bytes) -> Thaw:
    data = json_of(content, "question of when to thaw")
    if data.get("format") != THAW_FORMAT:
        raise Faults(Fault("format", f'Such a file says "format": "{THAW_FORMAT}".'))
    if data.get("version") != 1:
        raise Faults(Fault("version", "This Eight Turn reads version 1."))
    if "from" not in data:
        raise Faults(Fault("from", "This is missing."))
    data["lies_in"] = data.pop("from")
    if isinstance(data.get("plan"), dict):
        data["plan"] = migrated(data["plan"])
    return read(Thaw, data)
