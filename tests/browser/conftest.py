"""A running Kumpan with demo data, and Debian's Chromium through Playwright.

No outside request is let pass.
"""

import tempfile
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from uuid import uuid4

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, Request, expect, sync_playwright

from kumpan.tools.browser import CHROMIUM, FLAGS, IDLE_CLOSED, enter
from kumpan.tools.packages import FRONTEND
from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running
from tests.web.conftest import pool_body

DESK = {"width": 1280, "height": 800}
PHONE = {"width": 390, "height": 844}
BLANK = "about:blank"
PATIENCE_MS = (
    60_000  # two busy cores, or slow ones, may take a while over a page; what is there passes at once
)
expect.set_options(timeout=PATIENCE_MS)
AXE = FRONTEND / "node_modules/axe-core/axe.min.js"


@pytest.fixture(scope="session")
def kumpan() -> Iterator[Running]:
    with tempfile.TemporaryDirectory(prefix="kumpan browser ") as folder:
        running = Running(free_port(), Path(folder))
        try:
            running.start(demo=True)
            yield running
        finally:
            running.stop()


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield browser
        browser.close()


OpenPage = Callable[..., Page]


@pytest.fixture
def open_page(kumpan: Running, chromium: Browser) -> Iterator[OpenPage]:
    """Open a path in a new profile; afterwards: no outside request, no error on the console."""
    contexts: list[BrowserContext] = []
    outside: list[str] = []
    errors: list[str] = []

    def check(request: Request) -> None:
        if not request.url.startswith((kumpan.address, "data:", "blob:")):
            outside.append(request.url)

    def open_(
        path: str, size: dict[str, int] | None = None, *, worker: bool = False, sign_in: bool = True
    ) -> Page:
        """`worker`: with the page's service worker, which fetches everything once more to keep it.

        Signed in as the demo's office, unless it is not to be.
        """
        context = chromium.new_context(
            viewport=size or DESK,  # type: ignore[arg-type]
            base_url=kumpan.address,
            service_workers="allow" if worker else "block",
        )
        contexts.append(context)
        context.set_default_timeout(PATIENCE_MS)  # of its pages, and of what it asks the server itself
        if sign_in:
            enter(context)
        page = context.new_page()
        page.on("request", check)
        page.on("pageerror", lambda error: errors.append(str(error)))
        page.goto(path)
        return page

    yield open_
    for context in contexts:
        context.close()
    assert outside == []
    assert errors == []


def pool_of(page: Page, name: str) -> str:
    """The path of a pool, by its name."""
    heads = page.request.get("/api/v1/pools", max_retries=IDLE_CLOSED).json()["pools"]
    return next(f"/pools/{head['id']}" for head in heads if head["settings"]["name"] == name)


def as_person(page: Page, name: str) -> None:
    """Who uses this device, said before its first page is opened."""
    enter(page.context, name)


def keep(page: Page, key: str, value: str) -> None:
    """What this device kept from an earlier visit."""
    page.context.add_init_script(f"localStorage.getItem('{key}') ?? localStorage.setItem('{key}', '{value}')")


def reported(page: Page, path: str, body: dict[str, object]) -> None:
    """Something that a test begins with, told to the server at once."""
    url = path if path.startswith("/api/") else f"/api/v1{path}"
    reply = page.request.post(url, data={"id": str(uuid4()), **body})
    assert reply.ok, reply.text()


def set_up(page: Page, name: str) -> str:
    """A pool of 32 by 16 ft, 3 to 8 ft deep, opened at its slip; returns its path."""
    pool_id = str(uuid4())
    reported(page, "/pools", pool_body(pool_id, settings={"name": name, "time_zone": "America/Chicago"}))
    page.goto(f"/pools/{pool_id}/test")
    expect(page.get_by_role("region", name="Look", exact=True)).to_be_visible()
    return f"/pools/{pool_id}"


# Looked at frame by frame by the page itself: what waits by `eval` is refused by the pages' own policy.
UNTIL = """(patience_ms) => new Promise((done, fail) => {
  const end = performance.now() + patience_ms;
  const look = async () => {
    if (await CONDITION) done(true);
    else if (performance.now() > end) fail(new Error("not in time"));
    else requestAnimationFrame(look);
  };
  look();
})"""


def until(page: Page, condition: str) -> None:
    """Wait until a condition of the page holds; a promise of it is waited for."""
    page.evaluate(UNTIL.replace("CONDITION", f"({condition})"), PATIENCE_MS)


AT_REST = """document.getAnimations().every(
    one => one.playState !== "running" || one.effect.getComputedTiming().endTime === Infinity
)"""
WCAG = ("wcag2a", "wcag2aa", "wcag21aa", "wcag22aa")


# A bar that stays in place covers what lies under it until one scrolls; axe would call that too small a target.
LET_GO = """() => { window.stuck_ = [...document.querySelectorAll('body *')].filter(one =>
  ['sticky', 'fixed'].includes(getComputedStyle(one).position) && !one.closest('dialog'));
  window.stuck_.forEach(one => { one.style.position = 'static'; }); }"""
HOLD_AGAIN = "() => window.stuck_.forEach(one => { one.style.position = ''; })"


def serious_findings(page: Page, rules: Sequence[str] = WCAG) -> list[str]:
    """What axe calls serious or critical on the page as it stands, once its colors have come to rest."""
    # Waited for, never awaited in the page: a promise that is never kept would hang the test for ever.
    until(page, AT_REST)
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text())
    page.evaluate(LET_GO)
    found = page.evaluate(f"axe.run(document, {{runOnly: {list(rules)}, resultTypes: ['violations']}})")
    page.evaluate(HOLD_AGAIN)
    return [
        f"{rule['id']}: {rule['nodes'][0]['html'][:200]}"
        for rule in found["violations"]
        if rule["impact"] in ("serious", "critical")
    ]
