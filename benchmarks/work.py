"""How long a plan takes to work, as ratios within one run.

Run with `make bench`. Prints; asserts nothing.
"""

import itertools
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
from benchmarks.heat import against_scipy
from benchmarks.raster import folded
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.plan.worked import WorkedPlan
from lamination.search.folds import Search, Wish, suggest, with_turns
from lamination.sheet.cells import place, plain_sheet, roll, turn
from lamination.sheet.folds import fold_sheet
from lamination.sheet.stacks import Material, leaf
from lamination.terms.trade import Fold
from lamination.warmth.bodies import Today
from lamination.warmth.follow import follow
from lamination.warmth.warmth import work_warmth

ROUNDS = 20


def bare(request: HttpRequest) -> JsonResponse:
    """The least a JSON view can do."""
    return JsonResponse({"ok": True})


def milliseconds(call, rounds=ROUNDS) -> float:
    call()
    return min(timeit.repeat(call, number=rounds, repeat=3)) / rounds * 1000


def main() -> None:
    letter = replace(BOATS.turns[0], id="")
    puff = with_turns(BOATS, (letter,) * 6)
    single = with_turns(BOATS, (letter,))
    twelve = with_turns(BOATS, (replace(letter, roll_to_mm=4),) * 12)
    count = itertools.count()

    def anew(plan: Plan) -> Plan:
        """The same plan to a baker, and another to what is remembered of plans worked before."""
        return replace(plan, words=str(next(count)))

    request = RequestFactory().get("/bare")
    document, writer, result = dump(puff), adapter(WorkedPlan), work(puff)
    times = {
        "work, six-letter puff": milliseconds(lambda: work(anew(puff))),
        "work, the same with one turn": milliseconds(lambda: work(anew(single))),
        "work, the same with twelve turns": milliseconds(lambda: work(anew(twelve))),
        "search all folds of up to 8 turns": milliseconds(
            lambda: [suggest(anew(puff), Search(Wish.LEAVES, n)) for n in range(1, 9)], rounds=1
        ),
        "follow the puff's warmth": milliseconds(lambda: follow(anew(puff), Kitchen()), rounds=3),
        "warmth with every way out tried": milliseconds(
            lambda: work_warmth(anew(puff), Kitchen(), Today(room_c=27)), rounds=1
        ),
        "read the plan from JSON": milliseconds(lambda: adapter(Plan).validate_python(document)),
        "write the result as JSON": milliseconds(lambda: writer.dump_json(result)),
        "a bare JSON view": milliseconds(lambda: bare(request)),
    }
    whole = times["work, six-letter puff"]
    for what, ms in times.items():
        print(f"{what:34} {ms:8.3f} ms   six-letter puff takes {whole / ms:7.1f} × this")


def against_raster() -> None:
    """The cell model and a plain raster fold the same sheet: time, and share of full places."""
    print()
    for folds in (["letter"] * 3, ["book", "letter", "offset_book"], ["letter"] * 6):
        sequence = [Fold(f) for f in folds]

        def cells(sequence=sequence):
            sheet = place(plain_sheet(100, 100, leaf(Material.DOUGH, 1)),
                          leaf(Material.BUTTER, 1), 4, 4, 92, 92)  # fmt: skip
            sheet = place(sheet, leaf(Material.DOUGH, 1), 0, 0, 100, 100)
            for fold in sequence:
                sheet = turn(roll(fold_sheet(sheet, fold), fold.multiplies))
            return sheet

        sheet, (butter, _) = cells(), folded(sequence, 0.04)
        full = sheet.fullest().butter_leaves
        exact, drawn = sheet.coverage()[full], float((butter == full).mean())
        ours, theirs = milliseconds(cells), milliseconds(lambda s=sequence: folded(s, 0.04))
        print(
            f"{', '.join(folds):44} raster takes {theirs / ours:5.1f} × the cells; "
            f"all {full} layers on {100 * exact:.2f} % (raster {100 * drawn:.2f} %)"
        )


if __name__ == "__main__":
    main()
    against_raster()
    against_scipy()
