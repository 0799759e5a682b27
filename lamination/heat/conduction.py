"""Conduction through the thickness of a dough: finite volumes on the enthalpy, both faces to the air.

One dimension: a sheet is far wider than thick. What a dough lies on may be a body of its own: more
cells of the same grid. Stepping is linearly implicit (a Rosenbrock method of second order, L-stable):
one tridiagonal matrix a step, no iteration, and energy is kept through melting and freezing because it
is what is stepped.
"""

from __future__ import annotations

import math
from bisect import bisect_right
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise

import numpy as np

from lamination.heat.body import Body
from lamination.materials.thermal import COLDEST_C, STEP_K, TEMPERATURES, Profile

_GAMMA = 1 - 1 / math.sqrt(2)
_TOLERANCE_K = 0.02  # what a step may be wrong by
_GROWS, _SHRINKS, _LONGEST_S = 2.2, 0.25, 7_200.0
_FIRST_K, _SHORTEST_S, _LONGEST_FIRST_S = 2.0, 2.0, 300.0  # of the first step, in tolerances
_SLAB_CELLS = 5


@dataclass(frozen=True, slots=True)
class Air:
    """What lies at one face: temperature, °C, and film coefficient, W/(m²·K)."""

    t_c: float
    film_w_m2k: float


@dataclass(frozen=True, slots=True)
class Slab:
    """What a dough lies on, as a body: m, W/(m·K), J/(m²·K) in all, its warmth from below upwards.

    ``contact_w_m2k``: heat that passes between the two; ``under``: the air below it.
    """

    thickness_m: float
    k_w_m_k: float
    holds_j_m2k: float
    t_c: tuple[float, ...]
    contact_w_m2k: float
    under: Air


@dataclass(frozen=True, eq=False)
class Course:
    """A body over time: ``minutes`` from the start, ``t_c[step, cell]``, and the body at the end.

    ``rates`` are the slopes at each step, K/min, so that what lies between two is read on a curve.
    ``taken_j_m2`` is the heat that came in through both faces.
    """

    minutes: Profile
    t_c: Profile
    end: Body
    taken_j_m2: float
    rates: Profile

    def at(self, minutes: Profile) -> Profile:
        """The profiles at some minutes, by cubic interpolation with the slopes: [minute, cell]."""
        if len(self.minutes) == 1:
            return np.repeat(self.t_c, len(minutes), axis=0)
        i = np.clip(np.searchsorted(self.minutes, minutes, "right") - 1, 0, len(self.minutes) - 2)
        long = (self.minutes[i + 1] - self.minutes[i])[:, None]
        u = np.clip((minutes - self.minutes[i])[:, None] / long, 0, 1)
        a, b = self.t_c[i], self.t_c[i + 1]
        curved = (
            a * (1 + 2 * u) * (1 - u) ** 2
            + b * u**2 * (3 - 2 * u)
            + long * (self.rates[i] * u * (1 - u) ** 2 - self.rates[i + 1] * u**2 * (1 - u))
        )
        # between two steps nothing swings beyond them by more than a hair
        low, high = np.minimum(a, b) - 0.05, np.maximum(a, b) + 0.05
        found: Profile = np.clip(curved, low, high)
        return found

    def body_at(self, minute: float) -> Body:
        """The body at a minute."""
        return replace(self.end, t_c=self.at(np.array([minute]))[0])

    def then(self, more: Course) -> Course:
        """This course and another that goes on from its end."""
        return Course(
            np.concatenate((self.minutes, self.minutes[-1] + more.minutes[1:])),
            np.concatenate((self.t_c, more.t_c[1:])),
            more.end,
            self.taken_j_m2 + more.taken_j_m2,
            np.concatenate((self.rates, more.rates[1:])),
        )


def still(of: Body) -> Course:
    """A course of no length."""
    return Course(np.zeros(1), of.t_c[None, :], of, 0.0, np.zeros((1, len(of.t_c))))


def conduct(of: Body, below: Air | Slab, above: Air, minutes: float, finer: float = 1.0) -> Course:
    """Let a body lie for so many minutes on something, or on air, with air above it.

    ``finer`` divides what a step may be wrong by. The same body between the same airs for as long is
    conducted once, so that what a change leaves as it was costs nothing. Raises ValueError for a time
    that is negative or not finite, an air below absolute zero, or a film coefficient that is not
    positive.
    Source: conservation of energy; the method is Verwer's ROS2.
    """
    if not (math.isfinite(minutes) and minutes >= 0):
        raise ValueError(f"a rest of {minutes:g} minutes cannot be simulated")
    for air in (below.under if isinstance(below, Slab) else below, above):
        if not (math.isfinite(air.t_c) and air.t_c > -273.15):
            raise ValueError(f"{air.t_c:g} °C is below absolute zero")
        if not (math.isfinite(air.film_w_m2k) and air.film_w_m2k > 0):
            raise ValueError(f"a film coefficient of {air.film_w_m2k:g} is not positive")
    if minutes <= 0:
        return still(of)
    return _conducted(of, below, above, minutes, finer)


@lru_cache(maxsize=1_500)
def _conducted(of: Body, below: Air | Slab, above: Air, minutes: float, finer: float) -> Course:
    return _Grid(of, below, above).march(minutes * 60, _TOLERANCE_K / finer)


class _Grid:
    """One body, with what it lies on, laid out for stepping: plain lists, for there are few cells."""

    def __init__(self, of: Body, below: Air | Slab, above: Air) -> None:
        self.of = of
        slab = below if isinstance(below, Slab) else None
        self.under: Air = below.under if isinstance(below, Slab) else below
        self.above = above
        warm = [*of.t_c.tolist(), self.under.t_c, above.t_c, *(slab.t_c if slab else ())]
        first = max(int((min(warm) - 2 - COLDEST_C) / STEP_K), 0)
        last = min(int((max(warm) + 3 - COLDEST_C) / STEP_K) + 1, len(TEMPERATURES) - 1)
        self.low_c = COLDEST_C + first * STEP_K
        tables = np.outer(of.dough_kg_m2, of.dough.enthalpy_j_kg[first : last + 1]) + np.outer(
            of.butter_kg_m2, of.butter.enthalpy_j_kg[first : last + 1]
        )
        self.tables: list[list[float]] = tables.tolist()
        self.slab = slab
        n = self.slab_cells = _SLAB_CELLS if slab else 0
        if slab:
            each = slab.holds_j_m2k / n
            span = np.arange(last - first + 1) * STEP_K + self.low_c
            self.tables = [(each * span).tolist()] * n + self.tables
        self.dough_k = of.dough.conductivity_w_m_k[first : last + 1].tolist()
        self.butter_k = of.butter.conductivity_w_m_k[first : last + 1].tolist()
        self.dough_m, self.butter_m = of.dough_m.tolist(), of.butter_m.tolist()
        start = of.t_c.tolist()
        if slab:
            inner = np.interp((np.arange(n) + 0.5) / n, np.linspace(0, 1, len(slab.t_c)), slab.t_c)
            start = inner.tolist() + start
        self.energy = [self._energy(i, t) for i, t in enumerate(start)]

    def _energy(self, i: int, t: float) -> float:
        where = (t - self.low_c) / STEP_K
        j = min(max(int(where), 0), len(self.tables[i]) - 2)
        low, high = self.tables[i][j], self.tables[i][j + 1]
        return low + (where - j) * (high - low)

    def _warmth(self, energy: list[float]) -> tuple[list[float], list[float]]:
        """Temperature and heat capacity of every cell at these enthalpies."""
        t, held = [], []
        low_c = self.low_c
        for e, table in zip(energy, self.tables, strict=True):
            j = bisect_right(table, e) - 1
            j = 0 if j < 0 else min(j, len(table) - 2)
            rise = table[j + 1] - table[j]
            t.append(low_c + (j + (e - table[j]) / rise) * STEP_K)
            held.append(rise / STEP_K)
        return t, held

    def _links(self, t: list[float]) -> list[float]:
        """Conductances from below upwards, W/(m²·K): air, between neighbours, air."""
        n, low_c, top = self.slab_cells, self.low_c, len(self.dough_k) - 1
        half = []
        for i, (dough, butter) in enumerate(zip(self.dough_m, self.butter_m, strict=True)):
            j = int((t[n + i] - low_c) / STEP_K)
            j = 0 if j < 0 else min(j, top)
            half.append((dough / self.dough_k[j] + butter / self.butter_k[j]) / 2)
        contact = 0.0
        if self.slab:
            own = self.slab.thickness_m / n / self.slab.k_w_m_k / 2
            half = [own] * n + half
            contact = 1 / self.slab.contact_w_m2k
        links = [1 / (1 / self.under.film_w_m2k + half[0])]
        links += [
            1 / (a + b + (contact if i + 1 == n else 0.0))
            for i, (a, b) in enumerate(pairwise(half))
        ]
        links.append(1 / (1 / self.above.film_w_m2k + half[-1]))
        return links

    def march(self, seconds: float, tolerance_k: float) -> Course:
        """Step to the end, each step as long as its error allows."""
        energy, at, taken = self.energy, 0.0, 0.0
        t, held = self._warmth(energy)
        links = self._links(t)
        flow = self._gain(t, links)
        n = self.slab_cells
        times, profiles = [0.0], [t[n:]]
        rates = [[60 * f / c for f, c in zip(flow[n:], held[n:], strict=True)]]
        # the faster it changes, the shorter the first step
        fastest = max(abs(f) / c for f, c in zip(flow, held, strict=True))
        step = _FIRST_K * tolerance_k / max(fastest, 1e-9)
        step = min(max(step, _SHORTEST_S), _LONGEST_FIRST_S)
        while at < seconds - 1e-9:
            step = min(step, seconds - at)
            while True:
                k1, k2, through = self._stages(energy, t, held, links, flow, step)
                error = (
                    max(abs(a + b) / c for a, b, c in zip(k1, k2, held, strict=True)) * 0.5 * step
                )
                if error <= tolerance_k or step <= 0.05:
                    break
                step *= max(_SHRINKS, 0.85 * math.sqrt(tolerance_k / error))
            energy = [
                e + step * (1.5 * a + 0.5 * b) for e, a, b in zip(energy, k1, k2, strict=True)
            ]
            taken += step * through
            at += step
            t, held = self._warmth(energy)
            links = self._links(t)
            flow = self._gain(t, links)
            times.append(at / 60)
            profiles.append(t[n:])
            rates.append([60 * f / c for f, c in zip(flow[n:], held[n:], strict=True)])
            step = min(
                step * min(_GROWS, 0.85 * math.sqrt(tolerance_k / max(error, 1e-9))), _LONGEST_S
            )
        end = replace(self.of, t_c=np.array(t[n:]))
        return Course(np.array(times), np.array(profiles), end, taken, np.array(rates))

    def _gain(self, t: list[float], links: list[float]) -> list[float]:
        """Heat that flows into every cell, W/m²."""
        flows = [links[0] * (self.under.t_c - t[0])]
        flows += [link * (a - b) for link, a, b in zip(links[1:-1], t, t[1:], strict=False)]
        flows.append(links[-1] * (t[-1] - self.above.t_c))
        return [a - b for a, b in pairwise(flows)]

    def _stages(
        self,
        energy: list[float],
        t: list[float],
        held: list[float],
        links: list[float],
        flow: list[float],
        step: float,
    ) -> tuple[list[float], list[float], float]:
        """The two stages of a step, W/m², and the mean heat through both faces of the dough."""
        a = _GAMMA * step
        # (C - a·L) y = r is symmetric and tridiagonal; what a cell gains is C·y
        diagonal = [c + a * (lo + hi) for c, lo, hi in zip(held, links, links[1:], strict=False)]
        off = [-a * link for link in links[1:-1]]
        ratio, pivots = [], [diagonal[0]]
        for i, o in enumerate(off):
            r = o / pivots[i]
            ratio.append(r)
            pivots.append(diagonal[i + 1] - r * o)

        def solved(right: list[float]) -> list[float]:
            y = [right[0]]
            for r, x in zip(ratio, right[1:], strict=True):
                y.append(x - r * y[-1])
            y[-1] /= pivots[-1]
            for i in range(len(off) - 1, -1, -1):
                y[i] = (y[i] - off[i] * y[i + 1]) / pivots[i]
            return y

        y1 = solved(flow)
        k1 = [c * y for c, y in zip(held, y1, strict=True)]
        moved, _ = self._warmth([e + step * k for e, k in zip(energy, k1, strict=True)])
        second = self._gain(moved, links)
        y2 = solved([f - 2 * k for f, k in zip(second, k1, strict=True)])
        k2 = [c * y for c, y in zip(held, y2, strict=True)]
        n = self.slab_cells
        return k1, k2, sum(1.5 * x + 0.5 * y for x, y in zip(k1[n:], k2[n:], strict=True))
