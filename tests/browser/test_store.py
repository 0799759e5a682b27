"""The cold store as it is used: from the bench onto a shelf, found by its tag, thawed, and on again."""

import io
import re
import urllib.request

import pypdfium2
import pytest
from PIL import Image
from playwright.sync_api import expect

from .house import ASK, CHROMIUM, FLAGS

POINTS_A_MM = 72 / 25.4


def block_marked(page, mark):
    return page.evaluate(ASK, ["GET", f"/blocks/mark/{mark}", None])


def shelf_of(page, place):
    return page.get_by_role("region", name=place, exact=True)


def test_from_the_bench_onto_a_shelf_found_by_its_mark_thawed_and_on_at_its_next_step(person):
    page = person("tansy", "/plans", touch=True, width=1024, height=768, new=True)
    plans = page.evaluate(ASK, ["GET", "/plans", None])
    plan = next(p for p in plans if p["name"] == "Café boat puff")
    run = page.evaluate("crypto.randomUUID()")
    page.evaluate(ASK, ["POST", "/runs", {"id": run, "plan_id": plan["id"]}])
    snapshot = page.evaluate(ASK, ["GET", f"/runs/{run}/snapshot", None])
    began = page.evaluate(ASK, ["GET", f"/runs/{run}", None])["started_at"]
    deeds = snapshot["order"]
    done = next(n for n, d in enumerate(deeds) if d["stop"] == "turn-3" and d["kind"] == "done")
    said = [
        {"id": f"deed-{n:05}", "at": began, "kind": d["kind"], "stop": d["stop"]}
        for n, d in enumerate(deeds[: done + 1])
    ]
    page.evaluate(ASK, ["POST", f"/runs/{run}/events", {"events": said}])
    page.goto(f"/bench/{run}")
    page.get_by_role("button", name="Put away").tap()
    form = page.get_by_role("dialog")
    expect(form.get_by_label("What is put away")).to_contain_text("After turn 3")
    form.get_by_label("Weight").fill("1200")
    form.get_by_label("Lots of flour and butter, if known").fill("flour 4417")
    form.get_by_role("button", name="Put it away").tap()
    expect(form).not_to_be_visible()

    # half of it stays at the bench, the other half lies on its shelf with a mark
    expect(page.get_by_role("heading", name=re.compile("Stopped", re.I))).to_have_count(0)
    page.goto("/store")
    mine = shelf_of(page, "Freezer").get_by_role("button", name=re.compile("3 turns.*1.?200 g"))
    expect(mine).to_have_count(1)
    mark = mine.locator("b").first.inner_text()
    page.get_by_role("button", name="Find a tag").tap()
    page.get_by_label("What stands on the tag").fill(mark.lower())
    page.get_by_role("button", name="Open it").tap()
    panel = page.get_by_role("complementary", name=f"Block {mark}")
    expect(panel).to_contain_text("next: turn 4")

    # when it is wanted, when it is moved, and then it is in the fridge
    panel.get_by_role("button", name="It is wanted at…").tap()
    page.get_by_role("dialog").get_by_role("button", name="It is wanted then").tap()
    expect(panel).to_contain_text("Into the fridge")
    expect(panel).to_contain_text("its middle is then 0 °C to 3 °C")
    panel.get_by_role("button", name="Moved into the fridge").tap()
    expect(
        shelf_of(page, "Fridge").get_by_role("button", name=re.compile(f"^{mark}"))
    ).to_be_visible()
    panel.get_by_role("button", name="Undo").tap()
    expect(
        shelf_of(page, "Freezer").get_by_role("button", name=re.compile(f"^{mark}"))
    ).to_be_visible()

    panel.get_by_role("button", name="Go on: turn 4").tap()
    page.wait_for_url(re.compile("/bench/"))
    expect(page.get_by_role("heading", level=1)).to_contain_text("Roll to 8 mm")
    expect(page.get_by_role("img", name="3 of 5 turns done")).to_be_visible()

    # the book of it leads back to the first flour
    found = block_marked(page, mark)
    page.goto(f"/store/{found['id']}/trace")
    expect(page.get_by_text("flour 4417")).to_be_visible()
    expect(page.get_by_role("heading", name="Went on at the bench")).to_be_visible()
    expect(page.get_by_role("link", name="Café boat puff").first).to_be_visible()


def test_two_tablets_without_a_network_take_the_same_block_and_one_is_told(person):
    first = person("wren", "/store", new=True)
    second = person("tansy", "/store", new=True)
    put = {
        "id": first.evaluate("crypto.randomUUID()"), "at": first.evaluate("new Date().toISOString()"),
        "place": "fridge", "which": "whole", "name": "Both want it", "grams": 700,
    }  # fmt: skip
    view = first.evaluate(ASK, ["POST", "/blocks", {"put": put}])
    for page in (first, second):
        page.goto(f"/store/{view['id']}")
        page.wait_for_load_state(
            "networkidle"
        )  # the other rooms are fetched while nothing else is to do
        expect(page.get_by_role("complementary", name=f"Block {view['mark']}")).to_be_visible()
        page.context.route("**/api/**", lambda route: route.abort())
    for page in (first, second):
        page.get_by_role("button", name="Take it out").click()
        expect(page.get_by_text("One change is kept on this tablet")).to_be_visible()
    first.context.unroute("**/api/**")
    expect(first.get_by_text(re.compile("Taken out .* by wren"))).to_be_visible()
    second.context.unroute("**/api/**")
    told = second.get_by_role("alert").filter(has_text="Not taken")
    expect(told).to_contain_text("was taken out")
    expect(told).to_contain_text("by wren")
    told.get_by_role("button", name="Look at it").click()
    second.get_by_role("button", name="Discard this entry").click()
    expect(told).to_have_count(0)


@pytest.fixture
def seen(person, house, tmp_path):
    """What a camera sees that is held before a tag as it is printed, as a film; and the tag's block."""
    page = person("tansy", "/store", new=True)
    mark = page.evaluate(ASK, ["GET", "/blocks", None])["blocks"][0]
    cookies = "; ".join(f"{c['name']}={c['value']}" for c in page.context.cookies())
    asked = urllib.request.Request(
        f"{house.address}/api/blocks/tags.pdf?of={mark['id']}&one_each=true",
        headers={"Cookie": cookies},
    )
    printed = pypdfium2.PdfDocument(urllib.request.urlopen(asked).read())
    tag = printed[0].render(scale=5 / POINTS_A_MM).to_pil().convert("RGB")
    # a table, a hand that is not quite still
    table = Image.new("RGB", (640, 480), (120, 96, 70))
    table.paste(
        tag.resize((560, round(560 * tag.height / tag.width))).rotate(2, expand=True), (30, 40)
    )
    frame = io.BytesIO()
    table.save(frame, "JPEG", quality=92)
    film = tmp_path / "tag.mjpeg"
    film.write_bytes(frame.getvalue() * 5)
    return film, mark, cookies


def test_a_printed_tag_before_the_camera_opens_its_block(seen, house, play):
    film, block, cookies = seen
    flags = [
        *FLAGS, "--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream",
        f"--use-file-for-fake-video-capture={film}",
    ]  # fmt: skip
    browser = play.chromium.launch(executable_path=CHROMIUM, args=flags)
    context = browser.new_context(base_url=house.address, permissions=["camera"])
    named = (c.split("=", 1) for c in cookies.split("; "))
    context.add_cookies([{"name": n, "value": v, "url": house.address} for n, v in named])
    page = context.new_page()
    page.set_default_timeout(30_000)
    page.goto("/store")
    page.get_by_role("button", name="Find a tag").click()
    page.get_by_role("button", name="Read its code with the camera").click()
    page.wait_for_url(f"**/store/{block['id']}")
    expect(page.get_by_role("complementary", name=f"Block {block['mark']}")).to_be_visible()
    browser.close()
