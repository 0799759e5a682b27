"""One wrong input in every field of a plan: a sentence beside it, the edit kept, nothing saved."""

import re

from playwright.sync_api import expect

from .test_planning import field, new_plan, saved, sheet, step

FIELDS = [
    ("Dough", "Dough", "0", "Must be from 1 g to 200 kg"),
    ("Dough", "Butter share of the dough", "lots", "is not a share"),
    ("Mix", "Salt, percent", "-1", "Must be from 0 % to 400 %"),
    ("Mix", "Dough wanted at", "99", "Must be from −40 °C to 60 °C"),
    ("Lock-in", "Flour in it", "200", "Must be from 0 % to 100 %"),
    ("Lock-in", "Block length", "9 m", "Must be from 10 mm to 5000 mm"),
    ("Turn 1", "Roll to", "0", "Must be from 0.5 mm to 200 mm"),
    ("Turn 3", "Roll to", "24", "is not thinner than the package"),
    ("Last sheet", "Roll to", "60", "is not thinner than the package"),
    ("Cut", "Base", "", "Enter a length"),
    ("Cut", "Height", "0 mm", "Must be from 10 mm to 5000 mm"),
]


def test_a_wrong_input_is_answered_at_its_field(person):
    page = person()
    new_plan(page, name="Every field")
    for stop, label, typed, says in FIELDS:
        step(page, stop).click()
        before = field(page, label).input_value()
        field(page, label).fill(typed)
        sentence = page.get_by_text(re.compile(re.escape(says)))
        expect(sentence).to_be_visible()
        # It belongs to the field for those who cannot see it as well.
        expect(field(page, label)).to_have_attribute("aria-invalid", "true")
        expect(field(page, label)).to_have_value(typed)
        # What could be worked last stays on the screen.
        drawn = page.get_by_role("heading", name=re.compile("^From above|^Formula"))
        expect(drawn).to_be_visible()
        field(page, label).fill(before)
        expect(sentence).to_be_hidden()
    saved(page)


def test_going_back_leads_to_the_step_before_then_to_the_list_and_forth_again(person):
    page = person()
    new_plan(page, name="There and back")
    step(page, "Turn 2").click()
    page.go_back()
    expect(step(page, "Lock-in")).to_have_attribute("aria-selected", "true")
    page.go_back()
    expect(page.get_by_role("heading", name="Plans", level=1)).to_be_visible()
    page.go_forward()
    page.go_forward()
    expect(step(page, "Turn 2")).to_have_attribute("aria-selected", "true")


def test_an_empty_house_says_how_to_begin(person):
    page = person()
    page.route("**/api/plans", lambda route: route.fulfill(json=[]))
    none = {"runs": [], "older_than": None}
    page.route("**/api/runs*", lambda route: route.fulfill(json=none))
    page.goto("/plans")
    expect(page.get_by_role("heading", name="No plans yet")).to_be_visible()
    page.goto("/bench")
    expect(page.get_by_role("heading", name="No dough under way")).to_be_visible()
    page.goto("/book")
    expect(page.get_by_role("heading", name="Nothing in the book yet")).to_be_visible()


def test_a_server_in_trouble_is_said_and_can_be_tried_again(person):
    page = person()
    page.route("**/api/plans", lambda route: route.fulfill(status=503, body="busy"))
    page.goto("/plans")
    expect(page.get_by_role("alert")).to_contain_text("answered with an error (503)")
    page.unroute("**/api/plans")
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_role("link", name=re.compile("Station kiosk"))).to_be_visible()


def test_a_plan_prints_without_the_furniture(person):
    page = person(path="/plans")
    page.get_by_role("link", name=re.compile("Café boat")).click()
    expect(sheet(page)).to_be_visible()
    page.emulate_media(media="print")
    expect(page.get_by_role("navigation", name="Pages")).to_be_hidden()
    expect(page.get_by_role("button", name="Take it to the bench")).to_be_hidden()
    expect(sheet(page)).to_be_visible()
