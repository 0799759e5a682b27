"""Sheets of dough and butter, exactly: locked in, folded, rolled, cut along, and counted."""

from lamination.sheet.cells import Sheet, place, plain_sheet, roll, turn
from lamination.sheet.coverage import layers_of, section_of
from lamination.sheet.folds import fold_sheet, moves
from lamination.sheet.lockin import lock_in
from lamination.sheet.passes import rolling
from lamination.sheet.section import Across, LineSection
from lamination.sheet.stacks import Material, leaf

__all__ = [
    "Across", "LineSection", "Material", "Sheet", "fold_sheet", "layers_of", "leaf", "lock_in",
    "moves", "place", "plain_sheet", "roll", "rolling", "section_of", "turn",
]  # fmt: skip
