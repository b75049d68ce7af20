"""Ten years in three ugly sheets give the same forecast as the journal that they were written from."""

from datetime import UTC, datetime
from typing import Any
from uuid import UUID

import pytest

from kumpan.services.imports.making import work_off
from tests.services.imports.ten_years import journal_of, sheets, ten_years
from tests.web.conftest import Api, new_id

END = datetime(2026, 9, 18, 17, 40, tzinfo=UTC)


async def native(api: Api) -> str:
    """A pool whose journal was brought in as it is."""
    pool = await api.new_pool(settings={"name": "Native", "time_zone": "America/Chicago"})
    content = (await api.client.get(f"/api/v1/pools/{pool}/journal.jsonl")).content
    text = journal_of(UUID(pool), END, content.splitlines()[1:], "Native")
    reply = await api.client.post(f"/api/v1/pools/{pool}/journal", content=text)
    assert reply.status_code == 201, reply.text
    assert reply.json()["added"] == len(ten_years(END)) > 2000
    return pool


@pytest.mark.no_cover
async def test_ten_years_in_three_sheets_forecast_as_their_journal(api: Api) -> None:
    api.now = END
    pool = await native(api)
    twin = await api.new_pool(settings={"name": "Twin", "time_zone": "America/Chicago"})
    for name, content in sheets(END).items():
        reply = await api.client.post(f"/api/v1/imports?id={new_id()}&name={name}", content=content)
        view = reply.json()
        path, manner = f"/imports/{view['file']['id']}", {**view["manner"], "pool_id": twin}
        shown = await api.post(f"{path}/preview", {**manner, "verdict": "refused"})
        assert (shown["refused"], shown["shown"]) == (0, [])
        await api.post(f"{path}/apply", manner, 202)
        await work_off(api.database, api.now)
        assert (await api.get(path))["file"]["state"] == "applied"
    api.pass_time(minutes=1)
    kinds: list[dict[str, int]] = []
    for one in (pool, twin):
        log = await api.get(f"/pools/{one}/log")
        kinds.append(
            {kind: sum(line["kind"] == kind for line in log) for kind in ("test", "look", "addition")}
        )
    assert kinds[0] == kinds[1]
    expected: list[dict[str, Any]] = [
        (await api.get(f"/pools/{one}/assessment"))["expected"] for one in (pool, twin)
    ]
    for measure, value in expected[0].items():
        if value is not None:
            assert expected[1][measure] == pytest.approx(value, rel=0.02), measure
    ahead = [await api.get(f"/pools/{one}/outlook") for one in (pool, twin)]
    assert ahead[0].keys() == ahead[1].keys()
