"""The words of the trade that everything else chooses from, each with the name people read."""

from __future__ import annotations

from enum import StrEnum


class Worded(StrEnum):
    """A choice with its name: ``Family.PUFF`` is kept as ``"puff"`` and read as its ``said``."""

    said: str

    def __new__(cls, value: str, said: str) -> Worded:
        made = str.__new__(cls, value)
        made._value_ = value
        made.said = said
        return made


class Family(Worded):
    """The families of laminated dough that have ranges of their own."""

    CROISSANT = "croissant", "croissant"
    DANISH = "danish", "Danish"
    BRIOCHE = "brioche", "laminated brioche"
    KOUIGN = "kouign", "kouign-amann"
    PUFF = "puff", "puff"

    @property
    def yeasted(self) -> bool:
        """Whether it rises by yeast."""
        return self is not Family.PUFF


class Place(Worded):
    """Where a dough rests."""

    BENCH = "bench", "bench"
    FRIDGE = "fridge", "fridge"
    FREEZER = "freezer", "freezer"
    PROOFER = "proofer", "proofer"


class Machine(Worded):
    """What a step takes up besides a hand."""

    MIXER = "mixer", "mixer"
    SHEETER = "sheeter", "sheeter"
    OVEN = "oven", "oven"


class Surface(Worded):
    """What a dough lies on; ``usual``: the shelf, or the bench top as the kitchen has it."""

    USUAL = "usual", "as usual"
    TRAY = "tray", "steel tray"
    MARBLE = "marble", "marble"
    WOOD = "wood", "wooden board"


class Chilled(Worded):
    """How what it lies on was made cold before."""

    NOT = "not", "as warm as the room"
    FRIDGE = "fridge", "cold from the fridge"
    ICE = "ice", "a bag of ice on it for ten minutes"


class Tool(Worded):
    """What a dough is rolled by."""

    HAND = "hand", "by hand"
    SHEETER = "sheeter", "by sheeter"


class Method(Worded):
    """Ways to lock the butter in."""

    HALF = "half", "Half"
    HALF_STACKED = "half_stacked", "Half, cut and stacked"
    TWO_THIRDS = "two_thirds", "Two-thirds"
    ENVELOPE = "envelope", "Envelope"
    GATE = "gate", "Gate"
    OPEN_SIDED = "open_sided", "Open-sided"
    INVERSE = "inverse", "Inverse: butter outside"
    DIAMOND = "diamond", "Inverse: diamond of dough"
    CROSS = "cross", "Thick middle, four flaps"
    SHARE = "share", "Over a share, in three"
    SPREAD = "spread", "Spread all over"
    TWO_GO = "two_go", "In two goes"
    LUMPS = "lumps", "Lumps: quick puff"
    NONE = "none", "No butter at all"

    @property
    def has_block(self) -> bool:
        """Whether the butter goes in as a block: rolled to size, bent before it is laid on."""
        return self not in (Method.SPREAD, Method.LUMPS, Method.NONE)

    @property
    def butter_outside(self) -> bool:
        """Whether the butter is the outer sheet, and wants flour in it."""
        return self in (Method.INVERSE, Method.DIAMOND)

    @property
    def is_square(self) -> bool:
        """Whether its block has to be a square."""
        return self in (Method.ENVELOPE, Method.DIAMOND, Method.CROSS)

    @property
    def has_margin(self) -> bool:
        """Whether there is room for a bare margin round the block."""
        return self in _MARGINS


_MARGINS = frozenset(
    (Method.HALF, Method.HALF_STACKED, Method.TWO_THIRDS, Method.GATE, Method.OPEN_SIDED)
)


class Fold(Worded):
    """The folds, by the names of the trade."""

    HALF = "half", "half fold"
    LETTER = "letter", "letter fold"
    BOOK = "book", "book fold"
    OFFSET_BOOK = "offset_book", "offset book fold"

    @property
    def multiplies(self) -> int:
        """By how much the fold multiplies the leaves if nothing fused."""
        return len(self.lies)

    @property
    def is_book(self) -> bool:
        """Whether both ends come in before it is shut."""
        return self in (Fold.BOOK, Fold.OFFSET_BOOK)

    @property
    def lies(self) -> tuple[bool, ...]:
        """Which way up each panel lies in the package, bottom to top: True is turned over."""
        return _LIES[self]


_LIES = {
    Fold.HALF: (False, True),
    Fold.LETTER: (False, True, True),
    Fold.BOOK: (False, True, False, True),
    Fold.OFFSET_BOOK: (False, True, False, True),
}
