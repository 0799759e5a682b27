"""Working a plan: every size, count, thickness and minute that follows from it."""

from __future__ import annotations

from dataclasses import replace
from itertools import islice

from lamination.dough.block import slab_for
from lamination.dough.recipe import (
    butter_physics,
    dough_physics,
    weigh_sheets,
    work_butter,
    work_formula,
)
from lamination.dough.weighing import weigh
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import CAUTIONS, StopKind
from lamination.pieces.cutwork import work_cut, work_finish
from lamination.plan.compare import facts_of
from lamination.plan.doing import doing
from lamination.plan.laid import Laid, LaidTurn, lay
from lamination.plan.notes import notes_on
from lamination.plan.plan import Plan, Turn
from lamination.plan.schedule import Scheduled, schedule
from lamination.plan.worked import (
    Facts,
    Layers,
    Scrap,
    Section,
    Shares,
    Stop,
    WorkedCut,
    WorkedFinal,
    WorkedLockIn,
    WorkedPlan,
    WorkedTurn,
)
from lamination.plan.workings import workings_of
from lamination.sheet.cells import Sheet, turn
from lamination.sheet.coverage import coverage_map
from lamination.sheet.folds import Move, moves
from lamination.sheet.lockin import Method, Size
from lamination.sheet.passes import Rolling, Sheeter, rolling, sheeter_of
from lamination.sheet.stacks import Material, Stack, walk

WHOLE_SECTION = 120  # leaves; a stack of more is drawn through a window of its middle
_UNKNOWN = Facts(0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, None, None)  # until all else is worked
LOUPE = 12  # leaves in that window


def work(plan: Plan, kitchen: Kitchen | None = None) -> WorkedPlan:
    """Work a plan in a kitchen (the plain table of practice when none is given).

    Returns every size in mm, leaves in µm, masses in g and times in min. Raises
    :class:`~lamination.terms.limits.Faults` when a roll is not thinner than what it starts from, or the
    lock-in cannot take the block; paths are those of the plan.
    """
    kitchen = kitchen or Kitchen()
    dough, butter = dough_physics(plan, kitchen), butter_physics(plan, kitchen)
    laid = lay(plan, dough.density_kg_m3, butter.density_kg_m3)
    locked, last = laid.locked, laid.last
    naive = locked.sheet.fullest().leaves
    estimate = plan.lock_in.method is Method.LUMPS
    first = WorkedLockIn(
        locked.block,
        locked.dough_sheet,
        locked.package,
        locked.creases_mm,
        locked.block.thickness_mm / locked.dough_sheet.thickness_mm,
        _layers(locked.sheet, naive, estimate),
        _section(locked.sheet),
    )
    clock = {stop.key: stop.starts_min for stop in schedule(plan, kitchen)}
    weighed = weigh(plan.formula, plan.dough.mass_g, kitchen) if plan.formula else None
    formula = work_formula(plan, kitchen, weighed) if weighed else None
    per_mm3 = dough.density_kg_m3 / 1e6, butter.density_kg_m3 / 1e6
    machine = sheeter_of(kitchen)
    steps = []
    for i, (chosen, done) in enumerate(zip(plan.turns, laid.turns, strict=True)):
        naive *= chosen.fold.multiplies
        layers = _layers(done.folded, naive, estimate)
        at = clock[f"turn-{i + 1}"]
        trimmed_g = done.trimmed_dough_mm3 * per_mm3[0] + done.trimmed_butter_mm3 * per_mm3[1]
        how = _rolling(done.starts, done.rolled, done.turned, machine)
        steps.append(_worked_turn(i, chosen, done, layers, at, trimmed_g, how))
    thinnest, thickest = last.extent_mm()
    final = WorkedFinal(
        last.length_mm,
        last.width_mm,
        last.thickness_mm,
        laid.last_turned,
        _section(last),
        last.volume_mm3(lambda s: s.dough_mm) * per_mm3[0]
        + last.volume_mm3(lambda s: s.butter_mm) * per_mm3[1],
        coverage_map(last),
        thinnest,
        thickest,
        _rolling(laid.starts_last, last, laid.last_turned, machine),
    )
    layers = _layers(last, naive, estimate)
    cut = work_cut(plan, last, final, per_mm3)
    finish = work_finish(plan, kitchen, cut, final.thickness_mm)
    stops = schedule(plan, kitchen, finish.loads if finish else 1)
    made_butter = work_butter(plan, kitchen, butter, locked.block)
    slab = slab_for(
        locked.dough_sheet,
        _mm3(plan.dough.mass_g, dough.density_kg_m3),
        kitchen["tray.length_mm"],
        kitchen["tray.width_mm"],
    )
    shares = Shares(
        100 * plan.butter.mass_g / formula.flour_g if formula else None,
        100 * plan.butter.mass_g / plan.dough.mass_g,
        100 * plan.butter.mass_g / (plan.butter.mass_g + plan.dough.mass_g),
    )
    bare = WorkedPlan(
        name=plan.name,
        total_g=plan.dough.mass_g + plan.butter.mass_g,
        butter_share=shares,
        formula=formula,
        sheets=weigh_sheets(plan, weighed, clock),
        dough=dough,
        slab=slab,
        butter=made_butter,
        lock_in=first,
        steps=tuple(steps),
        layers=layers,
        final=final,
        cut=cut,
        finish=finish,
        scrap=_scrap(laid, cut, per_mm3),
        strip=(),
        total_min=stops[-1].starts_min + stops[-1].bench_min,
        notes=(),
        workings=(),
        facts=_UNKNOWN,
    )
    bare = replace(bare, strip=_strip(plan, bare, stops))
    return replace(
        bare,
        facts=facts_of(plan, bare),
        notes=notes_on(plan, kitchen, bare),
        workings=workings_of(plan, bare),
    )


def _mm3(mass_g: float, density_kg_m3: float) -> float:
    return mass_g / density_kg_m3 * 1e6


def _size(sheet: Sheet) -> Size:
    return Size(sheet.length_mm, sheet.width_mm, sheet.thickness_mm)


def _rolling(package: Sheet, sheet: Sheet, turned: bool, machine: Sheeter | None) -> Rolling:
    lies = package if turned else turn(package)
    return rolling(_size(lies), _size(sheet), machine)


def _worked_turn(
    i: int,
    chosen: Turn,
    done: LaidTurn,
    layers: Layers,
    starts_min: float,
    trimmed_g: float,
    how: Rolling,
) -> WorkedTurn:
    length = done.ready.length_mm
    inset = (done.rolled.length_mm - length) / 2
    made = moves(chosen.fold, length, chosen.seam_pct / 100, chosen.short_mm)
    panels = (
        [length * n / chosen.fold.multiplies for n in range(1, chosen.fold.multiplies)]
        if chosen.stacked
        else sorted(m.at_mm for m in made)
    )
    return WorkedTurn(
        name=f"Turn {i + 1}",
        fold=chosen.fold,
        rolled=_size(done.rolled),
        folded=_size(done.folded),
        creases_mm=tuple(inset + at for at in panels),
        butter_layers=layers.butter,
        dough_layers=layers.dough,
        layers=layers,
        section=_section(done.folded),
        rest=chosen.rest,
        starts_min=starts_min,
        trimmed_g=trimmed_g,
        turned=done.turned,
        moves=tuple(Move(inset + m.at_mm, m.flap) for m in made),
        rolling=how,
    )


def _layers(sheet: Sheet, naive: int, estimate: bool) -> Layers:
    full: Stack = sheet.fullest()
    um = 1_000 * sheet.press
    shares = sheet.coverage()
    return Layers(
        butter=full.butter_leaves,
        dough=full.dough_leaves,
        total=full.leaves,
        naive=naive,
        butter_um=full.butter_mm / max(full.butter_leaves, 1) * um,
        dough_um=full.dough_mm / max(full.dough_leaves, 1) * um,
        thinnest_butter_um=full.extent(Material.BUTTER).low * um,
        thinnest_dough_um=full.extent(Material.DOUGH).low * um,
        full_pct=100 * shares[full.butter_leaves],
        bare_pct=100 * shares.get(0, 0.0),
        bent_pct=100 * sheet.bent_share(),
        estimate=estimate,
    )


def _section(sheet: Sheet) -> Section:
    full = sheet.fullest()
    whole = full.leaves <= WHOLE_SECTION
    if whole:
        leaves = list(walk(full))
    else:
        # A little more than the window, and without its first leaf, which the window may cut.
        reach = 2 * LOUPE * full.thickness / full.leaves
        middle = full.thickness / 2
        leaves = list(islice(walk(full, middle - reach / 2, middle + reach), 1, 1 + LOUPE))
    um = 1_000 * sheet.press
    return Section(leaves[0].material, tuple(round(n.thickness * um, 3) for n in leaves), whole)


def _scrap(laid: Laid, cut: WorkedCut | None, per_mm3: tuple[float, float]) -> tuple[Scrap, ...]:
    """The trims of every turn that are saved, and what the cut leaves."""
    found = []
    for i, done in enumerate(laid.turns, 1):
        butter_g = done.trimmed_butter_mm3 * per_mm3[1]
        found.append(Scrap(f"turn-{i}", done.trimmed_dough_mm3 * per_mm3[0] + butter_g, butter_g))
    if cut:
        found.append(Scrap("cut", cut.trimmings_g, cut.trimmings_butter_g))
    return tuple(s for s in found if s.grams > 0.05)


def _strip(plan: Plan, worked: WorkedPlan, stops: list[Scheduled]) -> tuple[Stop, ...]:
    """The stops with what lies there when each is done, its count and its sentences."""
    does = doing(plan, worked)
    size: Size | None = None
    butter, leaves = 0, 1
    turns = iter(worked.steps)
    found = []
    for stop in stops:
        if stop.kind is StopKind.DOUGH:
            size = worked.slab
        elif stop.kind is StopKind.LOCK_IN:
            size = worked.lock_in.package
            butter, leaves = worked.lock_in.layers.butter, worked.lock_in.layers.total
        elif stop.kind is StopKind.TURN:
            step = next(turns)
            size, butter, leaves = step.folded, step.layers.butter, step.layers.total
        elif stop.kind is StopKind.FINAL:
            size = worked.final.size
        found.append(
            Stop(
                key=stop.key,
                kind=stop.kind,
                name=stop.name,
                starts_min=stop.starts_min,
                bench_min=stop.bench_min,
                rest=stop.rest,
                lies=size,
                butter_layers=butter,
                leaves=leaves,
                does=does[stop.key],
                caution=CAUTIONS[stop.kind],
            )
        )
    return tuple(found)
