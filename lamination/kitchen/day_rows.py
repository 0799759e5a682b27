"""What a day is arranged by: how many of each machine there are, and what a compromise costs.

A price is what one minute of it weighs, or one hour or stretch of work where it says so, against one
minute of a rest that is only tight.
"""

from __future__ import annotations

from lamination.kitchen.rows import row

DAY = (
    row("mixer.count", "mixers", 1, "", 1, 10, whole=True),
    row("sheeter.count", "sheeters", 1, "", 1, 10, whole=True),
    row("oven.count", "ovens", 1, "", 1, 10, group="bake", whole=True),
    row("day.late", "late for its hour, each minute", 60, "times", 0, 10_000),
    row("day.outside", "a rest outside what it can bear, each minute", 12, "times", 0, 10_000),
    row("day.crowded", "more in a place than it holds, each minute", 30, "times", 0, 10_000),
    row("day.early", "ready too early, each minute", 0.2, "times", 0, 1_000),
    row(
        "day.early_from_min",
        "ready earlier than this before its hour counts as early",
        30,
        "min",
        0,
        1_440,
    ),
    row(
        "day.stale",
        "baked longer before its hour than it is fresh, each minute",
        8,
        "times",
        0,
        1_000,
    ),
    row(
        "day.far_times",
        "a rest is far from the plan from so many times its minutes, or one part of so many",
        3,
        "times",
        1.2,
        100,
    ),
    row("day.far", "a good rest far from the plan, each minute beyond that", 0.3, "times", 0, 0.9),
    row(
        "day.stretch",
        "each separate stretch of work in a person's day",
        0.05,
        "times",
        0,
        1_000,
    ),
    row(
        "day.pause_min", "a pause up to this long does not end a stretch of work", 15, "min", 0, 240
    ),
    row("day.long_from_min", "a hand's day so long is a long one", 480, "min", 0, 1_440),
    row("day.long", "a hand's day longer than that, each hour", 0.05, "times", 0, 1_000),
    row("day.waits_min", "a dough may wait on the bench between two steps", 10, "min", 0, 240),
    row("day.unjudged_pct", "a rest without a window may differ from the plan by", 20, "%", 0, 100),
    row("day.night_from_h", "the night begins at", 21, "h", 0, 24),
    row("day.night_until_h", "the night ends at", 5, "h", 0, 24),
    row(
        "day.night", "work in the night where sleep is preferred, each minute", 2, "times", 0, 1_000
    ),
    row("day.calm_min", "work due within this time is not moved", 10, "min", 0, 240),
)
