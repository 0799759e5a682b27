"""An order: pieces wanted of several doughs, worked to doughs, blocks and weigh-out sheets.

It runs both ways: from pieces to flour, or from the flour at hand to pieces.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from itertools import count
from typing import Annotated

from lamination.day.batch import Batch, Made, TimedSheet, Wanted, fetched, filled, made_of
from lamination.day.capacity import Crowd, crowded
from lamination.day.day import Held, Prefer, Quiet, Shift, Weekday, without_zone
from lamination.day.from_store import FromStore, batch_of_block
from lamination.dough.block import said_of_plaques
from lamination.dough.mixing import Water
from lamination.dough.shopping import (
    Needed,
    declared_of,
    needed,
    prepared_sheets,
)
from lamination.dough.weighing import WeighSheet
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.amend import scaled
from lamination.plan.plan import Plan
from lamination.plan.walk import recipe_of
from lamination.plan.work import work
from lamination.plan.worked import WorkedPlan
from lamination.steps import Chapter
from lamination.steps.cut import Cut
from lamination.steps.mix import MixFigures
from lamination.terms.limits import Checked, Fault, Faults, Length, Range, raise_if
from lamination.terms.said import counted, g, named
from lamination.terms.sizes import Grams
from lamination.terms.trade import Worded

_DOUGH_STEP_G = 10.0
_MOST_DOUGHS = 500


class Sizing(Worded):
    """How doughs are sized: all of the plan's own size, or evened out to what is wanted."""

    EVEN = "even", "Evened out"
    WHOLE = "whole", "Whole doughs"


@dataclass(frozen=True)
class Ordered(Checked):
    """What is wanted of one plan. With ``flour_g`` it runs the other way: the flour decides.

    ``dough_g``: the size of one dough, otherwise the plan's. ``ready_at``: when, where that is not the
    hour of the whole order. ``id``: its own for as long as it lives, whatever its place in the order; given
    by whoever makes it, or by the order. ``block``: it is no dough to be mixed, but one of the cold store,
    which goes on where it stopped.
    """

    plan_id: int
    products: Annotated[tuple[Wanted, ...], Length(1, 20, "products")]
    dough_g: Grams | None = None
    flour_g: Annotated[float, Range(1, 1_000_000, "g")] | None = None
    sizing: Sizing = Sizing.EVEN
    ready_at: datetime | None = None
    id: Annotated[str, Length(0, 40, "characters")] = ""
    block: Annotated[str, Length(8, 64, "characters")] | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        raise_if(without_zone([("ready_at", self.ready_at)]))


def _with_ids(doughs: tuple[Ordered, ...]) -> tuple[Ordered, ...]:
    """The same, each with an id that no other has."""
    taken: set[str] = set()
    free = (f"line-{n}" for n in count(1))
    said = {d.id for d in doughs}
    found = []
    for dough in doughs:
        if not dough.id or dough.id in taken:
            dough = replace(dough, id=next(i for i in free if i not in said))
        taken.add(dough.id)
        found.append(dough)
    return tuple(found)


@dataclass(frozen=True)
class Order(Checked):
    """What is wanted for a day. ``ready_at``: when its last work is done; it carries a time zone.

    ``hands``: who is there; ``begins``: when the day may begin, where that is not left to the plans.
    ``held`` and ``quiet``: steps that were fixed, by the number of their dough, and hours without work.
    ``every``: the weekdays it stands for; it is copied for each of them, and is none of them itself.
    """

    name: Annotated[str, Length(1, 80, "characters")]
    doughs: Annotated[tuple[Ordered, ...], Length(1, 20, "doughs")]
    ready_at: datetime | None = None
    hands: Annotated[tuple[Shift, ...], Length(0, 60, "shifts")] = ()
    begins: datetime | None = None
    prefer: Prefer = Prefer.NEITHER
    held: Annotated[tuple[Held, ...], Length(0, 400, "fixed steps")] = ()
    quiet: Annotated[tuple[Quiet, ...], Length(0, 40, "quiet hours")] = ()
    every: tuple[Weekday, ...] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        raise_if(without_zone([("ready_at", self.ready_at), ("begins", self.begins)]))
        object.__setattr__(self, "doughs", _with_ids(self.doughs))


@dataclass(frozen=True, slots=True)
class WorkedOrder:
    """An order worked, dough by dough; ``crowds``: places that are asked to hold too much.

    ``shopping``: all that is weighed for it and put on its pieces, each ingredient once. ``prepared``: a
    sheet for each of the house's preparations that it uses, for all of it together.
    """

    name: str
    batches: tuple[Batch, ...]
    crowds: tuple[Crowd, ...] = ()
    shopping: tuple[Needed, ...] = ()
    prepared: tuple[WeighSheet, ...] = ()
    shopping_says: str = ""


def work_order(
    order: Order,
    plans: Mapping[int, Plan],
    kitchen: Kitchen,
    store: Mapping[str, FromStore] | None = None,
) -> WorkedOrder:
    """Work an order on the plans it names, and on the blocks of the cold store, by their ids.

    Raises :class:`Faults` with the order's paths: a plan that is not there, more doughs than a
    bakery makes, or a size of dough the plan's sheets cannot be rolled from.
    """
    batches = []
    for i, ordered in enumerate(order.doughs):
        path = f"doughs[{i}]"
        if ordered.block is not None:
            batches.append(
                batch_of_block(
                    ordered.plan_id,
                    ordered.products,
                    ordered.ready_at or order.ready_at,
                    (store or {}).get(ordered.block),
                    kitchen,
                    path,
                )
            )
            continue
        plan = plans.get(ordered.plan_id)
        if plan is None:
            raise Faults(Fault(f"{path}.plan_id", "There is no such plan. Choose another."))
        if ordered.flour_g is not None and plan.formula is None:
            text = "This plan has no formula, so flour says nothing about it. Order pieces instead."
            raise Faults(Fault(f"{path}.flour_g", text))
        try:
            batches.append(_batch(order, ordered, plan, kitchen, path))
        except Faults as wrong:
            if all(f.field.startswith(path) for f in wrong.faults):
                raise
            # a fault of the plan at this size: the size is what was chosen here
            reasons = " ".join(f.message for f in wrong.faults)
            text = f"The plan cannot be worked at this size of dough. {reasons}"
            raise Faults(Fault(f"{path}.dough_g", text)) from None
    crowds = crowded(
        (
            (b.doughs, one.strip, one.facts.to_cut_min)
            for b in batches
            if (one := work(b.plan, kitchen))
        ),
        kitchen,
    )
    sheets = [(timed.sheet, timed.times) for batch in batches for timed in batch.sheets]
    # what is prepared is prepared once, for all doughs
    prepared = prepared_sheets(sheets, kitchen.shelf, kitchen)
    shopping = needed([*sheets, *((sheet, 1) for sheet in prepared)], kitchen.shelf)
    says = declared_of(shopping, kitchen.shelf)
    return WorkedOrder(order.name, tuple(batches), crowds, shopping, prepared, says)


def largest_dough_g(plan: Plan, worked: WorkedPlan, kitchen: Kitchen) -> tuple[float, str]:
    """The largest dough of this plan that mixer and bench take, g, and which of them says so.

    A sheet rolled for a fold grows with the root of the mass, for its width grows as well; the last
    sheet has its width chosen and grows with the mass.
    """
    bench = kitchen["bench.length_mm"]
    folded = [(bench / s.rolled.length_mm) ** 2 for s in worked.steps]
    room = min([*folded, bench / worked.final.length_mm])
    limits = [
        (kitchen["mixer.most_g"], "the mixer"),
        (plan.dough.mass_g * max(1.0, room), "the bench"),
    ]
    return min(limits)


def _batch(order: Order, ordered: Ordered, plan: Plan, kitchen: Kitchen, path: str) -> Batch:
    worked = work(plan, kitchen)
    takes = [w.pieces * w.raw_g / (1 - w.loss_pct / 100) for w in ordered.products]
    size, limited = plan.dough.mass_g, "the plan"
    if ordered.dough_g is not None:
        size, limited = ordered.dough_g, "your choice"
    largest, by = largest_dough_g(plan, worked, kitchen)
    if size > largest + 1:
        size, limited = math.floor(largest / _DOUGH_STEP_G) * _DOUGH_STEP_G, by
    if ordered.flour_g is not None and plan.formula is not None:
        needed_g = _from_flour(plan, ordered.flour_g)
    else:
        # what a dough gives under the knife, whatever is laid on it or put away on the way
        gives = work(scaled(plan, round(size, 1)), kitchen)
        needed_g = sum(takes) * size / gives.comes_out_g
    if needed_g <= 0:
        raise Faults(
            Fault(f"{path}.products[0].pieces", "Nothing is wanted of this dough. Enter pieces.")
        )
    from_flour = ordered.flour_g is not None
    if from_flour and ordered.sizing is Sizing.WHOLE:
        # whole doughs of what there is: never one more than the flour makes
        doughs = math.floor(needed_g / size + 1e-6)
        if doughs < 1:
            text = f"The flour makes {g(needed_g)} of dough, and one is {g(size)}. Even the doughs out."
            raise Faults(Fault(f"{path}.flour_g", text))
    else:
        doughs = max(1, math.ceil(needed_g / size - 1e-6))
    if doughs > _MOST_DOUGHS:
        raise Faults(
            Fault(
                f"{path}.dough_g",
                f"That would be {doughs} doughs of {g(size)}. Make each one larger, or order less.",
            )
        )
    if ordered.sizing is Sizing.EVEN and from_flour:
        size = math.floor(10 * needed_g / doughs + 1e-6) / 10
    elif ordered.sizing is Sizing.EVEN:
        size = math.ceil(needed_g / doughs / _DOUGH_STEP_G - 1e-6) * _DOUGH_STEP_G
    one = scaled(plan, round(size, 1))
    sized = work(one, kitchen)
    if not from_flour and sum(takes) > doughs * sized.comes_out_g + 1:
        # what is trimmed off is no share of it: a smaller dough loses more
        if ordered.sizing is Sizing.WHOLE:
            doughs += 1
        else:
            size += _DOUGH_STEP_G * math.ceil(
                (sum(takes) / doughs / sized.comes_out_g - 1) * size / _DOUGH_STEP_G
            )
            one = scaled(plan, size)
            sized = work(one, kitchen)
    laminate_g = doughs * sized.comes_out_g
    made = made_of(ordered.products, takes, laminate_g, from_flour)
    mixings = max(1, math.ceil(doughs * one.dough.mass_g / kitchen["mixer.most_g"] - 1e-6))
    mixing_g = doughs * one.dough.mass_g / mixings
    ready_at = ordered.ready_at or order.ready_at
    starts_at = ready_at - timedelta(minutes=sized.total_min) if ready_at is not None else None
    sheets, water, said = _sheets(one, sized, doughs, mixings, mixing_g, made, starts_at, kitchen)
    surplus = laminate_g - sum(m.takes_g for m in made)
    return Batch(
        plan_id=ordered.plan_id,
        name=plan.name,
        plan=one,
        doughs=doughs,
        dough_g=one.dough.mass_g,
        butter_g=one.butter.mass_g,
        mixings=mixings,
        mixing_g=mixing_g,
        surplus_g=surplus,
        made=made,
        sheets=sheets,
        sums_to_g=round(sum(s.sheet.total_g * s.times for s in sheets if s.mixing), 1),
        block=sized.lock_in.block,
        slab=sized.slab,
        plaques=" ".join(
            said_of_plaques(sized.lock_in.plaques, sized.lock_in.block)
            if sized.lock_in.plaques
            else ()
        ),
        water=water,
        fetch=fetched(one, sheets, kitchen),
        limited_by=limited,
        said=_said(ordered, doughs, one, needed_g, surplus, made, said),
        notes=tuple(n for n in sized.notes if n.tone == "mind" and n.field != "dough.mass_g"),
        starts_at=starts_at,
    )


def _from_flour(plan: Plan, flour_g: float) -> float:
    formula = plan.formula
    assert formula is not None
    old = formula.old_dough.share_pct / 100 if formula.old_dough else 0.0
    per_dough = 100 * (1 - old) / formula.total_pct + plan.butter.flour_g / plan.dough.mass_g
    return flour_g / per_dough


def _sheets(
    one: Plan,
    sized: WorkedPlan,
    doughs: int,
    mixings: int,
    mixing_g: float,
    made: tuple[Made, ...],
    starts_at: datetime | None,
    kitchen: Kitchen,
) -> tuple[tuple[TimedSheet, ...], Water | None, tuple[str, ...]]:
    """The sheets of one mixing (all its doughs together) and of one block, each with its times.

    A mixing holds several doughs: they are weighed as one, and its sheets never depend on the folds.
    """
    bulk = work(scaled(one, mixing_g), kitchen) if one.formula else sized
    together = {s.key for s in sized.strip if s.chapter is Chapter.BEFORE}
    minutes = {s.key: s.starts_min for s in sized.strip}
    sheets = [(sheet, mixings, True) for sheet in bulk.sheets if sheet.stop in together]
    cut = one.first(Cut)
    if cut and (put := filled(cut, made, recipe_of(one, kitchen).shelf)):
        sheets.append((put, 1, False))
    # what is prepared is prepared for the whole order, and only the pieces that are wanted are filled
    later = minutes.keys() - together - {cut.id if cut else ""}
    sheets += [(sheet, doughs, False) for sheet in sized.sheets if sheet.stop in later]
    found = []
    for sheet, times, mixing in sheets:
        minute = minutes[sheet.stop]
        at = starts_at + timedelta(minutes=minute) if starts_at is not None else None
        found.append(TimedSheet(replace(sheet, minute=minute), times, at, mixing))
    water = next((m.water for m in bulk.made(MixFigures)), None)
    said = bulk.formula.rounding if bulk.formula else ()
    return tuple(sorted(found, key=lambda s: s.sheet.minute)), water, said


def _said(
    ordered: Ordered,
    doughs: int,
    one: Plan,
    needed_g: float,
    surplus_g: float,
    made: tuple[Made, ...],
    weighed: tuple[str, ...],
) -> tuple[str, ...]:
    many = f"{counted(doughs, 'dough')} of {g(one.dough.mass_g)}"
    more = doughs * one.dough.mass_g - needed_g
    found = [f"{g(needed_g)} of dough needed: {many}, {g(max(more, 0))} to spare."]
    if made and surplus_g > made[0].raw_g:
        extra = int(surplus_g * (1 - ordered.products[0].loss_pct / 100) / made[0].raw_g)
        if extra:
            found.append(f"That is enough for {extra} more {named(made[0].product)}.")
    return (*found, *weighed)
