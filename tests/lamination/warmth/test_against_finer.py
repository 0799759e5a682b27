"""A followed plan against the same one followed with far finer steps; and what a warm day leaves alone."""

from functools import partial
from importlib import import_module

import numpy as np
import pytest

from bakehouse.demo.made_up import MADE_UP
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


MADE_OF = import_module("lamination.warmth.bodies")
FIRST_MIN = (
    10.0  # so long after butter is shut in, a cell that holds both has not yet told them apart
)


def followed(plan, room_c):
    kitchen = Today(room_c=room_c).in_kitchen(KITCHEN)
    for name in ("follow", "scene", "bench", "rests"):
        for kept in vars(import_module(f"lamination.warmth.{name}")).values():
            if hasattr(kept, "cache_clear"):
                kept.cache_clear()
    return Follower(walk(plan, kitchen), kitchen, Today(room_c=room_c)).run()


@pytest.mark.parametrize("plan", [*PLANS, *MADE_UP[:2]], ids=lambda p: p.name)
def test_cells_and_steps_refined_together_move_no_verdict_and_hardly_a_mark(plan, monkeypatch):
    """As many cells as plans use, against four times as many and far finer steps; what docs/model.md says."""
    ours = followed(plan, 17)
    monkeypatch.setattr(MADE_OF, "CELLS", 56)
    monkeypatch.setattr(MODULE, "conduct", partial(conduct, finer=25.0))
    finer = followed(plan, 17)
    for (_, a, _, _), (_, b, _, _) in zip(ours.seen, finer.seen, strict=True):
        at = a.minutes[-1] * np.linspace(0, 1, 12) ** 1.6
        p, q = a.at(at), b.at(at)
        assert np.abs(p @ a.end.shares - q @ b.end.shares).max() < 0.2
        middles = np.abs(a.end.middle_of(p) - b.end.middle_of(q))
        assert middles.max() < 0.8
        assert middles[at > FIRST_MIN].max(initial=0.0) < 0.3
    for a, b in zip(ours.windows, finer.windows, strict=True):
        assert a.verdict == b.verdict, a.stop
        for mark in ("possible_from_min", "good_from_min", "good_until_min", "possible_until_min"):
            one, other = getattr(a, mark), getattr(b, mark)
            assert (one is None) is (other is None)
            assert one is None or abs(one - other) < 2.0


@pytest.mark.parametrize("plan", PLANS, ids=lambda p: p.name)
def test_what_does_not_feel_the_warmth_is_the_same_on_a_hot_day(plan):
    hot = KITCHEN.changed(HOT)
    found, lies = walk(plan, hot), Lies()
    for step, made in zip(plan.steps, found.made, strict=True):
        anew = kind_of(step).effect(step.bare, lies, found.setting)
        assert anew.figures == made.figures, step.id
        assert anew.handling == made.handling, step.id
        lies = made.lies
