"""Weighing the pieces: mean, spread and drift along the sheet, and what to change on the next one."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np

from lamination.kitchen.kitchen import Kitchen
from lamination.terms.limits import Checked, Fault, Faults, Length, Range
from lamination.terms.said import counted, fine_mm, g, mm, say
from lamination.terms.tables import read_table

Grams = Annotated[float, Range(0.1, 20_000, "g")]


@dataclass(frozen=True)
class Weighing(Checked):
    """Pieces of one product in the order they lie along the sheet, g, and what they should weigh.

    ``off_pct``: by how much a piece may be off, the kitchen's where none is said. ``thickness_mm``
    and ``base_mm`` are those of the sheet they were cut from, for the advice.
    """

    grams: Annotated[tuple[Grams, ...], Length(1, 500, "pieces")]
    target_g: Grams
    off_pct: Annotated[float, Range(0.5, 50, "%")] | None = None
    thickness_mm: Annotated[float, Range(0.5, 200, "mm")] | None = None
    base_mm: Annotated[float, Range(10, 5_000, "mm")] | None = None


@dataclass(frozen=True, slots=True)
class Weighed:
    """What a weighing shows. ``drift_pct``: from the first piece to the last, of the mean, by the
    straight line through all (``first_g`` to ``last_g``); ``drifts`` where that is more than chance.
    ``out``: the pieces outside ``lowest_g`` to ``highest_g``.
    """

    mean_g: float
    spread_g: float
    least_g: float
    most_g: float
    off_pct: float
    drift_pct: float
    drifts: bool
    first_g: float
    last_g: float
    lowest_g: float
    highest_g: float
    out: tuple[int, ...]
    verdict: Literal["good", "mind"]
    says: tuple[str, ...]


@dataclass(frozen=True)
class ScaleSetting(Checked):
    """How the simulated scale behaves: a target, a bias and a drift along the sheet, and its noise."""

    target_g: Grams
    pieces: Annotated[int, Range(1, 500)] = 16
    bias_pct: Annotated[float, Range(-40, 40, "%")] = 0.0
    drift_pct: Annotated[float, Range(-40, 40, "%")] = -6.0
    noise_g: Annotated[float, Range(0, 50, "g")] = 0.4
    seed: Annotated[int, Range(0, 1_000_000)] = 1


def check_weighing(weighing: Weighing, kitchen: Kitchen) -> Weighed:
    """Judge a weighing.

    Spread is the standard deviation about the mean, g. The drift is the least-squares line along the
    sheet; it is called one when its slope is more than twice its standard error and worth a change.
    """
    grams, worth = np.array(weighing.grams), kitchen["weigh.worth_pct"]
    n, mean, target = len(grams), float(grams.mean()), weighing.target_g
    spread = float(grams.std(ddof=1)) if n > 1 else 0.0
    first = last = mean
    sure = False
    if n > 2:
        place = np.linspace(-0.5, 0.5, n)
        slope = float((place * (grams - mean)).sum() / (place**2).sum())
        rest = grams - mean - slope * place
        error = math.sqrt(float((rest**2).sum()) / (n - 2) / float((place**2).sum()))
        first, last = mean - slope / 2, mean + slope / 2
        sure = abs(slope) > max(kitchen["weigh.sure"] * error, worth / 100 * target)
    may_pct = kitchen["weigh.off_pct"] if weighing.off_pct is None else weighing.off_pct
    allowed = may_pct / 100 * target
    out = tuple(i for i, g in enumerate(weighing.grams) if abs(g - target) > allowed + 1e-9)
    off_pct = 100 * (mean / target - 1)
    drift_pct = 100 * (last - first) / mean
    says = tuple(_says(weighing, worth, may_pct, mean, off_pct, drift_pct, sure, spread, out))
    good = not out and not sure and abs(off_pct) < worth
    return Weighed(
        mean, spread, float(grams.min()), float(grams.max()), off_pct, drift_pct, sure,
        first, last, target - allowed, target + allowed, out, "good" if good else "mind", says,
    )  # fmt: skip


def _says(
    weighing: Weighing,
    worth: float,
    may_pct: float,
    mean: float,
    off_pct: float,
    drift_pct: float,
    drifts: bool,
    spread: float,
    out: tuple[int, ...],
) -> list[str]:
    target = weighing.target_g
    said = []
    if abs(off_pct) >= worth:
        word = "heavy" if off_pct > 0 else "light"
        text = f"On average {say(abs(off_pct))} % too {word}."
        ways = []
        if weighing.thickness_mm:
            ways.append(f"roll the next sheet to {fine_mm(weighing.thickness_mm * target / mean)}")
        if weighing.base_mm:
            ways.append(f"cut a base of {mm(round(weighing.base_mm * target / mean))}")
        said.append(f"{text} {_capital(' or '.join(ways))}." if ways else text)
    if drifts:
        way = "lighter" if drift_pct < 0 else "heavier"
        end = "last" if drift_pct < 0 else "first"
        text = f"They get {way} along the sheet, by {say(abs(drift_pct))} % from end to end."
        if weighing.thickness_mm:
            thin = abs(drift_pct) / 100 * weighing.thickness_mm
            text += (
                f" The {end} end is about {fine_mm(thin)} thinner: even it out before the last pass, and "
                "measure every mark from the straight edge."
            )
        said.append(text)
    if out:
        many = "1 piece is" if len(out) == 1 else f"{len(out)} pieces are"
        said.append(
            f"{many} more than {say(may_pct)} % off: {', '.join(str(i + 1) for i in out[:8])}"
            f"{' and more' if len(out) > 8 else ''}."
        )
    if not said:
        said.append(
            f"{counted(len(weighing.grams), 'piece')}, {g(mean)} on average, give or take {g(spread)}: "
            "change nothing."
        )
    return said


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def simulated_scale(setting: ScaleSetting) -> tuple[float, ...]:
    """Weights as the simulated scale gives them, g to a tenth: no hardware needed to try it."""
    dice = np.random.default_rng(setting.seed)
    place = np.linspace(-0.5, 0.5, setting.pieces) if setting.pieces > 1 else np.zeros(1)
    true = setting.target_g * (1 + setting.bias_pct / 100 + setting.drift_pct / 100 * place)
    said = true + dice.normal(0, setting.noise_g, setting.pieces)
    return tuple(float(max(round(g, 1), 0.1)) for g in said)


def read_weights_csv(text: str) -> tuple[float, ...]:
    """Weights from a table, g: the last column of every row that holds a number.

    Commas, semicolons or tabs between; a comma may be the decimal. Raises Faults where there is no
    number at all, or one is no weight.
    """
    sample = text[:2_000]
    between = max(";\t", key=sample.count)
    if not sample.count(between):
        between = ","
    found = []
    for n, row in enumerate(read_table(text, between), 1):
        value = row[-1].strip().removesuffix("g").strip() if row else ""
        if between != ",":
            value = value.replace(",", ".")
        try:
            grams = float(value)
        except ValueError:
            continue
        if not 0.1 <= grams <= 20_000:
            raise Faults(Fault("", f"Row {n}: {value} g is no weight of a piece."))
        found.append(grams)
    if not found:
        raise Faults(Fault("", "No weight was found in this table. Put one in each row, in grams."))
    return tuple(found[:500])
