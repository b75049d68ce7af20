"""A flood of writes is refused, each sender counted apart; reading and calculating are not."""

import httpx
from limits import RateLimitItemPerMinute
from starlette.responses import PlainTextResponse
from starlette.types import Receive, Scope, Send

from kumpan.services.people.access import Principal, Role
from kumpan.web.pace import SIGNED_IN, STRANGER, Pace
from tests.web.conftest import OFFICE_ID


async def taken(scope: Scope, receive: Receive, send: Send) -> None:
    await PlainTextResponse("taken")(scope, receive, send)


def client(address: str, pace: Pace, *, signed_in: bool = False) -> httpx.AsyncClient:
    principal = Principal(workspace_id=OFFICE_ID, role=Role.OFFICE, person_id=OFFICE_ID)

    async def app(scope: Scope, receive: Receive, send: Send) -> None:
        scope["state"] = {"principal": principal if signed_in else None}
        await pace(scope, receive, send)

    transport = httpx.ASGITransport(app=app, client=(address, 1))
    return httpx.AsyncClient(transport=transport, base_url="http://localhost")


async def statuses(http: httpx.AsyncClient, times: int, path: str, method: str = "POST") -> list[int]:
    return [(await http.request(method, f"/api/v1{path}")).status_code for _ in range(times)]


async def test_who_floods_is_refused_and_nobody_else() -> None:
    pace = Pace(taken, signed_in=RateLimitItemPerMinute(5), stranger=RateLimitItemPerMinute(2))
    async with client("192.0.2.1", pace) as stranger, client("192.0.2.2", pace) as other:
        assert await statuses(stranger, 3, "/auth/sign-in") == [200, 200, 429]
        assert await statuses(other, 1, "/auth/sign-in") == [200]
        assert await statuses(stranger, 3, "/auth/state", "GET") == [200] * 3
        assert await statuses(stranger, 3, "/water/after") == [200] * 3
    async with client("192.0.2.1", pace, signed_in=True) as office:
        assert await statuses(office, 6, "/pools") == [200] * 5 + [429]


def test_the_limits_are_far_above_what_a_round_writes() -> None:
    """A round of 40 stops sent at once by a device that was offline: common practice, some 20 entries each."""
    assert SIGNED_IN.amount > 40 * 20 * 2
    assert STRANGER.amount >= 60
