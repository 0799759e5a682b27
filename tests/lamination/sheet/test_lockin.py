"""Block, dough sheet and package for the three schools."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.starts import starting_plan
from lamination.plan.work import work
from lamination.sheet.cells import roll, turn
from lamination.sheet.folds import fold_sheet, moves
from lamination.sheet.lockin import lock_in
from lamination.sheet.stacks import Material, walk
from lamination.steps.lock_in import LockIn
from lamination.steps.turn import Trim
from lamination.terms.limits import Faults
from lamination.terms.said import plain
from lamination.terms.trade import Family, Fold, Method
from lamination.warmth.warmth import work_warmth
from tests.plans import station, turns

DOUGH, BUTTER = 2400 / 1120 * 1e6, 650 / 940 * 1e6


def test_half_covers_half_the_dough():
    got = lock_in(Method.HALF, DOUGH, BUTTER, 300, 230)
    assert got.block.thickness_mm == pytest.approx(10.0, abs=0.05)
    assert (got.dough_sheet.width_mm, got.dough_sheet.length_mm) == (300, 460)
    assert got.dough_sheet.thickness_mm == pytest.approx(15.5, abs=0.05)
    assert got.package.thickness_mm == pytest.approx(41.1, abs=0.05)
    assert (got.package.width_mm, got.package.length_mm) == (300, 230)


def test_two_thirds_makes_two_butter_layers_on_a_third_of_the_length():
    got = lock_in(Method.TWO_THIRDS, DOUGH, BUTTER, 300, 400)
    assert got.dough_sheet.length_mm == pytest.approx(600)
    assert got.package.length_mm == pytest.approx(200)
    assert got.sheet.fullest().butter_leaves == 2
    assert got.creases_mm == pytest.approx((200, 400))


def test_envelope_square_follows_the_block_and_the_overlap():
    got = lock_in(Method.ENVELOPE, DOUGH, BUTTER, 220, 220, overlap_mm=10)
    assert got.dough_sheet.length_mm == pytest.approx(331.1, abs=0.05)
    assert got.package.length_mm == pytest.approx(220)
    assert got.sheet.volume_mm3() == pytest.approx(DOUGH + BUTTER)


def test_an_envelope_without_overlap_wraps_evenly():
    stack = lock_in(Method.ENVELOPE, DOUGH, BUTTER, 220, 220).sheet.fullest()
    assert stack.bottom.thickness == pytest.approx(stack.top.thickness)


def test_an_envelope_offers_the_square_of_the_same_butter():
    with pytest.raises(Faults) as wrong:
        lock_in(Method.ENVELOPE, DOUGH, BUTTER, 300, 230)
    assert wrong.value.faults[0].field == "block_length_mm"
    assert f"{math.sqrt(300 * 230):.0f} mm" in plain(wrong.value.faults[0].message)


@pytest.mark.parametrize(
    ("method", "margin", "overlap", "field"),
    [
        (Method.HALF, 0, 5, "overlap_mm"),
        (Method.ENVELOPE, 5, 0, "margin_mm"),
        (Method.CROSS, 5, 0, "margin_mm"),
        (Method.DIAMOND, 0, 5, "overlap_mm"),
    ],
)
def test_edges_that_a_school_does_not_have_are_named(method, margin, overlap, field):
    with pytest.raises(Faults) as wrong:
        lock_in(method, DOUGH, BUTTER, 230, 230, margin, overlap)
    assert [f.field for f in wrong.value.faults] == [field]


@given(
    st.sampled_from([Method.HALF, Method.TWO_THIRDS]),
    st.floats(50, 900),
    st.floats(50, 900),
    st.floats(0, 60),
)
def test_what_goes_in_is_in_the_package(method, width, length, margin):
    got = lock_in(method, DOUGH, BUTTER, width, length, margin)
    assert got.block.volume_mm3 == pytest.approx(BUTTER)
    assert got.dough_sheet.volume_mm3 == pytest.approx(DOUGH)
    assert got.package.volume_mm3 == pytest.approx(DOUGH + BUTTER)


def leaves(method, folds, **more):
    """Butter and dough leaves after so many letters."""
    sheet = lock_in(method, DOUGH, BUTTER, 300, 300, **more).sheet
    for _ in range(folds):
        sheet = fold_sheet(roll(turn(sheet), 3), Fold.LETTER)
    full = sheet.fullest()
    return full.butter_leaves, full.dough_leaves


def test_schools_count_as_the_trade_counts_them():
    assert leaves(Method.HALF, 3) == (27, 28)
    assert leaves(Method.HALF_STACKED, 3) == (27, 28)
    assert leaves(Method.TWO_THIRDS, 3) == (54, 55)
    assert leaves(Method.GATE, 3) == (27, 28)
    assert leaves(Method.OPEN_SIDED, 3) == (27, 28)
    assert leaves(Method.INVERSE, 0) == (2, 1)
    assert leaves(Method.INVERSE, 6) == (730, 729)
    assert leaves(Method.SPREAD, 1) == (2, 3)
    assert leaves(Method.DIAMOND, 6) == leaves(Method.INVERSE, 6)
    assert leaves(Method.CROSS, 3) == leaves(Method.ENVELOPE, 3) == (27, 28)
    assert leaves(Method.SHARE, 3) == leaves(Method.TWO_THIRDS, 3)


@pytest.mark.parametrize(("flap", "above"), [(0.25, 1.0), (0.1, 0.4), (0.5, 2.0)])
def test_four_thin_flaps_over_a_thick_middle_wrap_it_as_evenly_as_they_are_rolled(flap, above):
    stack = lock_in(Method.CROSS, DOUGH, BUTTER, 220, 220, flap=flap).sheet.fullest()
    below, _, top = [n.thickness for n in walk(stack)]
    assert top / below == pytest.approx(above)


def test_butter_over_two_thirds_is_the_two_thirds_school():
    one = lock_in(Method.SHARE, DOUGH, BUTTER, 300, 400, share=2 / 3)
    other = lock_in(Method.TWO_THIRDS, DOUGH, BUTTER, 300, 400)
    assert one.dough_sheet.length_mm == pytest.approx(other.dough_sheet.length_mm)
    assert one.sheet.coverage() == pytest.approx(other.sheet.coverage())


@pytest.mark.parametrize(("share", "counts"), [(0.5, {1: 0.5, 2: 0.5}), (0.9, {2: 1.0})])
def test_another_share_has_the_leaves_that_lie_there(share, counts):
    """In three, by hand: half covers the near third twice over and the middle to its middle."""
    sheet = lock_in(Method.SHARE, DOUGH, BUTTER, 300, 400, share=share).sheet
    assert sheet.coverage() == pytest.approx(counts, abs=1e-9)


def test_a_diamond_lies_in_twice_its_own_area_of_butter():
    got = lock_in(Method.DIAMOND, DOUGH, BUTTER, 300, 300)
    assert got.dough_sheet.length_mm == pytest.approx(300 / 2**0.5)
    below, inside, above = [n.thickness for n in walk(got.sheet.fullest())]
    assert below == pytest.approx(above) == pytest.approx(got.block.thickness_mm)
    assert inside == pytest.approx(got.dough_sheet.thickness_mm)


def test_a_spread_sheet_has_one_butter_leaf_twice_as_thick():
    sheet = fold_sheet(lock_in(Method.SPREAD, DOUGH, BUTTER, 300, 300).sheet, Fold.LETTER)
    thick = [n.thickness for n in walk(sheet.fullest()) if n.material is Material.BUTTER]
    assert thick[0] / thick[1] == pytest.approx(2)


@pytest.mark.parametrize("method", [m for m in Method if m not in (Method.TWO_GO, Method.NONE)])
def test_every_school_keeps_all_its_dough_and_butter(method):
    got = lock_in(method, DOUGH, BUTTER, 250, 250)
    assert got.sheet.volume_mm3(lambda s: s.dough_mm) == pytest.approx(DOUGH, rel=1e-9)
    assert got.sheet.volume_mm3(lambda s: s.butter_mm) == pytest.approx(BUTTER, rel=1e-9)
    assert got.package.volume_mm3 == pytest.approx(DOUGH + BUTTER, rel=1e-9)


def test_two_goes_bring_the_other_half_before_the_second_fold():
    plan = station(lock_in=LockIn(Method.TWO_GO, 300, 400), turns=turns("letter", "letter"))
    worked = work(plan)
    assert worked.final.mass_g == pytest.approx(3050)
    assert worked.steps[0].layers.butter == 2
    assert worked.layers.butter > 2 * 3


def test_lumps_are_an_estimate_and_say_so():
    worked = work(station(lock_in=LockIn(Method.LUMPS, 300, 300, lump_mm=5)))
    assert worked.layers.estimate
    assert not work(station()).layers.estimate
    finer = work(station(lock_in=LockIn(Method.LUMPS, 300, 300, lump_mm=3)))
    assert finer.layers.butter > worked.layers.butter


def test_a_closed_edge_bends_its_leaves_and_a_cut_one_does_not():
    folded, stacked = work(station()), work(station(
        lock_in=LockIn(Method.HALF_STACKED, 300, 230),
        turns=tuple(replace(t, stacked=True) for t in station().turns)))  # fmt: skip
    assert folded.layers.bent_pct > 5
    assert stacked.layers.bent_pct == 0
    assert stacked.layers.butter == folded.layers.butter


def test_an_offset_book_keeps_its_seam_off_the_spine():
    plain, offset = (sorted(m.at_mm for m in moves(f, 120)) for f in (Fold.BOOK, Fold.OFFSET_BOOK))
    assert plain == [30, 60, 90]
    assert offset == pytest.approx([40, 70, 100])  # the ends meet at two thirds
    margin = LockIn(Method.HALF, 220, 220, margin_mm=10)
    got = {
        fold: work(station(lock_in=margin, turns=turns(fold, "letter"))).layers
        for fold in ("book", "offset_book")
    }
    assert got["book"].butter == got["offset_book"].butter
    assert got["book"].full_pct != pytest.approx(got["offset_book"].full_pct, abs=1)


def test_faults_on_purpose_cost_what_they_cost():
    good = work(station())
    assert good.layers.full_pct == pytest.approx(100)
    short = work(station(turns=tuple(replace(t, short_mm=30) for t in station().turns)))
    assert short.layers.full_pct < 95
    shifted = work(station(lock_in=LockIn(Method.HALF, 300, 230, off_centre_mm=15)))
    assert shifted.layers.full_pct < 100
    with pytest.raises(Faults) as wrong:
        work(station(lock_in=LockIn(Method.HALF, 300, 230, off_centre_mm=-15)))
    assert wrong.value.faults[0].field == "steps[1].off_centre_mm"
    with pytest.raises(Faults) as wrong:
        work(station(turns=tuple(replace(t, short_mm=200, roll_to_mm=20) for t in station().turns)))
    assert wrong.value.faults[0].field == "steps[2].short_mm"


def test_trimming_the_ends_wins_back_what_a_margin_cost():
    margin = LockIn(Method.HALF, 220, 220, margin_mm=10)
    plain = work(station(lock_in=margin))
    squared = work(station(lock_in=margin, turns=tuple(
        replace(t, trim=Trim(60, 12)) for t in station().turns)))  # fmt: skip
    assert squared.layers.full_pct > plain.layers.full_pct + 30
    assert sum(s.trimmed_g for s in squared.steps) == pytest.approx(
        3050 - squared.final.mass_g, rel=1e-9
    )
    with pytest.raises(Faults) as wrong:
        work(station(turns=tuple(replace(t, trim=Trim(0, 150)) for t in station().turns)))
    assert wrong.value.faults[0].field == "steps[2].trim.sides_mm"


def test_pieces_from_poor_places_are_named_one_by_one():
    margin = LockIn(Method.HALF, 280, 210, margin_mm=10)
    worked = work(station(lock_in=margin))
    assert len(worked.cut.full_pct) == worked.cut.pieces
    mean = sum(worked.cut.full_pct) / worked.cut.pieces
    assert min(worked.cut.full_pct) < mean < 100
    assert {round(p) for p in work(station()).cut.full_pct} == {100}


@pytest.mark.parametrize("family", list(Family))
def test_a_dough_without_butter_is_folded_weighed_and_scolded_for_nothing(family):
    plan = starting_plan("Plain", family, 2000, Kitchen())
    plan = plan.changed(plan.lock_in, method=Method.NONE)
    worked = work(plan)
    assert (worked.layers.butter, worked.layers.total, worked.total_g) == (0, 1, 2000)
    assert worked.cut.piece_g * worked.cut.pieces + worked.cut.trimmings_g == pytest.approx(2000)
    assert [s.name for s in worked.sheets if s.stop != "wash"] == ["Mixing day"]
    assert worked.butter_share.of_dough_pct == 0
    warmth = work_warmth(plan, Kitchen())
    assert [n.code for n in (*worked.notes, *warmth.notes) if n.tone == "mind"] == []
    assert "butter" not in warmth.summary
