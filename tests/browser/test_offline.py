"""Where there is no signal: a round of five stops goes on, over a closed app, and all of it arrives in order."""

import json
import re

import pytest
from playwright.sync_api import Page, expect

from kumpan.tools.packages import FRONTEND
from tests.browser.conftest import BLANK, PHONE, OpenPage, keep, set_up, until

pytestmark = pytest.mark.browser
STOPS = 5


def by_the_worker(page: Page) -> None:
    """The worker answers for this page, and has looked at what it shows."""
    until(page, "navigator.serviceWorker.ready.then(() => navigator.serviceWorker.controller !== null)")
    page.wait_for_load_state("networkidle")


def enter_a_test(page: Page, path: str, ph: str) -> None:
    page.goto(f"{path}/test")
    page.get_by_role("button", name="Clear, level right").click()
    page.get_by_label("pH", exact=True).fill(ph)
    page.get_by_role("button", name=re.compile("^Save")).click()


def test_a_round_of_five_stops_goes_on_without_a_network(open_page: OpenPage) -> None:
    page = open_page("/", PHONE, worker=True)
    by_the_worker(page)
    paths = [set_up(page, f"No signal {number}") for number in range(1, STOPS + 1)]
    for path in paths:
        for station in ("", "/plan", "/test"):
            page.goto(path + station)
            by_the_worker(page)
    stops = [{"id": path.rpartition("/")[2], "name": f"No signal {n}"} for n, path in enumerate(paths, 1)]
    page.evaluate(f"localStorage.setItem('kumpan.round', {json.dumps(json.dumps(stops))})")
    for number in (0, 1):
        enter_a_test(page, paths[number], f"7.4{number + 1}")
        page.wait_for_url(f"**{paths[number]}/plan*")  # the form is left once the server has all of it
    by_the_worker(page)
    expect(page.get_by_text("not sent yet", exact=False)).to_have_count(0)

    page.context.set_offline(True)
    for number, waiting in ((2, 2), (3, 4)):
        enter_a_test(page, paths[number], f"7.4{number + 1}")
        expect(page.get_by_text(f"{waiting} entries are not sent yet", exact=False)).to_be_visible()
    page.close()  # the phone goes into the pocket, and the app is swept away

    again = page.context.new_page()
    again.goto(paths[4])
    expect(again.get_by_text("No signal 5").first).to_be_visible()
    expect(again.get_by_text("4 entries are not sent yet", exact=False)).to_be_visible()
    enter_a_test(again, paths[4], "7.45")
    expect(again.get_by_text("6 entries are not sent yet", exact=False)).to_be_visible()
    again.goto("/emergency")
    expect(again.get_by_role("heading", name="Sharp smell, cough, gas")).to_be_visible()

    again.context.set_offline(False)
    expect(again.get_by_text("not sent yet", exact=False)).to_have_count(0)
    for number, path in enumerate(paths, 1):
        log = again.request.get(f"/api/v1{path}/log").json()
        tests = [line for line in log if line["kind"] == "test"]
        assert [line["fields"]["ph"] for line in tests] == [f"7.4{number}"]
        assert len([line for line in log if line["kind"] == "look"]) == 1


def test_what_was_on_its_way_when_the_app_was_closed_is_sent_when_it_is_opened_again(
    open_page: OpenPage,
) -> None:
    page = open_page(BLANK, PHONE)
    path = set_up(page, "Swept away")
    page.goto(f"{path}/test")
    page.route("**/api/v1/pools/*/tests", lambda _: None)  # one bar of signal: never an answer
    page.get_by_label("pH", exact=True).fill("7.46")
    with page.expect_request("**/api/v1/pools/*/tests"):
        page.get_by_role("button", name=re.compile("^Save")).click()
    page.close()

    again = page.context.new_page()
    with again.expect_response("**/api/v1/pools/*/tests"):
        again.goto(path)
    log = again.request.get(f"/api/v1{path}/log").json()
    assert [line["fields"]["ph"] for line in log if line["kind"] == "test"] == ["7.46"]


def test_a_photo_taken_without_a_network_waits_with_the_rest(open_page: OpenPage) -> None:
    page = open_page("/", PHONE, worker=True)
    by_the_worker(page)
    path = set_up(page, "Dark corner")
    by_the_worker(page)
    page.get_by_text("Note, time, photo").click()
    page.context.set_offline(True)
    photo = page.locator("input[type=file]").first
    photo.set_input_files(FRONTEND / "public/icon-512.png")
    expect(page.get_by_text("The photo is kept on this device", exact=False)).to_be_visible()
    expect(page.get_by_text("One entry is not sent yet", exact=False)).to_be_visible()
    assert page.request.get(f"/api/v1{path}/photos").json()["photos"] == []
    page.context.set_offline(False)
    expect(page.get_by_text("not sent yet", exact=False)).to_have_count(0)
    (sent,) = page.request.get(f"/api/v1{path}/photos").json()["photos"]
    assert sent["shows"] == "look"


def test_it_says_that_what_is_shown_was_known_earlier(open_page: OpenPage) -> None:
    page = open_page("/", worker=True)
    by_the_worker(page)
    path = set_up(page, "Known earlier")
    page.goto(path)
    by_the_worker(page)
    page.reload()
    by_the_worker(page)
    page.context.set_offline(True)
    page.reload()
    expect(page.get_by_text("This is what was known", exact=False)).to_be_visible()
    expect(page.get_by_text("Known earlier").first).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text("This is what was known", exact=False)).to_have_count(0)


def test_a_shortcut_leads_to_the_pool_that_was_open_last(open_page: OpenPage) -> None:
    page = open_page(BLANK, PHONE)
    path = set_up(page, "Open last")
    page.goto("/go/test")
    expect(page).to_have_url(re.compile(f"{path}/test$"))
    keep(page, "kumpan.units", "metric")
    page.goto("/go/today")
    expect(page).to_have_url(re.compile(f"{path}$"))
    page.goto("/pools")
    expect(page.get_by_role("heading", name="Pools", exact=True)).to_be_visible()
