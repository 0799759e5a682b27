"""Where the kitchen is kept."""

from bakehouse.documents import read
from bakehouse.kitchen.models import KitchenRecord
from lamination.kitchen import Kitchen
from lamination.practice import DEFAULTS


def the_kitchen() -> Kitchen:
    """This bakery's kitchen; the plain table of practice until something was changed."""
    record = KitchenRecord.objects.filter(pk=1).first()
    return stored_kitchen(record.yours) if record else Kitchen()


def stored_kitchen(yours: dict[str, float]) -> Kitchen:
    """A kitchen kept earlier: defaults that the table has no more are left behind with it."""
    return read(Kitchen, {"yours": {k: v for k, v in yours.items() if k in DEFAULTS}})


def keep_kitchen(kitchen: Kitchen) -> None:
    """Keep what this bakery changed."""
    KitchenRecord.objects.update_or_create(pk=1, defaults={"yours": dict(kitchen.yours)})
