"""Open formats in and out: templates to scale, formulas and weights as CSV."""

from lamination.files.pasted import Pasted, read_pasted
from lamination.files.tables import (
    formula_csv,
    preparations_csv,
    read_formula_csv,
    read_preparations_csv,
    sheets_csv,
)
from lamination.files.template import (
    PAGE_MM,
    SCALE_CHECK_MM,
    Drawing,
    TemplateOf,
    Tile,
    template_of,
    tiles,
)

__all__ = [
    "PAGE_MM", "SCALE_CHECK_MM", "Drawing", "Pasted", "TemplateOf", "Tile", "formula_csv", "preparations_csv",
    "read_formula_csv", "read_pasted", "read_preparations_csv", "sheets_csv", "template_of", "tiles",
]  # fmt: skip
