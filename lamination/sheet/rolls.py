"""One roll of a sheet: to a thickness, to a size, or to one of its sides and either; and squaring it."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.sheet.cells import Sheet, place, roll, turn, uneven
from lamination.sheet.stacks import Material, leaf
from lamination.sheet.trims import trim
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


@dataclass(frozen=True, slots=True)
class RollTo:
    """What a sheet is rolled to, mm: a thickness, a length, or two of the three; what is None follows.

    ``width_mm`` is never chosen alone. See :func:`chosen` for what is refused.
    """

    thick_mm: float | None
    width_mm: float | None = None
    length_mm: float | None = None


def chosen(to: RollTo) -> list[Fault]:
    """What is wrong with a choice: nothing to roll to, or all three sizes at once."""
    if to.thick_mm is None and to.length_mm is None:
        return [Fault("roll_to_mm", "Say how thick it is rolled, or how long.")]
    if None not in (to.thick_mm, to.width_mm, to.length_mm):
        text = "Thickness, width and length cannot all be chosen: leave one empty, and it follows."
        return [Fault("length_mm", text)]
    return []


def rolled_to(sheet: Sheet, to: RollTo, uneven_pct: float = 0.0) -> Rolled:
    """Roll a package that lies turned for the roll, to a chosen width first.

    It is rolled towards its open ends. A pin cannot make a sheet narrower, though: where the wanted
    width is less than the side that then lies across, the package is laid the other way if that fits.
    No dough is lost: what is not chosen follows from the volume. Raises :class:`Faults`
    (``roll_to_mm``, ``length_mm``) when that is not thinner.
    """
    now, width_mm = sheet.thickness_mm, to.width_mm
    volume = sheet.length_mm * sheet.width_mm * now
    to_mm = to.thick_mm
    if to.length_mm is not None and to_mm is not None:
        width_mm = volume / (to.length_mm * to_mm)
    elif to.length_mm is not None:
        to_mm = volume / (to.length_mm * (width_mm or sheet.width_mm))
    assert to_mm is not None
    if to_mm >= now - _HAIR_MM:
        if to.thick_mm is None:
            text = (
                f"So short it would be {mm(to_mm)} thick, no thinner than the package, which is "
                f"{mm(now)}. Roll it longer."
            )
            raise Faults(Fault("length_mm", text))
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


def as_it_lies(sheet: Sheet) -> Rolled:
    """A package that is folded without a roll."""
    return Rolled(sheet, sheet, True, min(sheet.length_mm, sheet.width_mm))


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
