"""Every default that comes from practice: one table, each with its unit, its limits and its origin.

To change a default for everybody, change it here. A bakery changes its own in the Kitchen room,
which keeps only what differs (see ``kitchen.py``).
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

Origin = Literal["published", "trade practice", "yours"]


class Family(StrEnum):
    """The families of laminated dough that have ranges of their own."""

    CROISSANT = "croissant"
    DANISH = "danish"
    BRIOCHE = "brioche"
    KOUIGN = "kouign"
    PUFF = "puff"


class StopKind(StrEnum):
    """What kind of work a stop on the strip is."""

    DOUGH = "dough"
    LOCK_IN = "lock_in"
    TURN = "turn"
    FINAL = "final"
    CUT = "cut"


@dataclass(frozen=True, slots=True)
class Default:
    """A starting point with a name. ``low`` and ``high`` bound what a baker may put in its place."""

    key: str
    group: str
    label: str
    value: float
    unit: str
    low: float
    high: float
    origin: Origin


def _family(
    family: Family,
    start_butter_pct: float,
    share: tuple[float, float],
    layers: tuple[float, float],
    butter_um: tuple[float, float],
    sheet_mm: tuple[float, float],
    over_dough: tuple[float, float],
) -> list[Default]:
    rows: list[tuple[str, str, str, tuple[float, float], float]] = [
        ("butter_share_pct", "butter share of dough", "%", share, 150),
        ("butter_layers", "butter layers in the last sheet", "", layers, 20_000_000),
        ("butter_um", "butter layer in the last sheet", "µm", butter_um, 5_000),
        ("last_sheet_mm", "last sheet", "mm", sheet_mm, 60),
        ("block_over_dough", "butter thickness over dough thickness", "", over_dough, 10),
    ]
    start = Default(
        f"{family}.start_butter_pct",
        family,
        "butter share a new plan starts with",
        start_butter_pct,
        "%",
        1,
        150,
        "trade practice",
    )
    return [start] + [
        Default(
            f"{family}.{name}.{end}",
            family,
            f"{label}, {word}",
            pair[i],
            unit,
            0,
            top,
            "trade practice",
        )
        for name, label, unit, pair, top in rows
        for i, (end, word) in enumerate((("low", "from"), ("high", "up to")))
    ]


TABLE: tuple[Default, ...] = (
    Default("bench.length_mm", "bench", "bench length", 1800, "mm", 200, 10_000, "trade practice"),
    Default("bench.width_mm", "bench", "bench width", 800, "mm", 200, 10_000, "trade practice"),
    Default(
        "minutes.dough",
        "minutes",
        "portion and flatten the dough",
        10,
        "min",
        0,
        600,
        "trade practice",
    ),
    Default(
        "minutes.lock_in", "minutes", "lock the butter in", 15, "min", 0, 600, "trade practice"
    ),
    Default(
        "minutes.turn", "minutes", "roll and fold one turn", 8, "min", 0, 600, "trade practice"
    ),
    Default("minutes.final", "minutes", "roll the last sheet", 12, "min", 0, 600, "trade practice"),
    Default("minutes.cut", "minutes", "mark and cut", 15, "min", 0, 600, "trade practice"),
    Default(
        "turns_back_to_back",
        "bench",
        "turns back to back before a rest",
        2,
        "",
        1,
        12,
        "trade practice",
    ),
    Default(
        "thinnest_leaf_um",
        "bench",
        "thinnest dough leaf that is more than a name",
        20,
        "µm",
        1,
        500,
        "published",
    ),
    Default("block_mm.low", "lock-in", "butter block, from", 5, "mm", 0, 200, "trade practice"),
    Default("block_mm.high", "lock-in", "butter block, up to", 25, "mm", 0, 200, "trade practice"),
    Default(
        "start_block_mm",
        "lock-in",
        "butter block a new plan starts with",
        10,
        "mm",
        3,
        60,
        "trade practice",
    ),
    *_family(Family.CROISSANT, 27, (22, 33), (16, 64), (10, 120), (3.5, 5), (0.3, 1.0)),
    *_family(Family.DANISH, 30, (22, 40), (16, 64), (10, 120), (3.5, 6), (0.3, 1.2)),
    *_family(Family.BRIOCHE, 22, (15, 30), (9, 36), (10, 120), (4, 10), (0.2, 1.0)),
    *_family(Family.KOUIGN, 45, (30, 60), (6, 36), (10, 300), (4, 10), (0.4, 1.6)),
    *_family(Family.PUFF, 75, (50, 100), (96, 1024), (2, 60), (2, 5), (0.8, 2.4)),
)

DEFAULTS: dict[str, Default] = {d.key: d for d in TABLE}

DOUGH_DENSITY_KG_M3 = 1120.0  # cold, degassed yeasted dough: core-model worked examples
BUTTER_DENSITY_KG_M3 = 940.0  # published fat and water densities, 82 % fat, little air

CAUTIONS: dict[StopKind, str] = {
    StopKind.DOUGH: "Raw flour and raw egg are not to be eaten. Two people lift a heavy dough.",
    StopKind.LOCK_IN: "Allergens: gluten and milk at least. Name them on every label.",
    StopKind.TURN: "At a sheeter: guards down, no loose sleeves, follow the maker's manual.",
    StopKind.FINAL: "At a sheeter: guards down, no loose sleeves, follow the maker's manual.",
    StopKind.CUT: "Blades and wheels: cut away from the other hand. Keep egg and milk doughs cold "
    "and follow your local food code.",
}
