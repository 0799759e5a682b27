"""Looking into the sheet: the fold as it happens, cut across under a loupe, plans side by side."""

import re

from playwright.sync_api import expect

from .house import enter
from .test_access import grave
from .test_planning import field, new_plan, saved, step


def show(page, view):
    page.get_by_role("radio", name=view, exact=True).check(force=True)


def test_the_fold_is_stepped_through_and_played(person):
    page = person()
    new_plan(page, name="Folding")
    step(page, "Turn 1").click()
    show(page, "Folding")
    expect(page.get_by_role("img", name=re.compile("^letter fold: Rolled"))).to_be_visible()
    how_far = page.get_by_role("slider", name="How far the fold has come")
    page.get_by_role("button", name="The far third comes over").click()
    expect(how_far).to_have_attribute("aria-valuenow", "1")
    page.get_by_role("button", name="Play the fold").click()
    expect(page.get_by_role("button", name="Play the fold")).to_be_visible()
    expect(how_far).to_have_attribute("aria-valuenow", "3")
    page.get_by_role("radio", name=re.compile("^Book fold")).check(force=True)
    expect(page.get_by_role("button", name="Shut it like a book")).to_be_visible()
    assert grave(page) == []


def test_a_sheet_is_cut_across_and_the_loupe_goes_where_the_keys_say(person):
    page = person()
    new_plan(page, name="Cut across")
    step(page, "Lock-in").click()
    field(page, "Bare margin round the block").fill("15")
    step(page, "Last sheet").click()
    show(page, "Cut across")
    drawing = page.get_by_role("img", name=re.compile("^The sheet cut along the line"))
    expect(drawing).to_have_attribute("aria-label", re.compile("27 butter and 28 dough leaves"))
    drawing.focus()
    for _ in range(60):
        page.keyboard.press("ArrowLeft")
    expect(drawing).to_have_attribute("aria-label", re.compile(" 0 mm from the left"))
    expect(drawing).not_to_have_attribute("aria-label", re.compile("27 butter and 28"))
    show(page, "Across")
    expect(page.get_by_text("at 0 % of the length")).to_be_visible()
    assert grave(page) == []
    saved(page)


def test_a_touched_place_of_the_map_shows_its_own_stack(person):
    page = person()
    new_plan(page, name="Touched")
    step(page, "Lock-in").click()
    field(page, "Bare margin round the block").fill("15")
    step(page, "Last sheet").click()
    show(page, "Leaves")
    sheet = page.get_by_role("img", name=re.compile("^Map of the leaves"))
    sheet.click()  # its middle, once it stands still
    expect(page.get_by_text("at the place touched")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("at the place touched"))).to_be_visible()


def test_all_folds_are_searched_and_one_press_takes_the_best(person):
    page = person()
    new_plan(page, name="Other folds")
    step(page, "Turn 1").click()
    page.get_by_role("button", name="Search all folds for this dough").click()
    dialog = page.get_by_role("dialog", name="Other folds for this dough")
    expect(dialog.get_by_text(re.compile("^87380 of 87380 sequences"))).to_be_visible()
    expect(dialog.get_by_role("columnheader", name=re.compile("As it is"))).to_be_visible()
    assert grave(page) == []
    dialog.get_by_role("radio", name="Fewest rests").check(force=True)
    expect(dialog.get_by_text(re.compile("^87380 of 87380 sequences"))).to_be_visible()
    best = dialog.get_by_role("columnheader", name=re.compile("rests? in 2 turns")).first
    best.get_by_role("button", name="Take these folds").click()
    expect(dialog).to_be_hidden()
    expect(step(page, "Turn 3")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(step(page, "Turn 3")).to_be_visible()
    saved(page)


def test_plans_stand_side_by_side_and_say_what_differs(person):
    page = person(path="/plans")
    page.get_by_role("link", name="Side by side").click()
    expect(page.get_by_role("row", name=re.compile("^Butter layers"))).to_be_visible()
    assert grave(page) == []
    page.get_by_role("combobox", name="Plans to compare").click()
    page.get_by_role("option", name="Café boat puff").click()
    page.keyboard.press("Escape")
    expect(page.get_by_role("columnheader")).to_have_count(3)
    expect(page.get_by_role("row", name=re.compile("^Butter layers .*243"))).to_be_visible()
    page.reload()
    expect(page.get_by_role("columnheader")).to_have_count(3)
    enter(page, "/plans/compare")
    expect(page.get_by_role("heading", name="Choose two plans or more")).to_be_visible()
