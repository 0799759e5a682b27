"""Serve the application: ``python -m bakehouse.serve``. The environment says where and for whom:

EIGHT_TURN_LISTEN   address and port (default: 127.0.0.1:8000)
EIGHT_TURN_THREADS  how many requests are worked on at once (default: 8)
EIGHT_TURN_PROXY    the address of the proxy in front, whose word on who asks is taken; none by default

A request is read whole before a thread takes it up: one that is sent slowly, or never to its end, keeps
nobody waiting and is dropped after half a minute.
"""

import os
from threading import Thread
from typing import Any

from waitress import serve  # type: ignore[import-untyped]

from lamination.heat import ready

PATIENCE_S = 30
MOST_CONNECTIONS = 1_000


def options() -> dict[str, Any]:
    """What the server is told, as the environment says."""
    proxy = os.environ.get("EIGHT_TURN_PROXY")
    forwarded: dict[str, Any] = {}
    if proxy:
        forwarded = {
            "trusted_proxy": proxy,
            "trusted_proxy_headers": {"x-forwarded-for", "x-forwarded-proto", "x-forwarded-host"},
            "clear_untrusted_proxy_headers": True,
        }
    return {
        "listen": os.environ.get("EIGHT_TURN_LISTEN", "127.0.0.1:8000"),
        "threads": int(os.environ.get("EIGHT_TURN_THREADS", "8")),
        "connection_limit": MOST_CONNECTIONS,
        "channel_timeout": PATIENCE_S,
        "cleanup_interval": 5,
        # a little more than the largest picture
        "max_request_body_size": 20_000_000,
        "ident": None,
        **forwarded,
    }


def _say_where() -> None:
    from django.conf import settings
    from django.contrib.auth.models import User

    from bakehouse.people.first import code

    if not settings.DEMO and not User.objects.exists():
        said = (
            f"  Nobody is in this house yet. Its first head baker comes in with the code {code()}"
        )
        print(said, flush=True)


if __name__ == "__main__":
    from bakehouse.wsgi import application

    _say_where()
    Thread(target=ready, daemon=True).start()  # whoever asks first need not wait for it
    serve(application, **options())
