"""Refuse bodies over a limit before they are read into memory, and those that never arrive."""

import asyncio

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kumpan.web.errors import error_response

LIMIT_BYTES = 1_000_000
READ_WITHIN_S = 20.0  # for each part of a body: half-sent requests hold nothing for ever


class BodyLimit:
    """ASGI middleware: 413 for a declared or streamed body over the limit."""

    def __init__(self, app: ASGIApp, limit_bytes: int = LIMIT_BYTES) -> None:
        self._app = app
        self._limit = limit_bytes

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a request on, or refuse a body that is too large."""
        if scope["type"] != "http" or scope["method"] in ("GET", "HEAD"):
            await self._app(scope, receive, send)
            return
        messages: list[Message] = []
        size = 0
        while True:
            try:
                message = await asyncio.wait_for(receive(), READ_WITHIN_S)
            except TimeoutError:
                await error_response(408, "slow", "body: did not arrive; send it again.")(
                    scope, receive, send
                )
                return
            messages.append(message)
            size += len(message.get("body", b""))
            if size > self._limit:
                await error_response(413, "too_large", "body: is over 1 MB; send less at once.")(
                    scope, receive, send
                )
                return
            if message["type"] != "http.request" or not message.get("more_body"):
                break
        waiting = iter(messages)

        async def replay() -> Message:
            return next(waiting, None) or await receive()

        await self._app(scope, replay, send)
