"""Trimmings on their way into the next dough: those of its family, the oldest first."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from lamination.dough.keeping import Holds
from lamination.store.block import Block
from lamination.store.standing import HAIR_G, StoreStanding
from lamination.terms.trade import Family


@dataclass(frozen=True, slots=True)
class ToUse:
    """So much of a block that is to go into a dough, g, and the butter of it."""

    block: str
    grams: float
    butter_g: float


def trimmings_for(
    family: Family, needed_g: float, there: Iterable[tuple[Block, StoreStanding]]
) -> tuple[ToUse, ...]:
    """What of the trimmings that lie there goes into a dough that takes so much: of its family, what is to be
    used first, up to what it takes. Source: practice, the oldest first.
    """
    fits = [
        (block, now)
        for block, now in there
        if block.holds is Holds.TRIMMINGS and block.family is family and now.gone is None
    ]
    found = []
    for block, now in sorted(fits, key=lambda one: (one[1].best_before, one[0].since)):
        grams = min(now.grams, needed_g)
        if grams <= HAIR_G:
            break
        found.append(ToUse(block.id, grams, now.butter_g * grams / now.grams))
        needed_g -= grams
    return tuple(found)
