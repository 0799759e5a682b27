"""Amounts as people write them, by a small grammar: numbers, units, sums, ranges and alternatives.

A line of a list is cut into measures, words and the signs between them; what they mean together is said in
:mod:`lamination.files.pasted`.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from enum import Enum
from functools import lru_cache
from typing import Any

# numbers of a thousand with a comma, and of a thousand or a thousandth with a point, are told by their unit
_GRAMMAR = r"""
start: (measure | times | plus | slash | or | open | close | comma | word | aside)*

measure: amount UNIT? | amount PERCENT
times: WHOLE _X measure
amount: number | number DASH number | number TO number
number: MIXED | FRACTION | GROUPED | DECIMAL | WHOLE GLYPH | WHOLE | GLYPH | SPELT

plus: PLUS
slash: SLASH
or: OR
open: OPEN
close: CLOSE
comma: COMMA
word: WORD
aside: ASIDE

ASIDE.9: /\d+([.,]\d+)?\s*%\s*(milk\s*|butter\s*)?(fat|protein|hydration|humidity)\b/i
    | /\d+(\s*[-–]\s*\d+)?\s*(°\s*[cCfF]?\b|°|deg(rees?)?\.?\s*[cCfF]?\b|[CF]\b)/
    | /\b(t|type|tipo|w)\s?\d{2,4}\b/i | /\(?\btotal\b.*/i
MIXED.8: /\d+\s*[ -]\s*\d+\/\d+/
FRACTION.7: /\d+\s*[\/⁄]\s*\d+/
GROUPED.6: /\d{1,3}([., '’]\d{3})+(?![\d.,]*\d)/
DECIMAL.5: /\d+[.,]\d+/
WHOLE.4: /\d+/
GLYPH.4: /[½¼¾⅓⅔⅛⅜⅝⅞]/
SPELT.8: /\b(half an?|half|an?|one|two|three|four|five|six|eight|ten|twelve)(?=\s)/i
UNIT.3: /(kilogram(me)?s?|kilos?|kg|gram(me)?s?|grs?|g|mg|ounces?|oz|pounds?|lbs?|lb)(?![a-zà-ÿ])\.?/i
    | /(millilit(re|er)s?|ml|centilit(re|er)s?|cl|decilit(re|er)s?|dl|lit(re|er)s?|l)(?![a-zà-ÿ'])\.?/i
    | /(fl(uid)?\.?\s*(oz|ounces?)|cups?|sticks?|pinch(es)?)(?![a-zà-ÿ])\.?/i
    | /(tablespoons?|tbsps?|tbs|tbl|teaspoons?|tsps?)(?![a-zà-ÿ])\.?/i
    | /(T|t|c)(?![A-Za-zà-ÿ0-9'])\.?/
PERCENT.3: "%" | /per\s?cent\b/i
PLUS.3: "+" | /plus\b/i
TO.3: /to(?=\s*[\d½¼¾⅓⅔⅛])/i
OR.3: /or\b/i
_X.4: /[x×](?=\s*[\d½¼¾])/i
DASH.2: /[-–—]/
SLASH.2: "/"
OPEN.2: /[(\[]/
CLOSE.2: /[)\]]/
COMMA.2: /[,;:]/
WORD.1: /[^\W\d_]+([-'’][^\W\d_]+)*['’]?/
JUNK.-1: /[^\w\s]|_/
%ignore JUNK
%ignore /\s+/
"""
_UNITS: tuple[tuple[str, str], ...] = (
    (r"fl", "floz"), (r"kilo|kg", "kg"), (r"mg", "mg"), (r"millil|ml", "ml"), (r"centil|cl", "cl"),
    (r"decil|dl", "dl"), (r"lit|l$", "l"), (r"g", "g"), (r"ounce|oz", "oz"), (r"pound|lb", "lb"),
    (r"cup|c$", "cup"), (r"tea|tsp|t$", "teaspoon"), (r"table|tb", "spoon"), (r"stick", "stick"),
    (r"pinch", "pinch"),
)  # fmt: skip
_GLYPHS = {"½": 1 / 2, "¼": 1 / 4, "¾": 3 / 4, "⅓": 1 / 3, "⅔": 2 / 3, "⅛": 1 / 8, "⅜": 3 / 8,
           "⅝": 5 / 8, "⅞": 7 / 8}  # fmt: skip
_SPELT = {
    "a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "eight": 8,
    "ten": 10, "twelve": 12, "half": 0.5, "half a": 0.5, "half an": 0.5,
}  # fmt: skip


class Sign(Enum):
    """What stands between measures and words."""

    PLUS = "plus"
    SLASH = "slash"
    OR = "or"
    OPEN = "open"
    CLOSE = "close"
    COMMA = "comma"


@dataclass(frozen=True, slots=True)
class Measure:
    """An amount: a number of a unit ("" for pieces, "%"), and up to where it is a range.

    ``doubt``: what is not certain about the number, in words; "" where nothing is.
    """

    value: float
    unit: str
    upto: float | None = None
    doubt: str = ""

    @property
    def mean(self) -> float:
        """The middle of a range, or the number."""
        return self.value if self.upto is None else (self.value + self.upto) / 2


Part = Measure | Sign | str


@lru_cache(maxsize=1)
def _reader() -> Any:
    # a parser is slow to make, and seldom wanted
    from lark import Lark

    return Lark(_GRAMMAR, parser="lalr", lexer="basic")


def parts_of(line: str) -> tuple[Part, ...]:
    """A line of a list in its measures, signs and words (in lower case); what is aside is left out.

    Temperatures, types of flour and shares of fat are aside. Raises ValueError for signs that no list has,
    and for a number that is none (``1/0``).

    >>> parts_of("1 lb 2 oz / 500 g bread flour")
    (Measure(value=1.0, unit='lb', upto=None, doubt=''), Measure(value=2.0, unit='oz', upto=None, doubt=''), \
<Sign.SLASH: 'slash'>, Measure(value=500.0, unit='g', upto=None, doubt=''), 'bread', 'flour')
    """
    from lark.exceptions import LarkError

    # a mark before the line, and a dash that is a comma
    line = re.sub(r"\s[-–—]+\s+(?=[^\W\d_])", ", ", re.sub(r"^\W*(?=[\w(½¼¾⅓⅔⅛⅜⅝⅞])", "", line))
    try:
        tree = _reader().parse(line)
        return tuple(p for child in tree.children if (p := _part(child)) is not None)
    except (LarkError, ZeroDivisionError) as wrong:
        raise ValueError("that is no amount") from wrong


def _part(tree: Any) -> Part | None:
    name = str(tree.data)
    if name == "measure":
        return _measure(tree)
    if name == "times":
        many, each = float(tree.children[0]), _measure(tree.children[-1])
        upto = None if each.upto is None else many * each.upto
        return Measure(many * each.value, each.unit, upto, each.doubt)
    if name == "word":
        return str(tree.children[0]).lower().replace("’", "'")
    return None if name == "aside" else Sign(name)


def _measure(tree: Any) -> Measure:
    amount, *rest = tree.children
    unit = _unit(str(rest[0])) if rest else ""
    numbers = [_number(n.children, unit) for n in amount.children if hasattr(n, "children")]
    value, doubt = numbers[0]
    upto = numbers[1][0] if len(numbers) > 1 else None
    return Measure(value, unit, upto, next((d for _, d in numbers if d), doubt))


def _unit(text: str) -> str:
    if text in ("T", "T."):
        return "spoon"
    low = text.lower().rstrip(".")
    if low.startswith(("%", "per")):
        return "%"
    return next(unit for start, unit in _UNITS if re.match(start, low))


def _number(tokens: list[Any], unit: str) -> tuple[float, str]:
    """A number, and what is not certain about it."""
    total = 0.0
    for token in tokens:
        text, kind = str(token), token.type
        if kind == "GLYPH":
            total += _GLYPHS[text]
        elif kind == "SPELT":
            total += _SPELT[" ".join(text.lower().split())]
        elif kind in ("MIXED", "FRACTION"):
            whole, above, below = re.match(  # type: ignore[union-attr]
                r"(?:(\d+)[\s-]+)?(\d+)\s*[/⁄]\s*(\d+)", text
            ).groups()
            total += float(whole or 0) + float(above) / float(below)
        elif kind == "GROUPED":
            return _grouped(text, unit)
        else:
            total += float(text.replace(",", "."))
    return total, ""


def _grouped(text: str, unit: str) -> tuple[float, str]:
    """``1,000``: a thousand of what is weighed in grams, and one of what is weighed in kilos."""
    thousand = float(re.sub(r"\D", "", text))
    parts = re.split(r"\D", text)
    one = float(f"{parts[0]}.{parts[1]}") if len(parts) == 2 else None
    if one is None or (not re.search(r"[.,]", text)):
        return thousand, ""
    if parts[0] == "0" or unit in ("kg", "l", "lb", "oz", "cup"):
        return one, ""
    if "," in text:
        return thousand, ""
    return thousand, f"{text} could be {thousand:g} or {one:g}. Is it {thousand:g}?"
