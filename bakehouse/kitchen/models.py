"""The one kitchen of this bakery."""

from typing import ClassVar

from bakehouse.models import Revisioned


class KitchenRecord(Revisioned):
    """Row 1 holds what this bakery changed in the table of practice, and its own ingredients."""

    what: ClassVar[str] = "kitchen"

    def __str__(self) -> str:
        return f"kitchen, {len(self.document.get('yours', {}))} changed"
