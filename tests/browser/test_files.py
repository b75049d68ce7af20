"""Ten years of a notebook brought in through the screens, and taken back."""

from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import BLANK, OpenPage, reported, serious_findings
from tests.services.imports.ten_years import sheets
from tests.web.conftest import pool_body

pytestmark = pytest.mark.browser


def test_three_ugly_sheets_come_in_through_the_screens(open_page: OpenPage) -> None:
    page = open_page(BLANK)
    pool, name = str(uuid4()), "The notebook's pool"
    reported(page, "/pools", pool_body(pool, settings={"name": name, "time_zone": "America/Chicago"}))
    end = datetime.now(UTC).replace(microsecond=0) - timedelta(days=1)
    for file, content in sheets(end).items():
        page.goto("/files")
        chooser = page.get_by_label("Drop a file here, or choose one")
        chooser.set_input_files({"name": file, "mimeType": "application/octet-stream", "buffer": content})
        expect(page.get_by_role("heading", name=file)).to_be_visible()
        page.get_by_label("Which pool").select_option(name)
        expect(page.get_by_role("region", name="Rows")).to_be_visible()
        assert serious_findings(page) == []
        page.get_by_role("button", name="Bring it in").click()
        expect(page.get_by_text("rows were read and brought in")).to_be_visible(timeout=60_000)
    page.goto(f"/pools/{pool}/log")
    expect(page.get_by_role("button", name="Show older entries")).to_be_visible()
    page.goto("/files")
    page.get_by_role("link", name="since then.xlsx").first.click()
    page.get_by_role("button", name="Take it all back").click()
    expect(page.get_by_text("This file was taken back.")).to_be_visible()
