"""Mixing: the water that brings a dough to its temperature, ice, and the load of the bowl."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from lamination.materials.composition import Composition, specific_heat_kj_kg_k
from lamination.materials.thermal import ICE_MELTS_KJ_KG
from lamination.terms.trade import Worded

WATER = Composition(100, 0, 0, 0, 0)


class Liquid(Worded):
    """What is warmed or chilled so that the dough comes out at its temperature."""

    WATER = "water", "water"
    MILK = "milk", "milk"


class Development(Worded):
    """How far the gluten is worked in the mixer; folding goes on with it."""

    SHORT = "short", "short"
    THREE_QUARTERS = "three_quarters", "three-quarters"
    FULL = "full", "full"


@dataclass(frozen=True, slots=True)
class Part:
    """Something that goes into the bowl: its mass, what it is made of, its temperature."""

    mass_g: float
    composition: Composition
    temperature_c: float

    @property
    def holds_kj_k(self) -> float:
        """Heat it takes up per kelvin, kJ/K."""
        return self.mass_g / 1000 * specific_heat_kj_kg_k(self.composition, self.temperature_c)


@dataclass(frozen=True, slots=True)
class Water:
    """The liquid that brings the dough to its temperature: the water for the bowl, or the milk.

    ``needed_c``: the temperature all of it would need. ``water_c``: what is used, never hotter than
    the kitchen allows; where the tap is too warm, the tap's, and ``ice_g`` of it goes in as ice. Milk
    is no colder than it is kept, which is then its ``tap_c``. ``dough_c``: what the dough comes to with
    the best that can be had; ``reached`` says whether that is what was wanted.
    """

    needed_c: float
    water_c: float
    water_g: float
    ice_g: float
    tap_c: float
    dough_c: float
    reached: bool
    friction_k: float
    of: Liquid = Liquid.WATER


def water_for(
    wanted_c: float,
    water_g: float,
    others: Iterable[Part],
    tap_c: float,
    friction_k: float,
    hottest_c: float,
    milk: Composition | None = None,
) -> Water:
    """The water temperature, °C, that gives a dough of ``wanted_c``, by a balance of heat.

    Σ mᵢcᵢ (T − Tᵢ) = friction: ``friction_k`` is what mixing warms the dough by, in K. The heat of
    a part is its specific heat at its own temperature. Ice takes 333.6 kJ/kg to melt, so of m grams
    of water at the tap's temperature t, x as ice do the work of water at w:
    x = m·c·(t − w) / (333.6 + c·t). Water is never warmer than ``hottest_c`` (it kills yeast).
    ``milk``: what the liquid is made of, where it is not water; it is kept at ``tap_c`` and has no ice.
    Raises ValueError without any liquid. Source: heat balance.
    """
    if water_g <= 0:
        raise ValueError("There is no water to warm or to cool the dough with.")
    held = [p for p in others if p.mass_g > 0]
    c = specific_heat_kj_kg_k(milk or WATER, tap_c)
    carried = water_g / 1000 * c
    all_kj_k = carried + sum(p.holds_kj_k for p in held)
    warmed = friction_k * all_kj_k
    wanted = (
        wanted_c
        + (sum(p.holds_kj_k * (wanted_c - p.temperature_c) for p in held) - warmed) / carried
    )
    ice_g, used_c = 0.0, min(wanted, hottest_c)
    if milk is not None:
        used_c = max(used_c, tap_c)
    elif wanted < tap_c:
        # Above 0 °C tap water gives heat to its ice; below, ice alone is the coldest there is.
        ice_g = water_g * c * (tap_c - wanted) / (ICE_MELTS_KJ_KG + c * tap_c)
        if ice_g > water_g:
            ice_g = water_g
            used_c = -ICE_MELTS_KJ_KG / c
        else:
            used_c = wanted
    dough_c = (
        carried * used_c + sum(p.holds_kj_k * p.temperature_c for p in held) + warmed
    ) / all_kj_k
    return Water(
        needed_c=wanted,
        water_c=tap_c if ice_g else min(wanted, hottest_c) if milk is None else used_c,
        water_g=water_g - ice_g,
        ice_g=ice_g,
        tap_c=tap_c,
        dough_c=dough_c,
        reached=abs(dough_c - wanted_c) < 0.05,
        friction_k=friction_k,
        of=Liquid.WATER if milk is None else Liquid.MILK,
    )


@dataclass(frozen=True, slots=True)
class Bowl:
    """A mixing against the mixer's limits, g."""

    load_g: float
    least_g: float
    most_g: float

    @property
    def loads(self) -> int:
        """How many mixings it takes."""
        return max(1, -int(-self.load_g // self.most_g))
