"""Baker's percentages, what a preferment takes, old dough fed back; and the sheets that add up."""

from dataclasses import replace

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lamination.dough.formula import Formula, Line, OldDough, balance, fed
from lamination.dough.recipe import Dough
from lamination.dough.weighing import weigh
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import LIBRARY
from lamination.plan.work import work
from lamination.steps.preferment import PrefermentFigures
from lamination.terms.limits import Faults
from lamination.terms.said import plain
from tests.plans import LEAN, changed, formula, poolish, station

BUTTER = next(i for i in LIBRARY if i.key == "butter-table").composition
KITCHEN = Kitchen()


def test_two_hydrations_by_hand():
    rich = formula({"flour-strong": 100, "water": 30, "milk-whole": 20, "egg-whole": 10,
                    "honey": 5, "salt": 2, "yeast-fresh": 4, "butter-table": 8})  # fmt: skip
    got = balance(rich)
    assert got.nominal_hydration_pct == 50
    by_hand = 30 + 20 * 0.88 + 10 * 0.76 + 5 * 0.17 + 4 * 0.70 + 8 * 0.16
    assert got.true_hydration_pct == pytest.approx(by_hand)
    assert got.fat_pct == pytest.approx(20 * 0.035 + 10 * 0.096 + 4 * 0.01 + 8 * 0.82)
    assert (got.sugar_pct, got.salt_pct, got.yeast_pct) == (5, 2, 4)


def test_yeasts_are_compared_as_fresh():
    instant = formula(
        {**{k: v for k, v in LEAN.items() if k != "yeast-fresh"}, "yeast-instant": 1.2}
    )
    assert balance(instant).yeast_pct == pytest.approx(3.0)


def weighed_with(made, *tubs, dough_g=1740.0, kitchen=KITCHEN):
    named = [(f"preferment-{i}", tub) for i, tub in enumerate(tubs, 1)]
    return weigh(made, named, dough_g, kitchen)


def test_a_poolish_by_hand():
    # 1740 g of dough on 174 %: 1000 g flour, 520 water, 30 yeast
    weighed = weighed_with(formula(), poolish(30, 100, 10))
    (tub,) = weighed.preferments
    assert {line.ingredient: line.grams for line in tub} == {
        "flour-strong": 300, "water": 300, "yeast-fresh": 3}  # fmt: skip
    assert {line.ingredient: line.stays_g for line in tub} == {
        "flour-strong": 700, "water": 220, "yeast-fresh": 27}  # fmt: skip
    bowl = {line.ingredient: line for line in weighed.mixing}
    assert (bowl["flour-strong"].grams, bowl["flour-strong"].of_total_g) == (700, 1000)
    assert (bowl["sugar"].grams, bowl["sugar"].of_total_g) == (110, None)
    assert weighed.rounding == ()


def test_flour_is_taken_from_the_first_and_liquid_from_water_before_milk():
    mixed = formula(
        {"flour-medium": 20, "flour-strong": 80, "milk-whole": 30, "water": 25, "salt": 2}
    )
    (tub,) = weighed_with(mixed, poolish(40, 100, 0), dough_g=mixed.total_pct * 10).preferments
    assert {line.ingredient: line.grams for line in tub} == {
        "flour-medium": 200, "flour-strong": 200, "milk-whole": 150, "water": 250}  # fmt: skip


keys = st.sampled_from(
    [i.key for i in LIBRARY if not i.key.startswith("flour") and i.key != "water"]
)
formulas = st.builds(
    lambda split, water, more, tubs, old, eggs: (split, water, more, tubs, old, eggs),
    st.floats(0, 100), st.floats(0, 90), st.dictionaries(keys, st.floats(0, 40), max_size=8),
    st.lists(st.tuples(st.floats(1, 60), st.floats(20, 150), st.floats(0, 60)), max_size=3),
    st.none() | st.builds(OldDough, st.floats(0.1, 40), st.booleans()), st.booleans(),
)  # fmt: skip


@given(formulas, st.floats(300, 60_000))
def test_all_sheets_together_are_the_dough_to_the_gram(drawn, dough_g):
    split, water, more, tubs, old, eggs = drawn
    lines = {"flour-strong": split, "flour-medium": 100 - split, "water": water, **more}
    try:
        made = Formula(tuple(Line(k, v) for k, v in lines.items()), old_dough=old, whole_eggs=eggs)
        drawn_tubs = tuple(poolish(*tub) for tub in tubs)
        station(formula=made, preferments=drawn_tubs)  # refused where more is taken than there is
    except Faults:
        assume(False)
    weighed = weighed_with(made, *drawn_tubs, dough_g=dough_g)
    lines = [line for tub in weighed.preferments for line in tub] + list(weighed.mixing)
    assert sum(line.grams for line in lines) == pytest.approx(dough_g, abs=0.1)
    assert all(line.grams >= 0 for line in lines)
    for tub in weighed.preferments:
        for line in tub:
            later = sum(x.grams for x in lines if x.ingredient == line.ingredient)
            assert line.stays_g <= later + 1e-6


def test_whole_eggs_are_whole_and_said():
    eggs = formula({**LEAN, "egg-whole": 12}, whole_eggs=True)
    weighed = weighed_with(eggs, dough_g=1860)
    line = next(x for x in weighed.mixing if x.ingredient == "egg-whole")
    assert (line.grams, line.pieces) == (100, 2)
    assert plain(weighed.rounding[0]) == "120 g of whole egg is rounded to 2 of 50 g."
    assert "water" in weighed.rounding[1]


def test_a_scale_that_shows_tens_rounds_to_tens():
    coarse = Kitchen({"scale.step_g": 10, "scale.fine_below_g": 0})
    for line in weighed_with(formula(), dough_g=5000, kitchen=coarse).mixing:
        assert line.ingredient == "water" or line.grams % 10 == 0


def day_after_day(made, butter_of_whole, days):
    """Feed trimmings back so many times, as a bakery does: a simulation by mass alone."""
    share = made.old_dough.share_pct / 100
    butter_in_dough = 0.0
    for _ in range(days):
        trimmings = butter_of_whole + (1 - butter_of_whole) * butter_in_dough
        butter_in_dough = share * trimmings
    return butter_in_dough


@given(st.floats(0.5, 40), st.floats(0.1, 0.5))
def test_a_dough_that_feeds_on_itself_settles_where_the_days_lead(share, butter):
    made = formula(old_dough=OldDough(share))
    today, settled = fed(made, BUTTER, butter)
    assert today.butter_share == pytest.approx(day_after_day(made, butter, 1))
    assert settled.butter_share == pytest.approx(day_after_day(made, butter, 80), rel=1e-6)
    assert settled.balance.fat_pct > today.balance.fat_pct > balance(made).fat_pct
    assert settled.composition.fat_pct > today.composition.fat_pct


def test_old_dough_that_was_never_laminated_changes_nothing():
    made = formula(old_dough=OldDough(10, laminated=False))
    today, settled = fed(made, BUTTER, 0.25)
    assert today.balance == settled.balance == balance(made)


WRONG = [
    ({**LEAN, "flour-strong": 95}, "lines[0].pct", "100 %"),
    ({"flour-strong": 60, "flour-rye": 30, "water": 60}, "lines[1].pct", "With 40 % here they do"),
    ({"water": 60, "salt": 2}, "lines", "no flour"),
    ({**LEAN, "yeast": 2}, "lines[6].ingredient", "Nearest: yeast-fresh"),
]
TOO_MUCH = [
    (LEAN, (poolish(60, 100),), "steps[0].hydration_pct", "86.7 % or less"),
    (LEAN, (poolish(30), poolish(80, 20)), "steps[1].flour_pct", "Only 70 %"),
    (LEAN, (poolish(10, 50, 80), poolish(10, 50, 40)), "steps[1].yeast_pct", "Only 20 %"),
    ({"flour-medium": 100, "water": 50}, (poolish(10, 50, 5),), "steps[0].yeast_pct",
     "no yeast to take from"),
]  # fmt: skip


@pytest.mark.parametrize(("lines", "field", "says"), WRONG)
def test_what_cannot_be_is_named_with_the_nearest_that_can(lines, field, says):
    with pytest.raises(Faults) as wrong:
        formula(lines)
    assert says in {f.field: plain(f.message) for f in wrong.value.faults}[field]


@pytest.mark.parametrize(("lines", "tubs", "field", "says"), TOO_MUCH)
def test_a_preferment_takes_no_more_than_there_is(lines, tubs, field, says):
    with pytest.raises(Faults) as wrong:
        station(formula=formula(lines), preferments=tubs)
    assert says in {f.field: plain(f.message) for f in wrong.value.faults}[field]


def test_an_ingredient_stands_once():
    with pytest.raises(Faults) as wrong:
        Formula((Line("flour-strong", 100), Line("salt", 1), Line("salt", 1)))
    assert wrong.value.faults[0].field == "lines[2].ingredient"


def test_the_plan_takes_its_density_from_the_formula_unless_overridden():
    plan = station(dough=replace(station().dough, density_kg_m3=None), formula=formula())
    assert work(plan).dough.density_kg_m3 == pytest.approx(1128, abs=4)
    assert work(changed(plan, dough=Dough(2400, 1120))).dough.density_kg_m3 == 1120
    gassy = Kitchen({"dough.gas_pct": 30})
    assert work(plan, gassy).dough.density_kg_m3 == pytest.approx(
        work(plan).dough.density_kg_m3 * 0.7 / 0.9
    )


def test_butter_in_three_conventions_by_hand():
    plan = station(formula=formula())  # 2400 g of 174 %: 1379.3 g of flour; 650 g of butter
    share = work(plan).butter_share
    assert share.of_flour_pct == pytest.approx(650 / (2400 / 1.74) * 100)
    assert share.of_dough_pct == pytest.approx(27.083, abs=1e-3)
    assert share.of_whole_pct == pytest.approx(21.311, abs=1e-3)
    assert work(station()).butter_share.of_flour_pct is None
    said = {w.of: plain(w.text) for w in work(plan).workings}
    assert "1\u202f379 g of flour" in said["butter_share.of_flour_pct"]
    assert "water 52 × 100 %" in said["formula.balance.true_hydration_pct"]


def test_stops_begin_the_day_before_and_sheets_stand_at_theirs():
    plan = station(
        formula=formula(), preferments=(poolish(20, 60, 5, 700), poolish(20, 100, 5, 300))
    )
    strip = work(plan).strip
    assert [s.key for s in strip][:4] == ["preferment-1", "preferment-2", "mix", "dough"]
    at = {s.key: s.starts_min for s in strip}
    # each has ripened for its own time when the dough is mixed
    assert at["mix"] - at["preferment-1"] - 10 == pytest.approx(700)
    assert at["mix"] - at["preferment-2"] - 10 == pytest.approx(300)
    assert [(s.stop, s.minute) for s in work(plan).sheets] == [
        (key, at[key]) for key in ("preferment-1", "preferment-2", "mix", "lock_in")
    ]


def test_what_leaves_the_usual_is_flagged_in_a_sentence():
    odd = formula({**LEAN, "sugar": 25, "salt": 4, "yeast-fresh": 9, "butter-table": 40})
    titles = {plain(n.title): n for n in work(station(formula=odd)).notes if n.tone == "mind"}
    for what in ("Sugar", "Salt", "Yeast", "Fat in the dough"):
        assert f"{what} above the usual" in titles
    assert "usually 1.6 to 2.4 %" in plain(titles["Salt above the usual"].text)
    assert titles["Salt above the usual"].field == "formula.lines[4].pct"
    none = formula({k: v for k, v in LEAN.items() if k != "yeast-fresh"})
    assert "No yeast" in {plain(n.title) for n in work(station(formula=none)).notes}


def test_trimmings_say_how_to_keep_the_balance():
    plan = station(formula=formula(old_dough=OldDough(8)))
    made = work(plan).formula
    note = next(n for n in work(plan).notes if plain(n.title) == "Trimmings carry butter")
    assert made.feeding.grams == pytest.approx(192)
    lowered = float(plain(note.text).split("Table butter at ")[1].split(" %")[0])
    leaner = formula({**LEAN, "butter-table": lowered}, old_dough=OldDough(8))
    settled = work(station(formula=leaner)).formula.feeding.settled.balance
    assert settled.fat_pct == pytest.approx(balance(formula()).fat_pct, abs=0.15)


def test_a_tub_too_small_is_said_before_it_overflows():
    plan = station(formula=formula(), preferments=(poolish(40),))
    small = Kitchen({"preferment.tub_l": 1})
    note = next(n for n in work(plan, small).notes if n.code == "tub")
    tub = work(plan, small).made(PrefermentFigures)[0]
    assert tub.tub_l == pytest.approx(tub.rises_to_l * 1.2)
    assert plain(note.title) == f"In {-int(-tub.tub_l // 1)} tubs"
    assert "tub" not in {n.code for n in work(plan).notes if n.tone == "mind"}
