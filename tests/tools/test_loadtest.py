"""The load test's own arithmetic: its table, and what it takes for an error."""

import httpx
import pytest

from kumpan.tools.loadtest import MIX, Found, _timed


def test_a_row_tells_rate_middle_p95_and_errors() -> None:
    found = Found(ms=[float(n) for n in range(1, 101)], errors=["503"])
    assert found.line("today", 50.0) == "| today | 2.0 | 50 | 95 | 1 |"


def test_a_row_of_nothing_is_no_fault() -> None:
    assert Found().line("list", 10.0) == "| list | 0.0 | nan | nan | 0 |"


@pytest.mark.parametrize(("status", "errors"), [(200, 0), (404, 1), (503, 1)])
async def test_what_is_no_answer_is_an_error(status: int, errors: int) -> None:
    transport = httpx.MockTransport(lambda _: httpx.Response(status, text="x"))
    found = Found()
    async with httpx.AsyncClient(transport=transport, base_url="http://localhost") as client:
        await _timed(found, client.get("/"))
        for _, work in MIX.values():
            assert (await work(client, "p")).status_code == status
    assert (len(found.errors), len(found.ms)) == (errors, 1 - errors)


async def test_no_answer_at_all_is_an_error() -> None:
    def gone(request: httpx.Request) -> httpx.Response:
        raise httpx.ConnectError("gone", request=request)

    found = Found()
    async with httpx.AsyncClient(transport=httpx.MockTransport(gone), base_url="http://localhost") as client:
        await _timed(found, client.get("/"))
    assert found.errors == ["ConnectError"]
