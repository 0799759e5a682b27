"""What to have in the house the day before: every ingredient once, and all of it."""

import pytest

from bakehouse.demo.teasel_lock import KITCHEN, MARKET, ORDER, PLANS, STATION
from lamination.day.order import Order, Ordered, Wanted, work_order
from lamination.pieces.products import Addition, Product, Shape, Topping
from lamination.plan.work import work
from lamination.steps.cut import Cut
from tests.plans import station


@pytest.mark.parametrize("plan", PLANS, ids=lambda p: p.name)
def test_the_list_adds_up_to_what_is_weighed_and_names_each_thing_once(plan):
    worked = work(plan, KITCHEN)
    bought = {n.ingredient: n.grams for n in worked.shopping}
    assert len(bought) == len(worked.shopping)
    lines = [line for s in worked.sheets for line in s.lines if line.ingredient != "old-dough"]
    assert sum(bought.values()) == pytest.approx(sum(line.grams for line in lines), abs=0.1)
    assert bought["salt"] == pytest.approx(sum(x.grams for x in lines if x.ingredient == "salt"))


def test_what_is_fed_back_is_not_bought():
    assert "old-dough" not in {n.ingredient for n in work(STATION, KITCHEN).shopping}


def test_fillings_and_toppings_of_all_pieces_are_on_it():
    almond = Topping("almond", 2.0, Addition.TOPPING)
    product = Product(
        "Roll", Shape.SQUARE, 80, filling="apricot jam", filling_g=15, toppings=(almond,)
    )
    worked = work(station(cut=Cut((product,))))
    bought = {n.ingredient: n.grams for n in worked.shopping}
    assert bought["apricot jam"] == pytest.approx(15 * worked.cut.pieces)
    assert bought["almond"] == pytest.approx(2 * worked.cut.pieces)


def test_an_order_buys_fillings_for_the_pieces_it_makes():
    almond = Topping("almond", 2.0, Addition.TOPPING)
    roll = Product(
        "Roll", Shape.SQUARE, 80, filling="apricot jam", filling_g=15, toppings=(almond,)
    )
    plan = station(cut=Cut((roll,)))
    ordered = Ordered(0, (Wanted("Roll", 130, 60), Wanted("Stick", 10, 60)))
    worked = work_order(Order("Monday", (ordered,)), {0: plan}, KITCHEN)
    bought = {n.ingredient: n.grams for n in worked.shopping}
    assert bought["apricot jam"] == pytest.approx(15 * 130)
    assert bought["almond"] == pytest.approx(2 * 130)


def test_an_order_buys_for_all_of_its_doughs():
    doughs = tuple(Ordered(PLANS.index(p), products) for p, products, _ in ORDER)
    worked = work_order(Order("Saturday", doughs), dict(enumerate(PLANS)), KITCHEN)
    bought = {n.ingredient: n.grams for n in worked.shopping}
    butter = sum(
        line.grams * timed.times
        for batch in worked.batches
        for timed in batch.sheets
        for line in timed.sheet.lines
        if line.ingredient == "butter-table"
    )
    assert bought["butter-table"] == pytest.approx(butter)
    assert bought["butter-table"] > MARKET.butter.mass_g
