"""Conduction against solutions worked out here by other means; energy kept; yeast as published."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.heat.body import Body, body, grid, pressed, refolded, warmed, with_energy
from lamination.heat.conduction import Air, conduct
from lamination.heat.yeast import Leaven, activity, dose
from lamination.materials.composition import Composition
from lamination.materials.ingredients import LIBRARY
from lamination.materials.thermal import (
    butter_as_firm_as,
    butter_firmness,
    constant,
    dough_firmness,
    freezing_point_c,
    solid_fat,
    thermal_of,
)

# flour 100, water 52, sugar 11, butter 6, salt 2, fresh yeast 1.2
DOUGH = Composition(38.9, 7.4, 3.6, 48.3, 1.5, 6.4)
BUTTER = next(i.composition for i in LIBRARY if i.key == "butter-table")
K, RHO, C = 0.38, 1080.0, 2700.0


def middles(of, mm):
    """Where the middle of each cell lies, m."""
    lines = grid(mm / 1000, len(of.t_c))
    return (lines[1:] + lines[:-1]) / 2


def slab(mm, t_c, cells=24, k=K) -> Body:
    plain = constant(k, C)
    return body([(False, mm)], (plain, RHO), (plain, 940), t_c, cells)


def laminate(t_c=16.0, mm=24.0) -> Body:
    layers = [(False, mm / 8), (True, mm / 8), (False, mm / 4), (True, mm / 8), (False, 3 * mm / 8)]
    return body(layers, (thermal_of(DOUGH), 1130), (thermal_of(BUTTER, melts=True), 940), t_c)


def series(x, minutes, mm, t0, airs, films, k=K, terms=60):
    """A slab with convection at both faces, by its own eigenfunctions.

    The steady line between the two airs, plus modes cos(λx) + (h₀/kλ) sin(λx) with λ from the
    condition at the far face, each dying away as exp(-αλ²t).
    """
    length, alpha = mm / 1000, k / (RHO * C)
    (low, high), (h0, h1) = airs, films
    slope = (high - low) / (length + k / h0 + k / h1)
    steady = lambda at: low + slope * (k / h0 + at)  # noqa: E731
    face = lambda lam: (  # noqa: E731
        np.tan(lam * length) * (k * lam - h0 * h1 / (k * lam)) - (h0 + h1)
    )
    total = steady(x)
    grid = np.linspace(0, length, 4001)
    for n in range(terms):
        lows = (n + 1e-9) * np.pi / length
        highs = (n + 1 - 1e-9) * np.pi / length
        half = (n + 0.5) * np.pi / length
        edges = [(lows, half - 1e-7), (half + 1e-7, highs)]
        for a, b in edges:
            if face(max(a, 1e-6)) * face(b) < 0:
                a = max(a, 1e-6)
                for _ in range(90):
                    m = (a + b) / 2
                    a, b = (m, b) if face(a) * face(m) > 0 else (a, m)
                lam = (a + b) / 2
                mode = lambda at, lam=lam: np.cos(lam * at) + h0 / (k * lam) * np.sin(lam * at)  # noqa: E731
                top = np.trapezoid((t0 - steady(grid)) * mode(grid), grid)
                norm = np.trapezoid(mode(grid) ** 2, grid)
                total = total + top / norm * mode(x) * np.exp(-alpha * lam**2 * minutes * 60)
    return total


def test_the_worked_example_of_a_slab_in_a_still_fridge():
    still = Air(4, 8)
    for minute, middle in ((10, 15.06), (30, 12.68), (60, 10.04), (120, 6.92)):
        got = conduct(slab(25, 16), still, still, minute).end.middle_c
        assert got == pytest.approx(middle, abs=0.05)


@pytest.mark.parametrize("biot", [0.07, 0.5, 2, 12])
@pytest.mark.parametrize("minutes", [1, 4, 25, 90])
def test_both_faces_alike_agree_with_the_series(biot, minutes):
    mm = 30.0
    film = biot * K / (mm / 2000)
    end = conduct(slab(mm, 18), Air(3, film), Air(3, film), minutes).end
    at = middles(end, mm)
    exact = series(at, minutes, mm, 18, (3, 3), (film, film))
    assert end.t_c == pytest.approx(exact, abs=0.05)


@pytest.mark.parametrize(("low", "high"), [(60, 8), (8, 30), (15, 80)])
@pytest.mark.parametrize("minutes", [10, 45])
def test_both_faces_different_agree_with_the_series(low, high, minutes):
    mm = 24.0
    end = conduct(slab(mm, 16), Air(20, low), Air(2, high), minutes).end
    at = middles(end, mm)
    assert end.t_c == pytest.approx(series(at, minutes, mm, 16, (20, 2), (low, high)), abs=0.05)


@settings(max_examples=14)
@given(st.floats(-30, 40), st.floats(-25, 30), st.floats(5, 80), st.floats(1, 400))
def test_no_energy_is_lost_through_melting_and_freezing(start, air, film, minutes):
    before = laminate(start)
    course = conduct(before, Air(air, film), Air(air, film / 2), minutes)
    gained = course.end.enthalpy_j_m2.sum() - before.enthalpy_j_m2.sum()
    scale = max(abs(gained), 1_000.0)
    assert gained == pytest.approx(course.taken_j_m2, abs=1e-3 * scale)
    # and nothing is colder or warmer than what it started from and lies in
    low, high = min(start, air) - 0.01, max(start, air) + 0.01
    assert low <= course.t_c.min() <= course.t_c.max() <= high


def test_finer_steps_and_finer_cells_come_to_the_same():
    freezer = Air(-18, 8)
    coarse = conduct(laminate(12), freezer, freezer, 45)
    fine = conduct(laminate(12), freezer, freezer, 45, finer=6)
    assert coarse.end.t_c == pytest.approx(fine.end.t_c, abs=0.05)
    middles = [
        conduct(slab(25, 16, n), Air(4, 18), Air(4, 18), 30).end.middle_c for n in (9, 18, 72)
    ]
    assert abs(middles[1] - middles[2]) < abs(middles[0] - middles[2]) + 1e-6 < 0.05


def test_freezing_holds_the_middle_back():
    never = thermal_of(Composition(38.9, 7.4, 3.6, 48.6, 1.5, 6.4))
    freezer = Air(-18, 30)
    frozen = conduct(laminate(4), freezer, freezer, 60).end.middle_c
    dry = constant(0.35, 2600)
    plain = body([(False, 24)], (dry, 1100), (dry, 940), 4)
    assert conduct(plain, freezer, freezer, 60).end.middle_c < frozen - 2
    assert never.steepness(np.array([-6.0]))[0] > 4 * never.steepness(np.array([5.0]))[0]


def test_a_typical_dough_begins_to_freeze_near_minus_four_or_five():
    assert -5.2 < freezing_point_c(DOUGH) < -3.8
    assert freezing_point_c(Composition(0, 0, 100, 0, 0)) == 0


def test_butter_takes_heat_to_melt():
    butter, oil = thermal_of(BUTTER, melts=True), thermal_of(BUTTER)
    ten, twenty = (np.array([t]) for t in (10.0, 20.0))
    melted = [
        float((m.at(m.enthalpy_j_kg, twenty) - m.at(m.enthalpy_j_kg, ten))[0])
        for m in (butter, oil)
    ]
    assert melted[0] - melted[1] == pytest.approx(100_000 * 0.82 * (0.46 - 0.18), rel=1e-6)
    assert float(solid_fat(40)) == 0


def test_a_fold_stacks_the_warmth_of_its_panels_and_keeps_its_heat():
    sheet = replace_profile(slab(8, 10.0), np.linspace(4, 16, 24))
    package = refolded(sheet, (False, True, True))
    assert package.thickness_m == pytest.approx(0.024)
    assert package.enthalpy_j_m2.sum() == pytest.approx(3 * sheet.enthalpy_j_m2.sum(), rel=1e-6)
    # bottom face of the middle third below, its top against the flap's top: warm in the lower half
    assert package.t_c[0] < package.t_c[len(package.t_c) // 3 - 1]
    assert package.t_c[len(package.t_c) // 3 - 1] == pytest.approx(
        package.t_c[len(package.t_c) // 3], abs=2
    )


def replace_profile(of, t_c):
    return with_energy(of, of.dough_kg_m2 * of.dough.at(of.dough.enthalpy_j_kg, t_c))


def test_a_thinner_sheet_cools_sooner_and_rolling_warms_it():
    fridge = Air(4, 7)
    thick, thin = laminate(16), pressed(laminate(16), 0.008)
    assert (
        conduct(thin, fridge, fridge, 15).end.middle_c
        < conduct(thick, fridge, fridge, 15).end.middle_c
    )
    assert warmed(thin, 1).butter_c == pytest.approx(17)


def test_dough_and_butter_of_different_warmth_share_it():
    layers = [(False, 10), (True, 10), (False, 10)]
    made = body(layers, (thermal_of(DOUGH), 1130), (thermal_of(BUTTER, melts=True), 940), (4, 14))
    assert made.butter_c == pytest.approx(14, abs=0.8)
    assert (made.t_c[0], made.t_c[-1]) == pytest.approx((4, 4), abs=0.01)
    after = conduct(made, Air(18, 8), Air(18, 8), 20).end
    assert np.ptp(made.t_c) > np.ptp(after.t_c)


@pytest.mark.parametrize(
    ("air", "film", "minutes", "says"),
    [(-300, 8, 5, "absolute zero"), (4, 0, 5, "not positive"), (4, 8, -1, "cannot be simulated"),
     (4, 8, float("inf"), "cannot be simulated"), (float("nan"), 8, 5, "absolute zero")],
)  # fmt: skip
def test_the_impossible_is_refused(air, film, minutes, says):
    with pytest.raises(ValueError, match=says):
        conduct(slab(20, 10), Air(air, film), Air(4, 8), minutes)


def test_a_fridge_warmer_than_the_dough_is_allowed():
    assert conduct(slab(20, 5), Air(25, 8), Air(25, 8), 60).end.middle_c > 12


def test_yeast_works_as_published():
    for t, gamma in ((4, 0.014), (12, 0.174), (18, 0.387), (27, 0.770), (36, 1.0)):
        assert float(activity(t)) == pytest.approx(gamma, abs=0.0015)
    assert [float(g) for g in activity(np.array([0.5, 47.0, 60.0]))] == [0, 0, 0]


def test_a_proof_at_the_reference_takes_the_reference_time():
    minutes = np.linspace(0, 120, 30)
    usual = Leaven(3.5, 0)
    assert dose(minutes, np.full((30, 4), 27.0)) == pytest.approx(usual.whole_dose, rel=1e-6)
    assert Leaven(7, 0).whole_dose < usual.whole_dose
    assert Leaven(3.5, 20).whole_dose > Leaven(3.5, 10).whole_dose == usual.whole_dose
    assert Leaven(0, 5).whole_dose == float("inf")


def test_butter_as_firm_as_the_dough_is_warmer_than_it():
    assert 12 < butter_as_firm_as(4) < 14
    assert butter_firmness(butter_as_firm_as(4)) == pytest.approx(dough_firmness(4))
    assert butter_as_firm_as(10) > butter_as_firm_as(4)
