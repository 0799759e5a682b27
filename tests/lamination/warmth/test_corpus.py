"""Ordinary practice of the trade, row by row, as plans of several masses, tools and rooms.

What a fair adviser says to each is held here for ever; a row is overruled only by a reason in docs/.
"""

from dataclasses import replace
from itertools import product

import pytest

from lamination.dough.formula import OldDough, PrefermentKind
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.starts import starting_plan
from lamination.steps.mix import Mixing
from lamination.steps.preferment import Preferment
from lamination.terms.rests import Rest, Stay
from lamination.terms.said import plain
from lamination.terms.trade import Family, Place, Tool
from lamination.warmth.bodies import Today
from lamination.warmth.follow import follow
from lamination.warmth.judge import Call, Feel, judge_lock_in
from lamination.warmth.warmth import work_warmth
from lamination.warmth.windows import Cause
from tests.plans import LEAN, changed, formula, poolish, turns

HAND = Kitchen()
SHEETER = Kitchen({"sheeter.belt_width_mm": 600})
TOOLS = {Tool.HAND: HAND, Tool.SHEETER: SHEETER}
MASSES = (900, 2400, 6000)
GOOD, FAIR = {"good"}, {"good", "tight"}


def begun(family: Family, grams: float, tool: Tool = Tool.HAND, **changes) -> Plan:
    return changed(starting_plan("Daily", family, grams, TOOLS[tool], True, tool), **changes)


def window(plan: Plan, stop: str, room: float = 21.0, tool: Tool = Tool.HAND):
    found = follow(plan, TOOLS[tool], Today(room_c=room))
    return next(w for w in found.windows if w.stop == stop)


def proofed(family: Family, grams: float, rest: Rest, yeast: float | None = None) -> Plan:
    plan = begun(family, grams)
    if yeast is not None:
        lines = {line.ingredient: line.pct for line in plan.formula.lines}
        plan = replace(plan, formula=formula({**lines, "yeast-fresh": yeast}))
    return plan.changed(next(s for s in plan.steps if s.do == "shape"), rest=rest)


def at(celsius: float) -> Kitchen:
    return Kitchen({"proofer.c": celsius})


def proof(plan: Plan, kitchen: Kitchen, room: float = 21.0):
    found = follow(plan, kitchen, Today(room_c=room))
    return next(w for w in found.windows if w.stop == "shape")


# --- overnight

NIGHTS = [
    {"yeast": y, "hours": h, "room_min": r, "grams": g}
    for (y, h), (r, g) in product(
        [(1.5, 8), (1.5, 16), (3.2, 12), (5, 8), (5, 16)], [(0, 3000), (60, 1200), (30, 700)]
    )
]


@pytest.mark.parametrize("night", NIGHTS, ids=str)
@pytest.mark.parametrize("fridge", [2, 5])
def test_a_night_in_the_fridge(night, fridge):
    first = Rest.at(Place.BENCH, night["room_min"]) if night["room_min"] else None
    plan = begun(
        Family.CROISSANT, night["grams"], formula=formula({**LEAN, "yeast-fresh": night["yeast"]}),
        mix=Mixing(flour_c=20, rest=first), preferments=None,
    )  # fmt: skip
    dough = next(s for s in plan.steps if s.do == "flatten")
    plan = plan.changed(dough, rest=Rest.at(Place.FRIDGE, 60 * night["hours"]))
    found = follow(plan, HAND, Today(room_c=21, fridge_c=fridge))
    assert {w.verdict for w in found.windows if w.stop in ("mix", dough.id)} == GOOD


@pytest.mark.parametrize(("hours", "verdicts"), [(22, FAIR), (38, {"long"}), (60, {"long"})])
@pytest.mark.parametrize("yeast", [3, 4])
def test_a_day_is_tight_at_most_and_two_nights_are_minded(hours, verdicts, yeast):
    plan = begun(
        Family.CROISSANT, 2400, formula=formula({**LEAN, "yeast-fresh": yeast}),
        mix=Mixing(flour_c=20), preferments=None,
    )  # fmt: skip
    dough = next(s for s in plan.steps if s.do == "flatten")
    plan = plan.changed(dough, rest=Rest.at(Place.FRIDGE, 60 * hours))
    assert window(plan, dough.id).verdict in verdicts


def test_a_night_as_a_lump_in_its_tub():
    night = Mixing(flour_c=20, rest=Rest.at(Place.FRIDGE, 720))
    for grams in (800, 2000, 3000):
        plan = begun(Family.CROISSANT, grams, formula=formula(), mix=night, preferments=None)
        dough = next(s for s in plan.steps if s.do == "flatten")
        plan = plan.changed(dough, rest=Rest.at(Place.FRIDGE, 60))
        assert window(plan, "mix").verdict == "good"
        assert window(plan, dough.id).verdict == "good"


@pytest.mark.parametrize("way", ["poolish", "sponge", "old dough", "trimmings"])
def test_a_night_with_something_fermented_in_it(way):
    night = Rest.at(Place.FRIDGE, 720)
    of, before = formula(), ()
    if way == "poolish":
        before = (poolish(),)
    elif way == "sponge":
        before = (Preferment(PrefermentKind.SPONGE, 30, 60, 50, rest=Rest.at(Place.FRIDGE, 720)),)
    else:
        of = formula(old_dough=OldDough(10, way == "trimmings"))
    plan = begun(Family.CROISSANT, 2400, formula=of, mix=Mixing(flour_c=20), preferments=before)
    dough = next(s for s in plan.steps if s.do == "flatten")
    assert window(plan.changed(dough, rest=night), dough.id).verdict == "good"


def test_bench_then_freezer_then_fridge_overnight():
    for room_min, frozen, grams in product((20, 60), (60, 120), (1500, 3000)):
        mix = Mixing(flour_c=20, rest=Rest.at(Place.BENCH, room_min))
        plan = begun(Family.CROISSANT, grams, formula=formula(), mix=mix, preferments=None)
        dough = next(s for s in plan.steps if s.do == "flatten")
        rest = Rest((Stay(Place.FREEZER, frozen), Stay(Place.FRIDGE, 600 - frozen)))
        assert window(plan.changed(dough, rest=rest), dough.id).verdict == "good"


# --- lock-in


@pytest.mark.parametrize("butter_c", [12, 13.5, 15])
@pytest.mark.parametrize("dough_c", [1, 3.5, 6])
def test_pliable_butter_and_cold_dough_go_and_the_other_school_has_both_figures(butter_c, dough_c):
    judged = judge_lock_in(begun(Family.CROISSANT, 2400), Feel(dough_c, butter_c), HAND)
    assert judged.call is Call.GO
    note = plain(judged.footnote)
    assert f"{dough_c:g}\u202f°C" in note.replace(" ", "\u202f") or f"{dough_c:g} °C" in note
    assert "Chill" not in plain(judged.says)


# --- turns


@pytest.mark.parametrize("minutes", [20, 30, 40])
@pytest.mark.parametrize("thick", [6, 9, 12])
def test_by_sheeter_after_a_letter(minutes, thick):
    for grams in MASSES:
        plan = begun(Family.CROISSANT, grams, Tool.SHEETER)
        rest = Rest.at(Place.FRIDGE, minutes)
        steps = [replace(t, roll_to_mm=float(thick), rest=rest) for t in plan.turns]
        plan = changed(plan, turns=tuple(steps))
        verdict = window(plan, "turn-1", 21, Tool.SHEETER).verdict
        # strong flour wants 23 min: within the mark's own tolerance it is tight, never short
        assert verdict in (GOOD if minutes > 20 else FAIR)


@pytest.mark.parametrize("minutes", [30, 45, 60])
def test_after_a_book_or_two_turns_back_to_back(minutes):
    rest = Rest.at(Place.FRIDGE, minutes)
    for fold, tool in product(("book", "two letters"), Tool):
        one, two = turns("letter", "letter", rest=rest)
        steps = (
            turns("book", "letter", rest=rest)
            if fold == "book"
            else (replace(one, rest=None, bench_min=4), replace(two, bench_min=4))
        )
        plan = begun(Family.CROISSANT, 2400, tool, turns=(*steps, *turns("half", rest=rest)))
        after = "turn-1" if fold == "book" else "turn-2"
        assert window(plan, after, 21, tool).verdict in (GOOD if minutes > 34 else FAIR)


@pytest.mark.parametrize("minutes", [30, 60])
@pytest.mark.parametrize("grams", MASSES)
def test_by_hand_after_each(minutes, grams):
    steps = turns("letter", "letter", "letter", roll_to_mm=9, rest=Rest.at(Place.FRIDGE, minutes))
    plan = begun(Family.CROISSANT, grams, turns=steps)
    for stop in ("turn-1", "turn-2"):
        assert window(plan, stop).verdict == "good"


@pytest.mark.parametrize("minutes", [3, 5])
@pytest.mark.parametrize(
    ("tool", "room", "works"),
    [
        (Tool.HAND, 18, {"yes"}), (Tool.HAND, 22, {"yes"}), (Tool.SHEETER, 25, {"yes"}),
        (Tool.HAND, 25, {"yes", "tight"}), (Tool.HAND, 28.5, {"no"}), (Tool.SHEETER, 30, {"no"}),
    ],
)  # fmt: skip
def test_two_turns_back_to_back(minutes, tool, room, works):
    one, two, three = turns("letter", "letter", "letter", rest=Rest.at(Place.FRIDGE, 45))
    pair = (replace(one, rest=None, bench_min=minutes), replace(two, bench_min=minutes), three)
    plan = begun(Family.CROISSANT, 2400, tool, turns=pair)
    found = work_warmth(plan, TOOLS[tool], Today(room_c=room), fixes=False)
    assert found.works in works


@pytest.mark.parametrize("minutes", [10, 20, 30])
@pytest.mark.parametrize(("butter", "verdicts"), [("butter-sheet", GOOD), ("butter-table", FAIR)])
def test_a_thick_package_for_a_while_in_the_freezer(minutes, butter, verdicts):
    rest = Rest.at(Place.FREEZER, minutes)
    steps = turns("letter", "letter", "letter", roll_to_mm=9, rest=rest)
    plan = begun(Family.CROISSANT, 3000, turns=steps)
    plan = replace(plan, butter=replace(plan.butter, ingredient=butter))
    found = window(plan, "turn-1")
    # ten or twenty minutes do not relax strong flour (docs/model.md): that is said, and not the cold
    if found.verdict not in verdicts:
        assert found.by is Cause.RELAXING
        assert minutes < 23


@pytest.mark.parametrize("minutes", [45, 60])
def test_long_in_the_freezer_is_minded_and_letting_it_stand_clears_it(minutes):
    steps = turns("letter", "letter", "letter", roll_to_mm=9, rest=Rest.at(Place.FREEZER, minutes))
    plan = begun(Family.CROISSANT, 2400, turns=steps)
    found = window(plan, "turn-1")
    assert (found.verdict, found.by) == ("long", Cause.BRITTLE)
    cleared = []
    for stands in (10, 15, 20, 25, 30):
        rest = Rest((Stay(Place.FREEZER, minutes), Stay(Place.BENCH, stands)))
        stood = plan.changed(plan.turns[0], rest=rest)
        cleared.append(window(stood, "turn-1").verdict in FAIR)
    assert any(cleared)


@pytest.mark.parametrize("minutes", [5, 10, 20])
def test_the_last_sheet_before_the_cut(minutes):
    plan = begun(Family.CROISSANT, 2400)
    plan = plan.changed(plan.last_sheet, rest=Rest.at(Place.FRIDGE, minutes))
    assert window(plan, plan.last_sheet.id).verdict in (GOOD if minutes > 5 else FAIR)


# --- proofs


@pytest.mark.parametrize("celsius", [25, 26.5, 28])
@pytest.mark.parametrize("yeast", [3, 4, 5])
def test_a_croissant_proofs_two_to_three_hours(celsius, yeast):
    for minutes in (120, 150, 180):
        plan = proofed(Family.CROISSANT, 2400, Rest.at(Place.PROOFER, minutes), yeast)
        assert proof(plan, at(celsius)).verdict in FAIR, minutes


def test_a_croissant_is_minded_under_an_hour_and_over_a_working_day():
    short = proofed(Family.CROISSANT, 2400, Rest.at(Place.PROOFER, 40), 4)
    long = proofed(Family.CROISSANT, 2400, Rest.at(Place.PROOFER, 480), 4)
    assert proof(short, at(26)).verdict == "short"
    assert proof(long, at(26)).verdict == "long"


@pytest.mark.parametrize(
    ("family", "minutes", "celsius", "yeast"),
    [
        (Family.DANISH, 60, 30, 7), (Family.DANISH, 90, 28, 6), (Family.DANISH, 120, 26, 5),
        (Family.BRIOCHE, 90, 28, None), (Family.BRIOCHE, 135, 26.5, None),
        (Family.BRIOCHE, 180, 25, None),
    ],
)  # fmt: skip
def test_the_other_families_in_the_proofer(family, minutes, celsius, yeast):
    plan = proofed(family, 2000, Rest.at(Place.PROOFER, minutes), yeast)
    assert proof(plan, at(celsius)).verdict in FAIR


@pytest.mark.parametrize("minutes", [10, 40, 75])
def test_kouign_amann_in_the_room(minutes):
    plan = proofed(Family.KOUIGN, 2000, Rest.at(Place.BENCH, minutes))
    assert proof(plan, HAND).verdict in FAIR


@pytest.mark.parametrize("room", [20, 23])
@pytest.mark.parametrize("times", [1.4, 1.8])
def test_in_the_room_it_takes_half_as_long_again(room, times):
    for family, minutes in ((Family.CROISSANT, 150), (Family.DANISH, 90), (Family.BRIOCHE, 135)):
        plan = proofed(family, 2000, Rest.at(Place.BENCH, minutes * times))
        assert proof(plan, HAND, room).verdict in FAIR, family


@pytest.mark.parametrize(("butter", "limit"), [("butter-table", 28), ("butter-sheet", 30)])
def test_a_proofer_that_lets_the_butter_go_is_minded_and_one_below_is_not(butter, limit):
    def minds(celsius):
        plan = proofed(Family.CROISSANT, 2400, Rest.at(Place.PROOFER, 120))
        plan = replace(plan, butter=replace(plan.butter, ingredient=butter))
        notes = work_warmth(plan, at(celsius), Today(room_c=21), fixes=False).notes
        said = [plain(n.text) for n in notes if n.stop == "shape" and n.tone == "mind"]
        return [text for text in said if "butter" in text.lower()]

    assert not minds(limit)
    assert minds(limit + 5)
