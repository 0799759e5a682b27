"""The house itself: where it is found in the network, whether tablets can trust it, which life it is in."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Literal

import segno
from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import Router

from bakehouse.authority import fingerprint_of
from bakehouse.life import Life, this_life
from bakehouse.people.roles import signed_in
from bakehouse.whereabouts import LOOPBACK

router = Router(tags=["house"])


@dataclass
class HouseView:
    """Where the house is found, the best address first; ``found``: by others than the machine itself.

    ``scan``: what a new tablet opens first. ``welcome``: the page that says how it learns to trust the
    house, with the beginning of its certificate's fingerprint, where the house speaks https itself.
    """

    addresses: list[str]
    found: bool
    https: Literal["none", "proxy", "house"]
    scan: str
    welcome: str | None
    fingerprint: str | None
    life: Life


def _view() -> HouseView:
    where = settings.WHERE
    https: Literal["none", "proxy", "house"] = "none"
    welcome = sign = None
    if settings.BEHIND_HTTPS:
        https = "proxy"
    elif where.welcome_port is not None:
        https = "house"
        welcome = where.welcome_at(where.best())
        sign = fingerprint_of(Path(settings.DATA_DIR) / "tls")
    addresses = where.addresses()
    found = any(host not in LOOPBACK for host in where.hosts)
    return HouseView(addresses, found, https, welcome or addresses[0], welcome, sign, this_life())


@router.get("/house", auth=signed_in, response=HouseView)
def house(request: HttpRequest) -> HouseView:
    return _view()


@router.get("/house/code.svg", auth=signed_in)
def code(request: HttpRequest) -> HttpResponse:
    """The first address that a new tablet opens, as a code to scan."""
    made = segno.make(_view().scan, error="m")
    return HttpResponse(made.svg_inline(scale=5, border=2, dark="#2b2420"), "image/svg+xml")
