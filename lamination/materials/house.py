"""Measures of the house: cups, spoons and sticks, and what they weigh of each ingredient.

Weights are the truth; these are for reading other people's formulas. Source: trade practice, unless a
definition: a cup of 236.6 ml, a spoon of 14.8 or 4.9 ml, a stick of 113.4 g.
"""

from __future__ import annotations

from lamination.materials.ingredients import Ingredient, Kind

CUP_ML, SPOON_ML, TEASPOON_ML, FLUID_OUNCE_ML = 236.588, 14.787, 4.929, 29.574
STICK_G = 113.4

_MASS_G = {
    "g": 1.0,
    "kg": 1000.0,
    "mg": 0.001,
    "oz": 28.349523125,
    "lb": 453.59237,
    "stick": STICK_G,
}
_VOLUME_ML = {
    "ml": 1.0, "cl": 10.0, "dl": 100.0, "l": 1000.0, "cup": CUP_ML, "spoon": SPOON_ML,
    "teaspoon": TEASPOON_ML, "floz": FLUID_OUNCE_ML,
    "pinch": TEASPOON_ML / 16,
}  # fmt: skip

# g in a ml, as it is scooped and levelled
_BULK_OF_KIND = {
    Kind.FLOUR: 0.53, Kind.WATER: 1.0, Kind.MILK: 1.03, Kind.EGG: 1.03, Kind.SUGAR: 0.85,
    Kind.SALT: 1.2, Kind.YEAST: 0.64, Kind.MALT: 0.55, Kind.ACID: 1.01, Kind.FAT: 0.96,
}  # fmt: skip
_BULK = {
    "honey": 1.42, "malt-syrup": 1.4, "milk-powder": 0.5, "oil": 0.92, "cream-cheese": 0.98,
    "almond": 0.42, "soya-flour": 0.4, "yeast-fresh": 1.0, "flour-rye": 0.45,
}  # fmt: skip


def bulk_g_ml(what: Ingredient) -> float | None:
    """What a ml of it weighs as it is scooped and levelled, g; None where nobody here knows."""
    return _BULK.get(what.key, _BULK_OF_KIND.get(what.kind))


def grams_of(amount: float, unit: str, what: Ingredient) -> float | None:
    """What so much of an ingredient weighs, g; None where the unit says nothing of it.

    ``unit``: a mass or a volume (g, kg, oz, lb, ml, l, cup, spoon, teaspoon, floz, stick, pinch), or ""
    for so many pieces, which only an ingredient that is bought by the piece has.

    >>> from lamination.materials.ingredients import PLAIN_SHELF
    >>> round(grams_of(2, "cup", PLAIN_SHELF["flour-strong"]))
    251
    >>> grams_of(3, "", PLAIN_SHELF["egg-whole"])
    150
    """
    if unit in _MASS_G:
        return amount * _MASS_G[unit]
    if unit in _VOLUME_ML:
        bulk = bulk_g_ml(what)
        return None if bulk is None else amount * _VOLUME_ML[unit] * bulk
    if not unit and what.piece_g:
        return amount * what.piece_g
    return None


def measured(grams: float, what: Ingredient) -> str | None:
    """A mass in cups or spoons, to the quarter, as people without scales say it; None where unknown.

    >>> from lamination.materials.ingredients import PLAIN_SHELF
    >>> measured(502, PLAIN_SHELF["flour-strong"]), measured(9, PLAIN_SHELF["salt"])
    ('4 cups', '1 ½ tsp')
    """
    bulk = bulk_g_ml(what)
    if bulk is None or grams <= 0:
        return None
    ml = grams / bulk
    for name, plural, size, least in (
        ("cup", "cups", CUP_ML, CUP_ML / 4 * 0.9),
        ("tbsp", "tbsp", SPOON_ML, SPOON_ML * 0.9),
        ("tsp", "tsp", TEASPOON_ML, 0.0),
    ):
        if ml >= least:
            quarters = max(round(4 * ml / size), 1)
            whole, part = divmod(quarters, 4)
            text = " ".join(filter(None, (str(whole or ""), ("", "¼", "½", "¾")[part])))
            return f"{text} {name if quarters <= 4 else plural}"
    return None
