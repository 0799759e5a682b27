"""Every default that comes from practice: one table, each with its unit, its limits and its source.

To change a default for everybody, change it here. A bakery changes its own in the Kitchen room,
which keeps only what differs (see ``kitchen.py``).
"""

from __future__ import annotations

from lamination.kitchen.day_rows import DAY
from lamination.kitchen.lesson_rows import LESSON
from lamination.kitchen.rows import (
    DOUGH_GAS,
    HEAT_BOOK,
    PROOF_CURVE,
    STARCH,
    TRADE,
    Default,
)
from lamination.kitchen.rows import row as _row
from lamination.materials.ingredients import BUTTERS
from lamination.terms.trade import Family

Pair = tuple[float, float]


def _family(
    family: Family,
    *,
    start_butter_pct: float,
    share: Pair,
    layers: Pair,
    butter_um: Pair,
    sheet_mm: Pair,
    over_dough: Pair,
    sugar_pct: Pair,
    salt_pct: Pair,
    fat_pct: Pair,
    yeast_pct: Pair,
    fresh_h: float,
    proof: tuple[float, float, float, float, float] | None = None,
    proof_yeast_pct: Pair = (3, 5),
) -> list[Default]:
    """The rows of a family; ``proof``: its share of a whole one, and the four marks, all in %;
    ``fresh_h``: how long it is fresh once it is baked.
    """
    ranges: list[tuple[str, str, str, Pair, float]] = [
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
    single: list[tuple[str, str, float, float]] = [
        ("start_butter_pct", "butter share a new plan starts with", start_butter_pct, 150),
    ]
    if proof:
        names = ("possible_from", "good_from", "good_until", "possible_until")
        words = ("possible from", "good from", "good until", "possible until")
        single.append(("proof.share_pct", "a proof, share of a whole one", proof[0], 200))
        single += [
            (f"proof.{name}_pct", f"a proof, {word}", value, 500)
            for name, word, value in zip(names, words, proof[1:], strict=True)
        ]
        ranges.append(
            (
                "proof.yeast_pct",
                "yeast its proofs are usual for, as fresh",
                "%",
                proof_yeast_pct,
                30,
            )
        )
    rows = [
        Default(f"{family}.{name}", family, label, value, "%", 0, top, TRADE, TRADE)
        for name, label, value, top in single
    ]
    rows.append(
        Default(f"{family}.fresh_h", family, "baked, it is fresh for", fresh_h, "h", 0.5, 240,
                TRADE, TRADE)
    )  # fmt: skip
    return rows + [
        Default(f"{family}.{name}.{end}", family, f"{label}, {word}", pair[i], unit, 0, top,
                TRADE, TRADE)
        for name, label, unit, pair, top in ranges
        for i, (end, word) in enumerate((("low", "from"), ("high", "up to")))
    ]  # fmt: skip


_PLACES = (
    _row("bench.length_mm", "bench length", 1800, "mm", 200, 10000),
    _row("bench.width_mm", "bench width", 800, "mm", 200, 10000),
    _row("sheeter.belt_width_mm", "sheeter belt, width (0: no sheeter)", 0, "mm", 0, 3000),
    _row("sheeter.belt_length_mm", "sheeter, both tables and belt, length", 2400, "mm", 200, 10000),
    _row("sheeter.widest_mm", "sheeter's widest gap", 40, "mm", 5, 200),
    _row("sheeter.narrowest_mm", "sheeter's narrowest gap", 1, "mm", 0.1, 20),
    _row("sheeter.step_mm", "one step of the sheeter's dial", 0.5, "mm", 0.05, 5),
    _row("sheeter.share_thick", "smallest next gap, share of the last: wide gaps", 0.7, "", 0.3, 0.99),
    _row("sheeter.share_thin", "smallest next gap, share of the last: narrow gaps", 0.8, "", 0.3, 0.99),
    _row("sheeter.thick_mm", "a gap counts as wide above", 10, "mm", 1, 100),
    _row("sheeter.spring_back", "sheet thickness over sheeter gap", 1.1, "", 1, 2),
    _row("pin.length_mm", "rolling pin, barrel", 500, "mm", 100, 2000),
    _row("shelf.length_mm", "shelf in fridge and freezer, length", 800, "mm", 100, 5000),
    _row("shelf.width_mm", "shelf in fridge and freezer, width", 600, "mm", 100, 5000),
    _row("fit.slack_mm", "a sheet this much too long still lies there", 1, "mm", 0, 50, group="bench"),
    _row("tray.length_mm", "chilling tray, length", 600, "mm", 100, 2_000),
    _row("tray.width_mm", "chilling tray, width", 400, "mm", 100, 2_000),
    _row("tub.length_mm", "dough tub, length", 560, "mm", 50, 2_000),
    _row("tub.width_mm", "dough tub, width", 360, "mm", 50, 2_000),
    _row("tub.lump_high", "height of a lump of dough, times the cube root of its volume", 0.7, "times",
         0.2, 1.2, group="tub"),
    _row("frame.length_mm", "butter frame, length", 300, "mm", 50, 2_000),
    _row("frame.width_mm", "butter frame, width", 250, "mm", 50, 2_000),
    _row("frame.height_mm", "butter frame, height (0: not known)", 0, "mm", 0, 100),
    _row("plaque.length_mm", "butter plaque, length", 300, "mm", 50, 1_000),
    _row("plaque.width_mm", "butter plaque, width", 200, "mm", 50, 1_000),
    _row("plaque.mass_g", "butter plaque weighs", 1_000, "g", 50, 20_000),
    _row("bag.flour_g", "bag of flour", 16_000, "g", 500, 50_000),
)  # fmt: skip
_MINUTES = tuple(
    _row(f"minutes.{key}", label, value, "min", 0, 600)
    for key, label, value in (
        ("preferment", "weigh and mix a preferment", 10),
        ("mix", "weigh and mix the dough", 25),
        ("flatten", "portion and flatten the dough", 10),
        ("plain_turn", "roll and fold once, without butter", 6),
        ("lock_in", "lock the butter in", 15),
        ("turn", "roll and fold one turn", 8),
        ("last_sheet", "roll the last sheet", 12),
        ("cut", "mark and cut", 15),
        ("shape", "shape and put on trays", 20),
        ("wash", "brush with wash", 5),
        ("put_on", "put one topping or glaze on a tray", 1),
        ("look", "cut one and look", 5),
        ("own", "a step of your own", 10),
        ("divide", "cut in two, wrap and mark", 5),
        ("strew", "strew or spread", 3),
        ("more_butter", "grate or flake more butter", 5),
        ("lay_double", "lay the sheet double", 2),
        ("roll_up", "roll the sheet up", 5),
        ("crank", "through the hand-cranked roller", 12),
        ("offcuts", "make something of the offcuts", 8),
        ("again", "fill and top for a second bake", 10),
    )
)
_BAKE = (
    _row("fry.takes_up_pct", "fat that a fried piece takes up, of its weight", 9, "%", 0, 60, group="bake"),
    _row("fry.loss_pct", "fried, a piece loses in all, with what it takes up", 4, "%", -30, 60, group="bake"),
    _row("fry.change_min", "between two goes of the fryer", 1.5, "min", 0, 30, group="bake"),
    _row("fry.low_c", "fat soaks in below", 165, "°C", 100, 200, group="bake"),
    _row("fry.high_c", "fat is too hot above", 185, "°C", 120, 230, group="bake"),
    _row("bake_tray.length_mm", "baking tray, length", 600, "mm", 100, 2000, group="bake"),
    _row("bake_tray.width_mm", "baking tray, width", 400, "mm", 100, 2000, group="bake"),
    _row("bake_tray.gap_mm", "between baked pieces", 20, "mm", 0, 200, group="bake"),
    _row("proofer.trays", "trays the proofer takes", 16, "", 1, 500, group="bake", whole=True),
    _row("oven.trays", "trays the oven takes", 4, "", 1, 100, group="bake", whole=True),
    _row("oven.deck.heats_k_min", "a deck oven heats by, a minute", 4, "K", 0.5, 40, group="bake"),
    _row("oven.fan.heats_k_min", "a fan oven heats by, a minute", 10, "K", 0.5, 60, group="bake"),
    _row("oven.deck.cools_k_min", "a deck oven cools by, a minute", 1.5, "K", 0.1, 20, group="bake"),
    _row("oven.fan.cools_k_min", "a fan oven cools by, a minute", 5, "K", 0.1, 40, group="bake"),
    _row("oven.fan_less_k", "a fan oven is set lower by", 20, "K", 0, 60, group="bake"),
    _row("oven.fan_minutes_pct", "of a deck oven's time, a fan takes", 90, "%", 40, 140, group="bake"),
    _row("rise.yeasted_wide_pct", "proofed and baked, wider by", 40, "%", 0, 200, group="bake"),
    _row("rise.yeasted_high_pct", "proofed and baked, higher by", 90, "%", 0, 400, group="bake"),
    _row("rise.puff_wide_pct", "puff, baked, wider by", 0, "%", -30, 100, group="bake"),
    _row("rise.puff_high_pct", "puff, baked, higher by", 500, "%", 0, 2000, group="bake"),
    _row("rise.flat_wide_pct", "yeasted and lying flat, wider by", 10, "%", 0, 100, group="bake"),
    _row("shape.wings", "a rolled triangle is as wide as its base, times", 1.15, "times", 0.5, 2,
         group="bake"),
    _row("shape.twist_long", "a twisted strip keeps of its length", 0.85, "", 0.3, 1, group="bake"),
    _row("tin.cup_mm", "a cup of a muffin tin, across", 75, "mm", 20, 200, group="bake"),
    _row("tin.length_mm", "loaf tin, length", 250, "mm", 80, 600, group="bake"),
    _row("tin.width_mm", "loaf tin, width", 110, "mm", 40, 300, group="bake"),
    _row("shape.plait_long", "a plait is as long as its strands, times", 0.8, "times", 0.3, 1,
         group="bake"),
    _row("bake.loss_pct", "what a piece loses in the oven", 13, "%", 0, 60),
    *(
        _row(f"tag.{key}", f"a tag of the cold store is {word}", value, "mm", 30, 210,
             group="label")
        for key, word, value in (("width_mm", "wide", 95), ("height_mm", "high", 62))
    ),
    *(
        _row(f"label.{key}", name, value, unit, low, high, group="label", whole=whole)
        for key, name, value, unit, low, high, whole in (
            ("width_mm", "a label is wide", 66, "mm", 20, 210, False),
            ("height_mm", "a label is high", 45, "mm", 15, 297, False),
            ("across", "labels across a page", 3, "", 1, 10, True),
            ("down", "labels down a page", 6, "", 1, 20, True),
            ("left_mm", "the first label, from the left edge of the page", 6, "mm", 0, 100, False),
            ("top_mm", "the first label, from the top of the page", 13, "mm", 0, 100, False),
            ("gap_mm", "between two labels", 0, "mm", 0, 30, False),
        )
    ),
    _row("wash.coat_g", "wash that one coat of a piece takes", 1.5, "g", 0.1, 30, group="bake"),
    _row("weigh.off_pct", "a piece may be off its weight by", 5, "%", 0.5, 50, group="bake"),
    _row("weigh.sure",
         "a drift along the sheet counts from this many of its standard errors", 2, "times", 1, 5,
         group="bake"),
    _row("weigh.worth_pct", "smallest error worth a change, share of the weight wanted", 1, "%", 0, 20,
         group="bake"),
    _row("cut.used_well_pct", "a sheet is well used from", 90, "%", 10, 100, group="bake"),
    _row("cut.poor_pct", "a piece is poor if less than this share of it has every layer", 90, "%", 10, 100,
         group="bake"),
)  # fmt: skip
_ROLLING = (
    _row("turns_back_to_back", "turns back to back before a rest", 2, "", 1, 12, group="bench", whole=True),
    _row("thinnest_leaf_um", "thinnest dough leaf that is more than a name", 20, "µm", 1, 500, STARCH,
         group="bench"),
    _row("block_mm.low", "butter block, from", 5, "mm", 0, 200, group="lock-in"),
    _row("block_mm.high", "butter block, up to", 25, "mm", 0, 200, group="lock-in"),
    _row("start_block_mm", "butter block a new plan starts with", 10, "mm", 3, 60, group="lock-in"),
    _row("start_roll_mm", "thickness a new plan is rolled to for a turn", 8, "mm", 3, 40,
         group="lock-in"),
    _row("start_room_share", "of the bench or belt, a new plan uses", 0.96, "", 0.3, 1,
         group="lock-in"),
    _row("inverse_flour_pct", "flour in the butter of an inverse puff", 30, "%", 0, 100,
         group="lock-in"),
)  # fmt: skip
_SCALES = (
    _row("scale.step_g", "scale shows steps of", 1, "g", 0.1, 100),
    _row("scale.fine_step_g", "fine scale shows steps of", 0.1, "g", 0.01, 10),
    _row("scale.fine_below_g", "fine scale used below", 20, "g", 0, 1_000),
    _row("mixer.most_g", "largest dough in the mixer", 12_000, "g", 500, 200_000),
    _row("mixer.least_g", "smallest dough in the mixer", 1_000, "g", 0, 100_000),
    _row("mixer.slow_k_min", "the mixer warms the dough, slow", 0.5, "K/min", 0, 10),
    _row("mixer.fast_k_min", "the mixer warms the dough, fast", 1.0, "K/min", 0, 10),
    _row("mixer.by_hand_k_min", "kneading by hand warms the dough", 0.2, "K/min", 0, 10),
    _row("mixer.cold_c", "temperature of what comes from the fridge", 5, "°C", -5, 30),
    _row("mixer.hottest_c", "hottest water on yeast", 45, "°C", 20, 60),
    _row("mixer.dough_most_c", "a dough for laminating is warm from", 26, "°C", 10, 40),
    _row("mixer.by_hand_most_g", "largest dough kneaded by hand", 4_000, "g", 100, 50_000),
    _row("preferment.poolish_rise", "a poolish rises to", 3, "times", 1, 8),
    _row("preferment.sponge_rise", "a stiff sponge rises to", 2.5, "times", 1, 8),
    _row("preferment.headroom", "room left above the rise", 1.2, "times", 1, 4),
    _row("preferment.tub_l", "largest tub for a preferment", 12, "l", 1, 200),
    _row("preferment.poolish_flour_pct", "flour a poolish starts with", 25, "%", 1, 100),
    _row("preferment.poolish_hydration_pct", "hydration a poolish starts with", 100, "%", 20, 300),
    _row("preferment.poolish_yeast_pct", "share of the yeast a poolish starts with", 5, "%", 0, 100),
    _row("preferment.poolish_min", "a poolish ripens", 720, "min", 30, 4_000),
    _row("preferment.sponge_flour_pct", "flour a stiff sponge starts with", 30, "%", 1, 100),
    _row("preferment.sponge_hydration_pct", "hydration a stiff sponge starts with", 55, "%", 20, 300),
    _row("preferment.sponge_yeast_pct", "share of the yeast a sponge starts with", 20, "%", 0, 100),
    _row("preferment.sponge_min", "a stiff sponge ripens", 960, "min", 30, 4_000),
    _row("preferment.sourdough_rise", "a sourdough rises to", 2.5, "times", 1, 8),
    _row("preferment.sourdough_flour_pct", "flour a sourdough starts with", 20, "%", 1, 100),
    _row("preferment.sourdough_hydration_pct", "hydration a sourdough starts with", 100, "%", 20, 300),
    _row("preferment.sourdough_yeast_pct", "share of the yeast a sourdough starts with", 0, "%", 0, 100),
    _row("preferment.sourdough_min", "a sourdough ripens after its feed", 480, "min", 30, 4_000),
    _row("sourdough.seed_pct", "ripe sourdough that a feed is begun with, of its flour", 20, "%", 1, 300),
    _row("sourdough.proof_min",
         "a whole proof at 27 °C, a fifth of the flour as sourdough (0: by its signs)", 0, "min", 0, 2_880),
    _row("trimmings.most_pct", "trimmings fed back, at most", 10, "%", 0, 50),
    _row("trimmings.dough_most_pct", "dough kept back and fed, at most", 30, "%", 0, 50),
)  # fmt: skip
_COLD = (
    _row("room.c", "the room", 21, "°C", -10, 50, group="cold"),
    _row("fridge.c", "the fridge", 4, "°C", -10, 50, group="cold"),
    _row("freezer.c", "the freezer", -18, "°C", -60, 30, group="cold"),
    _row("fridge.film", "how hard the fridge cools (still air: 7, with a fan: 18)", 7, "W/(m²·K)", 1, 200,
         HEAT_BOOK, group="cold"),
    _row("freezer.film", "how hard the freezer cools (still air 8, blast 30)", 8, "W/(m²·K)", 1, 200,
         HEAT_BOOK, group="cold"),
    _row("bench.film", "air over the bench", 8, "W/(m²·K)", 1, 200, HEAT_BOOK, group="cold"),
    _row("bench.top", "what the bench top is", 0, "", 0, 2, group="cold",
         choices=("wood", "steel", "marble")),
    _row("contact.tray", "a dough on steel: heat that passes", 60, "W/(m²·K)", 1, 500, group="cold"),
    _row("contact.marble", "a dough on marble: heat that passes", 60, "W/(m²·K)", 1, 500,
         group="cold"),
    _row("contact.wood", "a dough on wood: heat that passes", 15, "W/(m²·K)", 1, 500, group="cold"),
    _row("contact.ice", "ice packs on a dough: heat that passes", 80, "W/(m²·K)", 1, 500,
         group="cold"),
    _row("tray.mm", "a steel tray is thick", 1.5, "mm", 0.3, 10, group="cold"),
    _row("marble.mm", "a marble slab is thick", 20, "mm", 5, 100, group="cold"),
    _row("wood.mm", "a board or a wooden top is thick", 30, "mm", 5, 100, group="cold"),
    _row("ice.c", "ice packs, where the place is warmer", 0, "°C", -30, 10, group="cold"),
    _row("ice.on_top_min", "a bag of ice lies on the bench before the roll for", 10, "min", 0, 120,
         group="cold"),
    _row("fridge.holds", "packages the fridge holds (0: not counted)", 0, "", 0, 500, group="cold",
         whole=True),
    _row("freezer.holds", "packages the freezer holds (0: not counted)", 0, "", 0, 500, group="cold",
         whole=True),
    _row("fridge.shelves", "shelves of the fridge for what is put away", 3, "", 1, 12, group="cold",
         whole=True),
    _row("freezer.shelves", "shelves of the freezer for what is put away", 3, "", 1, 12, group="cold",
         whole=True),
    _row("room.swing_k", "the room's warmest hour over its coolest", 0, "K", 0, 25, group="cold"),
    _row("room.warmest_h", "the room is warmest at, hour of the day", 15, "h", 0, 24, group="cold"),
    _row("day.begins_h", "work begins at, hour of the day", 5, "h", 0, 24, group="cold"),
    _row("wrap.film", "film wrapped round it", 300, "W/(m²·K)", 10, 5000, group="cold"),
    _row("roll.by_hand_k", "a turn by hand warms the dough by", 1, "K", 0, 10, group="cold"),
    _row("roll.by_sheeter_k", "a turn by sheeter warms it by", 0.5, "K", 0, 10, group="cold"),
    _row("butter.usual", "the butter new plans lock in", 0, "", 0, len(BUTTERS) - 1, group="cold",
         choices=tuple(b.name.lower() for b in BUTTERS)),
    _row("butter.at_lock_in_c", "butter when it is locked in", 13, "°C", -10, 30, group="cold"),
    _row("dough.mixed_c", "dough from the mixer, without a formula", 24, "°C", 0, 45, group="cold"),
    _row("dough.cold_c", "dough cold enough for the lock-in", 7, "°C", -5, 25, group="cold"),
    _row("dough.cold_tight_k",
         "dough still possible for the lock-in, if warmer by at most", 3, "K", 0, 15, group="cold"),
    _row("spread_k", "middle and face may differ by", 4, "K", 0.5, 20, group="cold"),
    _row("soft_tight_k", "butter so far above its range is still possible", 1.5, "K", 0, 10,
         group="cold"),
    _row("brittle.good_k", "outermost leaf still rolls well down to this far below brittle", 4, "K", 0, 20,
         group="cold"),
    _row("brittle.possible_k",
         "outermost leaf rolls with soft first strokes down to this far below brittle", 7, "K", 0, 25,
         group="cold"),
    _row("clock.tight_pct",
         "butter past its range is still tight, not too soft, up to this share of the way to oily", 60, "%",
         0, 100, group="cold"),
    _row("clock.slack_k", "above its range by so little, butter still works", 0.5, "K", 0, 5,
         group="cold"),
    _row("judge.same_k", "within this, dough and butter are of one temperature", 2, "K", 0.2, 10,
         group="cold"),
    _row("judge.same_firmness", "within this, dough and butter are of one firmness", 6, "", 0.5, 30,
         group="cold"),
)  # fmt: skip
_REST = (
    _row("relax.letter_min", "relaxing after a letter or half fold", 20, "min", 0, 300, group="rest"),
    _row("relax.book_min", "relaxing after a book fold", 30, "min", 0, 300, group="rest"),
    _row("relax.two_min", "relaxing after turns back to back", 30, "min", 0, 300, group="rest"),
    _row("relax.last_min", "more before the last roll", 5, "min", 0, 300, group="rest"),
    _row("sheet.good_min", "a rolled sheet lies well for", 45, "min", 1, 10_000, group="rest"),
    _row("sheet.possible_min", "a rolled sheet is still possible to cut after", 840, "min", 1, 10_000,
         group="rest"),
    _row("relax.lock_in_min", "relaxing after the lock-in", 10, "min", 0, 300, group="rest"),
    _row("relax.final_min", "shrinking before the cut", 5, "min", 0, 300, group="rest"),
    _row("relax.possible_share",
         "share of the relaxing after which rolling is possible", 0.75, "", 0.1, 1, group="rest"),
    _row("relax.weak", "a weak flour takes", 0.85, "times", 0.1, 5, group="rest"),
    _row("relax.strong", "a strong flour takes", 1.15, "times", 0.1, 5, group="rest"),
    _row("relax.short", "a dough mixed short takes", 0.9, "times", 0.1, 5, group="rest"),
    _row("relax.full", "a dough mixed full takes", 1.15, "times", 0.1, 5, group="rest"),
    _row("ripe.good_h", "dough keeps well in the fridge for (a warmer hour counts as more)", 27,
         "h", 1, 500, group="rest"),
    _row("ripe.possible_h",
         "dough keeps in the fridge at most (a warmer hour counts as more)", 41, "h", 1, 500, group="rest"),
    _row("ripe.times_per_10_k", "ripening goes faster, for ten degrees", 2, "times", 1, 6,
         group="rest"),
    _row("ripe.sugar_good_pct",
         "sugar the yeast has used, share of what a whole proof uses: good up to", 320, "%", 10, 2_000,
         group="rest"),
    _row("ripe.sugar_possible_pct", "and possible until", 480, "%", 10, 3_000, group="rest"),
    _row("yeast.between_turns_pct",
         "rise since the last roll, share of a whole proof: good up to", 35, "%", 1, 200,
         group="rest"),
    _row("yeast.between_possible_pct", "and possible until", 55, "%", 1, 300, group="rest"),
)  # fmt: skip
_PROOF = (
    _row("proof.reference_min", "proof at 27 °C with 3.5 % of fresh yeast", 120, "min", 20, 1000,
         PROOF_CURVE, group="proof"),
    _row("proof.sugar_from_pct", "sugar slows the yeast from, on flour", 10, "%", 0, 100,
         group="proof"),
    _row("proof.sugar_slows", "and by so much for each percent more", 0.03, "times", 0, 1,
         group="proof"),
    _row("proofer.c", "proofer", 26, "°C", 5, 45, group="proof"),
    _row("proofer.follows_pct", "share of a change in the room that the proofer follows", 0, "%",
         0, 100, group="proof"),
    _row("proofer.at_room_c",
         "room in which the proofer is as warm as set", 21, "°C", -10, 50, group="proof"),
    _row("proofer.film", "air of the proofer", 10, "W/(m²·K)", 1, 200, HEAT_BOOK, group="proof"),
    _row("proof.piece_kg_m3", "a shaped piece holds air: its density", 900, "kg/m³", 200, 1_400,
         group="proof"),
    _row("proof.piece_mm", "a piece whose shape is not known counts as thick", 18, "mm", 3, 150,
         group="proof"),
    _row("proof.over_oils_k", "proofer above the butter's oiling out, at most", 10, "K", 0, 30,
         group="proof"),
    _row("proof.hottest_c", "proofer for any butter, at most", 32, "°C", 15, 45, group="proof"),
    _row("proof.humidity_pct", "humidity of the proofer", 78, "%", 0, 100, group="proof"),
)  # fmt: skip
_MATTER = (
    _row("dough.density_kg_m3", "cold dough without a formula", 1120, "kg/m³", 600, 1_500,
         group="dough"),
    _row("dough.gas_pct", "gas in a cold, degassed dough", 10, "%", 0, 60, DOUGH_GAS),
    _row("dough.butter_gas_pct", "gas in butter", 2, "%", 0, 40),
    _row("dough.physics_c", "temperature densities are taken at", 10, "°C", 0, 30),
)  # fmt: skip
_FAMILIES = (
    *_family(Family.CROISSANT, fresh_h=5, start_butter_pct=27, share=(22, 33), layers=(16, 64),
             butter_um=(10, 120), sheet_mm=(3.5, 5), over_dough=(0.3, 1.0), sugar_pct=(7, 15),
             salt_pct=(1.6, 2.4), fat_pct=(2, 14), yeast_pct=(1, 5), proof=(100, 60, 64, 158, 165)),
    *_family(Family.DANISH, fresh_h=5, start_butter_pct=30, share=(22, 40), layers=(16, 64),
             butter_um=(10, 120), sheet_mm=(3.5, 6), over_dough=(0.3, 1.2), sugar_pct=(8, 20),
             salt_pct=(1.2, 2.2), fat_pct=(4, 18), yeast_pct=(2.5, 8), proof=(80, 30, 39, 118, 150),
             proof_yeast_pct=(4, 7)),
    *_family(Family.BRIOCHE, fresh_h=8, start_butter_pct=22, share=(15, 30), layers=(9, 36),
             butter_um=(10, 140), sheet_mm=(4, 9), over_dough=(0.2, 1.0), sugar_pct=(8, 20),
             salt_pct=(1.6, 2.4), fat_pct=(12, 45), yeast_pct=(2, 7), proof=(90, 34, 42, 150, 175)),
    *_family(Family.KOUIGN, fresh_h=8, start_butter_pct=45, share=(30, 60), layers=(6, 36),
             butter_um=(10, 300), sheet_mm=(4, 10), over_dough=(0.4, 1.6), sugar_pct=(0, 6),
             salt_pct=(1.6, 3), fat_pct=(0, 8), yeast_pct=(1, 4), proof=(25, 0, 0.1, 60, 80),
             proof_yeast_pct=(1, 4)),
    *_family(Family.PUFF, fresh_h=8, start_butter_pct=75, share=(50, 100), layers=(96, 1024),
             butter_um=(2, 60), sheet_mm=(2, 5), over_dough=(0.8, 2.4), sugar_pct=(0, 4),
             salt_pct=(1.5, 2.6), fat_pct=(0, 16), yeast_pct=(0, 0.5)),
)  # fmt: skip

_CRANK = (
    _row("crank.width_mm", "hand-cranked roller, width", 145, "mm", 50, 600),
    _row("crank.longest_mm", "longest strip one handles on it", 900, "mm", 200, 3_000),
    _row("crank.most_strips", "strips that are no trouble yet", 6, "", 1, 50, group="crank", whole=True),
    *(
        _row(f"crank.{n}_mm", f"its gap at setting {n} (0: none)", gap, "mm", 0, 20)
        for n, gap in enumerate((3.0, 2.6, 2.2, 1.9, 1.6, 1.3, 1.0, 0.8, 0.6), 1)
    ),
)  # fmt: skip
_KEEP = (
    _row("keep.fridge_yeasted_h", "a yeasted block keeps in the fridge", 24, "h", 1, 200),
    _row("keep.baked_yeasted_h", "a baked yeasted piece is at its best for", 24, "h", 2, 240),
    _row("keep.baked_puff_h", "baked puff is at its best for", 48, "h", 2, 240),
    _row("keep.fridge_puff_h", "a block without yeast keeps in the fridge", 96, "h", 1, 500),
    _row("keep.freezer_yeasted_soft_days", "yeasted, frozen, table butter", 7, "days", 1, 400),
    _row("keep.freezer_yeasted_firm_days", "yeasted, frozen, firm butter", 14, "days", 1, 400),
    _row("keep.freezer_puff_soft_days", "puff in the freezer, table butter", 60, "days", 1, 400),
    _row("keep.freezer_puff_firm_days", "puff in the freezer, firm butter", 180, "days", 1, 400),
    _row("keep.fridge_raw_yeasted_h", "raw yeasted pieces keep in the fridge", 16, "h", 1, 200),
    _row("keep.fridge_raw_puff_h", "raw pieces of puff keep in the fridge", 48, "h", 1, 500),
    _row("keep.freezer_raw_yeasted_days", "raw yeasted pieces, frozen", 10, "days", 1, 400),
    _row("keep.freezer_raw_puff_days", "raw pieces of puff, frozen", 60, "days", 1, 400),
    _row("keep.freezer_baked_days", "baked pieces, frozen", 30, "days", 1, 400),
    _row("keep.fridge_filled_h", "filled pieces keep in the fridge", 24, "h", 1, 200),
    _row("keep.freezer_filled_h", "filled pieces keep in the freezer", 240, "h", 1, 2_000),
    _row("keep.freezer_trimmings_days", "trimmings, frozen", 14, "days", 1, 400),
    _row("keep.fridge_butter_days", "butter keeps in the fridge", 30, "days", 1, 400),
    _row("keep.freezer_butter_days", "butter keeps in the freezer", 180, "days", 1, 700),
    _row("keep.thawed_from_c", "a thawed block is ready from", 0, "°C in its middle", -5, 10),
    _row("keep.thawed_to_c", "a thawed block is ready to", 3, "°C in its middle", 0, 15),
    _row("stock.order_days", "what runs short is ordered so long before", 2, "days", 0, 60, group="keep"),
    _row("keep.firm_butter_c", "a butter is firm that lets go above", 21, "°C", 10, 40),
    _row("again.keeps_h", "baked pieces wait for a second bake", 30, "h", 1, 200, group="keep"),
    _row("strew.unknown_g_ml", "a spread that is no ingredient here weighs", 1.15, "g in a ml", 0.1, 3,
         group="keep"),
    _row("strew.draws_min", "sugar or salt in a dough runs after", 45, "min", 0, 600, group="keep"),
)  # fmt: skip

TABLE: tuple[Default, ...] = (
    *_PLACES, *_MINUTES, *_CRANK, *_KEEP, *_BAKE, *_ROLLING, *_SCALES, *_COLD, *_REST, *_PROOF,
    *_MATTER, *_FAMILIES, *DAY, *LESSON,
)  # fmt: skip
DEFAULTS: dict[str, Default] = {d.key: d for d in TABLE}

# Rows that stood under another name before: a kitchen kept then goes on.
RENAMED = {
    "proof.room_c": "proofer.c",
    "proof.film": "proofer.film",
    "minutes.dough": "minutes.flatten",
    "minutes.final": "minutes.last_sheet",
    "under.tray": "contact.tray",
    "under.marble": "contact.marble",
    "under.wood": "contact.wood",
    "ice.film": "contact.ice",
}
