"""Advice on a worked plan: sentences with a reason and a way out. Nothing here forbids."""

from __future__ import annotations

import math
from collections.abc import Iterator

from lamination.dough.recipe_notes import on_formula, on_making
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.usual import FAMILY_NAMES, outside
from lamination.pieces.shaping import CARDS
from lamination.plan.fits import on_fit
from lamination.plan.plan import Cut, Plan
from lamination.plan.worked import (
    Layers,
    Note,
    WorkedCut,
    WorkedFinal,
    WorkedFinish,
    WorkedLockIn,
    WorkedPlan,
    WorkedTurn,
)
from lamination.sheet.lockin import Method
from lamination.terms.limits import say


def notes_on(plan: Plan, kitchen: Kitchen, worked: WorkedPlan) -> tuple[Note, ...]:
    """All advice on a plan, in the order of its stops; what needs a look first at each stop.

    Ranges come from the kitchen's table of practice (core-model §10).
    """
    order = {"mind": 0, "know": 1, "good": 2}
    first, steps, final, layers = worked.lock_in, worked.steps, worked.final, worked.layers
    found = [
        *on_formula(plan, kitchen, worked),
        *_on_butter(plan, kitchen),
        *on_making(plan, kitchen, worked),
        *_on_block(plan, kitchen, first),
        *_on_turns(plan, kitchen, steps),
        *on_fit(plan, kitchen, worked),
        *_on_final(plan, kitchen, final, layers),
        *_on_cut(plan, final, worked.cut),
        *_on_trays(plan, worked.finish, worked.cut),
    ]
    preferments = plan.formula.preferments if plan.formula else ()
    stops = [
        *(f"preferment-{j + 1}" for j in range(len(preferments))),
        "mix",
        "dough",
        "lock_in",
        *(f"turn-{i + 1}" for i in range(len(steps))),
        "final",
        "cut",
        "shape",
        "wash",
        "bake",
        "look",
    ]
    return tuple(sorted(found, key=lambda n: (stops.index(n.stop), order[n.tone])))


def _on_butter(plan: Plan, kitchen: Kitchen) -> Iterator[Note]:
    share = 100 * plan.butter.mass_g / plan.dough.mass_g
    out = outside(plan, kitchen, "butter_share_pct", share)
    if out:
        side, low, high = out
        lean = (
            "Leaves may stick and the crumb closes."
            if side == "below"
            else "Fat may run out in proof and oven."
        )
        near = float(low if side == "below" else high) * plan.dough.mass_g / 100
        yield Note(
            "dough",
            "mind",
            f"Butter {side} the usual",
            f"{say(share)} % of the dough; {FAMILY_NAMES[plan.family]} is usually {low} to "
            f"{high} %. {lean} {near:.0f} g would be inside.",
            "butter.mass_g",
        )


def _on_block(plan: Plan, kitchen: Kitchen, first: WorkedLockIn) -> Iterator[Note]:
    block, ratio = first.block, first.block_over_dough
    low, high = kitchen["block_mm.low"], kitchen["block_mm.high"]
    if not low <= block.thickness_mm <= high:
        wanted = min(max(block.thickness_mm, low), high)
        grow = math.sqrt(block.thickness_mm / wanted)
        word = "thin" if block.thickness_mm < low else "thick"
        why = (
            "It cracks and warms before it is in."
            if word == "thin"
            else "It stays hard inside while its faces soften."
        )
        yield Note(
            "lock_in",
            "mind",
            f"A {word} block",
            f"{say(block.thickness_mm)} mm. {why} At {block.width_mm * grow:.0f} × "
            f"{block.length_mm * grow:.0f} mm it is {say(wanted)} mm.",
            "lock_in.block_width_mm",
        )
    out = outside(plan, kitchen, "block_over_dough", ratio)
    if out:
        text = (
            "The dough over it stretches faster than the butter and may tear."
            if out[0] == "above"
            else "So thin a layer breaks into islands at the first roll."
        )
        yield Note(
            "lock_in",
            "mind",
            "Butter and dough far apart",
            f"The butter is {say(ratio)} times as thick as the dough under it; {out[1]} to {out[2]} "
            f"is usual here. {text}",
            "lock_in.block_length_mm",
        )
    if plan.lock_in.overlap_mm:
        yield Note(
            "lock_in",
            "know",
            "Flaps that overlap",
            f"They pass each other by {say(plan.lock_in.overlap_mm)} mm. Along the seams dough lies "
            "on dough, which never becomes leaves: as little as holds them shut.",
            "lock_in.overlap_mm",
        )
    elif plan.lock_in.method is Method.ENVELOPE:
        yield Note(
            "lock_in",
            "good",
            "Corners that meet",
            f"A square of {first.dough_sheet.length_mm:.0f} mm wraps the block with nothing doubled.",
        )
    elif not plan.lock_in.margin_mm:
        yield Note(
            "lock_in",
            "good",
            "Butter to every edge",
            f"Block and dough sheet share their sides: {say(block.width_mm)} mm across, the "
            f"dough {say(first.dough_sheet.length_mm)} mm long.",
        )


def _on_turns(plan: Plan, kitchen: Kitchen, steps: tuple[WorkedTurn, ...]) -> Iterator[Note]:
    in_a_row = 0
    allowed = int(kitchen["turns_back_to_back"])
    for i, chosen in enumerate(plan.turns):
        in_a_row += 1
        rested = chosen.rest is not None and chosen.rest.minutes > 0
        if not rested and in_a_row == allowed and i + 1 < len(steps):
            yield Note(
                f"turn-{i + 1}",
                "mind",
                f"{in_a_row} turns without a rest",
                "The dough will spring back and may tear. Rest it before the next turn; 20 "
                "to 30 min in the fridge is usual.",
                f"turns[{i}].rest",
            )
        in_a_row = 0 if rested else in_a_row


def _on_final(plan: Plan, kitchen: Kitchen, final: WorkedFinal, layers: Layers) -> Iterator[Note]:
    family = FAMILY_NAMES[plan.family]
    out = outside(plan, kitchen, "last_sheet_mm", final.thickness_mm)
    if out:
        yield Note(
            "final",
            "mind",
            f"Last sheet {out[0]} the usual",
            f"{say(final.thickness_mm)} mm; {family} is usually {out[1]} to {out[2]} mm.",
            "final.roll_to_mm",
        )
    out = outside(plan, kitchen, "butter_layers", layers.butter)
    if out:
        side = "Fewer" if out[0] == "below" else "More"
        help_ = (
            "Another fold adds leaves." if side == "Fewer" else "One fold less keeps them apart."
        )
        yield Note(
            "final",
            "mind",
            f"{side} leaves than usual",
            f"{layers.butter} butter layers; {family} usually has {out[1]} to {out[2]}. {help_}",
            "turns",
        )
    out = outside(plan, kitchen, "butter_um", layers.butter_um)
    if out:
        text = (
            "Dough and butter may merge into something like brioche."
            if out[0] == "below"
            else "So much butter in one leaf runs out in the oven. More folds make it thinner."
        )
        yield Note(
            "final",
            "mind",
            f"Butter leaves {out[0]} the usual",
            f"{say(layers.butter_um)} µm each; usually {out[1]} to {out[2]} µm. {text}",
            "final.roll_to_mm",
        )
    grain = kitchen["thinnest_leaf_um"]
    if layers.dough_um < grain:
        yield Note(
            "final",
            "know",
            "Leaves in name",
            f"A dough leaf of {say(layers.dough_um)} µm is thinner than a large starch grain "
            f"(about {say(grain)} µm): the count is nominal.",
        )
    if layers.full_pct < 99.5:
        yield Note(
            "final",
            "mind",
            "Bare edges folded in",
            f"Only {say(layers.full_pct)} % of the sheet has all {layers.butter} butter "
            f"layers: {_bare_because(plan)} The map of the leaves shows where.",
            "lock_in.margin_mm",
        )
    if final.thickest_mm > final.thickness_mm * 1.02 and _uneven(plan):
        yield Note(
            "final",
            "mind",
            "Thicker on one side",
            f"From {say(final.thinnest_mm)} to {say(final.thickest_mm)} mm. Pieces from the thick side "
            "weigh more and bake later. Even the gap, or turn the sheet end for end between passes.",
            "final.uneven_pct",
        )
    if not final.turned:
        yield Note(
            "final",
            "know",
            "Lay it the other way",
            f"For a sheet {final.width_mm:.0f} mm wide the package is not turned before this "
            "roll: a pin makes a sheet wider, never narrower.",
            "final.width_mm",
        )
    yield Note(
        "final",
        "know",
        f"{layers.butter} butter layers",
        f"With the dough that is {layers.total} leaves. Multiplying alone gives "
        f"{layers.naive}, but where a fold lays dough on dough the two become one leaf.",
    )


def _uneven(plan: Plan) -> bool:
    """Whether a roll was made uneven on purpose."""
    return bool(plan.final.uneven_pct) or any(t.uneven_pct for t in plan.turns)


def _bare_because(plan: Plan) -> str:
    if plan.lock_in.margin_mm:
        return (
            f"{say(plan.lock_in.margin_mm)} mm of bare dough at the lock-in lies in the folds. Bring "
            "the butter to the edge, or trim before each fold."
        )
    if any(t.short_mm for t in plan.turns) or plan.lock_in.off_centre_mm:
        return "flaps that fall short or a block off centre leave places with fewer."
    return "the leaves lie unevenly in the folds."


def _on_cut(plan: Plan, final: WorkedFinal, cut: WorkedCut | None) -> Iterator[Note]:
    if plan.cut is None or cut is None:
        return
    for n, (product, of) in enumerate(zip(plan.cut.products, cut.products, strict=True)):
        if of.pieces == 0:
            yield Note(
                "cut",
                "mind",
                "No piece fits" if len(cut.products) == 1 else f"No {product.name} fits",
                f"A piece {say(of.across_mm)} mm high on a sheet {say(final.width_mm)} mm "
                f"wide and {say(final.length_mm)} mm long. Roll it wider, cut smaller, or give it fewer "
                "rows before.",
                f"cut.products[{n}].base_mm",
            )
        elif product.rows > of.rows:
            yield Note(
                "cut",
                "mind",
                f"{of.rows} of {product.rows} rows of {product.name} fit",
                "The sheet is used up before. Ask for fewer rows, or roll it wider.",
                f"cut.products[{n}].rows",
            )
    if not cut.pieces:
        return
    yield from _spare(plan.cut, final, cut)
    drifts = [p.drift for p in cut.products if p.drift]
    worst = max(drifts, key=lambda d: d.last_mm, default=None)
    if worst:
        yield Note(
            "cut",
            "know",
            "Every mark from one datum",
            f"Marked each from the last cut, the last mark would be {say(worst.last_mm)} mm short and "
            f"each piece {say(worst.lighter_g)} g lighter.",
        )
    yield Note(
        "cut",
        "good" if cut.used_pct >= 90 else "know",
        f"{cut.pieces} pieces of {say(cut.piece_g)} g"
        if len(cut.products) == 1
        else f"{cut.pieces} pieces of {len(cut.products)} kinds",
        f"{say(cut.used_pct)} % of the sheet; {say(cut.trimmings_g)} g of trimmings carry "
        f"{say(cut.trimmings_butter_g)} g of butter with them. Save them for the next dough.",
    )


def _spare(chosen: Cut, final: WorkedFinal, cut: WorkedCut) -> Iterator[Note]:
    """Width that no row uses, where it would matter."""
    if chosen.across:
        return
    least = min(p.across_mm for p in cut.products)
    taken = max(r.to_mm for r in cut.rows) + chosen.trim_mm
    spare = final.width_mm - taken
    if spare > least / 4:
        yield Note(
            "cut",
            "mind",
            f"{spare:.0f} mm of width left over",
            f"{cut.strips} row{'s' if cut.strips > 1 else ''} take{'' if cut.strips > 1 else 's'} "
            f"{taken:.0f} mm. A sheet {taken:.0f} mm wide is cut to the edge.",
            "final.width_mm",
        )


def _on_trays(plan: Plan, finish: WorkedFinish | None, cut: WorkedCut | None) -> Iterator[Note]:
    if finish is None or plan.cut is None:
        return
    for n, (product, on) in enumerate(zip(plan.cut.products, finish.trays.products, strict=True)):
        usual = CARDS[product.card].filling_pct
        piece_g = cut.products[n].piece_g if cut else 0.0
        share = (
            100 * product.filling_g / (piece_g + product.filling_g) if product.filling_g else 0.0
        )
        if usual and share > usual[1]:
            yield Note(
                "shape",
                "know",
                f"A lot of filling in {product.name}",
                f"It is {say(share)} % of the piece; usual is {say(usual[0])} to {say(usual[1])} %. It may "
                "open, or stay raw underneath.",
                f"cut.products[{n}].filling_g",
            )
        if on.per_tray == 0:
            yield Note(
                "shape",
                "mind",
                f"{product.name} is larger than the tray",
                f"Baked it is {say(on.risen.length_mm)} × {say(on.risen.width_mm)} mm; the tray is "
                f"{say(finish.trays.tray_length_mm)} × {say(finish.trays.tray_width_mm)} mm. Each gets one "
                "of its own.",
            )
    loads = finish.trays.proofer_loads
    if len(loads) > 1:
        yield Note(
            "shape",
            "mind",
            f"The proofer takes it in {len(loads)}",
            f"{finish.trays.count} trays, {len(loads[0].trays)} at a time. Shape the second load later, or "
            "keep it in the fridge meanwhile.",
        )
    if finish.loads > 1:
        more = (finish.loads - 1) * finish.bake_min
        yield Note(
            "bake",
            "know",
            f"{finish.loads} loads of the oven",
            f"The last goes in {say(more)} min after the first: bring its trays out of the proofer that "
            "much later, or they over-proof.",
        )
    for label in finish.labels:
        if label.unknown:
            yield Note(
                "shape",
                "mind",
                f"Nothing is known of “{label.unknown}”",
                "It is not on the shelf, so its allergens are not on the label. Put it on the shelf in the "
                "Kitchen.",
            )
