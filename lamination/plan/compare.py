"""The few figures by which plans are told apart."""

from __future__ import annotations

from lamination.plan.plan import Plan
from lamination.plan.worked import Facts, WorkedPlan


def facts_of(plan: Plan, worked: WorkedPlan) -> Facts:
    """What a baker compares two plans by; lengths in mm, leaves in µm, masses in g, times in min."""
    saved_g = sum(
        step.trimmed_g
        for turn, step in zip(plan.turns, worked.steps, strict=True)
        if turn.trim and not turn.trim.tucked
    )
    sheets = [step.rolled for step in worked.steps] + [worked.final.size]
    rests = [stop for stop in worked.strip if stop.rest and stop.rest.minutes > 0]
    layers, cut = worked.layers, worked.cut
    return Facts(
        butter_layers=layers.butter,
        leaves=layers.total,
        butter_um=layers.butter_um,
        dough_um=layers.dough_um,
        full_pct=layers.full_pct,
        bent_pct=layers.bent_pct,
        waste_g=saved_g + (cut.trimmings_g if cut else 0.0),
        turns=len(plan.turns),
        rests=sum(1 for stop in rests if stop.key.startswith("turn")),
        bench_min=sum(stop.bench_min for stop in worked.strip),
        total_min=worked.total_min,
        longest_mm=max(max(s.length_mm, s.width_mm) for s in sheets),
        pieces=cut.pieces if cut else None,
        piece_g=cut.piece_g if cut else None,
    )
