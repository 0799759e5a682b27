"""Water temperature and ice by a balance of heat; block, plaques and slab."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.dough.block import fold_back, plaques_for, slab_for
from lamination.dough.mixing import WATER, Liquid, Part, water_for
from lamination.dough.recipe import Butter, InBlock
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.composition import Composition, specific_heat_kj_kg_k
from lamination.materials.ingredients import LIBRARY
from lamination.materials.thermal import ICE_MELTS_KJ_KG
from lamination.plan.starts import starting_finish
from lamination.plan.work import work
from lamination.steps.mix import MixFigures, Mixing
from lamination.terms.said import plain
from lamination.terms.sizes import Size
from lamination.terms.trade import Family
from tests.plans import formula, station

FLOUR = Composition(14, 12, 1.2, 72.3, 0.5)


def test_water_temperature_by_hand():
    # 1 kg flour at 18 °C, 0.5 kg water, no friction: c of flour at 18 °C and of water at the tap
    c_flour, c_water = specific_heat_kj_kg_k(FLOUR, 18), specific_heat_kj_kg_k(WATER, 10)
    got = water_for(24, 500, [Part(1000, FLOUR, 18)], 10, 0, 45)
    assert got.water_c == pytest.approx(24 + c_flour * 6 / (0.5 * c_water))
    assert (got.ice_g, got.reached) == (0, True)
    warmed = water_for(24, 500, [Part(1000, FLOUR, 18)], 10, 4, 45)
    per_k = (c_flour + 0.5 * c_water) / (0.5 * c_water)
    assert got.water_c - warmed.water_c == pytest.approx(4 * per_k)


def test_ice_by_hand():
    got = water_for(22, 500, [Part(1000, FLOUR, 26)], 20, 6, 45)
    c = specific_heat_kj_kg_k(WATER, 20)
    assert (got.needed_c < 20, got.water_c) == (True, 20)
    assert got.ice_g == pytest.approx(500 * c * (20 - got.needed_c) / (ICE_MELTS_KJ_KG + 20 * c))
    assert got.water_g + got.ice_g == pytest.approx(500)
    # all the heat there is, before and after: the ice melts and comes up to the dough's temperature
    flour = specific_heat_kj_kg_k(FLOUR, 26)
    brought = (
        flour * 26 + got.water_g / 1000 * c * 20 - got.ice_g / 1000 * ICE_MELTS_KJ_KG
        + 6 * (flour + 0.5 * c)
    )  # fmt: skip
    assert brought / (flour + 0.5 * c) == pytest.approx(22)


@given(st.floats(0, 40), st.floats(0.5, 30), st.floats(0, 15), st.floats(50, 900), st.floats(5, 35))
def test_what_cannot_be_reached_says_what_can(flour_c, tap_c, friction, water_g, wanted):
    got = water_for(wanted, water_g, [Part(1000, FLOUR, flour_c)], tap_c, friction, 45)
    assert got.reached == (abs(got.dough_c - wanted) < 0.05)
    assert 0 <= got.ice_g <= water_g + 1e-6
    if not got.reached:
        assert got.ice_g == pytest.approx(water_g) or got.water_c == 45


def test_no_water_is_no_way_to_set_a_temperature():
    with pytest.raises(ValueError, match="no water"):
        water_for(24, 0, [Part(1000, FLOUR, 18)], 10, 0, 45)
    eggs = formula({"flour-strong": 100, "egg-whole": 60, "salt": 2, "yeast-fresh": 3})
    worked = work(station(formula=eggs))
    assert worked.made(MixFigures)[0].water is None
    assert "no water and no milk of its own" in next(
        plain(n.text) for n in worked.notes if plain(n.title).startswith("No water")
    )


def mixed(lines, sets=None, kitchen=None, **how):
    plan = station(formula=formula(lines), mix=Mixing(sets=sets, **how))
    return work(plan, kitchen or Kitchen())


def test_a_dough_without_water_is_set_by_its_milk_which_is_no_colder_than_it_is_kept():
    lines = {"flour-strong": 100, "milk-whole": 58, "salt": 2, "yeast-fresh": 3}
    kitchen = Kitchen()
    worked = mixed(lines, flour_c=20.0, wanted_c=24.0, slow_min=2.0, fast_min=2.0)
    (made,) = worked.made(MixFigures)
    assert (made.water.of, made.liquids, made.water.ice_g) == ("milk", ("milk",), 0)
    assert made.water.reached
    assert "Milk at " in " ".join(plain(t) for t in worked.stop("mix").does)
    # the same balance by hand: milk's own specific heat
    grams = {x.ingredient: x.exact_g for x in worked.sheets[0].lines}
    held = {x.key: x.composition for x in LIBRARY}
    c = {k: specific_heat_kj_kg_k(held[k], 20 if k != "milk-whole" else kitchen["mixer.cold_c"])
         for k in grams}  # fmt: skip
    flour = [k for k in grams if k != "milk-whole"]
    friction = 2 * kitchen["mixer.slow_k_min"] + 2 * kitchen["mixer.fast_k_min"]
    whole = sum(grams[k] * c[k] for k in grams)
    by_hand = 24 + (sum(grams[k] * c[k] * 4 for k in flour) - friction * whole) / (
        grams["milk-whole"] * c["milk-whole"]
    )
    assert made.water.water_c == pytest.approx(by_hand, abs=0.15)
    hot = mixed(lines, flour_c=33.0, wanted_c=20.0)
    (made,) = hot.made(MixFigures)
    assert made.water.water_c == kitchen["mixer.cold_c"]
    assert not made.water.reached
    assert any(plain(n.title) == "Cold milk is not enough" for n in hot.notes)


def test_with_both_either_can_be_the_one_that_is_set():
    lines = {"flour-strong": 100, "water": 30, "milk-whole": 24, "salt": 2, "yeast-fresh": 3}
    by_water, by_milk = mixed(lines), mixed(lines, Liquid.MILK)
    (a,), (b,) = by_water.made(MixFigures), by_milk.made(MixFigures)
    assert a.liquids == b.liquids == ("water", "milk")
    assert (a.water.of, b.water.of) == ("water", "milk")
    # what is not there cannot be set
    (c,) = mixed({"flour-strong": 100, "water": 55, "salt": 2}, Liquid.MILK).made(MixFigures)
    assert c.water.of == "water"


def test_flour_that_is_as_warm_as_the_room_is_not_told_to_come_to_it():
    lines = {"flour-strong": 100, "water": 30, "butter-table": 30, "salt": 2}
    cold = Kitchen({"room.c": 8})
    said = {
        flour_c: plain(n.text)
        for flour_c in (None, 2.0)
        for n in mixed(lines, wanted_c=34.0, flour_c=flour_c, kitchen=cold).notes
        if n.code == "water-reach"
    }
    assert "Let the flour come to the room" in said[2.0]
    assert "come to the room" not in said[None]


def test_a_hot_bakery_gets_ice_and_a_caution_when_even_that_is_not_enough():
    hot = Kitchen({"mixer.fast_k_min": 4})
    plan = station(formula=formula())
    titles = [plain(n.title) for n in work(plan, hot).notes]
    assert any("as ice" in t for t in titles)
    furnace = Kitchen({"mixer.fast_k_min": 10, "mixer.slow_k_min": 5})
    note = next(n for n in work(plan, furnace).notes if plain(n.title) == "Even ice is not enough")
    assert note.field == "steps[0].wanted_c"


def test_the_bowl_says_when_it_is_too_much_or_too_little():
    plan = station(formula=formula())
    small = next(
        n for n in work(plan, Kitchen({"mixer.most_g": 900})).notes if n.code == "bowl-much"
    )
    assert plain(small.title) == "Mix it in 3"
    assert "Little for the mixer" in {
        plain(n.title) for n in work(plan, Kitchen({"mixer.least_g": 5000})).notes
    }


PLAQUE = Size(300, 200, 18)


@given(st.floats(50, 20_000))
def test_plaques_and_their_cut_make_up_the_block(block_g):
    got = plaques_for(block_g, Size(230, 300, 10), PLAQUE, 1000)
    assert got.whole * 1000 + got.part_g == pytest.approx(block_g)
    assert 0 <= got.part_g < 1000
    assert got.trim_g == pytest.approx(1000 - got.part_g if got.part_g else 0)
    assert got.across * got.along == max(got.whole, 1)


def test_plaques_lie_as_the_block_does():
    got = plaques_for(4000, Size(400, 600, 18), PLAQUE, 1000)
    assert (got.whole, got.across, got.along) == (4, 2, 2)
    long = plaques_for(2000, Size(600, 200, 18), PLAQUE, 1000)
    assert (long.across, long.along, long.turned) == (1, 2, False)


def test_folded_back_it_is_as_thick_as_before():
    got = fold_back(Size(230, 300, 12), 3)
    assert got.roll_to_mm * 3 == 12
    assert got.length_mm * got.width_mm * got.roll_to_mm == pytest.approx(230 * 300 * 12)


@given(st.floats(200, 1500), st.floats(150, 900), st.floats(250, 800), st.floats(200, 600))
def test_a_slab_lies_on_the_tray_and_is_never_thinner_than_its_sheet(length, width, tray_l, tray_w):
    sheet = Size(length, width, 12)
    slab = slab_for(sheet, sheet.volume_mm3, tray_l, tray_w)
    assert max(slab.length_mm, slab.width_mm) <= max(tray_l, tray_w) + 1e-6
    assert min(slab.length_mm, slab.width_mm) <= min(tray_l, tray_w) + 1e-6
    assert slab.thickness_mm >= 12 - 1e-6
    assert slab.volume_mm3 == pytest.approx(sheet.volume_mm3)


def test_flour_in_the_butter_is_weighed_and_counted():
    from dataclasses import replace

    plan = station(butter=replace(station().butter, flour_pct=20, density_kg_m3=None))
    worked = work(plan)
    block = next(s for s in worked.sheets if s.stop == "lock_in")
    assert [line.grams for line in block.lines] == [
        pytest.approx(541.7, abs=0.1),
        pytest.approx(108.3, abs=0.1),
    ]
    assert "gluten" in block.allergens
    assert worked.butter.physics.density_kg_m3 > work(station(butter=replace(
        station().butter, density_kg_m3=None))).butter.physics.density_kg_m3  # fmt: skip


# --- something worked into the butter


def with_block(*holds, flour_pct=0.0, mass_g=660.0):
    butter = Butter(mass_g, flour_pct=flour_pct, holds=tuple(InBlock(*one) for one in holds))
    shape, *after = starting_finish(Family.CROISSANT)
    return replace(station(formula=formula(), finish=(shape, *after)), butter=butter)


def test_cocoa_in_the_butter_is_weighed_counted_and_on_the_label():
    plan = with_block(("cocoa", 8), ("dried lavender", 2))
    worked = work(plan)
    block = next(s for s in worked.sheets if s.name == "Butter block")
    grams = {line.ingredient: line.exact_g for line in block.lines}
    assert grams == pytest.approx(
        {"butter-table": 600, "cocoa": 48, "dried lavender": 12}, rel=1e-9
    )
    assert sum(line.grams for line in block.lines) == pytest.approx(660, abs=0.2)
    assert worked.butter_share.of_dough_pct == pytest.approx(100 * 600 / plan.dough.mass_g)
    (label,) = worked.labels
    assert "dried lavender" in label.unknown
    assert any(d.name == "Cocoa powder" or "ocoa" in d.name for d in label.declared)
    # in the shares that are really in it
    plain = work(with_block()).labels[0]
    butter = {d.name: d.share_pct for d in label.declared}["Table butter"]
    assert butter < {d.name: d.share_pct for d in plain.declared}["Table butter"]
    assert "Work {48|g} of cocoa" in " ".join(worked.stop("lock_in").does)


def test_a_second_fat_moves_the_window_by_what_there_is_of_it():
    one, both = work(with_block()), work(with_block(("butter-sheet", 50)))
    sheet = next(i for i in LIBRARY if i.key == "butter-sheet").window
    for name in ("brittle_c", "plastic_from_c", "plastic_to_c", "oils_c"):
        own = getattr(one.butter.window, name)
        assert getattr(both.butter.window, name) == pytest.approx(
            (2 * own + getattr(sheet, name)) / 3
        )
    # with flour in it as well, all of it makes the block
    plan = with_block(("cocoa", 10), flour_pct=30, mass_g=700)
    assert plan.butter.pure_g == pytest.approx(500)
    assert (plan.butter.flour_g, plan.butter.held[0][1]) == pytest.approx((150, 50))


def test_what_is_named_twice_in_the_block_is_weighed_once():
    plan = with_block(
        ("butter-table", 10), ("flour-strong", 5), ("cocoa", 5), flour_pct=30, mass_g=750
    )
    block = next(s for s in work(plan).sheets if s.name == "Butter block")
    keys = [line.key for line in block.lines]
    assert len(set(keys)) == len(keys)
    assert sum(line.exact_g for line in block.lines) == pytest.approx(750)
    grams = {line.ingredient: line.exact_g for line in block.lines}
    assert grams["butter-table"] == pytest.approx(550)
