"""Where the kitchen is kept."""

from bakehouse.documents import read
from bakehouse.kitchen.models import KitchenRecord
from lamination.kitchen import Kitchen


def the_kitchen() -> Kitchen:
    """This bakery's kitchen; the plain table of practice until something was changed."""
    record = KitchenRecord.objects.filter(pk=1).first()
    return read(Kitchen, {"yours": record.yours}) if record else Kitchen()


def keep_kitchen(kitchen: Kitchen) -> None:
    """Keep what this bakery changed."""
    KitchenRecord.objects.update_or_create(pk=1, defaults={"yours": dict(kitchen.yours)})
