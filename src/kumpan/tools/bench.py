"""`./run bench`: speed as ratios in one run, so that the machine does not matter."""

import gzip
import json
import statistics
import tempfile
import time
import urllib.request
from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime
from functools import partial
from pathlib import Path

from playwright.sync_api import Browser, sync_playwright

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.dosing.balance import for_both
from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.forecast.conditions import Place
from kumpan.core.forecast.fit import fit
from kumpan.core.forecast.forecast import forecast
from kumpan.core.journal import PoolState, fold
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.quantities.readings import Readings
from kumpan.core.simulation.carer import Report
from kumpan.core.simulation.study import entries
from kumpan.demo.scenario import pools
from kumpan.demo.season import season
from kumpan.tools.bench_care import bench_due, bench_today
from kumpan.tools.bench_firm import bench_firm
from kumpan.tools.bench_hands import bench_hands
from kumpan.tools.bench_list import bench_list
from kumpan.tools.bench_loop import bench_event_loop
from kumpan.tools.bench_people import bench_people
from kumpan.tools.bench_rescue import bench_rescue
from kumpan.tools.bench_scale import bench_scale
from kumpan.tools.bench_vitals import bare_page, bench_vitals
from kumpan.tools.browser import CHROMIUM, FLAGS, enter
from kumpan.tools.packages import DIST
from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running

RUNS = 200
BENCH_DAY = datetime(2026, 9, 18, 17, 40, tzinfo=UTC)
COLD_CONTEXTS = 7
READINGS = {
    "free_chlorine": 1, "total_chlorine": 1.2, "ph": 7.9, "total_alkalinity": 70, "calcium_hardness": 180,
    "cyanuric_acid": 25, "temperature_c": 27,
}  # fmt: skip
POOL = {"volume_l": 75708, "surface": "plaster", "chlorination": "liquid", "filter": "sand"}
TWELVE = [
    {"id": key, "chemical": key, "strength_percent": row.usual_strength_percent}
    for key, row in list(CATALOGUE.items())[:13]
    if key != "potassium_monopersulfate"
]
CALLS: dict[str, tuple[str, object]] = {
    "analysis": ("/api/v1/water/analysis", {"readings": READINGS}),
    "after": (
        "/api/v1/water/after",
        {
            "readings": READINGS,
            "volume_l": 75708,
            "additions": [{"chemical": "sodium_bicarbonate", "strength_percent": 100, "mass_g": 2000}],
        },
    ),
    "preview": (
        "/api/v1/treatments/preview",
        {"pool": POOL, "readings": READINGS, "school": "household", "shelf": None},
    ),
    "preview, 12 products (bar: p95 60)": (
        "/api/v1/treatments/preview",
        {"pool": POOL, "readings": READINGS, "school": "household", "shelf": TWELVE},
    ),
}


def milliseconds(work: Callable[[], object], runs: int = RUNS) -> list[float]:
    """Sorted times of `runs` calls, after a few to warm up."""
    for _ in range(10):
        work()
    times = []
    for _ in range(runs):
        began = time.perf_counter()
        work()
        times.append((time.perf_counter() - began) * 1000)
    return sorted(times)


def p95(times: list[float]) -> float:
    """The 95th percentile of some times."""
    return times[int(len(times) * 0.95)]


def call(address: str, path: str, body: object | None) -> bytes:
    """One request's answer."""
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(address + path, data, {"content-type": "application/json"})
    with urllib.request.urlopen(request, timeout=30) as reply:
        answer: bytes = reply.read()
        return answer


def bench_engine() -> None:
    """The engine against PHREEQC (phreeqpython with phreeqc.dat) in the same run."""
    import numpy as np
    import phreeqpython

    readings = Readings(
        free_chlorine=2,
        ph=7.6,
        total_alkalinity=100,
        calcium_hardness=250,
        cyanuric_acid=40,
        salt=1500,
        temperature_c=26,
    )
    known = known_from(readings)
    assert known is not None
    state = solve_readings(known)
    assert isinstance(state, State)
    folder = Path(phreeqpython.__file__).parent / "database"
    phreeqc = phreeqpython.PhreeqPython(database="phreeqc.dat", database_directory=folder)

    def theirs() -> None:
        solution = phreeqc.add_solution(
            {"temp": 26, "pH": 7.6, "Alkalinity": 2.0, "Ca": 2.5, "Cl": 25, "Na": "22 charge"}
        )
        solution.si("Calcite")
        solution.forget()

    def ours() -> float:
        found = solve_readings(known)
        assert isinstance(found, State)
        return float(saturation_index(found))

    many = replace(known, ph=np.linspace(7.0, 8.4, 1000))  # type: ignore[arg-type]

    def thousand() -> None:
        found = solve_readings(many)
        assert isinstance(found, State)
        saturation_index(found)

    base = statistics.median(milliseconds(theirs))
    single = statistics.median(milliseconds(ours))
    each = statistics.median(milliseconds(thousand, 20)) / 1000
    inverse = statistics.median(
        milliseconds(
            lambda: for_both(
                state.totals, 7.4, alkalinity_mg_l=120.0, volume_l=75708.0, inventory=STANDARD_INVENTORY
            )
        )
    )
    print(f"PHREEQC, one water: {base:.2f} ms")
    print(f"engine, one analysis: {single:.2f} ms, {single / base:.2f} x PHREEQC (aim: 1)")
    print(f"engine, 1000 waters at once: {each:.4f} ms each, {base / each:.0f} times faster (aim: 5)")
    print(f"inverse dose, pH and alkalinity: {inverse:.2f} ms (aim: 5)")


def bench_forecast() -> None:
    """Fit and two weeks' forecast of each demo pool's season."""
    worst = 0.0
    for demo in pools():
        reported = [Report(0.0, demo.basin), *(line.reported for line in season(demo, BENCH_DAY))]
        state = fold(entries(reported, demo.key))
        place = Place(
            volume_l=demo.basin.volume_l,
            latitude_deg=29.0,
            longitude_deg=-95.5,
            indoor=demo.equipment.traits.indoor,
        )

        def fitted(state: PoolState = state, place: Place = place) -> None:
            found = fit(state, place)
            assert found is not None
            forecast(state, place, found, found.last_at_s + 14 * 86_400)

        worst = max(worst, statistics.median(milliseconds(fitted, 5)))
    print(f"fit and forecast of one pool's season: {worst:.0f} ms for the slowest of five pools (bar: 300)")


def bench_http(running: Running) -> None:
    """The heavy requests over HTTP, as multiples of one that does nothing."""
    no_op = milliseconds(lambda: call(running.address, "/api/health", None))
    print(f"no-op over HTTP: median {statistics.median(no_op):.2f} ms")
    for name, (path, body) in CALLS.items():
        times = milliseconds(partial(call, running.address, path, body))
        ratio = statistics.median(times) / statistics.median(no_op)
        print(
            f"{name}: median {statistics.median(times):.2f} ms, p95 {p95(times):.2f} ms, {ratio:.1f} x no-op"
        )
    pools = json.loads(call(running.address, "/api/v1/pools?sort=name", None))["pools"]
    path = f"/api/v1/pools/{pools[0]['id']}/sheet"
    began = time.perf_counter()
    call(running.address, path, None)
    first = (time.perf_counter() - began) * 1000
    times = milliseconds(partial(call, running.address, path, None))
    began = time.perf_counter()
    call(running.address, f"/api/v1/pools/{pools[4]['id']}/ways", None)
    print(f"ways side by side, first time: {(time.perf_counter() - began) * 1000:.0f} ms (bar: 1000)")
    print(
        f"sheet of a stored pool: first time {first:.0f} ms (its doubt is reckoned), again median "
        f"{statistics.median(times):.2f} ms, p95 {p95(times):.2f} ms"
    )


def first_paint_ms(browser: Browser, address: str, ready: str, *, sign_in: bool = False) -> float:
    """Median over cold contexts until the page's content stands."""
    times = []
    for _ in range(COLD_CONTEXTS):
        context = browser.new_context(service_workers="block", base_url=address)
        if sign_in:
            enter(context)
        page = context.new_page()
        began = time.perf_counter()
        page.goto(address)
        page.get_by_text(ready, exact=True).first.wait_for()
        times.append((time.perf_counter() - began) * 1000)
        context.close()
    return statistics.median(times)


def bench_first_page(running: Running) -> None:
    """From a cold browser to the first page."""
    with bare_page() as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        bare = first_paint_ms(browser, f"{address}/", "Bare")
        ours = first_paint_ms(browser, running.address, "Pools", sign_in=True)
        browser.close()
    print(f"first page: {ours:.0f} ms, bare Chakra page {bare:.0f} ms, {ours / bare:.2f} x (bar: 2)")


def bench_size() -> None:
    """What a first visit loads."""
    entry = DIST / "index.html"
    names = [part.split('"')[0] for part in entry.read_text().split("/assets/")[1:]]
    first = sum(len(gzip.compress((DIST / "assets" / n).read_bytes())) for n in names if n.endswith(".js"))
    every = sum(len(gzip.compress(f.read_bytes())) for f in (DIST / "assets").glob("*.js"))
    print(
        f"JavaScript gzipped: first load {first / 1000:.0f} kB (bar: 200), "
        f"all stations {every / 1000:.0f} kB (bar: 350)"
    )


def main() -> None:
    """All figures of one run."""
    bench_size()
    bench_engine()
    bench_forecast()
    bench_due(BENCH_DAY)
    bench_firm()
    with tempfile.TemporaryDirectory(prefix="kumpan bench ") as folder:
        running = Running(free_port(), Path(folder))
        try:
            running.start(demo=True)
            running.ask_as_office()
            bench_http(running)
            bench_people(running)
            bench_first_page(running)
            bench_hands(running)
            bench_vitals(running)
            bench_rescue(running)
            bench_today(running)
            bench_event_loop(running)
            bench_list(running)  # the last here: it fills the database with pools
        finally:
            running.stop()
    with tempfile.TemporaryDirectory(prefix="kumpan bench ") as folder:
        running = Running(free_port(), Path(folder))
        try:
            running.start(demo=True)
            bench_scale(running)
        finally:
            running.stop()


if __name__ == "__main__":
    main()
