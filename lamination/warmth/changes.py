"""What another kitchen would change in a plan, said before it is changed."""

from __future__ import annotations

from dataclasses import dataclass

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.plan.worked import WorkedPlan
from lamination.terms.advice import Note
from lamination.terms.limits import Faults
from lamination.terms.said import mm, named, span
from lamination.warmth.warmth import work_warmth

_MOVED_MM = 1.0
_MOVED_MIN = 1.0


def changes(plan: Plan, before: Kitchen, after: Kitchen) -> tuple[str, ...]:
    """Sentences on what is another in a plan once its kitchen is: none where nothing is.

    What then wants minding, in its sheets or in its warmth on a usual day, and what no longer does; sheets
    that come out another size; how long it all takes. A plan that cannot be worked afterwards says why;
    one that could not before says nothing. Source: both worked, and compared.
    """
    try:
        was = _Seen.of(plan, before)
    except Faults:
        return ()
    try:
        now = _Seen.of(plan, after)
    except Faults as wrong:
        return (f"It cannot be worked then: {wrong.faults[0].message}",)
    return (*_minded(was, now), *_sizes(was.worked, now.worked), *_time(was.worked, now.worked))


@dataclass(frozen=True, slots=True)
class _Seen:
    """A plan worked in a kitchen, and all it then has to mind."""

    worked: WorkedPlan
    minds: dict[tuple[str, str], Note]

    @classmethod
    def of(cls, plan: Plan, kitchen: Kitchen) -> _Seen:
        worked = work(plan, kitchen)
        notes = (*worked.notes, *work_warmth(plan, kitchen, fixes=False).notes)
        return cls(worked, {note.key: note for note in notes if note.tone == "mind"})


def _minded(was: _Seen, now: _Seen) -> list[str]:
    names = {stop.key: stop.name for stop in now.worked.strip}

    def said(what: str, some: _Seen, others: _Seen) -> list[str]:
        return [
            f"{named(names.get(note.stop, ''))}, {what} to mind: {note.title}."
            for key, note in some.minds.items()
            if key not in others.minds
        ]

    return said("then", now, was) + said("no longer", was, now)


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
