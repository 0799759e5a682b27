"""A packet's label read as a composition: it adds up, and what was estimated is said."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.materials import LIBRARY, PacketLabel, from_label
from lamination.terms import Faults, plain

SHELF = {i.key: i for i in LIBRARY}
parts = st.none() | st.floats(0, 30)


def test_a_packet_of_flour_says_all_but_water_and_minerals():
    found = from_label(PacketLabel(1.3, 71.0, 1.4, 3.2, 12.1, 0.0), SHELF["flour-strong"])
    made = found.composition
    assert made.carbohydrate_pct == pytest.approx(74.2)
    assert (made.fat_pct, made.protein_pct, made.sugar_pct) == (1.3, 12.1, 1.4)
    assert made.ash_pct == SHELF["flour-strong"].composition.ash_pct
    assert made.water_pct == pytest.approx(100 - 74.2 - 1.3 - 12.1 - made.ash_pct)
    assert [plain(s)[:24] for s in found.says] == ["Water is what is left: 1"]


def test_a_salted_butter_has_its_salt_as_ash_and_what_is_not_said_as_in_its_like():
    found = from_label(PacketLabel(fat_g=81, salt_g=1.8), SHELF["butter-table"])
    assert found.composition.ash_pct == 1.8
    assert found.composition.protein_pct == SHELF["butter-table"].composition.protein_pct
    assert any("Protein is not on it" in plain(s) for s in found.says)
    assert any("table butter" in s for s in found.says)


@given(parts, parts, parts, parts, parts, st.sampled_from(LIBRARY))
def test_whatever_a_label_says_it_adds_up_or_its_field_is_named(
    fat, carb, fibre, protein, salt, like
):
    label = PacketLabel(fat, carb, None, fibre, protein, salt)
    try:
        made = from_label(label, like).composition
    except Faults as wrong:
        assert {f.field for f in wrong.faults} <= {"fat_g", "carbohydrate_g", "protein_g"}
        return
    assert sum(made.shares()) == pytest.approx(100, abs=0.01)
    assert made.sugar_pct <= made.carbohydrate_pct


@pytest.mark.parametrize(
    ("label", "field"),
    [
        (PacketLabel(60, 50, 5, 0, 5, 0), "fat_g"),
        (PacketLabel(1, 20, 40, 0, 5, 0), "sugar_g"),
    ],
)
def test_figures_that_cannot_be_are_refused_at_their_field(label, field):
    with pytest.raises(Faults) as wrong:
        from_label(label, SHELF["flour-strong"])
    assert wrong.value.faults[0].field == field
