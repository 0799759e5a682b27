"""Limits declared at a field, and the sentences they make."""

import math
from dataclasses import dataclass
from typing import Annotated

import pytest

from lamination.pieces.checkweigh import Weighing
from lamination.terms.limits import (
    Checked,
    Fault,
    Faults,
    Length,
    Range,
    join_path,
    raise_if,
    ranges,
)
from lamination.terms.said import plain, say


@dataclass(frozen=True)
class Tin(Checked):
    """Something with every kind of limit."""

    side_mm: Annotated[float, Range(10, 500, "mm")]
    label: Annotated[str, Length(1, 8, "characters")] = "tin"
    lid_mm: Annotated[float, Range(0, 20, "mm")] | None = None


def faults(**fields):
    with pytest.raises(Faults) as wrong:
        Tin(**fields)
    return {f.field: f.message for f in wrong.value.faults}


def test_both_ends_of_a_range_are_inside():
    assert Tin(10).side_mm == 10
    assert Tin(500).side_mm == 500


@pytest.mark.parametrize("value", [9.999, 500.1, -1, 1e12])
def test_outside_a_range_says_what_is_allowed(value):
    assert plain(faults(side_mm=value)["side_mm"]) == "Must be from 10 mm to 500 mm."


@pytest.mark.parametrize("value", [float("nan"), float("inf"), float("-inf")])
def test_what_is_no_number_is_no_number(value):
    assert faults(side_mm=value)["side_mm"].startswith("This is not a number.")


def test_an_optional_field_is_checked_when_it_is_there():
    assert Tin(10, lid_mm=None).lid_mm is None
    assert list(faults(side_mm=10, lid_mm=21)) == ["lid_mm"]


def test_a_text_is_neither_empty_nor_blank_nor_too_long():
    assert faults(side_mm=10, label="")["label"] == "Nothing is entered. At least 1 characters."
    assert "Nothing is entered" in faults(side_mm=10, label="   ")["label"]
    assert faults(side_mm=10, label="x" * 9)["label"] == "9 characters are too many: at most 8."


def test_all_faults_of_an_object_come_together():
    assert list(faults(side_mm=0, label="", lid_mm=-1)) == ["side_mm", "label", "lid_mm"]


def test_a_path_grows_from_the_inside_out():
    fault = Fault("minutes", "Too long.").under("rest").under("[2]").under("turns")
    assert fault.field == "turns[2].rest.minutes"
    assert join_path("", "x") == "x"
    assert join_path("x", "") == "x"


def test_nothing_wrong_raises_nothing():
    raise_if([])
    with pytest.raises(ValueError, match="a: Bad; b: Worse"):
        raise_if([Fault("a", "Bad"), Fault("b", "Worse")])


@pytest.mark.parametrize(("value", "said"), [
    (8, "8"), (8.04, "8"), (8.06, "8.1"), (99.94, "99.9"), (1540.4, "1540"), (0.05, "0.05"),
    (0, "0"), (-3.2, "-3.2"), (0.00004, "4e-05"),
])  # fmt: skip
def test_numbers_are_said_as_a_person_writes_them(value, said):
    assert say(value) == said


def test_every_item_of_a_list_is_checked_and_named_by_its_place():
    with pytest.raises(Faults) as refused:
        Weighing((60.0, 0.0, math.nan, 61.0), 60)
    assert [f.field for f in refused.value.faults] == ["grams[1]", "grams[2]"]


def test_the_intervals_of_a_turn_are_named_as_its_fields_are():
    from lamination.steps import KINDS

    of = ranges(KINDS["turn"].of)
    assert of["seam_pct"] == (10, 90)
    assert of["trim.ends_mm"] == (0, 200)
    assert "fold" not in of
    assert ranges(KINDS["cut"].of)["products.base_mm"] == (10, 5_000)
