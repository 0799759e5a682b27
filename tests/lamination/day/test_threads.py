"""A plan as a thread: its tasks, the marks of its rests, and what they cost minute by minute."""

from dataclasses import replace

import numpy as np
import pytest

from bakehouse.demo.teasel_lock import BOATS, DANISH, KITCHEN, MARKET
from lamination.day.threads import Gap, careful, judged, steady, thread_of, wary, with_marks
from lamination.kitchen import Kitchen
from lamination.plan import starting_plan, work
from lamination.plan.starts import starting_finish
from lamination.terms import Family, Machine, Place, Rest
from lamination.warmth import follow
from tests.plans import station

CROISSANT = starting_plan("New", Family.CROISSANT, 2400, Kitchen())


def thread(plan, kitchen=KITCHEN, windows=None):
    found = {w.stop: w for w in follow(plan, kitchen).windows} if windows is None else windows
    return thread_of("1", plan, 3_000, kitchen, found)


@pytest.mark.parametrize("plan", [MARKET, BOATS, DANISH, CROISSANT], ids=lambda p: p.name)
def test_a_thread_has_every_step_once_and_takes_as_long_as_its_plan(plan):
    found, worked = thread(plan), work(plan, KITCHEN)
    assert [j.step for j in found.jobs] == [s.key for s in worked.strip]
    assert [j.minutes for j in found.jobs] == [round(s.bench_min) for s in worked.strip]
    assert len(found.gaps) == len(found.jobs) - 1
    planned = sum(j.minutes for j in found.jobs) + sum(g.chosen for g in found.gaps)
    assert planned == pytest.approx(worked.total_min, abs=len(found.jobs))
    assert found.least_min <= planned


def test_machines_are_those_the_plan_uses():
    by_hand, by_sheeter = thread(CROISSANT, Kitchen()), thread(DANISH)
    assert Machine.SHEETER not in {j.machine for j in by_hand.jobs}
    assert Machine.SHEETER in {j.machine for j in by_sheeter.jobs}
    for found in (by_hand, by_sheeter):
        of = {j.step: j for j in found.jobs}
        assert of["mix"].machine is Machine.MIXER
        assert of["bake"].machine is Machine.OVEN
        # what is in the oven is watched, and holds nobody
        assert [j.step for j in found.jobs if not j.held] == ["bake"]


def test_marks_are_whole_minutes_inside_those_of_the_warmth():
    windows = {w.stop: w for w in follow(CROISSANT, Kitchen()).windows}
    for gap in thread(CROISSANT, Kitchen(), windows).gaps:
        window = windows.get(gap.step)
        if window is None or not gap.rests:
            continue
        assert gap.good_from >= window.good_from_min - 0.02
        assert gap.possible_from <= gap.good_from
        if gap.good_until is not None:
            assert gap.good_from <= gap.good_until <= window.good_until_min + 0.02
        if gap.possible_until is not None:
            assert gap.possible_until >= gap.good_until
        assert gap.verdict(gap.chosen) == window.verdict


def test_ripeness_is_a_limit_of_all_rests_in_the_fridge_together():
    windows = {w.stop: w for w in follow(CROISSANT, Kitchen()).windows}
    planned = thread(CROISSANT, Kitchen(), windows)
    assert planned.ripe is not None
    counted = [g for g in planned.gaps if g.ripens]
    assert {g.place for g in counted} == {Place.FRIDGE}
    total = sum(g.chosen for g in counted)
    assert planned.too_ripe(total) == (0, 0)
    good, bears = planned.ripe
    assert planned.too_ripe(good + 7) == (7, 0)
    assert planned.too_ripe(bears + 5) == (bears + 5 - good, 5)
    # puff has no yeast and ripens not at all
    assert thread(BOATS).ripe is None


def test_a_rest_that_took_longer_leaves_less_for_the_others():
    windows = {w.stop: w for w in follow(CROISSANT, Kitchen()).windows}
    planned = thread(CROISSANT, Kitchen(), windows)
    as_planned = [g.chosen for g in planned.gaps]
    same = with_marks(planned, windows, as_planned)
    assert same.ripe == planned.ripe
    starts, at = [], 0
    for k, job in enumerate(planned.jobs):
        starts.append(at)
        at += job.minutes + (as_planned[k] if k < len(as_planned) else 0)
    assert {planned.verdict(starts, k) for k in range(len(planned.gaps))} == {"good"}
    # a day and a night more in the bulk: good by itself no longer, nor what comes after
    bulk = next(k for k, g in enumerate(planned.gaps) if g.ripens and g.chosen > 300)
    later = [s + (24 * 60 if k > bulk else 0) for k, s in enumerate(starts)]
    assert planned.verdict(later, bulk) in ("tight", "long")


WINDOW = Gap("turn-1", Place.FRIDGE, 40, 17, 23, 90, 120, 1, True)


@pytest.mark.parametrize(("minutes", "verdict", "tight", "outside"), [
    (10, "short", 6, 7), (17, "tight", 6, 0), (22, "tight", 1, 0), (23, "good", 0, 0),
    (40, "good", 0, 0), (90, "good", 0, 0), (91, "tight", 1, 0), (120, "tight", 30, 0),
    (125, "long", 30, 5),
])  # fmt: skip
def test_minutes_are_told_by_the_marks(minutes, verdict, tight, outside):
    assert WINDOW.verdict(minutes) == verdict
    assert (WINDOW.tight(minutes), WINDOW.outside(minutes)) == (tight, outside)


def test_the_price_falls_to_the_plan_and_rises_from_it_and_its_slopes_say_the_same():
    table = np.array([WINDOW.price(t, 12.0, 0.005) for t in range(200)])
    assert table.argmin() == WINDOW.chosen
    steps = table[1:] - table[:-1]
    assert (steps[1:] >= steps[:-1] - 1e-9).all()
    for low, high, slope in WINDOW.pieces(12.0, 0.005):
        for minute in range(low, min(high, 199)):
            assert steps[minute] == pytest.approx(slope)


def test_a_rest_that_is_never_good_is_kept_as_planned():
    never = next(iter(follow(CROISSANT, Kitchen()).windows))
    values = {name: getattr(never, name) for name in type(never).__dataclass_fields__}
    marks = ("possible_from_min", "good_from_min", "good_until_min", "possible_until_min")
    found = judged(WINDOW, type(never)(**{**values, **dict.fromkeys(marks)}))
    assert found.verdict(found.chosen) == "good"
    assert found.verdict(found.chosen + 1) == "long"


def test_a_careful_thread_stays_inside_its_marks_and_no_rest_becomes_impossible():
    windows = {w.stop: w for w in follow(CROISSANT, Kitchen()).windows}
    planned = thread(CROISSANT, Kitchen(), windows)
    kept = careful(planned, 3)
    inside = 0
    for gap, within in zip(planned.gaps, kept.gaps, strict=True):
        assert within.possible_from <= within.good_from
        assert within.chosen == gap.chosen
        for minutes in range(0, 300, 7):
            assert within.price(minutes, 12, 0) >= gap.price(minutes, 12, 0)
        if within != gap:
            inside += 1
            assert within.good_from == gap.good_from + 3
            assert gap.good_until is None or within.good_until == gap.good_until - 3
            assert within.good_until is None or within.good_from < within.good_until
    assert inside >= 3
    assert careful(planned, 0) == planned


def test_a_steady_thread_pays_for_every_minute_that_a_rest_is_not_as_long_as_it_is():
    planned = thread(CROISSANT, Kitchen())
    starts = [0]
    for job, gap in zip(planned.jobs, planned.gaps, strict=False):
        starts.append(starts[-1] + job.minutes + gap.good_from + 7)
    for gap, kept in zip(planned.gaps, steady(planned, starts, 0.25).gaps, strict=True):
        if not gap.rests:
            assert kept == gap
            continue
        lasts = gap.good_from + 7
        as_it_is = [gap.price(lasts + more, 12, 0) for more in range(-20, 40)]
        within = [kept.price(lasts + more, 12, 0) for more in range(-20, 40)]
        for more, (was, now) in enumerate(zip(as_it_is, within, strict=True), -20):
            if was == 0:
                assert now == 0.25 * abs(more)
            else:
                assert now >= was - 1e-9
        assert within[20] == as_it_is[20]


def test_a_wary_thread_keeps_within_the_edges_of_others_and_pays_nothing_for_where_it_lies():
    planned = thread(CROISSANT, Kitchen())
    k, gap = next((k, g) for k, g in enumerate(planned.gaps) if g.good_until is None and g.rests)
    edges = {gap.step: (gap.good_from + 8, gap.good_from + 200)}

    def kept(lasts):
        starts = [0]
        for n, job in enumerate(planned.jobs[:-1]):
            starts.append(starts[-1] + job.minutes + (lasts if n == k else planned.gaps[n].chosen))
        found = wary(planned, edges, starts)
        assert found.gaps[:k] + found.gaps[k + 1 :] == planned.gaps[:k] + planned.gaps[k + 1 :]
        assert found.gaps[k].price(lasts, 12, 0) == gap.price(lasts, 12, 0)
        assert found.gaps[k].possible_from <= found.gaps[k].good_from
        return found.gaps[k]

    between = kept(gap.good_from + 100)
    assert (between.good_from, between.good_until) == edges[gap.step]
    # ten minutes tight, and as far from the plan as before
    beyond = gap.good_from + 210
    assert between.price(beyond, 12, 0) == pytest.approx(10 + between.far * (gap.away(beyond) - 10))
    # where it lies beyond an edge it was judged so, and stays
    assert kept(gap.good_from + 2).good_from == gap.good_from
    assert kept(gap.good_from + 300).good_until is None
    assert wary(planned, {}, [0] * len(planned.jobs)) == planned


def test_no_edge_makes_a_rest_good_from_later_than_it_is_good_until():
    brief = Gap("s", Place.FRIDGE, 30, 10, 20, 40, 60, 1, True)
    job = thread(CROISSANT, Kitchen()).jobs[0]
    lying = replace(thread(CROISSANT, Kitchen()), jobs=(job, job), gaps=(brief,))
    for lasts in (25, 45, 70):
        starts = [0, job.minutes + lasts]
        for low in (15, 25, 45, 65):
            (gap,) = wary(lying, {"s": (low, None)}, starts).gaps
            assert gap.possible_from <= gap.good_from <= gap.good_until
            assert gap.price(lasts, 12, 0) == brief.price(lasts, 12, 0)


def test_a_proof_that_nobody_judges_is_never_cut_below_what_the_plan_may_lose():
    shape, *after = starting_finish(Family.CROISSANT)
    by_signs = station(finish=(replace(shape, rest=Rest.at(Place.PROOFER, 200)), *after))
    gap = next(g for g in thread(by_signs, Kitchen()).gaps if g.step == "shape")
    assert gap.hard == (True, False)
    # a minute less than it can bear is dearer than any minute late
    below = gap.price(gap.possible_from - 1, 12, 0) - gap.price(gap.possible_from, 12, 0)
    assert below > 2 * Kitchen()["day.late"]
    turn = next(g for g in thread(by_signs, Kitchen()).gaps if g.step == "turn-1")
    assert turn.hard == (False, False)
    # puff that is chilled before the oven does not proof
    puff = replace(by_signs, family=Family.PUFF)
    chill = next(g for g in thread(puff, Kitchen()).gaps if g.step == "shape")
    assert chill.hard == (False, False)
