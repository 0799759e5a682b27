"""What a play comes to: leaves lost and why, how far a piece opens, its butter, evenness and weight.

The formulas stand in docs/model.md with what they leave out; their figures are the Kitchen's ``lesson.``
rows. Each mistake costs leaves, butter or evenness by itself, and every cost is kept with its sentence.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from lamination.heat.body import Body
from lamination.heat.conduction import Course
from lamination.lessons.choices import Direction, Marking, Pace
from lamination.lessons.leaves import apart, opens
from lamination.lessons.lesson import Goal
from lamination.lessons.play import Played, hand_of
from lamination.materials.thermal import Profile
from lamination.pieces.marking import chained, cut_from
from lamination.sheet.cells import Sheet
from lamination.steps import kind_of
from lamination.steps.base import Form
from lamination.steps.cut import Cut, CutFigures
from lamination.steps.last_sheet import LastSheet, LastSheetFigures
from lamination.steps.turn import Turn, after_fold, by_flour
from lamination.terms.said import c, mm, named, say, span, um
from lamination.terms.trade import Worded
from lamination.warmth import limit_of

OUTCOME_FORMAT: Literal["eight-turn/outcome"] = "eight-turn/outcome"
_THIRD = math.log(3)  # a roll to a third is the measure of how hard a roll is on the leaves


class Harm(Worded):
    """What goes wrong with leaves, butter or evenness."""

    BRITTLE = "brittle", "brittle butter"
    SOFT = "soft", "soft butter"
    TENSE = "tense", "dough not relaxed"
    RISING = "rising", "dough rising between the turns"
    FROZEN = "frozen", "frozen dough"
    CRUSHED = "crushed", "big steps"
    WRONG_WAY = "wrong way", "rolled towards closed ends"
    THIN = "thin", "leaves too thin"
    COVERAGE = "coverage", "leaves missing at the edges"
    UNEVEN = "uneven", "sheet not even"
    SPRANG = "sprang", "sheet that sprang back"
    MARKS = "marks", "marks that drift"
    UNDER = "under", "under-proofed"
    OVER = "over", "over-proofed"
    HOT = "hot", "proof too warm"
    THICK = "thick", "butter leaves too thick"


@dataclass(frozen=True, slots=True)
class Harmed:
    """One harm: at which step, how many per cent it takes of what it harms, and the sentence."""

    stop: str
    harm: Harm
    pct: float
    says: str


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
    harms = [*_rolls(play), *_by_hands(play)]
    whole, squeezed = 1.0, 0.0
    broken = 1.0
    for one in harms:
        if one.harm in _LEAVES:
            whole *= 1 - one.pct / 100
        if one.harm in _BREAKS:
            broken *= 1 - one.pct / 100
        if one.harm is Harm.SOFT:
            squeezed += one.pct / 100 * kitchen["lesson.squeezed_pct"]
    last = next(m for m in found.walk.made if isinstance(m.figures, LastSheetFigures))
    figures = last.figures
    sheet = last.lies.laminate
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
_MOST_PCT = 95.0  # of the leaves that one harm takes


# --- leaves at every roll


@dataclass(frozen=True, slots=True)
class _Roll:
    """A roll as it was: the body pressed, the sheet at the end of the work, how hard, what was owed."""

    n: int
    stop: str
    name: str
    pressed: Body
    end: Body
    times: float
    owed: Owed
    rose_pct: float
    has_butter: bool


def _rolls_of(play: Played) -> list[_Roll]:
    """Every roll of the plan with what lay there. ``owed``: what it owed of relaxing."""
    found = play.followed
    seen: dict[str, list[Course]] = {}
    for stretch, (_, course, _, _) in zip(found.stretches, found.seen, strict=True):
        if stretch.working:
            seen.setdefault(stretch.stop, []).append(course)
    rolls: list[_Roll] = []
    owes = owed(play)
    risen_before = 0.0
    for n, (step, made) in enumerate(zip(found.walk.plan.steps, found.walk.made, strict=True)):
        courses = seen.get(step.id, [])
        if made.handling.rolls and len(courses) == 2:
            first, second = courses
            times = first.end.thickness_m / max(second.end.thickness_m, 1e-9)
            rolls.append(
                _Roll(
                    n, step.id, found.walk.names[n], first.end, second.end, max(times, 1.0),
                    owes[n], risen_before, first.end.has_butter,
                )
            )  # fmt: skip
        began = found.began.get(step.id)
        risen_before = _risen_by_the_end(play, step.id) if began and not began.open_air else 0.0
    return rolls


@dataclass(frozen=True, slots=True)
class Owed:
    """Minutes of relaxing that a dough still owes: as a step's work begins, what of that it bears, and as
    its rest begins.
    """

    before_min: float
    bears_min: float
    after_min: float


def owed(play: Played) -> tuple[Owed, ...]:
    """What a dough owes of relaxing at every step.

    Each roll asks for its own; rolled again before it has that, a dough asks for half a letter's more. A
    rest pays, wherever it lies, and nothing is saved up. A turn bears what the one before it owes, which is
    two turns back to back; the last roll bears nothing. Source: trade practice.
    """
    found, owes, alone = play.followed.walk, 0.0, 0.0
    each = []
    for n, (step, made) in enumerate(zip(found.plan.steps, found.made, strict=True)):
        before, bears = owes, 0.0 if isinstance(step, LastSheet) else alone
        if made.handling.rolls:
            here = found.here(n)
            more = play.kitchen["relax.letter_min"] * by_flour(here) / 2
            owes = max(kind_of(step).relaxing(here), owes + more if owes > 0 else 0.0)
            alone = after_fold(here) if isinstance(step, Turn) else owes
        each.append(Owed(before, bears, owes))
        if step.rest:
            owes = max(owes - step.rest.minutes, 0.0)
    return tuple(each)


def _risen_by_the_end(play: Played, stop: str) -> float:
    """How far a dough had risen since its last roll, % of a whole proof, when its rest ended."""
    found = play.followed
    if found.leaven is None:
        return 0.0
    last = 0.0
    for stretch, (_, course, risen, _) in zip(found.stretches, found.seen, strict=True):
        if stretch.stop == stop and not stretch.working:
            dose = course.gathered(found.scene.rates, course.minutes[-1:])[0, 0]
            last = 100 * (risen + float(dose)) / found.scene.whole
    return last


def _rolls(play: Played) -> Iterator[Harmed]:
    kitchen, window = play.kitchen, play.window
    still_rolls = window.brittle_c - window.bears_k - kitchen["brittle.good_k"]
    slack = kitchen["clock.slack_k"]
    free = kitchen["yeast.between_possible_pct"]
    freezes = play.followed.scene.matter.freezes_c
    for roll in _rolls_of(play):
        hard = min(math.log(roll.times) / _THIRD, 1.5)
        _, pace, _ = hand_of(play, roll.stop)
        at = named(roll.name)
        if roll.has_butter:
            cold, coldest = _brittle(roll.pressed, still_rolls, kitchen["lesson.brittle_span_k"])
            text = f"{at}: the outer butter was at {c(coldest)} and snapped into islands."
            yield Harmed(
                roll.stop, Harm.BRITTLE, _of_leaves(cold * hard, kitchen["lesson.breaks_pct"]), text
            )
            soft, warmest = _soft(roll.end, window.plastic_to_c, window.oils_c, slack)
            text = f"{at}: butter at {c(warmest)} smeared, and leaves ran together."
            yield Harmed(
                roll.stop, Harm.SOFT, _of_leaves(soft * hard, kitchen["lesson.smears_pct"]), text
            )
        frozen = float(np.clip((freezes - roll.pressed.t_c) / 2, 0, 1) @ roll.pressed.shares)
        text = f"{at}: the dough was frozen, at {c(roll.pressed.mean_c)}, and broke."
        yield Harmed(roll.stop, Harm.FROZEN, frozen * kitchen["lesson.frozen_pct"], text)
        owes = roll.owed.before_min
        over = max(owes - roll.owed.bears_min, 0.0)
        if over > 0:
            missing = f"{at}: {span(owes)} of relaxing missing; the"
            springs = min(over * kitchen["lesson.springs_pct"], 40.0)
            yield Harmed(roll.stop, Harm.SPRANG, springs, f"{missing} sheet sprang back.")
            torn = min(over * hard * kitchen["lesson.tears_pct"], 90.0)
            yield Harmed(roll.stop, Harm.TENSE, torn, f"{missing} dough pulled back and tore.")
        if roll.has_butter and roll.rose_pct > free:
            tears = (roll.rose_pct - free) / 10 * kitchen["lesson.rising_pct"]
            text = f"{at}: it had risen to {say(roll.rose_pct)} % of a proof, and tore as it was rolled."
            yield Harmed(roll.stop, Harm.RISING, min(tears, 80.0), text)
        if pace is Pace.BIG and roll.has_butter:
            text = f"{at}: a few big steps crushed leaves into each other."
            yield Harmed(roll.stop, Harm.CRUSHED, kitchen["lesson.crushes_pct"], text)


def _brittle(body: Body, still_rolls: float, span_k: float) -> tuple[float, float]:
    """The share of the butter that is too cold to roll, 0 to 1 by how much; and the coldest, °C."""
    too_cold: Profile = np.clip((still_rolls - body.t_c) / span_k, 0, 1)
    return float(too_cold @ body.butter_shares), float(body.t_c[body.buttery].min())


def _soft(body: Body, plastic_to: float, oils: float, slack_k: float) -> tuple[float, float]:
    """The share of the butter that is too soft to roll, 0 to 1 by how much; and its mean warmth, °C."""
    too_soft: Profile = np.clip((body.t_c - plastic_to - slack_k) / (oils - plastic_to), 0, 1.5)
    return float(too_soft @ body.butter_shares), float(body.t_c @ body.butter_shares)


def _of_leaves(share: float, pct: float) -> float:
    return min(share * pct, _MOST_PCT)


def _by_hands(play: Played) -> Iterator[Harmed]:
    """What hands did that no temperature shows: the way a package was rolled, sheets not even, marks."""
    found = play.followed.walk
    cut = next((m.figures for m in found.made if isinstance(m.figures, CutFigures)), None)
    for n, (step, made) in enumerate(zip(play.plan.steps, found.made, strict=True)):
        way, _, marks = hand_of(play, step.id)
        at = named(found.names[n])
        if way is Direction.CLOSED and made.handling.rolls:
            text = f"{at}: rolled towards its closed ends, so that pieces shrink crooked."
            yield Harmed(step.id, Harm.WRONG_WAY, play.kitchen["lesson.wrong_way_pct"], text)
        if isinstance(made.figures, LastSheetFigures):
            thin, thick = made.figures.thinnest_mm, made.figures.thickest_mm
            text = f"{at}: from {mm(thin)} to {mm(thick)} thick."
            off = min(_spread_pct(made.lies.laminate, cut), 50.0)
            yield Harmed(step.id, Harm.UNEVEN, off if off > _EVEN_PCT else 0.0, text)
        if marks is Marking.LAST and isinstance(step, Cut) and isinstance(made.figures, CutFigures):
            drift, short_mm = _drift(step, made.figures)
            text = f"{at}: marked each from the last cut, the last mark was {mm(short_mm)} short."
            yield Harmed(step.id, Harm.MARKS, drift, text)


_EVEN_PCT = 0.5  # of its thickness: what is as good as even


def _spread_pct(sheet: Sheet, cut: CutFigures | None) -> float:
    """How far pieces of a sheet differ from what each should weigh, their standard deviation in %.

    Pieces of several products are each held against their own. Of a sheet that nobody cuts, how far its
    thickness differs over its area.
    """
    if cut is not None:
        of = np.array(
            [row.product for _ in range(cut.layers) for row in cut.rows for _ in range(row.pieces)]
        )
        each = np.array(cut.each_g)
        if len(each) < 2 or len(of) != len(each):
            return 0.0
        means = np.array(
            [each[of == n].mean() for n in range(int(of.max()) + 1) if (of == n).any()]
        )
        known = np.searchsorted(np.unique(of), of)
        return 100 * float((each / means[known]).std())
    thick = np.array([s.thickness for s in sheet.pool])
    shares = np.array(sheet.shares)
    mean = float(shares @ thick)
    return 100 * math.sqrt(max(float(shares @ (thick - mean) ** 2), 0.0)) / mean


def _drift(step: Cut, figures: CutFigures) -> tuple[float, float]:
    """By how many per cent the pieces of a row that is marked cut from cut differ, and the last mark, mm."""
    worst, short = 0.0, 0.0
    for row in figures.rows:
        if len(row.marks) < 2 or row.pieces < 2:
            continue
        right = row.marks[0], row.marks[-1]
        wrong = chained(right, step.kerf_mm)
        meant, came = cut_from(right, step.kerf_mm), cut_from(wrong, step.kerf_mm)
        lost = [100 * (1 - b / a) for a, b in zip(meant, came, strict=True) if a]
        worst = max(worst, max(lost, default=0.0))
        short = max(short, right[0].along_mm[-1] - wrong[0].along_mm[-1])
    return worst, short


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
    mean = next(
        m.figures.layers for m in play.followed.walk.made if isinstance(m.figures, LastSheetFigures)
    )
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
    usual = tuple(kitchen.of_family(family, f"proof.yeast_pct.{e}") for e in ("low", "high"))
    dose = sum(
        float(course.gathered(found.scene.rates, course.minutes[-1:])[0, 0])
        for _, course in _in_open_air(play)
    )
    at = 100 * dose / found.leaven.dose_for((usual[0], usual[1]))
    low, good, until, high = (
        kitchen.of_family(family, f"proof.{name}_pct")
        for name in ("possible_from", "good_from", "good_until", "possible_until")
    )
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


def _in_open_air(play: Played) -> Iterator[tuple[str, Course]]:
    """The stretches in which shaped pieces lay, with the step each belongs to."""
    found = play.followed
    for stretch, (_, course, _, _) in zip(found.stretches, found.seen, strict=True):
        began = found.began.get(stretch.stop)
        if began and began.open_air and not stretch.working:
            yield stretch.stop, course


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
    for _, course in _in_open_air(play):
        minutes = np.linspace(0, float(course.minutes[-1]), 60)
        over = np.clip(course.at(minutes) - bears, 0, None) @ course.end.shares
        total += float(np.trapezoid(over, minutes)) / 60
    return total


def _piece_g(play: Played, harms: list[Harmed]) -> float:
    """One baked piece, g: as it was cut of a sheet that sprang back, less what the oven takes."""
    found = play.followed.walk
    cut = next((m.figures for m in found.made if isinstance(m.figures, CutFigures)), None)
    last_roll = play.plan.last_sheet.id
    springs = sum(h.pct for h in harms if h.harm is Harm.SPRANG and h.stop == last_roll)
    sheet_g = next(m.figures.mass_g for m in found.made if isinstance(m.figures, LastSheetFigures))
    raw = cut.piece_g if cut else sheet_g
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
