"""A running Kumpan: parts that are killed come back, several web processes are one, two purposes stay apart."""

import asyncio
import os
import signal
import threading
import time
from collections.abc import Iterator
from pathlib import Path
from uuid import uuid4

import httpx
import pytest

from kumpan.tools import serving
from kumpan.tools.console import Stop
from kumpan.tools.ports import free_port
from kumpan.tools.serving import Running
from tests.web.conftest import pool_body

PATIENCE_S = 90
WATER = {
    "free_chlorine": "1", "total_chlorine": "1", "ph": "7.9", "total_alkalinity": "100",
    "calcium_hardness": "260", "cyanuric_acid": "40", "temperature_c": "82F",
}  # fmt: skip


@pytest.fixture(scope="module")
def running(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Running]:
    """Two web processes with the demo, watched as `./run` watches them."""
    found = Running(free_port(), tmp_path_factory.mktemp("kumpan serving"), workers=2)
    stopped = threading.Event()
    try:
        found.start(demo=True)
        watch = threading.Thread(target=found.wait, args=(stopped,))
        watch.start()
        yield found
    finally:
        stopped.set()
        watch.join()
        found.stop()


def until_ready(running: Running) -> None:
    """Ask until it is ready again; each asking takes its time."""
    deadline = time.monotonic() + PATIENCE_S
    while not serving.answers(f"{running.address}/api/ready"):
        assert time.monotonic() < deadline


def log_of(running: Running, pool: str) -> list[str]:
    reply = httpx.get(
        f"{running.address}/api/v1/pools/{pool}/log", headers=running.as_office, timeout=PATIENCE_S
    )
    return [line["kind"] for line in reply.raise_for_status().json()]


async def sent_until_taken(client: httpx.AsyncClient, path: str, tick: dict[str, object]) -> int:
    """As a device sends: a database too busy to answer is asked again, with the same id."""
    while (reply := await client.post(path, json=tick)).status_code == 503:
        assert reply.json()["error"]["code"] == "unavailable"
    return reply.status_code


async def test_one_step_ticked_through_both_processes_is_poured_once(running: Running) -> None:
    pool = str(uuid4())
    path = f"{running.address}/api/v1"
    async with httpx.AsyncClient(headers=running.as_office, timeout=PATIENCE_S) as client:
        (await client.post(f"{path}/pools", json=pool_body(pool))).raise_for_status()
        test = {"id": str(uuid4()), "fields": WATER, "kit": "drops", "temperature_unit": "f"}
        (await client.post(f"{path}/pools/{pool}/tests", json=test)).raise_for_status()
        sheet = (await client.post(f"{path}/pools/{pool}/sheets", json={"id": str(uuid4())})).json()
        step = next(line["number"] for line in sheet["steps"] if line["step"]["kind"] == "add")
        ticks = [{"id": str(uuid4()), "step_number": step, "outcome": "done"} for _ in range(8)]
        to = f"{path}/pools/{pool}/sheets/{sheet['id']}/ticks"
        found = sorted(await asyncio.gather(*(sent_until_taken(client, to, tick) for tick in ticks)))
    assert found == [200] + [409] * 7
    assert log_of(running, pool).count("addition") == 1


@pytest.mark.parametrize("victim", ["web", "database"])
def test_a_part_that_is_killed_comes_back_and_nothing_acknowledged_is_lost(
    running: Running, victim: str
) -> None:
    pool, path = str(uuid4()), f"{running.address}/api/v1"
    httpx.post(
        f"{path}/pools", json=pool_body(pool), headers=running.as_office, timeout=PATIENCE_S
    ).raise_for_status()
    process = running.web if victim == "web" else running.database.process
    assert process is not None
    os.killpg(process.pid, signal.SIGKILL)
    process.wait(PATIENCE_S)
    until_ready(running)
    assert log_of(running, pool).count("settings") == 1


def test_a_demo_and_own_pools_never_share_a_data_directory(running: Running) -> None:
    with pytest.raises(Stop, match="holds a demo; give --data another one"):
        Running(free_port(), running.folder).start(demo=False)


def test_a_part_that_keeps_ending_is_said_and_given_up(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    found = Running(free_port(), tmp_path)
    for _ in range(serving.MOST_ENDS_A_MINUTE):
        found._count_end("The web server")
    assert "is started again" in capsys.readouterr().out
    with pytest.raises(Stop, match="5 times within a minute"):
        found._count_end("The web server")
