"""A plan: everything a baker chooses for one dough. What follows from it is in ``work.py``."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, Literal

from lamination.dough.formula import Formula
from lamination.kitchen.practice import Family
from lamination.materials.ingredients import PLAIN_SHELF, Ingredient, Kind, Shelf
from lamination.pieces.cutting import Product
from lamination.pieces.finish import Finish
from lamination.sheet.folds import OFFSET_SEAM, Fold
from lamination.sheet.lockin import Method
from lamination.terms.limits import Checked, Fault, Faults, Length, Range
from lamination.terms.rests import Minutes, Rest

FORMAT: Literal["eight-turn/plan"] = "eight-turn/plan"
VERSION = 3

Grams = Annotated[float, Range(1, 200_000, "g")]
Density = Annotated[float, Range(300, 2_000, "kg/m³")]
Side = Annotated[float, Range(10, 5_000, "mm")]
Edge = Annotated[float, Range(0, 200, "mm")]
Uneven = Annotated[float, Range(-50, 50, "%")]
Thickness = Annotated[float, Range(0.5, 200, "mm")]


@dataclass(frozen=True)
class Dough(Checked):
    """The dough that goes into the lock-in, and its chill before that.

    Without a density of its own it has that of the formula, or of practice where there is none.
    """

    mass_g: Grams
    density_kg_m3: Density | None = None
    rest: Rest | None = None
    bench_min: Minutes | None = None


@dataclass(frozen=True)
class Plaque(Checked):
    """Butter as it is bought: its two sides and what one weighs."""

    length_mm: Side
    width_mm: Side
    mass_g: Grams


@dataclass(frozen=True)
class Butter(Checked):
    """The butter that is locked in; ``mass_g`` is the whole block, the flour in it included.

    ``flour_pct``: flour worked into it, % of the butter. ``fold_back``: rolled thin and folded in so
    many (0 or 1: not at all). ``plaque``: another than the kitchen's.
    """

    mass_g: Grams
    density_kg_m3: Density | None = None
    ingredient: Annotated[str, Length(1, 40, "characters")] = "butter-table"
    flour_pct: Annotated[float, Range(0, 100, "%")] = 0.0
    fold_back: Annotated[int, Range(0, 6)] = 0
    plaque: Plaque | None = None


@dataclass(frozen=True)
class LockIn(Checked):
    """The school of lock-in and the block's two sides; its thickness follows."""

    method: Method
    block_width_mm: Side
    block_length_mm: Side
    margin_mm: Edge = 0.0
    overlap_mm: Edge = 0.0
    rest: Rest | None = None
    bench_min: Minutes | None = None
    off_centre_mm: Annotated[float, Range(-300, 300, "mm")] = 0.0
    lump_mm: Annotated[float, Range(3, 100, "mm")] = 20.0


@dataclass(frozen=True)
class Trim(Checked):
    """What is cut off the rolled sheet before the fold: both ends, both sides.

    ``tucked``: what comes off is laid on the middle and folded in; otherwise it is saved.
    """

    ends_mm: Edge = 0.0
    sides_mm: Edge = 0.0
    tucked: bool = False


@dataclass(frozen=True)
class Turn(Checked):
    """One turn: roll to a thickness (to a width first, if one is chosen), trim, fold, rest.

    ``stacked``: cut at the creases and stacked instead of folded. ``seam_pct``: where the ends of an
    offset book meet, % of the length. Faults on purpose: ``short_mm``, by which every flap falls
    short; ``uneven_pct``, by which one side of the sheet is rolled thicker than the mean.
    """

    fold: Fold
    roll_to_mm: Thickness
    rest: Rest | None = None
    bench_min: Minutes | None = None
    width_mm: Side | None = None
    trim: Trim | None = None
    stacked: bool = False
    seam_pct: Annotated[float, Range(10, 90, "%")] = 100 * OFFSET_SEAM
    short_mm: Annotated[float, Range(0, 200, "mm")] = 0.0
    uneven_pct: Uneven = 0.0


@dataclass(frozen=True)
class Final(Checked):
    """The last sheet: its thickness, and its width if one is wanted; ``uneven_pct`` as in a turn."""

    roll_to_mm: Thickness
    width_mm: Side | None = None
    rest: Rest | None = None
    bench_min: Minutes | None = None
    uneven_pct: Uneven = 0.0


@dataclass(frozen=True)
class Cut(Checked):
    """What the last sheet is cut into: rows of one product after another, from the datum edge.

    ``kerf_mm`` is what the blade eats at each cut, ``trim_mm`` what comes off every edge first.
    ``shrink_pct``: how much a piece shrinks along the roll once it is cut. ``across``: rows run
    across the sheet.
    """

    products: Annotated[tuple[Product, ...], Length(1, 8, "products")]
    kerf_mm: Annotated[float, Range(0, 10, "mm")] = 0.0
    bench_min: Minutes | None = None
    trim_mm: Annotated[float, Range(0, 100, "mm")] = 0.0
    shrink_pct: Annotated[float, Range(0, 40, "%")] = 0.0
    across: bool = False


@dataclass(frozen=True)
class Plan(Checked):
    """A lamination plan: the document that is saved, sent and worked.

    Raises :class:`~lamination.terms.limits.Faults` on wrong input, with the path of every field at fault.
    """

    name: Annotated[str, Length(1, 80, "characters")]
    family: Family
    dough: Dough
    butter: Butter
    lock_in: LockIn
    turns: Annotated[tuple[Turn, ...], Length(0, 12, "turns")]
    final: Final
    cut: Cut | None = None
    finish: Finish | None = None
    formula: Formula | None = None
    words: Annotated[str, Length(0, 4_000, "characters")] = ""
    format: Literal["eight-turn/plan"] = FORMAT
    version: int = VERSION

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.version != VERSION:
            raise Faults(
                Fault(
                    "version",
                    f"This file has version {self.version}; this Eight Turn reads version "
                    f"{VERSION}. A newer Eight Turn may read it.",
                )
            )
        chosen = self.butter.ingredient
        if chosen not in self.shelf:
            raise Faults(Fault("butter.ingredient", self.shelf.complaint(chosen)))
        if self.butter_kind.kind is not Kind.FAT:
            raise Faults(
                Fault(
                    "butter.ingredient",
                    f"{self.butter_kind.name} is no butter. Choose a fat, such as butter-table.",
                )
            )

    @cached_property
    def shelf(self) -> Shelf:
        """Where this plan finds its ingredients."""
        return self.formula.shelf if self.formula else PLAIN_SHELF

    @property
    def butter_kind(self) -> Ingredient:
        """The butter, as an ingredient."""
        return self.shelf[self.butter.ingredient]
