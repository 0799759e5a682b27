"""Conduction through the thickness of a dough: finite volumes on the enthalpy, both faces to the air.

One dimension: a sheet is far wider than thick. What a dough lies on may be a body of its own: more
cells of the same grid. Stepping is linearly implicit (a Rosenbrock method of second order, L-stable):
one tridiagonal matrix a step, no iteration, and energy is kept through melting and freezing because it
is what is stepped.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cache, lru_cache
from types import ModuleType

import numpy as np

from lamination.heat.body import Body
from lamination.materials.thermal import Profile, Thermal

_TOLERANCE_K = 0.01  # what a step may be wrong by
_SLAB_CELLS = 5
_NO_FILM = 1e-12


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
        found: Profile = _compiled().read(
            self.minutes, self.t_c, self.rates, np.asarray(minutes, float)
        )
        return found

    def gathered(self, rates: Profile, until: Profile) -> Profile:
        """What runs at rates that hang on warmth, gathered up to some ascending minutes: [rate, minute].

        ``rates``: per minute over :data:`~lamination.materials.thermal.TEMPERATURES`, a row each.
        """
        if len(self.minutes) == 1:
            return np.zeros((len(rates), len(until)))
        found: Profile = _compiled().gathered(
            self.minutes, self.t_c, self.rates, self.end.shares, rates, np.asarray(until, float)
        )
        return found

    def body_at(self, minute: float) -> Body:
        """The body at a minute."""
        return self.end.at_warmth(self.at(np.array([minute]))[0])

    def then(self, more: Course) -> Course:
        """This course and another that goes on from its end."""
        return Course(
            np.concatenate((self.minutes, self.minutes[-1] + more.minutes[1:])),
            np.concatenate((self.t_c, more.t_c[1:])),
            more.end,
            self.taken_j_m2 + more.taken_j_m2,
            np.concatenate((self.rates, more.rates[1:])),
        )


@cache
def _compiled() -> ModuleType:
    """The loops; their compiler takes half a second to import, so only where heat is asked for."""
    from lamination.heat import stepping

    return stepping


def ready() -> None:
    """Have the compiled loops at hand before somebody waits for them."""
    _compiled()


def still(of: Body) -> Course:
    """A course of no length."""
    return Course(np.zeros(1), of.t_c[None, :], of, 0.0, np.zeros((1, len(of.t_c))))


def conduct(of: Body, below: Air | Slab, above: Air, minutes: float, finer: float = 1.0) -> Course:
    """Let a body lie for so many minutes on something, or on air, with air above it; round a coil.

    ``finer`` divides what a step may be wrong by. The same body between the same airs for as long is
    conducted once, so that what a change leaves as it was costs nothing. Raises ValueError for a time
    that is negative or not finite, an air below absolute zero, or a film coefficient that is not
    positive.
    Source: conservation of energy; the method is Verwer's ROS2.
    """
    if not (math.isfinite(minutes) and minutes >= 0):
        raise ValueError(f"a rest of {minutes:g} minutes cannot be simulated")
    if of.round:
        below = Air(above.t_c, _NO_FILM)  # no heat passes its axis
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
    start, n, each, half, contact = of.t_c, 0, 1.0, 0.0, 0.0
    under: Air
    if isinstance(below, Air):
        under = below
    else:
        n, under = _SLAB_CELLS, below.under
        each, half = below.holds_j_m2k / n, below.thickness_m / n / below.k_w_m_k / 2
        contact = 1 / below.contact_w_m2k
        inner = np.interp(*_depths(n, len(below.t_c)), below.t_c)
        start = np.concatenate((inner, start))
    times, seen, rates, taken = _compiled().march(
        start, of.cells, _tables(of.dough, of.butter), n, each, half, contact,
        (float(under.t_c), float(under.film_w_m2k)), (float(above.t_c), float(above.film_w_m2k)),
        minutes * 60.0, _TOLERANCE_K / finer,
    )  # fmt: skip
    return Course(times, seen, of.at_warmth(seen[-1]), taken, rates)


@lru_cache(maxsize=64)
def _depths(cells: int, known: int) -> tuple[Profile, Profile]:
    """Where the middles of a slab's cells lie, and where its warmth is known, as shares of it."""
    return (np.arange(cells) + 0.5) / cells, np.linspace(0, 1, known)


@lru_cache(maxsize=64)
def _tables(dough: Thermal, butter: Thermal) -> Profile:
    """Enthalpy and conductivity of dough, then of butter, over the temperatures."""
    return np.stack(
        (
            dough.enthalpy_j_kg, dough.conductivity_w_m_k,
            butter.enthalpy_j_kg, butter.conductivity_w_m_k,
        )
    )  # fmt: skip
