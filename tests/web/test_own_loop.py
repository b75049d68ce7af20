"""A request that computes holds back no answer that the server gives by itself."""

import asyncio
import threading
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager

import httpx
import pytest
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kumpan.web.health import ALIVE, alive
from kumpan.web.own_loop import OwnLoop

PATIENCE_S = 60


class Work:
    """An app that computes until it is let go, and says on which thread and what it was sent."""

    def __init__(self) -> None:
        self.begun, self.let_go = threading.Event(), threading.Event()
        self.threads: set[str] = set()
        self.lived: list[str] = []

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        self.threads.add(threading.current_thread().name)
        if scope["type"] == "lifespan":
            while (message := await receive())["type"] != "lifespan.shutdown":
                self.lived.append(message["type"])
                await send({"type": "lifespan.startup.complete"})
            self.lived.append(message["type"])
            await send({"type": "lifespan.shutdown.complete"})
            return
        if scope["path"] == "/broken":
            raise ValueError("broken")
        if scope["path"] == "/long":
            self.begun.set()
            assert self.let_go.wait(PATIENCE_S)  # as arithmetic does, it holds its loop
        body = (await receive())["body"]
        await send({"type": "http.response.start", "status": 200, "headers": [(b"x-own", b"1")]})
        await send({"type": "http.response.body", "body": b"got ", "more_body": True})
        await send({"type": "http.response.body", "body": body})


@asynccontextmanager
async def served(work: ASGIApp) -> AsyncIterator[httpx.AsyncClient]:
    app = OwnLoop(work, alive, frozenset({ALIVE}))
    orders: asyncio.Queue[Message] = asyncio.Queue()
    answers: asyncio.Queue[Message] = asyncio.Queue()
    life = asyncio.ensure_future(app({"type": "lifespan"}, orders.get, answers.put))
    await orders.put({"type": "lifespan.startup"})
    assert (await answers.get())["type"] == "lifespan.startup.complete"
    async with httpx.AsyncClient(transport=httpx.ASGITransport(app), base_url="http://kumpan") as client:
        yield client
    await orders.put({"type": "lifespan.shutdown"})
    assert (await answers.get())["type"] == "lifespan.shutdown.complete"
    await life


async def test_whether_it_lives_is_answered_while_a_request_computes() -> None:
    work = Work()
    async with served(work) as client:
        long = asyncio.ensure_future(client.post("/long", content=b"it"))
        assert await asyncio.to_thread(work.begun.wait, PATIENCE_S)
        assert (await client.get(ALIVE)).json() == {"ok": True}
        assert not long.done()
        work.let_go.set()
        reply = await long
    assert reply.text == "got it"
    assert reply.headers["x-own"] == "1"
    assert work.threads == {"app"}
    assert work.lived == ["lifespan.startup", "lifespan.shutdown"]


async def test_a_fault_of_the_app_reaches_the_server() -> None:
    async with served(Work()) as client:
        with pytest.raises(ValueError, match="broken"):
            await client.get("/broken")
        assert (await client.get("/next")).status_code == 200


async def test_nothing_is_passed_on_before_the_start() -> None:
    app = OwnLoop(Work(), alive, frozenset({ALIVE}))
    client = httpx.AsyncClient(transport=httpx.ASGITransport(app), base_url="http://kumpan")
    async with client:
        with pytest.raises(RuntimeError):
            await client.get("/too-soon")
