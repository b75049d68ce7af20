"""What looking up who sends a request costs: the same request with and without the session's check."""

import asyncio
import statistics
import time
from collections.abc import Awaitable, Callable, Mapping
from contextlib import AsyncExitStack
from unittest import mock

import httpx
from starlette.requests import HTTPConnection

from kumpan.services.people.access import Principal
from kumpan.services.workers import WORKERS
from kumpan.storage.transaction import Database
from kumpan.tools.browser import OFFICE
from kumpan.tools.serving import DATABASE, Running
from kumpan.web.auth import authentication
from kumpan.web.auth.door import Door
from kumpan.web.main import build_app

WARM, RUNS, BAR = 20, 200, 1.3
Find = Callable[[HTTPConnection, Database], Awaitable[Principal | None]]


def bench_people(running: Running) -> None:
    """A heavy and a light request, signed in, against the same with the check bypassed, in turns."""
    asyncio.run(_measured(running.database.url(DATABASE)))


async def _measured(url: str) -> None:
    app = build_app(Database(url), door=Door(demo=True), at_end=WORKERS.stop)
    known: list[Principal] = []
    real = authentication.find

    async def noted(connection: HTTPConnection, database: Database) -> Principal | None:
        found = await real(connection, database)
        if found is not None:
            known[:] = [found]
        return found

    async def bypassed(_: HTTPConnection, __: Database) -> Principal | None:
        return known[0]

    async with AsyncExitStack() as stack:
        await stack.enter_async_context(app.router.lifespan_context(app))
        transport = httpx.ASGITransport(app=app)
        client = await stack.enter_async_context(
            httpx.AsyncClient(transport=transport, base_url="http://localhost")
        )
        people = (await client.get("/api/v1/auth/state")).json()["demo"]
        office = next(one["id"] for one in people if one["name"] == OFFICE)
        await client.post("/api/v1/auth/demo", json={"person_id": office})
        with mock.patch.object(authentication, "find", noted):
            pool = (await client.get("/api/v1/pools")).json()["pools"][0]["id"]
        for path in (f"/api/v1/pools/{pool}", "/api/v1/shelf"):
            print(await _compared(client, path, {"checked": real, "bypassed": bypassed}))


async def _compared(client: httpx.AsyncClient, path: str, finders: Mapping[str, Find]) -> str:
    times: dict[str, list[float]] = {name: [] for name in finders}
    for n in range(WARM + RUNS):
        for name, find in finders.items():
            with mock.patch.object(authentication, "find", find):
                began = time.perf_counter()
                reply = await client.get(path)
                took = (time.perf_counter() - began) * 1000
            reply.raise_for_status()
            if n >= WARM:
                times[name].append(took)
    checked, plain = (statistics.median(times[name]) for name in ("checked", "bypassed"))
    what = path.split("/")[3]
    return (
        f"signed-in request ({what}): {checked:.1f} ms, its check bypassed {plain:.1f} ms, "
        f"{checked / plain:.2f} x (bar: {BAR})"
    )
