"""Documents between JSON and the core: what goes out comes in the same, and paths are said plainly."""

import dataclasses
import enum
import json
import typing
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from bakehouse.api import api
from bakehouse.documents import dump, path_of, read, read_kitchen, read_plan_file
from lamination.dough.formula import OldDough
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import DEFAULTS
from lamination.pieces.products import Product, Shape
from lamination.pieces.shaping import Card
from lamination.plan.starts import starting_finish
from lamination.plan.versions import migrated
from lamination.steps.cut import Cut
from lamination.steps.flatten import Flattening
from lamination.steps.own import OwnStep
from lamination.steps.turn import Turn
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest, Stay
from lamination.terms.trade import Family, Fold, Place
from tests.plans import LEAN, formula, station

stays = st.builds(
    Stay, st.sampled_from(list(Place)), st.floats(0, 2000), iced=st.booleans(),
    covered=st.none() | st.booleans(), air_c=st.none() | st.floats(-20, 40),
    to_c=st.none() | st.floats(-20, 40), until_c=st.none() | st.floats(-20, 40),
)  # fmt: skip
rests = st.none() | st.builds(Rest, st.lists(stays, min_size=1, max_size=4).map(tuple))
shapes = st.sampled_from(list(Shape))
products = st.builds(
    lambda shape, base, tall, rows, card, filled: Product(
        "Piece",
        shape,
        base,
        tall if shape.has_height else None,
        hole_mm=12 if shape is Shape.RING else 0,
        rows=rows,
        card=card,
        filling="almond" if filled else None,
        filling_g=filled,
    ),
    shapes,
    st.floats(20, 5000),
    st.floats(20, 5000),
    st.integers(0, 9),
    st.sampled_from(list(Card)),
    st.floats(0, 90),
)
own_steps = st.builds(
    OwnStep, st.text("abc Åé½“", min_size=1, max_size=30).filter(str.strip), rest=rests
)


@st.composite
def plans(draw):
    cut = draw(st.none() | st.lists(products, min_size=1, max_size=4).map(tuple))
    family = draw(st.sampled_from(list(Family)))
    plan = station(
        name=draw(st.text("abc Åé½“", min_size=1, max_size=40).filter(str.strip)),
        family=family,
        words=draw(st.text(max_size=60)),
        flatten=Flattening(rest=draw(rests), bench_min=draw(st.none() | st.floats(0, 600))),
        turns=tuple(
            Turn(fold, mm, rest=draw(rests))
            for fold, mm in draw(
                st.lists(st.tuples(st.sampled_from(list(Fold)), st.floats(0.5, 200)), max_size=12)
            )
        ),
        cut=Cut(cut) if cut else None,
        finish=starting_finish(family) if cut and draw(st.booleans()) else None,
        formula=draw(
            st.none()
            | st.builds(
                lambda salt, old: formula({**LEAN, "salt": salt}, old_dough=old),
                st.floats(0, 400),
                st.none() | st.builds(OldDough, st.floats(0.1, 50), st.booleans()),
            )
        ),
    )
    own = draw(st.lists(own_steps, max_size=2))
    n = next(i for i, step in enumerate(plan.steps) if step.do == "last_sheet")
    return replace(plan, steps=(*plan.steps[:n], *own, *plan.steps[n:]))


@given(plans())
def test_any_plan_survives_the_way_out_and_in(plan):
    text = json.dumps(dump(plan))
    assert read_plan_file(text) == plan
    assert read_plan_file(b"\xef\xbb\xbf" + text.encode()) == plan  # with a byte-order mark


@given(st.dictionaries(st.sampled_from(sorted(DEFAULTS)), st.floats(0, 1)))
def test_any_kitchen_survives_too(shares):
    yours = {
        k: DEFAULTS[k].low + s * (DEFAULTS[k].high - DEFAULTS[k].low) for k, s in shares.items()
    }
    yours = {k: round(v) if DEFAULTS[k].whole else v for k, v in yours.items()}
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
    document = {
        "format": "eight-turn/plan", "version": 2, "name": "Old", "family": "croissant",
        "dough": {"mass_g": 2400}, "butter": {"mass_g": 650},
        "lock_in": {"method": "half", "block_width_mm": 300, "block_length_mm": 230},
        "turns": [{"fold": "letter", "roll_to_mm": 8}], "final": {"roll_to_mm": 4}, "cut": old,
    }  # fmt: skip
    new = migrated(document)
    cut = next(step for step in new["steps"] if step["do"] == "cut")
    assert (cut["kerf_mm"], cut["bench_min"]) == (2, 9)
    assert cut["products"][0]["base_mm"] == 90
    assert [step["id"] for step in new["steps"]] == ["dough", "lock_in", "turn-1", "final", "cut"]
    assert migrated(new) == new
    assert read_plan_file(json.dumps(document)).cut.products[0].name == "Piece"


def test_a_row_of_the_kitchen_under_its_former_name_is_kept():
    assert read_kitchen({"yours": {"proof.room_c": 24}})["proofer.c"] == 24


def test_no_two_types_of_the_api_bear_one_name():
    """The front end's types go by the class's name: of two with the same, the last would be taken."""
    seen = {}

    def look(of):
        for part in typing.get_args(of):
            look(part)
        if not isinstance(of, type):
            return
        if issubclass(of, enum.Enum):
            seen.setdefault(of.__name__, set()).add(of)
        elif dataclasses.is_dataclass(of) and of not in seen.setdefault(of.__name__, set()):
            seen[of.__name__].add(of)
            for hint in typing.get_type_hints(of, include_extras=True).values():
                look(hint)

    for _, router in api._routers:
        for view in router.path_operations.values():
            for operation in view.operations:
                hints = typing.get_type_hints(operation.view_func, include_extras=True)
                for hint in hints.values():
                    look(hint)
    assert len(seen) > 200
    twice = {name: [c.__module__ for c in of] for name, of in seen.items() if len(of) > 1}
    assert twice == {}
