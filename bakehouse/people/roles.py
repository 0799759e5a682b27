"""Who may do what. Head: everything. Bench: reads plans, runs doughs, writes records."""

from typing import Any, Literal

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja.errors import HttpError
from ninja.security import SessionAuth

Role = Literal["head", "bench"]
HEAD: Role = "head"
BENCH: Role = "bench"


def role_of(user: User) -> Role:
    """The role of a signed-in user; whoever administers the house is a head."""
    return HEAD if user.is_superuser or user.groups.filter(name=HEAD).exists() else BENCH


class HeadOnly(SessionAuth):
    """For endpoints that change plans or the kitchen."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        user = super().authenticate(request, key)
        if user and role_of(user) != HEAD:
            raise HttpError(403, "Only a head baker can change this. Your role reads and runs it.")
        return user


def user_of(request: HttpRequest) -> User:
    """The signed-in user of a request that an endpoint's permission has let through."""
    assert isinstance(request.user, User)
    return request.user


def of_the_house(name: str | None) -> User | None:
    """Somebody by name, who may have been put out since; None for nobody."""
    return User.objects.filter(username=name).first() if name else None


signed_in = SessionAuth()
head_only = HeadOnly()
