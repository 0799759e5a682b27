"""Conduction through the thickness of a dough: finite volumes, enthalpy, both faces to the air.

One dimension: a sheet is far wider than thick. Each cell holds some dough and some butter, which
share a temperature; heat crosses them in series. Stepping is SDIRK2 (two implicit stages, L-stable),
each stage solved by Newton on the enthalpy, so energy is kept through melting and freezing.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from lamination.materials.thermal import COLDEST_C, STEP_K, WARMEST_C, Profile, Thermal

CELLS = 18
_GAMMA = 1 - 1 / math.sqrt(2)
_CLOSE_K = 1e-3  # Newton stops after a move of less
_STRIDE_K, _HAIR_K = 4.0, 1e-3
_MOST_NEWTON, _HALVINGS = 200, 12
_FIRST_S, _GROWS, _SHRINKS, _LONGEST_S = 8.0, 1.6, 0.4, 3_600.0
_MOVES_K = 1.6  # no cell should move much more in a step


@dataclass(frozen=True, eq=False)
class Body:
    """A sheet or package lying flat: per cell, from the bottom up, what it holds and its warmth.

    ``dough_kg_m2`` and ``butter_kg_m2`` are masses per area, ``dough_m`` and ``butter_m``
    thicknesses, ``t_c`` temperatures.
    """

    dough: Thermal
    butter: Thermal
    dough_kg_m2: Profile
    butter_kg_m2: Profile
    dough_m: Profile
    butter_m: Profile
    t_c: Profile

    @property
    def enthalpy_j_m2(self) -> Profile:
        """Enthalpy of every cell, J/m²."""
        return self.dough_kg_m2 * self.dough.at(
            self.dough.enthalpy_j_kg, self.t_c
        ) + self.butter_kg_m2 * self.butter.at(self.butter.enthalpy_j_kg, self.t_c)

    @property
    def thickness_m(self) -> float:
        return float(self.dough_m.sum() + self.butter_m.sum())

    @property
    def middle_c(self) -> float:
        n = len(self.t_c)
        return float((self.t_c[(n - 1) // 2] + self.t_c[n // 2]) / 2)

    @property
    def butter_c(self) -> float:
        """Mean temperature of the butter, °C; of the whole where there is none."""
        held = self.butter_kg_m2.sum()
        weights = self.butter_kg_m2 if held > 0 else self.dough_kg_m2
        return float((weights * self.t_c).sum() / weights.sum())

    @property
    def has_butter(self) -> bool:
        return bool(self.butter_kg_m2.sum() > 0)

    def butter_range_c(self) -> tuple[float, float]:
        """The coldest and the warmest butter, °C; of the whole where there is none."""
        some = self.butter_kg_m2 > 1e-3 * max(self.butter_kg_m2.max(), 1e-12)
        cells = self.t_c[some] if self.has_butter else self.t_c
        return float(cells.min()), float(cells.max())

    @property
    def spread_k(self) -> float:
        """Between the warmest and the coldest cell, K."""
        return float(self.t_c.max() - self.t_c.min())

    @property
    def faces_c(self) -> tuple[float, float]:
        """The two outermost cells, below and above, °C."""
        return float(self.t_c[0]), float(self.t_c[-1])


@dataclass(frozen=True, slots=True)
class Air:
    """What lies at one face: temperature, °C, and film coefficient, W/(m²·K)."""

    t_c: float
    film_w_m2k: float


@dataclass(frozen=True, eq=False)
class Course:
    """A body over time: ``minutes`` from the start, ``t_c[step, cell]``, and the body at the end.

    ``taken_j_m2`` is the heat that came in through both faces.
    """

    minutes: Profile
    t_c: Profile
    end: Body
    taken_j_m2: float

    def body_at(self, minute: float) -> Body:
        """The body at a minute, read between two steps."""
        cells = [np.interp(minute, self.minutes, column) for column in self.t_c.T]
        return replace(self.end, t_c=np.array(cells))


def body(
    layers: Sequence[tuple[bool, float]],
    dough: tuple[Thermal, float],
    butter: tuple[Thermal, float],
    t_c: float | tuple[float, float],
    cells: int = CELLS,
) -> Body:
    """A body of ``cells`` even cells from layers ``(is butter, thickness in mm)``, bottom to top.

    ``dough`` and ``butter``: tables and density, kg/m³. ``t_c``: one temperature, or those of dough
    and of butter, which then share their cells' warmth.
    """
    edges = np.concatenate(([0.0], np.cumsum([mm for _, mm in layers]))) / 1000
    lines = np.linspace(0, edges[-1], cells + 1)
    # how much butter lies below each line
    below = np.concatenate(([0.0], np.cumsum([mm / 1000 if b else 0.0 for b, mm in layers])))
    butter_m = np.diff(np.interp(lines, edges, below))
    dough_m = np.maximum(np.diff(lines) - butter_m, 0.0)
    warm = t_c if isinstance(t_c, tuple) else (t_c, t_c)
    made = Body(
        dough[0],
        butter[0],
        dough_m * dough[1],
        butter_m * butter[1],
        dough_m,
        butter_m,
        np.full(cells, float(warm[0])),
    )
    if warm[0] == warm[1]:
        return made
    energy = made.dough_kg_m2 * dough[0].at(
        dough[0].enthalpy_j_kg, np.full(cells, float(warm[0]))
    ) + made.butter_kg_m2 * butter[0].at(butter[0].enthalpy_j_kg, np.full(cells, float(warm[1])))
    return with_energy(made, energy)


def with_energy(of: Body, energy_j_m2: Profile) -> Body:
    """The body with the temperatures that give its cells these enthalpies, J/m²."""
    low, high = np.full_like(of.t_c, COLDEST_C), np.full_like(of.t_c, WARMEST_C)
    for _ in range(24):  # halves 140 K to a hundred-thousandth
        middle = (low + high) / 2
        under = replace(of, t_c=middle).enthalpy_j_m2 < energy_j_m2
        low, high = np.where(under, middle, low), np.where(under, high, middle)
    return replace(of, t_c=(low + high) / 2)


def warmed(of: Body, by_k: float) -> Body:
    """The body with the heat of working in it, as if its capacity were even, K."""
    return replace(of, t_c=of.t_c + by_k)


def refolded(of: Body, over: Sequence[bool]) -> Body:
    """The body folded: so many panels on each other, ``over`` saying which lie turned over.

    Each panel brings its own profile of warmth; the package has as many cells as the sheet.
    """
    n, panels = len(of.t_c), len(over)

    def stacked(values: Profile) -> Profile:
        whole = np.concatenate([values[::-1] if flip else values for flip in over])
        summed: Profile = whole.reshape(n, panels).sum(axis=1)
        return summed

    energy = stacked(of.enthalpy_j_m2)
    made = replace(
        of,
        dough_kg_m2=stacked(of.dough_kg_m2),
        butter_kg_m2=stacked(of.butter_kg_m2),
        dough_m=stacked(of.dough_m),
        butter_m=stacked(of.butter_m),
        t_c=stacked(of.t_c) / panels,
    )
    return with_energy(made, energy)


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


def conduct(of: Body, below: Air, above: Air, minutes: float, finer: float = 1.0) -> Course:
    """Let a body lie between two airs for so many minutes.

    Steps start at 8 s and grow while no cell moves much more than a kelvin; ``finer`` divides them.
    Raises ValueError for a time that is negative or not finite, an air below absolute zero, or a
    film coefficient that is not positive.
    Source: core-model §6.
    """
    if not (math.isfinite(minutes) and minutes >= 0):
        raise ValueError(f"a rest of {minutes:g} minutes cannot be simulated")
    for air in (below, above):
        if not (math.isfinite(air.t_c) and air.t_c > -273.15):
            raise ValueError(f"{air.t_c:g} °C is below absolute zero")
        if not (math.isfinite(air.film_w_m2k) and air.film_w_m2k > 0):
            raise ValueError(f"a film coefficient of {air.film_w_m2k:g} is not positive")
    left, step, at = minutes * 60, _FIRST_S / finer, 0.0
    stepper, airs = _Stepper(of, below, above), (below.t_c, above.t_c)
    t, energy = of.t_c, of.enthalpy_j_m2
    times, profiles, taken = [0.0], [t], 0.0
    while left > 1e-9:
        step = min(step, left)
        stepper.join(t)
        a = _GAMMA * step
        first, gain1 = stepper.solve(energy, t, a)
        base = energy + (1 - _GAMMA) * step * gain1
        before, (t, gain2) = t, stepper.solve(base, first, a)
        gain = (1 - _GAMMA) * gain1 + _GAMMA * gain2
        low, high = min(before.min(), *airs) - _HAIR_K, max(before.max(), *airs) + _HAIR_K
        if t.min() < low or t.max() > high:
            # where water freezes two stages may overshoot: one implicit stage cannot
            t, gain = stepper.solve(energy, before, step)
        energy = energy + step * gain
        taken += step * float(gain.sum())
        left, at = left - step, at + step
        times.append(at / 60)
        profiles.append(t)
        moved = float(np.abs(t - before).max())
        step *= min(max(_MOVES_K / finer / max(moved, 1e-9), _SHRINKS), _GROWS)
        step = min(step, _LONGEST_S / finer)
    return Course(np.array(times), np.array(profiles), replace(of, t_c=t), taken)


class _Stepper:
    """The arrays of one body between two airs, laid out for stepping."""

    def __init__(self, of: Body, below: Air, above: Air) -> None:
        self.of, self.airs = of, (below, above)
        n = len(of.t_c)
        self.tables = tuple(
            (mass, material.enthalpy_j_kg, material.capacity_j_kg_k)
            for mass, material in ((of.dough_kg_m2, of.dough), (of.butter_kg_m2, of.butter))
        )
        self.matrix = np.zeros((n, n))
        self.given = np.zeros(n)
        self.diagonal = slice(None, None, n + 1)

    def join(self, t: Profile) -> None:
        """Conductances between neighbours and to both airs at these temperatures, W/(m²·K)."""
        of, (below, above) = self.of, self.airs
        index = ((t - COLDEST_C) / STEP_K).astype(int)
        half = (
            of.dough_m / of.dough.conductivity_w_m_k[index]
            + of.butter_m / of.butter.conductivity_w_m_k[index]
        ) / 2
        ends = 1 / (1 / below.film_w_m2k + half[0]), 1 / (1 / above.film_w_m2k + half[-1])
        links = np.concatenate(([ends[0]], 1 / (half[:-1] + half[1:]), [ends[1]]))
        n = len(t)
        flat = self.matrix.reshape(-1)
        flat[:: n + 1] = links[:-1] + links[1:]
        flat[1 :: n + 1] = flat[n :: n + 1] = -links[1:-1]
        self.given[0] = ends[0] * below.t_c
        self.given[-1] = ends[1] * above.t_c + (self.given[0] if n == 1 else 0.0)

    def solve(self, base: Profile, t: Profile, a: float) -> tuple[Profile, Profile]:
        """Solve E(T) - a·gain(T) = base by Newton from ``t``: T, and its gain, W/m²."""
        matrix = a * self.matrix
        base = base + a * self.given
        kept, least, halved = t, math.inf, 0
        move: Profile = np.zeros_like(t)
        for _ in range(_MOST_NEWTON):
            where = (t - COLDEST_C) / STEP_K
            index = where.astype(int)
            over = (where - index) * STEP_K
            residual, held = matrix @ t - base, np.zeros_like(t)
            for mass, enthalpy, capacity in self.tables:
                slope = capacity[index]
                residual += mass * (enthalpy[index] + over * slope)
                held += mass * slope
            off = float(np.abs(residual).sum())
            if off > least and halved < _HALVINGS:
                # Across a freezing point a whole move would swing from side to side: go half of it.
                move, halved = move / 2, halved + 1
                t = kept - move
                continue
            kept, least, halved = t, off, 0
            jacobian = matrix.copy()
            jacobian.reshape(-1)[self.diagonal] += held
            move = np.asarray(np.linalg.solve(jacobian, residual), dtype=float)
            far = np.abs(move).max()
            if far > _STRIDE_K:
                move = move.clip(-_STRIDE_K, _STRIDE_K)
            t = t - move
            if far < _CLOSE_K:
                break
        return t, self.given - self.matrix @ t
