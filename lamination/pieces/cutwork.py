"""What comes of the cut: pieces, marks, what drifts, what is left over, trays and labels."""

from __future__ import annotations

from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Allergen
from lamination.pieces.cutting import Layout, Marks, Row, blank_of, chained, cut_from, lay_out
from lamination.pieces.finish import SIGNS, WASH_OF, WASHES, Oven, converted
from lamination.pieces.trays import work_trays
from lamination.plan.plan import Cut, Plan
from lamination.plan.worked import (
    CutProduct,
    Drift,
    Label,
    MarkedRow,
    WorkedCut,
    WorkedFinal,
    WorkedFinish,
)
from lamination.sheet.cells import Sheet
from lamination.sheet.coverage import full_shares, masses


def work_cut(
    plan: Plan, sheet: Sheet, final: WorkedFinal, per_mm3: tuple[float, float]
) -> WorkedCut | None:
    """Lay the plan's products on its last sheet. ``per_mm3``: g in a mm³ of dough and of butter.

    None where the plan has no cut. What is left over is booked with the butter that is in it.
    """
    cut = plan.cut
    if cut is None:
        return None
    size = final.size
    laid = lay_out(size, cut.products, cut.kerf_mm, cut.trim_mm, cut.shrink_pct, cut.across)
    per_mm2 = final.mass_g / (size.length_mm * size.width_mm)
    each: list[float] = []
    butter = 0.0
    for row in laid.rows:
        mm2 = laid.piece_mm2[row.product]
        each += masses(sheet, row.outlines, mm2, per_mm3)
        butter += sum(masses(sheet, row.outlines, mm2, (0.0, per_mm3[1])))
    used_g = laid.used_mm2 * per_mm2
    products = tuple(_product(cut, n, laid, per_mm2) for n in range(len(cut.products)))
    first = laid.rows[0] if laid.rows else None
    return WorkedCut(
        pieces=len(each),
        piece_g=products[0].piece_g,
        strips=len(laid.rows),
        per_strip=len(first.outlines) if first else 0,
        used_pct=100 * used_g / final.mass_g,
        trimmings_g=final.mass_g - used_g,
        trimmings_butter_g=max(sheet.volume_mm3(lambda s: s.butter_mm) * per_mm3[1] - butter, 0.0),
        outlines=laid.outlines,
        full_pct=full_shares(sheet, laid.outlines),
        each_g=tuple(each),
        products=products,
        rows=tuple(MarkedRow(r.product, r.from_mm, r.to_mm, r.marks) for r in laid.rows),
    )


def _product(cut: Cut, n: int, laid: Layout, per_mm2: float) -> CutProduct:
    product = cut.products[n]
    blank = blank_of(product, cut.shrink_pct, cut.across)
    mine = [r for r in laid.rows if r.product == n]
    piece_g = blank.mm2 * per_mm2
    return CutProduct(
        name=product.name,
        shape=product.shape,
        card=product.card,
        pieces=sum(len(r.outlines) for r in mine),
        piece_g=piece_g,
        filled_g=piece_g + product.filling_g,
        rows=len(mine),
        per_row=len(mine[0].outlines) if mine else 0,
        along_mm=blank.along_mm,
        across_mm=blank.across_mm,
        drift=_drift(mine[0], cut.kerf_mm, per_mm2) if mine else None,
    )


def _drift(row: Row, kerf_mm: float, per_mm2: float) -> Drift | None:
    """What marking each cut from the last does to a row."""
    if len(row.marks) != 2 or not kerf_mm:
        return None
    marks: tuple[Marks, Marks] = (row.marks[0], row.marks[1])
    wrong = chained(marks, kerf_mm)
    right_mm2, wrong_mm2 = cut_from(marks, kerf_mm), cut_from(wrong, kerf_mm)
    lighter = [(a - b) * per_mm2 for a, b in zip(right_mm2, wrong_mm2, strict=True)]
    return Drift(marks[0].along_mm[-1] - wrong[0].along_mm[-1], sum(lighter) / len(lighter))


def work_finish(
    plan: Plan, kitchen: Kitchen, cut: WorkedCut | None, thickness_mm: float
) -> WorkedFinish | None:
    """Trays, loads, the bake and the labels of a plan that goes on after its cut."""
    finish = plan.finish
    if finish is None or cut is None or plan.cut is None:
        return None
    blanks = tuple(blank_of(p, plan.cut.shrink_pct, plan.cut.across) for p in plan.cut.products)
    pieces = tuple(p.pieces for p in cut.products)
    trays = work_trays(plan.cut.products, blanks, pieces, thickness_mm, plan.family, kitchen)
    name, says = WASHES[finish.wash]
    other = Oven.FAN if finish.bake.oven is Oven.DECK else Oven.DECK
    return WorkedFinish(
        trays=trays,
        bake_min=finish.bake.minutes,
        loads=len(trays.oven_loads),
        wash=name,
        wash_says=says,
        other_oven=converted(finish.bake, other, kitchen),
        humidity_pct=kitchen["proof.humidity_pct"],
        signs=SIGNS,
        labels=labels_of(plan),
    )


def labels_of(plan: Plan) -> tuple[Label, ...]:
    """What each product's label names: allergens of dough, butter, filling and wash together.

    A dough without a formula is taken to hold gluten; what is not on the shelf cannot be known and is
    named as such. Local labelling law decides what a label must say.
    """
    if plan.cut is None:
        return ()
    common = [plan.butter_kind]
    if plan.formula:
        common += [what for what, _ in plan.formula.parts]
    washed = WASH_OF[plan.finish.wash] if plan.finish else ()
    common += [plan.shelf[key] for key in washed if key in plan.shelf]
    found = []
    for product in plan.cut.products:
        inside = list(common)
        unknown = None
        if product.filling and product.filling in plan.shelf:
            inside.append(plan.shelf[product.filling])
        elif product.filling:
            unknown = product.filling
        has = {a for what in inside for a in what.allergens}
        if plan.formula is None:
            has.add(Allergen.GLUTEN)
        names = tuple(dict.fromkeys(what.name for what in inside))
        found.append(Label(product.name, tuple(a for a in Allergen if a in has), names, unknown))
    return tuple(found)
