"""The kitchen a plan is worked in: the table of practice, with what this bakery has changed."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Annotated, Any

from lamination.kitchen.cards import OwnCard
from lamination.kitchen.practice import DEFAULTS, RENAMED, TABLE
from lamination.kitchen.room import Room, Spot, room_of
from lamination.kitchen.rows import Default
from lamination.materials.ingredients import BUTTERS, LIBRARY, Ingredient, Shelf
from lamination.materials.preparations import Preparation, shelf_with
from lamination.terms.limits import Checked, Fault, Length, Range, raise_if, swapped
from lamination.terms.trade import Family, Worded


class LabelPart(Worded):
    """What a finished product's label may show beside its name, its allergens and what is unknown."""

    INGREDIENTS = "ingredients", "Ingredients"
    WEIGHT = "weight", "Weight"
    MADE = "made", "Made on"
    BEST = "best", "Best before"
    STORAGE = "storage", "How it is kept"
    HOUSE = "house", "Name and address"


@dataclass(frozen=True)
class Sign(Checked):
    """What a finished product's label says of the house, how the product is to be kept, and what it shows.

    Its name and its allergens always stand there.
    """

    name: Annotated[str, Length(0, 80, "characters")] = ""
    address: Annotated[str, Length(0, 200, "characters")] = ""
    storage: Annotated[str, Length(0, 200, "characters")] = (
        "Best on the day. The day after, warm for two minutes in a hot oven."
    )
    shows: tuple[LabelPart, ...] = tuple(LabelPart)


@dataclass(frozen=True)
class Kitchen(Checked):
    """What differs from the table of practice here: ``{key: value}`` in the table's own units.

    Raises :class:`~lamination.terms.limits.Faults` for a key the table does not have, or a value
    outside the limits it states; the path is ``yours.<key>``. ``ingredients`` are this bakery's own, beside
    those of the library, ``preparations`` what it makes of them (creams, pastes, washes), ``cards`` its own
    ways to shape, ``spots`` where its things stand, ``sign`` what its labels say of it. A kitchen is a
    value: equal ones are one, and it can be remembered by.
    """

    yours: dict[str, float] = field(default_factory=dict)
    ingredients: Annotated[tuple[Ingredient, ...], Length(0, 200, "ingredients")] = ()
    cards: Annotated[tuple[OwnCard, ...], Length(0, 60, "cards")] = ()
    # Where things stand is drawn, and nothing is worked from it: kitchens that differ in it are equal.
    spots: Annotated[tuple[Spot, ...], Length(0, 40, "things")] = field(default=(), compare=False)
    preparations: Annotated[tuple[Preparation, ...], Length(0, 100, "preparations")] = ()
    # What stands on labels alone changes no plan either.
    sign: Sign = field(default_factory=Sign, compare=False)
    # The gaps that the house rolls through, mm; none: worked out by how much a pass may take.
    dial: Annotated[tuple[Annotated[float, Range(0.1, 200, "mm")], ...], Length(0, 40, "gaps")] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        raise_if([*self._faults(), *self._of_ingredients(), *self._of_cards()])
        if self.preparations:
            shelf_with(self.ingredients, self.preparations)  # raises where one cannot be made

    def __hash__(self) -> int:
        return self._hash

    @cached_property
    def _hash(self) -> int:
        return hash(
            (
                frozenset(self.yours.items()),
                self.ingredients,
                self.cards,
                self.preparations,
                self.dial,
            )
        )

    @cached_property
    def shelf(self) -> Shelf:
        """Everything that can be used here: the library, this bakery's own, and what it prepares."""
        return shelf_with(self.ingredients, self.preparations)

    def _of_ingredients(self) -> list[Fault]:
        found, seen = [], {i.key for i in LIBRARY}
        for n, own in enumerate(self.ingredients):
            if own.key in seen:
                text = f"There is an ingredient “{own.key}” already. Give yours another key."
                found.append(Fault(f"ingredients[{n}].key", text))
            seen.add(own.key)
        return found

    def _of_cards(self) -> list[Fault]:
        seen: set[str] = set()
        found = []
        for n, card in enumerate(self.cards):
            if card.key in seen:
                text = f"There is a card “{card.key}” already. Give yours another key."
                found.append(Fault(f"cards[{n}].key", text))
            seen.add(card.key)
        return found

    def card(self, key: str | None) -> OwnCard | None:
        """One of its own cards by its key; None where there is none."""
        return next((c for c in self.cards if c.key == key), None)

    def _faults(self) -> list[Fault]:
        found = []
        for key, value in self.yours.items():
            known = DEFAULTS.get(key)
            if known is None:
                found.append(Fault(f"yours.{key}", "There is no default of this name."))
                continue
            message = Range(known.low, known.high, known.unit, known.whole).complaint(value)
            if message:
                found.append(Fault(f"yours.{key}", message))
        return found

    def __getitem__(self, key: str) -> float:
        """The value in force for ``key``: this bakery's own, or else the table's."""
        own = self.yours.get(key)
        return DEFAULTS[key].value if own is None else own

    def choice(self, key: str) -> str:
        """The chosen one of a row's choices."""
        return DEFAULTS[key].choices[round(self[key])]

    def of_family(self, family: Family, name: str) -> float:
        """The value of one of a family's rows.

        A family the table says nothing of (a puff with yeast in it) goes by the croissant's.
        """
        own = f"{family}.{name}"
        return self[own if own in DEFAULTS else f"{Family.CROISSANT}.{name}"]

    def table(self) -> tuple[Default, ...]:
        """The whole table as it is in force here; what was changed has the origin ``yours``."""
        return tuple(self.row(d.key) for d in TABLE)

    def row(self, key: str) -> Default:
        """A row of the table as it is in force here. Raises KeyError for one that is not there."""
        row = DEFAULTS[key]
        return replace(row, value=self.yours[key], origin="yours") if key in self.yours else row

    @property
    def butter(self) -> str:
        """The key of the butter that new plans lock in."""
        return BUTTERS[round(self["butter.usual"])].key

    def proofer_c(self, room_c: float) -> float:
        """How warm the proofer is in a room of so many °C; one that holds its own is always as warm.

        A cabinet that is not cooled, or barely heated, changes with the season as the room does.
        Source: practice.
        """
        off = room_c - self["proofer.at_room_c"]
        return self["proofer.c"] + self["proofer.follows_pct"] / 100 * off

    def room(self) -> Room:
        """The bakehouse as it is drawn."""
        return room_of(self, self.spots)

    @cached_property
    def still(self) -> Kitchen:
        """The kitchen without its own rows of warmth: what a day's weather leaves as it is."""
        kept = {key: value for key, value in self.yours.items() if DEFAULTS[key].group != "cold"}
        return self if len(kept) == len(self.yours) else swapped(self, yours=kept)

    def changed(self, values: Mapping[str, float]) -> Kitchen:
        """The kitchen with other values for some rows."""
        return replace(self, yours={**self.yours, **values}) if values else self


def renamed(document: dict[str, Any]) -> dict[str, Any]:
    """A kitchen kept earlier, in today's names: defaults that the table has no more are left behind, and
    what counts things is whole.
    """
    kept = {RENAMED.get(k, k): v for k, v in document.get("yours", {}).items()}
    known = {k: v for k, v in kept.items() if k in DEFAULTS}
    counted = {k: round(v) for k, v in known.items() if DEFAULTS[k].whole and _is_number(v)}
    return {**document, "yours": known | counted}


def _is_number(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool) and math.isfinite(value)
