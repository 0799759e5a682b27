"""What to do at each stop, in words with the plan's own sizes: the same in plan, bench and book."""

from __future__ import annotations

from lamination.dough.formula import Development
from lamination.pieces.cutting import Product, Shape
from lamination.pieces.finish import Colour
from lamination.pieces.shaping import CARDS
from lamination.plan.plan import Plan, Trim
from lamination.plan.worked import WorkedPlan
from lamination.sheet.folds import Fold
from lamination.sheet.lockin import Method
from lamination.sheet.passes import Rolling
from lamination.terms.limits import say

_CLOSING = {
    Method.HALF: "Butter on the near half. Bring the bare half over and seal the edge.",
    Method.TWO_THIRDS: "Butter on the near two thirds. The bare third comes over first, then the "
    "buttered third on top.",
    Method.HALF_STACKED: "Butter on the near half. Cut off the bare half and lay it on top: all four "
    "edges stay open.",
    Method.GATE: "Butter on the middle half. Bring both ends in until they meet, and seal the seam.",
    Method.OPEN_SIDED: "Butter on the middle half. Cut the bare ends off and lay them on top, side by "
    "side: butter shows at every edge.",
    Method.INVERSE: "Dough on the near half of the butter sheet. Bring the bare half over and seal "
    "it.",
    Method.SPREAD: "Spread the soft butter over the whole sheet, right to the edges.",
    Method.TWO_GO: "Lay half of the butter over the whole sheet. The other half waits for the second "
    "turn.",
    Method.LUMPS: "Toss the lumps in the flour and bring the dough together round them: they stay "
    "lumps.",
    Method.ENVELOPE: "Set the butter at 45° on the dough. Bring the four corners to the middle and "
    "seal the seams.",
}
_FOLDING = {
    Fold.HALF: "Half fold: bring the far end over to the near end.",
    Fold.LETTER: "Letter fold: far third in, near third over it.",
    Fold.BOOK: "Book fold: both ends to the middle, then shut it.",
    Fold.OFFSET_BOOK: "Offset book fold: both ends meet off the middle, then shut it: the seam lies "
    "away from the spine.",
}


_STACKING = {
    Fold.HALF: "Cut it in two and stack the pieces.",
    Fold.LETTER: "Cut it in three and stack the pieces.",
    Fold.BOOK: "Cut it in four and stack the pieces.",
    Fold.OFFSET_BOOK: "Cut it in four and stack the pieces.",
}
_DEVELOPED = {
    Development.SHORT: "Stop while it is still rough: a stretched piece tears at once. Folding does "
    "the rest.",
    Development.THREE_QUARTERS: "Three-quarters developed: a stretched window still tears or stays "
    "cloudy. Folding will finish it.",
    Development.FULL: "Fully developed: a stretched window is clear and holds. Each roll will take "
    "longer rests.",
}


def doing(plan: Plan, worked: WorkedPlan) -> dict[str, tuple[str, ...]]:
    """Sentences for every stop, by its key; the first is the instruction, the rest the detail."""
    first, final = worked.lock_in, worked.final
    block, sheet, slab = first.block, first.dough_sheet, worked.slab
    words = _mixed(plan, worked) if worked.formula else {}
    words["dough"] = (
        f"Flatten {say(plan.dough.mass_g)} g of dough",
        f"To {slab.length_mm:.0f} × {slab.width_mm:.0f} mm, {say(slab.thickness_mm)} mm thick, so "
        "that it chills right through and is soon at size.",
        "Cover it against skinning, with no air under the film.",
    )
    words["lock_in"] = (
        f"Lock in {say(plan.butter.mass_g)} g of butter",
        f"Block {block.width_mm:.0f} × {block.length_mm:.0f} mm, {say(block.thickness_mm)} mm "
        "thick: it should bend without cracking.",
        f"{worked.butter.plaques.text}{_folded_back(worked)}",
        f"Dough {sheet.length_mm:.0f} × {sheet.width_mm:.0f} mm, {say(sheet.thickness_mm)} mm "
        "thick.",
        _CLOSING[plan.lock_in.method],
    )
    for i, (step, chosen) in enumerate(zip(worked.steps, plan.turns, strict=True), 1):
        words[f"turn-{i}"] = (
            f"Roll to {say(step.rolled.thickness_mm)} mm",
            f"{step.rolled.length_mm:.0f} × {step.rolled.width_mm:.0f} mm, towards the open ends."
            f"{_dialled(step.rolling)}",
            *_trimming(chosen.trim),
            "Brush off the flour. "
            + (_STACKING[chosen.fold] if chosen.stacked else _FOLDING[chosen.fold]),
            f"Turn it a quarter, always the same way. Press {i} mark{'s' if i > 1 else ''}.",
        )
    wide = (
        f"First {final.width_mm:.0f} mm wide, then {final.length_mm:.0f} mm long."
        if plan.final.width_mm
        else f"{final.length_mm:.0f} mm long, {final.width_mm:.0f} mm wide."
    )
    words["final"] = (
        f"Roll the last sheet to {say(final.thickness_mm)} mm",
        f"{wide}{_dialled(worked.final.rolling)}",
        "Lift it and let it shrink before it is cut, not after.",
    )
    words["cut"] = _cut(plan, worked)
    words |= _finished(plan, worked)
    return words


def _folded_back(worked: WorkedPlan) -> str:
    back = worked.butter.fold_back
    if back is None:
        return ""
    return (
        f" Roll it to {say(back.roll_to_mm)} mm, {back.length_mm:.0f} × {back.width_mm:.0f} mm, and "
        f"fold it in {back.folds}: pliable, and still cold."
    )


def _mixed(plan: Plan, worked: WorkedPlan) -> dict[str, tuple[str, ...]]:
    formula, made = plan.formula, worked.formula
    assert formula is not None
    assert made is not None
    words: dict[str, tuple[str, ...]] = {}
    for p, chosen in zip(made.preferments, formula.preferments, strict=True):
        words[p.stop] = (
            f"Mix {say(p.total_g)} g of {p.name.lower()}",
            f"Into a tub of {say(p.tub_l)} l or more: it rises to {say(p.rises_to_l)} l.",
            f"Ripe after about {say(chosen.rest.minutes / 60)} hours: domed, just beginning to sink.",
        )
    mixing, water = formula.mixing, made.water
    lines = [f"Mix {say(plan.dough.mass_g)} g of dough"]
    if water and water.ice_g:
        lines.append(
            f"{say(water.water_g)} g of water from the tap and {say(water.ice_g)} g of ice, for a "
            f"dough of {say(mixing.wanted_c)} °C."
        )
    elif water:
        lines.append(f"Water at {say(water.water_c)} °C for a dough of {say(mixing.wanted_c)} °C.")
    lines.append(f"{say(mixing.slow_min)} min slow, {say(mixing.fast_min)} min fast.")
    lines.append(_DEVELOPED[mixing.development])
    words["mix"] = tuple(lines)
    return words


def _dialled(how: Rolling) -> str:
    if not how.gaps_mm:
        return ""
    first = f" Flatten it to {say(how.flatten_to_mm)} mm first." if how.flatten_to_mm else ""
    return f"{first} Dial: {', '.join(f'{gap:g}' for gap in how.gaps_mm)}."


def _trimming(wanted: Trim | None) -> tuple[str, ...]:
    if wanted is None or not (wanted.ends_mm or wanted.sides_mm):
        return ()
    ends = f"{say(wanted.ends_mm)} mm off both ends" if wanted.ends_mm else ""
    sides = f"{say(wanted.sides_mm)} mm off both sides" if wanted.sides_mm else ""
    kept = "Tuck it in." if wanted.tucked else "Save it for the next dough."
    return (f"Square it: {' and '.join(filter(None, (ends, sides)))}. {kept}",)


_PIECES = {
    Shape.TRIANGLE: "triangles",
    Shape.RECTANGLE: "rectangles",
    Shape.SQUARE: "squares",
    Shape.DISC: "discs",
    Shape.RING: "rings",
    Shape.STRIP: "strips",
}


def _cut(plan: Plan, worked: WorkedPlan) -> tuple[str, ...]:
    cut, made = plan.cut, worked.cut
    if cut is None or made is None:
        return ()
    one = len(cut.products) == 1
    lines = [f"Cut {made.pieces} {_PIECES[cut.products[0].shape] if one else 'pieces'}"]
    if cut.trim_mm:
        lines.append(f"Trim {say(cut.trim_mm)} mm off every edge first: the long one is the datum.")
    else:
        lines.append("Trim to a straight edge first: that edge is the datum.")
    for product, of in zip(cut.products, made.products, strict=True):
        name = "" if one else f"{product.name}: "
        lines.append(
            f"{name}{_sizes(product, of.along_mm, of.across_mm)}, {say(of.piece_g)} g each; "
            f"{of.per_row} along each of {of.rows}."
        )
    lines.append("Measure every mark from the datum, not from the last cut.")
    return tuple(lines)


def _sizes(product: Product, along_mm: float, across_mm: float) -> str:
    if product.shape is Shape.DISC:
        return f"Discs {say(along_mm)} mm across"
    if product.shape is Shape.RING:
        return f"Rings {say(along_mm)} mm across, hole {say(product.hole_mm)} mm"
    notch = f", notch {say(product.notch_mm)} mm" if product.notch_mm else ""
    return f"Base {say(along_mm)} mm, height {say(across_mm)} mm{notch}"


def _finished(plan: Plan, worked: WorkedPlan) -> dict[str, tuple[str, ...]]:
    finish, made, cut = plan.finish, worked.finish, plan.cut
    if finish is None or made is None or cut is None:
        return {}
    trays = made.trays
    words: dict[str, tuple[str, ...]] = {}
    lines = []
    for product, on in zip(cut.products, trays.products, strict=True):
        filled = f", {say(product.filling_g)} g of filling each" if product.filling_g else ""
        lines.append(
            f"{product.name}: {on.across} × {on.along} on a tray{filled}. {CARDS[product.card].seal}"
        )
    count = f"{trays.count} tray{'' if trays.count == 1 else 's'}"
    words["shape"] = (f"Shape {worked.cut.pieces if worked.cut else 0} pieces on {count}", *lines)
    words["wash"] = (
        f"Brush with {made.wash.lower()}",
        f"{'Once' if finish.coats == 1 else f'{finish.coats} times, dry between'}; top surfaces only, "
        "a soft brush. On the cut leaves it glues them shut; drips burn.",
        made.wash_says,
    )
    stages = [
        f"{say(s.minutes)} min at {say(s.oven_c)} °C{' with steam' if s.steam else ''}"
        for s in finish.bake.stages
    ]
    bake = [
        f"Bake {say(finish.bake.minutes)} min",
        f"{', then '.join(stages)}, {finish.bake.oven} oven.",
    ]
    if finish.bake.docked:
        bake.append("Dock it, so that it stays low.")
    if finish.bake.turn_tray:
        bake.append("Turn the tray half-way.")
    core = f"{say(finish.bake.core_c)} °C in the middle, " if finish.bake.core_c else ""
    bake.append(f"Done: {core}{_COLOURS[finish.bake.colour]}, light for its size.")
    if made.loads > 1:
        bake.append(f"{made.loads} loads, one after another.")
    if finish.moulded and finish.sugared:
        bake.append(
            "Unmould while the sugar is hot: dry gloves, tools ready, nobody close. Melted sugar burns "
            "deeply."
        )
    elif finish.moulded:
        bake.append("Unmould after five minutes, before the bottom sweats.")
    words["bake"] = tuple(bake)
    words["look"] = (
        "Cut one across and look",
        "Open comb, leaves you can count, dry and light; no fat left on the tray.",
        "Weigh it: what it lost in the oven is water. Then say in the book how it came out.",
    )
    return words


_COLOURS = {
    Colour.PALE: "pale gold",
    Colour.GOLDEN: "three shades of brown",
    Colour.DEEP: "deep brown right into the folds",
}
