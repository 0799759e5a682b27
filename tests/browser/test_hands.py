"""Hands on the drawing: by mouse, by touch and by keys, each taken back by one undo."""

import re

import pytest
from playwright.sync_api import expect

from .house import enter
from .test_access import grave
from .test_planning import new_plan, saved, step


def open_plan(page, name, at):
    enter(page, "/plans")
    page.get_by_role("link", name=re.compile(name)).click()
    page.wait_for_url(re.compile(r"/plans/\d+"))
    enter(page, f"{page.url.split('?')[0]}?step={at}")
    expect(page.get_by_role("form")).to_be_visible()


def grip(page, name):
    return page.get_by_role("slider", name=name, exact=True)


def now(slider):
    return float(slider.get_attribute("aria-valuenow"))


class Mouse:
    def __init__(self, page):
        self.page = page

    def down(self, x, y):
        self.page.mouse.move(x, y)
        self.page.mouse.down()

    def move(self, x, y):
        self.page.mouse.move(x, y)

    def up(self):
        self.page.mouse.up()


class Finger:
    def __init__(self, page):
        self.session = page.context.new_cdp_session(page)

    def touch(self, kind, *points):
        touches = [{"x": x, "y": y} for x, y in points]
        self.session.send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": touches})

    def down(self, x, y):
        self.touch("touchStart", (x, y))

    def move(self, x, y):
        self.touch("touchMove", (x, y))

    def up(self):
        self.touch("touchEnd")


def pull(hand, slider, goal, along="x"):
    """Pull a knob until its value is reached: first most of the way, then point by point."""
    box = slider.locator("rect").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    at, start = 0, now(slider)

    def to(far):
        nonlocal at
        at = far
        hand.move(*((x + at, y) if along == "x" else (x, y + at)))
        slider.page.wait_for_timeout(30)  # the hand may be ahead of what is drawn

    hand.down(x, y)
    way = 1 if goal > start else -1
    was = slider.get_attribute("aria-valuenow")
    to(20 * way)
    expect(slider).not_to_have_attribute("aria-valuenow", was)
    to(int(0.9 * at * (goal - start) / (now(slider) - start)))
    for _ in range(300):
        if abs(now(slider) - goal) < 0.6:
            break
        to(at + (1 if goal > now(slider) else -1))
    hand.up()
    # let go, the drawing is laid out anew
    expect(slider).not_to_have_attribute("data-held", "true")
    assert abs(now(slider) - goal) < 0.6, slider.get_attribute("aria-valuetext")


def undo(page):
    page.get_by_role("button", name="Undo").click()


def thickness(page):
    """How thick the sheet is, as its drawing says."""
    said = page.get_by_role("img", name=re.compile("sheet rolled to")).get_attribute("aria-label")
    return float(re.search(r"([\d.]+) mm thick", said)[1])


@pytest.mark.parametrize("touch", [False, True])
def test_a_sheet_is_pulled_to_a_size_and_its_thickness_read(person, touch):
    page = person(touch=touch)
    open_plan(page, "Saturday market", "turn-1")
    hand = Finger(page) if touch else Mouse(page)
    length, width = grip(page, "Length of the sheet"), grip(page, "Width of the sheet")
    before = (now(length), now(width))
    was = thickness(page)
    pull(hand, length, 600)
    expect(page.get_by_role("img", name=re.compile("sheet rolled to 600 by"))).to_be_visible()
    pull(hand, width, 400, along="y")
    expect(page.get_by_role("img", name=re.compile("sheet rolled to 600 by 400"))).to_be_visible()
    # as much dough as before
    assert thickness(page) == pytest.approx(was * before[0] * before[1] / (600 * 400), abs=0.06)
    saved(page)
    undo(page)
    expect(page.get_by_role("img", name=re.compile("sheet rolled to 600 by 2"))).to_be_visible()
    undo(page)
    expect(length).to_have_attribute("aria-valuenow", f"{before[0]:g}")
    saved(page)  # the next one begins with the same plan


def test_a_rest_is_pulled_until_it_is_good(person):
    page = person()
    open_plan(page, "Saturday market", "turn-2")
    rest = grip(page, "Rest after Turn 2")
    was = rest.get_attribute("aria-valuetext")
    field = page.get_by_role("textbox", name="Rest for")
    expect(page.get_by_text(re.compile("is fine|is tight")).first).to_be_visible()
    box = rest.locator("rect").bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 60, y, steps=6)
    expect(page.get_by_text("is too short")).to_be_visible()
    for i in range(60):
        page.mouse.move(x - 60 + i, y)
        if "good from" in rest.get_attribute("aria-valuetext"):
            break
    page.mouse.up()
    expect(rest).to_have_attribute("aria-valuetext", re.compile("good from"))
    expect(page.get_by_text(re.compile("is fine|is tight")).first).to_be_visible()
    expect(field).to_have_value(re.match(r"\d+", rest.get_attribute("aria-valuetext"))[0])
    undo(page)
    expect(rest).to_have_attribute("aria-valuetext", was)


def leaves(page):
    """What the map of leaves says, at the last sheet."""
    page.get_by_role("radio", name="Leaves", exact=True).check(force=True)
    return page.get_by_role("img", name=re.compile("Map of the leaves"))


def test_a_seam_is_moved_by_keys_and_the_leaves_follow(person):
    page = person()
    new_plan(page, name="Seam off the spine")
    step(page, "Lock-in").click()
    page.get_by_role("textbox", name="Bare margin round the block").fill("15")
    step(page, "Turn 2").click()
    page.get_by_role("radio", name=re.compile("Offset book")).check(force=True)
    seam = grip(page, "The ends meet at")
    expect(seam).to_have_attribute("aria-valuetext", "66.7 %")
    step(page, "Last sheet").click()
    before = leaves(page).inner_html()
    step(page, "Turn 2").click()
    page.get_by_role("radio", name="Sheet", exact=True).check(force=True)
    seam.focus()
    for _ in range(12):
        seam.press("ArrowRight")
    expect(seam).to_have_attribute("aria-valuetext", "78 %")
    step(page, "Last sheet").click()
    expect(leaves(page)).to_be_visible()
    page.wait_for_function(
        "before => document.querySelector('[aria-label^=\"Map of the leaves\"]').innerHTML !== before",
        arg=before,
    )
    step(page, "Turn 2").click()
    undo(page)
    page.get_by_role("radio", name="Sheet", exact=True).check(force=True)
    expect(seam).to_have_attribute("aria-valuetext", "66.7 %")


def test_rows_of_the_cut_are_pulled_to_a_weight(person):
    page = person()
    open_plan(page, "Lock garden", "cut")
    side = page.get_by_role("slider", name=re.compile("^(Side|Base) of")).first
    before = side.get_attribute("aria-valuetext")
    side.focus()
    for _ in range(30):
        if re.search("6[0-9] g each", side.get_attribute("aria-valuetext")):
            break
        # one step at a time: what it weighs comes with the answer
        with page.expect_response(lambda answer: answer.url.endswith("/api/work")):
            side.press("ArrowRight")
        page.wait_for_timeout(150)
    expect(side).to_have_attribute("aria-valuetext", re.compile("6[0-9] g each"))
    rows = page.get_by_role("slider", name=re.compile("^Rows of")).first
    pull(Mouse(page), rows, 2, along="y")
    expect(rows).to_have_attribute("aria-valuetext", re.compile(r"^2, \d+ pieces"))
    undo(page)
    undo(page)
    expect(side).to_have_attribute("aria-valuetext", before)


def test_what_does_not_work_pushes_back_and_says_why(person):
    page = person()
    new_plan(page, dough="500", name="Small dough")
    step(page, "Turn 1").click()
    short = grip(page, "Flaps fall short by")
    short.focus()
    for _ in range(20):
        short.press("PageUp")
        page.wait_for_timeout(60)
    short.press("Tab")
    expect(page.get_by_role("alert").get_by_text(re.compile("it still folds"))).to_be_visible()
    expect(page.get_by_text("These are the sheets before the last change")).to_have_count(0)
    saved(page)


@pytest.mark.parametrize("at", ["lock-in", "cut"])
def test_drawings_with_handles_have_no_fault_of_access(person, at):
    page = person()
    open_plan(page, "Saturday market", at)
    expect(page.get_by_role("slider", name=re.compile("of|by")).first).to_be_visible()
    assert grave(page) == []


def order(page):
    return page.locator("[data-stop]").evaluate_all("all => all.map((s) => s.dataset.stop)")


@pytest.mark.parametrize("touch", [False, True], ids=["mouse", "finger"])
def test_a_step_is_carried_along_the_strip_and_one_undo_brings_it_back(person, touch):
    page = person(touch=touch)
    new_plan(page, name=f"Carried {'by finger' if touch else 'by mouse'}")
    step(page, "Turn 1").click()
    was = order(page)
    hand = Finger(page) if touch else Mouse(page)

    def middle(name):
        box = step(page, name).bounding_box()
        return box["x"] + box["width"] / 2, box["y"] + 20

    (x, y), (to, _) = middle("Turn 2"), middle("Turn 1")
    hand.down(x, y)
    page.wait_for_timeout(450)  # a finger that lies still takes the step up
    for share in (0.2, 0.5, 0.8, 1.0):
        hand.move(x + (to - x) * share, y)
    expect(page.locator("[data-carried]")).to_have_count(1)
    hand.up()
    one, two = was.index("turn-1"), was.index("turn-2")
    carried = [*was]
    carried[one], carried[two] = was[two], was[one]
    expect(page.locator("[data-carried]")).to_have_count(0)
    expect(page.locator("[data-stop]").nth(one)).to_have_attribute("data-stop", "turn-2")
    assert order(page) == carried
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("[data-stop]").nth(one)).to_have_attribute("data-stop", "turn-1")
    assert order(page) == was
    assert grave(page) == []


def test_a_step_that_is_carried_is_let_go_by_escape(person):
    page = person()
    new_plan(page, name="Let go")
    step(page, "Turn 1").click()
    was = order(page)
    box = step(page, "Turn 2").bounding_box()
    page.mouse.move(box["x"] + 30, box["y"] + 20)
    page.mouse.down()
    page.mouse.move(box["x"] - 60, box["y"] + 20, steps=4)
    expect(page.locator("[data-carried]")).to_have_count(1)
    page.keyboard.press("Escape")
    page.mouse.up()
    expect(page.locator("[data-carried]")).to_have_count(0)
    assert order(page) == was
    expect(step(page, "Turn 1")).to_have_attribute("aria-selected", "true")
