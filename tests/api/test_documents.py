"""Documents between JSON and the core: what goes out comes in the same, and paths are said plainly."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from bakehouse.documents import dump, migrated, path_of, read, read_plan_file
from bakehouse.kitchen.shelf import stored_kitchen
from lamination.dough.formula import Mixing, OldDough
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import DEFAULTS, Family
from lamination.pieces.cutting import Product, Shape
from lamination.pieces.finish import starting_finish
from lamination.pieces.shaping import Card
from lamination.plan.plan import Butter, Cut, Dough, Final, LockIn, Plan, Turn
from lamination.sheet.folds import Fold
from lamination.sheet.lockin import Method
from lamination.terms.limits import Faults
from lamination.terms.rests import Place, Rest
from tests.core.formulas import LEAN, formula, poolish

rests = st.none() | st.builds(Rest, st.sampled_from(list(Place)), st.floats(0, 2000))
own_minutes = st.none() | st.floats(0, 600)
products = st.builds(
    Product, st.just("Piece"), st.sampled_from(list(Shape)), st.floats(20, 5000), st.floats(20, 5000),
    hole_mm=st.just(12), rows=st.integers(0, 9), card=st.sampled_from(list(Card)),
    filling=st.none() | st.just("almond"), filling_g=st.floats(0, 90),
)  # fmt: skip
plans = st.builds(
    Plan,
    name=st.text("abc Åé½“", min_size=1, max_size=40).filter(str.strip),
    family=st.sampled_from(list(Family)),
    dough=st.builds(Dough, st.floats(1, 2e5), st.floats(300, 2000), rests, own_minutes),
    butter=st.builds(Butter, st.floats(1, 2e5), st.floats(300, 2000)),
    lock_in=st.builds(LockIn, st.sampled_from(list(Method)), st.floats(10, 5000),
                      st.floats(10, 5000), st.floats(0, 200), st.floats(0, 200), rests),
    turns=st.lists(st.builds(Turn, st.sampled_from(list(Fold)), st.floats(0.5, 200), rests),
                   max_size=12).map(tuple),
    final=st.builds(Final, st.floats(0.5, 200), st.none() | st.floats(10, 5000), rests),
    cut=st.none() | st.builds(Cut, st.lists(products, min_size=1, max_size=4).map(tuple),
                              st.floats(0, 10), own_minutes, st.floats(0, 100), st.floats(0, 40),
                              st.booleans()),
    finish=st.none() | st.sampled_from(list(Family)).map(starting_finish),
    words=st.text(max_size=60),
    formula=st.none() | st.builds(
        lambda salt, tub, old, mixing: formula(
            {**LEAN, "salt": salt}, preferments=tub, old_dough=old, mixing=mixing
        ),
        st.floats(0, 400),
        st.lists(st.builds(poolish, st.floats(1, 30), st.floats(20, 50), st.floats(0, 30)),
                 max_size=3).map(tuple),
        st.none() | st.builds(OldDough, st.floats(0.1, 50), st.booleans()),
        st.builds(Mixing, st.floats(-40, 60), st.floats(-40, 60), st.floats(-40, 60)),
    ),
)  # fmt: skip


@given(plans)
def test_any_plan_survives_the_way_out_and_in(plan):
    text = json.dumps(dump(plan))
    assert read_plan_file(text) == plan
    assert read_plan_file(b"\xef\xbb\xbf" + text.encode()) == plan  # with a byte-order mark


@given(st.dictionaries(st.sampled_from(sorted(DEFAULTS)), st.floats(0, 1)))
def test_any_kitchen_survives_too(shares):
    yours = {
        k: DEFAULTS[k].low + s * (DEFAULTS[k].high - DEFAULTS[k].low) for k, s in shares.items()
    }
    kitchen = Kitchen(yours)
    assert read(Kitchen, dump(kitchen)) == kitchen


@pytest.mark.parametrize(
    ("loc", "path"),
    [
        ((), ""),
        (("dough", "mass_g"), "dough.mass_g"),
        (("turns", 0, "rest", "minutes"), "turns[0].rest.minutes"),
        (("events", 2), "events[2]"),
    ],
)
def test_paths_are_said_as_a_person_writes_them(loc, path):
    assert path_of(loc) == path


@given(st.recursive(
    st.none() | st.booleans() | st.floats() | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=3)
    | st.dictionaries(st.sampled_from(["dough", "butter", "turns", "mass_g", "x"]), inner),
    max_leaves=12,
))  # fmt: skip
def test_any_json_at_all_is_a_plan_or_a_named_fault(data):
    document = data if not isinstance(data, dict) else {
        "format": "eight-turn/plan", "version": 1, **data}  # fmt: skip
    with pytest.raises(Faults) as wrong:
        read_plan_file(json.dumps(document))
    assert all(f.message.endswith(".") for f in wrong.value.faults)


def test_a_cut_of_one_shape_is_read_as_one_product():
    """Up to version 2 the sizes stood in the cut itself."""
    old = {"shape": "triangle", "base_mm": 90, "height_mm": 280, "kerf_mm": 2, "bench_min": 9}
    new = migrated({"version": 2, "cut": old})
    piece = {"name": "Piece", "shape": "triangle", "base_mm": 90, "height_mm": 280}
    assert new == {"version": 3, "cut": {"kerf_mm": 2, "bench_min": 9, "products": [piece]}}
    assert migrated({"version": 2, "cut": None})["cut"] is None
    assert migrated(new) == new


def test_a_row_of_the_kitchen_under_its_former_name_is_kept():
    assert stored_kitchen({"yours": {"proof.room_c": 24}})["proofer.c"] == 24
