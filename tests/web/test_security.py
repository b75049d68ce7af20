"""What other sites get: nothing. Hosts, origins, frames, headers, sizes."""

import httpx
import pytest

from kumpan.web.auth.door import Door
from kumpan.web.main import build_app
from kumpan.web.security import HEADERS, name_of_host
from tests.web.conftest import stateless

__all__ = ["stateless"]
WATER = {"readings": {"ph": 7.5}}


@pytest.mark.parametrize(
    "host", ["evil.example", "evil.example:8000", "127.0.0.1.evil.example", "localhost.evil", ""]
)
async def test_a_name_that_is_not_ours_gets_nothing(stateless: httpx.AsyncClient, host: str) -> None:
    """DNS rebinding: another site's name that leads to this machine."""
    for path in ("/api/health", "/api/v1/pools", "/"):
        assert (await stateless.get(path, headers={"host": host})).status_code == 421


@pytest.mark.parametrize("host", ["localhost:8000", "127.0.0.1", "[::1]:8000", "LOCALHOST"])
async def test_our_own_names_are_served(stateless: httpx.AsyncClient, host: str) -> None:
    assert (await stateless.get("/api/health", headers={"host": host})).status_code == 200


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({}, 200),
        ({"origin": "http://localhost"}, 200),
        ({"sec-fetch-site": "same-origin"}, 200),
        ({"origin": "https://localhost"}, 403),
        ({"origin": "http://localhost:8001"}, 403),
        ({"origin": "http://evil.example"}, 403),
        ({"origin": "null"}, 403),
        ({"sec-fetch-site": "cross-site"}, 403),
        ({"sec-fetch-site": "same-site"}, 403),
    ],
)
async def test_what_writes_comes_from_our_own_pages(
    stateless: httpx.AsyncClient, headers: dict[str, str], status: int
) -> None:
    found = await stateless.post("/api/v1/water/analysis", json=WATER, headers=headers)
    assert found.status_code == status


async def test_every_answer_carries_the_headers(stateless: httpx.AsyncClient) -> None:
    for reply in (
        await stateless.get("/api/health"),
        await stateless.get("/nothing"),
        await stateless.get("/api/v1/pools"),
        await stateless.get("/api/health", headers={"host": "evil.example"}),
    ):
        for name, value in HEADERS.items():
            assert reply.headers[name] == value
        assert "server" not in reply.headers
        assert "strict-transport-security" not in reply.headers
    policy = HEADERS["content-security-policy"]
    assert "unsafe" not in policy
    assert "frame-ancestors 'none'" in policy


async def test_behind_tls_browsers_are_told_to_stay_there() -> None:
    app = build_app(None, door=Door(strict_transport=True))
    transport = httpx.ASGITransport(app=app)
    async with httpx.AsyncClient(transport=transport, base_url="http://localhost") as client:
        assert "max-age" in (await client.get("/api/health")).headers["strict-transport-security"]


async def test_an_address_has_an_end(stateless: httpx.AsyncClient) -> None:
    assert (await stateless.get("/" + "a" * 5000)).status_code == 414
    assert (await stateless.get("/api/v1/pools/%00")).status_code == 414


@pytest.mark.parametrize(
    ("host", "name"), [("a.example:80", "a.example"), ("[2001:db8::1]:8000", "2001:db8::1"), ("B", "b")]
)
def test_the_port_is_no_part_of_the_name(host: str, name: str) -> None:
    assert name_of_host(host) == name


@pytest.mark.parametrize("method", ["TRACE", "PUT", "DELETE", "PATCH", "OPTIONS", "CONNECT", "FOO"])
@pytest.mark.parametrize(
    "path", ["/api/v1/water/analysis", "/api/v1/pools", "/api/health", "/", "/api/v1/auth/state"]
)
async def test_a_method_that_nothing_takes_is_told_which_are(
    stateless: httpx.AsyncClient, method: str, path: str
) -> None:
    reply = await stateless.request(method, path)
    assert reply.status_code == 405
    assert reply.headers["allow"] == "GET, HEAD, POST"


async def test_a_method_that_one_address_does_not_take_is_told_which_it_does(
    stateless: httpx.AsyncClient,
) -> None:
    reply = await stateless.get("/api/v1/water/analysis")
    assert (reply.status_code, reply.headers["allow"]) == (405, "POST")
