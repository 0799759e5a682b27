"""Shapes by name, and the cuts into a piece that some of them want."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.terms.trade import Worded


class Card(Worded):
    """How a cut piece is shaped."""

    FLAT = "flat", "as it is cut"
    CRESCENT = "crescent", "rolled triangle"
    ROLL = "roll", "rolled rectangle"
    POCKET = "pocket", "corners to the middle"
    PINWHEEL = "pinwheel", "pinwheel"
    TURNOVER = "turnover", "turned over"
    PLAIT = "plait", "plait"
    CASE = "case", "ring on a disc"
    SLICE = "slice", "slice of a coil"
    HALF_POCKET = "half_pocket", "two corners to the middle"
    BUTTERFLY = "butterfly", "butterfly"
    WHIRL = "whirl", "eight cuts, turned in"
    FRAME = "frame", "framed square"
    TWIST = "twist", "twisted strip"
    KNOT = "knot", "knot"
    CROWN = "crown", "crown in a cup of a tin"
    LOAF = "loaf", "loaf in a tin"
    FAN = "fan", "strip folded to and fro in a tin"
    SPLIT = "split", "coil split and plaited"
    SPLIT_KNOT = "split_knot", "coil split and knotted"
    BASE = "base", "thin docked base"

    @property
    def in_tin(self) -> bool:
        """Whether a tin says how wide it gets."""
        return self in (Card.CROWN, Card.LOAF, Card.FAN)

    @property
    def strands(self) -> int:
        """How many cut pieces one of them is commonly made of."""
        return 3 if self in (Card.PLAIT, Card.LOAF) else 1

    @property
    def of_coil(self) -> bool:
        """Whether it is made of a piece of a coil."""
        return self in (Card.SLICE, Card.CROWN, Card.SPLIT, Card.SPLIT_KNOT)


@dataclass(frozen=True, slots=True)
class Slit:
    """A cut into a piece: from and to, mm from its corner along and across."""

    from_x_mm: float
    from_y_mm: float
    to_x_mm: float
    to_y_mm: float


_THIRD, _FRAME = 1 / 3, 1 / 6
_EDGES = ((0, 0), (1, 0), (0, 1), (1, 1))
# Cuts into a square, as shares of its sides. Source: trade practice.
_SLITS: dict[Card, tuple[tuple[float, float, float, float], ...]] = {
    Card.PINWHEEL: tuple(
        (x, y, _THIRD if x == 0 else 1 - _THIRD, _THIRD if y == 0 else 1 - _THIRD) for x, y in _EDGES
    ),
    Card.WHIRL: tuple(
        line
        for at in (_THIRD, 1 - _THIRD)
        for line in ((at, 0, at, 0.3), (at, 1, at, 0.7), (0, at, 0.3, at), (1, at, 0.7, at))
    ),
    Card.FRAME: (
        (_FRAME, _FRAME, 1 - 2 * _FRAME, _FRAME), (_FRAME, _FRAME, _FRAME, 1 - 2 * _FRAME),
        (1 - _FRAME, 1 - _FRAME, 2 * _FRAME, 1 - _FRAME),
        (1 - _FRAME, 1 - _FRAME, 1 - _FRAME, 2 * _FRAME),
    ),
}  # fmt: skip


def slits_of(card: Card, along_mm: float, across_mm: float) -> tuple[Slit, ...]:
    """The cuts a card makes into a piece with four sides, mm.

    >>> slits_of(Card.PINWHEEL, 90, 90)[0]
    Slit(from_x_mm=0, from_y_mm=0, to_x_mm=30.0, to_y_mm=30.0)
    """
    return tuple(
        Slit(a * along_mm, b * across_mm, c * along_mm, d * across_mm)
        for a, b, c, d in _SLITS.get(card, ())
    )


# Source: trade practice.
