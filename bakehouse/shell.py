"""The one page of the front end, with this answer's nonce in it, and its service worker."""

from functools import cache

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache


@cache
def _page() -> str:
    return (settings.WEB_BUILD / "index.html").read_text()


@never_cache
def shell(request: HttpRequest) -> HttpResponse:
    """The built index.html; Vite left a placeholder where the nonce belongs."""
    if not (settings.WEB_BUILD / "index.html").is_file():
        return HttpResponse("The front end is not built. Run: make build", status=503)
    nonce = str(request.csp_nonce)  # type: ignore[attr-defined]
    return HttpResponse(_page().replace("NONCE_OF_THIS_ANSWER", nonce))


@never_cache
def service_worker(request: HttpRequest) -> HttpResponse:
    """The worker that opens the application without a network; at the root, so that it is for all of it."""
    path = settings.WEB_BUILD / "sw.js"
    if not path.is_file():
        return HttpResponse("// The front end is not built.", "text/javascript", status=404)
    return HttpResponse(path.read_bytes(), "text/javascript")
