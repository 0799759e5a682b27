"""Where the leaves are: the map, the seam of an offset book, and a way out taken with one press."""

import re

from playwright.sync_api import expect

from .test_planning import field, new_plan, saved, step


def leaves(page):
    leaves = page.get_by_role("radio", name="Leaves", exact=True)
    leaves.click(force=True)
    expect(leaves).to_be_checked()
    return page.get_by_role("img", name=re.compile("^Map of the leaves"))


def test_a_margin_shows_which_pieces_lie_in_poor_dough(person):
    page = person()
    new_plan(page, name="With a margin")
    step(page, "Cut").click()
    expect(leaves(page)).to_have_attribute(
        "aria-label", re.compile("100 % of the sheet has all 27")
    )
    expect(page.get_by_text("in poor dough")).to_be_hidden()
    step(page, "Lock-in").click()
    field(page, "Bare margin round the block").fill("12")
    step(page, "Cut").click()
    expect(leaves(page)).not_to_have_attribute("aria-label", re.compile(" 100 % of the sheet"))
    expect(page.get_by_text(re.compile(r"\d+ pieces lie in poor dough"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^24 bent")).click()
    expect(page.get_by_text("24 butter layers")).to_be_visible()
    saved(page)


def test_an_offset_book_moves_the_seam_off_the_spine_and_the_leaves_with_it(person):
    page = person()
    new_plan(page, name="Offset")
    step(page, "Lock-in").click()
    field(page, "Bare margin round the block").fill("10")
    step(page, "Turn 3").click()
    page.get_by_role("button", name=re.compile("^Remove")).click()
    step(page, "Turn 1").click()
    page.get_by_role("radio", name=re.compile("^Book fold")).check(force=True)
    step(page, "Last sheet").click()
    before = leaves(page).get_attribute("aria-label")
    step(page, "Turn 1").click()
    page.get_by_role("radio", name=re.compile("^Offset book fold")).check(force=True)
    expect(page.get_by_text("12 butter layers").first).to_be_visible()
    step(page, "Last sheet").click()
    expect(leaves(page)).not_to_have_attribute("aria-label", before)
    saved(page)


def test_a_sheet_longer_than_the_bench_is_put_right_with_one_press(person):
    page = person()
    new_plan(page, name="Too long")
    step(page, "Turn 1").click()
    field(page, "Roll to").fill("3")
    expect(page.get_by_text(re.compile("too long for the belt")).first).to_be_visible()
    page.get_by_role("button", name=re.compile("^Roll to [0-9.]+ mm")).click()
    expect(page.get_by_text("Fits the belt")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(field(page, "Roll to")).to_have_value("3")
    page.get_by_role("button", name=re.compile("mm wide first$")).click()
    expect(page.get_by_text("Fits the belt")).to_be_visible()


def test_advice_lights_the_leaves_and_the_minutes_it_speaks_of(person):
    page = person()
    new_plan(page, name="Pointed at")
    step(page, "Last sheet").click()
    advice = page.get_by_role("region", name="Advice")
    advice.locator("p").filter(has_text="Multiplying alone").hover()
    lit = page.locator("rect[data-lit]")
    expect(lit).to_have_count(1)
    page.mouse.move(4, 4)
    expect(lit).to_have_count(0)
    step(page, "Turn 1").click()
    field(page, "Rest for").fill("5")
    note = advice.locator("p").filter(has_text="Not relaxed yet")
    note.hover()
    expect(page.locator("[data-stop]").first).to_be_visible()
    expect(page.locator("path[data-lit]")).to_have_count(1)
