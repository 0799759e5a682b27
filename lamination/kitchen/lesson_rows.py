"""What a practice bake comes to: how leaves fare, how far a piece opens, and what a play is worth.

Nobody has published these as figures. They are set so that a bake without a mistake comes out as good
bakes do, and each mistake by so much worse as bakers say of it; docs/model.md has the formulas.
"""

from __future__ import annotations

from dataclasses import replace

from lamination.kitchen.rows import row

_ROWS = (
    row(
        "lesson.breaks_pct",
        "leaves that break when all butter is brittle and is rolled to a third",
        60,
        "%",
        0,
        100,
    ),
    row(
        "lesson.brittle_span_k",
        "from the first crack to butter that is brittle all through",
        8,
        "K",
        0.5,
        30,
    ),
    row(
        "lesson.smears_pct",
        "leaves that run together when oiling butter is rolled to a third",
        60,
        "%",
        0,
        100,
    ),
    row(
        "lesson.squeezed_pct",
        "butter pressed out when oiling butter is rolled to a third",
        10,
        "%",
        0,
        100,
    ),
    row(
        "lesson.tears_pct",
        "leaves torn for each minute of relaxing missing",
        0.8,
        "%",
        0,
        20,
    ),
    row(
        "lesson.springs_pct",
        "sheet springs back for each minute of relaxing missing",
        0.15,
        "%",
        0,
        5,
    ),
    row(
        "lesson.rising_pct",
        "leaves torn by a dough that rises as it is rolled, for each tenth of a proof",
        6,
        "%",
        0,
        100,
    ),
    row("lesson.frozen_pct", "leaves that break when a frozen dough is rolled", 70, "%", 0, 100),
    row("lesson.crushes_pct", "leaves crushed at a turn by a few big steps", 8, "%", 0, 100),
    row(
        "lesson.small_steps_min",
        "minutes of a roll in small steps, times the usual",
        1.5,
        "times",
        1,
        5,
    ),
    row(
        "lesson.big_steps_min",
        "minutes of a roll in a few big steps, times the usual",
        0.6,
        "times",
        0.1,
        1,
    ),
    row("lesson.wrong_way_pct", "evenness lost by a roll towards closed ends", 9, "%", 0, 100),
    row(
        "lesson.few_leaves_share",
        "share of a family's fewest leaves that opens a crumb to two thirds",
        0.35,
        "",
        0.05,
        2,
    ),
    row(
        "lesson.thinnest_butter_um",
        "thinnest butter leaf that parts two leaves of a puff",
        0.6,
        "µm",
        0.05,
        20,
    ),
    row("lesson.open_yeasted_pct", "air in a good laminated yeasted piece", 72, "%", 10, 95),
    row("lesson.open_puff_pct", "air in a good puff piece", 85, "%", 10, 97),
    row(
        "lesson.plain_yeasted_pct",
        "air in a yeasted piece whose leaves are all lost",
        52,
        "%",
        5,
        95,
    ),
    row("lesson.plain_puff_pct", "air in a puff piece whose leaves are all lost", 30, "%", 5, 95),
    row(
        "lesson.unproofed_pct",
        "openness of a yeasted piece baked without a proof, share of the best",
        45,
        "%",
        0,
        100,
    ),
    row(
        "lesson.edge_pct",
        "openness of a piece at the edge of a possible proof, share of the best",
        88,
        "%",
        0,
        100,
    ),
    row("lesson.fat_base_pct", "butter that every bake loses", 1, "%", 0, 20),
    row(
        "lesson.broken_fat_pct",
        "butter lost in the oven when all leaves are broken",
        18,
        "%",
        0,
        100,
    ),
    row(
        "lesson.thick_fat_pct",
        "butter lost in the oven when butter leaves are twice the thickest usual",
        12,
        "%",
        0,
        100,
    ),
    row(
        "lesson.unproofed_fat_pct",
        "butter lost in the oven by pieces without a proof",
        10,
        "%",
        0,
        100,
    ),
    row(
        "lesson.hot_fat_pct",
        "butter that runs out of pieces for each kelvin above what the butter bears, an hour",
        4,
        "%",
        0,
        100,
    ),
    row("lesson.worth_open", "weight of openness in what a play is worth", 35, "points", 0, 1_000),
    row("lesson.worth_lift", "weight of lift in what a play is worth", 30, "points", 0, 1_000),
    row("lesson.worth_even", "weight of evenness in what a play is worth", 35, "points", 0, 1_000),
    row(
        "lesson.worth_fat",
        "taken off what a play is worth for each per cent of butter lost",
        1.5,
        "points",
        0,
        100,
    ),
    row(
        "lesson.worth_goal",
        "taken off what a play is worth for each line of its goal not reached",
        10,
        "points",
        0,
        1_000,
    ),
    row(
        "lesson.worth_late",
        "taken off what a play is worth for each minute past its hour",
        0.4,
        "points",
        0,
        100,
    ),
)

# They are said to be trade practice, as what bakers say; the figures themselves are this program's.
_SOURCE = "estimated from what bakers say of each mistake; see docs/model.md"
LESSON = tuple(replace(default, source=_SOURCE) for default in _ROWS)
