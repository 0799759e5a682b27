"""Who comes in, at every door alike: the sign-in page, one's own password, the admin, an old session."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User
from django.contrib.auth.signals import user_login_failed
from django.core.cache import cache
from django.core.exceptions import PermissionDenied
from django.dispatch import receiver
from django.http import HttpRequest

from bakehouse.people.lockout import too_often, was_wrong
from bakehouse.people.models import House

_ASKED_EACH_S = 5


def closed() -> bool:
    """Whether this is a demo house that is served as a real one: everybody knows its passwords."""
    if settings.DEMO:
        return False
    # asked with every request, and hardly ever another
    return bool(cache.get_or_set("people.demo-house", House.is_demo, _ASKED_EACH_S))


class Doors(ModelBackend):
    """Name and password, unless the house is closed, or too many were wrong from that address."""

    def authenticate(
        self,
        request: HttpRequest | None,
        username: str | None = None,
        password: str | None = None,
        **more: Any,
    ) -> User | None:
        if closed() or (request is not None and too_often(request)):
            raise PermissionDenied
        found = super().authenticate(request, username, password, **more)
        assert found is None or isinstance(found, User)
        return found

    def get_user(self, user_id: int) -> User | None:
        """Who a session belongs to: nobody, where the house is closed."""
        found = None if closed() else super().get_user(user_id)
        assert found is None or isinstance(found, User)
        return found


@receiver(user_login_failed)
def _wrong(sender: object, request: HttpRequest | None = None, **_: Any) -> None:
    if request is not None:
        was_wrong(request)
