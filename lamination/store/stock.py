"""What there is of what is bought, against what the days ahead need: counted when it matters, no more."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Annotated

from lamination.kitchen.kitchen import Kitchen
from lamination.terms.limits import Checked, Fault, Length, Range, raise_if


@dataclass(frozen=True)
class Count(Checked):
    """What somebody counted of an ingredient, g, and when."""

    ingredient: Annotated[str, Length(1, 60, "characters")]
    grams: Annotated[float, Range(0, 5_000_000, "g")]
    at: datetime

    def __post_init__(self) -> None:
        super().__post_init__()
        no_zone = self.at.utcoffset() is None
        raise_if([Fault("at", "The time must say its time zone.")] if no_zone else [])


@dataclass(frozen=True, slots=True)
class Need:
    """So much of an ingredient that is weighed at a moment, g, and for what."""

    ingredient: str
    name: str
    grams: float
    at: datetime
    what: str


@dataclass(frozen=True, slots=True)
class Stocked:
    """An ingredient: what there is, what the days ahead need, and by when to order.

    ``there_g``: counted, less what was weighed since; None where nobody counted. ``short_at``: when there
    is not enough any more, and ``short_for`` for what; ``order_by``: the days before that, by the kitchen.
    """

    ingredient: str
    name: str
    there_g: float | None
    counted_at: datetime | None
    used_g: float
    needed_g: float
    short_g: float
    short_at: datetime | None
    short_for: str
    order_by: datetime | None


def stock(
    counts: Iterable[Count],
    weighed: Iterable[Need],
    ahead: Iterable[Need],
    kitchen: Kitchen,
    names: Mapping[str, str] | None = None,
) -> tuple[Stocked, ...]:
    """Every ingredient that was counted or is needed, what runs short first.

    ``weighed``: what doughs have taken lately; of these counts what came after the count. ``ahead``: what
    the days to come need. An ingredient that nobody counted is not known to be there, nor to be short.
    """
    counted = {count.ingredient: count for count in counts}
    said = dict(names or {})
    used: dict[str, float] = {}
    for one in weighed:
        count = counted.get(one.ingredient)
        if count and one.at > count.at:
            used[one.ingredient] = used.get(one.ingredient, 0.0) + one.grams
    needs: dict[str, list[Need]] = {}
    for one in sorted(ahead, key=lambda n: n.at):
        needs.setdefault(one.ingredient, []).append(one)
        said.setdefault(one.ingredient, one.name)
    found = []
    for key in {*counted, *needs}:
        count = counted.get(key)
        there = max(count.grams - used.get(key, 0.0), 0.0) if count else None
        needed, short = 0.0, None
        for one in needs.get(key, ()):
            needed += one.grams
            if there is not None and needed > there + 0.5 and short is None:
                short = one
        days = timedelta(days=kitchen["stock.order_days"])
        found.append(
            Stocked(
                key, said.get(key, key), there, count.at if count else None, used.get(key, 0.0),
                needed, max(needed - there, 0.0) if there is not None else 0.0,
                short.at if short else None, short.what if short else "",
                short.at - days if short else None,
            )
        )  # fmt: skip
    return tuple(sorted(found, key=_first))


def _first(one: Stocked) -> tuple[bool, float, str]:
    at = one.order_by.timestamp() if one.order_by else 0.0
    return one.order_by is None, at, one.name
