"""A tag on every answer of the API, so that polling what has not changed costs a few bytes."""

from hashlib import blake2b

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send


class ETag:
    """ASGI middleware: tags GET answers under /api/; 304 when the client names the same tag."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer 304 to who has this very answer already."""
        if scope["type"] != "http" or scope["method"] != "GET" or not scope["path"].startswith("/api/"):
            await self._app(scope, receive, send)
            return
        known = Headers(scope=scope).get("if-none-match", "")
        start: Message = {}
        body = b""

        async def tagged(message: Message) -> None:
            nonlocal start, body
            if message["type"] == "http.response.start":
                start = message
                return
            body += message.get("body", b"")
            if message.get("more_body"):
                return
            await _send(start, body, known, send)

        await self._app(scope, receive, tagged)


async def _send(start: Message, body: bytes, known: str, send: Send) -> None:
    headers = MutableHeaders(raw=start["headers"])
    if start["status"] == 200:
        tag = f'W/"{blake2b(body, digest_size=12).hexdigest()}"'
        headers["ETag"] = tag
        headers.setdefault("Cache-Control", "private, no-cache")
        if tag in known:
            start["status"], body = 304, b""
            del headers["content-length"]
    start["headers"] = headers.raw
    await send(start)
    await send({"type": "http.response.body", "body": body})
