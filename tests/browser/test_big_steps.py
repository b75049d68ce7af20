"""The plan for wet hands: one step fills the phone."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import BLANK, PHONE, OpenPage, reported, serious_findings, set_up

pytestmark = pytest.mark.browser

WATER = {
    "free_chlorine": "0.8",
    "total_chlorine": "1",
    "ph": "7.9",
    "total_alkalinity": "60",
    "cyanuric_acid": "40",
}


def started(page: Page, name: str) -> str:
    path = set_up(page, name)
    reported(page, f"{path}/tests", {"fields": WATER, "kit": "drops"})
    page.goto(f"{path}/plan")
    page.get_by_role("button", name="Start the plan").click()
    expect(page.get_by_role("region", name="Step now")).to_be_visible()
    return path


def test_one_step_fills_the_screen_and_only_its_button_writes(open_page: OpenPage) -> None:
    page = open_page(BLANK, PHONE)
    path = started(page, "Wet hands")
    page.get_by_role("button", name="Big steps, for wet hands").click()
    big = page.get_by_role("dialog", name="Big steps")
    title = big.get_by_role("heading", level=2)
    first = title.inner_text()
    pour = big.get_by_role("button", name=re.compile("Poured all of it|Done"))
    box = pour.bounding_box()
    assert box is not None
    assert box["height"] >= 100
    assert box["width"] >= 340
    assert box["y"] > PHONE["height"] / 2  # under the thumb
    assert serious_findings(page) == []
    # A swipe looks at the next step and back.
    page.mouse.move(320, 300)
    page.mouse.down()
    page.mouse.move(80, 305, steps=4)
    page.mouse.up()
    expect(title).not_to_have_text(first)
    expect(pour).to_be_hidden()
    big.get_by_role("button", name="To the step at hand").click()
    expect(title).to_have_text(first)
    pour.click()
    expect(title).not_to_have_text(first)
    page.keyboard.press("Escape")
    expect(big).to_be_hidden()
    expect(page).to_have_url(re.compile(f"{path}/plan$"))
    expect(page.get_by_role("button", name="Undo").first).to_be_visible()


def test_opened_by_its_address_it_closes_to_the_plan(open_page: OpenPage) -> None:
    page = open_page(BLANK, PHONE)
    path = started(page, "Deep link")
    page.goto(f"{path}/plan?big=1")
    page.get_by_role("dialog", name="Big steps").get_by_role("button", name="Close").click()
    expect(page.get_by_role("region", name="Step now")).to_be_visible()
    assert page.url.endswith(f"{path}/plan")
