"""What was different: two records, or one against the good ones of its product, the unusual first."""

from __future__ import annotations

import statistics
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import timedelta

from lamination.findings.record import Record
from lamination.run import used
from lamination.run.events import EventKind

_MAD = 1.4826  # of a normal spread over its median deviation
_FEW = 4  # so many others make a spread
# what differs by less is nothing, whatever the others' spread: by unit
_FLOOR = {"°C": 0.8, "min": 3.0, "g": 0.6, "%": 0.6, "": 0.4}
_UNUSUAL = 2.0


@dataclass(frozen=True, slots=True)
class Feature:
    """Something of a record that can be compared: by what name, in what unit."""

    key: str
    name: str
    unit: str
    value: float


@dataclass(frozen=True, slots=True)
class Difference:
    """A feature against the others': their middle, from and until where eight of ten lie, and how unusual it
    is: so many spreads away. ``unusual``: worth a word.
    """

    key: str
    name: str
    unit: str
    value: float
    usual: float
    low: float
    high: float
    others: tuple[float, ...]
    away: float
    unusual: bool


def features(of: Record) -> dict[str, Feature]:
    """All of a record that can be compared with another's."""
    return {f.key: f for f in _features(of)}


def _features(of: Record) -> Iterator[Feature]:
    standing = of.standing
    names = {s.key: s.name[:1].lower() + s.name[1:] for s in of.worked.strip}
    rooms = [r.value_c for r in standing.readings if r.probe == "room"]
    if rooms:
        yield Feature("room", "the room", "°C", statistics.fmean(rooms))
    butter = [r.value_c for r in standing.readings if r.probe == "butter"]
    if butter:
        yield Feature("butter", "the butter", "°C", butter[0])
    for read in standing.readings:
        if read.probe == "dough" and read.stop:
            key = f"{read.probe}.{read.stop}"
            yield Feature(
                key, f"{read.probe} at {names.get(read.stop, read.stop)}", "°C", read.value_c
            )
    clock = standing.started_at
    for deed in standing.deeds:
        minutes = (deed.at - clock) / timedelta(minutes=1)
        name = names.get(deed.stop, deed.stop)
        if deed.kind is EventKind.OUT:
            yield Feature(f"rest.{deed.stop}", f"rest after {name}", "min", minutes)
        else:
            yield Feature(f"work.{deed.stop}", f"work at {name}", "min", minutes)
        clock = deed.at
    if standing.deeds:
        last = standing.deeds[-1]
        late = (last.at - last.planned_at) / timedelta(minutes=1)
        yield Feature("late", "late at the end", "min", late)
    grams = [g for p in standing.pieces for g in p.grams]
    if len(grams) >= _FEW:
        yield Feature("piece", "a piece", "g", statistics.fmean(grams))
        spread = 100 * statistics.stdev(grams) / statistics.fmean(grams)
        yield Feature("spread", "pieces differ by", "%", spread)
    if true := used(of.plan, of.worked, standing):
        yield Feature("hydration", "true hydration", "%", true.true_hydration_pct)
    yield Feature("dough", "the dough", "g", of.plan.dough.mass_g)
    if (verdict := standing.verdict) is not None and verdict.mean is not None:
        yield Feature("score", "how it came out, of five", "", verdict.mean)


def score(of: Record) -> float | None:
    """How it came out, of five; None where nobody judged it."""
    found = features(of).get("score")
    return found.value if found else None


def different(
    mine: Mapping[str, Feature], others: Sequence[Mapping[str, Feature]]
) -> tuple[Difference, ...]:
    """How one record's features lie among the others', the most unusual first.

    With fewer than four others there is no spread, and what counts is the floor of its unit: what nobody
    would notice. Source: the robust z, (value - median) / (1.4826 · median deviation).
    """
    found = []
    for key, one in mine.items():
        there = [o[key].value for o in others if key in o]
        if not there:
            continue
        middle = statistics.median(there)
        floor = _FLOOR.get(one.unit, 1.0)
        if one.unit == "g":
            floor = max(floor, 0.02 * abs(middle))
        spread = floor
        if len(there) >= _FEW:
            deviation = statistics.median(abs(v - middle) for v in there)
            spread = max(_MAD * deviation, floor)
        ranked = sorted(there)
        low, high = _at(ranked, 0.1), _at(ranked, 0.9)
        away = (one.value - middle) / spread
        found.append(
            Difference(
                key, one.name, one.unit, one.value, middle, low, high, tuple(there), away,
                abs(away) >= _UNUSUAL,
            )
        )  # fmt: skip
    return tuple(sorted(found, key=lambda d: -abs(d.away)))


def _at(ranked: list[float], share: float) -> float:
    """The value below which a share of them lies."""
    place = share * (len(ranked) - 1)
    low = int(place)
    high = min(low + 1, len(ranked) - 1)
    return ranked[low] + (ranked[high] - ranked[low]) * (place - low)
