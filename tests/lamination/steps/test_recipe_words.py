"""What the first stage says: what to do at the tub, the bowl, the slab and the block."""

from dataclasses import replace

import pytest

from bakehouse.demo.teasel_lock import BOATS, KITCHEN, MARKET, STATION
from lamination.dough.formula import OldDough
from lamination.dough.mixing import Development
from lamination.dough.recipe import Plaque
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.starts import starting_formula, starting_plan
from lamination.plan.work import work
from lamination.steps.mix import MixFigures, Mixing
from lamination.terms.rests import Rest
from lamination.terms.said import plain
from lamination.terms.trade import Family, Place
from tests.plans import LEAN, formula, poolish, station


def does(plan, stop, kitchen=KITCHEN):
    stops = work(plan, kitchen).strip
    return [plain(line) for line in next(s for s in stops if s.key == stop).does]


def titles(plan, stop, kitchen=KITCHEN):
    return {plain(n.title): n for n in work(plan, kitchen).notes if n.stop == stop}


def test_at_the_tub_it_says_how_much_how_large_and_when_it_is_ripe():
    first, tub, ripe = does(MARKET, "preferment-1")
    assert first == "Mix 570 g of poolish"
    assert tub == "Into a tub of 1.7 l or more: it rises to 1.5 l."
    assert ripe.startswith("Ripe after about 11 h:")


@pytest.mark.parametrize(
    ("development", "says"),
    [
        (Development.SHORT, "tears at once"),
        (Development.THREE_QUARTERS, "still tears or stays cloudy"),
        (Development.FULL, "clear and holds"),
    ],
)
def test_at_the_bowl_it_says_water_minutes_and_how_to_test_the_dough(development, says):
    plan = station(formula=formula(), mix=Mixing(development=development))
    first, water, minutes, test = does(plan, "mix")
    assert first == "Mix 2\u202f400 g of dough"
    assert "of water from the tap" in water or water.startswith("Water at ")
    assert minutes == "4 min slow, 5 min fast."
    assert says in test


def test_ice_is_weighed_beside_the_tap_s_water():
    hot = Kitchen({"mixer.fast_k_min": 4})
    plan = station(formula=formula())
    made = work(plan, hot).made(MixFigures)[0].water
    text = does(plan, "mix", hot)[1]
    assert "g of ice" in text
    assert made.water_g + made.ice_g == pytest.approx(2400 * 52 / 174)


def test_two_of_a_kind_are_numbered_and_one_is_not():
    two = station(formula=formula(), preferments=(poolish(10, 100, 5), poolish(10, 60, 5, 300)))
    names = {s.key: s.name for s in work(two).strip}
    assert names["preferment-1"] == "Poolish 1"
    assert names["preferment-2"] == "Poolish 2"
    assert {s.name for s in work(MARKET, KITCHEN).strip} >= {"Poolish"}


def test_a_block_is_folded_back_to_what_it_was():
    text = does(STATION, "lock_in")[2]
    back = work(STATION, KITCHEN).lock_in.fold_back
    assert "fold it in 3: pliable, and still cold" in text
    assert back.roll_to_mm == pytest.approx(work(STATION, KITCHEN).lock_in.block.thickness_mm / 3)
    assert "fold it in" not in " ".join(does(MARKET, "lock_in"))


def test_a_plaque_bigger_than_the_block_says_how_much_to_cut_and_what_would_take_it_whole():
    own = replace(station().butter, plaque=Plaque(400, 300, 2500))
    note = titles(station(butter=own), "lock_in")["A plaque bigger than the block"]
    assert (note.tone, note.field) == ("know", "butter.plaque.mass_g")
    assert "Cut 104 mm off its length" in plain(note.text)
    assert "a dough of 9\u202f231 g would take it whole" in plain(note.text)
    whole = replace(station().butter, plaque=Plaque(300, 200, 650))
    assert "A plaque bigger than the block" not in titles(station(butter=whole), "lock_in")
    assert work(station(butter=whole)).lock_in.plaques.whole == 1


def test_a_slab_says_whether_the_tray_takes_it_at_its_size():
    assert "Chilled at its size" in titles(MARKET, "dough")
    note = titles(STATION, "dough")["Smaller than the sheet"]
    assert "rolled to 760 × 440 mm" in plain(note.text)
    larger = Kitchen({**KITCHEN.yours, "tray.length_mm": 800, "tray.width_mm": 600})
    assert "Chilled at its size" in titles(STATION, "dough", larger)


def test_old_dough_beyond_the_usual_is_said_and_so_is_what_is_unlaminated():
    much = station(formula=formula(old_dough=OldDough(20)))
    assert "up to 10 % is usual" in plain(titles(much, "mix")["Much old dough"].text)
    bare = station(formula=formula(old_dough=OldDough(6, laminated=False)))
    assert "Trimmings carry butter" not in titles(bare, "mix")
    names = {line.name for s in work(bare).sheets for line in s.lines}
    assert "Old dough" in names
    assert "Trimmings" not in names


def test_a_dough_wanted_too_warm_or_water_too_hot_is_said():
    warm = station(formula=formula(), mix=Mixing(wanted_c=29))
    assert "A warm dough" in titles(warm, "mix")
    icy = station(formula=formula(), mix=Mixing(wanted_c=28, flour_c=-10, fast_min=0, slow_min=2))
    note = titles(icy, "mix")["The water would be too hot"]
    assert "45 °C, the hottest that spares the yeast" in plain(note.text)


def test_below_the_usual_says_what_it_does():
    thin = station(formula=formula({**LEAN, "sugar": 2, "salt": 0.5, "yeast-fresh": 0.4}))
    notes = titles(thin, "mix")
    assert "browns late" in plain(notes["Sugar below the usual"].text)
    assert "tastes flat" in plain(notes["Salt below the usual"].text)
    assert "Proof takes long" in plain(notes["Yeast below the usual"].text)


def test_every_family_starts_from_a_formula_that_is_usual_for_it():
    kitchen = Kitchen()
    for family in Family:
        assert starting_formula(family).lines
        plan = starting_plan("New", family, 2000, kitchen)
        minded = [plain(n.title) for n in work(plan, kitchen).notes if n.tone == "mind"]
        assert minded == [], family
        bare = starting_plan("New", family, 2000, kitchen, with_formula=False)
        assert bare.formula is None
        assert work(bare, kitchen).strip[0].key == "dough"


def test_allergens_stand_on_the_sheet_they_belong_to():
    sheets = {s.stop: s.allergens for s in work(BOATS, KITCHEN).sheets}
    assert sheets["mix"] == ("gluten", "milk")
    assert sheets["lock_in"] == ("milk",)
    poolish_only = {s.stop: s.allergens for s in work(MARKET, KITCHEN).sheets}
    assert poolish_only["preferment-1"] == ("gluten",)
    eggs = station(formula=formula({**LEAN, "egg-whole": 10, "almond": 5}))
    bowl = next(s for s in work(eggs).sheets if s.stop == "mix")
    assert set(bowl.allergens) == {"egg", "gluten", "milk", "nuts"}


def test_a_cold_preferment_wants_warmer_water_than_one_from_the_bench():
    def water(place):
        tub = replace(poolish(30), rest=Rest.at(place, 720))
        return (
            work(station(formula=formula(), preferments=(tub,))).made(MixFigures)[0].water.water_c
        )

    assert water(Place.FRIDGE) > water(Place.BENCH) + 5


def test_the_table_has_no_default_outside_its_own_limits():
    for row in Kitchen().table():
        assert row.low <= row.value <= row.high, row.key
        assert row.label
        assert row.origin in ("published", "trade practice")
