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

    PREFERMENT = "preferment"
    MIX = "mix"
    DOUGH = "dough"
    LOCK_IN = "lock_in"
    TURN = "turn"
    FINAL = "final"
    CUT = "cut"
    SHAPE = "shape"
    WASH = "wash"
    BAKE = "bake"
    LOOK = "look"


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
    sugar_pct: tuple[float, float],
    salt_pct: tuple[float, float],
    fat_pct: tuple[float, float],
    yeast_pct: tuple[float, float],
) -> list[Default]:
    rows: list[tuple[str, str, str, tuple[float, float], float]] = [
        ("butter_share_pct", "butter share of dough", "%", share, 150),
        ("butter_layers", "butter layers in the last sheet", "", layers, 20_000_000),
        ("butter_um", "butter layer in the last sheet", "µm", butter_um, 5_000),
        ("last_sheet_mm", "last sheet", "mm", sheet_mm, 60),
        ("block_over_dough", "butter thickness over dough thickness", "", over_dough, 10),
        ("sugar_pct", "sugar on flour", "%", sugar_pct, 100),
        ("salt_pct", "salt on flour", "%", salt_pct, 20),
        ("fat_pct", "fat in the dough on flour", "%", fat_pct, 150),
        ("yeast_pct", "yeast on flour, as fresh", "%", yeast_pct, 30),
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


def _row(
    key: str,
    label: str,
    value: float,
    unit: str,
    low: float,
    high: float,
    origin: Origin = "trade practice",
    group: str | None = None,
) -> Default:
    """A default; its group is the first part of its key unless it is said."""
    return Default(key, group or key.split(".")[0], label, value, unit, low, high, origin)


TABLE: tuple[Default, ...] = (
    _row("bench.length_mm", "bench length", 1800, "mm", 200, 10000),
    _row("bench.width_mm", "bench width", 800, "mm", 200, 10000),
    _row("sheeter.belt_width_mm", "sheeter belt, width (0: no sheeter)", 0, "mm", 0, 3000),
    _row("sheeter.belt_length_mm", "sheeter, both tables and belt, length", 2400, "mm", 200, 10000),
    _row("sheeter.widest_mm", "sheeter's widest gap", 40, "mm", 5, 200),
    _row("sheeter.narrowest_mm", "sheeter's narrowest gap", 1, "mm", 0.1, 20),
    _row("sheeter.step_mm", "one step of the sheeter's dial", 0.5, "mm", 0.05, 5),
    _row("sheeter.share_thick", "least share of the last gap, above 10 mm", 0.7, "", 0.3, 0.99),
    _row("sheeter.share_thin", "least share of the last gap, below 10 mm", 0.8, "", 0.3, 0.99),
    _row("sheeter.spring_back", "sheet thickness over sheeter gap", 1.1, "", 1, 2),
    _row("pin.length_mm", "rolling pin, barrel", 500, "mm", 100, 2000),
    _row("shelf.length_mm", "shelf in fridge and freezer, length", 800, "mm", 100, 5000),
    _row("shelf.width_mm", "shelf in fridge and freezer, width", 600, "mm", 100, 5000),
    _row("minutes.preferment", "weigh and mix a preferment", 10, "min", 0, 600),
    _row("minutes.mix", "weigh and mix the dough", 25, "min", 0, 600),
    _row("minutes.dough", "portion and flatten the dough", 10, "min", 0, 600),
    _row("minutes.lock_in", "lock the butter in", 15, "min", 0, 600),
    _row("minutes.turn", "roll and fold one turn", 8, "min", 0, 600),
    _row("minutes.final", "roll the last sheet", 12, "min", 0, 600),
    _row("minutes.cut", "mark and cut", 15, "min", 0, 600),
    _row("minutes.shape", "shape and put on trays", 20, "min", 0, 600),
    _row("minutes.wash", "brush with wash", 5, "min", 0, 600),
    _row("minutes.look", "cut one and look", 5, "min", 0, 600),
    _row("bake_tray.length_mm", "baking tray, length", 600, "mm", 100, 2000, group="bake"),
    _row("bake_tray.width_mm", "baking tray, width", 400, "mm", 100, 2000, group="bake"),
    _row("bake_tray.gap_mm", "between baked pieces", 20, "mm", 0, 200, group="bake"),
    _row("proofer.trays", "trays the proofer takes", 16, "", 1, 500, group="bake"),
    _row("oven.trays", "trays the oven takes", 4, "", 1, 100, group="bake"),
    _row("oven.fan_less_k", "a fan oven is set lower by", 20, "K", 0, 60, group="bake"),
    _row("oven.fan_minutes_pct", "of a deck oven's time, a fan takes", 90, "%", 40, 140,
         group="bake"),
    _row("rise.yeasted_wide_pct", "proofed and baked, wider by", 40, "%", 0, 200, group="bake"),
    _row("rise.yeasted_high_pct", "proofed and baked, higher by", 90, "%", 0, 400, group="bake"),
    _row("rise.puff_wide_pct", "puff, baked, wider by", 0, "%", -30, 100, group="bake"),
    _row("rise.puff_high_pct", "puff, baked, higher by", 500, "%", 0, 2000, group="bake"),
    _row("proof.soonest_pct", "of a whole proof, ready from", 90, "%", 20, 200, group="proof"),
    _row("proof.best_pct", "of a whole proof, best at", 100, "%", 20, 250, group="proof"),
    _row("proof.latest_pct", "of a whole proof, over from", 130, "%", 20, 300, group="proof"),
    _row("proof.humidity_pct", "humidity of the proofer", 78, "%", 0, 100, group="proof"),
    _row("weigh.off_pct", "a piece may be off its weight by", 5, "%", 0.5, 50, group="bake"),
    _row("turns_back_to_back", "turns back to back before a rest", 2, "", 1, 12, group="bench"),
    _row("thinnest_leaf_um", "thinnest dough leaf that is more than a name", 20, "µm", 1, 500,
         "published", group="bench"),
    _row("block_mm.low", "butter block, from", 5, "mm", 0, 200, group="lock-in"),
    _row("block_mm.high", "butter block, up to", 25, "mm", 0, 200, group="lock-in"),
    _row("start_block_mm", "butter block a new plan starts with", 10, "mm", 3, 60, group="lock-in"),
    _row("scale.step_g", "scale shows steps of", 1, "g", 0.1, 100),
    _row("scale.fine_step_g", "fine scale shows steps of", 0.1, "g", 0.01, 10),
    _row("scale.fine_below_g", "fine scale used below", 20, "g", 0, 1_000),
    _row("mixer.most_g", "largest dough in the mixer", 12_000, "g", 500, 200_000),
    _row("mixer.least_g", "smallest dough in the mixer", 1_000, "g", 0, 100_000),
    _row("mixer.slow_k_min", "the mixer warms the dough, slow", 0.5, "K/min", 0, 10),
    _row("mixer.fast_k_min", "the mixer warms the dough, fast", 1.0, "K/min", 0, 10),
    _row("mixer.cold_c", "temperature of what comes from the fridge", 5, "°C", -5, 30),
    _row("mixer.room_c", "temperature of a preferment from the bench", 21, "°C", 0, 45),
    _row("mixer.hottest_c", "hottest water on yeast", 45, "°C", 20, 60),
    _row("mixer.dough_most_c", "a dough for laminating is warm from", 26, "°C", 10, 40),
    _row("preferment.poolish_rise", "a poolish rises to", 3, "times", 1, 8),
    _row("preferment.sponge_rise", "a stiff sponge rises to", 2.5, "times", 1, 8),
    _row("preferment.headroom", "room left above the rise", 1.2, "times", 1, 4),
    _row("preferment.tub_l", "largest tub", 12, "l", 1, 200),
    _row("trimmings.most_pct", "old dough fed back, at most", 10, "%", 0, 50),
    _row("tray.length_mm", "chilling tray, length", 600, "mm", 100, 2_000),
    _row("tray.width_mm", "chilling tray, width", 400, "mm", 100, 2_000),
    _row("frame.length_mm", "butter frame, length", 300, "mm", 50, 2_000),
    _row("frame.width_mm", "butter frame, width", 250, "mm", 50, 2_000),
    _row("plaque.length_mm", "butter plaque, length", 300, "mm", 50, 1_000),
    _row("plaque.width_mm", "butter plaque, width", 200, "mm", 50, 1_000),
    _row("plaque.mass_g", "butter plaque weighs", 1_000, "g", 50, 20_000),
    _row("room.c", "the room", 21, "°C", -10, 50, group="cold"),
    _row("fridge.c", "the fridge", 4, "°C", -10, 50, group="cold"),
    _row("freezer.c", "the freezer", -18, "°C", -60, 30, group="cold"),
    _row("fridge.film", "fridge: heat it takes, still 7, with a fan 18", 7, "W/(m²·K)", 1, 200,
         "published", group="cold"),
    _row("freezer.film", "freezer: heat it takes, still 8, blast 30", 8, "W/(m²·K)", 1, 200,
         "published", group="cold"),
    _row("bench.film", "air over the bench", 8, "W/(m²·K)", 1, 200, "published", group="cold"),
    _row("bench.under", "under the dough: wood 15, steel or marble 60", 15, "W/(m²·K)", 1, 500,
         "published", group="cold"),
    _row("under.tray", "a dough on a steel tray", 60, "W/(m²·K)", 1, 500, "published", group="cold"),
    _row("under.marble", "a dough on marble", 60, "W/(m²·K)", 1, 500, "published", group="cold"),
    _row("under.wood", "a dough on a board", 15, "W/(m²·K)", 1, 500, "published", group="cold"),
    _row("ice.film", "ice packs on top", 80, "W/(m²·K)", 1, 500, "published", group="cold"),
    _row("ice.c", "the ice packs", 0, "°C", -30, 10, group="cold"),
    _row("fridge.holds", "packages the fridge holds (0: not counted)", 0, "", 0, 500, group="cold"),
    _row("freezer.holds", "packages the freezer holds (0: not counted)", 0, "", 0, 500, group="cold"),
    _row("room.swing_k", "the room's warmest hour over its coolest", 0, "K", 0, 25, group="cold"),
    _row("room.warmest_h", "the room is warmest at, hour of the day", 15, "h", 0, 24, group="cold"),
    _row("day.begins_h", "work begins at, hour of the day", 5, "h", 0, 24, group="cold"),
    _row("bench.chilled_k", "the bench top is colder than the room by", 0, "K", 0, 30, group="cold"),
    _row("wrap.film", "film wrapped round it", 300, "W/(m²·K)", 10, 5000, "published", group="cold"),
    _row("roll.by_hand_k", "a turn by hand warms the dough by", 1, "K", 0, 10, group="cold"),
    _row("roll.by_sheeter_k", "a turn by sheeter warms it by", 0.5, "K", 0, 10, group="cold"),
    _row("butter.at_lock_in_c", "butter when it is locked in", 13, "°C", -10, 30, group="cold"),
    _row("dough.mixed_c", "dough from the mixer, without a formula", 24, "°C", 0, 45, group="cold"),
    _row("dough.cold_c", "dough cold enough for the lock-in", 7, "°C", -5, 25, group="cold"),
    _row("spread_k", "middle and face may differ by", 4, "K", 0.5, 20, group="cold"),
    _row("lump_mm", "a dough resting in its bowl is thick", 90, "mm", 10, 400, group="cold"),
    _row("relax.letter_min", "relaxing after a letter or half fold", 20, "min", 0, 300, group="rest"),
    _row("relax.book_min", "relaxing after a book fold", 30, "min", 0, 300, group="rest"),
    _row("relax.two_min", "relaxing after turns back to back", 35, "min", 0, 300, group="rest"),
    _row("relax.last_min", "more before the last roll", 10, "min", 0, 300, group="rest"),
    _row("relax.lock_in_min", "relaxing after the lock-in", 10, "min", 0, 300, group="rest"),
    _row("relax.final_min", "shrinking before the cut", 8, "min", 0, 300, group="rest"),
    _row("relax.weak", "a weak flour takes", 0.8, "times", 0.1, 5, group="rest"),
    _row("relax.strong", "a strong flour takes", 1.3, "times", 0.1, 5, group="rest"),
    _row("relax.short", "a dough mixed short takes", 0.9, "times", 0.1, 5, group="rest"),
    _row("relax.full", "a dough mixed full takes", 1.2, "times", 0.1, 5, group="rest"),
    _row("yeast.before_lock_in_pct", "of a proof, at most until the lock-in", 120, "%", 1, 300,
         group="rest"),
    _row("yeast.between_turns_pct", "of a proof, at most between the turns", 35, "%", 1, 100,
         group="rest"),
    _row("proof.reference_min", "proof at 27 °C with 3.5 % of fresh yeast", 120, "min", 20, 1000,
         "published", group="proof"),
    _row("proofer.c", "proofer", 26, "°C", 5, 45, group="proof"),
    _row("proofer.film", "air of the proofer", 10, "W/(m²·K)", 1, 200, "published", group="proof"),
    _row("proof.piece_mm", "a shaped piece is thick", 32, "mm", 3, 150, group="proof"),
    _row("proof.over_oils_k", "proofer above the butter's oiling out, at most", 8, "K", 0, 30,
         group="proof"),
    _row("bag.flour_g", "bag of flour", 16_000, "g", 500, 50_000),
    _row("dough.gas_pct", "gas in a cold, degassed dough", 10, "%", 0, 60, "published"),
    _row("dough.butter_gas_pct", "gas in butter", 2, "%", 0, 40, "published"),
    _row("dough.physics_c", "temperature densities are taken at", 10, "°C", 0, 30),
    *_family(Family.CROISSANT, 27, (22, 33), (16, 64), (10, 120), (3.5, 5), (0.3, 1.0), (7, 15),
             (1.6, 2.4), (2, 14), (1, 5)),
    *_family(Family.DANISH, 30, (22, 40), (16, 64), (10, 120), (3.5, 6), (0.3, 1.2), (8, 20),
             (1.2, 2.2), (4, 18), (2.5, 8)),
    *_family(Family.BRIOCHE, 22, (15, 30), (9, 36), (10, 120), (4, 9), (0.2, 1.0), (8, 20),
             (1.6, 2.4), (12, 45), (2, 7)),
    *_family(Family.KOUIGN, 45, (30, 60), (6, 36), (10, 300), (4, 10), (0.4, 1.6), (0, 6),
             (1.6, 3), (0, 8), (1, 4)),
    *_family(Family.PUFF, 75, (50, 100), (96, 1024), (2, 60), (2, 5), (0.8, 2.4), (0, 4),
             (1.5, 2.6), (0, 16), (0, 0.5)),
)  # fmt: skip

DEFAULTS: dict[str, Default] = {d.key: d for d in TABLE}

DOUGH_DENSITY_KG_M3 = 1120.0  # cold, degassed yeasted dough: core-model worked examples

CAUTIONS: dict[StopKind, str] = {
    StopKind.PREFERMENT: "Raw flour is not to be eaten. Keep milk and egg cold until they are used.",
    StopKind.MIX: "Mixer: guard down, no loose sleeves, stop it before you reach in, keep within the "
    "maker's limits. Two people lift a heavy bowl.",
    StopKind.DOUGH: "Raw flour and raw egg are not to be eaten. Two people lift a heavy dough.",
    StopKind.LOCK_IN: "Allergens stand on the weigh-out sheet: name them on every label.",
    StopKind.TURN: "At a sheeter: guards down, no loose sleeves, follow the maker's manual.",
    StopKind.FINAL: "At a sheeter: guards down, no loose sleeves, follow the maker's manual.",
    StopKind.CUT: "Blades and wheels: cut away from the other hand. Keep egg and milk doughs cold "
    "and follow your local food code.",
    StopKind.SHAPE: "Keep filled pieces cold, and limit their time in the warm as your local food code "
    "says. Allergens of the filling go on the label.",
    StopKind.WASH: "Raw egg: a clean brush, kept cold, thrown away at the end as your food code says.",
    StopKind.BAKE: "Hot trays and steam: open the door from the side, dry cloths, a clear way. Melted "
    "sugar burns deeply.",
    StopKind.LOOK: "Let it cool before it is cut. Name every allergen on the label.",
}
