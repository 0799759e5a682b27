"""Where the focus goes, what cannot be read, and the way out: what a keyboard and a newcomer run into."""

import re

from playwright.sync_api import expect

from .test_planning import add_step, field, new_plan, saved, step


def focused(page):
    """What has the focus, as tag and words."""
    return page.evaluate(
        "(document.activeElement.tagName + ' ' + document.activeElement.textContent).trim()"
    )


def test_the_focus_never_falls_to_the_top_of_the_page(person):
    page = person()
    new_plan(page, name="Where am I")
    page.wait_for_timeout(300)
    assert focused(page) != "BODY"
    assert not focused(page).startswith("BODY")
    step(page, "Turn 3").click()
    page.get_by_role("button", name="Remove Turn 3").click()
    expect(page.get_by_text("9 butter layers").first).to_be_visible()
    page.wait_for_timeout(200)
    assert focused(page).startswith("BUTTON")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("27 butter layers").first).to_be_visible()
    # that was the last there was to undo: the focus goes to the chosen step
    page.wait_for_timeout(300)
    assert not focused(page).startswith("BODY")


def test_signing_out_leads_to_the_way_in(person):
    page = person(path="/plans")
    page.get_by_role("button", name=re.compile("^wren")).click()
    page.get_by_role("menuitem", name="Sign out").click()
    expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
    expect(page.get_by_text("That did not work")).to_have_count(0)
    page.get_by_role("button", name=re.compile("^wren")).click()
    expect(page.get_by_role("heading", name="Plans", level=1)).to_be_visible()


def test_what_cannot_be_read_is_neither_saved_nor_made_into_a_plan(person):
    page = person()
    page.get_by_role("button", name="New plan").click()
    field(page, "Dough").fill("abc")
    page.get_by_role("button", name="Make the plan").click()
    expect(page.get_by_text("“abc” is not a mass")).to_be_visible()
    expect(field(page, "Dough")).to_be_focused()
    expect(page).to_have_url(re.compile("/plans$"))
    field(page, "Dough").fill("2000")
    field(page, "Name").fill("Read at last")
    page.get_by_role("button", name="Make the plan").click()
    expect(field(page, "Name of the plan")).to_have_value("Read at last")
    step(page, "Dough").click()
    field(page, "Butter").fill("abc")
    expect(page.get_by_text(re.compile("^not saved: a field cannot be read"))).to_be_visible()
    field(page, "Butter").fill("520")
    saved(page)


def test_a_step_is_added_moved_copied_and_removed_by_keyboard_and_by_button(person):
    page = person()
    new_plan(page, name="My own way")
    step(page, "Turn 1").click()
    add_step(page, "Own step")
    own = page.get_by_role("tab", name=re.compile("^Own step"))
    expect(own).to_have_attribute("aria-selected", "true")
    field(page, "What it is called").fill("Stamp the mark")
    page.get_by_label("Words for the bench").fill("Lower left corner.")
    own = page.get_by_role("tab", name=re.compile("^Stamp the mark"))
    expect(own).to_be_visible()
    saved(page)

    def order():
        return [t.split("\n")[0] for t in page.get_by_role("tab").all_inner_texts()]

    before = order()
    own.focus()
    page.keyboard.press("Alt+ArrowRight")
    expect(page.get_by_role("tab").nth(before.index("Stamp the mark") + 1)).to_contain_text("Stamp")
    page.get_by_role("button", name="Earlier").click()
    expect(page.get_by_role("tab").nth(before.index("Stamp the mark"))).to_contain_text("Stamp")
    page.get_by_role("button", name="Copy this step").click()
    expect(page.get_by_role("tab", name=re.compile("^Stamp the mark"))).to_have_count(2)
    page.get_by_role("button", name=re.compile("^Remove")).click()
    expect(page.get_by_role("tab", name=re.compile("^Stamp the mark"))).to_have_count(1)
    saved(page)
    # what makes no sense says why, and is taken back
    step(page, "Cut").click()
    page.get_by_role("button", name="Earlier").click()
    expect(page.get_by_role("alert")).to_contain_text("needs")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("alert")).to_have_count(0)
