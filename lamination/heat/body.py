"""A dough or a package lying flat, cell by cell through its thickness, and what is done with it.

Each cell holds some dough and some butter, which share a temperature; heat crosses them in series.
Cells are finer at the faces, where the first minutes happen.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np

from lamination.materials.thermal import TEMPERATURES, Profile, Thermal

CELLS = 24
_FINER_AT_FACES = 0.5  # size of a cell at a face over that of one in the middle

NDArrayBool = np.ndarray[tuple[int, ...], np.dtype[np.bool_]]


@dataclass(frozen=True, eq=False)
class Body:
    """A sheet or package lying flat: per cell, from the bottom up, what it holds and its warmth.

    ``dough_kg_m2`` and ``butter_kg_m2`` are masses per area, ``dough_m`` and ``butter_m``
    thicknesses, ``t_c`` temperatures. ``round``: a coil, its cells rings from the axis out; masses are
    those per area of its outside, thicknesses such as resist the heat as much as its rings do.
    """

    dough: Thermal
    butter: Thermal
    dough_kg_m2: Profile
    butter_kg_m2: Profile
    dough_m: Profile
    butter_m: Profile
    t_c: Profile
    round: bool = False

    @cached_property
    def _value(self) -> tuple[Thermal, Thermal, bool, bytes]:
        held = (
            self.dough_kg_m2, self.butter_kg_m2, self.dough_m, self.butter_m, self.t_c,
        )  # fmt: skip
        return self.dough, self.butter, self.round, b"".join(column.tobytes() for column in held)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Body) and self._value == other._value

    def __hash__(self) -> int:
        return hash(self._value)

    def at_warmth(self, t_c: Profile) -> Body:
        """The same cells at other temperatures; what was worked out of their masses is kept."""
        made = Body(
            self.dough, self.butter, self.dough_kg_m2, self.butter_kg_m2, self.dough_m,
            self.butter_m, t_c, self.round,
        )  # fmt: skip
        kept = made.__dict__
        for name in ("shares", "butter_shares", "buttery", "cells", "has_butter"):
            if name in self.__dict__:
                kept[name] = self.__dict__[name]
        return made

    @cached_property
    def cells(self) -> Profile:
        """kg/m² of dough and of butter, m of dough and of butter, a row each."""
        return np.stack((self.dough_kg_m2, self.butter_kg_m2, self.dough_m, self.butter_m))

    @property
    def enthalpy_j_m2(self) -> Profile:
        """Enthalpy of every cell, J/m²."""
        return self.dough_kg_m2 * self.dough.at(
            self.dough.enthalpy_j_kg, self.t_c
        ) + self.butter_kg_m2 * self.butter.at(self.butter.enthalpy_j_kg, self.t_c)

    @cached_property
    def shares(self) -> Profile:
        """Share of the mass that every cell holds."""
        mass = self.dough_kg_m2 + self.butter_kg_m2
        found: Profile = mass / mass.sum()
        return found

    @cached_property
    def butter_shares(self) -> Profile:
        """Share of the butter that every cell holds; of the mass where there is no butter."""
        held = self.butter_kg_m2.sum()
        return self.butter_kg_m2 / held if held > 0 else self.shares

    @cached_property
    def buttery(self) -> NDArrayBool:
        """Which cells hold a good part of the butter; all where there is none, or it lies all through."""
        if self.round:
            return np.ones(len(self.t_c), bool)
        by_depth = self.butter_kg_m2 / (self.dough_m + self.butter_m)
        found: NDArrayBool = by_depth >= 0.5 * by_depth.max()
        return found

    @property
    def thickness_m(self) -> float:
        """How thick it is, m."""
        return float(self.dough_m.sum() + self.butter_m.sum())

    @property
    def middle_c(self) -> float:
        """The temperature of its middle."""
        return float(self.middle_of(self.t_c))

    def middle_of(self, t_c: Profile) -> Profile:
        """The middle of its profiles, whose last axis runs through it: of a coil its axis."""
        axis: Profile = t_c[..., 0]
        return axis if self.round else middle_of(t_c)

    @property
    def mean_c(self) -> float:
        """The mean temperature, by mass."""
        return float(self.shares @ self.t_c)

    @property
    def butter_c(self) -> float:
        """Mean temperature of the butter, °C; of the whole where there is none."""
        return float(self.butter_shares @ self.t_c)

    @cached_property
    def has_butter(self) -> bool:
        """Whether it holds any butter."""
        return bool(self.butter_kg_m2.sum() > 0)


def middle_of(t_c: Profile) -> Profile:
    """The middle of profiles whose last axis runs through the thickness."""
    n = t_c.shape[-1]
    found: Profile = (t_c[..., (n - 1) // 2] + t_c[..., n // 2]) / 2
    return found


def grid(thickness_m: float, cells: int) -> Profile:
    """Lines from face to face, m, closer together at both faces."""
    return _unit_grid(cells) * thickness_m


@lru_cache(maxsize=16)
def _unit_grid(cells: int) -> Profile:
    n = np.arange(cells) + 0.5
    sizes = _FINER_AT_FACES + (1 - _FINER_AT_FACES) * np.sin(math.pi * n / cells)
    lines: Profile = np.concatenate(([0.0], np.cumsum(sizes))) / sizes.sum()
    lines[-1] = 1.0
    return lines


def body(
    layers: Sequence[tuple[bool, float]],
    dough: tuple[Thermal, float],
    butter: tuple[Thermal, float],
    t_c: float | tuple[float, float],
    cells: int = CELLS,
) -> Body:
    """A body of ``cells`` cells from layers ``(is butter, thickness in mm)``, bottom to top.

    ``dough`` and ``butter``: tables and density, kg/m³. ``t_c``: one temperature, or those of dough
    and of butter, which then share their cells' warmth.
    """
    edges = np.concatenate(([0.0], np.cumsum([mm for _, mm in layers]))) / 1000
    lines = grid(float(edges[-1]), cells)
    # how much butter lies below each line
    below = np.concatenate(([0.0], np.cumsum([mm / 1000 if b else 0.0 for b, mm in layers])))
    butter_m = np.maximum(np.diff(np.interp(lines, edges, below)), 0.0)
    dough_m = np.maximum(np.diff(lines) - butter_m, 0.0)
    warm = t_c if isinstance(t_c, tuple) else (t_c, t_c)
    made = Body(
        dough[0], butter[0], dough_m * dough[1], butter_m * butter[1], dough_m, butter_m,
        np.full(cells, float(warm[0])),
    )  # fmt: skip
    if warm[0] == warm[1]:
        return made
    energy = made.dough_kg_m2 * dough[0].at(
        dough[0].enthalpy_j_kg, np.full(cells, float(warm[0]))
    ) + made.butter_kg_m2 * butter[0].at(butter[0].enthalpy_j_kg, np.full(cells, float(warm[1])))
    return with_energy(made, energy)


def coil(
    across_mm: float,
    butter_share: float,
    dough: tuple[Thermal, float],
    butter: tuple[Thermal, float],
    t_c: float,
    cells: int = CELLS,
) -> Body:
    """A sheet rolled up, so far across: a cylinder, all through of the same dough and butter.

    ``butter_share``: of its volume, 0 to 1. Its rings hold ρ·(b² - a²)/2R for each m² of the outside, and
    resist R·ln(b/a)/k; the innermost from where half of it lies inside. Source: conduction in a cylinder.
    """
    radius = across_mm / 2000
    lines = grid(radius, cells)
    inner, outer = lines[:-1], lines[1:]
    deep = (outer**2 - inner**2) / (2 * radius)
    resists = np.empty(cells)
    resists[1:] = radius * np.log(outer[1:] / inner[1:])
    resists[0] = radius * math.log(2)
    return Body(
        dough[0], butter[0], deep * (1 - butter_share) * dough[1], deep * butter_share * butter[1],
        resists * (1 - butter_share), resists * butter_share, np.full(cells, float(t_c)), True,
    )  # fmt: skip


def with_energy(of: Body, energy_j_m2: Profile) -> Body:
    """The body with the temperatures that give its cells these enthalpies, J/m²."""
    tables = np.outer(of.dough_kg_m2, of.dough.enthalpy_j_kg) + np.outer(
        of.butter_kg_m2, of.butter.enthalpy_j_kg
    )
    t = [np.interp(e, table, TEMPERATURES) for e, table in zip(energy_j_m2, tables, strict=True)]
    return of.at_warmth(np.array(t))


def warmed(of: Body, by_k: float) -> Body:
    """The body with the heat of working in it, as if its capacity were even, K."""
    return of.at_warmth(of.t_c + by_k)


def _remeshed(of: Body, thick: Profile, columns: Sequence[Profile], energy: Profile) -> Body:
    """A body of many thin cells put on the usual grid: masses, thicknesses and energy are kept."""
    edges = np.concatenate(([0.0], np.cumsum(thick)))
    lines = grid(float(edges[-1]), len(of.t_c))

    def moved(values: Profile) -> Profile:
        summed = np.concatenate(([0.0], np.cumsum(values)))
        found: Profile = np.diff(np.interp(lines, edges, summed))
        return found

    dough_kg, butter_kg, dough_m, butter_m = (moved(column) for column in columns)
    made = replace(
        of, dough_kg_m2=dough_kg, butter_kg_m2=butter_kg, dough_m=dough_m, butter_m=butter_m
    )
    return with_energy(made, moved(energy))


def refolded(of: Body, over: Sequence[bool]) -> Body:
    """The body folded: so many panels on each other, ``over`` saying which lie turned over.

    Each panel brings its own profile of warmth; the package has as many cells as the sheet.
    """

    def stacked(values: Profile) -> Profile:
        return np.concatenate([values[::-1] if flip else values for flip in over])

    columns = [stacked(c) for c in (of.dough_kg_m2, of.butter_kg_m2, of.dough_m, of.butter_m)]
    return _remeshed(of, stacked(of.dough_m + of.butter_m), columns, stacked(of.enthalpy_j_m2))


def pressed(of: Body, thickness_m: float) -> Body:
    """The body rolled to another thickness: less mass over each square metre, the same warmth."""
    by = thickness_m / of.thickness_m
    return replace(
        of,
        dough_kg_m2=of.dough_kg_m2 * by,
        butter_kg_m2=of.butter_kg_m2 * by,
        dough_m=of.dough_m * by,
        butter_m=of.butter_m * by,
    )
