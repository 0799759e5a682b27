"""The bakehouse as it is drawn, and what another kitchen would change."""

from dataclasses import replace

import pytest

from lamination.kitchen import DEFAULTS, Fixture, Kitchen, Spot
from lamination.plan import seen, starting_plan, work
from lamination.terms import Family, Faults
from lamination.warmth import changes


def thing(kitchen, what):
    return next(t for t in kitchen.room().things if t.what == what)


def test_everything_stands_in_the_room_and_nothing_on_another():
    kitchen = Kitchen({"sheeter.belt_width_mm": 600})
    room = kitchen.room()
    assert {t.what for t in room.things} == set(Fixture)
    for t in room.things:
        assert t.x_mm >= 0
        assert t.x_mm + t.length_mm < room.length_mm
        assert t.y_mm >= 0
        assert t.y_mm + t.width_mm < room.width_mm
        assert t.rows
        assert all(row in DEFAULTS for row in t.rows)
    for a in room.things:
        for b in room.things:
            apart = (
                a.x_mm + a.length_mm <= b.x_mm or b.x_mm + b.length_mm <= a.x_mm
                or a.y_mm + a.width_mm <= b.y_mm or b.y_mm + b.width_mm <= a.y_mm
            )  # fmt: skip
            assert a is b or apart, (a.what, b.what)


def test_a_thing_is_as_large_as_its_rows_and_stands_where_it_was_put():
    spots = (Spot(Fixture.BENCH, 9_000, 500, turned=True),)
    kitchen = Kitchen(
        {"bench.length_mm": 2_400, "bench.width_mm": 700, "oven.count": 3}, spots=spots
    )
    bench = thing(kitchen, Fixture.BENCH)
    assert (bench.x_mm, bench.y_mm) == (9_000, 500)
    assert (bench.length_mm, bench.width_mm) == (700, 2_400)
    assert kitchen.room().length_mm > 9_700
    assert thing(kitchen, Fixture.OVEN).many == 3
    assert not thing(kitchen, Fixture.SHEETER).there
    assert thing(kitchen.changed({"sheeter.belt_width_mm": 500}), Fixture.SHEETER).there


def test_what_has_places_says_which_of_its_rows_counts_them():
    holds = {t.what: t.holds for t in Kitchen().room().things if t.holds}
    assert set(holds) == {Fixture.FRIDGE, Fixture.FREEZER, Fixture.PROOFER, Fixture.OVEN}
    for what, row in holds.items():
        assert row in thing(Kitchen(), what).rows
        assert DEFAULTS[row].high > DEFAULTS[row].low


def test_only_what_follows_its_rows_is_pulled_larger():
    sized = {t.what for t in Kitchen().room().things if t.sized}
    assert {Fixture.BENCH, Fixture.SHEETER, Fixture.PINS, Fixture.FRIDGE} <= sized
    assert not sized & {Fixture.BUTTERS, Fixture.SCALES, Fixture.MIXER}


def test_moving_a_thing_works_nothing_anew():
    kitchen = Kitchen()
    moved = replace(kitchen, spots=(Spot(Fixture.OVEN, 100, 100),))
    assert moved == kitchen
    assert hash(moved) == hash(kitchen)
    plan = starting_plan("Plain", Family.CROISSANT, 2_000, kitchen)
    assert work(plan, moved) is work(plan, kitchen)


def test_a_spot_lies_in_a_room_one_can_build():
    with pytest.raises(Faults) as wrong:
        Spot(Fixture.OVEN, -1, 40_000)
    assert {f.field for f in wrong.value.faults} == {"x_mm", "y_mm"}


def test_what_would_change_is_said_before_it_is_changed():
    kitchen = Kitchen({"bench.length_mm": 2_600})
    plan = starting_plan("Plain", Family.CROISSANT, 4_000, kitchen)
    assert changes(plan, kitchen, kitchen) == ()
    smaller = kitchen.changed({"bench.length_mm": 600})
    said = changes(plan, kitchen, smaller)
    assert any("then to mind" in text for text in said)
    assert any("no longer to mind" in text for text in changes(plan, smaller, kitchen))
    # a warmer fridge is felt, though no sheet is another size
    warmer = changes(plan, kitchen, kitchen.changed({"fridge.c": 11}))
    assert any("then to mind" in text for text in warmer)
    slower = kitchen.changed({"minutes.lock_in": 40})
    assert changes(plan, kitchen, slower)[-1].startswith("It takes ")


def test_what_a_plan_has_is_named_as_the_ranges_it_is_held_against():
    kitchen = Kitchen()
    plan = starting_plan("Plain", Family.PUFF, 2_000, kitchen)
    found = seen(plan.family, work(plan, kitchen))
    assert {f"{name}.low" for name in found} <= set(DEFAULTS)
    assert found["puff.butter_layers"] == work(plan, kitchen).layers.butter
    for name, value in found.items():
        # a plan that was just begun is as usual
        assert kitchen[f"{name}.low"] <= value <= kitchen[f"{name}.high"], name
