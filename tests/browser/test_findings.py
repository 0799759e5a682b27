"""The book asked: from fat on the tray to its cause, the change in the plan, and what was different."""

import re

from playwright.sync_api import expect

from .house import ASK


def test_from_fat_on_the_tray_to_the_cause_the_change_and_what_was_different(person):
    page = person("wren", "/book", new=True)
    page.get_by_role("textbox", name="Words").fill("heat wave")
    records = page.locator("main ul a", has_text="Saturday market croissant")
    expect(records).to_have_count(2)
    records.first.click()

    seen = page.get_by_role("region", name="What was seen")
    seen.get_by_role("button", name="Fat on the tray").click()
    seen.get_by_role("button", name="Bready, few cells").click()
    why = page.get_by_role("region", name="Why it may have come out so")
    first = why.get_by_role("article").first
    expect(first).to_contain_text("The butter let go")
    expect(first).to_contain_text("it bends up to")
    expect(first).to_contain_text("Fat on the tray, bready, few cells go with it")

    different = page.get_by_role("region", name="What was different")
    expect(different.get_by_role("listitem").first).to_contain_text(
        re.compile("the butter|the room")
    )
    expect(different).to_contain_text("usually")

    why.get_by_role("button", name="Put it into the plan").click()
    expect(why.get_by_role("status")).to_contain_text("It stands in the plan, with why")
    first.get_by_role("button", name="It was that").click()
    expect(first).to_contain_text("it was that")
    page.reload()
    expect(why.get_by_role("article").first).to_contain_text("it was that")
    plans = page.evaluate(ASK, ["GET", "/plans", None])
    number = next(p["id"] for p in plans if p["name"] == "Saturday market croissant")
    plan = page.evaluate(ASK, ["GET", f"/plans/{number}", None])["plan"]
    assert "Because of the bake of" in plan["words"]
    assert "fat on the tray" in plan["words"]
