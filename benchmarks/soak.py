"""Two hundred tablets on twenty runs for a minute: how long an answer takes, and what it costs the server.

Not a part of the tests: ``make soak``. Everything happens on this machine, between it and itself. The
slowest of a hundred answers is given as a ratio to that of a view that does nothing, asked by one tablet
while the house is at rest; errors; and the server's memory before and after. What is asked: what a page
reads when it opens, a run as it stands, something said of it, and how warm a dough is.
"""

from __future__ import annotations

import gzip
import http.client
import json
import random
import sys
import tempfile
import threading
import time
import uuid
from datetime import UTC, datetime
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))
from tests.browser.house import House, furnish

TABLETS, RUNS = 200, 20
POLL_S, SAYS_EVERY = 5.0, 12  # a tablet looks every five seconds, and says something once a minute
WARMTH_EVERY = 4  # looks; how warm its dough is a tablet asks each twenty seconds
WHAT = ("open", "look", "say", "warmth")
AT_REST = 100


class Tablet:
    """One tablet: it is signed in, looks at its run, keeps what it was told, and says something at times."""

    def __init__(self, port: int, cookies: str, token: str) -> None:
        self.port, self.cookies, self.token = port, cookies, token
        self.line = http.client.HTTPConnection("127.0.0.1", port, timeout=30)
        self.known: dict[str, str] = {}
        self.took: dict[str, list[float]] = {what: [] for what in (*WHAT, "bare")}
        self.bytes: list[int] = []
        self.errors = 0

    def ask(self, what: str, method: str, path: str, body: object = None) -> bytes:
        headers = {"Cookie": self.cookies, "X-CSRFToken": self.token, "Accept-Encoding": "gzip"}
        if method == "GET" and path in self.known:
            headers["If-None-Match"] = self.known[path]
        if body is not None:
            headers["Content-Type"] = "application/json"
        began = time.perf_counter()
        try:
            self.line.request(method, path, json.dumps(body) if body else None, headers)
            answer = self.line.getresponse()
            content = answer.read()
        except OSError:
            self.line.close()
            self.errors += 1
            return b""
        self.took[what].append(time.perf_counter() - began)
        if answer.status >= 400:
            self.errors += 1
        if method == "GET" and (tag := answer.headers.get("ETag")):
            self.known[path] = tag
        if what == "look":
            self.bytes.append(len(content))
        return (
            gzip.decompress(content)
            if answer.headers.get("Content-Encoding") == "gzip"
            else content
        )

    def work(self, run: str, until: float, wait: float) -> None:
        time.sleep(wait)
        looks = random.randrange(SAYS_EVERY)
        for path in ("session", "trade", "kitchen", "plans", "people", f"runs/{run}/snapshot"):
            self.ask("open", "GET", f"/api/{path}")
        while time.monotonic() < until:
            began = time.monotonic()
            self.ask("look", "GET", f"/api/runs/{run}")
            if looks % WARMTH_EVERY == 0:
                self.ask("warmth", "GET", f"/api/runs/{run}/warmth")
            looks += 1
            if looks % SAYS_EVERY == 0:
                event = {"id": str(uuid.uuid4()), "at": datetime.now(UTC).isoformat(), "kind": "note",
                         "words": "soak"}  # fmt: skip
                self.ask("say", "POST", f"/api/runs/{run}/events", {"events": [event]})
            time.sleep(max(POLL_S - (time.monotonic() - began), 0))


def signed_in(port: int) -> tuple[str, str]:
    """Cookies and token of somebody at the bench."""
    line = http.client.HTTPConnection("127.0.0.1", port, timeout=30)
    jar: dict[str, str] = {}
    for method, body in (
        ("GET", None),
        ("POST", {"username": "tansy", "password": "towpath-bench"}),
    ):
        line.request(method, "/api/session", json.dumps(body) if body else None, {
            "Cookie": "; ".join(f"{k}={v}" for k, v in jar.items()),
            "X-CSRFToken": jar.get("csrftoken", ""), "Content-Type": "application/json",
        })  # fmt: skip
        answer = line.getresponse()
        answer.read()
        for header in answer.headers.get_all("Set-Cookie") or []:
            key, _, value = header.split(";")[0].partition("=")
            jar[key] = value
    return "; ".join(f"{k}={v}" for k, v in jar.items()), jar["csrftoken"]


def resident_mb(pid: int) -> int:
    """What a process and those it started hold in memory, MB; 0 where the system does not say."""
    try:
        status = Path(f"/proc/{pid}/status").read_text()
        begun = Path(f"/proc/{pid}/task/{pid}/children").read_text().split()
    except OSError:
        return 0
    own = next(int(line.split()[1]) // 1024 for line in status.splitlines() if "VmRSS" in line)
    return own + sum(resident_mb(int(child)) for child in begun)


def slowest(took: list[float]) -> float:
    """The 99th of a hundred."""
    return sorted(took)[int(0.99 * (len(took) - 1))] if took else 0.0


def main(seconds: float) -> None:
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder)
        furnish(data)
        house = House(data)
        house.environment["EIGHT_TURN_THREADS"] = "8"
        house.start()
        try:
            cookies, token = signed_in(house.port)
            first = Tablet(house.port, cookies, token)
            plan = json.loads(first.ask("bare", "GET", "/api/plans"))[0]["id"]
            runs = [str(uuid.uuid4()) for _ in range(RUNS)]
            for run in runs:
                first.ask("say", "POST", "/api/runs", {"id": run, "plan_id": plan})
            for _ in range(AT_REST):
                first.ask("bare", "GET", "/api/health")
            assert house.process
            before = resident_mb(house.process.pid)
            tablets = [Tablet(house.port, cookies, token) for _ in range(TABLETS)]
            until = time.monotonic() + seconds
            threads = [
                threading.Thread(target=t.work, args=(runs[n % RUNS], until, POLL_S * n / TABLETS))
                for n, t in enumerate(tablets)
            ]
            for thread in threads:
                thread.start()
            for thread in threads:
                thread.join()
            after = resident_mb(house.process.pid)
        finally:
            house.stop()
    took = {what: [s for t in tablets for s in t.took[what]] for what in WHAT}
    sizes = sorted(b for t in tablets for b in t.bytes)
    bare = slowest(first.took["bare"])
    print(f"{TABLETS} tablets on {RUNS} runs, {seconds:.0f} s")
    for what in WHAT:
        p99 = slowest(took[what])
        print(
            f"  {what:6} {len(took[what]):6} answers, p99 {p99 / bare:5.1f} times an empty view at rest"
        )
    print(f"  bytes of a look: {sizes[len(sizes) // 2]} in the middle, {sizes[-1]} at most")
    print(f"  errors: {sum(t.errors for t in tablets)}")
    print(f"  memory of the server: {before} MB before, {after} MB after")


if __name__ == "__main__":
    main(float(sys.argv[1]) if len(sys.argv) > 1 else 60.0)
