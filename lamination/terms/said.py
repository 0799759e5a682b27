"""Sentences with their measures marked: written once, read in anybody's units and words.

A sentence of the core is text in which every measure that a person may want in another unit stands
as a mark: ``{8|mm}``, ``{440×380|mm}``, ``{540|g}``, ``{letter|fold}``. :func:`plain` reads it out in
metric and in letter and book folds; the screen does the same in the reader's own units and words.
What needs no other unit (counts, percent, minutes as hours and minutes) is plain text at once.

>>> plain(f"Roll to {mm(8)}, then a {fold_name('letter')} of {mm(690.2, 513.3)}.")
'Roll to 8 mm, then a letter fold of 690 × 513 mm.'
"""

from __future__ import annotations

import re
from collections.abc import Callable
from datetime import datetime

_THIN = "\u202f"  # a narrow space that does not break: between thousands
_KG_FROM_G = 10_000  # below it bakers weigh in grams
MARK = re.compile(r"\{([^{}|]+)\|([^{}|]+)\}")


def say(value: float) -> str:
    """A number as a person writes it: at most one decimal below 100, none above; no trailing zero.

    >>> say(8.0), say(8.25), say(331.1), say(0.04)
    ('8', '8.3', '331', '0.04')
    """
    if abs(value) < 0.1:
        return f"{value:.2g}" if value else "0"
    # half goes up, and what is a half but for the last bit of a sum is a half
    up = value * (1 + 2e-12)
    return f"{up:.0f}" if abs(value) >= 100 else f"{up:.1f}".removesuffix(".0")


def mm(*sides: float) -> str:
    """A length, or the sides of something joined by ×, in mm."""
    return "{" + "×".join([say(s) for s in sides]) + "|mm}"


def fine_mm(side: float) -> str:
    """A length to the hundredth of a mm: what a dial or a last pass is set by."""
    return "{" + f"{side:.2f}".rstrip("0").rstrip(".") + "|mm}"


def g(mass: float) -> str:
    """A mass, g."""
    return "{" + say(mass) + "|g}"


def c(temperature: float) -> str:
    """A temperature, °C."""
    return "{" + say(temperature) + "|°C}"


def kelvin(difference: float) -> str:
    """A difference of two temperatures, K."""
    return "{" + say(difference) + "|K}"


def um(leaf: float) -> str:
    """A leaf's thickness, µm."""
    return "{" + (f"{leaf:.3g}" if leaf < 100 else f"{leaf:.0f}") + "|µm}"


def moment(at: datetime) -> str:
    """An hour of the day, read in the bakery's own zone."""
    return "{" + at.isoformat(timespec="minutes") + "|clock}"


def day_and_hour(at: datetime) -> str:
    """A day and its hour, read in the bakery's own zone."""
    return "{" + at.isoformat(timespec="minutes") + "|day}"


def fold_name(fold: str) -> str:
    """The name of a fold, in the words of the person who reads."""
    return "{" + fold + "|fold}"


def named(text: str) -> str:
    """A name that a person typed, safe inside a sentence."""
    return re.sub(r"[{}|]", "", text)


def span(minutes: float) -> str:
    """Minutes as hours and minutes, rounded once.

    >>> span(45), span(120), span(845), span(0.4)
    ('45 min', '2 h', '14 h 05', '0 min')
    """
    whole = round(abs(minutes))
    sign = "−" if minutes < 0 and whole else ""
    if whole < 60:
        return f"{sign}{whole} min"
    hours, rest = divmod(whole, 60)
    return f"{sign}{hours} h{f' {rest:02}' if rest else ''}"


def counted(n: int, one: str, many: str | None = None) -> str:
    """A count with its word.

    >>> counted(1, "piece"), counted(12, "piece"), counted(2, "leaf", "leaves")
    ('1 piece', '12 pieces', '2 leaves')
    """
    return f"{n} {one if n == 1 else many or one + 's'}"


def listed(items: list[str], last: str = "and") -> str:
    """Words in a row.

    >>> listed(["mixing", "the lock-in", "turn 2"])
    'mixing, the lock-in and turn 2'
    """
    return f" {last} ".join(filter(None, [", ".join(items[:-1]), *items[-1:]]))


def _grams(text: str) -> str:
    value = float(text)
    if abs(value) >= _KG_FROM_G:
        return f"{value / 1000:.2f}".rstrip("0").rstrip(".") + " kg"
    if abs(value) >= 1_000:
        return f"{value:,.0f}".replace(",", _THIN) + " g"
    return f"{text} g"


_FOLDS = {
    "half": "half fold",
    "letter": "letter fold",
    "book": "book fold",
    "offset_book": "offset book fold",
}
_PLAIN: dict[str, Callable[[str], str]] = {
    "mm": lambda t: f"{t.replace('×', ' × ')} mm",
    "g": _grams,
    "°C": lambda t: f"{t.replace('-', '−')} °C",
    "K": lambda t: f"{t} K",
    "µm": lambda t: f"{t} µm",
    "fold": lambda t: _FOLDS.get(t, t),
    "clock": lambda t: datetime.fromisoformat(t).strftime("%H:%M"),
    "day": lambda t: datetime.fromisoformat(t).strftime("%a %d %b, %H:%M"),
}


def plain(text: str) -> str:
    """A sentence read out: metric, letter and book folds; what begins a sentence gets its capital."""

    def read(found: re.Match[str]) -> str:
        value, unit = found[1], found[2]
        say_it = _PLAIN.get(unit)
        said = say_it(value) if say_it else f"{value} {unit}"
        begins = found.start() == 0 or text[: found.start()].endswith((". ", ": "))
        return said[0].upper() + said[1:] if unit == "fold" and begins else said

    return MARK.sub(read, text)


def in_unit(value: float, unit: str) -> str:
    """A value in the unit a limit is declared in: marked where people read other units."""
    number = f"{value:g}"
    if unit in _PLAIN:
        return "{" + number + f"|{unit}" + "}"
    return f"{number} {unit}".strip()
