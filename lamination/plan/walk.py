"""A plan walked along: each step's effect on what the one before left on the bench.

Everything else that a plan is asked (figures, words, warmth) shares one walk, and knows no kind of
step by name.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Any

from lamination.dough.formula import Formula, Prefermented
from lamination.dough.recipe import Butter, Dough, Recipe
from lamination.dough.weighing import Weighed, weigh
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.machines import Rolled, rolled_by
from lamination.materials.preparations import shelf_with
from lamination.plan.plan import Plan
from lamination.steps import kind_of
from lamination.steps.base import Here, Lies, Made, Setting, Step
from lamination.steps.mix import Mixing
from lamination.terms.limits import Fault, Faults
from lamination.terms.rests import Rest
from lamination.terms.said import say
from lamination.terms.sizes import Size
from lamination.terms.trade import Family, Method


@dataclass(frozen=True, slots=True)
class Timed:
    """When a step's work starts, min from the first's; how long it takes; the rest that is waited for."""

    starts_min: float
    bench_min: float
    rest: Rest | None

    @property
    def ends_min(self) -> float:
        """When its work is done."""
        return self.starts_min + self.bench_min

    @property
    def next_min(self) -> float:
        """When its rest is over."""
        return self.ends_min + (self.rest.minutes if self.rest else 0.0)


@dataclass(frozen=True, eq=False)
class Walk:
    """A plan walked in a kitchen: what came of every step, what each is called, and the clock."""

    plan: Plan
    setting: Setting
    made: tuple[Made, ...]
    names: tuple[str, ...]
    clock: tuple[Timed, ...]

    @property
    def recipe(self) -> Recipe:
        """Dough and butter."""
        return self.setting.recipe

    def here(self, n: int) -> Here[Any]:
        """The ``n``-th step with all round it."""
        return Here(n, self.names[n], self.plan.steps, self.made, self.setting)


def recipe_of(plan: Plan, kitchen: Kitchen) -> Recipe:
    """Dough and butter of a plan; its shelf is the kitchen's, with what travels with the plan."""
    later = sum(s.holds_back_pct for s in plan.steps)
    if later > _MOST_LATER_PCT:
        n = next(n for n, s in enumerate(plan.steps) if s.holds_back_pct)
        text = f"Later folds would take {say(later)} % of the butter. Leave some for the lock-in."
        raise Faults(Fault(f"steps[{n}].share_pct", text))
    of = (plan.family, plan.dough, plan.butter, plan.formula, plan.preferments)
    return _recipe(*of, later, plan.lock_in.method is Method.NONE, kitchen)


@lru_cache(maxsize=64)
def _recipe(
    family: Family,
    dough: Dough,
    butter: Butter,
    formula: Formula | None,
    preferments: tuple[tuple[str, Prefermented], ...],
    later_pct: float,
    butterless: bool,
    kitchen: Kitchen,
) -> Recipe:
    prepared = {p.key for p in kitchen.preparations}
    own = [i for i in formula.own if i.key not in prepared] if formula else []
    shelf = shelf_with((*kitchen.ingredients, *own), kitchen.preparations) if own else kitchen.shelf
    return Recipe(
        family, dough, butter, formula, preferments, shelf, kitchen, later_pct, butterless
    )


@lru_cache(maxsize=64)
def walk(plan: Plan, kitchen: Kitchen) -> Walk:
    """Walk along a plan's steps.

    What comes of a step is remembered by the step and by what lay there before: a plan that differs
    from one walked lately in its later steps, or in its times alone, is walked from there on; and on a
    warmer day only what feels the warmth is done anew. Raises
    :class:`~lamination.terms.limits.Faults` when a step cannot be done (a roll that is not thinner than
    what it starts from, a lock-in that cannot take the block); paths are those of the plan.
    """
    recipe = recipe_of(plan, kitchen.still)
    assert recipe.butter_kind  # raises where the shelf has no such fat
    mixing = plan.first(Mixing)
    weighed = _weighed(recipe, mixing.id if mixing else "mix")
    around = rolled_by(plan.rolled_by, kitchen.still), weighed, _wanted(plan, recipe)
    still = _setting(recipe, *around)
    setting = still if kitchen.still is kitchen else _setting(recipe_of(plan, kitchen), *around)
    lies, made = _NOTHING_YET, []
    for n, step in enumerate(plan.steps):
        try:
            done = _effect(step.bare, lies, setting if kind_of(step).feels_warmth else still)
        except Faults as wrong:
            raise Faults(*(f.under(f"steps[{n}]") for f in wrong.faults)) from None
        made.append(done)
        lies = done.lies
    return Walk(plan, setting, tuple(made), _names(plan.steps), _clock(plan.steps, made, kitchen))


_NOTHING_YET = Lies()
_MOST_LATER_PCT = 95.0


@lru_cache(maxsize=64)
def _setting(recipe: Recipe, rolled: Rolled, weighed: Weighed | None, wanted: Size) -> Setting:
    return Setting(recipe, rolled, weighed, wanted)


@lru_cache(maxsize=500)
def _effect(step: Step, lies: Lies, setting: Setting) -> Made:
    return kind_of(step).effect(step, lies, setting)


@lru_cache(maxsize=64)
def _weighed(recipe: Recipe, mix: str) -> Weighed | None:
    if recipe.formula is None:
        return None
    return weigh(recipe.formula, recipe.preferments, recipe.dough.mass_g, recipe.kitchen, mix)


def _wanted(plan: Plan, recipe: Recipe) -> Size:
    """The dough sheet that the first step to want one wants."""
    for n, step in enumerate(plan.steps):
        if kind_of(step).wants:
            try:
                return _wants(step.bare, recipe)
            except Faults as wrong:
                raise Faults(*(f.under(f"steps[{n}]") for f in wrong.faults)) from None
    raise AssertionError("every plan has a lock-in, which wants a sheet")


@lru_cache(maxsize=64)
def _wants(step: Step, recipe: Recipe) -> Size:
    wants = kind_of(step).wants
    assert wants
    return wants(step, recipe)


def _names(steps: tuple[Step, ...]) -> tuple[str, ...]:
    of: dict[str, int] = {}
    for step in steps:
        of[step.kind_name] = of.get(step.kind_name, 0) + 1
    seen: dict[str, int] = {}
    names = []
    for step in steps:
        number = seen[step.kind_name] = seen.get(step.kind_name, 0) + 1
        names.append(kind_of(step).name_of(step, number, of[step.kind_name]))
    return tuple(names)


def _clock(steps: tuple[Step, ...], made: list[Made], kitchen: Kitchen) -> tuple[Timed, ...]:
    """One step after another. While one that lies apart ripens the next is made: what is waited for is
    only what lies between the two.
    """
    bench = [kind_of(s).bench_min(s, m.figures, kitchen) for s, m in zip(steps, made, strict=True)]
    rests = [s.rest for s in steps]
    for i, (a, b) in enumerate(pairwise(steps)):
        if kind_of(a).apart and kind_of(b).apart and a.rest and b.rest:
            between = a.rest.minutes - b.rest.minutes - bench[i + 1]
            rests[i] = a.rest.lasting(max(between, 0.0))
    clock, timed = 0.0, []
    for minutes, rest in zip(bench, rests, strict=True):
        timed.append(Timed(clock, minutes, rest))
        clock = timed[-1].next_min
    return tuple(timed)
