"""A day by hand: orders in, timetable out, a step held, the day started, one dough late."""

import re

from playwright.sync_api import expect

from .house import enter


def tab(page, name):
    return page.get_by_role("tab", name=name)


def knots(page, dough, step=""):
    return page.get_by_role("button", name=re.compile(f"^Dough {dough}, {step}"))


def test_from_orders_to_a_timetable_in_which_a_step_is_moved(person):
    page = person(path="/day")
    page.get_by_role("link", name=re.compile("^Saturday market and the boats")).click()
    hands = page.get_by_role("region", name="Hands")
    expect(hands.get_by_label("Shift, or names").first).to_have_value("Thursday evening")
    tab(page, "Timetable").click()
    doughs = page.get_by_role("region", name="Doughs of the day").get_by_role("button")
    expect(doughs).not_to_have_count(0)
    page.get_by_role("button", name="Look for a better one").click()
    # nobody has to wait for the end of it
    page.get_by_role("button", name="Stop looking").click()
    expect(page.get_by_role("button", name="Look for a better one")).to_be_visible()
    doughs.first.click()
    words = page.get_by_role("region", name="Dough 1 in words")
    expect(words.get_by_role("listitem").filter(has_text="Lock-in")).to_be_visible()
    # which dough is looked at is in the address, and who works when stands below it
    page.reload()
    expect(words).to_be_visible()
    early = page.get_by_role("region", name="Who works when").get_by_role("listitem")
    expect(early.filter(has_text="early 1")).to_contain_text(re.compile("Saturday .* of work"))

    # by keyboard, five minutes later; it is fixed then, and the list says so
    knot = knots(page, 1, "Lock-in")
    before = knot.get_attribute("aria-label")
    knot.focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(knots(page, 1, "Lock-in")).to_have_attribute("aria-label", re.compile("fixed"))
    assert knots(page, 1, "Lock-in").get_attribute("aria-label") != before
    # by mouse: an hour to the left
    last = knots(page, 1, "Turn 1")
    box = last.locator("rect").bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] - 60, box["y"] + box["height"] / 2, steps=4)
    page.mouse.up()
    expect(knots(page, 1, "Turn 1")).to_have_attribute("aria-label", re.compile("fixed"))
    words.get_by_role("button", name="fixed: let it move").first.click()
    expect(words.get_by_role("button", name="fixed: let it move")).to_have_count(1)
    page.get_by_role("link", name="On paper").click()
    expect(page.get_by_role("article", name="mixer")).to_contain_text("Station kiosk croissant")
    # a pause stands between two stretches of work on everybody's sheet
    duties = page.evaluate(DUTIES)
    expect(page.get_by_text("without work")).to_have_count(
        sum(len(d["stretches"]) - 1 for d in duties)
    )
    page.emulate_media(media="print")
    expect(page.get_by_role("button", name="Print")).to_be_hidden()


def test_a_day_without_anybody_says_so_and_keeps_what_was_entered(person):
    page = person(path="/day")
    page.get_by_role("button", name="New order").click()
    page.get_by_role("textbox", name="Name of the order").fill("Nobody's day")
    hands = page.get_by_role("region", name="Hands")
    for _ in range(2):
        hands.get_by_role("button", name=re.compile("^Remove (?!these)")).first.click()
    expect(page.get_by_text(re.compile(r"^saved \d\d:\d\d$"))).to_be_visible()
    tab(page, "Timetable").click()
    expect(page.get_by_text(re.compile("^Say who is there"))).to_be_visible()
    tab(page, "Orders and hands").click()
    hands.get_by_role("button", name=re.compile("^The afternoon before")).click()
    tab(page, "Timetable").click()
    page.get_by_role("button", name="Stop looking").click()
    expect(
        page.get_by_role("region", name="Doughs of the day").get_by_role("button")
    ).not_to_have_count(0)
    page.reload()
    expect(page.get_by_role("textbox", name="Name of the order")).to_have_value("Nobody's day")


DUTIES = """
async () => {
  const order = location.pathname.match(/day\\/(\\d+)/)[1];
  return (await (await fetch(`/api/orders/${order}/timetable`)).json()).timetable.duties;
}
"""

LATE = """
async (name) => {
  const token = document.cookie.match(/csrftoken=([^;]+)/)?.[1];
  const at = (hours) => new Date(Date.now() + hours * 3600000).toISOString();
  const send = async (path, body) => {
    const answer = await fetch(`/api${path}`, {
      method: "POST",
      headers: { "Content-Type": "application/json", "X-CSRFToken": token },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(await answer.text());
    return answer.json();
  };
  const plans = await (await fetch("/api/plans")).json();
  const puff = plans.find((p) => p.name === name);
  const order = await send("/orders", {
    name: "Late puff", ready_at: at(6.5),
    doughs: [{ plan_id: puff.id, products: [{ product: "Square", pieces: 40, raw_g: 33 }] }],
    hands: [{ name: "we", starts: at(-3), ends: at(12), count: 2 }],
  });
  await send(`/orders/${order.id}/timetable`, { seconds: 0 });
  await send(`/orders/${order.id}/open`, {});
}
"""


def test_what_is_late_at_one_tablet_moves_the_day_at_the_other(person):
    head = person("wren")
    head.evaluate(LATE, "Café boat puff")
    bench = person("tansy", path="/today", width=1024, height=768, touch=True)
    phone = person("wren", path="/today", width=390, height=844, touch=True)
    now = bench.get_by_role("region", name="Needs hands now")
    expect(now.get_by_text(re.compile("late$")).first).to_be_visible()
    # nobody has to ask what has to move
    would = bench.get_by_role("region", name="What would move")
    expect(would).to_contain_text(re.compile("1 Mix.* later"))
    # the other tablet sees it within a poll, and whoever is first decides
    expect(phone.get_by_role("region", name="What would move")).to_be_visible()
    phone.get_by_role("button", name="Use the new times").tap()
    expect(would).to_be_hidden()
    expect(now.get_by_text(re.compile("late$"))).to_have_count(0)

    bench.get_by_role("button", name="Begin: dough 1").tap()
    expect(bench.get_by_text("Dough 1 of 1, Café boat puff")).to_be_visible()
    expect(phone.get_by_role("link", name="To the dough, 1").first).to_be_visible()
    handover = phone.get_by_role("region", name="Handover")
    handover.get_by_role("button", name="Change it").tap()
    handover.get_by_role("textbox").fill("Mind dough 1: it is slow.")
    handover.get_by_role("button", name="Keep it").tap()
    enter(bench, "/today")
    told = bench.get_by_role("region", name="Handover")
    expect(told).to_contain_text("it is slow")
    told.get_by_role("link", name="Print").tap()
    expect(bench.get_by_role("heading", name="For the next shift")).to_be_visible()
    expect(bench.get_by_text("Mind dough 1: it is slow.")).to_be_visible()
