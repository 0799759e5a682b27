"""A whole plan: the worked examples, the clock, the advice, and what is refused."""

import json
import re
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.dough.recipe import Butter, Dough
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.steps.flatten import Flattening
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.turn import Trim
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Family, Fold, Method, Place
from tests.plans import changed, station, turns


def sig3(value):
    return float(f"{value:.3g}")


def test_the_worked_example_to_three_figures():
    worked = work(station())
    sizes = [(sig3(s.rolled.length_mm), sig3(s.rolled.width_mm)) for s in worked.steps]
    assert sizes == [(1540, 230), (690, 513), (1540, 230)]
    assert sig3(worked.lock_in.package.thickness_mm) == 41.1
    assert sig3(worked.final.length_mm) == 1770
    assert worked.final.width_mm == pytest.approx(400)
    assert sig3(worked.layers.butter_um) == 36.1
    assert sig3(worked.layers.dough_um) == 108
    # 26 whole dough leaves and two outer halves make 27: the outer ones are half as thick
    assert worked.layers.thinnest_dough_um == pytest.approx(worked.layers.dough_um * 28 / 27 / 2)


@pytest.mark.parametrize(
    ("method", "folds", "butter", "dough", "naive"),
    [
        (Method.HALF, "letter letter letter", 27, 28, 81),
        (Method.TWO_THIRDS, "letter letter letter", 54, 55, 135),
        (Method.TWO_THIRDS, "book letter letter", 72, 73, 180),
        (Method.HALF, " ".join(["letter"] * 6), 729, 730, 2187),
        (Method.HALF, "half book", 8, 9, 24),
    ],
)
def test_three_ways_to_count(method, folds, butter, dough, naive):
    plan = station(lock_in=LockIn(method, 300, 230), turns=turns(*folds.split()))
    layers = work(plan).layers
    assert (layers.butter, layers.dough, layers.total) == (butter, dough, butter + dough)
    assert layers.naive == naive


@given(st.lists(st.sampled_from(list(Fold)), max_size=12), st.floats(1.5, 5))
def test_no_plan_loses_dough(folds, last_mm):
    worked = work(station(turns=turns(*folds), last_sheet=LastSheet(last_mm)))
    size = worked.final.size
    assert size.volume_mm3 == pytest.approx(2400 / 1120 * 1e6 + 650 / 940 * 1e6, rel=1e-9)
    for step in worked.steps:
        assert step.folded.volume_mm3 == pytest.approx(size.volume_mm3, rel=1e-9)


def test_a_sheet_is_never_rolled_narrower_where_it_can_lie_the_other_way():
    worked = work(station())
    assert not worked.final.turned  # 513 mm would have to shrink to 400
    assert any(plain(n.title) == "Lay it the other way" for n in worked.notes)
    assert work(station(last_sheet=LastSheet(4, width_mm=600))).final.turned


def test_a_last_sheet_without_a_wish_keeps_the_width_it_has():
    worked = work(station(last_sheet=LastSheet(4)))
    assert worked.final.width_mm == pytest.approx(worked.steps[-1].folded.length_mm)


def test_the_clock_runs_through_work_and_rests():
    plan = station(flatten=Flattening(rest=Rest.at(Place.FRIDGE, 600)))
    strip = work(plan).strip
    assert [s.name for s in strip] == [
        "Dough",
        "Lock-in",
        "Turn 1",
        "Turn 2",
        "Turn 3",
        "Last sheet",
        "Cut",
    ]
    assert strip[1].starts_min == 10 + 600
    assert strip[3].starts_min == strip[2].starts_min + 8 + 30
    own = replace(plan.turns[0], bench_min=20)
    slower = work(changed(plan, turns=(own, *plan.turns[1:]))).strip
    assert slower[3].starts_min == strip[3].starts_min + 12


def test_an_own_kitchen_changes_the_clock_and_the_fit():
    own = Kitchen({"minutes.turn": 15, "bench.length_mm": 1200})
    worked = work(station(), own)
    assert worked.strip[2].bench_min == 15
    too_long = next(n for n in worked.notes if n.stop == "turn-1")
    assert too_long.tone == "mind"
    assert "340 mm too long" in plain(too_long.title)
    assert "Roll to 10.3 mm" in {plain(f.label) for f in too_long.fixes}
    fits = work(station(turns=turns("letter", roll_to_mm=10.3)), own)
    assert [n.tone for n in fits.notes if n.stop == "turn-1"] == ["good"]


def titles(plan, tone="mind"):
    return {plain(n.title) for n in work(plan).notes if n.tone == tone}


@pytest.mark.parametrize(
    ("change", "title"),
    [
        ({"butter": Butter(300)}, "Butter below the usual"),
        ({"butter": Butter(1200)}, "Butter above the usual"),
        ({"turns": turns("letter", "half")}, "Fewer leaves than usual"),
        ({"turns": turns("book", "book", "book", "letter")}, "More leaves than usual"),
        ({"last_sheet": LastSheet(8, width_mm=400)}, "Last sheet above the usual"),
        ({"lock_in": LockIn(Method.HALF, 120, 120)}, "A thick block"),
        ({"lock_in": LockIn(Method.HALF, 600, 400)}, "A thin block"),
        ({"lock_in": LockIn(Method.HALF, 300, 230, margin_mm=10)}, "Bare edges folded in"),
        ({"turns": turns("letter", "letter", "letter", rest=None)}, "2 turns without a rest"),
        ({"last_sheet": LastSheet(4, width_mm=250)}, "No piece fits"),
        ({"butter": Butter(1100)}, "Butter and dough far apart"),
        ({"dough": Dough(9000), "butter": Butter(2400)}, "too long for the bench"),
    ],
)
def test_what_is_out_of_range_is_said_with_a_way_out(change, title):
    found = titles(station(**change))
    assert any(title in t for t in found)
    assert not any(title in t for t in titles(station()))


def test_ranges_belong_to_the_family():
    puff = station(family=Family.PUFF, butter=Butter(1300), turns=turns(*["letter"] * 6))
    assert "More leaves than usual" not in titles(puff)
    assert "Leaves in name" in titles(puff, "know")


def test_pieces_share_out_the_sheet():
    worked = work(station())
    assert worked.cut.pieces == 38
    assert worked.cut.piece_g == pytest.approx(54.2, abs=0.05)
    assert worked.cut.pieces * worked.cut.piece_g + worked.cut.trimmings_g == pytest.approx(3050)


def test_a_roll_thicker_than_the_package_names_its_field():
    with pytest.raises(Faults) as wrong:
        work(station(turns=(*turns("letter"), *turns("letter", roll_to_mm=30))))
    (fault,) = wrong.value.faults
    assert fault.field == "steps[3].roll_to_mm"
    assert "24 mm thick" in plain(fault.message)


def test_a_last_sheet_thicker_than_the_package_names_its_field():
    with pytest.raises(Faults) as wrong:
        work(station(last_sheet=LastSheet(24.5)))
    assert wrong.value.faults[0].field == "steps[5].roll_to_mm"


@pytest.mark.parametrize(
    "make",
    [
        lambda: Dough(0),
        lambda: Dough(-5),
        lambda: Dough(float("nan")),
        lambda: Dough(1e9),
        lambda: Dough(float("inf")),
    ],
)
def test_impossible_masses_are_refused_with_what_is_allowed(make):
    with pytest.raises(Faults) as wrong:
        make()
    (fault,) = wrong.value.faults
    assert fault.field == "mass_g"
    assert "from 1 g to 200 kg" in plain(fault.message)


def test_every_field_at_fault_is_named_at_once():
    with pytest.raises(Faults) as wrong:
        LockIn(Method.HALF, block_width_mm=0, block_length_mm=1e9, margin_mm=-1)
    assert [f.field for f in wrong.value.faults] == [
        "block_width_mm",
        "block_length_mm",
        "margin_mm",
    ]


def test_a_thirteenth_turn_is_one_too_many():
    assert work(station(turns=turns(*["half"] * 12), last_sheet=LastSheet(4))).layers.butter == 4096
    with pytest.raises(Faults) as wrong:
        station(turns=turns(*["half"] * 13))
    assert wrong.value.faults[0].field == "steps[14].do"


def test_a_plan_wants_a_name_and_this_version():
    for change, field in (({"name": "  "}, "name"), ({"version": 9}, "version")):
        with pytest.raises(Faults) as wrong:
            station(**change)
        assert [f.field for f in wrong.value.faults] == [field]


def test_every_leading_number_has_its_working():
    worked = work(station())
    workings = {w.of: w.text for w in worked.workings}
    assert "691 cm³" in workings["lock_in.block.thickness_mm"]
    assert "3 × 3 = 9 butter layers" in workings["turn-2.butter_layers"]
    made = {stop.key: stop.made for stop in worked.strip}
    for path in workings:  # each path leads to a number: of a stop, or of the plan
        first, *rest = path.split(".")
        if at := re.fullmatch(r"strip\[(\d+)\]", first):
            value = worked.strip[int(at[1])]
        else:
            value = getattr(worked, first) if hasattr(worked, first) else made[first]
        for part in rest:
            value = getattr(value, part)
        assert isinstance(value, int | float), path


def test_the_section_of_many_leaves_is_a_window():
    assert work(station()).final.section.whole
    fine = work(station(turns=turns(*["letter"] * 6))).final.section
    assert not fine.whole
    assert 5 <= len(fine.thickness_um) <= 12


def test_a_plan_without_turns_or_cut_is_a_plan():
    worked = work(station(turns=(), cut=None))
    assert worked.layers.butter == 1
    assert worked.cut is None
    assert [s.key for s in worked.strip] == ["dough", "lock_in", "final"]


def test_a_plan_is_a_value():
    assert isinstance(station(), Plan)
    assert hash(station()) == hash(station())
    json.dumps([plain(n.text) for n in work(station()).notes])


@pytest.mark.parametrize(
    ("own", "field"),
    [
        ({"bench.height_mm": 3}, "yours.bench.height_mm"),
        ({"bench.length_mm": 1}, "yours.bench.length_mm"),
        ({"minutes.turn": float("nan")}, "yours.minutes.turn"),
    ],
)
def test_a_kitchen_names_what_it_does_not_know_or_allow(own, field):
    with pytest.raises(Faults) as wrong:
        Kitchen(own)
    assert [f.field for f in wrong.value.faults] == [field]


def test_the_table_says_what_is_yours():
    table = {d.key: d for d in Kitchen({"bench.length_mm": 1200}).table()}
    assert (table["bench.length_mm"].value, table["bench.length_mm"].origin) == (1200, "yours")
    assert table["bench.width_mm"].origin == "trade practice"


def test_what_is_trimmed_and_left_over_is_booked_with_its_butter():
    trimmed = tuple(replace(t, trim=Trim(ends_mm=20)) for t in turns("letter", "letter"))
    worked = work(station(turns=trimmed))
    assert [s.stop for s in worked.scrap] == ["turn-1", "turn-2", "cut"]
    cut = worked.scrap[-1]
    whole = worked.final.mass_g
    assert cut.grams == pytest.approx(worked.cut.trimmings_g)
    # the sheet is even, so what is left over holds butter in the sheet's own share
    in_sheet = 650 - sum(s.butter_g for s in worked.scrap[:-1])
    assert cut.butter_g / cut.grams == pytest.approx(in_sheet / whole, rel=0.02)
    kept = worked.cut.products[0]
    assert kept.pieces * kept.piece_g + sum(s.grams for s in worked.scrap) == pytest.approx(3050)


def test_what_is_tucked_in_is_not_left_over():
    tucked = tuple(replace(t, trim=Trim(ends_mm=20, tucked=True)) for t in turns("letter"))
    assert [s.stop for s in work(station(turns=tucked, cut=None)).scrap] == []
