"""The proof: how long a shaped piece takes from the fridge and the freezer, and what a right one teaches."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.steps.shape import ShapeFigures, Shaping
from lamination.terms.rests import Rest
from lamination.terms.said import c, span
from lamination.terms.trade import Place
from lamination.warmth.follow import follow
from lamination.warmth.followed import Began, Followed
from lamination.warmth.rests import proof_course

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
    shaping = found.walk.plan.first(Shaping)
    rest = shaping.rest if shaping else None
    place = rest.stays[-1].place if rest and rest.stays else Place.PROOFER
    if place in (Place.FRIDGE, Place.FREEZER):
        place = Place.PROOFER
    scene = found.scene
    air_c = rest.air_c if rest else None
    at = scene.around.open_air(place, 0.0, air_c).t_c
    wanted = found.leaven.whole_dose * kitchen.of_family(family, "proof.share_pct") / 100
    times = []
    for start in (kitchen["fridge.c"], _FROZEN_C):
        body = scene.matter.piece(_piece_mm(found), start)
        began = Began(0, body, 0.0, 0.0, 0.0, 0.0, True)
        course = proof_course(scene, began, Rest(place, _DAY_MIN, air_c=air_c))
        grid = np.arange(0, _DAY_MIN, 2.0)
        doses = course.gathered(scene.rates, grid)[0]
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


def learned_reference(plan: Plan, kitchen: Kitchen, minutes: float) -> float:
    """The kitchen's reference proof, min, if a rest of ``minutes`` after shaping was just right.

    The dose that rest really gave is taken as what the family wants of a whole proof. Raises ValueError
    where the plan has no proof to learn from. Source: the proof integral.
    """
    found = follow(plan, kitchen)
    shaping = plan.first(Shaping)
    if found.leaven is None or shaping is None or shaping.rest is None:
        raise ValueError("this plan has no proof to learn from")
    began = found.began[shaping.id]
    course = proof_course(found.scene, began, shaping.rest)
    given = float(course.gathered(found.scene.rates, np.array([minutes]))[0, 0])
    share = kitchen.of_family(plan.family, "proof.share_pct") / 100
    return kitchen["proof.reference_min"] * given / (found.leaven.whole_dose * share)
