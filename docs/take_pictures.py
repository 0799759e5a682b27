"""Take the README's pictures: a server on fresh demo data, one browser, every main view.

Run it with `make shots`. Nothing here is part of the application.
"""

import re
import shutil
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))

from tests.browser.house import CHROMIUM, FLAGS, House, furnish

OUT = ROOT / "docs" / "screenshots"


def sign_in(page: Page) -> None:
    page.get_by_role("button", name="wren").click()
    page.get_by_role("navigation", name="Pages").wait_for()


def open_plan(name: str, step: str):
    def act(page: Page) -> None:
        sign_in(page)
        page.get_by_role("link", name=re.compile(name)).click()
        page.wait_for_url(re.compile(r"/plans/\d+"))
        page.goto(f"{page.url.split('?')[0]}?step={step}")

    return act


def room(path: str):
    def act(page: Page) -> None:
        sign_in(page)
        page.goto(path)

    return act


def looking(name: str, step: str, view: str, after=None):
    """A plan at a step in one of its views."""

    def act(page: Page) -> None:
        open_plan(name, step)(page)
        page.wait_for_load_state("networkidle")
        page.get_by_role("radio", name=view, exact=True).check(force=True)
        page.wait_for_timeout(600)
        if after:
            after(page)

    return act


def in_the_middle(page: Page) -> None:
    page.mouse.move(430, 480)


def other_folds(page: Page) -> None:
    open_plan("Station kiosk", "turn-1")(page)
    page.get_by_role("button", name="Search all folds for this dough").click()
    page.get_by_text(re.compile("^87380 of 87380")).wait_for()


def smaller_fridge(page: Page) -> None:
    """A fridge with shorter shelves, eight of them: what that would change is said before it is changed."""
    room("/kitchen")(page)
    page.get_by_role("button", name=re.compile("^Fridge,")).click()
    for slider, key, times in (("Packages the fridge holds", "ArrowUp", 8),
                               ("Shelf in fridge and freezer, length", "PageDown", 8)):  # fmt: skip
        edge = page.get_by_role("slider", name=slider)
        edge.focus()
        for _ in range(times):
            edge.press(key)
    page.get_by_role("status").filter(has_text="then to mind").wait_for()


def resting(page: Page) -> None:
    room("/bench")(page)
    page.get_by_role("link", name=re.compile("Station kiosk")).click()
    page.get_by_role("button", name=re.compile("^Take it out")).wait_for()


def judged(page: Page) -> None:
    """At the lock-in of a puff, with what was measured."""
    room("/bench")(page)
    page.get_by_role("button", name="Start Café boat puff").click()
    for button in ("Mix done", "Dough done", "Take it out"):
        page.wait_for_timeout(900)
        page.get_by_role("button", name=re.compile(f"^{button}")).click()
    for probe, keys in (("Dough", "5"), ("Butter", "18")):
        page.get_by_role("button", name="Temperature").click()
        page.get_by_role("radio", name=probe).check(force=True)
        for key in keys:
            page.get_by_role("button", name=key, exact=True).click()
        page.get_by_role("button", name="Save").click()
        page.wait_for_timeout(600)
    page.get_by_role("region", name="May it go in?").get_by_role("status").wait_for()


def trays(page: Page) -> None:
    room("/bench")(page)
    page.get_by_role("link", name=re.compile("^Saturday market")).first.click()


def timetable(page: Page) -> None:
    """The market's day, once the search is over, with one dough chosen."""
    room("/day/1?view=timetable")(page)
    page.get_by_role("button", name="Look for a better one").wait_for(timeout=60_000)
    page.get_by_role("region", name="Doughs of the day").get_by_role("button").nth(1).click()
    page.mouse.wheel(0, -2000)


def record(page: Page) -> None:
    """One of a hot week, with what was seen of it."""
    room("/book")(page)
    page.get_by_role("textbox", name="Words").fill("heat wave")
    page.get_by_role("link", name=re.compile("Saturday market.*lift 2")).first.click()
    for seen in ("Fat on the tray", "Bready, few cells"):
        page.get_by_role("button", name=seen).click()
        page.get_by_role("button", name=seen, pressed=True).wait_for()
    page.get_by_text(re.compile("They proofed")).wait_for()
    page.mouse.wheel(0, -3000)


def store(page: Page) -> None:
    room("/store")(page)
    page.get_by_role("button", name=re.compile("^C1")).click()
    page.get_by_text(re.compile("Ready from")).wait_for()


def hot_day(page: Page) -> None:
    """The lesson of the hot day, as far as its first rest."""
    sign_in(page)
    page.goto("/lessons/3-a-hot-day")
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("radio", name="as usual").check()
    page.get_by_role("button", name=re.compile("^Done")).click()
    page.get_by_role("radio", name="bench").check()
    page.get_by_role("radio", name="Pause").check()
    page.get_by_role("button", name="5 min on").click()


def outcome(page: Page) -> None:
    """The same day gone wrong, and the best play of it."""
    hot_day(page)
    for _ in range(3):
        page.get_by_role("button", name=re.compile("^Take it out")).click()
        if page.get_by_role("radio", name="as usual").count() == 0:
            break
        page.get_by_role("radio", name="as usual").check()
        page.get_by_role("button", name=re.compile("^Done")).click()
        page.get_by_role("radio", name="fridge", exact=True).check()
        page.get_by_role("radio", name="Pause").check()
        for _ in range(5):
            page.get_by_role("button", name="5 min on").click()
    page.get_by_role("heading", name="What each decision cost").wait_for(timeout=90_000)
    page.get_by_text("Looking for the best play of this day.").wait_for(
        state="detached", timeout=90_000
    )


def inside(page: Page) -> None:
    sign_in(page)
    page.goto("/lessons/inside")
    page.get_by_role("button", name="Next fold").click()
    page.get_by_label("Your guess").fill("6")
    page.get_by_role("button", name="Look").click()


# In order: the one that takes the dough out comes after those that need it resting.
VIEWS = [
    ("plans", 1280, 800, sign_in),
    ("day", 1280, 800, timetable),
    ("today", 1280, 800, room("/today")),
    ("plan-lock-in", 1280, 800, open_plan("Café boat", "lock_in")),
    ("plan-turn", 1280, 800, open_plan("Station kiosk", "turn-2")),
    ("plan-warmth", 1280, 800, looking("Saturday market", "turn-1", "Warmth", in_the_middle)),
    ("plan-cut", 1280, 800, open_plan("Café boat", "cut")),
    ("other-folds", 1280, 800, other_folds),
    ("side-by-side", 1280, 800, room("/plans/compare?plans=1,2,3")),
    ("bench-rest", 1024, 768, resting),
    ("bench-trays", 1024, 768, trays),
    ("bench-lock-in", 1024, 768, judged),
    ("book", 1280, 800, room("/book")),
    ("record", 1280, 1500, record),
    ("store", 1280, 800, store),
    ("lesson-bench", 1280, 800, hot_day),
    ("lesson-outcome", 1280, 1300, outcome),
    ("lesson-inside", 1280, 800, inside),
    ("kitchen", 1280, 800, smaller_fridge),
]


def take(browser: Browser, house: House, wanted: set[str]) -> None:
    for name, width, height, act in VIEWS:
        if wanted and name not in wanted:
            continue
        context = browser.new_context(
            viewport={"width": width, "height": height}, base_url=house.address
        )
        page = context.new_page()
        page.goto("/")
        page.get_by_role("heading", name="Sign in").wait_for()
        if act:
            act(page)
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(500)
        page.screenshot(path=OUT / f"{name}.png")
        print(name)
        context.close()


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    data = Path(tempfile.mkdtemp())
    furnish(data)
    house = House(data)
    house.start()
    try:
        with sync_playwright() as play:
            browser = play.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            take(browser, house, set(sys.argv[1:]))
            browser.close()
    finally:
        house.stop()
        shutil.rmtree(data)


if __name__ == "__main__":
    main()
