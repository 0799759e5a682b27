"""Working a plan: every size, count, thickness and minute that follows from it."""

from __future__ import annotations

from dataclasses import replace
from itertools import islice

from lamination.block import slab_for
from lamination.coverage import coverage_map, full_shares
from lamination.cutting import layout
from lamination.doing import doing
from lamination.kitchen import Kitchen
from lamination.laminate import (
    Material,
    Sheet,
    Stack,
    fold_panels,
    fold_sheet,
    leaf,
    place,
    roll,
    trim,
    turn,
    walk,
)
from lamination.limits import Fault, Faults, say
from lamination.lockin import LockedIn, Method, Size, lock_in
from lamination.notes import notes_on
from lamination.plan import Plan, Turn
from lamination.practice import CAUTIONS, StopKind
from lamination.recipe import (
    butter_physics,
    dough_physics,
    weigh_sheets,
    work_butter,
    work_formula,
)
from lamination.schedule import Scheduled, schedule
from lamination.weighing import weigh
from lamination.worked import (
    Layers,
    Section,
    Shares,
    Stop,
    WorkedCut,
    WorkedFinal,
    WorkedLockIn,
    WorkedPlan,
    WorkedTurn,
)
from lamination.workings import workings_of

WHOLE_SECTION = 120  # leaves; a stack of more is drawn through a window of its middle
_HAIR_MM = 1e-6  # what sums of areas may be off by
LOUPE = 12  # leaves in that window


def work(plan: Plan, kitchen: Kitchen | None = None) -> WorkedPlan:
    """Work a plan in a kitchen (the plain table of practice when none is given).

    Returns every size in mm, leaves in µm, masses in g and times in min. Raises
    :class:`~lamination.limits.Faults` when a roll is not thinner than what it starts from, or the
    lock-in cannot take the block; paths are those of the plan.
    """
    kitchen = kitchen or Kitchen()
    dough, butter = dough_physics(plan, kitchen), butter_physics(plan, kitchen)
    locked = _lock_in(plan, dough.density_kg_m3, butter.density_kg_m3)
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
    stops = schedule(plan, kitchen)
    clock = {stop.key: stop.starts_min for stop in stops}
    weighed = weigh(plan.formula, plan.dough.mass_g, kitchen) if plan.formula else None
    formula = work_formula(plan, kitchen, weighed) if weighed else None
    sheet = turn(locked.sheet)
    densities = dough.density_kg_m3 / 1e6, butter.density_kg_m3 / 1e6
    steps = []
    for i, chosen in enumerate(plan.turns):
        path = f"turns[{i}]"
        rolled, turned = _rolled(sheet, chosen.roll_to_mm, chosen.width_mm, path)
        if i == 1 and plan.lock_in.method is Method.TWO_GO:
            rolled = _second_go(rolled, locked)
        ready, trimmed_g = _trimmed(rolled, chosen, densities, path)
        sheet = _folded(ready, chosen, path)
        naive *= chosen.fold.multiplies
        at = clock[f"turn-{i + 1}"]
        layers = _layers(sheet, naive, estimate)
        step = _worked_turn(i, chosen, (rolled, ready, sheet), layers, at, trimmed_g, turned)
        steps.append(step)
        sheet = turn(sheet)
    last, turned = _last_roll(plan, sheet)
    final = WorkedFinal(
        last.length_mm,
        last.width_mm,
        last.thickness_mm,
        turned,
        _section(last),
        last.volume_mm3(lambda s: s.dough_mm) * densities[0]
        + last.volume_mm3(lambda s: s.butter_mm) * densities[1],
        coverage_map(last),
    )
    layers = _layers(last, naive, estimate)
    cut = _cut(plan, last, final)
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
        strip=(),
        total_min=stops[-1].starts_min + stops[-1].bench_min,
        notes=(),
        workings=(),
    )
    return replace(
        bare,
        strip=_strip(plan, bare, stops),
        notes=notes_on(plan, kitchen, bare),
        workings=workings_of(plan, bare),
    )


def _mm3(mass_g: float, density_kg_m3: float) -> float:
    return mass_g / density_kg_m3 * 1e6


def _lock_in(plan: Plan, dough_kg_m3: float, butter_kg_m3: float) -> LockedIn:
    chosen = plan.lock_in
    try:
        return lock_in(
            chosen.method,
            _mm3(plan.dough.mass_g, dough_kg_m3),
            _mm3(plan.butter.mass_g, butter_kg_m3),
            chosen.block_width_mm,
            chosen.block_length_mm,
            chosen.margin_mm,
            chosen.overlap_mm,
            chosen.off_centre_mm,
            chosen.lump_mm,
        )
    except Faults as wrong:
        raise Faults(*(f.under("lock_in") for f in wrong.faults)) from None


def _rolled(sheet: Sheet, to_mm: float, width_mm: float | None, path: str) -> tuple[Sheet, bool]:
    """Roll to a thickness, to a chosen width first; whether the package lay turned.

    As for a fold, the package lies turned, so that it is rolled towards its open ends. A pin
    cannot make a sheet narrower, though: where the wanted width is less than the side that then
    lies across, the package is laid the other way if that fits.
    """
    _must_thin(sheet, to_mm, f"{path}.roll_to_mm")
    stretch = sheet.thickness_mm / to_mm
    if width_mm is None:
        return roll(sheet, stretch), True
    turned = not sheet.length_mm <= width_mm < sheet.width_mm
    laid = sheet if turned else turn(sheet)
    across = width_mm / laid.width_mm
    return roll(laid, stretch / across, across), turned


def _second_go(rolled: Sheet, locked: LockedIn) -> Sheet:
    """The rest of the butter laid all over the rolled sheet."""
    volume = locked.block.volume_mm3 / 2
    area = rolled.length_mm * rolled.width_mm
    butter = leaf(Material.BUTTER, volume / area / rolled.press)
    return place(rolled, butter, rolled.xs[0], rolled.ys[0], rolled.length_mm, rolled.width_mm)


def _trimmed(
    rolled: Sheet, chosen: Turn, densities: tuple[float, float], path: str
) -> tuple[Sheet, float]:
    """The rolled sheet squared off, and the grams that were saved."""
    if chosen.trim is None:
        return rolled, 0.0
    wanted = chosen.trim
    for name, cut, side in (
        ("ends_mm", wanted.ends_mm, rolled.length_mm),
        ("sides_mm", wanted.sides_mm, rolled.width_mm),
    ):
        if 2 * cut >= side:
            text = f"The sheet is {say(side)} mm there: less than {say(side / 2)} mm can come off."
            raise Faults(Fault(f"{path}.trim.{name}", text))
    done = trim(rolled, wanted.ends_mm, wanted.sides_mm, wanted.tucked)
    return done.sheet, done.dough_mm3 * densities[0] + done.butter_mm3 * densities[1]


def _folded(ready: Sheet, chosen: Turn, path: str) -> Sheet:
    panel = ready.length_mm / chosen.fold.multiplies
    if chosen.short_mm and chosen.short_mm >= panel / 2:
        text = f"A flap is {say(panel)} mm long: short by less than {say(panel / 2)} mm it still folds."
        raise Faults(Fault(f"{path}.short_mm", text))
    return fold_sheet(ready, chosen.fold, chosen.stacked, chosen.seam_pct / 100, chosen.short_mm)


def _must_thin(sheet: Sheet, to_mm: float, path: str) -> None:
    now = sheet.thickness_mm
    if to_mm >= now - _HAIR_MM:
        raise Faults(
            Fault(
                path,
                f"{say(to_mm)} mm is not thinner than the package, which is {say(now)} mm thick. "
                f"Roll to less than {say(now)} mm.",
            )
        )


def _last_roll(plan: Plan, sheet: Sheet) -> tuple[Sheet, bool]:
    return _rolled(sheet, plan.final.roll_to_mm, plan.final.width_mm, "final")


def _size(sheet: Sheet) -> Size:
    return Size(sheet.length_mm, sheet.width_mm, sheet.thickness_mm)


def _worked_turn(
    i: int,
    chosen: Turn,
    sheets: tuple[Sheet, Sheet, Sheet],
    layers: Layers,
    starts_min: float,
    trimmed_g: float,
    turned: bool,
) -> WorkedTurn:
    """``sheets``: rolled, trimmed and folded."""
    rolled, ready, folded = sheets
    inset = (rolled.length_mm - ready.length_mm) / 2
    panels = fold_panels(chosen.fold, chosen.seam_pct / 100)
    return WorkedTurn(
        name=f"Turn {i + 1}",
        fold=chosen.fold,
        rolled=_size(rolled),
        folded=_size(folded),
        creases_mm=tuple(inset + share * ready.length_mm for share in panels),
        butter_layers=layers.butter,
        dough_layers=layers.dough,
        layers=layers,
        section=_section(folded),
        rest=chosen.rest,
        starts_min=starts_min,
        trimmed_g=trimmed_g,
        turned=turned,
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


def _cut(plan: Plan, sheet: Sheet, final: WorkedFinal) -> WorkedCut | None:
    if plan.cut is None:
        return None
    size = final.size
    laid = layout(size, plan.cut.shape, plan.cut.base_mm, plan.cut.height_mm, plan.cut.kerf_mm)
    piece_g = final.mass_g * laid.piece_mm2 / (size.length_mm * size.width_mm)
    used_g = laid.pieces * piece_g
    return WorkedCut(
        laid.pieces,
        piece_g,
        laid.strips,
        laid.per_strip,
        100 * used_g / final.mass_g,
        final.mass_g - used_g,
        laid.outlines,
        full_shares(sheet, laid.outlines),
    )


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
