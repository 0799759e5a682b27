"""The sheets of a plan, one after another as they lie: locked in, rolled, trimmed, folded, last."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.plan.plan import Plan, Turn
from lamination.sheet.cells import Sheet, place, roll, trim, turn, uneven
from lamination.sheet.folds import fold_sheet
from lamination.sheet.lockin import LockedIn, Method, lock_in
from lamination.sheet.stacks import Material, leaf
from lamination.terms.limits import Fault, Faults, say

_HAIR_MM = 1e-6  # what sums of areas may be off by


@dataclass(frozen=True, slots=True)
class LaidTurn:
    """One turn: the package it starts from, then rolled, trimmed and folded (not yet turned).

    ``turned``: whether the package lay turned for the roll. What was cut off is in mm³.
    """

    starts: Sheet
    rolled: Sheet
    ready: Sheet
    folded: Sheet
    turned: bool
    trimmed_dough_mm3: float
    trimmed_butter_mm3: float


@dataclass(frozen=True, slots=True)
class Laid:
    """Every sheet of a plan: exact, before anything is said about it."""

    locked: LockedIn
    turns: tuple[LaidTurn, ...]
    starts_last: Sheet
    last: Sheet
    last_turned: bool


def lay(plan: Plan, dough_kg_m3: float, butter_kg_m3: float) -> Laid:
    """Lay a plan's sheets, with the densities of its dough and its butter.

    Raises :class:`~lamination.terms.limits.Faults` when a roll is not thinner than what it starts from,
    or the lock-in cannot take the block; paths are those of the plan.
    """
    locked = _lock_in(plan, dough_kg_m3, butter_kg_m3)
    sheet = turn(locked.sheet)
    turns = []
    for i, chosen in enumerate(plan.turns):
        path = f"turns[{i}]"
        rolled, turned = _rolled(sheet, chosen.roll_to_mm, chosen.width_mm, path)
        if i == 1 and plan.lock_in.method is Method.TWO_GO:
            rolled = _second_go(rolled, locked)
        if chosen.uneven_pct:
            rolled = uneven(rolled, chosen.uneven_pct / 100)
        ready, dough_mm3, butter_mm3 = _trimmed(rolled, chosen, path)
        folded = _folded(ready, chosen, path)
        turns.append(LaidTurn(sheet, rolled, ready, folded, turned, dough_mm3, butter_mm3))
        sheet = turn(folded)
    last, turned = _rolled(sheet, plan.final.roll_to_mm, plan.final.width_mm, "final")
    if plan.final.uneven_pct:
        last = uneven(last, plan.final.uneven_pct / 100)
    return Laid(locked, tuple(turns), sheet, last, turned)


def _lock_in(plan: Plan, dough_kg_m3: float, butter_kg_m3: float) -> LockedIn:
    chosen = plan.lock_in
    try:
        return lock_in(
            chosen.method,
            plan.dough.mass_g / dough_kg_m3 * 1e6,
            plan.butter.mass_g / butter_kg_m3 * 1e6,
            chosen.block_width_mm,
            chosen.block_length_mm,
            chosen.margin_mm,
            chosen.overlap_mm,
            chosen.off_centre_mm,
            chosen.lump_mm,
        )
    except Faults as wrong:
        raise Faults(*(f.under("lock_in") for f in wrong.faults)) from None


def _rolled(sheet: Sheet, to_mm: float, width_mm: float | None, path: str) -> tuple[Sheet, bool]:
    """Roll to a thickness, to a chosen width first; whether the package lay turned.

    As for a fold, the package lies turned, so that it is rolled towards its open ends. A pin
    cannot make a sheet narrower, though: where the wanted width is less than the side that then
    lies across, the package is laid the other way if that fits.
    """
    _must_thin(sheet, to_mm, f"{path}.roll_to_mm")
    stretch = sheet.thickness_mm / to_mm
    if width_mm is None:
        return roll(sheet, stretch), True
    turned = not sheet.length_mm <= width_mm < sheet.width_mm
    laid = sheet if turned else turn(sheet)
    across = width_mm / laid.width_mm
    return roll(laid, stretch / across, across), turned


def _second_go(rolled: Sheet, locked: LockedIn) -> Sheet:
    """The rest of the butter laid all over the rolled sheet."""
    volume = locked.block.volume_mm3 / 2
    area = rolled.length_mm * rolled.width_mm
    butter = leaf(Material.BUTTER, volume / area / rolled.press)
    return place(rolled, butter, rolled.xs[0], rolled.ys[0], rolled.length_mm, rolled.width_mm)


def _trimmed(rolled: Sheet, chosen: Turn, path: str) -> tuple[Sheet, float, float]:
    """The rolled sheet squared off, and what was saved of dough and butter, mm³."""
    if chosen.trim is None:
        return rolled, 0.0, 0.0
    wanted = chosen.trim
    for name, cut, side in (
        ("ends_mm", wanted.ends_mm, rolled.length_mm),
        ("sides_mm", wanted.sides_mm, rolled.width_mm),
    ):
        if 2 * cut >= side:
            text = f"The sheet is {say(side)} mm there: less than {say(side / 2)} mm can come off."
            raise Faults(Fault(f"{path}.trim.{name}", text))
    done = trim(rolled, wanted.ends_mm, wanted.sides_mm, wanted.tucked)
    return done.sheet, done.dough_mm3, done.butter_mm3


def _folded(ready: Sheet, chosen: Turn, path: str) -> Sheet:
    panel = ready.length_mm / chosen.fold.multiplies
    if chosen.short_mm and chosen.short_mm >= panel / 2:
        text = f"A flap is {say(panel)} mm long: short by less than {say(panel / 2)} mm it still folds."
        raise Faults(Fault(f"{path}.short_mm", text))
    return fold_sheet(ready, chosen.fold, chosen.stacked, chosen.seam_pct / 100, chosen.short_mm)


def _must_thin(sheet: Sheet, to_mm: float, path: str) -> None:
    now = sheet.thickness_mm
    if to_mm >= now - _HAIR_MM:
        raise Faults(
            Fault(
                path,
                f"{say(to_mm)} mm is not thinner than the package, which is {say(now)} mm thick. "
                f"Roll to less than {say(now)} mm.",
            )
        )
