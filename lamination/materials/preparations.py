"""Preparations: small formulas of the house that go into a dough or on it.

A cream, a nut paste, a wash, a syrup, seasoned sugar or caramel is made of ingredients, loses some water in
the pan, takes its minutes at its time, and keeps so long. Once it is made it is one more ingredient: it is
used by its name wherever an ingredient can stand.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Annotated

from lamination.materials.composition import Composition, mixture
from lamination.materials.ingredients import Allergen, Ingredient, Kind, Shelf
from lamination.terms.limits import Checked, Fault, Faults, Length, Range
from lamination.terms.said import g, named, say, span
from lamination.terms.trade import Worded

MOST_DEEP = 4  # one in another in another


class MadeWhen(Worded):
    """When a preparation is made."""

    BEFORE = "before", "the day before"
    PROOF = "proof", "while it proofs"
    COLD = "cold", "when the pieces are cold"
    FRESH = "fresh", "just before it is used"


class Care(Worded):
    """What a preparation wants to be minded for."""

    NONE = "none", "nothing in particular"
    HOT_SUGAR = "hot_sugar", "hot sugar"
    EGG = "egg", "egg and milk, cooked or raw"


CARE_SAYS: dict[Care, str] = {
    Care.NONE: "",
    Care.HOT_SUGAR: "Hot sugar burns deeply: a large pan, dry tools, long sleeves, nobody close.",
    Care.EGG: "Egg and milk: cool it fast, keep it cold, and follow your food code for how long.",
}


@dataclass(frozen=True)
class PreparedPart(Checked):
    """An ingredient of a preparation, by its key or its name, or another preparation; g."""

    what: Annotated[str, Length(1, 60, "characters")]
    grams: Annotated[float, Range(0.01, 100_000, "g")]


@dataclass(frozen=True)
class Preparation(Checked):
    """A small formula of the house.

    ``loss_pct``: what it loses in the pan, of the mass of its parts; it is water as far as there is any.
    ``minutes``: work on one batch. ``keeps_h``: how long it keeps, cold, once it is made. ``key`` never
    changes. Raises Faults for one that loses more than its water.
    """

    key: Annotated[str, Length(1, 40, "characters")]
    name: Annotated[str, Length(1, 60, "characters")]
    parts: Annotated[tuple[PreparedPart, ...], Length(1, 30, "ingredients")]
    loss_pct: Annotated[float, Range(0, 90, "%")] = 0.0
    minutes: Annotated[float, Range(0, 600, "min")] = 15.0
    made: MadeWhen = MadeWhen.BEFORE
    keeps_h: Annotated[float, Range(0.5, 2_000, "h")] = 48.0
    care: Care = Care.NONE

    @property
    def raw_g(self) -> float:
        """All that goes into one batch, g."""
        return sum(p.grams for p in self.parts)

    @property
    def yield_g(self) -> float:
        """What one batch comes to, g."""
        return self.raw_g * (1 - self.loss_pct / 100)

    def scaled(self, wanted_g: float) -> tuple[PreparedPart, ...]:
        """What goes into so much of it, g."""
        grow = wanted_g / self.yield_g
        return tuple(PreparedPart(p.what, p.grams * grow) for p in self.parts)

    def says(self) -> str:
        """When it is made, how long that takes, how long it keeps, and its caution."""
        keeps = f"It keeps {span(60 * self.keeps_h)}, cold."
        work = f"Make it {self.made.said}: {span(self.minutes)} of work."
        return f"{work} {keeps} {CARE_SAYS[self.care]}".strip()


def shelf_with(own: Iterable[Ingredient], preparations: Sequence[Preparation]) -> Shelf:
    """The shelf with a bakery's own ingredients and, as ingredients, what it prepares.

    Raises Faults, with paths as of ``preparations``: a key that is taken, one that goes into itself, one
    that loses more than its water.
    """
    base = Shelf(own)
    by_name = {p.key: p for p in preparations} | {p.name.lower(): p for p in preparations}
    seen: set[str] = set()
    made: list[Ingredient] = []
    for n, preparation in enumerate(preparations):
        try:
            if preparation.key in base or preparation.key in seen:
                text = (
                    f"There is something called “{preparation.key}” already. Give it another key."
                )
                raise Faults(Fault("key", text))
            made.append(_ingredient(preparation, base, by_name, ()))
        except Faults as wrong:
            raise Faults(*(f.under(f"preparations[{n}]") for f in wrong.faults)) from None
        seen.add(preparation.key)
    return Shelf((*own, *made))


def _ingredient(
    preparation: Preparation,
    shelf: Shelf,
    by_name: dict[str, Preparation],
    inside: tuple[str, ...],
) -> Ingredient:
    if preparation.key in inside or len(inside) >= MOST_DEEP:
        raise Faults(Fault("parts", f"“{named(preparation.name)}” would go into itself."))
    known: list[tuple[float, Ingredient]] = []
    unknown: list[str] = []
    for part in preparation.parts:
        found = shelf.find(part.what)
        other = by_name.get(part.what) or by_name.get(part.what.lower())
        if found is None and other is not None:
            found = _ingredient(other, shelf, by_name, (*inside, preparation.key))
        if found is None:
            unknown.append(part.what)
        else:
            known.append((part.grams, found))
            unknown += found.unknown
    allergens = {a for _, what in known for a in what.allergens}
    return Ingredient(
        preparation.key,
        preparation.name,
        Kind.PREPARED,
        _composition(preparation, known),
        tuple(a for a in Allergen if a in allergens),
        unknown=tuple(dict.fromkeys(unknown)),
    )


def _composition(preparation: Preparation, known: list[tuple[float, Ingredient]]) -> Composition:
    """What is left once the loss has boiled off; what nobody knows anything of counts as the rest does."""
    if not known:
        return Composition(0, 0, 0, 100, 0)
    raw = mixture((grams, what.composition) for grams, what in known)
    loss = preparation.loss_pct
    if loss > raw.water_pct + 0.5:
        text = f"It holds {say(raw.water_pct)} % of water, so it cannot lose more than that."
        raise Faults(Fault("loss_pct", text))
    left = 100 - loss
    shares = [max(raw.water_pct - loss, 0.0), *raw.shares()[1:], raw.sugar_pct]
    return Composition(*(min(100 * share / left, 100.0) for share in shares))


@dataclass(frozen=True, slots=True)
class Batch:
    """So much of a preparation that is to be made, g, and what goes into it."""

    preparation: Preparation
    grams: float
    parts: tuple[PreparedPart, ...]


def batches(
    wanted: Iterable[tuple[str, float]], preparations: Sequence[Preparation]
) -> Iterator[Batch]:
    """What of the house's preparations must be made, each once, those that go into others first.

    ``wanted``: keys or names of whatever is used, and how much, g. What is no preparation is passed over.
    """
    by_name = {p.key: p for p in preparations} | {p.name.lower(): p for p in preparations}
    grams: dict[str, float] = {}

    def add(what: str, mass_g: float, deep: int) -> None:
        found = by_name.get(what) or by_name.get(what.lower())
        if found is None or deep > MOST_DEEP:
            return
        # counted anew each time, so that what goes into it comes before it
        grams[found.key] = grams.pop(found.key, 0.0) + mass_g
        for part in found.scaled(mass_g):
            add(part.what, part.grams, deep + 1)

    for what, mass_g in wanted:
        add(what, mass_g, 0)
    for key, mass_g in reversed(grams.items()):
        found = by_name[key]
        yield Batch(found, mass_g, found.scaled(mass_g))


def made_of(batch: Batch) -> str:
    """How much of what it is made, in a line."""
    return f"{g(batch.grams)} of {named(batch.preparation.name.lower())}"
