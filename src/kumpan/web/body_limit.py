"""Refuse bodies over a limit before they are read into memory, and those that never arrive."""

import asyncio
import re

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kumpan.web.errors import error_response

LIMIT_BYTES = 1_000_000
FILE_LIMIT_BYTES = 64_000_000
FILES = re.compile(
    r"/api/v1/(journals|imports|workspace/archive|pools/[^/]+/(journal|photos))"
)  # who may send files is somebody known here
READ_WITHIN_S = 20.0  # for each part of a body: half-sent requests hold nothing for ever


class BodyLimit:
    """ASGI middleware: 413 for a declared or streamed body over the limit, which is higher for files."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass a request on, or refuse a body that is too large."""
        if scope["type"] != "http" or scope["method"] in ("GET", "HEAD"):
            await self._app(scope, receive, send)
            return
        known = scope.get("state", {}).get("principal") is not None
        limit = FILE_LIMIT_BYTES if known and FILES.fullmatch(scope["path"]) else LIMIT_BYTES
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
            if size > limit:
                too_large = f"body: is over {limit // 1_000_000} MB; send less at once."
                await error_response(413, "too_large", too_large)(scope, receive, send)
                return
            if message["type"] != "http.request" or not message.get("more_body"):
                break
        waiting = iter(messages)

        async def replay() -> Message:
            return next(waiting, None) or await receive()

        await self._app(scope, replay, send)
