"""The proof: how long a shaped piece takes from the fridge and the freezer, and what a right one teaches."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.steps.shape import ShapeFigures
from lamination.terms.rests import Rest, Stay
from lamination.terms.said import c, span
from lamination.terms.trade import Place
from lamination.warmth.follow import follow
from lamination.warmth.followed import Began, Followed
from lamination.warmth.rests import proof_doses

_DAY_MIN = 1_440.0
_FROZEN_C = -18.0


@dataclass(frozen=True, slots=True)
class Proof:
    """The proof of a shaped piece in the proofer: minutes from chilled and from frozen.

    None where it never finishes. ``limit_c``: the warmest the butter bears; ``hot``: the place where
    this plan proofs is warmer. ``at_c``: how warm that place is.
    """

    place: Place
    at_c: float
    limit_c: float
    hot: bool
    chilled_min: float | None
    frozen_min: float | None
    says: str


def limit_of(found: Followed) -> float:
    """The warmest place the butter bears in a proof, °C. Source: trade practice, two rows."""
    kitchen = found.kitchen
    if found.walk.recipe.butterless:
        return kitchen["proof.hottest_c"]
    bears = found.walk.recipe.window.oils_c + kitchen["proof.over_oils_k"]
    return min(bears, kitchen["proof.hottest_c"])


def _piece_mm(found: Followed) -> float:
    for made in found.walk.made:
        if isinstance(made.figures, ShapeFigures):
            return made.figures.piece_mm
    return found.kitchen["proof.piece_mm"]


def proof_of(found: Followed) -> Proof | None:
    """How long pieces proof where the plan proofs them, or in the proofer. None without yeast."""
    if found.leaven is None:
        return None
    kitchen, family = found.kitchen, found.walk.plan.family
    scene, stay = found.scene, _warm(found)
    place, at = stay.place, scene.air_c(stay, 0.0, 1.0)
    wanted = found.leaven.whole_dose * kitchen.of_family(family, "proof.share_pct") / 100
    times = []
    for start in (kitchen["fridge.c"], _FROZEN_C):
        body = scene.matter.piece(_piece_mm(found), start)
        began = Began(0, body, 0.0, 0.0, 0.0, 0.0, True)
        grid = np.arange(0, _DAY_MIN, 2.0)
        doses = proof_doses(scene, began, Rest((stay,)), grid)
        done = np.flatnonzero(doses >= wanted)
        times.append(float(grid[done[0]]) if len(done) else None)
    limit = limit_of(found)
    chilled, frozen = times
    hot = at > limit + 1e-9
    where = "in the room" if place is Place.BENCH else "in the proofer"
    if hot:
        text = (
            f"{c(at)} is too warm for this butter, which bears at most {c(limit)} in a proof: it would "
            "run out of the pieces. Set it lower and give it longer."
        )
    elif chilled is None:
        text = f"At {c(at)} {where} it does not finish in a day. Give it more warmth."
    else:
        text = (
            f"At {c(at)} {where} about {span(chilled)} from the fridge"
            + (f", {span(frozen)} from the freezer" if frozen else "")
            + ". Doubled, leaves visible, and the tray trembles when it is nudged."
        )
    return Proof(place, at, limit, hot, chilled, frozen, text)


def _warm(found: Followed) -> Stay:
    """Where this plan proofs, for a day as warm as it ends; the proofer where it does not proof."""
    n = found.proof_n
    rest = None if n is None else found.walk.plan.steps[n].rest
    stay = rest.stays[rest.gives(proofs=True)] if rest else Stay(Place.PROOFER, _DAY_MIN)
    if stay.place in (Place.FRIDGE, Place.FREEZER):
        stay = Stay(Place.PROOFER, _DAY_MIN)
    warm_c = stay.air_c if stay.to_c is None else stay.to_c
    return replace(stay, minutes=_DAY_MIN, air_c=warm_c, to_c=None)


def learned_reference(plan: Plan, kitchen: Kitchen, minutes: float) -> float:
    """The kitchen's reference proof, min, if a rest of ``minutes`` after shaping was just right.

    The dose that rest really gave is taken as what the family wants of a whole proof. Raises ValueError
    where the plan has no proof to learn from. Source: the proof integral.
    """
    found = follow(plan, kitchen)
    proof = None if found.proof_n is None else plan.steps[found.proof_n]
    if found.leaven is None or proof is None or proof.rest is None:
        raise ValueError("this plan has no proof to learn from")
    began = found.began[proof.id]
    given = float(proof_doses(found.scene, began, proof.rest, np.array([minutes]))[0])
    share = kitchen.of_family(plan.family, "proof.share_pct") / 100
    return kitchen["proof.reference_min"] * given / (found.leaven.whole_dose * share)
