"""The words of the trade, sizes, ranges, faults and sentences: what everything above speaks in."""

from lamination.terms.glossary import GLOSSARY, Term
from lamination.terms.limits import Checked, Fault, Faults, Length, Range, join_path, ranges
from lamination.terms.rests import Rest, Stay
from lamination.terms.said import plain
from lamination.terms.tables import written_table
from lamination.terms.trade import (
    Chilled,
    Family,
    Fold,
    Machine,
    Method,
    Place,
    Surface,
    Tool,
    Worded,
)

__all__ = [
    "GLOSSARY", "Checked", "Chilled", "Family", "Fault", "Faults", "Fold", "Length", "Machine",
    "Method", "Place", "Range", "Rest", "Stay", "Surface", "Term", "Tool", "Worded", "join_path", "plain",
    "ranges", "written_table",
]  # fmt: skip
