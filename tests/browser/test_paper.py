"""On paper: as many pages as there are sheets, none of them empty."""

import re

import pytest
from playwright.sync_api import expect

from .house import enter
from .test_hands import open_plan


def pages(page):
    """How many pages a print of what is on the screen has."""
    printed = page.pdf(prefer_css_page_size=True)
    return len(re.findall(rb"/Type\s*/Page\b", printed))


def test_a_plan_is_one_page_of_paper_and_its_folds_another(person):
    page = person()
    open_plan(page, "Saturday market", "turn-1")
    page.get_by_role("button", name="More for this plan").click()
    page.get_by_role("menuitem", name="On paper").click()
    plan = page.get_by_role("article", name="The plan")
    expect(plan.get_by_text("Lock in 540 g of butter")).to_be_visible()
    expect(plan.get_by_role("img", name=re.compile("butter block on it"))).to_be_visible()
    folds = page.get_by_role("article", name="Folds and marks")
    expect(folds.get_by_text("The far third comes over").first).to_be_visible()
    expect(folds.get_by_text(re.compile("^the straight edge: "))).to_be_visible()
    assert pages(page) == 2


@pytest.mark.parametrize("kind", ["pages", "labels"])
def test_weigh_out_sheets_have_a_page_each(person, kind):
    page = person()
    open_plan(page, "Saturday market", "turn-1")
    enter(page, f"{page.url.split('?')[0]}/sheets?as={kind}")
    sheets = page.get_by_role("article")
    expect(sheets.first).to_be_visible()
    assert pages(page) == sheets.count()
