"""The kitchen a plan is worked in: the table of practice, with what this bakery has changed."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Annotated

from lamination.kitchen.practice import DEFAULTS, TABLE, Default
from lamination.materials.ingredients import LIBRARY, Ingredient
from lamination.terms.limits import Checked, Fault, Length, Range, raise_if


@dataclass(frozen=True)
class Kitchen(Checked):
    """What differs from the table of practice here: ``{key: value}`` in the table's own units.

    Raises :class:`~lamination.terms.limits.Faults` for a key the table does not have, or a value outside
    the limits it states; the path is ``yours.<key>``. ``ingredients`` are this bakery's own, beside
    those of the library.
    """

    yours: dict[str, float] = field(default_factory=dict)
    ingredients: Annotated[tuple[Ingredient, ...], Length(0, 200, "ingredients")] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        raise_if([*self._faults(), *self._of_ingredients()])

    def _of_ingredients(self) -> list[Fault]:
        found, seen = [], {i.key for i in LIBRARY}
        for n, own in enumerate(self.ingredients):
            if own.key in seen:
                text = f"There is an ingredient “{own.key}” already. Give yours another key."
                found.append(Fault(f"ingredients[{n}].key", text))
            seen.add(own.key)
        return found

    def _faults(self) -> list[Fault]:
        found = []
        for key, value in self.yours.items():
            known = DEFAULTS.get(key)
            if known is None:
                found.append(Fault(f"yours.{key}", "There is no default of this name."))
                continue
            message = Range(known.low, known.high, known.unit).complaint(value)
            if message:
                found.append(Fault(f"yours.{key}", message))
        return found

    def __getitem__(self, key: str) -> float:
        """The value in force for ``key``: this bakery's own, or else the table's."""
        own = self.yours.get(key)
        return DEFAULTS[key].value if own is None else own

    def table(self) -> tuple[Default, ...]:
        """The whole table as it is in force here; what was changed has the origin ``yours``."""
        return tuple(
            replace(d, value=self.yours[d.key], origin="yours") if d.key in self.yours else d
            for d in TABLE
        )
