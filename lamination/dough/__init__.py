"""The formula: percentages, preferments, water, weighing, and the butter block."""

from lamination.dough.formula import Formula, Line, OldDough, PrefermentKind, balance
from lamination.dough.mixing import Development, Liquid
from lamination.dough.recipe import Butter, Dough, Recipe
from lamination.dough.weighing import weigh

__all__ = [
    "Butter", "Development", "Dough", "Formula", "Line", "Liquid", "OldDough", "PrefermentKind", "Recipe",
    "balance", "weigh",
]  # fmt: skip
