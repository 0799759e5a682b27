"""What to do at each stop, in words with the plan's own sizes: the same in plan, bench and book."""

from __future__ import annotations

from lamination.cutting import Shape
from lamination.laminate import Fold
from lamination.limits import say
from lamination.lockin import Method
from lamination.plan import Plan
from lamination.worked import WorkedCut, WorkedFinal, WorkedLockIn, WorkedTurn

_CLOSING = {
    Method.HALF: "Butter on the near half. Bring the bare half over and seal the edge.",
    Method.TWO_THIRDS: "Butter on the near two thirds. The bare third comes over first, then the "
    "buttered third on top.",
    Method.ENVELOPE: "Set the butter at 45° on the dough. Bring the four corners to the middle and "
    "seal the seams.",
}
_FOLDING = {
    Fold.HALF: "Half fold: bring the far end over to the near end.",
    Fold.LETTER: "Letter fold: far third in, near third over it.",
    Fold.BOOK: "Book fold: both ends to the middle, then shut it.",
}


def doing(
    plan: Plan,
    first: WorkedLockIn,
    steps: list[WorkedTurn],
    final: WorkedFinal,
    cut: WorkedCut | None,
) -> dict[str, tuple[str, ...]]:
    """Sentences for every stop, by its key; the first is the instruction, the rest the detail."""
    block, sheet = first.block, first.dough_sheet
    words: dict[str, tuple[str, ...]] = {
        "dough": (
            f"Flatten {say(plan.dough.mass_g)} g of dough",
            f"Near {sheet.length_mm:.0f} × {sheet.width_mm:.0f} mm, so that it is soon at size.",
            "Cover it against skinning, with no air under the film.",
        ),
        "lock_in": (
            f"Lock in {say(plan.butter.mass_g)} g of butter",
            f"Block {block.width_mm:.0f} × {block.length_mm:.0f} mm, {say(block.thickness_mm)} mm "
            "thick: it should bend without cracking.",
            f"Dough {sheet.length_mm:.0f} × {sheet.width_mm:.0f} mm, {say(sheet.thickness_mm)} mm "
            "thick.",
            _CLOSING[plan.lock_in.method],
        ),
    }
    for i, (step, chosen) in enumerate(zip(steps, plan.turns, strict=True), 1):
        words[f"turn-{i}"] = (
            f"Roll to {say(step.rolled.thickness_mm)} mm",
            f"{step.rolled.length_mm:.0f} × {step.rolled.width_mm:.0f} mm, towards the open ends.",
            "Brush off the flour. " + _FOLDING[chosen.fold],
            f"Turn it a quarter, always the same way. Press {i} mark{'s' if i > 1 else ''}.",
        )
    wide = (
        f"First {final.width_mm:.0f} mm wide, then {final.length_mm:.0f} mm long."
        if plan.final.width_mm
        else f"{final.length_mm:.0f} mm long, {final.width_mm:.0f} mm wide."
    )
    words["final"] = (
        f"Roll the last sheet to {say(final.thickness_mm)} mm",
        wide,
        "Lift it and let it shrink before it is cut, not after.",
    )
    if plan.cut and cut:
        shape = "triangles" if plan.cut.shape is Shape.TRIANGLE else "pieces"
        words["cut"] = (
            f"Cut {cut.pieces} {shape}",
            f"Base {say(plan.cut.base_mm)} mm, height {say(plan.cut.height_mm)} mm, "
            f"{say(cut.piece_g)} g each; {cut.per_strip} along each of {cut.strips}.",
            "Trim to a straight edge first. Measure every mark from that edge, not from the last "
            "cut.",
        )
    return words
