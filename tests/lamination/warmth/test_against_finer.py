"""A followed plan against the same one followed with far finer steps; and what a warm day leaves alone."""

from functools import partial
from importlib import import_module

import numpy as np
import pytest

from bakehouse.demo.teasel_lock import KITCHEN, PLANS
from lamination.heat.conduction import conduct
from lamination.plan.walk import walk
from lamination.steps import kind_of
from lamination.steps.base import Lies
from lamination.warmth.bodies import Today
from lamination.warmth.follow import Follower

MODULE = import_module("lamination.warmth.scene")
HOT = {"room.c": 33.0, "fridge.c": 9.0, "freezer.c": -11.0, "butter.at_lock_in_c": 18.0,
       "dough.mixed_c": 29.0, "day.begins_h": 14.0}  # fmt: skip


def seen(plan, room_c):
    kitchen = Today(room_c=room_c).in_kitchen(KITCHEN)
    follower = Follower(walk(plan, kitchen), kitchen, Today(room_c=room_c))
    follower.run()
    return [course for _, course, _, _ in follower.seen]


@pytest.mark.parametrize("room_c", [17, 29])
@pytest.mark.parametrize("plan", PLANS, ids=lambda p: p.name)
def test_no_place_of_the_dough_is_a_fiftieth_of_a_kelvin_off(plan, room_c, monkeypatch):
    ours = seen(plan, room_c)
    monkeypatch.setattr(MODULE, "conduct", partial(conduct, finer=25.0))
    finer = seen(plan, room_c)
    for a, b in zip(ours, finer, strict=True):
        at = a.minutes[-1] * np.linspace(0, 1, 12) ** 1.6
        assert np.abs(a.at(at) - b.at(at)).max() < 0.02


@pytest.mark.parametrize("plan", PLANS, ids=lambda p: p.name)
def test_what_does_not_feel_the_warmth_is_the_same_on_a_hot_day(plan):
    hot = KITCHEN.changed(HOT)
    found, lies = walk(plan, hot), Lies()
    for step, made in zip(plan.steps, found.made, strict=True):
        anew = kind_of(step).effect(step.bare, lies, found.setting)
        assert anew.figures == made.figures, step.id
        assert anew.handling == made.handling, step.id
        lies = made.lies
