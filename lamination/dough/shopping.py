"""What to have in the house the day before: every ingredient once, over all that is weighed."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from lamination.dough.weighing import OLD_DOUGH, WeighSheet


@dataclass(frozen=True, slots=True)
class Needed:
    """An ingredient and how much of it is needed in all, g."""

    ingredient: str
    name: str
    grams: float


def needed(
    sheets: Iterable[tuple[WeighSheet, int]], more: Iterable[Needed] = ()
) -> tuple[Needed, ...]:
    """Everything that is weighed, each sheet so many times, and ``more``; the heaviest first.

    Old dough is not bought, so it is left out.
    """
    names: dict[str, str] = {}
    grams: dict[str, float] = {}

    def add(key: str, name: str, mass_g: float) -> None:
        names.setdefault(key, name)
        grams[key] = grams.get(key, 0.0) + mass_g

    for sheet, times in sheets:
        for line in sheet.lines:
            if line.ingredient != OLD_DOUGH:
                add(line.ingredient, line.name, line.grams * times)
    for what in more:
        add(what.ingredient, what.name, what.grams)
    found = (Needed(key, names[key], round(mass_g, 1)) for key, mass_g in grams.items())
    return tuple(sorted(found, key=lambda n: -n.grams))
