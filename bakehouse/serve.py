"""Serve the application: ``python -m bakehouse.serve``. The environment says where and for whom:

EIGHT_TURN_LISTEN   address and port (default: 127.0.0.1:8000)
EIGHT_TURN_THREADS  how many requests are worked on at once (default: 8)
EIGHT_TURN_PROXY    the address of the proxy in front, whose word on who asks is taken; none by default

A request is read whole before a thread takes it up: one that is sent slowly, or never to its end, keeps
nobody waiting and is dropped after half a minute.

``--migrate`` brings the database up to date before; ``--demo`` fills an empty house besides, and serves it
as a demo house. One process for all three: to start is mostly to import.
"""

import gc
import importlib
import os
import sys
import time
from threading import Thread
from typing import Any

from waitress import serve  # type: ignore[import-untyped]

PATIENCE_S = 30
_SETTLED_S = 2.0
# What a plan is made of goes by itself when nobody holds it any more; looking through all that is
# remembered for the little that does not took a sixth of every answer.
_RUBBISH = (20_000, 20, 100)
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


def _have_ready() -> None:
    """The API while the first page is on its way; then what is compiled, before a first plan or a first
    day asks for it.
    """
    importlib.import_module("bakehouse.addresses")
    gc.freeze()
    gc.set_threshold(*_RUBBISH)
    gc.enable()
    time.sleep(_SETTLED_S)
    from lamination import day, heat

    heat.ready()
    day.ready()


def _say_where() -> None:
    from django.conf import settings
    from django.contrib.auth.models import User

    from bakehouse.people.first import code

    if not settings.DEMO and not User.objects.exists():
        said = (
            f"  Nobody is in this house yet. Its first head baker comes in with the code {code()}"
        )
        print(said, flush=True)


def prepare(options: list[str]) -> None:
    """What is asked for before anybody is served; ends the process where that cannot be."""
    from django.core.management import CommandError, call_command
    from django.db import connection
    from django.db.migrations.executor import MigrationExecutor

    if not options:
        return
    ahead = MigrationExecutor(connection)
    if ahead.migration_plan(ahead.loader.graph.leaf_nodes()):
        call_command("migrate", verbosity=0)
    if "--demo" in options:
        try:
            call_command("demo")
        except CommandError as refused:
            sys.exit(str(refused))


if __name__ == "__main__":
    # what is imported stays: looking through it for rubbish takes a sixth of the start
    gc.disable()
    if "--demo" in sys.argv:
        os.environ["EIGHT_TURN_DEMO"] = "1"
    from bakehouse.wsgi import application

    prepare(sys.argv[1:])
    _say_where()
    Thread(target=_have_ready, daemon=True).start()
    serve(application, **options())
