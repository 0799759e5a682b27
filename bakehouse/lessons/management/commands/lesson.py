"""A lesson played on the command line: what a play comes to, and what each decision of it cost."""

import json
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from bakehouse.commands import content_of, refuse
from bakehouse.documents import dump, said_plainly
from bakehouse.lessons.files import decisions_from, lesson_from, schemas
from lamination.lessons import (
    OUTCOME_FORMAT,
    Decisions,
    best_play,
    checked,
    costs_of,
    goal_lines,
    outcome_of,
    played,
)
from lamination.terms import Fault, Faults


class Command(BaseCommand):
    help = "Play the lesson in FILE by the decisions in --play, and print what came out; exit 2 on bad input."
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", nargs="?", help="a lesson; - for standard input")
        parser.add_argument(
            "--play", metavar="DECISIONS", help="a file of decisions; without: the plan"
        )
        parser.add_argument("--schema", action="store_true", help="print the schemas of both files")

    def handle(self, *args: Any, file: str | None, **options: Any) -> None:
        if options["schema"]:
            self.stdout.write(json.dumps(schemas(), indent=1, ensure_ascii=False))
            return
        try:
            answer = _answer(file, options["play"])
        except Faults as wrong:
            refuse(wrong, self.stderr)
        self.stdout.write(json.dumps(said_plainly(answer), indent=1, ensure_ascii=False))


def _answer(file: str | None, play: str | None) -> dict[str, Any]:
    if file is None:
        raise Faults(Fault("", "Name the file of a lesson, or ask for --schema."))
    lesson = lesson_from(content_of(file))
    decided = checked(lesson, decisions_from(content_of(play)) if play else Decisions())
    came = outcome_of(played(lesson, decided))
    best = best_play(lesson, decided)
    costs = costs_of(lesson, decided, best)
    said: dict[str, Any] = dump(came)
    head: dict[str, Any] = {"format": OUTCOME_FORMAT, "version": 1}
    more = {
        "costs": [dump(cost) for cost in costs],
        "goal": [dump(line) for line in goal_lines(lesson.goal, came)],
        "best": {"decisions": dump(Decisions(best.decisions)), "outcome": dump(best.outcome)},
    }
    return head | said | more
