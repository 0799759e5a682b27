"""May the butter go in? Dough and butter judged at the lock-in, by both schools."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from lamination.dough.recipe import butter_composition, butter_physics
from lamination.heat.conduction import Air, body, conduct
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Window
from lamination.materials.thermal import (
    butter_as_firm_as,
    butter_firmness,
    dough_firmness,
    thermal_of,
)
from lamination.plan.plan import Plan
from lamination.terms.limits import Checked, Range, say
from lamination.terms.rests import Place
from lamination.warmth.rest import crossing

_SAME_K = 2.0  # trade practice: within this the two are of one temperature
_SAME_FIRMNESS = 6.0  # and within this of one firmness, on the butter's scale
_LONGEST_MIN = 240.0


class Bend(StrEnum):
    """What a corner of the block does when it is bent over the hand."""

    CRACKS = "cracks"
    BENDS = "bends"
    SMEARS = "smears"


class Call(StrEnum):
    """What to do now."""

    GO = "go"
    WAIT = "wait"
    CHILL = "chill"


@dataclass(frozen=True)
class Feel(Checked):
    """What was measured and felt at the lock-in, °C."""

    dough_c: Annotated[float, Range(-30, 45, "°C")]
    butter_c: Annotated[float, Range(-30, 45, "°C")]
    bend: Bend | None = None


@dataclass(frozen=True, slots=True)
class Judged:
    """One school's call: what to do, for how many minutes, with what, and where; and why."""

    school: str
    call: Call
    minutes: float | None
    place: Place | None
    says: str


@dataclass(frozen=True, slots=True)
class Judgement:
    """Both schools. Butter that cracks or smears overrules them: the hand is nearer than the probe."""

    firmness: Judged
    temperature: Judged
    butter_firmness: float
    dough_firmness: float
    butter_wanted_c: float


def judge_lock_in(plan: Plan, block_mm: float, feel: Feel, kitchen: Kitchen) -> Judgement:
    """Judge a lock-in by the same firmness and by the same temperature.

    ``block_mm``: the block's thickness; how long it takes to come to temper is simulated with it.
    Source: trade practice, core-model §1 and craft §7.
    """
    window = plan.butter_kind.window or Window(9, 12, 16, 20)
    firm = butter_as_firm_as(feel.dough_c)
    wanted = min(max(firm, window.plastic_from_c), window.plastic_to_c)
    gap = butter_firmness(feel.butter_c) - dough_firmness(feel.dough_c)
    in_window = window.brittle_c <= feel.butter_c <= window.plastic_to_c
    by_hand = _by_hand(plan, block_mm, feel, kitchen, window)
    firmness = by_hand or (
        Judged(
            "same firmness", Call.GO, None, None, "The two give alike under the thumb. Lock it in."
        )
        if abs(gap) <= _SAME_FIRMNESS and in_window
        else _bring(plan, block_mm, feel, wanted, kitchen, "same firmness")
    )
    # At one temperature means the dough goes to the butter's window, not the butter to the dough's.
    same = max(min(feel.dough_c, window.plastic_to_c), window.brittle_c)
    if by_hand:
        temperature = Judged(
            "same temperature", by_hand.call, by_hand.minutes, by_hand.place, by_hand.says
        )
    elif abs(feel.butter_c - feel.dough_c) <= _SAME_K and in_window:
        temperature = Judged(
            "same temperature", Call.GO, None, None, "Both within two degrees. Lock it in."
        )
    elif not window.brittle_c - _SAME_K <= feel.dough_c <= window.plastic_to_c:
        warm = feel.dough_c > window.plastic_to_c
        temperature = Judged(
            "same temperature",
            Call.CHILL if warm else Call.WAIT,
            None,
            Place.FRIDGE if warm else Place.BENCH,
            f"Dough at {say(feel.dough_c)} °C is {'warmer' if warm else 'colder'} than butter can be "
            f"worked at: {'chill' if warm else 'temper'} the dough to {say(wanted)} °C first.",
        )
    else:
        temperature = _bring(plan, block_mm, feel, same, kitchen, "same temperature")
    return Judgement(
        firmness, temperature, butter_firmness(feel.butter_c), dough_firmness(feel.dough_c), wanted
    )


def _by_hand(
    plan: Plan, block_mm: float, feel: Feel, kitchen: Kitchen, window: Window
) -> Judged | None:
    if feel.bend is Bend.CRACKS:
        to = max(window.plastic_from_c, feel.butter_c + 2)
        return _bring(
            plan, block_mm, feel, to, kitchen, "same firmness", "It cracks when it is bent"
        )
    if feel.bend is Bend.SMEARS:
        to = min(window.plastic_to_c - 1, feel.butter_c - 2)
        return _bring(
            plan, block_mm, feel, to, kitchen, "same firmness", "It smears under the hand"
        )
    return None


def _bring(
    plan: Plan,
    block_mm: float,
    feel: Feel,
    to_c: float,
    kitchen: Kitchen,
    school: str,
    why: str | None = None,
) -> Judged:
    """Chill or temper the block alone until its middle is at a temperature."""
    warm = feel.butter_c > to_c
    place = Place.FRIDGE if warm else Place.BENCH
    air_c = kitchen["fridge.c" if warm else "room.c"]
    why = why or (
        f"Butter at {say(feel.butter_c)} °C is {'softer' if warm else 'harder'} than dough at "
        f"{say(feel.dough_c)} °C"
    )
    minutes = _takes(plan, block_mm, feel.butter_c, to_c, air_c, kitchen, place)
    if minutes is None:
        there = f"{say(air_c)} °C"
        text = f"{why}, and at {there} it never comes to {say(to_c)} °C. Find it another place."
        return Judged(school, Call.CHILL if warm else Call.WAIT, None, place, text)
    rounded = max(1, round(minutes))
    what = "Chill the block" if warm else "Let the block stand"
    where = "in the fridge" if warm else "on the bench"
    text = f"{what} {rounded} min {where}, to {say(to_c)} °C: {why[0].lower()}{why[1:]}."
    return Judged(school, Call.CHILL if warm else Call.WAIT, minutes, place, text)


def _takes(
    plan: Plan,
    block_mm: float,
    from_c: float,
    to_c: float,
    air_c: float,
    kitchen: Kitchen,
    at: Place,
) -> float | None:
    table = thermal_of(butter_composition(plan), melts=True)
    made = butter_physics(plan, kitchen).density_kg_m3
    block = body([(True, block_mm)], (table, made), (table, made), from_c)
    film = 1 / (
        1 / kitchen["bench.film" if at is Place.BENCH else f"{at}.film"] + 1 / kitchen["wrap.film"]
    )
    course = conduct(block, Air(air_c, film), Air(air_c, film), _LONGEST_MIN)
    middles = course.t_c.mean(axis=1)
    return crossing(course.minutes, middles, to_c, falling=from_c > to_c)
