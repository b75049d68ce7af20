"""Speed of the list of pools with 100 and with 2000 of them, against a signed-in request of one row.

The pools are rows with a summary each, copied from one of the demo's: a list reads nothing else of them,
whatever the years in their journals.
"""

import statistics
import time
from math import log

import httpx

from kumpan.tools.serving import DATABASE, Running

SIZES, TIMES = (100, 2000), 60
BAR = 5.0
ONE_ROW = "/api/v1/habits"
LISTS = {
    "attention first": "/api/v1/pools?sort=attention&limit=50",
    "by name": "/api/v1/pools?sort=name&limit=50",
    "searched": "/api/v1/pools?sort=tested&limit=50&query=lane 17",
}
FILL = """
INSERT INTO {db}.pool (id, workspace_id, created_at, writes)
  SELECT UUID(), pool.workspace_id, NOW(6), 0
  FROM {db}.seq, (SELECT * FROM {db}.pool_summary WHERE unreadable = '' LIMIT 1) AS pool;
INSERT INTO {db}.pool_summary
  SELECT one.workspace_id, pool.id, CONCAT('Pool ', LEFT(pool.id, 8)),
    CONCAT('pool in lane ', RIGHT(pool.id, 3)),
    CRC32(pool.id) % 7, NOW(6) - INTERVAL CRC32(pool.id) % 900 HOUR, one.made_at,
    NOW(6) + INTERVAL 1 YEAR,
    0, one.workspace_writes, one.program, '', one.rendered, one.returns, one.needs, one.visit
  FROM {db}.pool AS pool LEFT JOIN {db}.pool_summary AS known ON known.pool_id = pool.id,
    (SELECT * FROM {db}.pool_summary WHERE unreadable = '' LIMIT 1) AS one
  WHERE known.pool_id IS NULL;
"""


def bench_list(running: Running) -> None:
    """Ratios for each size, and how the time grows from the one to the other."""
    found: dict[str, list[float]] = {name: [] for name in LISTS}
    with httpx.Client(base_url=running.address, headers=running.as_office, timeout=120) as client:
        have = len(client.get("/api/v1/pools?limit=200").raise_for_status().json()["pools"])
        for size in SIZES:
            fill = FILL.replace("{db}.seq", f"seq_1_to_{size - have}").format(db=DATABASE)
            running.database.run_sql(f"USE {DATABASE}; {fill}")
            have = size
            one_row = _median(client, ONE_ROW)
            for name, path in LISTS.items():
                times = _median(client, path)
                found[name].append(times)
                ratio = f"{times / one_row:.2f} x one row (bar: {BAR})"
                print(f"list of {size} pools, {name}: {times:.1f} ms, {ratio}")
    small, large = SIZES
    for name, (few, many) in found.items():
        slope = log(many / few) / log(large / small)
        print(f"list, {name}: {many / few:.2f} x from {small} to {large} pools, log-log slope {slope:.3f}")


def _median(client: httpx.Client, path: str) -> float:
    times = []
    for _ in range(TIMES):
        began = time.perf_counter()
        client.get(path).raise_for_status()
        times.append((time.perf_counter() - began) * 1000)
    return statistics.median(times)
