"""What was before: earlier versions of plans and of the kitchen; and the builders' page of drawings."""

import re

from playwright.sync_api import expect

from .test_access import grave
from .test_planning import field, new_plan, saved, step


def test_an_earlier_version_of_a_plan_is_taken_back_and_that_is_undone(person):
    page = person()
    new_plan(page, name="Twice saved")
    step(page, "Turn 1").click()
    field(page, "Roll to").fill("7")
    saved(page)
    page.wait_for_timeout(1300)
    field(page, "Roll to").fill("6")
    saved(page)
    page.get_by_role("button", name="More for this plan").click()
    page.get_by_role("menuitem", name="Earlier versions").click()
    dialog = page.get_by_role("dialog", name=re.compile("^Earlier versions of Twice saved"))
    expect(dialog.get_by_text("by wren").first).to_be_visible()
    assert grave(page) == []
    dialog.get_by_role("button", name=re.compile("^Go back to this version")).first.click()
    expect(dialog).to_be_hidden()
    expect(field(page, "Roll to")).to_have_value("7")
    page.get_by_role("button", name="Undo").click()
    expect(field(page, "Roll to")).to_have_value("6")


def test_an_earlier_kitchen_is_taken_back(person):
    page = person(path="/kitchen")
    bench = field(page.get_by_role("region", name="Values"), "Bench length")
    before = bench.input_value()
    for length in ("2345", "2222"):
        bench.fill(length)
        with page.expect_response(
            lambda r: r.url.endswith("/api/kitchen") and r.request.method == "PUT"
        ):
            bench.blur()
    page.get_by_role("button", name="Earlier versions").click()
    dialog = page.get_by_role("dialog", name="Earlier versions of the kitchen")
    dialog.get_by_role("button", name=re.compile("^Go back to this version")).first.click()
    expect(bench).to_have_value("2345")
    bench.fill(before)
    bench.blur()
    expect(bench).to_have_value(before)
