"""Orders both ways, changes to a plan that others follow from, tables in and out, what was used."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from bakehouse.demo.teasel_lock import BOATS, KITCHEN, MARKET, ORDER, PLANS
from lamination.day.capacity import crowded
from lamination.day.order import Order, Ordered, Sizing, Wanted, work_order
from lamination.dough.formula import PrefermentKind
from lamination.files.tables import formula_csv, read_formula_csv, sheets_csv
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import PLAIN_SHELF
from lamination.plan.amend import amend
from lamination.plan.amendment import Amendment, Change
from lamination.plan.starts import starting_finish, starting_plan
from lamination.plan.work import work
from lamination.run.events import Event, EventKind
from lamination.run.standing import admit, stand
from lamination.run.used import used
from lamination.steps.divide import Divide
from lamination.steps.strew import Strew
from lamination.terms.limits import Faults
from lamination.terms.rests import Rest
from lamination.terms.trade import Family, Place
from tests.plans import formula, poolish, station

IDS = dict(enumerate(PLANS))
READY = datetime(2026, 11, 28, 4, 30, tzinfo=UTC)


def order(*doughs, **more):
    return Order("Saturday", doughs, **more)


def test_four_products_from_two_doughs_become_sheets_blocks_and_doughs():
    doughs = tuple(Ordered(PLANS.index(p), products) for p, products, _ in ORDER)
    worked = work_order(order(*doughs, ready_at=READY), IDS, KITCHEN)
    croissant, puff, *_ = worked.batches
    takes = sum(w.pieces * w.raw_g / (1 - w.loss_pct / 100) for w in ORDER[0][1])
    laminate = croissant.doughs * (croissant.dough_g + croissant.butter_g)
    assert takes <= laminate <= takes + croissant.doughs * 10 * 1.3
    assert croissant.surplus_g == pytest.approx(laminate - takes)
    for batch in worked.batches:
        assert batch.sums_to_g == pytest.approx(batch.doughs * batch.dough_g, abs=0.2)
        assert batch.butter_g / batch.dough_g == pytest.approx(
            batch.plan.butter.mass_g / batch.plan.dough.mass_g
        )
    names = ["Poolish", "Mixing day", "Butter block", "Wash"]
    assert [s.sheet.name for s in croissant.sheets] == names
    # the butter is locked in before the pieces are cut, and the poolish set long before that
    times = [s.at for s in croissant.sheets]
    assert times == sorted(times)
    assert READY - times[0] == timedelta(minutes=work(croissant.plan, KITCHEN).total_min)
    assert {f.what for f in puff.fetch} >= {"Plain wheat flour, bags", "Table butter, plaques"}


@given(st.integers(2, 4000), st.floats(20, 120), st.floats(0, 40), st.sampled_from(Sizing))
def test_whatever_is_ordered_is_there_and_the_sheets_are_the_doughs(pieces, raw, loss, sizing):
    wanted = Wanted("Piece", pieces, raw, loss)
    (batch,) = work_order(order(Ordered(0, (wanted,), sizing=sizing)), IDS, KITCHEN).batches
    laminate = batch.doughs * (batch.dough_g + batch.butter_g)
    assert laminate * (1 - loss / 100) >= pieces * raw - 0.5 * batch.doughs
    assert batch.sums_to_g == pytest.approx(batch.doughs * batch.dough_g, abs=0.1 * batch.mixings)
    assert batch.mixing_g <= KITCHEN["mixer.most_g"] + 1
    if sizing is Sizing.WHOLE:
        assert batch.dough_g == MARKET.dough.mass_g


def test_from_flour_to_pieces_and_back():
    wanted = (Wanted("Croissant", 60, 58, 9), Wanted("Half-moon", 20, 62, 9))
    (batch,) = work_order(order(Ordered(0, wanted, flour_g=16_000)), IDS, KITCHEN).batches
    flour = sum(
        s.times * x.grams for s in batch.sheets for x in s.sheet.lines
        if x.ingredient.startswith("flour")
    )  # fmt: skip
    assert flour == pytest.approx(16_000, abs=2 * batch.mixings)
    assert batch.made[0].pieces / batch.made[1].pieces == pytest.approx(3, abs=0.1)
    again = tuple(replace(w, pieces=m.pieces) for w, m in zip(wanted, batch.made, strict=True))
    (back,) = work_order(order(Ordered(0, again)), IDS, KITCHEN).batches
    assert back.doughs * back.dough_g == pytest.approx(batch.doughs * batch.dough_g, rel=0.01)


@pytest.mark.parametrize("sizing", list(Sizing))
@pytest.mark.parametrize("flour_g", [1_200, 3_000, 4_999, 16_000])
@pytest.mark.parametrize("floured", [0, 25])
def test_flour_at_hand_is_never_exceeded(sizing, flour_g, floured):
    plan = replace(MARKET, butter=replace(MARKET.butter, flour_pct=floured))
    wanted = (Wanted("Croissant", 60, 58, 9),)
    asked = Ordered(0, wanted, flour_g=flour_g, sizing=sizing)
    try:
        (batch,) = work_order(order(asked), {0: plan}, KITCHEN).batches
    except Faults as little:
        assert sizing is Sizing.WHOLE
        assert little.faults[0].field == "doughs[0].flour_g"
        return
    weighed = sum(
        s.times * x.grams for s in batch.sheets for x in s.sheet.lines
        if x.ingredient.startswith("flour")
    )  # fmt: skip
    assert weighed <= flour_g + 0.5 * sum(s.times for s in batch.sheets)
    if sizing is Sizing.WHOLE:
        assert batch.dough_g == plan.dough.mass_g


def test_mixer_and_bench_limit_a_dough():
    wanted = (Wanted("Croissant", 400, 58, 9),)
    little = Kitchen({**KITCHEN.yours, "mixer.most_g": 1500}, KITCHEN.ingredients)
    (batch,) = work_order(order(Ordered(0, wanted)), IDS, little).batches
    assert batch.limited_by == "the mixer"
    assert batch.dough_g <= 1500
    (long,) = work_order(order(Ordered(0, wanted, dough_g=9_000)), IDS, KITCHEN).batches
    assert long.limited_by == "the bench"
    assert all(s.rolled.length_mm <= 2401 for s in work(long.plan, KITCHEN).steps)


@pytest.mark.parametrize(
    ("ordered", "field", "says"),
    [
        (Ordered(99, (Wanted("x", 1, 50),)), "doughs[0].plan_id", "no such plan"),
        (Ordered(0, (Wanted("x", 0, 50),)), "doughs[0].products[0].pieces", "Nothing is wanted"),
        (Ordered(0, (Wanted("x", 90_000, 99),), 300), "doughs[0].dough_g", "larger"),
        (
            Ordered(0, (Wanted("x", 1, 1),), 1, sizing=Sizing.WHOLE),
            "doughs[0].dough_g",
            "Must be from",
        ),
        (Ordered(4, (Wanted("x", 9, 50),), flour_g=500), "doughs[0].flour_g", "no formula"),
    ],
)
def test_what_cannot_be_ordered_is_named_at_its_dough(ordered, field, says):
    with pytest.raises(Faults) as wrong:
        work_order(order(ordered), {**IDS, 4: station()}, KITCHEN)
    assert wrong.value.faults[0].field == field
    assert says in wrong.value.faults[0].message


PLAN = station(formula=formula(), preferments=(poolish(),))


def grams(plan):
    return {p.ingredient: p.grams for p in work(plan).formula.parts}


def test_grams_are_edited_and_everything_else_stays_as_it_was():
    before = grams(PLAN)
    for index, key in enumerate(before):
        asked = Amendment(Change.LINE_GRAMS, before[key] + 100, index)
        plan = amend(PLAN, asked, KITCHEN)
        after = grams(plan)
        assert after.pop(key) == pytest.approx(before[key] + 100, abs=0.1)
        assert after == pytest.approx({k: v for k, v in before.items() if k != key}, abs=0.1)
        assert plan.dough.mass_g == pytest.approx(2500)
    with pytest.raises(Faults, match="Without flour"):
        amend(PLAN, Amendment(Change.LINE_GRAMS, 0, 0), KITCHEN)


def test_a_yeast_takes_the_place_of_another_at_the_same_strength():
    plan = amend(
        PLAN, Amendment(Change.LINE_INGREDIENT, index=5, ingredient="yeast-instant"), KITCHEN
    )
    assert plan.formula.lines[5].pct == pytest.approx(3 / 2.5)
    assert work(plan).formula.balance.yeast_pct == pytest.approx(3)


def test_the_bakery_s_own_ingredient_comes_along_with_the_formula():
    plan = amend(PLAN, Amendment(Change.LINE_INGREDIENT, index=0, ingredient="flour-lock"), KITCHEN)
    assert [i.key for i in plan.formula.own] == ["flour-lock"]
    assert work(plan, Kitchen()).formula.parts[0].name == "Lock mill flour"
    with pytest.raises(Faults, match="There is no ingredient"):
        amend(PLAN, Amendment(Change.ADD_LINE, ingredient="flour-moon"), KITCHEN)
    with pytest.raises(Faults) as wrong:
        amend(PLAN, Amendment(Change.ADD_LINE, ingredient="salt"), KITCHEN)
    assert wrong.value.faults[0].field == "formula.lines[6].ingredient"


def test_a_preferment_starts_within_what_the_formula_has():
    dry = station(formula=formula({"flour-strong": 100, "water": 8, "egg-whole": 40}))
    plan = amend(dry, Amendment(Change.ADD_PREFERMENT, preferment=PrefermentKind.POOLISH), KITCHEN)
    (_, tub) = plan.preferments[0]
    assert (tub.flour_pct, tub.yeast_pct) == (8, 0)
    with pytest.raises(Faults, match="left for another"):
        amend(plan, Amendment(Change.ADD_PREFERMENT, preferment=PrefermentKind.POOLISH), KITCHEN)


def test_a_block_by_thickness_frame_tray_or_as_thick_as_the_dough():
    by = {c: amend(PLAN, Amendment(c, 12), KITCHEN) for c in (
        Change.BLOCK_THICKNESS, Change.BLOCK_FRAME, Change.BLOCK_TRAY, Change.BLOCK_AS_DOUGH)}  # fmt: skip
    blocks = {c: work(p).lock_in for c, p in by.items()}
    assert blocks[Change.BLOCK_THICKNESS].block.thickness_mm == pytest.approx(12, abs=0.01)
    assert blocks[Change.BLOCK_THICKNESS].block.width_mm == PLAN.lock_in.block_width_mm
    frame = blocks[Change.BLOCK_FRAME].block
    assert (frame.width_mm, frame.length_mm) == (
        KITCHEN["frame.width_mm"],
        KITCHEN["frame.length_mm"],
    )
    assert blocks[Change.BLOCK_TRAY].dough_sheet.length_mm == KITCHEN["tray.length_mm"]
    assert blocks[Change.BLOCK_AS_DOUGH].block_over_dough == pytest.approx(1, abs=0.01)
    with pytest.raises(Faults, match="thicker one already"):
        amend(
            replace(PLAN, butter=replace(PLAN.butter, mass_g=2000)),
            Amendment(Change.BLOCK_AS_DOUGH),
            KITCHEN,
        )
    with pytest.raises(Faults, match="Must be from"):
        amend(PLAN, Amendment(Change.BLOCK_THICKNESS, 0), KITCHEN)


@pytest.mark.parametrize("wanted", [20, 47, 75, 140])
def test_as_much_dough_as_so_many_pieces_want(wanted):
    plan = amend(BOATS, Amendment(Change.PIECES, wanted), KITCHEN)
    assert wanted <= work(plan, KITCHEN).cut.pieces <= wanted + 3
    assert plan.butter.mass_g / plan.dough.mass_g == pytest.approx(0.7, abs=1e-3)


def test_as_much_dough_as_the_flour_makes():
    plan = amend(PLAN, Amendment(Change.FLOUR, 1000), KITCHEN)
    assert work(plan).formula.flour_g == pytest.approx(1000, abs=0.1)


def test_a_change_that_lacks_its_figures_or_its_formula_says_so():
    with pytest.raises(Faults) as wrong:
        Amendment(Change.LINE_GRAMS, 10)
    assert wrong.value.faults[0].field == "index"
    with pytest.raises(Faults, match="no formula yet"):
        amend(station(), Amendment(Change.ADD_LINE, ingredient="salt"), KITCHEN)
    assert amend(station(), Amendment(Change.GIVE_FORMULA), KITCHEN).formula is not None


def test_a_formula_goes_out_as_a_table_and_comes_in_the_same():
    text = formula_csv(work(PLAN).formula)
    assert read_formula_csv(text, PLAIN_SHELF) == PLAN.formula.lines
    by_mass = "Ingredient;Amount;Unit\nStrong wheat flour;1,5;kg\nwater;780;g\nsalt;1;oz\n"
    lines = {x.ingredient: x.pct for x in read_formula_csv(by_mass, PLAIN_SHELF)}
    assert lines == pytest.approx({"flour-strong": 100, "water": 52, "salt": 1.89}, abs=1e-3)
    assert "Poolish,0,Water," in sheets_csv(work(PLAN).sheets)


@pytest.mark.parametrize(
    ("text", "field", "says"),
    [
        ("", "", "names the columns"),
        ("a,b\n1,2\n", "", "names the columns"),
        ("ingredient,amount,unit\nflour-strong,3,cups\n", "row 1, unit", "“cups” is not a unit"),
        ("ingredient,amount,unit\nflour-strong,much,g\n", "row 1, amount", "not an amount"),
        ("ingredient,amount,unit\nflour-strong,nan,g\n", "row 1, amount", "not an amount"),
        ("ingredient,amount,unit\nfluor-strong,1,g\n", "row 1, ingredient", "flour-strong"),
        ("ingredient,amount,unit\nflour-strong,100,%\nwater,5,g\n", "", "Use one of the two"),
        ("ingredient,amount,unit\nwater,5,g\n", "", "no flour"),
    ],
)
def test_a_table_that_is_no_formula_says_which_row(text, field, says):
    with pytest.raises(Faults) as wrong:
        read_formula_csv(text, PLAIN_SHELF)
    found = {f.field: f.message for f in wrong.value.faults}
    assert says in found[field]


def test_the_record_has_the_true_percentages():
    plan = station(formula=formula())
    worked = work(plan)
    start = datetime(2026, 11, 20, 5, tzinfo=UTC)
    events = ()
    for n, (line, weight) in enumerate((("mix/water", 740.0), ("mix/salt", 27.6))):
        event = Event(f"weighed-{n}", start, EventKind.WEIGHED, line=line, grams=weight)
        admit(worked, start, events, event)
        events = (*events, event)
    got = used(plan, worked, stand(worked, start, events))
    water = next(p for p in got.parts if p.name == "Water")
    assert water.used_pct == pytest.approx(740 / 1379 * 100, abs=0.05)
    assert got.true_hydration_pct - got.planned_hydration_pct == pytest.approx(
        water.used_pct - water.planned_pct
    )
    assert got.unweighed == 4
    assert got.dough_g == pytest.approx(2400 + 740 - 717, abs=1)
    assert used(plan, worked, stand(worked, start, ())) is None
    wrong = Event("weighed-9", start, EventKind.WEIGHED, line="mix/gold", grams=1)
    with pytest.raises(Faults, match="such a line"):
        admit(worked, start, events, wrong)


def test_a_frame_whose_height_is_known_says_how_much_butter_it_takes():
    framed = Kitchen({"frame.width_mm": 250, "frame.length_mm": 300, "frame.height_mm": 10})
    plan = amend(station(), Amendment(Change.BLOCK_FRAME), framed)
    assert plan.butter.mass_g == pytest.approx(250 * 300 * 10 * 940 / 1e6, abs=0.1)
    assert work(plan, framed).lock_in.block.thickness_mm == pytest.approx(10, abs=0.01)


def test_trays_of_pieces_in_the_fridge_count_as_so_many_places():
    plan = station(finish=starting_finish(Family.PUFF))
    rested = plan.changed(plan.cut, rest=Rest.at(Place.FRIDGE, 30))
    worked = work(rested)
    holds = Kitchen({"fridge.holds": 2})
    crowds = crowded([(3, worked.strip, worked.facts.to_cut_min)], holds)
    assert crowds[0].packages == 3 * worked.shaped.trays.count > 3


def made_up(name):
    """A plan that puts dough away, strews sugar or spreads a filling before its cut."""
    plan = starting_plan("Made up", Family.CROISSANT, 3000, KITCHEN)
    turn = next(s for s in plan.steps if s.do == "turn")
    at = {
        "divide": (plan.steps.index(turn) + 1, Divide(50, other=True)),
        "strew": (plan.steps.index(turn) + 1, Strew("sugar", 150)),
        "spread": (plan.steps.index(plan.cut), Strew("sugar", 400, spread=True)),
    }
    n, step = at[name]
    return plan.with_steps(*plan.steps[:n], step, *plan.steps[n:])


@pytest.mark.parametrize("sizing", list(Sizing))
@pytest.mark.parametrize("name", ["divide", "strew", "spread"])
def test_what_is_ordered_comes_out_of_any_strip_of_steps(name, sizing):
    wanted = Wanted("Plain", 200, 65, 0)
    order = Order("Any strip", (Ordered(1, (wanted,), sizing=sizing),))
    (batch,) = work_order(order, {1: made_up(name)}, KITCHEN).batches
    comes_out = batch.doughs * work(batch.plan, KITCHEN).cut.sheet_g
    assert comes_out >= 200 * 65 - 1
    one = work(batch.plan, KITCHEN).cut.sheet_g
    spare = one if sizing is Sizing.WHOLE else 0.02 * comes_out + 60
    assert batch.surplus_g == pytest.approx(comes_out - 200 * 65, abs=0.5)
    assert batch.surplus_g <= spare
