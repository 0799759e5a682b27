"""Why a bake may have come out so, on the command line."""

import json
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from bakehouse.commands import content_of, refuse
from bakehouse.documents import dump, json_of, read, said_plainly
from lamination.findings import RECORD_FORMAT, Record, why
from lamination.kitchen import renamed
from lamination.plan import migrated
from lamination.terms import Fault, Faults


class Command(BaseCommand):
    help = "Rank the causes of the bake in FILE (- for standard input); exit 2 on bad input."
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file")

    def handle(self, *args: Any, file: str, **options: Any) -> None:
        try:
            found = why(_asked(content_of(file)))
        except Faults as wrong:
            refuse(wrong, self.stderr)
        causes = [
            {
                "code": one.cause.value,
                "p": round(one.p, 4),
                "for": [e.says for e in one.supports] + [f.said for f in one.goes_with],
                "against": [e.says for e in one.opposes],
            }
            for one in found.causes
        ]
        change = dump(found.next_time) if found.next_time else None
        answer = {
            "format": "eight-turn/causes", "version": 1, "causes": causes, "change": change,
        }  # fmt: skip
        self.stdout.write(json.dumps(said_plainly(answer), indent=1, ensure_ascii=False))


def _asked(content: bytes) -> Record:
    data = json_of(content, "record")
    if data.get("format") != RECORD_FORMAT:
        raise Faults(Fault("format", f'A record says "format": "{RECORD_FORMAT}".'))
    if data.get("version") != 1:
        raise Faults(Fault("version", "This Eight Turn reads version 1."))
    if isinstance(data.get("plan"), dict):
        data["plan"] = migrated(data["plan"])
    if isinstance(data.get("kitchen"), dict):
        data["kitchen"] = renamed(data["kitchen"])
    return read(Record, data)
