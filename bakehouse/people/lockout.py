"""What is answered at the door: to a locked account, to one who tries many names, to an old page."""

from typing import Any

from axes.utils import reset
from django.contrib.auth.models import User
from django.core.cache import cache
from django.http import HttpRequest, JsonResponse
from ninja.errors import HttpError

SENTENCE = "Too many wrong passwords. This account is locked here for a quarter of an hour."


def locked_out(request: HttpRequest, *args: Any, **kwargs: Any) -> JsonResponse:
    field = "old" if request.path.endswith("/session/password") else "password"
    return JsonResponse({"faults": [{"field": field, "message": SENTENCE}]}, status=429)


# Wrong passwords from one address, whatever the names: more than a whole shift gets wrong.
_MOST, _WITHIN_S = 30, 900
_FULL = "Too many wrong passwords from here. Wait a quarter of an hour."


def _door(request: HttpRequest) -> str:
    return f"door-{request.META.get('REMOTE_ADDR', '')}"


def too_often(request: HttpRequest) -> bool:
    """Whether too many wrong passwords came from this address."""
    return bool(cache.get(_door(request), 0) >= _MOST)


def not_too_often(request: HttpRequest) -> None:
    """Raise a 429 for an address from which too many wrong passwords came."""
    if too_often(request):
        raise HttpError(429, _FULL)


def was_wrong(request: HttpRequest) -> None:
    """One more wrong password from this address."""
    cache.add(_door(request), 0, _WITHIN_S)
    try:
        cache.incr(_door(request))
    except ValueError:  # it ran out just now
        cache.set(_door(request), 1, _WITHIN_S)


def lift_locks(user: User) -> None:
    """Whoever was locked out may try again at once, from everywhere."""
    reset(username=user.get_username())


def out_of_date(request: HttpRequest, reason: str = "") -> JsonResponse:
    """The cross-site token is missing or old, as after signing in again in another tab."""
    sentence = "This page is out of date. Reload it; what you entered is kept."
    return JsonResponse({"faults": [{"field": "", "message": sentence}]}, status=403)
