"""How full the cold gets: the most packages that lie in one place at once on a day."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.worked import Stop
from lamination.steps.shape import ShapeFigures
from lamination.terms.said import counted, span
from lamination.terms.trade import Place

_COUNTED = (Place.FRIDGE, Place.FREEZER)
_PIECES = ("cut", "offcuts", "shape", "wash")


@dataclass(frozen=True, slots=True)
class Crowd:
    """The fullest moment of a place: packages in it, what it holds, minutes before all is ready."""

    place: Place
    packages: int
    holds: int
    before_min: float
    says: str


def lies_on(stop: Stop, strip: tuple[Stop, ...]) -> int:
    """How many places of a shelf a dough takes: a package one, its pieces as many as their trays."""
    if stop.do not in _PIECES:
        return 1
    trays = [s.made.trays.count for s in strip if isinstance(s.made, ShapeFigures)]
    return max(trays[0] if trays else 1, 1)


def crowded(
    batches: Iterable[tuple[int, tuple[Stop, ...], float]], kitchen: Kitchen
) -> tuple[Crowd, ...]:
    """The places that are asked to hold more than they do, when all batches are ready at one time.

    ``batches``: how many doughs, their strip, and the minute they are ready. Doughs of a batch go in
    and come out together: the worst that can be. A place that holds 0 is not counted.
    """
    edges: dict[Place, list[tuple[float, int]]] = {place: [] for place in _COUNTED}
    for doughs, strip, ready_min in batches:
        for stop in strip:
            if stop.rest is None or stop.lies is None:
                continue
            many = doughs * lies_on(stop, strip)
            at = stop.starts_min + stop.bench_min - ready_min
            for stay in stop.rest.stays:
                if stay.place in edges:
                    edges[stay.place] += [(at, many), (at + stay.minutes, -many)]
                at += stay.minutes
    found = []
    for place, changes in edges.items():
        inside = most = 0
        when = 0.0
        # what comes out at a minute makes room for what goes in
        for at, change in sorted(changes):
            inside += change
            if inside > most:
                most, when = inside, -at
        holds = round(kitchen[f"{place}.holds"])
        if holds and most > holds:
            text = (
                f"The {place.said} holds {counted(holds, 'package')}; {span(when)} before everything is "
                f"ready, {most} would be in it. Start one or more doughs earlier, or rest them elsewhere."
            )
            found.append(Crowd(place, most, holds, when, text))
    return tuple(found)
