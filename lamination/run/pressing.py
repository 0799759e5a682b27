"""What presses most at a dough: the tray, or the dough, whose time is up first."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from lamination.run.standing import Phase, Standing


@dataclass(frozen=True, slots=True)
class Pressing:
    """At which stop, when its time is up, and which tray; None where it is the whole dough."""

    stop: str
    at: datetime
    tray: int | None = None


def pressing(now: Standing) -> Pressing | None:
    """The tray that proofs, bakes or cools and is ready first, or else the dough at rest.

    None where nothing waits: then it is under the hands, or over.
    """
    if now.phase in (Phase.FINISHED, Phase.GIVEN_UP):
        return None
    waiting = [
        Pressing(t.next.stop, t.until, t.tray)
        for t in now.trays
        if t.next and t.until and not t.lost
    ]
    if waiting:
        return min(waiting, key=lambda p: p.at)
    if now.phase is Phase.REST and now.until and now.stop:
        return Pressing(now.stop, now.until)
    return None
