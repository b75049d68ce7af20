"""Cost of one pool's pages and of a round, with 100 and with 2000 pools in the workspace, as ratios.

One pool has five years in its journal. The others are rows with a summary and with totals of what was poured,
which is all that any page of another pool reads of them.
"""

import statistics
import time
from math import log
from uuid import uuid4

import httpx

from kumpan.tools.bench_list import FILL, ONE_ROW, SIZES
from kumpan.tools.loadtest import YEAR, fill
from kumpan.tools.serving import DATABASE, Running

YEARS, STOPS, TIMES = 5, 15, 25
BARS = {"today, 5 years": 6.0, "round of 15 stops": 10.0}
ONE_POOL = """
CREATE OR REPLACE TABLE {db}.made (id UUID PRIMARY KEY, source UUID NOT NULL, n INT NOT NULL);
INSERT INTO {db}.made VALUES ('{made}', '{source}', 1);
INSERT INTO {db}.pool (id, workspace_id, created_at, writes)
  SELECT '{made}', workspace_id, NOW(6), 0 FROM {db}.pool WHERE id = '{source}';
"""
POURED = """
INSERT IGNORE INTO {db}.poured_total
  SELECT pool.workspace_id, product.id, pool.id, 1000 FROM {db}.pool JOIN {db}.product USING (workspace_id);
"""


def bench_scale(running: Running) -> None:
    """Ratios against a signed-in request of one row, and how each grows with the number of pools."""
    with httpx.Client(base_url=running.address, headers=running.as_office, timeout=120) as client:
        fill(running, STOPS, 1)
        listed = client.get("/api/v1/pools?limit=200").raise_for_status().json()["pools"]
        old = _five_years(running, listed[0]["id"])
        cold_ms = _ms(client, f"/api/v1/pools/{old}/today")
        print(f"today of a pool of {YEARS} years, cold: {cold_ms:.0f} ms (bar: 200)")
        person = _drive(client, [old, *(pool["id"] for pool in listed)])
        pages = {
            "today, 5 years": f"/api/v1/pools/{old}/today",
            "board, 5 years": f"/api/v1/pools/{old}/board",
            "log, 5 years": f"/api/v1/pools/{old}/log",
            "round of 15 stops": f"/api/v1/round?weekday=0&person_id={person}",
            "what to buy": "/api/v1/shelf/to-buy",
        }
        found: dict[str, list[float]] = {name: [] for name in pages}
        have = len(listed) + 1
        for size in SIZES:
            rows = FILL.replace("{db}.seq", f"seq_1_to_{max(1, size - have)}").format(db=DATABASE)
            running.database.run_sql(f"USE {DATABASE}; {rows}" + POURED.format(db=DATABASE))
            have = size
            one_row = _median(client, ONE_ROW)
            for name, path in pages.items():
                times = _median(client, path)
                found[name].append(times)
                bar = f" (bar: {BARS[name]})" if name in BARS else ""
                print(f"{name}, {size} pools: {times:.1f} ms, {times / one_row:.2f} x one row{bar}")
        for name, (few, many) in found.items():
            slope = log(many / few) / log(SIZES[1] / SIZES[0])
            print(
                f"{name}: {many / few:.2f} x from {SIZES[0]} to {SIZES[1]} pools, log-log slope {slope:.3f}"
            )


def _five_years(running: Running, source: str) -> str:
    made = str(uuid4())
    running.database.run_sql(ONE_POOL.format(db=DATABASE, made=made, source=source))
    for year in range(YEARS):
        running.database.run_sql(YEAR.format(db=DATABASE, days=365 * year))
    running.database.run_sql(f"UPDATE {DATABASE}.pool SET writes = writes + 1 WHERE id = '{made}'")
    return made


def _drive(client: httpx.Client, pools: list[str]) -> str:
    """A round of so many stops on Mondays; whose it is."""
    person: str = client.get("/api/v1/people").raise_for_status().json()[0]["id"]
    round_ = {"id": str(uuid4()), "person_id": person, "weekday": 0, "stops": pools[:STOPS]}
    client.post("/api/v1/rounds", json=round_).raise_for_status()
    return person


def _ms(client: httpx.Client, path: str) -> float:
    began = time.perf_counter()
    client.get(path).raise_for_status()
    return (time.perf_counter() - began) * 1000


def _median(client: httpx.Client, path: str) -> float:
    client.get(path).raise_for_status()
    return statistics.median(_ms(client, path) for _ in range(TIMES))
