"""The cold store: blocks that were put away, what happens to them, when one is to be taken out."""

from lamination.dough.keeping import Holds, Keeping, keeping
from lamination.store.block import Block
from lamination.store.changes import BlockChange, ChangeKind
from lamination.store.offers import Offer, PuttingAway, Which, offers, put_away
from lamination.store.scrap import ToUse, trimmings_for
from lamination.store.standing import (
    Gone,
    Ledger,
    StoreStanding,
    Told,
    WantedAt,
    admit,
    stand,
    state_of,
    thrown,
    what_it_is,
)
from lamination.store.stock import Count, Need, Stocked, stock
from lamination.store.thawing import THAW_FORMAT, Thaw, Thawing, ThawWarm, thaw

__all__ = [
    "THAW_FORMAT", "Block", "BlockChange", "ChangeKind", "Count", "Gone", "Holds", "Keeping", "Ledger",
    "Need", "Offer", "PuttingAway", "Stocked", "StoreStanding", "Thaw", "ThawWarm", "Thawing", "ToUse",
    "Told", "WantedAt", "Which", "admit", "keeping", "offers", "put_away", "stand", "state_of", "stock",
    "thaw", "thrown", "trimmings_for", "what_it_is",
]  # fmt: skip
