"""What happens round the folds, as somebody new to it plans it; a pasted formula; a dough begun already."""

import io
import re

from PIL import Image
from playwright.sync_api import expect

from .house import enter
from .test_access import grave
from .test_planning import add_step, field, new_plan, saved, step


def test_a_kouign_in_two_goes_with_sugar_and_half_of_it_kept_for_another_plan(person):
    page = person()
    new_plan(page, dough="1500", name="Towpath kouign", family="Kouign-amann")
    step(page, "Lock-in").click()
    add_step(page, "More butter")
    expect(page.get_by_text("Goes in now")).to_be_visible()
    field(page, "Of all the butter").fill("40")
    expect(page.get_by_role("button", name=re.compile("^Goes in now, 270 g"))).to_be_visible()
    step(page, "Turn 2").click()
    add_step(page, "Strew or spread")
    field(page, "How much").fill("300")
    page.get_by_role("radio", name="Half underneath, half on top").check(force=True)
    expect(page.get_by_text(re.compile("It is on the label"))).to_be_visible()
    step(page, "Strew sugar").click()
    add_step(page, "Divide")
    field(page, "Goes on").fill("50")
    page.get_by_role("radio", name="Freezer").first.check(force=True)
    drawn = page.get_by_role("img", name=re.compile("goes on, .* is put away"))
    expect(drawn).to_be_visible()
    saved(page)
    assert grave(page) == []
    page.get_by_role("button", name="Plan the other part").click()
    expect(field(page, "Name of the plan")).to_have_value("Towpath kouign, other part")
    expect(
        page.get_by_role("checkbox", name=re.compile("the part that another plan put away"))
    ).to_be_checked()


def test_a_sheet_rolled_up_is_sliced_and_one_laid_double_is_cut_two_at_a_time(person):
    page = person()
    new_plan(page, dough="2000", name="Whirl", family="Danish")
    step(page, "Last sheet").click()
    add_step(page, "Roll up")
    expect(page.get_by_role("img", name=re.compile("A coil .* times round"))).to_be_visible()
    step(page, "Cut").click()
    field(page, "Slices of").fill("30")
    expect(
        page.get_by_role("button", name=re.compile("^Pieces, \\d+: how this was worked out"))
    ).to_be_visible()
    step(page, "Roll up").click()
    page.get_by_role("button", name="Remove Roll up").click()
    step(page, "Last sheet").click()
    add_step(page, "Lay double")
    expect(page.get_by_role("img", name=re.compile("2 layers of"))).to_be_visible()
    step(page, "Cut").click()
    cut = page.get_by_role("img", name=re.compile("cut into .* pieces, 2 at a time"))
    expect(cut).to_be_visible()
    saved(page)
    assert grave(page) == []


LIST = """500 g bread flour
1 cup milk
60 g sugar
2 tsp salt
7 g instant yeast
3 bananas
1 stick butter, for laminating"""


def test_a_pasted_list_becomes_the_formula_and_says_what_it_did_not_understand(person):
    page = person()
    new_plan(page, dough="2000", name="From a letter")
    page.get_by_role("button", name="More for this plan").click()
    page.get_by_role("menuitem", name="Formula from a pasted list").click()
    page.get_by_role("button", name="Read it").click()
    expect(page.get_by_text("Paste a list of ingredients, one on each line.")).to_be_visible()
    page.get_by_label("One ingredient on each line").fill(LIST)
    page.get_by_role("button", name="Read it").click()
    found = page.get_by_role("dialog").get_by_role("status")
    expect(found).to_contain_text("244 g of whole milk")
    expect(found).to_contain_text("left out. Nothing on the shelf is called so.")
    expect(found).to_contain_text("113 g of table butter, for the block")
    assert grave(page) == []
    page.get_by_role("button", name="Take it as the formula").click()
    step(page, "Mix").click()
    expect(field(page, "Whole milk, percent")).to_have_value("48.74")
    step(page, "Dough").click()
    expect(field(page, "Butter")).to_have_value(re.compile("^27[0-9]$"))
    saved(page)


def test_a_dough_begun_in_the_morning_is_taken_up_where_it_is(person):
    page = person()
    new_plan(page, dough="2000", name="Since seven")
    page.get_by_role("button", name="More for this plan").click()
    page.get_by_role("menuitem", name="Begun already?").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Now at step").select_option(label="Turn 2")
    assert grave(page) == []
    dialog.get_by_role("button", name="Take it to the bench").click()
    page.wait_for_url(re.compile("/bench/"))
    expect(page.get_by_label("1 of 3 turns done")).to_be_visible()
    page.get_by_role("button", name="Interrupted").click()
    expect(page.get_by_role("button", name="Back at it")).to_be_visible()
    expect(page.get_by_role("list", name="Entered lately")).to_contain_text("Interrupted")
    page.get_by_role("button", name="Back at it").click()
    expect(page.get_by_role("button", name="Interrupted")).to_be_visible()
    expect(page.get_by_role("list", name="Entered lately")).to_contain_text("Interrupted for 0 min")
    enter(page, page.url.replace("/bench/", "/book/"))
    expect(page.get_by_text("as planned").first).to_be_visible()
    expect(page.get_by_text("Interrupted for 0 min")).to_be_visible()


def test_a_dough_whose_trays_wait_for_the_oven_is_taken_up_there(person):
    page = person()
    new_plan(page, dough="2000", name="Trays since nine")
    page.get_by_role("button", name="More for this plan").click()
    page.get_by_role("menuitem", name="Begun already?").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Now at step").select_option(label="Bake")
    dialog.get_by_role("button", name="Take it to the bench").click()
    page.wait_for_url(re.compile("/bench/"))
    page.get_by_role("button", name=re.compile(r"^All \d+: into the oven$")).first.click()
    expect(page.get_by_text("in the oven 0 min of", exact=False).first).to_be_visible()
    enter(page, page.url.replace("/bench/", "/book/"))
    expect(page.get_by_role("row", name=re.compile(r"^1 .* as planned")).first).to_be_visible()


def test_a_card_of_her_own_is_made_drawn_and_used_in_a_plan(person):
    page = person()
    enter(page, "/kitchen")
    page.get_by_role("button", name="Make a card").click()
    form = page.get_by_role("form", name="A shaping card of your own")
    field(page, "Name").fill("Lock gate")
    field(page, "Step 1").fill("Fold it corner to corner.")
    form.get_by_role("button", name="Fold corner to corner").click()
    drawing = form.get_by_role("img", name="Step 1: 1 line drawn")
    expect(drawing).to_be_visible()
    drawing.click(position={"x": 60, "y": 40})
    drawing.click(position={"x": 160, "y": 120})
    expect(form.get_by_role("img", name="Step 1: 2 lines drawn")).to_be_visible()
    with page.expect_file_chooser() as chooser:
        form.get_by_role("button", name="Take a picture").click()
    taken = io.BytesIO()
    Image.new("RGB", (900, 600), (214, 180, 120)).save(taken, "JPEG")
    chooser.value.set_files({"name": "a.jpg", "mimeType": "image/jpeg", "buffer": taken.getvalue()})
    expect(form.get_by_role("img", name="Taken of step 1")).to_be_visible()
    form.get_by_role("button", name="Another step").click()
    field(page, "Step 2").fill("Press both ends to the tray.")
    field(page, "Shaped, long").fill("120")
    form.get_by_role("button", name="Save").click()
    expect(form.get_by_role("button", name="Saved")).to_be_visible()
    assert grave(page) == []
    new_plan(page, dough="2000", name="Gates", family="Danish")
    step(page, "Shape").click()
    page.get_by_label("Pinwheel: shaped as").select_option(label="Lock gate")
    expect(page.get_by_text("Press both ends to the tray.")).to_be_visible()
    expect(page.locator("img[src*='/api/cards/pictures/']")).to_be_visible()
    expect(page.get_by_text(re.compile("Baked about 132 ×"))).to_be_visible()
    saved(page)
