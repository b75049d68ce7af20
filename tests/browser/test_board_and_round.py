"""The lane board under the hand, the fast slip, the technician's round, the season."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.conftest import BLANK, PHONE, OpenPage, as_person, pool_of, reported, set_up

pytestmark = pytest.mark.browser


class Keys:
    """A keyboard that counts its strokes."""

    def __init__(self, page: Page) -> None:
        self._page = page
        self.count = 0

    def press(self, key: str) -> None:
        self._page.keyboard.press(key)
        self.count += 1

    def type(self, text: str) -> None:
        for letter in text:
            self.press("Space" if letter == " " else letter)


class Thumb:
    """A thumb that counts its taps; every key of the phone's keyboard is one."""

    def __init__(self, page: Page) -> None:
        self._page = page
        self.count = 0

    def tap(self, target: Locator) -> None:
        target.click()
        self.count += 1

    def type(self, text: str) -> None:
        self._page.keyboard.type(text)
        self.count += len(text)

    def enter(self) -> None:
        self._page.keyboard.press("Enter")
        self.count += 1


def test_eight_measures_by_keyboard_in_at_most_45_strokes(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(pool_of(page, "Swan Street 27"))
    expect(page.get_by_role("table", name="Lane board")).to_be_visible()
    keys = Keys(page)
    keys.press("t")
    expect(page.get_by_label("Quick line, then Enter")).to_be_focused()
    keys.type("1.5 1.7 7.5 90 190 0 900 82")
    keys.press("Enter")
    expect(page.get_by_label("Salt", exact=True)).to_have_value("900")
    keys.press("Enter")
    expect(page.get_by_role("table", name="Lane board")).to_be_visible()
    assert keys.count <= 45
    row = page.get_by_role("row").filter(has=page.get_by_role("rowheader", name=re.compile("Free chlorine")))
    expect(row).to_contain_text("1.5")


def test_a_typo_on_the_quick_line_is_mended_in_one_tap(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Swan Street 27')}/test")
    line = page.get_by_label("Quick line, then Enter")
    line.fill("fc 1.5 stabb 40 ph 7.5")
    line.press("Enter")
    page.get_by_role("button", name="Use “stab”").click()
    expect(line).to_have_value("fc 1.5 stab 40 ph 7.5")


def test_same_as_last_fills_what_is_empty(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Weir Lane 4')}/test")
    calcium = page.get_by_label("Calcium", exact=True)
    expect(page.get_by_text(re.compile(r"^last \d")).first).to_be_visible()
    page.get_by_label("pH", exact=True).fill("7.4")
    page.get_by_role("button", name="Calcium: more").click()
    assert re.fullmatch(r"\d+", calcium.input_value())
    page.get_by_role("button", name="All the rest same as last").click()
    expect(page.get_by_label("pH", exact=True)).to_have_value("7.4")
    assert page.get_by_label("Free chlorine", exact=True).input_value() != ""


def test_the_slip_follows_the_order_of_ones_own_kit(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    path = pool_of(page, "Tannery Yard")
    page.goto(f"{path}/test")
    page.get_by_text("Note, time, photo").click()
    page.get_by_text("Order of your own kit").click()
    page.get_by_role("button", name="pH earlier").click()
    page.get_by_role("button", name="pH earlier").click()
    page.get_by_role("button", name="Leave out Salt").click()
    page.get_by_role("button", name="Keep this order").click()
    fields = page.locator("input[data-slip-field]")
    expect(fields.first).to_have_attribute("name", "ph")
    expect(page.locator("input[name=salt]")).to_have_count(0)
    line = page.get_by_label("Quick line, then Enter")
    line.fill("7.6 1.5")
    line.press("Enter")
    expect(page.get_by_label("pH", exact=True)).to_have_value("7.6")
    page.get_by_text("Order of your own kit").click()
    page.get_by_role("button", name="Back to the usual box").click()
    expect(fields.first).to_have_attribute("name", "free_chlorine")


def test_aiming_elsewhere_by_arrow_keys_buttons_and_pointer(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(pool_of(page, "Millrace Close"))
    handle = page.get_by_role("slider", name="Aim for pH")
    handle.focus()
    handle.press("ArrowLeft")
    card = page.get_by_role("region", name="What if")
    expect(card).to_contain_text(re.compile(r"What if you aim at pH \d"))
    # What a day's acid reaches may be the same for both aims: the aim itself is what moves.
    first = re.search(r"aim at pH [\d.]+", card.inner_text())
    assert first is not None
    page.get_by_role("button", name="Aim lower for pH").click()
    expect(card).not_to_contain_text(re.compile(re.escape(first[0]) + r"(?!\d)"))
    second = re.search(r"aim at pH [\d.]+", card.inner_text())
    assert second is not None
    box = handle.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 22, box["y"] + 22)
    page.mouse.down()
    page.mouse.move(box["x"] + 90, box["y"] + 22, steps=6)
    page.mouse.up()
    expect(card).not_to_contain_text(re.compile(re.escape(second[0]) + r"(?!\d)"))
    expect(card).to_contain_text("What if you aim at pH")
    page.get_by_role("button", name="Back to the usual aims").press("Enter")
    expect(card).to_have_count(0)


def test_a_technicians_stop_takes_at_most_25_taps(open_page: OpenPage) -> None:
    """Look, four readings, two doses ticked, on to the next stop."""
    page = open_page(BLANK, PHONE)
    as_person(page, "Tomas Lind")
    page.goto("/round")
    thumb = Thumb(page)
    thumb.tap(page.get_by_role("button", name="Start here").first)
    thumb.tap(page.get_by_role("button", name="Clear, level right"))
    thumb.tap(page.get_by_label("Free chlorine", exact=True))
    thumb.type("1")
    thumb.enter()
    thumb.type("1")
    thumb.enter()
    thumb.type("7.4")
    thumb.enter()
    thumb.type("70")
    thumb.tap(page.get_by_role("button", name="Save, on to the plan"))
    thumb.tap(page.get_by_role("button", name="Start the plan"))
    thumb.tap(page.get_by_role("button", name="Done", exact=True))
    poured = 0
    while poured < 2:
        button = page.get_by_role("button", name=re.compile("^(Poured all of it|Done)$"))
        expect(button).to_be_enabled()
        poured += button.inner_text() == "Poured all of it"
        step = page.get_by_role("region", name="Step now").get_by_role("heading").inner_text()
        thumb.tap(button)
        expect(page.get_by_role("region", name="Step now").get_by_role("heading")).not_to_have_text(step)
    thumb.tap(page.get_by_role("button", name=re.compile("^Next stop: Tannery Yard")))
    expect(page.get_by_role("region", name="Look", exact=True)).to_be_visible()
    expect(page.get_by_role("complementary", name="Round")).to_contain_text("Stop 2 of 4")
    assert thumb.count <= 25, thumb.count


def test_a_round_is_ordered_by_hand_and_a_stop_leaves_an_exception(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    as_person(page, "Oda Reyes")
    page.goto("/round")
    stops = page.get_by_role("listitem").filter(has=page.get_by_role("link", name=re.compile("Swan|Tannery")))
    expect(stops.first).to_contain_text("Swan Street 27")
    page.get_by_role("button", name="Swan Street 27 later").click()
    expect(stops.first).to_contain_text("Tannery Yard")
    page.get_by_role("button", name="Swan Street 27 earlier").click()
    expect(stops.first).to_contain_text("Swan Street 27")
    count = page.get_by_role("button", name=re.compile("^Count ")).first
    product = (count.get_attribute("aria-label") or "").removeprefix("Count ")
    count.click()
    amount = page.get_by_label(f"{product} on the truck now")
    amount.fill("0")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_text("On the truck: none; load", exact=False)).to_be_visible()
    page.get_by_role("button", name="Start here").first.click()
    bar = page.get_by_role("complementary", name="Round")
    bar.get_by_role("button", name="Note").click()
    page.get_by_label("For a licensed trade").fill("light flickers: electrician")
    bar.get_by_role("button", name=re.compile("^Next stop")).click()
    expect(page.get_by_role("complementary", name="Round")).to_contain_text("Stop 2 of")
    page.get_by_role("link", name="Round", exact=True).click()
    expect(page.get_by_text("Licensed trade: light flickers: electrician.")).to_be_visible()
    expect(page.get_by_text("2 stops, 1 to go.")).to_be_visible()


def test_a_no_swim_notice_says_why_and_that_a_test_opens(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Tannery Yard')}/notice")
    expect(page.get_by_role("heading", name="No swimming")).to_be_visible()
    expect(page.get_by_text("The pool opens after a test, not by the clock.", exact=False)).to_be_visible()
    page.emulate_media(media="print")
    expect(page.get_by_role("button", name="Print")).to_be_hidden()
    expect(page.get_by_text("Tannery Yard", exact=True)).to_be_visible()


def test_the_season_as_strip_and_table(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Millrace Close')}/season")
    expect(page.get_by_role("img", name=re.compile(r"The year: \d+ marks"))).to_be_visible()
    page.get_by_text("The same as a table").click()
    expect(page.get_by_role("cell", name=re.compile("Backwash, ")).first).to_be_visible()


@pytest.mark.parametrize(
    "view", ["/round", "{pool}", "{pool}/test", "{pool}/season", "{pool}/plan", "{pool}/care"]
)
@pytest.mark.parametrize("width", [640, 320])
def test_text_at_200_and_400_percent_scrolls_one_way_only(open_page: OpenPage, view: str, width: int) -> None:
    """WCAG 1.4.4 and 1.4.10 (quoted from memory): a window of 1280 at 200 and 400 % is one of 640 and 320."""
    page = open_page(BLANK, {"width": width, "height": 400})
    pool = pool_of(page, "Millrace Close")
    as_person(page, "Tomas Lind")
    page.goto(view.format(pool=pool))
    page.wait_for_load_state("networkidle")
    wide = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
    assert wide <= 0


def test_a_day_becomes_a_report_for_its_owner(open_page: OpenPage) -> None:
    """What was found, added and why, what is next; another day is one choice away; on paper only the
    report.
    """
    page = open_page(BLANK)
    path = set_up(page, "For its owner")
    fields = {"free_chlorine": "0.6", "ph": "7.5", "total_alkalinity": "90", "cyanuric_acid": "40"}
    reported(page, f"{path}/tests", {"fields": fields, "kit": "drops", "temperature_unit": "f"})
    reported(page, f"{path}/visits", {"note": "gate left open", "trade": "electrician"})
    page.goto(f"{path}/log")
    page.get_by_role("link", name="A day's report for the owner").click()
    report = page.get_by_role("article", name="Report for the owner")
    expect(report.get_by_role("heading", name="For its owner")).to_be_visible()
    expect(report.get_by_role("row", name=re.compile("free chlorine 0.6"))).to_contain_text("low")
    expect(report.get_by_role("region", name="Note")).to_contain_text("gate left open")
    expect(report.get_by_role("region", name="For a licensed trade")).to_contain_text("electrician")
    expect(report.get_by_role("region", name="May they swim now?")).to_be_visible()
    page.emulate_media(media="print")
    expect(page.get_by_role("button", name="Print")).to_be_hidden()
    expect(report).to_be_visible()


def test_a_report_on_a_phone_of_another_day(open_page: OpenPage) -> None:
    page = open_page(BLANK, PHONE)
    page.goto(f"{pool_of(page, 'Millrace Close')}/report")
    days = page.get_by_label("The day")
    first = days.input_value()
    days.select_option(index=1)
    expect(page.get_by_role("article", name="Report for the owner")).to_be_visible()
    expect(days).not_to_have_value(first)
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
