"""The trays of one dough on their way through shaping, proof, wash and oven, each at its own stage."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta

from lamination.plan.worked import WorkedPlan
from lamination.run.events import Event, EventKind
from lamination.terms.limits import Fault, Faults

TRAY_DEEDS = (EventKind.DONE, EventKind.OUT, EventKind.IN)


@dataclass(frozen=True, slots=True)
class TrayStep:
    """One thing done with every tray: a stop's work, out of its rest, or into the oven."""

    kind: EventKind
    stop: str


@dataclass(frozen=True, slots=True)
class TrayDeed:
    """A step done with one tray, and when; ``assumed``: as planned, for nobody pressed it."""

    event_id: str
    kind: EventKind
    stop: str
    at: datetime
    assumed: bool = False


@dataclass(frozen=True, slots=True)
class TrayStanding:
    """Where one tray is: what was done, what is next, since when, and (proofing, baking) until when.

    ``load``: which load of the oven it belongs to, from 1. ``lost``: when it was lost, if it was.
    """

    tray: int
    product: int
    pieces: int
    load: int
    deeds: tuple[TrayDeed, ...]
    next: TrayStep | None
    since: datetime | None
    until: datetime | None
    lost: TrayDeed | None = None


def tray_steps(worked: WorkedPlan) -> tuple[TrayStep, ...]:
    """What is done with every tray, in order; empty where the plan has no trays."""
    if worked.shaped is None or worked.shaped.trays.count == 0:
        return ()
    steps = []
    for stop in worked.strip:
        if not stop.trays:
            continue
        if stop.oven:
            steps.append(TrayStep(EventKind.IN, stop.key))
        steps.append(TrayStep(EventKind.DONE, stop.key))
        if stop.rest is not None and stop.rest.minutes > 0:
            steps.append(TrayStep(EventKind.OUT, stop.key))
    return tuple(steps)


class Trays:
    """All trays of a run, as their events come in."""

    def __init__(self, worked: WorkedPlan) -> None:
        self.worked = worked
        self.steps = tray_steps(worked)
        self.stops = {s.stop for s in self.steps}
        self.done: dict[int, list[TrayDeed]] = {}
        self.lost: dict[int, TrayDeed] = {}
        if worked.shaped and self.steps:
            self.done = {n: [] for p in worked.shaped.trays.products for n in p.trays}

    def take(self, event: Event, not_before: datetime, moved_min: float = 0.0) -> None:
        """Note a step of a tray; stamped before the one it follows, it happened right after it."""
        mine = self.done.get(event.tray or 0)
        if mine is None or len(mine) >= len(self.steps):
            return
        step = self.steps[len(mine)]
        said = event.at + timedelta(minutes=moved_min)
        at = max(said, mine[-1].at if mine else not_before)
        mine.append(TrayDeed(event.id, step.kind, step.stop, at, bool(event.assumed)))

    def lose(self, event: Event, not_before: datetime) -> None:
        """Note that a tray is lost: nobody waits for it any more."""
        if event.tray in self.done:
            mine = self.done[event.tray]
            at = max(event.at, mine[-1].at if mine else not_before)
            self.lost[event.tray] = TrayDeed(event.id, event.kind, event.stop or "", at)

    @property
    def all_lost_at(self) -> datetime | None:
        """When the last tray was lost; None while one is left."""
        left = self.done.keys() - self.lost.keys()
        return None if left else max((d.at for d in self.lost.values()), default=None)

    def all_did(self, kind: EventKind, stop: str) -> datetime | None:
        """When the last tray did this; None while one has not. Lost trays are not waited for."""
        times = []
        for tray, deeds in self.done.items():
            if tray in self.lost:
                continue
            at = next((d.at for d in deeds if d.kind is kind and d.stop == stop), None)
            if at is None:
                return None
            times.append(at)
        return max(times, default=None)

    def standing(self, rests: Mapping[str, float]) -> tuple[TrayStanding, ...]:
        """Where every tray is. ``rests``: minutes of the rest after each stop in this run."""
        if self.worked.shaped is None:
            return ()
        on_trays = self.worked.shaped.trays
        bake_min = {s.key: s.made.bake_min for s in self.worked.strip if s.oven and s.made}
        load = {n: i for i, o in enumerate(on_trays.oven_loads, 1) for n in o.trays}
        found = []
        for on in on_trays.products:
            for tray, pieces in zip(on.trays, on.pieces, strict=True):
                deeds = self.done.get(tray, [])
                lost = self.lost.get(tray)
                left = len(deeds) < len(self.steps) and lost is None
                after = self.steps[len(deeds)] if left else None
                since = deeds[-1].at if deeds else None
                minutes = None
                if after and after.kind is EventKind.OUT:
                    minutes = rests.get(after.stop, 0.0)
                elif after and deeds and deeds[-1].kind is EventKind.IN:
                    minutes = bake_min.get(after.stop)
                until = (
                    since + timedelta(minutes=minutes) if since and minutes is not None else None
                )
                found.append(
                    TrayStanding(
                        tray,
                        on.product,
                        pieces,
                        load[tray],
                        tuple(deeds),
                        after,
                        since,
                        until,
                        lost,
                    )
                )
        return tuple(found)


def proofed_min(worked: WorkedPlan, trays: Iterable[TrayStanding]) -> float | None:
    """How long the trays really rested after shaping, min on average; None while none is through."""
    shaped = next((s.key for s in worked.strip if s.do == "shape"), None)
    lasted = []
    for tray in trays:
        at = {(d.kind, d.stop): d.at for d in tray.deeds}
        began = at.get((EventKind.DONE, shaped or ""))
        ended = at.get((EventKind.OUT, shaped or ""))
        if began and ended:
            lasted.append((ended - began) / timedelta(minutes=1))
    return sum(lasted) / len(lasted) if lasted else None


_SAID = {EventKind.DONE: "done", EventKind.OUT: "out of its rest", EventKind.IN: "in the oven"}


def _said(step: TrayStep, names: Mapping[str, str]) -> str:
    return f"{_SAID[step.kind]} ({names.get(step.stop, step.stop)})"


def admit_tray(
    trays: Iterable[TrayStanding], ready: bool, new: Event, names: Mapping[str, str]
) -> None:
    """Check that a tray's step can happen now. ``ready``: all that comes before the trays is done.

    Raises :class:`Faults` naming ``tray`` or ``stop``.
    """
    standing = next((t for t in trays if t.tray == new.tray), None)
    if standing is None:
        raise Faults(Fault("tray", f"This dough has no tray {new.tray}."))
    if not ready:
        raise Faults(Fault("stop", "The sheet is not cut yet."))
    if standing.lost:
        raise Faults(Fault("tray", f"Tray {new.tray} is lost. Undo that to go on with it."))
    if new.kind is EventKind.LOST:
        if standing.next is None:
            raise Faults(Fault("tray", f"Tray {new.tray} is through already."))
        return
    wanted = standing.next
    if any(d.kind is new.kind and d.stop == new.stop for d in standing.deeds):
        said = _said(TrayStep(new.kind, new.stop or ""), names)
        raise Faults(Fault("tray", f"Tray {new.tray} is already {said}."))
    if wanted is None or (wanted.kind, wanted.stop) != (new.kind, new.stop):
        first = _said(wanted, names) if wanted else "nothing more"
        raise Faults(Fault("stop", f"Tray {new.tray} has first to be {first}."))
