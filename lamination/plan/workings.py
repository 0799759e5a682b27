"""How the numbers were got, one sentence each, with the baker's own figures in it."""

from __future__ import annotations

from lamination.materials.ingredients import Kind
from lamination.plan.plan import Plan
from lamination.plan.worked import WorkedCut, WorkedPlan, Working
from lamination.sheet.lockin import Method
from lamination.terms.limits import say

_DOUGH_SHEETS = {
    Method.HALF: "twice the block's length, margins included: the bare half comes over",
    Method.TWO_THIRDS: "one and a half times the block's length: the bare third comes over first",
    Method.HALF_STACKED: "twice the block's length, margins included: the bare half is laid on",
    Method.GATE: "twice the block's length: a bare quarter at each end folds in",
    Method.OPEN_SIDED: "twice the block's length: a bare quarter at each end is laid on",
    Method.INVERSE: "half the butter sheet's length: the butter goes round it",
    Method.SPREAD: "as long as the sheet the butter is spread on",
    Method.TWO_GO: "as long as the sheet the butter is laid on",
    Method.LUMPS: "as long as the sheet it is first pressed to",
    Method.ENVELOPE: "block × √2 plus twice the overlap, a square laid at 45°",
}


def workings_of(plan: Plan, worked: WorkedPlan) -> tuple[Working, ...]:
    """The working of every number a screen leads with; ``of`` is its path in the worked plan."""
    first, steps, final = worked.lock_in, worked.steps, worked.final
    layers, cut = worked.layers, worked.cut
    butter_kg_m3 = worked.butter.physics.density_kg_m3
    dough_kg_m3 = worked.dough.density_kg_m3
    butter_cm3 = plan.butter.mass_g / butter_kg_m3 * 1_000
    dough_cm3 = plan.dough.mass_g / dough_kg_m3 * 1_000
    block, sheet = first.block, first.dough_sheet
    found = [
        *_of_formula(plan, worked),
        Working(
            "lock_in.block.thickness_mm",
            f"{say(plan.butter.mass_g)} g of butter at {say(butter_kg_m3)} kg/m³ "
            f"is {say(butter_cm3)} cm³; over {say(block.width_mm)} × {say(block.length_mm)} mm "
            f"that stands {say(block.thickness_mm)} mm high.",
        ),
        Working(
            "lock_in.dough_sheet.length_mm",
            f"{say(sheet.length_mm)} mm: {_DOUGH_SHEETS[plan.lock_in.method]}.",
        ),
        Working(
            "lock_in.dough_sheet.thickness_mm",
            f"{say(plan.dough.mass_g)} g of dough at {say(dough_kg_m3)} kg/m³ is "
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
            f"{say(final.size.volume_mm3 / 1000)} cm³ at {say(final.thickness_mm)} mm thick and "
            f"{say(final.width_mm)} mm wide is {final.length_mm:.0f} mm long.",
        )
    )
    if plan.cut and cut:
        found.append(
            Working(
                "cut.piece_g",
                f"One piece covers {100 * cut.piece_g / final.mass_g:.3g} % of the sheet, so it takes that "
                f"share of {say(final.mass_g)} g: {say(cut.piece_g)} g.",
            )
        )
        found.append(
            Working(
                "cut.pieces",
                f"{_rows_said(cut)}: rows of each, times the pieces along one. Triangles lie alternately "
                "up and down: n of them use n + 1 half bases.",
            )
        )
    return tuple(found)


def _of_formula(plan: Plan, worked: WorkedPlan) -> list[Working]:
    butter, dough = plan.butter.mass_g, plan.dough.mass_g
    found = [
        Working(
            "butter_share.of_dough_pct",
            f"{say(butter)} g of butter on {say(dough)} g of dough: "
            f"{say(worked.butter_share.of_dough_pct)} %.",
        ),
        Working(
            "butter_share.of_whole_pct",
            f"{say(butter)} g in {say(dough)} + {say(butter)} g: "
            f"{say(worked.butter_share.of_whole_pct)} %.",
        ),
        Working("dough.density_kg_m3", _density(plan, worked)),
    ]
    made, formula = worked.formula, plan.formula
    if made is None or formula is None:
        return found
    carried = [
        f"{what.name.lower()} {say(pct)} × {say(what.composition.water_pct)} %"
        for what, pct in formula.parts
        if what.kind is not Kind.FLOUR and pct * what.composition.water_pct > 1
    ]
    found += [
        Working(
            "butter_share.of_flour_pct",
            f"{say(butter)} g of butter on {say(made.flour_g)} g of flour, that of preferments and "
            f"old dough included: {say(worked.butter_share.of_flour_pct or 0)} %.",
        ),
        Working(
            "formula.balance.nominal_hydration_pct",
            f"Water and milk on 100 of flour: {say(made.balance.nominal_hydration_pct)} %.",
        ),
        Working(
            "formula.balance.true_hydration_pct",
            f"The water in everything but the flour: {', '.join(carried) or 'none'}; together "
            f"{say(made.balance.true_hydration_pct)} % on flour.",
        ),
    ]
    if made.water:
        found.append(
            Working(
                "formula.water.water_c",
                f"Heat balance: what flour, preferment and the rest bring to the bowl, and "
                f"{say(made.water.friction_k)} K from mixing ({say(formula.mixing.slow_min)} min slow, "
                f"{say(formula.mixing.fast_min)} min fast), leave water of "
                f"{say(made.water.water_c)} °C for a dough of {say(formula.mixing.wanted_c)} °C"
                + (
                    f". The tap gives {say(made.water.tap_c)} °C: melting {say(made.water.ice_g)} g "
                    "of ice takes the difference (333.6 kJ per kg)."
                    if made.water.ice_g
                    else "."
                ),
            )
        )
    for j, p in enumerate(made.preferments):
        found.append(
            Working(
                f"formula.preferments[{j}].tub_l",
                f"{say(p.total_g)} g fills {say(p.volume_l)} l, rises to {say(p.rises_to_l)} l, and "
                f"wants room above that: {say(p.tub_l)} l.",
            )
        )
    return found


def _density(plan: Plan, worked: WorkedPlan) -> str:
    density = say(worked.dough.density_kg_m3)
    if plan.dough.density_kg_m3 is not None:
        return f"{density} kg/m³: your own figure."
    if worked.formula is None:
        return f"{density} kg/m³: a cold, degassed yeasted dough, from trade practice."
    return (
        f"{density} kg/m³ from the formula: its water, protein, fat, carbohydrate and ash by mass, "
        "and the kitchen's share of gas (published densities)."
    )


def _rows_said(cut: WorkedCut) -> str:
    return ", ".join(f"{p.rows} × {p.per_row}" for p in cut.products)
