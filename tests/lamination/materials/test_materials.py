"""The recipe is the physics: composition gives density, heat and conductivity."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.dough.formula import Formula, Line, composition_of
from lamination.materials.composition import (
    Composition,
    conductivity_w_m_k,
    density_kg_m3,
    mixture,
    specific_heat_kj_kg_k,
)
from lamination.materials.ingredients import LIBRARY, Ingredient, Kind, Window
from lamination.terms.limits import Faults

BUTTER = next(i for i in LIBRARY if i.key == "butter-table").composition
# a pressed yeast as dry as the published example has it
DRY_YEAST = Ingredient(
    "yeast-example", "Yeast", Kind.YEAST, Composition(5, 45, 0, 45, 5), as_fresh=1
)


def test_the_worked_example_from_the_recipe_alone():
    recipe = {"flour-strong": 100, "water": 52, "sugar": 11, "butter-table": 6, "salt": 2,
              "yeast-example": 1.2}  # fmt: skip
    dough = composition_of(Formula(tuple(Line(*r) for r in recipe.items()), own=(DRY_YEAST,)))
    assert dough.water_pct == pytest.approx(38.9, abs=0.05)
    assert specific_heat_kj_kg_k(dough, 10) == pytest.approx(2.62, abs=0.005)
    assert density_kg_m3(dough, 10, gas_share=0.10) == pytest.approx(1131, abs=0.6)
    k = conductivity_w_m_k(dough, 10)
    assert (k.parallel, k.series) == (
        pytest.approx(0.396, abs=5e-4),
        pytest.approx(0.305, abs=5e-4),
    )
    assert k.series < k.mean < k.parallel


def test_butter_as_published():
    assert specific_heat_kj_kg_k(BUTTER, 10) == pytest.approx(2.34, abs=0.005)
    assert density_kg_m3(BUTTER, 10) == pytest.approx(940, abs=0.6)
    assert density_kg_m3(BUTTER, 10, 0.02) == pytest.approx(0.98 * density_kg_m3(BUTTER, 10))
    k = conductivity_w_m_k(BUTTER, 10)
    assert (k.parallel, k.series) == (
        pytest.approx(0.240, abs=5e-4),
        pytest.approx(0.199, abs=5e-4),
    )


@given(st.lists(st.tuples(st.floats(0.1, 1e4), st.sampled_from(LIBRARY)), min_size=1, max_size=8))
def test_a_mixture_lies_between_its_parts(parts):
    whole = mixture((m, i.composition) for m, i in parts)
    for name in ("water_pct", "fat_pct", "sugar_pct"):
        shares = [getattr(i.composition, name) for _, i in parts]
        assert min(shares) - 1e-9 <= getattr(whole, name) <= max(shares) + 1e-9
    mass = sum(m for m, _ in parts)
    volume = sum(m / density_kg_m3(i.composition, 10) for m, i in parts)
    assert density_kg_m3(whole, 10) == pytest.approx(mass / volume, rel=0.01)


def test_nothing_stirred_together_is_no_mixture():
    with pytest.raises(ValueError, match="nothing"):
        mixture([])


def test_parts_that_do_not_add_up_name_what_would():
    with pytest.raises(Faults) as wrong:
        Composition(14, 12, 1.2, 60, 0.5)
    assert wrong.value.faults[0].field == "carbohydrate_pct"
    assert "With 72.3 % carbohydrate" in wrong.value.faults[0].message
    with pytest.raises(Faults) as wrong:
        Composition(90, 0, 0, 10, 0, sugar_pct=30)
    assert wrong.value.faults[0].field == "sugar_pct"


def test_the_library_keeps_its_own_rules():
    assert len({i.key for i in LIBRARY}) == len(LIBRARY)
    for what in LIBRARY:
        assert sum(what.composition.shares()) == pytest.approx(100, abs=0.01), what.key
        assert (what.as_fresh is not None) == (what.kind is Kind.YEAST)
    assert sum(i.window is not None for i in LIBRARY) >= 3


def test_a_window_rises_and_a_yeast_says_its_strength():
    with pytest.raises(Faults) as wrong:
        Window(9, 12, 11, 20)
    assert wrong.value.faults[0].field == "plastic_to_c"
    with pytest.raises(Faults) as wrong:
        Ingredient("y", "Yeast", Kind.YEAST, Composition(70, 30, 0, 0, 0))
    assert wrong.value.faults[0].field == "as_fresh"
