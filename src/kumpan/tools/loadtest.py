"""`./run loadtest`: many pools, made in bulk out of the demo's seasons, and many clients at once.

It says what came of it: requests a second, p50 and p95 by kind, errors, memory of each process, and whether
`/api/health` was answered at once all the while. Only ever against the server that it started itself.
"""

import argparse
import asyncio
import random
import statistics
import sys
import tempfile
import time
from collections.abc import Awaitable, Callable, Mapping
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field
from multiprocessing import get_context
from pathlib import Path
from uuid import uuid4

import httpx

from kumpan.tools.console import stage
from kumpan.tools.ports import free_port
from kumpan.tools.serving import DATABASE, Running

SEED, TIMEOUT_S, HEALTH_EVERY_S = 20_261_128, 60.0, 0.2
# Each new pool has the journal of one of the demo's, year by year back.
POOLS = """
CREATE TABLE {db}.made (id UUID PRIMARY KEY, source UUID NOT NULL, n INT NOT NULL);
INSERT INTO {db}.made SELECT UUID(), demo.id, seq FROM {db}.seq_1_to_{count}, (
  SELECT id, ROW_NUMBER() OVER (ORDER BY id) - 1 AS place, COUNT(*) OVER () AS all_ FROM {db}.pool) AS demo
  WHERE demo.place = seq % demo.all_;
INSERT INTO {db}.pool (id, workspace_id, created_at, archived_at, writes)
  SELECT made.id, pool.workspace_id, NOW(6), NOW(6), 0 FROM {db}.made JOIN {db}.pool ON pool.id = made.source;
"""
YEAR = """
INSERT INTO {db}.entry (id, workspace_id, pool_id, person_id, kind, at, recorded_at, supersedes, body)
  SELECT UUID(), entry.workspace_id, made.id, entry.person_id, entry.kind,
    entry.at - INTERVAL {days} DAY, entry.recorded_at - INTERVAL {days} DAY, NULL, entry.body
  FROM {db}.made JOIN {db}.entry ON entry.pool_id = made.source;
"""


@dataclass
class Found:
    """What came of one kind of request."""

    ms: list[float] = field(default_factory=list)
    errors: list[str] = field(default_factory=list)

    def line(self, name: str, seconds: float) -> str:
        """A row of the table."""
        rate, ordered = len(self.ms) / seconds, sorted(self.ms)
        p95 = ordered[int(0.95 * (len(ordered) - 1))] if ordered else float("nan")
        middle = statistics.median(ordered) if ordered else float("nan")
        return f"| {name} | {rate:.1f} | {middle:.0f} | {p95:.0f} | {len(self.errors)} |"


Work = Callable[[httpx.AsyncClient, str], Awaitable[httpx.Response]]
MIX: Mapping[str, tuple[int, Work]] = {
    "list": (3, lambda client, _: client.get("/api/v1/pools?limit=50")),
    "search": (2, lambda client, _: client.get("/api/v1/pools?limit=50&query=lane")),
    "today": (5, lambda client, pool: client.get(f"/api/v1/pools/{pool}/today")),
    "board": (3, lambda client, pool: client.get(f"/api/v1/pools/{pool}/board")),
    "log": (1, lambda client, pool: client.get(f"/api/v1/pools/{pool}/log")),
    "test": (2, lambda client, pool: client.post(f"/api/v1/pools/{pool}/tests", json=_test())),
    "look": (2, lambda client, pool: client.post(f"/api/v1/pools/{pool}/looks", json=_look())),
}


def _test() -> dict[str, object]:
    return {"id": str(uuid4()), "fields": {"free_chlorine": "3", "ph": "7.5"}, "kit": "drops"}


def _look() -> dict[str, object]:
    return {"id": str(uuid4()), "clarity": "clear", "level": "normal"}


def fill(running: Running, pools: int, years: int) -> None:
    """Pools with journals, in bulk."""
    sql = POOLS.format(db=DATABASE, count=pools)
    running.database.run_sql(f"USE {DATABASE}; {sql}")
    for year in range(years):
        running.database.run_sql(YEAR.format(db=DATABASE, days=365 * year))
    # Archived until then, so that nobody reads a pool before its journal is there.
    running.database.run_sql(f"UPDATE {DATABASE}.pool SET archived_at = NULL, writes = writes + 1")


def wait_for_summaries(running: Running) -> None:
    """Until every pool has one: what the first start after an upgrade does."""
    while running.database.count(DATABASE, "pool_summary") < running.database.count(DATABASE, "pool"):
        time.sleep(0.5)


async def drive(running: Running, clients: int, seconds: float) -> tuple[dict[str, Found], Found]:
    """So many clients, each asking one thing after the other; and health beside them."""
    found = {name: Found() for name in MIX}
    limits = httpx.Limits(max_connections=clients + 5)
    async with httpx.AsyncClient(
        base_url=running.address, headers=running.as_office, timeout=TIMEOUT_S, limits=limits
    ) as client:
        listed = (await client.get("/api/v1/pools?limit=200")).raise_for_status().json()["pools"]
        ids = [pool["id"] for pool in listed]
        ends = time.monotonic() + seconds
        names, weights = list(MIX), [weight for weight, _ in MIX.values()]

        async def one(number: int) -> None:
            chance = random.Random(SEED + number)
            while time.monotonic() < ends:
                name = chance.choices(names, weights)[0]
                await _timed(found[name], MIX[name][1](client, chance.choice(ids)))

        with ProcessPoolExecutor(1, get_context("spawn")) as beside:
            watching = asyncio.wrap_future(beside.submit(watch, running.address, seconds))
            await asyncio.gather(*(one(number) for number in range(clients)))
            return found, await watching


def watch(address: str, seconds: float) -> Found:
    """How soon the server says that it lives, asked by a process with nothing else to do."""
    health, ends = Found(), time.monotonic() + seconds
    with httpx.Client(base_url=address, timeout=TIMEOUT_S) as client:
        while time.monotonic() < ends:
            began = time.perf_counter()
            try:
                client.get("/api/health").raise_for_status()
                health.ms.append((time.perf_counter() - began) * 1000)
            except httpx.HTTPError as trouble:
                health.errors.append(type(trouble).__name__)
            time.sleep(HEALTH_EVERY_S)
    return health


async def _timed(found: Found, request: Awaitable[httpx.Response]) -> None:
    began = time.perf_counter()
    try:
        reply = await request
    except httpx.HTTPError as trouble:
        found.errors.append(type(trouble).__name__)
        return
    if reply.status_code >= 400:
        found.errors.append(f"{reply.status_code} {reply.text[:120]}")
        return
    found.ms.append((time.perf_counter() - began) * 1000)


def memory_mb(pid: int) -> dict[str, float]:
    """Resident memory of a process and of each that it started, MB, by name and id."""
    found: dict[str, float] = {}
    waiting = [pid]
    while waiting:
        one = Path(f"/proc/{waiting.pop()}")
        try:
            status = dict(line.split(":", 1) for line in (one / "status").read_text().splitlines())
            for children in one.glob("task/*/children"):  # each thread has its own
                waiting += [int(child) for child in children.read_text().split()]
        except (FileNotFoundError, ProcessLookupError):
            continue
        found[f"{status['Name'].strip()} {one.name}"] = int(status.get("VmRSS", "0 kB").split()[0]) / 1024
    return found


def main(arguments: list[str]) -> int:
    """Fill, drive, and print the tables."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--pools", type=int, default=200)
    parser.add_argument("--years", type=int, default=1)
    parser.add_argument("--clients", type=int, default=50)
    parser.add_argument("--seconds", type=float, default=60)
    parser.add_argument("--workers", type=int, default=1)
    given = parser.parse_args(arguments)
    with tempfile.TemporaryDirectory(prefix="kumpan load ") as folder:
        running = Running(free_port(), Path(folder), workers=given.workers)
        try:
            running.start(demo=True)
            with stage(f"{given.pools} pools of {given.years} years"):
                fill(running, given.pools, given.years)
            began = time.monotonic()
            with stage("Summaries, made by the background"):
                wait_for_summaries(running)
            print(f"{given.pools / (time.monotonic() - began):.1f} new summaries a second")
            with stage(f"{given.clients} clients for {given.seconds:.0f} s"):
                found, health = asyncio.run(drive(running, given.clients, given.seconds))
            print("| request | a second | p50, ms | p95, ms | errors |\n|---|---|---|---|---|")
            for name, one in {**found, "health": health}.items():
                print(one.line(name, given.seconds))
            for what, process in (("web", running.web), ("MariaDB", running.database.process)):
                assert process is not None
                print(f"{what}: " + ", ".join(f"{mb:.0f} MB" for mb in memory_mb(process.pid).values()))
            errors = sorted({error for one in found.values() for error in one.errors})
            print("\n".join(errors[:10]))
        finally:
            running.stop()
    return 1 if errors else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
