"""Where the kitchen is kept."""

from typing import Any

from bakehouse.documents import dump, read
from bakehouse.kitchen.models import KitchenRecord
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import DEFAULTS

# Rows that stood under another name before.
_RENAMED = {"proof.room_c": "proofer.c", "proof.film": "proofer.film"}


def the_kitchen() -> Kitchen:
    """This bakery's kitchen; the plain table of practice until something was changed."""
    record = KitchenRecord.objects.filter(pk=1).first()
    return (
        stored_kitchen({"yours": record.yours, "ingredients": record.ingredients})
        if record
        else Kitchen()
    )


def stored_kitchen(document: dict[str, Any]) -> Kitchen:
    """A kitchen kept earlier: defaults that the table has no more are left behind with it."""
    kept = {_RENAMED.get(k, k): v for k, v in document.get("yours", {}).items()}
    yours = {k: v for k, v in kept.items() if k in DEFAULTS}
    return read(Kitchen, {**document, "yours": yours})


def keep_kitchen(kitchen: Kitchen) -> None:
    """Keep what this bakery changed."""
    KitchenRecord.objects.update_or_create(pk=1, defaults=dump(kitchen))
