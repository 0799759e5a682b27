"""Tables that go out and come in as CSV: a formula's ingredients, weigh-out sheets."""

from __future__ import annotations

import re
from collections.abc import Iterable
from itertools import zip_longest
from typing import Any

from lamination.dough.formula import Line
from lamination.dough.weighing import WeighSheet
from lamination.materials.ingredients import Kind, Shelf
from lamination.materials.preparations import Care, MadeWhen, Preparation, PreparedPart
from lamination.plan.worked import FormulaFigures
from lamination.terms.limits import Fault, Faults, raise_if
from lamination.terms.said import plain
from lamination.terms.tables import read_table, written_table
from lamination.terms.trade import Worded

_GRAMS = {"g": 1.0, "kg": 1000.0, "oz": 28.349523125, "lb": 453.59237}
UNITS = ("%", *_GRAMS)
_HEAD = ("ingredient", "amount", "unit")
_MOST_ROWS = 100


def formula_csv(made: FormulaFigures) -> str:
    """A formula as CSV: key, name, % of flour as ``amount`` with its unit, and grams of one dough."""
    head = ("ingredient", "amount", "unit", "name", "grams of one dough")
    rows = [(p.ingredient, f"{p.pct:g}", "%", p.name, f"{p.grams:.1f}") for p in made.parts]
    return written_table((head, *rows))


def sheets_csv(sheets: Iterable[WeighSheet]) -> str:
    """Weigh-out sheets as CSV, one row for each line, in the order of the day."""
    rows = [
        (s.name, f"{s.minute:g}", line.name, f"{line.grams:g}",
         "" if line.stays_g is None else f"{line.stays_g:g}", plain(s.declared))
        for s in sheets
        for line in s.lines
    ]  # fmt: skip
    return written_table(
        (
            ("sheet", "minute", "ingredient", "grams", "still to add on mixing day", "allergens"),
            *rows,
        )
    )


_PREPARED = ("preparation", "ingredient", "grams", "loss %", "minutes", "made", "keeps h", "care")


def preparations_csv(preparations: Iterable[Preparation]) -> str:
    """A bakery's preparations as CSV, a row for each of their ingredients."""
    rows = [
        (p.name, part.what, f"{part.grams:g}", f"{p.loss_pct:g}", f"{p.minutes:g}", p.made.said,
         f"{p.keeps_h:g}", p.care.said)
        for p in preparations
        for part in p.parts
    ]  # fmt: skip
    return written_table((_PREPARED, *rows))


def read_preparations_csv(text: str) -> tuple[Preparation, ...]:
    """Read preparations from CSV with the columns preparation, ingredient and grams; others as they go out.

    What is said of a preparation in the first of its rows counts. Raises :class:`Faults` whose paths count
    the rows from 1: no number, a word that is none of the choices.
    """
    first = next(iter(text.lstrip("\ufeff").splitlines()), "")
    delimiter = ";" if first.count(";") > first.count(",") else ","
    head, *cells = [row for row in read_table(text, delimiter) if any(row)] or [[]]
    names = [name.strip().lower() for name in head]
    if not {*_PREPARED[:3]} <= {*names}:
        text_ = (
            "The first row names the columns: preparation, ingredient, grams. Then a row for each."
        )
        raise Faults(Fault("", text_))
    rows = [dict(zip_longest(names, row[: len(names)], fillvalue="")) for row in cells]
    parts: dict[str, list[PreparedPart]] = {}
    said: dict[str, dict[str, Any]] = {}
    faults: list[Fault] = []

    def number(n: int, row: dict[str, str], column: str, otherwise: float) -> float:
        cell = row.get(column, "").strip().replace(",", ".")
        try:
            return float(cell) if cell else otherwise
        except ValueError:
            faults.append(Fault(f"row {n}, {column}", f"“{cell}” is not a number."))
            return otherwise

    def choice(n: int, row: dict[str, str], column: str, of: type[Worded], otherwise: Any) -> Any:
        cell = row.get(column, "").strip().lower()
        found = next((one for one in of if cell in (one.said.lower(), one.value)), None)
        if cell and found is None:
            known = ", ".join(one.said for one in of)
            faults.append(Fault(f"row {n}, {column}", f"“{cell}” is none of these: {known}."))
        return found or otherwise

    for n, row in enumerate(rows, 1):
        name = row["preparation"].strip()
        if not name or not row["ingredient"].strip():
            faults.append(Fault(f"row {n}", "A row names a preparation and an ingredient of it."))
            continue
        grams = number(n, row, "grams", 0.0)
        if not 0.01 <= grams <= 100_000:
            faults.append(Fault(f"row {n}, grams", "From 0.01 g to 100 kg."))
            continue
        parts.setdefault(name, []).append(PreparedPart(row["ingredient"].strip(), grams))
        said.setdefault(name, {
            "loss_pct": number(n, row, "loss %", 0.0),
            "minutes": number(n, row, "minutes", 15.0),
            "made": choice(n, row, "made", MadeWhen, MadeWhen.BEFORE),
            "keeps_h": number(n, row, "keeps h", 48.0),
            "care": choice(n, row, "care", Care, Care.NONE),
        })  # fmt: skip
    raise_if(faults)
    return tuple(
        Preparation(_key_of(name), name, tuple(of), **said[name]) for name, of in parts.items()
    )


def _key_of(name: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:40] or "preparation"


def read_formula_csv(text: str, shelf: Shelf) -> tuple[Line, ...]:
    """Read a formula's lines from CSV with the columns ingredient, amount, unit; others are ignored.

    Amounts are all in %, of the flour, or all in masses (g, kg, oz, lb), which become percentages.
    Ingredients are named by key, or as they are called. Raises :class:`Faults` whose paths count the
    rows from 1 (``row 3, unit``): an unknown ingredient or unit, no number, no flour.
    """
    # people save tables with semicolons where the comma is the decimal sign
    first = next(iter(text.lstrip("\ufeff").splitlines()), "")
    delimiter = ";" if first.count(";") > first.count(",") else ","
    names_of, *cells = [row for row in read_table(text, delimiter) if any(row)] or [[]]
    # a row that is shorter than its head leaves the rest empty
    rows = [dict(zip_longest(names_of, row[: len(names_of)], fillvalue="")) for row in cells]
    head = {name.strip().lower(): name for name in names_of}
    absent = [name for name in _HEAD if name not in head]
    if not rows or absent:
        columns = ", ".join(_HEAD)
        raise Faults(Fault("", f"The first row names the columns: {columns}. Then a row for each."))
    if len(rows) > _MOST_ROWS:
        raise Faults(Fault("", f"{len(rows)} rows are too many for a formula."))
    names = {i.name.lower(): i.key for i in shelf}
    faults, read = [], []
    for n, row in enumerate(rows, 1):
        said = row[head["ingredient"]].strip()
        key = said if said in shelf else names.get(said.lower(), said)
        unit = row[head["unit"]].strip().lower()
        amount = row[head["amount"]].strip().replace(",", ".")
        if key not in shelf:
            faults.append(Fault(f"row {n}, ingredient", shelf.complaint(said)))
        if unit not in UNITS:
            text_ = f"“{unit}” is not a unit for this. Use one of {', '.join(UNITS)}."
            faults.append(Fault(f"row {n}, unit", text_))
        try:
            value = float(amount)
            if not 0 <= value < 1e7:
                raise ValueError
        except ValueError:
            faults.append(Fault(f"row {n}, amount", f"“{amount}” is not an amount."))
            continue
        read.append((key, value, unit))
    if len({unit == "%" for _, _, unit in read}) > 1:
        faults.append(Fault("", "Some amounts are in % and some are masses. Use one of the two."))
    raise_if(faults)
    return _as_lines(read, shelf)


def _as_lines(read: list[tuple[str, float, str]], shelf: Shelf) -> tuple[Line, ...]:
    if read[0][2] == "%":
        return tuple(Line(key, value) for key, value, _ in read)
    grams = [(key, value * _GRAMS[unit]) for key, value, unit in read]
    flour = sum(g for key, g in grams if shelf[key].kind is Kind.FLOUR)
    if flour <= 0:
        raise Faults(Fault("", "There is no flour among these. Percentages are measured on it."))
    lines = tuple(Line(key, round(100 * g / flour, 4)) for key, g in grams)
    return lines
