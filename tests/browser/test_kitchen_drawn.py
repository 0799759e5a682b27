"""The kitchen as it is drawn: things chosen, moved and sized where they stand."""

import re

import pytest
from playwright.sync_api import expect

from .test_access import grave
from .test_hands import Mouse, now, pull


def thing(page, name):
    return page.get_by_role("button", name=re.compile(f"^{name},"))


def test_a_bench_is_pulled_longer_and_what_that_changes_is_said_first(person):
    page = person(path="/kitchen")
    thing(page, "Bench").click()
    edge = page.get_by_role("slider", name="Bench length")
    was = now(edge)
    pull(Mouse(page), edge, was - 600)
    told = page.get_by_role("status").filter(has_text="Before you change it")
    expect(told.get_by_text(re.compile("then to mind")).first).to_be_visible()
    expect(told.get_by_role("link").first).to_be_visible()
    told.get_by_role("button", name="Leave it").click()
    expect(edge).to_have_attribute("aria-valuenow", f"{was:g}")
    assert grave(page) == []


def test_a_value_of_a_thing_is_changed_in_the_drawing_and_taken_back_below(person):
    page = person(path="/kitchen")
    thing(page, "Scales").click()
    form = page.get_by_role("form", name="Scales: values")
    field = form.get_by_role("textbox").first
    field.fill("5")
    field.press("Tab")
    expect(page.get_by_text("Before you change it")).to_be_visible()
    page.get_by_role("button", name="Change it").click()
    expect(page.get_by_text("Before you change it")).to_have_count(0)
    page.reload()
    thing(page, "Scales").click()
    expect(field).to_have_value("5")
    page.get_by_role("button", name=re.compile("scale.*: back to trade practice", re.I)).click()
    expect(field).to_have_value("1")


def test_a_thing_stays_where_it_was_put(person):
    page = person(path="/kitchen")
    oven = thing(page, "Oven")
    was = oven.get_attribute("transform")
    at = oven.locator("rect").first.bounding_box()
    x, y = at["x"] + 20, at["y"] + 20
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 90, y - 30, steps=6)
    with page.expect_response(
        lambda r: r.url.endswith("/api/kitchen") and r.request.method == "PUT"
    ) as kept:
        page.mouse.up()
    assert kept.value.ok
    expect(oven).not_to_have_attribute("transform", was)
    moved = oven.locator("rect").first.bounding_box()
    assert abs(moved["x"] - at["x"] + 90) < 8
    assert abs(moved["y"] - at["y"] + 30) < 8
    there = oven.get_attribute("transform")
    page.reload()
    # what was read before may be shown until the bakehouse has answered
    expect(oven).to_have_attribute("transform", there)


def keeps(page, press):
    """Press something that changes the kitchen, and wait until the house has it."""
    with page.expect_response(
        lambda r: r.url.endswith("/api/kitchen") and r.request.method == "PUT"
    ) as kept:
        press()
    assert kept.value.ok


@pytest.fixture
def kitchen(person):
    """The kitchen's page; the kitchen is left as it was, however the test goes."""
    page = person(path="/kitchen")
    was = page.request.get("/api/kitchen").json()
    yield page
    before = {
        "yours": was["yours"],
        "ingredients": was["ingredients"],
        "revision": page.request.get("/api/kitchen").json()["revision"],
    }
    token = next(c["value"] for c in page.context.cookies() if c["name"] == "csrftoken")
    back = page.request.put("/api/kitchen", data=before, headers={"X-CSRFToken": token})
    assert back.ok, back.text()


def test_a_kitchen_is_set_up_from_its_drawing(kitchen):
    """Bench, small sheeter, domestic fridge and two butters, without leaving the drawing."""
    page = kitchen
    change = page.get_by_role("button", name="Change it")

    def size(name, values):
        thing(page, name).click()
        form = page.get_by_role("form", name=f"{name}: values")
        for label, value in values.items():
            field = form.get_by_role("textbox", name=label)
            field.fill(value)
            field.press("Tab")
        keeps(page, change.click)

    size("Bench", {"Bench length": "1,8 m", "Bench width": "70 cm"})
    size("Sheeter", {"Sheeter, both tables": "1200", "Sheeter belt, width": "400"})
    thing(page, "Fridge").click()
    places = page.get_by_role("slider", name="Packages the fridge holds")
    pull(Mouse(page), places, 4, along="y")
    keeps(page, change.click)
    thing(page, "Butter shelf").click()
    for name in ("Towpath butter", "Sluice butter"):
        page.get_by_label("Another butter, like").select_option(index=1)
        page.get_by_role("textbox", name="Name", exact=True).fill(name)
        keeps(page, page.get_by_role("button", name="Save", exact=True).click)
        page.get_by_role("button", name="Close").click()
        expect(page.get_by_role("button", name=re.compile(f"^{name}"))).to_be_visible()
    assert grave(page) == []
    page.reload()
    thing(page, "Fridge").click()
    expect(places).to_have_attribute("aria-valuenow", "4")
    assert thing(page, "Bench").get_attribute("aria-label") == "Bench, 1800 by 700 mm"


def test_on_a_phone_it_is_as_wide_as_its_screen(person):
    page = person(path="/kitchen", width=390, height=844)
    expect(thing(page, "Bench")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 391
