"""A list of ingredients as somebody wrote it, read line by line into a formula.

Nothing is read wrong in silence: what is certain is read, what is not is asked, and what is not understood,
or is not of the dough, is said.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Literal

from lamination.dough.formula import Line
from lamination.files.amounts import Measure, Part, Sign, parts_of
from lamination.materials.house import grams_of
from lamination.materials.ingredients import Ingredient, Kind, Shelf
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import g, listed, named

MOST_CHARACTERS = 8_000
_MASSES = ("g", "kg", "mg", "oz", "lb")
_AGREE = 0.06  # a mass in two systems, as far as rounding goes
_AGREE_LOOSELY = 0.45  # a cup beside its weight, as far as scooping goes

# What a line, or a heading over lines, says they are for.
Use = Literal["dough", "block", "other"]
_USES: tuple[tuple[str, Use], ...] = (
    (r"egg ?wash|\bwash\b|glaz|to brush|for brushing|(for|to) (the )?(finish|sprinkl|decorat|top)|topping|"
     r"filling|to fill|dusting|to dust|work surface|rolling out|for the tin|greas|syrup|to serve|frangipane|"
     r"pastry cream|crème|custard", "other"),
    (r"\bblock\b|laminat|roll-? ?in\b|rolling in|for (the )?(folding|locking)|lock(ing)? in|beurrage|"
     r"tourage|butter packet|butter layer", "block"),
    (r"dough|d[ée]trempe|poolish|preferment|pre-ferment|sponge|biga|levain|starter|ingredients|mix", "dough"),
)  # fmt: skip
_FOR = re.compile(
    r"\b(for|to)\s+(the\s+|an?\s+)?[a-zé-]+(\s+(in|out|up|the|dough|block|butter|wash|tin|top))*|"
    r"\broll-? ?in\b|\blaminating\b(?! butter)|\begg ?wash\b",
    re.IGNORECASE,
)
_HEADING = re.compile(
    r"(for (the )?)?(egg ?wash|wash|glaz\w+|filling|topping|syrup|finish\w*|brushing)\b|"
    r"to (serve|finish|glaze)\b",
    re.IGNORECASE,
)
_HEADING_WORDS = 6
_MORE = re.compile(r"[,(]?\s*\b(plus|with|and)\s+(extra|more|a little|some)\b.*$", re.IGNORECASE)
# Words that change nothing about what a thing is.
_HARMLESS = frozenset(
    """
    a about additional all an and approx approximately as at baker's bakers ball beaten best bits block
    body boiled bring broken chilled chopped chunks circa cold cool cooled cracked crumbled cubed cubes
    cut diced dissolved divided dough each envelope extra filtered fine finely fold folding for free
    free-range freshly from full good good-quality grade grams heaped heaping heated high high-quality
    hot ice ice-cold iced icy if in ingredients into knob laminate laminating lamination large level
    lightly little lock locking lukewarm lump lumps main measured medium melted mix mixing more needed
    of off optional or organic out packed packet packets per piece pieces plastic pliable plus quality
    range ready rested roll-in rolling room room-temperature roughly rounded sachet sachets scalded
    scant separated sifted size sized sliced slices slightly small soft softened some standard style
    such tap temp temperature tepid thawed the then thin to unbleached use used very warm warmed washed
    weighed weight with x-large your least m s xl
    """.split()  # noqa: SIM905
)
_SALTED = "salted"
_COARSE = frozenset(("kosher", "coarse", "flaky", "rock"))  # looser in a spoon than fine salt is


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
class AskedLine:
    """A line that is not certain: which of the text it is, what is asked, and what it would be read as."""

    number: int
    asks: str
    reading: ReadLine


@dataclass(frozen=True, slots=True)
class MissedLine:
    """A line that is not in the formula, and why."""

    text: str
    why: str


@dataclass(frozen=True, slots=True)
class Pasted:
    """A pasted list: its lines on the flour, what was read, what is asked, and what was not read.

    ``block_g``: butter that is to be locked in; ``dough_g``: all the rest together.
    """

    lines: tuple[Line, ...]
    read: tuple[ReadLine, ...]
    asked: tuple[AskedLine, ...]
    missed: tuple[MissedLine, ...]
    dough_g: float
    block_g: float


class _Missed(Exception):
    """A line that cannot be read, with the sentence that says why."""


def _use_of(text: str) -> Use | None:
    low = text.lower()
    return next((use for pattern, use in _USES if re.search(pattern, low)), None)


@dataclass(frozen=True, slots=True)
class _Thing:
    """What a line is of; words that were not understood; a question of its own; whether it is coarse."""

    what: Ingredient
    left: tuple[str, ...]
    asks: str = ""
    coarse: bool = False


def _names(shelf: Shelf) -> list[tuple[tuple[str, ...], Ingredient]]:
    """Every name on the shelf by its words, the longest first."""
    found: dict[tuple[str, ...], Ingredient] = {}
    for one in shelf:
        for name in (one.name, *one.also):
            found.setdefault(tuple(re.findall(r"[^\W\d_]+(?:['’-][^\W\d_]+)*", name.lower())), one)
    return sorted(((w, one) for w, one in found.items() if w), key=lambda n: -len(n[0]))


def _singular(word: str) -> str:
    return word[:-1] if len(word) > 3 and word.endswith("s") and not word.endswith("ss") else word


def _thing(words: list[str], shelf: Shelf) -> _Thing:
    """The ingredient that some words mean: by its longest name whose words all stand there."""
    there = [_singular(w) for w in words]
    for name, what in _names(shelf):
        left = list(there)
        try:
            for word in name:
                left.remove(_singular(word))
        except ValueError:
            continue
        unknown = tuple(w for w in words if _singular(w) in left and w not in _HARMLESS)
        coarse = what.kind is Kind.SALT and any(w in _COARSE for w in words)
        asks = ""
        if what.kind is Kind.SALT:
            unknown = tuple(w for w in unknown if w not in _COARSE)
        if what.kind is Kind.FAT and _SALTED in unknown:
            unknown = tuple(w for w in unknown if w != _SALTED)
            asks = "Salted butter brings salt of its own. Read it as plain butter?"
        return _Thing(what, tuple(w for w in unknown if w != "unsalted"), asks, coarse)
    if "yeast" in there:
        raise _Missed("Which yeast: fresh, instant or active dry?")
    raise _Missed("Nothing on the shelf is called so.")


_Amount = tuple[Measure, ...]  # measures that are one amount together
_Piece = _Amount | Sign | str


def _summed(parts: Iterable[Part]) -> list[_Piece]:
    """A line's parts with each amount put together: pounds and ounces, and what stands with a plus."""
    found: list[_Piece] = []
    plus = False
    for part in parts:
        before = found[-1] if found else None
        amount = before if isinstance(before, tuple) else None
        if part is Sign.PLUS and amount:
            plus = True
            continue
        if isinstance(part, Measure):
            pair = amount and (amount[-1].unit, part.unit)
            if amount and (plus or pair in (("lb", "oz"), ("kg", "g"))):
                found[-1] = (*amount, part)
                plus = False
                continue
        if plus:
            found.append(Sign.PLUS)
            plus = False
        found.append((part,) if isinstance(part, Measure) else part)
    return found


def _grams(amount: _Amount, what: Ingredient) -> float | None:
    """What an amount of something weighs, g; None where a part of it says nothing of that."""
    each = [grams_of(m.mean, m.unit, what) for m in amount]
    return None if None in each else sum(g for g in each if g is not None)


def _split(parts: list[_Piece]) -> Iterator[list[_Piece]]:
    """The alternatives of a line: “or”, and a slash with an amount and words on both its sides."""
    now: list[_Piece] = []
    for n, part in enumerate(parts):
        words = any(isinstance(p, str) and p not in _HARMLESS for p in now)
        after = parts[n + 1 :]
        more = any(isinstance(p, str) for p in after)
        apart = part is Sign.OR or part is Sign.SLASH
        if apart and words and more and any(isinstance(p, tuple) for p in now):
            yield now
            now = []
        elif part not in (Sign.SLASH, Sign.OR, Sign.COMMA):
            now.append(part)
    yield now


def _one(parts: list[_Piece], text: str, shelf: Shelf) -> tuple[ReadLine, list[str]]:
    """What one alternative of a line says, and what of it is not certain. Raises _Missed."""
    amounts = [p for p in parts if isinstance(p, tuple)]
    words = [p for p in parts if isinstance(p, str)]
    if not amounts:
        raise _Missed("No amount stands in it.")
    if Sign.PLUS in parts:
        raise _Missed("More than one thing stands in it. Write each on a line of its own.")
    thing = _thing(words, shelf)
    what = thing.what
    asks = [thing.asks] if thing.asks else []
    if thing.left:
        asks.append(
            f"{listed([f'“{w}”' for w in thing.left], 'and')} was not understood. Is it "
            f"{named(what.name.lower())}?"
        )
    asks += [m.doubt for amount in amounts for m in amount if m.doubt]
    chosen = _chosen(amounts, what, asks)
    first = chosen[0]
    percent = first.unit == "%"
    if thing.coarse and first.unit not in (*_MASSES, "%"):
        asks.append("Coarse salt lies looser in a spoon, so it weighs less. Read it as fine salt?")
    if what.kind is Kind.MILK and not percent and any(a[0].unit == "%" for a in amounts):
        asks.append(f"It says how much fat. Read it as {named(what.name.lower())}?")
    weighs = first.mean if percent else _grams(chosen, what)
    if weighs is None:
        raise _Missed("How much one of it weighs is not known. Say it in grams.")
    if not 0 < weighs < 1e6:
        raise _Missed("That is no amount for a dough.")
    weight = f"{weighs:g} %" if percent else g(weighs)
    says = f"{weight} of {named(what.name.lower())}"
    if any(m.upto is not None for m in chosen):
        says += ", the middle of what is said"
    return ReadLine(text, what.key, weighs, says, False, percent), asks


def _chosen(amounts: list[_Amount], what: Ingredient, asks: list[str]) -> _Amount:
    """Which of several amounts counts: a mass, of masses the metric one; those that disagree are asked."""

    def rank(amount: _Amount) -> int:
        unit = amount[0].unit
        if unit in _MASSES:
            return 0 if unit in ("g", "kg", "mg") else 1
        return {"": 3, "%": 4}.get(unit, 2)

    chosen = min(amounts, key=rank)
    mine = _grams(chosen, what)
    for other in amounts:
        theirs = _grams(other, what)
        if other is chosen or other[0].unit == "%" or mine is None or theirs is None:
            continue
        limit = _AGREE if rank(chosen) < 2 and rank(other) < 2 else _AGREE_LOOSELY
        if abs(mine - theirs) > limit * max(mine, theirs):
            asks.append(f"Two amounts stand in it, {g(mine)} and {g(theirs)}. Is it {g(mine)}?")
    return chosen


def _line(number: int, text: str, use: Use, shelf: Shelf) -> ReadLine | AskedLine | MissedLine:
    own = _use_of(_MORE.sub("", text))
    try:
        # what it is for says nothing about what it is
        parts = _summed(parts_of(_FOR.sub(" ", _MORE.sub("", text))))
    except ValueError:
        return MissedLine(text, "Its amount is not a number.")
    use = own or use
    if use == "other":
        return MissedLine(
            text, "It is not of the dough: say it at the step where it goes on or in."
        )
    ways = list(_split(parts))
    try:
        found, asks = _one(ways[0], text, shelf)
    except _Missed as missed:
        return MissedLine(text, str(missed))
    for other in ways[1:]:
        words = [p for p in other if isinstance(p, str) and p not in _HARMLESS]
        found = replace(
            found, says=f"{found.says}, the first of what is offered ({' '.join(words)})"
        )
    fat = shelf[found.ingredient].kind is Kind.FAT
    if use == "block" and fat:
        found = replace(found, in_block=True, says=f"{found.says}, for the block")
    elif use == "block" and own is None:
        asks.append("It stands with the butter of the block. Does it go into the dough?")
    return AskedLine(number, " ".join(asks), found) if asks else found


def _is_heading(text: str) -> bool:
    """Whether a line names what the lines after it are for: no amount, and few words."""
    if re.search(r"[\d½¼¾⅓⅔⅛]", text) or len(text.split()) > _HEADING_WORDS:
        return False
    return text.endswith(":") or _use_of(text) in ("dough", "block") or bool(_HEADING.match(text))


def read_pasted(text: str, shelf: Shelf, accepted: Iterable[int] = ()) -> Pasted:
    """Read a list of ingredients, one on each line, in masses, cups and spoons, pieces, or percent.

    A heading says what the lines after it are for; what is not of the dough or its block stays out. A
    weight counts before a cup. ``accepted``: numbers of lines that were asked, and answered with yes.
    Raises :class:`Faults` (``text``) where nothing is there, nothing is understood, no flour is among it,
    or percentages and masses are mixed.
    """
    if len(text) > MOST_CHARACTERS:
        raise Faults(Fault("text", "That is too long for a list of ingredients."))
    lines = [line.strip() for line in text.splitlines() if re.search(r"\w|[½¼¾⅓⅔⅛]", line)]
    if not lines:
        raise Faults(Fault("text", "Paste a list of ingredients, one on each line."))
    yes = set(accepted)
    use: Use = "dough"
    read: list[ReadLine] = []
    asked: list[AskedLine] = []
    missed: list[MissedLine] = []
    for number, line in enumerate(lines):
        if _is_heading(line):
            use = _use_of(line) or "dough"
            continue
        found = _line(number, line, use, shelf)
        if isinstance(found, AskedLine) and number in yes:
            found = found.reading
        if isinstance(found, ReadLine):
            read.append(found)
        elif isinstance(found, AskedLine):
            asked.append(found)
        else:
            missed.append(found)
    if len({r.of_flour for r in read}) > 1:
        raise Faults(
            Fault("text", "Some amounts are in % and some are masses. Use one of the two.")
        )
    in_dough = [r for r in read if not r.in_block]
    flour = sum(r.grams for r in in_dough if shelf[r.ingredient].kind is Kind.FLOUR)
    if flour <= 0 and not asked:
        text_ = "No flour was understood among these. Percentages are measured on it."
        raise Faults(Fault("text", text_))
    sums: dict[str, float] = {}
    for r in in_dough:
        sums[r.ingredient] = sums.get(r.ingredient, 0.0) + r.grams
    return Pasted(
        tuple(Line(key, round(100 * grams / flour, 2)) for key, grams in sums.items() if flour),
        tuple(read),
        tuple(asked),
        tuple(missed),
        sum(r.grams for r in in_dough),
        sum(r.grams for r in read if r.in_block),
    )
