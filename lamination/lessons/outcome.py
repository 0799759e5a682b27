"""What a play comes to: how far a piece opens, its butter, evenness and weight, from all its harms.

The formulas stand in docs/model.md with what they leave out; their figures are the Kitchen's ``lesson.``
rows. Each mistake costs leaves, butter or evenness by itself, and every cost is kept with its sentence.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from lamination.heat.conduction import Course
from lamination.lessons.harms import Harm, Harmed, of_hands, of_rolls
from lamination.lessons.leaves import apart, opens
from lamination.lessons.lesson import Goal
from lamination.lessons.play import Played
from lamination.sheet.cells import Sheet
from lamination.steps.base import Form
from lamination.steps.last_sheet import LastSheetFigures
from lamination.terms.said import c, say, um
from lamination.warmth import limit_of, proof_marks, usual_yeast

OUTCOME_FORMAT: Literal["eight-turn/outcome"] = "eight-turn/outcome"


@dataclass(frozen=True, slots=True)
class Outcome:
    """What comes out of the oven.

    ``lift``: height of a baked piece over its height when it was cut or shaped. ``openness_pct``: air in
    it. ``fat_lost_pct``: of the butter that was locked in. ``evenness_pct``: 100 where all pieces are
    alike. ``mass_g``: one baked piece. ``whole_pct``: leaves that stayed whole of those the folds made
    (``butter_layers``). ``takes_min``: from the first work to the last. ``worth``: one figure for all,
    by the Kitchen's weights; nothing is graded by anything else.
    """

    lift: float
    openness_pct: float
    fat_lost_pct: float
    evenness_pct: float
    mass_g: float
    butter_layers: int
    whole_pct: float
    proof_pct: float | None
    takes_min: float
    late_min: float
    worth: float
    harms: tuple[Harmed, ...]


@dataclass(frozen=True, slots=True)
class GoalLine:
    """A line of the goal: what was to be reached, what came of it, whether it was reached."""

    of: str
    wanted: float
    came: float
    reached: bool


def outcome_of(play: Played) -> Outcome:
    """What a play comes to. Source: the formulas of docs/model.md, the Kitchen's ``lesson.`` rows."""
    kitchen, found = play.kitchen, play.followed
    harms = [*of_rolls(play), *of_hands(play)]
    whole, squeezed = 1.0, 0.0
    broken = 1.0
    for one in harms:
        if one.harm in _LEAVES:
            whole *= 1 - one.pct / 100
        if one.harm in _BREAKS:
            broken *= 1 - one.pct / 100
        if one.harm is Harm.SOFT:
            squeezed += one.pct / 100 * kitchen["lesson.squeezed_pct"]
    figures, sheet = play.last.figures, play.last.lies.laminate
    open_share, thin = _open_share(play, sheet)
    proof_pct, proof, of_proof = _proof(play)
    harms += [*thin, *_coverage(play, figures), *of_proof]
    leaves = whole * open_share
    yeasted = found.leaven is not None
    best = kitchen["lesson.open_yeasted_pct" if yeasted else "lesson.open_puff_pct"] / 100
    plain = min(
        kitchen["lesson.plain_yeasted_pct" if yeasted else "lesson.plain_puff_pct"] / 100, best
    )
    openness = (plain + (best - plain) * leaves) * proof
    fat, of_fat = _fat(play, figures, broken, squeezed, proof_pct)
    harms += of_fat
    even = 1.0
    for one in harms:
        if one.harm in _EVEN:
            even *= 1 - one.pct / 100 * _EVEN[one.harm]
    gas = kitchen["dough.gas_pct"] / 100
    fat_volume = found.walk.recipe.butter_of_whole * fat / 100
    lift = (1 - gas) * (1 - fat_volume) / (1 - openness)
    top = (1 - gas) / (1 - best)
    late = (
        max(play.total_min - play.lesson.goal.ready_min, 0.0) if play.lesson.goal.ready_min else 0.0
    )
    came = Outcome(
        lift=_figure(lift, 3),
        openness_pct=_figure(100 * openness),
        fat_lost_pct=_figure(fat),
        evenness_pct=_figure(100 * even),
        mass_g=_figure(_piece_g(play, harms)),
        butter_layers=figures.layers.butter,
        whole_pct=_figure(100 * leaves),
        proof_pct=None if proof_pct is None else _figure(proof_pct, 1),
        takes_min=_figure(play.total_min),
        late_min=_figure(late),
        worth=0.0,
        harms=tuple(replace(h, pct=_figure(h.pct)) for h in harms if h.pct >= _SAID_PCT),
    )
    missed = sum(not line.reached for line in goal_lines(play.lesson.goal, came))
    worth = (
        kitchen["lesson.worth_open"] * openness / best
        + kitchen["lesson.worth_lift"] * lift / top
        + kitchen["lesson.worth_even"] * even
        - kitchen["lesson.worth_fat"] * fat
        - kitchen["lesson.worth_late"] * late
        - kitchen["lesson.worth_goal"] * missed
    )
    return replace(came, worth=_figure(worth, 3))


def _figure(value: float, digits: int = 2) -> float:
    """Rounded, so that every machine says the same; a number that JSON knows, whatever it was made of."""
    return round(float(value), digits)


_SAID_PCT = 0.05
_LEAVES = (Harm.BRITTLE, Harm.SOFT, Harm.TENSE, Harm.RISING, Harm.FROZEN, Harm.CRUSHED)
_BREAKS = (Harm.BRITTLE, Harm.TENSE, Harm.RISING, Harm.FROZEN)
# How much of evenness each takes: leaves that break do so in some pieces more than in others.
_EVEN = {
    Harm.WRONG_WAY: 1.0,
    Harm.COVERAGE: 1.0,
    Harm.UNEVEN: 1.0,
    Harm.SPRANG: 1.0,
    Harm.MARKS: 1.0,
} | dict.fromkeys(_BREAKS, 0.4)


# --- the sheet


def _open_share(play: Played, sheet: Sheet) -> tuple[float, list[Harmed]]:
    """The share of what a sheet's leaves could open that they do, 0 to 1, over its area."""
    kitchen, family = play.kitchen, play.plan.family
    yeasted = play.followed.leaven is not None
    share, stay, covered = 0.0, 0.0, 0.0
    for of_area, stack in zip(sheet.shares, sheet.pool, strict=True):
        if not stack.butter_leaves:
            continue
        dough_um = 1_000 * sheet.press * stack.dough_mm / max(stack.dough_leaves, 1)
        butter_um = 1_000 * sheet.press * stack.butter_mm / stack.butter_leaves
        share += of_area * opens(stack.butter_leaves, dough_um, butter_um, family, yeasted, kitchen)
        stay, covered = (
            stay + of_area * apart(dough_um, butter_um, yeasted, kitchen),
            covered + of_area,
        )
    lost = 100 * (1 - stay / covered) if covered else 0.0
    mean = play.last.figures.layers
    thin = (
        f"Dough leaves of {um(mean.dough_um)}"
        if yeasted
        else f"Butter leaves of {um(mean.butter_um)}"
    )
    text = f"{thin} run together: {say(lost)} % of them."
    return share, [
        Harmed(play.plan.last_sheet.id, Harm.THIN, lost, text)
    ] if lost > _THIN_PCT else []


_THIN_PCT = 8.0  # fewer that run together nobody sees


def _coverage(play: Played, figures: LastSheetFigures) -> Iterator[Harmed]:
    missing = 100 - figures.layers.full_pct
    text = (
        f"{say(missing)} % of the last sheet has fewer than {figures.layers.butter} butter layers."
    )
    yield Harmed(play.plan.last_sheet.id, Harm.COVERAGE, missing * _COVERAGE, text)


_COVERAGE = 0.3  # of pieces' evenness, for a share of the sheet with fewer leaves


# --- proof and oven


def _proof(play: Played) -> tuple[float | None, float, list[Harmed]]:
    """How far the pieces had proofed, % as bakers proof by the clock; the share of openness; the harm.

    Between the good marks of its family a proof costs nothing.
    """
    found, kitchen, family = play.followed, play.kitchen, play.plan.family
    shaped = any(m.lies.form in (Form.SHAPED, Form.BAKED) for m in found.walk.made)
    if found.leaven is None or not shaped:
        return None, 1.0, []  # nothing rises, or what is cut here is proofed elsewhere
    dose = sum(
        float(course.gathered(found.scene.rates, course.minutes[-1:])[0, 0])
        for course in _in_open_air(play)
    )
    at = 100 * dose / found.leaven.dose_for(usual_yeast(kitchen, family))
    low, good, until, high = proof_marks(kitchen, family)
    edge, none = kitchen["lesson.edge_pct"] / 100, kitchen["lesson.unproofed_pct"] / 100
    # a family that is baked with hardly a proof loses little without one
    start = 1 - min(1.0, good / 50) * (1 - none)
    points = {
        0.0: start,
        low: max(edge, start),
        good: 1.0,
        until: 1.0,
        high: edge,
        2.5 * high: none,
    }
    if good <= 0:
        points[0.0] = 1.0
    share = float(np.interp(at, sorted(points), [points[k] for k in sorted(points)]))
    stop = play.proof_stop
    lost = 100 * (1 - share)
    if at < good:
        text = f"The pieces had proofed to {say(at)} % where {say(good)} % is good: tight and dense inside."
        return at, share, [Harmed(stop, Harm.UNDER, lost, text)]
    text = f"The pieces had proofed to {say(at)} % where {say(until)} % is the most: they sank in the oven."
    return at, share, [Harmed(stop, Harm.OVER, lost, text)]


def _in_open_air(play: Played) -> Iterator[Course]:
    """How shaped pieces warmed, stretch by stretch, while they lay."""
    found = play.followed
    for stretch, course, _ in found.spent(working=False):
        began = found.began.get(stretch.stop)
        if began and began.open_air:
            yield course


def _fat(
    play: Played, figures: LastSheetFigures, broken: float, squeezed: float, proof_pct: float | None
) -> tuple[float, list[Harmed]]:
    """The butter lost, %: pressed out, run out in the proof, and in the oven; and what of it is a harm."""
    kitchen, family = play.kitchen, play.plan.family
    stop = play.proof_stop
    harms = []
    fat = kitchen["lesson.fat_base_pct"] + squeezed
    fat += (1 - broken) * kitchen["lesson.broken_fat_pct"]
    usual_um = kitchen.of_family(family, "butter_um.high")
    too_thick = min(max(figures.layers.butter_um / usual_um - 1, 0.0), 2.0)
    if too_thick:
        runs = too_thick * kitchen["lesson.thick_fat_pct"]
        text = f"Butter leaves of {um(figures.layers.butter_um)} are too thick to stay: the butter runs out."
        harms.append(Harmed(play.plan.last_sheet.id, Harm.THICK, runs, text))
        fat += runs
    if proof_pct is not None:
        good = kitchen.of_family(family, "proof.good_from_pct")
        if proof_pct < good and good > 0:
            fat += (1 - proof_pct / good) * kitchen["lesson.unproofed_fat_pct"]
    hot = _hot_kh(play)
    if hot > 0:
        runs = min(hot * kitchen["lesson.hot_fat_pct"], 60.0)
        bears = c(_butter_bears(play))
        text = f"The pieces were warmer than this butter bears ({bears}): it ran out onto the tray."
        harms.append(Harmed(stop, Harm.HOT, runs, text))
        fat += runs
    return min(fat, 100.0), harms


def _butter_bears(play: Played) -> float:
    return limit_of(play.followed) - play.mood.softer_k


def _hot_kh(play: Played) -> float:
    """By how much and how long the pieces were warmer than the butter bears, K·h, over their mass."""
    bears, total = _butter_bears(play), 0.0
    for course in _in_open_air(play):
        minutes = np.linspace(0, float(course.minutes[-1]), 60)
        over = np.clip(course.at(minutes) - bears, 0, None) @ course.end.shares
        total += float(np.trapezoid(over, minutes)) / 60
    return total


def _piece_g(play: Played, harms: list[Harmed]) -> float:
    """One baked piece, g: as it was cut of a sheet that sprang back, less what the oven takes."""
    last_roll = play.plan.last_sheet.id
    springs = sum(h.pct for h in harms if h.harm is Harm.SPRANG and h.stop == last_roll)
    raw = play.cut.piece_g if play.cut else play.last.figures.mass_g
    return raw * (1 + springs / 100) * (1 - play.kitchen["bake.loss_pct"] / 100)


def goal_lines(goal: Goal, came: Outcome) -> tuple[GoalLine, ...]:
    """A goal against what came: each line reached or not; those that nobody set are left out."""
    lines = [
        (of, wanted, value, value >= wanted - 1e-9)
        for of, wanted, value in (
            ("lift", goal.lift, came.lift),
            ("openness_pct", goal.openness_pct, came.openness_pct),
            ("evenness_pct", goal.evenness_pct, came.evenness_pct),
        )
        if wanted is not None
    ]
    if goal.butter_layers is not None:
        many = came.butter_layers
        lines.append(("butter_layers", goal.butter_layers, float(many), many == goal.butter_layers))
    if goal.fat_lost_pct is not None:
        reached = came.fat_lost_pct <= goal.fat_lost_pct + 1e-9
        lines.append(("fat_lost_pct", goal.fat_lost_pct, came.fat_lost_pct, reached))
    if goal.ready_min is not None:
        lines.append(("ready_min", goal.ready_min, came.takes_min, came.late_min <= 0.5))
    return tuple(GoalLine(*line) for line in lines)
