"""A baked piece cut across, as it is drawn: its true leaves, and where they run together."""

from __future__ import annotations

import math
import random
from dataclasses import dataclass

from lamination.lessons.outcome import Outcome
from lamination.lessons.play import Played
from lamination.pieces.cards import CARDS
from lamination.pieces.shaping import Card
from lamination.sheet.coverage import CoverageMap, Layers
from lamination.sheet.section import Across, cut_along
from lamination.terms.sizes import Size

_DRAWN = 48  # leaves of dough that are drawn; of more every so many-th is
_STRETCHES = 40  # along the cut in which two leaves are apart, or not
_ROLLED = (Card.CRESCENT, Card.ROLL)
_TALL_MM = 200.0


@dataclass(frozen=True, slots=True)
class JoinedStretch:
    """A stretch of a leaf's length, from and to, 0 to 1."""

    start: float
    end: float


@dataclass(frozen=True, slots=True)
class DrawnLeaf:
    """A leaf of dough in the baked piece, and the air over it; µm. ``joined``: where along it the leaf has
    run together with the next.
    """

    leaf_um: float
    air_um: float
    joined: tuple[JoinedStretch, ...]


@dataclass(frozen=True, slots=True)
class DrawnPiece:
    """A piece cut across: ``width_mm`` and ``height_mm`` as baked, its leaves from the bottom up.

    ``rounds``: how often the band goes round where it was rolled up; 0 where it lies flat.
    ``every``: one of so many leaves is drawn. ``sheet``, ``map`` and ``layers``: the last sheet from above.
    """

    width_mm: float
    height_mm: float
    rounds: float
    every: int
    leaves: tuple[DrawnLeaf, ...]
    sheet: Size
    map: CoverageMap
    layers: Layers


def drawn_piece(play: Played, came: Outcome) -> DrawnPiece:
    """A piece of a play cut across where its sheet has most of its leaves.

    The leaves are those of the sheet; the air between them is what the outcome says, shared as the butter
    lay; where leaves ran together is drawn by the seed, so much of their length as the outcome says.
    """
    last = play.last
    section = cut_along(last.lies.laminate, Across())
    stack = max(section.stacks, key=lambda s: (s.butter, s.height_um))
    leaves = stack.leaves_um
    first_is_dough = str(stack.bottom) == "dough"
    dough = leaves[0 if first_is_dough else 1 :: 2]
    butter = leaves[1 if first_is_dough else 0 :: 2] or (0.0,)
    every = max(1, math.ceil(len(dough) / _DRAWN))
    kept = dough[::every] or (stack.height_um,)
    raw_um = last.figures.thickness_mm * 1_000
    air_um = max(came.lift - 1, 0.0) * raw_um + sum(butter)
    chance = random.Random(f"{play.lesson.seed} drawn")
    lost = 1 - came.whole_pct / 100
    shown = tuple(
        DrawnLeaf(round(leaf * every, 1), round(air_um / len(kept), 1), _joined(chance, lost))
        for leaf in kept
    )
    width, rounds = _shape_of(play, last.figures.thickness_mm)
    height = min(came.lift * last.figures.thickness_mm * max(2 * rounds, 1.0), _TALL_MM)
    return DrawnPiece(
        round(width, 1),
        round(height, 1),
        round(rounds, 2),
        every,
        shown,
        last.figures.size,
        last.figures.map,
        last.figures.layers,
    )


def _joined(chance: random.Random, share: float) -> tuple[JoinedStretch, ...]:
    """Stretches of a length, together so much of it on the mean, that lie next to each other as they come."""
    together = [chance.random() < share for _ in range(_STRETCHES)]
    found: list[tuple[float, float]] = []
    for n, is_joined in enumerate(together):
        low, high = n / _STRETCHES, (n + 1) / _STRETCHES
        if not is_joined:
            continue
        if found and abs(found[-1][1] - low) < 1e-9:
            found[-1] = found[-1][0], high
        else:
            found.append((low, high))
    return tuple(JoinedStretch(round(a, 3), round(b, 3)) for a, b in found)


def _shape_of(play: Played, thick_mm: float) -> tuple[float, float]:
    """How wide the cut across a piece is, mm, and how often its band goes round."""
    cut = play.cut
    if cut is None or not cut.products:
        return 80.0, 0.0
    first = cut.products[0]
    if first.card in _ROLLED and first.card in CARDS:
        long = max(first.along_mm, first.across_mm)
        across = math.sqrt(4 * long * thick_mm / math.pi)
        return 1.3 * across, max(across / 2 / thick_mm, 1.0)
    return min(first.along_mm, first.across_mm), 0.0
