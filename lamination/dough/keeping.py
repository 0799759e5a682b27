"""How long something that is put away keeps, by what it is, where it lies, and its butter or filling."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.kitchen.kitchen import Kitchen
from lamination.terms.trade import Family, Place, Worded

COLD = (Place.FRIDGE, Place.FREEZER)


class Holds(Worded):
    """What something that is put away is."""

    DOUGH = "dough", "block of dough"
    RAW = "raw", "raw pieces"
    BAKED = "baked", "baked pieces"
    TRIMMINGS = "trimmings", "trimmings"
    BUTTER = "butter", "butter"


@dataclass(frozen=True, slots=True)
class Keeping:
    """How long it keeps, h; the rows that say so, and why in a sentence."""

    hours: float
    rows: tuple[str, ...]
    says: str


def keeping(
    holds: Holds,
    family: Family,
    place: Place,
    kitchen: Kitchen,
    oils_c: float | None = None,
    filled: bool = False,
) -> Keeping:
    """How long it keeps in a place. ``oils_c``: where its butter lets go, None where nobody said.

    A firm laminating butter lets a yeasted block keep longer in the freezer than a table butter does; one
    that is not known counts as the softer. What is filled keeps no longer than its filling. Raises
    ValueError for a place that is not cold. Source: practice, a row each.
    """
    if place not in COLD:
        raise ValueError(f"nothing is put away in the {place.said}")
    frozen = place is Place.FREEZER
    kind = "yeasted" if family.yeasted else "puff"
    says = f"{holds.said.capitalize()}, {'with' if family.yeasted else 'without'} yeast"
    rows: tuple[str, ...]
    if holds is Holds.BUTTER:
        rows, says = (f"keep.{place}_butter_days",), "Butter, well wrapped"
    elif holds is Holds.BAKED:
        rows, says = ("keep.freezer_baked_days" if frozen else "again.keeps_h",), "Baked pieces"
    elif holds is Holds.TRIMMINGS and frozen:
        rows = ("keep.freezer_trimmings_days",)
    elif holds is Holds.RAW:
        rows = (f"keep.freezer_raw_{kind}_days" if frozen else f"keep.fridge_raw_{kind}_h",)
    elif frozen:
        firm = oils_c is not None and oils_c >= kitchen["keep.firm_butter_c"]
        rows = (f"keep.freezer_{kind}_{'firm' if firm else 'soft'}_days",)
        says += f", {'firm butter' if firm else 'table butter'}"
    else:
        rows = (f"keep.fridge_{kind}_h",)
    if filled and holds in (Holds.RAW, Holds.BAKED):
        rows, says = (*rows, f"keep.{place}_filled_h"), f"{says}, filled"
    hours = min(kitchen[r] * (24 if r.endswith("_days") else 1) for r in rows)
    return Keeping(hours, rows, f"{says}, in the {place.said}.")
