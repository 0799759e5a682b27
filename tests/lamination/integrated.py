"""Heat through a body by another way: even layers, and a solver that is not ours."""

import numpy as np
from scipy.integrate import solve_ivp

from lamination.materials.thermal import TEMPERATURES


def independent(body, film, courses):
    """The body again, on sixty even layers: enthalpies by a solver of its own, kept to 1e-8.

    ``courses``: minutes, and the air at the beginning and the end of them, °C.
    """
    layers = 60
    dough, butter = body.dough, body.butter
    share = 1 / layers
    masses = body.dough_kg_m2.sum() * share, body.butter_kg_m2.sum() * share
    depths = body.dough_m.sum() * share, body.butter_m.sum() * share
    held = masses[0] * dough.enthalpy_j_kg + masses[1] * butter.enthalpy_j_kg
    resists = depths[0] / dough.conductivity_w_m_k + depths[1] / butter.conductivity_w_m_k

    def warmth(energy):
        return np.interp(energy, held, TEMPERATURES)

    energy = np.full(layers, np.interp(body.mean_c, TEMPERATURES, held))
    found = []
    for minutes, start_c, end_c in courses:

        def flows(s, e, minutes=minutes, start_c=start_c, end_c=end_c):
            air = start_c + (end_c - start_c) * s / (60 * minutes)
            t = warmth(e)
            r = np.interp(t, TEMPERATURES, resists)
            between = (t[:-1] - t[1:]) / ((r[:-1] + r[1:]) / 2)
            into = np.array([air - t[0], air - t[-1]]) / (1 / film + r[[0, -1]] / 2)
            flow = np.zeros(layers)
            flow[:-1] -= between
            flow[1:] += between
            flow[0] += into[0]
            flow[-1] += into[1]
            return flow

        at = np.linspace(0, 60 * minutes, 13)
        ran = solve_ivp(flows, (0, 60 * minutes), energy, "BDF", at, rtol=1e-7, atol=1e-2)
        energy = ran.y[:, -1]
        found += [warmth(e)[layers // 2] for e in ran.y.T[1:]]
    return np.array(found)
