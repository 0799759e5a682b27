"""Wash and bake: what is brushed on, a bake in stages, and the same in the other kind of oven."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Annotated

from lamination.kitchen.kitchen import Kitchen
from lamination.terms.limits import Checked, Length, Range
from lamination.terms.trade import Worded


class Wash(Worded):
    """What is brushed on before the oven."""

    EGG = "egg", "Whole egg"
    EGG_SALT = "egg_salt", "Egg with a little salt"
    EGG_MILK = "egg_milk", "Egg with milk"
    MILK = "milk", "Milk"
    CREAM = "cream", "Cream"


class Oven(Worded):
    """What kind of oven a programme is written for."""

    DECK = "deck", "deck"
    FAN = "fan", "fan"

    @property
    def other(self) -> Oven:
        """The other kind."""
        return Oven.FAN if self is Oven.DECK else Oven.DECK


class Colour(Worded):
    """The colour wanted: three shades of brown."""

    PALE = "pale", "pale gold"
    GOLDEN = "golden", "three shades of brown"
    DEEP = "deep", "deep brown right into the folds"


@dataclass(frozen=True)
class Stage(Checked):
    """A stage of a bake: minutes at a heat, with or without steam.

    ``steam_s``: for so many seconds, 0 for all of it.
    """

    minutes: Annotated[float, Range(0.5, 240, "min")]
    oven_c: Annotated[float, Range(60, 350, "°C")]
    steam: bool = False
    steam_s: Annotated[float, Range(0, 600, "s")] = 0.0


@dataclass(frozen=True)
class Bake(Checked):
    """A bake: its stages for one kind of oven, and the signs it is done by.

    ``turn_tray``: turned half-way. ``docked``: pricked to stay low. ``core_c``: wanted in the middle
    of a piece; None where colour alone decides. ``preheat_c``: heated to before, where that is more.
    """

    oven: Oven
    stages: Annotated[tuple[Stage, ...], Length(1, 6, "stages")]
    turn_tray: bool = True
    docked: bool = False
    core_c: Annotated[float, Range(60, 110, "°C")] | None = None
    colour: Colour = Colour.GOLDEN
    preheat_c: Annotated[float, Range(60, 400, "°C")] | None = None

    @property
    def minutes(self) -> float:
        """How long one load is in the oven."""
        return sum(s.minutes for s in self.stages)


WASH_SAYS: dict[Wash, str] = {
    Wash.EGG: "Shine and an even brown.",
    Wash.EGG_SALT: "Thinner after a night, so it spreads well; browns more.",
    Wash.EGG_MILK: "Softer shine, paler; goes further.",
    Wash.MILK: "A dull brown, no egg on the label.",
    Wash.CREAM: "Deep colour without egg; burns sooner.",
}
# What a wash is made of: ingredients of the shelf, and the share of each. Source: trade practice.
WASH_OF: dict[Wash, tuple[tuple[str, float], ...]] = {
    Wash.EGG: (("egg-whole", 1.0),),
    Wash.EGG_SALT: (("egg-whole", 0.985), ("salt", 0.015)),
    Wash.EGG_MILK: (("egg-whole", 0.75), ("milk-whole", 0.25)),
    Wash.MILK: (("milk-whole", 1.0),),
    Wash.CREAM: (("cream", 1.0),),
}
SIGNS = (
    "Doubled or a little more.",
    "Leaves visible at the cut edges.",
    "The whole tray trembles when it is nudged.",
)


def converted(bake: Bake, to: Oven, kitchen: Kitchen) -> Bake:
    """The same bake in another kind of oven: a fan's heat is lower and its time a little shorter.

    By the kitchen's two rows; heats are rounded to 5 °C, minutes to halves. Source: trade practice.
    """
    if bake.oven is to:
        return bake
    less, share = kitchen["oven.fan_less_k"], kitchen["oven.fan_minutes_pct"] / 100
    sign, factor = (-1, share) if to is Oven.FAN else (1, 1 / share)
    stages = tuple(
        replace(
            s,
            oven_c=min(max(5 * round((s.oven_c + sign * less) / 5), 60.0), 350.0),
            minutes=min(max(math.floor(2 * s.minutes * factor + 0.5) / 2, 0.5), 240.0),
        )
        for s in bake.stages
    )
    before = bake.preheat_c
    if before is not None:
        before = min(max(5 * round((before + sign * less) / 5), 60.0), 400.0)
    return replace(bake, oven=to, stages=stages, preheat_c=before)
