"""Counts, times and lines of the log: each request once, by its route, and nothing that people wrote."""

import json
from collections.abc import Iterator

import httpx
import pytest
import structlog
from prometheus_client.parser import text_string_to_metric_families
from structlog.testing import LogCapture

from kumpan.web.main import build_app
from kumpan.web.watching import REQUESTS
from tests.web.conftest import Api, api, new_id

__all__ = ["api"]
SECRET = "a-secret-of-a-calendar-link"


@pytest.fixture
def lines() -> Iterator[LogCapture]:
    """What is logged, in place of where it goes."""
    before, capture = structlog.get_config(), LogCapture()
    structlog.configure(processors=[structlog.contextvars.merge_contextvars, capture])
    yield capture
    structlog.configure(**before)


def client(app: object, address: str = "127.0.0.1", **headers: str) -> httpx.AsyncClient:
    transport = httpx.ASGITransport(app=app, client=(address, 1), raise_app_exceptions=False)  # type: ignore[arg-type]
    return httpx.AsyncClient(transport=transport, base_url="http://localhost", headers=headers)


async def test_each_request_is_one_line_by_its_route_and_without_peoples_words(
    api: Api, lines: LogCapture
) -> None:
    pool = await api.new_pool(settings={"name": "Nell's own pool", "time_zone": "America/Chicago"})
    look = {"id": new_id(), "clarity": "clear", "level": "normal", "note": "the gate sticks"}
    await api.post(f"/pools/{pool}/looks", look)
    await api.client.get(f"/api/v1/feeds/{SECRET}.ics")
    seen = [line for line in lines.entries if line["event"] == "request"]
    assert [(line["method"], line["route"], line["status"]) for line in seen] == [
        ("POST", "/api/v1/pools", 201),
        ("POST", "/api/v1/pools/{pool_id}/looks", 201),
        ("GET", "/api/v1/feeds/{secret}.ics", 404),
    ]
    assert len({line["request"] for line in seen}) == 3
    text = json.dumps(lines.entries, default=str)
    for private in (SECRET, "gate sticks", "Nell", pool):
        assert private not in text


async def test_a_fault_is_logged_once_under_the_id_that_was_answered(lines: LogCapture) -> None:
    app = build_app(None)

    @app.get("/api/v1/auth/broken")
    def broken() -> None:
        raise ZeroDivisionError

    async with client(app) as http:
        reply = await http.get("/api/v1/auth/broken")
    assert reply.status_code == 500
    faults = [line for line in lines.entries if line["log_level"] == "error"]
    assert [line["request"] for line in faults] == [reply.headers["x-request-id"]]
    assert reply.json()["error"]["message"].startswith("Something went wrong here")


async def test_metrics_count_and_are_read_here_or_with_the_token() -> None:
    app = build_app(None, metrics_token="s3cret-token")
    labels = {"method": "POST", "route": "/api/v1/water/analysis", "status": "200"}
    before = REQUESTS.labels(**labels)._value.get()
    async with client(app) as http:
        for _ in range(3):
            assert (await http.post("/api/v1/water/analysis", json={"readings": {}})).status_code == 200
        await http.get("/api/v1/no/such/thing?with=words")
        told = (await http.get("/metrics")).text
    found = {family.name: family for family in text_string_to_metric_families(told)}
    counted = next(
        one
        for one in found["kumpan_requests"].samples
        if one.labels == labels and one.name.endswith("_total")
    )
    assert counted.value == before + 3
    assert any(one.labels.get("route") == labels["route"] for one in found["kumpan_request_seconds"].samples)
    assert "no/such/thing" not in told
    assert "words" not in told
    for address, headers, status in (
        ("192.0.2.1", {}, 403),
        ("192.0.2.1", {"authorization": "Bearer guess"}, 403),
        ("192.0.2.1", {"authorization": "Bearer s3cret-token"}, 200),
        ("127.0.0.1", {"x-forwarded-for": "192.0.2.1"}, 403),
        ("::1", {}, 200),
    ):
        async with client(app, address, **headers) as http:
            assert (await http.get("/metrics")).status_code == status, (address, headers)
