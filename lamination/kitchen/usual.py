"""What is usual for a family of dough, and whether a value leaves it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from lamination.kitchen.kitchen import Kitchen
from lamination.terms.sizes import over, under
from lamination.terms.trade import Family


@dataclass(frozen=True, slots=True)
class Outside:
    """A value that leaves its usual range, and on which side."""

    side: Literal["below", "above"]
    value: float
    low: float
    high: float

    @property
    def nearest(self) -> float:
        """The end of the range it left by."""
        return self.low if self.side == "below" else self.high


def outside(value: float, low: float, high: float) -> Outside | None:
    """The side on which a value leaves a range, by more than sums may be off; else None."""
    if under(value, low):
        return Outside("below", value, low, high)
    return Outside("above", value, low, high) if over(value, high) else None


def unusual(family: Family, kitchen: Kitchen, name: str, value: float) -> Outside | None:
    """The same against the usual range of a family, by the name of its rows."""
    low, high = (kitchen.of_family(family, f"{name}.{end}") for end in ("low", "high"))
    return outside(value, low, high)
