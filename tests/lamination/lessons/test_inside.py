"""A method seen inside, and a baked piece drawn from its true leaves."""

from __future__ import annotations

from dataclasses import replace

import pytest

from lamination.lessons import Decided, LeafMethod, drawn_piece, outcome_of, played, seen_inside
from lamination.terms import Family, Faults, Fold, Method
from tests.lamination.lessons.given import everything, said


@pytest.mark.parametrize(
    ("method", "folds", "butter"),
    [
        (Method.HALF, "LLL", 27),
        (Method.TWO_THIRDS, "LLL", 54),
        (Method.TWO_THIRDS, "BLL", 72),
        (Method.ENVELOPE, "BL", 12),
        (Method.HALF, "LLLLLL", 729),
    ],
)
def test_the_leaves_of_a_method_are_counted_after_every_fold(
    method: Method, folds: str, butter: int
) -> None:
    of = {"L": Fold.LETTER, "B": Fold.BOOK}
    seen = seen_inside(LeafMethod(method, tuple(of[f] for f in folds)))
    assert len(seen) == len(folds) + 1
    assert seen[-1].butter == butter
    assert seen[-1].dough == butter + 1
    each = [s.butter for s in seen]
    assert each == sorted(each)
    assert seen[0].fold is None
    assert sum(seen[2].section.thickness_um) == pytest.approx(4_000, abs=2)


def test_leaves_run_together_as_they_get_thin() -> None:
    seen = seen_inside(LeafMethod(Method.HALF, (Fold.LETTER,) * 5))
    together = [s.together_pct for s in seen]
    assert together == sorted(together)
    assert together[3] < 5
    assert together[5] > 60
    thin = seen_inside(LeafMethod(Method.HALF, (Fold.LETTER,) * 4, last_sheet_mm=2))[-1]
    thick = seen_inside(LeafMethod(Method.HALF, (Fold.LETTER,) * 4, last_sheet_mm=8))[-1]
    assert thin.together_pct > 4 * thick.together_pct
    puff = seen_inside(LeafMethod(Method.HALF, (Fold.LETTER,) * 5, Family.PUFF))
    assert puff[-1].together_pct < 20


def test_a_method_goes_on_with_its_last_fold_as_far_as_it_is_looked_at() -> None:
    seen = seen_inside(LeafMethod(folds=(Fold.BOOK, Fold.LETTER), turns=4))
    assert [s.fold for s in seen] == [None, Fold.BOOK, Fold.LETTER, Fold.LETTER, Fold.LETTER]
    assert [s.butter for s in seen] == [1, 4, 12, 36, 108]
    assert len(seen_inside(LeafMethod(folds=(Fold.BOOK, Fold.LETTER), turns=1))) == 2


def test_a_method_of_too_many_folds_is_refused_by_its_field() -> None:
    with pytest.raises(Faults) as wrong:
        LeafMethod(folds=(Fold.LETTER,) * 9)
    assert wrong.value.faults[0].field == "folds"


def test_a_piece_is_drawn_from_the_sheet_s_own_leaves() -> None:
    play = played(everything())
    came = outcome_of(play)
    piece = drawn_piece(play, came)
    assert piece.every == 1
    assert len(piece.leaves) == 28
    assert piece.rounds > 1  # a crescent is rolled up
    outer, inner = piece.leaves[0].leaf_um, piece.leaves[5].leaf_um
    assert outer == pytest.approx(inner / 2, rel=0.05)
    assert all(leaf.joined == () or leaf.joined[-1].end <= 1 for leaf in piece.leaves)


def test_where_leaves_ran_together_is_drawn_as_much_as_was_lost() -> None:
    lesson = everything()
    good, bad = (
        played(lesson),
        played(
            lesson,
            said(("turn-2", Decided.REST_PLACE, "freezer"), ("turn-2", Decided.REST_MIN, 300.0)),
        ),
    )
    lost = {}
    for name, play in (("good", good), ("bad", bad)):
        came = outcome_of(play)
        piece = drawn_piece(play, came)
        joined = sum(j.end - j.start for leaf in piece.leaves for j in leaf.joined) / len(
            piece.leaves
        )
        assert joined == pytest.approx(1 - came.whole_pct / 100, abs=0.06)
        lost[name] = joined
    assert lost["bad"] > lost["good"] + 0.2
    came = outcome_of(bad)
    assert drawn_piece(bad, came) == drawn_piece(bad, replace(came, worth=0))  # the same each time


def test_of_a_puff_with_many_leaves_every_so_many_th_is_drawn() -> None:
    play = played(everything(Family.PUFF))
    piece = drawn_piece(play, outcome_of(play))
    assert len(piece.leaves) <= 48
    assert piece.every * len(piece.leaves) >= 730
    assert piece.rounds == 0
