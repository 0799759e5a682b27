"""What comes of an ordered line: pieces, sheets, and what is fetched for them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from lamination.dough.mixing import Water
from lamination.dough.shopping import sheet_of, weigh_lines
from lamination.dough.weighing import WeighSheet
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.ingredients import Kind, Shelf
from lamination.plan.plan import Plan
from lamination.plan.walk import recipe_of
from lamination.steps._things import FILL_AND_TOP, fill_and_top
from lamination.steps.cut import Cut
from lamination.terms.advice import Note
from lamination.terms.limits import Checked, Length, Range
from lamination.terms.sizes import Size


@dataclass(frozen=True)
class Wanted(Checked):
    """A product: pieces, raw weight of one, and what is lost of the sheet on the way (trim, samples)."""

    product: Annotated[str, Length(1, 60, "characters")]
    pieces: Annotated[int, Range(0, 100_000)]
    raw_g: Annotated[float, Range(1, 5_000, "g")]
    loss_pct: Annotated[float, Range(0, 80, "%")] = 8.0


@dataclass(frozen=True, slots=True)
class Made:
    """What comes of a product: pieces, and the laminate they take with their loss, g."""

    product: str
    pieces: int
    raw_g: float
    takes_g: float


@dataclass(frozen=True, slots=True)
class Fetch:
    """What to fetch of something that comes in wholes: bags, plaques, eggs; and what is left over."""

    what: str
    needed_g: float
    whole: int
    of_g: float
    left_g: float


@dataclass(frozen=True, slots=True)
class TimedSheet:
    """A weigh-out sheet of one mixing, ``times`` over, and when; the time where the order has one."""

    sheet: WeighSheet
    times: int
    at: datetime | None
    mixing: bool


@dataclass(frozen=True, slots=True)
class Batch:
    """All of one plan: doughs of a size, how they are mixed, weighed and blocked.

    ``surplus_g`` is laminate beyond what the pieces take. ``limited_by`` says what set the size of
    a dough. ``said`` tells what rounding did. ``sums_to_g``: all sheets together, butter left out.
    ``goes_on``: it is a block of the cold store, and begins at this step; ``saves_min``: of work, by that.
    """

    plan_id: int
    name: str
    plan: Plan
    doughs: int
    dough_g: float
    butter_g: float
    mixings: int
    mixing_g: float
    surplus_g: float
    made: tuple[Made, ...]
    sheets: tuple[TimedSheet, ...]
    sums_to_g: float
    block: Size
    slab: Size | None
    plaques: str
    water: Water | None
    fetch: tuple[Fetch, ...]
    limited_by: str
    said: tuple[str, ...]
    notes: tuple[Note, ...]
    starts_at: datetime | None
    goes_on: str | None = None
    saves_min: float = 0.0


def made_of(
    wanted: Sequence[Wanted], takes: list[float], laminate_g: float, from_flour: bool
) -> tuple[Made, ...]:
    """Pieces as ordered; from flour, as many as it gives, in the proportion they were ordered."""
    if not from_flour:
        return tuple(
            Made(w.product, w.pieces, w.raw_g, t) for w, t in zip(wanted, takes, strict=True)
        )
    whole = sum(takes)
    shares = [t / whole for t in takes] if whole else [1 / len(takes)] * len(takes)
    found = []
    for w, part in zip(wanted, shares, strict=True):
        pieces = math.floor(laminate_g * part * (1 - w.loss_pct / 100) / w.raw_g + 1e-9)
        found.append(Made(w.product, pieces, w.raw_g, pieces * w.raw_g / (1 - w.loss_pct / 100)))
    return tuple(found)


def filled(cut: Cut, made: tuple[Made, ...], shelf: Shelf) -> WeighSheet | None:
    """What goes in and on the pieces that are made, where the plan cuts them by that name."""
    pieces = {m.product: m.pieces for m in made}
    put = fill_and_top((p, pieces.get(p.name, 0)) for p in cut.products)
    if not put:
        return None
    return sheet_of(cut.id, FILL_AND_TOP, 0.0, *weigh_lines(cut.id, put, shelf))


def fetched(one: Plan, sheets: tuple[TimedSheet, ...], kitchen: Kitchen) -> tuple[Fetch, ...]:
    """What to fetch for all of it: bags, plaques and eggs."""
    shelf = recipe_of(one, kitchen).shelf
    needs: dict[str, float] = {}
    names: dict[str, str] = {}
    for timed in sheets:
        for line in timed.sheet.lines:
            needs[line.ingredient] = needs.get(line.ingredient, 0) + line.grams * timed.times
            names[line.ingredient] = line.name
    found = []
    for key, grams in needs.items():
        if key not in shelf:
            continue
        what = shelf[key]
        of: float | None = None
        if what.kind is Kind.FLOUR:
            of, word = kitchen["bag.flour_g"], "bags"
        elif what.kind is Kind.EGG:
            of, word = what.piece_g, "pieces"
        elif key == one.butter.ingredient:
            own = one.butter.plaque
            of, word = (own.mass_g if own else kitchen["plaque.mass_g"]), "plaques"
        if of:
            whole = math.ceil(grams / of - 1e-6)
            found.append(Fetch(f"{names[key]}, {word}", grams, whole, of, whole * of - grams))
    return tuple(found)
