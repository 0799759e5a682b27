"""What is prepared, weighed and declared: from the kitchen to an order's sheets and a product's label."""

import re

from playwright.sync_api import expect

from .house import ASK, enter


def test_a_nut_paste_is_made_used_weighed_out_for_an_order_and_declared(person):
    page = person(path="/kitchen", new=True)
    page.get_by_role("button", name="Add a preparation").click()
    form = page.get_by_role("form", name="A preparation")
    form.get_by_label("Name").fill("Weir nut paste")
    form.get_by_role("textbox", name="Amount 1").fill("400")
    form.get_by_role("textbox", name="Amount 1").press("Tab")
    form.get_by_role("button", name="Save").click()
    expect(form.get_by_role("button", name="Saved")).to_be_visible()
    expect(page.get_by_role("group", name="What you prepare")).to_contain_text("contains nuts")

    # used in a plan, as a filling and as the wash, by its name
    plans = page.evaluate(ASK, ["GET", "/plans", None])
    market = next(p["id"] for p in plans if p["name"] == "Saturday market croissant")
    copy = page.evaluate(ASK, ["POST", f"/plans/{market}/copy", None])
    plan = copy["plan"]
    cut = next(s for s in plan["steps"] if s["do"] == "cut")
    cut["products"][0] |= {"filling": "Weir nut paste", "filling_g": 10}
    page.evaluate(
        ASK, ["PUT", f"/plans/{copy['id']}", {"revision": copy["revision"], "plan": plan}]
    )
    wanted = {"product": cut["products"][0]["name"], "pieces": 120, "raw_g": 60}
    order = {
        "name": "A hundred and twenty",
        "doughs": [{"plan_id": copy["id"], "products": [wanted]}],
    }
    saved = page.evaluate(ASK, ["POST", "/orders", order])

    enter(page, f"/day/{saved['id']}/sheets?as=pages")
    paste = page.get_by_role("article", name=re.compile("Make weir nut paste"))
    expect(paste).to_contain_text("Hazelnuts")
    expect(paste).to_contain_text("Contains nuts")
    expect(paste).to_contain_text("Make it the day before")
    expect(page.get_by_role("article", name="For the day before")).to_contain_text("nuts")
    expect(page.get_by_role("article", name=re.compile("Wash$"))).to_contain_text("Contains egg")

    enter(page, f"/plans/{copy['id']}")
    page.locator("[data-stop=look]").click()
    label = page.get_by_text(re.compile(r"^Contains .*nuts"))
    expect(label.first).to_be_visible()
    expect(page.get_by_text("(Hazelnuts, Sugar)").first).to_be_visible()
    with page.expect_download() as got:
        page.get_by_role("link", name="Sheet of labels (PDF)").click()
    assert got.value.path().read_bytes().startswith(b"%PDF")
