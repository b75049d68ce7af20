"""What every journal route needs: a transaction, the workspace, and the time now."""

from collections.abc import AsyncIterator
from datetime import UTC, datetime
from typing import Annotated

from fastapi import Depends, Query, Request

from kumpan.services.journal.ledger import Scope
from kumpan.services.people.people import the_workspace
from kumpan.storage.transaction import Database


def clock(request: Request) -> datetime:
    """The time now; tests put another clock on the app."""
    now: datetime = request.app.state.clock()
    return now


def utc_now() -> datetime:
    return datetime.now(UTC)


async def open_scope(request: Request) -> AsyncIterator[Scope]:
    """One transaction a request; it commits before the answer is sent."""
    database: Database = request.app.state.database
    now = clock(request)
    async with database.transaction() as tx:
        yield Scope(tx, await the_workspace(tx), now)


# function scope: the commit happens before the response leaves, so "saved" means saved.
ScopeDep = Annotated[Scope, Depends(open_scope, scope="function")]
Metric = Annotated[bool, Query(description="amounts in metric units instead of US customary")]
