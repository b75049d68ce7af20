"""Three journeys in the real browser: set up a pool; test to ticked sheet to log; doubtful and bad values."""

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.conftest import (
    BLANK,
    PHONE,
    OpenPage,
    pool_of,
    reported,
    serious_findings,
    set_up,
    until,
)

pytestmark = pytest.mark.browser


def set_up_by_hand(page: Page, name: str) -> str:
    """Set up a pool of 32 by 16 ft, 3 to 8 ft deep, through its form; returns its path."""
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_label("Length, ft").fill("32")
    page.get_by_label("Width, ft").fill("16")
    page.get_by_label("Shallow end, ft").fill("3")
    page.get_by_label("Deep end, ft").fill("8")
    expect(page.get_by_test_id("volume")).to_have_text(re.compile(r"21.100 gal"))
    page.get_by_role("button", name="Set up this pool").click()
    expect(page.get_by_role("region", name="Look", exact=True)).to_be_visible()
    found = re.search(r"/pools/[0-9a-f-]{36}", page.url)
    assert found is not None
    return found[0]


def test_set_up_a_pool_and_see_its_plan(open_page: OpenPage) -> None:
    page = open_page("/pools/new/all")
    page.get_by_text("Bromine", exact=True).click()
    expect(page.get_by_text("Bromine pools are out of scope")).to_be_visible()
    expect(page.get_by_role("button", name="Set up this pool")).to_be_disabled()
    page.get_by_text("Liquid chlorine", exact=True).click()
    path = set_up_by_hand(page, "Łódka 🐟")
    expect(page.get_by_role("img", name=re.compile("Plan of the pool, 32 ft by 16 ft"))).to_be_visible()
    page.goto(path)
    expect(page.get_by_text("This pool is not tested yet.")).to_be_visible()
    expect(page.get_by_text("Łódka 🐟")).to_be_visible()


def test_what_was_typed_survives_a_reload(open_page: OpenPage) -> None:
    page = open_page("/pools/new/all")
    page.get_by_label("Name", exact=True).fill("Half typed")
    page.get_by_label("Length, ft").fill("20 furlongs")
    page.reload()
    expect(page.get_by_label("Name", exact=True)).to_have_value("Half typed")
    expect(page.get_by_label("Length, ft")).to_have_value("20 furlongs")


def to_ticked_sheet(page: Page, record_step: Callable[[Page], None]) -> None:
    page.get_by_role("button", name="Start the plan").click()
    expect(page.get_by_role("region", name="Step now")).to_be_visible()
    record_step(page)


def test_from_test_to_ticked_sheet_to_log(open_page: OpenPage) -> None:
    page = open_page("/pools/new/all")
    path = set_up_by_hand(page, "Journey")
    page.get_by_role("button", name="Clear, level right").click()
    line = page.get_by_label("Quick line, then Enter")
    line.fill("fc 1 tc 1.2 ph 7,5 ta 100 ch 260 cya 40 82f")
    line.press("Enter")
    expect(page.get_by_label("Alkalinity", exact=True)).to_have_value("100")
    page.get_by_role("button", name="Save the test").click()
    expect(page.get_by_text("low: germs and algae can grow").last).to_be_visible()
    expect(page.get_by_test_id("swim")).to_have_text("Yes.")
    expect(page.get_by_test_id("swim-reasons")).to_contain_text("Free chlorine is under 2: dose today.")

    page.get_by_role("link", name="Plan", exact=True).click()
    page.get_by_role("button", name="Start the plan").click()
    page.get_by_role("button", name="Done").click()
    now = page.get_by_role("region", name="Step now")
    expect(now.get_by_text("Goggles and gloves on")).to_be_visible()
    expect(now.get_by_role("link", name="If it goes wrong")).to_be_visible()
    page.get_by_role("button", name="Other amount").click()
    page.get_by_label("How much really went in").fill("44 oz")
    page.get_by_role("button", name="Note this amount").click()
    expect(page.get_by_role("alert")).to_contain_text('write "fl oz"')
    page.get_by_label("How much really went in").fill("44 fl oz")
    page.get_by_role("button", name="Note this amount").click()
    expect(page.get_by_text("44 fl oz")).to_be_visible()
    expect(page.get_by_test_id("swim")).to_contain_text("Not before")
    page.reload()
    expect(page.get_by_text("44 fl oz")).to_be_visible()

    page.goto(f"{path}/log")
    expect(page.get_by_text("Added Liquid chlorine 10 %")).to_be_visible()
    page.get_by_role("button", name="Take back: Added Liquid chlorine 10 %").click()
    expect(page.get_by_text("taken back", exact=False).first).to_be_visible()


def test_doubtful_and_bad_values(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    set_up(page, "Doubts")
    page.get_by_label("Free chlorine", exact=True).fill("3")
    page.get_by_label("Total chlorine", exact=True).fill("2")
    expect(page.get_by_text("is under free chlorine")).to_be_visible()
    page.get_by_label("pH", exact=True).fill("78")
    expect(page.get_by_text('"78" is outside 0 to 14')).to_be_visible()
    page.get_by_role("button", name="Save the test").click()
    expect(page.get_by_label("pH", exact=True)).to_have_value("78")
    page.get_by_label("pH", exact=True).fill("7.8")
    page.get_by_role("button", name="Save the test").click()
    expect(page.get_by_role("table", name="Lane board")).to_be_visible()


def test_a_quick_line_that_was_not_entered_is_not_lost(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    set_up(page, "Hasty")
    line = page.get_by_label("Quick line, then Enter")
    line.fill("fc 2.5 ph 7.5")
    page.get_by_role("button", name="Save the test").click()
    expect(page.get_by_text("The quick line is not in the fields yet", exact=False)).to_be_visible()
    expect(line).to_have_value("fc 2.5 ph 7.5")
    line.press("Enter")
    page.get_by_role("button", name="Save the test").click()
    expect(page.get_by_role("table", name="Lane board")).to_be_visible()


def test_every_number_has_its_why(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    path = pool_of(page, "Millrace Close")
    page.goto(path)
    page.get_by_role("button", name=re.compile("Why: Free chlorine")).click()
    drawer = page.get_by_role("dialog", name=re.compile("Why: Free chlorine"))
    expect(drawer.get_by_text("active chlorine (hypochlorous acid)")).to_be_visible()
    expect(drawer.get_by_text("Morris 1966", exact=False)).to_be_visible()
    assert serious_findings(page) == []
    page.keyboard.press("Escape")
    expect(drawer).to_have_count(0)
    page.goto("/")
    page.goto(f"{pool_of(page, 'Tannery Yard')}/plan")
    page.get_by_role("button", name=re.compile("Why: Liquid chlorine")).first.click()
    expect(page.get_by_text("exact amount")).to_be_visible()


def test_by_keyboard_only(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    path = pool_of(page, "Millrace Close")
    page.goto(path)
    expect(page.get_by_role("table", name="Lane board")).to_be_visible()
    page.keyboard.press("t")
    line = page.get_by_label("Quick line, then Enter")
    expect(line).to_be_visible()
    expect(line).to_be_focused()
    page.keyboard.type("2.6 2.8 7.6 70 280 65 3100 82")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Salt", exact=True)).to_have_value("3100")
    expect(page.get_by_role("button", name="Save the test")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("table", name="Lane board")).to_be_visible()
    expect(page.get_by_test_id("swim")).to_have_text("Yes.")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keyboard shortcuts")).to_be_visible()


def test_on_a_phone(open_page: OpenPage) -> None:
    page = open_page(BLANK, PHONE)
    path = set_up(page, "On a phone")  # its own pool: no other test has started a sheet there
    line = page.get_by_label("Quick line, then Enter")
    line.fill("fc 1 ph 7.5 ta 100 ch 260 cya 40 82f")
    line.press("Enter")
    expect(page.get_by_label("Alkalinity", exact=True)).to_have_value("100")
    page.get_by_role("button", name="Save the test").click()
    expect(page.get_by_role("table", name="Lane board")).to_be_visible()
    expect(page.get_by_test_id("swim")).to_be_in_viewport()  # a new page begins at its top
    page.goto(f"{path}/plan")
    to_ticked_sheet(page, lambda on: on.get_by_role("button", name="Done").click())
    expect(page.get_by_role("button", name="Undo").first).to_be_visible()
    wide = page.evaluate("document.documentElement.scrollWidth > document.documentElement.clientWidth")
    assert wide is False
    page.goto(path)
    board, due = page.get_by_role("table", name="Lane board"), page.get_by_role("region", name="Due")
    expect(board).to_be_visible()
    card, above = board.bounding_box(), due.bounding_box()
    assert card is not None
    assert above is not None
    assert card["width"] > 340  # the board takes the phone's whole width,
    assert card["y"] < above["y"]  # over what is due


def test_what_is_ahead_and_the_history_as_chart_and_table(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    path = pool_of(page, "Weir Lane 4")
    page.goto(path)
    ahead = page.get_by_role("region", name="Ahead")
    expect(ahead.get_by_role("listitem")).to_have_count(7)
    expect(ahead.get_by_text("This pool loses about")).to_be_visible()
    ahead.get_by_role("link", name="history").click()
    history = page.get_by_role("region", name="History", exact=True)
    expect(history.get_by_role("img", name=re.compile("free chlorine over time"))).to_be_visible()
    history.get_by_label("Measure").select_option("cyanuric_acid")
    expect(history.get_by_role("img", name=re.compile("stabilizer over time"))).to_be_visible()
    history.get_by_text("All", exact=True).click()
    history.get_by_text("Table", exact=True).click()
    expect(history.get_by_role("columnheader", name="Stabilizer")).to_be_visible()
    expect(history.get_by_role("cell", name=re.compile("Trichlor tablets")).first).to_be_visible()
    assert serious_findings(page) == []


def test_charts_are_not_on_the_first_load(open_page: OpenPage) -> None:
    page = open_page("/")
    page.wait_for_load_state("networkidle")
    names = "performance.getEntriesByType('resource').map(entry => entry.name).join(' ')"
    assert "HistoryChart" not in page.evaluate(names)


def test_a_shock_and_a_second_opinion(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Orchard Row 11')}/plan")
    page.get_by_label("Plan", exact=True).select_option("shock")
    page.get_by_text("To 10", exact=True).click()
    expect(page.get_by_text("10 is not a shock here", exact=False)).to_be_visible()
    expect(page.get_by_text("Put up a no-swim notice")).to_be_visible()
    page.get_by_text("40 % of stabilizer", exact=True).click()
    expect(page.get_by_text("replace water first", exact=False)).to_be_visible()
    opinion = page.get_by_role("region", name="Second opinion")
    opinion.get_by_role("button", name="Compare").click()
    expect(opinion.get_by_text("Type what was advised", exact=False)).to_be_visible()
    opinion.get_by_label("What was advised").fill("salt 20 kg, magic 1 lb")
    opinion.get_by_role("button", name="Compare").click()
    expect(opinion.get_by_text('"magic" is not known here', exact=False)).to_be_visible()
    expect(opinion.get_by_text("44 lb 1.5 oz of Pool salt", exact=False)).to_be_visible()
    expect(opinion.get_by_label("What was advised")).to_have_value("salt 20 kg, magic 1 lb")
    assert serious_findings(page) == []


def test_two_people_tick_the_same_step(open_page: OpenPage) -> None:
    """The second is asked: the same pour, or another? Both answers."""
    page = open_page(BLANK)
    path = set_up(page, "Two people")
    line = page.get_by_label("Quick line, then Enter")
    line.fill("fc 1 ph 7.5 ta 100 ch 260 cya 40 82f")
    line.press("Enter")
    expect(page.get_by_label("Alkalinity", exact=True)).to_have_value("100")
    page.get_by_role("button", name="Save the test").click()
    expect(page.get_by_role("table", name="Lane board")).to_be_visible()
    page.goto(f"{path}/plan")
    page.get_by_role("button", name="Start the plan").click()
    page.get_by_role("button", name="Done").click()
    expect(page.get_by_role("button", name="Poured all of it")).to_be_visible()
    other = page.context.new_page()
    other.goto(f"{path}/plan")
    expect(other.get_by_role("button", name="Poured all of it")).to_be_visible()
    page.get_by_role("button", name="Poured all of it").click()
    expect(page.get_by_text("Noted: Liquid chlorine", exact=False)).to_be_visible()
    other.get_by_role("button", name="Poured all of it").click()
    expect(other.get_by_text("Is yours the same pour, or another", exact=False)).to_be_visible()
    other.get_by_role("button", name="Another pour").click()
    expect(other.get_by_text("Noted as another pour", exact=False)).to_be_visible()
    other.goto(f"{path}/log")
    expect(other.get_by_text("Added Liquid chlorine 10 %")).to_have_count(2)
    other.goto(f"{path}/plan")
    other.get_by_role("button", name="Put the rest away and reckon again").click()
    expect(other.get_by_text("Nothing to add now.")).to_be_visible()
    other.close()


def test_telling_what_happened_and_a_wrong_value(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Orchard Row 11')}/log")
    page.get_by_role("button", name="Add to the log").click()
    page.get_by_text("Water changed", exact=True).click()
    amount = page.get_by_label("How much water, gallons unless you write the unit")
    amount.fill("a lot")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text('"a lot" cannot be read')).to_be_visible()
    expect(amount).to_have_attribute("aria-invalid", "true")
    expect(amount).to_have_value("a lot")
    amount.fill("1 m3")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("264 gal").first).to_be_visible()


def test_the_emergency_page_needs_no_server(open_page: OpenPage) -> None:
    page = open_page("/", worker=True)
    page.wait_for_load_state("networkidle")
    until(page, "navigator.serviceWorker.getRegistration().then(one => Boolean(one?.active))")
    page.reload()
    page.wait_for_load_state("networkidle")
    page.context.set_offline(True)
    page.goto("/emergency")
    expect(page.get_by_role("heading", name="Sharp smell, cough, gas")).to_be_visible()


def test_a_dead_server_loses_nothing_and_doubles_nothing(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    path = pool_of(page, "Millrace Close")
    page.goto(f"{path}/test")
    page.get_by_text("Note, time, photo").click()
    page.get_by_label("Note").fill("typed before it died")
    page.context.set_offline(True)
    page.get_by_label("pH", exact=True).fill("7.5")
    page.get_by_role("button", name="Save the test").click()
    expect(page.get_by_text("One entry is not sent yet", exact=False)).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text("not sent yet", exact=False)).to_have_count(0)
    page.goto(f"{path}/log")
    expect(page.get_by_text("typed before it died", exact=False)).to_have_count(1)


def test_a_tick_without_a_server_is_sent_later(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    path = set_up(page, "Dead spot")
    page.get_by_label("Quick line, then Enter").fill("fc 1 ph 7.5 ta 100 cya 40")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Save the test").click()
    page.goto(f"{path}/plan")
    page.get_by_role("button", name="Start the plan").click()
    step = page.get_by_role("region", name="Step now")
    expect(step.get_by_role("heading")).to_contain_text("Pump on")
    page.context.set_offline(True)
    step.get_by_role("button", name="Done").click()
    expect(step.get_by_role("heading")).to_contain_text("Liquid chlorine")
    expect(page.get_by_text("not sent yet", exact=False)).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text("not sent yet", exact=False)).to_have_count(0)
    page.reload()
    expect(step.get_by_role("heading")).to_contain_text("Liquid chlorine")


def test_the_ways_side_by_side_and_taking_one(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Tannery Yard')}/plan")
    strategies = page.get_by_role("region", name="Other ways")
    strategies.get_by_role("button", name="Compare the ways").click()
    table = strategies.get_by_role("table", name="The ways side by side")
    expect(table.get_by_text("Stabilizer in 4 weeks")).to_be_visible()
    expect(table.get_by_text("In the plan")).to_have_count(1)
    expect(page.get_by_role("listitem").filter(has_text="Liquid chlorine").first).to_be_visible()
    with_another = table.get_by_role(
        "button", name=re.compile("Take this way: With (?!Liquid|Trichlor)")
    ).first
    product = (with_another.get_attribute("aria-label") or "").removeprefix("Take this way: With ")
    with_another.click()
    expect(table.get_by_text("In the plan")).to_have_count(1)
    expect(page.locator("li[data-step]").filter(has_text=product).first).to_be_visible()
    assert serious_findings(page) == []


def test_a_sheet_prints_on_one_page(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    page.goto(f"{pool_of(page, 'Tannery Yard')}/plan")
    expect(page.get_by_role("button", name="Start the plan")).to_be_visible()
    pages = len(re.findall(rb"/Type\s*/Page\b(?!s)", page.pdf(format="Letter")))
    assert pages == 1


def test_the_shelf_with_prices_and_measures(open_page: OpenPage) -> None:
    page = open_page("/shelf")
    bought = (
        page.get_by_role("region", name="On the shelf").get_by_role("listitem").filter(has_text="Soda ash")
    )
    expect(bought).to_contain_text("$14.00 each")
    bought.get_by_text("Bought or moved").click()
    bought.get_by_label("Packages bought of Soda ash").fill("2")
    bought.get_by_label("Paid for Soda ash").fill("30")
    bought.get_by_role("button", name="Note it").click()
    expect(bought).to_contain_text("$15.00 each")
    measures = page.get_by_role("region", name="What you measure with")
    measures.get_by_role("button", name="Add a measure").click()
    measures.get_by_label("You call it").last.fill("old jug")
    measures.get_by_role("button", name="Keep these").click()
    expect(measures.get_by_role("alert")).to_be_visible()
    measures.get_by_label("Holds").last.fill("1 qt")
    measures.get_by_role("button", name="Keep these").click()
    expect(page.get_by_text("Plans name amounts in these", exact=False)).to_be_visible()
    assert serious_findings(page) == []


def test_after_a_save_no_answer_of_before_stands_in_for_the_new_one(open_page: OpenPage) -> None:
    """A link that is slow: the sheet and the swim answer of the test before are not those of the new one."""
    page = open_page(BLANK, PHONE)
    path = set_up(page, "Nothing of before")
    fields = {"free_chlorine": "0.5", "ph": "7.5", "total_alkalinity": "90", "cyanuric_acid": "40"}
    reported(page, f"{path}/tests", {"fields": fields, "kit": "drops", "temperature_unit": "f"})
    page.goto(f"{path}/plan")
    dose = page.get_by_text(re.compile("Free chlorine from 0.5"))
    expect(dose).to_be_visible()
    page.get_by_role("link", name="Test", exact=True).click()
    page.get_by_label("Free chlorine", exact=True).fill("0.9")
    held: list[Route] = []
    asked = re.compile(r"/api/v1/pools/[^/]+(/sheet[^/]*)?$")
    page.route(asked, lambda route: held.append(route) if len(held) < 2 else route.continue_())
    page.get_by_role("button", name=re.compile("^Save")).click()
    page.wait_for_url(re.compile(f"{path}$"))
    expect(page.get_by_test_id("swim")).to_be_hidden()
    page.get_by_role("link", name="Plan", exact=True).click()
    expect(page.get_by_label("Loading the plan")).to_be_visible()
    expect(dose).to_have_count(0)
    for route in held:
        route.continue_()
    expect(page.get_by_text(re.compile("Free chlorine from 0.9"))).to_be_visible()
    expect(page.get_by_test_id("swim")).to_be_visible()
