"""Within everybody's reach: at 400 percent, by keys alone, with every light, and as a screen reader has it."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import BLANK, DESK, PHONE, OpenPage, pool_of, serious_findings

pytestmark = pytest.mark.browser

VIEWS = [
    "/",
    "/pools/new",
    "/shelf",
    "/emergency",
    "{pool}",
    "{pool}/test",
    "{pool}/plan",
    "{pool}/log",
    "{pool}/setup",
    "{pool}/what-is-it",
    "{pool}/care",
    "{pool}/care/equipment",
    "{pool}/care/calendar",
    "{pool}/care/do/cell",
    "{pool}/season",
    "{pool}/notice",
    "{pool}/rescue",
    "{pool}/report",
    "/round",
    "/practice",
    "/pools/new/all",
    "/account",
    "/files",
    "/people",
    "/help",
    "{pool}/visit",
    "{pool}/week",
]

# 1280 by 1024 at 400 percent: WCAG 2.2, 1.4.10 asks for 320 CSS pixels of width without scrolling both ways.
AT_400_PERCENT = {"width": 320, "height": 256}
MOST_STOPS = 60
# What stays in place takes no more than half of what is seen, or nothing can be read under it.
STUCK_PX = """() => [...document.querySelectorAll('body *')]
  .filter(one => ['sticky', 'fixed'].includes(getComputedStyle(one).position))
  .map(one => one.getBoundingClientRect())
  .filter(box => box.height > 0 && box.width > innerWidth / 2 && box.bottom > 0 && box.top < innerHeight)
  .reduce((sum, box) => sum + Math.min(box.bottom, innerHeight) - Math.max(box.top, 0), 0)"""
# The stop that has the focus: what it is called, and whether one could see it.
STOP = """() => {
  const one = document.activeElement;
  if (one === null || one === document.body) return null;
  const box = one.getBoundingClientRect();
  const shown = one.matches('input[type=radio], input[type=checkbox], input[type=file]')
    ? (one.closest('label') ?? one) : one;
  const seen = shown.getBoundingClientRect();
  const x = Math.min(Math.max(seen.left + seen.width / 2, 0), innerWidth - 1);
  const y = Math.min(Math.max(seen.top + Math.min(seen.height / 2, 20), 0), innerHeight - 1);
  const top = document.elementFromPoint(x, y);
  let bar = top;
  while (bar && !['sticky', 'fixed'].includes(getComputedStyle(bar).position)) bar = bar.parentElement;
  const name = one.getAttribute('aria-label') || [...(one.labels ?? [])].map(l => l.textContent).join(' ')
    || one.textContent || one.getAttribute('placeholder') || '';
  return { html: one.outerHTML.slice(0, 140), name: name.trim(),
    clear: top !== null && (!bar || bar.contains(shown) || shown.contains(top)),
    inside: seen.bottom > 0 && seen.top < innerHeight && box.width >= 0 };
}"""


def sideways_px(page: Page) -> int:
    return int(page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth"))


def faults_at_four_hundred_percent(page: Page) -> list[str]:
    """Nothing scrolls sideways, and something is read beside the bars."""
    page.set_viewport_size(AT_400_PERCENT)  # type: ignore[arg-type]
    over, stuck = sideways_px(page), page.evaluate(STUCK_PX)
    page.set_viewport_size(PHONE)  # type: ignore[arg-type]
    faults = [f"{over} px sideways at 320"] if over > 0 else []
    return faults + ([f"{stuck} px of bars"] if stuck > AT_400_PERCENT["height"] / 2 else [])


def faults_of_stops(page: Page) -> list[str]:
    """Every stop of the Tab key has a name and is seen."""
    faults = []
    page.evaluate("scrollTo(0, 0)")
    for _ in range(MOST_STOPS):
        page.keyboard.press("Tab")
        stop = page.evaluate(STOP)
        if stop is None:
            break
        if not (stop["name"] and stop["clear"] and stop["inside"]):
            faults.append(f"Tab: {stop}")
    return faults


def faults_in_other_lights(page: Page) -> list[str]:
    """In another light only colors are other ones."""
    faults = []
    for light in ("sun", "dusk"):
        page.evaluate(f"document.documentElement.dataset.mode = '{light}'")
        faults += [f"{light}: {found}" for found in serious_findings(page, ["color-contrast"])]
    page.evaluate("document.documentElement.dataset.mode = 'paper'")
    return faults


@pytest.mark.parametrize("view", VIEWS)
def test_a_view_is_within_reach(open_page: OpenPage, view: str) -> None:
    """By axe in each light, at 400 percent, and by the Tab key; on a phone and on a desk."""
    first = open_page(BLANK)
    faults = []
    for size, pool in ((PHONE, "Tannery Yard"), (DESK, "Weir Lane 4")):
        page = first.context.new_page()  # tabbed through to its end, a page gives the focus to the browser
        page.set_viewport_size(size)  # type: ignore[arg-type]
        page.emulate_media(reduced_motion="reduce")  # a stop is where it is, not on its way there
        page.goto(view.format(pool=pool_of(first, pool)))
        page.wait_for_load_state("networkidle")
        found = [f"{over} px sideways"] if (over := sideways_px(page)) > 0 else []
        found += serious_findings(page) + faults_in_other_lights(page)
        if size is PHONE:
            found += faults_at_four_hundred_percent(page)
        found += faults_of_stops(page)
        faults += [f"{size['width']}: {one}" for one in found]
        page.close()
    assert not faults, "\n".join(faults)


def told(page: Page) -> str:
    """The page as a screen reader has it: roles and names, in order."""
    return page.locator("body").aria_snapshot()


def test_a_test_by_keys_alone_and_as_it_is_heard(open_page: OpenPage) -> None:
    """The walk of docs/accessibility.md, step by step."""
    page = open_page("/")
    expect(page.get_by_role("heading", name="Pools", level=1)).to_be_visible()
    page.keyboard.press("/")
    page.keyboard.type("orchard")
    expect(page.get_by_role("dialog", name="Find").get_by_role("option").first).to_be_visible()
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(r"/pools/[0-9a-f-]{36}$"))
    expect(page.get_by_role("table", name="Lane board")).to_be_visible()
    heard = told(page)
    assert heard.index("Swim?") < heard.index('table "Lane board"')
    assert re.search(r'row "Free chlorine \d', heard)
    page.keyboard.press("t")
    expect(page).to_have_url(re.compile("/test$"))
    line = page.get_by_label("Quick line, then Enter")
    expect(line).to_be_visible()
    heard = told(page)
    assert 'textbox "Free chlorine"' in heard
    assert heard.index('textbox "Free chlorine"') < heard.index('button "Save the test"')
    line.focus()
    page.keyboard.type("zz 3")
    page.keyboard.press("Enter")
    expect(line).to_have_attribute("aria-invalid", "true")
    expect(page.get_by_text('"zz" is not a measure').first).to_be_visible()
    expect(line).to_have_value("zz 3")
    page.keyboard.press("Control+a")
    page.keyboard.type("fc 2.6 ph 7.5")
    page.keyboard.press("Enter")
    expect(page.get_by_label("pH", exact=True)).to_have_value("7.5")
    expect(page.get_by_role("button", name="Save the test")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Saved. It stands in the log.")).to_be_visible()
