"""In a bakery's own network: by a plain name over http, and over https that the house makes itself."""

import os
import re
import shutil
import subprocess
from datetime import UTC, datetime

import pytest
from playwright.sync_api import expect

from .house import CHROMIUM, FLAGS, ROOT, House, until

NAME = "bakehouse.lan"
PICTURE = ROOT / "web/public/mark-192.png"


@pytest.fixture
def named(house, tmp_path):
    """A demo house of this test's own that is called by a name; not served yet."""
    data = tmp_path / "own"
    shutil.copytree(house.environment["DATA_DIR"], data)
    for left in data.glob("*-wal"):
        left.unlink()
    made = House(data)
    made.environment["EIGHT_TURN_HOSTS"] = NAME
    yield made
    if made.process and made.process.poll() is None:
        made.stop()


@pytest.fixture
def tablet(play, tmp_path):
    """Opens a browser that finds the house by its name, as from another machine."""
    opened = []

    def open_tablet(**more):
        rules = f"--host-resolver-rules=MAP {NAME} 127.0.0.1"
        browser = play.chromium.launch(
            executable_path=CHROMIUM,
            args=[*FLAGS, rules],
            env=os.environ | {"HOME": str(tmp_path)},
        )
        opened.append(browser)
        page = browser.new_page(**more)
        page.set_default_timeout(40_000)
        page.troubles = []
        page.on("pageerror", lambda error: page.troubles.append(str(error)))
        return page

    yield open_tablet
    for browser in opened:
        browser.close()


def come_in(page, address):
    page.goto(address)
    page.get_by_role("button", name=re.compile("^tansy")).click()
    page.get_by_role("navigation", name="Pages").wait_for()


def to_the_bench(page):
    page.get_by_role("button", name="Start Café boat puff").click()
    page.wait_for_url(re.compile("/bench/.+"))
    return page.url.rsplit("/", 1)[1]


def said(page, run):
    return page.evaluate(
        "async (run) => (await (await fetch(`/api/runs/${run}`)).json()).said", run
    )


def test_over_plain_http_everything_works_that_a_browser_gives_there(named, tablet):
    named.start()
    page = tablet(viewport={"width": 1024, "height": 768}, has_touch=True)
    come_in(page, f"http://{NAME}:{named.port}/bench")
    assert not page.evaluate("isSecureContext")
    # what is not there is said in a sentence, with what would bring it, and not again once it is known
    expect(page.get_by_text(re.compile("cannot open without a connection"))).to_be_visible()
    run = to_the_bench(page)
    page.get_by_label("Do not show this again on this tablet").tap()
    expect(page.get_by_text(re.compile("cannot open without a connection"))).to_have_count(0)
    page.locator("[data-go]").tap()
    page.get_by_role("button", name=re.compile("^Note")).tap()
    page.get_by_role("button", name="Springs back").tap()
    until(page, run, "now.standing.remarks.length", 1)
    page.get_by_role("button", name="Stop this dough").tap()
    page.get_by_role("dialog").get_by_role("button", name="Stop this dough").tap()
    page.get_by_role("link", name=re.compile("To the record")).tap()
    page.get_by_label("In words: what was different?").fill("Rolled in the draught of the lock.")
    page.get_by_role("button", name="Keep the verdict").tap()
    expect(page.get_by_role("button", name="Keep the change")).to_be_disabled()
    page.locator("input[type=file]").first.set_input_files(str(PICTURE))
    expect(page.get_by_role("img", name="What came out")).to_be_visible()
    page.reload()
    expect(page.get_by_label("In words: what was different?")).to_have_value(
        "Rolled in the draught of the lock."
    )
    assert page.troubles == []


def trusts(home, authority):
    """Tell a browser of this home to trust the authority, as a person does in its settings."""
    shelf = home / ".pki/nssdb"
    shelf.mkdir(parents=True)
    for command in (
        ["-N", "--empty-password"],
        ["-A", "-t", "C,,", "-n", "the house", "-i", str(authority)],
    ):
        subprocess.run(["certutil", "-d", f"sql:{shelf}", *command], check=True)


def test_over_the_house_s_own_https_the_bench_opens_and_goes_on_without_a_network(
    named, tablet, tmp_path
):
    named.environment["EIGHT_TURN_HTTPS"] = "house"
    named.start(look=False)
    trusts(tmp_path, f"{named.environment['DATA_DIR']}/tls/authority.crt")
    page = tablet()
    # a tablet that is new comes to the plain page first, which leads to the other
    page.goto(f"http://{NAME}:{named.port - 1}/bench")
    expect(page.get_by_role("heading", name="Let this tablet trust the bakehouse")).to_be_visible()
    with page.expect_download() as got:
        page.get_by_role("link", name="Get the certificate").click()
    assert got.value.path().read_bytes()[:1] == b"\x30"  # DER
    secure = page.get_by_role("link", name=f"https://{NAME}:{named.port}").get_attribute("href")
    come_in(page, f"{secure}/bench")
    assert page.evaluate("isSecureContext")
    run = to_the_bench(page)
    page.evaluate("navigator.serviceWorker.ready.then(() => null)")
    page.reload()
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.wait_for_timeout(3_000)  # what was read is written down every two seconds
    before = said(page, run)
    named.stop()
    page.reload()
    expect(page.get_by_text(re.compile("^No connection since"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^Note")).click()
    page.get_by_role("button", name="Springs back").click()
    expect(page.get_by_text(re.compile("1 entry waits here"))).to_be_visible()
    pressed = datetime.now(UTC)
    named.start(look=False)
    expect(page.get_by_text(re.compile("1 entry waits here"))).to_have_count(0)
    until(page, run, "now.said", before + 1)
    remark = page.evaluate(
        "async (run) => (await (await fetch(`/api/runs/${run}`)).json()).standing.remarks.at(-1)",
        run,
    )
    assert abs((datetime.fromisoformat(remark["at"]) - pressed).total_seconds()) < 5
    # where it is found, and by what its certificate is known, stands in the kitchen
    page.goto(f"{secure}/kitchen#network")
    expect(page.get_by_role("region", name="Network")).to_contain_text(f"{NAME}:{named.port}")
    assert page.troubles == []
