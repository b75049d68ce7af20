"""Both openings and both closings, from the kept list to the last tick; a learner's drain day on one page."""

import re
from uuid import uuid4

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import BLANK, OpenPage, reported
from tests.web.conftest import pool_body

pytestmark = pytest.mark.browser

ABOVE_GROUND = {"surface": "vinyl", "chlorination": "tablets", "filter": "sand"}
# They come round again for as long as the pool is closed.
OVER_THE_WINTER = {"Done: Water on the cover", "Done: After storms"}
IN_GROUND = {"surface": "plaster", "chlorination": "salt_cell", "filter": "cartridge"}


def a_pool(page: Page, equipment: dict[str, str]) -> str:
    pool = str(uuid4())
    reported(page, "/pools", pool_body(pool, equipment=equipment))
    return f"/pools/{pool}"


@pytest.mark.parametrize("equipment", [ABOVE_GROUND, IN_GROUND], ids=["above ground", "in ground"])
@pytest.mark.parametrize("which", ["Opening", "Closing"])
def test_a_season_list_is_gone_through_to_its_end(
    open_page: OpenPage, equipment: dict[str, str], which: str
) -> None:
    page = open_page(BLANK)
    path = a_pool(page, equipment)
    page.goto(f"{path}/season")
    plan = page.get_by_role("region", name="A new opening or closing")
    plan.get_by_text(which, exact=True).click()
    if which == "Closing":
        plan.get_by_text("With frost", exact=True).click()
        plan.get_by_text("Above ground" if equipment is ABOVE_GROUND else "In the ground", exact=True).click()
    plan.get_by_role("button", name="Keep this list").click()
    kept = page.get_by_role("region", name=re.compile(f"^{which} on"))
    open_ticks = kept.get_by_role("button", name=re.compile("^Done: "))
    expect(open_ticks.first).to_be_visible()
    titles = [tick.get_attribute("aria-label") or "" for tick in open_ticks.all()]
    assert len(titles) > 12
    if which == "Closing" and equipment is ABOVE_GROUND:
        closed, hoses = "Done: Return closed, before any hose comes off", "Done: The three hoses off"
        assert titles.index(closed) < titles.index(hoses)
    for title in [one for one in titles if one not in OVER_THE_WINTER]:
        tick, what = kept.get_by_role("button", name=title, exact=True), title.removeprefix("Done: ")
        expect(tick).to_be_enabled()
        tick.press("Enter")
        expect(kept.get_by_role("button", name=f"Take the tick back: {what}", exact=True)).to_be_visible()
    assert {tick.get_attribute("aria-label") for tick in open_ticks.all()} <= OVER_THE_WINTER


def test_a_learners_drain_day_is_printed_on_one_page(open_page: OpenPage) -> None:
    """Stabilizer at 140 in a plaster pool: drain, wash, refill, start up; a liner is no learner's work."""
    page = open_page(BLANK)
    path = a_pool(page, {"surface": "plaster", "chlorination": "granules", "filter": "cartridge"})
    fields = {"free_chlorine": "0", "ph": "7.5", "total_alkalinity": "100", "cyanuric_acid": "140"}
    reported(page, f"{path}/tests", {"id": str(uuid4()), "kit": "drops", "fields": fields})
    page.goto(f"{path}/plan?plan=drain_day")
    expect(page.get_by_role("button", name="Start the plan")).to_be_visible()
    printed = page.pdf(format="Letter", print_background=True)
    assert len(re.findall(rb"/Type\s*/Page[^s]", printed)) == 1
