"""Every route answers bad input with a sentence and a 4xx: never a 500, never a stack of words.

The routes are read from our own OpenAPI document, so that a new one is tested the day it is written.
"""

import re
from typing import Any

from kumpan.web.main import build_app
from tests.web.conftest import Api, Json, new_id

DOCUMENT: dict[str, Any] = build_app(None).openapi()
ROUTES = sorted(
    (method.upper(), path)
    for path, methods in DOCUMENT["paths"].items()
    for method in methods
    if path.startswith("/api/v1")
)
BODIES: tuple[Json, ...] = (
    None, [], {}, "words", 7, {"id": "not-a-uuid"}, {"id": 3}, {"unknown": True},
    {"id": "00000000-0000-0000-0000-000000000001", "at": "yesterday"},
    {"id": "00000000-0000-0000-0000-000000000002", "at": "2026-06-01T10:00:00"},
    {"id": "00000000-0000-0000-0000-000000000003", "task": "\u0000", "kind": "x" * 5000, "values": {"": ""}},
)  # fmt: skip
NOBODY = "00000000-0000-0000-0000-00000000dead"


def filled(path: str, pool: str) -> str:
    """The path with a real pool, and with something that is not there in every other place."""
    return re.sub(r"\{(\w+)\}", lambda name: pool if name[1] == "pool_id" else NOBODY, path)


def routes(method: str) -> list[str]:
    return [path for known, path in ROUTES if known == method]


async def test_a_bad_body_is_told_and_nothing_breaks(api: Api) -> None:
    """All routes in one test: each needs only the same pool."""
    pool, wrong = await api.new_pool(), []
    for path in routes("POST"):
        for body in BODIES:
            reply = await api.client.post(filled(path, pool), json=body)
            reported = reply.json()["error"]["message"] if 400 <= reply.status_code < 500 else ""
            if reply.status_code >= 500 or (reported and not 10 < len(reported) < 400):
                wrong.append((path, body, reply.status_code, reply.text[:200]))
    assert wrong == []


async def test_a_get_with_nonsense_is_told_and_nothing_breaks(api: Api) -> None:
    pool, wrong = await api.new_pool(), []
    for path in routes("GET"):
        for query in (
            "",
            "?days=0",
            "?weekday=9",
            "?metric=perhaps",
            "?plan=fly",
            "?answers=no&answers=x&tree=y",
        ):
            reply = await api.client.get(filled(path, pool) + query)
            if reply.status_code >= 500 or (
                reply.status_code >= 400 and not reply.json()["error"]["message"]
            ):
                wrong.append((path, query, reply.status_code, reply.text[:200]))
    assert wrong == []


async def test_a_pool_that_is_not_here_is_not_found(api: Api) -> None:
    found = {
        path: (await api.client.get(filled(path, new_id()) + "?tree=check_cell")).status_code
        for path in routes("GET")
        if "{pool_id}" in path
    }
    assert len(found) > 15
    assert {path: status for path, status in found.items() if status not in (404, 422)} == {}


async def test_a_body_that_is_no_json_is_told(api: Api) -> None:
    pool = await api.new_pool()
    for content in (b"", b"{", b"\xff\xfe", b"[" * 2000):
        reply = await api.client.post(
            f"/api/v1/pools/{pool}/care/done", content=content, headers={"content-type": "application/json"}
        )
        assert 400 <= reply.status_code < 500
        assert reply.json()["error"]["message"]
