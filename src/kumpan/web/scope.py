"""What every journal route needs: a transaction, the workspace, and the time now."""

from collections.abc import AsyncIterator
from datetime import UTC, datetime
from typing import Annotated

from fastapi import Depends, Query, Request

from kumpan.core.quantities.units import Units
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.queries import the_workspace
from kumpan.storage.transaction import Database
from kumpan.wording.catalogs import best_language
from kumpan.wording.reader import Reader


def clock(request: Request) -> datetime:
    """The time now; tests put another clock on the app."""
    now: datetime = request.app.state.clock()
    return now


def utc_now() -> datetime:
    """The clock."""
    return datetime.now(UTC)


async def open_scope(request: Request) -> AsyncIterator[Scope]:
    """One transaction a request; it commits before the answer is sent."""
    database: Database = request.app.state.database
    now = clock(request)
    async with database.transaction() as tx:
        yield Scope(tx, await the_workspace(tx), now)


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
