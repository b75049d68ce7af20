"""So many requests are worked on at once; the others wait for their turn.

Each holds the rows and states of its pool while it is worked on. More of them at once make nothing faster
on one processor, only all of them slower and the memory larger.
"""

import asyncio

from starlette.types import ASGIApp, Receive, Scope, Send

from kumpan.web.auth.permissions import API

MOST = 8


class Turns:
    """Stands inside the body limit: who sends slowly holds nobody's turn."""

    def __init__(self, app: ASGIApp, most: int = MOST) -> None:
        self.app = app
        self._turn = asyncio.Semaphore(most)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Wait for a turn, then pass on; what is no use case of ours waits for none."""
        if scope["type"] != "http" or not scope["path"].startswith(f"{API}/"):
            await self.app(scope, receive, send)
            return
        async with self._turn:
            await self.app(scope, receive, send)
