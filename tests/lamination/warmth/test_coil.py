"""A coil is a cylinder, and lumps of butter are as cold as they were kept."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.optimize import brentq
from scipy.special import j0, j1

from lamination.heat.body import body, coil
from lamination.heat.conduction import Air, conduct
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.thermal import constant
from lamination.pieces.products import Product, Shape
from lamination.pieces.shaping import Card
from lamination.plan.starts import starting_plan
from lamination.steps.cut import Cut
from lamination.steps.roll_up import RollUp
from lamination.terms.rests import Rest
from lamination.terms.trade import Family, Method, Place
from lamination.warmth.bodies import CELLS, Today
from lamination.warmth.follow import follow
from lamination.warmth.warmth import work_warmth
from tests.plans import station

K, RHO, C = 0.38, 1080.0, 2700.0
MATTER = constant(K, C), RHO


def series(biot, fourier, at=0.0):
    """The share of its first warmth that a long cylinder has left, at a share of its radius."""
    edges = np.arange(0.001, 60, 0.01)
    gap = [z * j1(z) - biot * j0(z) for z in edges]
    roots = [
        brentq(lambda z: z * j1(z) - biot * j0(z), a, b)
        for a, b, x, y in zip(edges, edges[1:], gap, gap[1:], strict=False)
        if x * y < 0
    ]
    return sum(
        2 * j1(z) / (z * (j0(z) ** 2 + j1(z) ** 2)) * math.exp(-(z**2) * fourier) * j0(z * at)
        for z in roots
    )


@pytest.mark.parametrize("biot", [0.3, 1.0, 4.0])
@pytest.mark.parametrize("across_mm", [50, 73, 110])
@pytest.mark.parametrize("minutes", [10, 20, 45, 120])
def test_a_coil_cools_as_a_cylinder_does(biot, across_mm, minutes):
    radius = across_mm / 2000
    film = biot * K / radius
    fourier = K / (RHO * C) * minutes * 60 / radius**2
    air = Air(-4.0, film)
    for cells, within in ((24, 0.15), (CELLS, 0.3)):
        end = conduct(coil(across_mm, 0.0, MATTER, MATTER, 16.0, cells), air, air, minutes).end
        assert end.middle_c == pytest.approx(-4 + 20 * series(biot, fourier), abs=within)


def test_what_a_coil_gives_off_is_what_comes_through_its_outside():
    air = Air(-18.0, 12.0)
    start = coil(73, 0.2, MATTER, MATTER, 14.0)
    course = conduct(start, air, air, 40)
    lost = (course.end.enthalpy_j_m2 - start.enthalpy_j_m2).sum()
    assert lost == pytest.approx(course.taken_j_m2, rel=1e-3)
    # what it holds is that of a rod: a quarter of its diameter for each m² of its outside
    held = (start.dough_kg_m2 + start.butter_kg_m2).sum()
    assert held == pytest.approx(RHO * 0.073 / 4, rel=1e-9)


def rolled_up(rest):
    slices = Product("Slice", Shape.STRIP, 30, 100, card=Card.SLICE)
    plan = station(cut=Cut((slices,)))
    at = plan.steps.index(plan.cut)
    return plan.with_steps(*plan.steps[:at], RollUp(id="roll_up", rest=rest), *plan.steps[at:])


def test_twenty_minutes_in_the_freezer_do_not_reach_the_middle_of_a_roll():
    plan = rolled_up(Rest.at(Place.FREEZER, 20))
    found = follow(plan, Kitchen())
    window = next(w for w in found.windows if w.stop == "roll_up")
    before = found.began["roll_up"].body
    assert before.round
    assert window.middle_c > before.mean_c - 4
    # the sheet that it was would have been through in that time
    flat = body([(False, 4.0)], *(found.scene.matter.dough,) * 2, before.mean_c)
    air = found.scene.around.lies(plan.steps[plan.at("roll_up")].rest.stays[0], 0)
    assert conduct(flat, *air, 20).end.middle_c < -4
    # and its warmth is drawn from side to side, the middle in the middle
    warmth = work_warmth(plan, Kitchen(), fixes=False)
    assert warmth.trace.middle_c


def test_lumps_of_butter_are_as_cold_as_they_were_kept():
    kitchen = Kitchen()
    plan = starting_plan("Quick", Family.PUFF, 1200, kitchen)
    plan = plan.changed(plan.lock_in, method=Method.LUMPS)
    cold = follow(plan, kitchen)
    measured = follow(plan, kitchen, Today(butter_c=13))
    first = next(c for c in cold.clocks if c.stop == plan.turns[0].id)
    warm = next(c for c in measured.clocks if c.stop == plan.turns[0].id)
    assert first.lasts_min is None or warm.lasts_min is None or first.lasts_min > warm.lasts_min
    assert first.works != "no"
    block = replace(plan.lock_in, method=Method.HALF)
    assert follow(plan.changed(plan.lock_in, method=block.method), kitchen).clocks
