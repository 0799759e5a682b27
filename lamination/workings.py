"""How the numbers were got, one sentence each, with the baker's own figures in it."""

from __future__ import annotations

from lamination.limits import say
from lamination.lockin import Method
from lamination.plan import Plan
from lamination.worked import Layers, WorkedCut, WorkedFinal, WorkedLockIn, WorkedTurn, Working

_DOUGH_SHEETS = {
    Method.HALF: "twice the block's length, margins included: the bare half comes over",
    Method.TWO_THIRDS: "one and a half times the block's length: the bare third comes over first",
    Method.ENVELOPE: "block × √2 plus twice the overlap, a square laid at 45°",
}


def workings_of(
    plan: Plan,
    first: WorkedLockIn,
    steps: list[WorkedTurn],
    final: WorkedFinal,
    layers: Layers,
    cut: WorkedCut | None,
) -> tuple[Working, ...]:
    """The working of every number a screen leads with; ``of`` is its path in the worked plan."""
    butter_cm3 = plan.butter.mass_g / plan.butter.density_kg_m3 * 1_000
    dough_cm3 = plan.dough.mass_g / plan.dough.density_kg_m3 * 1_000
    block, sheet = first.block, first.dough_sheet
    found = [
        Working(
            "lock_in.block.thickness_mm",
            f"{say(plan.butter.mass_g)} g of butter at {say(plan.butter.density_kg_m3)} kg/m³ "
            f"is {say(butter_cm3)} cm³; over {say(block.width_mm)} × {say(block.length_mm)} mm "
            f"that stands {say(block.thickness_mm)} mm high.",
        ),
        Working(
            "lock_in.dough_sheet.length_mm",
            f"{say(sheet.length_mm)} mm: {_DOUGH_SHEETS[plan.lock_in.method]}.",
        ),
        Working(
            "lock_in.dough_sheet.thickness_mm",
            f"{say(plan.dough.mass_g)} g of dough at {say(plan.dough.density_kg_m3)} kg/m³ is "
            f"{say(dough_cm3)} cm³; over {say(sheet.width_mm)} × {say(sheet.length_mm)} mm "
            f"that stands {say(sheet.thickness_mm)} mm high.",
        ),
    ]
    thick, length = first.package.thickness_mm, first.package.width_mm
    count = first.layers.butter
    for i, step in enumerate(steps):
        found.append(
            Working(
                f"steps[{i}].rolled.length_mm",
                f"Rolled from {say(thick)} mm to {say(step.rolled.thickness_mm)} mm the package of "
                f"{say(length)} mm grows {say(thick / step.rolled.thickness_mm)} times as long: "
                f"{step.rolled.length_mm:.0f} mm. No dough is lost.",
            )
        )
        found.append(
            Working(
                f"steps[{i}].butter_layers",
                f"{count} × {step.fold.multiplies} = {step.butter_layers} butter layers; the dough "
                f"faces that meet fuse, so the dough leaves are {step.dough_layers}.",
            )
        )
        thick, length, count = step.folded.thickness_mm, step.folded.width_mm, step.butter_layers
    found.append(
        Working(
            "layers.butter_um",
            f"The butter's share of {say(final.thickness_mm)} mm, divided by {layers.butter} layers: "
            f"{say(layers.butter_um)} µm in the mean. Dough likewise: {say(layers.dough_um)} µm; "
            f"the outermost dough leaves are {say(layers.thinnest_dough_um)} µm.",
        )
    )
    found.append(
        Working(
            "final.length_mm",
            f"{say(butter_cm3 + dough_cm3)} cm³ at {say(final.thickness_mm)} mm thick and "
            f"{say(final.width_mm)} mm wide is {final.length_mm:.0f} mm long.",
        )
    )
    if plan.cut and cut:
        found.append(
            Working(
                "cut.piece_g",
                f"One piece covers {cut.used_pct / max(cut.pieces, 1):.3g} % of the sheet, so it takes "
                f"that share of {say(plan.dough.mass_g + plan.butter.mass_g)} g: {say(cut.piece_g)} g."
                if cut.pieces
                else f"Its share of the sheet's area gives {say(cut.piece_g)} g.",
            )
        )
        found.append(
            Working(
                "cut.pieces",
                f"{cut.strips} × {cut.per_strip}: strips of {say(plan.cut.height_mm)} mm across, times the "
                "pieces along each. Triangles lie alternately up and down: n of them use n + 1 half "
                "bases.",
            )
        )
    return tuple(found)
