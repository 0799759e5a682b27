"""What warmth does to dough and butter: enthalpy with melting and freezing, and firmness.

Heat is kept as enthalpy, so that nothing is lost where butter melts or water freezes.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from lamination.materials.composition import Composition, conductivity_w_m_k, specific_heat_kj_kg_k

Profile = NDArray[np.float64]

# Typical milk fat: share that is solid at a temperature, °C. Published.
SOLID_FAT: tuple[tuple[float, float], ...] = (
    (5, 0.52), (10, 0.46), (15, 0.33), (20, 0.18), (25, 0.11), (30, 0.05), (35, 0.0),
)  # fmt: skip
_FAT_C, _FAT_SHARE = (np.array(column, dtype=float) for column in zip(*SOLID_FAT, strict=True))
FAT_MELTS_KJ_KG = 100.0  # published
ICE_MELTS_KJ_KG = 333.6  # published
_KELVIN_KG_MOL = 1.86  # cryoscopic constant of water
_BOUND = 0.3  # g of water per g of protein and carbohydrate that never freezes
_SUGAR_KG_MOL, _SALT_KG_MOL = 0.3423, 0.05844 / 2  # salt comes apart in two
_FLOUR_ASH = 0.004  # of a dough's ash so much is flour's; the rest is taken for salt

COLDEST_C, WARMEST_C, STEP_K = -60.0, 80.0, 0.25


@dataclass(frozen=True, eq=False)
class Thermal:
    """One material from -60 to 80 °C in steps of a quarter kelvin.

    ``enthalpy_j_kg`` rises with temperature; ``conductivity_w_m_k`` is the mean of its two bounds.
    """

    enthalpy_j_kg: Profile
    conductivity_w_m_k: Profile

    def __post_init__(self) -> None:
        rise = np.diff(self.enthalpy_j_kg) / STEP_K
        object.__setattr__(self, "capacity_j_kg_k", np.append(rise, rise[-1]))

    capacity_j_kg_k: Profile = None  # type: ignore[assignment]

    def at(self, of: Profile, t_c: Profile) -> Profile:
        """A table of this material read at temperatures, °C."""
        found: Profile = np.interp(t_c, TEMPERATURES, of)
        return found

    def steepness(self, t_c: Profile) -> Profile:
        """J/(kg·K) at temperatures, the slope of the enthalpy as it is read."""
        index = np.minimum(
            np.maximum((t_c - COLDEST_C) / STEP_K, 0).astype(int), len(TEMPERATURES) - 2
        )
        found: Profile = self.capacity_j_kg_k[index]
        return found


TEMPERATURES: Profile = np.arange(COLDEST_C, WARMEST_C + STEP_K / 2, STEP_K)


def solid_fat(t_c: float | Profile) -> Profile:
    """Share of milk fat that is solid, 0 to 1. Published."""
    found: Profile = np.interp(np.asarray(t_c, dtype=float), _FAT_C, _FAT_SHARE)
    return found


def freezing_point_c(of: Composition) -> float:
    """Where the free water of a material begins to freeze, °C; 0 without free water.

    -1.86 K·kg/mol × osmoles of sugar and salt per kg of free water. Source: Raoult's law.
    """
    free = free_water(of)
    if free <= 0:
        return 0.0
    salt = max(of.ash_pct / 100 - _FLOUR_ASH, 0)
    osmoles = of.sugar_pct / 100 / _SUGAR_KG_MOL + salt / _SALT_KG_MOL
    return -_KELVIN_KG_MOL * osmoles / free


def free_water(of: Composition) -> float:
    """Water that can freeze, kg per kg of material."""
    solids = of.protein_pct + of.carbohydrate_pct - of.sugar_pct
    return max((of.water_pct - _BOUND * solids) / 100, 0.0)


def constant(k_w_m_k: float, c_j_kg_k: float) -> Thermal:
    """A material whose properties never change: for comparing with textbook solutions."""
    return Thermal(c_j_kg_k * TEMPERATURES, np.full_like(TEMPERATURES, k_w_m_k))


@lru_cache(maxsize=64)
def thermal_of(of: Composition, melts: bool = False) -> Thermal:
    """The tables of a material: Choi and Okos, with its water freezing.

    ``melts``: its fat melts as butter's does; the little fat in a dough is taken as melted.
    """
    t = TEMPERATURES
    c = 1_000 * np.array([specific_heat_kj_kg_k(of, float(x)) for x in t])
    h = np.concatenate(([0.0], np.cumsum((c[1:] + c[:-1]) / 2 * STEP_K)))
    begins = freezing_point_c(of)
    if begins < 0:
        ice = np.where(t < begins, 1 - begins / np.minimum(t, begins), 0.0)
        h -= 1_000 * ICE_MELTS_KJ_KG * free_water(of) * ice
    if melts:
        h -= 1_000 * FAT_MELTS_KJ_KG * of.fat_pct / 100 * solid_fat(t)
    k = np.array([conductivity_w_m_k(of, float(x)).mean for x in t[::20]])
    return Thermal(h, np.interp(t, t[::20], k))


def butter_firmness(t_c: float) -> float:
    """Firmness of butter on a scale of its solid fat, 0 to 52: what bends is about 25 to 42."""
    return 100 * float(solid_fat(t_c))


def dough_firmness(t_c: float) -> float:
    """Firmness of dough on the butter's scale: it falls gently, 0.6 a kelvin. Trade practice.

    Set so that a dough at 4 °C matches table butter at about 13 °C.
    """
    return 40.5 - 0.6 * t_c


def butter_as_firm_as(dough_c: float) -> float:
    """The temperature of butter that is as firm as dough at ``dough_c``, °C."""
    temperatures, solids = zip(*SOLID_FAT, strict=True)
    wanted = dough_firmness(dough_c) / 100
    return float(np.interp(-wanted, [-s for s in solids], temperatures))
