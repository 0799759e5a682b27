"""From the cut piece to the cooled one: proof, wash, bake, and what of it depends on the oven."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Annotated

from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import Family
from lamination.terms.limits import Checked, Length, Range
from lamination.terms.rests import Minutes, Place, Rest


class Wash(StrEnum):
    """What is brushed on before the oven."""

    NONE = "none"
    EGG = "egg"
    EGG_SALT = "egg_salt"
    EGG_MILK = "egg_milk"
    MILK = "milk"
    CREAM = "cream"


class Oven(StrEnum):
    """What kind of oven a programme is written for."""

    DECK = "deck"
    FAN = "fan"


class Colour(StrEnum):
    """The colour wanted: three shades of brown."""

    PALE = "pale"
    GOLDEN = "golden"
    DEEP = "deep"


@dataclass(frozen=True)
class Stage(Checked):
    """A stage of a bake: minutes at a heat, with or without steam."""

    minutes: Annotated[float, Range(0.5, 240, "min")]
    oven_c: Annotated[float, Range(60, 350, "°C")]
    steam: bool = False


@dataclass(frozen=True)
class Bake(Checked):
    """A bake: its stages for one kind of oven, and the signs it is done by.

    ``turn_tray``: turned half-way. ``docked``: pricked to stay low. ``core_c``: wanted in the middle
    of a piece; None where colour alone decides.
    """

    oven: Oven
    stages: Annotated[tuple[Stage, ...], Length(1, 6, "stages")]
    turn_tray: bool = True
    docked: bool = False
    core_c: Annotated[float, Range(60, 110, "°C")] | None = None
    colour: Colour = Colour.GOLDEN

    @property
    def minutes(self) -> float:
        """How long one load is in the oven."""
        return sum(s.minutes for s in self.stages)


@dataclass(frozen=True)
class Finish(Checked):
    """All that follows the cut. ``rest``: after shaping, to the end of the proof or the chill.

    ``cool``: after the oven. ``moulded``: baked in rings, tins or moulds; ``sugared``: with sugar that
    melts, so that it has to come out of them while that is hot.
    """

    bake: Bake
    rest: Rest | None = None
    wash: Wash = Wash.EGG
    coats: Annotated[int, Range(1, 3)] = 1
    cool: Rest | None = None
    moulded: bool = False
    sugared: bool = False
    shape_min: Minutes | None = None
    wash_min: Minutes | None = None


WASHES: dict[Wash, tuple[str, str]] = {
    Wash.NONE: ("No wash", "Dry and matt; the leaves stand freest."),
    Wash.EGG: ("Whole egg", "Shine and an even brown."),
    Wash.EGG_SALT: ("Egg with a little salt", "Thinner after a night, so it spreads well; browns more."),
    Wash.EGG_MILK: ("Egg with milk", "Softer shine, paler; goes further."),
    Wash.MILK: ("Milk", "A dull brown, no egg on the label."),
    Wash.CREAM: ("Cream", "Deep colour without egg; burns sooner."),
}  # fmt: skip
# Ingredients of the shelf that a wash brings with it, for the label.
WASH_OF: dict[Wash, tuple[str, ...]] = {
    Wash.NONE: (),
    Wash.EGG: ("egg-whole",),
    Wash.EGG_SALT: ("egg-whole",),
    Wash.EGG_MILK: ("egg-whole", "milk-whole"),
    Wash.MILK: ("milk-whole",),
    Wash.CREAM: ("milk-whole",),
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
    return replace(bake, oven=to, stages=stages)


_YEASTED = Bake(Oven.DECK, (Stage(4, 220, steam=True), Stage(14, 190)), core_c=94)


def starting_finish(family: Family) -> Finish:
    """A finish a family commonly has, for a baker to change. Source: trade practice."""
    proof = Rest(Place.PROOFER, 165)
    cool = Rest(Place.BENCH, 30)
    if family is Family.PUFF:
        stages = (Stage(10, 220, steam=True), Stage(18, 185))
        bake = Bake(Oven.DECK, stages, core_c=96, colour=Colour.DEEP)
        return Finish(bake, Rest(Place.FRIDGE, 30), cool=cool)
    if family is Family.KOUIGN:
        bake = Bake(Oven.DECK, (Stage(30, 185),), core_c=97, colour=Colour.DEEP)
        return Finish(
            bake, Rest(Place.PROOFER, 60), Wash.NONE, cool=cool, moulded=True, sugared=True
        )
    if family is Family.BRIOCHE:
        bake = Bake(Oven.DECK, (Stage(22, 180),), core_c=92)
        return Finish(bake, Rest(Place.PROOFER, 150), cool=cool)
    return Finish(_YEASTED, proof, cool=cool)
