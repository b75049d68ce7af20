"""Every route and method, walked by everybody: signed out, each role, another workspace, a guest, a token.

The table of `web/auth/permissions.py` is the one place that says who may; here each of its rows is tried.
"""

import re
import sys
from collections import Counter
from collections.abc import AsyncIterator
from dataclasses import dataclass, replace
from uuid import UUID, uuid4

import httpx
import pytest_asyncio

from kumpan.services.journal.ledger import Scope
from kumpan.services.people.access import Role
from kumpan.services.people.commands import add_person
from kumpan.services.people.links import LinkKind, new_link
from kumpan.services.people.queries import the_workspace
from kumpan.services.people.team import new_token
from kumpan.storage.transaction import Database
from kumpan.web.auth.cookies import GUEST
from kumpan.web.auth.permissions import MAKE_POOLS, OPEN, OPEN_UNDER, READING_POSTS, ROUTES, may
from kumpan.web.main import build_app
from tests.web.conftest import START, Api, Json, new_id, office_token, running

OTHERS = UUID(int=2)
REFUSED = (401, 403, 404)
PERSONS = ("/me/", "/members/", "/links", "/shares", "/offers/", "/delete", "/hooks")
Headers = dict[str, str]


@dataclass(frozen=True, kw_only=True)
class Walker:
    """Somebody who tries everything; `sees` the pool that the routes are tried with."""

    name: str
    headers: Headers
    role: Role | None
    sees: bool
    reads_only: bool = False


@dataclass(frozen=True)
class House:
    """Two workspaces: one with a pool, an entry and people of every role; the other with its own office."""

    api: Api
    pool: str
    entry: str
    walkers: tuple[Walker, ...]


@pytest_asyncio.fixture
async def house(database_url: str) -> AsyncIterator[House]:
    database = Database(database_url)
    office = await office_token(database)
    async with running(database_url) as api:
        own: Headers = {"authorization": f"Bearer {office}"}
        api.client.headers.update(own)
        pool = await api.new_pool()
        entry = await api.test(pool, ph="7.4")
        walkers = [Walker(name="office", headers=own, role=Role.OFFICE, sees=True)]
        walkers += await _people(database, pool)
        api.client.headers.pop("authorization")
        walkers.append(Walker(name="signed out", headers={}, role=None, sees=False))
        yield House(api, pool, entry, tuple(walkers))
    await database.close()


async def _people(database: Database, pool: str) -> list[Walker]:
    found = []
    async with database.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), START)
        for role in (Role.TECHNICIAN, Role.OWNER):
            for sees in (True, False):
                person = await add_person(scope, uuid4(), f"{role} {sees}", "", role=role)
                if sees:
                    await tx.accounts.give_pools(person.id, {UUID(pool)})
                found.append(await _by_token(scope, person.id, role, sees=sees))
        person = await add_person(scope, uuid4(), "reader", "", role=Role.OFFICE)
        reader = await _by_token(scope, person.id, Role.OFFICE, sees=True, token_scope="read")
        found.append(replace(reader, name="office, token that reads", reads_only=True))
        _, secret = await new_link(
            replace(scope, person_id=person.id), UUID(pool), LinkKind.GUEST, "the gate"
        )
        guest = {"cookie": f"{GUEST}={secret}"}
        found.append(Walker(name="guest", headers=guest, role=Role.GUEST, sees=True, reads_only=True))
        await tx.workspace.add_workspace(OTHERS, "Another firm", START)
        other = Scope(tx, OTHERS, START)
        person = await add_person(other, uuid4(), "their office", "", role=Role.OFFICE)
        theirs = await _by_token(other, person.id, Role.OFFICE, sees=False)
        found.append(replace(theirs, name="office of another workspace"))
    return found


async def _by_token(
    scope: Scope, person_id: UUID, role: Role, *, sees: bool, token_scope: str = "write"
) -> Walker:
    _, secret = await new_token(replace(scope, person_id=person_id), "walk", token_scope)
    headers = {"authorization": f"Bearer {secret}"}
    return Walker(name=f"{role}, {'given' if sees else 'not given'}", headers=headers, role=role, sees=sees)


def routes() -> list[tuple[str, str]]:
    paths: dict[str, dict[str, Json]] = build_app(None).openapi()["paths"]
    return [(method.upper(), path) for path, methods in paths.items() for method in methods]


WORDS = {
    "key": "backwash",
    "measure": "ph",
    "passkey_id": "none",
    "secret": "x",
    "device": "probe",
    "what": "tests",
    "ending": "csv",
    "kind": "plan",
}


def filled(path: str, **known: str) -> str:
    """An address of a route: what is known, words where words stand, and else the id of nothing."""
    return re.sub(r"\{(\w+)\}", lambda name: {**WORDS, **known}.get(name[1]) or new_id(), path)


def is_open(path: str) -> bool:
    return path in OPEN or path.startswith(OPEN_UNDER)


def expected(walker: Walker, method: str, path: str) -> int | None:
    """The refusal that is due, None where the request is taken (and its body judged)."""
    if walker.role is None:
        return 401
    if not may(walker.role, method, path):
        return 403
    if walker.reads_only and method != "GET" and path not in READING_POSTS:
        return 403
    if walker.name != "guest" and method != "GET" and any(part in path for part in PERSONS):
        return 403  # a token makes no other way in
    bound = ("{pool_id}" in path or "{entry_id}" in path) and path not in MAKE_POOLS
    return 404 if bound and not walker.sees else None


async def test_every_route_is_walked_by_everybody(house: House) -> None:
    """Signed out it is 401 before the body is looked at: what is sent then is no JSON at all."""
    wrong, counts = [], Counter[str]()
    for method, path in routes():
        if is_open(path):
            continue
        address = filled(path, pool_id=house.pool, entry_id=house.entry)
        for walker in house.walkers:
            body = "{" if walker.role is None else "{}"
            headers = {"content-type": "application/json", **walker.headers}
            content = body if method == "POST" else None
            reply = await house.api.client.request(method, address, headers=headers, content=content)
            due = expected(walker, method, path)
            counts[f"{due or 'taken'}"] += 1
            taken = reply.status_code not in (401, 403) if due is None else reply.status_code == due
            if not taken:
                wrong.append(f"{walker.name}: {method} {path} is {reply.status_code}, not {due or 'taken'}")
    sys.stdout.write(f"{sum(counts.values())} cases: {dict(counts)}\n")
    assert wrong == []
    assert counts["401"] >= 90
    assert counts["403"] > 200
    assert counts["404"] > 150


def test_every_route_stands_in_the_table_and_the_table_holds_no_other() -> None:
    known = {key for key in routes() if not is_open(key[1])}
    assert set(ROUTES) == known


async def test_open_are_only_calculations_signing_in_and_secret_links(house: House) -> None:
    for method, path in routes():
        address = filled(path, pool_id=house.pool)
        reply = await house.api.client.request(method, address, content="{" if method == "POST" else None)
        assert (reply.status_code == 401) == (not is_open(path)), (method, path, reply.status_code)
    assert (await house.api.client.get("/api/health")).status_code == 200
    assert (await house.api.client.get("/api/openapi.json")).status_code == 200


async def test_lists_hold_only_what_one_may_see(house: House) -> None:
    for walker in house.walkers:
        if walker.role in (None, Role.GUEST):
            continue
        reply: httpx.Response = await house.api.client.get("/api/v1/pools", headers=walker.headers)
        seen = [head["id"] for head in reply.json()["pools"]]
        assert seen == ([house.pool] if walker.sees else []), walker.name
