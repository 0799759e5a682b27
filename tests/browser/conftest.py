"""A real server on its own data, and browsers that people use."""

import os
import re
import socket
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import pytest
from playwright.sync_api import expect, sync_playwright

ROOT = Path(__file__).resolve().parents[2]
CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
]


# Machines differ; what is tested is what appears, not how soon.
expect.set_options(timeout=15_000)


class House:
    """The application as it is served, with the demo in it; it can be stopped and started."""

    def __init__(self, data: Path):
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.address = f"http://127.0.0.1:{self.port}"
        self.environment = os.environ | {"DATA_DIR": str(data), "EIGHT_TURN_DEMO": "1"}
        self.process = None
        for command in (["migrate", "-v", "0"], ["demo"]):
            subprocess.run(
                [sys.executable, "manage.py", *command],
                cwd=ROOT,
                check=True,
                env=self.environment,
                stdout=subprocess.DEVNULL,
            )

    def start(self):
        self.process = subprocess.Popen(
            [
                sys.executable,
                "-m",
                "gunicorn",
                "bakehouse.wsgi",
                "--threads",
                "4",
                "--bind",
                f"127.0.0.1:{self.port}",
                "--log-level",
                "warning",
            ],
            cwd=ROOT,
            env=self.environment,
        )
        for _ in range(100):
            try:
                urllib.request.urlopen(f"{self.address}/api/session", timeout=1)
                return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError("the server did not start")

    def stop(self):
        self.process.terminate()
        self.process.wait(timeout=10)


@pytest.fixture(scope="session")
def house(tmp_path_factory):
    house = House(tmp_path_factory.mktemp("house"))
    house.start()
    yield house
    house.stop()


@pytest.fixture(scope="session")
def chromium():
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield browser
        browser.close()


# A refused request and a dropped connection are things that tests do on purpose.
EXPECTED = re.compile(r"Failed to load resource|net::ERR_")


@pytest.fixture
def person(house, chromium):
    """Opens a browser and signs in through the page; at the end, no script may have failed."""
    opened, troubles = [], []

    def come_in(name="wren", path="/", width=1280, height=800, touch=False):
        context = chromium.new_context(
            viewport={"width": width, "height": height}, has_touch=touch, base_url=house.address
        )
        opened.append(context)
        page = context.new_page()
        page.set_default_timeout(10_000)
        page.on("pageerror", lambda error: troubles.append(str(error)))
        page.on(
            "console",
            lambda m: (
                troubles.append(m.text)
                if m.type == "error" and not EXPECTED.search(m.text)
                else None
            ),
        )
        page.goto("/")
        page.get_by_role("button", name=re.compile(f"^{name}")).click()
        page.get_by_role("navigation", name="Rooms").wait_for()
        if path != "/":
            page.goto(path)
        return page

    yield come_in
    for context in opened:
        context.close()
    assert troubles == []
