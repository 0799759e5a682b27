"""A block of the cold store as a line of an order: it goes on where it stopped, and nothing is mixed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from lamination.day.batch import Batch, TimedSheet, Wanted, fetched, filled, made_of
from lamination.kitchen.kitchen import Kitchen
from lamination.plan.plan import Plan
from lamination.plan.walk import recipe_of
from lamination.plan.work import work
from lamination.steps.cut import Cut
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import day_and_hour, g


@dataclass(frozen=True, slots=True)
class FromStore:
    """A block as a day makes use of it: what stands on its tag, its plan, and the step it goes on at.

    ``best_before``: until when it is good; ``gone``: why it cannot be had.
    """

    mark: str
    plan: Plan
    step: str
    best_before: datetime | None = None
    gone: str | None = None

    def saves_min(self, kitchen: Kitchen) -> float:
        """Minutes of work that were done before it was put away."""
        strip = work(self.plan, kitchen).strip
        n = self.plan.at(self.step)
        return sum(stop.bench_min for stop in strip[:n])


def batch_of_block(
    plan_id: int,
    wanted: Sequence[Wanted],
    ready_at: datetime | None,
    block: FromStore | None,
    kitchen: Kitchen,
    path: str,
) -> Batch:
    """What comes of a block: nothing is mixed, and its sheets are those of the steps that are to come.

    Raises Faults below ``path`` where the block is not there, or gives less than is wanted.
    """
    if block is None or block.gone:
        nobody = "This block is not in the cold store, or nobody knows its plan."
        text = block.gone if block and block.gone else nobody
        raise Faults(Fault(f"{path}.block", text))
    plan, sized = block.plan, work(block.plan, kitchen)
    takes = [w.pieces * w.raw_g / (1 - w.loss_pct / 100) for w in wanted]
    if sum(takes) > sized.comes_out_g + 1:
        first = wanted[0]
        most = int(sized.comes_out_g * (1 - first.loss_pct / 100) / first.raw_g)
        text = (
            f"{block.mark} gives {g(sized.comes_out_g)}, which is {most} of the first. Order fewer."
        )
        raise Faults(Fault(f"{path}.products[0].pieces", text))
    n = plan.at(block.step)
    begins = sized.strip[n].starts_min
    starts_at = (
        ready_at - timedelta(minutes=sized.total_min - begins) if ready_at is not None else None
    )
    made = made_of(wanted, takes, sized.comes_out_g, from_flour=False)
    later = {stop.key: stop.starts_min - begins for stop in sized.strip[n:]}
    cut = plan.first(Cut)
    sheets = [s for s in sized.sheets if s.stop in later and (cut is None or s.stop != cut.id)]
    if cut and (put := filled(cut, made, recipe_of(plan, kitchen).shelf)):
        sheets.append(put)
    timed = tuple(
        TimedSheet(
            replace(sheet, minute=later[sheet.stop]), 1,
            starts_at + timedelta(minutes=later[sheet.stop]) if starts_at else None, False,
        )
        for sheet in sheets
    )  # fmt: skip
    return Batch(
        plan_id=plan_id,
        name=f"{plan.name} from {block.mark}",
        plan=plan,
        doughs=1,
        dough_g=plan.dough.mass_g,
        butter_g=0.0,
        mixings=0,
        mixing_g=0.0,
        surplus_g=sized.comes_out_g - sum(takes),
        made=made,
        sheets=timed,
        sums_to_g=0.0,
        block=sized.lock_in.block,
        slab=None,
        plaques="",
        water=None,
        fetch=fetched(plan, timed, kitchen),
        limited_by="the block",
        said=tuple(_said_of_block(block, sized.comes_out_g, starts_at)),
        notes=(),
        starts_at=starts_at,
        goes_on=block.step,
        saves_min=block.saves_min(kitchen),
    )


def _said_of_block(block: FromStore, gives_g: float, at: datetime | None) -> Iterator[str]:
    yield f"{block.mark} gives {g(gives_g)}, and nothing is mixed for it."
    if at and block.best_before and block.best_before < at:
        yield (
            f"{block.mark} is to be used by {day_and_hour(block.best_before)}, which is before this day "
            "begins with it. Your own date comes first."
        )
