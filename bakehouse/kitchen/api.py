"""The table of practice as it is in force here, and changing it."""

from __future__ import annotations

from dataclasses import dataclass

from django.http import HttpRequest
from ninja import Body, Router

from bakehouse.kitchen.shelf import keep_kitchen, the_kitchen
from bakehouse.people.roles import head_only, signed_in
from lamination.kitchen.kitchen import Kitchen
from lamination.kitchen.practice import Default
from lamination.materials.ingredients import LIBRARY, Ingredient

router = Router(tags=["kitchen"])


@dataclass
class KitchenView:
    """The whole table with its origins, what is this bakery's own, and every ingredient there is."""

    table: list[Default]
    yours: dict[str, float]
    ingredients: list[Ingredient]
    library: list[Ingredient]


def _view() -> KitchenView:
    kitchen = the_kitchen()
    return KitchenView(
        list(kitchen.table()), dict(kitchen.yours), list(kitchen.ingredients), list(LIBRARY)
    )


@router.get("/kitchen", auth=signed_in, response=KitchenView)
def look(request: HttpRequest) -> KitchenView:
    return _view()


@router.put("/kitchen", auth=head_only, response=KitchenView)
def change(request: HttpRequest, kitchen: Body[Kitchen]) -> KitchenView:
    keep_kitchen(kitchen)
    return _view()
