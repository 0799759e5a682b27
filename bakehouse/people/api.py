"""Signing in and out, and what a person likes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.contrib.auth.models import User
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Body, Router
from ninja.utils import check_csrf

from bakehouse.people.doors import closed
from bakehouse.people.lockout import not_too_often
from bakehouse.people.models import Preferences
from bakehouse.people.roles import Role, role_of, signed_in, user_of
from lamination.terms import Fault, Faults

router = Router(tags=["people"])


@dataclass
class Likes:
    """Units, the vocabulary of folds, and which count leads."""

    units: Literal["metric", "imperial"] = "metric"
    folds: Literal["letter", "single"] = "letter"
    counts: Literal["butter", "leaves"] = "butter"


@dataclass
class Me:
    username: str
    role: Role
    likes: Likes


@dataclass
class DemoAccount:
    username: str
    password: str
    role: Role


@dataclass
class Session:
    """Who is signed in, if anybody; the bakery's time zone; demo accounts while the demo runs.

    ``nobody_yet``: the house is new, and its first head baker is still to come.
    """

    me: Me | None
    time_zone: str
    demo_accounts: list[DemoAccount]
    nobody_yet: bool = False


@dataclass
class Credentials:
    username: str
    password: str


def _session(request: HttpRequest) -> Session:
    get_token(request)  # makes sure the CSRF cookie is set
    me = None
    if request.user.is_authenticated:
        user = user_of(request)
        likes, _ = Preferences.objects.get_or_create(user=user)
        me = Me(
            user.get_username(),
            role_of(user),
            Likes(likes.units, likes.folds, likes.counts),  # type: ignore[arg-type]
        )
    demo = []
    if settings.DEMO:
        demo = [
            DemoAccount("wren", "towpath-head", "head"),
            DemoAccount("tansy", "towpath-bench", "bench"),
        ]
    nobody_yet = me is None and not settings.DEMO and not User.objects.exists()
    return Session(me, settings.TIME_ZONE, demo, nobody_yet)


@router.get("/session", auth=None, response=Session)
def who_is_here(request: HttpRequest) -> Session:
    return _session(request)


@router.post("/session", auth=None, response=Session)
def sign_in(request: HttpRequest, credentials: Body[Credentials]) -> Any:
    refused = check_csrf(request)
    if refused:
        return refused
    if closed():
        text = (
            "This is a demo house: everybody knows its passwords. Start it with make demo, or begin a "
            "house of your own in another DATA_DIR."
        )
        raise Faults(Fault("password", text))
    not_too_often(request)
    user = authenticate(request, username=credentials.username, password=credentials.password)
    if user is None:
        raise Faults(Fault("password", "This name and password do not belong together."))
    login(request, user)
    return _session(request)


@router.delete("/session", auth=signed_in, response=Session)
def sign_out(request: HttpRequest) -> Session:
    logout(request)
    return _session(request)


@router.put("/session/likes", auth=signed_in, response=Session)
def like(request: HttpRequest, likes: Body[Likes]) -> Session:
    Preferences.objects.update_or_create(
        user=user_of(request),
        defaults={"units": likes.units, "folds": likes.folds, "counts": likes.counts},
    )
    return _session(request)
