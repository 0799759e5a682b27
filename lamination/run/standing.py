"""A dough under way: where it stands, from an append-only list of events.

Nothing at the bench is ever rewritten. A wrong press is undone by another event, a time put right
by another, so the list replays to the same standing on every tablet.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from enum import StrEnum
from itertools import chain

from lamination.plan.worked import Stop, WorkedPlan
from lamination.run.events import Event, EventKind, Probe, Verdict
from lamination.run.trays import (
    TRAY_DEEDS,
    TrayDeed,
    Trays,
    TrayStanding,
    admit_tray,
    tray_steps,
)
from lamination.steps.base import PutAway
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import moment, span


class Phase(StrEnum):
    """What a run is doing."""

    WORK = "work"
    REST = "rest"
    FINISHED = "finished"
    GIVEN_UP = "given_up"


@dataclass(frozen=True, slots=True)
class Deed:
    """A stop's work done, or a rest over: when, and when the plan had it.

    ``assumed``: nobody pressed it; it is taken to have gone as planned.
    """

    event_id: str
    kind: EventKind
    stop: str
    at: datetime
    planned_at: datetime
    assumed: bool = False


@dataclass(frozen=True, slots=True)
class Reading:
    """A temperature, °C, and the stop it was taken at."""

    event_id: str
    at: datetime
    probe: Probe
    value_c: float
    stop: str | None


@dataclass(frozen=True, slots=True)
class Remark:
    """A note made at the bench, and the stop it was made at."""

    event_id: str
    at: datetime
    words: str
    stop: str | None


@dataclass(frozen=True, slots=True)
class Scaled:
    """What really stood on the scales for a line of a sheet, g."""

    event_id: str
    at: datetime
    line: str
    grams: float


@dataclass(frozen=True, slots=True)
class OnScale:
    """Pieces of a product that were put on the scale, g, one after another along the sheet."""

    event_id: str
    at: datetime
    product: int
    grams: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Absence:
    """An interruption: from when, until when (None while it lasts), and the stop it fell in.

    It ends when somebody says so, or with the next deed at this dough.
    """

    event_id: str
    at: datetime
    until: datetime | None
    stop: str | None
    says: str = "Interrupted"

    def ended(self, at: datetime) -> Absence:
        """The same, over, and for how long it was."""
        until = max(at, self.at)
        lasted = span((until - self.at) / timedelta(minutes=1))
        return replace(self, until=until, says=f"Interrupted for {lasted}")


@dataclass(frozen=True, slots=True)
class Stored:
    """A part of the dough that was put away: when, and until when it keeps there."""

    stop: str
    part: PutAway
    at: datetime
    until: datetime | None


@dataclass(frozen=True, slots=True)
class RestTime:
    """How many minutes the rest after a stop is to take in this run."""

    stop: str
    minutes: float


@dataclass(frozen=True, slots=True)
class PutRight:
    """A time that was put right by so many minutes: a deed's, or that of the beginning (no target)."""

    event_id: str
    target: str | None
    minutes: float


@dataclass(frozen=True, slots=True)
class Standing:
    """Where a run stands: its phase, the stop it is at, since when and (resting) until when.

    ``started_at``: when its first step was begun, as it was put right since. ``because``: why it was
    stopped, where somebody said.
    """

    phase: Phase
    stop: str | None
    since: datetime
    until: datetime | None
    turns_done: int
    turns: int
    deeds: tuple[Deed, ...]
    readings: tuple[Reading, ...]
    remarks: tuple[Remark, ...]
    weighed: tuple[Scaled, ...]
    verdict: Verdict | None
    undoable: str | None
    rests: tuple[RestTime, ...]
    trays: tuple[TrayStanding, ...]
    pieces: tuple[OnScale, ...]
    away: tuple[Absence, ...]
    put_away: tuple[Stored, ...]
    started_at: datetime
    put_right: tuple[PutRight, ...]
    because: str | None = None


@dataclass(frozen=True, slots=True)
class PlannedDeed:
    """A deed a run consists of, and the minute from its start at which the plan has it."""

    kind: EventKind
    stop: str
    minute: float


def planned_deeds(strip: tuple[Stop, ...]) -> tuple[PlannedDeed, ...]:
    """Every deed of a run in order: each stop done and, where a rest follows, taken out of it."""
    order = []
    for stop in strip:
        worked = stop.starts_min + stop.bench_min
        order.append(PlannedDeed(EventKind.DONE, stop.key, worked))
        if stop.rest is not None and stop.rest.minutes > 0:
            order.append(PlannedDeed(EventKind.OUT, stop.key, worked + stop.rest.minutes))
    return tuple(order)


def stand(worked: WorkedPlan, started_at: datetime, events: tuple[Event, ...]) -> Standing:
    """Where a run stands after ``events``, in the order they were received.

    Events must have been admitted (see :func:`admit`). A deed stamped before the one it follows
    (two tablets, two clocks) is taken as happening right after it.
    """
    undone = {e.target for e in events if e.kind is EventKind.UNDO}
    kept = [e for e in events if e.id not in undone]
    right = [
        PutRight(e.id, e.target, e.minutes)
        for e in kept
        if e.minutes and e.kind in (EventKind.MOVE, EventKind.BEGUN)
    ]
    shift: dict[str, float] = {}
    for one in right:
        if one.target:
            shift[one.target] = shift.get(one.target, 0) + one.minutes
        else:
            started_at += timedelta(minutes=one.minutes)

    order = planned_deeds(worked.strip)
    deeds: list[Deed] = []
    readings: list[Reading] = []
    remarks: list[Remark] = []
    weighed: dict[str, Scaled] = {}
    rests = {s.key: s.rest.minutes for s in worked.strip if s.rest}
    verdict: Verdict | None = None
    given_up: datetime | None = None
    because: str | None = None
    pieces: list[OnScale] = []
    away: list[Absence] = []
    trays = Trays(worked)
    clock = started_at
    for e in kept:
        here = order[len(deeds)].stop if len(deeds) < len(order) else None
        gone = bool(away) and away[-1].until is None
        if gone and e.kind in (*TRAY_DEEDS, EventKind.BACK):
            away[-1] = away[-1].ended(e.at)
        if e.tray is not None and e.kind in (*TRAY_DEEDS, EventKind.LOST):
            if e.kind is EventKind.LOST:
                trays.lose(e, clock)
            else:
                trays.take(e, clock, shift.get(e.id, 0.0))
            # a stop is done when the last tray has done it
            while len(deeds) < len(order) and (due := order[len(deeds)]).stop in trays.stops:
                last = trays.all_did(due.kind, due.stop)
                if last is None:
                    break
                planned = started_at + timedelta(minutes=due.minute)
                clock = max(clock, last)
                deeds.append(Deed(e.id, due.kind, due.stop, clock, planned, bool(e.assumed)))
        elif e.kind in (EventKind.DONE, EventKind.OUT) and here:
            planned = started_at + timedelta(minutes=order[len(deeds)].minute)
            clock = max(clock, e.at + timedelta(minutes=shift.get(e.id, 0)))
            deeds.append(Deed(e.id, e.kind, here, clock, planned, bool(e.assumed)))
        elif e.kind is EventKind.READING and e.probe and e.value_c is not None:
            readings.append(Reading(e.id, e.at, e.probe, e.value_c, here))
        elif e.kind is EventKind.NOTE and e.words:
            remarks.append(Remark(e.id, e.at, e.words, here))
        elif e.kind is EventKind.WEIGHED and e.line and e.grams is not None:
            weighed[e.line] = Scaled(e.id, e.at, e.line, e.grams)
        elif e.kind is EventKind.REST and e.stop in rests and e.minutes is not None:
            rests[e.stop] = e.minutes
        elif e.kind is EventKind.PIECES and e.product is not None and e.pieces_g:
            pieces.append(OnScale(e.id, e.at, e.product, e.pieces_g))
        elif e.kind is EventKind.AWAY and not gone:
            away.append(Absence(e.id, e.at, None, here))
        elif e.kind is EventKind.GIVE_UP:
            given_up, because = e.at, e.words
        elif e.kind is EventKind.VERDICT:
            verdict = e.verdict

    # with its last tray a dough is lost
    given_up = given_up or trays.all_lost_at
    finished = len(deeds) == len(order)
    turning = {s.key for s in worked.strip if s.turn}
    ahead = order[min(len(deeds), len(order) - 1)]
    stop = next(s for s in worked.strip if s.key == ahead.stop)
    on_trays = trays.standing(rests)
    resting = not finished and ahead.kind is EventKind.OUT
    moving = [t for t in on_trays if t.next]
    waiting = [t.until for t in moving if t.until and t.next and t.next.kind is EventKind.OUT]
    if not finished and stop.key in trays.stops:
        # some trays may be under the hands while others rest
        resting = bool(moving) and len(waiting) == len(moving)
    phase = (
        Phase.GIVEN_UP
        if given_up
        else Phase.FINISHED
        if finished
        else Phase.REST
        if resting
        else Phase.WORK
    )
    until = clock + timedelta(minutes=rests[stop.key]) if resting and stop.key in rests else None
    if resting and stop.key in trays.stops:
        until = min(t for t in waiting if t)
    undoable = [e.id for e in kept if e.kind is not EventKind.UNDO]
    return Standing(
        phase=phase,
        stop=None if finished else stop.key,
        since=given_up or clock,
        until=until,
        turns_done=sum(d.kind is EventKind.DONE and d.stop in turning for d in deeds),
        turns=len(turning),
        deeds=tuple(deeds),
        readings=tuple(readings),
        remarks=tuple(remarks),
        weighed=tuple(weighed.values()),
        verdict=verdict,
        undoable=undoable[-1] if undoable else None,
        rests=tuple(RestTime(stop, minutes) for stop, minutes in rests.items()),
        trays=on_trays,
        pieces=tuple(pieces),
        away=tuple(away),
        put_away=tuple(_stored(worked, deeds)),
        started_at=started_at,
        put_right=tuple(right),
        because=because,
    )


def _stored(worked: WorkedPlan, deeds: list[Deed]) -> Iterator[Stored]:
    done = {d.stop: d.at for d in deeds if d.kind is EventKind.DONE}
    for kept in worked.put_away:
        if (at := done.get(kept.stop)) is not None:
            keeps = kept.part.keeps_h
            yield Stored(
                kept.stop, kept.part, at, None if keeps is None else at + timedelta(hours=keeps)
            )


def admit(worked: WorkedPlan, started_at: datetime, events: tuple[Event, ...], new: Event) -> None:
    """Check that ``new`` can happen after ``events``.

    Raises :class:`Faults` with the event's field at fault: a deed out of turn or pressed twice, an
    undo or a move of something that is not there, a verdict before the end.
    """
    now = stand(worked, started_at, events)
    names = {s.key: s.name for s in worked.strip}
    over = now.phase in (Phase.FINISHED, Phase.GIVEN_UP)
    tray_stops = {s.stop for s in tray_steps(worked)}
    by_tray = (EventKind.IN, EventKind.LOST)
    if new.kind in by_tray or (new.kind in TRAY_DEEDS and new.tray is not None):
        if now.phase is Phase.GIVEN_UP:
            raise Faults(Fault("stop", "This dough was stopped. Undo that to go on."))
        admit_tray(now.trays, now.stop in tray_stops, new, names)
    elif new.kind in TRAY_DEEDS and new.stop in tray_stops:
        raise Faults(Fault("tray", "Say which tray: each goes its own way."))
    elif new.kind in (EventKind.DONE, EventKind.OUT):
        _admit_deed(now, names, new)
    elif new.kind is EventKind.PIECES:
        if worked.cut is None or (new.product or 0) >= len(worked.cut.products):
            raise Faults(Fault("product", "This plan cuts no such product."))
    elif new.kind is EventKind.GIVE_UP and over:
        raise Faults(Fault("kind", "This run is over already."))
    elif new.kind is EventKind.VERDICT and not over:
        raise Faults(Fault("kind", "A verdict comes after the last stop; this run is under way."))
    elif new.kind is EventKind.UNDO and new.target != now.undoable:
        raise Faults(Fault("target", "Only the latest entry can be undone, and only once."))
    elif new.kind is EventKind.REST:
        if not any(s.key == new.stop and s.rest for s in worked.strip):
            raise Faults(Fault("stop", "There is no rest after this stop."))
        if (new.minutes or 0) < 0:
            raise Faults(Fault("minutes", "A rest cannot be shorter than 0 min."))
        if any(d.kind is EventKind.OUT and d.stop == new.stop for d in now.deeds):
            raise Faults(Fault("stop", "That rest is over already."))
    elif new.kind is EventKind.WEIGHED:
        if new.line not in {line.key for s in worked.sheets for line in s.lines}:
            raise Faults(Fault("line", "No sheet of this plan has such a line."))
    elif new.kind is EventKind.MOVE:
        _admit_move(worked, now, new)
    elif new.kind is EventKind.BEGUN:
        began = now.started_at + timedelta(minutes=new.minutes or 0)
        if began > new.at:
            raise Faults(Fault("minutes", "That time is still to come."))
        if now.deeds and began > now.deeds[0].at:
            text = f"That is after {moment(now.deeds[0].at)}, when the first step was done."
            raise Faults(Fault("minutes", text))


def _admit_deed(now: Standing, names: dict[str, str], new: Event) -> None:
    if new.stop not in names:
        raise Faults(Fault("stop", f"This plan has no stop called {new.stop}."))
    if now.phase is Phase.GIVEN_UP:
        raise Faults(Fault("stop", "This dough was stopped. Undo that to go on."))
    if any(d.kind is new.kind and d.stop == new.stop for d in now.deeds):
        said = "done" if new.kind is EventKind.DONE else "taken out"
        raise Faults(Fault("stop", f"{names[new.stop]} is already {said}."))
    expected = EventKind.OUT if now.phase is Phase.REST else EventKind.DONE
    if new.stop != now.stop or new.kind is not expected:
        ahead = names.get(now.stop or "", "nothing: this run is over")
        if expected is EventKind.OUT:
            ahead = f"taking it out after {ahead}"
        raise Faults(Fault("stop", f"Next is {ahead}, not {names[new.stop]}."))


def _admit_move(worked: WorkedPlan, now: Standing, new: Event) -> None:
    by_tray = {s.stop for s in tray_steps(worked)}
    whole = [d for d in now.deeds if d.stop not in by_tray]
    # a tray's times move between its own; what is done with the whole dough, between those of all
    mine = [t.deeds for t in now.trays if any(d.event_id == new.target for d in t.deeds)]
    deeds: Iterable[TrayDeed] = chain.from_iterable(mine or (t.deeds for t in now.trays))
    line: list[Deed | TrayDeed] = sorted([*whole, *deeds], key=lambda d: d.at)
    ids = [d.event_id for d in line]
    if new.target not in ids:
        raise Faults(
            Fault("target", "There is nothing done under this name whose time could move.")
        )
    i = ids.index(new.target)
    wanted = line[i].at + timedelta(minutes=new.minutes or 0)
    before = line[i - 1].at if i else now.started_at
    if wanted > new.at:
        raise Faults(Fault("minutes", "That time is still to come."))
    if wanted < before:
        over = "the step it follows was over" if i else "it was begun"
        text = f"That is before {moment(before)}, when {over}."
        raise Faults(Fault("minutes", text))
    if i + 1 < len(line) and wanted > line[i + 1].at:
        text = f"That is after {moment(line[i + 1].at)}, when the next step was done."
        raise Faults(Fault("minutes", text))
