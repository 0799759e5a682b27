"""A real server on its own data: for the browser tests, and for the README's pictures."""

import os
import shutil
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
# The one without a window draws nothing but pages: a third less work than the whole browser.
CHROMIUM = shutil.which("chromium-headless-shell") or "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--js-flags=--no-opt,--no-maglev",
]


def _environment(data: Path):
    return os.environ | {
        "DATA_DIR": str(data),
        "EIGHT_TURN_DEMO": "1",
        "DJANGO_SETTINGS_MODULE": "tests.browser.quick",
    }


# So that not every worker looks for six seconds for the best day when it opens the one of the demo.
ARRANGE = """
from bakehouse.day.models import OrderRecord
from bakehouse.day.timetable_api import keep_first
for record in OrderRecord.objects.filter(timetable__isnull=True): keep_first(record)
"""


def furnish(data: Path, arrange=False):
    """Put the demo into an empty folder; ``arrange``: with a timetable for each of its days."""
    commands = [["migrate", "-v", "0"], ["demo"]]
    if arrange:
        commands.append(["shell", "--no-imports", "-v", "0", "-c", ARRANGE])
    for command in commands:
        subprocess.run(
            [sys.executable, "manage.py", *command],
            cwd=ROOT,
            check=True,
            env=_environment(data),
            stdout=subprocess.DEVNULL,
        )


class House:
    """The application as it is served from a furnished folder; it can be stopped and started."""

    def __init__(self, data: Path):
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.address = f"http://127.0.0.1:{self.port}"
        self.environment = _environment(data) | {
            "EIGHT_TURN_LISTEN": f"127.0.0.1:{self.port}",
            "EIGHT_TURN_THREADS": "4",
        }
        self.process = None

    def start(self, *options, under=(), look=True):
        """Begin to serve; ``look``: until it answers as it would to a tablet of the house."""
        self._gone()
        command = [*under, sys.executable, "-m", "bakehouse.serve", *options]
        self.process = subprocess.Popen(command, cwd=ROOT, env=self.environment)
        for _ in range(1600):
            try:
                if look:
                    urllib.request.urlopen(f"{self.address}/api/session", timeout=1)
                else:
                    socket.create_connection(("127.0.0.1", self.port), timeout=1).close()
                return
            except OSError:
                time.sleep(0.025)
        raise RuntimeError("the server did not start")

    def _gone(self):
        """Wait until one that was killed has let go of the address."""
        for _ in range(400):
            try:
                socket.create_connection(("127.0.0.1", self.port), timeout=1).close()
            except OSError:
                return
            time.sleep(0.025)

    def stop(self):
        self.process.terminate()
        self.process.wait(timeout=40)


def enter(page, path):
    """To another room, as by a link of the page: what was read is not read anew."""
    page.evaluate(
        "path => { history.pushState(null, '', path); dispatchEvent(new PopStateEvent('popstate')) }",
        path,
    )


# What the house answers to a page that is signed in.
ASK = """async ([method, path, body]) => {
  const token = /csrftoken=([^;]+)/.exec(document.cookie)[1];
  const answer = await fetch("/api" + path, {
    method, headers: { "Content-Type": "application/json", "X-CSRFToken": token },
    body: body && JSON.stringify(body),
  });
  return answer.json();
}"""


def until(page, run, what, wanted):
    """Wait until the house says so of a run: ``what`` is an expression on its answer, ``now``."""
    ask = f"async (run) => {{ const now = await (await fetch(`/api/runs/${{run}}`)).json(); return {what} }}"
    for _ in range(400):
        found = page.evaluate(ask, run)
        if found == wanted:
            return
        page.wait_for_timeout(100)
    raise AssertionError(f"{what} is {found}, not {wanted}")
