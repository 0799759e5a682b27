"""What would mend a day: a hand for two hours, one more machine, a dough an hour later; each is tried."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import timedelta

from lamination.day.day import Day, Shift
from lamination.day.gives import Give
from lamination.kitchen.kitchen import Kitchen
from lamination.terms.said import span
from lamination.terms.trade import Machine, Place

_MENDED = ("late", "rest", "hand", "machine", "place", "held")
_HELPS = 0.25  # what is left of a compromise's price where it counts as mended
# a hand more: how long before it would come, and for how many minutes
_HANDS = ((90, 120), (240, 120), (360, 240))
_MOST = 3  # compromises that are tried to mend: the dearest


@dataclass(frozen=True)
class Change:
    """A day with one thing more, or one thing later, and how that is said."""

    day: Day
    kitchen: Kitchen
    says: str


def worst(gives: Sequence[Give]) -> list[Give]:
    """Of the dearest compromises those that more of something might mend."""
    return [give for give in gives[:_MOST] if give.code in _MENDED]


def mended(
    day: Day,
    kitchen: Kitchen,
    gives: Sequence[Give],
    cost: float,
    again: Callable[[Day, Kitchen], float],
    until: float,
) -> tuple[Give, ...]:
    """The compromises, the dearest of them with what would mend them.

    ``again`` arranges a changed day from where this one lies and says what it costs; every change is
    tried before it is offered. ``until``: when to stop, on the monotonic clock.
    """
    found = list(gives)
    tried: dict[str, float] = {}
    for give in worst(gives):
        best: tuple[float, str] | None = None
        for change in changes(day, kitchen, give):
            if time.monotonic() > until:
                break
            if change.says not in tried:
                tried[change.says] = cost - again(change.day, change.kitchen)
            saves = tried[change.says]
            if saves >= (1 - _HELPS) * give.weighs and (best is None or saves > best[0]):
                best = saves, change.says
        if best:
            found[found.index(give)] = replace(give, mend=f"{best[1]} would mend it.")
    return tuple(found)


def changes(day: Day, kitchen: Kitchen, give: Give) -> Iterator[Change]:
    """What might mend a compromise."""
    for before, long in _HANDS:
        starts = max(give.minute - before, 0)
        starts -= starts % 30
        ends = min(starts + long, day.minutes)
        if ends > starts:
            a, b = day.at(starts), day.at(ends)
            more = Shift("one more", a, b)
            yield Change(
                replace(day, hands=(*day.hands, more)), kitchen,
                f"One more hand from {a:%H:%M} to {b:%H:%M}",
            )  # fmt: skip
    for machine in Machine:
        row = f"{machine}.count"
        yield Change(
            day, kitchen.changed({row: kitchen[row] + 1}), f"A second {machine.said}"
            if kitchen[row] == 1 else f"One {machine.said} more",
        )  # fmt: skip
    if kitchen["proofer.trays"] and give.code in ("place", "late", "rest"):
        row = "proofer.trays"
        yield Change(
            day,
            kitchen.changed({row: min(2 * kitchen[row], 500)}),
            f"A second {Place.PROOFER.said}",
        )
    dough = next((d for d in day.doughs if d.id == give.dough), None)
    if dough is not None:
        for later in (15, 30, 60, 120):
            ready = dough.ready_at + timedelta(minutes=later)
            if ready <= day.ends:
                doughs = tuple(replace(d, ready_at=ready) if d is dough else d for d in day.doughs)
                yield Change(
                    replace(day, doughs=doughs),
                    kitchen,
                    f"Dough {dough.id} wanted {span(later)} later",
                )
