"""What a change to a plan is called, and what it needs to be said."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from lamination.dough.formula import PrefermentKind
from lamination.terms.limits import Checked, Fault, Faults, Length, Range


class Change(StrEnum):
    """What is asked for."""

    GIVE_FORMULA = "give_formula"
    LINE_GRAMS = "line_grams"  # index, value g
    LINE_INGREDIENT = "line_ingredient"  # index, ingredient
    ADD_LINE = "add_line"  # ingredient
    ADD_PREFERMENT = "add_preferment"  # preferment
    BLOCK_THICKNESS = "block_thickness"  # value mm; the width stays
    BLOCK_FRAME = "block_frame"
    BLOCK_TRAY = "block_tray"
    BLOCK_AS_DOUGH = "block_as_dough"
    PIECES = "pieces"  # value, so many from one sheet
    PIECE_BASE = "piece_base"  # index of a product, value g: the base that gives it
    PIECE_HEIGHT = "piece_height"  # the same by the height
    PIECE_THICKNESS = "piece_thickness"  # the same by the thickness of the sheet
    CARD = "card"  # index of a product, ingredient: how it is shaped; its strands follow
    OVEN = "oven"  # the bake in the other kind of oven
    FLOUR = "flour"  # value g of flour at hand: all of it, and never more
    BUTTER_SHARE = "butter_share"  # value % of the dough
    BUTTER_OF_WHOLE = "butter_of_whole"  # value % of dough and butter
    BUTTER_OF_FLOUR = "butter_of_flour"  # value % of the flour
    METHOD = "method"  # ingredient: the way to lock in; block and margins follow
    DROP_FORMULA = "drop_formula"
    ADD_STEP = "add_step"  # ingredient: the kind; index: the number it will have


@dataclass(frozen=True)
class Amendment(Checked):
    """One change. Which other fields are needed depends on ``change``; Faults name those missing."""

    change: Change
    value: Annotated[float, Range(0, 1_000_000)] | None = None
    index: Annotated[int, Range(0, 60)] | None = None
    ingredient: Annotated[str, Length(1, 40, "characters")] | None = None
    preferment: PrefermentKind | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        missing = [n for n in _NEEDS.get(self.change, ()) if getattr(self, n) is None]
        if missing:
            raise Faults(*(Fault(n, "This is needed as well.") for n in missing))


_NEEDS: dict[Change, tuple[str, ...]] = {
    Change.LINE_GRAMS: ("index", "value"),
    Change.LINE_INGREDIENT: ("index", "ingredient"),
    Change.ADD_LINE: ("ingredient",),
    Change.ADD_PREFERMENT: ("preferment",),
    Change.BLOCK_THICKNESS: ("value",),
    Change.CARD: ("index", "ingredient"),
    Change.PIECES: ("value",),
    Change.PIECE_BASE: ("index", "value"),
    Change.PIECE_HEIGHT: ("index", "value"),
    Change.PIECE_THICKNESS: ("index", "value"),
    Change.FLOUR: ("value",),
    Change.BUTTER_SHARE: ("value",),
    Change.BUTTER_OF_WHOLE: ("value",),
    Change.BUTTER_OF_FLOUR: ("value",),
    Change.METHOD: ("ingredient",),
    Change.ADD_STEP: ("ingredient", "index"),
}
