"""What things are made of: ingredients, their composition, and what warmth does to them."""

from lamination.materials.composition import Composition
from lamination.materials.ingredients import LIBRARY, Allergen, Ingredient, Kind, Shelf, Strength
from lamination.materials.thermal import Thermal, thermal_of

__all__ = [
    "LIBRARY", "Allergen", "Composition", "Ingredient", "Kind", "Shelf", "Strength", "Thermal",
    "thermal_of",
]  # fmt: skip
