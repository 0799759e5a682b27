"""The bakehouse: its places, tools and habits, with where every default comes from."""

from lamination.kitchen.kitchen import Kitchen, renamed
from lamination.kitchen.practice import DEFAULTS, Default

__all__ = [
    "DEFAULTS", "Default", "Kitchen", "renamed",
]  # fmt: skip
