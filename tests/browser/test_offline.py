"""Without a network, with a clock that is off, signed out: the bench goes on, and nothing is lost."""

import re
from datetime import datetime, timedelta

from playwright.sync_api import expect

from .house import until

WAITS = re.compile("entr(y|ies) waits? here")


def to_the_bench(page):
    """A dough of this test's own, at the bench; its number."""
    page.goto("/bench")
    page.get_by_role("button", name="Start Café boat puff").click()
    page.wait_for_url(re.compile("/bench/.+"))
    expect(page.get_by_role("button", name=re.compile("^Note"))).to_be_visible()
    return page.url.rsplit("/", 1)[1]


def said(page, run):
    return page.evaluate(
        "async (run) => (await (await fetch(`/api/runs/${run}`)).json()).said", run
    )


def test_a_tablet_opens_and_goes_on_without_a_network(person, house):
    page = person("tansy", path="/bench", worker=True)
    run = to_the_bench(page)
    before = said(page, run)
    page.reload()
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.evaluate("navigator.serviceWorker.ready.then(() => null)")
    page.wait_for_timeout(3_000)  # what was read is written down every two seconds
    house.stop()
    try:
        # a cold start: the page is opened anew, in a tab of its own, and nobody answers
        page.close()
        page = page.context.new_page()
        page.goto(f"/bench/{run}")
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        expect(page.get_by_text(re.compile("^No connection since"))).to_be_visible()
        page.get_by_role("button", name=re.compile("^Note")).click()
        page.get_by_role("button", name="Springs back").click()
        expect(page.get_by_text(WAITS)).to_be_visible()

        # another tab of the same tablet knows of it, and adds its own
        other = page.context.new_page()
        other.goto("/bench")
        expect(other.get_by_text(re.compile("1 entry waits here"))).to_be_visible()
        other.goto(f"/bench/{run}")
        other.get_by_role("button", name=re.compile("^Note")).click()
        other.get_by_role("button", name="Springs back").click()
        for tab in (page, other):
            expect(tab.get_by_text(re.compile("2 entries wait here"))).to_be_visible()
    finally:
        house.start()
    for tab in (page, other):
        expect(tab.get_by_text(WAITS)).to_have_count(0)
    assert said(page, run) == before + 2


def test_a_clock_that_is_off_loses_nothing_and_is_said(person):
    page = person("tansy", path="/bench", new=True)
    run = to_the_bench(page)
    before = said(page, run)
    page.clock.install(time=datetime.now() + timedelta(minutes=10))
    page.reload()
    expect(page.get_by_text(re.compile("This tablet's clock is 10 min ahead"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^Note")).click()
    page.get_by_role("button", name="Springs back").click()
    expect(page.get_by_role("list", name="Entered lately")).not_to_contain_text("(not sent yet)")
    assert said(page, run) == before + 1


def test_whoever_is_signed_out_keeps_the_screen_and_what_was_pressed(person, keys):
    page = person("tansy", path="/bench")
    to_the_bench(page)
    there = page.get_by_role("heading", level=1).inner_text()
    page.context.clear_cookies(name="sessionid")
    keys.clear()
    page.get_by_role("button", name=re.compile("^Note")).click()
    page.get_by_role("button", name="Springs back").click()
    expect(page.get_by_text(re.compile("^You are signed out"))).to_be_visible()
    expect(page.get_by_role("heading", name=there)).to_be_visible()
    expect(page.get_by_text(re.compile("1 entry waits here"))).to_be_visible()
    page.get_by_role("button", name="Sign in again").click()
    page.get_by_role("dialog").get_by_role("button", name=re.compile("^tansy")).click()
    expect(page.get_by_text(re.compile("^You are signed out"))).to_have_count(0)
    expect(page.get_by_text(WAITS)).to_have_count(0)


def note_of(page, run):
    remark = page.evaluate(
        "async (run) => (await (await fetch(`/api/runs/${run}`)).json()).standing.remarks.at(-1)",
        run,
    )
    return datetime.fromisoformat(remark["at"])


def test_a_press_without_a_network_is_of_its_own_time_whatever_was_kept_and_whatever_the_clock(
    person, house
):
    page = person("tansy", path="/bench", worker=True)
    run = to_the_bench(page)
    kept = {}

    def a_day_old(route):
        """As from a cache: it says what time it was when it was kept, and answers an older question."""
        if not kept:
            answer = route.fetch()
            old = str(round((datetime.now() - timedelta(days=1)).timestamp() * 1000))
            kept["headers"] = answer.headers | {"x-house-time": old, "x-asked": "yesterday"}
            kept["body"] = answer.body()
        route.fulfill(**kept)

    page.route("**/api/runs/*/snapshot", a_day_old)
    page.reload()
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.evaluate("navigator.serviceWorker.ready.then(() => null)")
    page.wait_for_timeout(3_000)  # what was read is written down every two seconds
    for many, ahead in enumerate((timedelta(0), timedelta(minutes=10)), 1):
        house.stop()
        try:
            if ahead:  # somebody sets the tablet's clock while it is away
                page.clock.install(time=datetime.now() + ahead)
            page.reload()
            expect(page.get_by_text(re.compile("^No connection since"))).to_be_visible()
            page.get_by_role("button", name=re.compile("^Note")).click()
            page.get_by_role("button", name="Springs back").click()
            pressed = datetime.now().astimezone()
            expect(page.get_by_text(WAITS)).to_be_visible()
        finally:
            house.start()
        until(page, run, "now.standing.remarks.length", many)
        # what it might be wrong by is hours
        assert abs((note_of(page, run) - pressed).total_seconds()) < 60


def test_signing_out_lets_go_of_what_the_tablet_kept_also_without_a_network(person, house, keys):
    page = person("tansy", path="/bench", worker=True, new=True)
    to_the_bench(page)
    page.goto("/bench")
    page.evaluate("navigator.serviceWorker.ready.then(() => null)")
    page.wait_for_timeout(3_000)
    kept = """async () => {
      const open = (name) => new Promise((done, fail) => {
        const asked = indexedDB.open(name);
        asked.onsuccess = () => done(asked.result);
        asked.onerror = () => fail(asked.error);
      });
      const count = async (name, store) => {
        const db = await open(name);
        const asked = db.transaction(store).objectStore(store).count();
        return new Promise((done) => { asked.onsuccess = () => { db.close(); done(asked.result) } });
      };
      return [await count("eight-turn", "read"), await count("eight-turn-sent", "sent")];
    }"""
    assert page.evaluate(kept)[0] == 1
    house.stop()
    try:
        page.get_by_role("button", name=re.compile("^tansy: units")).click()
        page.get_by_role("menuitem", name="Sign out").click()
        expect(page.get_by_text(re.compile("Signed out on this tablet"))).to_be_visible()
        page.wait_for_timeout(3_000)
        assert page.evaluate(kept) == [0, 0]
    finally:
        house.start()
    # the house hears of it before anybody comes in
    page.reload()
    expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
    assert page.evaluate("async () => (await (await fetch('/api/session')).json()).me") is None
    keys.clear()
