"""The API over ASGI against the real MariaDB, committing for real, with a clock that tests set."""

import json
import os
import re
from collections.abc import AsyncIterator, Awaitable, Callable, Mapping
from contextlib import asynccontextmanager
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

import httpx
import pytest_asyncio
from fastapi import FastAPI

from kumpan.services.journal.ledger import Scope
from kumpan.services.people.access import Role
from kumpan.services.people.commands import add_person
from kumpan.services.people.queries import the_workspace
from kumpan.services.people.team import new_token
from kumpan.storage.transaction import Database
from kumpan.web.auth.door import AT_HOME, Door
from kumpan.web.main import build_app

Json = Any
OFFICE_ID = UUID(int=1)
START = datetime(2026, 6, 1, 23, 0, tzinfo=UTC)


@dataclass
class Api:
    """A client with a few words of the trade; `now` is what the server believes."""

    client: httpx.AsyncClient
    database: Database
    now: datetime = field(default=START)

    async def get(self, path: str) -> Json:
        reply = await self.client.get(f"/api/v1{path}")
        assert reply.status_code == 200, reply.text
        return reply.json()

    async def post(self, path: str, body: Mapping[str, Json], status: int | None = None) -> Json:
        self.pass_time(milliseconds=1)
        reply = await self.client.post(f"/api/v1{path}", json=body)
        assert reply.status_code == status if status else reply.is_success, reply.text
        return reply.json()

    async def pools(self, query: str = "") -> Json:
        """The first page of the pools, by name unless the query says else."""
        return (await self.get(f"/pools?{query or 'sort=name'}"))["pools"]

    def pass_time(self, **parts: float) -> None:
        self.now += timedelta(**parts)

    async def new_pool(self, **changes: Json) -> str:
        pool_id = str(uuid4())
        await self.post("/pools", pool_body(pool_id, **changes))
        return pool_id

    async def test(self, pool_id: str, **fields: str) -> str:
        body = {"id": str(uuid4()), "fields": fields, "kit": "drops", "temperature_unit": "f"}
        found: str = await self.post(f"/pools/{pool_id}/tests", body)
        return found


def pool_body(pool_id: str, **changes: Json) -> dict[str, Json]:
    """A plaster pool of 32 by 16 ft, 3 to 8 ft deep; `changes` replace whole sections."""
    return {
        "id": pool_id,
        "entry_ids": [str(uuid4()) for _ in range(3)],
        "settings": {"name": "Test pool", "time_zone": "America/Chicago"},
        "basin": {
            "unit": "ft",
            "parts": [
                {
                    "shape": "rectangle",
                    "length": "32",
                    "width": "16",
                    "depths": [{"distance": "0", "depth": "3"}, {"distance": "32", "depth": "8"}],
                }
            ],
            "fixtures": [{"kind": "skimmer", "along": 0.9}, {"kind": "return", "along": 0.2}],
        },
        "equipment": {"surface": "plaster", "chlorination": "liquid", "filter": "sand"},
        **changes,
    }


async def office_token(database: Database) -> str:
    """A token of the workspace's office, as `./run demo` makes one; its person is named after nobody."""
    async with database.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), START)
        person = await add_person(scope, OFFICE_ID, "The Office", "TO", role=Role.OFFICE)
        _, secret = await new_token(replace(scope, person_id=person.id), "tests", "write")
    return secret


@asynccontextmanager
async def running(database_url: str, door: Door = AT_HOME) -> AsyncIterator[Api]:
    """The app over ASGI, with a client that nobody has signed in with."""
    database = Database(database_url)
    holder: list[Api] = []
    app = build_app(database, clock=lambda: holder[0].now, door=door)
    transport = httpx.ASGITransport(app=app, raise_app_exceptions=False)
    async with (
        app.router.lifespan_context(app),
        httpx.AsyncClient(
            transport=transport, base_url="http://localhost", event_hooks={"response": recorders(app)}
        ) as client,
    ):
        holder.append(Api(client, database))
        yield holder[0]


def recorders(app: FastAPI) -> list[Callable[[httpx.Response], Awaitable[None]]]:
    """What hears the answers for `./run examples`; nothing in an ordinary run."""
    folder = os.environ.get("KUMPAN_RECORD")
    if not folder:
        return []
    paths = [(path, methods) for path, methods in app.openapi()["paths"].items()]
    # What is written out goes before what stands for anything.
    paths.sort(key=lambda one: one[0].count("{"))
    routes = [
        (re.compile(re.sub(r"\\\{\w+\\\}", "[^/]+", re.escape(path))), path, methods)
        for path, methods in paths
    ]

    async def record(reply: httpx.Response) -> None:
        if not reply.is_success or "json" not in reply.headers.get("content-type", ""):
            return
        method = reply.request.method
        for pattern, path, methods in routes:
            if method.lower() in methods and pattern.fullmatch(reply.request.url.path):
                said: dict[str, Json] = {
                    "route": f"{method} {path}",
                    "answer": json.loads(await reply.aread()),
                }
                if reply.request.content[:1] == b"{":
                    said["body"] = json.loads(reply.request.content)
                with (Path(folder) / f"{os.getpid()}.jsonl").open("a") as file:
                    file.write(json.dumps(said) + "\n")
                return

    return [record]


@pytest_asyncio.fixture
async def api(database_url: str) -> AsyncIterator[Api]:
    """The office sends every request, by a token."""
    database = Database(database_url)
    secret = await office_token(database)
    await database.close()
    async with running(database_url) as found:
        found.client.headers["authorization"] = f"Bearer {secret}"
        yield found


@pytest_asyncio.fixture
async def stateless() -> AsyncIterator[httpx.AsyncClient]:
    """The calculation endpoints, without any database."""
    app = build_app(None)
    transport = httpx.ASGITransport(app=app, raise_app_exceptions=False)
    async with (
        app.router.lifespan_context(app),
        httpx.AsyncClient(transport=transport, base_url="http://localhost") as client,
    ):
        yield client


def new_id() -> str:
    return str(UUID(int=uuid4().int))
