"""Materials: composition by mass gives density, heat and conductivity. The recipe is the physics.

Component properties as functions of temperature are those of Choi and Okos (1986), as printed in
the ASHRAE Refrigeration Handbook.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated

from lamination.terms.limits import Checked, Fault, Range, raise_if
from lamination.terms.said import say
from lamination.terms.sizes import Percent

Celsius = Annotated[float, Range(-40, 60, "°C")]

COMPONENTS = ("water", "protein", "fat", "carbohydrate", "ash")
_SUM_TOLERANCE_PCT = 0.6  # tables of food are rounded to a tenth in each column


@dataclass(frozen=True)
class Composition(Checked):
    """Shares of the mass, %. ``sugar_pct`` is part of the carbohydrate.

    Raises :class:`~lamination.terms.limits.Faults` when the five do not add up to 100, naming the one
    that would make them, or when there is more sugar than carbohydrate.
    """

    water_pct: Percent
    protein_pct: Percent
    fat_pct: Percent
    carbohydrate_pct: Percent
    ash_pct: Percent
    sugar_pct: Percent = 0.0

    def __post_init__(self) -> None:
        super().__post_init__()
        faults = []
        rest = 100 - sum(self.shares())
        if abs(rest) > _SUM_TOLERANCE_PCT:
            wanted = self.carbohydrate_pct + rest
            help_ = (
                f"With {say(wanted)} % carbohydrate it adds up."
                if wanted >= 0
                else "Look at the largest share again."
            )
            faults.append(
                Fault(
                    "carbohydrate_pct",
                    f"The five parts come to {say(100 - rest)} %, not 100. {help_}",
                )
            )
        elif self.sugar_pct > self.carbohydrate_pct + _SUM_TOLERANCE_PCT:
            faults.append(
                Fault(
                    "sugar_pct",
                    "Sugar is part of the carbohydrate: at most "
                    f"{say(self.carbohydrate_pct)} % here.",
                )
            )
        raise_if(faults)

    def shares(self) -> tuple[float, float, float, float, float]:
        """Water, protein, fat, carbohydrate and ash, % of the mass, in that order."""
        return (
            self.water_pct,
            self.protein_pct,
            self.fat_pct,
            self.carbohydrate_pct,
            self.ash_pct,
        )


def mixture(parts: Iterable[tuple[float, Composition]]) -> Composition:
    """The composition of ``(mass, composition)`` parts stirred together: mixtures add by mass.

    Masses in any one unit. Raises ValueError when there is no mass at all.
    """
    held = list(parts)
    whole = sum(mass for mass, _ in held)
    if whole <= 0:
        raise ValueError("A mixture of nothing has no composition.")
    columns = zip(*((*c.shares(), c.sugar_pct) for _, c in held), strict=True)
    masses = [mass for mass, _ in held]
    # A sum of hundredths may come to a hair over the hundred.
    water, protein, fat, carbohydrate, ash, sugar = (
        min(sum(m * share for m, share in zip(masses, column, strict=True)) / whole, 100.0)
        for column in columns
    )
    return Composition(water, protein, fat, carbohydrate, ash, sugar)


# k, W/(m·K); ρ, kg/m³; c, kJ/(kg·K): coefficients of 1, T, T² with T in °C.
_CONDUCTIVITY = (
    (0.57109, 1.7625e-3, -6.7036e-6),
    (0.17881, 1.1958e-3, -2.7178e-6),
    (0.18071, -2.7604e-4, -1.7749e-7),
    (0.20141, 1.3874e-3, -4.3312e-6),
    (0.32962, 1.4011e-3, -2.9069e-6),
)
_DENSITY = (
    (997.18, 3.1439e-3, -3.7574e-3),
    (1329.9, -0.5184, 0.0),
    (925.59, -0.41757, 0.0),
    (1599.1, -0.31046, 0.0),
    (2423.8, -0.28063, 0.0),
)
_SPECIFIC_HEAT = (
    (4.1762, -9.0864e-5, 5.4731e-6),
    (2.0082, 1.2089e-3, -1.3129e-6),
    (1.9842, 1.4733e-3, -4.8008e-6),
    (1.5488, 1.9625e-3, -5.9399e-6),
    (1.0926, 1.8896e-3, -3.6817e-6),
)


def _at(rows: tuple[tuple[float, float, float], ...], temperature_c: float) -> list[float]:
    t = temperature_c
    return [a + b * t + c * t * t for a, b, c in rows]


def density_kg_m3(of: Composition, temperature_c: float, gas_share: float = 0.0) -> float:
    """Density, kg/m³: 1 / Σ(xᵢ/ρᵢ), times (1 − ``gas_share``) for gas by volume.

    Source: Choi and Okos (1986).
    """
    volume = sum(
        x / 100 / rho for x, rho in zip(of.shares(), _at(_DENSITY, temperature_c), strict=True)
    )
    return (1 - gas_share) / volume


def specific_heat_kj_kg_k(of: Composition, temperature_c: float) -> float:
    """Specific heat, kJ/(kg·K): Σ xᵢcᵢ, without melting or freezing. Source: Choi and Okos."""
    return sum(
        x / 100 * c for x, c in zip(of.shares(), _at(_SPECIFIC_HEAT, temperature_c), strict=True)
    )


@dataclass(frozen=True, slots=True)
class Conductivity:
    """Thermal conductivity of a mixture, W/(m·K): its two bounds and their geometric mean."""

    parallel: float
    series: float

    @property
    def mean(self) -> float:
        return float((self.parallel * self.series) ** 0.5)


def conductivity_w_m_k(of: Composition, temperature_c: float) -> Conductivity:
    """Conductivity without gas, over volume fractions, parallel and series. Source: Choi and Okos."""
    ks = _at(_CONDUCTIVITY, temperature_c)
    volumes = [x / rho for x, rho in zip(of.shares(), _at(_DENSITY, temperature_c), strict=True)]
    whole = sum(volumes)
    parallel = sum(v * k for v, k in zip(volumes, ks, strict=True)) / whole
    series = whole / sum(v / k for v, k in zip(volumes, ks, strict=True))
    return Conductivity(parallel, series)
