"""What good bakers do every day, held against the program: it is quiet where they are right."""

from dataclasses import replace

import pytest

from lamination.dough.recipe import Butter
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.fixes import taken
from lamination.plan.starts import starting_plan
from lamination.plan.work import work
from lamination.steps.flatten import Flattening
from lamination.steps.lock_in import LockIn
from lamination.steps.mix import Mixing
from lamination.steps.turn import Trim
from lamination.terms.rests import Rest, Stay
from lamination.terms.said import plain
from lamination.terms.trade import Family, Fold, Method, Place, Tool
from lamination.warmth.bodies import Today
from lamination.warmth.follow import follow
from lamination.warmth.judge import Call, Feel, judge_lock_in
from lamination.warmth.warmth import work_warmth
from tests.plans import LEAN, changed, formula, poolish, station, turns

BY_HAND = Kitchen()
BY_SHEETER = Kitchen({"sheeter.belt_width_mm": 600})
NIGHT = Rest.at(Place.FRIDGE, 720)


def croissant(grams=2400, kitchen=BY_HAND, **changes):
    return changed(starting_plan("Daily", Family.CROISSANT, grams, kitchen), **changes)


def verdict(plan, stop, room=21.0, kitchen=BY_HAND):
    found = follow(plan, kitchen, Today(room_c=room))
    return next(w.verdict for w in found.windows if w.stop == stop)


def minded(plan, room=21.0, kitchen=BY_HAND):
    found = work_warmth(plan, kitchen, Today(room_c=room), fixes=False)
    return {(n.stop, n.code) for n in found.notes if n.tone == "mind"}


# --- overnight


@pytest.mark.parametrize("hours", [8, 12, 16])
@pytest.mark.parametrize("grams", [1000, 2400, 3000])
@pytest.mark.parametrize("yeast", [2, 3.5])
def test_a_night_in_the_fridge_is_good(hours, grams, yeast):
    night = Rest.at(Place.FRIDGE, 60 * hours)
    of = formula({**LEAN, "yeast-fresh": yeast})
    plan = croissant(grams, formula=of, mix=Mixing(flour_c=20), preferments=None)
    plan = changed(plan, flatten=Flattening(rest=night))
    assert verdict(plan, "dough") == "good"


@pytest.mark.parametrize("minutes", [20, 60])
def test_a_while_in_the_room_first_is_good_too(minutes):
    in_room = Mixing(flour_c=20, rest=Rest.at(Place.BENCH, minutes))
    plan = croissant(formula=formula(), mix=in_room, flatten=Flattening(rest=NIGHT))
    assert verdict(plan, "dough") in ("good", "tight")
    assert ("mix", "rest-long") not in minded(plan)


def test_a_poolish_changes_nothing_of_that():
    plan = croissant(
        formula=formula(),
        mix=Mixing(flour_c=20),
        preferments=(poolish(),),
        flatten=Flattening(rest=NIGHT),
    )
    assert verdict(plan, "dough") == "good"


def test_two_nights_are_too_many():
    plan = croissant(flatten=Flattening(rest=Rest.at(Place.FRIDGE, 48 * 60)))
    assert verdict(plan, "dough") == "long"


def test_freezer_first_and_then_the_fridge_overnight_is_good():
    chain = Rest((Stay(Place.FREEZER, 60), Stay(Place.FRIDGE, 660)))
    assert verdict(croissant(flatten=Flattening(rest=chain)), "dough") == "good"


def test_a_dough_frozen_at_the_lock_in_is_minded_and_thawing_is_offered():
    frozen = croissant(flatten=Flattening(rest=Rest.at(Place.FREEZER, 600)))
    assert verdict(frozen, "dough") == "long"
    note = next(n for n in work_warmth(frozen, BY_HAND).notes if n.stop == "dough")
    assert note.tone == "mind"
    for fix in note.fixes:
        assert verdict(taken(frozen, fix), "dough") in ("good", "tight"), fix.label


# --- the lock-in


@pytest.mark.parametrize("butter_c", [12, 13, 14])
@pytest.mark.parametrize("dough_c", [2, 4, 6])
def test_pliable_butter_goes_into_a_cold_dough(butter_c, dough_c):
    assert judge_lock_in(station(), Feel(dough_c, butter_c), BY_HAND).call is Call.GO


# --- turns


@pytest.mark.parametrize("minutes", [20, 30, 40])
@pytest.mark.parametrize("roll_to", [6, 9, 12])
def test_a_short_rest_after_a_letter_by_sheeter_is_good(minutes, roll_to):
    plan = croissant(kitchen=BY_SHEETER)
    rests = turns(
        "letter", "letter", "letter", roll_to_mm=roll_to, rest=Rest.at(Place.FRIDGE, minutes)
    )
    found = follow(changed(plan, turns=rests), BY_SHEETER, Today(room_c=21))
    assert next(w for w in found.windows if w.stop == "turn-1").verdict in ("good", "tight")


@pytest.mark.parametrize("minutes", [30, 45, 60])
def test_by_hand_a_rest_after_each_is_good(minutes):
    rests = turns("letter", "letter", "letter", rest=Rest.at(Place.FRIDGE, minutes))
    plan = croissant(turns=rests)
    assert {verdict(plan, f"turn-{n}") for n in (1, 2)} <= {"good", "tight"}


@pytest.mark.parametrize("room", [18, 20, 22])
def test_two_turns_back_to_back_from_a_cold_dough_work(room):
    first, second, third = turns("letter", "letter", "letter", rest=Rest.at(Place.FRIDGE, 45))
    pair = (replace(first, rest=None, bench_min=4), replace(second, bench_min=4), third)
    assert work_warmth(croissant(turns=pair), BY_HAND, Today(room_c=room)).works != "no"


@pytest.mark.parametrize(("room", "works"), [(22, {"yes"}), (25, {"yes", "tight"}), (28, {"no"})])
def test_two_turns_back_to_back_by_hand_are_told_apart_by_the_room(room, works):
    first, second, third = turns("letter", "letter", "letter", rest=Rest.at(Place.FRIDGE, 45))
    pair = (replace(first, rest=None, bench_min=4), replace(second, bench_min=4), third)
    plan = croissant(turns=pair)
    assert work_warmth(plan, BY_HAND, Today(room_c=room), fixes=False).works in works


@pytest.mark.parametrize("grams", [800, 1500, 5000])
@pytest.mark.parametrize("room", [18, 20, 22])
def test_classic_puff_by_hand_with_table_butter_works(room, grams):
    plan = starting_plan("Puff", Family.PUFF, grams, BY_HAND)
    plan = replace(plan, butter=replace(plan.butter, ingredient="butter-table"))
    six = turns(*["letter"] * 6, rest=Rest.at(Place.FRIDGE, 30))
    pairs = tuple(
        replace(t, rest=t.rest if n % 2 else None, bench_min=5) for n, t in enumerate(six)
    )
    assert work_warmth(changed(plan, turns=pairs), BY_HAND, Today(room_c=room)).works != "no"


def test_a_long_stay_in_the_freezer_is_minded_with_table_butter_and_let_stand_clears_it():
    rests = turns("letter", "letter", "letter", rest=Rest.at(Place.FREEZER, 75))
    plan = croissant(turns=rests)
    found = work_warmth(plan, BY_HAND, Today(room_c=21))
    note = next(n for n in found.notes if n.stop == "turn-1")
    assert note.tone == "mind"
    assert note.fixes
    for fix in note.fixes:
        assert verdict(taken(plan, fix), "turn-1") in ("good", "tight"), plain(fix.label)


# --- proofs


@pytest.mark.parametrize("minutes", [120, 150, 180])
def test_two_to_three_hours_proof_a_croissant(minutes):
    plan = croissant()
    shape = next(s for s in plan.steps if s.do == "shape")
    proofed = plan.changed(shape, rest=Rest.at(Place.PROOFER, minutes))
    assert verdict(proofed, "shape") in ("good", "tight")


@pytest.mark.parametrize(
    ("family", "minutes"),
    [
        (Family.DANISH, 75),
        (Family.DANISH, 110),
        (Family.BRIOCHE, 120),
        (Family.BRIOCHE, 165),
        (Family.KOUIGN, 30),
        (Family.KOUIGN, 60),
    ],
)
def test_what_is_usual_for_the_other_families_is_good_or_tight(family, minutes):
    plan = starting_plan("Daily", family, 2000, BY_HAND)
    shape = next(s for s in plan.steps if s.do == "shape")
    place = Place.BENCH if family is Family.KOUIGN else Place.PROOFER
    assert verdict(plan.changed(shape, rest=Rest.at(place, minutes)), "shape") in ("good", "tight")


def test_a_proof_of_half_an_hour_and_one_of_a_working_day_are_minded():
    plan = croissant()
    shape = next(s for s in plan.steps if s.do == "shape")
    assert verdict(plan.changed(shape, rest=Rest.at(Place.PROOFER, 30)), "shape") == "short"
    assert verdict(plan.changed(shape, rest=Rest.at(Place.PROOFER, 480)), "shape") == "long"


# --- other ways


def test_a_quick_puff_is_scolded_for_no_block_and_no_island():
    plan = starting_plan("Quick", Family.PUFF, 1200, BY_HAND)
    lumps = LockIn(Method.LUMPS, block_width_mm=300, block_length_mm=300)
    plan = changed(
        plan, lock_in=lumps, turns=turns(*["letter"] * 4, rest=Rest.at(Place.FRIDGE, 20))
    )
    codes = {n.code for n in work(plan, BY_HAND).notes if n.tone == "mind"}
    assert not codes & {"plaque", "block-thick", "block-thin", "edges", "islands"}
    assert work_warmth(plan, BY_HAND, Today(room_c=21)).works != "no"


def test_flour_in_an_inverse_block_counts_as_flour():
    plan = starting_plan("Inverse", Family.PUFF, 1500, BY_HAND)
    inverse = LockIn(Method.INVERSE, block_width_mm=400, block_length_mm=400)
    bare = changed(plan, lock_in=inverse)
    floured = replace(bare, butter=replace(bare.butter, flour_pct=25))
    share, with_flour = (work(p, BY_HAND).butter_share.of_flour_pct for p in (bare, floured))
    assert with_flour < share


# --- sheets and counts


def test_the_count_that_leads_is_the_one_most_of_the_sheet_has():
    tucked = tuple(
        replace(t, trim=Trim(ends_mm=25, tucked=True)) for t in turns("letter", "letter", "letter")
    )
    layers = work(station(turns=tucked)).layers
    assert layers.butter == 27
    assert layers.most > 27
    assert 0 < layers.more_pct < 50


def test_a_last_sheet_at_its_very_limit_is_not_above_it():
    plan = croissant()
    at_limit = plan.changed(plan.last_sheet, roll_to_mm=5.0)
    titles = {plain(n.title) for n in work(at_limit, BY_HAND).notes if n.tone == "mind"}
    assert "Last sheet above the usual" not in titles


# --- what is not known is said


def test_a_label_without_a_formula_never_looks_complete():
    plan = starting_plan("Bare", Family.CROISSANT, 2000, BY_HAND, with_formula=False)
    for label in work(plan, BY_HAND).labels:
        assert not label.complete
        assert label.unknown
        assert "ask the baker" in label.ask.lower()


def test_water_is_never_hotter_than_the_kitchen_allows():
    cold = Mixing(flour_c=-10, wanted_c=28, slow_min=1, fast_min=0)
    plan = station(formula=formula(), mix=cold)
    made = work(plan).strip[0].made
    assert made.water.water_c <= BY_HAND["mixer.hottest_c"]
    assert made.water.needed_c > made.water.water_c


@pytest.mark.parametrize("family", list(Family))
@pytest.mark.parametrize("tool", list(Tool))
@pytest.mark.parametrize("room", [18, 23])
def test_a_new_plan_has_nothing_to_mind(family, tool, room):
    kitchen = BY_SHEETER if tool is Tool.SHEETER else BY_HAND
    plan = starting_plan("New", family, 3000, kitchen, True, tool)
    assert [n.code for n in work(plan, kitchen).notes if n.tone == "mind"] == []
    assert minded(plan, room, kitchen) == set()


def test_more_butter_than_usual_is_said_once_and_less_of_it_is_offered():
    plan = station(butter=Butter(1300), family=Family.CROISSANT)
    titles = [plain(n.title) for n in work(plan).notes if n.tone == "mind"]
    assert titles.count("Butter above the usual") == 1


def test_folds_multiply_as_their_names_say():
    assert [fold.multiplies for fold in (Fold.HALF, Fold.LETTER, Fold.BOOK)] == [2, 3, 4]


# --- schools


@pytest.mark.parametrize("minutes", [25, 30])
@pytest.mark.parametrize("grams", [1200, 3000, 6000])
def test_a_short_rest_of_strong_flour_by_sheeter_is_tight_at_most(minutes, grams):
    plan = starting_plan("D", Family.CROISSANT, grams, BY_SHEETER, rolled=Tool.SHEETER)
    for turn in plan.turns:
        plan = plan.changed(plan.steps[plan.at(turn.id)], rest=Rest.at(Place.FRIDGE, minutes))
    for turn in plan.turns:
        assert verdict(plan, turn.id, kitchen=BY_SHEETER) in ("good", "tight")


def test_three_turns_on_end_by_sheeter_are_tight_and_by_hand_too_many():
    def tones(tool, kitchen):
        plan = starting_plan("D", Family.CROISSANT, 3000, kitchen, rolled=tool)
        for turn in plan.turns[:-1]:
            plan = plan.changed(plan.steps[plan.at(turn.id)], rest=None)
        return [n.tone for n in work(plan, kitchen).notes if n.code == "no-rest"]

    assert tones(Tool.SHEETER, BY_SHEETER) == ["tight"]
    assert tones(Tool.HAND, BY_HAND) == ["mind"]


def test_twelve_leaves_are_chosen_for_an_open_crumb():
    plan = croissant(turns=turns("book", "letter", roll_to_mm=9))
    said = [n.tone for n in work(plan, BY_HAND).notes if n.code == "layers"]
    assert said == ["know"]
    fewer = croissant(turns=turns("letter", roll_to_mm=9))
    assert [n.tone for n in work(fewer, BY_HAND).notes if n.code == "layers"] == ["mind"]


@pytest.mark.parametrize(
    ("minutes", "verdicts"),
    [(10, "good"), (20, "good"), (60, "tight"), (720, "tight"), (1200, "long")],
)
def test_a_rolled_sheet_is_no_place_to_wait(minutes, verdicts):
    plan = croissant()
    plan = plan.changed(plan.last_sheet, rest=Rest.at(Place.FRIDGE, minutes))
    assert verdict(plan, plan.last_sheet.id) == verdicts
    if verdicts == "long":
        found = work_warmth(plan, BY_HAND)
        note = next(n for n in found.notes if n.stop == plan.last_sheet.id and n.tone == "mind")
        assert "dries" in plain(note.text)
        better = taken(plan, note.fixes[0])
        assert verdict(better, plan.last_sheet.id) == "good"
