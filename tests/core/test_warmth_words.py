"""Whatever the plan, the room and the fridge: the physics stays possible and every sentence is whole."""

import math
import re
from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Butter, Dough, Final, LockIn
from lamination.sheet.folds import Fold
from lamination.sheet.lockin import Method
from lamination.terms.rests import Place, Rest, Stay
from lamination.warmth.cold import Today, follow
from lamination.warmth.warmth import work_warmth

from .formulas import formula
from .plans import station, turns

places = st.sampled_from(list(Place))
minutes = st.integers(1, 400)


@st.composite
def rests(draw):
    whole = draw(minutes)
    first = draw(st.none() | st.builds(Stay, places, st.integers(0, max(whole // 3, 1))))
    last = draw(st.none() | st.builds(Stay, places, st.integers(0, max(whole // 3, 1))))
    if whole < 6:
        first = last = None
    return Rest(draw(places), whole, first, last)


@st.composite
def plans(draw):
    folds = draw(st.lists(st.sampled_from(list(Fold)), min_size=1, max_size=3))
    chosen = [replace(t, rest=draw(st.none() | rests())) for t in turns(*folds, roll_to_mm=8)]
    return station(
        formula=draw(st.sampled_from([None, formula()])),
        dough=Dough(2400, rest=draw(st.none() | rests())),
        butter=Butter(650, ingredient=draw(st.sampled_from(["butter-table", "butter-sheet"]))),
        lock_in=LockIn(
            draw(st.sampled_from([Method.HALF, Method.TWO_THIRDS, Method.INVERSE])),
            300,
            300,
            rest=draw(st.none() | rests()),
        ),
        turns=tuple(chosen),
        final=Final(3, rest=draw(st.none() | rests())),
        cut=None,
    )


today = st.builds(
    Today,
    room_c=st.floats(2, 40),
    fridge_c=st.floats(-2, 20),
    freezer_c=st.floats(-35, -5),
)


@settings(max_examples=20, deadline=None)
@given(plans(), today)
def test_nothing_is_colder_than_the_coldest_place_or_warmer_than_the_warmest(plan, today):
    found = follow(plan, Kitchen(), today)
    held = [t for row in found.trace.cells_c for t in row]
    places = [today.room_c, today.fridge_c, today.freezer_c]
    # what rolling adds, a kelvin a turn; the dough comes from the mixer, the butter to the lock-in
    warmest = max(*places, 26) + 1 + len(plan.turns)
    assert min(*places, 12) - 0.5 <= min(held)
    assert max(held) <= warmest + 0.5
    assert all(math.isfinite(t) for t in held)


@settings(max_examples=20, deadline=None)
@given(plans(), today)
def test_every_rest_has_one_window_and_its_times_are_in_order(plan, today):
    found = follow(plan, Kitchen(), today)
    resting = [t.rest for t in plan.turns] + [plan.dough.rest, plan.lock_in.rest, plan.final.rest]
    mixing = plan.formula.mixing.rest if plan.formula else None
    assert len(found.windows) == sum(bool(r and r.minutes > 0) for r in [*resting, mixing])
    for window in found.windows:
        if window.soonest_min is None:
            assert window.best_min is None
            assert window.verdict != "good"
        else:
            assert window.best_min >= window.soonest_min - 1e-9
            if window.latest_min is not None and window.latest_min >= window.soonest_min:
                assert window.best_min <= window.latest_min + 1e-9
        if window.verdict == "good":
            assert window.soonest_min - 0.5 <= window.chosen_min
    for clock in found.clocks:
        assert clock.lasts_min is None or clock.lasts_min >= 0


@settings(max_examples=20, deadline=None)
@given(plans(), today)
def test_every_sentence_is_whole(plan, today):
    found = work_warmth(plan, Kitchen(), today)
    sentences = [found.summary, *(w.says for w in found.windows), *(n.text for n in found.notes)]
    if found.proof:
        sentences.append(found.proof.says)
    for text in sentences:
        assert " h 60" not in text
        assert re.fullmatch(r"[A-Z].*[.]", text, re.S), text
        assert not re.search(r"None|nan|inf\b|  |\.\.|-0 ", text), text
    for note in found.notes:
        assert note.title
        assert not note.title.endswith(".")
        assert len({fix.label for fix in note.fixes}) == len(note.fixes)


@settings(max_examples=15, deadline=None)
@given(plans(), st.floats(6, 30), st.floats(2, 8))
def test_a_warmer_room_never_lets_the_butter_work_longer_on_the_bench(plan, room, more):
    """At the first turn, before rests of the plan can even things out."""
    plan = replace(plan, dough=Dough(2400), lock_in=replace(plan.lock_in, rest=None), formula=None)
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
