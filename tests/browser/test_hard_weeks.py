"""The hard weeks in the browser: a green pool rescued, an opening and a closing kept, a practice pool
played.
"""

import re
from datetime import UTC, datetime, timedelta

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.conftest import BLANK, PHONE, OpenPage, reported, serious_findings, set_up
from tests.browser.test_journeys import set_up_by_hand

pytestmark = pytest.mark.browser


def green_pool(page: Page, name: str) -> str:
    """A pool of its own, tested and seen green."""
    path = set_up(page, name)
    reported(page, f"{path}/looks", {"clarity": "green", "level": "normal"})
    fields = {
        "free_chlorine": "0.2",
        "total_chlorine": "0.8",
        "ph": "7.4",
        "total_alkalinity": "100",
        "calcium_hardness": "260",
        "cyanuric_acid": "45",
        "temperature_c": "79",
    }
    reported(page, f"{path}/tests", {"fields": fields, "kit": "drops", "temperature_unit": "f"})
    return path


def test_a_green_pool_from_the_look_to_the_first_round(open_page: OpenPage) -> None:
    page = open_page("/pools/new/all")
    path = set_up_by_hand(page, "Turned")
    page.get_by_role("button", name="Something odd").click()
    page.get_by_text("Green", exact=True).click()
    line = page.get_by_label("Quick line, then Enter")
    line.fill("fc 0.2 tc 0.8 ph 7.4 ta 100 ch 260 cya 45 79f")
    line.press("Enter")
    expect(page.get_by_label("Alkalinity", exact=True)).to_have_value("100")
    page.get_by_role("button", name="Save the test").click()
    page.get_by_role("link", name="plan the rescue").click()
    expect(page.get_by_role("heading", name="How bad is it?")).to_be_visible()
    expect(page.get_by_text("by the last look")).to_be_visible()
    green = page.get_by_role("region", name="When it will be clear").get_by_role("heading").inner_text()
    page.get_by_text("Swamp", exact=True).click()
    expect(page.get_by_role("region", name="When it will be clear").get_by_role("heading")).not_to_have_text(
        green
    )
    page.get_by_text("Green, the floor just seen", exact=False).click()
    page.get_by_role("button", name="Begin the rescue").click()
    expect(page.get_by_role("heading", name="Now: prepare")).to_be_visible()
    expect(page.get_by_test_id("swim")).to_contain_text("No")
    page.get_by_role("button", name="Open this plan").click()
    expect(page.get_by_text("Close the pool: nobody in", exact=False).first).to_be_visible()
    page.get_by_role("button", name="Start the plan").click()
    now = page.get_by_role("region", name="Step now")
    for step in (
        "Close the pool",
        "Leaves and debris out",
        "middle of the skimmer",
        "pump day and night",
        "Robot cleaner out",
        "Backwash",
    ):
        expect(now.get_by_role("heading", name=re.compile(step))).to_be_visible()
        now.get_by_role("button", name="Done").click()
    expect(now).to_have_count(0)
    expect(page.get_by_text(re.compile("Round 1: free chlorine")).first).to_be_visible()
    page.goto(f"{path}/rescue")
    expect(page.get_by_role("heading", name="Now: the next round")).to_be_visible()
    expect(page.get_by_text(re.compile("of Liquid chlorine")).first).to_be_visible()
    assert serious_findings(page) == []


def tab_to(page: Page, target: Locator, most: int = 4) -> None:
    """By the Tab key alone, in a few presses."""
    for _ in range(most):
        page.keyboard.press("Tab")
        if target.evaluate("element => element === document.activeElement"):
            return
    raise AssertionError(f"{target} is not reached within {most} presses of Tab")


def test_a_sheet_is_worked_by_keyboard_alone(open_page: OpenPage) -> None:
    """Each tick leads on to the next step, where the reader's voice and the Tab key go on."""
    page = open_page(BLANK)
    path = green_pool(page, "By keys")
    page.goto(f"{path}/rescue")
    page.get_by_role("button", name="Begin the rescue").press("Enter")
    page.get_by_role("button", name="Open this plan").press("Enter")
    page.get_by_role("button", name="Start the plan").press("Enter")
    now = page.get_by_role("region", name="Step now")
    for step in ("Close the pool", "Leaves and debris out", "middle of the skimmer"):
        expect(now.get_by_role("heading", name=re.compile(step))).to_be_focused()
        done = now.get_by_role("button", name="Done")
        expect(done).to_be_enabled()
        tab_to(page, done)
        page.keyboard.press("Enter")
    expect(now.get_by_role("heading", name=re.compile("pump day and night"))).to_be_focused()


def test_a_gauge_that_cannot_be_read_is_told_beside_its_field(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    path = green_pool(page, "By the gauge")
    page.goto(f"{path}/rescue")
    page.get_by_role("button", name="Begin the rescue").click()
    gauge = page.get_by_label("Filter gauge, psi")
    gauge.fill("twelve")
    gauge.press("Enter")
    expect(gauge).to_have_accessible_error_message(re.compile('"twelve" cannot be read.*18 psi'))
    expect(gauge).to_have_value("twelve")
    gauge.fill("12")
    gauge.press("Enter")
    expect(page.get_by_text("Pressure noted.")).to_be_visible()
    expect(gauge).to_have_value("")


def test_begun_by_mistake_it_is_taken_back(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    path = green_pool(page, "Not yet")
    page.goto(f"{path}/rescue?severity=black")
    page.get_by_role("button", name="Begin the rescue").click()
    expect(page.get_by_role("heading", name="Now: prepare")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", name="How bad is it?")).to_be_visible()


def test_the_board_on_a_phone_and_the_limits_that_are_ones_own(open_page: OpenPage) -> None:
    page = open_page(BLANK, PHONE)
    path = green_pool(page, "By the phone")
    page.goto(f"{path}/rescue")
    page.get_by_role("button", name="Begin the rescue").click()
    expect(page.get_by_role("heading", name="Now: prepare")).to_be_visible()
    page.get_by_role("button", name="Open this plan").click()
    page.get_by_role("button", name="Start the plan").click()  # at the foot of a long page
    step = page.get_by_role("region", name="Step now").get_by_role(
        "heading", name="Close the pool", exact=False
    )
    expect(step).to_be_in_viewport()
    page.goto(f"{path}/rescue")
    expect(page.get_by_role("heading", name="A plan is under way")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    limits = page.get_by_role("region", name="Treat or drain")
    limits.get_by_label("Stabilizer, ppm").fill("many")
    limits.get_by_role("button", name="Set these limits").click()
    expect(page.get_by_text('"many"').first).to_be_visible()  # the server's sentence; what was typed stays
    expect(limits.get_by_label("Stabilizer, ppm")).to_have_value("many")
    limits.get_by_label("Stabilizer, ppm").fill("80")
    limits.get_by_role("button", name="Set these limits").click()
    expect(page.get_by_text("The limits are set.")).to_be_visible()
    page.reload()
    expect(page.get_by_role("region", name="Treat or drain").get_by_label("Stabilizer, ppm")).to_have_value(
        "80"
    )
    page.get_by_role("button", name="Stop it").click()
    expect(page.get_by_role("heading", name="How bad is it?")).to_be_visible()


def test_a_closing_is_kept_changed_ticked_and_comes_up_on_the_due_list(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    path = set_up(page, "Winter")
    page.goto(f"{path}/season")
    plan = page.get_by_role("region", name="A new opening or closing")
    plan.get_by_text("Closing", exact=True).click()
    expect(plan.get_by_label("On the day")).not_to_have_value("")  # by the day the water turns
    plan.get_by_label("On the day").fill((datetime.now(tz=UTC).date() + timedelta(days=2)).isoformat())
    expect(plan.get_by_text("No test yet", exact=False)).to_be_visible()
    plan.get_by_role("button", name="Keep this list").click()
    saved = page.get_by_role("region", name=re.compile("^Closing on"))
    expect(saved.get_by_text(re.compile("^0 of .* done"))).to_be_visible()
    saved.get_by_role("button", name="Done: Test everything").click()
    expect(saved.get_by_text(re.compile("^1 of .* done"))).to_be_visible()
    plugs = saved.get_by_role("checkbox", name="winter plugs")
    plugs.click(force=True)
    expect(saved.get_by_text(re.compile("at hand: 1 of"))).to_be_visible()
    expect(plugs).to_be_checked()
    plugs.click(force=True)
    expect(saved.get_by_text(re.compile("at hand: 0 of"))).to_be_visible()
    saved.get_by_role("button", name="Change the list").click()
    saved.get_by_role("button", name="Take off the list: Chemicals stored").click()
    expect(saved.get_by_text("Chemicals stored")).to_have_count(0)
    saved.get_by_label("An item of your own").fill("Lamp out")
    saved.get_by_role("button", name="Add it").click()
    expect(saved.get_by_text("Lamp out")).to_be_visible()
    saved.get_by_role("button", name="Finish changing").click()
    saved.get_by_role("button", name="Done: Lamp out").click()
    expect(saved.get_by_text(re.compile("^2 of .* done"))).to_be_visible()
    saved.get_by_role("button", name="Take the tick back: Lamp out").click()
    expect(saved.get_by_text(re.compile("^1 of .* done"))).to_be_visible()
    page.reload()
    expect(
        page.get_by_role("region", name=re.compile("^Closing on")).get_by_text(re.compile("^1 of .* done"))
    ).to_be_visible()
    assert serious_findings(page) == []
    page.goto(f"{path}/care")
    expect(page.get_by_text("Closing: what stands on the shelf")).to_be_visible()


def test_a_list_prints_alone(open_page: OpenPage) -> None:
    """Print leaves out the year, the choosers and every button; the safety words stay."""
    page = open_page(BLANK)
    path = set_up(page, "On paper")
    page.goto(f"{path}/season")
    plan = page.get_by_role("region", name="A new opening or closing")
    plan.get_by_text("Opening", exact=True).click()
    plan.get_by_role("button", name="Keep this list").click()
    saved = page.get_by_role("region", name=re.compile("^Opening on"))
    # The browser's own dialog cannot open here: keep what the page looks like while it would.
    page.evaluate("window.print = () => { window.printed = document.body.dataset.print; }")
    saved.get_by_role("button", name="Print").click()
    assert page.evaluate("window.printed") == "list"
    page.evaluate("document.body.dataset.print = 'list'")
    page.emulate_media(media="print")
    expect(page.get_by_role("heading", name="The year")).to_be_hidden()
    expect(page.get_by_role("heading", name="Plan an opening or a closing")).to_be_hidden()
    expect(saved.get_by_role("button", name="Print")).to_be_hidden()
    expect(saved.get_by_text("Gate closes and latches", exact=False)).to_be_visible()


def test_the_table_of_months_is_ones_own(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    path = set_up(page, "Months")
    page.goto(f"{path}/season")
    card = page.get_by_role("region", name="When to open and close")
    card.get_by_role("button", name="The table of months").click()
    card.get_by_label("Apr, the middle").fill("hot")
    card.get_by_role("button", name="Keep this table").click()
    expect(page.get_by_text('"hot" cannot be read', exact=False)).to_be_visible()
    expect(card.get_by_label("Apr, the middle")).to_have_value("hot")
    card.get_by_label("Apr, the middle").fill("70")
    card.get_by_role("button", name="Keep this table").click()
    expect(card.get_by_text("as you set it")).to_be_visible()


def test_a_practice_pool_is_played_reloaded_taken_back_and_reviewed(open_page: OpenPage) -> None:
    page = open_page("/")
    page.get_by_role("link", name="Practice", exact=True).click()
    page.get_by_role("button", name="Begin: Cloudy after a party").click()
    page.get_by_role("button", name="Everything").click()
    story = page.get_by_role("region", name="What was done")
    expect(story.get_by_text("Tested everything")).to_be_visible()
    reading = story.get_by_text(re.compile("^free chlorine")).inner_text()
    page.get_by_label("How much").fill("a lot")
    page.get_by_role("button", name="Pour it").click()
    much = page.get_by_label("How much")
    expect(much).to_have_accessible_error_message(re.compile('"a lot" cannot be read'))
    expect(much).to_have_value("a lot")
    expect(story.get_by_text("Tested everything")).to_be_visible()  # the game stays as it was
    much.fill("1 jug")
    much.press("Enter")
    expect(story.get_by_text("Added 2½ gal of Liquid chlorine")).to_be_visible()
    page.get_by_role("button", name="To morning").click()
    expect(page.get_by_test_id("game-time")).to_contain_text("Day 2, 7:00 AM")
    page.reload()
    expect(page.get_by_test_id("game-time")).to_contain_text("Day 2, 7:00 AM")
    expect(story.get_by_text(reading)).to_be_visible()  # the kit says the same again
    page.get_by_role("button", name="Take the last move back").click()
    expect(page.get_by_test_id("game-time")).to_contain_text("Day 1, 9:00 AM")
    page.get_by_role("button", name="Finish and compare").click()
    review = page.get_by_role("region", name="The review")
    expect(review.get_by_text("The plan, same pool")).to_be_visible()
    expect(review.get_by_role("heading", name="What made the difference")).to_be_visible()
    assert serious_findings(page) == []
    page.get_by_role("button", name="Another pool").click()
    expect(page.get_by_role("button", name="Begin: The scaling cell")).to_be_visible()


def test_practice_fits_a_phone(open_page: OpenPage) -> None:
    page = open_page("/practice", PHONE)
    page.get_by_role("button", name="Begin: The scaling cell").click()
    page.get_by_role("button", name="Cell to 30 %").click()
    expect(page.get_by_text("Set the cell to 30 %")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    box = page.get_by_role("button", name="To evening").bounding_box()
    assert box is not None
    assert box["height"] >= 44
