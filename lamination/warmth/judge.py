"""May the butter go in? Dough and butter judged at the lock-in, by both schools."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np

from lamination.heat.body import body
from lamination.heat.conduction import Air, conduct
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Window
from lamination.materials.thermal import (
    butter_as_firm_as,
    butter_firmness,
    dough_firmness,
)
from lamination.plan.plan import Plan
from lamination.plan.walk import walk
from lamination.steps.lock_in import LockInFigures
from lamination.terms.limits import Checked, Range
from lamination.terms.said import c, span
from lamination.terms.trade import Place, Worded
from lamination.warmth.bodies import Matter

_LONGEST_MIN = 240.0


class Bend(Worded):
    """What a corner of the block does when it is bent over the hand."""

    CRACKS = "cracks", "cracks"
    BENDS = "bends", "bends"
    SMEARS = "smears", "smears"


class Call(Worded):
    """What to do now."""

    GO = "go", "Lock it in"
    WAIT = "wait", "Let it stand"
    CHILL = "chill", "Chill it"


@dataclass(frozen=True)
class Feel(Checked):
    """What was measured and felt at the lock-in, °C."""

    dough_c: Annotated[float, Range(-30, 45, "°C")]
    butter_c: Annotated[float, Range(-30, 45, "°C")]
    bend: Bend | None = None


@dataclass(frozen=True, slots=True)
class Judgement:
    """One call: what to do, for how many minutes, with what, and where; and why.

    ``footnote``: what the other school would say, where it would say something else. Butter that
    cracks or smears overrules both: the hand is nearer than the probe. The two figures of firmness are
    on the butter's scale.
    """

    call: Call
    minutes: float | None
    place: Place | None
    says: str
    footnote: str
    butter_firmness: float
    dough_firmness: float
    butter_wanted_c: float


def judge_lock_in(plan: Plan, feel: Feel, kitchen: Kitchen) -> Judgement:
    """Judge a lock-in by the firmness of the two; the same-temperature school is told both figures.

    Butter inside its plastic range goes in where dough is cold: that is how it is done. Outside of it,
    how long the block takes to come to temper is simulated. Source: trade practice.
    """
    found = walk(plan, kitchen)
    window = found.recipe.window
    block_mm = next(
        m.figures.block.thickness_mm for m in found.made if isinstance(m.figures, LockInFigures)
    )
    wanted = min(max(butter_as_firm_as(feel.dough_c), window.plastic_from_c), window.plastic_to_c)
    call: tuple[Call, float | None, Place | None, str]
    take = _Bringing(Matter(found.recipe, kitchen), block_mm, feel, kitchen)
    gap = butter_firmness(feel.butter_c) - dough_firmness(feel.dough_c)
    close = abs(gap) <= kitchen["judge.same_firmness"]
    works = window.plastic_from_c <= feel.butter_c <= window.plastic_to_c
    if feel.bend is Bend.CRACKS:
        call = take.to(max(window.plastic_from_c, feel.butter_c + 2), "It cracks when it is bent")
    elif feel.bend is Bend.SMEARS:
        call = take.to(min(window.plastic_to_c - 1, feel.butter_c - 2), "It smears under the hand")
    elif feel.dough_c > window.plastic_to_c:
        call = (
            Call.CHILL,
            None,
            Place.FRIDGE,
            (
                f"The dough is at {c(feel.dough_c)}, warmer than butter can be worked at. Chill the dough."
            ),
        )
    elif works or (close and window.brittle_c <= feel.butter_c <= window.plastic_to_c):
        why = "The two give alike under the thumb." if close else "The butter bends as it is."
        call = Call.GO, None, None, f"{why} Lock it in."
    else:
        call = take.to(wanted)
    what, minutes, where, says = call
    return Judgement(
        what,
        minutes,
        where,
        says,
        _footnote(feel, window, kitchen),
        butter_firmness(feel.butter_c),
        dough_firmness(feel.dough_c),
        wanted,
    )


def _footnote(feel: Feel, window: Window, kitchen: Kitchen) -> str:
    """What those say who want both at one temperature."""
    apart = feel.butter_c - feel.dough_c
    both = f"Butter {c(feel.butter_c)}, dough {c(feel.dough_c)}."
    if abs(apart) <= kitchen["judge.same_k"]:
        return f"{both} Those who want both at one temperature agree."
    return f"{both} Those who want both at one temperature would let the dough come nearer first."


def stood_on_the_bench(plan: Plan, kitchen: Kitchen, minutes: float) -> float:
    """How warm a plan's butter block is on the mean, °C, that stood so long on the bench from the fridge.

    As warm as the kitchen's fridge to begin with, wrapped, air on both its faces.
    """
    found = walk(plan, kitchen)
    block_mm = next(
        m.figures.block.thickness_mm for m in found.made if isinstance(m.figures, LockInFigures)
    )
    butter = Matter(found.recipe, kitchen).butter
    block = body([(True, block_mm)], butter, butter, kitchen["fridge.c"])
    air = Air(kitchen["room.c"], 1 / (1 / kitchen["bench.film"] + 1 / kitchen["wrap.film"]))
    return conduct(block, air, air, minutes).end.mean_c


class _Bringing:
    """The block alone brought to a temperature, in the fridge or on the bench."""

    def __init__(self, matter: Matter, block_mm: float, feel: Feel, kitchen: Kitchen) -> None:
        self.matter, self.block_mm, self.feel, self.kitchen = matter, block_mm, feel, kitchen

    def to(self, to_c: float, why: str | None = None) -> tuple[Call, float | None, Place, str]:
        """What to do with it, how long, where, in words."""
        warm = self.feel.butter_c > to_c
        place, call = (Place.FRIDGE, Call.CHILL) if warm else (Place.BENCH, Call.WAIT)
        air_c = self.kitchen["fridge.c" if warm else "room.c"]
        why = why or (
            f"Butter at {c(self.feel.butter_c)} is {'softer' if warm else 'harder'} than dough at "
            f"{c(self.feel.dough_c)}"
        )
        minutes = self._takes(to_c, air_c, place)
        if minutes is None:
            where = "somewhere colder" if warm else "somewhere warmer"
            text = f"{why}, and at {c(air_c)} the block never reaches {c(to_c)}. Put it {where}."
            return call, None, place, text
        what = "Chill the block" if warm else "Let the block stand"
        where = "in the fridge" if warm else "on the bench"
        lasts = span(max(1, round(minutes)))
        return (
            call,
            minutes,
            place,
            f"{what} {lasts} {where}, to {c(to_c)}: {why[0].lower()}{why[1:]}.",
        )

    def _takes(self, to_c: float, air_c: float, at: Place) -> float | None:
        kitchen, butter = self.kitchen, self.matter.butter
        block = body([(True, self.block_mm)], butter, butter, self.feel.butter_c)
        film = kitchen["bench.film" if at is Place.BENCH else f"{at}.film"]
        air = Air(air_c, 1 / (1 / film + 1 / kitchen["wrap.film"]))
        course = conduct(block, air, air, _LONGEST_MIN)
        minutes = np.arange(0, _LONGEST_MIN, 0.25)
        means = course.at(minutes) @ block.shares
        there = np.flatnonzero(means <= to_c if self.feel.butter_c > to_c else means >= to_c)
        return float(minutes[there[0]]) if len(there) else None
