"""A sheet is rolled to a thickness, to a size, or to one side and a thickness; what is not chosen follows."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.amend import amend, scaled
from lamination.plan.amendment import Amendment, Change
from lamination.plan.fixes import taken
from lamination.plan.work import work
from lamination.search.folds import Search, Wish, suggest
from lamination.steps.last_sheet import LastSheet
from lamination.steps.turn import Turn
from lamination.terms.limits import Faults
from lamination.terms.said import plain
from lamination.terms.trade import Fold
from tests.plans import REST, station, turns

KITCHEN = Kitchen()


def rolled(**to):
    """The first turn's sheet."""
    first = Turn(Fold.LETTER, rest=REST, **to)
    return work(station(turns=(first, *turns("letter")))).steps[0].rolled


def volume(size):
    return size.length_mm * size.width_mm * size.thickness_mm


WHOLE = volume(rolled(roll_to_mm=8))


@settings(max_examples=16)
@given(st.floats(400, 1200), st.floats(235, 500))
def test_by_length_and_width_the_thickness_follows(length, width):
    size = rolled(length_mm=length, width_mm=width)
    assert (size.length_mm, size.width_mm) == pytest.approx((length, width), rel=1e-9)
    assert volume(size) == pytest.approx(WHOLE, rel=1e-9)


@given(st.floats(500, 1500), st.floats(5, 20))
@settings(max_examples=16)
def test_by_length_and_thickness_the_width_follows(length, thick):
    size = rolled(length_mm=length, roll_to_mm=thick)
    assert (size.length_mm, size.thickness_mm) == pytest.approx((length, thick), rel=1e-9)
    assert volume(size) == pytest.approx(WHOLE, rel=1e-9)


def test_by_length_alone_it_stays_as_wide_as_it_comes():
    by_thickness = rolled(roll_to_mm=8)
    by_length = rolled(length_mm=by_thickness.length_mm)
    assert by_length.width_mm == pytest.approx(by_thickness.width_mm)
    assert by_length.thickness_mm == pytest.approx(8)


@pytest.mark.parametrize(
    ("to", "field", "says"),
    [
        ({}, "roll_to_mm", "how thick it is rolled, or how long"),
        ({"width_mm": 300}, "roll_to_mm", "how thick it is rolled, or how long"),
        ({"roll_to_mm": 5, "width_mm": 300, "length_mm": 900}, "length_mm", "leave one empty"),
    ],
)
def test_too_little_and_too_much_are_refused_in_a_sentence(to, field, says):
    for make in (lambda **k: Turn(Fold.LETTER, **k), LastSheet):
        with pytest.raises(Faults) as refused:
            make(**to)
        (fault,) = refused.value.faults
        assert fault.field == field
        assert says in fault.message


def test_a_size_no_smaller_than_the_package_is_refused_at_the_length():
    with pytest.raises(Faults) as refused:
        rolled(length_mm=120)
    (fault,) = refused.value.faults
    assert fault.field.endswith("length_mm")
    assert "Roll it longer" in fault.message


def last(**to):
    plan = station()
    return plan.changed(plan.last_sheet, **{"roll_to_mm": None, "width_mm": None, **to})


def test_the_bench_reads_the_size_that_was_chosen_and_what_comes_of_it():
    stop = work(last(length_mm=1500, width_mm=400)).stop("final")
    said = [plain(t) for t in stop.does]
    assert said[0] == "Roll the last sheet to 1500 × 400 mm"
    assert said[1].startswith("It comes to 4.")


def test_another_mass_keeps_the_thickness_not_the_length():
    for to in ({"length_mm": 1500, "width_mm": 400}, {"length_mm": 1500, "roll_to_mm": 4},
               {"length_mm": 1500}):  # fmt: skip
        plan = last(**to)
        twice = scaled(plan, 2 * plan.dough.mass_g)
        before, after = work(plan).final, work(twice).final
        assert after.thickness_mm == pytest.approx(before.thickness_mm, rel=1e-3)


def test_as_many_pieces_as_are_wanted_from_a_sheet_by_its_size():
    plan = amend(last(length_mm=1500, width_mm=400), Amendment(Change.PIECES, value=90), KITCHEN)
    assert work(plan).cut.pieces >= 90


def test_a_piece_s_weight_by_the_thickness_gives_up_the_size():
    asked = Amendment(Change.PIECE_THICKNESS, index=0, value=60.0)
    plan = amend(last(length_mm=1500, width_mm=400), asked, KITCHEN)
    assert work(plan).cut.products[0].piece_g == pytest.approx(60, rel=0.01)
    assert plan.last_sheet.length_mm is None


def test_every_way_out_of_a_sheet_too_long_makes_it_fit():
    plan = last(length_mm=2600, width_mm=400)
    note = next(n for n in work(plan, KITCHEN).notes if n.code == "room" and n.stop == "final")
    assert note.tone == "mind"
    assert note.fixes
    for fix in note.fixes:
        tones = {
            n.tone for n in work(taken(plan, fix), KITCHEN).notes
            if (n.code, n.stop) == ("room", "final")
        }  # fmt: skip
        assert "mind" not in tones, plain(fix.label)


def test_folds_are_searched_by_the_thickness_that_comes_of_a_size():
    plan = last(length_mm=1500, width_mm=400)
    by_thickness = last(roll_to_mm=round(work(plan).final.thickness_mm, 2), width_mm=400)
    one, other = (suggest(p, Search(Wish.LEAVES, 3), KITCHEN) for p in (plan, by_thickness))
    assert [s.turns for s in one.suggestions] == [s.turns for s in other.suggestions]
    assert one.suggestions


def test_a_width_that_follows_and_is_less_than_the_package_s_is_said():
    plan = last(length_mm=2400, roll_to_mm=10)
    note = next(n for n in work(plan, KITCHEN).notes if n.code == "narrower")
    assert note.field.endswith("length_mm")
    for fix in note.fixes:
        left = [n.code for n in work(taken(plan, fix), KITCHEN).notes if n.stop == "final"]
        assert "narrower" not in left


def test_a_turn_by_size_is_worked_as_the_same_turn_by_thickness():
    size = rolled(roll_to_mm=8, width_mm=300)
    one = station(turns=(Turn(Fold.LETTER, 8, 300, rest=REST), *turns("letter")))
    first = Turn(Fold.LETTER, width_mm=300, length_mm=size.length_mm, rest=REST)
    other = replace(one, steps=station(turns=(first, *turns("letter"))).steps)
    assert work(other).layers.butter == work(one).layers.butter
    assert work(other).final.length_mm == pytest.approx(work(one).final.length_mm, rel=1e-6)
