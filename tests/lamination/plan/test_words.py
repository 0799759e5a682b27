"""The sentences of a worked plan: complete, and with the plan's own figures in them."""

import re
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.dough.recipe import Butter, Dough
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import DEFAULTS
from lamination.pieces.products import Product, Shape
from lamination.pieces.shaping import Card
from lamination.plan.starts import starting_finish
from lamination.plan.work import work
from lamination.steps.cut import Cut
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.turn import Turn
from lamination.terms.limits import Faults
from lamination.terms.said import plain
from lamination.terms.trade import Family, Fold, Method
from tests.plans import REST, changed, station, turns

products = st.builds(
    lambda shape, base, tall, rows, card: Product(
        "Piece",
        shape,
        base,
        tall if shape.has_height else None,
        hole_mm=15 if shape is Shape.RING else 0,
        rows=rows,
        card=card,
    ),
    st.sampled_from(list(Shape)),
    st.floats(40, 200),
    st.floats(40, 300),
    st.integers(0, 3),
    st.sampled_from(list(Card)),
)
plans = st.builds(
    lambda family, dough, share, method, side, folds, roll, last, width, cut, finished: station(
        family=family,
        dough=Dough(dough),
        butter=Butter(dough * share),
        lock_in=LockIn(method, side, side),
        turns=tuple(Turn(f, roll, rest=REST) for f in folds),
        last_sheet=LastSheet(last, width_mm=width),
        cut=cut,
        finish=starting_finish(family) if finished and cut else None,
    ),
    st.sampled_from(list(Family)),
    st.floats(300, 9000),
    st.floats(0.1, 1.1),
    st.sampled_from(list(Method)),
    st.floats(80, 500),
    st.lists(st.sampled_from(list(Fold)), max_size=8),
    st.floats(3, 12),
    st.floats(1.5, 6),
    st.none() | st.floats(100, 900),
    st.none() | st.builds(Cut, st.lists(products, min_size=1, max_size=3).map(tuple),
                          st.floats(0, 4), trim_mm=st.floats(0, 30)),
    st.booleans(),
)  # fmt: skip


@given(plans)
def test_every_sentence_of_any_plan_is_whole(plan):
    try:
        worked = work(plan)
    except Faults as wrong:
        # The only thing such a plan can have wrong is a roll that is not thinner.
        assert all("is not thinner" in f.message for f in wrong.faults)
        return
    sentences = [
        *(plain(n.text) for n in worked.notes),
        *(plain(w.text) for w in worked.workings),
        *(plain(line) for s in worked.strip for line in s.does[1:]),
        *(s.caution for s in worked.strip),
    ]
    for text in sentences:
        assert text[0].isupper() or text[0].isdigit(), text
        assert text.endswith("."), text
        assert not re.search(r"\bnan\b|\binf\b|None|\{|\}|  ", text), text
    for stop in worked.strip:
        assert stop.does[0]
        assert not stop.does[0].endswith(".")
    keys = {s.key for s in worked.strip}
    assert {n.stop for n in worked.notes} <= keys


@given(plans)
def test_the_most_pressing_advice_of_a_stop_comes_first(plan):
    try:
        notes = work(plan).notes
    except Faults:
        return
    rank = {"mind": 0, "tight": 1, "know": 2, "good": 3}
    for stop in {n.stop for n in notes}:
        tones = [rank[n.tone] for n in notes if n.stop == stop]
        assert tones == sorted(tones)


def test_a_turn_says_its_size_fold_and_marks():
    stop = work(station(turns=turns("letter", "book"))).strip[3]
    stop = replace(stop, does=tuple(plain(line) for line in stop.does))
    assert stop.does[0] == "Roll to 8 mm"
    assert "690 × 513 mm" in stop.does[1]
    assert "Book fold: both ends to the middle" in stop.does[2]
    assert stop.does[3].endswith("Press 2 marks.")


def test_the_lock_in_says_block_dough_and_how_to_close_it():
    for method, says in (
        (Method.HALF, "Bring the bare half over"),
        (Method.TWO_THIRDS, "The bare third comes over first"),
        (Method.ENVELOPE, "Bring the four corners to the middle"),
    ):
        does = [plain(d) for d in work(station(lock_in=LockIn(method, 250, 250))).strip[1].does]
        assert does[0] == "Lock in 650 g of butter"
        assert "250 × 250 mm, 11.1 mm thick" in does[1]
        assert says in does[-1]


def test_an_envelope_says_whether_its_corners_meet_or_overlap():
    def titles(overlap):
        lock_in = LockIn(Method.ENVELOPE, 250, 250, overlap_mm=overlap)
        return {plain(n.title) for n in work(station(lock_in=lock_in)).notes if n.stop == "lock_in"}

    assert "Corners that meet" in titles(0)
    assert "Flaps that overlap" in titles(10)
    assert "Butter to every edge" not in titles(0) | titles(10)


def test_the_last_sheet_says_width_first_only_when_one_is_wanted():
    assert "First 400 mm wide, then 1771 mm long." in [
        plain(line) for line in work(station()).strip[-2].does
    ]
    free = work(station(last_sheet=LastSheet(4))).strip[-2].does
    assert not any("First" in line for line in free)


def test_a_sheet_that_is_too_wide_says_so():
    wide = work(station(dough=Dough(9000), last_sheet=LastSheet(4, width_mm=900), cut=None))
    note = next(n for n in wide.notes if n.stop == "final" and n.tone == "mind")
    assert plain(note.title) == "100 mm too wide for the bench"
    assert any(plain(f.label).startswith("Divide the dough in 2") for f in note.fixes)


@pytest.mark.parametrize("key", sorted(k for k in DEFAULTS if k.endswith(".low")))
def test_every_range_in_the_table_has_both_ends_the_right_way_round(key):
    low, high = DEFAULTS[key], DEFAULTS[key.replace(".low", ".high")]
    assert low.low <= low.value < high.value <= high.high
    assert low.unit == high.unit
    assert low.origin == high.origin


def test_advice_follows_a_range_that_the_bakery_has_changed():
    plan = station()
    narrow = Kitchen({"croissant.butter_layers.high": 20})
    assert not any(plain(n.title) == "More leaves than usual" for n in work(plan).notes)
    note = next(n for n in work(plan, narrow).notes if plain(n.title) == "More leaves than usual")
    assert "16 to 20" in plain(note.text)


def test_the_working_of_the_pieces_counts_them():
    plan = changed(station(), last_sheet=LastSheet(4, width_mm=560))
    worked = work(plan)
    text = next(w.text for w in worked.workings if w.of == "cut.pieces")
    assert text.startswith(f"2 × {worked.cut.per_strip}:")
