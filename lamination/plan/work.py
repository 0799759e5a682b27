"""Working a plan: every size, count, thickness and minute that follows from it, and its words."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from lamination.dough.formula import balance
from lamination.dough.shopping import declared_of, needed, prepared_sheets, sheet_of
from lamination.dough.weighing import WeighSheet
from lamination.kitchen.kitchen import Kitchen
from lamination.materials.house import measured
from lamination.plan.plan import Plan
from lamination.plan.walk import Walk, walk
from lamination.plan.worked import (
    ButterFigures,
    Facts,
    Feeding,
    FormulaFigures,
    FormulaPart,
    Kept,
    Scrap,
    Stop,
    WorkedPlan,
)
from lamination.sheet.coverage import Layers
from lamination.steps import kind_of
from lamination.steps._labels import labels_of
from lamination.steps._package import lying
from lamination.steps.base import Alarm
from lamination.steps.cut import CutFigures
from lamination.steps.last_sheet import LastSheetFigures
from lamination.steps.strew import StrewFigures
from lamination.steps.turn import TurnFigures
from lamination.terms.advice import TONES, Note, Working
from lamination.terms.said import counted, g, say, span

PLAIN = Kitchen()


def work(plan: Plan, kitchen: Kitchen | None = None) -> WorkedPlan:
    """Work a plan in a kitchen (the plain table of practice when none is given).

    Returns every size in mm, leaves in µm, masses in g and times in min. Raises
    :class:`~lamination.terms.limits.Faults` when a step cannot be done; paths are those of the plan.
    The same plan in the same kitchen is worked once.
    """
    return _work(plan, kitchen or PLAIN)


@lru_cache(maxsize=128)
def _work(plan: Plan, kitchen: Kitchen) -> WorkedPlan:
    found = walk(plan, kitchen)
    sheets = _sheets(found)
    last = next(m.figures for m in found.made if isinstance(m.figures, LastSheetFigures))
    recipe = found.recipe
    scrap = tuple(
        Scrap(step.id, m.saved.grams, m.saved.butter_g)
        for step, m in zip(plan.steps, found.made, strict=True)
        if m.saved and abs(m.saved.grams) > 0.05
    )
    put_away = tuple(
        Kept(step.id, m.put) for step, m in zip(plan.steps, found.made, strict=True) if m.put
    )
    shopping = needed(((s, 1) for s in sheets), recipe.shelf)
    return WorkedPlan(
        name=plan.name,
        total_g=plan.dough.mass_g + recipe.butter_g + _laid_on(found),
        comes_out_g=_comes_out(found),
        butter_share=recipe.shares,
        formula=_formula(found),
        dough=recipe.dough_physics,
        butter=ButterFigures(recipe.butter_kind.name, recipe.butter_physics, recipe.window),
        layers=last.layers,
        strip=_strip(found),
        total_min=found.clock[-1].ends_min,
        facts=_facts(found, last.layers),
        scrap=scrap,
        put_away=put_away,
        sheets=sheets,
        shopping=shopping,
        shopping_says=declared_of(shopping, recipe.shelf),
        labels=labels_of(found.here(0)),
        notes=_notes(found),
        workings=tuple(_workings(found)),
    )


def _comes_out(found: Walk) -> float:
    """What lies under the knife, g; of a plan that cuts nothing, what lies there at its end."""
    for made in found.made:
        if isinstance(made.figures, CutFigures):
            return made.figures.sheet_g
    last = next((m.lies for m in reversed(found.made) if m.lies.sheet is not None), None)
    return lying(last, found.recipe)[0] + last.carried_g if last else found.plan.dough.mass_g


def _laid_on(found: Walk) -> float:
    """What was strewn and spread on it, g."""
    return sum(f.grams for m in found.made if isinstance(f := m.figures, StrewFigures))


def _strip(found: Walk) -> tuple[Stop, ...]:
    stops = []
    for n, (step, made, timed) in enumerate(
        zip(found.plan.steps, found.made, found.clock, strict=True)
    ):
        kind, here = kind_of(step), found.here(n)
        butter, leaves = made.lies.leaves()
        stops.append(
            Stop(
                key=step.id,
                do=kind.do,
                n=n,
                chapter=kind.chapter,
                name=found.names[n],
                starts_min=timed.starts_min,
                bench_min=timed.bench_min,
                rest=timed.rest,
                gives=step.gives,
                lies=made.lies.size,
                butter_layers=butter,
                leaves=leaves,
                made=made.figures,
                does=tuple(kind.instruct(here)),
                words=step.words,
                caution=kind.caution,
                trays=kind.by_tray,
                oven=kind.loads,
                turn=kind.counts_as_turn,
                alarms=tuple(kind.alarms(here)),
            )
        )
    return _with_what_is_begun_ahead(found, stops)


def _with_what_is_begun_ahead(found: Walk, stops: list[Stop]) -> tuple[Stop, ...]:
    """What a step wants begun before it is called out in the last rest that is still on then.

    Counted from that rest's end, so that a longer one calls it later; at its beginning where it is short.
    """
    for n, step in enumerate(found.plan.steps):
        for ahead in kind_of(step).ahead(found.here(n)):
            rests = [s for s in stops[:n] if s.rest and s.rest.minutes > 0]
            at = stops[n].starts_min - ahead.minutes
            on = next((s for s in reversed(rests) if s.starts_min + s.bench_min <= at), None)
            on = on or (rests[0] if rests else None)
            if on is None or on.rest is None:
                continue
            over = on.starts_min + on.bench_min + on.rest.minutes
            # not at the very end, which is called anyway
            before = min(max(over - at, 0.01), on.rest.minutes)
            alarms = (*on.alarms, Alarm("done", -before, ahead.says))
            stops[on.n] = replace(on, alarms=alarms)
    return tuple(stops)


def _sheets(found: Walk) -> tuple[WeighSheet, ...]:
    """One sheet for everything that is weighed, in the order of the day; what is prepared for it first."""
    sheets = []
    for n, step in enumerate(found.plan.steps):
        for w in kind_of(step).weighs(found.here(n)):
            sheets.append(sheet_of(step.id, w.name, found.clock[n].starts_min, w.lines, w.contents))
    prepared = prepared_sheets(((s, 1) for s in sheets), found.recipe.shelf, found.recipe.kitchen)
    return (*prepared, *sorted(sheets, key=lambda s: s.minute))


def _formula(found: Walk) -> FormulaFigures | None:
    recipe, weighed = found.recipe, found.setting.weighed
    formula, both = recipe.formula, recipe.fed
    if formula is None or weighed is None or both is None:
        return None
    per_pct = (recipe.dough.mass_g - recipe.old_dough_g) / formula.total_pct
    butter_g = both[0].butter_share * recipe.dough.mass_g
    return FormulaFigures(
        flour_g=recipe.flour_g or 0.0,
        total_pct=formula.total_pct,
        parts=tuple(
            FormulaPart(
                what.key, what.name, what.kind, pct, pct * per_pct, measured(pct * per_pct, what)
            )
            for what, pct in formula.parts
        ),
        balance=balance(formula),
        feeding=Feeding(recipe.old_dough_g, butter_g, *both) if formula.old_dough else None,
        rounding=weighed.rounding,
    )


def _facts(found: Walk, layers: Layers) -> Facts:
    """What a baker compares two plans by; lengths in mm, leaves in µm, masses in g, times in min."""
    figures = [m.figures for m in found.made]
    rolled = [f.rolled for f in figures if isinstance(f, TurnFigures)]
    rolled += [f.size for f in figures if isinstance(f, LastSheetFigures)]
    cut = next((f for f in figures if isinstance(f, CutFigures)), None)
    steps = found.plan.steps
    turns = [s for s in steps if kind_of(s).counts_as_turn]
    ready = [
        t.ends_min
        for f, t in zip(figures, found.clock, strict=True)
        if isinstance(f, CutFigures | LastSheetFigures)
    ]
    return Facts(
        butter_layers=layers.butter,
        leaves=layers.total,
        butter_um=layers.butter_um,
        dough_um=layers.dough_um,
        full_pct=layers.full_pct,
        bent_pct=layers.bent_pct,
        waste_g=sum(
            m.saved.grams
            for s, m in zip(steps, found.made, strict=True)
            if m.saved and not getattr(getattr(s, "trim", None), "tucked", False)
        ),
        turns=len(turns),
        rests=sum(1 for s in turns if s.rests),
        bench_min=sum(t.bench_min for t in found.clock),
        total_min=found.clock[-1].ends_min,
        to_cut_min=max(ready),
        longest_mm=max(max(s.length_mm, s.width_mm) for s in rolled),
        pieces=cut.pieces if cut else None,
        piece_g=cut.piece_g if cut else None,
    )


def _notes(found: Walk) -> tuple[Note, ...]:
    """All advice, in the order of the steps; what needs a look first at each."""
    notes: list[Note] = []
    for n, step in enumerate(found.plan.steps):
        notes += sorted(kind_of(step).mind(found.here(n)), key=lambda note: TONES[note.tone])
    return tuple(notes)


def _workings(found: Walk) -> list[Working]:
    recipe = found.recipe
    butter, dough, shares = recipe.butter, recipe.dough, recipe.shares
    works = [
        Working(
            "butter_share.of_dough_pct",
            f"{g(butter.pure_g)} of butter on {g(dough.mass_g + butter.flour_g)} of dough: "
            f"{say(shares.of_dough_pct)} %.",
        ),
        Working(
            "butter_share.of_whole_pct",
            f"{g(butter.pure_g)} in {g(dough.mass_g + butter.mass_g)}: {say(shares.of_whole_pct)} %.",
        ),
        Working("dough.density_kg_m3", _density(found)),
        Working("total_min", _time(found)),
        *_of_formula(found),
    ]
    for n, step in enumerate(found.plan.steps):
        works += kind_of(step).workings(found.here(n))
        works.append(Working(f"strip[{n}].bench_min", _bench(found, n)))
    return works


def _bench(found: Walk, n: int) -> str:
    """Where the minutes of a step's work come from."""
    step, kitchen = found.plan.steps[n], found.recipe.kitchen
    minutes, row = span(found.clock[n].bench_min), kind_of(step).minutes
    if step.bench_min is not None:
        return f"{minutes}: set at this step."
    if isinstance(row, str):
        of = kitchen.row(row)
        return f"{minutes}: the kitchen's value \u201c{of.label}\u201d ({of.origin})."
    return f"{minutes}: the kitchen's values for such work, and how much of it there is here."


def _time(found: Walk) -> str:
    """How long it takes from the first work to the last, and what of that is hands."""
    whole, hands = found.clock[-1].ends_min, sum(t.bench_min for t in found.clock)
    steps = counted(len(found.clock), "step")
    return (
        f"{span(hands)} of work in {steps} and {span(whole - hands)} of rest between them: "
        f"{span(whole)}, until the last work is done."
    )


def _of_formula(found: Walk) -> list[Working]:
    recipe = found.recipe
    formula = recipe.formula
    if formula is None:
        return []
    whole = balance(formula)
    carried = [
        f"{what.name.lower()} {say(pct)} × {say(what.composition.water_pct)} %"
        for what, pct in formula.parts
        if what.kind != "flour" and pct * what.composition.water_pct > 1
    ]
    flour = (recipe.flour_g or 0.0) + recipe.butter.flour_g
    return [
        Working(
            "butter_share.of_flour_pct",
            f"{g(recipe.butter.pure_g)} of butter on {g(flour)} of flour, that of preferments, old dough "
            f"and block included: {say(recipe.shares.of_flour_pct or 0)} %.",
        ),
        Working(
            "formula.balance.nominal_hydration_pct",
            f"Water and milk on 100 of flour: {say(whole.nominal_hydration_pct)} %.",
        ),
        Working(
            "formula.balance.true_hydration_pct",
            f"The water in everything but the flour: {', '.join(carried) or 'none'}; together "
            f"{say(whole.true_hydration_pct)} % on flour.",
        ),
    ]


def _density(found: Walk) -> str:
    density = say(found.recipe.dough_physics.density_kg_m3)
    if found.plan.dough.density_kg_m3 is not None:
        return f"{density} kg/m³: your own figure."
    if found.plan.formula is None:
        return f"{density} kg/m³: a cold, degassed yeasted dough, from trade practice."
    return (
        f"{density} kg/m³ from the formula: its water, protein, fat, carbohydrate and ash by mass, "
        "and the kitchen's share of gas (published densities)."
    )
