"""How many files one address may send in a while: unpacking them is the dearest thing the house does."""

from __future__ import annotations

from collections.abc import Callable

from django.core.cache import cache
from django.http import HttpRequest, HttpResponseBase, JsonResponse

# more than a tablet that was a week without a network holds; the rest waits there and comes later
MOST, WITHIN_S = 120, 600
_FULL = "Too many files from here at once. They are taken again in ten minutes."


class Uploads:
    """Middleware: refuses files before their bodies are read, address by address."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        if (request.content_type or "") == "multipart/form-data":
            key = f"files-{request.META.get('REMOTE_ADDR', '')}"
            cache.add(key, 0, WITHIN_S)
            try:
                many = cache.incr(key)
            except ValueError:  # it ran out just now: counted from the beginning
                many = 1
            if many > MOST:
                return JsonResponse({"faults": [{"field": "", "message": _FULL}]}, status=429)
        return self.get_response(request)
