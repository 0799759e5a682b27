"""What every step that rolls a sheet shares: what it is rolled to, of three sizes at most two."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Self

from lamination.sheet.rolls import RollTo, chosen
from lamination.steps.base import Step
from lamination.terms.limits import raise_if


class RolledStep(Step):
    """A step whose fields say what its sheet is rolled to; each kind declares them in its own order."""

    roll_to_mm: float | None
    width_mm: float | None
    length_mm: float | None

    def __post_init__(self) -> None:
        """Raises Faults (``roll_to_mm``, ``length_mm``) for a choice that is none, or too many."""
        super().__post_init__()
        if self.is_rolled:
            raise_if(chosen(self.rolls_to))

    @property
    def is_rolled(self) -> bool:
        """Whether it is rolled at all: else it is folded as it lies."""
        return True

    @property
    def rolls_to(self) -> RollTo:
        """What it is rolled to."""
        return RollTo(self.roll_to_mm, self.width_mm, self.length_mm)

    def grown(self, grow: float) -> Self:
        """The step for a package whose sides are so many times as long: as thick as it was planned."""
        if not self.length_mm:
            return self
        longer: dict[str, Any] = {
            "length_mm": self.length_mm * (grow**2 if self.width_mm else grow)
        }
        return replace(self, **longer)
