"""Every room, step, view and paper of the demo, on a desk, a tablet and a phone: nothing is cut off, and
nothing is shown as it is written for the reader of marks.
"""

import re

import pytest
from playwright.sync_api import expect

from .house import ASK, enter

SIZES = ((1280, 800), (1024, 768), (390, 844))
RAW = re.compile(r"\{[^}]*[|}]|\bundefined\b|\bNaN\b|[^\n]\bNone\b|\bNone\b[^\n]|\[object")

# Text outside what shows it, where nothing scrolls to it; and what was typed, longer than its field.
CUT_OFF = """() => {
  const found = new Set();
  const root = document.documentElement;
  const seen = new Map();
  const styleOf = (of) => seen.get(of) ?? seen.set(of, getComputedStyle(of)).get(of);
  const cutBy = (box, of) => {
    let { left, right, top, bottom } = box;
    for (let up = of; up && up !== root; up = up.parentElement) {
      const style = styleOf(up);
      if (style.position === "fixed") return false;
      const drawn = up instanceof SVGSVGElement && style.overflow !== "visible";
      const cuts = (overflow) => drawn || overflow === "hidden" || overflow === "clip";
      const scrolls = (overflow) => overflow === "auto" || overflow === "scroll";
      const shown = up.getBoundingClientRect();
      if (cuts(style.overflowX) && (left < shown.left - 1.5 || right > shown.right + 1.5)) return true;
      if (cuts(style.overflowY) && (top < shown.top - 2.5 || bottom > shown.bottom + 2.5)) return true;
      const { max, min } = Math;
      if (scrolls(style.overflowX)) [left, right] = [max(left, shown.left), min(right, shown.right)];
      if (scrolls(style.overflowY)) [top, bottom] = [max(top, shown.top), min(bottom, shown.bottom)];
      if (right <= left || bottom <= top) return false;
    }
    return left < -1.5 || right > root.clientWidth + 1.5;
  };
  const aloudOnly = (of) => {
    for (let up = of; up && up !== document.body; up = up.parentElement) {
      if (styleOf(up).position === "absolute" && up.clientWidth <= 1 && up.clientHeight <= 1) return true;
    }
    return false;
  };
  const words = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (words.nextNode()) {
    const of = words.currentNode.parentElement;
    const text = words.currentNode.textContent.trim();
    if (!text || of.closest("script, style, title, option, .skip, [data-loading]")) continue;
    if (!of.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true })) continue;
    const range = document.createRange();
    range.selectNodeContents(words.currentNode);
    const box = range.getBoundingClientRect();
    if (box.width > 1 && box.height > 1 && cutBy(box, of) && !aloudOnly(of)) found.add(text.slice(0, 60));
  }
  for (const field of document.querySelectorAll("main input:is([type=text], [type=search], :not([type]))"))
    if (field.checkVisibility() && field.scrollWidth > field.clientWidth + 1) found.add(field.value);
  return [...found];
}"""

GO_TO = "n => document.querySelectorAll('[data-stop]')[n].click()"
VIEW = "n => document.querySelectorAll('main [role=tab]:not([data-stop])')[n].click()"


class Look:
    """What is wrong wherever one looks, by size and place."""

    def __init__(self, page):
        self.page = page
        self.cut_off, self.raw = {}, {}

    def at(self, place, sizes=SIZES):
        for width, height in sizes:
            self.page.set_viewport_size({"width": width, "height": height})
            # drawings are drawn again at another size, on a slow machine not at once
            for wait_ms in (20, 60, 200, 600, 2_000):
                self.page.wait_for_timeout(wait_ms)
                if not (found := self.page.evaluate(CUT_OFF)):
                    break
            else:
                self.cut_off[f"{place} at {width}"] = found
        text = self.page.locator("body").inner_text()
        if found := RAW.search(text):
            self.raw[place] = text[max(found.start() - 40, 0) : found.end() + 40]

    def room(self, path):
        enter(self.page, path)
        expect(self.page.locator("main")).to_contain_text(re.compile(r"\w"))
        self.page.wait_for_timeout(200)
        self.at(path)

    def dialog(self, name):
        self.page.get_by_role("button", name=name).first.click()
        expect(self.page.get_by_role("dialog").filter(visible=True)).to_have_count(1)
        self.page.wait_for_timeout(300)
        self.at(f"dialog {name}")
        self.page.keyboard.press("Escape")
        expect(self.page.get_by_role("dialog").filter(visible=True)).to_have_count(0)


def at_every_step(look, plan, sizes):
    """A plan looked at at each of its steps."""
    page = look.page
    enter(page, f"/plans/{plan['id']}")
    page.set_viewport_size({"width": 1280, "height": 800})
    expect(page.locator("[data-stop]").first).to_be_visible()
    for n in range(page.locator("[data-stop]").count()):
        page.evaluate(GO_TO, n)
        look.at(f"{plan['name']}, step {n}", sizes)


def test_nothing_is_cut_off_and_no_mark_is_raw_in_any_room_dialog_or_paper(person):
    page = person(path="/plans", new=True)
    plans = page.evaluate(ASK, ["GET", "/plans", None])
    orders = page.evaluate(ASK, ["GET", "/orders", None])
    runs = page.evaluate(ASK, ["GET", "/runs", None])["runs"]
    look = Look(page)
    for room in (
        "/today",
        "/plans",
        "/day",
        "/bench",
        "/book",
        "/lessons",
        "/lessons/inside",
        "/kitchen",
    ):
        look.room(room)
    for order in orders:
        look.room(f"/day/{order['id']}")
    for page_of in ("?view=timetable", "/sheets?as=pages", "/sheets?as=labels", "/paper"):
        look.room(f"/day/{orders[0]['id']}{page_of}")
    for run in runs:
        if run["phase"] in ("work", "rest"):
            look.room(f"/bench/{run['id']}")
            look.dialog("Temperature")
            look.dialog("Note")
    for run in [r for r in runs if r["phase"] == "finished"][:2]:
        look.room(f"/book/{run['id']}")
    for plan in plans[:3]:
        look.room(f"/plans/{plan['id']}/paper")
        look.room(f"/plans/{plan['id']}/sheets?as=pages")
    for plan in plans[:2]:
        at_every_step(look, plan, SIZES if plan in plans[:1] else SIZES[1:2])
    # the views of one step that has all of them
    page.locator("[data-stop=cut]").first.evaluate("of => of.click()")
    for n in range(page.locator("main [role=tab]:not([data-stop])").count()):
        page.evaluate(VIEW, n)
        page.wait_for_timeout(150)
        look.at(f"cut, view {n}")
    assert (look.cut_off, look.raw) == ({}, {})


@pytest.mark.nightly
def test_nothing_is_cut_off_and_no_mark_is_raw_at_any_step_of_any_plan(person):
    page = person(path="/plans", new=True)
    look = Look(page)
    for plan in page.evaluate(ASK, ["GET", "/plans", None])[2:]:
        # what is narrow is looked at
        at_every_step(look, plan, SIZES[1:2])
    assert (look.cut_off, look.raw) == ({}, {})
