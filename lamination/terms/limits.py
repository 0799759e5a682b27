"""What a value may be, declared once where the field is declared, and faults that name the field.

``mass_g: Annotated[float, Range(1, 200_000, "g")]`` is checked when the dataclass is made, shows
up in the published JSON Schema, and produces one sentence when it is broken.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, fields, is_dataclass
from datetime import datetime
from functools import cache
from typing import Any, ClassVar, TypeVar, get_args, get_origin, get_type_hints

from lamination.terms.said import in_unit


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing wrong with an input: ``field`` is its path (``turns[1].roll_to_mm``)."""

    field: str
    message: str

    def under(self, prefix: str) -> Fault:
        """The same fault seen from the document that holds this one at ``prefix``."""
        return Fault(join_path(prefix, self.field), self.message)


class Faults(ValueError):
    """Wrong input. ``faults`` says, for every field at fault, what was given and what is allowed."""

    def __init__(self, *faults: Fault) -> None:
        self.faults = faults
        super().__init__("; ".join(f"{f.field}: {f.message}" for f in faults))


def join_path(prefix: str, field: str) -> str:
    """Join two field paths: ``join_path("turns[0]", "fold") == "turns[0].fold"``."""
    if not prefix or not field:
        return prefix or field
    return prefix + field if field.startswith("[") else f"{prefix}.{field}"


@dataclass(frozen=True, slots=True)
class Range:
    """The allowed interval of a number, both ends included, and the unit it is said in; ``whole``: of
    things that are counted.
    """

    low: float
    high: float
    unit: str = ""
    whole: bool = False

    def complaint(self, value: float) -> str | None:
        """The sentence to show when ``value`` is outside, or None when it is allowed."""
        number = "a whole number, " if self.whole else ""
        allowed = f"Must be {number}from {in_unit(self.low, self.unit)} to {in_unit(self.high, self.unit)}."
        if not math.isfinite(value):
            return f"This is not a number. {allowed}"
        if not self.low <= value <= self.high or (self.whole and value % 1):
            return allowed
        return None

    def __get_pydantic_json_schema__(self, core_schema: Any, handler: Any) -> Any:
        """Carry the interval into a JSON Schema made from the dataclass."""
        return handler(core_schema) | {"minimum": self.low, "maximum": self.high}


@dataclass(frozen=True, slots=True)
class Length:
    """How many characters a text, or how many items a list, may have."""

    low: int
    high: int
    what: str

    def complaint(self, value: Any) -> str | None:
        """The sentence to show when ``value`` is too short or too long, or None."""
        n = len(value.strip()) if isinstance(value, str) else len(value)
        if n < self.low:
            return (
                f"Nothing is entered. At least {self.low} {self.what}."
                if n == 0
                else (f"Only {n} {self.what}; at least {self.low}.")
            )
        if n > self.high:
            return f"{n} {self.what} are too many: at most {self.high}."
        return None


Rule = Range | Length


@cache
def _rules(cls: type) -> tuple[tuple[str, tuple[Rule, ...]], ...]:
    hints = get_type_hints(cls, include_extras=True)
    found = []
    for f in fields(cls):
        hint = hints[f.name]
        # ``Annotated`` may stand inside an optional: look one level down too.
        candidates = (*get_args(hint), *(a for arm in get_args(hint) for a in get_args(arm)))
        rules = tuple(c for c in candidates if isinstance(c, Range | Length))
        if rules:
            found.append((f.name, rules))
    return tuple(found)


def ranges(cls: type) -> dict[str, tuple[float, float]]:
    """The interval of every number among the fields of a dataclass, and of the dataclasses in them.

    A field of a part is named as its path: ``trim.ends_mm``; one of a list's items too, without its
    place: ``products.base_mm``. Source: where each field is declared.

    >>> from dataclasses import make_dataclass
    >>> from typing import Annotated
    >>> ranges(make_dataclass("Pin", [("mm", Annotated[float, Range(1, 9)])]))
    {'mm': (1, 9)}
    """

    def parts(hint: Any) -> Iterator[type]:
        if isinstance(hint, type) and is_dataclass(hint):
            yield hint
        for arm in get_args(hint):
            yield from parts(arm)

    found = {
        name: (rule.low, rule.high)
        for name, rules in _rules(cls)
        for rule in rules
        if isinstance(rule, Range)
    }
    for name, hint in get_type_hints(cls, include_extras=True).items():
        for part in parts(hint):
            found |= {f"{name}.{below}": pair for below, pair in ranges(part).items()}
    return found


@cache
def _item_rules(cls: type) -> tuple[tuple[str, tuple[Rule, ...]], ...]:
    """The rules of the items of lists: ``tuple[Annotated[float, Range(…)], ...]``, however wrapped."""

    def inside(hint: Any) -> tuple[Rule, ...]:
        if get_origin(hint) is tuple:
            items = get_args(hint)[0]
            return tuple(
                a for a in getattr(items, "__metadata__", ()) if isinstance(a, Range | Length)
            )
        return tuple(rule for arm in get_args(hint) for rule in inside(arm))

    hints = get_type_hints(cls, include_extras=True)
    return tuple((f.name, rules) for f in fields(cls) if (rules := inside(hints[f.name])))


def _complaints(cls: type, values: dict[str, Any]) -> Iterator[Fault]:
    for name, rules in _item_rules(cls):
        for i, item in enumerate(values[name] or ()):
            said = next((m for rule in rules if (m := rule.complaint(item))), None)
            if said:
                yield Fault(f"{name}[{i}]", said)
    for name, rules in _rules(cls):
        value = values[name]
        if value is None:
            continue
        for rule in rules:
            message = rule.complaint(value)
            if message:
                yield Fault(name, message)
                break


@cache
def _times(cls: type) -> tuple[str, ...]:
    hints = get_type_hints(cls)
    return tuple(
        f.name for f in fields(cls)
        if hints[f.name] is datetime or datetime in get_args(hints[f.name])
    )  # fmt: skip


def _odd_times(cls: type, values: dict[str, Any]) -> Iterator[Fault]:
    """Times at which nobody has baked: arithmetic with them ends outside of all calendars."""
    first, last = _YEARS
    for name in _times(cls):
        at = values[name]
        if at is not None and not first <= at.year <= last:
            yield Fault(name, f"The year {at.year} is no year to bake in: from {first} to {last}.")


_YEARS = (1980, 2199)


class Checked:
    """Base of every input dataclass: checks declared rules when the object is made.

    Raises :class:`Faults` with one fault per field that breaks its rule.
    """

    # Read by the API's validation, if there is one: an unknown field is a typing mistake, say so.
    __pydantic_config__: ClassVar[dict[str, Any]] = {"extra": "forbid"}

    def __post_init__(self) -> None:
        values = {f.name: getattr(self, f.name) for f in fields(self)}  # type: ignore[arg-type]
        raise_if((*_complaints(type(self), values), *_odd_times(type(self), values)))


_C = TypeVar("_C", bound=Checked)


def swapped(of: _C, **values: Any) -> _C:
    """A copy with a few values that cannot break a rule (none, empty, as they are by themselves).

    ``dataclasses.replace`` checks the whole object anew.
    """
    made = object.__new__(type(of))
    made.__dict__.update({f.name: of.__dict__[f.name] for f in fields(of)})  # type: ignore[arg-type]
    made.__dict__.update(values)
    return made


def raise_if(faults: Iterable[Fault]) -> None:
    """Raise :class:`Faults` when there is at least one fault; otherwise do nothing."""
    found = tuple(faults)
    if found:
        raise Faults(*found)
