"""What goes in and on: every place where something can stand reaches every sheet, unknown things too."""

from dataclasses import replace

import pytest

from bakehouse.demo.teasel_lock import KITCHEN, MARKET
from lamination.day import Order, Ordered, Wanted, work_order
from lamination.dough.formula import Line, OldDough
from lamination.kitchen import Kitchen
from lamination.materials import Care, MadeWhen, Preparation, PreparedPart
from lamination.pieces.baking import Wash
from lamination.pieces.cards import Card
from lamination.pieces.products import Addition, Topping
from lamination.plan import work
from lamination.steps.again import BakeAgain
from lamination.steps.shape import Shaping
from lamination.steps.strew import Strew
from lamination.steps.wash import Washing
from lamination.terms import Faults

PASTE = Preparation(
    "nut-paste", "Nut paste",
    (PreparedPart("hazelnut", 300), PreparedPart("sugar", 200), PreparedPart("water", 60)), loss_pct=5,
)  # fmt: skip
SYRUP = Preparation(
    "syrup", "Lock syrup", (PreparedPart("sugar", 100), PreparedPart("water", 100)), care=Care.HOT_SUGAR
)  # fmt: skip
GLAZE = Preparation(
    "glaze", "Nut glaze", (PreparedPart("nut-paste", 50), PreparedPart("Lock syrup", 50)), made=MadeWhen.COLD
)  # fmt: skip
HERE = replace(KITCHEN, preparations=(GLAZE, PASTE, SYRUP))


def plan():
    """A plan to its end, without anything that holds nuts."""
    return MARKET


def with_step(made, before, *steps):
    at = next(n for n, s in enumerate(made.steps) if s.kind_name == before)
    return replace(made, steps=(*made.steps[:at], *steps, *made.steps[at:]))


def product(made, **more):
    cut = made.cut
    (first, *rest) = cut.products
    return made.changed(cut, products=(replace(first, **more), *rest))


def with_formula(made, **more):
    return replace(made, formula=replace(made.formula, **more))


def line(what):
    return (*plan().formula.lines, Line(what, 4.0))


def own(what):
    return (*plan().formula.own, *([HERE.shelf[what]] if what in ("nut-paste", "glaze") else []))


# every place where an ingredient or a preparation can stand
PLACES = {
    # what a formula holds besides the library travels with it
    "formula": lambda what: with_formula(plan(), lines=line(what), own=own(what)),
    "filling": lambda what: product(plan(), filling=what, filling_g=12),
    "topping": lambda what: product(plan(), toppings=(Topping(what, 2),)),
    "mark": lambda what: product(plan(), toppings=(Topping(what, 0.2, Addition.MARK),)),
    "glaze": lambda what: product(plan(), toppings=(Topping(what, 3, Addition.GLAZE),)),
    "strewn": lambda what: with_step(plan(), "last_sheet", Strew(what, 80)),
    "spread": lambda what: with_step(plan(), "last_sheet", Strew(what, 80, spread=True)),
    "wash": lambda what: plan().changed(plan().first(Washing), made_of=what),
    "release": lambda what: product(
        plan().changed(plan().first(Shaping), release=what), card=Card.CROWN
    ),
    "baked again": lambda what: replace(plan(), steps=(*plan().steps, BakeAgain(what, 20))),
}


@pytest.mark.parametrize("place", PLACES)
@pytest.mark.parametrize("what", ["hazelnut", "nut-paste", "glaze", "Nut paste"])
def test_its_allergen_is_on_the_label_and_on_every_sheet_that_weighs_it(place, what):
    if place == "formula" and what == "Nut paste":
        what = "nut-paste"  # a formula names what it holds by its key
    made = PLACES[place](what)
    worked = work(made, HERE)
    (label, *_) = worked.labels
    assert "nuts" in label.allergens
    assert "nuts" in label.says
    holds = {"Hazelnuts", "Nut paste", "Nut glaze"}
    weighed = [s for s in worked.sheets if holds & {x.name for x in s.lines}]
    if place != "release":
        assert weighed
    for sheet in weighed:
        assert "nuts" in sheet.allergens, sheet.name
        assert "nuts" in sheet.declared
    # and from the plan to what is weighed for an order of it
    wanted = Wanted(made.cut.products[0].name, 120, 60)
    order = work_order(Order("Saturday", (Ordered(0, (wanted,)),)), {0: made}, HERE)
    sheets = [t.sheet for b in order.batches for t in b.sheets] + list(order.prepared)
    if place != "release":
        assert any("nuts" in s.allergens for s in sheets)
    for sheet in sheets:
        assert sheet.declared


@pytest.mark.parametrize("place", [p for p in PLACES if p != "formula"])
def test_what_nobody_knows_is_said_to_be_unknown_and_nothing_looks_complete(place):
    worked = work(PLACES[place]("lockside jam"), HERE)
    (label, *_) = worked.labels
    assert "lockside jam" in label.unknown
    assert not label.complete
    assert "ask the baker" in label.says
    for sheet in worked.sheets:
        if any(x.ingredient == "lockside jam" for x in sheet.lines):
            assert "lockside jam" in sheet.unknown
            assert "ask the baker" in sheet.declared


def test_egg_in_the_wash_is_weighed_bought_and_declared():
    made = plan().changed(plan().first(Washing), wash=Wash.EGG_MILK, coats=1)
    worked = work(made, KITCHEN)
    wash = next(s for s in worked.sheets if s.stop.startswith("wash"))
    assert "egg" in wash.allergens
    assert wash.total_g == pytest.approx(worked.cut.pieces * KITCHEN["wash.coat_g"], rel=0.02)
    assert "egg-whole" in {n.ingredient for n in worked.shopping}
    assert "egg" in worked.labels[0].allergens


def test_tins_that_nobody_said_how_they_are_greased_leave_the_label_open():
    worked = work(product(plan(), card=Card.CROWN), KITCHEN)
    assert "what the tins are greased with" in worked.labels[0].unknown


def test_a_plan_without_a_formula_declares_no_list_that_looks_complete():
    worked = work(replace(plan(), formula=None, steps=tuple(
        s for s in plan().steps if s.kind_name not in ("mix", "preferment"))), KITCHEN)  # fmt: skip
    (label, *_) = worked.labels
    assert "the dough" in label.unknown
    assert label.ask


def test_ingredients_are_declared_by_falling_weight_and_water_as_what_is_left_of_it():
    made = product(plan(), filling="nut-paste", filling_g=12)
    (label, *_) = work(made, HERE).labels
    shares = [d.share_pct for d in label.declared if d.share_pct is not None]
    assert shares == sorted(shares, reverse=True)
    paste = next(d for d in label.declared if d.name == "Nut paste")
    assert paste.of == ("Hazelnuts", "Sugar", "Water")
    assert paste.allergens == ("nuts",)
    # what the oven takes is water, and what is left of it under a twentieth is not declared
    left = []
    for loss in (0, 4, 40):
        kitchen = Kitchen({**HERE.yours, "bake.loss_pct": loss}, preparations=HERE.preparations)
        lines = {d.name: d.share_pct for d in work(made, kitchen).labels[0].declared}
        left.append(lines.get("Water"))
    assert left[1] == pytest.approx(left[0] - 4, abs=0.1)
    assert left[2] is None


def test_a_preparation_goes_into_another_and_each_is_made_once_for_the_order():
    made = product(plan(), toppings=(Topping("glaze", 4),), filling="nut-paste", filling_g=10)
    worked = work(made, HERE)
    names = [s.name for s in worked.sheets if s.stop.startswith("make-")]
    assert names.index("Make nut paste") < names.index("Make nut glaze")
    pieces = worked.cut.pieces
    paste = next(s for s in worked.sheets if s.stop == "make-nut-paste")
    # what is lost in the pan goes in besides
    assert paste.total_g == pytest.approx((10 + 2) * pieces / 0.95, rel=1e-3)
    assert "Hot sugar burns deeply" in next(s.says for s in worked.sheets if s.stop == "make-syrup")
    bought = {n.ingredient: n.grams for n in worked.shopping}
    assert "nut-paste" not in bought
    assert bought["hazelnut"] == pytest.approx(paste.total_g * 300 / 560, rel=1e-3)
    order = Order("Saturday", (Ordered(0, (Wanted(made.cut.products[0].name, 120, 60),)),))
    found = work_order(order, {0: made}, HERE)
    (once,) = (s for s in found.prepared if s.stop == "make-nut-paste")
    assert once.total_g == pytest.approx((10 + 2) * 120 / 0.95, rel=1e-3)


def test_the_composition_and_the_loss_of_a_preparation_follow_from_what_is_in_it():
    boiled = replace(SYRUP, loss_pct=25)
    shelf = replace(KITCHEN, preparations=(boiled,)).shelf
    syrup = shelf["syrup"].composition
    assert (syrup.water_pct, syrup.carbohydrate_pct) == (
        pytest.approx(100 / 3),
        pytest.approx(200 / 3),
    )
    with pytest.raises(Faults) as wrong:
        replace(KITCHEN, preparations=(replace(SYRUP, loss_pct=60),))
    assert wrong.value.faults[0].field == "preparations[0].loss_pct"


def test_a_preparation_never_goes_into_itself_nor_takes_another_s_key():
    loop = Preparation("a", "A", (PreparedPart("b", 1),))
    back = Preparation("b", "B", (PreparedPart("a", 1),))
    for wrong in ((loop, back), (Preparation("sugar", "Own sugar", (PreparedPart("sugar", 1),)),)):
        with pytest.raises(Faults) as found:
            replace(KITCHEN, preparations=wrong)
        assert found.value.faults[0].field.startswith("preparations[0].")


def test_old_dough_and_flour_in_the_butter_bring_what_is_in_them():
    made = with_formula(plan(), old_dough=OldDough(10.0))
    made = replace(made, butter=replace(made.butter, flour_pct=10))
    (label, *_) = work(made, KITCHEN).labels
    assert {"gluten", "milk"} <= set(label.allergens)
