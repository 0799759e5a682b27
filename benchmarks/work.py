"""How long a plan takes to work, as ratios within one run.

Run with `make bench`. Prints; asserts nothing.
"""

import os
import sys
import timeit
from dataclasses import replace
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "bakehouse.settings")

import django

django.setup()

from django.http import HttpRequest, JsonResponse
from django.test import RequestFactory

from bakehouse.demo.teasel_lock import BOATS
from bakehouse.documents import adapter, dump
from lamination.plan import Plan
from lamination.work import work
from lamination.worked import WorkedPlan

ROUNDS = 60


def bare(request: HttpRequest) -> JsonResponse:
    """The least a JSON view can do."""
    return JsonResponse({"ok": True})


def milliseconds(call) -> float:
    call()
    return min(timeit.repeat(call, number=ROUNDS, repeat=5)) / ROUNDS * 1000


def main() -> None:
    letter = BOATS.turns[0]
    puff = replace(BOATS, turns=(letter,) * 6)
    single = replace(BOATS, turns=(letter,))
    twelve = replace(BOATS, turns=(replace(letter, roll_to_mm=4),) * 12)
    request = RequestFactory().get("/bare")
    document, writer, result = dump(puff), adapter(WorkedPlan), work(puff)
    times = {
        "work, six-letter puff": milliseconds(lambda: work(puff)),
        "work, the same with one turn": milliseconds(lambda: work(single)),
        "work, the same with twelve turns": milliseconds(lambda: work(twelve)),
        "read the plan from JSON": milliseconds(lambda: adapter(Plan).validate_python(document)),
        "write the result as JSON": milliseconds(lambda: writer.dump_json(result)),
        "a bare JSON view": milliseconds(lambda: bare(request)),
    }
    whole = times["work, six-letter puff"]
    for what, ms in times.items():
        print(f"{what:34} {ms:8.3f} ms   six-letter puff takes {whole / ms:7.1f} × this")


if __name__ == "__main__":
    main()
