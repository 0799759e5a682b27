"""The people of the house: who they are, what they may do, their passwords; and the very first of them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any

from django.conf import settings
from django.contrib.auth import authenticate, login, password_validation, update_session_auth_hash
from django.contrib.auth.models import Group, User
from django.contrib.sessions.models import Session as SessionRecord
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Body, Router, Status
from ninja.utils import check_csrf

from bakehouse.kitchen.shelf import keep_rows, the_kitchen
from bakehouse.people.first import code_is, forget_code
from bakehouse.people.lockout import lift_locks, not_too_often
from bakehouse.people.roles import HEAD, Role, head_only, role_of, signed_in, user_of
from lamination.kitchen import Default
from lamination.terms import Checked, Fault, Faults, Length

router = Router(tags=["people"])
Name = Annotated[str, Length(1, 40, "characters")]
Password = Annotated[str, Length(1, 200, "characters")]


@dataclass
class Person:
    """Somebody of the house. ``number``: short, for a tablet that several use. ``here``: not put out."""

    number: int
    username: str
    role: Role
    here: bool


@dataclass(frozen=True)
class NewPerson(Checked):
    """Somebody to be let in: a name, a first password, and what they may do."""

    username: Name
    password: Password
    role: Role = "bench"


@dataclass(frozen=True)
class ChangePerson(Checked):
    """What is to be different of somebody; what is None stays."""

    role: Role | None = None
    here: bool | None = None
    password: Password | None = None


@dataclass(frozen=True)
class ChangePassword(Checked):
    """One's own password: the one that was, and the one that is to be."""

    old: Password
    new: Password


@dataclass(frozen=True)
class First(Checked):
    """The first head of a new house, with the code that the terminal shows; ``rows`` of the kitchen."""

    code: Annotated[str, Length(1, 40, "characters")]
    username: Name
    password: Password
    rows: dict[str, float]


def _person(user: User) -> Person:
    return Person(user.pk, user.get_username(), role_of(user), user.is_active)


def _good_password(password: str, user: User, field: str) -> None:
    try:
        password_validation.validate_password(password, user)
    except ValidationError as wrong:
        raise Faults(*(Fault(field, m) for m in wrong.messages)) from None


def _new(username: str, password: str, role: Role) -> User:
    """Raises Faults: a name that is there, or is none; a password that anybody would try first."""
    name = username.strip()
    if User.objects.filter(username__iexact=name).exists():
        raise Faults(Fault("username", "Somebody of this name is there already."))
    user = User(username=name)
    try:
        user.clean_fields(exclude=["password"])
    except ValidationError:
        text = "Letters, digits and @ . + - _ make a name here."
        raise Faults(Fault("username", text)) from None
    _good_password(password, user, "password")
    user.set_password(password)
    user.save()
    user.groups.set([Group.objects.get(name=role)])
    return user


def end_sessions(user: User) -> None:
    """At once, on every tablet."""
    for session in SessionRecord.objects.filter(expire_date__gt=timezone.now()):
        if session.get_decoded().get("_auth_user_id") == str(user.pk):
            session.delete()


def _named(username: str) -> User:
    user = User.objects.filter(username=username).first()
    if user is None:
        raise Http404("There is nobody of this name.")
    return user


@router.get("/people", auth=signed_in, response=list[Person])
def people(request: HttpRequest) -> list[Person]:
    return [_person(u) for u in User.objects.order_by("-is_active", "username")]


@router.post("/people", auth=head_only, response=Person)
def let_in(request: HttpRequest, new: Body[NewPerson]) -> Person:
    with transaction.atomic():
        return _person(_new(new.username, new.password, new.role))


@router.put("/people/{username}", auth=head_only, response=Person)
def change_person(request: HttpRequest, username: str, change: Body[ChangePerson]) -> Person:
    """Another role, put out or let in again, another password. Somebody always stays a head."""
    with transaction.atomic():
        user = _named(username)
        loses = change.here is False or (change.role is not None and change.role != HEAD)
        others = list(User.objects.filter(is_active=True).exclude(pk=user.pk))
        if loses and role_of(user) == HEAD and not any(role_of(u) == HEAD for u in others):
            raise Faults(Fault("role", "Somebody must stay head baker. Make another one first."))
        if change.role is not None:
            user.is_staff = user.is_superuser = False
            user.groups.set([Group.objects.get(name=change.role)])
        if change.password is not None:
            _good_password(change.password, user, "password")
            user.set_password(change.password)
        if change.here is not None:
            user.is_active = change.here
        user.save()
        if change.here is False or change.password is not None:
            end_sessions(user)
        if change.password is not None:
            lift_locks(user)
    return _person(user)


@router.put("/session/password", auth=signed_in, response={204: None})
def change_password(request: HttpRequest, change: Body[ChangePassword]) -> Status[None]:
    """One's own password; one stays signed in here, and nowhere else."""
    user = user_of(request)
    not_too_often(request)
    # as at the door: who guesses it is locked out
    if authenticate(request, username=user.get_username(), password=change.old) is None:
        raise Faults(Fault("old", "This is not your password."))
    _good_password(change.new, user, "new")
    user.set_password(change.new)
    user.save()
    end_sessions(user)
    update_session_auth_hash(request, user)
    return Status(204, None)


@router.get("/first", auth=None, response=list[Default])
def asked_first(request: HttpRequest) -> list[Default]:
    """The rows of the kitchen that a new house is asked for, as they are where nobody says otherwise."""
    if settings.DEMO or User.objects.exists():
        raise Http404("Somebody is here already.")
    return [row for row in the_kitchen().table() if row.key in _ASKED]


_ASKED = {
    "bench.length_mm", "bench.width_mm", "sheeter.belt_width_mm", "room.c", "fridge.c", "freezer.c",
    "butter.usual",
}  # fmt: skip


@router.post("/first", auth=None, response={204: None})
def first_head(request: HttpRequest, first: Body[First]) -> Any:
    """The first head of a house in which nobody is. The code stands in the terminal that serves it."""
    refused = check_csrf(request)
    if refused:
        return refused
    if settings.DEMO or User.objects.exists():
        raise Http404("Somebody is here already.")
    if not code_is(first.code):
        raise Faults(Fault("code", "This is not the code that the terminal shows."))
    with transaction.atomic():
        # whoever else has the code waits here, and finds somebody
        if User.objects.exists():
            raise Http404("Somebody is here already.")
        user = _new(first.username, first.password, HEAD)
        try:
            keep_rows(first.rows, user)
        except Faults as wrong:
            found = (Fault(f.field.removeprefix("yours."), f.message) for f in wrong.faults)
            raise Faults(*(f.under("rows") for f in found)) from None
    forget_code()
    login(request, user, backend="bakehouse.people.doors.Doors")
    return Status(204, None)
