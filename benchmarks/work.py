"""How long a plan takes to work, as ratios within one run.

Run with `make bench`. Prints; asserts nothing.
"""

import importlib
import json
import math
import os
import sys
import time
import timeit
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "bakehouse.settings")

import django

django.setup()

from bakehouse.demo.teasel_lock import BOATS, KITCHEN, PLANS
from bakehouse.documents import adapter
from benchmarks.heat import against_scipy
from benchmarks.lists import against_few
from benchmarks.raster import folded
from benchmarks.screen import on_screen
from lamination.heat import conduction
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

# the modules themselves: their packages show functions of the same names
follow_module, rests_module, bench_module, scene_module, followed_module, walk_module, work_module = (
    importlib.import_module(f"lamination.{name}")
    for name in (
        *(f"warmth.{part}" for part in ("follow", "rests", "bench", "scene", "followed")),
        "plan.walk", "plan.work",
    )
)  # fmt: skip
BASELINE = Path(__file__).with_name("baseline.json")  # the best that was kept
ALLOWED = Path(__file__).with_name("allowed.json")  # what may be behind it, and why
_BEHIND = 1.2
ROUNDS = 20


def milliseconds(call, rounds=ROUNDS) -> float:
    call()
    return min(timeit.repeat(call, number=rounds, repeat=3)) / rounds * 1000


def forget() -> None:
    """As if nothing had been worked before."""
    for remembered in (
        follow_module._follow, conduction._conducted, walk_module._effect, walk_module._setting,
        walk_module._recipe, walk_module._weighed, walk_module._wants, walk_module.walk,
        work_module._work, rests_module.judged, followed_module._stretch,
        bench_module.worked, scene_module.scene_of,
    ):  # fmt: skip
        remembered.cache_clear()


def cold(call: Callable[[], object], before: Callable[[], object] = forget) -> float:
    """The quickest of some calls, ms, each after ``before``."""
    found = []
    for _ in range(5):
        before()
        began = time.perf_counter()
        call()
        found.append(1000 * (time.perf_counter() - began))
    return min(found)


def rows() -> dict[str, float]:
    """How many times as long as writing a result as JSON, by what is done: the worst plan of the demo."""
    found: dict[str, float] = {}
    today = Today(room_c=21)
    for plan in PLANS:
        result, writer = work(plan, KITCHEN), adapter(WorkedPlan)
        json_ms = milliseconds(lambda w=writer, r=result: w.dump_json(r))
        last = plan.last_sheet
        thinner = plan.changed(last, roll_to_mm=last.roll_to_mm - 0.1)
        renamed = replace(plan, name="Another name")

        def known(plan=plan) -> None:
            forget()
            work(plan, KITCHEN)
            follow(plan, KITCHEN, today)

        took = {
            "a plan worked, nothing known": cold(lambda p=plan: work(p, KITCHEN)),
            "worked, the last roll changed": cold(lambda p=thinner: work(p, KITCHEN), known),
            "worked, the name changed": cold(lambda p=renamed: work(p, KITCHEN), known),
            "its warmth, nothing known": cold(lambda p=plan: follow(p, KITCHEN, today)),
            "warmth, the last roll changed": cold(
                lambda p=thinner: follow(p, KITCHEN, today), known
            ),
            "warmth, the name changed": cold(lambda p=renamed: follow(p, KITCHEN, today), known),
            "warmth with every way out tried": cold(
                lambda p=plan: work_warmth(p, KITCHEN, Today(room_c=27))
            ),
        }
        for what, ms in took.items():
            found[what] = max(found.get(what, 0.0), ms / json_ms)
    letter = replace(BOATS.turns[0], id="")
    puff = with_turns(BOATS, (letter,) * 6)
    one_ms = cold(lambda: work(puff, KITCHEN))
    searched = cold(lambda: [suggest(puff, Search(Wish.LEAVES, n)) for n in range(1, 9)])
    found["all folds of up to 8 turns, against one plan worked"] = searched / one_ms
    return found


def main() -> None:
    """The table, beside what is kept of an earlier one; ``--keep`` keeps this one."""
    now = rows()
    before = json.loads(BASELINE.read_text()) if BASELINE.is_file() else {}
    allowed = json.loads(ALLOWED.read_text()) if ALLOWED.is_file() else {}
    print(f"{'':52} {'now':>8} {'best':>8}   times the writing of a result as JSON")
    for what, times in now.items():
        best = before.get(what, math.nan)
        behind = times > _BEHIND * best
        why = allowed.get(what, "and nobody has said why: look at it") if behind else ""
        says = f"   behind by {100 * (times / best - 1):.0f} %: {why}" if behind else ""
        print(f"{what:52} {times:8.1f} {best:8.1f}{says}")
    if "--keep" in sys.argv:
        # what was once reached is what the next is held to
        best = {k: round(min(v, before.get(k, v)), 2) for k, v in now.items()}
        BASELINE.write_text(json.dumps(best, indent=1) + "\n")


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
    against_few()
    on_screen()
