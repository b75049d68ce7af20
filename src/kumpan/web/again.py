"""A request whose transaction collided with another one is done once more: nothing of it was saved.

InnoDB ends one of two transactions that wait for each other; a cluster refuses the second of two writers on
two nodes. Both are told so at the end, so that only the whole use case can be done again, not its last step.
"""

from starlette.datastructures import MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kumpan.web.errors import AGAIN

MOST_TIMES = 4


class Again:
    """Stands inside the body limit, so that the body is in memory and short."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Send on the first answer that is no collision, or the last."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        body = [await receive()]
        while body[-1].get("more_body"):
            body.append(await receive())
        for left in range(MOST_TIMES - 1, -1, -1):
            answer = _Answer(send, may_drop=left > 0)
            tried = dict(scope)
            await self.app(tried, _replayed(body, receive), answer)
            scope["route"] = tried.get("route")  # for whoever watches from outside
            if not answer.dropped:
                return


class _Answer:
    """Sends an answer on, or drops it where it says that the request collided."""

    def __init__(self, send: Send, *, may_drop: bool) -> None:
        self.send = send
        self.may_drop = may_drop
        self.dropped = False

    async def __call__(self, message: Message) -> None:
        """One part of it."""
        if message["type"] == "http.response.start":
            headers = MutableHeaders(raw=message["headers"])
            if AGAIN in headers:
                del headers[AGAIN]
                self.dropped = self.may_drop
        if not self.dropped:
            await self.send(message)


def _replayed(body: list[Message], receive: Receive) -> Receive:
    parts = iter(body)

    async def replay() -> Message:
        return next(parts, None) or await receive()

    return replay
