"""What things are made of: ingredients, their composition, and what warmth does to them."""

from lamination.materials.composition import Composition
from lamination.materials.ingredients import LIBRARY, Allergen, Ingredient, Kind, Shelf, Strength
from lamination.materials.label import FromLabel, PacketLabel, from_label
from lamination.materials.preparations import Care, MadeWhen, Preparation, PreparedPart
from lamination.materials.thermal import Thermal, thermal_of

__all__ = [
    "LIBRARY", "Allergen", "Care", "Composition", "FromLabel", "Ingredient", "Kind", "MadeWhen",
    "PacketLabel", "Preparation", "PreparedPart", "Shelf", "Strength", "Thermal", "from_label", "thermal_of",
]  # fmt: skip
