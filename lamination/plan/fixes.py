"""Ways out, taken: a fix is values put at paths of the plan; and offered only where they help."""

from __future__ import annotations

import re
from dataclasses import replace
from enum import Enum
from typing import Any, get_args, get_type_hints

from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.work import work
from lamination.plan.worked import WorkedPlan
from lamination.terms.advice import TONES, Fix, Note
from lamination.terms.limits import Faults

_PART = re.compile(r"[^.\[\]]+")


def taken(plan: Plan, fix: Fix) -> Plan:
    """The plan with all the values of a fix put in it at once.

    Raises :class:`~lamination.terms.limits.Faults` when what comes of it is no plan.
    """
    made: Plan = _put(plan, [(_PART.findall(p.field), p.value) for p in fix.puts])
    return made


def _put(whole: Any, puts: list[tuple[list[str], Any]]) -> Any:
    """The whole with values at paths, each part of it made once: what lies between need not be right."""
    below: dict[str, list[tuple[list[str], Any]]] = {}
    for (head, *rest), value in puts:
        below.setdefault(head, []).append((rest, value))
    parts = {}
    for head, inner in below.items():
        path, value = inner[-1]
        now = whole[int(head)] if isinstance(whole, tuple) else getattr(whole, head)
        if path:
            parts[head] = _put(now, inner)
        else:
            parts[head] = value if isinstance(whole, tuple) else _as_declared(whole, head, value)
    if isinstance(whole, tuple):
        return tuple(parts.get(str(n), part) for n, part in enumerate(whole))
    return replace(whole, **parts)


def _as_declared(whole: Any, name: str, value: Any) -> Any:
    """A text as the choice it names, where the field holds one of several choices."""
    if not isinstance(value, str) or isinstance(value, Enum):
        return value
    hint = get_type_hints(type(whole)).get(name)
    for kind in (hint, *get_args(hint)):
        if isinstance(kind, type) and issubclass(kind, Enum):
            return kind(value)
    return value


def sound(plan: Plan, kitchen: Kitchen, worked: WorkedPlan) -> tuple[Note, ...]:
    """The notes of a worked plan with only those ways out that clear what they are offered for.

    None may leave the same advice standing, or raise something graver than stood there before.
    """
    before = {n.key: TONES[n.tone] for n in worked.notes}
    found = []
    for note in worked.notes:
        good = tuple(f for f in note.fixes if _clears(plan, kitchen, note, f, before))
        found.append(replace(note, fixes=good))
    return tuple(found)


def _clears(
    plan: Plan, kitchen: Kitchen, note: Note, fix: Fix, before: dict[tuple[str, str], int]
) -> bool:
    try:
        after = work(taken(plan, fix), kitchen).notes
    except Faults:
        return False
    for n in after:
        if n.key == note.key and n.tone == note.tone:
            return False
        if n.tone == "mind" and before.get(n.key, 9) > TONES["mind"]:
            return False
    return True
