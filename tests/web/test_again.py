"""A request that collided is done once more with the same body, and no more often than that helps."""

import httpx
import pytest
from starlette.responses import JSONResponse
from starlette.types import Receive, Scope, Send

from kumpan.web.again import MOST_TIMES, Again
from kumpan.web.errors import AGAIN


class Colliding:
    """An app that collides so many times before it answers; what it was sent stays in `bodies`."""

    def __init__(self, times: int) -> None:
        self.times = times
        self.bodies: list[bytes] = []

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        body, more = b"", True
        while more:
            message = await receive()
            body += message.get("body", b"")
            more = message.get("more_body", False)
        self.bodies.append(body)
        collides = len(self.bodies) <= self.times
        status, headers = (503, {AGAIN: "1"}) if collides else (201, {})
        await JSONResponse({"tried": len(self.bodies)}, status, headers)(scope, receive, send)


async def sent(app: Colliding, method: str = "POST") -> httpx.Response:
    transport = httpx.ASGITransport(app=Again(app))
    async with httpx.AsyncClient(transport=transport, base_url="http://localhost") as client:
        return await client.request(method, "/x", content=b"the whole of it")


@pytest.mark.parametrize("times", range(MOST_TIMES))
async def test_it_is_done_again_until_it_succeeds(times: int) -> None:
    app = Colliding(times)
    reply = await sent(app)
    assert (reply.status_code, reply.json()) == (201, {"tried": times + 1})
    assert app.bodies == [b"the whole of it"] * (times + 1)


async def test_what_collides_for_ever_is_answered_as_unavailable_and_without_our_mark() -> None:
    app = Colliding(99)
    reply = await sent(app)
    assert reply.status_code == 503
    assert AGAIN not in reply.headers
    assert len(app.bodies) == MOST_TIMES


async def test_what_reads_is_done_again_as_well() -> None:
    """A list may make summaries anew while it is read, and meet another one there."""
    app = Colliding(1)
    assert (await sent(app, "GET")).status_code == 201
    assert len(app.bodies) == 2
