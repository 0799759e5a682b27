"""Blocks and what happens to them: mass is conserved, dates follow the place, nothing is taken twice."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.store import (
    Block,
    BlockChange,
    ChangeKind,
    Holds,
    admit,
    keeping,
    stand,
    state_of,
    thrown,
    what_it_is,
)
from lamination.terms.limits import Faults
from lamination.terms.said import plain
from lamination.terms.trade import Family, Place

AT = datetime(2026, 11, 28, 6, tzinfo=UTC)
K = ChangeKind


def block(**more):
    of = {
        "id": "block-0001", "holds": Holds.DOUGH, "name": "Market croissant", "grams": 2400.0,
        "butter_g": 500.0, "place": Place.FREEZER, "since": AT, "best_before": AT + timedelta(days=7),
        "fridge_h": 24.0, "turns": 3,
    }  # fmt: skip
    return Block(**(of | more))


def change(kind, minutes=10.0, n=[0], **more):  # noqa: B006 - counts
    n[0] += 1
    return BlockChange(f"change-{n[0]:05}", AT + timedelta(minutes=minutes), kind, **more)


def said(of, *changes):
    """Each admitted after those before it."""
    there = ()
    for one in changes:
        admit(of, there, one)
        there = (*there, one)
    return there


def field_of(call):
    with pytest.raises(Faults) as wrong:
        call()
    return wrong.value.faults[0].field, wrong.value.faults[0].message


def test_a_block_that_goes_into_the_fridge_keeps_as_long_as_one_keeps_there_and_never_longer():
    moved = change(K.MOVED, 60, place=Place.FRIDGE, shelf=2)
    now = stand(block(), (moved,))
    assert (now.place, now.shelf, now.frozen) == (Place.FRIDGE, 2, False)
    assert now.best_before == moved.at + timedelta(hours=24)
    late = change(K.MOVED, 60 * 24 * 6.5, place=Place.FRIDGE, shelf=1)
    assert stand(block(), (late,)).best_before == block().best_before
    # to another shelf of the same place it is as it was
    assert stand(block(), (change(K.MOVED, place=Place.FREEZER, shelf=3),)).moved_at == AT


def test_what_is_cut_off_takes_its_share_of_butter_and_pieces_and_the_rest_stays():
    of = block(pieces=40, holds=Holds.RAW)
    cut = change(K.DIVIDED, grams=600.0, part="block-0002")
    now = stand(of, said(of, cut))
    part = of.divided("block-0002", 600.0)
    assert (now.grams, now.pieces) == (1800, 30)
    assert (part.grams, part.butter_g, part.pieces, part.of) == (600, 125, 10, of.id)
    assert now.butter_g + part.butter_g == pytest.approx(of.butter_g)


def test_whoever_comes_second_is_told_who_was_first():
    of = block()
    first, second = change(K.TAKEN), change(K.TAKEN, 11)
    field, says = field_of(lambda: admit(of, (first,), second, "C4", {first.id: "tansy"}))
    assert field == "kind"
    assert says.startswith("C4 was taken out at ")
    assert "by tansy" in says


@pytest.mark.parametrize(
    ("one", "field"),
    [
        (change(K.THROWN, grams=2500.0, why="sour"), "grams"),
        (change(K.DIVIDED, grams=2400.0, part="block-0002"), "grams"),
        (change(K.USED, grams=2400.2), "grams"),
        (change(K.DATED, until=AT), "until"),
        (change(K.WANTED, until=AT), "until"),
        (change(K.MOVED, -30, place=Place.FRIDGE, shelf=1), "at"),
        (change(K.UNDO, target="change-none"), "target"),
    ],
)
def test_what_cannot_be_is_said_beside_its_field(one, field):
    assert field_of(lambda: admit(block(), (), one))[0] == field


@pytest.mark.parametrize(
    ("make", "field"),
    [
        (lambda: block(best_before=AT), "best_before"),
        (lambda: block(place=Place.BENCH), "place"),
        (lambda: block(butter_g=2500.0), "butter_g"),
        (lambda: block(since=AT.replace(tzinfo=None)), "since"),
        (lambda: block(grams=0.0), "grams"),
        (lambda: change(K.MOVED), "place"),
        (lambda: change(K.THROWN), "why"),
        (lambda: change(K.MOVED, place=Place.PROOFER, shelf=1), "place"),
        (lambda: change(K.WANTED, by=Place.FREEZER), "by"),
    ],
)
def test_a_block_and_a_change_say_what_is_wrong_with_them(make, field):
    assert field_of(make)[0] == field


def test_what_was_undone_was_never_said():
    of = block()
    away = change(K.THROWN, why="dropped")
    there = said(of, away, change(K.UNDO, target=away.id))
    now = stand(of, there)
    assert (now.gone, now.grams, now.ledger.thrown_g) == (None, 2400, 0)
    assert now.history[0].undone
    assert thrown(of, there, AT) == []


def test_a_division_is_not_undone_once_its_part_was_used():
    of = block()
    cut = change(K.DIVIDED, grams=600.0, part="block-0002")
    back = change(K.UNDO, target=cut.id)
    admit(of, (cut,), back)
    field, _ = field_of(lambda: admit(of, (cut,), back, parts_touched=frozenset({"block-0002"})))
    assert field == "target"


def test_what_was_thrown_away_is_said_by_its_reason():
    of = block()
    there = said(
        of, change(K.THROWN, grams=300.0, why="sour"), change(K.USED, grams=100.0),
        change(K.THROWN, why="dropped"),
    )  # fmt: skip
    assert thrown(of, there, AT) == [("sour", 300), ("dropped", 2000)]
    assert thrown(of, there, AT + timedelta(days=1)) == []


def test_its_state_is_a_word_for_every_hour():
    of = block()
    now = stand(of, ())
    assert state_of(of, now, AT) == "7 days left"
    assert state_of(of, now, AT + timedelta(days=6, hours=1)) == "use today"
    assert state_of(of, now, AT + timedelta(days=7, minutes=1)) == "past its date"
    assert state_of(of, stand(of, (change(K.TAKEN),)), AT) == "taken out"
    assert what_it_is(of, now) == "3 turns"
    raw = block(holds=Holds.RAW, pieces=40)
    assert what_it_is(raw, stand(raw, ())) == "40 raw pieces"


deeds = st.lists(
    st.tuples(
        st.sampled_from([K.USED, K.THROWN, K.DIVIDED, K.WEIGHED, K.TAKEN, K.MOVED, K.UNDO, K.DATED]),
        st.integers(0, 9), st.floats(0.5, 1500),
    ),
    max_size=14,
)  # fmt: skip


@given(deeds)
def test_mass_is_conserved_over_any_history_of_two_tablets(history):
    """Whatever two tablets say of blocks and their parts, in whatever order it comes in: every gram is
    left, taken, used, thrown away, cut off, or was found by the scales.
    """
    blocks = {"block-0000": block(id="block-0000")}
    there = {"block-0000": ()}
    put = 2400.0
    for n, (kind, which, grams) in enumerate(history):
        key = list(blocks)[which % len(blocks)]
        of, so_far = blocks[key], there[key]
        more = {}
        if kind in (K.USED, K.THROWN, K.DIVIDED, K.WEIGHED):
            more["grams"] = grams
        if kind is K.THROWN:
            more["why"] = "sour"
        if kind is K.DIVIDED:
            more["part"] = f"block-{n + 1:04}"
        if kind is K.MOVED:
            more |= {"place": Place.FRIDGE, "shelf": 1}
        if kind is K.DATED:
            more["until"] = AT + timedelta(days=2)
        if kind is K.UNDO:
            more["target"] = stand(of, so_far).undoable
        if kind is K.UNDO and more["target"] is None:
            continue
        new = change(kind, n, **more)
        touched = frozenset(k for k, v in there.items() if v)
        try:
            admit(of, so_far, new, parts_touched=touched)
        except Faults:
            continue
        if kind is K.DIVIDED:
            blocks[new.part] = of.divided(new.part, grams)
            there[new.part] = ()
        if kind is K.UNDO:
            what = next(c for c in so_far if c.id == new.target)
            if what.part:
                del blocks[what.part], there[what.part]
        there[key] = (*so_far, new)
    books = [stand(of, there[key]).ledger for key, of in blocks.items()]
    for b in books:
        gone = b.taken_g + b.used_g + b.thrown_g + b.divided_g
        assert b.put_g + b.found_g == pytest.approx(b.left_g + gone)
    out = sum(b.taken_g + b.used_g + b.thrown_g - b.found_g for b in books)
    assert put == pytest.approx(sum(b.left_g for b in books) + out)


@pytest.mark.parametrize(
    ("holds", "family", "place", "more", "hours"),
    [
        (Holds.DOUGH, Family.CROISSANT, Place.FRIDGE, {}, 24),
        (Holds.DOUGH, Family.PUFF, Place.FRIDGE, {}, 96),
        (Holds.DOUGH, Family.CROISSANT, Place.FREEZER, {}, 7 * 24),
        (Holds.DOUGH, Family.CROISSANT, Place.FREEZER, {"oils_c": 23.0}, 14 * 24),
        (Holds.DOUGH, Family.PUFF, Place.FREEZER, {}, 60 * 24),
        (Holds.DOUGH, Family.PUFF, Place.FREEZER, {"oils_c": 23.0}, 180 * 24),
        (Holds.RAW, Family.DANISH, Place.FRIDGE, {}, 16),
        (Holds.RAW, Family.PUFF, Place.FRIDGE, {"filled": True}, 24),
        (Holds.BAKED, Family.PUFF, Place.FREEZER, {}, 30 * 24),
        (Holds.TRIMMINGS, Family.KOUIGN, Place.FRIDGE, {}, 24),
        (Holds.BUTTER, Family.PUFF, Place.FRIDGE, {}, 30 * 24),
    ],
)
def test_how_long_it_keeps_is_a_row_and_says_which(holds, family, place, more, hours):
    kitchen = Kitchen()
    found = keeping(holds, family, place, kitchen, **more)
    assert found.hours == hours
    changed = kitchen.changed({row: kitchen[row] / 2 for row in found.rows})
    assert keeping(holds, family, place, changed, **more).hours == hours / 2
    with pytest.raises(ValueError, match="proofer"):
        keeping(holds, family, Place.PROOFER, kitchen)


@pytest.mark.parametrize(
    ("one", "says"),
    [
        (change(K.MOVED, place=Place.FRIDGE, shelf=2), "Into the fridge, shelf 2"),
        (change(K.DIVIDED, grams=600.0, part="block-0002"), "Divided: 600 g is a block of its own"),
        (change(K.TAKEN, why="onto the bench"), "Taken out: onto the bench"),
        (change(K.USED, grams=80.0), "Used 80 g"),
        (change(K.THROWN, why="sour"), "Thrown away, all of it: sour"),
        (change(K.WEIGHED, grams=2380.0), "Weighed: 2 380 g"),
        (change(K.WANTED, until=AT + timedelta(days=1), why="market"),
         "Wanted at Sun 29 Nov, 06:00: market"),
        (change(K.WANTED), "Not wanted any more"),
        (change(K.PROBED, value_c=1.4), "Its middle is at 1.4 °C"),
    ],
)  # fmt: skip
def test_every_change_is_told_in_words(one, says):
    told = stand(block(), (one,)).history[0].says
    assert plain(told).replace("\u202f", " ") == says
