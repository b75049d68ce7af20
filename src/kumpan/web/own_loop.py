"""The app on an event loop and a thread of its own, so that the loop of the server is always free.

What one request computes holds the loop it runs on. The server's own loop takes connections, and answers
whether the process lives; everything else is passed to the loop behind it and back.
"""

import asyncio
import sys
import threading
from collections.abc import Coroutine
from concurrent.futures import Future
from typing import Any, TypeVar

import uvloop
from starlette.types import ASGIApp, Message, Receive, Scope, Send

T = TypeVar("T")

# How long a thread that computes may hold back the one that answers; five times as long by default.
HANDS_OVER_S = 0.001


class OwnLoop:
    """`at_once` answers the paths that it names on the server's loop; `app` all others on its own."""

    def __init__(self, app: ASGIApp, at_once: ASGIApp, paths: frozenset[str]) -> None:
        self.app, self.at_once, self.paths = app, at_once, paths
        self.loop: asyncio.AbstractEventLoop | None = None

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a request on. The server's start and end are the app's too."""
        if scope["type"] == "http" and scope["path"] in self.paths:
            await self.at_once(scope, receive, send)
        elif scope["type"] == "lifespan":
            self._start()
            try:
                await self._passed_on(scope, receive, send)
            finally:
                self._stop()
        else:
            await self._passed_on(scope, receive, send)

    async def _passed_on(self, scope: Scope, receive: Receive, send: Send) -> None:
        here, there = asyncio.get_running_loop(), self._running()

        started: list[Message] = []

        async def received() -> Message:
            return await receive()

        async def sent(*messages: Message) -> None:
            for message in messages:
                await send(message)

        async def receive_there() -> Message:
            return await _on(here, received())

        async def send_there(message: Message) -> None:
            started.append(message)
            if message["type"] != "http.response.start":  # the head goes with the first of the body
                await _on(here, sent(*started))
                started.clear()

        async def whole() -> None:
            await self.app(scope, receive_there, send_there)

        await _on(there, whole())

    def _running(self) -> asyncio.AbstractEventLoop:
        if self.loop is None:
            raise RuntimeError("no request before the start of the server")
        return self.loop

    def _start(self) -> None:
        sys.setswitchinterval(HANDS_OVER_S)
        self.loop = uvloop.new_event_loop()
        threading.Thread(target=self._serve, args=(self.loop,), name="app", daemon=True).start()

    @staticmethod
    def _serve(loop: asyncio.AbstractEventLoop) -> None:
        asyncio.set_event_loop(loop)
        loop.run_forever()
        loop.close()

    def _stop(self) -> None:
        loop, self.loop = self._running(), None
        loop.call_soon_threadsafe(loop.stop)


async def _on(loop: asyncio.AbstractEventLoop, work: Coroutine[Any, Any, T]) -> T:
    """What the work gives, done on that loop; ended there when nobody waits here any more."""
    future: Future[T] = asyncio.run_coroutine_threadsafe(work, loop)
    return await asyncio.wrap_future(future)
