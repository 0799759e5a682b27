"""Between the server and the application: requests are read whole before a thread takes them up, and
answers are handed over whole, so that no thread ever waits for somebody's network.
"""

from __future__ import annotations

import asyncio
import json
from collections.abc import Awaitable, Callable, Iterable
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from a2wsgi.wsgi import WSGIResponder

Scope = dict[str, Any]
Message = dict[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]
Asgi = Callable[[Scope, Receive, Send], Awaitable[None]]
Wsgi = Callable[[dict[str, Any], Callable[..., Any]], Iterable[bytes]]

PATIENCE_S = 30.0
LARGEST_BODY = 20_000_000  # a little more than the largest picture
MOST_HELD = 200_000_000  # of all bodies that are being read
_FORWARDED = ("x-forwarded-for", "x-forwarded-host", "x-forwarded-proto")

TOO_SLOW = "The request did not come whole in time. Send it again."
TOO_LARGE = "This is more than the bakehouse takes at once: 20 MB."
_BENCH = "/api/runs/"
_MESSAGES = 10  # more than an answer in one piece has
BUSY = "Too much is being sent at once. Send it again in a moment."


class _Refused(Exception):
    def __init__(self, status: int, sentence: str) -> None:
        self.status, self.sentence = status, sentence


class Whole:
    """An application for threads, as a server without threads takes it up.

    ``threads``: how many requests are worked on at once, and half as many besides for doughs at the bench.
    ``proxy``: the address whose word is taken on who
    asks, and how; from anybody else that word is dropped.
    """

    def __init__(self, application: Wsgi, threads: int, proxy: str = "") -> None:
        self._application = _in_one_piece(application)
        self._threads = ThreadPoolExecutor(threads, "request")
        # a press at the bench does not wait behind two hundred tablets that are being opened
        self._bench = ThreadPoolExecutor(max(threads // 2, 1), "bench")
        self._proxy = proxy
        self._held = 0

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            return
        self._who_asks(scope)
        try:
            body = await self._body(scope, receive)
        except _Refused as why:
            await _refuse(why, send)
            return
        except ConnectionError:
            return
        given: list[Message] = [{"type": "http.request", "body": body, "more_body": False}]

        async def read_before() -> Message:
            return given.pop() if given else {"type": "http.disconnect"}

        threads = self._bench if scope["path"].startswith(_BENCH) else self._threads
        answer = _Answer(self._application, threads, _MESSAGES)  # type: ignore[arg-type]
        try:
            await answer(scope, read_before, send)  # type: ignore[arg-type]
        finally:
            self._held -= len(body)

    async def _body(self, scope: Scope, receive: Receive) -> bytes:
        """All of it, which counts as held. Raises _Refused, or ConnectionError for one who left."""
        announced = dict(scope["headers"]).get(b"content-length", b"0")
        if not announced.isdigit() or int(announced) > LARGEST_BODY:
            raise _Refused(413, TOO_LARGE)
        body = bytearray()
        try:
            async with asyncio.timeout(PATIENCE_S):
                more = True
                while more:
                    message = await receive()
                    if message["type"] != "http.request":
                        raise ConnectionError
                    part = message.get("body", b"")
                    if len(body) + len(part) > LARGEST_BODY:
                        raise _Refused(413, TOO_LARGE)
                    if self._held + len(part) > MOST_HELD:
                        raise _Refused(503, BUSY)
                    body += part
                    self._held += len(part)
                    more = message.get("more_body", False)
        except TimeoutError:
            self._held -= len(body)
            raise _Refused(408, TOO_SLOW) from None
        except BaseException:
            self._held -= len(body)
            raise
        return bytes(body)

    def _who_asks(self, scope: Scope) -> None:
        """As the proxy says, where one stands in front."""
        asks = scope["client"][0] if scope.get("client") else ""
        named = [(k.decode("latin1").lower(), v.decode("latin1")) for k, v in scope["headers"]]
        if asks != self._proxy:
            # a proxy that was not named still says that it speaks https
            dropped = _FORWARDED if self._proxy else _FORWARDED[:2]
            kept = zip(scope["headers"], named, strict=True)
            scope["headers"] = [header for header, (name, _) in kept if name not in dropped]
            return
        said = dict(named)
        if known := said.get("x-forwarded-for"):
            # the last is whom the proxy saw itself; what stands before it anybody may have written
            scope["client"] = (known.split(",")[-1].strip(), 0)
        if said.get("x-forwarded-proto") in ("http", "https"):
            scope["scheme"] = said["x-forwarded-proto"]


class _Answer(WSGIResponder):
    """An answer whose thread does not wait until each part of it is on its way: it has very few."""

    def send(self, message: Any) -> None:
        self.loop.call_soon_threadsafe(self.send_queue.put_nowait, message)


def _in_one_piece(application: Wsgi) -> Wsgi:
    """Its answers joined: a file that is sent piece by piece keeps its thread waiting for its reader."""

    def joined(environ: dict[str, Any], start: Callable[..., Any]) -> list[bytes]:
        answer = application(environ, start)
        try:
            return [b"".join(answer)]
        finally:
            getattr(answer, "close", lambda: None)()

    return joined


async def _refuse(why: _Refused, send: Send) -> None:
    body = json.dumps({"faults": [{"field": "", "message": why.sentence}]}).encode()
    headers = [
        (b"content-type", b"application/json"),
        (b"content-length", str(len(body)).encode()),
        (b"connection", b"close"),
    ]
    await send({"type": "http.response.start", "status": why.status, "headers": headers})
    await send({"type": "http.response.body", "body": body})
