"""Coming in as people do, on a phone and by keys; and what a page of another site gets: nothing."""

import http.server
import re
import tempfile
import threading
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from pathlib import Path
from uuid import uuid4

import pyotp
import pytest
from playwright.sync_api import Browser, Page, expect

from kumpan.tools.browser import enter
from kumpan.tools.ports import free_port
from kumpan.tools.serving import DATABASE, Running
from kumpan.tools.users import new_workspace
from tests.browser.conftest import PHONE, OpenPage, pool_of, serious_findings, until
from tests.web.conftest import pool_body

pytestmark = pytest.mark.browser
LOCK = {
    "protocol": "ctap2", "transport": "internal", "hasResidentKey": True, "hasUserVerification": True,
    "isUserVerified": True, "automaticPresenceSimulation": True,
}  # fmt: skip
PASSWORD, OTHER = "three words of mine", "quite another sentence"


@pytest.fixture(scope="module")
def empty() -> Iterator[Running]:
    """An installation that nobody can sign in to yet."""
    with tempfile.TemporaryDirectory(prefix="kumpan empty ") as folder:
        running = Running(free_port(), Path(folder))
        try:
            running.start(demo=False)
            yield running
        finally:
            running.stop()


def opened(chromium: Browser, running: Running, path: str = "/") -> Page:
    """A phone of its own."""
    context = chromium.new_context(viewport=PHONE, base_url=running.address)  # type: ignore[arg-type]
    page = context.new_page()
    page.goto(path)
    return page


def test_first_start_invitation_second_factor_and_guest(chromium: Browser, empty: Running) -> None:
    """From the code in the terminal to a guest whose link is taken back; the first form by keys alone."""
    assert empty.empty
    office = opened(chromium, empty)
    expect(office.get_by_role("heading", name="The first person")).to_be_visible()
    assert serious_findings(office) == []
    office.get_by_label("Code from the terminal").focus()
    for text in (empty.first_code, "Mara Vell", "mara@example.org", PASSWORD):
        office.keyboard.type(text)
        office.keyboard.press("Tab")
    office.keyboard.press("Enter")
    expect(office.get_by_role("link", name="Set up a pool").first).to_be_visible()

    office.goto("/account")
    office.get_by_role("button", name="Turn it on").click()
    secret = office.get_by_text(pyotp_secret(office)).inner_text()
    office.set_viewport_size({"width": 390, "height": 4000})  # nothing lies under the bar at the foot
    assert serious_findings(office) == []
    office.set_viewport_size(PHONE)  # type: ignore[arg-type]
    office.get_by_label("Code", exact=True).fill(pyotp.TOTP(secret).now())
    office.get_by_role("button", name="Turn it on").click()
    expect(office.get_by_text("A code of your authenticator app is asked for")).to_be_visible()

    office.goto("/people")
    office.get_by_label("Name, as the log shall show it").fill("Ada Holm")
    office.get_by_role("button", name="Add", exact=True).click()
    office.get_by_role("region", name="Ada Holm").get_by_role("button", name="Make an invitation").click()
    link = office.get_by_test_id("invitation").inner_text()
    assert serious_findings(office) == []

    technician = opened(chromium, empty, link)
    technician.get_by_label("Email or user name to sign in with").fill("ada")
    technician.get_by_label("Password").fill("short")
    technician.get_by_role("button", name="Join").click()
    expect(technician.get_by_text("A password needs 15 characters")).to_be_visible()
    expect(technician.get_by_label("Email or user name to sign in with")).to_have_value("ada")
    technician.get_by_label("Password").fill(OTHER)
    technician.get_by_role("button", name="Join").click()
    expect(technician.get_by_text("No pool was given to you yet")).to_be_visible()
    dead = opened(chromium, empty, link)
    expect(dead.get_by_role("alert")).to_contain_text("Ask for a new one")

    technician.goto("/account")
    technician.get_by_role("button", name="Sign out", exact=True).click()
    expect(technician.get_by_role("heading", name="Sign in")).to_be_visible()
    technician.get_by_label("Email or user name").fill("ada")
    technician.get_by_label("Password").fill(PASSWORD)
    technician.get_by_role("button", name="Sign in", exact=True).click()
    expect(technician.get_by_text("do not go together")).to_be_visible()
    technician.get_by_label("Password").fill(OTHER)
    technician.get_by_role("button", name="Sign in", exact=True).click()
    expect(technician.get_by_role("heading", name="Ada Holm")).to_be_visible()


def pyotp_secret(page: Page) -> str:
    """The secret as it stands under the QR code."""
    expect(page.get_by_role("img", name="The secret as a QR code")).to_be_visible()
    return next(
        text for text in page.locator("form p").all_inner_texts() if len(text) == 32 and text.isupper()
    )


READS = re.compile("Why: |why$|Print$|Day before|Day after|Copy|Close this message")
DOES = re.compile("^/pools/[^/]+/(test|visit|care|setup|log|week)")


def test_a_guest_link_reads_one_pool_until_it_is_taken_back(
    open_page: OpenPage, chromium: Browser, kumpan: Running
) -> None:
    office = open_page("/")
    pool = pool_of(office, "Millrace Close")
    office.goto(f"{pool}/setup")
    office.get_by_role("button", name="Make a guest link").click()
    link = office.get_by_test_id("guest-link").inner_text()
    guest = opened(chromium, kumpan, link)
    expect(guest.get_by_test_id("swim")).to_be_visible()
    stations = guest
    for name in ("Plan", "Report", "Notice"):
        stations.get_by_role("link", name=name, exact=True).click() if name != "Notice" else guest.goto(
            f"{pool}/notice"
        )
        expect(guest.get_by_text("Millrace Close").first).to_be_visible()
        guest.goto(pool)
    for station in ("", "/plan", "/report", "/notice"):
        guest.goto(f"{pool}{station}")
        expect(guest.get_by_text("Millrace Close").first).to_be_visible()
        guest.wait_for_load_state("networkidle")
        buttons = guest.locator("main").get_by_role("button").all()
        names = {button.get_attribute("aria-label") or button.inner_text() for button in buttons}
        assert {name for name in names if not READS.match(name)} == set(), station
        leads_to = {link.get_attribute("href") or "" for link in guest.locator("main a").all()}
        assert {href for href in leads_to if DOES.search(href)} == set(), station
    office.get_by_role("button", name="Take back").first.click()
    expect(office.get_by_test_id("guest-link")).to_have_count(0)
    guest.reload()
    expect(guest.get_by_text("This is a demo")).to_be_visible()


def test_the_demo_is_entered_by_one_tap_and_a_technician_sees_the_own_round(open_page: OpenPage) -> None:
    page = open_page("/", PHONE, sign_in=False)
    expect(page.get_by_role("heading", name="This is a demo")).to_be_visible()
    assert serious_findings(page) == []
    page.get_by_role("button", name="Tomas Lind").click()
    expect(page.get_by_role("link", name="Weir Lane 4")).to_be_visible()
    expect(page.get_by_role("link", name="Set up a pool")).to_have_count(0)
    page.goto("/round")
    expect(page.get_by_role("heading", name="Today’s round")).to_be_visible()


def test_a_firm_and_a_household_share_a_pool_until_one_ends_it(
    open_page: OpenPage, chromium: Browser, kumpan: Running
) -> None:
    """The household takes part on a phone and by keys, sees whose each entry is, and keeps a copy at the end."""
    firm = open_page("/")
    pool = pool_of(firm, "Tannery Yard")
    firm.goto(f"{pool}/setup")
    sharing = firm.get_by_role("region", name="Sharing")
    sharing.get_by_role("button", name="Share this pool").press("Enter")
    link = firm.get_by_test_id("share-link").inner_text()

    home = opened(chromium, kumpan, link)
    expect(home.get_by_role("heading", name="Varga Pool Care shares a pool with you")).to_be_visible()
    assert serious_findings(home) == []
    home.get_by_label("Your household or firm").focus()
    for text in ("The Berg household", "Rolf Berg", "rolf", PASSWORD):
        home.keyboard.type(text)
        home.keyboard.press("Tab")
    home.keyboard.press("Enter")
    home.get_by_role("link", name="Tannery Yard").click()
    expect(home.get_by_test_id("swim")).to_be_visible()
    told = {"id": str(uuid4()), "swimmers": "3", "hours": "1"}
    assert home.request.post(f"/api/v1{pool}/swimmers", data=told).ok
    home.goto(f"{pool}/log")
    expect(home.get_by_text("Varga Pool Care").first).to_be_visible()
    firm.goto(f"{pool}/log")
    expect(firm.get_by_text("by Rolf Berg · The Berg household").first).to_be_visible()

    home.goto(f"{pool}/setup")
    expect(home.get_by_role("button", name="Share this pool")).to_have_count(0)
    home.get_by_role("button", name="Leave …").press("Enter")
    expect(home.get_by_text("you keep a copy of the journal")).to_be_visible()
    home.get_by_role("button", name="Yes, end it").press("Enter")
    expect(home.get_by_role("region", name="Put away")).to_contain_text("Tannery Yard")
    assert serious_findings(home) == []
    with home.expect_download() as copy:
        home.get_by_role("link", name="Download it").click()
    assert '"format":"kumpan-journal"' in Path(copy.value.path()).read_text().splitlines()[0]
    assert home.request.get(f"/api/v1{pool}").status == 404
    firm.goto(f"{pool}/setup")
    expect(sharing).not_to_contain_text("The Berg household")


def test_a_pool_is_archived_brought_back_and_deleted_after_a_download(open_page: OpenPage) -> None:
    page = open_page("/")
    name = f"Pool {uuid4().hex[:6]}"
    pool = str(uuid4())
    settings = {"name": name, "time_zone": "America/Chicago"}
    assert page.request.post("/api/v1/pools", data=pool_body(pool, settings=settings)).ok
    page.goto(f"/pools/{pool}/setup")
    for again in (True, False):
        page.get_by_role("button", name=f"Archive {name}").click()
        away = page.get_by_role("region", name="Put away")
        expect(away).to_contain_text(name)
        expect(page.get_by_role("link", name=name)).to_have_count(0)
        if again:
            away.get_by_role("button", name="Bring back").click()
            page.get_by_role("link", name=name).click()
            page.goto(f"/pools/{pool}/setup")
    expect(away.get_by_role("button", name=f"Delete {name} for good")).to_have_count(0)
    with page.expect_download() as file:
        away.get_by_role("button", name="Download the journal").click()
    assert file.value.suggested_filename == f"{name}.jsonl"
    away.get_by_role("button", name=f"Delete {name} for good").click()
    expect(page.get_by_text(f"{name} is deleted.")).to_be_visible()
    expect(away).to_have_count(0)


class _Evil(http.server.BaseHTTPRequestHandler):
    """Another site: it frames us, reads us and writes to us with the visitor's cookies."""

    target = ""

    def log_message(self, format: str, *args: object) -> None:
        """Say nothing."""

    def do_GET(self) -> None:
        page = f"""<!doctype html><iframe id=frame src="{self.target}/"></iframe><script>
          const seen = [];
          const tried = (what, work) => work.then(r => seen.push(what + ":" + (r.type || r)),
                                                  e => seen.push(what + ":refused"));
          const post = {{method: "POST", credentials: "include", body: '{{"person_id":"x"}}'}};
          Promise.all([
            tried("read", fetch("{self.target}/api/v1/pools", {{credentials: "include"}})),
            tried("write", fetch("{self.target}/api/v1/auth/sign-out", {{...post, mode: "no-cors"}})),
            tried("json", fetch("{self.target}/api/v1/auth/sign-out",
                  {{...post, headers: {{"content-type": "application/json"}}}})),
          ]).then(() => {{ document.title = seen.join(" "); }});
        </script>"""
        self.send_response(200)
        self.send_header("content-type", "text/html")
        self.end_headers()
        self.wfile.write(page.encode())


def test_a_page_of_another_site_gets_nothing(chromium: Browser, kumpan: Running) -> None:
    """Framing, reading, writing, and a name of theirs that leads to this machine (rebinding)."""
    handler = type("Evil", (_Evil,), {"target": kumpan.address})
    server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), handler)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    context = chromium.new_context(base_url=kumpan.address)
    enter(context)
    page = context.new_page()
    page.goto(f"http://localhost:{server.server_port}/")
    until(page, "document.title.includes('json')")
    seen = page.title()
    assert "read:refused" in seen
    assert "json:refused" in seen
    assert page.frames[1].url in ("chrome-error://chromewebdata/", "about:blank")
    assert page.frames[1].locator("text=Pools").count() == 0
    # What could be sent without asking changed nothing: still signed in.
    assert context.request.get("/api/v1/auth/state").json()["me"] is not None
    rebound = context.request.get("/api/v1/pools", headers={"host": f"evil.example:{kumpan.port}"})
    assert rebound.status == 421
    context.close()
    server.shutdown()
    server.server_close()


def test_a_passkey_signs_in_without_a_password(chromium: Browser, empty: Running) -> None:
    """With Chromium's own virtual authenticator, at the name localhost; at a bare address none is offered."""
    asked = (empty.database.url(DATABASE), "Third firm", "Lena Moss", datetime.now(UTC))
    with ThreadPoolExecutor() as aside:
        link = aside.submit(new_workspace, *asked).result()
    at_name = f"http://localhost:{empty.port}"
    page = opened(chromium, empty, at_name + link)
    device = page.context.new_cdp_session(page)
    device.send("WebAuthn.enable")
    device.send("WebAuthn.addVirtualAuthenticator", {"options": LOCK})
    page.get_by_label("Email or user name to sign in with").fill("lena")
    page.get_by_label("Password").fill(OTHER)
    page.get_by_role("button", name="Join").click()
    expect(page.get_by_role("link", name="Set up a pool").first).to_be_visible()
    page.goto(at_name + "/account")
    page.get_by_role("button", name="Add this device").press("Enter")
    keys = page.get_by_role("region", name="Passkeys")
    expect(keys.get_by_role("button", name="Remove")).to_be_visible()
    assert serious_findings(page) == []
    page.get_by_role("button", name="Sign out", exact=True).press("Enter")
    page.get_by_role("button", name="Sign in with a passkey").press("Enter")
    expect(page.get_by_role("heading", name="Lena Moss")).to_be_visible()
    bare = opened(chromium, empty)
    expect(bare.get_by_role("heading").first).to_be_visible()
    expect(bare.get_by_role("button", name="Sign in with a passkey")).to_have_count(0)


def test_two_firms_on_one_machine_never_see_each_other(chromium: Browser, empty: Running) -> None:
    """A second workspace as `./run users` makes one: its office starts with nothing, and stays apart."""
    asked = (empty.database.url(DATABASE), "Second firm", "Rolf Berg", datetime.now(UTC))
    with ThreadPoolExecutor() as aside:  # the browser's own loop runs here
        link = aside.submit(new_workspace, *asked).result()
    second = opened(chromium, empty, link)
    second.get_by_label("Email or user name to sign in with").fill("rolf")
    second.get_by_label("Password").fill(OTHER)
    second.get_by_role("button", name="Join").click()
    expect(second.get_by_role("link", name="Set up a pool").first).to_be_visible()
    second.goto("/people")
    expect(second.get_by_role("region", name="Rolf Berg")).to_be_visible()
    expect(second.get_by_text("Mara Vell")).to_have_count(0)
    assert second.request.get("/api/v1/pools").json()["pools"] == []
