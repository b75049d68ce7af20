"""Care in the browser: a backwash with one thumb, the due list, the benches, the calendar's link."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import BLANK, PHONE, OpenPage, pool_of

pytestmark = pytest.mark.browser


def test_a_backwash_from_start_to_journal_with_one_thumb(open_page: OpenPage) -> None:
    """At 390x844: every target is in the lower part or one scroll away, and at least 44 px."""
    page = open_page(BLANK, PHONE)
    pool = pool_of(page, "Swan Street 27")
    page.goto(f"{pool}/care")
    page.get_by_role("link", name="Backwash the sand filter").first.click()
    expect(page.get_by_text("Step 1 of 9")).to_be_visible()
    page.get_by_label("Pressure before, psi").fill("18")
    forward = page.get_by_role("button", name="Done, next")
    box = forward.bounding_box()
    assert box is not None
    assert box["height"] >= 44
    forward.click()
    forward.click()
    expect(page.get_by_text("Never move the handle with the pump on", exact=False)).to_be_visible()
    forward.click()
    page.get_by_role("button", name="Start", exact=True).click()
    expect(page.get_by_text("go on", exact=True)).to_be_visible()
    page.get_by_role("button", name="Stop", exact=True).click()
    page.get_by_label("Washed for, seconds").fill("120")
    forward.click()
    page.reload()  # what is typed stays on the device
    expect(page.get_by_text("Step 5 of 9")).to_be_visible()
    for _ in range(3):
        forward.click()
    page.get_by_label("Pressure after, psi").fill("11")
    forward.click()
    page.get_by_text("normal", exact=True).click()
    forward.click()
    page.get_by_label("Pressure after, psi").fill("eleven")
    page.get_by_role("button", name="Done, into the journal").click()
    expect(page.get_by_text('"eleven" cannot be read', exact=False)).to_be_visible()
    expect(page.get_by_label("Washed for, seconds")).to_have_value("120")
    page.get_by_label("Pressure after, psi").fill("11")
    page.get_by_role("button", name="Done, into the journal").click()
    expect(page.get_by_text("went to waste", exact=False)).to_be_visible()
    page.goto(f"{pool}/log")
    expect(page.get_by_text("Done: backwash the sand filter", exact=False).first).to_be_visible()


def test_due_on_today_done_and_undone(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(pool_of(page, "Weir Lane 4"))
    due = page.get_by_role("region", name="Due")
    first = due.get_by_role("listitem").first
    title = first.get_by_role("link").inner_text()
    done = due.get_by_role("button", name=re.compile("^Done: ")).first
    name = done.get_attribute("aria-label") or ""
    done.click()
    expect(due.get_by_role("button", name=name, exact=True)).to_have_count(0)
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(due.get_by_role("button", name=name, exact=True)).to_be_visible()
    assert title
    due.get_by_role("button", name="Clear, level right").click()
    expect(page.get_by_text("Looked: clear, level right.")).to_be_visible()


def test_put_off_with_its_why_and_the_rhythm(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Tannery Yard')}/care")
    page.get_by_role("button", name="More about: Vacuum").click()
    expect(page.get_by_text("Dirt feeds algae and uses up chlorine.")).to_be_visible()
    page.get_by_role("button", name="In a week").click()
    expect(page.get_by_text("Vacuum: put off.")).to_be_visible()
    page.get_by_role("button", name="More about: Brush").click()
    page.get_by_role("button", name="Not this time").click()
    page.get_by_label("Why not this time").fill("thunder")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_text("left out this time.", exact=False)).to_be_visible()


def test_benches_interview_and_plant(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Millrace Close')}/care/equipment")
    expect(page.get_by_text("What holds this pool")).to_be_visible()
    expect(page.get_by_role("heading", name="Controller and weather")).to_be_visible()
    page.get_by_role("button", name="The unit says: look at the cell").click()
    for answer in ("Inside it", "No", "Yes", "Yes"):
        page.get_by_role("button", name=answer, exact=True).click()
    expect(page.get_by_text("Scale on the plates")).to_be_visible()
    expect(page.get_by_text("makes chlorine gas", exact=False)).to_be_visible()
    page.get_by_role("button", name="Keep in the log").click()
    expect(page.get_by_role("button", name="Kept")).to_be_disabled()
    page.get_by_label("Pump flow, gpm").fill("fast")
    page.get_by_role("button", name="Keep from now on").click()
    expect(page.get_by_text('"fast" cannot be read', exact=False)).to_be_visible()
    page.get_by_label("Pump flow, gpm").fill("20")
    page.get_by_role("button", name="Keep from now on").click()
    expect(page.get_by_text("part of the water never sees the filter", exact=False)).to_be_visible()


def test_the_mixing_helper_stands_at_its_step(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Millrace Close')}/care/do/cell")
    for _ in range(6):
        page.get_by_role("button", name="Done, next").click()
    page.get_by_label("The container holds").fill("2 qt")
    expect(
        page.get_by_text(re.compile(r"First 53 fl oz of water, then 10\.7 fl oz of acid: 5\.9 %"))
    ).to_be_visible()
    page.get_by_label("Acid on its label, %").fill("3")
    expect(page.get_by_text("cannot make 5.9 %", exact=False)).to_be_visible()


def test_the_calendar_and_its_link(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Swan Street 27')}/care/calendar")
    expect(page.get_by_role("heading", name="Six weeks ahead")).to_be_visible()
    page.get_by_role("button", name="Make a calendar link").click()
    link = page.get_by_test_id("feed-link").inner_text()
    answer = page.request.get(link)
    assert answer.status == 200
    assert "BEGIN:VEVENT" in answer.text()
    page.get_by_role("button", name="Take back").first.click()
    expect(page.get_by_test_id("feed-link")).to_have_count(0)
    assert page.request.get(link).status == 404


def test_what_is_it_in_the_water(open_page: OpenPage) -> None:
    page = open_page(BLANK, PHONE)
    page.goto(f"{pool_of(page, 'Tannery Yard')}/test")
    page.get_by_role("button", name="Something odd").click()
    page.get_by_role("link", name="What is it in the water?").click()
    page.get_by_text("Yellow-brown dust", exact=True).click()
    answer = page.get_by_role("region", name="What it is")
    expect(answer).to_contain_text("Not clear yet")
    page.get_by_text("Shady walls and steps", exact=True).click()
    page.get_by_text("It comes off at a touch and is back next day", exact=True).click()
    page.get_by_text("It was here before, at the same spot", exact=True).click()
    expect(answer).to_contain_text("Mustard algae")
    expect(answer).to_contain_text("Quite sure.")
    page.get_by_role("button", name="Begin again").click()
    expect(answer).to_have_count(0)


def test_closing_and_opening_lists_for_this_pool(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Millrace Close')}/season")
    lists = page.get_by_role("region", name="A new opening or closing")
    lists.get_by_text("Closing", exact=True).click()
    expect(lists.get_by_text("Cell off in the cold")).to_be_visible()  # mild winters by the table of months
    lists.get_by_text("With frost", exact=True).click()
    expect(lists.get_by_text("Cell and flow switch out")).to_be_visible()
    expect(lists.get_by_text("Never power a cell without flow", exact=False).first).to_be_visible()
    lists.get_by_text("Mild", exact=True).click()
    expect(lists.get_by_text("Cell and flow switch out")).to_have_count(0)
    expect(lists.get_by_text("Cell off in the cold")).to_be_visible()
    lists.get_by_text("Opening", exact=True).click()
    expect(lists.get_by_text("Safety round")).to_be_visible()
