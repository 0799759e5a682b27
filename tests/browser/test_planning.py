"""Planning as a head baker does it: by label and role, through the real interface."""

import json
import re

from playwright.sync_api import expect

from .house import enter


def field(page, label):
    return page.get_by_role("textbox", name=label, exact=True)


def step(page, name):
    return page.get_by_role("tab", name=re.compile(f"^{name}"))


def sheet(page):
    """The drawing from above, which says in words what it shows."""
    return page.get_by_role("img", name=re.compile("sheet|slab", re.I)).first


def new_plan(page, dough="2400", name="Mine", family="Croissant", formula=True):
    enter(page, "/plans")
    page.get_by_role("button", name="New plan").click()
    page.get_by_role("radio", name=family).check(force=True)
    field(page, "Dough").fill(dough)
    field(page, "Name").fill(name)
    page.get_by_label(re.compile("formula")).set_checked(formula)
    page.get_by_role("button", name="Make the plan").click()
    expect(field(page, "Name of the plan")).to_have_value(name)


def add_step(page, kind="Turn"):
    """One more step after the chosen one."""
    page.get_by_role("button", name="Add a step").click()
    page.get_by_role("menuitem", name=kind, exact=True).click()


def saved(page):
    expect(page.get_by_text(re.compile(r"^saved \d\d:\d\d$"))).to_be_visible()


def test_from_her_own_dough_to_sheets_that_follow_and_survive_a_restart(person, house):
    page = person()
    new_plan(page, dough="2,4 kg", name="Two-kilo dough")
    step(page, "Lock-in").click()
    expect(page.get_by_text("Block thickness").first).to_be_visible()
    before = sheet(page).get_attribute("aria-label")

    step(page, "Dough").click()
    share = field(page, "Butter share of the dough").input_value()
    field(page, "Dough").fill("3000")
    # the butter follows, at the share it had
    field(page, "Butter").focus()
    expect(field(page, "Butter share of the dough")).to_have_value(share)
    field(page, "Butter share of the dough").fill("30")
    expect(field(page, "Butter")).to_have_value("900")
    step(page, "Lock-in").click()
    expect(sheet(page)).not_to_have_attribute("aria-label", before)

    expect(page.get_by_text("27 butter layers").first).to_be_visible()
    step(page, "Turn 3").click()
    add_step(page)
    expect(page.get_by_text("81 butter layers").first).to_be_visible()
    page.get_by_role("radio", name=re.compile("^Book fold")).check(force=True)
    expect(page.get_by_text("108 butter layers").first).to_be_visible()
    step(page, "Cut").click()
    pieces = step(page, "Cut").inner_text()
    assert int(re.search(r"(\d+) pieces", pieces)[1]) > 30
    saved(page)

    house.stop()
    house.start()
    page.reload()
    expect(page.get_by_text("108 butter layers").first).to_be_visible()
    assert step(page, "Cut").inner_text() == pieces
    step(page, "Dough").click()
    expect(field(page, "Butter")).to_have_value("900")


WRONG_MASSES = [
    ("0", "Must be from 1 g to 200 kg."),
    ("-5", "Must be from 1 g to 200 kg."),
    ("", "Enter a mass, such as 2\u202f400 g."),
    ("plenty", "“plenty” is not a mass"),
    ("NaN", "“NaN” is not a mass"),
    ("1000000000", "Must be from 1 g to 200 kg."),
    ("3 mm", "“mm” is not a unit for this"),
]


def test_a_wrong_mass_says_so_at_its_field_and_loses_nothing(person):
    page = person()
    new_plan(page, name="Wrong mass")
    step(page, "Dough").click()
    for typed, says in WRONG_MASSES:
        field(page, "Dough").fill(typed)
        field(page, "Butter").focus()
        expect(page.get_by_text(says)).to_be_visible()
        expect(field(page, "Dough")).to_have_value(typed)
        expect(sheet(page)).to_be_visible()
    field(page, "Dough").fill("2500")
    expect(page.get_by_text("Must be from")).to_be_hidden()
    saved(page)


def test_a_roll_thicker_than_the_package_keeps_the_last_sheets_and_the_edit(person):
    page = person()
    new_plan(page, name="Too thick")
    step(page, "Turn 2").click()
    field(page, "Roll to").fill("60")
    expect(page.get_by_text(re.compile("60 mm is not thinner than the package"))).to_be_visible()
    expect(page.get_by_text("These are the sheets before the last change")).to_be_visible()
    expect(
        page.get_by_text("Not saved: a field needs correcting; see the note under it.")
    ).to_be_visible()
    page.reload()
    field(page, "Roll to").fill("7")
    expect(sheet(page)).to_have_attribute("aria-label", re.compile(r"7\.0 mm thick"))
    saved(page)


def test_a_person_s_units_and_words_stay_with_her(person):
    page = person("tansy", "/plans")
    page.get_by_role("link", name=re.compile("Station kiosk")).click()
    page.get_by_role("button", name=re.compile("^tansy")).click()
    page.get_by_text("in, oz, °F").click()
    page.get_by_text("single, double").click()
    page.keyboard.press("Escape")
    step(page, "Turn 1").click()
    expect(page.get_by_role("radio", name=re.compile("^Single turn"))).to_be_visible()
    expect(field(page, "Roll to")).to_have_value("0.39")
    page.reload()
    expect(field(page, "Roll to")).to_have_value("0.39")
    page.get_by_role("button", name=re.compile("^tansy")).click()
    page.get_by_text("mm, g, °C").click()
    page.get_by_text("letter, book").click()


def test_undo_and_redo_by_button_and_by_key(person):
    page = person()
    new_plan(page, name="Back and forth")
    step(page, "Turn 3").click()
    page.get_by_role("button", name=re.compile("^Remove")).click()
    expect(page.get_by_text("9 butter layers").first).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("27 butter layers").first).to_be_visible()
    step(page, "Turn 1").focus()
    page.keyboard.press("Control+Shift+Z")
    expect(page.get_by_text("9 butter layers").first).to_be_visible()
    page.keyboard.press("Control+Z")
    expect(page.get_by_text("27 butter layers").first).to_be_visible()
    saved(page)


def test_the_strip_is_walked_by_arrow_keys_and_remembered_in_the_address(person):
    page = person()
    new_plan(page, name="By keys")
    step(page, "Dough").focus()
    for _ in range(3):
        page.keyboard.press("ArrowRight")
    expect(step(page, "Turn 2")).to_be_focused()
    expect(page).to_have_url(re.compile("step=turn-2"))
    page.reload()
    expect(step(page, "Turn 2")).to_have_attribute("aria-selected", "true")
    page.keyboard.press("Shift+?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()


def test_a_number_says_how_it_was_got(person):
    page = person()
    new_plan(page, name="How come")
    step(page, "Lock-in").click()
    page.get_by_role("button", name=re.compile("^Butter thickness")).click()
    expect(page.get_by_text(re.compile(r"648 g of butter at 921 kg/m³ is 703 cm³"))).to_be_visible()


def test_another_family_brings_other_ranges_and_words_are_kept(person):
    page = person()
    new_plan(page, name="Changes its mind")
    step(page, "Last sheet").click()
    expect(page.get_by_text("Fewer leaves than usual")).to_be_hidden()
    step(page, "Dough").click()
    page.get_by_label("Family").select_option("puff")
    page.get_by_label("To remember about this dough").fill("Two plaques, the soft one first.")
    step(page, "Last sheet").click()
    expect(page.get_by_text("Fewer leaves than usual")).to_be_visible()
    saved(page)
    page.reload()
    step(page, "Dough").click()
    expect(page.get_by_label("To remember about this dough")).to_have_value(
        "Two plaques, the soft one first."
    )
    expect(page.get_by_label("Family")).to_have_value("puff")


def test_a_plan_is_copied_deleted_and_brought_back(person):
    page = person()
    new_plan(page, name="Short-lived")
    enter(page, "/plans")
    page.get_by_role("button", name="More for Short-lived").click()
    page.get_by_role("menuitem", name="Make a copy").click()
    expect(field(page, "Name of the plan")).to_have_value("Short-lived, copy")
    enter(page, "/plans")
    page.get_by_role("button", name="More for Short-lived", exact=True).click()
    page.get_by_role("menuitem", name="Delete").click()
    gone = page.get_by_role("link", name=re.compile(r"^Short-lived\s*croissant"))
    expect(gone).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(gone).to_have_count(1)


def test_files_go_out_and_come_in_and_a_wrong_one_is_told(person, tmp_path):
    page = person()
    new_plan(page, name="To go")
    page.get_by_role("button", name="More for this plan").click()
    with page.expect_download() as download:
        page.get_by_role("menuitem", name="Download as a file").click()
    content = json.loads(download.value.path().read_text())
    assert content["format"] == "eight-turn/plan"

    enter(page, "/plans")
    opener = page.locator("input[type=file]")
    for name, text, says in (
        ("notes.json", "flour, butter", "This file is not JSON"),
        ("newer.json", json.dumps(content | {"version": 9}), "up to version 5"),
        (
            "odd.json",
            json.dumps(content | {"butter": {"mass_g": 0}}),
            "Must be from 1 g to 200 kg.",
        ),
    ):
        (tmp_path / name).write_text(text)
        opener.set_input_files(tmp_path / name)
        expect(page.get_by_role("alert")).to_contain_text(says)
    (tmp_path / "back.json").write_text(json.dumps(content | {"name": "Came back"}))
    opener.set_input_files(tmp_path / "back.json")
    expect(field(page, "Name of the plan")).to_have_value("Came back")


def test_edits_made_without_a_connection_are_kept_and_sent(person):
    page = person()
    new_plan(page, name="On the boat")
    step(page, "Dough").click()
    saved(page)
    page.route("**/api/plans/*", lambda route: route.abort())
    field(page, "Dough").fill("2750")
    expect(page.get_by_text("Your change is kept here and sent later.")).to_be_visible()
    page.unroute("**/api/plans/*")
    saved(page)
    page.reload()
    expect(field(page, "Dough")).to_have_value("2750")


def test_two_screens_do_not_overwrite_each_other(person):
    first = person()
    new_plan(first, name="Two hands")
    address = first.url
    step(first, "Dough").click()
    saved(first)
    second = person()
    enter(second, address)
    step(second, "Dough").click()
    field(second, "Dough").fill("2600")
    saved(second)
    field(first, "Dough").fill("2200")
    expect(first.get_by_role("alert")).to_contain_text("saved this plan on another screen")
    expect(field(first, "Dough")).to_have_value("2200")
    first.get_by_role("button", name="Discard mine, use the other version").click()
    expect(field(first, "Dough")).to_have_value("2600")


def test_a_bench_hand_reads_a_plan_and_cannot_change_it(person):
    page = person("tansy", "/plans")
    expect(page.get_by_role("button", name="New plan")).to_have_count(0)
    page.get_by_role("link", name=re.compile("Café boat")).click()
    step(page, "Turn 1").click()
    expect(field(page, "Roll to")).to_be_disabled()
    expect(page.get_by_role("button", name="Take it to the bench")).to_be_enabled()


def test_what_the_kitchen_changes_every_plan_follows(person):
    page = person()
    new_plan(page, name="Short bench")
    address = page.url.split("?")[0]
    enter(page, "/kitchen")
    page.get_by_role("searchbox", name="Find a value").fill("belt length of the sheeter")
    with page.expect_response(
        lambda r: r.url.endswith("/api/kitchen") and r.request.method == "PUT"
    ):
        field(page, "Sheeter, both tables and belt, length").fill("60 cm")
        field(page, "Sheeter, both tables and belt, length").blur()
    enter(page, f"{address}?step=turn-1")
    expect(page.get_by_text(re.compile("too long for the belt")).first).to_be_visible()
    enter(page, "/kitchen")
    expect(field(page, "Sheeter, both tables and belt, length")).to_have_value("600")
    field(page, "Sheeter, both tables and belt, length").fill("1 mm")
    field(page, "Sheeter, both tables and belt, length").blur()
    expect(page.get_by_text("Must be from 200 mm to 10000 mm.")).to_be_visible()
    with page.expect_response(
        lambda r: r.url.endswith("/api/kitchen") and r.request.method == "PUT" and r.ok
    ):
        field(page, "Sheeter, both tables and belt, length").fill("2400")
        field(page, "Sheeter, both tables and belt, length").blur()
    enter(page, f"{address}?step=turn-1")
    expect(page.get_by_text("Fits the belt")).to_be_visible()


def test_an_address_that_leads_nowhere_says_so(person):
    page = person(path="/plans/9999")
    expect(page.get_by_text("There is no such plan.")).to_be_visible()
    enter(page, "/attic")
    expect(page.get_by_text("There is no room at this address.")).to_be_visible()


def test_a_plain_turn_before_the_butter_and_a_sheet_as_big_as_the_tray(person):
    page = person()
    new_plan(page, name="Plain first")
    step(page, "Dough").click()
    add_step(page, "Plain turn")
    expect(step(page, "Plain turn")).to_have_attribute("aria-selected", "true")
    expect(page.get_by_role("radio", name="Letter fold", exact=True)).to_be_checked()
    field(page, "Roll to").fill("10")
    expect(sheet(page)).to_have_attribute("aria-label", re.compile(r"10\.0 mm thick"))
    expect(page.get_by_text("27 butter layers").first).to_be_visible()
    step(page, "Last sheet").click()
    page.get_by_role("button", name=re.compile("^As big as the tray")).click()
    expect(field(page, "Roll to")).to_have_value("")
    expect(field(page, "Roll to")).to_have_attribute("placeholder", re.compile("mm follows$"))
    expect(sheet(page)).to_have_attribute("aria-label", re.compile("600.*400"))
    # all three cannot be chosen: the length follows again
    field(page, "Roll to").fill("4")
    expect(field(page, "Length")).to_have_value("")
    saved(page)
