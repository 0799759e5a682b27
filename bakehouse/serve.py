"""Serve the application: ``python -m bakehouse.serve``. The environment says where and for whom:

EIGHT_TURN_LISTEN   address and port (default: 127.0.0.1:8000)
EIGHT_TURN_THREADS  how many requests are worked on at once (default: 8)
EIGHT_TURN_PROXY    the address of the proxy in front, whose word on who asks is taken; none by default
EIGHT_TURN_HTTPS    ``house``: speak https with a certificate that the house makes itself
EIGHT_TURN_WELCOME  the port of the plain page that says how a tablet is told to trust the house
                    (default: one below)

One process works, with threads; the one that started it waits for it, and stops it in order. Both end
when either does. ``--migrate`` brings the database up to date before; ``--demo`` fills an empty house
besides, and serves it as a demo house.
"""

from __future__ import annotations

import datetime
import gc
import importlib
import os
import signal
import sqlite3
import subprocess
import sys
import threading
import time
from collections.abc import Callable
from contextlib import suppress
from functools import partial
from pathlib import Path
from typing import Any

from granian.constants import HTTPModes, Interfaces, SSLProtocols
from granian.http import HTTP1Settings
from granian.log import LogLevels
from granian.server import MPServer

from bakehouse import whereabouts
from bakehouse.authority import CannotVouch, Papers, fingerprint_of, papers

TREE = Path(__file__).resolve().parent.parent
# a request's head must have come whole within this, and a connection that says nothing is closed
HEAD_WITHIN_MS = 20_000
STOPS_WITHIN_S = 20
MOST_CONNECTIONS = 10_000
LOOKS_AGAIN_S = 60
_SETTLED_S = 2.0
# What a plan is made of goes by itself when nobody holds it any more; looking through all that is
# remembered for the little that does not took a sixth of every answer.
_RUBBISH = (20_000, 20, 100)


def own_papers(listen: str) -> Papers:
    """The certificate of the house for the names it has now. Raises :class:`CannotVouch`."""
    named = [n for n in os.environ.get("EIGHT_TURN_HOSTS", "").split(",") if n]
    now = datetime.datetime.now(datetime.UTC)
    return papers(data_dir() / "tls", named, whereabouts.found_under(listen), now)


def data_dir() -> Path:
    """Where the house is kept."""
    return Path(os.environ.get("DATA_DIR") or TREE / "data")


def server(address: str, port: int, vouched: Papers | None = None) -> MPServer:
    """A server at an address, whose application works in a process that it starts."""
    return MPServer(
        "bakehouse",
        address=address,
        port=port,
        interface=Interfaces.ASGINL,
        # one version, so that a connection is one request after another and nothing holds up the rest
        http=HTTPModes.http1,
        http1_settings=HTTP1Settings(header_read_timeout=HEAD_WITHIN_MS),
        websockets=False,
        backlog=2048,
        backpressure=MOST_CONNECTIONS,
        workers_kill_timeout=STOPS_WITHIN_S,
        respawn_interval=1.0,
        log_level=LogLevels.error,
        ssl_cert=vouched.certificate if vouched else None,
        ssl_key=vouched.key if vouched else None,
        ssl_protocol_min=SSLProtocols.tls12,
    )


def application(options: tuple[str, ...]) -> Callable[..., Any]:
    """The application, made in the process that works. What is asked for is done before anybody is served."""
    # what is imported stays: looking through it for rubbish takes a sixth of the start
    gc.disable()
    ends_with(os.getppid())
    from bakehouse.troubles import sentence_for
    from bakehouse.wsgi import application as django

    try:
        prepare(options)
        _keep_open()
        _say_where()
    except Exception as wrong:
        sentence = sentence_for(wrong)
        if sentence is None:
            raise
        sys.exit(f"{data_dir()}: {sentence}")
    threading.Thread(target=_have_ready, args=["--demo" in options], daemon=True).start()
    # an answer is passed from thread to thread; at the usual five milliseconds most of its time is waiting
    sys.setswitchinterval(0.0005)
    threads = int(os.environ.get("EIGHT_TURN_THREADS", "8"))
    from bakehouse.whole import Whole

    return Whole(django, threads, os.environ.get("EIGHT_TURN_PROXY", ""))


_KEPT_OPEN: list[sqlite3.Connection] = []


def _keep_open() -> None:
    """One connection that stays: what SQLite keeps beside the database is there also on a disk that cannot
    be written to any more, and is not put away after each answer.
    """
    from bakehouse.copies import the_database

    kept = sqlite3.connect(the_database(), check_same_thread=False)
    kept.execute("SELECT count(*) FROM sqlite_master").fetchone()
    _KEPT_OPEN.append(kept)


def prepare(options: tuple[str, ...]) -> None:
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
            call_command("demo", without_today=True)
        except CommandError as refused:
            sys.exit(str(refused))


def _have_ready(demo: bool) -> None:
    """The API while the first page is on its way; then what is compiled, before anybody asks for it."""
    importlib.import_module("bakehouse.addresses")
    gc.freeze()
    gc.set_threshold(*_RUBBISH)
    gc.enable()
    time.sleep(_SETTLED_S)
    from bakehouse import loops

    loops.have_ready()
    if demo:
        from bakehouse.demo.fill import fill_today

        fill_today()


def _say_where() -> None:
    from django.conf import settings
    from django.contrib.auth.models import User

    from bakehouse.people.first import code

    if not settings.DEMO and not User.objects.exists():
        print(
            f"  Nobody is in this house yet. Its first head baker comes in with the code {code()}"
        )
    if settings.WHERE.welcome_port is not None:
        sign = fingerprint_of(data_dir() / "tls")
        print(f"  Its certificate is the right one if its SHA-256 fingerprint begins with {sign}")
    print(*(f"  {line}" for line in settings.WHERE.lines()), sep="\n", flush=True)


def ends_with(parent: int) -> None:
    """End this process in order when the one that started it is gone, however that went."""

    def look() -> None:
        while os.getppid() == parent:
            time.sleep(0.5)
        os.kill(os.getpid(), signal.SIGTERM)

    threading.Thread(target=look, name="parent", daemon=True).start()


def _look_again(serving: MPServer, listen: str, https: bool) -> None:
    """Begin anew when the house has other addresses, or its certificate comes to its end."""

    def state() -> object:
        vouched = own_papers(listen).certificate.stat().st_mtime_ns if https else 0
        return vouched, whereabouts.found_under(listen)

    def look() -> None:
        was = state()
        while True:
            time.sleep(LOOKS_AGAIN_S)
            with suppress(CannotVouch, OSError):
                now = state()
                if now != was:
                    was = now
                    serving.signal_handler_reload()  # type: ignore[no-untyped-call]

    threading.Thread(target=look, name="addresses", daemon=True).start()


def main(options: list[str]) -> None:
    """Serve until somebody says stop."""
    if "--demo" in options:
        os.environ["EIGHT_TURN_DEMO"] = "1"
    listen = os.environ.get("EIGHT_TURN_LISTEN") or whereabouts.LISTEN
    https = os.environ.get("EIGHT_TURN_HTTPS") == "house"
    try:
        address, port = whereabouts.split(listen)
        vouched = own_papers(listen) if https else None
    except (CannotVouch, ValueError) as wrong:
        sys.exit(str(wrong))
    serving = server(address, port, vouched)
    _look_again(serving, listen, https)
    if vouched:
        welcome = subprocess.Popen([sys.executable, "-m", "bakehouse.welcome"])
        serving.on_shutdown(welcome.terminate)
    serving.serve(target_loader=partial(application, tuple(options)), wrap_loader=False)


if __name__ == "__main__":
    main(sys.argv[1:])
