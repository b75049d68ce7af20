"""The pictures of docs/screenshots, made from the demo data in a database of their own."""

import json
import tempfile
import urllib.request
from pathlib import Path

from playwright.sync_api import Browser, Page, expect, sync_playwright

from kumpan.tools.browser import CHROMIUM, DESK, FLAGS, OFFICE, PHONE, enter
from kumpan.tools.packages import ROOT
from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running

FOLDER = ROOT / "docs/screenshots"
# file name -> path, size, light
VIEWS: dict[str, tuple[str, tuple[int, int], str]] = {
    "pools": ("/", DESK, "paper"),
    "board": ("/pools/{green}", DESK, "paper"),
    "board-phone-sun": ("/pools/{salt}", PHONE, "sun"),
    "test": ("/pools/{salt}/test", DESK, "paper"),
    "plan-dusk": ("/pools/{green}/plan", DESK, "dusk"),
    "round": ("/round", DESK, "paper"),
    "care": ("/pools/{salt}/care", DESK, "paper"),
    "visit-phone": ("/pools/{tablets}/visit", PHONE, "paper"),
    "weeks": ("/round/weeks", DESK, "paper"),
    "equipment": ("/pools/{salt}/care/equipment", DESK, "paper"),
    "season": ("/pools/{salt}/season", DESK, "paper"),
    "rescue": ("/pools/{green}/rescue", DESK, "paper"),
    "week-phone": ("/pools/{tablets}/week", PHONE, "paper"),
    "setup": ("/pools/{salt}/setup", DESK, "paper"),
    "log": ("/pools/{tablets}/log?measure=cyanuric_acid", DESK, "paper"),
    "shelf": ("/shelf", DESK, "paper"),
    "report": ("/pools/{tablets}/report", DESK, "paper"),
    "emergency": ("/emergency", DESK, "paper"),
}
DRIVER = "Tomas Lind"
PATIENCE_MS = 60_000


SHOWN = {"salt": "Millrace Close", "tablets": "Weir Lane 4", "green": "Tannery Yard"}


def main() -> None:
    """Take the pictures of docs/screenshots anew."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(prefix="kumpan shots ") as folder, sync_playwright() as playwright:
        running = Running(free_port(), Path(folder))
        try:
            running.start(demo=True)
            running.ask_as_office()
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            pools = _pools(running)
            for name, (path, size, mode) in VIEWS.items():
                person = DRIVER if path == "/round" else OFFICE
                _picture(
                    browser,
                    running,
                    path=path.format(**pools),
                    size=size,
                    mode=mode,
                    person=person,
                    file=FOLDER / f"{name}.png",
                )
            _step_on_the_phone(browser, running, pools["green"])
            browser.close()
        finally:
            running.stop()


def _pools(running: Running) -> dict[str, str]:
    """Ids of the pools that are shown, by what they show."""
    with urllib.request.urlopen(f"{running.address}/api/v1/pools", timeout=10) as reply:
        ids = {head["settings"]["name"]: head["id"] for head in json.load(reply)["pools"]}
    return {word: ids[name] for word, name in SHOWN.items()}


def _picture(
    browser: Browser,
    running: Running,
    path: str,
    size: tuple[int, int],
    mode: str,
    person: str,
    file: Path,
) -> None:
    """One view, after the few touches that make it show what it is for."""
    context = browser.new_context(viewport={"width": size[0], "height": size[1]}, base_url=running.address)
    context.add_init_script(f"localStorage.setItem('kumpan.mode', '{mode}')")
    enter(context, person)
    page = context.new_page()
    page.goto(path)
    _until_shown(page)
    if file.stem == "visit-phone":
        page.get_by_role("button", name="Begin").click()
        page.get_by_role("region", name="Look").get_by_role("button", name="As usual").click()
        page.get_by_role("button", name="Close this message").click()
        page.get_by_role("region", name="Look").evaluate("element => element.scrollIntoView()")
    if file.stem == "season":
        plan = page.get_by_role("region", name="A new opening or closing")
        plan.get_by_text("Closing", exact=True).click()
        plan.get_by_role("button", name="Keep this list").click()
        page.get_by_role("button", name="Done: Test everything").click()
        page.get_by_role("button", name="Take the tick back: Test everything").click(
            trial=True
        )  # until it can be
        page.get_by_role("button", name="Close this message").click()
        page.get_by_role("region", name="Closing on").evaluate("element => element.scrollIntoView()")
    if file.stem == "practice":
        _play(page)
    _until_shown(page)
    page.screenshot(path=file)
    context.close()


def _until_shown(page: Page) -> None:
    """Nothing stands any more in the place of what comes."""
    page.get_by_role("main").wait_for()
    page.wait_for_load_state("networkidle")
    expect(page.get_by_role("status", name="Loading")).to_have_count(0, timeout=PATIENCE_MS)


def _play(page: Page) -> None:
    """A game with a few moves in it."""
    page.get_by_role("button", name="Begin: Cloudy after a party").click()
    for name in ("Everything", "Brush", "To evening", "Chlorine and pH"):
        page.get_by_role("button", name=name, exact=True).click()
        page.wait_for_load_state("networkidle")


def _step_on_the_phone(browser: Browser, running: Running, pool: str) -> None:
    """The started sheet at its first addition, as at the poolside."""
    context = browser.new_context(viewport={"width": PHONE[0], "height": PHONE[1]}, base_url=running.address)
    enter(context)
    page = context.new_page()
    page.goto(f"/pools/{pool}/plan")
    page.get_by_role("button", name="Start the plan").click()
    page.get_by_role("button", name="Done").click()
    page.get_by_role("button", name="Close this message").click()
    page.get_by_role("region", name="Step now").evaluate("element => element.scrollIntoView()")
    page.wait_for_load_state("networkidle")
    page.screenshot(path=FOLDER / "step-phone.png")
    context.close()


if __name__ == "__main__":
    main()
