"""The proof of a shaped piece: its window, from warm, chilled or overnight, and what a right one teaches."""

from dataclasses import replace

import pytest

from lamination.dough.formula import PrefermentKind
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.fixes import taken
from lamination.plan.starts import starting_finish, starting_plan
from lamination.plan.work import work
from lamination.steps.preferment import Preferment
from lamination.steps.shape import Shaping
from lamination.terms.rests import Rest, Stay
from lamination.terms.said import plain
from lamination.terms.trade import Family, Place
from lamination.warmth.bodies import Today
from lamination.warmth.follow import follow
from lamination.warmth.proof import learned_reference, proof_of
from lamination.warmth.warmth import work_warmth
from lamination.warmth.windows import Cause
from tests.plans import LEAN, formula, station, with_formula

PROOF = Rest.at(Place.PROOFER, 120)


def set_at(rest, **how):
    """The rest, its proofer set for it."""
    return rest.with_stay(0, replace(rest.stays[0], **how))


def plan(rest=PROOF, of=None, **changes):
    shape, *after = starting_finish(Family.CROISSANT)
    finish = (replace(shape, rest=rest), *after)
    return station(formula=of or formula(), finish=finish, **changes)


def window(rest=PROOF, today=None, **kitchen):
    found = follow(plan(rest), Kitchen(kitchen), today)
    return next(w for w in found.windows if w.stop == "shape")


def test_its_marks_come_in_order_and_are_set_by_the_proof():
    found = window()
    marks = [found.possible_from_min, found.good_from_min, found.best_min, found.good_until_min,
             found.possible_until_min]  # fmt: skip
    assert marks == sorted(marks)
    assert (found.from_by, found.until_by) == (Cause.PROOF, Cause.OVER)
    assert found.verdict == "good"


def test_a_cool_proofer_takes_longer_and_a_longer_reference_too():
    usual = window().best_min
    assert window(**{"proofer.c": 22}).best_min > 1.1 * usual
    longer = 1.5 * Kitchen()["proof.reference_min"]
    assert window(**{"proof.reference_min": longer}).best_min > 1.2 * usual


def test_a_night_in_the_fridge_first_counts_for_little_but_counts():
    night = Rest((Stay(Place.FRIDGE, 720), Stay(Place.PROOFER, 120)))
    after = window(night).best_min - 720
    assert 0.4 * window().best_min < after < 1.6 * window().best_min


@pytest.mark.parametrize(("minutes", "verdict"), [(25, "short"), (500, "long")])
def test_too_short_and_too_long_are_said_with_a_press_that_mends_them(minutes, verdict):
    wrong = plan(Rest.at(Place.PROOFER, minutes))
    found = work_warmth(wrong, Kitchen())
    assert next(w for w in found.windows if w.stop == "shape").verdict == verdict
    note = next(n for n in found.notes if n.stop == "shape" and n.tone == "mind")
    mended = work_warmth(taken(wrong, note.fixes[0]), Kitchen(), fixes=False)
    assert next(w for w in mended.windows if w.stop == "shape").verdict in ("good", "tight")


def test_in_a_cold_place_it_never_finishes():
    cold = window(Rest.at(Place.FRIDGE, 60))
    assert cold.good_from_min is None or cold.good_from_min > 600


def test_a_dough_without_yeast_has_no_proof():
    lean = {"flour-strong": 100, "water": 50, "butter-table": 6, "salt": 2}
    still = plan(of=formula(lean))
    assert proof_of(follow(still, Kitchen())) is None
    assert work_warmth(still, Kitchen()).proof is None


def test_a_hot_proofer_is_said_to_cost_the_butter():
    hot = proof_of(follow(plan(), Kitchen({"proofer.c": 34})))
    assert hot.hot
    assert not proof_of(follow(plan(), Kitchen({"proofer.c": 26}))).hot


def test_a_frozen_piece_takes_longer_than_a_chilled_one():
    found = proof_of(follow(plan(), Kitchen(), Today(room_c=21)))
    assert found.chilled_min < found.frozen_min


def test_a_proof_that_was_right_becomes_the_reference():
    kitchen = Kitchen()
    best = window().best_min
    same = learned_reference(plan(), kitchen, best)
    assert same == pytest.approx(kitchen["proof.reference_min"], rel=0.1)
    assert learned_reference(plan(), kitchen, 1.3 * best) > 1.2 * same
    taught = Kitchen({"proof.reference_min": learned_reference(plan(), kitchen, 1.3 * best)})
    found = next(w for w in follow(plan(), taught).windows if w.stop == "shape")
    assert found.best_min == pytest.approx(1.3 * best, rel=0.1)


def test_there_is_nothing_to_learn_without_a_proof():
    with pytest.raises(ValueError, match="no proof"):
        learned_reference(station(formula=formula()), Kitchen(), 100)


@pytest.mark.parametrize(("air_c", "slower"), [(21, True), (28, False)])
def test_a_proof_by_its_plan_is_as_warm_as_the_plan_says(air_c, slower):
    new = starting_plan("Mine", Family.CROISSANT, 2000, Kitchen())
    shape = new.first(Shaping)
    usual = work_warmth(new, Kitchen()).proof
    mine = work_warmth(new.changed(shape, rest=set_at(shape.rest, air_c=air_c)), Kitchen()).proof
    assert (mine.chilled_min > usual.chilled_min) is slower
    # as if the kitchen's own proofer were set so
    row = work_warmth(new, Kitchen({"proofer.c": air_c})).proof
    assert mine.chilled_min == row.chilled_min


def test_a_proof_set_too_hot_is_minded_and_setting_it_lower_clears_it():
    new = starting_plan("Mine", Family.CROISSANT, 2000, Kitchen())
    shape = new.first(Shaping)
    hot = new.changed(shape, rest=set_at(shape.rest, air_c=36.0))
    note = next(n for n in work_warmth(hot, Kitchen()).notes if n.code == "proof-hot")
    assert note.fixes
    for fix in note.fixes:
        codes = {n.code for n in work_warmth(taken(hot, fix), Kitchen()).notes if n.tone == "mind"}
        assert not codes, fix.label


def test_the_bench_reads_how_the_proofer_is_set():
    new = starting_plan("Mine", Family.CROISSANT, 2000, Kitchen())
    shape = new.first(Shaping)
    damp = new.changed(shape, rest=set_at(shape.rest, air_c=24.0, humidity_pct=82.0))
    does = " ".join(plain(t) for t in work(damp).stop("shape").does)
    assert "Proofer at 24 °C, 82 % humidity." in does


def test_a_cabinet_that_follows_the_room_is_cooler_in_winter_and_one_that_holds_is_not():
    cold, usual = Today(room_c=15.0), Today(room_c=21.0)
    holds, follows = {}, {"proofer.follows_pct": 60}
    assert window(today=cold, **holds).best_min == pytest.approx(
        window(today=usual, **holds).best_min, rel=0.08
    )
    assert window(today=usual, **follows).best_min == window(today=usual, **holds).best_min
    # 60 % of six degrees: 3.6 K less, as a proofer that is set so
    assert Kitchen(follows).proofer_c(15.0) == pytest.approx(26 - 3.6)
    cool = window(today=cold, **follows).best_min
    assert cool > 1.12 * window(today=cold, **holds).best_min
    assert cool == window(today=cold, **{"proofer.c": 22.4}).best_min
    does = " ".join(
        plain(t) for t in work(plan(), Kitchen({"room.c": 16, **follows})).stop("shape").does
    )
    assert "Proofer at 23 °C" in does


def test_a_cabinet_too_warm_in_summer_is_minded_and_a_setting_of_its_own_clears_it():
    summer = Kitchen({"room.c": 33, "proofer.follows_pct": 80})
    assert proof_of(follow(plan(), summer)).hot
    own = set_at(PROOF, air_c=25.0)
    assert not proof_of(follow(plan(own), summer)).hot


# --- sourdough


def soured(flour_pct=20.0, yeast=0.0):
    lines = {k: v for k, v in LEAN.items() if not k.startswith("yeast")}
    lines |= {"yeast-fresh": yeast} if yeast else {}
    sour = Preferment(PrefermentKind.SOURDOUGH, flour_pct, 100, 0, rest=Rest.at(Place.BENCH, 480))
    shape, *after = starting_finish(Family.CROISSANT)
    shape = replace(shape, rest=Rest.at(Place.PROOFER, 300))
    return with_formula(station(finish=(shape, *after)), formula(lines), None, sour)


def test_a_sourdough_goes_by_its_signs_until_the_house_says_how_long_it_takes():
    plan, found = soured(), work(soured())
    codes = {n.code for n in found.notes}
    assert "no-yeast" not in codes
    assert "yeast_pct" not in codes
    assert "sourdough-signs" in codes
    assert proof_of(follow(plan, Kitchen())) is None
    assert not [w for w in follow(plan, Kitchen()).windows if w.stop == "shape"]
    does = " ".join(plain(t) for t in found.strip[0].does)
    # a fifth of its own flour as seed, taken back when it is ripe
    assert f"{found.strip[0].made.flour_g * 0.2:.3g}"[:2] in does
    assert "a spoonful floats" in does


def test_a_sourdough_proofs_by_the_house_s_own_proof():
    def best(plan, **rows):
        window = next(w for w in follow(plan, Kitchen(rows)).windows if w.stop == "shape")
        return window.best_min

    row = {"sourdough.proof_min": 240}
    assert "sourdough-signs" not in {n.code for n in work(soured(), Kitchen(row)).notes}
    # twice as long said, twice as long taken, less what it warms up for; more of it is sooner
    assert best(soured(), **{"sourdough.proof_min": 360}) > 1.3 * best(soured(), **row)
    assert best(soured(30), **row) < best(soured(20), **row)
    # as much yeast as proofs in 240 min at 27 °C is the same dough
    same = 3.5 * Kitchen()["proof.reference_min"] / 240
    lines = LEAN | {"yeast-fresh": same}
    lines = {k: v for k, v in lines.items() if not k.startswith("yeast") or k == "yeast-fresh"}
    shape, *after = starting_finish(Family.CROISSANT)
    shape = replace(shape, rest=Rest.at(Place.PROOFER, 300))
    yeasted = with_formula(station(finish=(shape, *after)), formula(lines))
    assert best(soured(), **row) == pytest.approx(best(yeasted), rel=0.05)
