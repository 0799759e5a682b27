"""The proof of a shaped piece: its window, from warm, chilled or overnight, and what a right one teaches."""

from dataclasses import replace

import pytest

from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import Family
from lamination.pieces.finish import Wash, starting_finish
from lamination.terms.rests import Place, Rest, Stay
from lamination.warmth.proof import learned_reference, proof_window
from lamination.warmth.rest import Cause
from lamination.warmth.warmth import work_warmth

from .formulas import formula
from .plans import station

PROOF = Rest(Place.PROOFER, 135)


def plan(rest=PROOF, **changes):
    finish = replace(starting_finish(Family.CROISSANT), rest=rest, wash=Wash.NONE)
    return station(formula=formula(), finish=finish, **changes)


def window(rest=PROOF, used=0.0, start=18.0, **kitchen):
    return proof_window(plan(rest), Kitchen(kitchen), used, start)


def test_soonest_best_and_latest_come_in_order_and_are_set_by_the_proof():
    found = window()
    assert found.soonest_min < found.best_min < found.latest_min
    assert (found.soonest_by, found.latest_by) == (Cause.PROOF, Cause.OVER)


def test_at_its_best_it_has_had_the_dose_of_the_reference_proof():
    # a piece already as warm as the proofer proofs by the reference, scaled by yeast and sugar
    exact = {"proofer.c": 27, "proof.reference_min": 120}
    once = window(start=27, **exact).best_min
    assert window(start=27, **{**exact, "proof.reference_min": 240}).best_min == pytest.approx(
        2 * once, rel=0.01
    )


def test_a_cold_piece_and_a_cool_proofer_take_longer_and_what_is_used_up_shortens_it():
    plain = window().best_min
    assert window(start=4).best_min > plain + 5
    assert window(**{"proofer.c": 22}).best_min > 1.15 * plain
    assert window(used=25).best_min < 0.85 * plain


def test_a_night_in_the_fridge_first_counts_for_little_but_counts():
    night = Rest(Place.PROOFER, 720 + 135, first=Stay(Place.FRIDGE, 720))
    after = window(night).best_min - 720
    assert 0.4 * window(start=4).best_min < after < window(start=4).best_min


def test_too_short_and_too_long_are_said_with_a_press_that_mends_them():
    for minutes, title in ((40, "Under-proofed"), (400, "Over-proofed")):
        warmth = work_warmth(plan(Rest(Place.PROOFER, minutes)), Kitchen())
        note = next(n for n in warmth.notes if n.title == title)
        assert note.stop == "shape"
        (put,) = note.fixes[0].puts
        mended = work_warmth(plan(put.value), Kitchen())
        assert not [n for n in mended.notes if n.title.endswith("-proofed")]


def test_in_a_cold_place_it_never_finishes():
    found = window(Rest(Place.FREEZER, 300))
    assert found.soonest_min is None
    assert "does not finish" in found.says


def test_a_dough_without_yeast_has_no_proof():
    assert proof_window(replace(plan(), formula=None), Kitchen(), 0, 18) is None


def test_a_proof_that_was_right_becomes_the_reference():
    kitchen = Kitchen()
    minutes = window().best_min * 1.3
    learned = learned_reference(plan(), kitchen, minutes, 18)
    assert learned > 1.3 * kitchen["proof.reference_min"]
    taught = Kitchen({"proof.reference_min": learned})
    assert proof_window(plan(), taught, 0, 18).best_min == pytest.approx(minutes, rel=0.02)


def test_there_is_nothing_to_learn_without_a_proof():
    with pytest.raises(ValueError, match="no proof"):
        learned_reference(station(), Kitchen(), 100, 18)
