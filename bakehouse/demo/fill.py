"""What an empty house is filled with: people, plans, an order, a day and its runs."""

import uuid
from collections.abc import Callable
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.contrib.auth.models import Group, User
from django.db import transaction
from django.utils import timezone

from bakehouse.bench.models import EventRecord, Run
from bakehouse.bench.runs import listed
from bakehouse.day.models import OrderRecord
from bakehouse.demo.made_up import MADE_UP
from bakehouse.demo.teasel_lock import (
    ACCOUNTS,
    HANDS,
    KITCHEN,
    ORDER,
    ORDER_AT,
    ORDER_NAME,
    PLANS,
    RUNS,
    STANDING_NAME,
    STORE,
    TODAY,
    TODAY_HANDS,
    TODAY_NAME,
    USUALLY,
    Lay,
    Went,
    book,
)
from bakehouse.documents import dump
from bakehouse.kitchen.shelf import keep_kitchen
from bakehouse.people.models import House
from bakehouse.plans.library import new_record
from bakehouse.plans.models import PlanRecord
from bakehouse.store.blocks import new_block, say
from lamination.day import (
    Numbered,
    Order,
    Ordered,
    Shift,
    Timetable,
    Weekday,
    copied,
    day_of,
    standing_on,
    timetable,
)
from lamination.plan import Plan, WorkedPlan, work
from lamination.run import Event, EventKind, TrayStep, admit, planned_deeds, tray_steps
from lamination.store import BlockChange, ChangeKind, PuttingAway
from lamination.terms.trade import Place

LAST_DOUGH_LATE_MIN = 14


def fill() -> str:
    """Put the bakehouse at Teasel Lock into an empty house; says what was loaded."""
    with transaction.atomic():
        House.objects.create(demo=True)
        keep_kitchen(KITCHEN, None)
        users = [_account(name, *rest) for name, rest in ACCOUNTS.items()]
        records = {p.name: new_record(p, users[0]) for p in (*MADE_UP[::-1], *PLANS)}
        _order(records, users[0])
        runs = [_run(went, records[went.plan.name], users[1]) for went in RUNS]
        for went in book():
            _run(went, records[went.plan.name], users[1])
        for lay in STORE:
            _lay(lay, runs, users[1])
    return f"Loaded {len(records)} plans and {len(RUNS) + len(book())} runs of Teasel Lock."


def fill_today() -> None:
    """The day that is under way there, unless the house has it: its timetable needs the compiled loops."""
    if OrderRecord.objects.filter(document__name=TODAY_NAME).exists():
        return
    with transaction.atomic():
        records = {str(r): r for r in PlanRecord.objects.filter(deleted_at=None)}
        if all(plan.name in records for plan, _, _ in TODAY):
            _today(records, User.objects.get(username=[*ACCOUNTS][1]))


def _account(name: str, role: str, password: str) -> User:
    user, new = User.objects.get_or_create(username=name)
    if new:
        user.set_password(password)
        user.is_staff = user.is_superuser = role == "head"
        user.save()
    user.groups.add(Group.objects.get(name=role))
    return user


def _started(went: Went) -> datetime:
    if isinstance(went.started, int):
        return timezone.now() - timedelta(minutes=went.started)
    days, at = went.started
    hour, minute = at.split(":")
    day = timezone.localtime() - timedelta(days=days)
    return day.replace(hour=int(hour), minute=int(minute), second=0, microsecond=0)


def _order(records: dict[str, PlanRecord], by: User) -> None:
    """The order for the coming Saturday, ready before the market opens."""
    today = timezone.localtime()
    ahead = timedelta(days=(5 - today.weekday()) % 7 or 7)
    morning = (today + ahead).replace(hour=0, minute=0, second=0, microsecond=0)

    def at(clock: str) -> datetime:
        hour, minute = clock.split(":")
        return morning.replace(hour=int(hour), minute=int(minute))

    doughs = tuple(
        Ordered(records[plan.name].pk, products, ready_at=at(clock) if clock else None)
        for plan, products, clock in ORDER
    )
    hands = tuple(
        Shift(name, morning + timedelta(hours=a), morning + timedelta(hours=b), count)
        for name, count, a, b in HANDS
    )
    coming = Order(ORDER_NAME, doughs, at(ORDER_AT), hands)
    this = OrderRecord.begun(dump(coming), by)
    # the same every week, with fewer of some; what is different shows against the last one made of it
    usual = tuple(
        replace(
            d,
            products=tuple(replace(w, pieces=USUALLY.get(w.product, w.pieces)) for w in d.products),
        )
        for d in doughs
    )
    standing = Order(STANDING_NAME, usual, at(ORDER_AT), hands, every=(Weekday.SATURDAY,))
    record = OrderRecord.begun(dump(copied(standing, -7, settings.TIME_ZONE)), by)
    last = standing_on(standing, (morning - timedelta(days=7)).date(), settings.TIME_ZONE)
    for made in (this, OrderRecord.begun(dump(last), by)):
        made.made_from = record
        made.save(update_fields=["made_from"])


def _today(records: dict[str, PlanRecord], by: User) -> None:
    """A day that was started this morning and has gone as planned till now, but for one dough."""
    now = timezone.localtime().replace(second=0, microsecond=0)
    doughs = tuple(
        Ordered(records[plan.name].pk, products, ready_at=now + timedelta(hours=hours))
        for plan, products, hours in TODAY
    )
    hands = tuple(
        Shift(name, now + timedelta(hours=a), now + timedelta(hours=b), count)
        for name, count, a, b in TODAY_HANDS
    )
    order = Order(TODAY_NAME, doughs, None, hands)
    plans = {records[plan.name].pk: plan for plan, _, _ in TODAY}
    day, numbered = day_of(order, plans, KITCHEN, settings.TIME_ZONE)
    found = timetable(day, KITCHEN)
    record = OrderRecord.begun(
        dump(order), by, timetable=dump(found),
        doughs=[dump(one) for one in numbered], arranged_revision=1, arranged_at=now,
        opened_at=now - timedelta(hours=7),
    )  # fmt: skip
    late = timedelta(minutes=LAST_DOUGH_LATE_MIN)
    for one, dough in zip(numbered, day.doughs, strict=True):
        slow = late if one is numbered[-1] else timedelta(0)
        _dough(record.pk, one, len(numbered), dough.plan, found, now - slow, by)


def _dough(
    day: int, one: Numbered, doughs: int, plan: Plan, found: Timetable, until: datetime, by: User
) -> None:
    """A dough of the day, taken along its timetable up to a moment; its trays are still to come."""
    tasks = {t.step: t for t in found.tasks if t.dough == one.dough}
    worked = work(plan, KITCHEN)
    first = tasks[worked.strip[0].key]
    if first.starts > until:
        return
    run = Run.objects.create(
        id=uuid.uuid4(), plan_id=one.plan_id, plan_document=dump(plan),
        kitchen_document=dump(KITCHEN), started_at=first.starts, started_by=by,
        day=day, dough=one.dough, doughs=doughs,
    )  # fmt: skip
    trays = {step.stop for step in tray_steps(worked)}
    events: tuple[Event, ...] = ()
    following = [*worked.strip[1:], None]
    for stop, after in zip(worked.strip, following, strict=True):
        if stop.key in trays:
            break
        said = [(tasks[stop.key].ends, EventKind.DONE)]
        if stop.rest is not None and stop.rest.minutes > 0 and after is not None:
            said.append((tasks[after.key].starts, EventKind.OUT))
        for at, kind in said:
            if at > until:
                break
            event = Event(str(uuid.uuid4()), at, kind, stop=stop.key)
            admit(worked, first.starts, events, event)
            EventRecord.objects.create(run=run, event_id=event.id, document=dump(event), by=by)
            events = (*events, event)
        else:
            continue
        break
    listed(run, worked, events)


def _trays(went: Went, worked: WorkedPlan, cut_at: datetime, say: Callable[..., None]) -> datetime:
    """Take the trays through proof and oven: as the plan has them, or as long ago as is said."""
    steps = tray_steps(worked)
    if not steps or not (went.verdict or went.trays_ago_min):
        return cut_at
    plan = {(d.kind, d.stop): d.minute for d in planned_deeds(worked.strip)}
    cut_min = plan[EventKind.DONE, "cut"]
    numbers = [n for p in worked.shaped.trays.products for n in p.trays] if worked.shaped else []
    said: list[tuple[datetime, int, TrayStep]] = []
    for tray in numbers:
        ago = went.trays_ago_min[tray - 1] if went.trays_ago_min else None
        for n, step in enumerate(steps):
            if ago is not None and n < len(ago):
                said.append((timezone.now() - timedelta(minutes=ago[n]), tray, step))
            elif ago is None:
                kind = EventKind.DONE if step.kind is EventKind.IN else step.kind
                minute = plan[kind, "wash" if step.kind is EventKind.IN else step.stop]
                after = minute - cut_min + 2 * tray + (1 if step.kind is EventKind.IN else 0)
                said.append((cut_at + timedelta(minutes=after), tray, step))
    for at, tray, step in sorted(said, key=lambda s: s[0]):
        say(at, step.kind, stop=step.stop, tray=tray)
    return max((at for at, _, _ in said), default=cut_at)


def _run(went: Went, record: PlanRecord, by: User) -> Run:
    worked = work(went.plan, KITCHEN)
    started = _started(went)
    run = Run.objects.create(
        id=uuid.uuid4(),
        plan=record,
        plan_document=dump(went.plan),
        kitchen_document=dump(KITCHEN),
        started_at=started,
        started_by=by,
    )
    events: tuple[Event, ...] = ()

    def say(at: datetime, kind: EventKind, **more: Any) -> None:
        nonlocal events
        event = Event(str(uuid.uuid4()), at, kind, **more)
        admit(worked, started, events, event)
        EventRecord.objects.create(run=run, event_id=event.id, document=dump(event), by=by)
        events = (*events, event)

    late, before = 0.0, started
    trays = tray_steps(worked)
    on_trays = {step.stop for step in trays}
    order = [d for d in planned_deeds(worked.strip) if d.stop not in on_trays]
    for i, (deed, lag) in enumerate(zip(order, went.late_min, strict=False)):
        late += lag - 5  # a bench hand gains five minutes on most deeds and loses them on others
        at = max(before, started + timedelta(minutes=deed.minute + max(late, 0)))
        for _, probe, value in (r for r in went.readings if r[0] == i):
            say(at - timedelta(minutes=2), EventKind.READING, probe=probe, value_c=value)
        for _, words in (n for n in went.notes if n[0] == i):
            say(at - timedelta(minutes=1), EventKind.NOTE, words=words)
        if deed.kind is EventKind.DONE:
            for line in (x for s in worked.sheets if s.stop == deed.stop for x in s.lines):
                grams = dict(went.weighed).get(line.key, line.grams)
                say(at - timedelta(minutes=3), EventKind.WEIGHED, line=line.key, grams=grams)
        say(at, deed.kind, stop=deed.stop)
        before = at
        if deed.stop == "cut":
            if went.pieces_g:
                say(at, EventKind.PIECES, product=0, pieces_g=went.pieces_g)
            before = _trays(went, worked, at, say)
    if went.verdict:
        say(before + timedelta(hours=3), EventKind.VERDICT, verdict=went.verdict)
    listed(run, worked, events)
    return run


def _lay(lay: Lay, runs: list[Run], by: User) -> None:
    """Something that lies in the cold, and when it is wanted."""
    now = timezone.now()
    at = now - timedelta(hours=lay.hours_ago)
    record = new_block(
        PuttingAway(
            str(uuid.uuid4()), at, lay.place, lay.shelf,
            run=str(runs[lay.run].pk) if lay.run is not None else None, stop=lay.stop or None,
            which=lay.which, holds=lay.holds, name=lay.name, grams=lay.grams, lots=lay.lots,
        ),
        by,
    )  # fmt: skip
    if lay.wanted:
        tomorrow = timezone.localtime() + timedelta(days=1)
        wanted = tomorrow.replace(hour=5, minute=0, second=0, microsecond=0)
        change = BlockChange(
            str(uuid.uuid4()), now, ChangeKind.WANTED, until=wanted, by=Place.FRIDGE, why=lay.wanted
        )
        say(record, (change,), by)
