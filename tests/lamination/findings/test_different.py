"""What was different: how unusual each is, and that nobody's noise is called a difference."""

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.findings import BakeCause, Feature, different, features
from tests.lamination.findings.simulated import record


def of(**values):
    units = {"room": "°C", "rest": "min", "piece": "g", "spread": "%"}
    return {k: Feature(k, k, units[k], v) for k, v in values.items()}


def test_the_unusual_comes_first_by_how_many_spreads_it_lies_away():
    others = [of(room=19 + n % 3, rest=30 + n % 4, piece=57.0) for n in range(12)]
    found = different(of(room=25.0, rest=31.0, piece=57.3), others)
    assert [d.key for d in found] == ["room", "piece", "rest"]
    assert [d.unusual for d in found] == [True, False, False]
    # the middle is 20, the median deviation 1
    assert found[0].away == pytest.approx((25 - 20) / 1.4826)
    assert (found[0].low, found[0].high) == (19, 21)


def test_against_one_other_what_nobody_would_notice_is_no_difference():
    found = {d.key: d for d in different(of(room=20.5, rest=45.0), [of(room=20.0, rest=30.0)])}
    assert not found["room"].unusual
    assert found["rest"].unusual
    assert different(of(room=20.0), []) == ()
    assert different(of(room=20.0), [of(rest=30.0)]) == ()


@given(st.lists(st.floats(-50, 50), min_size=1, max_size=30), st.floats(-50, 50))
def test_the_usual_lies_between_its_marks_and_an_even_shift_changes_nothing(others, mine):
    (found,) = different(of(room=mine), [of(room=v) for v in others])
    assert min(others) - 1e-9 <= found.low <= found.usual + 1e-9
    assert found.usual <= found.high + 1e-9 <= max(others) + 2e-9
    (shifted,) = different(of(room=mine + 7), [of(room=v + 7) for v in others])
    assert shifted.away == pytest.approx(found.away, abs=1e-6)


def test_a_record_gives_what_was_measured_and_how_long_each_thing_took():
    found = features(record(None, 4))
    assert found["butter"].unit == "°C"
    assert found["rest.turn-1"].unit == "min"
    assert 0 < found["spread"].value < 3
    assert features(record(None, 4, readings=False)).keys() < found.keys()


def test_what_was_done_otherwise_on_purpose_is_the_first_difference():
    good = [features(record(None, n)) for n in range(8)]
    odd = features(record(BakeCause.UNEVEN_SHEET, random.Random(3).randrange(99)))
    assert different(odd, good)[0].key == "spread"
