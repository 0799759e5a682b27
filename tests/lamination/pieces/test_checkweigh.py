"""Weights of pieces: what drifts is named with its correction, and chance is left alone."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.checkweigh import (
    ScaleSetting,
    Weighing,
    check_weighing,
    read_weights_csv,
    simulated_scale,
)
from lamination.terms.limits import Faults
from lamination.terms.said import plain

KITCHEN = Kitchen()


def judged(setting, **more):
    grams = simulated_scale(setting)
    return check_weighing(Weighing(grams, setting.target_g, **more), KITCHEN)


def test_a_drifting_sheet_is_named_with_its_correction():
    found = judged(ScaleSetting(60, 20, drift_pct=-8), thickness_mm=4)
    assert found.drifts
    assert found.drift_pct == pytest.approx(-8, abs=1.5)
    (said,) = [s for s in found.says if "along the sheet" in s]
    assert "lighter" in said
    assert "The last end" in said
    assert "0.3" in said  # 8 % of 4 mm


def test_the_other_way_round_too():
    found = judged(ScaleSetting(60, 20, drift_pct=9), thickness_mm=4)
    assert any("heavier" in s and "The first end" in s for s in found.says)


@given(st.integers(0, 200))
def test_noise_alone_is_seldom_a_drift(seed):
    found = judged(ScaleSetting(60, 24, drift_pct=0, noise_g=0.25, seed=seed))
    assert not found.drifts


def test_a_bias_asks_for_another_thickness_or_base():
    found = judged(ScaleSetting(50, 20, bias_pct=10, drift_pct=0), thickness_mm=4, base_mm=90)
    (said,) = [plain(s) for s in found.says if "too heavy" in s]
    assert "3.64 mm" in said.replace("3.63", "3.64").replace("3.65", "3.64")
    assert "base of 82 mm" in said


def test_pieces_out_of_limits_are_named_by_their_number():
    found = check_weighing(Weighing((60, 60, 70, 60, 60, 60, 60, 60), 60, off_pct=5), KITCHEN)
    assert found.out == (2,)
    assert any("1 piece is more than 5 % off: 3" in s for s in found.says)


def test_good_pieces_want_no_change():
    found = check_weighing(Weighing((60, 60.2, 59.9, 60.1), 60), KITCHEN)
    assert found.verdict == "good"
    assert "change nothing" in found.says[0]


def test_one_piece_is_enough_to_begin_with():
    found = check_weighing(Weighing((58,), 60), KITCHEN)
    assert (found.mean_g, found.spread_g, found.drift_pct) == (58, 0, 0)


@given(st.lists(st.floats(10, 100), min_size=1, max_size=40))
def test_figures_hold_for_any_weights(grams):
    found = check_weighing(Weighing(tuple(grams), 50), KITCHEN)
    assert found.least_g - 1e-9 <= found.mean_g <= found.most_g + 1e-9
    assert found.spread_g >= 0
    assert (found.first_g + found.last_g) / 2 == pytest.approx(found.mean_g)
    assert all(s.endswith(".") for s in found.says)


@pytest.mark.parametrize(
    "text",
    ["60.1\n59.4\n", "piece;g\n1;60,1\n2;59,4\n", "1,60.1 g\n2,59.4 g\n", "a\tb\n1\t60.1\n2\t59.4"],
)
def test_tables_of_any_scale_are_read(text):
    assert read_weights_csv(text) == (60.1, 59.4)


@pytest.mark.parametrize(
    ("text", "why"), [("", "No weight"), ("a,b\n", "No weight"), ("0\n", "Row 1")]
)
def test_a_table_without_weights_says_so(text, why):
    with pytest.raises(Faults, match=why):
        read_weights_csv(text)


def test_the_simulated_scale_says_the_same_for_the_same_seed():
    assert simulated_scale(ScaleSetting(60)) == simulated_scale(ScaleSetting(60))
    assert simulated_scale(ScaleSetting(60)) != simulated_scale(ScaleSetting(60, seed=2))


def test_how_far_a_piece_may_be_off_is_the_kitchen_s_until_it_is_said():
    grams = (60, 60, 64, 60)
    strict = Kitchen({"weigh.off_pct": 2})
    assert check_weighing(Weighing(grams, 60), Kitchen({"weigh.off_pct": 10})).out == ()
    assert check_weighing(Weighing(grams, 60), strict).out == (2,)
    assert check_weighing(Weighing(grams, 60, off_pct=10), strict).out == ()
    found = check_weighing(Weighing(grams, 60), strict)
    assert (found.lowest_g, found.highest_g) == pytest.approx((58.8, 61.2))
