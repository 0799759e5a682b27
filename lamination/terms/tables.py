"""Tables as text, in and out: whatever ends their lines, however long they are, whoever opens them."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable

from lamination.terms.limits import Fault, Faults

_MOST_CHARACTERS = 2_000_000
_LONGEST_CELL = 10_000
# what a spreadsheet would take for a formula, also in the wide signs of other scripts
_FORMULA = ("=", "+", "-", "@", "\uff1d", "\uff0b", "\uff0d", "\uff20")


def read_table(text: str, between: str) -> list[list[str]]:
    """The cells of every row. ``between`` stands between two of them.

    Line ends of any age are understood. Raises :class:`Faults` for a table that is too long, a cell that
    nobody could have meant, and quotes that do not close.
    """
    if len(text) > _MOST_CHARACTERS:
        raise Faults(Fault("", "This table is too long: two million characters at most."))
    plain = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n").replace("\0", "")
    try:
        rows = list(csv.reader(io.StringIO(plain), delimiter=between))
    except csv.Error:
        raise Faults(
            Fault("", "This is no table that can be read: perhaps a quote is not closed.")
        ) from None
    for n, row in enumerate(rows, 1):
        if any(len(cell) > _LONGEST_CELL for cell in row):
            raise Faults(Fault("", f"Row {n} has a cell that is too long to be meant."))
    return rows


def written_table(rows: Iterable[Iterable[object]], line_end: str = "\n") -> str:
    """Rows as CSV. Text that a spreadsheet would take for a formula is marked as text.

    >>> written_table([("name", -2.5), ("=1+1", "-5")])
    "name,-2.5\\n'=1+1,-5\\n"
    """
    held = io.StringIO()
    out = csv.writer(held, lineterminator=line_end)
    out.writerows([_as_text(cell) for cell in row] for row in rows)
    return held.getvalue()


def _as_text(cell: object) -> object:
    if not isinstance(cell, str):
        return cell
    # a line end of another age would end the row
    text = cell.replace("\r\n", "\n").replace("\r", "\n")
    if not text.lstrip().startswith(_FORMULA) and not text.startswith(("\t", "\n")):
        return text
    try:
        float(text if text.isascii() else "no number")
    except ValueError:
        return f"'{text}"
    return text
