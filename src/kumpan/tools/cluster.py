"""`./run cluster`: three database nodes and two web processes behind HAProxy, all on loopback.

With `--trial` a node and a web process are killed in the middle of writes, and it is said what came of it:
every acknowledged entry must be there on the other nodes, none doubled, and writes go on.
"""

import argparse
import asyncio
import os
import re
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from itertools import pairwise
from pathlib import Path
from uuid import uuid4

import httpx

from kumpan.tools import processes
from kumpan.tools.console import Stop, stage
from kumpan.tools.galera import PASSWORD, STARTS_WITHIN_S, USER, Galera, Node
from kumpan.tools.packages import ROOT
from kumpan.tools.ports import free_ports
from kumpan.tools.serving import PYTHON, answers, environment, prepare

HAPROXY = "/usr/sbin/haproxy"
OURS = ROOT / "deploy" / "haproxy.cfg"
IN_THE_FILE = ("8000", "8001", "8002", "3307", "3311", "3312", "3313", "3321", "3322", "3323")
WRITERS, PAUSE_S, PATIENCE_S = 8, 0.05, 10.0


class Cluster:
    """Galera, two web processes, the checker and HAProxy; `start()` returns when pages are answered."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.galera = Galera(folder)
        self.ports = dict(zip(IN_THE_FILE, free_ports(len(IN_THE_FILE)), strict=True))
        for node, port in zip(self.galera.nodes, ("3311", "3312", "3313"), strict=True):
            self.ports[port] = node.ports.sql
        self.programs: dict[str, subprocess.Popen[bytes]] = {}

    @property
    def address(self) -> str:
        """Where HAProxy answers for the web processes."""
        return f"http://127.0.0.1:{self.ports['8000']}"

    @property
    def url(self) -> str:
        """The database behind HAProxy."""
        where = f"127.0.0.1:{self.ports['3307']}/kumpan?charset=utf8mb4"
        return f"mariadb+asyncmy://{USER}:{PASSWORD}@{where}"

    @property
    def as_office(self) -> dict[str, str]:
        """The header with which the demo's office asks."""
        return {"authorization": f"Bearer {(self.folder / 'api-token').read_text().strip()}"}

    def start(self) -> None:
        """All parts. Raises Stop where one of them does not come up."""
        with stage("Three nodes of MariaDB"):
            self.galera.start()
        checks = ("3321", "3322", "3323")
        sockets = [f"{self.ports[c]}={n.socket}" for c, n in zip(checks, self.galera.nodes, strict=True)]
        self._launch("checker", [PYTHON, "-m", "kumpan.tools.node_check", *sockets])
        (self.folder / "haproxy.cfg").write_text(with_ports(OURS.read_text(), self.ports))
        self._launch("haproxy", [HAPROXY, "-db", "-f", str(self.folder / "haproxy.cfg")])
        with stage("Demo data"):
            self._until(lambda: _connects(self.ports["3307"]), "HAProxy reaches no node")
            prepare(self.url, demo=self.folder / "api-token", backups=self.folder / "backups")
        with stage("Two web processes"):
            for name in ("web1", "web2"):
                self.start_web(name)
            self._until(lambda: answers(f"{self.address}/api/ready"), "no web process is ready")

    def start_web(self, name: str) -> None:
        """One web process on its port."""
        port = self.ports["8001" if name == "web1" else "8002"]
        program = ("kumpan.web.main:create_app", "--factory", "--host", "127.0.0.1", "--port", str(port))
        options = ("--log-level", "warning", "--proxy-headers", "--forwarded-allow-ips", "127.0.0.1")
        self._launch(name, [PYTHON, "-m", "uvicorn", *program, *options])

    def kill(self, name: str) -> None:
        """As when its machine loses power."""
        os.killpg(self.programs[name].pid, signal.SIGKILL)
        self.programs[name].wait()

    def stop(self) -> None:
        """End all that was started here."""
        for process in self.programs.values():
            if process.poll() is None:
                os.killpg(process.pid, signal.SIGTERM)
        for process in self.programs.values():
            try:
                process.wait(4)
            except subprocess.TimeoutExpired:
                os.killpg(process.pid, signal.SIGKILL)
                process.wait()
        self.galera.stop()

    def _launch(self, name: str, command: list[str]) -> None:
        around = environment(self.url, more={"KUMPAN_DEMO": "true", "KUMPAN_LOG_LEVEL": "ERROR"})
        with (self.folder / f"{name}.log").open("ab") as out:
            started = subprocess.Popen(
                command, cwd=ROOT, env=around, stdout=out, stderr=out, start_new_session=True
            )
        processes.remember(self.folder / f"{name}.pid.json", started.pid)
        self.programs[name] = started

    def _until(self, holds: Callable[[], bool], trouble: str) -> None:
        deadline = time.monotonic() + STARTS_WITHIN_S
        while time.monotonic() < deadline:
            if holds():
                return
            time.sleep(0.1)
        raise Stop(f"The cluster did not come up: {trouble}; its logs are in {self.folder}.")


def with_ports(config: str, own: dict[str, int]) -> str:
    """HAProxy's file with other ports; all at once, so that no new one is taken for one to be replaced."""
    return re.sub(r"(?<=[: ])\d{4}\b", lambda found: str(own.get(found[0], found[0])), config)


def _connects(port: int) -> bool:
    """Whether a database answers through HAProxy."""
    command = ["mariadb", "--no-defaults", f"-u{USER}", f"-p{PASSWORD}", "-h127.0.0.1", f"-P{port}"]
    done = subprocess.run([*command, "-e", "SELECT 1"], capture_output=True, check=False)
    return done.returncode == 0


@dataclass
class Written:
    """What writers were told: the ids acknowledged, and the longest time without any."""

    acknowledged: list[str] = field(default_factory=list)
    at: list[float] = field(default_factory=list)
    refused: int = 0

    @property
    def longest_gap_s(self) -> float:
        """Between two acknowledged writes of anybody."""
        ordered = sorted(self.at)
        return max((b - a for a, b in pairwise(ordered)), default=0.0)


async def write_until(stop: asyncio.Event, cluster: Cluster, written: Written) -> None:
    """As pages do: what is not acknowledged is sent again with its id until it is."""
    async with httpx.AsyncClient(
        base_url=cluster.address, headers=cluster.as_office, timeout=PATIENCE_S
    ) as client:
        found = (await client.get("/api/v1/pools?limit=200")).raise_for_status().json()["pools"]
        pools = [pool["id"] for pool in found]

        async def one(number: int) -> None:
            while not stop.is_set():
                body = {"id": str(uuid4()), "kind": "storm", "note": f"writer {number}"}
                pool = pools[number % len(pools)]
                while not await _sent(client, f"/api/v1/pools/{pool}/events", body):
                    written.refused += 1
                    await asyncio.sleep(PAUSE_S)
                written.acknowledged.append(body["id"])
                written.at.append(time.monotonic())

        await asyncio.gather(*(one(number) for number in range(WRITERS)))


async def _sent(client: httpx.AsyncClient, path: str, body: dict[str, str]) -> bool:
    try:
        reply = await client.post(path, json=body)
    except httpx.HTTPError:
        return False
    if reply.status_code in (502, 503, 504):
        return False
    reply.raise_for_status()
    return True


@dataclass(frozen=True, kw_only=True)
class Trial:
    """What came of killing parts in the middle of writes."""

    written: int
    lost: int
    doubled: int
    gap_node_s: float
    gap_web_s: float
    rejoined_s: float
    alike: bool

    def lines(self) -> str:
        """As a table."""
        rows = (
            ("entries acknowledged", self.written),
            ("of them lost", self.lost),
            ("doubled", self.doubled),
            ("longest time without a write: the active node killed", f"{self.gap_node_s:.1f} s"),
            ("the same: a web process killed", f"{self.gap_web_s:.1f} s"),
            ("the node is back and synced after", f"{self.rejoined_s:.1f} s"),
            ("all three nodes hold the same entries", "yes" if self.alike else "NO"),
        )
        return "\n".join(
            ["| what | measured |", "|---|---|", *(f"| {name} | {value} |" for name, value in rows)]
        )


async def trial(cluster: Cluster, seconds: float = 5.0) -> Trial:
    """Writes go on all the while: `seconds` before and after each kill."""
    first, *others = cluster.galera.nodes
    rounds: list[Written] = []

    async def during(kill: Callable[[], None]) -> Written:
        written, stop = Written(), asyncio.Event()
        writing = asyncio.create_task(write_until(stop, cluster, written))
        await asyncio.sleep(seconds)
        await asyncio.to_thread(kill)
        await asyncio.sleep(seconds + PATIENCE_S)
        stop.set()
        await writing
        rounds.append(written)
        return written

    gap_node_s = (await during(first.kill)).longest_gap_s
    rejoined_s = await asyncio.to_thread(first.start)
    gap_web_s = (await during(lambda: cluster.kill("web1"))).longest_gap_s
    cluster.start_web("web1")
    told = [id_ for written in rounds for id_ in written.acknowledged]
    held = [await asyncio.to_thread(_events, node) for node in (first, *others)]
    return Trial(
        written=len(told),
        lost=sum(1 for id_ in told if any(id_ not in one for one in held)),
        doubled=max(len(one) - len(set(one)) for one in held),
        gap_node_s=gap_node_s,
        gap_web_s=gap_web_s,
        rejoined_s=rejoined_s,
        alike=all(sorted(one) == sorted(held[0]) for one in held),
    )


def _events(node: Node) -> list[str]:
    node.ask("SET SESSION wsrep_sync_wait = 1; SELECT 1")
    return node.ask("SELECT id FROM kumpan.entry WHERE kind = 'event'").split()


def main(arguments: list[str]) -> int:
    """Start, try or wait, end."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--trial", action="store_true")
    given = parser.parse_args(arguments)
    with tempfile.TemporaryDirectory(prefix="kumpan-cluster-", dir="/tmp") as folder:
        cluster = Cluster(Path(folder))
        try:
            cluster.start()
            if given.trial:
                found = asyncio.run(trial(cluster))
                print(found.lines())
                return 0 if found.lost == found.doubled == 0 and found.alike else 1
            print(f"Kumpan answers at {cluster.address} (Ctrl-C ends it; nothing of it is kept).", flush=True)
            signal.sigwait({signal.SIGINT, signal.SIGTERM})
        finally:
            cluster.stop()
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
