"""Sizes, and the numbers people enter, each with its unit and its limits."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from lamination.terms.limits import Range

Grams = Annotated[float, Range(1, 200_000, "g")]
Density = Annotated[float, Range(300, 2_000, "kg/m³")]
Side = Annotated[float, Range(10, 5_000, "mm")]
Edge = Annotated[float, Range(0, 200, "mm")]
Uneven = Annotated[float, Range(-50, 50, "%")]
Thickness = Annotated[float, Range(0.5, 200, "mm")]
Warmth = Annotated[float, Range(-60, 60, "°C")]
Percent = Annotated[float, Range(0, 100, "%")]
HAIR = 1e-9  # a share by which sums of what was measured may be off


@dataclass(frozen=True, slots=True)
class Size:
    """Length (along the next roll or fold), width and thickness, mm."""

    length_mm: float
    width_mm: float
    thickness_mm: float

    @property
    def volume_mm3(self) -> float:
        """Its volume, mm³."""
        return self.length_mm * self.width_mm * self.thickness_mm

    @property
    def even_mm(self) -> float:
        """The slab that counts for it where heat comes in on all sides: twice volume over surface, mm.

        >>> round(Size(100, 40, 40).even_mm, 1)
        16.7
        """
        return 1 / (1 / self.length_mm + 1 / self.width_mm + 1 / self.thickness_mm)

    @property
    def turned(self) -> Size:
        """The same, turned by a quarter."""
        return Size(self.width_mm, self.length_mm, self.thickness_mm)

    def lies_on(self, long_mm: float, wide_mm: float, slack_mm: float = 0.0) -> bool:
        """Whether it lies on a place of these two sides, either way round."""
        long, wide = long_mm + slack_mm, wide_mm + slack_mm
        one, other = self.length_mm, self.width_mm
        return (one < long and other < wide) or (other < long and one < wide)


def over(value: float, limit: float) -> bool:
    """Whether a value is above a limit by more than sums may be off.

    >>> over(5.000000000000001, 5), over(5.01, 5)
    (False, True)
    """
    return value > limit + HAIR * max(abs(value), abs(limit))


def under(value: float, limit: float) -> bool:
    """Whether a value is below a limit by more than sums may be off."""
    return over(limit, value)
