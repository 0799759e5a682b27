"""Every screen, looked at by axe-core, at the sizes people have."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from .house import enter

AXE = (Path(__file__).resolve().parents[2] / "web/node_modules/axe-core/axe.min.js").read_text()


def grave(page):
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    found = page.evaluate("axe.run({exclude: ['option']}, {resultTypes: ['violations']})")[
        "violations"
    ]
    return [
        (v["id"], v["nodes"][0]["html"][:200], v["nodes"][0]["failureSummary"])
        for v in found
        if v["impact"] in ("serious", "critical")
    ]


def no_sideways_scroll(page):
    fits = "document.documentElement.scrollWidth <= window.innerWidth + 1"
    # drawings are drawn again at another size, on a slow machine not at once
    for wait_ms in (0, 60, 200, 600, 2_000):
        page.wait_for_timeout(wait_ms)
        if page.evaluate(fits):
            return
    assert page.evaluate(fits)


SIZES = [(1280, 800), (390, 844)]
AT_THE_BENCH = [(390, 844)]


@pytest.mark.parametrize(("width", "height"), SIZES)
def test_no_room_has_a_serious_fault(person, width, height):
    page = person(width=width, height=height)
    for path in (
        "/plans",
        "/today",
        "/day",
        "/day/1",
        "/day/1?view=timetable",
        "/day/1/sheets",
        "/bench",
        "/book",
        "/lessons",
        "/lessons/inside",
        "/lessons/3-a-hot-day",
        "/kitchen",
    ):
        enter(page, path)
        expect(page.get_by_role("main")).to_be_visible()
        page.wait_for_load_state("networkidle")
        if "timetable" in path:
            expect(page.get_by_role("button", name="Look for a better one")).to_be_visible()
        if width == 1280:
            assert grave(page) == [], path
        no_sideways_scroll(page)


@pytest.mark.parametrize(("width", "height"), SIZES[:1])
def test_no_step_of_a_plan_has_a_serious_fault(person, width, height):
    page = person(path="/plans", width=width, height=height)
    page.get_by_role("link", name=re.compile("Station kiosk")).click()
    for step in (
        ("mix", "dough", "lock_in", "turn-2", "cut") if width == 1280 else ("lock_in", "cut")
    ):
        enter(page, f"{page.url.split('?')[0]}?step={step}")
        expect(page.get_by_role("form", name=re.compile("inputs$"))).to_be_visible()
        if width == 1280:
            assert grave(page) == [], step
        no_sideways_scroll(page)


@pytest.mark.parametrize(("width", "height"), AT_THE_BENCH)
def test_the_bench_and_the_book_have_none(person, width, height):
    page = person(path="/bench", width=width, height=height)
    page.get_by_role("link", name=re.compile("Station kiosk")).first.click()
    expect(page.get_by_role("button", name=re.compile("^Take it out|done"))).to_be_visible()
    assert grave(page) == []
    no_sideways_scroll(page)
    page.get_by_role("button", name="Temperature").click()
    expect(page.get_by_role("dialog")).to_be_visible()
    assert grave(page) == []
    enter(page, "/book")
    page.get_by_role("link", name=re.compile("Café boat.*finished", re.S)).click()
    expect(page.get_by_role("heading", name="Planned and actual")).to_be_visible()
    assert grave(page) == []
    no_sideways_scroll(page)


def test_the_door_has_none_and_says_when_a_password_is_wrong(house, chromium):
    page = chromium.new_context(base_url=house.address).new_page()
    page.goto("/")
    expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
    assert grave(page) == []
    page.get_by_role("textbox", name="Name").fill("wren")
    page.get_by_label("Password", exact=True).fill("not this")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_text("This name and password do not belong together.")).to_be_visible()
    page.context.close()


def test_nothing_is_wider_than_its_screen(person):
    """On a tablet, and on a desk at twice its size."""
    page = person(path="/book", width=1024, height=768)

    def fits():
        for width, height in ((1024, 768), (640, 400)):
            page.set_viewport_size({"width": width, "height": height})
            no_sideways_scroll(page)

    page.get_by_role("link", name=re.compile("Café boat.*finished", re.S)).click()
    expect(page.get_by_role("heading", name="Planned and actual")).to_be_visible()
    fits()
    enter(page, "/plans")
    page.get_by_role("link", name=re.compile("Station kiosk")).click()
    expect(page.get_by_role("form", name=re.compile("inputs$"))).to_be_visible()
    expect(page).to_have_title(re.compile("^Lock-in, Station kiosk"))
    plan = page.url.split("?")[0]
    for path in (plan, f"{plan}/paper", f"{plan}/sheets", "/kitchen", "/day/1", "/today", "/bench"):
        enter(page, path)
        expect(page.locator("main h1, main input").first).to_be_visible()
        fits()


# Of the parts of a time only the whole is pressed; slices of the strip that lie folded open at a touch.
TOO_SMALL = """least => [...document.querySelectorAll(
    'main button, main a, main select, main input, footer button, footer a, nav a, nav button')]
  .filter(of => {
    const box = of.getBoundingClientRect()
    const style = getComputedStyle(of)
    const inText = of.tagName === 'A' && style.display === 'inline'
    const hidden = !box.width || style.visibility === 'hidden' || style.opacity === '0'
    const small = box.height < least - 0.5 || box.width < least / 2
    return small && !inText && !hidden && !['tab', 'spinbutton', 'slider'].includes(of.role) &&
      !['checkbox', 'radio', 'file', 'range', 'hidden', 'password'].includes(of.type) && !of.closest('label')
  })
  .map(of => `${of.ariaLabel || of.textContent || of.tagName} ${of.getBoundingClientRect().height}`)
"""


def test_whatever_is_pressed_is_large_enough_for_a_finger(person):
    page = person(width=1024, height=768, touch=True)
    for path in (
        "/today",
        "/plans",
        "/plans/1?step=cut",
        "/day",
        "/day/1",
        "/day/1?view=timetable",
        "/book",
        "/lessons",
        "/lessons/inside",
        "/kitchen",
    ):
        enter(page, path)
        page.get_by_role("heading").first.wait_for()
        expect(page.get_by_text(re.compile("^Opening|^Waiting"))).to_have_count(0)
        if "timetable" in path:
            page.get_by_role("link", name="The calendar of").first.wait_for()
        assert page.evaluate(TOO_SMALL, 44) == [], path
    enter(page, "/bench")
    page.get_by_role("link", name=re.compile("Saturday market croissant.*tray")).tap()
    expect(page.get_by_role("button", name=re.compile("^Tray 1: ")).first).to_be_visible()
    assert page.evaluate(TOO_SMALL, 56) == []
