"""Heat through a dough, and yeast at work in it."""

from lamination.heat.body import Body, body
from lamination.heat.conduction import Air, Slab, conduct, ready
from lamination.heat.yeast import Leaven

__all__ = [
    "Air", "Body", "Leaven", "Slab", "body", "conduct", "ready",
]  # fmt: skip
