"""The steps of a conduction and how they are read, compiled: where plain Python is too slow.

Nothing imports this module before something is conducted.
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from lamination.materials.thermal import COLDEST_C, STEP_K, Profile
from lamination.terms.compiled import compiled, inlined

_GAMMA = 1 - 1 / math.sqrt(2)
_GROWS, _SHRINKS, _LONGEST_S = 2.2, 0.25, 7_200.0
_FIRST_K, _SHORTEST_S, _LONGEST_FIRST_S = 2.0, 2.0, 300.0  # of the first step, in tolerances
_SWINGS_K = 0.05
_GATHER_MIN = 2.0
_ROOM = 64  # steps that there is room for at first

Places = NDArray[np.int64]


@inlined
def _warmth(
    energy: Profile, cells: Profile, tables: Profile, slab_j: float, slab: int, where: Places,
    t: Profile, held: Profile,
) -> None:  # fmt: skip
    """Put temperature and heat capacity of every cell at these enthalpies into ``t`` and ``held``."""
    last = tables.shape[1] - 2
    for i in range(len(energy)):
        if i < slab:
            t[i], held[i] = energy[i] / slab_j, slab_j
            continue
        dough, butter = cells[0, i - slab], cells[1, i - slab]
        e, j = energy[i], where[i]
        low = dough * tables[0, j] + butter * tables[2, j]
        while j > 0 and low > e:
            j -= 1
            low = dough * tables[0, j] + butter * tables[2, j]
        high = dough * tables[0, j + 1] + butter * tables[2, j + 1]
        while j < last and high <= e:
            j += 1
            low, high = high, dough * tables[0, j + 1] + butter * tables[2, j + 1]
        where[i] = j
        t[i] = COLDEST_C + (j + (e - low) / (high - low)) * STEP_K
        held[i] = (high - low) / STEP_K


@inlined
def _gain(t: Profile, links: Profile, under_c: float, above_c: float, flow: Profile) -> None:
    """Put the heat that flows into every cell, W/m², into ``flow``."""
    n = len(t)
    through = links[0] * (under_c - t[0])
    for i in range(n):
        to = t[i + 1] if i + 1 < n else above_c
        out = links[i + 1] * (t[i] - to)
        flow[i] = through - out
        through = out


@inlined
def _solve(ratio: Profile, pivots: Profile, off: Profile, y: Profile) -> None:
    """Solve the symmetric tridiagonal system in place, from its factors."""
    n = len(y)
    for i in range(1, n):
        y[i] -= ratio[i - 1] * y[i - 1]
    y[n - 1] /= pivots[n - 1]
    for i in range(n - 2, -1, -1):
        y[i] = (y[i] - off[i] * y[i + 1]) / pivots[i]


@inlined
def _longer(rows: Profile) -> Profile:
    more = np.empty((2 * rows.shape[0], rows.shape[1]))
    more[: rows.shape[0]] = rows
    return more


@inlined
def _slopes(minutes: Profile, t_c: Profile, first: Profile) -> Profile:
    """Slopes at every step, K/min, of the parabolas through three; at the start as they were worked.

    Heat flowing into a thin cell at one moment says less: it trembles where butter begins to melt.
    """
    found = np.empty(t_c.shape)
    found[0] = first
    last = len(minutes) - 1
    for k in range(1, last + 1):
        for i in range(t_c.shape[1]):
            before = (t_c[k, i] - t_c[k - 1, i]) / (minutes[k] - minutes[k - 1])
            if k == last:
                found[k, i] = 2 * before - found[k - 1, i] if k > 1 else before
                continue
            after = (t_c[k + 1, i] - t_c[k, i]) / (minutes[k + 1] - minutes[k])
            near = (minutes[k + 1] - minutes[k]) / (minutes[k + 1] - minutes[k - 1])
            found[k, i] = near * before + (1 - near) * after
    return found


@compiled(
    "Tuple((f8[::1], f8[:, ::1], f8[:, ::1], f8))"
    "(f8[::1], f8[:, ::1], f8[:, ::1], i8, f8, f8, f8, UniTuple(f8, 2), UniTuple(f8, 2), f8, f8)",
)
def march(
    start_c: Profile,
    cells: Profile,
    tables: Profile,
    slab: int,
    slab_j_m2k: float,
    slab_half: float,
    contact: float,
    under: tuple[float, float],
    above: tuple[float, float],
    seconds: float,
    tolerance_k: float,
) -> tuple[Profile, Profile, Profile, float]:
    """Step to the end, each step as long as its error allows: (minutes, °C, K/min, J/m² taken).

    ``start_c``: cell by cell from below, the first ``slab`` of them of what the dough lies on, each
    holding ``slab_j_m2k``, of half resistance ``slab_half``; ``contact``: resistance between the two,
    m²·K/W. ``cells``: kg/m² of dough and of butter, m of dough and of butter, by cell of the dough;
    ``tables``: enthalpy and conductivity of dough, then of butter, over the temperatures. ``under``
    and ``above``: °C and W/(m²·K). What comes back is of the dough alone, [step, cell].
    Source: Verwer's ROS2, on the enthalpy.
    """
    n, dough_n = len(start_c), cells.shape[1]
    energy, where = np.empty(n), np.zeros(n, np.int64)
    for i in range(n):
        if i < slab:
            energy[i] = slab_j_m2k * start_c[i]
            continue
        place = (start_c[i] - COLDEST_C) / STEP_K
        j = min(max(int(place), 0), tables.shape[1] - 2)
        low = cells[0, i - slab] * tables[0, j] + cells[1, i - slab] * tables[2, j]
        high = cells[0, i - slab] * tables[0, j + 1] + cells[1, i - slab] * tables[2, j + 1]
        energy[i], where[i] = low + (place - j) * (high - low), j
    t, held, flow = np.empty(n), np.empty(n), np.empty(n)
    half, links = np.empty(n), np.empty(n + 1)
    ratio, pivots, off = np.empty(n), np.empty(n), np.empty(n)
    k1, k2, moved, spare = np.empty(n), np.empty(n), np.empty(n), np.empty(n)
    seen, first = np.empty((_ROOM, dough_n)), np.empty(dough_n)
    times = np.empty((_ROOM, 1))
    count, at, taken, step, error = 0, 0.0, 0.0, -1.0, 0.0
    while True:
        _warmth(energy, cells, tables, slab_j_m2k, slab, where, t, held)
        for i in range(n):
            if i < slab:
                half[i] = slab_half
            else:
                j = where[i]
                half[i] = (
                    cells[2, i - slab] / tables[1, j] + cells[3, i - slab] / tables[3, j]
                ) / 2
        links[0] = 1 / (1 / under[1] + half[0])
        for i in range(1, n):
            links[i] = 1 / (half[i - 1] + half[i] + (contact if i == slab else 0.0))
        links[n] = 1 / (1 / above[1] + half[n - 1])
        _gain(t, links, under[0], above[0], flow)
        if count == len(times):
            times, seen = _longer(times), _longer(seen)
        times[count, 0] = at / 60
        fastest = 0.0
        for i in range(n):
            fastest = max(fastest, abs(flow[i]) / held[i])
            if i >= slab:
                seen[count, i - slab] = t[i]
                if not count:
                    first[i - slab] = 60 * flow[i] / held[i]
        count += 1
        if at >= seconds - 1e-9:
            break
        if step < 0:  # the faster it changes, the shorter the first step
            step = _FIRST_K * tolerance_k / max(fastest, 1e-9)
            step = min(max(step, _SHORTEST_S), _LONGEST_FIRST_S)
        else:
            grows = min(_GROWS, 0.85 * math.sqrt(tolerance_k / max(error, 1e-9)))
            step = min(step * grows, _LONGEST_S)
        step = min(step, seconds - at)
        while True:
            # (C - a·L) y = r is symmetric and tridiagonal; what a cell gains is C·y
            a = _GAMMA * step
            for i in range(n):
                pivots[i] = held[i] + a * (links[i] + links[i + 1])
                off[i] = -a * links[i + 1]
                if i:
                    ratio[i - 1] = off[i - 1] / pivots[i - 1]
                    pivots[i] -= ratio[i - 1] * off[i - 1]
            k1[:] = flow
            _solve(ratio, pivots, off, k1)
            for i in range(n):
                k1[i] *= held[i]
                moved[i] = energy[i] + step * k1[i]
            _warmth(moved, cells, tables, slab_j_m2k, slab, where, moved, spare)
            _gain(moved, links, under[0], above[0], k2)
            for i in range(n):
                k2[i] -= 2 * k1[i]
            _solve(ratio, pivots, off, k2)
            error = 0.0
            for i in range(n):
                k2[i] *= held[i]
                error = max(error, 0.5 * step * abs(k1[i] + k2[i]) / held[i])
            if error <= tolerance_k or step <= 0.05:
                break
            step *= max(_SHRINKS, 0.85 * math.sqrt(tolerance_k / error))
        for i in range(n):
            gained = step * (1.5 * k1[i] + 0.5 * k2[i])
            energy[i] += gained
            if i >= slab:
                taken += gained
        at += step
    minutes, profiles = times[:count, 0].copy(), seen[:count].copy()
    return minutes, profiles, _slopes(minutes, profiles, first), taken


@inlined
def _between(
    minutes: Profile, t_c: Profile, slopes: Profile, at: float, k: int, row: Profile
) -> int:
    """Put the profile at a minute into ``row``; ``k``: a step to look from. Returns the step it is in."""
    last = len(minutes) - 2
    while k < last and minutes[k + 1] <= at:
        k += 1
    while k > 0 and minutes[k] > at:
        k -= 1
    long = minutes[k + 1] - minutes[k]
    u = min(max((at - minutes[k]) / long, 0.0), 1.0)
    start, end = (1 + 2 * u) * (1 - u) ** 2, u**2 * (3 - 2 * u)
    leaves, comes = long * u * (1 - u) ** 2, long * u**2 * (1 - u)
    for i in range(t_c.shape[1]):
        a, b = t_c[k, i], t_c[k + 1, i]
        value = a * start + b * end + slopes[k, i] * leaves - slopes[k + 1, i] * comes
        # between two steps nothing swings beyond them by more than a hair
        row[i] = min(max(value, min(a, b) - _SWINGS_K), max(a, b) + _SWINGS_K)
    return k


@compiled("f8[:, ::1](f8[::1], f8[:, ::1], f8[:, ::1], f8[::1])")
def read(minutes: Profile, t_c: Profile, slopes: Profile, at: Profile) -> Profile:
    """Profiles at some minutes, [minute, cell], by cubic interpolation with the slopes, K/min."""
    found = np.empty((len(at), t_c.shape[1]))
    k = 0
    for m in range(len(at)):
        k = _between(minutes, t_c, slopes, at[m], k, found[m])
    return found


@compiled("f8[:, ::1](f8[::1], f8[:, ::1], f8[:, ::1], f8[::1], f8[:, ::1], f8[::1])")
def gathered(
    minutes: Profile, t_c: Profile, slopes: Profile, shares: Profile, rates: Profile, until: Profile
) -> Profile:
    """What runs at rates that hang on warmth, gathered from the start to each of some minutes.

    ``rates``: per minute, [rate, temperature]; ``shares``: of the mass in every cell; ``until``
    ascending. Returns [rate, minute], by trapezoids of at most two minutes.
    """
    found = np.zeros((rates.shape[0], len(until)))
    row = np.empty(t_c.shape[1])
    before, now, sums = np.zeros(rates.shape[0]), np.zeros(rates.shape[0]), np.zeros(rates.shape[0])
    at, k, begun = 0.0, 0, False
    for m in range(len(until)):
        parts = max(math.ceil((until[m] - at) / _GATHER_MIN - 1e-9), 0 if begun else 1)
        start = at
        for part in range(0 if not begun else 1, parts + 1):
            here = start + (until[m] - start) * part / parts
            k = _between(minutes, t_c, slopes, here, k, row)
            now[:] = 0.0
            for i in range(len(row)):
                place = (row[i] - COLDEST_C) / STEP_K
                j = min(max(int(place), 0), rates.shape[1] - 2)
                for r in range(len(now)):
                    low = rates[r, j]
                    now[r] += shares[i] * (low + (place - j) * (rates[r, j + 1] - low))
            if begun:
                for r in range(len(now)):
                    sums[r] += (before[r] + now[r]) / 2 * (here - at)
            before[:] = now
            begun, at = True, here
        found[:, m] = sums
    return found
