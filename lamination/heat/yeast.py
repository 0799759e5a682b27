"""Yeast and ripening: how fast they go at a temperature, and when a proof is done.

Two clocks: *rise* is what a proof needs, and every roll presses it out; *ripeness* is how much the
dough has lived through since the mixer, and nothing takes it back.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from lamination.materials.thermal import TEMPERATURES, Profile

T_MIN_C, T_OPT_C, T_MAX_C = 1.0, 36.0, 47.0  # published
REFERENCE_MIN, REFERENCE_C, REFERENCE_YEAST_PCT = 120.0, 27.0, 3.5
FRIDGE_C = 4.0  # ripening is counted in hours at this warmth


def activity(t_c: float | Profile) -> Profile:
    """Relative activity γ at a temperature, 0 to 1: cardinal temperatures with inflection.

    Source: Rosso, Lobry and Flandrois, Journal of Theoretical Biology 162 (1993), 447; Tmin 1,
    Topt 36, Tmax 47 °C.

    >>> [round(float(activity(t)), 3) for t in (4, 12, 18, 27)]
    [0.014, 0.174, 0.387, 0.769]
    """
    t = np.asarray(t_c, dtype=float)
    low, best, high = T_MIN_C, T_OPT_C, T_MAX_C
    inside = (t > low) & (t < high)
    above = (t - high) * (t - low) ** 2
    under = (best - low) * ((best - low) * (t - best) - (best - high) * (best + low - 2 * t))
    found: Profile = np.where(inside, above / np.where(inside, under, 1.0), 0.0)
    return found


def ripening(t_c: Profile, times_per_10_k: float, freezes_c: float) -> Profile:
    """How fast a dough ripens, hours at 4 °C per hour; nothing ripens while it is frozen.

    Acids, enzymes and flavour go on in the cold where yeast hardly rises. Source: trade practice (a
    night or a day in the fridge), with the usual rule of so many times for ten degrees.
    """
    t = np.asarray(t_c, dtype=float)
    found: Profile = np.where(t > freezes_c, times_per_10_k ** ((t - FRIDGE_C) / 10), 0.0)
    return found


@lru_cache(maxsize=64)
def clocks(times_per_10_k: float, freezes_c: float) -> Profile:
    """Both clocks over :data:`~lamination.materials.thermal.TEMPERATURES`: activity, min a minute, and
    ripening, h of the fridge a minute.
    """
    return np.stack(
        (activity(TEMPERATURES), ripening(TEMPERATURES, times_per_10_k, freezes_c) / 60)
    )


def integrated(minutes: Profile, rate: Profile) -> Profile:
    """The integral of a rate from the start to each moment: the one way a dose is summed.

    >>> integrated(np.array([0.0, 10.0, 20.0]), np.array([1.0, 1.0, 0.0])).tolist()
    [0.0, 10.0, 15.0]
    """
    parts = (rate[1:] + rate[:-1]) / 2 * np.diff(minutes)
    found: Profile = np.concatenate(([0.0], np.cumsum(parts)))
    return found


def dose(minutes: Profile, t_c: Profile, shares: Profile | None = None) -> float:
    """Activity integrated over a piece's own temperature, in minutes at γ = 1.

    ``t_c[step, cell]`` at ``minutes[step]``; ``shares``: of the mass in every cell, alike if not said.
    """
    rate = activity(t_c)
    if t_c.ndim > 1:
        rate = rate @ shares if shares is not None else rate.mean(axis=1)
    return float(integrated(minutes, rate)[-1])


@dataclass(frozen=True, slots=True)
class Leaven:
    """What makes a dough rise, % of flour: yeast as fresh, sugar; and how sugar slows it.

    ``reference_min``: a whole proof at 27 °C with 3.5 % of fresh yeast.
    """

    yeast_pct: float
    sugar_pct: float
    reference_min: float = REFERENCE_MIN
    sugar_from_pct: float = 10.0
    sugar_slows: float = 0.03

    @property
    def whole_dose(self) -> float:
        """The dose of a whole proof, minutes at γ = 1; infinite without yeast. Linear in the yeast.

        >>> Leaven(3.5, 10).whole_dose == 2 * Leaven(7, 10).whole_dose
        True
        """
        if self.yeast_pct <= 0:
            return float("inf")
        return self._of(self.yeast_pct)

    def dose_for(self, usual: tuple[float, float]) -> float:
        """The same where bakers proof by the clock: within the usual yeast, the yeast changes little.

        Below the usual it takes longer in proportion, above it less. Source: trade practice.
        """
        if self.yeast_pct <= 0:
            return float("inf")
        low, high = usual
        nearest = min(max(self.yeast_pct, low), high)
        return self._of(REFERENCE_YEAST_PCT) * nearest / self.yeast_pct

    def _of(self, yeast_pct: float) -> float:
        slowed = 1 + self.sugar_slows * max(self.sugar_pct - self.sugar_from_pct, 0.0)
        at = float(activity(REFERENCE_C))
        return self.reference_min * at * REFERENCE_YEAST_PCT / yeast_pct * slowed
