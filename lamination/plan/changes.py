"""What another kitchen would change in a plan, said before it is changed."""

from __future__ import annotations

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.plan.worked import WorkedPlan
from lamination.terms.advice import Note
from lamination.terms.limits import Faults
from lamination.terms.said import mm, named, span

_MOVED_MM = 1.0
_MOVED_MIN = 1.0


def changes(plan: Plan, before: Kitchen, after: Kitchen) -> tuple[str, ...]:
    """Sentences on what is another in a plan once its kitchen is: none where nothing is.

    What then wants minding and what no longer does; sheets that come out another size; how long it all
    takes. A plan that cannot be worked afterwards says why; one that could not before says nothing.
    Source: both worked, and compared.
    """
    try:
        was = work(plan, before)
    except Faults:
        return ()
    try:
        now = work(plan, after)
    except Faults as wrong:
        return (f"It cannot be worked then: {wrong.faults[0].message}",)
    return (*_minded(was, now), *_sizes(was, now), *_time(was, now))


def _minded(was: WorkedPlan, now: WorkedPlan) -> list[str]:
    def wants(worked: WorkedPlan) -> dict[tuple[str, str], Note]:
        return {note.key: note for note in worked.notes if note.tone == "mind"}

    before, after = wants(was), wants(now)
    names = {stop.key: stop.name for stop in now.strip}
    return [
        f"{named(names.get(note.stop, ''))}, then to mind: {note.title}."
        for key, note in after.items()
        if key not in before
    ] + [
        f"{named(names.get(note.stop, ''))}, no longer to mind: {note.title}."
        for key, note in before.items()
        if key not in after
    ]


def _sizes(was: WorkedPlan, now: WorkedPlan) -> list[str]:
    before = {stop.key: stop.lies for stop in was.strip}
    found = []
    for stop in now.strip:
        old, new = before.get(stop.key), stop.lies
        if old is None or new is None:
            continue
        moved = max(abs(old.length_mm - new.length_mm), abs(old.width_mm - new.width_mm))
        if moved >= _MOVED_MM:
            sides = f"{mm(new.length_mm, new.width_mm)}, not {mm(old.length_mm, old.width_mm)}"
            found.append(f"{named(stop.name)} comes to {sides}.")
    return found[:2]  # what follows of the first is no news


def _time(was: WorkedPlan, now: WorkedPlan) -> list[str]:
    if abs(now.total_min - was.total_min) < _MOVED_MIN:
        return []
    return [f"It takes {span(now.total_min)}, not {span(was.total_min)}."]
