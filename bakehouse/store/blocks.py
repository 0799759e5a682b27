"""Blocks as they are kept: put away, changed, found by their marks, and what a run goes on with."""

from __future__ import annotations

from collections.abc import Iterable
from contextlib import suppress
from dataclasses import replace
from datetime import datetime, timedelta
from typing import TYPE_CHECKING
from uuid import UUID, uuid4

from django.conf import settings
from django.contrib.auth.models import User
from django.db.models import Q
from django.http import Http404
from django.utils import timezone

from bakehouse.bench.runs import day_of_run, run_of, snapshot
from bakehouse.documents import dump, read, read_plan
from bakehouse.kitchen.shelf import the_kitchen
from bakehouse.plans.library import plan_of
from bakehouse.store.models import BlockRecord, ChangeRecord
from lamination.day import FromStore
from lamination.plan import Plan, joined, other_part, scaled, walk
from lamination.steps import Form, lying
from lamination.steps.divide import Divide
from lamination.store import (
    Block,
    BlockChange,
    ChangeKind,
    Holds,
    PuttingAway,
    StoreStanding,
    admit,
    offers,
    put_away,
    stand,
)
from lamination.terms import Family, Fault, Faults
from lamination.terms.trade import Place

if TYPE_CHECKING:
    from bakehouse.store.tag_files import Tag

_MARK_RESTS = timedelta(days=60)  # a mark is given again so long after its block has gone
_LETTERS = {
    Holds.RAW: "R",
    Holds.BAKED: "B",
    Holds.TRIMMINGS: "T",
    Holds.BUTTER: "U",
}
_OF_FAMILY = {
    Family.CROISSANT: "C",
    Family.DANISH: "D",
    Family.BRIOCHE: "L",
    Family.KOUIGN: "K",
    Family.PUFF: "P",
}
_WHOLE = 0.985  # of what lay there: a part so large is taken for all of it


def block_record(block_id: UUID) -> BlockRecord:
    """A block that was put away here. Raises Http404 with a sentence."""
    found = BlockRecord.objects.filter(pk=block_id).select_related("by").first()
    if found is None:
        raise Http404("This bakehouse has no such block. The tag may be another house's.")
    return found


def by_mark(mark: str) -> BlockRecord:
    """The block that a mark stands for now, or stood for last. Raises Http404 with a sentence."""
    there = BlockRecord.objects.filter(mark=mark.strip().upper()).order_by("-put_at")
    found = there.filter(gone_at=None).first() or there.first()
    if found is None:
        raise Http404(f"No block has the mark {mark.strip().upper()[:8]}.")
    return found


def address_of(block: UUID) -> str:
    """What a tag's code holds: where the block is opened."""
    return f"{settings.WHERE.addresses()[0].rstrip('/')}/store/{block}"


def tag_of(block_id: UUID) -> Tag:
    """What stands on a block's tag now."""
    from bakehouse.store.tag_files import Tag

    record = block_record(block_id)
    block = block_in(record)
    return Tag(record.mark, block, stand(block, changes_of(record)), address_of(record.pk))


def block_in(record: BlockRecord) -> Block:
    """The block a record holds."""
    return read(Block, record.document)


def changes_of(record: BlockRecord) -> tuple[BlockChange, ...]:
    """Everything that was said of it, in the order it was received."""
    return tuple(read(BlockChange, c.document) for c in record.changes.all())


def new_block(said: PuttingAway, by: User) -> BlockRecord:
    """Put something away. Raises Faults."""
    kitchen = the_kitchen()
    plan: Plan | None = None
    plan_id: int | None = None
    if said.run is None:
        block = put_away(said, kitchen)
    else:
        run = run_of(uuid_of(said.run, "run"))
        plan, _, of_then = snapshot(run)
        plan_id = run.plan_id
        block = put_away(said, kitchen, (run.name, plan, offers(plan, of_then)))
        if block.part and said.stop:
            plan = other_part(plan, said.stop, of_then)
    return _written(block, plan, None, by, plan_id)


def _written(
    block: Block,
    plan: Plan | None,
    of: BlockRecord | None,
    by: User | None,
    plan_id: int | None = None,
) -> BlockRecord:
    record = BlockRecord(
        id=uuid_of(block.id, "id"),
        mark=_next_mark(block),
        document=dump(block),
        plan_document=dump(plan) if plan else None,
        run=uuid_of(block.run, "run") if block.run else None,
        of=of,
        by=by,
        plan_id=of.plan_id if of else plan_id,
        put_at=block.since,
    )
    listed(record, stand(block, ()))
    return record


def uuid_of(text: str, field: str) -> UUID:
    """An id that a tablet made. Raises Faults at ``field`` where it is none."""
    try:
        return UUID(text)
    except ValueError:
        raise Faults(Fault(field, "This is not an id.")) from None


def _next_mark(block: Block) -> str:
    """A letter for what it is, and the least number that no block has, nor had lately."""
    letter = _LETTERS.get(block.holds) or _OF_FAMILY[block.family]
    lately = timezone.now() - _MARK_RESTS
    taken = set(
        BlockRecord.objects.filter(mark__startswith=letter)
        .filter(Q(gone_at=None) | Q(gone_at__gt=lately))
        .values_list("mark", flat=True)
    )
    number = 1
    while f"{letter}{number}" in taken:
        number += 1
    return f"{letter}{number}"


def listed(record: BlockRecord, now: StoreStanding) -> None:
    """Write what the shelves show of it."""
    record.place = now.place.value
    record.best_before = now.best_before
    record.wanted_at = now.wanted.at if now.wanted and now.wanted.at else None
    record.gone_at = now.gone.at if now.gone else None
    record.save()


def say(record: BlockRecord, changes: tuple[BlockChange, ...], by: User | None) -> StoreStanding:
    """Write changes of a block, all or none; one that is there already is passed over. Raises Faults below
    ``changes``.
    """
    block, there = block_in(record), changes_of(record)
    known = {c.id for c in there}
    names = {c.change_id: c.by.get_username() for c in record.changes.select_related("by") if c.by}
    for i, new in enumerate(changes):
        if new.id in known:
            continue
        try:
            admit(block, there, new, record.mark, names, _touched(record))
            if new.kind is ChangeKind.DIVIDED and new.part and new.grams:
                _cut_off(record, block, new, by)
        except Faults as wrong:
            raise Faults(*(f.under(f"changes[{i}]") for f in wrong.faults)) from None
        if new.kind is ChangeKind.UNDO:
            _put_together(there, new)
        ChangeRecord.objects.create(block=record, change_id=new.id, document=dump(new), by=by)
        there, known = (*there, new), known | {new.id}
    now = stand(block, there)
    listed(record, now)
    return now


def _touched(record: BlockRecord) -> frozenset[str]:
    """The blocks cut off it that something was done with since."""
    return frozenset(str(p.pk) for p in record.parts.all() if p.changes.exists() or p.gone_at)


def _cut_off(record: BlockRecord, block: Block, new: BlockChange, by: User | None) -> None:
    now = stand(block, changes_of(record))
    assert new.part
    assert new.grams
    if BlockRecord.objects.filter(pk=uuid_of(new.part, "part")).exists():
        raise Faults(Fault("part", "There is a block of this id already."))
    part = block.divided(new.part, new.grams)
    part = replace(
        part,
        place=new.place or now.place,
        shelf=new.shelf or now.shelf,
        best_before=now.best_before,
    )
    plan = read_plan(record.plan_document) if record.plan_document else None
    _written(part, plan, record, by)


def _put_together(there: tuple[BlockChange, ...], undo: BlockChange) -> None:
    """A division is taken back: the part that was cut off was never there."""
    what = next((c for c in there if c.id == undo.target), None)
    if what and what.kind is ChangeKind.DIVIDED and what.part:
        BlockRecord.objects.filter(pk=what.part).delete()


def goes_on_by(record: BlockRecord, plan_id: int | None = None) -> tuple[Plan, str]:
    """The plan that a run of this block goes by, and the step it goes on with.

    Of a block that is less than what lay there, the plan is one that divides it there. ``plan_id``: as whose
    product it goes on, where that is another plan's. Raises Faults where nobody knows its plan, nothing
    comes after it, or it cannot become that.
    """
    block = block_in(record)
    if record.plan_document is None or block.stop is None:
        text = f"{record.mark} has no plan: it was entered by hand. Begin a plan and take it out."
        raise Faults(Fault("block", text))
    plan = read_plan(record.plan_document)
    n = plan.at(block.stop)
    now = stand(block, changes_of(record))
    left = now.grams or now.ledger.taken_g
    if block.holds is Holds.TRIMMINGS or n + 1 >= len(plan.steps):
        text = f"Nothing comes after it in its plan. Take {record.mark} out, or use some of it."
        raise Faults(Fault("block", text))
    found = walk(plan, the_kitchen())
    lies = found.made[n].lies
    if lies.sheet is not None and lies.form in (Form.PACKAGE, Form.SHEET):
        whole = lying(lies, found.recipe)[0] + lies.carried_g
        if left < _WHOLE * whole:
            part = Divide(
                goes_on_pct=min(max(100 * left / whole, 1.0), 99.0), other=True,
                id=f"part-{record.mark}"[:40], bench_min=0.0,
            )  # fmt: skip
            plan = plan.with_steps(*plan.steps[: n + 1], part, *plan.steps[n + 1 :])
            n += 1
    elif lies.sheet is None and left < _WHOLE * plan.dough.mass_g:
        # before the butter is in, less dough is the plan of a smaller one
        plan = scaled(plan, round(left, 1))
    if plan_id is not None and plan_id != record.plan_id:
        return joined(plan, plan.steps[n].id, plan_of(plan_id), the_kitchen())
    return plan, plan.steps[n + 1].id


def take_for_run(block_id: UUID, run: UUID, at: datetime, by: User) -> None:
    """Take a block out for a run. Raises Faults at ``block``."""
    record = block_record(block_id)
    taken = BlockChange(f"run-{uuid4()}", at, ChangeKind.TAKEN, why="onto the bench", run=str(run))
    try:
        say(record, (taken,), by)
    except Faults as wrong:
        raise Faults(*(Fault("block", f.message) for f in wrong.faults)) from None


def blocks_for(wanted: Iterable[tuple[str, int]], day: int | None = None) -> dict[str, FromStore]:
    """Blocks as a day makes use of them, each with the plan whose product it becomes; those that can be.

    What a run of this very day has taken since is still that run's.
    """
    found: dict[str, FromStore] = {}
    for text, plan_id in wanted:
        with suppress(ValueError, Http404):
            record = block_record(UUID(text))
            gone = None
            left = stand(block_in(record), changes_of(record)).gone
            taken_by = day_of_run(UUID(left.run)) if left and left.run else None
            mine = taken_by is not None and day in (None, taken_by)
            if left and not mine:
                gone = f"{record.mark} is not there any more. Take it off the order."
            if block_in(record).holds is not Holds.DOUGH:
                gone = f"{record.mark} is not a dough. A day goes on with blocks of dough."
            with suppress(Faults):
                found[text] = FromStore(
                    record.mark,
                    *goes_on_by(record, plan_id),
                    best_before=record.best_before,
                    gone=gone,
                )
    return found


def want(block_id: UUID, at: datetime, why: str) -> None:
    """Say of a frozen block when it is wanted, unless that is said already, or it is on its way."""
    record = BlockRecord.objects.filter(pk=block_id, gone_at=None).first()
    if record is None:
        return
    now = stand(block_in(record), changes_of(record))
    if now.frozen and (now.wanted is None or now.wanted.at != at) and at > timezone.now():
        by = now.wanted.by if now.wanted else Place.FRIDGE
        said = BlockChange(
            f"day-{uuid4()}", timezone.now(), ChangeKind.WANTED, until=at, by=by, why=why[:200]
        )
        say(record, (said,), None)


def those_there() -> list[tuple[BlockRecord, Block, StoreStanding]]:
    """Every block that is there, the first to be used first."""
    there = BlockRecord.objects.filter(gone_at=None).select_related("by")
    found = []
    for record in there.prefetch_related("changes"):
        block = block_in(record)
        found.append((record, block, stand(block, changes_of(record))))
    return found
