"""Stored summaries are made anew in the background: lists are read, and nothing is reckoned for them."""

import asyncio
from collections.abc import Callable
from datetime import datetime, timedelta
from functools import cache
from hashlib import sha256
from pathlib import Path
from uuid import UUID, uuid4

import structlog

import kumpan
from kumpan.core.errors import KumpanError
from kumpan.core.quantities.units import Units
from kumpan.services.assessment.summaries import Renewal, renew
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.views import PoolHeader as CoreHeader
from kumpan.services.visits.views import StopInside as CoreStop
from kumpan.services.visits.views import VisitView as CoreVisit
from kumpan.storage.schema import HEAD
from kumpan.storage.transaction import Database
from kumpan.web.responses.shared import PoolHeader
from kumpan.web.responses.visits import StopInside, VisitView
from kumpan.wording.reader import METRIC_READER, US_READER

READERS = {Units.US: US_READER, Units.METRIC: METRIC_READER}
AT_ONCE, REST_S, LEASED_FOR = 20, 2.0, timedelta(seconds=30)


def tell(head: CoreHeader) -> dict[str, object]:
    """A head in both units, as it goes out."""
    return {units: PoolHeader.of(head, reader).model_dump(mode="json") for units, reader in READERS.items()}


def tell_stop(stop: CoreStop, units: Units) -> dict[str, object]:
    """A stop of a round without its head, as it goes out."""
    return StopInside.of(stop, READERS[units]).model_dump(mode="json")


def tell_visit(visit: CoreVisit) -> dict[str, object]:
    """A finished visit, as it goes out: a person's own words."""
    return VisitView.of(visit).model_dump(mode="json")


@cache
def program() -> str:
    """What tells this version of the program from others: their summaries are made anew."""
    found = sha256()
    for file in sorted(Path(kumpan.__file__).parent.rglob("*.py")):
        found.update(file.read_bytes())
    return found.hexdigest()[:16]


def renewal() -> Renewal:
    """How summaries are made here."""
    return Renewal(tell, tell_stop, tell_visit, program())


async def keep_renewing(database: Database, clock: Callable[[], datetime]) -> None:
    """For as long as the program runs: what is out of date is made anew, each in a transaction of its own.

    Of several processes one does it; where that one dies, another takes over.
    """
    own = uuid4()
    while True:
        try:
            current = await database.revision() == HEAD  # while it is being brought up to date, wait
            mine = current and await _is_mine(database, own, clock())
            found = await renew_some(database, clock()) if mine else 0
        except KumpanError:
            found = 0  # the database is gone, or somebody wrote the same: the next time
        except Exception as trouble:
            structlog.get_logger().error("summaries cannot be renewed", exc_info=trouble)
            found = 0
        if found < AT_ONCE:
            await asyncio.sleep(REST_S)


async def _is_mine(database: Database, own: UUID, now: datetime) -> bool:
    async with database.transaction() as tx:
        return await tx.leases.take("summaries", own, now, LEASED_FOR)


async def renew_some(database: Database, now: datetime, most: int = AT_ONCE) -> int:
    """Those longest out of date; how many they were."""
    async with database.transaction() as tx:
        due = await tx.summaries.out_of_date(now, program(), most=most)
    for workspace_id, pool_id in due:
        async with database.transaction() as tx:
            await renew(Scope(tx, workspace_id, now), pool_id, renewal())
        await asyncio.sleep(0)  # let a request in between
    return len(due)
