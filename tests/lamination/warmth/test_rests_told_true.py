"""What was once said wrong of a rest, each held to the truth."""

from dataclasses import replace
from functools import partial
from importlib import import_module

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.heat.conduction import conduct
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.fixes import taken
from lamination.plan.starts import starting_plan
from lamination.terms.rests import Rest, Stay
from lamination.terms.said import plain
from lamination.terms.trade import Family, Place
from lamination.warmth.bodies import Around, Today
from lamination.warmth.follow import follow
from lamination.warmth.warmth import work_warmth
from lamination.warmth.windows import Cause, Condition, State, window_of
from tests.plans import station, turns

# many examples of what other tests cover: tracing them would only slow them
pytestmark = pytest.mark.no_cover

KITCHEN = Kitchen()


# --- rests


@pytest.mark.parametrize("minutes", [0.5, 5, 40])
def test_a_package_too_warm_is_not_cooled_at_its_first_minute(minutes):
    plan = station(turns=turns("letter", "letter", rest=Rest.at(Place.FRIDGE, minutes)))
    warm = Kitchen({"butter.at_lock_in_c": 21, "dough.mixed_c": 24, "fridge.c": 6})
    (window, *_) = [w for w in follow(plan, warm, Today(room_c=30)).windows if w.stop == "turn-1"]
    if window.butter_c > 20:
        assert window.verdict in ("short", "long")
    assert window.good_from_min is None or window.good_from_min > 0


@settings(max_examples=7)
@given(
    st.sampled_from([Place.BENCH, Place.FRIDGE, Place.FREEZER]),
    st.floats(5, 900), st.sampled_from(list(Family)), st.floats(15, 32),
)  # fmt: skip
def test_nothing_is_said_of_butter_that_is_not_in_yet(place, minutes, family, room):
    plan = starting_plan("Any", family, 2000, KITCHEN)
    first = next(s for s in plan.steps if s.do == "flatten")
    plan = plan.changed(first, rest=Rest.at(place, minutes))
    for window in follow(plan, KITCHEN, Today(room_c=room)).windows:
        if window.stop == first.id:
            assert window.butter_c is None
            assert "utter" not in window.says
            assert Cause.BRITTLE not in (window.by, window.until_by, window.from_by)
            if window.middle_c < -5:
                # frozen dough neither wakes nor ripens: it is frozen
                assert window.by is not Cause.RISING


def test_ten_hours_in_the_freezer_and_straight_to_the_lock_in_is_minded():
    plan = starting_plan("Frozen", Family.CROISSANT, 2000, KITCHEN)
    first = next(s for s in plan.steps if s.do == "flatten")
    plan = plan.changed(first, rest=Rest.at(Place.FREEZER, 600))
    found = work_warmth(plan, KITCHEN, Today(room_c=21))
    window = next(w for w in found.windows if w.stop == first.id)
    assert (window.verdict, window.by) == ("long", Cause.FROZEN)
    note = next(n for n in found.notes if n.stop == first.id and n.tone == "mind")
    assert note.fixes
    for fix in note.fixes:
        mended = follow(taken(plan, fix), KITCHEN, Today(room_c=21))
        now = next(w for w in mended.windows if w.stop == first.id)
        assert now.verdict in ("good", "tight"), plain(fix.label)


COLDER = {"freezer": 0, "fridge": 1, "bench": 2, "proofer": 3}


@settings(max_examples=4)
@given(st.sampled_from([Place.BENCH, Place.FRIDGE, Place.FREEZER]), st.floats(5, 400),
       st.floats(17, 30))  # fmt: skip
def test_a_place_that_is_offered_instead_is_on_the_right_side(place, minutes, room):
    plan = station(turns=turns("letter", "letter", rest=Rest.at(place, minutes)))
    for note in work_warmth(plan, KITCHEN, Today(room_c=room)).notes:
        stop = next((w for w in follow(plan, KITCHEN, Today(room_c=room)).windows
                     if w.stop == note.stop), None)  # fmt: skip
        if stop is None or note.tone != "mind":
            continue
        for fix in note.fixes:
            step = next((s for s in taken(plan, fix).steps if s.id == note.stop), None)
            if step is None or step.rest is None or step.rest.stays[step.gives].place is place:
                continue
            warmer = COLDER[step.rest.stays[step.gives].place] > COLDER[place]
            if stop.by in (Cause.SOFT, Cause.COOLING, Cause.RISING, Cause.RIPE, Cause.COLD):
                assert not warmer, plain(fix.label)
            if stop.by in (Cause.BRITTLE, Cause.FROZEN):
                assert warmer, plain(fix.label)


def test_ice_never_warms_what_lies_in_a_freezer():
    iced = Stay(Place.FREEZER, 30, iced=True)
    _, over = Around(KITCHEN).lies(iced, 0.0)
    assert over.t_c == KITCHEN["freezer.c"]
    _, in_fridge = Around(KITCHEN).lies(replace(iced, place=Place.FRIDGE), 0.0)
    assert in_fridge.t_c == KITCHEN["ice.c"]


def test_marks_are_read_between_the_moments_that_were_worked():
    """A margin that is straight in time crosses zero where it crosses it, not at the next moment."""
    minutes = np.arange(0, 100.0, 7.0)
    state = State(minutes, np.full_like(minutes, 8.0), None)
    cools = Condition(Cause.COLD, True, minutes - 33.3, minutes - 20.1)
    stays = Condition(Cause.RIPE, False, 71.9 - minutes, 80.2 - minutes)
    window = window_of("dough", 50, state, [cools, stays])
    marks = (
        window.possible_from_min,
        window.good_from_min,
        window.good_until_min,
        window.possible_until_min,
    )
    assert marks == pytest.approx((20.1, 33.3, 71.9, 80.2), abs=1e-9)


@pytest.mark.parametrize("place", [Place.FRIDGE, Place.FREEZER])
def test_windows_agree_with_finer_steps(place, monkeypatch):
    plan = station(turns=turns("letter", "letter", rest=Rest.at(place, 40)))
    coarse = follow(plan, KITCHEN, Today(room_c=22)).windows
    finer = partial(conduct, finer=8.0)
    monkeypatch.setattr(import_module("lamination.warmth.scene"), "conduct", finer)
    fine = follow(plan, KITCHEN, Today(room_c=22, fridge_c=KITCHEN["fridge.c"])).windows
    for a, b in zip(coarse, fine, strict=True):
        for mark in ("possible_from_min", "good_from_min", "good_until_min", "possible_until_min"):
            one, other = getattr(a, mark), getattr(b, mark)
            assert (one is None) == (other is None)
            if one is not None:
                assert one == pytest.approx(other, abs=0.15), (a.stop, mark)


# --- tempering


def test_letting_it_stand_is_judged_by_how_it_is_at_the_end():
    cold = Rest((Stay(Place.FREEZER, 42), Stay(Place.BENCH, 18)))
    plan = station(turns=turns("letter", "letter", rest=cold))
    straight = station(turns=turns("letter", "letter", rest=Rest.at(Place.FREEZER, 60)))
    today = Today(room_c=21)
    (w, *_) = [w for w in follow(plan, KITCHEN, today).windows if w.stop == "turn-1"]
    (v, *_) = [w for w in follow(straight, KITCHEN, today).windows if w.stop == "turn-1"]
    assert w.butter_c > v.butter_c
    assert w.verdict != "long" or w.by is not Cause.BRITTLE
