"""The timetable of a day: made, kept, started, moved as the day goes; and what needs hands now."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterable
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from threading import Event
from typing import Annotated, Any
from uuid import UUID

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, Router, Status

from bakehouse.bench.runs import Stood, snapshot, standings_of
from bakehouse.day.files import day_schema
from bakehouse.day.library import as_day, order_in
from bakehouse.day.models import OrderRecord
from bakehouse.documents import as_download, dump, read
from bakehouse.kitchen.shelf import the_kitchen
from bakehouse.loops import wait_for_none
from bakehouse.people.roles import head_only, signed_in
from bakehouse.store.blocks import want
from lamination.day import (
    Day,
    Due,
    Happened,
    Lying,
    Numbered,
    Order,
    Shift,
    Since,
    Timetable,
    arranged,
    due,
    first_change,
    given_up_of,
    handover,
    happened_of,
    hardly_more,
    lying,
    on_now,
    timetable,
    went_of,
)
from lamination.kitchen import Kitchen
from lamination.run import Phase
from lamination.terms import Checked, Fault, Faults, Length, Range

router = Router(tags=["day"])
_STALE_DAYS = timedelta(days=3)
_LATELY = timedelta(minutes=5)  # for which tablets that ask of themselves need not ask again
_AGAIN_S = 1.5  # of the two seconds in which the rest of a day is arranged again


@dataclass(frozen=True)
class Arrange(Checked):
    """How long to look for a better timetable: seconds, 0 for the first there is.

    ``steady``: only what gains by it moves from where the day's timetable has it.
    """

    seconds: Annotated[float, Range(0, 30, "s")] = 0.0
    steady: bool = False


@dataclass(frozen=True)
class ArrangeOrder(Checked):
    """An order that need not be saved, and how long to look."""

    order: Order
    seconds: Annotated[float, Range(0, 30, "s")] = 0.0


@dataclass
class Arranged:
    """A day arranged: its timetable, its doughs by number, and whether it is the order as saved.

    ``proposed``: another timetable, made since the day went otherwise, that nobody has taken yet.
    ``settled``: it was changed, and hardly more is given up for it: nobody need look longer.
    """

    timetable: Timetable
    doughs: list[Numbered]
    arranged_at: datetime | None
    opened_at: datetime | None
    stale: bool
    proposed: Timetable | None
    settled: bool = False


@dataclass
class RunOf:
    """The run at the bench that makes a dough of the day."""

    dough: str
    run: UUID
    over: bool


@dataclass
class TodayView:
    """What Today shows: everything that a screen asks for again and again, and no more."""

    order_id: int
    name: str
    opened_at: datetime
    now: datetime
    due: list[Due]
    lying: list[Lying]
    doughs: list[Numbered]
    runs: list[RunOf]
    on: list[Shift]
    next_on: Shift | None
    gives: list[str]
    short: list[str]
    handover: str
    handover_is_own: bool
    proposed: Timetable | None


@dataclass(frozen=True)
class HandoverText(Checked):
    """What the next shift is told; empty: what the day says by itself."""

    text: Annotated[str, Length(0, 8_000, "characters")]


def _doughs(record: OrderRecord) -> list[Numbered]:
    """The doughs as they were numbered for the timetable, or as they are now where another is proposed.

    A plan that is gone since takes none away.
    """
    if record.proposed:
        with suppress(Faults):
            return [*as_day(order_in(record), record)[1]]
    return [read(Numbered, one) for one in record.doughs or ()]


def _kept(record: OrderRecord) -> Timetable | None:
    return read(Timetable, record.timetable) if record.timetable else None


def _proposed(record: OrderRecord) -> Timetable | None:
    """What is proposed and can still be taken: withdrawn once its first change is due."""
    if not record.proposed:
        return None
    found = read(Timetable, record.proposed)
    due_at = first_change(found.moved, record.proposed_at or record.updated_at)
    if due_at is not None and due_at <= timezone.now():
        record.proposed = None
        record.save(update_fields=["proposed"])
        _looked.pop(record.pk, None)
        return None
    return found


def _arranged(record: OrderRecord) -> Arranged:
    found = _kept(record)
    if found is None:
        raise Http404("This day has no timetable yet.")
    return Arranged(
        found,
        _doughs(record),
        record.arranged_at,
        record.opened_at,
        record.arranged_revision != record.revision,
        _proposed(record),
    )


@router.get("/day.schema.json", auth=None, response=dict[str, Any])
def schema_of_a_day(request: HttpRequest) -> dict[str, Any]:
    """The JSON Schema of a day file, made from the core's own types."""
    return day_schema()


@router.post("/order/timetable", auth=signed_in, response=Arranged)
def arrange_an_order(request: HttpRequest, asked: Body[ArrangeOrder]) -> Arranged:
    """A timetable of an order; nothing is kept."""
    wait_for_none()
    try:
        day, numbered = as_day(asked.order)
        found = timetable(day, the_kitchen(), asked.seconds)
    except Faults as wrong:
        raise Faults(*(f.under("order") for f in wrong.faults)) from None
    return Arranged(found, list(numbered), None, None, False, None)


@router.post("/orders/{int:order_id}/timetable", auth=head_only, response=Arranged)
def arrange(request: HttpRequest, order_id: int, asked: Body[Arrange]) -> Arranged:
    """Look for a better timetable than the day has, where it has one, and keep that."""
    wait_for_none()
    record = OrderRecord.there(order_id)
    day, numbered = as_day(order_in(record), record)
    # whoever asks again wants that one, and not what was looked for before
    stop = Event()
    _looking.pop(order_id, Event()).set()
    _looking[order_id] = stop
    since, before = _since(record), _kept(record)
    if since is None and before and record.arranged_revision != record.revision:
        _remember(record, before)
        had = _lately.get((order_id, day, the_kitchen()))
        if asked.steady and had:
            # undone, or put back by hand: it is the day that it was
            del _looking[order_id]
            _keep(record, had, numbered)
            return replace(_arranged(record), settled=True)
    *_, found = arranged(
        day, the_kitchen(), asked.seconds, since, before, steady=asked.steady, stop=stop.is_set
    )
    latest = _looking.get(order_id) is stop
    if latest:
        del _looking[order_id]
    if latest or not OrderRecord.objects.filter(pk=order_id, timetable__isnull=False).exists():
        _keep(record, found, numbered)
    else:
        # another look began meanwhile: what that has found so far is the day's
        record.refresh_from_db()
    return replace(_arranged(record), settled=hardly_more(found, before))


_looking: dict[int, Event] = {}
_lately: OrderedDict[tuple[int, Day, Kitchen], Timetable] = OrderedDict()
_REMEMBERED = 40


def _remember(record: OrderRecord, kept: Timetable) -> None:
    """The timetable of an order as it was, so that what is undone brings back its own."""
    was = record.version(record.arranged_revision or 0)
    with suppress(Faults):
        if was is not None:
            day, _ = as_day(read(Order, was), record)
            _lately[record.pk, day, the_kitchen()] = kept
    while len(_lately) > _REMEMBERED:
        _lately.popitem(last=False)


@router.delete("/orders/{int:order_id}/look", auth=head_only, response={204: None})
def stop_looking(request: HttpRequest, order_id: int) -> Status[None]:
    """What was found so far is the day's: whoever waits for a better one has that at once."""
    OrderRecord.there(order_id)
    _looking.get(order_id, Event()).set()
    return Status(204, None)


def _keep(record: OrderRecord, found: Timetable, numbered: Iterable[Numbered]) -> None:
    record.timetable, record.proposed = dump(found), None
    record.doughs = [dump(one) for one in numbered]
    record.arranged_revision, record.arranged_at = record.revision, timezone.now()
    record.save(
        update_fields=["timetable", "doughs", "proposed", "arranged_revision", "arranged_at"]
    )
    _ask_for_blocks(record, found)


def _ask_for_blocks(record: OrderRecord, found: Timetable) -> None:
    """The blocks that a day goes on with are wanted, thawed, when their first work begins."""
    name = str(order_in(record).name)
    for one in record.doughs or ():
        first = min((t.starts for t in found.tasks if t.dough == one["dough"]), default=None)
        if one.get("block") and first is not None:
            want(UUID(one["block"]), first, name)


def keep_first(record: OrderRecord) -> None:
    """Arrange the day as it comes at once, from where it lay if it did, and keep that."""
    day, numbered = as_day(order_in(record), record)
    _keep(record, timetable(day, the_kitchen(), before=_kept(record)), numbered)


@router.get("/orders/{int:order_id}/timetable", auth=signed_in, response=Arranged | None)
def kept_timetable(request: HttpRequest, order_id: int) -> Arranged | None:
    """What the day goes by; nothing where it was not arranged yet."""
    record = OrderRecord.there(order_id)
    return None if _kept(record) is None else _arranged(record)


@router.post("/orders/{int:order_id}/open", auth=head_only, response=Arranged)
def open_the_day(request: HttpRequest, order_id: int) -> Arranged:
    """The day is started: it is what Today shows. Without a timetable the first there is."""
    record = OrderRecord.there(order_id)
    if record.timetable is None or record.arranged_revision != record.revision:
        wait_for_none()
        keep_first(record)
    record.opened_at = timezone.now()
    record.save(update_fields=["opened_at"])
    return _arranged(record)


@router.post("/orders/{int:order_id}/close", auth=head_only, response={204: None})
def close_the_day(request: HttpRequest, order_id: int) -> Status[None]:
    """Today shows it no longer."""
    OrderRecord.objects.filter(pk=order_id).update(opened_at=None)
    return Status(204, None)


def _happened(
    under_way: Iterable[Stood],
) -> tuple[list[Happened], dict[str, Any], list[RunOf]]:
    happened: list[Happened] = []
    standings, runs = {}, []
    for run, worked, standing in under_way:
        standings[run.dough] = standing
        happened += happened_of(run.dough, worked, standing)
        over = standing.phase in (Phase.FINISHED, Phase.GIVEN_UP)
        runs.append(RunOf(run.dough, run.pk, over))
    return happened, standings, runs


def _since(record: OrderRecord) -> Since | None:
    """What the day is arranged again from, once it has begun."""
    kept = _kept(record)
    if record.opened_at is None or kept is None:
        return None
    under_way = [*standings_of(record.pk)]
    happened, standings, _ = _happened(under_way)
    went = {
        run.dough: went_of(snapshot(run)[0], worked, standing, timezone.get_current_timezone())
        for run, worked, standing in under_way
    }
    return Since(timezone.now(), tuple(happened), kept.tasks, given_up_of(standings), went)


@router.post("/orders/{int:order_id}/again", auth=signed_in, response=Arranged)
def arrange_again(request: HttpRequest, order_id: int, only_if_it_moves: bool = False) -> Arranged:
    """The rest of the day from what has happened, within two seconds; kept as a proposal.

    ``only_if_it_moves``: nobody asked, so that nothing is proposed where nothing has to move, nor what
    was found a short while ago from the same.
    """
    record = OrderRecord.there(order_id)
    since = _since(record)
    if since is None:
        raise Faults(Fault("", "This day has not been started."))
    wait_for_none()
    if only_if_it_moves and _looked_lately(record, since):
        return _arranged(record)
    day, _ = as_day(order_in(record), record)
    found = timetable(day, the_kitchen(), _AGAIN_S, since)
    if found.moved or not only_if_it_moves:
        record.proposed, record.proposed_at = dump(found), since.now
        record.save(update_fields=["proposed", "proposed_at"])
    return _arranged(record)


_looked: dict[int, tuple[object, datetime]] = {}


def _looked_lately(record: OrderRecord, since: Since) -> bool:
    """Whether a tablet has asked a short while ago, and nothing was said or changed since: then all know.

    What was left would else be proposed again by the next tablet that is opened.
    """
    known = (record.revision, record.arranged_at, since.happened, since.went, the_kitchen())
    was, at = _looked.get(record.pk, (None, since.now))
    if known == was and since.now - at < _LATELY:
        return True
    _looked[record.pk] = known, since.now
    return False


@router.post("/orders/{int:order_id}/take", auth=signed_in, response=Arranged)
def take_proposal(request: HttpRequest, order_id: int) -> Arranged:
    """From now on the day goes by what was proposed."""
    record = OrderRecord.there(order_id)
    doughs, proposed = _doughs(record), _proposed(record)
    if proposed is None:
        raise Http404(
            "Nothing is proposed any more: its first change was due. Arrange the rest again."
        )
    _keep(record, proposed, doughs)
    return _arranged(record)


@router.post("/orders/{int:order_id}/leave", auth=signed_in, response=Arranged)
def leave_proposal(request: HttpRequest, order_id: int) -> Arranged:
    """The day stays as it is."""
    record = OrderRecord.there(order_id)
    record.proposed = None
    record.save(update_fields=["proposed"])
    return _arranged(record)


@router.get("/today", auth=signed_in, response=TodayView | None)
def today(request: HttpRequest) -> TodayView | None:
    """What needs hands now, of the day that was started last; nothing where none is."""
    record = (
        OrderRecord.objects.filter(deleted_at=None, opened_at__gt=timezone.now() - _STALE_DAYS)
        .order_by("-opened_at")
        .first()
    )
    kept = _kept(record) if record else None
    if record is None or kept is None or record.opened_at is None:
        return None
    order, numbered = order_in(record), _doughs(record)
    happened, standings, runs = _happened(standings_of(record.pk))
    now = timezone.now()
    gone = given_up_of(standings)
    coming = sorted((s for s in order.hands if s.starts > now), key=lambda s: s.starts)
    written = handover(kept, happened, order.hands, now, _clock, gone)
    return TodayView(
        order_id=record.pk,
        name=order.name,
        opened_at=record.opened_at,
        now=now,
        due=list(due(kept.tasks, happened, now, gone)),
        lying=list(lying(kept, happened, now)),
        doughs=numbered,
        runs=runs,
        on=list(on_now(order.hands, now)),
        next_on=coming[0] if coming else None,
        gives=[g.says for g in kept.gives if g.code != "tight"],
        short=[
            f"{', '.join(n.products)}: dough {n.dough} was stopped."
            for n in numbered
            if n.dough in gone
        ],
        handover=record.handover or written,
        handover_is_own=bool(record.handover),
        proposed=_proposed(record),
    )


def _clock(at: datetime) -> str:
    local = timezone.localtime(at)
    return f"{local:%H:%M}" if local.date() == timezone.localdate() else f"{local:%a %H:%M}"


@router.put("/orders/{int:order_id}/handover", auth=signed_in, response={204: None})
def keep_handover(request: HttpRequest, order_id: int, said: Body[HandoverText]) -> Status[None]:
    """What is told to the next shift, changed by hand and kept with the day."""
    record = OrderRecord.there(order_id)
    record.handover = said.text
    record.save(update_fields=["handover"])
    return Status(204, None)


@router.get("/orders/{int:order_id}/day.csv", auth=signed_in)
def download_day(request: HttpRequest, order_id: int) -> HttpResponse:
    """The day's tasks as rows for a spreadsheet."""
    from bakehouse.day.calendar import day_csv

    found = _arranged(OrderRecord.there(order_id))
    return as_download(
        day_csv(found.timetable, found.doughs), "text/csv", found.timetable.name, "day.csv"
    )


@router.get("/orders/{int:order_id}/day.ics", auth=signed_in)
def download_calendar(request: HttpRequest, order_id: int, who: str = "") -> HttpResponse:
    """A calendar of the day; ``who``: only what that one does."""
    # what writes calendars is seldom wanted
    from bakehouse.day.calendar import day_ics

    found = _arranged(OrderRecord.there(order_id))
    if who and who not in {t.who for t in found.timetable.tasks}:
        raise Http404("Nobody of that name has a task on this day.")
    name = f"{found.timetable.name} {who}".strip()
    content = day_ics(found.timetable, found.doughs, order_id, who, settings.TIME_ZONE)
    return as_download(content, "text/calendar", name, "ics")
