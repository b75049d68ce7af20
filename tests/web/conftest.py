"""The API over ASGI against the real MariaDB, committing for real, with a clock that tests set."""

from collections.abc import AsyncIterator, Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

import httpx
import pytest_asyncio

from kumpan.storage.transaction import Database
from kumpan.web.main import build_app

Json = Any
START = datetime(2026, 6, 1, 23, 0, tzinfo=UTC)


@dataclass
class Api:
    """A client with a few words of the trade; `now` is what the server believes."""

    client: httpx.AsyncClient
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


@pytest_asyncio.fixture
async def api(database_url: str) -> AsyncIterator[Api]:
    database = Database(database_url)
    holder: list[Api] = []
    app = build_app(database, clock=lambda: holder[0].now)
    transport = httpx.ASGITransport(app=app, raise_app_exceptions=False)
    async with (
        app.router.lifespan_context(app),
        httpx.AsyncClient(transport=transport, base_url="http://kumpan") as client,
    ):
        holder.append(Api(client))
        yield holder[0]


@pytest_asyncio.fixture
async def stateless() -> AsyncIterator[httpx.AsyncClient]:
    """The calculation endpoints, without any database."""
    app = build_app(None)
    transport = httpx.ASGITransport(app=app, raise_app_exceptions=False)
    async with (
        app.router.lifespan_context(app),
        httpx.AsyncClient(transport=transport, base_url="http://kumpan") as client,
    ):
        yield client


def new_id() -> str:
    return str(UUID(int=uuid4().int))
