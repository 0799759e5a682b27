"""How full the cold gets: the most packages that lie in one place at once on a day."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import StopKind
from lamination.plan.schedule import Scheduled
from lamination.terms.limits import say
from lamination.terms.rests import Place

_COUNTED = (Place.FRIDGE, Place.FREEZER)
_PACKAGES = (StopKind.DOUGH, StopKind.LOCK_IN, StopKind.TURN, StopKind.FINAL)


@dataclass(frozen=True, slots=True)
class Crowd:
    """The fullest moment of a place: packages in it, what it holds, minutes before all is ready."""

    place: Place
    packages: int
    holds: int
    before_min: float
    says: str


def crowded(batches: Iterable[tuple[int, list[Scheduled]]], kitchen: Kitchen) -> tuple[Crowd, ...]:
    """The places that are asked to hold more than they do, when all batches are ready at one time.

    ``batches``: how many doughs of a schedule. Doughs of a batch go in and come out together: the
    worst that can be. A place that holds 0 is not counted.
    """
    edges: dict[Place, list[tuple[float, int]]] = {place: [] for place in _COUNTED}
    for doughs, stops in batches:
        end = stops[-1].starts_min + stops[-1].bench_min
        for stop in stops:
            if stop.rest is None or stop.kind not in _PACKAGES:
                continue
            at = stop.starts_min + stop.bench_min - end
            for stay in stop.rest.stays:
                if stay.place in edges:
                    edges[stay.place] += [(at, doughs), (at + stay.minutes, -doughs)]
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
                f"{most} packages are in the {place} at once, {say(round(when / 60, 1))} h before all is "
                f"ready; it holds {holds}. Start some earlier, or rest some elsewhere."
            )
            found.append(Crowd(place, most, holds, when, text))
    return tuple(found)
