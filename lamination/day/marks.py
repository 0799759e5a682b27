"""A dough as it lies in the day, for the warmth to follow: what its rests are judged by."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

from lamination.day.busy import Placed
from lamination.day.threads import Thread
from lamination.kitchen import Kitchen
from lamination.plan import Plan
from lamination.steps import kind_of
from lamination.warmth.bodies import Today
from lamination.warmth.follow import follow
from lamination.warmth.windows import RestWindow

_AHEAD_MIN = 16 * 60.0  # how long a rest might become, a night included
_CLOSE, _FAR = 5, 15  # minutes to which a rest is followed, up to two hours and beyond


@lru_cache(maxsize=2_000)
def windows_of(plan: Plan, kitchen: Kitchen, today: Today) -> Mapping[str, RestWindow]:
    """The marks of a plan's rests: kept, for a day is looked at and arranged again many times."""
    return {w.stop: w for w in follow(plan, kitchen, today, _AHEAD_MIN).windows}


def as_placed(plan: Plan, thread: Thread, placed: Placed, over: int = 0) -> Plan:
    """The plan with the rests it has in the day, to a few minutes; the first so many it has already."""
    minutes = {}
    for k, gap in enumerate(thread.gaps):
        if gap.rests and k >= over:
            found = placed.starts[k + 1] - thread.ended(placed.starts, k)
            to = _CLOSE if found <= 120 else _FAR
            near = to * round(found / to)
            # what is about as it was, or was planned, is followed as that
            as_it_was = abs(found - gap.chosen) <= to / 2
            minutes[gap.step] = gap.chosen if as_it_was else max(near, gap.least)
    steps = []
    for n, step in enumerate(plan.steps):
        apart = kind_of(step).apart and n + 1 < len(plan.steps) and kind_of(plan.steps[n + 1]).apart
        if step.id in minutes and not apart:
            step = step.resting(float(minutes[step.id]))
        steps.append(step)
    return plan.with_steps(*steps)
