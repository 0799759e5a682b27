"""The lock-in: butter shut in dough, by every way the trade knows; and all the lock-in is asked for."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from lamination.dough.block import FoldBack, Plaques, fold_back, plaques_for, said_of_plaques
from lamination.dough.recipe import Recipe
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.usual import outside, unusual
from lamination.materials.composition import density_kg_m3
from lamination.sheet.cells import Sheet, turn
from lamination.sheet.coverage import Layers, Section, layers_of, section_of
from lamination.sheet.lockin import LockedIn, lock_in
from lamination.sheet.stacks import Material, walk
from lamination.steps._closing import CLOSING, DOUGH_SHEETS
from lamination.steps._package import butter_weighed, on_shelf
from lamination.steps.base import (
    Chapter,
    Form,
    Handling,
    Here,
    Kind,
    Lies,
    Made,
    Setting,
    Step,
    Weighs,
)
from lamination.terms.advice import Fix, Note, Put, Working
from lamination.terms.limits import Range
from lamination.terms.said import g, listed, mm, named, say
from lamination.terms.sizes import Edge, Side, Size
from lamination.terms.trade import Machine, Method

_MOST_LAYERS = 60  # a package of more is taken as evenly mixed


@dataclass(frozen=True)
class LockIn(Step):
    """The way the butter goes in, and the block's two sides; its thickness follows.

    ``margin_mm``: bare dough round the block. ``overlap_mm``: by which an envelope's flaps pass each
    other. ``off_centre_mm``: a fault on purpose. ``lump_mm``: the side of the lumps of a quick puff.
    ``share_pct``: of the dough, where butter covers a share; ``flap_pct``: how thick the flaps of a
    thick middle are, of that middle.
    """

    method: Method
    block_width_mm: Side
    block_length_mm: Side
    margin_mm: Edge = 0.0
    overlap_mm: Edge = 0.0
    off_centre_mm: Annotated[float, Range(-300, 300, "mm")] = 0.0
    lump_mm: Annotated[float, Range(3, 100, "mm")] = 20.0
    share_pct: Annotated[float, Range(34, 100, "%")] = 75.0
    flap_pct: Annotated[float, Range(5, 100, "%")] = 25.0
    do: Literal["lock_in"] = field(default="lock_in", kw_only=True)


@dataclass(frozen=True, slots=True)
class LockInFigures:
    """Block, dough sheet and package; where the creases lie along the dough sheet.

    ``now_g``: what goes in now, of a block in two goes the first half. ``plaques`` and ``fold_back``:
    how the block is made; None where there is none to make.
    """

    block: Size
    dough_sheet: Size
    package: Size
    creases_mm: tuple[float, ...]
    block_over_dough: float
    now_g: float
    layers: Layers
    section: Section
    plaques: Plaques | None
    fold_back: FoldBack | None
    do: Literal["lock_in"] = "lock_in"


def locked(step: LockIn, recipe: Recipe) -> LockedIn:
    """Block, dough sheet, package and the exact sheet of a lock-in. Raises Faults by its fields."""
    return lock_in(
        step.method,
        recipe.dough_physics.volume_mm3(recipe.dough.mass_g),
        recipe.butter_physics.volume_mm3(recipe.block_g),
        step.block_width_mm,
        step.block_length_mm,
        step.margin_mm,
        step.overlap_mm,
        step.off_centre_mm,
        step.lump_mm,
        step.share_pct / 100,
        step.flap_pct / 100,
    )


def effect(step: LockIn, lies: Lies, setting: Setting) -> Made:
    """The package as it lies for its first roll."""
    recipe, kitchen = setting.recipe, setting.kitchen
    found = locked(step, recipe)
    naive = found.sheet.fullest().leaves
    estimate = step.method is Method.LUMPS
    two = step.method is Method.TWO_GO
    figures = LockInFigures(
        found.block,
        found.dough_sheet,
        found.package,
        found.creases_mm,
        found.block.thickness_mm / found.dough_sheet.thickness_mm,
        recipe.block_g / 2 if two else recipe.block_g,
        layers_of(found.sheet, naive, estimate),
        section_of(found.sheet),
        *_made_of(step, recipe, kitchen, found.block),
    )
    there = replace(
        lies,
        form=Form.PACKAGE,
        size=found.package,
        sheet=turn(found.sheet),
        naive=naive,
        turns=0,
        estimate=estimate,
        later_pct=recipe.later_pct,
        waiting_mm3=found.block.volume_mm3 if two else 0.0,
    )
    cold = step.method is Method.LUMPS
    return Made(there, figures, Handling(shut_in=_leaves(found.sheet), kept_cold=cold))


def _made_of(
    step: LockIn, recipe: Recipe, kitchen: Kitchen, block: Size
) -> tuple[Plaques | None, FoldBack | None]:
    """The block from plaques, and its conditioning; flour is worked in, so nothing is joined then."""
    butter = recipe.butter
    if not step.method.has_block:
        return None, None
    back = fold_back(block, butter.fold_back) if butter.fold_back > 1 else None
    if butter.flour_pct or butter.holds:
        return None, back
    own = butter.plaque
    length, width, mass = (
        (own.length_mm, own.width_mm, own.mass_g)
        if own
        else (kitchen["plaque.length_mm"], kitchen["plaque.width_mm"], kitchen["plaque.mass_g"])
    )
    pure = density_kg_m3(recipe.butter_kind.composition, kitchen["dough.physics_c"]) * (
        1 - kitchen["dough.butter_gas_pct"] / 100
    )
    plaque = Size(length, width, mass / pure * 1e6 / (length * width))
    grams = recipe.block_g / 2 if step.method is Method.TWO_GO else recipe.block_g
    return plaques_for(grams, block, plaque, mass), back


def _leaves(sheet: Sheet) -> tuple[tuple[bool, float], ...]:
    """The leaves of a package from bottom to top, for its warmth: (is butter, mm)."""
    stack, press = sheet.fullest(), sheet.press
    if stack.leaves <= _MOST_LAYERS:
        return tuple((n.material is Material.BUTTER, n.thickness * press) for n in walk(stack))
    share, thin = stack.butter_mm / stack.thickness, stack.thickness * press / _MOST_LAYERS
    pair = ((False, thin * (1 - share)), (True, thin * share))
    return pair * _MOST_LAYERS


def instruct(here: Here[LockIn]) -> Iterator[str]:
    """What goes in, how it is made, on what dough, and how it is shut in."""
    step, made, butter = here.step, here.figures, here.recipe.butter
    sheet, block = made.dough_sheet, made.block
    if step.method is Method.NONE:
        yield f"Roll the dough to {mm(sheet.length_mm, sheet.width_mm)}, without butter"
        yield f"{mm(sheet.thickness_mm)} thick. {CLOSING[step.method]}"
        return
    if step.method is Method.LUMPS:
        yield f"Press it to {mm(sheet.length_mm, sheet.width_mm)}"
        yield f"{mm(made.package.thickness_mm)} thick, from a dough with {g(made.now_g)} of butter in it."
        yield CLOSING[step.method]
        return
    yield f"Lock in {g(made.now_g)} of butter" + (
        ", the first half" if step.method is Method.TWO_GO else ""
    )
    if step.method is Method.SPREAD:
        yield f"Soft enough to spread: it comes to {mm(block.thickness_mm)} all over."
    else:
        yield (
            f"Block {mm(block.width_mm, block.length_mm)}, {mm(block.thickness_mm)} thick: it should "
            "bend without cracking."
        )
        how = " ".join(_block_making(here))
        if how:
            yield how
    if step.method is Method.CROSS:
        thin = sheet.thickness_mm * step.flap_pct / 100
        yield (
            f"Dough: a middle of {mm(sheet.length_mm, sheet.width_mm)}, {mm(sheet.thickness_mm)} thick, "
            f"and a flap as large on each side, {mm(thin)} thick."
        )
    else:
        yield f"Dough {mm(sheet.length_mm, sheet.width_mm)}, {mm(sheet.thickness_mm)} thick."
    yield CLOSING[step.method]
    if butter.flour_pct and step.method.butter_outside:
        yield "Keep the butter outside well floured: it sticks where it softens."


def _name(here: Here[LockIn], what: str) -> str:
    thing = here.recipe.shelf.find(what)
    return named((thing.name if thing else what).lower())


def _block_making(here: Here[LockIn]) -> Iterator[str]:
    butter, made = here.recipe.butter, here.figures
    if butter.flour_pct:
        yield (
            f"{g(butter.pure_g)} of butter and {g(butter.flour_g)} of flour, worked together until no "
            "flour shows, and pressed to size."
        )
    if butter.holds:
        parts = [f"{g(mass_g)} of {_name(here, what)}" for what, mass_g in butter.held]
        yield f"Work {listed(parts)} into {g(butter.pure_g)} of soft butter, press it to size and chill it."
    plaques: Plaques | None = made.plaques
    if plaques:
        yield from said_of_plaques(plaques, made.block)
    back: FoldBack | None = made.fold_back
    if back:
        yield (
            f"Roll it to {mm(back.roll_to_mm)}, {mm(back.length_mm, back.width_mm)}, and fold it in "
            f"{back.folds}: pliable, and still cold."
        )


def mind(here: Here[LockIn]) -> Iterator[Note]:
    """Butter share, block, the two thicknesses, edges and corners."""
    if here.recipe.butterless:
        yield from on_shelf(here, here.figures.package)
        return
    yield from _on_share(here)
    if here.step.method.has_block:
        yield from _on_block(here)
        yield from _on_plaques(here)
    yield from _on_edges(here)
    yield from on_shelf(here, here.figures.package)


def _on_share(here: Here[LockIn]) -> Iterator[Note]:
    recipe = here.recipe
    share = recipe.shares.of_dough_pct
    out = unusual(recipe.family, here.kitchen, "butter_share_pct", share)
    if not out:
        return
    lean = (
        "Leaves may stick and the crumb closes."
        if out.side == "below"
        else "Fat may run out in proof and oven."
    )
    near = round(out.nearest / share * recipe.butter.mass_g)
    yield here.note(
        "butter-share", "mind", f"Butter {out.side} the usual",
        f"{say(share)} % of the dough; {recipe.family.said} is usually {say(out.low)} to "
        f"{say(out.high)} %. {lean} {g(near)} would be within the usual range.",
        fixes=[Fix(f"{g(near)} of butter", (Put("butter.mass_g", float(near)),))],
        plan_field="butter.mass_g",
    )  # fmt: skip


def _grown(here: Here[LockIn], times: float) -> list[Fix]:
    """Both sides of the block so many times as long, in whole mm."""
    step = here.step
    width, length = (round(s * times) for s in (step.block_width_mm, step.block_length_mm))
    if not (10 <= width <= 5_000 and 10 <= length <= 5_000):
        return []
    label = f"Block {mm(width, length)}"
    return [here.fix(label, block_width_mm=float(width), block_length_mm=float(length))]


def _on_block(here: Here[LockIn]) -> Iterator[Note]:
    block, ratio, kitchen = here.figures.block, here.figures.block_over_dough, here.kitchen
    out = outside(block.thickness_mm, kitchen["block_mm.low"], kitchen["block_mm.high"])
    if out and not here.step.method.butter_outside:
        word = "thin" if out.side == "below" else "thick"
        why = (
            "It cracks and warms before it is in."
            if word == "thin"
            else "It stays hard inside while its faces soften."
        )
        # a little inside the range: sides are whole mm
        inside = out.nearest * (1.01 if out.side == "below" else 0.99)
        yield here.note(
            "block-thickness", "mind", f"A {word} block",
            f"{mm(block.thickness_mm)}; {mm(out.low)} to {mm(out.high)} is usual. {why}",
            "block_width_mm", _grown(here, math.sqrt(block.thickness_mm / inside)),
        )  # fmt: skip
    far = unusual(here.recipe.family, kitchen, "block_over_dough", ratio)
    # of two goes each lays half of it, strewn or spread: no block that could break
    laid = here.step.method not in (Method.SPREAD, Method.TWO_GO)
    if far and laid and not here.step.method.butter_outside:
        text = (
            "The dough over it stretches faster than the butter and may tear."
            if far.side == "above"
            else "So thin a layer breaks into islands at the first roll."
        )
        times = "as thick as" if math.isclose(ratio, 1, rel_tol=0.01) else f"{say(ratio)} times"
        yield here.note(
            "block-ratio", "mind", "Butter and dough far apart",
            f"The butter is {times}{'' if times.startswith('as') else ' as thick as'} the dough under it; "
            f"{say(far.low)} to {say(far.high)} times is usual here. {text}",
            "block_length_mm",
        )  # fmt: skip


def _on_edges(here: Here[LockIn]) -> Iterator[Note]:
    step, made = here.step, here.figures
    if step.overlap_mm:
        yield here.note(
            "overlap", "know", "Flaps that overlap",
            f"They pass each other by {mm(step.overlap_mm)}. Along the seams dough lies on dough, which "
            "never becomes leaves: as little as holds them shut.",
            "overlap_mm",
        )  # fmt: skip
    elif step.method is Method.ENVELOPE:
        yield here.note(
            "edges", "good", "Corners that meet",
            f"A square of {mm(made.dough_sheet.length_mm)} wraps the block with nothing doubled.",
        )  # fmt: skip
    elif step.method.has_margin and not step.margin_mm:
        yield here.note(
            "edges", "good", "Butter to every edge",
            f"Block and dough sheet share their sides: {mm(made.block.width_mm)} across, the dough "
            f"{mm(made.dough_sheet.length_mm)} long.",
        )  # fmt: skip


def _on_plaques(here: Here[LockIn]) -> Iterator[Note]:
    plaques: Plaques | None = here.figures.plaques
    if plaques is None or plaques.whole:
        return
    recipe = here.recipe
    own = recipe.butter.plaque
    whole_g = own.mass_g if own else here.kitchen["plaque.mass_g"]
    dough_g = whole_g / recipe.block_g * recipe.dough.mass_g
    yield here.note(
        "plaque", "know", "A plaque bigger than the block",
        f"One plaque weighs {g(whole_g)}, the block {g(recipe.block_g)}. Cut "
        f"{mm(plaques.part_length_mm)} off its length and keep the rest wrapped; a dough of {g(dough_g)} "
        "would take it whole.",
        plan_field="butter.plaque.mass_g",
    )  # fmt: skip


def workings(here: Here[LockIn]) -> Iterator[Working]:
    """How block and dough sheet were got."""
    recipe, made = here.recipe, here.figures
    if recipe.butterless:
        return
    block, sheet = made.block, made.dough_sheet
    butter_kg_m3 = recipe.butter_physics.density_kg_m3
    dough_kg_m3 = recipe.dough_physics.density_kg_m3
    yield here.works(
        "block.thickness_mm",
        f"{g(made.now_g)} of butter at {say(butter_kg_m3)} kg/m³ is "
        f"{say(made.now_g / butter_kg_m3 * 1000)} cm³; over {mm(block.width_mm, block.length_mm)} that "
        f"stands {mm(block.thickness_mm)} high.",
    )
    yield here.works(
        "dough_sheet.length_mm", f"{mm(sheet.length_mm)}: {DOUGH_SHEETS[here.step.method]}."
    )
    yield here.works(
        "dough_sheet.thickness_mm",
        f"{g(recipe.dough.mass_g)} of dough at {say(dough_kg_m3)} kg/m³ is "
        f"{say(recipe.dough.mass_g / dough_kg_m3 * 1000)} cm³; over {mm(sheet.width_mm, sheet.length_mm)} "
        f"that stands {mm(sheet.thickness_mm)} high.",
    )


def weighs(here: Here[LockIn]) -> Iterator[Weighs]:
    """The butter that goes in now; lumps went in when the dough was mixed, if it was."""
    if here.recipe.butterless:
        return
    mixed = any(s.kind_name == "mix" for s in here.steps[: here.n])
    if not (here.step.method is Method.LUMPS and mixed):
        share = 1 - here.recipe.later_pct / 100
        share *= 0.5 if here.step.method is Method.TWO_GO else 1.0
        yield butter_weighed(here.recipe, here.step.id, share)


def relaxing(here: Here[LockIn]) -> float:
    """Minutes the gluten wants after the lock-in."""
    return here.kitchen["relax.lock_in_min"]


KIND = Kind(
    of=LockIn,
    do="lock_in",
    name="Lock-in",
    stem="lock_in",
    rank=40,
    chapter=Chapter.TURNS,
    takes=frozenset((Form.NOTHING, Form.DOUGH)),
    leaves=Form.PACKAGE,
    effect=effect,
    figures=LockInFigures,
    instruct=instruct,
    mind=mind,
    workings=workings,
    weighs=weighs,
    minutes="minutes.lock_in",
    machine=Machine.SHEETER,
    relaxing=relaxing,
    needed=True,
    wants=lambda step, recipe: locked(step, recipe).dough_sheet,
    fresh=lambda _, __: LockIn(Method.HALF, 260, 210),
    caution="Allergens stand on the weigh-out sheet: name them on every label.",
)
