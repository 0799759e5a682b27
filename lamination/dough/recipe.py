"""What a dough and its butter are: masses, what they are made of, and what follows from that."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, fields
from functools import cached_property
from typing import Annotated

from lamination.dough.formula import Fed, Formula, Prefermented, fed
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.composition import (
    Composition,
    Conductivity,
    conductivity_w_m_k,
    density_kg_m3,
    mixture,
    specific_heat_kj_kg_k,
)
from lamination.materials.ingredients import Allergen, Ingredient, Kind, Shelf, Window
from lamination.terms.limits import Checked, Fault, Faults, Length, Range
from lamination.terms.said import named
from lamination.terms.sizes import Density, Grams, Side
from lamination.terms.trade import Family


@dataclass(frozen=True)
class Dough(Checked):
    """The dough that goes into the lock-in.

    Without a density of its own it has that of the formula, or of practice where there is none.
    """

    mass_g: Grams
    density_kg_m3: Density | None = None


@dataclass(frozen=True)
class Plaque(Checked):
    """Butter as it is bought: its two sides and what one weighs."""

    length_mm: Side
    width_mm: Side
    mass_g: Grams


@dataclass(frozen=True)
class InBlock(Checked):
    """Something worked into the butter, such as cocoa, herbs or a second fat, % of the butter.

    ``what``: an ingredient, a preparation of the house, or anything by its name.
    """

    what: Annotated[str, Length(1, 60, "characters")]
    pct: Annotated[float, Range(0.1, 100, "%")]


@dataclass(frozen=True)
class Butter(Checked):
    """The butter that is locked in; ``mass_g`` is the whole block, with all that is worked into it.

    ``flour_pct``: flour worked into it, % of the butter; ``holds``: what else is. ``fold_back``: rolled
    thin and folded in so many (0 or 1: not at all). ``plaque``: another than the kitchen's.
    ``by_weight``: it keeps its weight when another mass of dough is chosen; else it keeps its share.
    """

    mass_g: Grams
    density_kg_m3: Density | None = None
    ingredient: Annotated[str, Length(1, 40, "characters")] = "butter-table"
    flour_pct: Annotated[float, Range(0, 100, "%")] = 0.0
    fold_back: Annotated[int, Range(0, 6)] = 0
    plaque: Plaque | None = None
    by_weight: bool = False
    holds: Annotated[tuple[InBlock, ...], Length(0, 4, "things")] = ()

    @property
    def per_pct(self) -> float:
        """What one per cent of the butter in the block weighs, g."""
        return self.mass_g / (100 + self.flour_pct + sum(one.pct for one in self.holds))

    @property
    def flour_g(self) -> float:
        """The flour in the block, g."""
        return self.flour_pct * self.per_pct

    @property
    def pure_g(self) -> float:
        """The butter in the block, g."""
        return 100 * self.per_pct

    @property
    def held(self) -> tuple[tuple[str, float], ...]:
        """What else is worked into it, by key or name, g."""
        return tuple((one.what, one.pct * self.per_pct) for one in self.holds)


@dataclass(frozen=True, slots=True)
class Physics:
    """A material at the temperature the kitchen states: kg/m³, kJ/(kg·K), W/(m·K); water share, %.

    Without a composition only the density is known.
    """

    density_kg_m3: float
    water_pct: float | None = None
    specific_heat_kj_kg_k: float | None = None
    conductivity: Conductivity | None = None

    def volume_mm3(self, mass_g: float) -> float:
        """The volume of a mass of it, mm³."""
        return mass_g / self.density_kg_m3 * 1e6


@dataclass(frozen=True, slots=True)
class Shares:
    """Butter in the three conventions, %; of flour only where a formula says how much there is.

    What is locked in counts as butter without the flour worked into it; that flour counts as flour.
    """

    of_flour_pct: float | None
    of_dough_pct: float
    of_whole_pct: float


@dataclass(frozen=True, slots=True)
class Contents:
    """What is in a product: names, allergens that are known, and what nobody here knows anything of."""

    names: tuple[str, ...]
    allergens: tuple[Allergen, ...]
    unknown: tuple[str, ...]

    def declared(self) -> str:
        """What a label or a sheet says of allergens: never as if all were known where something is not."""
        known = ", ".join(a.said for a in self.allergens)
        asked = named(" and ".join(self.unknown))
        if known and asked:
            return f"Contains {known}. Not known here: {asked}; ask the baker."
        if asked:
            return f"Allergens not known here: {asked}; ask the baker."
        return f"Contains {known}." if known else "Contains no allergen that is known here."


_ALLERGENS = tuple(Allergen)  # an enumeration is slow to go through


def contents_of(things: Iterable[Ingredient], unknown: Iterable[str] = ()) -> Contents:
    """The contents of some ingredients, with what is not on any shelf named as such."""
    held = list(things)
    has = {a for what in held for a in what.allergens}
    inside = (name for what in held for name in what.unknown)
    return Contents(
        tuple(dict.fromkeys(what.name for what in held)),
        tuple(a for a in _ALLERGENS if a in has) if has else (),
        tuple(dict.fromkeys((*unknown, *inside))),
    )


_USUAL_WINDOW = Window(9, 12, 16, 20)  # a fat without a window of its own is taken for table butter


@dataclass(frozen=True, eq=False)
class Recipe:
    """Dough and butter of a plan in a kitchen: what everything else asks about the matter."""

    family: Family
    dough: Dough
    butter: Butter
    formula: Formula | None
    preferments: tuple[tuple[str, Prefermented], ...]
    shelf: Shelf
    kitchen: Kitchen
    later_pct: float = 0.0
    butterless: bool = False

    @property
    def butter_g(self) -> float:
        """All the butter that goes into it, g: none where the plan locks none in."""
        return 0.0 if self.butterless else self.butter.mass_g

    @property
    def block_g(self) -> float:
        """What is locked in, g: all the butter but what waits for a later fold (``later_pct`` of it)."""
        return self.butter_g * (1 - self.later_pct / 100)

    @cached_property
    def butter_kind(self) -> Ingredient:
        """The butter, as an ingredient. Raises Faults when the shelf has no such fat."""
        key = self.butter.ingredient
        if key not in self.shelf:
            raise Faults(Fault("butter.ingredient", self.shelf.complaint(key)))
        kind = self.shelf[key]
        if not kind.locks_in:
            text = f"{named(kind.name)} cannot be locked in. Choose a butter or another firm fat."
            raise Faults(Fault("butter.ingredient", text))
        return kind

    @property
    def window(self) -> Window:
        """The butter's working window; with a second fat in it, between the two by what there is of each."""
        own = self.butter_kind.window or _USUAL_WINDOW
        fats = [(100.0, own)] + [
            (one.pct, thing.window)
            for one in self.butter.holds
            if (thing := self.shelf.find(one.what)) and thing.window
        ]
        return own if len(fats) == 1 else _between(fats)

    @cached_property
    def butter_flour(self) -> Ingredient:
        """The flour worked into the block: the formula's first, or a plain one."""
        if self.formula:
            return next(what for what, _ in self.formula.parts if what.kind is Kind.FLOUR)
        return self.shelf["flour-medium"]

    @cached_property
    def butter_composition(self) -> Composition:
        """The block's composition: the butter and what is worked into it, as far as that is known."""
        parts = [(100.0, self.butter_kind.composition)]
        if self.butter.flour_pct:
            parts.append((self.butter.flour_pct, self.butter_flour.composition))
        parts += [
            (one.pct, thing.composition)
            for one in self.butter.holds
            if (thing := self.shelf.find(one.what))
        ]
        return parts[0][1] if len(parts) == 1 else mixture(parts)

    @property
    def butter_of_whole(self) -> float:
        """The block's share of the laminate, 0 to 1."""
        return self.butter_g / (self.butter_g + self.dough.mass_g)

    @cached_property
    def fed(self) -> tuple[Fed, Fed] | None:
        """The dough with what is fed back: today and settled; None without a formula."""
        if self.formula is None:
            return None
        return fed(self.formula, self.butter_composition, self.butter_of_whole)

    @property
    def dough_composition(self) -> Composition | None:
        """The dough as it is today, old dough included; None without a formula."""
        return self.fed[0].composition if self.fed else None

    @cached_property
    def dough_physics(self) -> Physics:
        """The dough that is locked in. The gas share is the kitchen's."""
        own = self.dough.density_kg_m3
        return _physics(self.dough_composition, own, "dough.gas_pct", self.kitchen)

    @cached_property
    def butter_physics(self) -> Physics:
        """The butter block; melting is not in its specific heat."""
        own = self.butter.density_kg_m3
        return _physics(self.butter_composition, own, "dough.butter_gas_pct", self.kitchen)

    @cached_property
    def per_mm3(self) -> tuple[float, float]:
        """Grams in a mm³ of dough and of butter."""
        return self.dough_physics.density_kg_m3 / 1e6, self.butter_physics.density_kg_m3 / 1e6

    @property
    def old_dough_g(self) -> float:
        """Old dough that is fed back, g."""
        old = self.formula.old_dough if self.formula else None
        return self.dough.mass_g * old.share_pct / 100 if old else 0.0

    @cached_property
    def flour_g(self) -> float | None:
        """All flour of the dough, that of old dough included, g; None without a formula."""
        if self.formula is None or self.fed is None:
            return None
        old_g = self.old_dough_g
        # what old dough holds besides its butter is dough of the same formula, flour included
        of_old = old_g - self.fed[0].butter_share * self.dough.mass_g
        return (self.dough.mass_g - old_g + of_old) * 100 / self.formula.total_pct

    @cached_property
    def shares(self) -> Shares:
        """Butter on flour, on dough and on the whole."""
        pure, flour = self.butter.pure_g, self.butter.flour_g
        if self.butterless:
            return Shares(0.0 if self.flour_g else None, 0.0, 0.0)
        return Shares(
            100 * pure / (self.flour_g + flour) if self.flour_g else None,
            100 * pure / (self.dough.mass_g + flour),
            100 * pure / (self.dough.mass_g + self.butter.mass_g),
        )

    @cached_property
    def contents(self) -> Contents:
        """What dough and butter hold; a dough without a formula is not known."""
        held = [what for what, pct in self.formula.parts if pct] if self.formula else []
        unknown = [] if self.formula else ["the dough"]
        if not self.butterless:
            held.append(self.butter_kind)
            if self.butter.flour_pct:
                held.append(self.butter_flour)
            for one in self.butter.holds:
                thing = self.shelf.find(one.what)
                held += [thing] if thing else []
                unknown += [] if thing else [one.what]
        return contents_of(held, unknown)


def _between(fats: Sequence[tuple[float, Window]]) -> Window:
    """The window of fats worked together, by mass. Source: trade practice; real blends may be softer."""
    whole = sum(share for share, _ in fats)

    def mean(name: str) -> float:
        return float(sum(share * getattr(window, name) for share, window in fats) / whole)

    return Window(*(mean(f.name) for f in fields(Window)))


def _physics(of: Composition | None, own: float | None, gas: str, kitchen: Kitchen) -> Physics:
    """A material's properties from its composition; ``own``, kg/m³, overrides the density."""
    if of is None:
        return Physics(kitchen["dough.density_kg_m3"] if own is None else own)
    at = kitchen["dough.physics_c"]
    return Physics(
        density_kg_m3(of, at, kitchen[gas] / 100) if own is None else own,
        of.water_pct,
        specific_heat_kj_kg_k(of, at),
        conductivity_w_m_k(of, at),
    )
