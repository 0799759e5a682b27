"""Yeast: how fast it works at a temperature, and when a proof is done."""

from __future__ import annotations

import numpy as np

from lamination.materials.thermal import Profile

T_MIN_C, T_OPT_C, T_MAX_C = 1.0, 36.0, 47.0  # published
REFERENCE_MIN, REFERENCE_C, REFERENCE_YEAST_PCT = 120.0, 27.0, 3.5
_SUGAR_SLOWS_FROM_PCT, _SUGAR_SLOWS = 10.0, 0.03  # trade practice: a tenth more sugar, 30 % slower


def activity(t_c: float | Profile) -> Profile:
    """Relative activity γ at a temperature, 0 to 1: cardinal temperatures with inflection.

    Source: Rosso, Lobry and Flandrois (1993); Tmin 1, Topt 36, Tmax 47 °C.
    """
    t = np.asarray(t_c, dtype=float)
    low, best, high = T_MIN_C, T_OPT_C, T_MAX_C
    inside = (t > low) & (t < high)
    above = (t - high) * (t - low) ** 2
    under = (best - low) * ((best - low) * (t - best) - (best - high) * (best + low - 2 * t))
    found: Profile = np.where(inside, above / np.where(inside, under, 1.0), 0.0)
    return found


def dose(minutes: Profile, t_c: Profile) -> float:
    """Activity integrated over a piece's own temperature, in minutes at γ = 1.

    ``t_c[step, cell]`` at ``minutes[step]``; the cells weigh alike.
    """
    mean = activity(t_c).mean(axis=1) if t_c.ndim > 1 else activity(t_c)
    return float(np.trapezoid(mean, minutes))


def full_dose(yeast_pct: float, sugar_pct: float, reference_min: float = REFERENCE_MIN) -> float:
    """The dose at which a proof is complete, minutes at γ = 1; infinite without yeast.

    120 min at 27 °C with 3.5 % of fresh yeast on flour, less time with more yeast, more with sugar
    above a tenth of the flour. Arguments in % of flour. Source: core-model §8; trade practice.
    """
    if yeast_pct <= 0:
        return float("inf")
    slowed = 1 + _SUGAR_SLOWS * max(sugar_pct - _SUGAR_SLOWS_FROM_PCT, 0.0)
    return reference_min * float(activity(REFERENCE_C)) * REFERENCE_YEAST_PCT / yeast_pct * slowed
