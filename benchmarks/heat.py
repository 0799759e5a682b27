"""Our stepping against scipy's stiff integrator on the same grid, for `make bench`."""

import timeit

import numpy as np
from scipy.integrate import solve_ivp

from lamination.heat.body import Body, body
from lamination.heat.conduction import Air, _conducted, conduct
from lamination.materials.composition import Composition
from lamination.materials.thermal import thermal_of

DOUGH = thermal_of(Composition(38.9, 7.4, 3.6, 48.3, 1.5, 6.4))
BUTTER = thermal_of(Composition(16, 0.9, 82, 0.8, 0.3, 0.8), melts=True)


def package(t_c: float) -> Body:
    layers = [(False, 4), (True, 2), (False, 8), (True, 2), (False, 8)]
    return body(layers, (DOUGH, 1130), (BUTTER, 940), t_c)


def stiff(of: Body, air: Air, minutes: float) -> np.ndarray:
    """The same finite volumes in temperature, by scipy's implicit Runge-Kutta of order five."""
    dough_k = DOUGH.conductivity_w_m_k
    butter_k = BUTTER.conductivity_w_m_k

    def rate(_time, t):
        half = (of.dough_m / of.dough.at(dough_k, t) + of.butter_m / of.butter.at(butter_k, t)) / 2
        flux = np.empty(len(t) + 1)
        flux[0] = (air.t_c - t[0]) / (1 / air.film_w_m2k + half[0])
        flux[1:-1] = (t[:-1] - t[1:]) / (half[:-1] + half[1:])
        flux[-1] = (t[-1] - air.t_c) / (1 / air.film_w_m2k + half[-1])
        held = of.dough_kg_m2 * of.dough.steepness(t) + of.butter_kg_m2 * of.butter.steepness(t)
        return (flux[:-1] - flux[1:]) / held

    done = solve_ivp(rate, (0, minutes * 60), of.t_c, method="Radau", rtol=1e-6, atol=1e-6)
    return done.y[:, -1]


def against_scipy() -> None:
    print()
    for name, air, minutes in (
        ("an hour in the fridge", Air(4, 7), 60),
        ("half an hour in the freezer", Air(-18, 8), 30),
        ("ten minutes on the bench", Air(24, 8), 10),
    ):
        ours = conduct(package(15), air, air, minutes).end.t_c
        theirs = stiff(package(15), air, minutes)

        def anew(a=air, m=minutes):
            _conducted.cache_clear()
            conduct(package(15), a, a, m)

        mine = min(timeit.repeat(anew, number=5)) / 5
        other = min(
            timeit.repeat(lambda a=air, m=minutes: stiff(package(15), a, m), number=1, repeat=2)
        )
        print(
            f"{name:34} scipy's stiff integrator takes {other / mine:6.1f} × ours "
            f"({1000 * mine:.2f} ms); furthest apart {np.abs(ours - theirs).max():.3f} K"
        )
