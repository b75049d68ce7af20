"""What an eye and a hand notice, by Chromium's own entries: largest paint, answer to a tap, layout shift."""

import gzip
import http.server
import statistics
import subprocess
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path

from playwright.sync_api import Browser, BrowserContext, Page, sync_playwright

from kumpan.tools.browser import CHROMIUM, DESK, FLAGS, PHONE, enter
from kumpan.tools.packages import FRONTEND
from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running

PAIRS = 25
SESSIONS = 5  # of some fifty taps each: a single one has its 95th percentile from three of them
SLOWER = 4
BARE_TAPS = 40
STEPS_UP = 12
# Kept by the page itself from its first moment: a shift after a tap is meant, and is none.
WATCH = """(() => {
  window.vitals = { paint: 0, shift: 0, taps: {} };
  new PerformanceObserver(list => { for (const one of list.getEntries()) vitals.paint = one.startTime; })
    .observe({ type: 'largest-contentful-paint', buffered: true });
  new PerformanceObserver(list => { for (const one of list.getEntries())
    if (!one.hadRecentInput) vitals.shift += one.value; }).observe({ type: 'layout-shift', buffered: true });
  new PerformanceObserver(list => { for (const one of list.getEntries()) if (one.interactionId)
    vitals.taps[one.interactionId] = Math.max(vitals.taps[one.interactionId] ?? 0, one.duration); })
    .observe({ type: 'event', buffered: true, durationThreshold: 16 });
})()"""
COUNTS = """(() => {
  let n = 0;
  document.body.style.minHeight = '100vh';
  document.body.addEventListener('click', () => { document.body.textContent = `${++n}`; });
})()"""
SETTLED = "() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))"


class _Compressed(http.server.SimpleHTTPRequestHandler):
    """The bare page, served as compressed as ours is."""

    def log_message(self, format: str, *args: object) -> None:
        """Say nothing."""

    def do_GET(self) -> None:
        file = Path(self.translate_path(self.path))
        file = file / "index.html" if file.is_dir() else file
        body = gzip.compress(file.read_bytes())
        self.send_response(200)
        self.send_header("content-type", self.guess_type(str(file)))
        self.send_header("content-encoding", "gzip")
        self.send_header("content-length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)


@contextmanager
def bare_page() -> Iterator[str]:
    """The address of a page with nothing but Chakra and a word, to be measured against."""
    subprocess.run(
        ["npx", "vite", "build", "--config", "vite.bench.config.ts", "--logLevel=error"],
        cwd=FRONTEND,
        check=True,
        capture_output=True,
    )
    handler = partial(_Compressed, directory=str(FRONTEND / "dist-bench"))
    server = http.server.ThreadingHTTPServer(("127.0.0.1", free_port()), handler)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    try:
        yield f"http://127.0.0.1:{server.server_port}"
    finally:
        server.shutdown()


def bench_vitals(running: Running) -> None:
    """Three figures in one run, on the demo data."""
    with bare_page() as bare_address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        context = browser.new_context(base_url=running.address)
        enter(context)
        pools = context.request.get("/api/v1/pools?sort=name").json()["pools"]
        context.close()
        path = f"/pools/{pools[0]['id']}"
        # Turn by turn: a machine that is slower for a while is so for both.
        bares, own = [], []
        for _ in range(PAIRS):
            bares.append(_largest_paint(browser, bare_address, "/", "Bare", own=False))
            own.append(_largest_paint(browser, running.address, path, "Ahead", own=True))
        bare, ours = statistics.median(bares), statistics.median(own)
        print(
            f"largest paint of Today: {ours:.0f} ms, bare page {bare:.0f} ms, {ours / bare:.2f} x (bar: 1.5)"
        )
        shifts = {name: _shift(browser, running, path + end) for name, end in PAGES.items()}
        worst = max(shifts, key=lambda name: shifts[name])
        print(f"layout shift while a page comes: worst {shifts[worst]:.3f}, {worst} (bar: 0.02)")
        times: list[float] = []
        counted: list[float] = []
        for _ in range(SESSIONS):
            times += _taps(browser, running, path)
            counted += _bare_taps(browser, bare_address)
        p95, middle = _p95(times), statistics.median(times)
        print(
            f"interaction to next paint, processor {SLOWER} x slower: p95 {p95:.0f} ms of {len(times)} "
            f"interactions, median {middle:.0f} ms (bar: 100)"
        )
        p95, middle = _p95(counted), statistics.median(counted)
        print(
            f"  a bare page that counts its taps, in turn with it: p95 {p95:.0f} ms, median {middle:.0f} ms"
        )
        browser.close()


def _p95(times: list[float]) -> float:
    return sorted(times)[min(len(times) - 1, int(0.95 * len(times)))]


PAGES = {
    "Today":     "",
    "Test":      "/test",
    "Plan":      "/plan",
    "Log":       "/log",
    "Visit":     "/visit",
    "Care":      "/care",
    "Equipment": "/care/equipment",
    "Season":    "/season",
    "Pool":      "/setup",
}  # fmt: skip


def _context(browser: Browser, address: str, size: tuple[int, int]) -> BrowserContext:
    viewport = {"width": size[0], "height": size[1]}
    context = browser.new_context(service_workers="block", base_url=address, viewport=viewport)  # type: ignore[arg-type]
    context.add_init_script(WATCH)
    return context


def _largest_paint(browser: Browser, address: str, path: str, ready: str, *, own: bool) -> float:
    """One look with nothing kept from before, in ms."""
    context = _context(browser, address, DESK)
    if own:
        enter(context)
    page = context.new_page()
    page.goto(path)
    page.get_by_text(ready, exact=True).first.wait_for()
    page.wait_for_load_state("networkidle")
    page.evaluate(SETTLED)
    paint = float(page.evaluate("vitals.paint"))
    context.close()
    return paint


def _shift(browser: Browser, running: Running, path: str) -> float:
    """The worse of phone and desk."""
    found = []
    for size in (PHONE, DESK):
        context = _context(browser, running.address, size)
        enter(context)
        page = context.new_page()
        page.goto(path)
        page.wait_for_load_state("networkidle")
        page.evaluate(SETTLED)
        found.append(float(page.evaluate("vitals.shift")))
        context.close()
    return max(found)


def _taps(browser: Browser, running: Running, path: str) -> list[float]:
    """A visit by hand on a slow phone: every tap and key until the page has answered on the screen."""
    context = _context(browser, running.address, PHONE)
    enter(context)
    page = context.new_page()
    page.goto(path)
    page.wait_for_load_state("networkidle")
    context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
    _visit(page)
    page.evaluate(SETTLED)
    times = [float(one) for one in page.evaluate("Object.values(vitals.taps)")]
    context.close()
    return times


def _bare_taps(browser: Browser, address: str) -> list[float]:
    """What this machine takes, just now, for the least that a tap can do: a number that goes up."""
    context = _context(browser, address, PHONE)
    page = context.new_page()
    page.goto("/")
    page.evaluate(COUNTS)
    context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
    for _ in range(BARE_TAPS):
        page.mouse.click(100, 100)
    page.evaluate(SETTLED)
    times = [float(one) for one in page.evaluate("Object.values(vitals.taps)")]
    context.close()
    return times


def _visit(page: Page) -> None:
    foot = page.get_by_role("navigation", name="Stations of this pool")
    foot.get_by_role("link", name="Test").click()
    line = page.get_by_label("Quick line, then Enter")
    line.wait_for()
    page.wait_for_load_state("networkidle")
    for field in ("Free chlorine", "pH"):
        for _ in range(STEPS_UP):
            page.get_by_role("button", name=f"{field}: more").click()
    line.press_sequentially("fc 2.5 ph 7.6 ta 70")
    line.press("Enter")
    for name in ("Plan", "Log", "Today"):
        foot.get_by_role("link", name=name).click()
        page.wait_for_load_state("networkidle")
