"""Shaping cards and kitchens as files, with the pictures that belong to them."""

from __future__ import annotations

import base64
import hashlib
import json
from collections.abc import Iterable
from dataclasses import replace
from typing import Any

from bakehouse.documents import dump, json_of, read, read_kitchen
from bakehouse.kitchen.models import CardPicture
from bakehouse.pictures import small_jpeg
from lamination.kitchen import Kitchen, OwnCard
from lamination.terms import Fault, Faults

KITCHEN_FORMAT, CARD_FORMAT = "eight-turn/kitchen", "eight-turn/card"
LARGEST_FILE = 20_000_000  # bytes, with pictures
LONGEST_SIDE = 640  # pixels: a step is seen in the breadth of a hand


def keep_picture(content: bytes) -> str:
    """Keep a picture, made small; the name it is kept under. Raises :class:`Faults`: no picture."""
    jpeg = small_jpeg(content, LONGEST_SIDE)
    key = hashlib.sha256(jpeg).hexdigest()[:40]
    CardPicture.objects.get_or_create(key=key, defaults={"jpeg": jpeg})
    return key


def look_for_pictures(cards: Iterable[OwnCard]) -> None:
    """Raise :class:`Faults` for a card that shows a picture nobody sent."""
    wanted = {
        shown.picture: f"cards[{i}].pictures[{j}].picture"
        for i, card in enumerate(cards)
        for j, shown in enumerate(card.pictures)
    }
    there = set(CardPicture.objects.filter(key__in=wanted).values_list("key", flat=True))
    missing = [path for key, path in wanted.items() if key not in there]
    if missing:
        raise Faults(*(Fault(path, "There is no such picture. Send it first.") for path in missing))


def card_file(card: OwnCard) -> str:
    """A card as a file, its pictures in it."""
    return _written({"format": CARD_FORMAT, "version": 1, "card": dump(card)}, [card])


def kitchen_file(kitchen: Kitchen) -> str:
    """A whole kitchen as a file, the pictures of its cards in it."""
    return _written({"format": KITCHEN_FORMAT} | dump(kitchen), kitchen.cards)


def _written(what: dict[str, Any], cards: Iterable[OwnCard]) -> str:
    keys = {shown.picture for card in cards for shown in card.pictures}
    kept = CardPicture.objects.filter(key__in=keys).order_by("key")
    pictures = {p.key: base64.b64encode(bytes(p.jpeg)).decode() for p in kept}
    return json.dumps(what | {"pictures": pictures}, indent=1, ensure_ascii=False)


def read_card_file(content: bytes) -> OwnCard:
    """The card in a file; its pictures are kept. Raises :class:`Faults`: no card, or a field of it."""
    data = json_of(content, "shaping card")
    if data.get("format") != CARD_FORMAT:
        raise Faults(Fault("format", f'A shaping card\'s file says "format": "{CARD_FORMAT}".'))
    return _with_pictures(read(OwnCard, data.get("card")), data.get("pictures"))


def read_kitchen_file(content: bytes) -> Kitchen:
    """The kitchen in a file; its pictures are kept. Raises :class:`Faults`: no kitchen, or a field."""
    data = json_of(content, "kitchen")
    if data.pop("format", None) != KITCHEN_FORMAT:
        raise Faults(Fault("format", f'A kitchen file says "format": "{KITCHEN_FORMAT}".'))
    pictures = data.pop("pictures", None)
    kitchen = read_kitchen(data)
    return replace(kitchen, cards=tuple(_with_pictures(c, pictures) for c in kitchen.cards))


def _with_pictures(card: OwnCard, pictures: Any) -> OwnCard:
    """The card with its pictures under the names they have here; those that did not come are left out."""
    came = pictures if isinstance(pictures, dict) else {}
    shown = []
    for one in card.pictures:
        if isinstance(came.get(one.picture), str):
            at = f"pictures.{one.picture}"
            try:
                content = base64.b64decode(came[one.picture], validate=True)
            except ValueError:
                text = "This picture is damaged and cannot be read."
                raise Faults(Fault(at, text)) from None
            try:
                shown.append(replace(one, picture=keep_picture(content)))
            except Faults as wrong:
                raise Faults(*(Fault(at, f.message) for f in wrong.faults)) from None
    return replace(card, pictures=tuple(shown))
