"""What a hand feels: frames while a marker is dragged, the answer to a nudge, from test to first step."""

import json
import statistics
import urllib.request

from playwright.sync_api import Browser, Page, sync_playwright

from kumpan.tools.browser import CHROMIUM, DESK, FLAGS, enter
from kumpan.tools.serving import Running

DRAG_MOVES = 120
NUDGES = 20
COUNT_FRAMES = """() => { window.frames_ = []; const beat = at => { window.frames_.push(at);
  window.beat_ = requestAnimationFrame(beat); }; requestAnimationFrame(beat); }"""
# Milliseconds from a save to the first line of the sheet, by the page's own clock.
TO_FIRST_STEP = """() => new Promise(done => { const began = performance.now();
  const look = () => document.querySelector('[data-step], [data-first-step]')
    ? done(performance.now() - began) : requestAnimationFrame(look);
  document.querySelector('form button[type=submit]').click(); requestAnimationFrame(look); })"""


def bench_hands(running: Running) -> None:
    """Three figures in one run of Chromium on the demo data."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        page = _board(browser, running)
        print(f"dragging a float: {_frames_a_second(page):.0f} frames a second (bar: 50)")
        times = _nudges(page)
        print(
            f"what if I aim here: median {statistics.median(times):.0f} ms, worst of {len(times)} "
            f"{max(times):.0f} ms to the eye (bar: 100)"
        )
        print(f"from saved test to first step: {_saved_to_step(page):.0f} ms (bar: 300)")
        browser.close()


def _board(browser: Browser, running: Running) -> Page:
    with urllib.request.urlopen(f"{running.address}/api/v1/pools?sort=name", timeout=10) as reply:
        pool = json.load(reply)["pools"][0]["id"]
    page = browser.new_page(viewport={"width": DESK[0], "height": DESK[1]}, base_url=running.address)
    enter(page.context)
    page.goto(f"/pools/{pool}")
    page.get_by_role("slider", name="Aim for pH").wait_for()
    page.wait_for_load_state("networkidle")
    return page


def _frames_a_second(page: Page) -> float:
    """While the pH float is dragged to and fro, by requestAnimationFrame."""
    handle = page.get_by_role("slider", name="Aim for pH")
    box = handle.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.evaluate(COUNT_FRAMES)
    for n in range(DRAG_MOVES):
        page.mouse.move(x - 40 + 60 * abs((n % 40) / 20 - 1), y)
    frames = page.evaluate("() => { cancelAnimationFrame(window.beat_); return window.frames_; }")
    page.mouse.up()
    return float(1000 * (len(frames) - 1) / (frames[-1] - frames[0]))


def _nudges(page: Page) -> list[float]:
    """From the key to the moved figure in the card beside, by the page's own clock."""
    page.get_by_role("button", name="Back to the usual aims").click()
    handle = page.get_by_role("slider", name="Aim for pH")
    handle.focus()
    times = []
    for n in range(NUDGES):
        key = "ArrowLeft" if n % 4 < 2 else "ArrowRight"
        times.append(
            float(
                page.evaluate(
                    """key => new Promise(done => {
                       const before = document.activeElement.getAttribute('aria-valuetext');
                    const began = performance.now();
                    document.activeElement.dispatchEvent(new KeyboardEvent('keydown', {key, bubbles: true}));
                    const look = () => document.activeElement.getAttribute('aria-valuetext') !== before
                      || performance.now() - began > 2000 ? done(performance.now() - began)
                      : requestAnimationFrame(look);
                    requestAnimationFrame(look); })""",
                    key,
                )
            )
        )
    return times


def _saved_to_step(page: Page) -> float:
    """A test that asks for a dose; until the board's sheet shows its first line."""
    page.goto(f"{page.url}/test")
    line = page.get_by_label("Quick line, then Enter")
    line.fill("fc 0.6 tc 0.8 ph 7.6 ta 70 ch 280 cya 65 salt 3100 82f")
    line.press("Enter")
    page.get_by_label("Salt", exact=True).wait_for()
    page.wait_for_load_state("networkidle")
    return float(page.evaluate(TO_FIRST_STEP))
