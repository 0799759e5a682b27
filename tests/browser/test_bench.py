"""At the bench: by touch, across reloads, restarts, lost connections and two tablets."""

import re

from playwright.sync_api import expect

from .house import enter


def tap(page, name):
    page.get_by_role("button", name=name).tap()


def go(page, name):
    """The main button: wait for the screen to show it, press it."""
    button = page.get_by_role("button", name=re.compile(f"^{name}"))
    expect(button).to_be_enabled()
    page.wait_for_timeout(750)  # a press counts once: the button holds still for a moment
    button.tap()


def reached(page, stop):
    """Wait until the house has what was done at a stop, and the tablet knows that it has."""
    run = f"/api/runs/{page.url.split('/')[-1]}"
    for _ in range(600):
        deeds = page.context.request.get(run).json()["standing"]["deeds"]
        if any(d["stop"] == stop and d["kind"] == "done" for d in deeds):
            break
        page.wait_for_timeout(50)
    else:
        raise AssertionError(f"the house never heard of {stop}")
    page.wait_for_timeout(500)


def kept(page, kind):
    """Wait until the tablet has put by what was entered: then it may be closed at any moment."""
    page.wait_for_function(
        """kind => new Promise(done => {
          const asked = indexedDB.open('eight-turn')
          asked.onsuccess = () => {
            const found = asked.result.transaction('outbox').objectStore('outbox').getAll()
            found.onsuccess = () => {
              asked.result.close()
              done(found.result.some(entry => entry.body.kind === kind))
            }
          }
        })""",
        arg=kind,
    )


def start(page, plan):
    enter(page, "/bench")
    tap(page, f"Start {plan}")
    expect(page).to_have_url(re.compile("/bench/.+"))


def temperature(page, of, keys):
    tap(page, "Temperature")
    page.get_by_role("radio", name=of).check(force=True)
    for key in keys:
        page.get_by_role("button", name={".": "point"}.get(key, key), exact=True).tap()
    tap(page, re.compile("^Save$"))
    expect(page.get_by_role("dialog")).to_be_hidden()


def test_a_whole_run_by_touch_across_a_reload_and_a_restart(person, house):
    page = person("tansy", width=1024, height=768, touch=True)
    start(page, "Lock garden Danish")
    expect(page.get_by_role("heading", name="Mix 3\u202f300 g of dough")).to_be_visible()
    scales = page.get_by_role("list", name="Mixing day: to weigh")
    scales.get_by_role("button", name=re.compile("^Strong wheat flour 1.800 g")).tap()
    tap(page, "Water: another weight")
    for key in "520":
        page.get_by_role("button", name=key, exact=True).tap()
    tap(page, re.compile("^Save$"))
    expect(scales.get_by_role("button", name=re.compile("^Water 520 g of 503 g"))).to_be_visible()
    go(page, "Mix done")
    go(page, "Take it out")
    expect(page.get_by_role("heading", name="Flatten 3\u202f300 g of dough")).to_be_visible()
    temperature(page, "Room", "21")
    expect(page.get_by_role("list", name="Entered lately")).to_contain_text("room 21 °C")
    go(page, "Dough done")
    expect(page.get_by_role("heading", name="Leave it in the fridge")).to_be_visible()

    page.reload()
    expect(page.get_by_role("heading", name="Leave it in the fridge")).to_be_visible()
    go(page, "Take it out")
    temperature(page, "Butter", "12.5")
    go(page, "Lock-in done")
    expect(page.get_by_role("heading", name="Roll to 9 mm")).to_be_visible()
    go(page, "Turn 1 done")
    expect(page.get_by_label("1 of 2 turns done")).to_be_visible()

    reached(page, "turn-1")
    house.stop()
    tap(page, "Note")
    tap(page, "Springs back")
    expect(page.get_by_role("list", name="Entered lately")).to_contain_text("(not sent yet)")
    expect(page.get_by_text(re.compile("^No connection since .* 1 entry waits"))).to_be_visible()
    go(page, "Take it out")
    expect(page.get_by_text(re.compile("2 entries wait here and will be sent"))).to_be_visible()
    expect(page.get_by_role("heading", name="Roll to 9 mm")).to_be_visible()
    house.start()
    expect(page.get_by_text(re.compile("No connection|wait"))).to_have_count(0)

    go(page, "Turn 2 done")
    go(page, "Take it out")
    go(page, "Last sheet done")
    go(page, "Take it out")
    tap(page, "Pieces")
    tap(page, "Simulated scale")
    expect(page.get_by_text(re.compile("They get lighter along the sheet"))).to_be_visible()
    tap(page, re.compile("^Save .* weights"))
    go(page, "Cut done")
    for did in (
        "shaped",
        "out of the proofer",
        "washed",
        "into the oven",
        "out of the oven",
        "cooled",
    ):
        loads = page.get_by_role("region", name=re.compile("^Oven load"))
        for n in range(loads.count()):
            loads.nth(n).get_by_role("button", name=re.compile(f"^All .*: {did}$")).tap()
    go(page, "Look done")
    expect(page.get_by_role("heading", name="Done")).to_be_visible()

    page.get_by_role("link", name="To the record").tap()
    used = page.get_by_role("table").filter(has_text="of flour")
    expect(used).to_contain_text(re.compile("Water.*503 g.*520 g.*28.89 %"))
    expect(page.get_by_text("6 not ticked, taken as planned")).to_be_visible()
    record = page.get_by_role("table").first
    expect(record).to_contain_text("“Springs back”")
    expect(record).to_contain_text("butter 12.5 °C")
    expect(page.get_by_role("img", name=re.compile("Temperatures: .*room 21 °C"))).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("pieces along the sheet"))).to_be_visible()
    expect(page.get_by_role("table").filter(has_text="Proofed")).to_contain_text("Pinwheel")
    page.get_by_label("lift 4").check(force=True)
    page.get_by_label("In words: what was different?").fill("Rested turn 1 longer")
    tap(page, "Keep the verdict")
    expect(page.get_by_text("Kept.")).to_be_visible()
    enter(page, "/book")
    expect(page.get_by_role("link", name=re.compile("Lock garden Danish.*lift 4"))).to_be_visible()


def test_undo_takes_back_a_wrong_press_and_a_time_can_be_put_right(person):
    page = person("tansy", width=1024, height=768, touch=True)
    start(page, "Saturday market croissant")
    go(page, "Poolish done")
    tap(page, "Undo")
    expect(page.get_by_role("heading", name=re.compile("^Mix 570"))).to_be_visible()
    go(page, "Poolish done")
    expect(page.get_by_text("Poolish done").last).to_be_visible()
    # it was begun before the tablet heard of it: that moves along
    expect(page.get_by_text(re.compile("^0 min of 11 h gone"))).to_be_visible()
    tap(page, "−5 minutes")
    expect(page.get_by_text(re.compile("^5 min of 11 h gone"))).to_be_visible()
    expect(page.get_by_role("alert")).to_have_count(0)


def test_a_double_press_counts_once(person):
    page = person("tansy", width=1024, height=768, touch=True)
    start(page, "Lock garden Danish")
    page.wait_for_timeout(750)
    page.get_by_role("button", name=re.compile("^Mix done")).dblclick()
    expect(page.get_by_role("heading", name="Leave it in the fridge")).to_be_visible()
    page.wait_for_timeout(500)
    expect(page.get_by_role("heading", name="Leave it in the fridge")).to_be_visible()
    enter(page, "/bench")
    run = page.get_by_role("link", name=re.compile("Lock garden Danish.*resting after mix"))
    expect(run).to_have_count(1)


def test_another_tablet_comes_to_the_same_step(person):
    here = person("tansy", width=1024, height=768, touch=True)
    start(here, "Saturday market croissant")
    go(here, "Poolish done")
    expect(here.get_by_role("heading", name="Leave it on the bench")).to_be_visible()
    there = person("wren", path=here.url, width=390, height=844, touch=True)
    expect(there.get_by_role("heading", name="Leave it on the bench")).to_be_visible()
    go(there, "Take it out")
    expect(here.get_by_role("heading", name=re.compile("^Mix 1.980"))).to_be_visible()


def test_the_keypad_asks_for_figures_and_refuses_what_no_bakehouse_has(person):
    page = person("tansy", width=1024, height=768, touch=True)
    start(page, "Café boat puff")
    tap(page, "Temperature")
    tap(page, re.compile("^Save$"))
    expect(page.get_by_role("alert")).to_contain_text("Press the figures first")
    for _ in range(3):
        page.get_by_role("button", name="9", exact=True).tap()
    tap(page, re.compile("^Save$"))
    expect(page.get_by_role("alert")).to_contain_text("no temperature of a bakehouse")


def test_a_dough_given_up_can_be_taken_up_again(person):
    page = person("tansy", width=1024, height=768, touch=True)
    start(page, "Saturday market croissant")
    tap(page, "Stop this dough")
    dialog = page.get_by_role("dialog", name="Stop this dough?")
    dialog.get_by_role("button", name="Keep the dough").tap()
    expect(page.get_by_role("heading", name=re.compile("^Mix 570"))).to_be_visible()
    tap(page, "Stop this dough")
    dialog.get_by_role("button", name="Stop this dough").tap()
    expect(page.get_by_role("heading", name="Stopped")).to_be_visible()
    tap(page, "Undo")
    expect(page.get_by_role("heading", name=re.compile("^Mix 570"))).to_be_visible()


def test_every_target_at_the_bench_is_large_enough_for_a_floury_finger(person):
    page = person("tansy", width=1024, height=768, touch=True)
    start(page, "Saturday market croissant")
    go(page, "Poolish done")
    for target in page.get_by_role("button").all() + page.get_by_role("link").all():
        box = target.bounding_box()
        assert min(box["width"], box["height"]) >= 56, (target.inner_text(), box)


def stays_undone(page):
    """With the connection back the house hears of the undo, and has it after a reload."""
    kept(page, "undo")
    page.unroute("**/events")
    expect(page.get_by_text(re.compile("No connection|wait"))).to_have_count(0)
    page.reload()
    expect(page.get_by_role("heading", name=re.compile("^Mix 570"))).to_be_visible()


def test_undo_needs_no_connection(person):
    page = person("tansy", width=1024, height=768, touch=True)
    start(page, "Saturday market croissant")
    go(page, "Poolish done")
    expect(page.get_by_role("heading", name="Leave it on the bench")).to_be_visible()
    reached(page, "preferment-1")
    page.route("**/events", lambda route: route.abort())
    tap(page, "Undo")
    expect(page.get_by_role("heading", name=re.compile("^Mix 570"))).to_be_visible()
    expect(page.get_by_role("button", name="Undo")).to_be_disabled()
    stays_undone(page)


def test_undo_of_what_arrived_though_no_answer_came_back(person):
    page = person("tansy", width=1024, height=768, touch=True)
    start(page, "Saturday market croissant")

    def lose(route):
        route.fetch()
        route.abort()

    page.route("**/events", lambda route: route.abort())
    page.route("**/events", lose, times=1)
    go(page, "Poolish done")
    expect(page.get_by_text(re.compile("^No connection since .* 1 entry waits"))).to_be_visible()
    tap(page, "Undo")
    expect(page.get_by_role("heading", name=re.compile("^Mix 570"))).to_be_visible()
    stays_undone(page)


def test_two_trays_in_the_proofer_and_one_in_the_oven_each_go_their_own_way(person):
    page = person("tansy", width=1024, height=768, touch=True)
    enter(page, "/bench")
    page.get_by_role("link", name=re.compile("Saturday market croissant.*tray")).tap()
    trays = page.get_by_label("Oven load 1", exact=True).get_by_role("listitem")
    expect(trays.nth(0)).to_contain_text("in the oven")
    expect(trays.nth(1)).to_contain_text("proofing")
    expect(trays.nth(2)).to_contain_text("proofing")
    tap(page, "Leaves visible at the cut edges")
    expect(page.get_by_role("button", name="Leaves visible at the cut edges")).to_have_attribute(
        "aria-pressed", "true"
    )
    page.get_by_role("button", name="Tray 2: out of the proofer", exact=True).tap()
    expect(trays.nth(1)).to_contain_text("out, to be washed")
    # what stands open is the main button's, before what only proofs or bakes
    go(page, "Tray 2: washed out, to be")
    go(page, "Tray 2: into the oven ready")
    expect(trays.nth(1)).to_contain_text("in the oven")
    expect(trays.nth(2)).to_contain_text("proofing")
    tap(page, "Undo")
    expect(trays.nth(1)).to_contain_text("ready for the oven")
    page.reload()
    expect(trays.nth(1)).to_contain_text("ready for the oven")
    # the time of one tray is put right, and that of no other
    when = page.get_by_role("button", name="Put right when: tray 3")
    was = when.inner_text()
    page.get_by_role("button", name="Put right when: tray 1").tap()
    other = page.get_by_role("button", name="Put right when: tray 1")
    before = other.inner_text()
    page.get_by_role("button", name="A minute earlier").tap()
    expect(other).not_to_have_text(before)
    expect(when).to_have_text(was)
    # a tray is lost only when it is asked for twice, and undo brings it back
    page.get_by_role("button", name="Tray 3 is lost", exact=True).tap()
    page.get_by_role("dialog").get_by_role("button", name="Lost", exact=True).tap()
    expect(trays.nth(2)).to_contain_text("lost")
    expect(page.get_by_role("button", name=re.compile("^Tray 3: "))).to_have_count(0)
    tap(page, "Undo")
    expect(trays.nth(2)).to_contain_text("proofing")
