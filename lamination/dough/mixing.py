"""Mixing: the water that brings a dough to its temperature, ice, and the load of the bowl."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from lamination.materials.composition import Composition, specific_heat_kj_kg_k

ICE_MELTS_KJ_KG = 333.6  # published: latent heat of ice at 0 °C
WATER = Composition(100, 0, 0, 0, 0)


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
    """The water for the bowl.

    ``water_c``: the temperature all of it would need. Where that is below the tap's, ``ice_g`` of
    it goes in as ice and the rest comes from the tap. ``dough_c``: what the dough comes to with the
    best that can be had (ice alone at most); ``reached`` says whether that is what was wanted.
    """

    water_c: float
    water_g: float
    ice_g: float
    tap_c: float
    dough_c: float
    reached: bool
    friction_k: float


def water_for(
    wanted_c: float,
    water_g: float,
    others: Iterable[Part],
    tap_c: float,
    friction_k: float,
    hottest_c: float,
) -> Water:
    """The water temperature, °C, that gives a dough of ``wanted_c``, by a balance of heat.

    Σ mᵢcᵢ (T − Tᵢ) = friction: ``friction_k`` is what mixing warms the dough by, in K. The heat of
    a part is its specific heat at its own temperature. Ice takes 333.6 kJ/kg to melt, so of m grams
    of water at the tap's temperature t, x as ice do the work of water at w:
    x = m·c·(t − w) / (333.6 + c·t). Water is never warmer than ``hottest_c`` (it kills yeast).
    Raises ValueError without any water. Source: heat balance; core-model §2.
    """
    if water_g <= 0:
        raise ValueError("There is no water to warm or to cool the dough with.")
    held = [p for p in others if p.mass_g > 0]
    c = specific_heat_kj_kg_k(WATER, tap_c)
    carried = water_g / 1000 * c
    all_kj_k = carried + sum(p.holds_kj_k for p in held)
    warmed = friction_k * all_kj_k
    wanted = (
        wanted_c
        + (sum(p.holds_kj_k * (wanted_c - p.temperature_c) for p in held) - warmed) / carried
    )
    ice_g, used_c = 0.0, min(wanted, hottest_c)
    if wanted < tap_c:
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
        water_c=wanted,
        water_g=water_g - ice_g,
        ice_g=ice_g,
        tap_c=tap_c,
        dough_c=dough_c,
        reached=abs(dough_c - wanted_c) < 0.05,
        friction_k=friction_k,
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
