"""What every journal route needs: a transaction, the workspace, and the time now."""

from collections.abc import AsyncIterator, Mapping
from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated
from uuid import UUID

from fastapi import Depends, Query, Request

from kumpan.core.errors import NotPermitted
from kumpan.core.messages import Message
from kumpan.core.quantities.units import Units
from kumpan.services.journal.ledger import Scope, entry_row, require_pool, time_of_turn
from kumpan.services.people.access import Principal, Role, pools_seen
from kumpan.services.people.queries import the_workspace
from kumpan.storage.transaction import Database
from kumpan.web.auth.permissions import BY_A_PERSON_ONLY, MAKE_POOLS, READING_POSTS, SAFE, STAFF, may
from kumpan.wording.catalogs import best_language
from kumpan.wording.reader import Reader


def clock(request: Request) -> datetime:
    """The time now; tests put another clock on the app."""
    now: datetime = request.app.state.clock()
    return now


def utc_now() -> datetime:
    """The clock."""
    return datetime.now(UTC)


def principal_of(request: Request) -> Principal:
    """Who sends it. Raises NotPermitted where that role may not send this request."""
    principal: Principal | None = request.state.principal
    if principal is None:
        raise NotPermitted(Message("Sign in first."))
    route = request.scope["route"].path_format
    if not may(principal.role, request.method, route):
        raise NotPermitted(Message("Your role here does not do this; ask the office."))
    if principal.read_only and request.method not in SAFE and route not in READING_POSTS:
        raise NotPermitted(Message("This only reads: a guest link or a token for reading."))
    writes = request.method not in SAFE
    if principal.by_token and writes and any(part in route for part in BY_A_PERSON_ONLY):
        raise NotPermitted(Message("A token makes no other way in; sign in as a person."))
    return principal


PrincipalDep = Annotated[Principal, Depends(principal_of)]


async def open_scope(request: Request, principal: PrincipalDep) -> AsyncIterator[Scope]:
    """One transaction a request, for who sends it; it commits before the answer is sent."""
    database: Database = request.app.state.database
    now = clock(request)
    async with database.transaction() as tx:
        scope = Scope(
            tx,
            principal.workspace_id,
            now,
            person_id=principal.person_id,
            for_others=principal.role is Role.OFFICE,
            staff=principal.role in STAFF,
            address=principal.address,
        )
        scope = replace(scope, pools=await pools_seen(tx, principal, scope))
        makes_pool = request.method not in SAFE and request.scope["route"].path_format in MAKE_POOLS
        pool_id = None if makes_pool else await _theirs(scope, request.path_params)
        if request.method not in SAFE and request.scope["route"].path_format not in READING_POSTS:
            await _alone(scope, pool_id)
            scope = replace(scope, now=await time_of_turn(scope, pool_id, clock(request)))
        yield scope


async def _theirs(scope: Scope, named: Mapping[str, str]) -> UUID | None:
    """What the address names is of this workspace and for who asks: found out before the body is checked.

    The pool that it is about, None where it is about none.
    """
    try:
        pool_id = UUID(named["pool_id"]) if "pool_id" in named else None
        entry_id = UUID(named["entry_id"]) if "entry_id" in named else None
    except ValueError:
        return None  # the route's own check says it better
    if entry_id is not None:
        return (await entry_row(scope, entry_id)).pool_id
    if pool_id is not None:
        await require_pool(scope, pool_id)
    return pool_id


async def _alone(scope: Scope, pool_id: UUID | None) -> None:
    """Two requests that write to one pool, or to one workspace's shelf and people, come one after the other:
    the second sees what the first did. Else one step ticked by two at once would be poured twice.
    """
    if pool_id is not None:
        await scope.tx.journal.one_writer(pool_id)
    else:
        await scope.tx.workspace.one_writer(scope.workspace_id)


async def open_house(request: Request) -> AsyncIterator[Scope]:
    """One transaction for what nobody has to be signed in for: the first workspace, no person, no pool."""
    database: Database = request.app.state.database
    async with database.transaction() as tx:
        address = request.client.host if request.client else ""
        yield Scope(tx, await the_workspace(tx), clock(request), pools=frozenset(), address=address)


HouseDep = Annotated[Scope, Depends(open_house, scope="function")]


# function scope: the commit happens before the response leaves, so "saved" means saved.
ScopeDep = Annotated[Scope, Depends(open_scope, scope="function")]


def units_of(
    *, metric: Annotated[bool, Query(description="amounts in metric units instead of US customary")] = False
) -> Units:
    """The units of a request that asks for metric amounts or does not."""
    return Units.METRIC if metric else Units.US


UnitsDep = Annotated[Units, Depends(units_of)]


def reader_of(request: Request, units: UnitsDep) -> Reader:
    """Who reads the answer: units by the query, language by what the client accepts and the program has."""
    accepted = [tag.split(";")[0].strip() for tag in request.headers.get("accept-language", "").split(",")]
    return Reader(units, best_language(accepted))


ReaderDep = Annotated[Reader, Depends(reader_of)]
