"""One roll of a sheet: to a thickness, to a width first where one is wanted; and squaring it off."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.sheet.cells import Sheet, place, roll, trim, turn, uneven
from lamination.sheet.stacks import Material, leaf
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import mm
from lamination.terms.sizes import Size

_HAIR_MM = 1e-6  # what sums of areas may be off by


@dataclass(frozen=True, slots=True)
class Rolled:
    """A sheet rolled, and how the package lay for it: ``starts`` as it lay, ``turned`` as for a fold.

    ``narrowest_mm``: less than this no pin makes it wide.
    """

    starts: Sheet
    sheet: Sheet
    turned: bool
    narrowest_mm: float


def size_of(sheet: Sheet) -> Size:
    """Length, width and mean thickness of a sheet, mm."""
    return Size(sheet.length_mm, sheet.width_mm, sheet.thickness_mm)


def rolled_to(
    sheet: Sheet, to_mm: float, width_mm: float | None, uneven_pct: float = 0.0
) -> Rolled:
    """Roll a package that lies turned for the roll, to a chosen width first.

    It is rolled towards its open ends. A pin cannot make a sheet narrower, though: where the wanted
    width is less than the side that then lies across, the package is laid the other way if that fits.
    Raises :class:`Faults` (``roll_to_mm``) when that is not thinner.
    """
    now = sheet.thickness_mm
    if to_mm >= now - _HAIR_MM:
        text = (
            f"{mm(to_mm)} is not thinner than the package, which is {mm(now)} thick. "
            f"Roll to less than {mm(now)}."
        )
        raise Faults(Fault("roll_to_mm", text))
    stretch = now / to_mm
    sides = sheet.length_mm, sheet.width_mm
    if width_mm is None:
        turned, laid, made = True, sheet, roll(sheet, stretch)
    else:
        turned = not sides[0] <= width_mm < sides[1]
        laid = sheet if turned else turn(sheet)
        across = width_mm / laid.width_mm
        made = roll(laid, stretch / across, across)
    if uneven_pct:
        made = uneven(made, uneven_pct / 100)
    return Rolled(laid, made, turned, min(sides))


def buttered(sheet: Sheet, butter_mm3: float) -> Sheet:
    """The sheet with so much butter laid all over it, mm³."""
    area = sheet.length_mm * sheet.width_mm
    butter = leaf(Material.BUTTER, butter_mm3 / area / sheet.press)
    return place(sheet, butter, sheet.xs[0], sheet.ys[0], sheet.length_mm, sheet.width_mm)


@dataclass(frozen=True, slots=True)
class Squared:
    """A sheet squared off, and what was saved of dough and of butter, mm³."""

    sheet: Sheet
    dough_mm3: float
    butter_mm3: float


def squared(sheet: Sheet, ends_mm: float, sides_mm: float, tucked: bool) -> Squared:
    """Trim both ends and both sides; ``tucked``: what comes off is folded in.

    Raises :class:`Faults` (``ends_mm``, ``sides_mm``) when too little would be left of the sheet, or
    what is tucked in would hang over it.
    """
    for name, cut, side in (
        ("ends_mm", ends_mm, sheet.length_mm),
        ("sides_mm", sides_mm, sheet.width_mm),
    ):
        most = side / 4 if tucked else side / 2
        if cut and (cut > most if tucked else cut >= most):
            text = f"The sheet is {mm(side)} there: less than {mm(most)} can come off" + (
                " and still lie inside it." if tucked else "."
            )
            raise Faults(Fault(name, text))
    done = trim(sheet, ends_mm, sides_mm, tucked)
    return Squared(done.sheet, done.dough_mm3, done.butter_mm3)
