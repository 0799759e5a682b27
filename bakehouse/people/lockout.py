"""What is answered while an account is locked after repeated failures."""

from typing import Any

from django.http import HttpRequest, JsonResponse

SENTENCE = "Too many wrong passwords. This account is locked here for a quarter of an hour."


def locked_out(request: HttpRequest, *args: Any, **kwargs: Any) -> JsonResponse:
    return JsonResponse({"faults": [{"field": "password", "message": SENTENCE}]}, status=429)
