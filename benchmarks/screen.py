"""What a person waits for, for `make bench`: bytes fetched, a second start, a key press, a slider.

In a real browser on a real house of demo data, thrown away afterwards; each beside something that the
same machine does in the same minute.
"""

import json
import re
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from pathlib import Path
from statistics import median, quantiles

from playwright.sync_api import Page, sync_playwright

from tests.browser.house import CHROMIUM, FLAGS, ROOT, House, furnish

EMPTY_PAGE = 121_000  # script and style of an empty page of the same framework, as it is sent
FRAME_MS = 1000 / 60
PRESSES = 40

# Resolves with the milliseconds from the next event of a kind to the frame that shows what it changed.
WATCH = """([event, drawn]) => {
  const on = document.querySelector(drawn);
  window.shown = new Promise((done) => {
    let began = 0;
    addEventListener(event, () => { began = performance.now(); }, { capture: true, once: true });
    const seen = new MutationObserver(() => {
      if (!began) return;
      seen.disconnect();
      requestAnimationFrame(() => setTimeout(() => done(performance.now() - began)));
    });
    seen.observe(on, { subtree: true, childList: true, attributes: true, characterData: true });
  });
}"""
EMPTY = """() => {
  const box = document.body.appendChild(document.createElement("div"));
  box.innerHTML = '<input id="emptyIn"><span id="emptyOut">0</span>';
  box.firstChild.addEventListener("input", () => {
    box.lastChild.firstChild.data = String(Number(box.lastChild.firstChild.data) + 1);
  });
}"""


def p95(found: list[float]) -> float:
    return quantiles(found, n=20)[-1]


def shown(page: Page, event: str, drawn: str, press: Callable[[int], object]) -> list[float]:
    """Milliseconds from each press to the frame in which ``drawn`` has changed."""
    found = []
    for n in range(PRESSES):
        page.evaluate(WATCH, [event, drawn])
        press(n)
        found.append(page.evaluate("window.shown"))
        page.wait_for_timeout(260)
    return found[5:]


def fetched(page: Page, path: str, ready: Callable[[], object]) -> dict[str, int]:
    """Bytes on the wire by address, of a page opened with nothing kept."""
    wire = page.context.new_cdp_session(page)
    wire.send("Network.enable")
    wire.send("Network.setCacheDisabled", {"cacheDisabled": True})
    urls: dict[str, str] = {}
    sizes: dict[str, int] = {}
    wire.on(
        "Network.responseReceived", lambda e: urls.update({e["requestId"]: e["response"]["url"]})
    )
    wire.on(
        "Network.loadingFinished",
        lambda e: sizes.update({urls.get(e["requestId"], ""): int(e["encodedDataLength"])}),
    )
    page.goto(path)
    ready()
    page.wait_for_load_state("networkidle")
    return sizes


def second_start(data: Path) -> tuple[float, float, float]:
    """Seconds until a demo that was there already gives its page, until it says who one is, and until
    Django and numpy are imported.
    """
    began = time.perf_counter()
    subprocess.run([sys.executable, "-c", "import django, numpy"], check=True)
    imported = time.perf_counter() - began
    house = House(data)
    began = time.perf_counter()
    house.start("--demo", look=False)
    urllib.request.urlopen(house.address).read()
    page = time.perf_counter() - began
    urllib.request.urlopen(f"{house.address}/api/session").read()
    known = time.perf_counter() - began
    house.stop()
    return page, known, imported


FRAMES = """() => {
  const gaps = [];
  let before = null, on = true;
  requestAnimationFrame(function tick(now) {
    if (before !== null) gaps.push(now - before);
    before = now;
    if (on) requestAnimationFrame(tick);
  });
  window.stopFrames = () => { on = false; return gaps; };
}"""
EMPTY_DRAG = """() => {
  const box = document.body.appendChild(document.createElement("div"));
  box.id = "emptyDrag";
  box.style = "position:fixed;left:600px;top:500px;width:40px;height:40px;z-index:99";
  let from = null;
  box.addEventListener("pointerdown", (e) => { from = e.clientX; box.setPointerCapture(e.pointerId); });
  box.addEventListener("pointermove", (e) => {
    if (from !== null) box.style.transform = `translateX(${e.clientX - from}px)`;
  });
  box.addEventListener("pointerup", () => { from = null; });
}"""


def late_frames(page: Page, handle: str) -> float:
    """Frames of a drag there and back that come later than one 60th of a second, of a hundred."""
    box = page.locator(handle).first.bounding_box()
    if not box:
        raise RuntimeError(f"there is no {handle}")
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.evaluate(FRAMES)
    for n in range(160):
        page.mouse.move(x - 80 + abs(80 - n), y)
        page.wait_for_timeout(8)
    gaps: list[float] = page.evaluate("window.stopFrames()")
    page.mouse.up()
    return 100 * sum(gap > 1.5 * FRAME_MS for gap in gaps) / len(gaps)


def drags(page: Page, plan: str) -> None:
    """An edge of a sheet of six turns dragged with its map and marks shown, beside an empty drag."""
    page.goto(f"{plan}?step=turn-1")
    turns = page.get_by_role("tab", name=re.compile("^Turn"))
    turns.first.wait_for()
    while turns.count() < 6:
        before = turns.count()
        page.get_by_role("button", name="Add a turn after this").click()
        turns.nth(before).wait_for(state="attached")
    page.wait_for_timeout(1_500)
    page.evaluate(EMPTY_DRAG)
    empty = late_frames(page, "#emptyDrag")
    page.evaluate("document.querySelector('#emptyDrag').remove()")
    held = late_frames(page, "[data-grip$='.length_mm'] rect")
    print(
        f"frames late while an edge is dragged: {held:3.0f} of 100, of an empty drag {empty:3.0f}"
    )


def on_screen() -> None:
    """Print the rows of the table that a browser is needed for."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as play:
        data = Path(folder)
        furnish(data)
        starts = [second_start(data) for _ in range(3)]
        page, known, imported = (min(times) for times in zip(*starts, strict=True))
        print(
            f"\nsecond demo to its first answer: {page / imported:4.1f} × importing Django and numpy; "
            f"until it says who one is {known / imported:4.1f} ×"
        )
        house = House(data)
        house.start()
        browser = play.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        try:
            look(browser.new_context(base_url=house.address, service_workers="block").new_page())
        finally:
            browser.close()
            house.stop()


def look(page: Page) -> None:
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto("/")
    page.get_by_role("button", name=re.compile("^wren")).click()
    page.get_by_role("link", name=re.compile("Station kiosk")).first.click()
    inputs = page.get_by_role("form", name=re.compile("inputs$"))
    inputs.wait_for()
    plan = page.url.split("?")[0]
    sizes = fetched(page, f"{plan}?step=turn-2", inputs.wait_for)
    code = sum(size for url, size in sizes.items() if url.endswith((".js", ".css")))
    print(
        f"script and style of a plan, as sent: {code / EMPTY_PAGE:4.2f} × an empty page ({code} bytes)"
    )

    page.wait_for_timeout(9_000)  # the other rooms have been fetched
    page.evaluate(EMPTY)
    page.locator("#emptyIn").focus()
    empty = p95(shown(page, "keydown", "#emptyOut", lambda n: page.keyboard.press(str(n % 10))))
    thickness = inputs.get_by_label("Roll to", exact=True)
    thickness.focus()

    def digit(n: int) -> None:
        thickness.select_text()
        page.keyboard.press(str(6 + n % 4))

    sheet = p95(shown(page, "keydown", "[role=tabpanel] svg", digit))
    thickness.fill("8")
    page.wait_for_timeout(1_000)
    page.get_by_role("slider", name=re.compile("^Room")).focus()
    page.keyboard.press("Home")
    page.wait_for_timeout(1_000)
    warm = p95(shown(page, "keydown", "[data-works]", lambda _: page.keyboard.press("ArrowRight")))
    for what, ms in (("key press to redrawn sheet", sheet), ("slider to redrawn warmth", warm)):
        print(
            f"{what}, 95 of 100: {(ms - empty) / FRAME_MS:4.1f} frames over an empty handler "
            f"({ms:.0f} ms, {empty:.0f} ms)"
        )
    answered(page, int(plan.rsplit("/", 1)[-1]))
    drags(page, plan)
    polled(page)


# In the page itself, one request after the other: milliseconds until each is answered and read.
TIMED = """async ([asks]) => {
  const token = /csrftoken=([^;]+)/.exec(document.cookie)[1];
  const headers = { "Content-Type": "application/json", "X-CSRFToken": token };
  const found = [];
  for (const [path, body] of asks) {
    const began = performance.now();
    const answer = await fetch(path, body ? { method: "POST", headers, body } : {});
    if (!answer.ok) throw new Error(`${path} ${answer.status}`);
    await answer.text();
    found.push(performance.now() - began);
  }
  return found;
}"""


def answered(page: Page, plan_id: int) -> None:
    """A plan worked and its warmth, each another than the one before, beside who one is."""
    plan = page.request.get(f"/api/plans/{plan_id}").json()["plan"]

    def heavier(n: int) -> str:
        return json.dumps(plan | {"dough": plan["dough"] | {"mass_g": plan["dough"]["mass_g"] + n}})

    def warmer(n: int) -> str:
        today = {"room_c": 16 + n / 10, "starts": [], "room_at_min": 0}
        return json.dumps({"plan": plan, "today": today, "what_if": False})

    def timed(path: str, body: Callable[[int], str | None]) -> float:
        asks = [[path, body(n)] for n in range(PRESSES)]
        return median(page.evaluate(TIMED, [asks])[5:])

    session = timed("/api/session", lambda _: None)
    for path, body in (("/api/work", heavier), ("/api/warmth", warmer)):
        ms = timed(path, body)
        print(f"{path} on a moved slider: {ms / session:4.1f} × /api/session ({ms:.1f} ms)")


def polled(page: Page) -> None:
    """A poll at the bench, with news and without, beside where the run stands."""
    listed = page.request.get("/api/runs").json()
    run = f"/api/runs/{listed['runs'][0]['id']}"
    packed = {"Accept-Encoding": "gzip"}
    news = page.request.get(run, headers=packed)
    stands = len(json.dumps(news.json()["standing"]))
    same = page.request.get(run, headers=packed | {"If-None-Match": news.headers["etag"]})
    assert same.status == 304, same.status
    sent = int(news.headers["content-length"])
    print(
        f"answer of a poll: {sent / stands:4.2f} × where the run stands ({sent} bytes); 0 without news"
    )


if __name__ == "__main__":
    sys.path.insert(0, str(ROOT))
    on_screen()
