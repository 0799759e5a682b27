"""Work a plan file on the command line."""

import json
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from bakehouse.commands import content_of, refuse
from bakehouse.documents import dump, read_plan_file, said_plainly
from lamination.plan import PLAIN, Plan, WorkedPlan, work
from lamination.plan.worked import Stop
from lamination.terms import Fault, Faults, Range
from lamination.warmth import Today, WorkedWarmth, work_warmth


class Command(BaseCommand):
    help = "Print the worked plan of FILE (- for standard input) as JSON; exit 2 on bad input."
    requires_system_checks: list[str] = []

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file")
        parser.add_argument("--warmth", action="store_true", help="add how warm it gets, judged")
        parser.add_argument("--room", type=float, metavar="C", help="the room, in °C (default: 21)")

    def handle(
        self, *args: Any, file: str, warmth: bool, room: float | None, **options: Any
    ) -> None:
        try:
            plan = read_plan_file(content_of(file))
            found = work(plan)
            answer = dump(found) | _by_name(found)
            if warmth or room is not None:
                answer["warmth"] = _warmth(plan, room)
        except Faults as wrong:
            refuse(wrong, self.stderr)
        self.stdout.write(json.dumps(said_plainly(answer), indent=1, ensure_ascii=False))


def _by_name(found: WorkedPlan) -> dict[str, Any]:
    """The figures by the names that readers of this command know: one place each, turns in a list."""
    turns = [(stop, dump(stop.made)) for stop in found.strip if stop.turn]
    return {
        "lock_in": dump(found.lock_in),
        "steps": [
            {"name": stop.name, "starts_min": stop.starts_min,
             "rest": _rest(stop) if stop.rest else None, **made}
            for stop, made in turns
        ],
        "final": dump(found.final),
        "cut": dump(found.cut) if found.cut else None,
        "slab": dump(found.slab) if found.slab else None,
    }  # fmt: skip


def _rest(stop: Stop) -> dict[str, Any]:
    """Its stays, and at one glance how long it is and where it lies longest."""
    assert stop.rest is not None
    place = stop.rest.stays[stop.gives].place.value
    return {"place": place, "minutes": stop.rest.minutes, **dump(stop.rest)}


def _warmth(plan: Plan, room: float | None) -> dict[str, Any]:
    if room is not None:
        message = Range(-60, 60, "°C").complaint(room)
        if message:
            raise Faults(Fault("room", message))
    found: WorkedWarmth = work_warmth(plan, PLAIN, Today(room_c=room))
    proofs = [w for w in found.windows if w.reached_pct is not None]
    rests = [
        {
            "step": w.stop,
            "minutes": w.chosen_min,
            "verdict": w.verdict,
            "marks": {
                "possible_from": w.possible_from_min,
                "good_from": w.good_from_min,
                "best": w.best_min,
                "good_until": w.good_until_min,
                "possible_until": w.possible_until_min,
            },
            "by": w.by,
            "middle_c": w.middle_c,
            "butter_c": w.butter_c,
            "says": w.says,
        }
        for w in found.windows
    ]
    proof = next((r for r, w in zip(rests, found.windows, strict=True) if w in proofs), None)
    return {
        "works": found.works,
        "summary": found.summary,
        "room_c": found.room_c,
        "rests": [r for r in rests if r is not proof],
        "proof": proof,
        "clocks": [dump(clock) for clock in found.clocks],
        "notes": [dump(note) for note in found.notes],
    }
