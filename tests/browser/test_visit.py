"""The visit on a phone: the taps that it takes, from the first look to the report."""

import re
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.conftest import BLANK, PHONE, OpenPage, reported, serious_findings
from tests.web.conftest import pool_body

pytestmark = pytest.mark.browser

WEEK_AGO = (datetime.now(UTC) - timedelta(days=8)).isoformat()


@dataclass
class Taps:
    """Counts what a thumb does; digits are none. `back`: what stood above the screen, so that one scrolls back."""

    count: int = 0
    back: list[str] = field(default_factory=list)

    def __call__(self, target: Locator) -> None:
        expect(target).to_be_visible()
        box = target.bounding_box()
        if box is None or box["y"] < 0:
            self.back.append(target.inner_text())
        target.click()
        self.count += 1


def begun_a_week_ago(page: Page, name: str) -> str:
    pool_id = str(uuid4())
    settings = {"name": name, "time_zone": "America/Chicago", "season_months": list(range(1, 13))}
    reported(page, "/pools", pool_body(pool_id, settings=settings))
    path = f"/pools/{pool_id}"
    fields = {
        "free_chlorine": "3",
        "total_chlorine": "3",
        "ph": "7.5",
        "total_alkalinity": "100",
        "calcium_hardness": "260",
        "cyanuric_acid": "40",
        "temperature_c": "82F",
    }
    reported(page, f"{path}/tests", {"id": str(uuid4()), "at": WEEK_AGO, "kit": "drops", "fields": fields})
    return path


def to_the_test(page: Page, tap: Taps, line: str) -> None:
    tap(page.get_by_role("button", name="Begin"))
    tap(page.get_by_role("region", name="Look").get_by_role("button", name="As usual"))
    expect(page.get_by_text("done at", exact=False).first).to_be_visible()
    tap(page.get_by_role("region", name="Test").get_by_role("link", name="Enter it"))
    field = page.get_by_label("Quick line, then Enter")
    tap(field)
    field.fill(line)
    field.press("Enter")
    tap(page.get_by_role("button", name="Save the test"))
    expect(page.get_by_role("region", name="Chemicals")).to_be_visible()


def the_rest(page: Page, tap: Taps) -> None:
    for region in ("Equipment", "Cleaning"):
        tap(page.get_by_role("region", name=region).get_by_role("button", name="All as usual"))
        expect(
            page.get_by_role("region", name=region).get_by_text("done at", exact=False).first
        ).to_be_visible()


def test_an_owners_usual_hour_takes_twelve_taps_at_most(open_page: OpenPage) -> None:
    page = open_page(BLANK, size=PHONE)
    path = begun_a_week_ago(page, "Weekly hour")
    page.goto(f"{path}/visit")
    tap = Taps()
    to_the_test(page, tap, "fc 3 tc 3 ph 7.5 82f")
    the_rest(page, tap)
    tap(page.get_by_role("button", name="End the visit"))
    expect(page).to_have_url(re.compile("/report$"))
    assert tap.count <= 12
    assert tap.back == []


def test_a_usual_stop_with_two_doses_takes_twenty_taps_at_most(
    open_page: OpenPage,
) -> None:
    page = open_page(BLANK, size=PHONE)
    path = begun_a_week_ago(page, "Usual stop")
    page.goto(f"{path}/visit?kind=stop")
    tap = Taps()
    to_the_test(page, tap, "fc 1 tc 1 ph 7.9 82f")
    the_rest(page, tap)
    tap(page.get_by_role("region", name="Chemicals").get_by_role("link", name="To the plan"))
    tap(page.get_by_role("button", name="Start the plan"))
    poured = 0
    while poured < 2:
        step = page.get_by_role("region", name="Step now")
        pour = step.get_by_role("button", name="Poured all of it")
        done = step.get_by_role("button", name="Done")
        expect(pour.or_(done).first).to_be_visible()
        title = step.get_by_role("heading").first.inner_text()
        is_pour = pour.count() > 0
        tap(pour if is_pour else done)
        poured += is_pour
        expect(step.get_by_role("heading", name=title, exact=True)).to_have_count(0)
    tap(page.get_by_role("link", name="Back to the visit"))
    tap(page.get_by_role("button", name="End the visit"))
    expect(page).to_have_url(re.compile("/report$"))
    assert tap.count <= 20
    assert tap.back == []
    page.goto(f"{path}/log")
    expect(page.get_by_text("Visit done")).to_be_visible()


def test_a_visit_is_continued_on_another_device(open_page: OpenPage) -> None:
    page = open_page(BLANK, size=PHONE)
    path = begun_a_week_ago(page, "Two devices")
    page.goto(f"{path}/visit")
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("region", name="Cleaning").get_by_role("button", name="All as usual").click()
    expect(
        page.get_by_role("region", name="Cleaning").get_by_text("done at", exact=False).first
    ).to_be_visible()
    other = open_page(f"{path}/visit")
    expect(other.get_by_role("button", name="Begin")).to_have_count(0)
    expect(
        other.get_by_role("region", name="Cleaning").get_by_text("done at", exact=False).first
    ).to_be_visible()
    assert serious_findings(other) == []
