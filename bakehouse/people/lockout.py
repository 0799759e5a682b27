"""What is answered at the door: to a locked account, and to a page without a valid token."""

from typing import Any

from django.http import HttpRequest, JsonResponse

SENTENCE = "Too many wrong passwords. This account is locked here for a quarter of an hour."


def locked_out(request: HttpRequest, *args: Any, **kwargs: Any) -> JsonResponse:
    return JsonResponse({"faults": [{"field": "password", "message": SENTENCE}]}, status=429)


def out_of_date(request: HttpRequest, reason: str = "") -> JsonResponse:
    """The cross-site token is missing or old, as after signing in again in another tab."""
    sentence = "This page is out of date. Reload it; what you entered is kept."
    return JsonResponse({"faults": [{"field": "", "message": sentence}]}, status=403)
