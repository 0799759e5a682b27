"""The bakehouse: its places, tools and habits, with where every default comes from."""

from lamination.kitchen.cards import CardLine, CardPicture, OwnCard, Part
from lamination.kitchen.kitchen import Kitchen, LabelPart, Sign, renamed
from lamination.kitchen.practice import DEFAULTS
from lamination.kitchen.room import Fixture, Room, Spot
from lamination.kitchen.rows import Default

__all__ = [
    "DEFAULTS", "CardLine", "CardPicture", "Default", "Fixture", "Kitchen", "LabelPart", "OwnCard", "Part",
    "Room", "Sign", "Spot", "renamed",
]  # fmt: skip
