"""Within everybody's reach: at 400 percent, by keys alone, with every light, and as a screen reader has it."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import BLANK, PHONE, OpenPage, as_person, pool_of, serious_findings
from tests.browser.test_journeys import VIEWS

pytestmark = pytest.mark.browser

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


def test_at_four_hundred_percent_nothing_scrolls_sideways_and_something_is_read(open_page: OpenPage) -> None:
    page = open_page(BLANK, AT_400_PERCENT)
    pool, faults = pool_of(page, "Millrace Close"), []
    as_person(page, "Tomas Lind")
    for view in VIEWS:
        page.goto(view.format(pool=pool))
        page.wait_for_load_state("networkidle")
        over = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
        stuck = page.evaluate(STUCK_PX)
        if over > 0 or stuck > AT_400_PERCENT["height"] / 2:
            faults.append((view, over, stuck))
    assert not faults, "\n".join(map(str, faults))


@pytest.mark.parametrize("size", [PHONE, None], ids=["phone", "desk"])
def test_every_stop_of_the_tab_key_has_a_name_and_is_seen(
    open_page: OpenPage, size: dict[str, int] | None
) -> None:
    first = open_page(BLANK, size)
    pool, faults = pool_of(first, "Weir Lane 4"), []
    for view in VIEWS:
        page = first.context.new_page()  # tabbed through to its end, a page gives the focus to the browser
        page.emulate_media(reduced_motion="reduce")  # a stop is where it is, not on its way there
        page.goto(view.format(pool=pool))
        page.wait_for_load_state("networkidle")
        for _ in range(MOST_STOPS):
            page.keyboard.press("Tab")
            stop = page.evaluate(STOP)
            if stop is None:
                break
            if not (stop["name"] and stop["clear"] and stop["inside"]):
                faults.append((view, stop))
        page.close()
    assert not faults, "\n".join(map(str, faults))


@pytest.mark.parametrize("mode", ["paper", "sun", "dusk"])
def test_no_view_has_a_serious_fault_in_any_light(open_page: OpenPage, mode: str) -> None:
    page = open_page("/", PHONE)
    pool, faults = pool_of(page, "Tannery Yard"), []
    page.evaluate(f"localStorage.setItem('kumpan.mode', '{mode}')")
    for view in [*VIEWS, "/pools/new/all", "/account", "/files", "/help", "{pool}/visit", "{pool}/week"]:
        page.goto(view.format(pool=pool))
        page.wait_for_load_state("networkidle")
        faults += [(view, found) for found in serious_findings(page)]
    assert not faults, "\n".join(map(str, faults))


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
    expect(page).to_have_url(re.compile("/slip$"))
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
