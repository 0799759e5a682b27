"""Cold on the screens: a hot day at the bench, today's sliders, a kitchen that is learned."""

import re
import subprocess
import sys

from playwright.sync_api import expect

from .house import ROOT
from .test_access import grave
from .test_bench import go, start, tap, temperature
from .test_planning import field, new_plan, saved, step

EARLIER = """
from datetime import timedelta
from bakehouse.bench.models import Run
run = Run.objects.get(pk="{run}")
run.started_at -= timedelta(hours={hours})
run.save()
"""


def began_earlier(house, run, hours):
    """As if the run had been started hours ago: nobody waits for a dough in a test."""
    code = EARLIER.format(run=run, hours=hours)
    subprocess.run(
        [sys.executable, "manage.py", "shell", "-v", "0", "-c", code],
        cwd=ROOT,
        check=True,
        env=house.environment,
    )


def moved_earlier(page, run, minutes, stop=None):
    """The latest deed (of ``stop``) put right by so many minutes, as the tablet's minus would."""
    page.evaluate(
        """async ([run, minutes, stop]) => {
            const token = document.cookie.match(/csrftoken=([^;]+)/)[1];
            let target;
            do {  // the press that made the deed may still be on its way
                const view = await (await fetch(`/api/runs/${run}`)).json();
                const last = view.standing.deeds.at(-1);
                const mine = last && (!stop || last.stop === stop);
                target = mine && Date.now() - Date.parse(last.at) < 60_000 ? last.event_id : null;
            } while (!target);
            const event = {id: crypto.randomUUID(), at: new Date().toISOString(), kind: "move",
                           target, minutes: -minutes};
            const answer = await fetch(`/api/runs/${run}/events`, {
                method: "POST", body: JSON.stringify({events: [event]}),
                headers: {"Content-Type": "application/json", "X-CSRFToken": token}});
            if (!answer.ok) throw new Error(await answer.text());
        }""",
        [run, minutes, stop],
    )


def test_a_hot_day_from_the_lock_in_to_the_last_turn_by_touch(person, house):
    page = person("tansy", width=1024, height=768, touch=True)
    start(page, "Café boat puff")
    run = page.url.rsplit("/", 1)[1]
    began_earlier(house, run, 8)
    go(page, "Mix done")
    moved_earlier(page, run, 400)
    go(page, "Dough done")
    moved_earlier(page, run, 380)
    go(page, "Take it out")
    moved_earlier(page, run, 220)

    temperature(page, "Room", "30")
    may = page.get_by_role("region", name="May it go in?")
    expect(may).to_contain_text("Take the temperature of the dough and the butter")
    temperature(page, "Dough", "5")
    temperature(page, "Butter", "19")
    expect(may.get_by_role("status").first).to_contain_text(re.compile("Chill the block \\d+ min"))
    temperature(page, "Butter", "13")
    expect(may.get_by_role("status").first).to_contain_text("Lock it in")
    may.get_by_role("button", name="Cracks").tap()
    expect(may.get_by_role("status").first).to_contain_text("it cracks when it is bent")
    may.get_by_role("button", name="Bends").tap()
    expect(may.get_by_role("status").first).to_contain_text("Lock it in")
    assert grave(page) == []
    go(page, "Lock-in done")
    bar = page.get_by_role("img", name=re.compile("^In at .* planned out at"))
    expect(bar).to_be_visible()
    moved_earlier(page, run, 200)
    go(page, "Take it out")
    moved_earlier(page, run, 170)

    go(page, "Turn 1 done")
    go(page, "Turn 2 done")
    expect(bar).to_be_visible()
    moves = page.get_by_role("region", name="What moves")
    longer = moves.get_by_role("button", name=re.compile("^Turn 2"))
    expect(longer).to_contain_text(re.compile("Rest .* instead"))
    longer.tap()
    expect(longer).to_be_hidden()
    assert grave(page) == []

    # It lies there longer than anyone meant: the alarm calls, with the name and the reason.
    for _ in range(3):
        tap(page, "Undo")
        page.wait_for_timeout(400)
    go(page, "Turn 1 done")
    moved_earlier(page, run, 160, "turn-1")
    go(page, "Turn 2 done")
    # nothing is called out while the heading says to leave it
    expect(page.get_by_role("heading", name="Leave it in the fridge")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Café boat puff: "))).to_be_hidden()
    moved_earlier(page, run, 120, "turn-2")
    page.reload()
    expect(page.get_by_role("heading", name="Take it out")).to_be_visible()
    call = page.get_by_role("button", name=re.compile("^Café boat puff: "))
    expect(call).to_be_visible()
    expect(call).to_contain_text("Turn 2: ")
    tap(page, "Sound on")  # to spoken, and from there to off
    tap(page, "Spoken")
    expect(page.get_by_role("button", name="Sound off")).to_be_visible()
    call.tap()
    expect(call).to_be_hidden()
    go(page, "Take it out")
    go(page, "Turn 3 done")
    go(page, "Turn 4 done")
    go(page, "Take it out")
    go(page, "Mark the block for the boats done")
    go(page, "Turn 5 done")
    expect(page.get_by_label("5 of 5 turns done")).to_be_visible()


def test_one_slider_moves_the_whole_plan_and_a_fix_puts_a_rest_right(person):
    page = person()
    new_plan(page, name="Hot and cold")
    today = page.get_by_role("region", name="Today")
    expect(today.get_by_role("status")).to_contain_text("At 21 °C")
    today.get_by_role("button", name="Two degrees warmer?").click()
    expect(today.get_by_role("status")).to_contain_text(re.compile("Two degrees warmer: .*less"))
    room = today.get_by_role("slider", name=re.compile("^Room"))
    room.focus()
    page.keyboard.press("End")
    expect(today.get_by_role("status")).to_have_attribute("data-works", "no")
    # what is tried is this screen's; what is said of today is everybody's, with who said it
    today.get_by_role("button", name="Back to the usual").click()
    expect(today.get_by_role("status")).to_contain_text("At 21 °C")
    room.focus()
    page.keyboard.press("End")
    today.get_by_role("button", name="It is so today, for all").click()
    expect(today.get_by_text(re.compile(r"Said of today by wren, \d\d:\d\d"))).to_be_visible()
    other = person("tansy", path=page.url)
    expect(other.get_by_role("region", name="Today").get_by_role("status")).to_contain_text("38 °C")
    other.close()
    page.reload()
    expect(today.get_by_role("status")).to_contain_text("At 38 °C")
    today.get_by_role("button", name="As usual").click()
    expect(today.get_by_role("status")).to_contain_text("At 21 °C")
    step(page, "Turn 1").click()
    field(page, "Rest for").fill("5")
    expect(page.get_by_text("5 min is too short.")).to_be_visible()
    page.get_by_role("button", name=re.compile(r"^Rest \d+ min")).first.click()
    expect(page.get_by_text(re.compile("min is (fine|tight)"))).to_be_visible()
    page.get_by_role("radio", name="Warmth").check(force=True)
    chart = page.get_by_role("img", name=re.compile("^Temperatures over the plan"))
    expect(chart).to_be_visible()
    chart.focus()
    before = chart.get_attribute("aria-label")
    page.keyboard.press("ArrowRight")
    expect(chart).not_to_have_attribute("aria-label", before)
    assert grave(page) == []
    saved(page)


def test_a_rest_goes_from_place_to_place_in_the_panel_on_the_strip_and_on_paper(person):
    page = person()
    new_plan(page, name="Chain")
    step(page, "Turn 1").click()
    places = page.locator("[data-stay]")
    page.get_by_role("group", name="Then rest").get_by_label("Freezer").check(force=True)
    field(page, "Rest for").fill("10")
    page.get_by_role("button", name="Then another place").click()
    expect(page.get_by_text("freezer, fridge")).to_be_visible()
    field(page, "In the fridge for").fill("90")
    page.get_by_role("button", name="Then another place").click()
    expect(page.get_by_text("freezer, fridge, bench")).to_be_visible()
    expect(page.get_by_text("1 h 55 in all.")).to_be_visible()
    # earlier and off, by keys
    page.get_by_role("button", name="bench 3 earlier").press("Enter")
    expect(page.get_by_text("freezer, bench, fridge")).to_be_visible()
    page.get_by_role("button", name="Take bench 2 off").press("Enter")
    expect(page.get_by_text("1 h 40 in all.")).to_be_visible()
    # a fridge as cold as is said here, and the whole rest pulled longer where it gives
    page.get_by_role("button", name="How it lies there").nth(1).click()
    field(page, "It is there").last.fill("2")
    grip = page.get_by_role("slider", name="Rest after Turn 1")
    grip.press("ArrowRight")
    expect(field(page, "In the fridge for")).not_to_have_value("1 h 30")
    expect(field(page, "In the freezer for")).to_have_value("10")
    field(page, "In the fridge for").fill("200 h")
    expect(page.get_by_text(re.compile("Must be from"))).to_be_visible()
    field(page, "In the fridge for").fill("50")
    saved(page)
    assert grave(page) == []
    page.reload()
    step(page, "Turn 1").click()
    expect(places.nth(1)).to_be_visible()
    expect(page.get_by_text("freezer, fridge")).to_be_visible()
    page.goto(page.url.split("?")[0] + "/paper")
    expect(page.get_by_text(re.compile("then 10 min freezer, 50 min fridge"))).to_be_visible()


def test_a_kitchen_learns_from_the_simulated_probe_and_keeps_both(person):
    page = person(path="/kitchen")
    lesson = page.get_by_role("region", name="Learn this kitchen")
    lesson.get_by_role("button", name="Try the simulated probe").click()
    expect(lesson.get_by_text(re.compile(r"^\d+ readings\.$"))).to_be_visible()
    lesson.get_by_role("button", name="Learn from these readings").click()
    expect(lesson.get_by_text(re.compile("^This fridge cools harder than assumed"))).to_be_visible()
    assert grave(page) == []
    lesson.get_by_role("button", name="Use it for this kitchen").click()
    film = page.get_by_role("textbox", name=re.compile("^How hard the fridge cools"))
    expect(film).to_have_value(re.compile("^1[12]"))
    page.get_by_role("button", name=re.compile("^how hard the fridge cools.*back to")).click()
    expect(film).to_have_value("7")
    page.get_by_role("textbox", name="Name of a new probe").fill("Middle shelf")
    lesson.get_by_role("button", name="Add this probe").click()
    expect(lesson.get_by_text(re.compile("may post to /api/probes/readings"))).to_be_visible()
