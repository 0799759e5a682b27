"""The proof: how long a shaped piece takes, when its rest may end, and what a right one teaches."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from lamination.dough.recipe import butter_composition, butter_of_whole, dough_composition
from lamination.heat.conduction import Air, Body, Course, body, conduct
from lamination.heat.yeast import activity
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.composition import mixture
from lamination.materials.ingredients import Window
from lamination.materials.thermal import Profile, thermal_of
from lamination.plan.plan import Plan
from lamination.terms.limits import say
from lamination.terms.rests import Place, Rest
from lamination.warmth.cold import full_dose_of
from lamination.warmth.rest import Cause, RestWindow, crossing

_LONGEST_PROOF_MIN = 1_440.0
_CELLS, _FINER = 10, 0.4  # a proof is said in minutes: a coarse course is right to one
_PIECE_KG_M3 = 900.0  # a shaped piece holds some air between its turns


@dataclass(frozen=True, slots=True)
class Proof:
    """The proof of a shaped piece: minutes from chilled and from frozen at the proofer's warmth.

    None where it never finishes. ``limit_c``: the warmest the butter bears.
    """

    proofer_c: float
    limit_c: float
    chilled_min: float | None
    frozen_min: float | None
    says: str


def proof_of(plan: Plan, kitchen: Kitchen, used_pct: float = 0.0) -> Proof | None:
    """How long shaped pieces proof from chilled (4 °C) and from frozen (-18 °C).

    The warming-up counts: activity is integrated over the piece's own temperature. None for a dough
    without yeast. Source: core-model §8.
    """
    whole = full_dose_of(plan, kitchen)
    if plan.formula is None or whole == float("inf"):
        return None
    window = plan.butter_kind.window or Window(9, 12, 16, 20)
    limit = window.oils_c + kitchen["proof.over_oils_k"]
    at = kitchen["proofer.c"]
    wanted = whole * max(1 - used_pct / 100, 0.05)
    chilled, frozen = (_proofs(plan, kitchen, start, wanted) for start in (4.0, -18.0))
    if at > limit:
        text = (
            f"{say(at)} °C is too warm for this butter, which lets go above {say(limit)} °C: it would "
            "run out of the pieces. Set the proofer lower and give it longer."
        )
    elif chilled is None:
        text = f"At {say(at)} °C it does not finish in a day. Warm the proofer."
    else:
        text = (
            f"At {say(at)} °C about {_hours(chilled)} from the fridge"
            + (f", {_hours(frozen)} from the freezer" if frozen else "")
            + ". Doubled, leaves visible, and the tray trembles when it is nudged."
        )
    return Proof(at, limit, chilled, frozen, text)


def _hours(minutes: float) -> str:
    hours, rest = divmod(round(minutes), 60)
    return f"{hours} h {rest:02}"


def _piece(plan: Plan, kitchen: Kitchen, start_c: float) -> Body:
    """A shaped piece of the plan's dough and butter together, all at one temperature."""
    made = dough_composition(plan)
    assert made is not None
    share = butter_of_whole(plan)
    table = thermal_of(mixture(((1 - share, made), (share, butter_composition(plan)))))
    of = table, _PIECE_KG_M3
    return body([(False, kitchen["proof.piece_mm"])], of, of, start_c, _CELLS)


def _dosed(course: Course) -> Profile:
    """The dose from the start of a course to each of its steps."""
    rate = activity(course.t_c).mean(axis=1)
    steps = (rate[1:] + rate[:-1]) / 2 * np.diff(course.minutes)
    doses: Profile = np.concatenate(([0.0], np.cumsum(steps)))
    return doses


def _proofs(plan: Plan, kitchen: Kitchen, start_c: float, dose: float) -> float | None:
    air = Air(kitchen["proofer.c"], kitchen["proofer.film"])
    course = conduct(_piece(plan, kitchen, start_c), air, air, _LONGEST_PROOF_MIN, _FINER)
    return crossing(course.minutes, _dosed(course), dose, falling=False)


def _air(kitchen: Kitchen, place: Place) -> Air:
    """The air round an unwrapped piece in a place."""
    c = kitchen["room.c" if place is Place.BENCH else f"{place}.c"]
    return Air(c, kitchen[f"{place}.film"])


def _lain(plan: Plan, kitchen: Kitchen, rest: Rest, start_c: float, ahead_min: float) -> Course:
    """A piece through the places of its rest, and on in the last of them."""
    minutes, profiles = [np.array([0.0])], []
    now = _piece(plan, kitchen, start_c)
    profiles.append(now.t_c[None, :])
    clock = 0.0
    stays = rest.stays
    for n, stay in enumerate(stays):
        air = _air(kitchen, stay.place)
        lasts = stay.minutes + (ahead_min if n + 1 == len(stays) else 0.0)
        course = conduct(now, air, air, lasts, _FINER)
        minutes.append(clock + course.minutes[1:])
        profiles.append(course.t_c[1:])
        now, clock = course.end, clock + lasts
    return Course(np.concatenate(minutes), np.concatenate(profiles), now, 0.0)


def proof_window(
    plan: Plan, kitchen: Kitchen, used_pct: float, start_c: float
) -> RestWindow | None:
    """When the rest after shaping may end: at the kitchen's shares of a whole proof.

    The piece starts at ``start_c`` and its own temperature is followed through every place of the
    rest, so a night in the fridge before the proofer counts. None without a finish, or without yeast.
    """
    finish = plan.finish
    whole = full_dose_of(plan, kitchen)
    if finish is None or finish.rest is None or plan.formula is None or np.isinf(whole):
        return None
    rest = finish.rest
    ahead = max(_LONGEST_PROOF_MIN - rest.minutes, 60.0)
    course = _lain(plan, kitchen, rest, start_c, ahead)
    doses = 100 * (used_pct / 100 + _dosed(course) / whole)
    soonest, best, latest = (
        crossing(course.minutes, doses, kitchen[key], falling=False)
        for key in ("proof.soonest_pct", "proof.best_pct", "proof.latest_pct")
    )
    reached = float(np.interp(rest.minutes, course.minutes, doses))
    verdict = "good"
    if soonest is None or rest.minutes < soonest - 0.5:
        verdict = "early"
    elif latest is not None and rest.minutes > latest + 0.5:
        verdict = "late"
    cells = course.t_c.shape[1]
    middle = float(np.interp(rest.minutes, course.minutes, course.t_c[:, cells // 2]))
    return RestWindow(
        "shape", soonest, best, latest, Cause.PROOF, Cause.OVER if latest else None, rest.minutes,
        verdict, middle, middle, None, _window_says(verdict, reached, soonest, rest.minutes),
    )  # fmt: skip


def _window_says(verdict: str, reached: float, soonest: float | None, chosen: float) -> str:
    here = f"{say(round(reached))} % of a whole proof by then"
    if verdict == "early" and soonest is None:
        return f"{here}: it does not finish here. Warm the proofer."
    if verdict == "early" and soonest is not None:
        return f"{here}: dense, and it tears as it bakes. Give it {say(round(soonest - chosen))} min more."
    if verdict == "late":
        return f"{here}: it falls flat. Shorter, cooler, or bake it sooner."
    return f"{here}. The signs decide: doubled, leaves visible, and the tray trembles."


def learned_reference(
    plan: Plan, kitchen: Kitchen, minutes: float, start_c: float, used_pct: float = 0.0
) -> float:
    """The kitchen's reference proof, min, if a rest of ``minutes`` after shaping was just right.

    The dose that rest really gave is taken as a whole proof (less what was used up before it).
    Raises ValueError where the plan has no proof to learn from. Source: core-model §8.
    """
    finish, whole = plan.finish, full_dose_of(plan, kitchen)
    if finish is None or finish.rest is None or plan.formula is None or np.isinf(whole):
        raise ValueError("this plan has no proof to learn from")
    course = _lain(plan, kitchen, finish.rest, start_c, max(minutes - finish.rest.minutes, 0.0))
    given = float(np.interp(minutes, course.minutes, _dosed(course)))
    share = given / whole / max(1 - used_pct / 100, 0.05)
    return kitchen["proof.reference_min"] * share
