"""From the last sheet to the label: several products on one sheet, marks, layout, trays, oven."""

import io
import re

from PIL import Image
from playwright.sync_api import expect

from .house import enter
from .test_access import grave
from .test_planning import field, new_plan, saved, step


def test_a_sheet_shared_between_products_down_to_its_marks_and_templates(person):
    page = person()
    new_plan(page, name="Shared sheet")
    step(page, "Cut").click()
    page.get_by_role("button", name="Another product").click()
    pocket = page.get_by_role("group", name="Pocket")
    expect(pocket.get_by_label("Shape")).to_have_value("square")
    pocket.get_by_label("Shape").select_option("disc")
    disc = page.get_by_role("group", name="Disc")
    field(disc, "Across").fill("60")
    expect(disc.get_by_text(re.compile(r"\d+ × .* g"))).to_be_visible()
    expect(step(page, "Cut")).to_contain_text("2 kinds")
    field(page, "Lost per cut").fill("2")
    expect(page.get_by_text("Every mark from one straight edge")).to_be_visible()
    field(page, "Lost per cut").fill("99")
    expect(page.get_by_text(re.compile("^Must be from 0 mm to"))).to_be_visible()
    field(page, "Lost per cut").fill("2")
    page.get_by_label("Product", exact=True).last.fill("")
    expect(page.get_by_text("Nothing is entered. At least 1 characters.")).to_be_visible()
    page.get_by_label("Product", exact=True).last.fill("Disc")
    expect(page.get_by_text("Nothing is entered. At least 1 characters.")).to_be_hidden()

    page.get_by_role("button", name="Best layout").click()
    search = page.get_by_role("dialog")
    search.get_by_label("Disc wanted").fill("12")
    expect(search.get_by_text(re.compile("% of the sheet is used")).first).to_be_visible()
    search.get_by_role("button", name="Use this layout").first.click()
    expect(search).to_be_hidden()
    saved(page)

    page.get_by_role("radio", name="Marks").check(force=True)
    expect(page.get_by_role("row", name=re.compile("^the straight edge"))).to_be_visible()
    expect(page.get_by_text(re.compile("the last mark would lie"))).to_be_visible()
    with page.expect_download() as pdf:
        page.get_by_role("link", name=re.compile("stencil of one")).click()
    assert pdf.value.suggested_filename.endswith(".pdf")
    assert grave(page) == []


def test_from_the_tray_to_the_label(person):
    page = person()
    new_plan(page, name="To the label")
    step(page, "Shape").click()
    expect(page.get_by_role("img", name=re.compile("on a tray of 600 by 400 mm"))).to_be_visible()
    expect(page.get_by_text("Notch the middle of the base.")).to_be_visible()
    page.get_by_role("combobox", name="Filling").fill("plum jam")
    expect(page.get_by_text("The label is not complete")).to_be_visible()
    field(page, "Rest for").fill("30")
    expect(page.get_by_text("Warning Under-proofed")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Proof .* (h|min)")).click()
    expect(page.get_by_text("Warning Under-proofed")).to_be_hidden()
    step(page, "Bake").click()
    bake = page.get_by_role(
        "img", name=re.compile("Bake in a deck oven: 4 min at 220 °C with steam")
    )
    expect(bake).to_be_visible()
    page.get_by_role("radio", name="Fan").click(force=True)
    expect(
        page.get_by_role("img", name=re.compile("Bake in a fan oven: .* 200 °C")).first
    ).to_be_visible()
    step(page, "Wash").click()
    page.get_by_label("Wash", exact=True).select_option("milk")
    step(page, "Look").click()
    label = page.get_by_text(re.compile("^Contains"))
    expect(label).to_contain_text("gluten, milk. Not known here: plum jam; ask the baker.")
    expect(label).not_to_contain_text("egg")
    saved(page)
    assert grave(page) == []


def test_a_picture_goes_into_the_record_and_out_again(person):
    page = person("tansy")
    enter(page, "/book")
    page.get_by_role("link", name=re.compile("Saturday market croissant.*lift 4")).first.click()
    expect(page.get_by_text(re.compile("They proofed .* on average"))).to_be_visible()
    expect(page.get_by_text("It lost 14.5 % in the oven.")).to_be_visible()
    out = io.BytesIO()
    Image.new("RGB", (640, 480), (196, 140, 70)).save(out, "PNG")
    page.get_by_label("To the picture").fill("cut across, tray 2")
    page.locator('input[type="file"]').set_input_files(
        {"name": "comb.png", "mimeType": "image/png", "buffer": out.getvalue()}
    )
    kept = page.get_by_role("img", name="cut across, tray 2")
    expect(kept).to_be_visible()
    assert kept.evaluate("image => image.decode().then(() => image.naturalWidth)") == 640
    page.locator('input[type="file"]').set_input_files(
        {"name": "note.jpg", "mimeType": "image/jpeg", "buffer": b"no picture"}
    )
    expect(page.get_by_text("This file is no JPEG, PNG or WebP picture.")).to_be_visible()
    page.get_by_role("button", name="Take away the picture cut across, tray 2").click()
    expect(kept).to_be_hidden()
