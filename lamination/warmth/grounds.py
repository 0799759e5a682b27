"""What each mark of a rest, and each clock of the work, is got from: said, with the rows it rests on."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.warmth.windows import Cause


@dataclass(frozen=True, slots=True)
class Grounds:
    """How a kind of mark is got, and the keys of the kitchen's rows that it takes for granted."""

    says: str
    rows: tuple[str, ...]


# Source of each: the rows say it themselves, and docs/model.md how they are put together.
GROUNDS: dict[str, Grounds] = {
    Cause.RELAXING: Grounds(
        "The minutes that a rolled dough needs before it can be rolled again: longer after a book fold, "
        "for a strong flour and a full mix.",
        ("relax.letter_min", "relax.book_min", "relax.two_min", "relax.possible_share"),
    ),
    Cause.COOLING: Grounds(
        "Heat is followed through the package, place by place, until the butter is no warmer than it "
        "bends at, and its places are close to each other.",
        ("spread_k", "soft_tight_k", "fridge.c", "fridge.film"),
    ),
    Cause.COLD: Grounds(
        "Heat is followed through the dough until its middle is cold enough for the butter.",
        ("dough.cold_c", "dough.cold_tight_k", "fridge.c", "fridge.film"),
    ),
    Cause.BRITTLE: Grounds(
        "The coldest butter in it, against the warmth below which this butter breaks: so far below is "
        "still good, so far possible.",
        ("brittle.good_k", "brittle.possible_k", "fridge.c", "freezer.c"),
    ),
    Cause.SOFT: Grounds(
        "The warmest butter in it, against the warmth above which this butter smears.",
        ("soft_tight_k", "room.c", "bench.film"),
    ),
    Cause.FROZEN: Grounds(
        "The coldest place of it, against the point at which its water, sugar and salt freeze.",
        ("freezer.c", "freezer.film"),
    ),
    Cause.RISING: Grounds(
        "The yeast is followed by its warmth: how much of a whole proof it has done between the turns.",
        ("yeast.between_turns_pct", "yeast.between_possible_pct"),
    ),
    Cause.DRIES: Grounds(
        "A thin sheet dries and hardens as it lies, wrapped too; it is measured in minutes.",
        ("sheet.good_min", "sheet.possible_min"),
    ),
    Cause.RIPE: Grounds(
        "Hours are counted as so many at fridge warmth, and the sugar that the yeast has left.",
        ("ripe.good_h", "ripe.possible_h", "ripe.times_per_10_k", "ripe.sugar_good_pct"),
    ),
    Cause.PROOF: Grounds(
        "The yeast is followed by its warmth until it has done as much of a whole proof as this family "
        "needs; much sugar slows it.",
        (
            "proof.reference_min",
            "proof.sugar_from_pct",
            "proof.sugar_slows",
            "proofer.c",
            "proofer.follows_pct",
        ),
    ),
    Cause.OVER: Grounds(
        "The same clock, further on: past as much of a proof as a piece of this family holds.",
        (
            "proof.reference_min",
            "proof.sugar_from_pct",
            "proof.sugar_slows",
            "proofer.c",
            "proofer.follows_pct",
        ),
    ),
    "clock": Grounds(
        "Heat from the room and from what it is worked on is followed into the package, until its "
        "butter is softer than it can be rolled.",
        ("room.c", "bench.film", "clock.tight_pct", "clock.slack_k"),
    ),
}
