"""The last sheet: rolled to its thickness and its width, and left to shrink before it is cut."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Literal

from lamination.kitchen.usual import unusual
from lamination.sheet.coverage import (
    CoverageMap,
    Layers,
    Section,
    coverage_map,
    layers_of,
    section_of,
)
from lamination.sheet.passes import Rolling, rolling
from lamination.sheet.rolls import rolled_to, size_of
from lamination.steps._fits import on_room, said_of_rolling, thickness_fix
from lamination.steps._package import masses_of
from lamination.steps._rolled import RolledStep
from lamination.steps.base import Chapter, Form, Handling, Here, Kind, Lies, Made, Setting
from lamination.steps.lock_in import LockIn
from lamination.steps.turn import Turn, by_flour, two_goes
from lamination.terms.advice import Note, Value, Working
from lamination.terms.rests import Rest
from lamination.terms.said import mm, say, um
from lamination.terms.sizes import Side, Size, Thickness, Uneven, over, under
from lamination.terms.trade import Machine, Place

_ALL_PCT = 99.5  # of a sheet: what is as good as all of it
_OPEN_CRUMB = 0.5  # of the fewest leaves that are usual
_EVEN = 1.02  # thickest over mean: what is as good as even


@dataclass(frozen=True)
class LastSheet(RolledStep):
    """Its thickness, its length, or two of its three sizes; ``uneven_pct``: a fault on purpose."""

    roll_to_mm: Thickness | None = None
    width_mm: Side | None = None
    uneven_pct: Uneven = 0.0
    length_mm: Side | None = None
    do: Literal["last_sheet"] = field(default="last_sheet", kw_only=True)


@dataclass(frozen=True, slots=True)
class LastSheetFigures:
    """The last sheet. ``turned``: whether the package was turned before the roll, as for a fold.

    ``mass_g`` is what is left of dough, butter and what was strewn in, after all trims; ``thinnest_mm`` and
    ``thickest_mm`` are its places farthest from the mean.
    """

    length_mm: float
    width_mm: float
    thickness_mm: float
    turned: bool
    layers: Layers
    section: Section
    mass_g: float
    map: CoverageMap
    thinnest_mm: float
    thickest_mm: float
    rolling: Rolling
    narrowest_mm: float
    do: Literal["last_sheet"] = "last_sheet"

    @property
    def size(self) -> Size:
        """Its three sizes."""
        return Size(self.length_mm, self.width_mm, self.thickness_mm)


def effect(step: LastSheet, lies: Lies, setting: Setting) -> Made:
    """The sheet, its leaves, and where they are. Raises Faults when it is not thinner."""
    rolled = rolled_to(lies.laminate, step.rolls_to, step.uneven_pct)
    sheet = rolled.sheet
    thinnest, thickest = sheet.extent_mm()
    figures = LastSheetFigures(
        length_mm=sheet.length_mm,
        width_mm=sheet.width_mm,
        thickness_mm=sheet.thickness_mm,
        turned=rolled.turned,
        layers=layers_of(sheet, lies.naive, lies.estimate),
        section=section_of(sheet),
        mass_g=masses_of(sheet, setting.recipe)[0] + lies.carried_g,
        map=coverage_map(sheet),
        thinnest_mm=thinnest,
        thickest_mm=thickest,
        rolling=rolling(size_of(rolled.starts), size_of(sheet), setting.rolled.machine),
        narrowest_mm=rolled.narrowest_mm,
    )
    there = replace(lies, form=Form.SHEET, size=size_of(sheet), sheet=sheet)
    return Made(there, figures, Handling(to_mm=sheet.thickness_mm, rolls=True))


def instruct(here: Here[LastSheet]) -> Iterator[str]:
    """How thin, how wide, and to let it shrink."""
    made = here.figures
    if here.step.roll_to_mm is None:
        yield f"Roll the last sheet to {mm(made.length_mm, made.width_mm)}"
        yield f"It comes to {mm(made.thickness_mm)} thick.{said_of_rolling(made.rolling)}"
        yield "Lift it and let it shrink before it is cut, not after."
        return
    yield f"Roll the last sheet to {mm(made.thickness_mm)}"
    wide = (
        f"First {mm(made.width_mm)} wide, then {mm(made.length_mm)} long."
        if here.step.width_mm
        else f"{mm(made.length_mm)} long, {mm(made.width_mm)} wide."
    )
    yield f"{wide}{said_of_rolling(made.rolling)}"
    yield "Lift it and let it shrink before it is cut, not after."


def mind(here: Here[LastSheet]) -> Iterator[Note]:
    """Thickness, leaves and where they are, and whether it lies there."""
    made = here.figures
    yield from on_room(here, made.size, made.narrowest_mm, made.turned)
    if two_goes(here):
        yield here.note(
            "second-go", "mind", "Half of the butter is left",
            "The second half of the butter goes in at the second turn, but this plan has no second turn. Add "
            "a turn, or lock in all the butter at once.",
        )  # fmt: skip
    yield from _on_leaves(here)
    yield from _on_coverage(here)


def _on_leaves(here: Here[LastSheet]) -> Iterator[Note]:
    made, family, kitchen = here.figures, here.recipe.family, here.kitchen
    layers: Layers = made.layers
    out = unusual(family, kitchen, "last_sheet_mm", made.thickness_mm)
    if out:
        yield here.note(
            "last-sheet", "mind", f"Last sheet {out.side} the usual",
            f"{mm(made.thickness_mm)}; {family.said} is usually {mm(out.low)} to {mm(out.high)}.",
            "roll_to_mm", [thickness_fix(here, out.nearest)],
        )  # fmt: skip
    if here.recipe.butterless:
        yield here.note(
            "count", "know", "No leaves",
            "There is no butter in it: where dough lies on dough, the two join, however often it is folded.",
        )  # fmt: skip
        return
    out = unusual(family, kitchen, "butter_layers", layers.butter)
    if out and not layers.estimate:
        few = out.side == "below"
        # half as many are chosen on purpose, for an open crumb
        open_crumb = few and layers.butter >= _OPEN_CRUMB * out.low
        yield here.note(
            "layers", "know" if open_crumb else "mind", f"{'Fewer' if few else 'More'} leaves than usual",
            f"{layers.butter} butter layers; {family.said} usually has {say(out.low)} to "
            f"{say(out.high)}. "
            + ("Thick leaves and an open crumb." if open_crumb
               else "Another fold adds leaves." if few else "One fold less keeps them apart."),
            values=[Value("butter_layers", layers.butter, "", leaves=True)], plan_field="steps",
        )  # fmt: skip
    out = unusual(family, kitchen, "butter_um", layers.butter_um)
    if out and not layers.estimate:
        text = (
            "Dough and butter may merge into something like brioche."
            if out.side == "below"
            else "So much butter in one leaf runs out in the oven. More folds make it thinner."
        )
        yield here.note(
            "butter-leaf", "mind", f"Butter leaves {out.side} the usual",
            f"{um(layers.butter_um)} each; usually {um(out.low)} to {um(out.high)}. {text}",
            "roll_to_mm", values=[Value("butter_um", layers.butter_um, "µm", leaves=True)],
        )  # fmt: skip
    grain = kitchen["thinnest_leaf_um"]
    if under(layers.dough_um, grain):
        yield here.note(
            "nominal", "know", "Leaves in name",
            f"A dough leaf of {um(layers.dough_um)} is thinner than a large starch grain (about "
            f"{um(grain)}): the count is nominal.",
            values=[Value("dough_um", layers.dough_um, "µm", leaves=True)],
        )  # fmt: skip
    count = [Value("butter_layers", layers.butter, "", leaves=True)]
    if layers.estimate:
        yield here.note(
            "count", "know", f"About {layers.butter} butter layers",
            "The butter went in as lumps, so its leaves were never countable: this is an estimate.",
            values=count,
        )  # fmt: skip
    else:
        yield here.note(
            "count", "know", f"{layers.butter} butter layers",
            f"With the dough that is {layers.total} leaves. Multiplying alone gives {layers.naive}, but "
            "where a fold lays dough on dough the two become one leaf.",
            values=count,
        )  # fmt: skip


def _on_coverage(here: Here[LastSheet]) -> Iterator[Note]:
    made = here.figures
    layers: Layers = made.layers
    if layers.more_pct > 100 - _ALL_PCT:
        yield here.note(
            "tucked", "know", f"More leaves where trimmings were tucked in: up to {layers.most}",
            f"{say(layers.more_pct)} % of the sheet; everywhere else it has {layers.butter} butter layers "
            "or nearly so.",
        )  # fmt: skip
    if layers.full_pct < _ALL_PCT:
        yield here.note(
            "coverage", "mind", "Bare edges folded in",
            f"{say(layers.full_pct)} % of the sheet has all {layers.butter} butter layers: "
            f"{_because(here)} The map of the leaves shows where.",
            values=[Value("full_pct", layers.full_pct, "%", leaves=True)],
        )  # fmt: skip
    uneven = here.step.uneven_pct or any(s.uneven_pct for _, s, _ in here.all_of(Turn))
    if over(made.thickest_mm, made.thickness_mm * _EVEN) and uneven:
        yield here.note(
            "uneven", "mind", "Thicker on one side",
            f"From {mm(made.thinnest_mm)} to {mm(made.thickest_mm)}. Pieces from the thick side weigh "
            "more and bake later. Even the gap, or turn the sheet end for end between passes.",
            "uneven_pct",
        )  # fmt: skip


def _because(here: Here[LastSheet]) -> str:
    locks = [s for _, s, _ in here.all_of(LockIn)]
    turns = [s for _, s, _ in here.all_of(Turn)]
    margin = locks[0].margin_mm if locks else 0.0
    if margin:
        return (
            f"{mm(margin)} of bare dough at the lock-in lies in the folds. Bring the butter to the edge, "
            "or trim before each fold."
        )
    if any(t.short_mm for t in turns) or (locks and locks[0].off_centre_mm):
        return "flaps that fall short or a block off centre leave places with fewer."
    return "the leaves lie unevenly in the folds."


def relaxing(here: Here[LastSheet]) -> float:
    """Minutes it shrinks before the cut."""
    return here.kitchen["relax.final_min"] * by_flour(here)


def workings(here: Here[LastSheet]) -> Iterator[Working]:
    """How its leaves and its length were got."""
    made = here.figures
    layers: Layers = made.layers
    yield here.works(
        "layers.butter_um",
        f"The butter's share of {mm(made.thickness_mm)}, divided by {layers.butter} layers: "
        f"{um(layers.butter_um)} on average. Dough likewise: {um(layers.dough_um)}; the outermost dough "
        f"leaves are {um(layers.thinnest_dough_um)}.",
    )
    yield here.works(
        "length_mm",
        f"{say(made.size.volume_mm3 / 1000)} cm³ at {mm(made.thickness_mm)} thick and "
        f"{mm(made.width_mm)} wide is {mm(made.length_mm)} long.",
    )


KIND = Kind(
    of=LastSheet,
    do="last_sheet",
    name="Last sheet",
    stem="final",
    rank=60,
    chapter=Chapter.CUT,
    takes=frozenset((Form.PACKAGE,)),
    leaves=Form.SHEET,
    effect=effect,
    figures=LastSheetFigures,
    instruct=instruct,
    mind=mind,
    workings=workings,
    minutes="minutes.last_sheet",
    machine=Machine.SHEETER,
    relaxing=relaxing,
    needed=True,
    fresh=lambda _, __: LastSheet(4, rest=Rest.at(Place.FRIDGE, 10)),
    caution="At a sheeter: guards down, no loose sleeves, follow the maker's manual.",
)
