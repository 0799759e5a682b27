"""What is cut from a sheet and becomes of it: layouts, weights, shaping, trays, wash and bake."""

from lamination.pieces.baking import Bake, Colour, Oven, Stage, Wash
from lamination.pieces.cards import CARDS, ShapingCard
from lamination.pieces.checkweigh import (
    ScaleSetting,
    Weighed,
    Weighing,
    check_weighing,
    read_weights_csv,
    simulated_scale,
)
from lamination.pieces.products import Addition, Product, Shape
from lamination.pieces.shaping import Card

__all__ = [
    "CARDS", "Addition", "Bake", "Card", "Colour", "Oven", "Product", "ScaleSetting", "Shape",
    "ShapingCard", "Stage", "Wash", "Weighed", "Weighing", "check_weighing", "read_weights_csv",
    "simulated_scale",
]  # fmt: skip
