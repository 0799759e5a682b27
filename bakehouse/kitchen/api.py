"""The table of practice as it is in force here, and changing it; the words of the trade."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from datetime import datetime
from functools import cache, lru_cache
from typing import Annotated, Any

from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Body, File, Router
from ninja.files import UploadedFile

from bakehouse.documents import Constant, as_download, read_kitchen
from bakehouse.kitchen.card_files import (
    LARGEST_FILE,
    kitchen_file,
    look_for_pictures,
    read_kitchen_file,
)
from bakehouse.kitchen.models import DayClimate
from bakehouse.kitchen.shelf import (
    climate,
    keep_kitchen,
    kitchen_record,
    merged,
    the_kitchen,
    the_kitchen_at,
)
from bakehouse.people.roles import head_only, signed_in, user_of
from bakehouse.records import VersionLine, version_lines
from lamination.day import Weekday
from lamination.dough import Development, Liquid, PrefermentKind
from lamination.dough.weighing import OLD_DOUGH
from lamination.files import preparations_csv, read_preparations_csv
from lamination.findings import Finding
from lamination.kitchen import Default, Fixture, Kitchen, LabelPart, OwnCard, Part, Room, Sign, Spot
from lamination.materials import (
    LIBRARY,
    Allergen,
    Care,
    FromLabel,
    Ingredient,
    MadeWhen,
    PacketLabel,
    Preparation,
    Strength,
    from_label,
)
from lamination.materials import Kind as Ingredients
from lamination.pieces import Addition, Card, Colour, Oven, Shape, Wash
from lamination.search import Wish
from lamination.steps import KINDS, ButterState, Chapter, Gathered, Strewn
from lamination.store import Holds, Which
from lamination.terms import (
    GLOSSARY,
    Checked,
    Chilled,
    Family,
    Fault,
    Faults,
    Fold,
    Method,
    Place,
    Range,
    Surface,
    Term,
    Tool,
    Worded,
    ranges,
)
from lamination.warmth import GROUNDS, Cause, Grounds

router = Router(tags=["kitchen"])

_WORDED: dict[str, type[Worded]] = {
    "family": Family, "fold": Fold, "method": Method, "place": Place, "surface": Surface,
    "chilled": Chilled, "tool": Tool, "shape": Shape, "card": Card, "wash": Wash, "oven": Oven,
    "label_part": LabelPart,
    "colour": Colour, "development": Development, "preferment": PrefermentKind, "kind": Ingredients,
    "allergen": Allergen, "strength": Strength, "addition": Addition, "wish": Wish, "chapter": Chapter,
    "strewn": Strewn, "butter_state": ButterState,
    "gathered": Gathered, "part": Part, "liquid": Liquid, "fixture": Fixture, "cause": Cause,
    "weekday": Weekday, "made": MadeWhen, "care": Care, "holds": Holds, "finding": Finding, "which": Which,
}  # fmt: skip


@dataclass
class KitchenView:
    """The whole table with its origins, what is this bakery's own, and every ingredient there is.

    ``butters``: keys of what can be locked in; ``usual``: of the one that new plans lock in.
    ``prepared``: what its preparations are, as ingredients.
    """

    revision: int
    table: list[Default]
    yours: dict[str, float]
    ingredients: list[Ingredient]
    library: list[Ingredient]
    cards: list[OwnCard]
    butters: list[str]
    usual: str
    room: Room
    preparations: list[Preparation]
    prepared: list[Ingredient]
    sign: Sign
    dial: list[float]


@dataclass
class SaveKitchen:
    """A kitchen made from ``revision``; of what is None, that of the house stays."""

    revision: int
    yours: dict[str, float]
    ingredients: list[Ingredient]
    cards: list[OwnCard] | None = None
    spots: list[Spot] | None = None
    preparations: list[Preparation] | None = None
    sign: Sign | None = None
    dial: list[float] | None = None


@dataclass
class Word:
    """A choice and the name people read."""

    value: str
    said: str


@dataclass
class StepKind:
    """A kind of step that can be added: its name, where it belongs, how often it may stand in a plan."""

    do: str
    name: str
    chapter: Chapter
    most: int
    takes: list[str]
    leaves: str | None
    needed: bool


@dataclass
class TradeWords:
    """Every choice of the trade with its name, the kinds of step, the limits of their numbers, and what
    marks and clocks are got from. ``old_dough``: the key of the line that trimmings are weighed as.
    """

    words: dict[str, list[Word]]
    steps: list[StepKind]
    multiplies: dict[str, int]
    margins: list[str]
    blocks: list[str]
    squares: list[str]
    round_shapes: list[str]
    tall_shapes: list[str]
    limits: dict[str, dict[str, tuple[float, float]]]
    grounds: dict[str, Grounds]
    old_dough: str


def view_of(kitchen: Kitchen, revision: int) -> KitchenView:
    """A kitchen as the screens read it."""
    everything = [*LIBRARY, *kitchen.ingredients]
    return KitchenView(
        revision,
        list(kitchen.table()),
        dict(kitchen.yours),
        list(kitchen.ingredients),
        list(LIBRARY),
        list(kitchen.cards),
        [what.key for what in everything if what.locks_in],
        kitchen.butter,
        kitchen.room(),
        list(kitchen.preparations),
        [i for i in kitchen.shelf if i.kind is Ingredients.PREPARED],
        kitchen.sign,
        list(kitchen.dial),
    )


def _view() -> KitchenView:
    return view_of(*the_kitchen_at())


@router.get("/kitchen", auth=signed_in, response=KitchenView)
def look(request: HttpRequest) -> HttpResponse:
    record = kitchen_record()
    text = json.dumps(record.document) if record else "{}"
    return _written(text, record.revision if record else 0).answer(request)


@lru_cache(maxsize=2)
def _written(text: str, revision: int) -> Constant:
    """The kitchen as it was last asked for: hardly ever changed, and asked for by every page."""
    return Constant.of(KitchenView, view_of(read_kitchen(json.loads(text)), revision))


@router.put("/kitchen", auth=head_only, response=KitchenView)
def change(request: HttpRequest, save: Body[SaveKitchen]) -> KitchenView:
    """Keep what was changed; what others changed meanwhile stays theirs."""
    with transaction.atomic():
        now = the_kitchen()
        cards = now.cards if save.cards is None else tuple(save.cards)
        spots = now.spots if save.spots is None else tuple(save.spots)
        made = now.preparations if save.preparations is None else tuple(save.preparations)
        look_for_pictures(cards)
        sign = now.sign if save.sign is None else save.sign
        dial = now.dial if save.dial is None else tuple(save.dial)
        kitchen = Kitchen(save.yours, tuple(save.ingredients), cards, spots, made, sign, dial)
        merged(kitchen, save.revision, user_of(request))
        return _view()


@dataclass
class Climate:
    """How warm it is today, °C, as somebody of the house said; nothing where nobody did."""

    room_c: float | None
    fridge_c: float | None
    by: str | None
    at: datetime | None


@dataclass(frozen=True)
class SayClimate(Checked):
    """How warm it is today, °C; None: as the kitchen's table has it."""

    room_c: Annotated[float, Range(8, 38, "°C")] | None = None
    fridge_c: Annotated[float, Range(0, 14, "°C")] | None = None


@router.get("/climate", auth=signed_in, response=Climate)
def climate_today(request: HttpRequest) -> Climate:
    said = climate()
    if said is None:
        return Climate(None, None, None, None)
    by = said.said_by.get_username() if said.said_by else None
    return Climate(said.room_c, said.fridge_c, by, said.said_at)


@router.put("/climate", auth=signed_in, response=Climate)
def say_climate(request: HttpRequest, said: Body[SayClimate]) -> Climate:
    """Say how warm it is today: plans, benches and records of today are judged by it on every screen."""
    DayClimate.objects.update_or_create(
        day=timezone.localdate(),
        defaults={
            "room_c": said.room_c,
            "fridge_c": said.fridge_c,
            "said_by": user_of(request),
        },
    )
    return climate_today(request)


@router.get("/kitchen/file", auth=signed_in)
def download_kitchen(request: HttpRequest) -> HttpResponse:
    """The whole kitchen as a file: its own values, ingredients and cards, and where its things stand."""
    return as_download(kitchen_file(the_kitchen()), "application/json", "kitchen", "kitchen.json")


@router.post("/kitchen/file", auth=head_only, response=KitchenView)
def upload_kitchen(request: HttpRequest, file: File[UploadedFile]) -> KitchenView:
    """A kitchen from a file in place of this one; the one before is among its earlier versions."""
    if (file.size or 0) > LARGEST_FILE:
        raise Faults(Fault("", "This file is too large to be a kitchen."))
    keep_kitchen(read_kitchen_file(file.read()), user_of(request))
    return _view()


@router.get("/kitchen/preparations.csv", auth=signed_in)
def download_preparations(request: HttpRequest) -> HttpResponse:
    """What the house prepares, as rows for a spreadsheet."""
    content = preparations_csv(the_kitchen().preparations)
    return as_download(content, "text/csv", "preparations", "csv")


@router.post("/kitchen/preparations/csv", auth=head_only, response=KitchenView)
def upload_preparations(request: HttpRequest, file: File[UploadedFile]) -> KitchenView:
    """Preparations from a table: those of a name that is here take its place, the others are added."""
    if (file.size or 0) > LARGEST_FILE:
        raise Faults(Fault("", "This file is too large to be a table of preparations."))
    try:
        read = read_preparations_csv(file.read().decode("utf-8-sig"))
    except UnicodeDecodeError:
        raise Faults(Fault("", "This file is not text, so it is no table.")) from None
    with transaction.atomic():
        now = the_kitchen()
        new = {p.key: p for p in read}
        kept = [new.pop(p.key, p) for p in now.preparations]
        keep_kitchen(replace(now, preparations=(*kept, *new.values())), user_of(request))
    return _view()


@dataclass
class ReadLabel:
    """A packet's label, and an ingredient that is like what is in it."""

    label: PacketLabel
    like: Ingredient


@router.post("/kitchen/label", auth=signed_in, response=FromLabel)
def read_label(request: HttpRequest, asked: Body[ReadLabel]) -> FromLabel:
    """What an ingredient is made of, by its packet; nothing is kept."""
    try:
        return from_label(asked.label, asked.like)
    except Faults as wrong:
        raise Faults(*(f.under("label") for f in wrong.faults)) from None


@router.get("/kitchen/versions", auth=signed_in, response=list[VersionLine])
def kitchen_versions(request: HttpRequest) -> list[VersionLine]:
    record = kitchen_record()
    return version_lines(record) if record else []


@router.post("/kitchen/versions/{int:revision}/restore", auth=head_only, response=KitchenView)
def restore_kitchen(request: HttpRequest, revision: int) -> KitchenView:
    """The kitchen as it was; that is one more change, and can be undone like any."""
    record = kitchen_record()
    document: Any = record.version(revision) if record else None
    if document is None:
        raise Http404("That version is no longer kept.")
    keep_kitchen(read_kitchen(document), user_of(request))
    return _view()


@router.get("/trade", auth=signed_in, response=TradeWords)
def trade(request: HttpRequest) -> HttpResponse:
    return _trade().answer(request)


@cache
def _trade() -> Constant:
    return Constant.of(TradeWords, trade_words())


@router.get("/glossary", auth=signed_in, response=list[Term])
def glossary(request: HttpRequest) -> HttpResponse:
    """What the words of the trade mean, and what else they are called."""
    return _glossary().answer(request)


@cache
def _glossary() -> Constant:
    names = {f"step.{kind.do}": kind.name for kind in KINDS.values()}
    names |= {f"{of}.{word.value}": word.said for of in ("fold", "method") for word in _WORDED[of]}
    terms = [replace(term, name=names.get(term.key, term.name)) for term in GLOSSARY]
    return Constant.of(list[Term], terms)


def trade_words() -> TradeWords:
    """The names of everything one chooses from, and the kinds of step: the same for everybody."""
    return TradeWords(
        {name: [Word(w.value, w.said) for w in of] for name, of in _WORDED.items()},
        [
            StepKind(k.do, k.name, k.chapter, int(k.often), sorted(k.takes),
                     k.leaves.value if k.leaves else None, k.needed)
            for k in KINDS.values()
        ],
        {fold.value: fold.multiplies for fold in Fold},
        [m.value for m in Method if m.has_margin],
        [m.value for m in Method if m.has_block],
        [m.value for m in Method if m.is_square],
        [s.value for s in Shape if s.is_round],
        [s.value for s in Shape if s.has_height],
        {k.do: ranges(k.of) for k in KINDS.values()},
        dict(GROUNDS),
        OLD_DOUGH,
    )  # fmt: skip
