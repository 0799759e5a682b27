"""The cold store: put away, changed, found, thawed in time, traced, tagged."""

from __future__ import annotations

import io
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Annotated
from uuid import UUID

import segno
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, Router

from bakehouse.bench.runs import events_of, run_of, runs_from, snapshot
from bakehouse.documents import as_download, read_plan
from bakehouse.kitchen.shelf import as_today, the_kitchen
from bakehouse.people.roles import of_the_house, signed_in, user_of
from bakehouse.plans.library import plan_of
from bakehouse.store.blocks import (
    address_of,
    block_in,
    block_record,
    blocks_for,
    by_mark,
    changes_of,
    new_block,
    say,
    tag_of,
    those_there,
    uuid_of,
)
from bakehouse.store.models import BlockRecord, ChangeRecord
from lamination.kitchen import Kitchen
from lamination.plan import work
from lamination.run import stand as stand_run
from lamination.store import (
    Block,
    BlockChange,
    Offer,
    PuttingAway,
    StoreStanding,
    Thaw,
    Thawing,
    offers,
    stand,
    state_of,
    thaw,
    thrown,
    what_it_is,
)
from lamination.terms import Checked, Fault, Faults, Length, written_table
from lamination.terms.trade import Place

router = Router(tags=["store"])
MOST_AT_ONCE = 50
CLOCK_MAY_BE_AHEAD = timedelta(minutes=5)
LATE = timedelta(minutes=5)
WASTE_DAYS = 7


@dataclass
class BlockView:
    """A block: what it was when it was put away, and where it stands.

    ``state``: how it stands with its date, in words; ``what``: what lies there; ``urgent``: it is to be used
    today, or should have been. ``goes_on``: a run can go on with it.
    """

    id: UUID
    mark: str
    block: Block
    standing: StoreStanding
    by: str | None
    said_by: dict[str, str]
    state: str
    what: str
    urgent: bool
    goes_on: bool


@dataclass
class Shelved:
    """A place of the store: how warm it is, its shelves, how many blocks it holds (0: not counted)."""

    place: Place
    c: float
    shelves: int
    holds: int
    there: int


@dataclass
class ThawMove:
    """A block that is to be taken out, when, and for when; ``late``: that time is past."""

    block: UUID
    mark: str
    name: str
    at: datetime
    wanted_at: datetime
    by: Place
    ready_from: datetime
    ready_until: datetime | None
    late: bool
    why: str


@dataclass
class Wasted:
    """What was thrown away lately, and why, g."""

    why: str
    grams: float
    blocks: int


@dataclass
class StoreView:
    """The store: its places, what lies there (what is to be used first comes first), and what is to move."""

    places: list[Shelved]
    blocks: list[BlockView]
    moves: list[ThawMove]
    wasted: list[Wasted]


@dataclass(frozen=True)
class SaidOfBlock(Checked):
    """What a tablet has to say of a block, oldest first; ``by``: who of the house said it."""

    changes: Annotated[tuple[BlockChange, ...], Length(1, MOST_AT_ONCE, "changes")]
    by: str | None = None


@dataclass(frozen=True)
class PutAwayBy(Checked):
    """Something to be put away, and who of the house did."""

    put: PuttingAway
    by: str | None = None


@dataclass
class DoughTraced:
    """A dough in the history of a block: which, of when, by whom; what was weighed for it, in words."""

    run: UUID
    name: str
    started_at: datetime
    by: str | None
    day: int | None
    dough: str | None
    weighed: list[str]
    contains: str


@dataclass
class StoreTrace:
    """Where a block came from, and where it went: from the first flour to what was made of it."""

    block: BlockView
    parents: list[BlockView]
    origin: DoughTraced | None
    parts: list[BlockView]
    went_into: list[DoughTraced]


def _view(record: BlockRecord, block: Block, now: StoreStanding) -> BlockView:
    at = timezone.now()
    return BlockView(
        id=record.pk,
        mark=record.mark,
        block=block,
        standing=now,
        by=record.by.get_username() if record.by else None,
        said_by=_who(record),
        state=state_of(block, now, at),
        what=what_it_is(block, now),
        urgent=now.gone is None and now.best_before - at < timedelta(hours=24),
        goes_on=record.plan_document is not None and bool(block.next_step),
    )


def _who(record: BlockRecord) -> dict[str, str]:
    said = record.changes.select_related("by")
    return {c.change_id: c.by.get_username() for c in said if c.by}


def _one(record: BlockRecord) -> BlockView:
    block = block_in(record)
    return _view(record, block, stand(block, changes_of(record)))


@router.get("/blocks", auth=signed_in, response=StoreView)
def store(request: HttpRequest) -> StoreView:
    """What lies in the store now."""
    kitchen, there = as_today(the_kitchen()), those_there()
    count: dict[Place, int] = {}
    for _, _, now in there:
        count[now.place] = count.get(now.place, 0) + 1
    places = [
        Shelved(
            place, kitchen[f"{place}.c"], int(kitchen[f"{place}.shelves"]),
            int(kitchen[f"{place}.holds"]), count.get(place, 0),
        )
        for place in (Place.FRIDGE, Place.FREEZER)
    ]  # fmt: skip
    views = [_view(*one) for one in there]
    return StoreView(places, views, moves(kitchen, there), _wasted())


def moves(
    kitchen: Kitchen, there: list[tuple[BlockRecord, Block, StoreStanding]]
) -> list[ThawMove]:
    """What is to be taken out of the freezer, and when, the next first."""
    found = []
    for record, block, now in there:
        if now.wanted is None or not now.frozen:
            continue
        thawing = _thawing(record, block, now, kitchen, now.wanted.at, now.wanted.by)
        if thawing is None:
            continue
        slow = max(timezone.now() - thawing.move_at, timedelta(0))
        # taken out now it is ready as much later as it is late
        starts, ends = thawing.ready
        ready = starts + slow, ends + slow if ends else None
        found.append(
            ThawMove(
                record.pk, record.mark, block.name, thawing.move_at, now.wanted.at, now.wanted.by,
                *ready, slow > LATE, now.wanted.why,
            )
        )  # fmt: skip
    return sorted(found, key=lambda m: m.at)


def _thawing(
    record: BlockRecord, block: Block, now: StoreStanding, kitchen: Kitchen, at: datetime, by: Place
) -> Thawing | None:
    """When it is to be moved; None where nobody knows what it is."""
    if record.plan_document is None or block.stop is None:
        return None
    plan = read_plan(record.plan_document)
    n = plan.at(block.stop)
    if not 0 <= n < len(plan.steps) - 1:
        return None
    return thaw(
        Thaw(
            plan, max(now.grams, 1.0), at, by, min(kitchen["freezer.c"], -0.1), kitchen["fridge.c"],
            kitchen["room.c"], plan.steps[n + 1].id,
        ),
        kitchen,
    )  # fmt: skip


def _wasted() -> list[Wasted]:
    """What was thrown away in the last week, by its reason, the most first."""
    since = timezone.now() - timedelta(days=WASTE_DAYS)
    by_why: dict[str, Wasted] = {}
    lately = ChangeRecord.objects.filter(received_at__gte=since, document__kind="thrown")
    for record in BlockRecord.objects.filter(pk__in=lately.values("block")):
        block, changes = block_in(record), changes_of(record)
        for why, grams in thrown(block, changes, since):
            one = by_why.setdefault(why, Wasted(why, 0.0, 0))
            one.grams, one.blocks = one.grams + grams, one.blocks + 1
    return sorted(by_why.values(), key=lambda w: -w.grams)


@dataclass
class Fitting:
    """A block that a day may make use of for a plan: what it gives under the knife, and the minutes of work
    that were done before it was put away. ``same``: it was begun by this very plan; else it becomes its
    product, being of its family and with as many turns.
    """

    id: UUID
    mark: str
    name: str
    same: bool
    place: Place
    grams: float
    comes_out_g: float
    saves_min: float
    state: str


@router.get("/blocks/fitting/{int:plan_id}", auth=signed_in, response=list[Fitting])
def fitting(request: HttpRequest, plan_id: int, at: datetime | None = None) -> list[Fitting]:
    """The blocks that can become a plan's product and are still good then, those of the plan itself first."""
    kitchen, now = the_kitchen(), timezone.now()
    family = plan_of(plan_id).family
    there = {str(r.pk): (r, b, n) for r, b, n in those_there() if b.family is family}
    fits = blocks_for((key, plan_id) for key in there)
    found = [
        Fitting(
            there[key][0].pk, of.mark, there[key][1].name, there[key][0].plan_id == plan_id,
            there[key][2].place, there[key][2].grams, work(of.plan, kitchen).comes_out_g,
            of.saves_min(kitchen), state_of(there[key][1], there[key][2], now),
        )
        for key, of in fits.items()
        if not of.gone and there[key][2].best_before > (at or now)
    ]  # fmt: skip
    return sorted(found, key=lambda f: not f.same)


@router.post("/blocks", auth=signed_in, response=BlockView)
def put(request: HttpRequest, said: Body[PutAwayBy]) -> BlockView:
    """Put something away; sent twice, it is one block."""
    _not_ahead(said.put.at, "put.at")
    block_id = uuid_of(said.put.id, "put.id")
    with transaction.atomic():
        there = BlockRecord.objects.filter(pk=block_id).first()
        if there is None:
            try:
                there = new_block(said.put, of_the_house(said.by) or user_of(request))
            except Faults as wrong:
                raise Faults(*(f.under("put") for f in wrong.faults)) from None
    return _one(there)


def _not_ahead(at: datetime, field: str) -> None:
    if at > timezone.now() + CLOCK_MAY_BE_AHEAD:
        raise Faults(Fault(field, "That time is still to come."))


@router.get("/blocks.csv", auth=signed_in)
def blocks_csv(request: HttpRequest) -> HttpResponse:
    """What lies in the store, as a table."""
    head = ("mark", "name", "what", "g", "place", "shelf", "put away", "use by", "next", "state")
    at = timezone.now()
    rows = [
        (record.mark, block.name, what_it_is(block, now), f"{now.grams:.0f}", now.place.value,
         str(now.shelf), f"{timezone.localtime(block.since):%Y-%m-%d %H:%M}",
         f"{timezone.localtime(now.best_before):%Y-%m-%d %H:%M}", block.next_step,
         state_of(block, now, at))
        for record, block, now in those_there()
    ]  # fmt: skip
    return as_download(written_table((head, *rows), "\r\n"), "text/csv", "cold store", "csv")


@router.get("/blocks/tags.pdf", auth=signed_in)
def tags(request: HttpRequest, of: str, one_each: bool = False) -> HttpResponse:
    """Tags of some blocks, their ids with commas between."""
    from bakehouse.store.tag_files import MOST_TAGS, tags_pdf

    found = [tag_of(uuid_of(text, "of")) for text in of.split(",")[:MOST_TAGS]]
    content = tags_pdf(found, the_kitchen(), one_each)
    return as_download(content, "application/pdf", "tags", "pdf")


@router.get("/blocks/mark/{mark}", auth=signed_in, response=BlockView)
def open_by_mark(request: HttpRequest, mark: str) -> BlockView:
    return _one(by_mark(mark))


@router.get("/blocks/{uuid:block_id}", auth=signed_in, response=BlockView)
def open_block(request: HttpRequest, block_id: UUID) -> BlockView:
    return _one(block_record(block_id))


@router.post("/blocks/{uuid:block_id}/changes", auth=signed_in, response=BlockView)
def change(request: HttpRequest, block_id: UUID, said: Body[SaidOfBlock]) -> BlockView:
    """Write changes, all or none; one that is there already is passed over."""
    for i, one in enumerate(said.changes):
        _not_ahead(one.at, f"changes[{i}].at")
    with transaction.atomic():
        record = block_record(block_id)
        say(record, said.changes, of_the_house(said.by) or user_of(request))
    return _one(record)


@router.get("/blocks/{uuid:block_id}/code.svg", auth=signed_in)
def code(request: HttpRequest, block_id: UUID) -> HttpResponse:
    """The code that stands on its tag."""
    made = segno.make(address_of(block_record(block_id).pk), error="m", micro=False)
    out = io.BytesIO()
    made.save(out, kind="svg", scale=4, border=1, dark="#2b2420")
    return HttpResponse(out.getvalue(), "image/svg+xml")


@router.get("/blocks/{uuid:block_id}/thaw", auth=signed_in, response=Thawing)
def when_to_thaw(
    request: HttpRequest, block_id: UUID, wanted_at: datetime, by: Place = Place.FRIDGE
) -> Thawing:
    """When it is to be moved, in the kitchen as warm as it is said to be today."""
    record = block_record(block_id)
    block = block_in(record)
    if wanted_at.utcoffset() is None:
        raise Faults(Fault("wanted_at", "The time must say its time zone."))
    now = stand(block, changes_of(record))
    found = _thawing(record, block, now, as_today(the_kitchen()), wanted_at, by)
    if found is None:
        text = f"Nobody knows how thick {record.mark} is: it was entered by hand."
        raise Faults(Fault("wanted_at", text))
    return found


@router.get("/blocks/{uuid:block_id}/trace", auth=signed_in, response=StoreTrace)
def trace(request: HttpRequest, block_id: UUID) -> StoreTrace:
    """From the first flour to what was made of it."""
    record = block_record(block_id)
    parents: list[BlockView] = []
    above = record.of
    while above is not None and len(parents) < 20:
        parents.append(_one(above))
        above = above.of
    origin = _traced(record.run) if record.run else None
    parts = [_one(p) for p in record.parts.all()]
    went = [_traced(run) for run in runs_from(record.pk)]
    return StoreTrace(_one(record), parents, origin, parts, went)


def _traced(run_id: UUID) -> DoughTraced:
    run = run_of(run_id)
    worked = snapshot(run)[1]
    names = {line.key: line.name for sheet in worked.sheets for line in sheet.lines}
    weighed = stand_run(worked, run.started_at, events_of(run)).weighed
    return DoughTraced(
        run.pk,
        run.name,
        run.started_at,
        run.started_by.get_username() if run.started_by else None,
        run.day,
        run.dough or None,
        [f"{names.get(w.line, w.line)}, {w.grams:g} g" for w in weighed],
        worked.shopping_says,
    )


@router.get("/runs/{uuid:run_id}/offers", auth=signed_in, response=list[Offer])
def offered(request: HttpRequest, run_id: UUID) -> list[Offer]:
    """What of a run can be put away, step by step."""
    plan, _, kitchen = snapshot(run_of(run_id))
    return list(offers(plan, kitchen))
