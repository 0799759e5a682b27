"""What goes wrong with a dough before the oven: leaves lost at every roll, and what hands did.

Each harm is worked by itself from how warm the dough was, what it owed of relaxing and how far it had
risen; the formulas stand in docs/model.md, their figures are the Kitchen's ``lesson.`` rows.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from lamination.heat.body import Body
from lamination.lessons.choices import Direction, Marking, Pace
from lamination.lessons.play import Played, hand_of
from lamination.materials.thermal import Profile
from lamination.pieces.marking import chained, cut_from
from lamination.sheet.cells import Sheet
from lamination.steps import kind_of
from lamination.steps.cut import Cut, CutFigures
from lamination.steps.last_sheet import LastSheet, LastSheetFigures
from lamination.steps.turn import Turn, after_fold, by_flour
from lamination.terms.said import c, mm, named, say, span
from lamination.terms.trade import Worded

_THIRD = math.log(3)  # a roll to a third is the measure of how hard a roll is on the leaves
_MOST_PCT = 95.0  # of the leaves that one harm takes


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
    rolls: list[_Roll] = []
    owes = owed(play)
    risen_before = 0.0
    for n, (step, made) in enumerate(zip(found.walk.plan.steps, found.walk.made, strict=True)):
        courses = [course for _, course, _ in found.spent(step.id, working=True)]
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
    for _, course, risen in found.spent(stop, working=False):
        dose = course.gathered(found.scene.rates, course.minutes[-1:])[0, 0]
        last = 100 * (risen + float(dose)) / found.scene.whole
    return last


def of_rolls(play: Played) -> Iterator[Harmed]:
    """What every roll of a play did to the leaves, by how warm, relaxed and risen the dough was."""
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


def of_hands(play: Played) -> Iterator[Harmed]:
    """What hands did that no temperature shows: the way a package was rolled, sheets not even, marks."""
    found = play.followed.walk
    for n, (step, made) in enumerate(zip(play.plan.steps, found.made, strict=True)):
        way, _, marks = hand_of(play, step.id)
        at = named(found.names[n])
        if way is Direction.CLOSED and made.handling.rolls:
            text = f"{at}: rolled towards its closed ends, so that pieces shrink crooked."
            yield Harmed(step.id, Harm.WRONG_WAY, play.kitchen["lesson.wrong_way_pct"], text)
        if isinstance(made.figures, LastSheetFigures):
            thin, thick = made.figures.thinnest_mm, made.figures.thickest_mm
            text = f"{at}: from {mm(thin)} to {mm(thick)} thick."
            off = min(_spread_pct(made.lies.laminate, play.cut), 50.0)
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
