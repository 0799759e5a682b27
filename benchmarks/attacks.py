"""Four things that a network does to a house by malice or by accident, and whether others are answered.

Not a part of the tests: ``make attacks``. Everything happens on this machine, between it and itself, for a
bounded time and number of connections. While each goes on a bench asks four times a second how its dough
stands; printed is how long the slowest answer took, and whether the server's process is still alive after.

``unread``   connections that ask for everything and read nothing (a laptop that sleeps is enough)
``dripped``  a thousand requests of which a byte comes every few seconds
``half``     forty bodies that are never finished, and a thousand connections that say nothing
``opening``  two hundred tablets that open the house at once, six connections each
"""

from __future__ import annotations

import asyncio
import json
import re
import resource
import sys
import tempfile
import time
from collections.abc import Awaitable, Callable
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))
from benchmarks.soak import Tablet, signed_in
from tests.browser.house import ROOT, House, furnish

LASTS_S = 25.0
ASKS_EVERY_S = 0.25
PATIENCE_S = 30.0
TABLETS, CONNECTIONS_EACH = 200, 6
READ_AT_START = ("session", "trade", "kitchen", "plans", "runs?under_way=true", "people")


class Attack:
    """Where the house is, who asks there for which dough, and the connections that are held open."""

    def __init__(self, port: int, cookies: str, run: str) -> None:
        self.port, self.cookies, self.run = port, cookies, run
        self.held: list[asyncio.StreamWriter] = []

    async def connect(self) -> tuple[asyncio.StreamReader, asyncio.StreamWriter] | None:
        try:
            both = await asyncio.wait_for(asyncio.open_connection("127.0.0.1", self.port), 10)
        except (OSError, TimeoutError):
            return None
        self.held.append(both[1])
        return both

    def head(self, path: str, more: str = "") -> bytes:
        """The beginning of a request, without the empty line that ends it."""
        return (
            f"GET {path} HTTP/1.1\r\nHost: 127.0.0.1:{self.port}\r\nCookie: {self.cookies}\r\n"
            f"Accept-Encoding: br, gzip\r\n{more}"
        ).encode()

    async def send(self, writer: asyncio.StreamWriter, data: bytes) -> bool:
        try:
            writer.write(data)
            await writer.drain()
        except OSError:
            return False
        return True

    async def read(self, path: str) -> tuple[int, bytes]:
        """Ask for one thing on a connection of its own, and read it to its end."""
        reader, writer = await asyncio.open_connection("127.0.0.1", self.port)
        try:
            await self.send(writer, self.head(path, "Connection: close\r\n\r\n"))
            answer = await reader.read()
        finally:
            writer.close()
        first, _, rest = answer.partition(b"\r\n")
        return int(first.split()[1]), rest.partition(b"\r\n\r\n")[2]

    def leave(self) -> None:
        for writer in self.held:
            writer.close()
        self.held.clear()


def scripts() -> list[str]:
    """What a browser fetches to open the application."""
    page = (ROOT / "web/dist/index.html").read_text()
    return re.findall(r'(?:src|href)="(/static/[^"]+)"', page)


async def unread(attack: Attack) -> None:
    largest = max((ROOT / ".stamps/static").rglob("*.js"), key=lambda f: f.stat().st_size)
    path = f"/static/{largest.relative_to(ROOT / '.stamps/static')}"
    for _ in range(64):
        if both := await attack.connect():
            # asked again and again on one connection, so that no buffer between the two holds it all
            await attack.send(both[1], attack.head(path, "\r\n") * 40)
    await asyncio.sleep(LASTS_S)


async def dripped(attack: Attack) -> None:
    lines = [both for _ in range(1000) if (both := await attack.connect())]
    until = time.monotonic() + LASTS_S
    request = attack.head("/api/session", "\r\n")
    at = 0
    while time.monotonic() < until:
        for _, writer in lines:
            await attack.send(writer, request[at : at + 1])
        at += 1
        await asyncio.sleep(4)


async def half(attack: Attack) -> None:
    for _ in range(1000):
        await attack.connect()
    for _ in range(40):
        if both := await attack.connect():
            more = "Content-Type: application/json\r\nContent-Length: 5000\r\n\r\n{"
            begun = attack.head("/api/session", more).replace(b"GET", b"POST", 1)
            await attack.send(both[1], begun)
    await asyncio.sleep(LASTS_S)


async def opening(attack: Attack) -> None:
    files = [*scripts(), *(f"/api/{what}" for what in READ_AT_START)]

    async def tablet(number: int) -> None:
        await asyncio.sleep(number / TABLETS)  # within a second
        await attack.read("/")
        at_once = asyncio.Semaphore(CONNECTIONS_EACH)

        async def one(path: str) -> None:
            async with at_once:
                await attack.read(path)

        await asyncio.gather(*(one(path) for path in files))

    began = time.monotonic()
    await asyncio.gather(*(tablet(n) for n in range(TABLETS)))
    print(f"           all {TABLETS} open after {time.monotonic() - began:.1f} s")


ATTACKS: tuple[Callable[[Attack], Awaitable[None]], ...] = (unread, dripped, half, opening)


async def asked_meanwhile(attack: Attack, done: asyncio.Event) -> tuple[list[float], int]:
    """Seconds that each answer took, and how many did not come."""
    took, missing = [], 0
    while not done.is_set():
        began = time.monotonic()
        try:
            status, _ = await asyncio.wait_for(attack.read(f"/api/runs/{attack.run}"), PATIENCE_S)
            missing += status != 200
        except (OSError, TimeoutError, IndexError):
            missing += 1
        took.append(time.monotonic() - began)
        await asyncio.sleep(ASKS_EVERY_S)
    return took, missing


async def under(
    house: House, how: Callable[[Attack], Awaitable[None]], cookies: str, run: str
) -> None:
    attack, done = Attack(house.port, cookies, run), asyncio.Event()
    asking = asyncio.create_task(asked_meanwhile(attack, done))
    try:
        await how(attack)
    finally:
        done.set()
        took, missing = await asking
        attack.leave()
    assert house.process
    alive = house.process.poll() is None
    took.sort()
    print(
        f"  {how.__name__:8} {len(took):4} asked meanwhile, {missing} without an answer; "
        f"half within {took[len(took) // 2]:.2f} s, all within {took[-1]:.2f} s; "
        f"the process is {'alive' if alive else 'gone'}",
        flush=True,
    )
    if not alive:
        house.start()


def main(names: list[str]) -> None:
    _, most = resource.getrlimit(resource.RLIMIT_NOFILE)
    resource.setrlimit(resource.RLIMIT_NOFILE, (min(most, 20_000), most))
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder)
        furnish(data)
        house = House(data)
        house.environment["EIGHT_TURN_THREADS"] = "8"
        house.start()
        try:
            cookies, token = signed_in(house.port)
            page = json.loads(Tablet(house.port, cookies, token).ask("look", "GET", "/api/runs"))
            run = page["runs"][0]["id"]
            for how in ATTACKS:
                if not names or how.__name__ in names:
                    asyncio.run(under(house, how, cookies, run))
        finally:
            house.stop()


if __name__ == "__main__":
    main(sys.argv[1:])
