"""A journal that is brought in over HTTP: joined to what stands here, whole or not at all."""

import json
from typing import Any

import pytest

from tests.web.conftest import Api, new_id


def entries_of(content: bytes) -> list[bytes]:
    return content.splitlines()[1:]


async def brought_in(api: Api, pool_id: str, content: bytes, status: int = 201) -> Any:
    reply = await api.client.post(f"/api/v1/pools/{pool_id}/journal", content=content)
    assert reply.status_code == status, reply.text
    return reply.json()


async def a_journal(api: Api) -> tuple[str, bytes]:
    pool = await api.new_pool()
    await api.test(pool, ph="7.5", free_chlorine="3")
    return pool, (await api.client.get(f"/api/v1/pools/{pool}/journal.jsonl")).content


async def test_a_file_joins_what_stands_here_and_refuses_what_differs(api: Api) -> None:
    pool, content = await a_journal(api)
    more = json.loads(content.splitlines()[-1]) | {"id": new_id(), "at": "2026-05-01T10:00:00Z"}
    header = json.loads(content.splitlines()[0]) | {"entries": 5}
    longer = b"\n".join([json.dumps(header).encode(), *entries_of(content), json.dumps(more).encode()])
    assert await brought_in(api, pool, longer) == {
        "pool_id": pool,
        "name": "Test pool",
        "added": 1,
        "known": 4,
    }
    differs = content.replace(b'"kind":"test"', b'"kind":"look"')
    refused = await brought_in(api, pool, differs, 409)
    assert "something else here" in refused["error"]["message"]
    assert len(await api.get(f"/pools/{pool}/log")) == 5


@pytest.mark.parametrize(
    ("fields", "said"),
    [
        ({"at": "1989-12-31T00:00:00Z"}, "1990"),
        ({"at": "2999-01-01T00:00:00Z"}, "future"),
        ({"recorded_at": "2999-01-01T00:00:00Z"}, "future"),
        ({"supersedes": "00000000-0000-4000-8000-000000000009"}, "not there"),
        ({"supersedes": "00000000-0000-4000-8000-000000000001"}, "ring"),
    ],
)
async def test_what_no_journal_can_say_brings_nothing_in(api: Api, fields: dict[str, str], said: str) -> None:
    _, content = await a_journal(api)
    pool = new_id()
    header = json.loads(content.splitlines()[0]) | {"entries": 1, "pool": pool}
    line = json.loads(content.splitlines()[-1]) | {"id": "00000000-0000-4000-8000-000000000001", **fields}
    refused = await brought_in(api, pool, f"{json.dumps(header)}\n{json.dumps(line)}".encode(), 422)
    assert said in refused["error"]["message"]
    assert len(await api.pools()) == 1


async def test_a_journal_of_another_pool_or_of_somebody_elses_is_refused(api: Api) -> None:
    pool, content = await a_journal(api)
    assert "another pool" in (await brought_in(api, new_id(), content, 422))["error"]["message"]
    other = new_id()
    moved = content.replace(pool.encode(), other.encode())
    assert "in another pool here" in (await brought_in(api, other, moved, 409))["error"]["message"]
    await api.post(f"/pools/{pool}/archive", {"back": False})
    assert "archived" in (await brought_in(api, pool, content, 409))["error"]["message"]
    assert len(await api.pools()) == 0


async def test_who_is_not_known_here_is_named_and_has_left(api: Api) -> None:
    _, content = await a_journal(api)
    lines = [json.loads(line) for line in content.splitlines()]
    pool = new_id()
    lines[0]["pool"] = pool
    for n, line in enumerate(lines[1:]):
        line |= {"id": new_id(), "by": "Ann Onym", "workspace": f"Firm {n % 2}"}
    text = "\n".join(json.dumps(line) for line in lines).encode()
    reply = await api.client.post("/api/v1/journals", content=text)
    assert (reply.status_code, reply.json()["pool_id"]) == (201, pool)
    assert {line["by"] for line in await api.get(f"/pools/{pool}/log")} == {"Ann Onym"}
    (ann,) = [one for one in await api.get("/members") if one["name"] == "Ann Onym"]
    assert ann["ended_at"] is not None


async def test_a_long_journal_is_taken_and_a_stranger_sends_none(api: Api) -> None:
    """Over the limit of other bodies; nobody who is not signed in makes the server read it."""
    _, content = await a_journal(api)
    pool = new_id()
    lines = [json.loads(line) for line in content.splitlines()]
    note = {**lines[-1], "kind": "long", "body": {"text": "x" * 1_200_000}, "id": new_id()}
    header = {**lines[0], "pool": pool, "entries": 1}
    text = f"{json.dumps(header)}\n{json.dumps(note)}".encode()
    assert (await brought_in(api, pool, text))["added"] == 1
    del api.client.headers["authorization"]
    assert (await api.client.post("/api/v1/journals", content=text)).status_code == 401
