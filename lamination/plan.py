"""A plan: everything a baker chooses for one dough. What follows from it is in ``work.py``."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Literal

from lamination.cutting import Shape
from lamination.laminate import Fold
from lamination.limits import Checked, Fault, Faults, Length, Range
from lamination.lockin import Method
from lamination.practice import BUTTER_DENSITY_KG_M3, DOUGH_DENSITY_KG_M3, Family

FORMAT: Literal["eight-turn/plan"] = "eight-turn/plan"
VERSION = 1

Grams = Annotated[float, Range(1, 200_000, "g")]
Density = Annotated[float, Range(300, 2_000, "kg/m³")]
Side = Annotated[float, Range(10, 5_000, "mm")]
Edge = Annotated[float, Range(0, 200, "mm")]
Thickness = Annotated[float, Range(0.5, 200, "mm")]
Minutes = Annotated[float, Range(0, 7 * 24 * 60, "min")]


class Place(StrEnum):
    """Where a dough rests."""

    BENCH = "bench"
    FRIDGE = "fridge"
    FREEZER = "freezer"


@dataclass(frozen=True)
class Rest(Checked):
    """A rest: where, and for how many minutes."""

    place: Place
    minutes: Minutes


@dataclass(frozen=True)
class Dough(Checked):
    """The dough that goes into the lock-in, and its chill before that."""

    mass_g: Grams
    density_kg_m3: Density = DOUGH_DENSITY_KG_M3
    rest: Rest | None = None
    bench_min: Minutes | None = None


@dataclass(frozen=True)
class Butter(Checked):
    """The butter that is locked in."""

    mass_g: Grams
    density_kg_m3: Density = BUTTER_DENSITY_KG_M3


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


@dataclass(frozen=True)
class Turn(Checked):
    """One turn: roll to a thickness, fold, rest."""

    fold: Fold
    roll_to_mm: Thickness
    rest: Rest | None = None
    bench_min: Minutes | None = None


@dataclass(frozen=True)
class Final(Checked):
    """The last sheet: its thickness, and its width if one is wanted."""

    roll_to_mm: Thickness
    width_mm: Side | None = None
    rest: Rest | None = None
    bench_min: Minutes | None = None


@dataclass(frozen=True)
class Cut(Checked):
    """What the last sheet is cut into; ``kerf_mm`` is what the blade eats at each cut."""

    shape: Shape
    base_mm: Side
    height_mm: Side
    kerf_mm: Annotated[float, Range(0, 10, "mm")] = 0.0
    bench_min: Minutes | None = None


@dataclass(frozen=True)
class Plan(Checked):
    """A lamination plan: the document that is saved, sent and worked.

    Raises :class:`~lamination.limits.Faults` on wrong input, with the path of every field at fault.
    """

    name: Annotated[str, Length(1, 80, "characters")]
    family: Family
    dough: Dough
    butter: Butter
    lock_in: LockIn
    turns: Annotated[tuple[Turn, ...], Length(0, 12, "turns")]
    final: Final
    cut: Cut | None = None
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
