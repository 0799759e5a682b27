"""Trays: how large a piece gets, how many go on a tray, and in what loads trays go through."""

from __future__ import annotations

import math
from dataclasses import dataclass

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.cutting import Blank
from lamination.pieces.products import Product, Shape
from lamination.pieces.shaping import Card
from lamination.terms.sizes import Size
from lamination.terms.trade import Family


@dataclass(frozen=True, slots=True)
class Load:
    """Trays that go in together, by their numbers, and what goes on them."""

    trays: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class OnTrays:
    """Pieces of a product on trays: their size shaped and risen, how many a tray, which trays."""

    product: int
    shaped: Size
    risen: Size
    per_tray: int
    across: int
    along: int
    trays: tuple[int, ...]
    pieces: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class WorkedTrays:
    """All trays of one sheet, the loads of the proofer and of the oven, in order."""

    tray_length_mm: float
    tray_width_mm: float
    products: tuple[OnTrays, ...]
    proofer_loads: tuple[Load, ...]
    oven_loads: tuple[Load, ...]

    @property
    def count(self) -> int:
        return sum(len(p.trays) for p in self.products)


_LIES_FLAT = (
    Card.FLAT, Card.PINWHEEL, Card.TURNOVER, Card.POCKET, Card.HALF_POCKET, Card.WHIRL, Card.FRAME,
    Card.BASE,
)  # fmt: skip


def shaped_size(product: Product, blank: Blank, thickness_mm: float, kitchen: Kitchen) -> Size:
    """The size of a shaped piece before it rises, mm.

    A rolled piece is a spiral: its diameter is that of a circle with the same section, √(4·H·t/π).
    A pocket is a square of its corners' halves; a plait is as wide as its strands side by side; a slice
    lies on its cut side; the halves of a coil that is split each keep half its section; what lies flat
    keeps its size, and what is in a tin fills it from below. Source: geometry, and rows of the kitchen.
    """
    base, tall, t = blank.along_mm, blank.across_mm, thickness_mm
    own = kitchen.card(product.own_card)
    if own is not None:
        return Size(own.length_mm or base, own.width_mm or tall, own.thickness_mm or t)
    coil = math.sqrt(4 * tall * t / math.pi)
    if product.card is Card.CRESCENT and product.shape is Shape.TRIANGLE:
        return Size(base * kitchen["shape.wings"], coil, coil)
    through = math.sqrt(4 * base * t / math.pi)
    if product.card is Card.SLICE:
        return Size(through, through, tall)
    if product.card in (Card.SPLIT, Card.SPLIT_KNOT):
        half = through / math.sqrt(2)
        if product.card is Card.SPLIT:
            return Size(tall * kitchen["shape.twist_long"], 2 * half, half)
        return Size(3 * half + tall / 6, 3 * half + tall / 6, 2 * half)
    if product.card is Card.ROLL:
        return Size(base, coil, coil)
    if product.card is Card.POCKET:
        return Size(base / math.sqrt(2), tall / math.sqrt(2), 3 * t)
    if product.card is Card.HALF_POCKET:
        return Size(math.hypot(base, tall), math.hypot(base, tall) / 2, 3 * t)
    if product.card is Card.BUTTERFLY:
        return Size(2 * coil, base, 2 * t)
    if product.card in (Card.TWIST, Card.KNOT):
        long, thick = max(base, tall), math.sqrt(min(base, tall) * t)
        if product.card is Card.TWIST:
            return Size(long * kitchen["shape.twist_long"], 2 * thick, thick)
        # a knot is about as wide as three of its own strips
        return Size(3 * thick + long / 6, 3 * thick + long / 6, 2 * thick)
    if product.card is Card.CROWN:
        return Size(kitchen["tin.cup_mm"], kitchen["tin.cup_mm"], 3 * t)
    if product.card in (Card.LOAF, Card.FAN):
        long, wide = kitchen["tin.length_mm"], kitchen["tin.width_mm"]
        return Size(long, wide, max(product.strands * base * tall * t / (long * wide), t))
    if product.card in (Card.FRAME, Card.WHIRL):
        return Size(base, tall, 2 * t)
    if product.card is Card.TURNOVER:
        return Size(base, tall / 2, 2 * t)
    if product.card is Card.PLAIT:
        wide = base * (product.strands + 3) / 3  # two lie over each other wherever one looks
        return Size(tall * kitchen["shape.plait_long"], wide, 2 * t)
    if product.card is Card.CASE:
        return Size(base, tall, 2 * t)
    return Size(base, tall, t)


def risen_size(shaped: Size, card: Card, family: Family, kitchen: Kitchen) -> Size:
    """The size it needs on the tray when it is baked, mm: wider and higher by the kitchen's rows.

    What lies flat rises upwards and hardly spreads; what is rolled grows all round.
    """
    kind = "yeasted" if family.yeasted else "puff"
    flat = "flat" if family.yeasted and card in _LIES_FLAT else kind
    wide = 1.0 if card.in_tin else 1 + kitchen[f"rise.{flat}_wide_pct"] / 100
    high = 1 + kitchen[f"rise.{kind}_high_pct"] / 100
    return Size(shaped.length_mm * wide, shaped.width_mm * wide, shaped.thickness_mm * high)


def on_tray(piece: Size, length_mm: float, width_mm: float, gap_mm: float) -> tuple[int, int]:
    """How many pieces lie along and across a tray, a gap between and half of one at the rims.

    The better of both ways round; (0, 0) where not even one fits.
    """

    def count(a: float, b: float) -> tuple[int, int]:
        return math.floor(length_mm / (a + gap_mm)), math.floor(width_mm / (b + gap_mm))

    ways = (count(piece.length_mm, piece.width_mm), count(piece.width_mm, piece.length_mm))
    best = max(ways, key=lambda w: w[0] * w[1])
    return best if best[0] * best[1] else (0, 0)


def _laid(many: int, along: int, across: int, aspect: float) -> tuple[int, int]:
    """How so many lie on a tray: in the rows that fit, or closer in rows like the tray's own sides."""
    if 0 < many <= along * across:
        return math.ceil(many / across), across
    rows = max(round(math.sqrt(many / aspect)), 1)
    return math.ceil(many / rows), rows


def load_trays(trays: tuple[int, ...], holds: int) -> tuple[Load, ...]:
    """Trays in loads of so many, in order."""
    holds = max(holds, 1)
    return tuple(Load(trays[i : i + holds]) for i in range(0, len(trays), holds))


def work_trays(
    products: tuple[Product, ...],
    blanks: tuple[Blank, ...],
    pieces: tuple[int, ...],
    thickness_mm: float,
    family: Family,
    kitchen: Kitchen,
) -> WorkedTrays:
    """Put the pieces of one sheet on trays: one product a tray, in the order they are cut.

    A piece larger than a tray gets a tray of its own; a product that says how many, gets so many.
    """
    length, width = kitchen["bake_tray.length_mm"], kitchen["bake_tray.width_mm"]
    found = []
    next_tray = 1
    for n, (product, blank, many) in enumerate(zip(products, blanks, pieces, strict=True)):
        shaped = shaped_size(product, blank, thickness_mm, kitchen)
        risen = risen_size(shaped, product.card, family, kitchen)
        along, across = on_tray(risen, length, width, kitchen["bake_tray.gap_mm"])
        fits = along * across
        if product.per_tray is not None:
            fits = product.per_tray
            along, across = _laid(fits, along, across, length / width)
        each = max(fits, 1)
        trays = tuple(range(next_tray, next_tray + math.ceil(many / each)))
        on = tuple(min(each, many - i * each) for i in range(len(trays)))
        found.append(OnTrays(n, shaped, risen, fits, across, along, trays, on))
        next_tray += len(trays)
    every = tuple(range(1, next_tray))
    return WorkedTrays(
        length,
        width,
        tuple(found),
        load_trays(every, round(kitchen["proofer.trays"])),
        load_trays(every, round(kitchen["oven.trays"])),
    )
