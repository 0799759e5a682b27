"""A new plan for any family and any dough is one that works, with nothing to mind at its heart."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.cutting import lay_out
from lamination.pieces.products import Shape
from lamination.plan.starts import USUAL_PRODUCTS, starting_plan
from lamination.plan.work import work
from lamination.terms.limits import Faults
from lamination.terms.said import plain
from lamination.terms.sizes import Size
from lamination.terms.trade import Family


@given(st.sampled_from(list(Family)), st.floats(300, 8_000))
def test_a_starting_plan_fits_the_bench_and_its_family(family, dough_g):
    worked = work(starting_plan("Mine", family, dough_g, Kitchen()))
    minded = {plain(n.title) for n in worked.notes if n.tone == "mind"}
    assert not {t for t in minded if "too long" in t or "Butter above" in t or "Butter below" in t}
    assert not {t for t in minded if t.startswith(("Last sheet", "Fewer", "More"))}
    assert worked.lock_in.block.thickness_mm == pytest.approx(10, rel=0.4)


def test_the_kitchen_s_own_starting_share_is_used():
    plan = starting_plan("Mine", Family.PUFF, 1000, Kitchen({"puff.start_butter_pct": 60}))
    assert plan.butter.mass_g == 600


@pytest.mark.parametrize("dough_g", [0, -4, float("nan"), 1e9])
def test_no_dough_no_plan(dough_g):
    with pytest.raises(Faults) as wrong:
        starting_plan("Mine", Family.PUFF, dough_g, Kitchen())
    assert wrong.value.faults[0].field == "mass_g"


def test_every_shape_has_a_usual_size_that_fits_a_small_sheet():
    assert set(USUAL_PRODUCTS) == set(Shape)
    for shape, product in USUAL_PRODUCTS.items():
        assert product.shape is shape
        assert lay_out(Size(600, 400, 4), [product]).outlines


def test_a_new_plan_locks_in_the_butter_the_house_uses():
    assert starting_plan("Mine", Family.DANISH, 2000, Kitchen()).butter.ingredient == "butter-table"
    house = Kitchen({"butter.usual": 1})
    plan = starting_plan("Mine", Family.DANISH, 2000, house)
    assert plan.butter.ingredient == house.butter == "butter-sheet"
    assert work(plan, house).butter.name == "Laminating butter"
