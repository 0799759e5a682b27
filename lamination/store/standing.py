"""Where a block stands: how much of it is left, where, until when; from an append-only list of changes."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta

from lamination.dough.keeping import Holds
from lamination.store.block import Block
from lamination.store.changes import BlockChange, ChangeKind
from lamination.terms.limits import Fault, Faults
from lamination.terms.said import c, counted, day_and_hour, g
from lamination.terms.trade import Place

HAIR_G = 0.05  # a part that weighs no more than that is nothing
_SAID = {
    ChangeKind.TAKEN: "taken out",
    ChangeKind.USED: "used up",
    ChangeKind.THROWN: "thrown away",
    ChangeKind.DIVIDED: "divided, all of it",
}


@dataclass(frozen=True, slots=True)
class Gone:
    """It is not there any more: how, when, by which change, and why or what for."""

    kind: ChangeKind
    at: datetime
    change: str
    why: str
    run: str | None = None


@dataclass(frozen=True, slots=True)
class WantedAt:
    """When it is to be ready, and where it thaws."""

    at: datetime
    by: Place
    why: str


@dataclass(frozen=True, slots=True)
class Told:
    """A change in words; ``undone``: it was taken back."""

    change: str
    at: datetime
    says: str
    undone: bool


@dataclass(frozen=True, slots=True)
class Ledger:
    """Where the grams of a block went; they add up: put = left + taken + used + thrown + divided - found.

    ``found_g``: what the scales said there was more than was booked (less: below 0).
    """

    put_g: float
    left_g: float
    taken_g: float = 0.0
    used_g: float = 0.0
    thrown_g: float = 0.0
    divided_g: float = 0.0
    found_g: float = 0.0


@dataclass(frozen=True, slots=True)
class StoreStanding:
    """Where a block stands after its changes.

    ``frozen``: it lies in the freezer; ``moved_at``: since when it lies where it lies; ``undoable``: the
    change that can be taken back.
    """

    grams: float
    butter_g: float
    pieces: int | None
    place: Place
    shelf: int
    best_before: datetime
    moved_at: datetime
    frozen: bool
    gone: Gone | None
    wanted: WantedAt | None
    probed_c: float | None
    probed_at: datetime | None
    history: tuple[Told, ...]
    undoable: str | None
    ledger: Ledger


def stand(block: Block, changes: Iterable[BlockChange]) -> StoreStanding:
    """Where a block stands after ``changes``, which were admitted (see :func:`admit`)."""
    said = tuple(changes)
    undone = {e.target for e in said if e.kind is ChangeKind.UNDO}
    left, place, shelf = block.grams, block.place, block.shelf
    best, moved = block.best_before, block.since
    gone: Gone | None = None
    wanted: WantedAt | None = None
    probed: tuple[float, datetime] | None = None
    booked: dict[ChangeKind, float] = {}
    for e in said:
        if e.id in undone or e.kind is ChangeKind.UNDO:
            continue
        if e.kind is ChangeKind.MOVED and e.place and e.shelf:
            if e.place is not place:
                moved, probed = e.at, None
                if e.place is Place.FRIDGE:
                    best = min(best, e.at + timedelta(hours=block.fridge_h))
            place, shelf = e.place, e.shelf
        elif e.kind is ChangeKind.WEIGHED and e.grams is not None:
            booked[e.kind] = booked.get(e.kind, 0.0) + e.grams - left
            left = e.grams
        elif e.kind is ChangeKind.DATED and e.until:
            best = e.until
        elif e.kind is ChangeKind.WANTED:
            wanted = WantedAt(e.until, e.by or Place.FRIDGE, e.why or "") if e.until else None
        elif e.kind is ChangeKind.PROBED and e.value_c is not None:
            probed = e.value_c, e.at
        elif e.kind in _SAID:
            part = left if e.grams is None else min(e.grams, left)
            booked[e.kind] = booked.get(e.kind, 0.0) + part
            left -= part
            if left <= HAIR_G or e.kind is ChangeKind.TAKEN:
                gone = Gone(e.kind, e.at, e.id, e.why or "", e.run)
    pieces = max(round(block.pieces * left / block.grams), 0) if block.pieces else None
    undoable = [e.id for e in said if e.kind is not ChangeKind.UNDO and e.id not in undone]
    return StoreStanding(
        grams=left, butter_g=block.butter_g * left / block.grams, pieces=pieces, place=place,
        shelf=shelf, best_before=best, moved_at=moved, frozen=place is Place.FREEZER, gone=gone,
        wanted=wanted, probed_c=probed[0] if probed else None,
        probed_at=probed[1] if probed else None,
        history=tuple(
            Told(e.id, e.at, told(e), e.id in undone) for e in said if e.kind is not ChangeKind.UNDO
        ),
        undoable=undoable[-1] if undoable else None,
        ledger=Ledger(
            block.grams, left, *(booked.get(kind, 0.0) for kind in (
                ChangeKind.TAKEN, ChangeKind.USED, ChangeKind.THROWN, ChangeKind.DIVIDED,
                ChangeKind.WEIGHED,
            )),
        ),
    )  # fmt: skip


def told(e: BlockChange) -> str:
    """A change in words."""
    why = f": {e.why}" if e.why else ""
    some = g(e.grams) if e.grams is not None else "all of it"
    match e.kind:
        case ChangeKind.MOVED:
            assert e.place is not None
            return f"Into the {e.place.said}, shelf {e.shelf}"
        case ChangeKind.DIVIDED:
            return f"Divided: {some} is a block of its own"
        case ChangeKind.TAKEN:
            return f"Taken out{why}"
        case ChangeKind.USED:
            return f"Used {some}{why}"
        case ChangeKind.THROWN:
            return f"Thrown away, {some}{why}"
        case ChangeKind.WEIGHED:
            return f"Weighed: {some}"
        case ChangeKind.DATED:
            assert e.until is not None
            return f"Best before put at {day_and_hour(e.until)}"
        case ChangeKind.WANTED:
            return f"Wanted at {day_and_hour(e.until)}{why}" if e.until else "Not wanted any more"
        case ChangeKind.PROBED:
            assert e.value_c is not None
            return f"Its middle is at {c(e.value_c)}"
        case ChangeKind.UNDO:
            return "Taken back"


def admit(
    block: Block,
    changes: tuple[BlockChange, ...],
    new: BlockChange,
    mark: str = "This",
    by: Mapping[str, str] | None = None,
    parts_touched: frozenset[str] = frozenset(),
) -> None:
    """Check that ``new`` can happen after ``changes``.

    ``mark``: what stands on its tag; ``by``: who said each change, by its id, so that whoever comes second
    is told who was first; ``parts_touched``: blocks cut off it that something was done with since. Raises
    :class:`Faults` with the field at fault.
    """
    now = stand(block, changes)
    if new.kind is ChangeKind.UNDO:
        if new.target != now.undoable:
            raise Faults(Fault("target", "Only the latest entry can be undone, and only once."))
        what = next(e for e in changes if e.id == new.target)
        if what.part in parts_touched:
            text = "The part that was cut off was used since. Put its weight right instead."
            raise Faults(Fault("target", text))
        return
    if now.gone:
        who = (by or {}).get(now.gone.change)
        how = f"{mark} was {_SAID[now.gone.kind]} at {day_and_hour(now.gone.at)}"
        raise Faults(
            Fault("kind", f"{how}{f' by {who}' if who else ''}. It is not there any more.")
        )
    if new.at < block.since - timedelta(minutes=5):
        text = f"That was before it was put away, at {day_and_hour(block.since)}."
        raise Faults(Fault("at", text))
    cut = new.kind in (ChangeKind.DIVIDED, ChangeKind.USED, ChangeKind.THROWN)
    if cut and new.grams is not None and new.grams > now.grams + HAIR_G:
        raise Faults(Fault("grams", f"There are only {g(now.grams)} of it."))
    if new.kind is ChangeKind.DIVIDED and new.grams and new.grams >= now.grams - HAIR_G:
        text = f"That is all of it. Less than {g(now.grams)} can be cut off."
        raise Faults(Fault("grams", text))
    if new.kind is ChangeKind.DATED and new.until and new.until <= block.since:
        raise Faults(Fault("until", "That is before it was put away."))
    if new.kind is ChangeKind.WANTED and new.until and new.until <= new.at:
        raise Faults(Fault("until", "That time is past. Say when it is to be ready."))


def state_of(block: Block, now: StoreStanding, at: datetime) -> str:
    """How it stands with its date, in words: "use today", "past its date", "6 days left"."""
    if now.gone:
        return _SAID[now.gone.kind]
    hours = (now.best_before - at) / timedelta(hours=1)
    if hours < 0:
        return "past its date"
    if hours < 24:
        return "use today"
    return f"{counted(int(hours // 24), 'day')} left"


def what_it_is(block: Block, now: StoreStanding) -> str:
    """What lies there, in a few words: three turns, forty raw pieces."""
    if block.holds is Holds.DOUGH:
        return counted(block.turns, "turn") if block.turns else "no turn yet"
    if now.pieces is not None:
        return f"{now.pieces} {block.holds.said}"
    return block.holds.said


def thrown(
    block: Block, changes: Iterable[BlockChange], since: datetime
) -> list[tuple[str, float]]:
    """What of a block was thrown away since a moment: why, and g, a pair each time."""
    said = tuple(changes)
    undone = {e.target for e in said if e.kind is ChangeKind.UNDO}
    kept = [e for e in said if e.id not in undone]
    found = []
    for n, e in enumerate(kept):
        if e.kind is ChangeKind.THROWN and e.at >= since:
            before = stand(block, kept[:n]).ledger.thrown_g
            found.append((e.why or "", stand(block, kept[: n + 1]).ledger.thrown_g - before))
    return found
