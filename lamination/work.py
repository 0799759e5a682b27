"""Working a plan: every size, count, thickness and minute that follows from it."""

from __future__ import annotations

from itertools import islice

from lamination.cutting import layout
from lamination.doing import doing
from lamination.kitchen import Kitchen
from lamination.laminate import (
    Material,
    Sheet,
    Stack,
    fold_panels,
    fold_sheet,
    roll,
    turn,
    walk,
)
from lamination.limits import Fault, Faults, say
from lamination.lockin import LockedIn, Size, lock_in
from lamination.notes import notes_on
from lamination.plan import Plan, Rest, Turn
from lamination.practice import CAUTIONS, StopKind
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
LOUPE = 12  # leaves in that window


def work(plan: Plan, kitchen: Kitchen | None = None) -> WorkedPlan:
    """Work a plan in a kitchen (the plain table of practice when none is given).

    Returns every size in mm, leaves in µm, masses in g and times in min. Raises
    :class:`~lamination.limits.Faults` when a roll is not thinner than what it starts from, or the
    lock-in cannot take the block; paths are those of the plan.
    """
    kitchen = kitchen or Kitchen()
    locked = _lock_in(plan)
    naive = locked.sheet.fullest().leaves
    first = WorkedLockIn(
        locked.block,
        locked.dough_sheet,
        locked.package,
        locked.creases_mm,
        locked.block.thickness_mm / locked.dough_sheet.thickness_mm,
        _layers(locked.sheet, naive),
        _section(locked.sheet),
    )
    starts = _starts(plan, kitchen)
    sheet = turn(locked.sheet)
    steps = []
    for i, chosen in enumerate(plan.turns):
        rolled = _rolled(sheet, chosen.roll_to_mm, f"turns[{i}].roll_to_mm")
        sheet = fold_sheet(rolled, chosen.fold)
        naive *= chosen.fold.multiplies
        steps.append(_worked_turn(i, chosen, rolled, sheet, naive, starts[i + 2]))
        sheet = turn(sheet)
    last, turned = _last_roll(plan, sheet)
    final = WorkedFinal(last.length_mm, last.width_mm, last.thickness_mm, turned, _section(last))
    layers = _layers(last, naive)
    cut = _cut(plan, final.size)
    strip = _strip(plan, kitchen, first, steps, final, cut, starts)
    shares = Shares(
        100 * plan.butter.mass_g / plan.dough.mass_g,
        100 * plan.butter.mass_g / (plan.butter.mass_g + plan.dough.mass_g),
    )
    notes = notes_on(plan, kitchen, first, steps, final, layers, cut)
    return WorkedPlan(
        name=plan.name,
        total_g=plan.dough.mass_g + plan.butter.mass_g,
        butter_share=shares,
        lock_in=first,
        steps=tuple(steps),
        layers=layers,
        final=final,
        cut=cut,
        strip=strip,
        total_min=strip[-1].starts_min + strip[-1].bench_min,
        notes=notes,
        workings=workings_of(plan, first, steps, final, layers, cut),
    )


def _mm3(mass_g: float, density_kg_m3: float) -> float:
    return mass_g / density_kg_m3 * 1e6


def _lock_in(plan: Plan) -> LockedIn:
    chosen = plan.lock_in
    try:
        return lock_in(
            chosen.method,
            _mm3(plan.dough.mass_g, plan.dough.density_kg_m3),
            _mm3(plan.butter.mass_g, plan.butter.density_kg_m3),
            chosen.block_width_mm,
            chosen.block_length_mm,
            chosen.margin_mm,
            chosen.overlap_mm,
        )
    except Faults as wrong:
        raise Faults(*(f.under("lock_in") for f in wrong.faults)) from None


def _rolled(sheet: Sheet, to_mm: float, path: str) -> Sheet:
    _must_thin(sheet, to_mm, path)
    return roll(sheet, sheet.thickness_mm / to_mm)


def _must_thin(sheet: Sheet, to_mm: float, path: str) -> None:
    now = sheet.thickness_mm
    if to_mm >= now:
        raise Faults(
            Fault(
                path,
                f"{say(to_mm)} mm is not thinner than the package, which is {say(now)} mm thick. "
                f"Roll to less than {say(now)} mm.",
            )
        )


def _last_roll(plan: Plan, sheet: Sheet) -> tuple[Sheet, bool]:
    """Roll the last sheet, to a chosen width first and then to length.

    As for a fold, the package lies turned, so that it is rolled towards its open ends. A pin
    cannot make a sheet narrower, though: where the wanted width is less than the side that then
    lies across, the package is laid the other way if that fits.
    """
    to_mm, width = plan.final.roll_to_mm, plan.final.width_mm
    _must_thin(sheet, to_mm, "final.roll_to_mm")
    stretch = sheet.thickness_mm / to_mm
    if width is None:
        return roll(sheet, stretch), True
    turned = not sheet.length_mm <= width < sheet.width_mm
    laid = sheet if turned else turn(sheet)
    across = width / laid.width_mm
    return roll(laid, stretch / across, across), turned


def _size(sheet: Sheet) -> Size:
    return Size(sheet.length_mm, sheet.width_mm, sheet.thickness_mm)


def _worked_turn(
    i: int, chosen: Turn, rolled: Sheet, folded: Sheet, naive: int, starts_min: float
) -> WorkedTurn:
    layers = _layers(folded, naive)
    return WorkedTurn(
        name=f"Turn {i + 1}",
        fold=chosen.fold,
        rolled=_size(rolled),
        folded=_size(folded),
        creases_mm=tuple(share * rolled.length_mm for share in fold_panels(chosen.fold)),
        butter_layers=layers.butter,
        dough_layers=layers.dough,
        layers=layers,
        section=_section(folded),
        rest=chosen.rest,
        starts_min=starts_min,
    )


def _layers(sheet: Sheet, naive: int) -> Layers:
    full: Stack = sheet.fullest()
    um = 1_000 * sheet.press
    return Layers(
        butter=full.butter_leaves,
        dough=full.dough_leaves,
        total=full.leaves,
        naive=naive,
        butter_um=full.butter_mm / full.butter_leaves * um,
        dough_um=full.dough_mm / full.dough_leaves * um,
        thinnest_butter_um=full.extent(Material.BUTTER).low * um,
        thinnest_dough_um=full.extent(Material.DOUGH).low * um,
        full_pct=100 * sheet.coverage()[full.butter_leaves],
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


def _cut(plan: Plan, size: Size) -> WorkedCut | None:
    if plan.cut is None:
        return None
    laid = layout(size, plan.cut.shape, plan.cut.base_mm, plan.cut.height_mm, plan.cut.kerf_mm)
    whole_g = plan.dough.mass_g + plan.butter.mass_g
    piece_g = whole_g * laid.piece_mm2 / (size.length_mm * size.width_mm)
    used_g = laid.pieces * piece_g
    return WorkedCut(
        laid.pieces,
        piece_g,
        laid.strips,
        laid.per_strip,
        100 * used_g / whole_g,
        whole_g - used_g,
        laid.outlines,
    )


def _works(plan: Plan) -> list[tuple[str, StopKind, str, Rest | None, float | None]]:
    """The stops of a plan: key, kind, name, rest after, and the baker's own bench minutes."""
    stops = [
        ("dough", StopKind.DOUGH, "Dough", plan.dough.rest, plan.dough.bench_min),
        ("lock_in", StopKind.LOCK_IN, "Lock-in", plan.lock_in.rest, plan.lock_in.bench_min),
        *(
            (f"turn-{i}", StopKind.TURN, f"Turn {i}", t.rest, t.bench_min)
            for i, t in enumerate(plan.turns, 1)
        ),
        ("final", StopKind.FINAL, "Last sheet", plan.final.rest, plan.final.bench_min),
    ]
    if plan.cut:
        stops.append(("cut", StopKind.CUT, "Cut", None, plan.cut.bench_min))
    return stops


def _bench_min(kind: StopKind, own: float | None, kitchen: Kitchen) -> float:
    return kitchen[f"minutes.{kind}"] if own is None else own


def _starts(plan: Plan, kitchen: Kitchen) -> list[float]:
    """The running clock: when each stop's work starts, minutes from the first."""
    clock, starts = 0.0, []
    for _, kind, _, rest, own in _works(plan):
        starts.append(clock)
        clock += _bench_min(kind, own, kitchen) + (rest.minutes if rest else 0)
    return starts


def _strip(
    plan: Plan,
    kitchen: Kitchen,
    first: WorkedLockIn,
    steps: list[WorkedTurn],
    final: WorkedFinal,
    cut: WorkedCut | None,
    starts: list[float],
) -> tuple[Stop, ...]:
    lies = [None, first.package, *(s.folded for s in steps), final.size, final.size]
    counts = [(0, 1), *((c.butter, c.total) for c in (first.layers, *(s.layers for s in steps)))]
    counts += [counts[-1]] * 2  # the last roll and the cut change no count
    does = doing(plan, first, steps, final, cut)
    return tuple(
        Stop(
            key=key,
            kind=kind,
            name=name,
            starts_min=at,
            bench_min=_bench_min(kind, own, kitchen),
            rest=rest,
            lies=size,
            butter_layers=butter,
            leaves=leaves,
            does=does[key],
            caution=CAUTIONS[kind],
        )
        for (key, kind, name, rest, own), at, size, (butter, leaves) in zip(
            _works(plan), starts, lies, counts, strict=False
        )
    )
