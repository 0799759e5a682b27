"""A list of ingredients as somebody wrote it, read line by line into a formula.

What is understood is said, what is not is said as well: nothing is guessed in silence.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from lamination.dough.formula import Line
from lamination.materials.house import grams_of
from lamination.materials.ingredients import Ingredient, Kind, Shelf
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import g, named

MOST_CHARACTERS = 8_000
_FRACTIONS = {"½": 0.5, "¼": 0.25, "¾": 0.75, "⅓": 1 / 3, "⅔": 2 / 3, "⅛": 0.125, "⅜": 0.375,
              "⅝": 0.625, "⅞": 0.875}  # fmt: skip
_GLYPHS = "".join(_FRACTIONS)
_AMOUNT = rf"(?:\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?\s*[{_GLYPHS}]?|[{_GLYPHS}])"
_UNITS = {
    "g": "g|gr|gram|grams|gramme|grammes", "kg": "kg|kilo|kilos", "oz": "oz|ounce|ounces",
    "lb": "lb|lbs|pound|pounds", "ml": "ml", "cl": "cl", "dl": "dl", "l": "l|litre|litres|liter|liters",
    "cup": "cup|cups", "spoon": "tbsp|tbs|tablespoon|tablespoons", "floz": r"fl\.? ?oz",
    "teaspoon": "tsp|teaspoon|teaspoons", "stick": "stick|sticks", "pinch": "pinch|pinches",
}  # fmt: skip
_UNIT = "|".join(rf"(?P<{unit}>{words})" for unit, words in _UNITS.items())
_LEADING = re.compile(
    rf"^\s*[-*•–]?\s*(?P<amount>{_AMOUNT}|an?(?=\s))\s*(?:-\s*(?P<upto>{_AMOUNT})\s*)?"
    rf"(?:(?P<pct>%)|(?:{_UNIT})\b\.?)?\s*(?:of\s+)?(?P<what>.*)$",
    re.IGNORECASE,
)
_TRAILING = re.compile(
    rf"^\s*[-*•–]?\s*(?P<what>[^\d{_GLYPHS}]+?)[\s:,–-]+(?P<amount>{_AMOUNT})\s*(?P<upto>(?!))?"
    rf"(?:(?P<pct>%)|(?:{_UNIT})\b\.?)?\s*$",
    re.IGNORECASE,
)
_WEIGHED = re.compile(rf"[(/]\s*(?:about\s+)?({_AMOUNT})\s*(g|kg|oz|lb)\b[^)]*\)?", re.IGNORECASE)
_FOR_THE_BLOCK = re.compile(
    r"for (the )?(block|laminat\w+|folding|rolling|locking)|to (lock|fold|laminate|roll) ?in|roll-?in",
    re.IGNORECASE,
)

# Words that tell an ingredient, the more particular first.
_WORDS: tuple[tuple[str, str], ...] = (
    (r"\brye\b", "flour-rye"), (r"whole ?(meal|wheat)", "flour-wholemeal"),
    (r"soya? (flour|bean)", "soya-flour"), (r"malt\w* (syrup|extract)", "malt-syrup"),
    (r"\bmalt", "malt-flour"), (r"(strong|bread) .*flour|flour.*(strong|bread)", "flour-strong"),
    (r"(soft|cake|pastry) .*flour", "flour-weak"), (r"\bflour", "flour-medium"),
    (r"milk powder|(dried|dry|powdered) .*milk", "milk-powder"), (r"skim\w* milk", "milk-skimmed"),
    (r"butter ?milk", ""), (r"\bmilk", "milk-whole"), (r"yolk", "egg-yolk"), (r"\beggs?\b", "egg-whole"),
    (r"honey", "honey"), (r"sugar", "sugar"), (r"\bsalt", "salt"),
    (r"(fresh|compressed|cake) yeast|yeast.*fresh", "yeast-fresh"),
    (r"(instant|fast|easy|quick).*yeast|yeast.*instant", "yeast-instant"),
    (r"(active|dry|dried).*yeast|yeast.*(active|dry|dried)", "yeast-dry"),
    (r"lemon", "lemon"), (r"vinegar", "vinegar"), (r"\boil\b", "oil"),
    (r"(laminating|sheet) butter|butter sheets?", "butter-sheet"),
    (r"(cultured|european).*butter", "butter-cultured"), (r"\bbutter", "butter-table"),
    (r"(cream|curd|quark).*cheese|cheese", "cream-cheese"), (r"almond", "almond"), (r"water", "water"),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class ReadLine:
    """A line that was understood: as it stood, the ingredient it is, g, and what it was taken for.

    ``of_flour``: its amount is in percent.
    """

    text: str
    ingredient: str
    grams: float
    says: str
    in_block: bool
    of_flour: bool


@dataclass(frozen=True, slots=True)
class MissedLine:
    """A line that was not understood, and why."""

    text: str
    why: str


@dataclass(frozen=True, slots=True)
class Pasted:
    """A pasted list: its lines on the flour, what was read and what was not.

    ``block_g``: butter that is to be locked in; ``dough_g``: all the rest together.
    """

    lines: tuple[Line, ...]
    read: tuple[ReadLine, ...]
    missed: tuple[MissedLine, ...]
    dough_g: float
    block_g: float


def _number(text: str) -> float:
    text = text.strip().replace(",", ".")
    if text.lower() in ("a", "an"):
        return 1.0
    total = 0.0
    for glyph, value in _FRACTIONS.items():
        if glyph in text:
            total, text = total + value, text.replace(glyph, " ")
    for part in text.split():
        above, _, below = part.partition("/")
        total += float(above) / float(below) if below else float(above)
    return total


def _which(what: str, shelf: Shelf) -> Ingredient | None:
    """The ingredient that is meant: one of the bakery's own by its name, or by what is said of it."""
    low = what.lower()
    exact = [i for i in shelf if i.name.lower() in low or i.key == low.strip()]
    if exact:
        return max(exact, key=lambda i: len(i.name))
    for pattern, key in _WORDS:
        if re.search(pattern, low):
            return shelf[key] if key else None
    return None


def _line(text: str, shelf: Shelf) -> ReadLine | MissedLine:
    found = _LEADING.match(text) or _TRAILING.match(text)
    if not found or not found["what"].strip(" .,:"):
        return MissedLine(text, "No amount stands in it.")
    what = found["what"]
    thing = _which(what, shelf)
    if thing is None:
        yeast = re.search(r"yeast", what, re.IGNORECASE)
        why = (
            "Which yeast: fresh, instant or active dry?"
            if yeast
            else "Nothing on the shelf is called so."
        )
        return MissedLine(text, why)
    try:
        amount = _number(found["amount"])
        if found["upto"]:
            amount = (amount + _number(found["upto"])) / 2
        unit = next((u for u in _UNITS if found[u]), "%" if found["pct"] else "")
        weighed = _WEIGHED.search(text)
        if weighed:
            amount, unit = _number(weighed[1]), weighed[2].lower()
    except (ValueError, ZeroDivisionError):
        return MissedLine(text, "Its amount is not a number.")
    grams = amount if unit == "%" else grams_of(amount, unit, thing)
    if grams is None:
        return MissedLine(text, "How much one of it weighs is not known. Say it in grams.")
    if not 0 < grams < 1e6:
        return MissedLine(text, "That is no amount for a dough.")
    block = thing.kind is Kind.FAT and bool(_FOR_THE_BLOCK.search(what))
    weight = f"{grams:g} %" if unit == "%" else g(grams)
    says = f"{weight} of {named(thing.name.lower())}" + (", for the block" if block else "")
    return ReadLine(text, thing.key, grams, says, block, unit == "%")


def read_pasted(text: str, shelf: Shelf) -> Pasted:
    """Read a list of ingredients, one on each line, in masses, cups and spoons, pieces, or percent.

    A weight in brackets counts before a cup. Raises :class:`Faults` (``text``) where nothing is there,
    nothing is understood, no flour is among it, or percentages and masses are mixed.
    """
    if len(text) > MOST_CHARACTERS:
        raise Faults(Fault("text", "That is too long for a list of ingredients."))
    lines = [line.strip() for line in text.splitlines() if line.strip(" -*•\t")]
    if not lines:
        raise Faults(Fault("text", "Paste a list of ingredients, one on each line."))
    said = [_line(line, shelf) for line in lines]
    read = [s for s in said if isinstance(s, ReadLine)]
    if len({r.of_flour for r in read}) > 1:
        raise Faults(
            Fault("text", "Some amounts are in % and some are masses. Use one of the two.")
        )
    in_dough = [r for r in read if not r.in_block]
    flour = sum(r.grams for r in in_dough if shelf[r.ingredient].kind is Kind.FLOUR)
    if flour <= 0:
        text_ = "No flour was understood among these. Percentages are measured on it."
        raise Faults(Fault("text", text_))
    sums: dict[str, float] = {}
    for r in in_dough:
        sums[r.ingredient] = sums.get(r.ingredient, 0.0) + r.grams
    return Pasted(
        tuple(Line(key, round(100 * grams / flour, 2)) for key, grams in sums.items()),
        tuple(read),
        tuple(s for s in said if isinstance(s, MissedLine)),
        sum(r.grams for r in in_dough),
        sum(r.grams for r in read if r.in_block),
    )
