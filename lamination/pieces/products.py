"""What is cut: a product, its shape and sizes, what is put in and on it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from lamination.pieces.shaping import Card
from lamination.terms.limits import Checked, Fault, Length, Range, raise_if
from lamination.terms.said import mm
from lamination.terms.trade import Worded

MOST_PRODUCTS = 8  # of one sheet


class Shape(Worded):
    """Shapes a sheet is cut into; ``base_mm`` is the side of a square and a disc's diameter."""

    TRIANGLE = "triangle", "Triangles"
    SQUARE = "square", "Squares"
    RECTANGLE = "rectangle", "Rectangles"
    DISC = "disc", "Discs"
    RING = "ring", "Rings"
    STRIP = "strip", "Strips"

    @property
    def is_round(self) -> bool:
        return self in (Shape.DISC, Shape.RING)

    @property
    def has_height(self) -> bool:
        """Whether it has two sides of its own."""
        return self in (Shape.TRIANGLE, Shape.RECTANGLE, Shape.STRIP)


class Addition(Worded):
    """What something put on a piece is for."""

    TOPPING = "topping", "topping"
    MARK = "mark", "mark that tells it from others"
    GLAZE = "glaze", "glaze or syrup"
    DUST = "dust", "dusting"


@dataclass(frozen=True)
class Topping(Checked):
    """Something put on each piece: an ingredient, grams of it, and what it is for."""

    ingredient: Annotated[str, Length(1, 40, "characters")]
    grams: Annotated[float, Range(0, 1_000, "g")] = 0.0
    used_as: Addition = Addition.TOPPING


@dataclass(frozen=True)
class Product(Checked):
    """What is cut in rows of its own: its shape and sizes, and what becomes of it.

    ``base_mm`` lies along the row, ``height_mm`` across it. ``rows``: how many rows of it; 0 as many
    as what is left of the sheet takes. ``nested``: rows of round pieces lie in each other's gaps; None
    where that gives more. ``beside``: it lies at the ends of the rows of the product before, in what they
    leave of the length. ``crosswise``: its rows run across a sheet whose others run along, in the band
    that these leave. ``notch_mm``: cut into the middle of a triangle's base.
    ``own_card``: one of the kitchen's own cards in place of ``card``.
    ``filling``: an ingredient, ``filling_g`` of it in each. ``strands``: how many that are cut make
    one, as for a plait. ``per_tray``: so many to a tray because the baker says so. Raises Faults for a
    ring without a hole, a hole in anything else, or a notch or hole that is too large.
    """

    name: Annotated[str, Length(1, 60, "characters")]
    shape: Shape
    base_mm: Annotated[float, Range(10, 5_000, "mm")]
    height_mm: Annotated[float, Range(10, 5_000, "mm")] | None = None
    hole_mm: Annotated[float, Range(0, 1_000, "mm")] = 0.0
    notch_mm: Annotated[float, Range(0, 100, "mm")] = 0.0
    rows: Annotated[int, Range(0, 500)] = 0
    nested: bool | None = None
    beside: bool = False
    crosswise: bool = False
    card: Card = Card.FLAT
    own_card: Annotated[str, Length(1, 40, "characters")] | None = None
    filling: Annotated[str, Length(1, 40, "characters")] | None = None
    filling_g: Annotated[float, Range(0, 1_000, "g")] = 0.0
    strands: Annotated[int, Range(1, 12)] = 1
    per_tray: Annotated[int, Range(1, 500, whole=True)] | None = None
    toppings: Annotated[tuple[Topping, ...], Length(0, 6, "toppings")] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        faults = []
        if self.shape.has_height and self.height_mm is None:
            faults.append(Fault("height_mm", "This shape has a height as well. Enter it."))
        if self.shape is Shape.RING and not 0 < self.hole_mm < self.base_mm:
            text = f"The hole is more than 0 and less than {mm(self.base_mm)} across."
            faults.append(Fault("hole_mm", text))
        elif self.hole_mm and self.shape is not Shape.RING:
            faults.append(Fault("hole_mm", "Only a ring is cut with a hole. Set it to 0."))
        if self.notch_mm and self.notch_mm > self.across_mm / 3:
            text = f"A notch of more than {mm(self.across_mm / 3)} cuts the piece in two."
            faults.append(Fault("notch_mm", text))
        raise_if(faults)

    @property
    def across_mm(self) -> float:
        """Its size across the row, mm."""
        return self.height_mm if self.shape.has_height and self.height_mm else self.base_mm
