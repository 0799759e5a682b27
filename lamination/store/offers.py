"""What of a dough can be put away at each of its steps, and how long it would keep."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Annotated

from lamination.dough.keeping import Holds, Keeping, keeping
from lamination.kitchen.kitchen import Kitchen
from lamination.plan import Plan, Walk, walk
from lamination.steps import Form, Made, contents_at, lying
from lamination.store.block import Block, Shelf, cold
from lamination.terms.limits import Checked, Fault, Faults, Length, Range, raise_if
from lamination.terms.sizes import Grams, Size
from lamination.terms.trade import Family, Place, Worded

_HOLDS = {
    Form.DOUGH: Holds.DOUGH,
    Form.PACKAGE: Holds.DOUGH,
    Form.SHEET: Holds.DOUGH,
    Form.PIECES: Holds.RAW,
    Form.SHAPED: Holds.RAW,
    Form.BAKED: Holds.BAKED,
}


class Which(Worded):
    """Which of what there is at a step."""

    WHOLE = "whole", "all of it"
    OTHER = "other", "the other part"
    TRIMMINGS = "trimmings", "the trimmings"


@dataclass(frozen=True, slots=True)
class Offer:
    """Something of a dough that can be put away after a step.

    ``which``: all that lies there, the other part of what was divided, or its trimmings. ``put``: where
    the plan puts it, None where it says nothing. ``next_step``: what is done with it next. ``fridge`` and
    ``freezer``: how long it would keep there.
    """

    stop: str
    name: str
    which: Which
    holds: Holds
    grams: float
    butter_g: float
    turns: int
    pieces: int | None
    size: Size | None
    next_step: str
    put: Place | None
    contains: str
    fridge: Keeping
    freezer: Keeping


def offers(plan: Plan, kitchen: Kitchen) -> tuple[Offer, ...]:
    """What of a plan's dough can be put away, in the order of its steps. Raises Faults as ``walk`` does."""
    return tuple(_offers(walk(plan, kitchen), kitchen))


def _offers(found: Walk, kitchen: Kitchen) -> Iterator[Offer]:
    for n, made in enumerate(found.made):
        holds = _HOLDS.get(made.lies.form)
        following = found.names[n + 1] if n + 1 < len(found.names) else ""
        if holds and not made.handling.apart:
            mass, butter = _mass(found, n)
            if mass > 1:
                yield _offer(found, n, Which.WHOLE, holds, mass, butter, following, kitchen)
        if made.put:
            put = made.put
            yield _offer(
                found, n, Which.OTHER, Holds.DOUGH, put.grams, put.butter_g, following, kitchen,
                put.place,
            )  # fmt: skip
        if made.saved and made.saved.grams > 1:
            saved = made.saved
            yield _offer(
                found, n, Which.TRIMMINGS, Holds.TRIMMINGS, saved.grams, saved.butter_g, "", kitchen
            )


def _offer(
    found: Walk, n: int, which: Which, holds: Holds, grams: float, butter_g: float, following: str,
    kitchen: Kitchen, put: Place | None = None,
) -> Offer:  # fmt: skip
    here, lies, family = found.here(n), found.made[n].lies, found.plan.family
    products = lies.of_cut[0].products if lies.of_cut else ()
    filled = any(p.filling for p in products)
    oils = None if found.recipe.butterless else found.recipe.window.oils_c
    of = (kitchen, oils, filled)
    whole = which is Which.WHOLE
    return Offer(
        stop=found.plan.steps[n].id,
        name=found.names[n],
        which=which,
        holds=holds,
        grams=round(grams, 1),
        butter_g=round(butter_g, 1),
        turns=lies.turns,
        pieces=_pieces(found.made[n]) if whole and holds in (Holds.RAW, Holds.BAKED) else None,
        size=lies.size if whole else None,
        next_step=following,
        put=put,
        contains=contents_at(here).declared(),
        fridge=keeping(holds, family, Place.FRIDGE, *of),
        freezer=keeping(holds, family, Place.FREEZER, *of),
    )


def _pieces(made: Made) -> int | None:
    products = made.lies.of_cut[1].products if made.lies.of_cut else ()
    return sum(p.pieces for p in products) or None


def _mass(found: Walk, n: int) -> tuple[float, float]:
    """What lies there after a step, g, and the butter of it."""
    lies, recipe = found.made[n].lies, found.recipe
    if lies.of_cut:
        products = lies.of_cut[1].products
        mass = sum(p.piece_g * p.pieces for p in products)
        return mass, mass * recipe.butter_of_whole
    if lies.sheet is None:
        return recipe.dough.mass_g, 0.0
    mass, butter = lying(lies, recipe)
    return mass + lies.carried_g, butter


@dataclass(frozen=True)
class PuttingAway(Checked):
    """Something to be put away; ``id`` is made by the tablet. Of a dough under way ``run``, ``stop`` and
    ``which`` say what it is; else what it holds, its family and its name are said. Without a weight it is
    all there is, without a date as long as such a thing keeps.
    """

    id: Annotated[str, Length(8, 64, "characters")]
    at: datetime
    place: Place
    shelf: Shelf = 1
    run: str | None = None
    stop: str | None = None
    which: Which = Which.WHOLE
    holds: Holds = Holds.DOUGH
    name: Annotated[str, Length(0, 80, "characters")] = ""
    family: Family = Family.CROISSANT
    grams: Grams | None = None
    turns: Annotated[int, Range(0, 24)] = 0
    pieces: Annotated[int, Range(1, 5_000)] | None = None
    next_step: Annotated[str, Length(0, 80, "characters")] = ""
    best_before: datetime | None = None
    lots: Annotated[str, Length(0, 200, "characters")] = ""

    def __post_init__(self) -> None:
        super().__post_init__()
        faults = cold(self.place)
        if self.at.utcoffset() is None:
            faults.append(Fault("at", "The time must say its time zone."))
        if self.run is None:
            if not self.name.strip():
                faults.append(Fault("name", "What is it? Give it a name."))
            if self.grams is None:
                faults.append(Fault("grams", "How much is it? Weigh it."))
        raise_if(faults)


UNKNOWN = "Allergens not known here; ask the baker."


def put_away(
    said: PuttingAway, kitchen: Kitchen, of: tuple[str, Plan, tuple[Offer, ...]] | None = None
) -> Block:
    """The block that comes of it. ``of``: the name of the dough under way, its plan, and what it offers.

    Raises Faults where the dough offers no such thing, or not as much of it.
    """
    if of is None:
        family, butter = said.family, None
        keeps = [
            keeping(said.holds, family, p, kitchen, butter) for p in (said.place, Place.FRIDGE)
        ]
        return Block(
            id=said.id, holds=said.holds, name=said.name.strip(), grams=said.grams or 0.0,
            place=said.place, since=said.at, shelf=said.shelf, family=family, turns=said.turns,
            best_before=said.best_before or said.at + timedelta(hours=keeps[0].hours),
            fridge_h=keeps[1].hours, pieces=said.pieces, next_step=said.next_step, lots=said.lots,
            butter_g=(said.grams or 0.0) if said.holds is Holds.BUTTER else 0.0, contains=UNKNOWN,
        )  # fmt: skip
    name, plan, there = of
    offer = next((o for o in there if o.stop == said.stop and o.which == said.which), None)
    if offer is None:
        raise Faults(Fault("stop", "Nothing can be put away at this step."))
    grams = offer.grams if said.grams is None else said.grams
    if grams > offer.grams * _MORE + 1:
        text = f"The plan has {offer.grams:.0f} g there. Weigh it again, or enter it by hand."
        raise Faults(Fault("grams", text))
    share = grams / offer.grams
    keeps_there = offer.freezer if said.place is Place.FREEZER else offer.fridge
    pieces = said.pieces or (max(round(offer.pieces * share), 1) if offer.pieces else None)
    return Block(
        id=said.id, holds=offer.holds, name=said.name.strip() or name, grams=grams,
        place=said.place, since=said.at, shelf=said.shelf, family=plan.family, turns=offer.turns,
        best_before=said.best_before or said.at + timedelta(hours=keeps_there.hours),
        fridge_h=offer.fridge.hours, pieces=pieces, next_step=offer.next_step, lots=said.lots,
        butter_g=min(offer.butter_g * share, grams), contains=offer.contains, run=said.run,
        stop=said.stop, part=offer.which is Which.OTHER,
    )  # fmt: skip


_MORE = 1.15  # flour on the bench, and scales: so much more than the plan says is no mistake
