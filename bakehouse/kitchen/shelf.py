"""Where the kitchen is kept."""

from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from bakehouse.documents import dump, read_kitchen
from bakehouse.kitchen.models import DayClimate, KitchenRecord
from lamination.kitchen import Kitchen

_ONLY = 1
# what is a list of things, and what each is known by
_BY = {"ingredients": "key", "cards": "key", "spots": "what", "preparations": "key"}


def kitchen_record() -> KitchenRecord | None:
    """The record, if anything was changed yet."""
    return KitchenRecord.objects.filter(pk=_ONLY).first()


def the_kitchen() -> Kitchen:
    """This bakery's kitchen; the plain table of practice until something was changed."""
    return the_kitchen_at()[0]


def the_kitchen_at() -> tuple[Kitchen, int]:
    """This bakery's kitchen, and its revision."""
    record = kitchen_record()
    return (read_kitchen(record.document), record.revision) if record else (Kitchen(), 0)


def keep_kitchen(kitchen: Kitchen, user: User | None) -> None:
    """Keep the kitchen as it is now, whatever it was."""
    with transaction.atomic():
        record = kitchen_record()
        if record is None:
            KitchenRecord.begun(dump(kitchen), user, pk=_ONLY)
        elif record.document != dump(kitchen):
            record.put(dump(kitchen), user)


def keep_rows(rows: dict[str, float], user: User | None) -> None:
    """Keep other values for some rows of the table."""
    with transaction.atomic():
        keep_kitchen(the_kitchen().changed(rows), user)


def climate() -> DayClimate | None:
    """What somebody said of today, if anybody did."""
    found = DayClimate.objects.filter(day=timezone.localdate()).select_related("said_by").first()
    return found if found and (found.room_c is not None or found.fridge_c is not None) else None


def as_today(kitchen: Kitchen) -> Kitchen:
    """A kitchen as warm as was said today."""
    said = climate()
    if said is None:
        return kitchen
    rows = {"room.c": said.room_c, "fridge.c": said.fridge_c}
    return kitchen.changed({key: value for key, value in rows.items() if value is not None})


def merged(wanted: Kitchen, revision: int, user: User | None) -> None:
    """Keep a kitchen that was made from ``revision``: what others changed since stays theirs.

    Row by row, ingredient by ingredient and card by card: of two people who change different ones both
    keep theirs; of two who change the same one the later has it.
    """
    with transaction.atomic():
        record = kitchen_record()
        if record is None or record.revision == revision:
            keep_kitchen(wanted, user)
            return
        base = record.version(revision) or {}
        now = record.document
        yours = _three_way(base.get("yours", {}), now.get("yours", {}), wanted.yours)
        mine, lists = dump(wanted), {}
        for name, key in _BY.items():
            of = [_by(key, document, name) for document in (base, now, mine)]
            lists[name] = list(_three_way(*of).values())
        signs = [document.get("sign", {}) for document in (base, now, mine)]
        sign = _three_way(*signs)
        whole = _three_way(*({"dial": document.get("dial", [])} for document in (base, now, mine)))
        keep_kitchen(read_kitchen({"yours": yours, **lists, "sign": sign, **whole}), user)


def _by(key: str, document: dict[str, Any], name: str) -> dict[str, Any]:
    return {what[key]: what for what in document.get(name, [])}


def _three_way(base: dict[str, Any], now: dict[str, Any], mine: dict[str, Any]) -> dict[str, Any]:
    made = dict(now)
    for key in {*base, *mine}:
        if mine.get(key) != base.get(key):
            if key in mine:
                made[key] = mine[key]
            else:
                made.pop(key, None)
    return made
