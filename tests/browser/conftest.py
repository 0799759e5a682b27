"""A real server on its own data, and browsers that people use."""

import fcntl
import os
import re
import shutil

import pytest
from playwright.sync_api import expect, sync_playwright

from .house import CHROMIUM, FLAGS, House, furnish

# Machines differ; what is tested is what appears, not how soon.
expect.set_options(timeout=40_000)


def pytest_collection_modifyitems(items):
    """One that needs the house comes first: it is furnished while others test what needs none."""
    first = next((item for item in items if "house" in item.fixturenames), None)
    if first:
        items.insert(0, items.pop(items.index(first)))


@pytest.fixture(scope="session")
def house(tmp_path_factory):
    """A house of this worker's own: the demo is loaded by one of them, and the others copy it."""
    base = tmp_path_factory.getbasetemp()
    shared = (base.parent if os.environ.get("PYTEST_XDIST_WORKER") else base) / "demo house"
    with (shared.parent / "demo house.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not shared.exists():
            shared.mkdir()
            furnish(shared, arrange=True)
    data = base / "house"
    shutil.copytree(shared, data)
    house = House(data)
    house.start()
    yield house
    house.stop()


@pytest.fixture(scope="session")
def play():
    """There is one in a process."""
    with sync_playwright() as started:
        yield started


@pytest.fixture(scope="session")
def chromium(play):
    browser = play.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
    yield browser
    browser.close()


# A refused request and a dropped connection are things that tests do on purpose.
EXPECTED = re.compile(r"Failed to load resource|net::ERR_")


@pytest.fixture(scope="session")
def keys():
    """The sessions of those who have signed in through the page before, by their names."""
    return {}


@pytest.fixture(scope="session")
def left():
    """Browsers that other tests have left, by whether they are touched: they have read the scripts before."""
    return {True: [], False: []}


@pytest.fixture
def person(house, chromium, keys, left):
    """Opens a browser, signed in; at the end, no script may have failed."""
    opened, again, troubles = [], [], []
    if house.process.poll() is not None:
        house.start()  # a test that stopped it may have failed before it began again

    def listen(page):
        page.set_default_timeout(30_000)
        page.on("pageerror", lambda error: troubles.append(str(error)))
        page.on(
            "console",
            lambda m: (
                troubles.append(m.text)
                if m.type == "error" and not EXPECTED.search(m.text)
                else None
            ),
        )

    def come_in(
        name="wren", path="/plans", width=1280, height=800, touch=False, worker=False, new=False
    ):
        """``new``: a browser that nobody had before nor has after, for whoever changes more than a page."""
        if left[touch] and not (worker or new):
            context = left[touch].pop()
        else:
            context = chromium.new_context(
                # what it keeps for a day without a network is fetched only where that is looked at
                service_workers="allow" if worker else "block",
                has_touch=touch,
                base_url=house.address,
                reduced_motion="reduce",
            )
        (opened if worker or new else again).append((context, touch))
        page = context.new_page()
        page.set_viewport_size({"width": width, "height": height})
        listen(page)
        forget(context, page, house.address)
        context.add_cookies(keys.get(name, []))
        if not context.request.get("/api/session").json()["me"]:
            page.goto("/")
            page.get_by_role("button", name=re.compile(f"^{name}")).click()
            page.get_by_role("navigation", name="Pages").wait_for()
            keys[name] = context.cookies()
        page.goto(path)
        return page

    yield come_in
    for context, _ in opened:
        context.close()
    for context, touch in again:
        for page in context.pages:
            page.close()
        left[touch].append(context)
    assert troubles == []


def forget(context, page, address):
    """Let a browser know nothing but the files that it has read."""
    context.clear_cookies()
    tools = context.new_cdp_session(page)
    kept = "local_storage,indexeddb,cache_storage"
    tools.send("Storage.clearDataForOrigin", {"origin": address, "storageTypes": kept})
    tools.detach()
