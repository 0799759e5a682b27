"""Lessons as they are played: by touch, without a network, of a day that was, and a class side by side."""

import re
import uuid

from playwright.sync_api import expect

from .house import ASK, enter

HOT = "3-a-hot-day"


def at_work(page, pace="as usual"):
    page.get_by_role("radio", name=pace).check()
    page.get_by_role("button", name=re.compile("^Done")).tap()


def rests(page, place, minutes):
    """Into a place, and out again after whole minutes: with time standing, five at a time."""
    page.get_by_role("radio", name=place, exact=True).check()
    page.get_by_role("radio", name="Pause").check()
    on = page.get_by_role("button", name="5 min on")
    for _ in range(minutes // 5):
        on.tap()
    page.get_by_role("button", name=re.compile("^Take it out")).tap()


def outcome(page):
    """What came out, and the best play searched to its end."""
    expect(page.get_by_role("region", name="The piece, cut across")).to_be_visible(timeout=60_000)
    expect(page.get_by_text("Looking for the best play of this day.")).to_have_count(
        0, timeout=90_000
    )


def test_a_hot_day_is_lost_understood_tried_again_from_a_decision_and_passed(person):
    page = person("tansy", "/lessons", touch=True, width=1024, height=768, new=True)
    page.get_by_role("link", name="A hot day").tap()
    expect(page.get_by_role("note")).to_contain_text("Practice")
    page.get_by_role("button", name="Begin").tap()

    # everything on the bench, where it is 29 degrees
    go = page.get_by_role("button", name=re.compile("^Done"))
    expect(go).to_be_disabled()
    at_work(page)
    expect(page.get_by_role("heading", name="Where does it rest?")).to_be_visible()
    page.get_by_role("radio", name="bench").check()
    # time runs by itself, sixty times as fast
    rested = page.get_by_label("It has rested")
    expect(rested).to_have_text(re.compile("^[2-9] min$"), timeout=20_000)
    page.get_by_role("radio", name="Pause").check()
    felt = page.get_by_role("region", name="What you feel")
    expect(felt).to_contain_text("pulls back")
    for _ in range(8):
        page.get_by_role("button", name="5 min on").tap()
    expect(felt).to_contain_text("A corner smears; it lies quiet")
    page.get_by_role("button", name=re.compile("^Take it out")).tap()
    page.reload()
    # a reload comes back to the same step, with what was decided
    expect(page.get_by_role("region", name="Decided so far")).to_contain_text(
        "where it rests: bench"
    )
    page.get_by_role("button", name="A hint").tap()
    expect(page.get_by_text("Bend a corner before you roll.")).to_be_visible()
    at_work(page)
    rests(page, "bench", 30)
    at_work(page)
    rests(page, "fridge", 30)

    expect(page.get_by_role("heading", name="Not reached yet")).to_be_visible(timeout=60_000)
    outcome(page)
    expect(page.get_by_role("region", name="What happened")).to_contain_text("smeared")
    costs = page.get_by_role("region", name="What each decision cost")
    expect(costs.get_by_role("listitem").first).to_contain_text(
        "where it rests: bench; the best play has"
    )
    expect(page.get_by_role("img", name=re.compile("^Yours: a piece cut across"))).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("^The best play: a piece cut"))).to_be_visible()

    # again from the dearest decision, and better this time
    costs.get_by_role("button", name="From here again").first.tap()
    expect(page.get_by_role("heading", name="Where does it rest?")).to_be_visible()
    rests(page, "freezer", 35)
    at_work(page)
    rests(page, "fridge", 30)
    at_work(page)
    rests(page, "freezer", 35)
    expect(page.get_by_role("heading", name="Reached", exact=True)).to_be_visible(timeout=60_000)
    page.get_by_role("link", name="The class").tap()
    expect(page.get_by_role("heading", name=re.compile("A .you"))).to_be_visible()
    expect(page.get_by_text("Plays")).to_be_visible()


def test_a_lesson_goes_on_without_a_network_and_its_outcome_comes_when_there_is_one(person):
    page = person("tansy", "/plans", worker=True)
    # all are fetched ahead, the last of them too, before anybody has opened one
    with page.expect_response(re.compile("/api/lessons/8-a-proof-by-eye$")) as last:
        enter(page, "/lessons")
    assert last.value.ok
    expect(page.get_by_role("link", name="Marks and the knife")).to_be_visible()
    page.evaluate("navigator.serviceWorker.ready.then(() => null)")
    page.wait_for_timeout(3_000)  # what was read is written down every two seconds
    page.context.set_offline(True)
    page.get_by_role("link", name="Marks and the knife").click()
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("region", name="What you feel")).to_be_visible()
    page.get_by_role("radio", name="with the ruler").check()
    page.get_by_role("button", name=re.compile("^Done")).click()
    # a reload in the middle, and nobody answers
    page.reload()
    expect(page.get_by_role("region", name="Decided so far")).to_contain_text("with the ruler")
    page.get_by_role("radio", name="Pause").check()
    page.get_by_role("button", name="5 min on").click()
    page.get_by_role("button", name=re.compile("^Take it out")).click()
    page.get_by_role("radio", name="each from the last cut").check()
    page.get_by_role("button", name=re.compile("^Done")).click()
    expect(page.get_by_role("heading", name="The outcome is not there yet")).to_be_visible()
    expect(page.get_by_text("Your play is kept on this tablet")).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_role("heading", name="Not reached yet")).to_be_visible(timeout=60_000)
    expect(page.get_by_role("region", name="What happened")).to_contain_text(
        "the last mark was 76 mm short"
    )
    line = {}
    for _ in range(40):
        lines = page.evaluate(ASK, ["GET", "/lessons", None])
        line = next(one for one in lines if one["name"] == "Marks and the knife")
        if line["plays"]:
            break
        page.wait_for_timeout(500)
    assert (line["plays"], line["passed"]) == (1, False)


def test_a_day_that_was_becomes_a_lesson_for_a_class_of_three_side_by_side(person):
    page = person("wren", "/lessons", new=True)
    page.get_by_role("button", name="Make a lesson").click()
    form = page.get_by_role("dialog")
    form.get_by_role("radio", name="A day that was").check()
    expect(form.get_by_label("Record").locator("option").first).to_be_attached()
    form.get_by_label("Name, if not the plan's").fill("That Saturday again")
    form.get_by_role("button", name="Make it").click()
    page.wait_for_url("**/lessons/own-*")
    expect(page.get_by_role("heading", name="That Saturday again")).to_be_visible()
    expect(page.get_by_text("Made from the run of")).to_be_visible()
    key = page.url.split("/")[-1]
    lesson = page.evaluate(ASK, ["GET", f"/lessons/{key}", None])["lesson"]
    rest = next(c for c in lesson["choices"] if c["field"] == "rest.minutes")

    def plays(who, minutes):
        decisions = [{"step": rest["step"], "field": "rest.minutes", "value": minutes}]
        body = {
            "id": str(uuid.uuid4()),
            "lesson": key,
            "decisions": decisions,
            "at": "2026-11-30T05:00:00Z",
        }
        assert who.evaluate(ASK, ["POST", "/plays", body])["id"] == body["id"]

    named = page.evaluate(
        ASK,
        [
            "POST",
            "/people",
            {"username": "reed", "password": "reed-by-the-towpath", "role": "bench"},
        ],
    )
    assert named["username"] == "reed"
    plays(page, rest["high"])
    plays(person("tansy", "/lessons", new=True), 0)
    third = person("tansy", "/lessons", new=True)
    third.evaluate(ASK, ["DELETE", "/session", None])
    third.goto("/")
    third.get_by_role("textbox", name="Name").fill("reed")
    third.get_by_label("Password", exact=True).fill("reed-by-the-towpath")
    third.get_by_role("button", name="Sign in").click()
    expect(third.get_by_role("navigation", name="Pages")).to_be_visible()
    plays(third, 20)

    page.goto(f"/lessons/{key}/class")
    there = page.get_by_role("main").get_by_role("heading", level=2)
    expect(there).to_have_count(3)
    assert sorted(h[0] for h in there.all_inner_texts()) == ["A", "B", "C"]
    page.get_by_label("With names").check()
    expect(page.get_by_role("heading", name="reed")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("a piece cut across"))).to_have_count(3)
    # nothing of it is in the book
    assert page.evaluate(ASK, ["GET", "/runs?words=Saturday%20again", None])["runs"] == []


def test_a_fold_is_guessed_and_seen_inside_and_two_methods_lie_side_by_side(person):
    page = person("tansy", "/lessons/inside")
    page.get_by_label("Your guess").fill("2")
    page.get_by_role("button", name="Look").click()
    expect(page.get_by_role("status").filter(has_text="It is 3, not 2.")).to_contain_text("1 × 3")
    page.get_by_role("button", name="Next fold").click()
    page.get_by_label("Your guess").fill("9")
    page.get_by_role("button", name="Look").click()
    expect(page.get_by_text("Yes, 9.")).to_be_visible()
    page.get_by_role("slider", name="How many turns").press("End")
    page.get_by_role("button", name="Show me").click()
    expect(page.get_by_text("6561", exact=False).first).to_be_visible()
    expect(page.get_by_text(re.compile("run together, like brioche"))).to_be_visible()
    page.get_by_label("Two methods side by side").check()
    second = page.get_by_role("region", name="Second method")
    page.get_by_role("slider", name="How many turns").press("Home")
    page.get_by_role("button", name="Next fold").click()
    page.get_by_role("button", name="Show me").first.click()
    second.get_by_role("button", name="Show me").click()
    expect(page.get_by_role("region", name="First method")).to_contain_text("3 butter layers")
    expect(second).to_contain_text("8 butter layers")
    page.get_by_role("button", name="The package at true size").first.click()
    line = page.locator("[data-check]")
    before = line.bounding_box()["width"]
    page.get_by_role("button", name="The line is too short").click()
    assert line.bounding_box()["width"] > before


def test_a_morning_of_four_doughs_is_tried_before_it_is_real(person):
    page = person("tansy", "/lessons")
    page.get_by_role("link", name="A morning of four doughs").click()
    expect(page.get_by_role("note")).to_contain_text("Practice")
    hour = page.get_by_label("Station kiosk turnovers is begun at")
    expect(hour).to_have_text("03:30", timeout=60_000)
    for _ in range(3):
        page.get_by_role("button", name="Begin Station kiosk turnovers earlier").click()
    expect(hour).to_have_text("03:15")
    came = page.get_by_role("region", name="What it comes to").first
    expect(came).to_contain_text("not reached")
    page.reload()
    expect(page.get_by_label("Station kiosk turnovers is begun at")).to_have_text(
        "03:15", timeout=60_000
    )
    page.get_by_role("button", name="How good is it?").click()
    costs = page.get_by_role("region", name="What each hour cost")
    expect(costs.get_by_role("listitem")).to_have_count(4, timeout=60_000)
    expect(page.get_by_role("region", name="The best morning")).to_be_visible()
    page.get_by_role("button", name="Again from the start").click()
    expect(page.get_by_label("Station kiosk turnovers is begun at")).to_have_text("03:30")
