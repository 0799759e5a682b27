"""What every answer carries: the time in the bakehouse, and an id by which the log knows the request."""

from __future__ import annotations

import logging
import re
import time
import uuid
from collections.abc import Callable

from django.http import HttpRequest, HttpResponseBase

from bakehouse.life import this_life

log = logging.getLogger("bakehouse.requests")
_OURS = re.compile(r"^[\w-]{8,64}$")
_QUIET = ("/static/", "/api/health")


class Answers:
    """Middleware: stamps every answer, and writes a line for each request that is worth one."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        began = time.monotonic()
        # one that stands before us may have named it already
        given = request.headers.get("X-Request-Id", "")
        name = given if _OURS.match(given) else uuid.uuid4().hex[:16]
        response = self.get_response(request)
        response["X-Request-Id"] = name
        if request.path.startswith("/api/"):
            # kept by the browser, and asked about each time
            response.setdefault("Cache-Control", "private, no-cache")
            response["X-House-Life"] = this_life().id
            response["X-House-Time"] = str(round(time.time() * 1000))
            # whoever reads the time knows by it that this is the answer to what it asked, and no older one
            if _OURS.match(asked := request.headers.get("X-Asked", "")):
                response["X-Asked"] = asked
        if not request.path.startswith(_QUIET):
            took = 1000 * (time.monotonic() - began)
            # the path without its query: what was asked for may be nobody's business
            log.info(
                "%s %s %s %d %.0f ms",
                name,
                request.method,
                request.path,
                response.status_code,
                took,
            )
        return response
