"""Whatever the plan, the room and the fridge: the physics stays possible and every sentence is whole."""

import math
import re
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.dough.recipe import Butter
from lamination.kitchen.kitchen import Kitchen
from lamination.steps.flatten import Flattening
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.terms.rests import Rest, Stay
from lamination.terms.said import plain
from lamination.terms.trade import Fold, Method, Place
from lamination.warmth.bodies import Today
from lamination.warmth.follow import follow
from lamination.warmth.warmth import work_warmth
from tests.plans import changed, formula, station, turns

# many examples of what other tests cover: tracing them would only slow them
pytestmark = pytest.mark.no_cover

places = st.sampled_from(list(Place))
minutes = st.integers(1, 400)


@st.composite
def rests(draw):
    stay = st.builds(
        Stay, places, minutes, covered=st.none() | st.booleans(),
        air_c=st.none() | st.integers(-20, 40), to_c=st.none() | st.integers(-20, 40),
    )  # fmt: skip
    return Rest(tuple(draw(st.lists(stay, min_size=1, max_size=4))))


@st.composite
def plans(draw):
    folds = draw(st.lists(st.sampled_from(list(Fold)), min_size=1, max_size=3))
    chosen = [replace(t, rest=draw(st.none() | rests())) for t in turns(*folds, roll_to_mm=8)]
    return station(
        formula=draw(st.sampled_from([None, formula()])),
        flatten=Flattening(rest=draw(st.none() | rests())),
        butter=Butter(650, ingredient=draw(st.sampled_from(["butter-table", "butter-sheet"]))),
        lock_in=LockIn(
            draw(st.sampled_from([Method.HALF, Method.TWO_THIRDS, Method.INVERSE])),
            block_width_mm=300,
            block_length_mm=300,
            rest=draw(st.none() | rests()),
        ),
        turns=tuple(chosen),
        last_sheet=LastSheet(3, rest=draw(st.none() | rests())),
        cut=None,
    )


today = st.builds(
    Today,
    room_c=st.floats(2, 40),
    fridge_c=st.floats(-2, 20),
    freezer_c=st.floats(-35, -5),
)


@settings(max_examples=7, deadline=None)
@given(plans(), today)
def test_nothing_is_colder_than_the_coldest_place_or_warmer_than_the_warmest(plan, today):
    found = follow(plan, Kitchen(), today)
    held = [t for row in found.trace.cells_c for t in row]
    stays = [stay for step in plan.steps if step.rest for stay in step.rest.stays]
    set_c = [t for stay in stays for t in (stay.air_c, stay.to_c) if t is not None]
    places = [today.room_c, today.fridge_c, today.freezer_c, Kitchen()["proofer.c"], *set_c]
    # what rolling adds, a kelvin a turn; the dough comes from the mixer, the butter to the lock-in
    warmest = max(*places, 26) + 1 + len(plan.turns)
    assert min(*places, 12) - 0.5 <= min(held)
    assert max(held) <= warmest + 0.5
    assert all(math.isfinite(t) for t in held)


@settings(max_examples=7, deadline=None)
@given(plans(), today)
def test_every_rest_has_one_window_and_its_times_are_in_order(plan, today):
    found = follow(plan, Kitchen(), today)
    resting = [step.rest for step in plan.steps if step.rest and step.rest.minutes > 0]
    assert len(found.windows) == len(resting)
    for window in found.windows:
        marks = [
            window.possible_from_min,
            window.good_from_min,
            window.best_min,
            window.good_until_min,
            window.possible_until_min,
        ]
        known = [m for m in marks if m is not None]
        assert known == sorted(known)
        if window.verdict == "good":
            assert window.good_from_min - 0.5 <= window.chosen_min
        assert (window.verdict in ("short", "long")) <= (window.by is not None)
    for clock in found.clocks:
        assert clock.lasts_min is None or clock.lasts_min >= 0


@settings(max_examples=7, deadline=None)
@given(plans(), today)
def test_every_sentence_is_whole(plan, today):
    found = work_warmth(plan, Kitchen(), today)
    sentences = [
        plain(found.summary),
        *(plain(w.says) for w in found.windows),
        *(plain(n.text) for n in found.notes),
    ]
    if found.proof:
        sentences.append(plain(found.proof.says))
    for text in sentences:
        assert " h 60" not in text
        assert re.fullmatch(r"[A-Z].*[.]", text, re.S), text
        assert not re.search(r"None|nan|inf\b|  |\.\.|-0 ", text), text
    for note in found.notes:
        assert plain(note.title)
        assert not plain(note.title).endswith(".")
        assert len({fix.label for fix in note.fixes}) == len(note.fixes)


@settings(max_examples=4, deadline=None)
@given(plans(), st.floats(6, 30), st.floats(2, 8))
def test_a_warmer_room_never_lets_the_butter_work_longer_on_the_bench(plan, room, more):
    """At the first turn, before rests of the plan can even things out."""
    plan = changed(
        plan, flatten=Flattening(), lock_in=replace(plan.lock_in, rest=None), formula=None, mix=None
    )
    kitchen = Kitchen({"dough.mixed_c": 8})
    lasts = [
        next(
            c for c in follow(plan, kitchen, Today(room_c=c)).clocks if c.stop == "turn-1"
        ).lasts_min
        for c in (room, room + more)
    ]
    assert lasts[1] is not None or lasts[0] is None
    if None not in lasts:
        assert lasts[1] <= lasts[0] + 0.3
