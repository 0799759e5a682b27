"""What things are made of decides how they warm: properties over any composition."""

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lamination.materials.composition import Composition
from lamination.materials.ingredients import LIBRARY
from lamination.materials.thermal import (
    ICE_MELTS_KJ_KG,
    TEMPERATURES,
    butter_as_firm_as,
    butter_firmness,
    constant,
    dough_firmness,
    free_water,
    freezing_point_c,
    solid_fat,
    thermal_of,
)
from lamination.terms.limits import Faults


@st.composite
def compositions(draw):
    parts = [draw(st.floats(0.1, 60)) for _ in range(5)]
    shares = [100 * p / sum(parts) for p in parts]
    sugar = shares[3] * draw(st.floats(0, 1))
    try:
        return Composition(*shares, sugar)
    except Faults:
        assume(False)


@given(compositions(), st.booleans())
def test_enthalpy_rises_with_temperature_so_that_every_heat_has_one_temperature(of, melts):
    table = thermal_of(of, melts)
    assert (np.diff(table.enthalpy_j_kg) > 0).all()
    assert (table.conductivity_w_m_k > 0.05).all()
    assert (table.conductivity_w_m_k < 3).all()
    read = table.at(table.enthalpy_j_kg, TEMPERATURES)
    assert read == pytest.approx(table.enthalpy_j_kg)


@given(compositions())
def test_freezing_takes_no_more_heat_than_its_free_water_holds(of):
    begins = freezing_point_c(of)
    if not -20 < begins < -1:
        return  # so sweet or so dry that it does not freeze here
    table = thermal_of(of)
    cold, warm = np.array([-40.0]), np.array([5.0])
    h = table.at(table.enthalpy_j_kg, warm) - table.at(table.enthalpy_j_kg, cold)
    # without any ice the same way would take only the specific heat, at most 4.3 kJ/(kg·K)
    ice = free_water(of) * (1 - begins / -40)
    latent = 1000 * ICE_MELTS_KJ_KG * ice
    assert latent < h[0] < latent + 4_300 * 45
    assert free_water(of) <= of.water_pct / 100


@given(st.floats(35, 60), st.floats(0, 18), st.floats(0.5, 10))
def test_more_sugar_freezes_later(water, sugar, more):
    # 0.4 % of flour's ash and no salt; sugar takes the place of starch
    def dough(sweet):
        return Composition(water, 8, 3, 100 - 11.4 - water, 0.4, sweet)

    plain, sweeter = dough(sugar), dough(sugar + more)
    assert freezing_point_c(sweeter) < freezing_point_c(plain) <= 0
    # what is sugar binds no water as starch does
    assert free_water(sweeter) > free_water(plain)


@given(st.floats(-20, 45), st.floats(0.1, 10))
def test_butter_only_softens_as_it_warms(t, more):
    assert float(solid_fat(t)) >= float(solid_fat(t + more))
    assert butter_firmness(t) >= butter_firmness(t + more)
    assert dough_firmness(t) > dough_firmness(t + more)
    assert 0 <= float(solid_fat(t)) <= 0.52


@given(st.floats(-5, 25))
def test_the_butter_that_matches_is_as_firm_as_the_dough(t):
    matched = butter_as_firm_as(t)
    if 5 < matched < 35:
        assert butter_firmness(matched) == pytest.approx(dough_firmness(t), abs=1e-6)


def test_a_constant_material_has_the_capacity_it_was_given():
    table = constant(0.4, 2500)
    assert table.steepness(np.array([-30.0, 0.0, 55.0])) == pytest.approx([2500] * 3)


@pytest.mark.parametrize("key", [i.key for i in LIBRARY if i.window])
def test_every_butter_of_the_library_takes_more_heat_in_its_range_than_out_of_it(key):
    what = next(i for i in LIBRARY if i.key == key)
    table = thermal_of(what.composition, melts=True)
    middle = np.array([(what.window.plastic_from_c + what.window.plastic_to_c) / 2])
    assert table.steepness(middle)[0] > 1.5 * table.steepness(np.array([50.0]))[0]
