"""Many at once wait for each other, in order; what says whether the process is ready waits for nobody."""

import asyncio

import httpx
from starlette.types import Receive, Scope, Send

from kumpan.web.turns import Turns


class Busy:
    """Answers when it is let, and knows how many it held at once."""

    def __init__(self) -> None:
        self.now = self.most = 0
        self.let = asyncio.Event()
        self.entered = asyncio.Condition()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        await receive()
        async with self.entered:
            self.now += 1
            self.most = max(self.most, self.now)
            self.entered.notify_all()
        if scope["path"].startswith("/api/v1/"):
            await self.let.wait()
        await send({"type": "http.response.start", "status": 200, "headers": []})
        await send({"type": "http.response.body", "body": b""})
        self.now -= 1


async def test_no_more_than_so_many_are_worked_on_at_once_and_all_are_answered() -> None:
    busy = Busy()
    transport = httpx.ASGITransport(Turns(busy, most=2))
    async with httpx.AsyncClient(transport=transport, base_url="http://kumpan") as client:
        asked = [asyncio.ensure_future(client.get(f"/api/v1/pools/{n}")) for n in range(6)]
        async with busy.entered:
            await busy.entered.wait_for(lambda: busy.now == 2)
        assert (await client.get("/api/ready")).status_code == 200
        busy.most = 0
        busy.let.set()
        answers = await asyncio.gather(*asked)
    assert [answer.status_code for answer in answers] == [200] * 6
    assert busy.most <= 2
