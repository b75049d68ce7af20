"""The rescue board's and the practice pool's speed, beside the head of a pool in the same run."""

import json
import statistics
import time
import urllib.request
from collections.abc import Callable

from kumpan.tools.serving import Running

TIMES = 15
GREEN = "Tannery Yard"
MOVES = [
    {"kind": "full_test"},
    *({"kind": kind} for _ in range(5) for kind in ("wait_evening", "test", "wait_morning")),
]


def bench_rescue(running: Running) -> None:
    """The board of a green pool as it would be begun, and ten days of practice played anew."""
    address = f"{running.address}/api/v1"
    pool = next(p["id"] for p in json.loads(_get(f"{address}/pools")) if p["settings"]["name"] == GREEN)
    head = _median(lambda: _get(f"{address}/pools/{pool}"))
    board = _median(lambda: _get(f"{address}/pools/{pool}/rescue"))
    body = json.dumps({"scenario": "holiday", "seed": 3, "moves": MOVES}).encode()
    game = _median(lambda: _post(f"{address}/practice/play", body))
    review = _median(lambda: _post(f"{address}/practice/play", body[:-1] + b', "finished": true}'), 3)
    print(
        f"rescue board {board:.0f} ms against a pool's head {head:.1f} ms; a practice game of "
        f"{len(MOVES)} moves {game:.0f} ms, "
        f"its review with the planner's run {review:.0f} ms"
    )


def _median(work: Callable[[], object], times: int = TIMES) -> float:
    work()
    found = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        found.append((time.perf_counter() - began) * 1000)
    return statistics.median(found)


def _get(url: str) -> bytes:
    with urllib.request.urlopen(url, timeout=60) as reply:
        answer: bytes = reply.read()
        return answer


def _post(url: str, body: bytes) -> bytes:
    request = urllib.request.Request(url, body, {"content-type": "application/json"})
    with urllib.request.urlopen(request, timeout=60) as reply:
        answer: bytes = reply.read()
        return answer
