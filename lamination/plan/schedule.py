"""The stops of a plan in order, and the running clock: when the work at each starts."""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import pairwise

from lamination.dough.recipe import preferment_name
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import StopKind
from lamination.pieces.finish import Finish, Wash
from lamination.plan.plan import Plan
from lamination.terms.rests import Rest


@dataclass(frozen=True, slots=True)
class Scheduled:
    """A stop: its work starts at ``starts_min`` from the first stop's, and a rest follows."""

    key: str
    kind: StopKind
    name: str
    rest: Rest | None
    bench_min: float
    starts_min: float = 0.0


def schedule(plan: Plan, kitchen: Kitchen, oven_loads: int = 1) -> list[Scheduled]:
    """Every stop of a plan, one after another, minutes from the start of the first.

    Preferments come first, the longest rest leading, so that each is ready when the dough is mixed.
    ``oven_loads``: how many loads the trays of one sheet are baked in, one after another.
    """
    stops = _preferments(plan, kitchen)
    formula = plan.formula
    if formula:
        mixing = formula.mixing
        stops.append(_stop("mix", StopKind.MIX, "Mix", mixing.rest, mixing.bench_min, kitchen))
    stops += [
        _stop("dough", StopKind.DOUGH, "Dough", plan.dough.rest, plan.dough.bench_min, kitchen),
        _stop(
            "lock_in",
            StopKind.LOCK_IN,
            "Lock-in",
            plan.lock_in.rest,
            plan.lock_in.bench_min,
            kitchen,
        ),
        *(
            _stop(f"turn-{i}", StopKind.TURN, f"Turn {i}", t.rest, t.bench_min, kitchen)
            for i, t in enumerate(plan.turns, 1)
        ),
        _stop(
            "final", StopKind.FINAL, "Last sheet", plan.final.rest, plan.final.bench_min, kitchen
        ),
    ]
    if plan.cut:
        stops.append(_stop("cut", StopKind.CUT, "Cut", None, plan.cut.bench_min, kitchen))
    if plan.cut and plan.finish:
        stops += _finish(plan.finish, kitchen, oven_loads)
    clock, timed = 0.0, []
    for stop in stops:
        timed.append(replace(stop, starts_min=clock))
        clock += stop.bench_min + (stop.rest.minutes if stop.rest else 0)
    return timed


def _stop(
    key: str, kind: StopKind, name: str, rest: Rest | None, own: float | None, kitchen: Kitchen
) -> Scheduled:
    return Scheduled(key, kind, name, rest, kitchen[f"minutes.{kind}"] if own is None else own)


def _finish(finish: Finish, kitchen: Kitchen, oven_loads: int) -> list[Scheduled]:
    shaped = _stop("shape", StopKind.SHAPE, "Shape", finish.rest, finish.shape_min, kitchen)
    stops = [shaped]
    if finish.wash is not Wash.NONE:
        stops.append(_stop("wash", StopKind.WASH, "Wash", None, finish.wash_min, kitchen))
    minutes = finish.bake.minutes * max(oven_loads, 1)
    stops.append(Scheduled("bake", StopKind.BAKE, "Bake", finish.cool, minutes))
    stops.append(_stop("look", StopKind.LOOK, "Look", None, None, kitchen))
    return stops


def _preferments(plan: Plan, kitchen: Kitchen) -> list[Scheduled]:
    if plan.formula is None:
        return []
    formula = plan.formula
    order = sorted(
        range(len(formula.preferments)), key=lambda j: -formula.preferments[j].rest.minutes
    )
    stops = [
        _stop(
            f"preferment-{j + 1}",
            StopKind.PREFERMENT,
            preferment_name(formula, j),
            formula.preferments[j].rest,
            formula.preferments[j].bench_min,
            kitchen,
        )
        for j in order
    ]
    # While the first ripens the next is made: only what lies between the two is waited for.
    for i, (stop, later) in enumerate(pairwise(stops)):
        if stop.rest and later.rest:
            between = stop.rest.minutes - later.rest.minutes - later.bench_min
            stops[i] = replace(stop, rest=Rest(stop.rest.place, max(between, 0)))
    return stops
