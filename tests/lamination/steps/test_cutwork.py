"""What comes of the cut, in the plan: pieces and their masses, poor places, advice, and weights hit."""

import math
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.baking import Oven
from lamination.pieces.products import Product, Shape
from lamination.pieces.shaping import Card
from lamination.plan.amend import amend
from lamination.plan.amendment import Amendment, Change
from lamination.plan.starts import starting_finish
from lamination.plan.work import work
from lamination.steps.bake import Baking
from lamination.steps.cut import Cut
from lamination.steps.last_sheet import LastSheet
from lamination.terms.limits import Faults
from lamination.terms.said import plain
from lamination.terms.trade import Family
from tests.plans import changed, station

KITCHEN = Kitchen()
DISC = Product("Disc", Shape.DISC, 80)
RING = Product("Ring", Shape.RING, 90, hole_mm=50)
SQUARE = Product("Square", Shape.SQUARE, 100)
TRIANGLE = Product("Triangle", Shape.TRIANGLE, 90, 250)


def cutting(*products, **cut):
    return station(cut=Cut(products, **cut), last_sheet=LastSheet(4, 520))


def made(*products, **cut):
    return work(cutting(*products, **cut)).cut


# --- masses


@pytest.mark.parametrize("product", [DISC, RING, SQUARE, TRIANGLE], ids=lambda p: p.name)
def test_on_an_even_sheet_every_piece_weighs_what_its_area_weighs(product):
    cut = made(product)
    assert cut.each_g == pytest.approx([cut.piece_g] * cut.pieces, rel=1e-3)


def test_on_an_uneven_sheet_pieces_differ_and_the_sheet_is_still_the_sum():
    plan = changed(cutting(DISC), last_sheet=LastSheet(4, 520, uneven_pct=20))
    cut = work(plan).cut
    assert max(cut.each_g) > 1.05 * min(cut.each_g)
    assert sum(cut.each_g) / cut.pieces == pytest.approx(cut.piece_g, rel=0.03)


@given(st.sampled_from([DISC, SQUARE, TRIANGLE]), st.floats(0, 30), st.floats(0, 5))
def test_pieces_and_what_is_left_over_are_the_whole_sheet(product, trim, kerf):
    worked = work(cutting(product, trim_mm=trim, kerf_mm=kerf))
    cut = worked.cut
    assert cut.pieces * cut.piece_g + cut.trimmings_g == pytest.approx(worked.final.mass_g)
    assert 0 <= cut.trimmings_butter_g <= cut.trimmings_g


def test_more_trim_never_gives_more_pieces():
    counts = [made(SQUARE, trim_mm=trim).pieces for trim in (0, 10, 20, 40, 80)]
    assert counts == sorted(counts, reverse=True)
    assert counts[0] > counts[-1]


def test_a_bare_margin_shows_in_the_round_pieces_that_lie_on_it():
    plan = cutting(DISC)
    poor = changed(plan, lock_in=replace(plan.lock_in, margin_mm=15))
    full, spoilt = work(plan).cut.full_pct, work(poor).cut.full_pct
    assert min(full) == pytest.approx(100)
    assert min(spoilt) < 60
    assert all(-1e-6 <= share <= 100 + 1e-6 for share in spoilt)


def test_several_shapes_on_one_sheet_are_each_looked_at():
    cut = made(replace(TRIANGLE, rows=1), replace(DISC, rows=1), SQUARE)
    assert len(cut.full_pct) == len(cut.each_g) == len(cut.outlines) == cut.pieces
    assert {p.pieces > 0 for p in cut.products} == {True}
    first = cut.products[0].pieces
    assert cut.each_g[first] == pytest.approx(cut.products[1].piece_g, rel=1e-3)


# --- a weight that is wanted


def hit(plan, change, grams, n=0):
    done = amend(plan, Amendment(change, value=grams, index=n), KITCHEN)
    return done, work(done, KITCHEN).cut.products[n].piece_g


@settings(max_examples=16, deadline=None)
@given(
    st.sampled_from([DISC, RING, SQUARE, TRIANGLE]),
    st.sampled_from([Change.PIECE_BASE, Change.PIECE_HEIGHT, Change.PIECE_THICKNESS]),
    st.floats(0.7, 1.4),
)
def test_every_way_to_a_weight_hits_it(product, change, times):
    plan = cutting(product)
    wanted = times * work(plan).cut.piece_g
    _, got = hit(plan, change, wanted)
    # sizes are said to a tenth of a millimetre, thicknesses to a hundredth
    assert got == pytest.approx(wanted, rel=0.006)


def test_a_weight_by_the_base_leaves_the_height_and_the_other_products():
    plan = cutting(replace(TRIANGLE, rows=1), SQUARE)
    done, _ = hit(plan, Change.PIECE_BASE, 70)
    assert done.cut.products[0].height_mm == 250
    assert done.cut.products[1] == SQUARE
    assert done.last_sheet == plan.last_sheet


def test_a_ring_keeps_its_hole():
    done, _ = hit(cutting(RING), Change.PIECE_BASE, 30)
    assert done.cut.products[0].hole_mm == 50


@pytest.mark.parametrize(
    ("asked", "field"),
    [
        ({"change": Change.PIECE_BASE, "value": 60, "index": 4}, "index"),
        ({"change": Change.PIECE_BASE, "value": 0, "index": 0}, "value"),
        ({"change": Change.PIECE_THICKNESS, "value": 60}, "index"),
        ({"change": Change.OVEN}, "change"),
    ],
)
def test_what_cannot_be_solved_for_is_refused_at_its_field(asked, field):
    with pytest.raises(Faults) as refused:
        amend(cutting(SQUARE), Amendment(**asked), KITCHEN)
    assert refused.value.faults[0].field == field


def test_a_thickness_that_cannot_be_rolled_is_refused_by_the_plan():
    plan, _ = hit(cutting(SQUARE), Change.PIECE_THICKNESS, 60)
    assert plan.last_sheet.roll_to_mm != 4
    with pytest.raises(Faults) as refused:
        hit(cutting(SQUARE), Change.PIECE_THICKNESS, 15_000)
    assert "roll_to_mm" in refused.value.faults[0].field


def test_the_other_oven_is_one_press_away_and_back():
    plan = changed(cutting(SQUARE), finish=starting_finish(Family.DANISH))
    fan = amend(plan, Amendment(Change.OVEN), KITCHEN)
    assert fan.first(Baking).bake.oven is Oven.FAN
    assert amend(fan, Amendment(Change.OVEN), KITCHEN).first(Baking).bake.oven is Oven.DECK


# --- words


def titles(plan):
    return [plain(n.title) for n in work(plan).notes if n.stop == "cut"]


def test_rows_that_do_not_fit_are_counted():
    said = titles(cutting(replace(SQUARE, rows=9)))
    assert "5 of 9 rows of Square fit" in said


def test_a_product_that_finds_no_room_is_named():
    said = titles(cutting(replace(SQUARE, rows=5), replace(TRIANGLE, name="Horn")))
    assert "No Horn fits" in said


def test_a_kerf_says_what_marking_from_the_last_cut_would_cost():
    (note,) = [
        n for n in work(cutting(SQUARE, kerf_mm=2)).notes if plain(n.title).startswith("Every mark")
    ]
    cut = made(SQUARE, kerf_mm=2)
    assert f"{cut.products[0].drift.last_mm:.0f} mm short" in plain(note.text)
    # a strip of two millimetres down each side
    lost = cut.products[0].piece_g * (1 - 98 / 100)
    assert cut.products[0].drift.lighter_g == pytest.approx(lost, rel=1e-6)
    assert "Every mark from one straight edge" not in titles(cutting(SQUARE))


def does(plan, key):
    return [plain(line) for line in next(s.does for s in work(plan).strip if s.key == key)]


def test_the_bench_reads_every_product_with_its_size():
    said = does(cutting(replace(TRIANGLE, notch_mm=15, rows=1), RING, trim_mm=8), "cut")
    text = " ".join(said)
    assert "Trim 8 mm off every edge" in text
    assert "Triangle: Base 90 mm, height 250 mm, notch 15 mm" in text
    assert "Ring: Rings 90 mm across, hole 50 mm" in text
    assert said[-1] == "Measure every mark from the straight edge, not from the last cut."


def test_shrinkage_is_in_the_sizes_the_bench_reads():
    assert "Base 100 mm" in " ".join(
        does(cutting(replace(TRIANGLE, base_mm=95), shrink_pct=5), "cut")
    )


def test_the_bake_is_read_stage_by_stage_with_its_signs():
    plan = changed(cutting(SQUARE), finish=starting_finish(Family.CROISSANT))
    said = " ".join(does(plan, "bake"))
    assert "4 min at 220 °C with steam, then 14 min at 190 °C, deck oven." in said
    assert "Turn the tray half-way." in said
    assert "94 °C in the middle" in said


def test_the_shaping_is_read_with_trays_filling_and_where_wash_may_seal():
    pocket = replace(SQUARE, card=Card.POCKET, filling="almond", filling_g=20)
    plan = changed(cutting(pocket), finish=starting_finish(Family.DANISH))
    first, line, proofer = does(plan, "shape")
    assert proofer.startswith("Proofer at 26 °C")
    worked = work(plan)
    trays = math.ceil(worked.cut.pieces / worked.shaped.trays.products[0].per_tray)
    assert first == f"Shape {worked.cut.pieces} pieces on {trays} trays"
    assert "20 g of filling each" in line
    assert "Wash under each corner" in line
