"""What is seen of a bake, what may have caused it, and how often the one goes with the other.

A table of practice: how many times as often something is seen after its cause as otherwise. What a baker
confirms shifts how often a cause is met, never what it looks like.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from lamination.kitchen.rows import TRADE
from lamination.terms.trade import Family, Worded


class Finding(Worded):
    """Something that is seen of a bake, at the cut piece or on the tray."""

    FAT = "fat", "fat on the tray"
    BREADY = "bready", "bready, few cells"
    HOLE = "hole", "one big hole"
    BAND = "band", "tight band under the crust"
    RAGGED = "ragged", "ragged leaves"
    UNEVEN = "uneven", "uneven leaves"
    ISLANDS = "islands", "butter in plates"
    LEANS = "leans", "wings lean"
    OPENS = "opens", "tail open"
    WEIGHTS = "weights", "pieces of different weight"
    FLAT = "flat", "flat"
    BURST = "burst", "burst open"
    DENSE = "dense", "dense base"
    PALE = "pale", "pale and damp"
    SKIN = "skin", "skin before the oven"
    SOUR = "sour", "sour"


class BakeCause(Worded):
    """Something that may have happened to it."""

    BUTTER_HARD = "butter_hard", "The butter was too hard"
    BUTTER_SOFT = "butter_soft", "The butter let go"
    FEW_LEAVES = "few_leaves", "Too few leaves"
    MERGED = "merged", "The leaves merged"
    REST_SHORT = "rest_short", "A rest was too short"
    ROLLED_FAST = "rolled_fast", "It was rolled down too fast"
    UNDER = "under", "It was under-proofed"
    OVER = "over", "It was over-proofed"
    PROOFER_WARM = "proofer_warm", "The proofer was too warm"
    PROOFER_DRY = "proofer_dry", "The proofer was too dry"
    UNEVEN_SHEET = "uneven_sheet", "The sheet was uneven"
    MARGIN = "margin", "The margin was not trimmed"
    WASH = "wash", "Wash ran over the leaves"
    WARM_CUT = "warm_cut", "The sheet was cut warm"
    OVEN_COOL = "oven_cool", "The oven was too cool"
    OVERMIXED = "overmixed", "The dough was overmixed"
    OLD_FLOUR = "old_flour", "The flour was weak or old"
    YEAST = "yeast", "The yeast was off"
    SALT = "salt", "The salt was off"


@dataclass(frozen=True, slots=True)
class Likelihood:
    """How many times as often a finding is met after its cause as otherwise; below 1: less often."""

    cause: BakeCause
    finding: Finding
    times: float
    source: str = TRADE


F, B = Finding, BakeCause
_TIMES: dict[BakeCause, dict[Finding, float]] = {
    B.BUTTER_HARD: {F.ISLANDS: 7, F.RAGGED: 5, F.UNEVEN: 4, F.HOLE: 3, F.FAT: 1.5, F.BREADY: 0.7},
    B.BUTTER_SOFT: {F.BREADY: 5, F.FAT: 3.5, F.UNEVEN: 2, F.FLAT: 2, F.ISLANDS: 0.3, F.BURST: 0.6},
    B.FEW_LEAVES: {F.HOLE: 5, F.FAT: 2, F.RAGGED: 1.5, F.BREADY: 0.4},
    B.MERGED: {F.BREADY: 5, F.DENSE: 2, F.FLAT: 1.5, F.FAT: 0.5, F.ISLANDS: 0.4, F.HOLE: 0.5},
    B.REST_SHORT: {F.WEIGHTS: 2.5, F.UNEVEN: 2.5, F.LEANS: 3, F.RAGGED: 2.5, F.OPENS: 1.5},
    B.ROLLED_FAST: {F.RAGGED: 4, F.UNEVEN: 3, F.ISLANDS: 1.8, F.WEIGHTS: 1.5},
    B.UNDER: {
        F.BURST: 6,
        F.FAT: 3.5,
        F.DENSE: 4,
        F.BAND: 3,
        F.LEANS: 1.5,
        F.SOUR: 0.3,
        F.FLAT: 0.8,
    },
    B.OVER: {F.FLAT: 5, F.SOUR: 3, F.HOLE: 2.5, F.PALE: 1.5, F.BURST: 0.2, F.DENSE: 0.6},
    B.PROOFER_WARM: {F.FAT: 6, F.BREADY: 2.5, F.FLAT: 1.8, F.BURST: 0.6, F.SKIN: 0.7},
    B.PROOFER_DRY: {F.SKIN: 10, F.BURST: 3, F.BAND: 2.5, F.FAT: 0.7},
    B.UNEVEN_SHEET: {F.WEIGHTS: 9, F.LEANS: 3, F.UNEVEN: 2},
    B.MARGIN: {F.BREADY: 2, F.UNEVEN: 2, F.WEIGHTS: 1.5, F.DENSE: 1.5},
    B.WASH: {F.BAND: 4, F.LEANS: 3, F.FLAT: 1.2, F.FAT: 0.6},
    B.WARM_CUT: {F.OPENS: 5, F.RAGGED: 3, F.LEANS: 2.5, F.UNEVEN: 1.3},
    B.OVEN_COOL: {F.PALE: 8, F.FAT: 2.5, F.FLAT: 2.5, F.DENSE: 2, F.BURST: 0.4},
    B.OVERMIXED: {F.LEANS: 2.5, F.RAGGED: 2, F.OPENS: 2.5, F.UNEVEN: 1.5, F.BURST: 1.5},
    B.OLD_FLOUR: {F.FLAT: 3, F.DENSE: 2.5, F.RAGGED: 3, F.PALE: 1.5},
    B.YEAST: {F.DENSE: 3, F.FLAT: 2.5, F.SOUR: 2, F.BURST: 1.8},
    B.SALT: {F.PALE: 2.5, F.SOUR: 2, F.FLAT: 1.8},
}
LIKELIHOODS: tuple[Likelihood, ...] = tuple(
    Likelihood(cause, finding, times)
    for cause, of in _TIMES.items()
    for finding, times in of.items()
)
# how often a finding is met in a bake that went wrong, whatever the cause
MET: dict[Finding, float] = dict.fromkeys(Finding, 0.09)
# of a hundred bakes that went wrong
_OFTEN: dict[BakeCause, float] = {
    B.BUTTER_SOFT: 13, B.BUTTER_HARD: 10, B.REST_SHORT: 10, B.UNDER: 10, B.OVER: 7,
    B.UNEVEN_SHEET: 7, B.OVEN_COOL: 6, B.PROOFER_WARM: 6, B.ROLLED_FAST: 5, B.WASH: 5, B.WARM_CUT: 5,
    B.MERGED: 4, B.PROOFER_DRY: 4, B.MARGIN: 3, B.OVERMIXED: 3, B.FEW_LEAVES: 2, B.OLD_FLOUR: 2,
    B.YEAST: 2, B.SALT: 1,
}  # fmt: skip
_OF_YEAST = frozenset((B.UNDER, B.OVER, B.PROOFER_WARM, B.PROOFER_DRY, B.YEAST))
# what the table counts for beside what the house itself has confirmed: so many bakes
TABLE_COUNTS = 40.0


def met_after(cause: BakeCause, finding: Finding) -> float:
    """How often a finding is met after a cause, 0 to 1."""
    return min(MET[finding] * _TIMES[cause].get(finding, 1.0), 0.9)


def priors(
    family: Family, confirmed: Mapping[BakeCause, int] | None = None
) -> dict[BakeCause, float]:
    """How often each cause is met in this family, as shares that add up to 1.

    ``confirmed``: how often the house has found each, shrunk towards the table. Source: practice.
    """
    said = confirmed or {}
    table = {c: n for c, n in _OFTEN.items() if family.yeasted or c not in _OF_YEAST}
    whole, found = sum(table.values()), sum(said.get(c, 0) for c in table)
    return {
        c: (TABLE_COUNTS * n / whole + said.get(c, 0)) / (TABLE_COUNTS + found)
        for c, n in table.items()
    }


def says_of(cause: BakeCause, seen: Iterable[Finding]) -> float:
    """The sum of the logs of how much likelier what was seen, and was not, is after this cause.

    What is often met after it and was not seen speaks against it. Nothing seen says nothing.
    """
    there = set(seen)
    if not there:
        return 0.0
    found = 0.0
    for finding in Finding:
        after, usually = met_after(cause, finding), MET[finding]
        if finding in there:
            found += math.log(after / usually)
        else:
            found += math.log((1 - after) / (1 - usually))
    return found
