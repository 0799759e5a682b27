"""The bake, in stages, load after load."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from lamination.kitchen.kitchen import Kitchen
from lamination.pieces.baking import Bake, Oven, Stage, converted
from lamination.steps.base import (
    Ahead,
    Alarm,
    Chapter,
    Form,
    Here,
    Kind,
    Lies,
    Made,
    Setting,
    Step,
    changes,
)
from lamination.terms.advice import Note
from lamination.terms.limits import Range
from lamination.terms.rests import Rest
from lamination.terms.said import c, counted, span
from lamination.terms.trade import Machine, Place

_UNMOULD_MIN = 5.0
_SWEATS_MIN = 20.0  # in its tin


@dataclass(frozen=True)
class Baking(Step):
    """A bake; the rest after it is the cooling. ``moulded``: in rings, tins or moulds; ``unmould_min``:
    out of them after so long, None as usual; ``sugared``: with sugar that melts, so that it has to
    come out of them while that is hot.
    """

    bake: Bake
    moulded: bool = False
    unmould_min: Annotated[float, Range(0, 120, "min")] | None = None
    sugared: bool = False
    do: Literal["bake"] = field(default="bake", kw_only=True)

    @property
    def unmould_after(self) -> float:
        """Out of rings, tins or moulds after so long, min."""
        return _UNMOULD_MIN if self.unmould_min is None else self.unmould_min


@dataclass(frozen=True, slots=True)
class BakeFigures:
    """Minutes of one load, how many loads, the same bake in the other kind of oven, and what is lost."""

    bake_min: float
    loads: int
    other_oven: Bake
    loss_pct: float
    do: Literal["bake"] = "bake"


def effect(step: Baking, lies: Lies, setting: Setting) -> Made:
    """The pieces baked, in as many loads as their trays need."""
    figures = BakeFigures(
        step.bake.minutes,
        lies.oven_loads,
        converted(step.bake, step.bake.oven.other, setting.kitchen),
        setting.kitchen["bake.loss_pct"],
    )
    return Made(replace(lies, form=Form.BAKED), figures)


def _minutes(step: Baking, figures: BakeFigures, kitchen: Kitchen) -> float:
    return step.bake.minutes * max(figures.loads, 1)


def _steam(stage: Stage) -> str:
    if not stage.steam:
        return ""
    return f" with {stage.steam_s:g} s of steam" if stage.steam_s else " with steam"


def instruct(here: Here[Baking]) -> Iterator[str]:
    """The programme, and the signs it is done by."""
    step, bake = here.step, here.step.bake
    stages = [f"{span(s.minutes)} at {c(s.oven_c)}{_steam(s)}" for s in bake.stages]
    yield f"Bake {span(bake.minutes)}"
    heats = span(5.0 * round(heats_min(bake, here.kitchen) / 5))
    yield f"It heats up in about {heats}: switch it on that long before, unless it is hot already."
    if bake.preheat_c is not None:
        yield f"Oven heated to {c(bake.preheat_c)} before; set it back as the trays go in."
    yield f"{', then '.join(stages)}, {bake.oven.said} oven."
    if bake.docked:
        yield "Dock it, so that it stays low."
    if bake.turn_tray:
        yield "Turn the tray half-way."
    core = f"{c(bake.core_c)} in the middle, " if bake.core_c else ""
    yield f"Done: {core}{bake.colour.said}, light for its size."
    if here.figures.loads > 1:
        yield f"{counted(here.figures.loads, 'load')}, one after another."
    if step.moulded and step.sugared:
        yield (
            "Unmould while the sugar is hot: dry gloves, tools ready, nobody close. Melted sugar burns "
            "deeply."
        )
    elif step.moulded:
        after = step.unmould_after
        # what stands for long in its tin sweats there: that is no reason any more by then
        why = ", before the bottom sweats" if after <= _SWEATS_MIN else ""
        yield f"Unmould after {span(after)}{why}."


def heats_min(bake: Bake, kitchen: Kitchen) -> float:
    """How long the oven heats up from the room for a bake, min. Source: rows of the kitchen."""
    to_c = bake.stages[0].oven_c if bake.preheat_c is None else bake.preheat_c
    return max(to_c - kitchen["room.c"], 0.0) / kitchen[f"oven.{bake.oven}.heats_k_min"]


def ahead(here: Here[Baking]) -> Iterator[Ahead]:
    """The oven is switched on so that it is hot when the trays go in."""
    bake = here.step.bake
    to_c = bake.stages[0].oven_c if bake.preheat_c is None else bake.preheat_c
    yield Ahead(heats_min(bake, here.kitchen), f"heat the oven to {c(to_c)}")


def alarms(here: Here[Baking]) -> Iterator[Alarm]:
    """Steam off, heat turned down, trays turned, out; out of their tins; and cooled."""
    step, bake = here.step, here.step.bake
    found: dict[float, list[str]] = {}
    minute = 0.0
    for stage, then in zip(bake.stages, (*bake.stages[1:], None), strict=True):
        if stage.steam and 0 < stage.steam_s < 60 * stage.minutes:
            found.setdefault(minute + stage.steam_s / 60, []).append("steam off")
        minute += stage.minutes
        if then is None:
            break
        if stage.steam and not stage.steam_s and not then.steam:
            found.setdefault(minute, []).append("let the steam out")
        if then.oven_c != stage.oven_c:
            found.setdefault(minute, []).append(f"set the oven to {c(then.oven_c)}")
    if bake.turn_tray:
        found.setdefault(bake.minutes / 2, []).append("turn the trays")
    for at, says in sorted(found.items()):
        yield Alarm("in", at, ", ".join(says))
    yield Alarm("in", None, "look at the colour, take it out")
    if step.moulded and not step.sugared and step.unmould_after > 0:
        yield Alarm("done", step.unmould_after, "out of the tin")
    if step.rests:
        yield from changes(step)
        yield Alarm("done", None, "cooled")


def mind(here: Here[Baking]) -> Iterator[Note]:
    """Several loads."""
    made = here.figures
    if made.loads > 1:
        yield here.note(
            "oven-loads", "know", f"{made.loads} loads of the oven",
            f"The last goes in {span((made.loads - 1) * made.bake_min)} after the first: bring its trays "
            "out of the proofer that much later, or they over-proof.",
        )  # fmt: skip


def _fresh(steps: tuple[Step, ...], _: int) -> Baking:
    bake = Bake(Oven.DECK, (Stage(4, 220, steam=True), Stage(14, 190)), core_c=94)
    return Baking(bake, rest=Rest.at(Place.BENCH, 30))


KIND = Kind(
    of=Baking,
    do="bake",
    name="Bake",
    stem="bake",
    rank=100,
    chapter=Chapter.OVEN,
    takes=frozenset((Form.SHAPED,)),
    leaves=Form.BAKED,
    effect=effect,
    figures=BakeFigures,
    instruct=instruct,
    mind=mind,
    minutes=_minutes,
    alarms=alarms,
    ahead=ahead,
    machine=Machine.OVEN,
    by_tray=True,
    loads=True,
    fresh=_fresh,
    caution="Hot trays and steam: open the door from the side, dry cloths, a clear way. Melted sugar "
    "burns deeply.",
)
