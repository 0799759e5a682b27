"""Without a network, with a clock that is off, signed out: the bench goes on, and nothing is lost."""

import re
from datetime import datetime, timedelta

from playwright.sync_api import expect

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
