"""How long others wait while a model is fitted: the event loop's answers beside a cold outlook."""

import json
import statistics
import threading
import time
import urllib.request
from datetime import UTC, datetime, timedelta
from uuid import uuid4

from kumpan.tools.serving import Running

TESTS, POOLS = 20, 6
BAR_MS = 20.0


def _post(address: str, path: str, body: object) -> None:
    request = urllib.request.Request(
        f"{address}/api/v1{path}", json.dumps(body).encode(), {"content-type": "application/json"}
    )
    with urllib.request.urlopen(request, timeout=30) as reply:
        reply.read()


def _get(address: str, path: str) -> float:
    began = time.perf_counter()
    with urllib.request.urlopen(address + path, timeout=60) as reply:
        reply.read()
    return (time.perf_counter() - began) * 1000


def _pool(address: str) -> str:
    """A pool with a test every other day, of which nothing was asked yet."""
    pool, begun = str(uuid4()), datetime.now(UTC) - timedelta(days=2 * TESTS + 1)
    settings = {"name": f"Bench {pool[:6]}", "time_zone": "America/Chicago"}
    body = {
        "id": pool,
        "entry_ids": [str(uuid4()) for _ in range(3)],
        "at": begun.isoformat(),
        "settings": settings,
        "basin": {"unit": "ft", "volume": "20000", "volume_unit": "gal"},
        "equipment": {"surface": "plaster", "chlorination": "liquid", "filter": "sand"},
    }
    _post(address, "/pools", body)
    for n in range(TESTS):
        fields = {
            "free_chlorine": str(2 + n % 4),
            "ph": "7.6",
            "cyanuric_acid": "40",
            "total_alkalinity": "90",
        }
        at = (begun + timedelta(days=2 * n + 1)).isoformat()
        _post(
            address, f"/pools/{pool}/tests", {"id": str(uuid4()), "at": at, "kit": "drops", "fields": fields}
        )
    return pool


def bench_event_loop(running: Running) -> None:
    """Health answers while outlooks of pools with 20 tests are worked out for the first time."""
    pools = [_pool(running.address) for _ in range(POOLS)]
    waited: list[float] = []
    took: list[float] = []
    for pool in pools:
        path = f"/api/v1/pools/{pool}/outlook"
        work = threading.Thread(target=lambda path=path: took.append(_get(running.address, path)))
        work.start()
        while work.is_alive():
            waited.append(_get(running.address, "/api/health"))
    waited.sort()
    p95 = waited[int(len(waited) * 0.95)]
    print(
        f"health while a cold outlook of {TESTS} tests ({statistics.median(took):.0f} ms) is worked out: "
        f"median "
        f"{statistics.median(waited):.1f} ms, p95 {p95:.1f} ms of {len(waited)} (bar: {BAR_MS:.0f})"
    )
