"""Sheeter passes, sizes on the way by hand, and what fits where."""

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.dough.recipe import Dough
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.machines import Sheeter, sheeter_of
from lamination.plan.work import work
from lamination.sheet.passes import passes, rolling
from lamination.steps.last_sheet import LastSheet
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.sizes import Size
from lamination.terms.trade import Place
from tests.plans import station, turns

MACHINE = Sheeter(2400, 600, 40, 1, 0.5, 0.7, 0.8, 1.1)
WITH_SHEETER = Kitchen({"sheeter.belt_width_mm": 600})


def test_a_package_of_24_mm_goes_to_8_in_six_passes():
    # 0.7 of the gap above 10 mm, 0.8 below, up to the next half: 17, 12, 8.5; 7.5 gives 8.2 mm
    assert passes(24, 8, MACHINE) == (17, 12, 8.5, 7.5)


@given(
    st.floats(3, 120),
    st.floats(0.05, 0.95),
    st.sampled_from([0.1, 0.25, 0.5, 1, 2]),
    st.floats(0.5, 0.9),
)
def test_passes_fall_stay_on_the_dial_and_never_press_too_hard(start, part, step, share):
    machine = replace(MACHINE, step_mm=step, share_thick=share, share_thin=share)
    gaps = passes(start, start * part, machine)
    assert all(gap / step == pytest.approx(round(gap / step)) for gap in gaps)
    assert all(later < earlier for earlier, later in pairwise(gaps))
    before = [min(start, machine.widest_mm), *gaps]
    for last, gap in pairwise(before):
        assert gap >= share * last - 1e-9 or last - gap <= step + 1e-9
    wanted = max(start * part / machine.spring_back, machine.narrowest_mm, step)
    if gaps and wanted < min(start, machine.widest_mm) - step:
        assert abs(gaps[-1] - wanted) <= step


def test_a_package_thicker_than_the_widest_gap_is_flattened_first():
    how = rolling(Size(300, 230, 55), Size(1500, 230, 11), MACHINE)
    assert how.flatten_to_mm == 40
    assert how.gaps_mm[0] == 40
    assert how.gives_mm == pytest.approx(11, abs=0.4)


def test_by_hand_the_width_comes_first_and_then_thirds_of_the_length():
    how = rolling(Size(300, 200, 40), Size(1500, 320, 5), None)
    assert how.gaps_mm == ()
    assert [(round(s.length_mm), round(s.width_mm)) for s in how.by_hand] == [
        (300, 320),
        (700, 320),
        (1100, 320),
    ]
    assert all(s.volume_mm3 == pytest.approx(300 * 200 * 40) for s in how.by_hand)


def test_without_a_belt_there_is_no_sheeter():
    assert sheeter_of(Kitchen()) is None
    assert work(station()).steps[0].rolling.gaps_mm == ()
    assert work(station(), WITH_SHEETER).steps[0].rolling.gaps_mm[-1] == 7.5


def test_a_sheeter_s_belt_is_what_a_sheet_must_lie_on():
    titles = {plain(n.title) for n in work(station(), WITH_SHEETER).notes if n.stop == "turn-1"}
    assert "Fits the belt" in titles
    short = Kitchen({"sheeter.belt_width_mm": 600, "sheeter.belt_length_mm": 1200})
    note = next(n for n in work(station(), short).notes if plain(n.title).endswith("for the belt"))
    assert note.tone == "mind"
    assert any(fix.label.startswith("Divide") for fix in note.fixes)


def test_a_package_that_hangs_over_the_shelf_says_by_how_much():
    small = Kitchen({"shelf.length_mm": 400, "shelf.width_mm": 400})
    resting = station(turns=turns("letter", rest=Rest.at(Place.FRIDGE, 30)))
    note = next(n for n in work(resting, small).notes if plain(n.title).endswith("over the shelf"))
    folded = work(resting).steps[0].folded
    assert (
        plain(note.title) == f"{max(folded.length_mm, folded.width_mm) - 400:.0f} mm over the shelf"
    )
    on_the_bench = station(turns=turns("letter", rest=Rest.at(Place.BENCH, 30)))
    assert not [n for n in work(on_the_bench, small).notes if "shelf" in plain(n.title)]


def test_a_sheet_wider_than_the_pin_is_known_by_hand_only():
    wide = station(last_sheet=LastSheet(4, width_mm=640), dough=Dough(2400))
    assert any(plain(n.title) == "Wider than the pin" for n in work(wide).notes)
    machine = Kitchen({"sheeter.belt_width_mm": 700})
    assert not [n for n in work(wide, machine).notes if plain(n.title) == "Wider than the pin"]


# --- the house's own steps


TWOS = (40.0, 28.0, 20.0, 14.0, 10.0, 8.0, 6.0, 5.0, 4.0)


@pytest.mark.parametrize(
    ("start", "to", "gaps"),
    [
        (24, 8.8, (20, 14, 10, 8)),
        (55, 11, (40, 28, 20, 14, 10)),
        # between two of its steps: the last is what the sheet wants
        (12, 7.7, (10, 8, 7)),
        (9, 8.8, (8,)),
    ],
)
def test_a_house_with_steps_of_its_own_goes_through_those(start, to, gaps):
    own = replace(MACHINE, dial_mm=TWOS, spring_back=1.1, step_mm=0.5, widest_mm=40)
    assert passes(start, to, own) == gaps


def test_the_steps_are_the_kitchen_s_and_the_plan_s_passes_follow():
    belt = {"sheeter.belt_width_mm": 600, "sheeter.belt_length_mm": 2_400}
    plan = station(turns=turns("letter", "letter", roll_to_mm=8.8))
    usual = work(plan, Kitchen(belt)).steps[0].rolling.gaps_mm
    own = work(plan, Kitchen(belt, dial=(12, 24, 8, 16))).steps[0].rolling.gaps_mm
    assert usual == (40, 28, 20, 14, 10, 8)
    assert own == (40, 24, 16, 12, 8)
    with pytest.raises(Faults, match="from") as wrong:
        Kitchen(dial=(40, 0))
    assert wrong.value.faults[0].field == "dial[1]"
