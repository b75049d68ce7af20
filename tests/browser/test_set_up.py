"""The guided set-up: few taps, few fields, and the way back."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import PHONE, OpenPage, serious_findings

pytestmark = pytest.mark.browser

MOST_TAPS, MOST_FIELDS = 10, 4
ON_THE_TEST = re.compile(r"/pools/[0-9a-f-]{36}/test$")


class Hand:
    """Counts what a hand does: taps on what is shown, and fields filled in."""

    def __init__(self, page: Page) -> None:
        self.page, self.taps, self.fields = page, 0, 0

    def tap(self, name: str | re.Pattern[str]) -> None:
        self.page.get_by_role("button", name=name).click()
        self.taps += 1

    def fill(self, label: str, text: str) -> None:
        self.page.get_by_label(label, exact=True).fill(text)
        self.fields += 1


def test_from_the_list_to_the_first_test_on_a_phone(open_page: OpenPage) -> None:
    page = open_page("/", PHONE)
    hand = Hand(page)
    page.get_by_role("link", name="Set up a pool").click()
    hand.taps += 1
    hand.tap(re.compile("In-ground vinyl, tablets then liquid"))
    for label, text in {
        "Length, ft": "32",
        "Width, ft": "16",
        "Shallow end, ft": "3",
        "Deep end, ft": "8",
    }.items():
        hand.fill(label, text)
    expect(page.get_by_test_id("volume")).to_have_text(re.compile(r"21.100 gal"))
    hand.tap("Next")
    expect(page.get_by_label("Name of the pool")).to_have_value(re.compile("pool", re.IGNORECASE))
    hand.tap("Next")
    expect(page.get_by_role("heading", name="What do you test with?")).to_be_visible()
    hand.tap("Set up, then test the water")
    expect(page).to_have_url(ON_THE_TEST)
    assert hand.taps <= MOST_TAPS
    assert hand.fields <= MOST_FIELDS
    page.goto(page.url.removesuffix("/test") + "/setup")
    expect(page.get_by_label("Vinyl", exact=True)).to_be_checked()
    expect(page.get_by_label("Tablets", exact=True)).to_be_checked()


def test_back_goes_to_the_question_before_and_nothing_is_lost(open_page: OpenPage) -> None:
    page = open_page("/pools/new")
    page.get_by_role("button", name=re.compile("Indoor pool")).click()
    page.get_by_text("The gallons I know").click()
    page.get_by_label(re.compile("^Volume, gallons")).fill("12,000")
    page.get_by_role("button", name="Next").click()
    page.get_by_label("Name of the pool").fill("Kept in mind")
    page.go_back()
    expect(page.get_by_label(re.compile("^Volume, gallons"))).to_have_value("12,000")
    page.reload()
    expect(page.get_by_label(re.compile("^Volume, gallons"))).to_have_value("12,000")
    page.get_by_role("button", name="Next").click()
    expect(page.get_by_label("Name of the pool")).to_have_value("Kept in mind")


def test_the_place_of_the_device_and_a_town_by_its_letters(open_page: OpenPage) -> None:
    page = open_page("/pools/new?at=place")
    page.context.grant_permissions(["geolocation"])
    page.context.set_geolocation({"latitude": 33.43, "longitude": -112.02})
    page.get_by_role("button", name="Use this device's place").click()
    expect(page.get_by_text("Sun and clock of Phoenix, AZ: America/Phoenix.")).to_be_visible()
    page.get_by_label("Nearest town").fill("boise")
    page.get_by_role("button", name="Boise, ID").click()
    expect(page.get_by_text("Sun and clock of Boise, ID: America/Boise.")).to_be_visible()


def test_a_bag_of_salt_tells_the_volume(open_page: OpenPage) -> None:
    page = open_page("/pools/new?at=size")
    page.get_by_text("A bag of salt").click()
    for label, text in {
        "Salt before, ppm": "400",
        "Salt added, lb": "80",
        "Salt a day after, ppm": "880",
    }.items():
        page.get_by_label(label).fill(text)
    page.get_by_role("button", name="Work out the volume").click()
    expect(page.get_by_text(re.compile(r"^20,000 gal\. Within 15 %"))).to_be_visible()
    expect(page.get_by_test_id("volume")).to_have_text("20,000 gal")


@pytest.mark.parametrize("at", ["kind", "size", "place", "kit"])
@pytest.mark.parametrize("mode", ["paper", "sun", "dusk"])
def test_each_question_in_each_light(open_page: OpenPage, at: str, mode: str) -> None:
    page = open_page(f"/pools/new?at={at}", PHONE)
    page.evaluate(f"localStorage.setItem('kumpan.mode', '{mode}')")
    page.reload()
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    assert serious_findings(page) == []
