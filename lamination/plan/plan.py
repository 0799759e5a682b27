"""A plan: everything a baker chooses for one dough. What follows from it is in ``work.py``."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Annotated, Any, Literal, TypeVar

from lamination.dough.formula import Formula, taken_too_much
from lamination.dough.recipe import Butter, Dough
from lamination.materials.ingredients import Shelf
from lamination.steps import KINDS, OneOf, kind_of, step_classes
from lamination.steps.base import Form, Step, with_id
from lamination.steps.cut import Cut
from lamination.steps.last_sheet import LastSheet
from lamination.steps.lock_in import LockIn
from lamination.steps.preferment import Preferment
from lamination.steps.turn import Turn
from lamination.terms.limits import Checked, Fault, Faults, Length, raise_if
from lamination.terms.said import listed
from lamination.terms.trade import Family, Tool

FORMAT: Literal["eight-turn/plan"] = "eight-turn/plan"
VERSION = 5

AnyStep = Annotated[Step, OneOf(step_classes)]
S = TypeVar("S", bound=Step)


def newer(version: int) -> str:
    """What is said of a file that another version of Eight Turn wrote.

    >>> newer(VERSION + 1).endswith(f"reads up to version {VERSION}. A newer Eight Turn may read it.")
    True
    """
    return (
        f"This file has version {version}; this Eight Turn reads up to version {VERSION}. A newer "
        "Eight Turn may read it."
    )


@dataclass(frozen=True)
class Plan(Checked):
    """A lamination plan: the document that is saved, sent and worked.

    ``steps`` follow one another; a step without an id gets one. ``rolled_by``: None where it is the
    sheeter if the kitchen has one. Raises :class:`~lamination.terms.limits.Faults` on wrong input,
    with the path of every field at fault, and where a step has nothing to work on.
    """

    name: Annotated[str, Length(1, 80, "characters")]
    family: Family
    dough: Dough
    butter: Butter
    steps: Annotated[tuple[AnyStep, ...], Length(1, 40, "steps")]
    formula: Formula | None = None
    words: Annotated[str, Length(0, 4_000, "characters")] = ""
    rolled_by: Tool | None = None
    format: Literal["eight-turn/plan"] = FORMAT
    version: int = field(default=VERSION)

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.version != VERSION:
            raise Faults(Fault("version", newer(self.version)))
        object.__setattr__(self, "steps", _as_set(_with_ids(self.steps)))
        raise_if([*self._twice(), *self._out_of_place(), *self._preferments()])

    def _twice(self) -> Iterator[Fault]:
        seen: set[str] = set()
        counts: dict[str, int] = {}
        for n, step in enumerate(self.steps):
            if step.id in seen:
                yield Fault(f"steps[{n}].id", "Two steps bear this id. Give each its own.")
            seen.add(step.id)
            kind = kind_of(step)
            counts[kind.do] = counts.get(kind.do, 0) + 1
            if counts[kind.do] > kind.often:
                often = "once" if kind.often == 1 else f"{int(kind.often)} times at most"
                yield Fault(f"steps[{n}].do", f"{kind.name} stands in a plan {often}.")
        for kind in KINDS.values():
            if kind.needed and not counts.get(kind.do):
                yield Fault("steps", f"Every plan has its {kind.name.lower()}. Leave it in.")

    def _out_of_place(self) -> Iterator[Fault]:
        fault = out_of_place(self.steps)
        if fault:
            yield fault

    def _preferments(self) -> Iterator[Fault]:
        if self.formula is None:
            return
        numbered = [(n, s) for n, s in enumerate(self.steps) if isinstance(s, Preferment)]
        for j, fault in taken_too_much(self.formula, [s for _, s in numbered]):
            yield fault.under(f"steps[{numbered[j][0]}]")

    @cached_property
    def shelf(self) -> Shelf:
        """The ingredients that travel with the plan, and the library."""
        return Shelf(self.formula.own if self.formula else ())

    # --- looking for steps

    def all(self, kind: type[S]) -> tuple[S, ...]:
        """Every step of a kind, in order."""
        return tuple(s for s in self.steps if isinstance(s, kind))

    def first(self, kind: type[S]) -> S | None:
        """The first step of a kind, if there is one."""
        return next(iter(self.all(kind)), None)

    @property
    def lock_in(self) -> LockIn:
        """The lock-in, which every plan has."""
        return self.all(LockIn)[0]

    @property
    def turns(self) -> tuple[Turn, ...]:
        """All turns."""
        return self.all(Turn)

    @property
    def last_sheet(self) -> LastSheet:
        """The last sheet, which every plan has."""
        return self.all(LastSheet)[0]

    @property
    def cut(self) -> Cut | None:
        """The cut, if there is one."""
        return self.first(Cut)

    @property
    def preferments(self) -> tuple[tuple[str, Preferment], ...]:
        """The preferments with the ids of their steps."""
        return tuple((s.id, s) for s in self.all(Preferment))

    def at(self, step_id: str) -> int:
        """The number of a step by its id; -1 where there is none."""
        return next((n for n, s in enumerate(self.steps) if s.id == step_id), -1)

    # --- another plan

    def changed(self, step: Step, **values: Any) -> Plan:
        """The plan with other values in one of its steps."""
        return self.with_steps(
            *(replace(s, **values) if s.id == step.id else s for s in self.steps)
        )

    def with_steps(self, *steps: Step) -> Plan:
        """The plan with other steps."""
        return replace(self, steps=steps)


def _as_set(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """What lies apart (a poolish, a sponge) in the order it is set: what ripens longest comes first."""
    n = next((i for i, s in enumerate(steps) if not kind_of(s).apart), len(steps))
    apart = sorted(steps[:n], key=lambda s: -(s.rest.minutes if s.rest else 0.0))
    return (*apart, *steps[n:])


def _with_ids(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    taken = {s.id for s in steps if s.id}
    found = []
    for step in steps:
        made = with_id(step, taken, kind_of(step))
        taken.add(made.id)
        found.append(made)
    return tuple(found)


def out_of_place(steps: tuple[Step, ...]) -> Fault | None:
    """The first step that has not what it works on, with the sentence that says so; None if all have."""
    lies = Form.NOTHING
    for n, step in enumerate(steps):
        kind = kind_of(step)
        if lies not in kind.takes:
            wants = listed([f.said for f in Form if f in kind.takes], "or")
            text = f"{kind.name} needs {wants}; here there is {lies.said}. Move it, or add what is missing."
            return Fault(f"steps[{n}].do", text)
        lies = kind.leaves or lies
    return None
