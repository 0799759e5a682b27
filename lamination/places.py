"""Where a dough rests, and for how long."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from lamination.limits import Checked, Range

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
