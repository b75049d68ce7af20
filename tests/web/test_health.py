"""The database frozen, killed, of another version, back again: said at once, and all goes on by itself."""

import asyncio
import os
import signal
import tempfile
from collections.abc import AsyncIterator, Awaitable, Callable
from dataclasses import dataclass
from pathlib import Path

import httpx
import pytest_asyncio
from alembic.script import ScriptDirectory

from kumpan.storage.schema import HEAD
from kumpan.storage.transaction import Database
from kumpan.tools.mariadb_server import MariaDbServer
from kumpan.tools.packages import ROOT
from kumpan.tools.serving import DATABASE, prepare
from tests.web.conftest import Api, new_id, office_token, running, stateless

__all__ = ["stateless"]
LOOK = {"clarity": "clear", "level": "normal"}
PATIENCE_S = 60  # for a loaded machine; what is frozen never answers by itself


@dataclass
class Ground:
    """Kumpan on a server of its own, to be hurt."""

    api: Api
    server: MariaDbServer
    pool: str

    def signal(self, what: signal.Signals) -> None:
        assert self.server.process is not None
        os.kill(self.server.process.pid, what)

    async def ready(self) -> tuple[int, str]:
        reply = await self.api.client.get("/api/ready")
        return reply.status_code, reply.json()["reason"]


@pytest_asyncio.fixture
async def ground() -> AsyncIterator[Ground]:
    with tempfile.TemporaryDirectory(prefix="kumpan ground ") as folder:
        server = MariaDbServer(Path(folder))
        server.start()  # durable: it is killed
        server.run_sql(f"CREATE DATABASE {DATABASE}")
        url = server.url(DATABASE)
        prepare(url)
        database = Database(url)
        token = await office_token(database)
        await database.close()
        async with running(url) as api:
            api.client.headers["authorization"] = f"Bearer {token}"
            yield Ground(api, server, await api.new_pool())
        server.stop()


async def until(found: Callable[[], Awaitable[bool]]) -> None:
    """Ask again until it holds."""
    async with asyncio.timeout(PATIENCE_S):
        while not await found():
            pass  # each asking takes its time


async def test_a_frozen_database_is_said_and_thawed_all_goes_on(ground: Ground) -> None:
    look = {"id": new_id(), **LOOK}
    ground.signal(signal.SIGSTOP)
    try:
        async with asyncio.timeout(PATIENCE_S):
            status, reason = await ground.ready()
            assert (status, "does not answer" in reason) == (503, True)
            for path in ("/pools", f"/pools/{ground.pool}", "/auth/state"):
                reply = await ground.api.client.get(f"/api/v1{path}")
                assert reply.status_code == 503, path
                assert reply.json()["error"]["code"] == "unavailable"
            sent = await ground.api.client.post(f"/api/v1/pools/{ground.pool}/looks", json=look)
            assert sent.status_code == 503
            assert (await ground.api.client.get("/api/health")).status_code == 200
    finally:
        ground.signal(signal.SIGCONT)
    await until(lambda: _is_ready(ground))
    await ground.api.post(f"/pools/{ground.pool}/looks", look, 201)


async def _is_ready(ground: Ground) -> bool:
    return (await ground.ready())[0] == 200


async def test_a_killed_database_is_said_and_what_was_acknowledged_is_there_again(ground: Ground) -> None:
    first = {"id": new_id(), **LOOK}
    await ground.api.post(f"/pools/{ground.pool}/looks", first, 201)
    ground.signal(signal.SIGKILL)
    assert ground.server.process is not None
    ground.server.process.wait(PATIENCE_S)
    assert (await ground.ready())[0] == 503
    assert (await ground.api.client.get("/api/v1/pools")).status_code == 503
    ground.server.restart()
    await until(lambda: _is_ready(ground))
    await ground.api.post(f"/pools/{ground.pool}/looks", first, 201)  # sent again: answered, not doubled
    log = await ground.api.get(f"/pools/{ground.pool}/log")
    assert [line["kind"] for line in log].count("look") == 1


async def test_a_database_of_another_version_is_not_ready(ground: Ground) -> None:
    ground.server.run_sql(f"UPDATE {DATABASE}.alembic_version SET version_num = '9999'")
    status, reason = await ground.ready()
    assert status == 503
    assert reason == f"The database is at version 9999, the program at {HEAD}."


def test_the_version_is_that_of_the_last_migration() -> None:
    assert ScriptDirectory(str(ROOT / "migrations")).get_current_head() == HEAD


async def test_without_a_database_it_lives_and_is_not_ready(stateless: httpx.AsyncClient) -> None:
    assert (await stateless.get("/api/health")).status_code == 200
    reply = await stateless.get("/api/ready")
    assert (reply.status_code, reply.json()["reason"]) == (503, "There is no database.")
