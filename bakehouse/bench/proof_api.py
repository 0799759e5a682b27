"""What a proof that was just right teaches the kitchen."""

from __future__ import annotations

from dataclasses import dataclass, replace
from uuid import UUID

from django.http import Http404, HttpRequest
from ninja import Router

from bakehouse.bench.runs import events_of, run_of, snapshot
from bakehouse.kitchen.shelf import keep_rows, the_kitchen
from bakehouse.people.roles import head_only, signed_in, user_of
from lamination.kitchen import DEFAULTS
from lamination.run import proofed_min, stand
from lamination.warmth import learned_reference

router = Router(tags=["bench"])


@dataclass
class ProofTaught:
    """What a proof that was right teaches: the kitchen's reference before and after, min."""

    proofed_min: float
    before_min: float
    after_min: float
    kept: bool


@router.get("/runs/{uuid:run_id}/proof", auth=signed_in, response=ProofTaught)
def proof_of_run(request: HttpRequest, run_id: UUID) -> ProofTaught:
    """What this run's proof would teach, if it was just right; nothing is kept."""
    return _taught(run_id)


@router.post("/runs/{uuid:run_id}/proof", auth=head_only, response=ProofTaught)
def learn_proof(request: HttpRequest, run_id: UUID) -> ProofTaught:
    """The proof was just right: the kitchen takes its reference from it."""
    found = _taught(run_id)
    keep_rows({"proof.reference_min": found.after_min}, user_of(request))
    return replace(found, kept=True)


def _taught(run_id: UUID) -> ProofTaught:
    run = run_of(run_id)
    plan, worked, kitchen = snapshot(run)
    now = stand(worked, run.started_at, events_of(run))
    minutes = proofed_min(worked, now.trays)
    if minutes is None:
        raise Http404("No tray of this dough has been through its proof yet.")
    try:
        after = learned_reference(plan, kitchen, minutes)
    except ValueError:
        raise Http404("This plan has no proof to learn from.") from None
    row = DEFAULTS["proof.reference_min"]
    after = round(min(max(after, row.low), row.high), 1)
    return ProofTaught(minutes, the_kitchen()["proof.reference_min"], after, False)
