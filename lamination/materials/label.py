"""What a packet says of 100 g, read as a composition; what it does not say is estimated, and said."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from lamination.materials.composition import Composition
from lamination.materials.ingredients import Ingredient
from lamination.terms.limits import Checked, Fault, Faults, Range
from lamination.terms.said import say

Grams100 = Annotated[float, Range(0, 100, "g in 100 g")]
_ROUNDED = 1.5  # a label's figures are rounded, and those of its parts add up to a little more


@dataclass(frozen=True)
class PacketLabel(Checked):
    """A packet's figures, g in 100 g; None for what it does not say. Fibre stands beside carbohydrate."""

    fat_g: Grams100 | None = None
    carbohydrate_g: Grams100 | None = None
    sugar_g: Grams100 | None = None
    fibre_g: Grams100 | None = None
    protein_g: Grams100 | None = None
    salt_g: Grams100 | None = None


@dataclass(frozen=True, slots=True)
class FromLabel:
    """A composition got from a label, and what of it was not there but estimated."""

    composition: Composition
    says: tuple[str, ...]


def from_label(label: PacketLabel, like: Ingredient) -> FromLabel:
    """The composition of an ingredient by its packet; what it does not say is as in one ``like`` it.

    Water is what is left of 100 g, for no packet names it. Salt counts as ash, and never makes it less
    than the other's. Raises Faults where the figures come to more than 100 g, or sugar to more than the
    carbohydrate it is part of. Source: definition; rounding of labels by practice.
    """
    other, says = like.composition, []

    def said(value: float | None, name: str, otherwise: float) -> float:
        if value is not None:
            return value
        if otherwise:
            says.append(f"{name} is not on it: {say(otherwise)} %, as in {like.name.lower()}.")
        return otherwise

    fat = said(label.fat_g, "Fat", other.fat_pct)
    protein = said(label.protein_g, "Protein", other.protein_pct)
    starches = said(label.carbohydrate_g, "Carbohydrate", other.carbohydrate_pct)
    carbohydrate = starches + (label.fibre_g or 0.0)
    share = other.sugar_pct / other.carbohydrate_pct if other.carbohydrate_pct else 0.0
    sugar = said(label.sugar_g, "Sugar", round(starches * share, 1))
    if sugar > starches + _ROUNDED:
        text = f"Sugar is part of the carbohydrate: at most {say(starches)} g here."
        raise Faults(Fault("sugar_g", text))
    ash = max(label.salt_g or 0.0, other.ash_pct)
    parts = [protein, fat, carbohydrate, ash]
    whole = sum(parts)
    if whole > 100 + _ROUNDED:
        text = f"These come to {say(whole)} g in 100 g. Look at the largest again."
        field = max(("fat_g", fat), ("carbohydrate_g", starches), ("protein_g", protein),
                    key=lambda part: part[1])[0]  # fmt: skip
        raise Faults(Fault(field, text))
    if whole > 100:  # what rounding added is taken off again
        parts = [p * 100 / whole for p in parts]
    water = max(100 - sum(parts), 0.0)
    says.append(f"Water is what is left: {say(water)} %.")
    protein, fat, carbohydrate, ash = parts
    made = Composition(water, protein, fat, carbohydrate, ash, min(sugar, carbohydrate))
    return FromLabel(made, tuple(says))
