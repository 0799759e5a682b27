"""Tables that go out and come in as CSV: a formula's ingredients, weigh-out sheets."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import zip_longest

from lamination.dough.formula import Line
from lamination.dough.weighing import WeighSheet
from lamination.materials.ingredients import Kind, Shelf
from lamination.plan.worked import FormulaFigures
from lamination.terms.limits import Fault, Faults, raise_if
from lamination.terms.tables import read_table, written_table

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
         "" if line.stays_g is None else f"{line.stays_g:g}")
        for s in sheets
        for line in s.lines
    ]  # fmt: skip
    return written_table(
        (("sheet", "minute", "ingredient", "grams", "still to add on mixing day"), *rows)
    )


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
            text_ = f"“{unit}” is not a unit of this. It knows {', '.join(UNITS)}."
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
