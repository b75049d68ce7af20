"""How often one sender may write: far above what people and their devices do, far below a flood.

Counted in this process: with several of them a sender has so much more, which still is no flood.
"""

from limits import RateLimitItem, RateLimitItemPerMinute
from limits.aio.storage import MemoryStorage
from limits.aio.strategies import FixedWindowRateLimiter
from starlette.types import ASGIApp, Receive, Scope, Send

from kumpan.services.people.access import Principal
from kumpan.web.auth.permissions import API, OPEN, SAFE
from kumpan.web.errors import error_response

SIGNED_IN, STRANGER = RateLimitItemPerMinute(6000), RateLimitItemPerMinute(600)
TOO_FAST = "Too many requests at once from here; wait a minute, then send it again."


class Pace:
    """429 for who writes faster than any use of the trade. The stateless calculations are not counted."""

    def __init__(
        self, app: ASGIApp, signed_in: RateLimitItem = SIGNED_IN, stranger: RateLimitItem = STRANGER
    ) -> None:
        self.app = app
        self.signed_in, self.stranger = signed_in, stranger
        self.limiter = FixedWindowRateLimiter(MemoryStorage())

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass on what comes at a walk."""
        writes = scope["type"] == "http" and scope["method"] not in SAFE
        if writes and scope["path"].startswith(f"{API}/") and scope["path"] not in OPEN:
            principal: Principal | None = scope.get("state", {}).get("principal")
            address = scope["client"][0] if scope.get("client") else ""
            person = principal.person_id if principal is not None else None
            limit, sender = (self.stranger, address) if person is None else (self.signed_in, str(person))
            if not await self.limiter.hit(limit, sender):
                await error_response(429, "too_many", TOO_FAST)(scope, receive, send)
                return
        await self.app(scope, receive, send)
